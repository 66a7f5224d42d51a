package gather

import (
	"cmp"
	"fmt"
	"slices"
)

// A Schedule says who plays when a tune is handed on every few beats, while everybody goes on fingering.
type Schedule struct {
	Beats   int        `json:"beats" doc:"of the tune"`
	Bar     int        `json:"bar" doc:"beats of a bar"`
	Each    int        `json:"each" doc:"beats before it is handed on"`
	Players int        `json:"players"`
	Rounds  []Handed   `json:"rounds" doc:"of the tune, the first ones"`
	All     int        `json:"all" doc:"rounds until each has played each passage"`
	Moves   bool       `json:"moves" doc:"whoever begins moves on by one, because players and passages fall together"`
	After   int        `json:"after" doc:"rounds after which the beginning moves on; 0 where it does not"`
	Suits   []Suitable `json:"suits" doc:"numbers of beats that suit, the best first"`
}

// A Handed is one round of a tune.
type Handed struct {
	Starts int    `json:"starts" doc:"who starts, from 0"`
	Turns  []Turn `json:"turns"`
}

// A Turn is what one player plays at a stretch; a turn that goes on over the end is two.
type Turn struct {
	Player int `json:"player" doc:"from 0"`
	From   int `json:"from" doc:"beat, from 0"`
	To     int `json:"to" doc:"the beat after the last"`
}

// A Suitable is a number of beats a turn, and how many rounds it takes.
type Suitable struct {
	Each   int `json:"each"`
	Rounds int `json:"rounds"`
}

func gcd(a, b int) int {
	for b != 0 {
		a, b = b, a%b
	}
	return a
}

// lcm is the least common multiple.
func lcm(a, b int) int { return a / gcd(a, b) * b }

// mostRounds is how many rounds are written out.
const mostRounds = 12

// HandOver works out who plays when: a tune of so many beats in bars of so many, among so many players,
// handed on every so many beats, over and over without a stop. The passages are the places at which a
// turn can begin; where their number and that of the players have a common measure, a player meets only
// some of them, and whoever begins moves on by one each time the same would come again.
func HandOver(beats, bar, each, players int) (Schedule, error) {
	switch {
	case beats < 1 || beats > 2000:
		return Schedule{}, fmt.Errorf("a tune of %d beats cannot be handed on", beats)
	case each < 1 || each > beats:
		return Schedule{}, fmt.Errorf("it cannot be handed on every %d beats: choose from 1 to %d", each, beats)
	case players < 2:
		return Schedule{}, fmt.Errorf("it takes two to hand it on")
	}
	s := Schedule{Beats: beats, Bar: max(bar, 1), Each: each, Players: players}
	passages := beats / gcd(beats, each)
	again := lcm(passages, players) // turns after which the same comes again
	turns := passages * players     // each player, each passage
	s.All = turns * each / beats
	if again < turns {
		s.Moves, s.After = true, again*each/beats
	}
	var round Handed
	for k, at := 0, 0; k < turns && len(s.Rounds) < mostRounds; k++ {
		player := s.player(k, again)
		for left := each; left > 0; {
			n := min(left, beats-at)
			if len(round.Turns) == 0 {
				round.Starts = player
			}
			round.Turns = append(round.Turns, Turn{player, at, at + n})
			left, at = left-n, at+n
			if at == beats {
				s.Rounds, round, at = append(s.Rounds, round), Handed{}, 0
			}
		}
	}
	s.Rounds = s.Rounds[:min(len(s.Rounds), mostRounds)]
	s.Suits = Suits(beats, bar, players)
	return s, nil
}

// player is who has the kth turn: in order, moved on by one each time the same would come again.
func (s Schedule) player(k, again int) int { return (k + k/again) % s.Players }

// Suits lists numbers of beats that suit a tune, whole bars and half ones first: those with which each
// has played each passage soonest, without the beginning moving.
func Suits(beats, bar, players int) []Suitable {
	type rated struct {
		Suitable
		moves, odd bool
	}
	bar = max(bar, 1)
	var list []rated
	for each := 1; each <= min(beats/2, 4*bar); each++ {
		passages := beats / gcd(beats, each)
		whole := each%bar == 0 || bar%2 == 0 && each == bar/2
		if beats%each > 0 || passages < players {
			continue // it would go on over the end, or somebody would not come to play in a round
		}
		list = append(list, rated{Suitable{each, passages * players * each / beats}, lcm(passages, players) < passages*players, !whole})
	}
	slices.SortStableFunc(list, func(a, b rated) int {
		rank := func(x bool) int {
			if x {
				return 1
			}
			return 0
		}
		return cmp.Or(cmp.Compare(rank(a.odd), rank(b.odd)), cmp.Compare(rank(a.moves), rank(b.moves)), cmp.Compare(a.Rounds, b.Rounds), cmp.Compare(b.Each, a.Each))
	})
	var out []Suitable
	for _, r := range list {
		out = append(out, r.Suitable)
	}
	if len(out) == 0 {
		out = []Suitable{{min(max(bar, 1), beats), 0}}
	}
	return out[:min(len(out), 4)]
}

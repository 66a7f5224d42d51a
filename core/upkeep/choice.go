package upkeep

import (
	"cmp"
	"math"
	"slices"
	"time"

	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/memory"
	"patientladder/core/shelf"
)

// A Piece is a secure piece that a week may hold.
type Piece struct {
	ID       string
	Minutes  int           // to play it once
	Recall   float64       // at the moment asked for
	Memory   memory.Memory // for what a playing would do
	Silent   int           // days since it was last played
	Polished bool          // kept ready to perform
	Carries  []string      // skills being learnt now that it asks for

	keeps float64 // gain of a playing, reckoned once
}

// Once returns how long one playing of an item takes, in minutes, by the bars of
// it that differ and the age that plays it. A judgement: it only shares minutes.
func Once(age int) func(shelf.Item) int {
	base := 3
	if age < 9 {
		base = 2
	}
	return func(it shelf.Item) int { return min(base+max(it.Different, it.Bars/2)/24, 8) }
}

// Pieces lists the secure rungs that are known at a moment, newest first; minutes tells how
// long one playing of an item takes. Cards and drills are no old friends: they come only
// where there is no piece, and before the first book. Common practice, no source.
func Pieces(s ladder.Standing, known Known, at time.Time, minutes func(shelf.Item) int) []Piece {
	secure := make([]*ladder.Rung, 0, len(s.Rungs))
	for i := range s.Rungs {
		if s.Rungs[i].Foothold != nil {
			secure = append(secure, &s.Rungs[i])
		}
	}
	piece := func(r *ladder.Rung) bool { return r.Strand.Piece() }
	if !s.BeforeBook && slices.ContainsFunc(secure, piece) {
		secure = slices.DeleteFunc(secure, func(r *ladder.Rung) bool { return !piece(r) })
	}
	slices.SortStableFunc(secure, func(a, b *ladder.Rung) int { return b.Foothold.Compare(*a.Foothold) })
	out := make([]Piece, 0, len(secure))
	for _, r := range secure {
		k := known.kept[r.ID]
		p := Piece{ID: r.ID, Minutes: minutes(r.Item), Recall: k.memory.Recall(days(k.last, at)), Memory: k.memory, Silent: known.Silent(r.ID, at), Polished: r.Polished}
		for _, list := range [][]string{r.Item.Brings, r.Item.Needs, r.Item.Revisits} {
			for _, id := range list {
				if known.InHand[id] && !slices.Contains(p.Carries, id) {
					p.Carries = append(p.Carries, id)
				}
			}
		}
		out = append(out, p)
	}
	return out
}

// Limit returns the most weeks that a piece may be silent: the usual limit, or
// more when the minutes of a week cannot bring all pieces round in that time.
func Limit(pieces []Piece, minutes int) int {
	all := 0
	for _, p := range pieces {
		all += p.Minutes
	}
	return max(int(judgement.UpkeepSilence), (all+capacity(pieces, minutes)-1)/capacity(pieces, minutes)+3)
}

// capacity is how many of a week's minutes can be counted on: the rest may be
// less than the next piece needs.
func capacity(pieces []Piece, minutes int) int {
	longest := 1
	for _, p := range pieces {
		longest = max(longest, p.Minutes)
	}
	return max(minutes-longest+1, minutes/2, 1)
}

// Choose picks the pieces that a week should hold within its minutes, best
// first.
//
// The gain of a set is what its pieces would lose if they were left out, plus
// what the skills being learnt gain from being carried: the first piece that
// carries a skill counts in full, each further one half of the one before. That
// is monotone and submodular, so that taking what gains most a minute and then
// exchanging is near the optimum. Before that come the longest silent, as many
// as must be played now so that none is ever silent past the limit.
func Choose(pieces []Piece, minutes int) []Piece {
	pieces = slices.Clone(pieces)
	for i := range pieces {
		pieces[i].keeps = keeps(pieces[i])
	}
	limit := Limit(pieces, minutes)
	var chosen []Piece
	var rest []int
	byAge := make([]int, len(pieces))
	for i := range byAge {
		byAge[i] = i
	}
	slices.SortStableFunc(byAge, func(a, b int) int { return cmp.Compare(pieces[b].Silent, pieces[a].Silent) })
	left := minutes
	now := pressing(pieces, byAge, minutes, limit)
	for _, i := range byAge {
		if p := pieces[i]; now > 0 && p.Minutes <= left {
			chosen = append(chosen, p)
			left -= p.Minutes
			now -= p.Minutes
		} else {
			rest = append(rest, i)
		}
	}
	slices.Sort(rest)
	pool := make([]Piece, len(rest))
	for i, j := range rest {
		pool[i] = pieces[j]
	}
	return append(chosen, best(chosen, pool, left)...)
}

// pressing returns the minutes that must go to the longest silent pieces now:
// for each week to come, the minutes of all that are due by then, less what the
// weeks between can hold.
func pressing(pieces []Piece, byAge []int, minutes, limit int) int {
	room := capacity(pieces, minutes)
	now, due := 0, 0
	for _, i := range byAge {
		week := max((7*limit-pieces[i].Silent)/7, 0) // the last in which it may be played
		due += pieces[i].Minutes
		now = max(now, due-room*week)
	}
	return now
}

// consider is how many pieces the exchange looks at: those that gain most by
// themselves.
const consider = 40

// best fills the minutes from a pool, given what was chosen already.
func best(fixed, pool []Piece, minutes int) []Piece {
	alone := make([]float64, len(pool))
	for i, p := range pool {
		alone[i] = gain([]Piece{p}) / float64(max(p.Minutes, 1))
	}
	order := make([]int, len(pool))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(alone[b], alone[a]) })
	order = order[:min(len(order), max(consider, minutes))]
	candidates := make([]Piece, len(order))
	for i, j := range order {
		candidates[i] = pool[j]
	}
	var top []Piece
	topGain := -1.0
	// from nothing, and from each of the few that are best alone
	for start := -1; start < min(len(candidates), 6); start++ {
		var seed []int
		if start >= 0 {
			if candidates[start].Minutes > minutes {
				continue
			}
			seed = []int{start}
		}
		picked := exchange(fixed, candidates, fill(fixed, candidates, seed, -1, minutes, true), minutes)
		set := slices.Clone(fixed)
		for _, i := range picked {
			set = append(set, candidates[i])
		}
		if g := gain(set); g > topGain+1e-12 {
			topGain = g
			top = set[len(fixed):]
		}
	}
	return top
}

// tally is the gain of a growing set.
type tally struct {
	sum     float64
	carried map[string]float64 // worth of the next piece that carries it
}

func newTally(set []Piece) *tally {
	t := &tally{carried: map[string]float64{}}
	for _, p := range set {
		t.add(p)
	}
	return t
}

func (t *tally) of(p Piece) float64 {
	g := p.keeps
	for _, id := range p.Carries {
		g += t.worth(id)
	}
	return g
}

// worth is what the next piece that carries a skill adds.
func (t *tally) worth(skill string) float64 {
	if worth, there := t.carried[skill]; there {
		return worth
	}
	return judgement.UpkeepCarries
}

func (t *tally) add(p Piece) {
	t.sum += t.of(p)
	for _, id := range p.Carries {
		t.carried[id] = t.worth(id) / 2
	}
}

func gain(set []Piece) float64 { return newTally(set).sum }

// keeps is what a week's playing keeps of one piece: the recall four weeks on
// with it, less the recall without.
func keeps(p Piece) float64 {
	const weeks = 28
	silent := float64(p.Silent)
	with := p.Memory.Heard(silent, memory.Fine).Recall(weeks)
	g := with - p.Memory.Recall(silent+weeks)
	if p.Polished {
		g *= judgement.UpkeepPolished
	}
	return math.Max(g, 0.001)
}

// fill adds to a set, while it fits, what gains most: a minute, or in all. One
// piece may be banned; -1 bans none.
func fill(fixed, pool []Piece, set []int, banned, minutes int, aMinute bool) []int {
	t := newTally(fixed)
	out := slices.Clone(set)
	for _, i := range set {
		t.add(pool[i])
		minutes -= pool[i].Minutes
	}
	for {
		at, most := -1, 0.0
		for i, p := range pool {
			if i == banned || p.Minutes > minutes || slices.Contains(out, i) {
				continue
			}
			g := t.of(p)
			if aMinute {
				g /= float64(max(p.Minutes, 1))
			}
			if g > most {
				at, most = i, g
			}
		}
		if at < 0 {
			return out
		}
		t.add(pool[at])
		out = append(out, at)
		minutes -= pool[at].Minutes
	}
}

// exchange replaces one piece by one or more others as long as that gains.
func exchange(fixed, pool []Piece, picked []int, minutes int) []int {
	value := func(set []int) float64 {
		t := newTally(fixed)
		for _, i := range set {
			t.add(pool[i])
		}
		return t.sum
	}
	now := value(picked)
	for range 8 {
		better := false
		for out := range picked {
			without := slices.Delete(slices.Clone(picked), out, out+1)
			more := fill(fixed, pool, without, picked[out], minutes, false)
			if v := value(more); v > now+1e-9 {
				picked, now, better = more, v, true
				break
			}
		}
		if !better {
			break
		}
	}
	return picked
}

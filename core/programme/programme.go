// Package programme orders what is played on a day before others: a concert, an exam, a wedding.
//
// It takes who plays what and gives an order and a length. Each player comes on once, with all their
// pieces in the order given. The order is the cheapest of all, by an exact dynamic programme up to
// twelve players and by exchanges beyond; what is held against each other are the moving of
// instruments, keys and moods that stand twice running, and how long the young wait. The weights are a
// judgement; what they hold against each other is common practice, no source.
package programme

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/judgement"
	"patientladder/core/score"
)

// An Event is a day on which students play before others.
type Event struct {
	ID      string        `json:"id" minLength:"26" maxLength:"26" doc:"made by the client: a ULID"`
	Name    string        `json:"name" maxLength:"100"`
	Kind    string        `json:"kind" enum:"concert,exam,other"`
	Day     calendar.Date `json:"day"`
	Start   string        `json:"start,omitempty" maxLength:"5" doc:"15:04; empty where it is not known yet"`
	Place   string        `json:"place,omitempty" maxLength:"200"`
	Entries []Listing     `json:"entries" maxItems:"120" doc:"in the order of the programme"`
	Placed  bool          `json:"placed" doc:"the teacher has set the order"`
	Went    string        `json:"went,omitempty" maxLength:"2000" doc:"afterwards: how it went"`
}

// A Listing is a piece that a student plays.
type Listing struct {
	Student string `json:"student" maxLength:"26"`
	Rung    string `json:"rung" maxLength:"26"`
	Seconds int    `json:"seconds,omitempty" minimum:"0" maximum:"7200" doc:"as the teacher has it; 0 for what is reckoned"`
}

// Check says what is wrong with an event.
func (e Event) Check() error {
	switch _, err := calendar.ParseDate(string(e.Day)); {
	case strings.TrimSpace(e.Name) == "":
		return fmt.Errorf("it needs a name")
	case err != nil:
		return fmt.Errorf("%q is no day", e.Day)
	case !slices.Contains([]string{"concert", "exam", "other"}, e.Kind):
		return fmt.Errorf("%q is none of concert, exam, other", e.Kind)
	}
	seen := map[string]bool{}
	for _, one := range e.Entries {
		if seen[one.Rung] {
			return fmt.Errorf("one piece stands in it twice")
		}
		seen[one.Rung] = true
	}
	if _, err := time.Parse("15:04", e.Start); e.Start != "" && err != nil {
		return fmt.Errorf("%q is no time of day", e.Start)
	}
	return nil
}

// A Piece is a listing with what an order goes by.
type Piece struct {
	Student    string
	Title      string
	Instrument string
	Age        int
	Key        string // as G major; empty for not known
	Mood       string // calm, walking or lively; empty for not known
	Seconds    int
}

// Lasts reckons the seconds of a piece from its bars, their meter such as 3/4, empty for four beats, and its
// tempo in quarter notes a minute, 0 for none written.
func Lasts(bars int, meter string, tempo float64) int {
	if bars == 0 {
		return int(judgement.PieceSeconds)
	}
	if tempo == 0 {
		tempo = moderate
	}
	bar := 4.0
	if m, err := score.ParseMeter(meter); err == nil {
		bar = m.Length().Float()
	}
	return int(math.Round(float64(bars) * bar * 60 / tempo))
}

// moderate is a tempo where none is written.
const moderate = 80

// Length returns the seconds of a programme with what lies between its pieces: a bow, another player, an
// instrument moved.
func Length(pieces []Piece) int {
	sum := 0
	for i, p := range pieces {
		sum += p.Seconds
		switch {
		case i == 0:
		case pieces[i-1].Instrument != p.Instrument:
			sum += int(judgement.MoveSeconds)
		case pieces[i-1].Student != p.Student:
			sum += int(judgement.BowSeconds)
		}
	}
	return sum
}

// A turn is one player's pieces.
type turn struct {
	at    []int // of the pieces
	first Piece
	last  Piece
}

func turns(pieces []Piece) []turn {
	var out []turn
	place := map[string]int{}
	for i, p := range pieces {
		k, there := place[p.Student]
		if !there {
			k = len(out)
			place[p.Student] = k
			out = append(out, turn{first: p})
		}
		out[k].at, out[k].last = append(out[k].at, i), p
	}
	return out
}

// after is what it costs to have one player come on after another.
func after(a, b turn) float64 {
	cost := 0.0
	if a.last.Instrument != b.first.Instrument {
		cost += judgement.ProgrammeMove
	}
	if a.last.Key != "" && a.last.Key == b.first.Key {
		cost += judgement.ProgrammeSame
	}
	if a.last.Mood != "" && a.last.Mood == b.first.Mood {
		cost += judgement.ProgrammeSame
	}
	if younger := a.first.Age - b.first.Age; younger > 0 {
		cost += judgement.ProgrammeWait * float64(younger)
	}
	return cost
}

// ends is what it costs to end with a player: calmly, rather than with something that goes.
func ends(t turn) float64 {
	if t.last.Mood == "calm" {
		return judgement.ProgrammeSame
	}
	return 0
}

// Cost is what an order of pieces costs, by the same count as Order.
func Cost(pieces []Piece) float64 {
	list := turns(pieces)
	sum := 0.0
	for i := range list {
		if i > 0 {
			sum += after(list[i-1], list[i])
		}
	}
	if len(list) > 0 {
		sum += ends(list[len(list)-1])
	}
	return sum
}

// exactly is up to how many players every order is looked through.
const exactly = 12

// Order returns the places of the pieces in the cheapest order: the best of all up to twelve players,
// beyond that one which no exchange of two players and no move of one makes better.
// O(2^n · n²) in the players up to twelve.
func Order(pieces []Piece) []int {
	list := turns(pieces)
	var order []int
	if len(list) <= exactly {
		order = best(list)
	} else {
		order = better(list)
	}
	out := []int{}
	for _, k := range order {
		out = append(out, list[k].at...)
	}
	return out
}

// best goes over all sets of players and who comes last in each.
func best(list []turn) []int {
	n := len(list)
	if n == 0 {
		return nil
	}
	cost, from := make([]float64, n<<n), make([]int, n<<n)
	for i := range cost {
		cost[i] = math.Inf(1)
	}
	for k := range n {
		cost[(1<<k)*n+k] = 0
	}
	for set := range 1 << n {
		for last := range n {
			here := cost[set*n+last]
			if math.IsInf(here, 1) {
				continue
			}
			for next := range n {
				if set>>next&1 == 1 {
					continue
				}
				to := (set|1<<next)*n + next
				if c := here + after(list[last], list[next]); c < cost[to] {
					cost[to], from[to] = c, last
				}
			}
		}
	}
	all, last := (1<<n)-1, 0
	for k := range n {
		if cost[all*n+k]+ends(list[k]) < cost[all*n+last]+ends(list[last]) {
			last = k
		}
	}
	var out []int
	for set := all; set > 0; {
		out = append(out, last)
		before := from[set*n+last]
		set &^= 1 << last
		last = before
	}
	slices.Reverse(out)
	return out
}

// better begins with the young and moves players about as long as that helps.
func better(list []turn) []int {
	order := make([]int, len(list))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int {
		if list[a].first.Instrument != list[b].first.Instrument {
			return strings.Compare(list[a].first.Instrument, list[b].first.Instrument)
		}
		return list[a].first.Age - list[b].first.Age
	})
	cost := func(order []int) float64 {
		sum := ends(list[order[len(order)-1]])
		for i := 1; i < len(order); i++ {
			sum += after(list[order[i-1]], list[order[i]])
		}
		return sum
	}
	least := cost(order)
	for changed := true; changed; {
		changed = false
		for i := range order {
			for j := range order {
				if i == j {
					continue
				}
				moved := slices.Insert(slices.Delete(slices.Clone(order), i, i+1), j, order[i])
				swapped := slices.Clone(order)
				swapped[i], swapped[j] = swapped[j], swapped[i]
				for _, try := range [][]int{moved, swapped} {
					if c := cost(try); c < least-1e-9 {
						order, least, changed = try, c, true
					}
				}
			}
		}
	}
	return order
}

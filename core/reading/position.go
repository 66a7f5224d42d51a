package reading

import (
	"math"
	"strconv"

	"patientladder/core/pitch"
	"patientladder/core/score"
)

// A Hand is the right or the left.
type Hand string

// The hands.
const (
	Right Hand = "right"
	Left  Hand = "left"
)

// A Position is a place of the hand and the notes played from it: five
// neighbouring white keys of a keyboard, or a stretch of the fingerboard.
type Position struct {
	Bar     int        `json:"bar"`
	Beat    score.Time `json:"beat"`
	Low     string     `json:"low" doc:"letter and octave of the lowest of the five keys"`
	High    string     `json:"high"`
	Fingers []string   `json:"fingers" nullable:"false" doc:"of each chord's top note: 1 for the thumb on keys, 0 for an open string"`
	Move    Move       `json:"move" enum:",crossing,jump,shift" doc:"how the hand came here; empty for the first"`
	Place   string     `json:"place,omitempty" doc:"on strings: the position's name or fret"`
	Strings []int      `json:"strings,omitempty" nullable:"false" doc:"on strings: beside the fingers"`
	Opened  []string   `json:"opened,omitempty" nullable:"false" enum:"back,forward" doc:"on strings: how the hand opens here"`
}

// A Move says how a hand changes its position.
type Move string

// The moves: passing under or over while the line goes on by step, or letting
// go.
const (
	Crossing Move = "crossing"
	Jump     Move = "jump"
)

// reach is how many neighbouring keys a position holds.
const reach = 5

// far is more than any sum of moves: one position fewer always wins.
const far = 1000

// Positions returns the fewest five-finger positions that hold all notes of a
// hand, and of those the ones whose crossings lie best and that move the least;
// written fingerings are honoured where they can be. A chord wider than five
// keys stands in a position of its own from its lowest note. It is a dynamic
// programme over chords and the at most five positions that hold each: O(n).
func Positions(line []Chord, hand Hand) []Position {
	if len(line) == 0 {
		return nil
	}
	type cell struct {
		low  int
		cost float64
		from int // index in the cells of the chord before
	}
	cells := make([][]cell, len(line))
	for i, c := range line {
		for low := c.Top().Line() - reach + 1; low <= c.Notes[0].Line(); low++ {
			if holds(c, low, hand) {
				cells[i] = append(cells[i], cell{low: low, cost: math.Inf(1)})
			}
		}
		if len(cells[i]) == 0 {
			cells[i] = []cell{{low: c.Notes[0].Line(), cost: math.Inf(1)}}
		}
		for j := range cells[i] {
			at := &cells[i][j]
			// between equals the lowest key of the position is played
			spare := 0.001 * float64(c.Notes[0].Line()-at.low)
			if i == 0 {
				at.cost = far + spare
				continue
			}
			for k, before := range cells[i-1] {
				cost := before.cost + spare
				if before.low != at.low {
					cost += far + float64(abs(at.low-before.low)) + awkward(line[i-1], c, before.low, at.low, hand)
				}
				if cost < at.cost {
					at.cost, at.from = cost, k
				}
			}
		}
	}
	at := 0
	for j, c := range cells[len(line)-1] {
		if c.cost < cells[len(line)-1][at].cost {
			at = j
		}
	}
	where := make([]int, len(line))
	for i := len(line) - 1; i >= 0; i-- {
		where[i] = cells[i][at].low
		at = cells[i][at].from
	}
	return gathered(line, where, hand)
}

// awkward is what it costs to cross, while a line goes on by step, with other
// fingers than the usual: away from the thumb it passes under the third or
// fourth finger; towards it the third or fourth goes over the thumb.
func awkward(before, c Chord, lowBefore, low int, hand Hand) float64 {
	by := c.Top().Line() - before.Top().Line()
	if abs(by) != 1 || before.Onset.Add(before.Duration) != c.Onset {
		return 0
	}
	from, to := finger(before, lowBefore, hand), finger(c, low, hand)
	if under := (by > 0) == (hand == Right); !under {
		from, to = to, from
	}
	if to == 1 && (from == 3 || from == 4) {
		return 0
	}
	return 2 * reach
}

// finger returns the finger of a chord's top note in a position.
func finger(c Chord, low int, hand Hand) int {
	f := c.Top().Line() - low + 1
	if hand == Left {
		f = reach + 1 - f
	}
	return min(max(f, 1), reach)
}

// holds reports whether a chord can be played from a position. A written
// finger fixes the position; when fingers contradict each other or the chord is
// too wide, its lowest note does.
func holds(c Chord, low int, hand Hand) bool {
	fixed, clear := 0, true
	found := false
	for i, p := range c.Notes {
		f, err := strconv.Atoi(c.Fingers[i])
		if err != nil || f < 1 || f > reach {
			continue
		}
		at := p.Line() - f + 1
		if hand == Left {
			at = p.Line() - reach + f
		}
		clear = clear && (!found || at == fixed)
		fixed, found = at, true
	}
	wide := c.Top().Line()-c.Notes[0].Line() >= reach
	switch {
	case wide || !clear:
		return low == c.Notes[0].Line()
	case found && inside(c, fixed):
		return low == fixed
	}
	return inside(c, low)
}

func inside(c Chord, low int) bool { return c.Notes[0].Line() >= low && c.Top().Line() < low+reach }

// gathered turns the position of each chord into runs.
func gathered(line []Chord, where []int, hand Hand) []Position {
	var out []Position
	for i, c := range line {
		if i == 0 || where[i] != where[i-1] {
			p := Position{Bar: c.Bar, Beat: c.Beat, Low: natural(where[i]).String(), High: natural(where[i] + reach - 1).String(), Fingers: []string{}}
			if i > 0 {
				p.Move = Jump
				before := line[i-1]
				joined := before.Onset.Add(before.Duration) == c.Onset
				if joined && abs(c.Top().Line()-before.Top().Line()) == 1 {
					p.Move = Crossing
				}
			}
			out = append(out, p)
		}
		last := &out[len(out)-1]
		last.Fingers = append(last.Fingers, strconv.Itoa(finger(c, where[i], hand)))
	}
	return out
}

// natural is the white key at a place on the staff; the zero Pitch outside all
// keyboards.
func natural(line int) pitch.Pitch {
	p, err := pitch.New("CDEFGAB"[(line%7+7)%7], 0, line/7)
	if err != nil {
		return pitch.Pitch{}
	}
	return p
}

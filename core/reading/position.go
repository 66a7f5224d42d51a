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
	Fingers []string   `json:"fingers" doc:"of each chord's top note: 1 for the thumb on keys, 0 for an open string"`
	Move    Move       `json:"move" enum:",crossing,jump,shift" doc:"how the hand came here; empty for the first"`
	Place   string     `json:"place,omitempty" doc:"on strings: the position's name or fret"`
	Strings []int      `json:"strings,omitempty" doc:"on strings: beside the fingers"`
	Opened  []string   `json:"opened,omitempty" enum:"back,forward" doc:"on strings: how the hand opens here"`
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
		cost float64
		low  int32
		from int32 // index in the cells of the chord before
	}
	cells := make([][]cell, len(line))
	room := make([]cell, reach*len(line))
	for i := range line {
		c := &line[i]
		cells[i] = room[reach*i : reach*i : reach*(i+1)]
		stepped := i > 0 && abs(c.Top().Line()-line[i-1].Top().Line()) == 1 && joined(line, i)
		bottom, top := c.Notes[0].Line(), c.Top().Line()
		fixed, one := c.fixed(hand)
		for low := top - reach + 1; low <= bottom; low++ {
			if !one || low == fixed {
				cells[i] = append(cells[i], cell{low: int32(low), cost: math.Inf(1)})
			}
		}
		if len(cells[i]) == 0 {
			cells[i] = append(cells[i], cell{low: int32(bottom), cost: math.Inf(1)})
		}
		for j := range cells[i] {
			at := &cells[i][j]
			// between equals the lowest key of the position is played
			spare := 0.001 * float64(bottom-int(at.low))
			if i == 0 {
				at.cost = far + spare
				continue
			}
			for k := range cells[i-1] {
				before := &cells[i-1][k]
				cost := before.cost + spare
				if before.low != at.low {
					cost += far + float64(abs(int(at.low-before.low)))
					if stepped {
						cost += awkward(&line[i-1], c, int(before.low), int(at.low), hand)
					}
				}
				if cost < at.cost {
					at.cost, at.from = cost, int32(k)
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
		where[i] = int(cells[i][at].low)
		at = int(cells[i][at].from)
	}
	return gathered(line, where, hand)
}

// awkward is what it costs to cross, where a line goes on by step, with other
// fingers than the usual: away from the thumb it passes under the third or
// fourth finger; towards it the third or fourth goes over the thumb.
func awkward(before, c *Chord, lowBefore, low int, hand Hand) float64 {
	by := c.Top().Line() - before.Top().Line()
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
func finger(c *Chord, low int, hand Hand) int { return fingerAt(c.Top().Line(), low, hand) }

// fingerAt returns the finger over a key of a position, both by place on the staff.
func fingerAt(key, low int, hand Hand) int {
	f := key - low + 1
	if hand == Left {
		f = reach + 1 - f
	}
	return min(max(f, 1), reach)
}

// fixed returns the only position that a chord can be played from, false where
// every one that reaches it will do. A written finger fixes the position; when
// fingers contradict each other or the chord is too wide, its lowest note does.
func (c *Chord) fixed(hand Hand) (low int, one bool) {
	if c.Top().Line()-c.Notes[0].Line() >= reach {
		return c.Notes[0].Line(), true
	}
	for i, p := range c.Notes {
		if len(c.Fingers[i]) != 1 || c.Fingers[i] < "1" || c.Fingers[i] > "5" {
			continue
		}
		f := int(c.Fingers[i][0] - '0')
		at := p.Line() - f + 1
		if hand == Left {
			at = p.Line() - reach + f
		}
		if one && at != low {
			return c.Notes[0].Line(), true
		}
		low, one = at, true
	}
	return low, one && inside(c, low)
}

func inside(c *Chord, low int) bool { return c.Notes[0].Line() >= low && c.Top().Line() < low+reach }

// gathered turns the position of each chord into runs.
func gathered(line []Chord, where []int, hand Hand) []Position {
	var out []Position
	for i := range line {
		c := &line[i]
		if i == 0 || where[i] != where[i-1] {
			p := Position{Bar: c.Bar, Beat: c.Beat, Low: natural(where[i]).String(), High: natural(where[i] + reach - 1).String()}
			if i > 0 {
				p.Move = Jump
				if joined(line, i) && abs(c.Top().Line()-line[i-1].Top().Line()) == 1 {
					p.Move = Crossing
				}
			}
			n := 1
			for i+n < len(line) && where[i+n] == where[i] {
				n++
			}
			p.Fingers = make([]string, 0, n)
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

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

// A Position is five neighbouring white keys and the notes played from them.
type Position struct {
	Bar     int        `json:"bar"`
	Beat    score.Time `json:"beat"`
	Low     string     `json:"low" doc:"letter and octave of the lowest of the five keys"`
	High    string     `json:"high"`
	Fingers []string   `json:"fingers" nullable:"false" doc:"of each chord's top note, 1 for the thumb"`
	Move    Move       `json:"move" enum:",crossing,jump" doc:"how the hand came here; empty for the first"`
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
// written fingerings are
// honoured where they can be. A chord wider than five keys stands in a position
// of its own from its lowest note. It is a dynamic programme over chords and
// the lowest key of the position, O(n·k²) for n chords over k keys.
func Positions(line []Chord, hand Hand) []Position {
	if len(line) == 0 {
		return nil
	}
	lows := candidates(line)
	best := make([][]float64, len(line)) // best[i][j]: chords to i placed, the last from lows[j]
	from := make([][]int, len(line))
	for i, c := range line {
		best[i], from[i] = make([]float64, len(lows)), make([]int, len(lows))
		for j, low := range lows {
			best[i][j] = math.Inf(1)
			if !holds(c, low, hand) {
				continue
			}
			if i == 0 {
				best[i][j] = far
				continue
			}
			for k, before := range lows {
				cost := best[i-1][k]
				if k != j {
					cost += far + float64(abs(low-before)) + awkward(line[i-1], c, before, low, hand)
				}
				if cost < best[i][j] {
					best[i][j], from[i][j] = cost, k
				}
			}
		}
	}
	at := 0
	for j := range lows {
		if best[len(line)-1][j] < best[len(line)-1][at] {
			at = j
		}
	}
	where := make([]int, len(line))
	for i := len(line) - 1; i >= 0; i-- {
		where[i] = lows[at]
		at = from[i][at]
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

// candidates are the lowest keys that some chord could be played from.
func candidates(line []Chord) []int {
	low, high := math.MaxInt, math.MinInt
	for _, c := range line {
		low, high = min(low, c.Notes[0].Line()), max(high, c.Top().Line())
	}
	var lows []int
	for l := low - reach + 1; l <= high; l++ {
		lows = append(lows, l)
	}
	return lows
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
			p := Position{Bar: c.Bar, Beat: c.Beat, Low: key(where[i]), High: key(where[i] + reach - 1), Fingers: []string{}}
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

// key names a white key by its place on the staff.
func key(line int) string {
	octave := line / 7
	p, err := pitch.New("CDEFGAB"[line%7], 0, octave)
	if err != nil {
		return ""
	}
	return p.String()
}

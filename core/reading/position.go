package reading

import (
	"math"
	"slices"
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
	Opened  []string   `json:"opened,omitempty" enum:"back,forward" doc:"how the hand opens here: on keys by one below or above the five"`
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

// far is what leaving a position costs, more than any way that the hand goes then.
const far = 1000

// What a position costs beside a change of it, which costs far. A note for which the hand opens by
// one key costs less than going there and back, and more than staying: a change is worth it from the
// third such note on. A change comes rather after a rest or a long note, or with a bar, than at a
// note that is repeated; and a run of notes that was played before is played with the same fingers,
// whatever stands around it. A judgement.
const (
	costOpened      = 400
	costOpenedSmall = 2*far + 100 // of a small hand: more than there and back
	costOff         = 0.001       // a key
	costRepeat      = 300
	costSlide       = 1100 // from one key to the next on one finger, where the hand opens
	costContrary    = 200  // where the line goes one way and the fingers the other, or nowhere
	gainPause       = 300
	gainBar         = 50
	costAnother     = 600 // a note, where the run had other fingers before
)

// run is how many notes are a run that keeps its fingers.
const run = 6

// Positions returns the five-finger positions that hold all notes of a hand with the fewest
// changes, each opened by a key where that saves going there and back, and of those the ones
// whose crossings lie best and that move the least; the same run of notes has the same fingers,
// and written fingerings are honoured where they can be. A chord wider than five keys stands in
// a position of its own from its lowest note; a small hand, of a small child, goes there rather
// than open. It is a dynamic programme over chords and the at
// most seven positions that hold each, three times where runs come back: O(n).
func Positions(line []Chord, hand Hand, small bool) []Position {
	if len(line) == 0 {
		return nil
	}
	line = inHand(line)
	opened := float64(costOpened)
	if small {
		opened = costOpenedSmall
	}
	all := placer{line: moments(line, hand), hand: hand, opened: opened}
	all.lay()
	where := all.placed(nil)
	if first := runs(line); first != nil {
		for range 2 { // once for the places of the first runs, once for all by those
			want := where
			where = all.placed(func(i, low int) float64 {
				if first[i] >= 0 && low != want[first[i]] {
					return costAnother
				}
				return 0
			})
			if slices.Equal(where, want) {
				break
			}
		}
	}
	return gathered(line, where, hand)
}

// inHand is a line as the hand has it: a note that leaves its letter by a half step and comes
// back, E E flat E, lies under the next finger, as the next letter does. Common practice, no
// source.
func inHand(line []Chord) []Chord {
	var out []Chord
	for i := 1; i+1 < len(line); i++ {
		c, before := &line[i], line[i-1].Top()
		by := c.Top().MIDI() - before.MIDI()
		if out != nil && out[i-1].Notes[0] != line[i-1].Notes[0] {
			continue // it has left its letter; this is where it comes back to
		}
		if len(c.Notes) > 1 || c.Top().Line() != before.Line() || line[i+1].Top() != before || abs(by) != 1 {
			continue
		}
		bare := natural(before.Line() + by)
		p, err := pitch.New(bare.Step(), c.Top().MIDI()-bare.MIDI(), bare.Octave())
		if err != nil {
			continue
		}
		if out == nil {
			out = slices.Clone(line)
		}
		out[i].Notes = []pitch.Pitch{p}
	}
	if out == nil {
		return line
	}
	return out
}

// runs says of each note that stands in a run which comes back which note of the first such run
// it is; -1 of the others, and nil where no run comes back.
func runs(line []Chord) []int {
	if len(line) < 2*run {
		return nil
	}
	first := map[[run]pitch.Pitch]int{}
	out := make([]int, len(line))
	for i := range out {
		out[i] = -1
	}
	found := false
	for i := 0; i+run <= len(line); i++ {
		var notes [run]pitch.Pitch
		for n := range run {
			notes[n] = line[i+n].Top()
		}
		if notes == [run]pitch.Pitch{notes[0], notes[0], notes[0], notes[0], notes[0], notes[0]} {
			continue // one note again and again is no figure
		}
		k, heard := first[notes]
		if !heard {
			first[notes] = i
			continue
		}
		for n := range run {
			if !slices.Equal(line[i+n].Notes, line[k+n].Notes) || out[i+n] >= 0 {
				continue
			}
			if out[k+n] < 0 {
				out[k+n] = k + n
			}
			out[i+n], found = out[k+n], true
		}
	}
	if !found {
		return nil
	}
	return out
}

// change is what it costs to leave a position before a chord.
func change(before, c *Chord) float64 {
	switch {
	case before.Onset.Add(before.Duration) != c.Onset, !before.Duration.Less(score.Quarters(2)):
		return far - gainPause
	case before.Top() == c.Top():
		return far + costRepeat
	case before.Bar != c.Bar && abs(c.Top().Line()-before.Top().Line()) != 1: // a scale goes on over the bar line
		return far - gainBar
	}
	return far
}

// A moment is a chord of a line with what does not change by where the hand lies.
type moment struct {
	*Chord
	bottom, top int     // of its notes, by place on the staff
	lowest      int     // of the positions that it can be played from
	ways        int     // how many those are
	leave       float64 // what it costs to leave a position before it
	beside      bool    // a step from the chord before
	legato      bool    // without a rest after it
	again       bool    // the chord before once more
}

// moments looks at the chords of a line one by one.
func moments(line []Chord, hand Hand) []moment {
	out := make([]moment, len(line))
	for i := range line {
		c := &line[i]
		m := moment{Chord: c, bottom: c.Notes[0].Line(), top: c.Top().Line()}
		m.lowest, m.ways = m.top-reach, m.bottom-m.top+reach+2 // each that holds it, and one opened to either side
		if fixed, one := c.fixed(hand); one {
			m.lowest, m.ways = fixed, 1
		}
		if i > 0 {
			m.leave = change(&line[i-1], c)
			m.beside = abs(m.top-out[i-1].top) == 1
			m.legato = joined(line, i)
			m.again = slices.Equal(line[i-1].Notes, c.Notes)
		}
		out[i] = m
	}
	return out
}

// A placer finds where a hand lies at each moment of a line.
type placer struct {
	line   []moment
	hand   Hand
	opened float64     // what it costs to open the hand for a note
	ways   [][]arrival // of each moment, in the order of its positions
}

// An arrival is what it costs at least to come to a position, and from which of the moment before.
type arrival struct {
	cost   float64
	from   int8
	off    int8 // keys from the chord's lowest to the position's
	opens  bool // the hand opens
	slides bool // one finger goes from the key before to this, where the hand lay there before
}

// own is what a position costs by itself; between equals the lowest key of it is played.
func (p *placer) own(at *arrival) float64 {
	if at.opens {
		return costOff*float64(at.off) + p.opened
	}
	return costOff * float64(at.off)
}

// stays is what it costs more, or less, where the hand lay there before.
func (p *placer) stays(c *moment, at *arrival) (sum float64) {
	if at.opens && c.again {
		sum -= p.opened // it is open already
	}
	if at.slides {
		sum += costSlide
	}
	return sum
}

// lay looks at positions by themselves, and makes the room for what is reckoned.
func (p *placer) lay() {
	n := 0
	for i := range p.line {
		n += p.line[i].ways
	}
	room := make([]arrival, n)
	p.ways = make([][]arrival, len(p.line))
	for i := range p.line {
		c := &p.line[i]
		p.ways[i], room = room[:c.ways:c.ways], room[c.ways:]
		for j := range p.ways[i] {
			low := c.lowest + j
			p.ways[i][j] = arrival{
				off:    int8(abs(c.bottom - low)),
				opens:  openedFor(c.bottom, c.top, low) != "",
				slides: c.beside && fingerAt(p.line[i-1].top, low, p.hand) == fingerAt(c.top, low, p.hand), // in an opened hand
			}
		}
	}
}

// placed returns the position of each moment, by its lowest key's place on the staff; more is what a
// position costs besides, nil for nothing.
func (p *placer) placed(more func(i, low int) float64) []int {
	line, cells := p.line, p.ways
	for j := range cells[0] {
		at := &cells[0][j]
		at.cost = far + p.own(at)
		if more != nil {
			at.cost += more(0, line[0].lowest+j)
		}
	}
	for i := 1; i < len(line); i++ {
		c, before, was := &line[i], &line[i-1], cells[i-1]
		least := math.Inf(1)
		for k := range was {
			least = min(least, was[k].cost)
		}
		for j := range cells[i] {
			low, at := c.lowest+j, &cells[i][j]
			own := p.own(at)
			if more != nil {
				own += more(i, low)
			}
			best, from := math.Inf(1), 0
			if k := low - before.lowest; k >= 0 && k < before.ways {
				best, from = was[k].cost+own+p.stays(c, at), k
			}
			if least+own+c.leave < best { // else no change can be cheaper
				best, from = p.leaves(c, before, was, low, own, best, from)
			}
			at.cost, at.from = best, int8(from)
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
		where[i] = line[i].lowest + at
		at = int(cells[i][at].from)
	}
	return where
}

// leaves looks for a position of the moment before from which coming to one costs less than the best so far.
func (p *placer) leaves(c, before *moment, was []arrival, low int, own, best float64, from int) (float64, int) {
	for k := range was {
		left := before.lowest + k
		cost := was[k].cost + own + c.leave + float64(abs(low-left))
		if cost >= best || left == low {
			continue
		}
		if c.legato && contrary(before.top, c.top, left, low, p.hand) {
			cost += costContrary
		}
		if c.legato && c.beside {
			cost += awkward(before.top, c.top, left, low, p.hand)
		}
		if cost < best {
			best, from = cost, k
		}
	}
	return best, from
}

// openedFor says how the hand opens for a chord between two places on the staff, in a position: forward by a key above, back by one
// below; empty where it lies as it is, and for a chord that is wider than the hand.
func openedFor(bottom, top, low int) string {
	switch {
	case top-bottom >= reach:
		return ""
	case top == low+reach:
		return "forward"
	case bottom == low-1:
		return "back"
	}
	return ""
}

// awkward is what it costs to cross, where a line goes on by step from one top note to another, with other
// fingers than the usual: away from the thumb it passes under the third or
// fourth finger; towards it the third or fourth goes over the thumb.
func awkward(before, top, lowBefore, low int, hand Hand) float64 {
	from, to := fingerAt(before, lowBefore, hand), fingerAt(top, low, hand)
	if under := (top > before) == (hand == Right); !under {
		from, to = to, from
	}
	if to == 1 && (from == 3 || from == 4) {
		return 0
	}
	return 2 * reach
}

// contrary reports whether a line goes one way and the fingers the other or nowhere, as when the
// second finger follows the fourth upwards. The thumb may pass where the line goes by step, and
// begin anew over a fourth and more.
func contrary(before, top, lowBefore, low int, hand Hand) bool {
	from, to, by := fingerAt(before, lowBefore, hand), fingerAt(top, low, hand), top-before
	if abs(by) != 2 && (from == 1 || to == 1) {
		return false
	}
	return by != 0 && (from == to || ((by > 0) == (hand == Right)) != (to > from))
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
	places := 1
	for i := 1; i < len(where); i++ {
		if where[i] != where[i-1] {
			places++
		}
	}
	out := make([]Position, 0, places)
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
		if way := openedFor(c.Notes[0].Line(), c.Top().Line(), where[i]); way != "" && !slices.Contains(last.Opened, way) {
			last.Opened = append(last.Opened, way)
		}
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

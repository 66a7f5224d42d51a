package reading

import (
	"math"
	"slices"
	"strconv"

	"patientladder/core/instrument"
	"patientladder/core/pitch"
	"patientladder/core/score"
)

// Strings are the open strings of an instrument as a part is written for them,
// string 1 first, and how a hand lies on them.
type Strings struct {
	Open []pitch.Pitch
	on   instrument.Profile
}

// StringsOf returns the strings that a part is written for: its own where it names them. Music
// for a guitar is written an octave above its sound; under a clef with a small 8, and in
// tablature, it is kept as it sounds. Written strings and frets settle it where they stand.
// Common practice, no source.
func StringsOf(p score.Part, on instrument.Profile) Strings {
	s := Strings{Open: slices.Clone(on.Strings), on: on}
	if len(p.Tuning) == len(on.Strings) {
		s.Open = slices.Clone(p.Tuning)
	}
	for i, open := range s.Open {
		s.Open[i] = open.Octaves(Lowered(p, on) / 12)
	}
	return s
}

// Lowered returns how many semitones below the written notes a part sounds.
func Lowered(p score.Part, on instrument.Profile) int {
	if on.Written == 0 || len(p.Bars) == 0 {
		return on.Written
	}
	open := on.Strings
	if len(p.Tuning) == len(open) {
		open = p.Tuning
	}
	asItSounds, above := 0, 0 // notes whose written fret agrees
	for _, b := range p.Bars {
		for _, n := range b.Notes {
			if n.String < 1 || n.String > len(open) || n.Rest {
				continue
			}
			switch n.Pitch.MIDI() - open[n.String-1].MIDI() - n.Fret {
			case 0:
				asItSounds++
			case on.Written:
				above++
			}
		}
	}
	switch {
	case asItSounds > above:
		return 0
	case above > 0:
		return on.Written
	}
	if slices.ContainsFunc(p.Bars[0].Clefs, func(c score.Clef) bool { return c.Octave != 0 || c.Sign == "TAB" }) {
		return 0
	}
	return on.Written
}

// A Stop is where a note is stopped on a string.
type Stop struct {
	String int    `json:"string" doc:"1 is the highest-sounding; 0 where the note lies off the instrument"`
	Fret   int    `json:"fret" doc:"semitones above the open string"`
	Finger string `json:"finger" doc:"left hand, 0 for open"`
	Pluck  string `json:"pluck,omitempty" doc:"right hand of a plucked string: p, i, m or a; the thumb is t with a drone"`
	Reach  string `json:"reach,omitempty" enum:"back,forward" doc:"how the hand is opened for it; empty for a closed hand"`
}

// Shift is a hand that moves along the neck.
const Shift Move = "shift"

// A handAt is where a hand lies on the neck: its place, in semitones above the open
// string, and its shape among those of the frame.
type handAt struct{ at, shape int }

// A hold is one way of playing a chord.
type hold struct {
	hand  handAt
	stops []Stop // beside the notes
	cost  float64
	from  int
}

// What a hold costs beside a change of position, which costs far: a note stopped
// elsewhere that first position holds costs as much as a change, so that one
// leaves it only where the music does; an opened hand, opening or closing it from
// one stopped note to the next (instrument.Frame), a fourth finger, or on frets any,
// where an open string would do, crossing strings, and a finger that is not the note's own by its
// letter only decide between equals. A judgement.
const (
	costFourth   = 0.2
	costFretted  = 0.4
	costCrossing = 0.15
	costLetter   = 1
)

// Stopped returns where each note of a line is stopped with the fewest changes of
// position, in first position wherever it holds the note and no change is saved
// by staying, and the positions: the hand at one place of the neck, closed or
// opened back or forward by a finger. Written strings, frets and fingers are
// honoured where a hand can. A note off the instrument gets an empty Stop. It is
// a dynamic programme over chords and the holds of each: O(n) for a compass.
func (s Strings) Stopped(line []Chord) ([][]Stop, []Position) {
	if len(line) == 0 {
		return nil, nil
	}
	high := s.highest(line)
	cells := make([][]hold, len(line))
	for i, c := range line {
		cells[i] = s.holds(c, high)
		for j := range cells[i] {
			at := &cells[i][j]
			own := at.cost
			if i == 0 {
				at.cost = own + float64(abs(at.hand.at-s.on.Frame.Home))
				continue
			}
			at.cost = math.Inf(1)
			for k, before := range cells[i-1] {
				cost := before.cost + own
				if before.hand.at != at.hand.at {
					cost += far + float64(abs(before.hand.at-at.hand.at))
				}
				if before.hand.shape != at.hand.shape && stopped(before.stops) > 0 && stopped(at.stops) > 0 {
					cost += s.on.Frame.Reshape
				}
				if from, to := before.stops[len(before.stops)-1].String, at.stops[len(at.stops)-1].String; from != s.on.Drone && to != s.on.Drone {
					cost += costCrossing * float64(abs(from-to)) // a drone has a thumb of its own
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
	taken := make([]hold, len(line))
	for i := len(line) - 1; i >= 0; i-- {
		taken[i] = cells[i][at]
		at = cells[i][at].from
	}
	stops := make([][]Stop, len(line))
	for i := range taken {
		stops[i] = slices.Clone(taken[i].stops)
		for j := range stops[i] {
			stops[i][j].Reach = s.shape(taken[i].hand).Name
		}
	}
	s.pluck(line, stops)
	return stops, s.positions(line, taken)
}

// lowNeck is how far up a lower string is looked for a note that a higher string
// has too.
const lowNeck = 12

// highest returns the highest place of the hand that the line can need: that of
// its highest note on the highest string, or where a written finger may want a
// note on a lower one, but not under first position.
func (s Strings) highest(line []Chord) int {
	most := s.on.Frame.Home + 1
	for _, c := range line {
		for i, p := range c.Notes {
			most = max(most, p.MIDI()-s.Open[0].MIDI())
			if c.Stops[i].String > 0 {
				most = max(most, c.Stops[i].Fret+1)
			}
			if len(c.Fingers[i]) > 0 {
				for _, open := range s.Open[1:] {
					if fret := p.MIDI() - open.MIDI(); fret <= lowNeck {
						most = max(most, fret+1)
					}
				}
			}
		}
	}
	return min(most, 24)
}

// holds lists the ways of playing a chord, each with the hand's place.
func (s Strings) holds(c Chord, high int) []hold {
	for _, honour := range []bool{true, false} {
		var out []hold
		home := false // first position holds it
		for at := s.on.Frame.Lowest; at <= high; at++ {
			for shape, lie := range s.on.Frame.Shapes {
				if at+lie.Lie[0] < 1 {
					continue // nothing lies below the open string
				}
				out = s.place(out, c, hold{hand: handAt{at, shape}}, honour)
			}
		}
		for _, h := range out {
			home = home || h.hand.at == s.on.Frame.Home
		}
		for i := range out {
			if h := &out[i]; home && h.hand.at != s.on.Frame.Home && slices.ContainsFunc(h.stops, func(st Stop) bool { return st.Fret > 0 }) {
				h.cost += far
			}
		}
		if len(out) > 0 {
			return out
		}
	}
	return []hold{{hand: handAt{s.on.Frame.Home, 0}, stops: make([]Stop, len(c.Notes))}}
}

// place adds the holds of a chord from one place: every way to give each note,
// from the lowest, a string of its own that the hand reaches.
func (s Strings) place(out []hold, c Chord, h hold, honour bool) []hold {
	n, shape := len(h.stops), s.shape(h.hand)
	if n == len(c.Notes) {
		for _, st := range h.stops {
			switch {
			case st.Finger == "4":
				h.cost += costFourth
			case s.on.Frame.Fretted && st.Fret > 0:
				h.cost += costFretted
			}
		}
		if h.hand.shape > 0 && stopped(h.stops) == 0 {
			return out // an opened hand that plays nothing is a closed one
		}
		h.cost += shape.Cost
		if s.on.Frame.Reshape == 0 { // shapes differ only in what they cost
			for i := len(out) - 1; i >= 0 && out[i].hand.at == h.hand.at; i-- {
				if slices.Equal(out[i].stops, h.stops) {
					if h.cost < out[i].cost {
						out[i].hand, out[i].cost = h.hand, h.cost
					}
					return out
				}
			}
		}
		h.stops = slices.Clone(h.stops)
		return append(out, h)
	}
	for i := len(s.Open) - 1; i >= 0; i-- {
		if slices.ContainsFunc(h.stops, func(st Stop) bool { return st.String == i+1 }) {
			continue
		}
		st := Stop{String: i + 1, Fret: c.Notes[n].MIDI() - s.Open[i].MIDI()}
		if w := c.Stops[n]; honour && w.String > 0 && (w.String != st.String || w.Fret != st.Fret) {
			continue
		}
		next := h
		if st.Fret == 0 {
			st.Finger = "0"
		} else if f := slices.Index(shape.Lie[:], st.Fret-h.hand.at); f >= 0 && st.String != s.on.Drone {
			st.Finger = strconv.Itoa(f + 1)
			if own, known := s.on.Frame.Letter(h.hand.at); known && c.Notes[n].Line()-s.Open[i].Line()-own != f {
				next.cost += costLetter
			}
		} else {
			continue
		}
		if w := c.Fingers[n]; honour && len(w) == 1 && w[0] >= '0' && w[0] <= '4' && w != st.Finger {
			continue
		}
		next.stops = append(slices.Clip(h.stops), st)
		if len(out) < 600 { // a chord of six notes has ways enough
			out = s.place(out, c, next, honour)
		}
	}
	return out
}

// positions turns the hold of each chord into runs at one place of the neck.
func (s Strings) positions(line []Chord, taken []hold) []Position {
	var out []Position
	var low, high pitch.Pitch
	for i, c := range line {
		if i == 0 || taken[i].hand.at != taken[i-1].hand.at {
			p := Position{Bar: c.Bar, Beat: c.Beat, Fingers: []string{}, Place: s.on.Frame.Place(taken[i].hand.at)}
			if i > 0 {
				p.Move = Shift
			}
			out = append(out, p)
			low, high = c.Notes[0], c.Top()
		}
		if c.Notes[0].MIDI() < low.MIDI() {
			low = c.Notes[0]
		}
		if c.Top().MIDI() > high.MIDI() {
			high = c.Top()
		}
		top := taken[i].stops[len(taken[i].stops)-1]
		last := &out[len(out)-1]
		last.Low, last.High = low.String(), high.String()
		last.Fingers, last.Strings = append(last.Fingers, top.Finger), append(last.Strings, top.String)
		if shape := s.shape(taken[i].hand).Name; shape != "" && !slices.Contains(last.Opened, shape) {
			last.Opened = append(last.Opened, shape)
		}
	}
	return out
}

func (s Strings) shape(h handAt) instrument.Shape { return s.on.Frame.Shapes[h.shape] }

// pluck gives each note of a plucked line its right-hand finger, written ones
// kept: that of the instrument's roll where strings change, the thumb on the low
// ones; i and m in turn along one string. Common practice, no source.
func (s Strings) pluck(line []Chord, stops [][]Stop) {
	roll, last := s.on.Roll, ""
	if len(roll) == 0 {
		return
	}
	for i, c := range line {
		for j := range stops[i] {
			st := &stops[i][j]
			if st.String == 0 {
				continue
			}
			st.Pluck = roll[min(st.String, len(roll))-1]
			if len(c.Notes) == 1 && st.Pluck != s.on.Thumb() && alone(stops, i) {
				st.Pluck = "i"
				if last == "i" {
					st.Pluck = "m"
				}
			}
			if w := c.Fingers[j]; len(w) == 1 && (slices.Contains(roll, w) || w == "i" || w == "m") {
				st.Pluck = w
			}
			last = st.Pluck
		}
	}
}

// alone reports whether a single note has a neighbour on its own string, as in a
// tune.
func alone(stops [][]Stop, i int) bool {
	for _, j := range []int{i - 1, i + 1} {
		if j >= 0 && j < len(stops) && len(stops[j]) == 1 && stops[j][0].String == stops[i][0].String {
			return true
		}
	}
	return false
}

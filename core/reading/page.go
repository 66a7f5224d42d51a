package reading

import (
	"slices"
	"strconv"

	"patientladder/core/instrument"
	"patientladder/core/pitch"
	"patientladder/core/score"
)

// Version counts the readers: it goes up when what is read off a score changes, so that
// what was read by an older one is read again.
const Version = 5

// A Staff is what one hand reads, or one player of a single staff, with all
// that is read off it.
type Staff struct {
	Part      int // from 0
	Staff     int // from 1
	Hand      Hand
	Line      []Chord
	Top       []Direction // of each chord's top note
	Bottom    []Direction
	Intervals []Interval // from each chord's top note to the next's
	Positions []Position
	Stops     [][]Stop // of strings: beside the line
	Figures   []Figure // of this staff alone, a phrase at a time where phrases come back
	built     []Figure // of this staff alone, by the shortest telling
}

// A Page is a score as a teacher has read it.
type Page struct {
	Score   score.Score
	On      instrument.Profile
	Staves  []Staff  // those with notes
	Figures []Figure // as those of a staff
	cuts    []phrase
}

// Guess returns the instrument that a score is written for where nobody says: a guitar
// with tablature, else a piano.
func Guess(s score.Score) instrument.Profile {
	if Tablature(s) {
		return instrument.Shipped.Of("guitar")
	}
	return instrument.Shipped.Of("piano")
}

// Tablature reports whether a score names strings to pluck.
func Tablature(s score.Score) bool {
	for _, p := range s.Parts {
		for _, b := range p.Bars {
			for _, c := range b.Clefs {
				if c.Sign == "TAB" {
					return true
				}
			}
			for _, n := range b.Notes {
				if n.String > 0 {
					return true
				}
			}
		}
	}
	return false
}

// Read reads a score for an instrument: O(n) in its notes. Its staves, its
// phrases and its figures are read beside each other.
func Read(s score.Score, on instrument.Profile) Page {
	p := Page{Score: s, On: on}
	for pi, part := range s.Parts {
		for staff := 1; staff <= part.Staves; staff++ {
			st := Staff{Part: pi, Staff: staff, Hand: Right}
			switch {
			case on.Family == instrument.Other:
				st.Hand = "" // no hand of its own
			case staff > 1 || !on.HandsApart() || part.Staves == 1 && low(part):
				st.Hand = Left
			}
			p.Staves = append(p.Staves, st)
		}
	}
	written := s.Written()
	beside(len(p.Staves), func(i int) {
		st := &p.Staves[i]
		st.Line = Line(s.Parts[st.Part], st.Staff, written)
	})
	p.Staves = slices.DeleteFunc(p.Staves, func(st Staff) bool { return len(st.Line) == 0 })
	n := len(p.Staves)
	lines := Page{Score: s, On: on, Staves: slices.Clone(p.Staves)} // phrases need no more, while the rest is being read
	var built []Figure
	beside(2*n+2, func(i int) {
		switch {
		case i < n:
			p.Staves[i].read(s, on)
		case i == n:
			p.cuts = lines.phrases()
		case i == n+1:
			built = Figures(s)
		case n > 1: // one staff alone has those of the whole
			st := &p.Staves[i-n-2]
			st.built = figures(s, scope{st.Part, st.Staff})
		}
	})
	if n == 1 {
		p.Staves[0].built = built
	}
	cut := p // figures are named by it, while p takes them in
	beside(n+1, func(i int) {
		if i == n {
			p.Figures = cut.named(scope{}, built)
			return
		}
		st := &p.Staves[i]
		st.Figures = cut.named(scope{st.Part, st.Staff}, st.built)
	})
	return p
}

// read reads the line of a staff.
func (st *Staff) read(s score.Score, on instrument.Profile) {
	st.Top, st.Bottom = Directions(st.Line)
	st.Intervals = Melodic(st.Line)
	switch {
	case on.Family == instrument.Keyboard:
		st.Positions = Positions(st.Line, st.Hand, on.SmallHand)
	case len(on.Strings) > 0:
		st.Stops, st.Positions = StringsOf(s.Parts[st.Part], on).Stopped(st.Line)
	}
}

// low reports whether a part begins in a bass clef: on a keyboard the usual hand
// is then the left.
func low(p score.Part) bool {
	return len(p.Bars) > 0 && len(p.Bars[0].Clefs) > 0 && p.Bars[0].Clefs[0].Sign == "F"
}

// Fingers returns the finger of each chord's top note, empty where the
// instrument has no positions.
func (s Staff) Fingers() []string {
	fingers := make([]string, 0, len(s.Line))
	for _, p := range s.Positions {
		fingers = append(fingers, p.Fingers...)
	}
	for len(fingers) < len(s.Line) {
		fingers = append(fingers, "")
	}
	return fingers
}

// chordFingers returns the finger of each note of each chord of a staff, beside
// Chord.Notes: on a keyboard of a chord wider than five keys the outer ones, on
// bowed strings that of the top note, on plucked strings those of the plucking
// hand. It is empty where none is known.
func (p Page) chordFingers(st Staff) [][]string {
	out := make([][]string, len(st.Line))
	for i := range out {
		out[i] = make([]string, len(st.Line[i].Notes))
	}
	if p.On.Family == instrument.Plucked {
		for i, stops := range st.Stops {
			for n, s := range stops {
				out[i][n] = s.Pluck
			}
		}
		return out
	}
	at := 0
	for _, pos := range st.Positions {
		for _, top := range pos.Fingers {
			if p.On.Family == instrument.Keyboard {
				out[at] = st.Line[at].from(pos, st.Hand)
			}
			out[at][len(out[at])-1] = top
			at++
		}
	}
	return out
}

// fingers returns what plays each note, by id.
func (p Page) fingers() map[string]string {
	out := map[string]string{}
	for _, st := range p.Staves {
		for i, fingers := range p.chordFingers(st) {
			for n, f := range fingers {
				out[st.Line[i].IDs[n]] = f
			}
		}
	}
	return out
}

// from returns the finger of each note of a chord in a position of five keys; where
// the chord is wider, of the outer ones.
func (c *Chord) from(p Position, hand Hand) []string {
	out := make([]string, len(c.Notes))
	low, err := pitch.Parse(p.Low)
	if err != nil { // outside all keyboards
		return out
	}
	wide := c.Top().Line()-c.Notes[0].Line() >= reach
	for n, note := range c.Notes {
		if !wide || n == 0 || n == len(out)-1 {
			out[n] = strconv.Itoa(fingerAt(note.Line(), low.Line(), hand))
		}
	}
	return out
}

// Between returns the ids of the notes of a hand's staff from the moment of one note to
// that of another, where they sound on whatever staff; of both hands those of the upper.
func (p Page) Between(from, to string, hand Hand) []string {
	var first, last score.Time
	for _, st := range p.Staves {
		for _, c := range st.Line {
			if slices.Contains(c.IDs, from) {
				first = c.Onset
			}
			if slices.Contains(c.IDs, to) {
				last = c.Onset
			}
		}
	}
	out := []string{}
	if len(p.Staves) == 0 {
		return out
	}
	on := max(slices.IndexFunc(p.Staves, func(st Staff) bool { return st.Hand == hand }), 0)
	for _, c := range p.Staves[on].Line {
		if !c.Onset.Less(first) && !last.Less(c.Onset) {
			out = append(out, c.IDs...)
		}
	}
	return out
}

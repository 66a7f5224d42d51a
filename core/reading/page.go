package reading

import (
	"patientladder/core/score"
)

// Plays says what hands do on an instrument.
type Plays string

// The families.
const (
	Keyboard Plays = "keyboard"
	Bowed    Plays = "bowed"
	Plucked  Plays = "plucked"
)

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
	Figures   []Figure // of this staff alone
}

// A Page is a score as a teacher has read it.
type Page struct {
	Score   score.Score
	Plays   Plays
	Staves  []Staff // those with notes
	Figures []Figure
}

// Guess returns the family that a score is written for where nobody says:
// plucked with tablature, else keyboard.
func Guess(s score.Score) Plays {
	for _, p := range s.Parts {
		for _, b := range p.Bars {
			for _, c := range b.Clefs {
				if c.Sign == "TAB" {
					return Plucked
				}
			}
			for _, n := range b.Notes {
				if n.String > 0 {
					return Plucked
				}
			}
		}
	}
	return Keyboard
}

// Read reads a score for a family of instruments: O(n) in its notes.
func Read(s score.Score, plays Plays) Page {
	p := Page{Score: s, Plays: plays, Figures: Figures(s)}
	for pi, part := range s.Parts {
		for staff := 1; staff <= part.Staves; staff++ {
			st := Staff{Part: pi, Staff: staff, Hand: Right, Line: Line(part, staff, s.Written())}
			if len(st.Line) == 0 {
				continue
			}
			if staff > 1 || plays != Keyboard || part.Staves == 1 && low(part) {
				st.Hand = Left
			}
			st.Top, st.Bottom = Directions(st.Line)
			st.Intervals = Melodic(st.Line)
			switch plays {
			case Keyboard:
				st.Positions = Positions(st.Line, st.Hand)
			case Bowed:
				st.Stops, st.Positions = CelloStrings.Stopped(st.Line)
			case Plucked:
				st.Stops, st.Positions = GuitarIn(part).Stopped(st.Line)
			}
			st.Figures = p.Figures
			if part.Staves > 1 || len(s.Parts) > 1 {
				st.Figures = Figures(only(s, pi, staff))
			}
			p.Staves = append(p.Staves, st)
		}
	}
	return p
}

// low reports whether a part begins in a bass clef: on a keyboard the usual hand
// is then the left.
func low(p score.Part) bool {
	return len(p.Bars) > 0 && len(p.Bars[0].Clefs) > 0 && p.Bars[0].Clefs[0].Sign == "F"
}

// only returns the score with the notes of one staff.
func only(s score.Score, part, staff int) score.Score {
	p := s.Parts[part]
	bars := make([]score.Bar, len(p.Bars))
	for i, b := range p.Bars {
		bars[i] = b
		bars[i].Notes = nil
		for _, n := range b.Notes {
			if n.Staff == staff {
				bars[i].Notes = append(bars[i].Notes, n)
			}
		}
	}
	p.Bars = bars
	return score.Score{Parts: []score.Part{p}}
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

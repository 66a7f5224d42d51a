package exercise

import (
	"patientladder/core/pitch"
)

const letters = "CDEFGAB"

// degrees returns the notes of a scale from its tonic upwards, n of them beside the
// tonic itself, rising as the form does; falling gives those of the way down.
func (s Spec) degrees(from pitch.Pitch, n int, falling bool) []pitch.Pitch {
	key, _ := s.key() // Check has seen it
	at := from.Line()
	out := make([]pitch.Pitch, 0, n+1)
	for i := range n + 1 {
		step := letters[(at+i)%7]
		alter := key.Alter(step)
		switch degree := i % 7; {
		case degree == 6 && (s.Form == Harmonic || s.Form == Melodic && !falling):
			alter++
		case degree == 5 && s.Form == Melodic && !falling:
			alter++
		}
		p, err := pitch.New(step, alter, (at+i)/7)
		if err != nil {
			break // beyond all instruments
		}
		out = append(out, p)
	}
	return out
}

// upAndDown returns a scale of octaves, up and down again, the top once.
func (s Spec) upAndDown(from pitch.Pitch) []pitch.Pitch {
	n := 7 * s.Octaves
	up, down := s.degrees(from, n, false), s.degrees(from, n, true)
	for i := len(down) - 2; i >= 0; i-- {
		up = append(up, down[i])
	}
	return up
}

// tonicFrom returns the lowest tonic at or above a pitch.
func (s Spec) tonicFrom(low pitch.Pitch) pitch.Pitch {
	for octave := low.Octave() - 1; ; octave++ {
		alter := 0
		if len(s.Tonic) > 1 {
			alter = map[byte]int{'#': 1, 'b': -1}[s.Tonic[1]]
		}
		p, err := pitch.New(s.Tonic[0], alter, octave)
		if err != nil {
			return low
		}
		if p.MIDI() >= low.MIDI() {
			return p
		}
	}
}

// black reports whether a pitch is a black key.
func black(p pitch.Pitch) bool {
	switch (p.MIDI()%12 + 12) % 12 {
	case 1, 3, 6, 8, 10:
		return true
	}
	return false
}

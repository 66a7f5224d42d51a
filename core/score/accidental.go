package score

import "patientladder/core/pitch"

// Accidentals returns the notes of a part before which a sharp, flat or natural
// is drawn, by id, with their alterations in semitones.
//
// A sign holds to the bar line, on its own staff and in its own octave. A tie
// carries it over the bar line for the tied note alone. A note of the same letter
// gets its sign again where one before, in another octave or tied over, could be
// thought to hold for it too.
func (p Part) Accidentals() map[string]int {
	out, key := map[string]int{}, pitch.Key{}
	for _, b := range p.Bars {
		if b.Key != nil {
			key = *b.Key
		}
		b.accidentals(key, out)
	}
	return out
}

func (b Bar) accidentals(key pitch.Key, out map[string]int) {
	type place struct {
		staff  int
		letter byte
		octave int
	}
	holds, shown := map[place]int{}, map[place]int{}
	mistaken := func(at place, alter int) bool {
		for other, a := range shown {
			if other.staff == at.staff && other.letter == at.letter && a != alter {
				return true
			}
		}
		return false
	}
	for _, n := range b.Notes {
		if n.Rest {
			continue
		}
		at, alter := place{n.Staff, n.Pitch.Step(), n.Pitch.Octave()}, n.Pitch.Alter()
		now, signed := holds[at]
		switch {
		case n.TieFrom:
			shown[at] = alter
			continue
		case !signed:
			now = key.Alter(n.Pitch.Step())
		}
		if now != alter || !signed && mistaken(at, alter) {
			out[n.ID], holds[at] = alter, alter
			shown[at] = alter
		}
	}
}

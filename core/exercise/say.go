package exercise

import (
	"strings"

	"patientladder/core/instrument"
	"patientladder/core/reason"
)

// How says how it goes, in few words, for who practises it alone.
func (s Spec) How() reason.Label { return reason.Said("exercise-how." + string(s.Kind)) }

// A Voice is what one hand plays of an exercise: its fingers on the way up, where each
// note has one.
type Voice struct {
	Hand    Hands // Right or Left; empty where hands do not play alone
	Fingers string
	Strings string // of a roll: the string of each finger
}

// Voices returns who plays an exercise, the right hand first. Fingers are told of what
// goes up and comes back the same way.
func (s Spec) Voices(on instrument.Profile) []Voice {
	s = s.Usual()
	if on.Family != instrument.Keyboard || s.Kind == Cross {
		fingers, strings := s.order()
		return []Voice{{Fingers: fingers, Strings: strings}}
	}
	var out []Voice
	lines, err := makers[on.Family][s.Kind](s, on)
	if err != nil {
		return out
	}
	for _, l := range lines {
		v := Voice{Hand: Right}
		if l.clef == bass {
			v.Hand = Left
		}
		switch s.Kind {
		case Scale, Arpeggio, Half, Five:
			var fingers []string
			for _, st := range l.steps[:len(l.steps)/2+1] {
				fingers = append(fingers, st.fingers...)
			}
			v.Fingers = strings.Join(fingers, " ")
		case Figure:
			v.Fingers = spaced(s.Pick)
		}
		if s.Kind != Duet || l.steps[0].fingers != nil {
			out = append(out, v)
		}
	}
	return out
}

// order is the order of a roll's fingers, and that of its strings where they are told.
func (s Spec) order() (fingers, on string) {
	if s.Kind != Roll {
		return "", ""
	}
	return spaced(s.Pick), spaced(s.Strings)
}

package exercise

import (
	"strings"

	"patientladder/core/instrument"
)

// ways say how each kind goes, for who practises it alone.
var ways = map[Kind]string{
	Scale: "up and down", Arpeggio: "up and down", Chromatic: "up and down", Cycle: "each key up and down", Half: "four notes up and down",
	Duet:       "four notes up, wait for four of the teacher's, four down",
	MeetOnly:   "first only the notes where the hands meet, then all of it, up and down",
	Five:       "five neighbours up and down",
	Skips:      "first, third and fifth, then all three at once",
	Figure:     "a key higher each time, then back",
	Thirds:     "two at a time with one between, one after the other, then together",
	Sixths:     "outer fingers, one after the other, then together",
	Chord:      "three notes one by one, then at once, in each position",
	Levels:     "up and down at each of six levels from pp to ff, then the chord",
	Shaped:     "growing on the way up, fading on the way down",
	Voicing:    "one hand full, the other touching its keys without sound; then soft; then swapped",
	Cross:      "each hand alone, then both, on the phrase",
	Bows:       "two slow bows on each open string, then two neighbours in turn",
	Divide:     "on each open string a whole bow, two halves, four quarters, the same sound",
	Pattern:    "each string up and down, fingers staying near",
	Shift:      "the first finger glides up and back in one bow, thumb with it",
	DoubleOpen: "two neighbours one after the other, then together",
	DoubleNear: "one finger down, one string open: one after the other, then together",
	Roll:       "round and round, even in time first",
	Shape:      "one place of the hand, a finger a fret, up and down",
	Change:     "one stroke a bar, the hand changes in the rest",
	ThumbTune:  "the thumb under every second note",
	Hammer:     "the left hand sounds the second note: falling, then pulled off",
	Slide:      "one finger travels, the string keeps sounding",
}

// How says how it goes, in few words.
func (s Spec) How() string { return ways[s.Kind] }

// A Voice is what one hand plays of an exercise: its fingers on the way up, where each
// note has one.
type Voice struct {
	Hand    Hands // Right or Left; empty where hands do not play alone
	Fingers string
}

// Voices returns who plays an exercise, the right hand first. Fingers are told of what
// goes up and comes back the same way.
func (s Spec) Voices(on instrument.Profile) []Voice {
	s = s.Usual()
	if on.Family != instrument.Keyboard || s.Kind == Cross {
		return []Voice{{Fingers: s.order()}}
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

// order is the order of a roll's fingers and strings.
func (s Spec) order() string {
	switch {
	case s.Kind != Roll:
		return ""
	case s.Strings != "":
		return spaced(s.Pick) + " on strings " + spaced(s.Strings)
	}
	return spaced(s.Pick)
}

package exercise

import (
	"slices"

	"patientladder/core/instrument"
	"patientladder/core/pitch"
)

// loudness are the six levels.
var loudness = []string{"pp", "p", "mp", "mf", "f", "ff"}

// levels plays five fingers up and down at each of the six levels, then their chord.
func levels(s Spec, on instrument.Profile) ([]line, error) {
	return s.staves(on, func(from pitch.Pitch, hand Hands) []step {
		five, fingers := s.degrees(from, 4, false), hand5(hand)
		var out []step
		for _, level := range loudness {
			steps := singles(there(slices.Clone(five), slices.Clone(fingers)))[:8]
			steps[0].says = level
			out = append(out, steps...)
		}
		for _, level := range loudness {
			three := together([]pitch.Pitch{five[0], five[2], five[4]}, []int{fingers[0], fingers[2], fingers[4]}, half)
			three.says = level
			out = append(out, three)
		}
		return append(out, singles(five[:1], fingers[:1])...)
	})
}

// shaped plays a broken chord over two octaves, rising from pp to ff and fading back:
// rising usually grows, falling fades.
func shaped(s Spec, on instrument.Profile) ([]line, error) {
	s.Octaves = max(s.Octaves, 2)
	return s.staves(on, func(from pitch.Pitch, hand Hands) []step {
		tones := s.chordOf(from)
		steps := singles(there(tones, chordFingers(tones, hand)))
		top := len(tones) - 1
		for i, level := range loudness {
			at := i * top / (len(loudness) - 1)
			steps[at].says, steps[2*top-at].says = level, level
		}
		return steps
	})
}

// voicing plays five fingers with both hands: one full while the other touches its keys
// without sound, then loud against soft, and the same with the hands swapped.
func voicing(s Spec, on instrument.Profile) ([]line, error) {
	s.Hands = Both
	return s.staves(on, func(from pitch.Pitch, hand Hands) []step {
		var out []step
		for _, how := range []string{"right full, left without sound", "right loud, left soft", "left full, right without sound", "left loud, right soft"} {
			steps := singles(there(s.degrees(from, 4, false), hand5(hand)))
			steps[0].words = how
			steps[8].long = whole
			out = append(out, steps...)
		}
		return out
	})
}

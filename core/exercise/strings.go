package exercise

import (
	"fmt"
	"slices"
	"strings"

	"patientladder/core/instrument"
	"patientladder/core/pitch"
	"patientladder/core/score"
)

// clefOf is the clef of an instrument's usual staff.
func clefOf(on instrument.Profile) score.Clef {
	c := score.Clef{Sign: "G", Line: 2}
	if len(on.Clef) >= 2 {
		c.Sign, c.Line = on.Clef[:1], int(on.Clef[1]-'0')
	}
	switch {
	case strings.HasSuffix(on.Clef, "-8"):
		c.Octave = -1
	case strings.HasSuffix(on.Clef, "+8"):
		c.Octave = 1
	}
	return c
}

// open returns the open strings as they are written, string 1 first.
func open(on instrument.Profile) []pitch.Pitch {
	out := make([]pitch.Pitch, len(on.Strings))
	for i, p := range on.Strings {
		out[i] = p
		if clefOf(on).Octave == 0 {
			out[i] = p.Octaves(on.Written / 12)
		}
	}
	return out
}

// under returns how many semitones above the open string the first and the last finger
// are in first position, by the usual shapes of the hand.
func under(f instrument.Frame) (first, last int) {
	first = instrument.None
	for _, shape := range f.Shapes {
		for _, lie := range shape.Lie {
			if shape.Cost < 1 && lie != instrument.None {
				first, last = min(first, f.Home+lie), max(last, f.Home+lie)
			}
		}
	}
	return first, last
}

// stopped returns the strings that can be stopped, the lowest-sounding first.
func stopped(on instrument.Profile) []pitch.Pitch {
	var out []pitch.Pitch
	for i, p := range open(on) {
		if i+1 != on.Drone {
			out = append(out, p)
		}
	}
	slices.SortStableFunc(out, func(a, b pitch.Pitch) int { return a.MIDI() - b.MIDI() })
	return out
}

// upTo is how far up the highest string a scale may go, in semitones.
const upTo = 14

// stringScale is a scale in first position where that holds it: from an open string where
// the tonic is one and there is room above it, else from the lowest tonic there is, with
// a shift along the highest string.
func stringScale(s Spec, on instrument.Profile) ([]line, error) {
	strings := stopped(on)
	_, last := under(on.Frame)
	top := strings[len(strings)-1].MIDI() + last
	fits := func(from pitch.Pitch) bool { return from.MIDI()+12*s.Octaves <= top }
	from := s.tonicFrom(strings[0])
	for _, p := range slices.Backward(strings) {
		if at := s.tonicFrom(p); at == p && fits(p) {
			from = p
			break
		}
	}
	if from.MIDI()+12*s.Octaves > strings[len(strings)-1].MIDI()+upTo {
		return nil, fmt.Errorf("the %s has no room for %d octaves from %s", on, s.Octaves, s.Tonic)
	}
	return []line{{clefOf(on), singles(s.upAndDown(from), nil)}}, nil
}

// stringArpeggio is the chord of a scale, where the scale lies.
func stringArpeggio(s Spec, on instrument.Profile) ([]line, error) {
	lines, err := stringScale(s, on)
	return broken(s, lines), err
}

// broken leaves the chord of a scale, up and down.
func broken(s Spec, scale []line) []line {
	for i, l := range scale {
		notes, _ := there(s.chordOf(l.steps[0].notes[0]), make([]int, 3*s.Octaves+1))
		scale[i].steps = singles(notes, nil)
	}
	return scale
}

// windScale is a scale inside the usual compass of an instrument of no family here.
func windScale(s Spec, on instrument.Profile) ([]line, error) {
	low, high := on.Low, on.High
	if !low.Valid() {
		low = pitch.MustParse("C4")
	}
	from := s.tonicFrom(low)
	if high.Valid() && from.MIDI()+12*s.Octaves > high.MIDI() {
		return nil, fmt.Errorf("the %s has no %d octaves from %s", on, s.Octaves, s.Tonic)
	}
	return []line{{clefOf(on), singles(s.upAndDown(from), nil)}}, nil
}

// windArpeggio is the chord of a scale, where the scale lies.
func windArpeggio(s Spec, on instrument.Profile) ([]line, error) {
	lines, err := windScale(s, on)
	return broken(s, lines), err
}

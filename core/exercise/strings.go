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

// bows plays each open string in two long bows, from the lowest, then crosses between
// neighbours.
func bows(_ Spec, on instrument.Profile) ([]line, error) {
	var steps []step
	all := stopped(on)
	for _, p := range all {
		steps = append(steps, step{notes: []pitch.Pitch{p}, long: 4}, step{notes: []pitch.Pitch{p}, long: 4})
	}
	for i := range len(all) - 1 {
		for range 2 {
			steps = append(steps, singles([]pitch.Pitch{all[i], all[i+1]}, nil)...)
		}
	}
	return []line{{clefOf(on), append(steps, step{notes: all[len(all)-1:], long: 4})}}, nil
}

// pattern plays what lies under the hand on each string in a key, up and down, from the
// highest string.
func pattern(s Spec, on instrument.Profile) ([]line, error) {
	var steps []step
	first, last := under(on.Frame)
	for _, p := range slices.Backward(stopped(on)) {
		var notes []pitch.Pitch
		for line := p.Line(); ; line++ {
			key, _ := s.key()
			step := letters[line%7]
			n, err := pitch.New(step, key.Alter(step), line/7)
			if err != nil || n.MIDI() > p.MIDI()+last {
				break
			}
			if above := n.MIDI() - p.MIDI(); above == 0 || above >= first {
				notes = append(notes, n)
			}
		}
		up := singles(notes, nil)
		for i := len(notes) - 2; i >= 0; i-- {
			up = append(up, step{notes: notes[i : i+1], long: 1})
		}
		for beats := len(up) % 4; beats != 0 && beats < 4; beats++ { // a string ends with its bar
			up[len(up)-1].long++
		}
		steps = append(steps, up...)
	}
	return []line{{clefOf(on), steps}}, nil
}

// doubleOpen plays neighbouring open strings one by one, then together.
func doubleOpen(_ Spec, on instrument.Profile) ([]line, error) {
	var steps []step
	all := stopped(on)
	for i := range len(all) - 1 {
		steps = append(steps, singles([]pitch.Pitch{all[i], all[i+1]}, nil)...)
		steps = append(steps, step{notes: []pitch.Pitch{all[i], all[i+1]}, long: 2})
	}
	return []line{{clefOf(on), steps}}, nil
}

// roll plays a fixed order of plucking fingers over open strings, two bars a bass: the
// thumb on the low strings in turn, each finger on its own. A drone has its thumb too.
func roll(s Spec, on instrument.Profile) ([]line, error) {
	if len(on.Roll) == 0 {
		return nil, fmt.Errorf("the %s is played with a plectrum; rolls are for fingers", on)
	}
	strings := open(on)
	own := map[string]int{} // the string of each finger, from 1
	var basses []int
	for i, finger := range on.Roll {
		if finger == on.Thumb() {
			basses = append(basses, i+1)
		} else if own[finger] == 0 {
			own[finger] = i + 1
		}
	}
	slices.Reverse(basses)
	if len(basses) == 0 {
		return nil, fmt.Errorf("no string of the %s is the thumb's", on)
	}
	order := []string{}
	for _, f := range s.Fingers {
		if f == 'p' {
			order = append(order, on.Thumb())
		} else if own[string(f)] > 0 {
			order = append(order, string(f))
		} else {
			return nil, fmt.Errorf("no string of the %s is for the finger %c", on, f)
		}
	}
	var steps []step
	for _, low := range basses {
		for beat := range 8 {
			finger := order[beat%len(order)]
			at := own[finger]
			if finger == on.Thumb() {
				at = low
			}
			steps = append(steps, step{notes: []pitch.Pitch{strings[at-1]}, long: 1, fingers: []string{finger}, strings: []int{at}})
		}
	}
	return []line{{clefOf(on), steps}}, nil
}

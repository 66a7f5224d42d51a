package exercise

import (
	"fmt"
	"slices"

	"patientladder/core/instrument"
	"patientladder/core/pitch"
)

// bows plays each open string in two long bows, from the lowest, then crosses between
// neighbours.
func bows(_ Spec, on instrument.Profile) ([]line, error) {
	var steps []step
	all := stopped(on)
	for _, p := range all {
		steps = append(steps, step{notes: []pitch.Pitch{p}, long: whole}, step{notes: []pitch.Pitch{p}, long: whole})
	}
	for i := range len(all) - 1 {
		for range 2 {
			steps = append(steps, singles([]pitch.Pitch{all[i], all[i+1]}, nil)...)
		}
	}
	return []line{{clefOf(on), append(steps, step{notes: all[len(all)-1:], long: whole})}}, nil
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
		up[0].words = touching(notes)
		for i := len(notes) - 2; i >= 0; i-- {
			up = append(up, step{notes: notes[i : i+1], long: quarter})
		}
		for beats := len(up) % 4; beats != 0 && beats < 4; beats++ { // a string ends with its bar
			up[len(up)-1].long += quarter
		}
		steps = append(steps, up...)
	}
	return []line{{clefOf(on), steps}}, nil
}

// touching says which stopped neighbours lie a semitone apart, so that their fingers touch.
func touching(notes []pitch.Pitch) string {
	for i := 1; i+1 < len(notes); i++ {
		if notes[i+1].MIDI()-notes[i].MIDI() == 1 {
			return letterOf(notes[i]) + " and " + letterOf(notes[i+1]) + " touch"
		}
	}
	return "none touch"
}

// letterOf names a note without its octave.
func letterOf(p pitch.Pitch) string {
	return string(p.Step()) + map[int]string{-1: " flat", 1: " sharp"}[p.Alter()]
}

// doubleOpen plays neighbouring open strings one by one, then together.
func doubleOpen(_ Spec, on instrument.Profile) ([]line, error) {
	var steps []step
	all := stopped(on)
	for i := range len(all) - 1 {
		steps = append(steps, singles([]pitch.Pitch{all[i], all[i+1]}, nil)...)
		steps = append(steps, step{notes: []pitch.Pitch{all[i], all[i+1]}, long: half})
	}
	return []line{{clefOf(on), steps}}, nil
}

// divide plays each open string in a whole bow, in its halves and in its quarters.
func divide(_ Spec, on instrument.Profile) ([]line, error) {
	var steps []step
	for _, p := range stopped(on) {
		for i, d := range []struct {
			long  int
			words string
		}{{whole, "whole bow"}, {half, "halves"}, {quarter, "quarters"}} {
			for n := range whole / d.long {
				st := step{notes: []pitch.Pitch{p}, long: d.long}
				if n == 0 {
					st.words = d.words
				}
				if i > 0 {
					st.fingers = []string{"0"}
				}
				steps = append(steps, st)
			}
		}
	}
	return []line{{clefOf(on), steps}}, nil
}

// up is how far the first shift goes, in semitones: from first to third position where
// the tonic of the hand's place moves by a minor third. Common practice, no source.
const up = 3

// shift glides the first finger up each string and back, in one bow.
func shift(_ Spec, on instrument.Profile) ([]line, error) {
	first := []string{"1"}
	var steps []step
	for _, p := range stopped(on) {
		low := p.MIDI() + on.Frame.Home + on.Frame.Shapes[0].Lie[0]
		key := pitch.Key{}
		from, to := []pitch.Pitch{key.Spell(low)}, []pitch.Pitch{key.Spell(low + up)}
		steps = append(steps,
			step{notes: []pitch.Pitch{p}, long: half, fingers: []string{"0"}}, step{notes: from, long: half, fingers: first},
			step{notes: from, long: half, fingers: first, slur: true}, step{notes: to, long: half, fingers: first},
			step{notes: to, long: half, fingers: first, slur: true}, step{notes: from, long: half, fingers: first})
		for range 2 { // the bar ends with the open string
			steps = append(steps, step{notes: []pitch.Pitch{p}, long: half, fingers: []string{"0"}})
		}
	}
	return []line{{clefOf(on), steps}}, nil
}

// near is the finger that stands a semitone above an open string.
const near = 1

// doubleNear plays two neighbouring strings, one with a finger a semitone above the open
// one: one after the other, then together, then both open. Where the strings lie a fifth
// apart it is the upper that is stopped (a sixth), on fourths the lower (a third).
func doubleNear(_ Spec, on instrument.Profile) ([]line, error) {
	var steps []step
	all := stopped(on)
	for i := range len(all) - 1 {
		low, high := all[i], all[i+1]
		key := pitch.Key{Fifths: -1}
		pair, fingers := []pitch.Pitch{low, key.Spell(high.MIDI() + 1)}, []int{0, near}
		switch high.MIDI() - low.MIDI() {
		case 7:
		case 5:
			pair, fingers = []pitch.Pitch{key.Spell(low.MIDI() + 1), high}, []int{near, 0}
		default:
			return nil, fmt.Errorf("the strings of the %s lie neither a fourth nor a fifth apart", on)
		}
		steps = append(steps, singles(pair, fingers)...)
		steps = append(steps, together(pair, fingers, half), together([]pitch.Pitch{low, high}, []int{0, 0}, whole))
	}
	return []line{{clefOf(on), steps}}, nil
}

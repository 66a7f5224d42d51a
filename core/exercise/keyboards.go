package exercise

import (
	"fmt"
	"slices"

	"patientladder/core/instrument"
	"patientladder/core/pitch"
)

// staves gives the lines of the hands asked for: each made from where it begins, an octave
// lower on a keyboard that ends too soon.
func (s Spec) staves(on instrument.Profile, make func(from pitch.Pitch, hand Hands) []step) ([]line, error) {
	low := []string{"C4", "C4", "C3", "C2"}[s.Octaves-1]
	right := s.tonicFrom(pitch.MustParse(low))
	lowest, highest := instrument.Compass(on.Keys)
	if right.MIDI()+12*s.Octaves > highest {
		right = right.Octaves(-1)
	}
	left := right.Octaves(-1)
	if left.MIDI() < lowest && s.Hands != Right || right.MIDI()+12*s.Octaves > highest {
		return nil, fmt.Errorf("the %s has no room for %d octaves from %s", on, s.Octaves, left)
	}
	var out []line
	if s.Hands != Left {
		out = append(out, line{treble, make(right, Right)})
	}
	if s.Hands != Right {
		out = append(out, line{bass, make(left, Left)})
	}
	return out, nil
}

func keyboardScale(s Spec, on instrument.Profile) ([]line, error) {
	return s.staves(on, func(from pitch.Pitch, hand Hands) []step {
		n := 7 * s.Octaves
		up, down := s.degrees(from, n, false), s.degrees(from, n, true)
		rise, fall := fingering(up, hand), fingering(down, hand)
		if s.Hands == Mirrored && hand == Left { // from the tonic that the right hand has, down and up
			top := from.Octaves(1 - s.Octaves)
			up, down = s.degrees(top, n, false), s.degrees(top, n, true)
			rise, fall = fingering(up, hand), fingering(down, hand)
			rise[n], fall[n] = 1, 1
			notes, fingers := slices.Clone(down), slices.Clone(fall)
			slices.Reverse(notes)
			slices.Reverse(fingers)
			return singles(append(notes, up[1:]...), append(fingers, rise[1:]...))
		}
		notes, fingers := slices.Clone(up), slices.Clone(rise)
		for i := n - 1; i >= 0; i-- {
			notes, fingers = append(notes, down[i]), append(fingers, fall[i])
		}
		return singles(notes, fingers)
	})
}

// chordOf picks the first, third and fifth of a scale over its octaves, the top with it.
func (s Spec) chordOf(from pitch.Pitch) []pitch.Pitch {
	all := s.degrees(from, 7*s.Octaves, false)
	var out []pitch.Pitch
	for i, p := range all {
		if d := i % 7; d == 0 || d == 2 || d == 4 {
			out = append(out, p)
		}
	}
	return out
}

func keyboardArpeggio(s Spec, on instrument.Profile) ([]line, error) {
	return s.staves(on, func(from pitch.Pitch, hand Hands) []step {
		tones := s.chordOf(from)
		return singles(there(tones, chordFingers(tones, hand)))
	})
}

// fifths are the tonics of a cycle, each a fifth over the one before. Common practice,
// no source.
var fifths = map[bool][]string{
	true:  {"C", "G", "D", "A", "E", "B", "F#", "Db", "Ab", "Eb", "Bb", "F"},
	false: {"A", "E", "B", "F#", "C#", "G#", "Eb", "Bb", "F", "C", "G", "D"},
}

// cycle plays a scale of an octave, up and down, in each of the twelve keys.
func cycle(s Spec, on instrument.Profile) ([]line, error) {
	var out []line
	for place := range s.keys() {
		one, _ := s.Part(place)
		lines, err := keyboardScale(one, on)
		if err != nil {
			return nil, err
		}
		key, err := one.key()
		if err != nil {
			return nil, err
		}
		for i, l := range lines {
			l.steps[0].key = &key
			l.steps[len(l.steps)-1].long = half
			if i == len(out) {
				out = append(out, line{clef: l.clef})
			}
			out[i].steps = append(out[i].steps, l.steps...)
		}
	}
	return out, nil
}

// Part returns the scale of a cycle's key by its place, from 0; false of an exercise
// without parts and of a place that is none.
func (s Spec) Part(place int) (Spec, bool) {
	s = s.Usual()
	if s.Kind != Cycle || place < 0 || place >= len(s.keys()) {
		return s, false
	}
	s.Kind, s.Tonic, s.Octaves, s.Pick = Scale, s.keys()[place], 1, ""
	return s, true
}

// hand4 and hand5 are the fingers of four and five neighbouring keys, rising.
func hand4(hand Hands) []int {
	if hand == Left {
		return []int{4, 3, 2, 1}
	}
	return []int{1, 2, 3, 4}
}

func hand5(hand Hands) []int {
	if hand == Left {
		return []int{5, 4, 3, 2, 1}
	}
	return []int{1, 2, 3, 4, 5}
}

// keyboardHalf is the first four notes of a scale: four fingers, no thumb passes.
func keyboardHalf(s Spec, on instrument.Profile) ([]line, error) {
	return s.staves(on, func(from pitch.Pitch, hand Hands) []step {
		notes, fingers := there(s.degrees(from, 3, false), hand4(hand))
		return singles(notes, fingers)
	})
}

// duet shares a scale: the student plays its lower half, the teacher answers with the
// upper one, and back.
func duet(s Spec, on instrument.Profile) ([]line, error) {
	if s.Hands != Left {
		s.Hands = Right
	}
	lines, err := s.staves(on, func(from pitch.Pitch, hand Hands) []step {
		low := singles(s.degrees(from, 3, false), hand4(hand))
		back := slices.Clone(low)
		slices.Reverse(back)
		return slices.Concat(low, []step{{long: whole}, {long: whole}}, back)
	})
	if err != nil {
		return nil, err
	}
	all := s.degrees(s.tonicFrom(pitch.MustParse("C4")), 7, true) // as it falls both ways, so that the tops agree
	up := singles(all[4:], nil)
	down := slices.Clone(up)
	slices.Reverse(down)
	teacher := line{treble, slices.Concat([]step{{long: whole, words: "teacher above, student below"}}, up, down, []step{{long: whole}})}
	return []line{teacher, lines[0]}, nil
}

// meetingStudy plays only the notes on which both hands have the same finger or a pair
// lies crosswise, in their time, and then all of the scale.
func meetingStudy(s Spec, on instrument.Profile) ([]line, error) {
	s.Hands, s.Octaves = Both, max(s.Octaves, 2) // hands meet inside octaves, not at their ends
	lines, err := keyboardScale(s, on)
	if err != nil {
		return nil, err
	}
	var meet []bool
	for j := range lines[0].steps {
		meet = append(meet, meets(lines, j))
	}
	for i, l := range lines {
		only := slices.Clone(l.steps)
		for j := range only {
			if !meet[j] {
				only[j] = step{long: quarter}
			}
		}
		only[0].words = "only where the hands meet"
		only[len(only)-1].long = whole - quarter*(len(only)-1)%whole
		l.steps[0].words = "now all of it"
		lines[i].steps = append(only, l.steps...)
	}
	return lines, nil
}

// meets reports whether two hands have the same finger at a step, or share a pair of
// fingers with a neighbour.
func meets(lines []line, at int) bool {
	finger := func(hand, j int) string { return lines[hand].steps[j].fingers[0] }
	if finger(0, at) == finger(1, at) {
		return true
	}
	for _, j := range []int{at - 1, at + 1} {
		if j >= 0 && j < len(lines[0].steps) && finger(0, at) == finger(1, j) && finger(0, j) == finger(1, at) {
			return true
		}
	}
	return false
}

func chromatic(s Spec, on instrument.Profile) ([]line, error) {
	return s.staves(on, func(from pitch.Pitch, hand Hands) []step {
		run := make([]pitch.Pitch, 0, 12*s.Octaves+1)
		for i := range 12*s.Octaves + 1 {
			run = append(run, pitch.Key{}.Spell(from.MIDI()+i))
		}
		notes, fingers := there(run, chromaticFingers(run, hand))
		return singles(notes, fingers)
	})
}

func five(s Spec, on instrument.Profile) ([]line, error) {
	return s.staves(on, func(from pitch.Pitch, hand Hands) []step {
		notes, fingers := s.degrees(from, 4, false), hand5(hand)
		if s.Hands == Mirrored && hand == Left {
			slices.Reverse(notes)
			slices.Reverse(fingers)
		}
		notes, fingers = there(notes, fingers)
		return singles(notes, fingers)
	})
}

// skips plays the first, third and fifth of five fingers, then all three at once.
func skips(s Spec, on instrument.Profile) ([]line, error) {
	return s.staves(on, func(from pitch.Pitch, hand Hands) []step {
		five, fingers := s.degrees(from, 4, false), hand5(hand)
		notes, of := []pitch.Pitch{five[0], five[2], five[4]}, []int{fingers[0], fingers[2], fingers[4]}
		up, back := there(slices.Clone(notes), slices.Clone(of))
		steps := singles(up, back)
		steps[4].long = whole
		return append(steps, together(notes, of, whole))
	})
}

// figure plays an order of fingers in eighths, each time from the next key up to the
// octave, and back with the order turned over. The fingers are those of the right hand;
// the left one plays the same keys.
func figure(s Spec, on instrument.Profile) ([]line, error) {
	return s.staves(on, func(from pitch.Pitch, hand Hands) []step {
		all := s.degrees(from, 11, false)
		var out []step
		put := func(base, offset int) {
			finger := offset + 1
			if hand == Left {
				finger = 5 - offset
			}
			st := singles([]pitch.Pitch{all[base+offset]}, []int{finger})[0]
			st.long = eighth
			out = append(out, st)
		}
		for base := range 8 {
			for _, f := range s.Pick {
				put(base, int(f-'1'))
			}
		}
		for base := 7; base >= 0; base-- {
			for _, f := range s.Pick {
				put(base, 4-int(f-'1'))
			}
		}
		return append(out, singles(all[:1], hand5(hand)[:1])...)
	})
}

// doubles plays pairs one after the other, then together.
func doubles(pairs [][2]pitch.Pitch, fingers [][2]int) []step {
	var out []step
	for i, p := range pairs {
		out = append(out, singles(p[:], fingers[i][:])...)
		out = append(out, together(p[:], fingers[i][:], half))
	}
	return out
}

// thirds are pairs of five fingers with one between them, up and down.
func thirds(s Spec, on instrument.Profile) ([]line, error) {
	return s.staves(on, func(from pitch.Pitch, hand Hands) []step {
		five, f := s.degrees(from, 4, false), hand5(hand)
		var pairs [][2]pitch.Pitch
		var fingers [][2]int
		for _, i := range []int{0, 1, 2, 1, 0} {
			pairs, fingers = append(pairs, [2]pitch.Pitch{five[i], five[i+2]}), append(fingers, [2]int{f[i], f[i+2]})
		}
		return doubles(pairs, fingers)
	})
}

// sixths are the outer fingers of an opened hand, up three keys and down.
func sixths(s Spec, on instrument.Profile) ([]line, error) {
	return s.staves(on, func(from pitch.Pitch, hand Hands) []step {
		all := s.degrees(from, 7, false)
		outer := [2]int{hand5(hand)[0], hand5(hand)[4]}
		var pairs [][2]pitch.Pitch
		var fingers [][2]int
		for _, i := range []int{0, 1, 2, 1, 0} {
			pairs, fingers = append(pairs, [2]pitch.Pitch{all[i], all[i+5]}), append(fingers, outer)
		}
		return doubles(pairs, fingers)
	})
}

// positions are the fingers of a triad's three positions. Common practice, no source.
var positions = map[Hands][3][3]int{Right: {{1, 3, 5}, {1, 2, 5}, {1, 3, 5}}, Left: {{5, 3, 1}, {5, 3, 1}, {5, 2, 1}}}

// chord plays a triad in its three positions, broken and at once, up to the octave.
func chord(s Spec, on instrument.Profile) ([]line, error) {
	return s.staves(on, func(from pitch.Pitch, hand Hands) []step {
		all := s.degrees(from, 11, false)
		tones := []pitch.Pitch{all[0], all[2], all[4], all[7], all[9], all[11]}
		var out []step
		for i, fingers := range positions[hand] {
			three := tones[i : i+3]
			out = append(out, singles(three, fingers[:])...)
			out = append(out, together(three, fingers[:], quarter))
		}
		top := positions[hand][0]
		return append(out, together(tones[3:], top[:], whole))
	})
}

package exercise

import (
	"fmt"
	"slices"
	"strconv"

	"patientladder/core/instrument"
	"patientladder/core/pitch"
	"patientladder/core/score"
)

// A step is one moment of a line: the notes that sound, how long in quarter notes, and
// the finger of each where it is written.
type step struct {
	notes   []pitch.Pitch
	long    int
	fingers []string
	strings []int      // of plucked strings, beside the notes; nil where none is written
	says    string     // loudness from here on
	key     *pitch.Key // the signature from here on
}

// A line is what one staff plays.
type line struct {
	clef  score.Clef
	steps []step
}

// Make writes an exercise for an instrument. It fails where the specification is wrong,
// where the kind does not belong to the instrument's family, and where its compass does
// not hold the notes.
func Make(s Spec, on instrument.Profile) (score.Score, error) {
	if err := s.Check(); err != nil {
		return score.Score{}, err
	}
	s = s.usual()
	makers := map[instrument.Family]map[Kind]func(Spec, instrument.Profile) ([]line, error){
		instrument.Keyboard: {Scale: keyboardScale, Cycle: cycle, Half: keyboardHalf, Five: five, Skips: skips, Chord: chord, Chromatic: chromatic, Levels: levels},
		instrument.Bowed:    {Scale: stringScale, Bows: bows, Pattern: pattern, DoubleOpen: doubleOpen},
		instrument.Plucked:  {Scale: stringScale, Roll: roll},
		instrument.Other:    {Scale: windScale},
	}
	maker, belongs := makers[on.Family][s.Kind]
	if !belongs {
		return score.Score{}, fmt.Errorf("%q is not an exercise of the %s", s.Kind, on)
	}
	lines, err := maker(s, on)
	if err != nil {
		return score.Score{}, err
	}
	key, _ := s.key()
	if s.Kind == Bows || s.Kind == DoubleOpen || s.Kind == Roll || s.Kind == Chromatic {
		key = pitch.Key{Mode: "major"}
	}
	return written(s.Title(), key, lines), nil
}

// written puts lines into bars of four, the last note held to the end of its bar.
func written(title string, key pitch.Key, lines []line) score.Score {
	four := score.Meter{Beats: 4, BeatType: 4}
	part := score.Part{Staves: len(lines)}
	for staff, l := range lines {
		beat := 0
		for i, st := range l.steps {
			bar, at := beat/4, beat%4
			for len(part.Bars) <= bar {
				part.Bars = append(part.Bars, score.Bar{Length: four.Length()})
			}
			long := min(st.long, 4-at)
			if i == len(l.steps)-1 {
				long = 4 - at
			}
			b := &part.Bars[bar]
			if st.key != nil {
				b.Key = st.key
			}
			if st.says != "" && staff == 0 {
				b.Marks = append(b.Marks, score.Mark{Onset: score.Quarters(at), Kind: "dynamic", Text: st.says})
			}
			for n, p := range st.notes {
				note := score.Note{Onset: score.Quarters(at), Duration: score.Quarters(long), Pitch: p, Voice: staff + 1, Staff: staff + 1}
				if long == 3 {
					note.Dots = 1
				}
				if n < len(st.fingers) && st.fingers[n] != "" {
					note.Fingers = []string{st.fingers[n]}
				}
				if n < len(st.strings) {
					note.String = st.strings[n]
				}
				b.Notes = append(b.Notes, note)
			}
			beat += long
		}
		if len(part.Bars) > 0 {
			clef := l.clef
			clef.Staff = staff + 1
			part.Bars[0].Clefs = append(part.Bars[0].Clefs, clef)
		}
	}
	if len(part.Bars) > 0 {
		part.Bars[0].Key, part.Bars[0].Meter = &key, &four
	}
	for i := range part.Bars {
		slices.SortStableFunc(part.Bars[i].Notes, func(a, b score.Note) int { return a.Onset.Cmp(b.Onset) })
	}
	s := score.Score{Title: title, Parts: []score.Part{part}}
	s.Finish()
	return s
}

var (
	treble = score.Clef{Sign: "G", Line: 2}
	bass   = score.Clef{Sign: "F", Line: 4}
)

// singles makes a step of a beat of each note, with its finger.
func singles(notes []pitch.Pitch, fingers []int) []step {
	out := make([]step, len(notes))
	for i, p := range notes {
		out[i] = step{notes: []pitch.Pitch{p}, long: 1}
		if fingers != nil {
			out[i].fingers = []string{strconv.Itoa(fingers[i])}
		}
	}
	return out
}

// there returns a rising run and its fingers, and back, the top once.
func there(notes []pitch.Pitch, fingers []int) ([]pitch.Pitch, []int) {
	for i := len(notes) - 2; i >= 0; i-- {
		notes, fingers = append(notes, notes[i]), append(fingers, fingers[i])
	}
	return notes, fingers
}

// staves gives the lines of the hands asked for: each made from where it begins.
func (s Spec) staves(on instrument.Profile, make func(from pitch.Pitch, hand Hands) []step) ([]line, error) {
	low := []string{"C4", "C4", "C3", "C2"}[s.Octaves-1]
	base := pitch.MustParse(low)
	right := s.tonicFrom(base)
	left := right.Octaves(-1)
	var out []line
	if s.Hands != Left {
		out = append(out, line{treble, make(right, Right)})
	}
	if s.Hands != Right {
		out = append(out, line{bass, make(left, Left)})
	}
	if lowest, highest := instrument.Compass(on.Keys); left.MIDI() < lowest && s.Hands != Right || right.MIDI()+12*s.Octaves > highest {
		return nil, fmt.Errorf("the %s has no room for %d octaves from %s", on, s.Octaves, left)
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

// fifths are the tonics of a cycle, each a fifth over the one before. Common practice,
// no source.
var fifths = map[bool][]string{
	true:  {"C", "G", "D", "A", "E", "B", "F#", "Db", "Ab", "Eb", "Bb", "F"},
	false: {"A", "E", "B", "F#", "C#", "G#", "Eb", "Bb", "F", "C", "G", "D"},
}

// cycleBars is how many bars each key of a cycle takes.
const cycleBars = 4

// cycle plays a scale of an octave, up and down, in each of the twelve keys.
func cycle(s Spec, on instrument.Profile) ([]line, error) {
	var out []line
	for _, tonic := range fifths[s.Form == Major] {
		one := s
		one.Tonic, one.Octaves = tonic, 1
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
			l.steps[len(l.steps)-1].long = 2
			if i == len(out) {
				out = append(out, line{clef: l.clef})
			}
			out[i].steps = append(out[i].steps, l.steps...)
		}
	}
	return out, nil
}

// Bars returns the bars of a cycle, from 1, in which the key of a place (from 0) stands;
// nought for an exercise that is no cycle.
func (s Spec) Bars(place int) (from, to int) {
	if s.Kind != Cycle || place < 0 || place >= len(fifths[true]) {
		return 0, 0
	}
	return cycleBars*place + 1, cycleBars * (place + 1)
}

// keyboardHalf is the first four notes of a scale: four fingers, no thumb passes.
func keyboardHalf(s Spec, on instrument.Profile) ([]line, error) {
	return s.staves(on, func(from pitch.Pitch, hand Hands) []step {
		fingers := []int{1, 2, 3, 4}
		if hand == Left {
			fingers = []int{4, 3, 2, 1}
		}
		notes, fingers := there(s.degrees(from, 3, false), fingers)
		return singles(notes, fingers)
	})
}

// hand5 returns the fingers of five neighbouring keys, rising.
func hand5(hand Hands) []int {
	if hand == Left {
		return []int{5, 4, 3, 2, 1}
	}
	return []int{1, 2, 3, 4, 5}
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
		steps[4].long = 4
		return append(steps, step{notes: notes, long: 4, fingers: texts(of)})
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
			out = append(out, step{notes: three, long: 1, fingers: texts(fingers[:])})
		}
		top := positions[hand][0]
		return append(out, step{notes: tones[3:], long: 4, fingers: texts(top[:])})
	})
}

func texts(fingers []int) []string {
	out := make([]string, len(fingers))
	for i, f := range fingers {
		out[i] = strconv.Itoa(f)
	}
	return out
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

// loudness are the six levels.
var loudness = []string{"pp", "p", "mp", "mf", "f", "ff"}

// levels plays five fingers up and down at each of the six levels.
func levels(s Spec, on instrument.Profile) ([]line, error) {
	return s.staves(on, func(from pitch.Pitch, hand Hands) []step {
		var out []step
		for _, level := range loudness {
			notes, fingers := s.degrees(from, 4, false), hand5(hand)
			steps := singles(there(notes, fingers))[:8]
			steps[0].says = level
			out = append(out, steps...)
		}
		return append(out, singles(s.degrees(from, 0, false), []int{hand5(hand)[0]})...)
	})
}

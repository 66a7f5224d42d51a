package exercise

import (
	"fmt"
	"slices"
	"strconv"

	"patientladder/core/instrument"
	"patientladder/core/pitch"
	"patientladder/core/score"
)

// A step is one moment of a line: the notes that sound, how long in eighths, and the
// finger of each where it is written. Without notes it is a rest.
type step struct {
	notes   []pitch.Pitch
	long    int
	fingers []string
	stops   []stop     // where plucked notes lie, beside them; nil where that is not told
	slur    bool       // goes on into the next under one slur
	says    string     // loudness from here on
	words   string     // written over it
	key     *pitch.Key // the signature from here on
}

// A stop is a string, from 1, and a fret.
type stop struct{ at, fret int }

// A line is what one staff plays.
type line struct {
	clef  score.Clef
	steps []step
}

// How long steps last, in eighths.
const (
	eighth  = 1
	quarter = 2
	half    = 4
	whole   = 8
)

type maker func(Spec, instrument.Profile) ([]line, error)

// makers are who makes what, by family.
var makers = map[instrument.Family]map[Kind]maker{
	instrument.Keyboard: {Scale: keyboardScale, Arpeggio: keyboardArpeggio, Cycle: cycle, Half: keyboardHalf, Duet: duet, MeetOnly: meetingStudy, Chromatic: chromatic,
		Five: five, Skips: skips, Figure: figure, Thirds: thirds, Sixths: sixths, Chord: chord, Levels: levels, Shaped: shaped, Voicing: voicing},
	instrument.Bowed: {Scale: stringScale, Arpeggio: stringArpeggio, Bows: bows, Divide: divide, Pattern: pattern, Shift: shift, DoubleOpen: doubleOpen, DoubleNear: doubleNear},
	instrument.Plucked: {Scale: stringScale, Arpeggio: stringArpeggio, Roll: roll, Shape: shape, Change: change, ThumbTune: thumbTune,
		Hammer: hammer, Slide: slide},
	instrument.Other: {Scale: windScale, Arpeggio: windArpeggio},
}

// Make writes an exercise for an instrument. It fails where the specification is wrong,
// where the kind does not belong to the instrument's family, and where its compass does
// not hold the notes.
func Make(s Spec, on instrument.Profile) (score.Score, error) {
	if err := s.Check(); err != nil {
		return score.Score{}, err
	}
	s = s.Usual()
	if s.Kind == Cross {
		return cross(s, on)
	}
	make, belongs := makers[on.Family][s.Kind]
	if !belongs {
		return score.Score{}, fmt.Errorf("%q is not an exercise of the %s", s.Kind, on)
	}
	lines, err := make(s, on)
	if err != nil {
		return score.Score{}, err
	}
	key, _ := s.key()
	if slices.Contains(keyless, s.Kind) || s.Kind == Chromatic {
		key = pitch.Key{Mode: "major"}
	}
	return written(key, lines), nil
}

// written puts lines into bars of four quarters, the last note held to the end of its bar.
func written(key pitch.Key, lines []line) score.Score {
	four := score.Meter{Beats: 4, BeatType: 4}
	part := score.Part{Staves: len(lines)}
	for staff, l := range lines {
		at, under := 0, false
		for i, st := range l.steps {
			bar, in := at/whole, at%whole
			for len(part.Bars) <= bar {
				part.Bars = append(part.Bars, score.Bar{Length: four.Length()})
			}
			long := min(st.long, whole-in)
			if i == len(l.steps)-1 {
				long = whole - in
			}
			b := &part.Bars[bar]
			onset := score.Frac(int64(in), 2)
			if st.key != nil {
				b.Key = st.key
			}
			if st.says != "" && staff == 0 {
				b.Marks = append(b.Marks, score.Mark{Onset: onset, Kind: "dynamic", Text: st.says})
			}
			if st.words != "" && staff == 0 {
				b.Marks = append(b.Marks, score.Mark{Onset: onset, Kind: "words", Text: st.words})
			}
			for _, note := range st.written() {
				note.Onset, note.Duration, note.Voice, note.Staff = onset, score.Frac(int64(long), 2), staff+1, staff+1
				if long == quarter+eighth || long == half+quarter {
					note.Dots = 1
				}
				if st.slur && !under {
					note.SlurStarts = 1
				}
				if under && !st.slur {
					note.SlurEnds = 1
				}
				b.Notes = append(b.Notes, note)
			}
			under = st.slur
			at += long
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
	s := score.Score{Parts: []score.Part{part}}
	s.Finish()
	return s
}

// written are the notes of a step, or its rest.
func (st step) written() []score.Note {
	if len(st.notes) == 0 {
		return []score.Note{{Rest: true}}
	}
	out := make([]score.Note, len(st.notes))
	for n, p := range st.notes {
		out[n].Pitch = p
		if n < len(st.fingers) && st.fingers[n] != "" {
			out[n].Fingers = []string{st.fingers[n]}
		}
		if n < len(st.stops) {
			out[n].String, out[n].Fret = st.stops[n].at, st.stops[n].fret
		}
	}
	return out
}

var (
	treble = score.Clef{Sign: "G", Line: 2}
	bass   = score.Clef{Sign: "F", Line: 4}
)

// singles makes a quarter of each note, with its finger.
func singles(notes []pitch.Pitch, fingers []int) []step {
	out := make([]step, len(notes))
	for i, p := range notes {
		out[i] = step{notes: []pitch.Pitch{p}, long: quarter}
		if fingers != nil {
			out[i].fingers = []string{strconv.Itoa(fingers[i])}
		}
	}
	return out
}

// together makes one step of several notes.
func together(notes []pitch.Pitch, fingers []int, long int) step {
	return step{notes: notes, long: long, fingers: texts(fingers)}
}

func texts(fingers []int) []string {
	out := make([]string, len(fingers))
	for i, f := range fingers {
		out[i] = strconv.Itoa(f)
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

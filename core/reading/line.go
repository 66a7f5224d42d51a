// Package reading reads a score as a teacher reads it: which way it goes, by
// which distances, from which hand positions, what there really is to learn,
// and how to cut it up.
//
// It takes a score and gives plain lists. Bars count from 1, beats are quarter
// notes from 0 inside their bar, lengths are quarter notes.
package reading

import (
	"strconv"

	"patientladder/core/pitch"
	"patientladder/core/score"
)

// A Chord is what one hand plays at one moment: one note or several, low to
// high.
type Chord struct {
	Bar      int
	Beat     score.Time
	Onset    score.Time // from the start of the piece as written
	Duration score.Time // of the longest note
	Notes    []pitch.Pitch
	Fingers  []string // as written, beside the notes; empty where none is
	Stops    []Stop   // as written in tablature; String is 0 where none is
	IDs      []string // of the notes in the score
}

// Top returns the highest note.
func (c *Chord) Top() pitch.Pitch { return c.Notes[len(c.Notes)-1] }

// Line gathers the notes of one staff of a part into chords, ties joined,
// rests and grace notes left out.
func Line(p score.Part, staff int, bars []int) []Chord {
	sounds := p.Sounding(staff, bars)
	out := make([]Chord, 0, len(sounds))
	// the notes of all chords stand side by side
	pitches, fingers := make([]pitch.Pitch, len(sounds)), make([]string, len(sounds))
	stops, ids := make([]Stop, len(sounds)), make([]string, len(sounds))
	from := 0
	for i := range sounds {
		n := &sounds[i]
		pitches[i], fingers[i], stops[i], ids[i] = n.Pitch, n.Finger, Stop{String: n.String, Fret: n.Fret}, n.ID
		if last := len(out) - 1; last < 0 || out[last].Onset != n.Onset {
			from = i
			out = append(out, Chord{Bar: n.Bar, Beat: n.Beat, Onset: n.Onset})
		}
		c, to := &out[len(out)-1], i+1
		c.Notes, c.Fingers, c.Stops, c.IDs = pitches[from:to:to], fingers[from:to:to], stops[from:to:to], ids[from:to:to]
		if c.Duration.Less(n.Duration) {
			c.Duration = n.Duration
		}
	}
	return out
}

// A Direction says where a note goes from the one before.
type Direction string

// The directions.
const (
	Start Direction = "start"
	Up    Direction = "up"
	Down  Direction = "down"
	Same  Direction = "same"
)

// Directions returns the direction of each chord, by its top note and by its
// bottom note. Rests and bar lines do not break a line: the note after a rest
// goes up, down or the same as the one before it.
func Directions(line []Chord) (top, bottom []Direction) {
	top, bottom = make([]Direction, 0, len(line)), make([]Direction, 0, len(line))
	for i := range line {
		if i == 0 {
			top, bottom = append(top, Start), append(bottom, Start)
			continue
		}
		c, before := &line[i], &line[i-1]
		top, bottom = append(top, way(before.Top(), c.Top())), append(bottom, way(before.Notes[0], c.Notes[0]))
	}
	return top, bottom
}

// way goes by where the notes stand on the staff, and by the sound where they
// stand alike: C to C sharp goes up.
func way(from, to pitch.Pitch) Direction {
	switch by := to.Line() - from.Line(); {
	case by > 0:
		return Up
	case by < 0:
		return Down
	}
	switch by := to.MIDI() - from.MIDI(); {
	case by > 0:
		return Up
	case by < 0:
		return Down
	}
	return Same
}

// An Interval is the distance between two notes as written.
type Interval struct {
	Number  int    `json:"number" doc:"1 for the same line or space, 2 for a step, 8 for an octave"`
	Quality string `json:"quality" enum:"P,M,m,A,d,AA,dd"`
	Name    string `json:"name" doc:"same, step, skip, fourth ... octave, or wider"`
}

// String writes the interval as it is abbreviated: "M3", "P5".
func (i Interval) String() string { return i.Quality + strconv.Itoa(i.Number) }

var names = []string{"same", "step", "skip", "fourth", "fifth", "sixth", "seventh", "octave"}

// Between returns the interval between two notes, whichever is higher. A
// lowered unison counts as augmented.
func Between(a, b pitch.Pitch) Interval {
	if b.Line() < a.Line() || b.Line() == a.Line() && b.MIDI() < a.MIDI() {
		a, b = b, a
	}
	lines, semitones := b.Line()-a.Line(), b.MIDI()-a.MIDI()
	i := Interval{Number: lines + 1, Name: "wider"}
	if lines < len(names) {
		i.Name = names[lines]
	}
	// semitones of the perfect or major interval of as many lines
	over := semitones - (12*(lines/7) + [7]int{0, 2, 4, 5, 7, 9, 11}[lines%7])
	perfect := lines%7 == 0 || lines%7 == 3 || lines%7 == 4
	switch {
	case perfect && over == 0:
		i.Quality = "P"
	case !perfect && over == 0:
		i.Quality = "M"
	case !perfect && over == -1:
		i.Quality = "m"
	case over == 1:
		i.Quality = "A"
	case over > 1:
		i.Quality = "AA"
	case perfect && over == -1, !perfect && over == -2:
		i.Quality = "d"
	default:
		i.Quality = "dd"
	}
	return i
}

// Melodic returns the interval from each chord's top note to the next's; it is
// one shorter than the line.
func Melodic(line []Chord) []Interval {
	out := make([]Interval, 0, max(len(line)-1, 0))
	for i := 1; i < len(line); i++ {
		out = append(out, Between(line[i-1].Top(), line[i].Top()))
	}
	return out
}

// Harmonic returns the intervals inside a chord, from the bottom note up.
func (c Chord) Harmonic() []Interval {
	var out []Interval
	for _, p := range c.Notes[1:] {
		out = append(out, Between(c.Notes[0], p))
	}
	return out
}

// Landmarks are the notes known cold by most who read from landmarks: the Cs and
// the notes of the clef lines. Common practice, no source.
var Landmarks = pitch.MustParseAll("C2", "F2", "C3", "F3", "C4", "G4", "C5", "G5", "C6")

// Known returns the landmarks of a reader who has some skills: middle C and the
// lines that the clefs name at first; the usual ones with the skill of
// landmarks; every note of the staves with that of note names, and those above
// and below with that of ledger lines.
func Known(has func(skill string) bool) []pitch.Pitch {
	switch {
	case has("ledger-lines") && has("note-names"):
		return white("C2", "C6")
	case has("note-names"):
		return white("G2", "F5")
	case has("landmarks"):
		return Landmarks
	}
	return pitch.MustParseAll("F3", "C4", "G4")
}

func white(from, to string) []pitch.Pitch {
	ends := pitch.MustParseAll(from, to)
	var out []pitch.Pitch
	for line := ends[0].Line(); line <= ends[1].Line(); line++ {
		out = append(out, natural(line))
	}
	return out
}

// Nearest returns the known landmark nearest to a note on the staff and the
// steps from it, up positive; false when none is known. The lower of two as
// near is taken.
func Nearest(p pitch.Pitch, known []pitch.Pitch) (landmark pitch.Pitch, steps int, ok bool) {
	for _, k := range known {
		by := p.Line() - k.Line()
		if !ok || abs(by) < abs(steps) || abs(by) == abs(steps) && k.Line() < landmark.Line() {
			landmark, steps, ok = k, by, true
		}
	}
	return landmark, steps, ok
}

func abs(n int) int { return max(n, -n) }

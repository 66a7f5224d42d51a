package week

import (
	"slices"
	"strings"

	"patientladder/core/approach"
	"patientladder/core/instrument"
	"patientladder/core/pitch"
	"patientladder/core/reading"
)

// besides says where a key lies among the black ones. Common practice, no source.
var besides = map[string]string{
	"C": "left of the two black keys", "D": "between the two black keys", "E": "right of the two black keys",
	"F": "left of the three black keys", "G": "between the first two of the three black keys", "A": "between the last two of the three black keys", "B": "right of the three black keys",
	"C#": "the first of the two black keys", "D#": "the second of the two black keys",
	"F#": "the first of the three black keys", "G#": "the middle one of the three black keys", "A#": "the last of the three black keys",
}

// sharps are flats as the keys that they are.
var sharps = map[string]string{"Db": "C#", "Eb": "D#", "Gb": "F#", "Ab": "G#", "Bb": "A#", "Cb": "B", "Fb": "E", "E#": "F", "B#": "C"}

// which says which key of its name a note is, by its neighbours and by the middle of the
// keyboard: "between the two black keys, just above the middle C".
func which(key string) string {
	p, err := pitch.Parse(key)
	if err != nil {
		return ""
	}
	name := strings.TrimRight(key, "0123456789-")
	if plain, is := sharps[name]; is {
		name = plain
	}
	says := besides[name]
	if says == "" {
		return ""
	}
	switch middle := p.MIDI() - 60; {
	case middle == 0:
		return says + ", in the middle: the middle C"
	case middle > 0 && middle < 12:
		return says + ", just above the middle C"
	case middle < 0 && middle > -12:
		return says + ", just below the middle C"
	case middle >= 12:
		return says + ", the second above the middle C"
	}
	return says + ", the second below the middle C"
}

// arrows is the age under which directions are said for every chunk, whatever the school
// reads by but by ear or tablature: few see them at a glance. Common practice, no source.
const arrows = 7

// script is what is said while pointing at a smallest chunk: its first key and then the
// directions, or the names of its notes. Empty where the school reads otherwise.
func (w *writer) script(c reading.Chunk) string {
	if len(c.Ways) == 0 || len(c.Ways) > 8 || w.sheet.Reader != "parent" {
		return ""
	}
	school := w.Approach[approach.Reading]
	switch {
	case school == approach.ByNames:
		names := make([]string, len(c.Names))
		for i, n := range c.Names {
			names[i] = note(n)
		}
		return strings.Join(names, ", ")
	case school == approach.ByDirection, w.Age < arrows && !slices.Contains([]approach.School{approach.ByEar, approach.ByTablature}, school):
		said := []string{note(c.Names[0])}
		for _, d := range c.Ways {
			said = append(said, string(d))
		}
		return strings.Join(said, ", ")
	}
	return ""
}

// mostSpoken is how many rhythms are said before a chunk: more are forgotten on the way to
// the keys. A judgement.
const mostSpoken = 6

// rhythm is what is said in the rhythm of a smallest chunk before it is played, for a child:
// a whole motif of two rhythms or more that differ. Empty where one has no words, and for
// who learns by ear.
func (w *writer) rhythm(c reading.Chunk) string {
	if w.sheet.Reader != "parent" || len(c.Rhythm) < 2 || len(c.Rhythm) > mostSpoken || w.Approach[approach.Reading] == approach.ByEar {
		return ""
	}
	var said []string
	for _, r := range c.Rhythm {
		if w.Words[r] == "" {
			return ""
		}
		said = append(said, w.Words[r])
	}
	if len(slices.Compact(slices.Sorted(slices.Values(said)))) == 1 {
		return "" // nothing to tell apart
	}
	return strings.Join(said, ", ")
}

// drawn reports whether it is drawn where a hand begins.
func (w *writer) drawn() bool { return w.onKeys() && w.Approach[approach.Start] == approach.Diagram }

// labelled reports whether the keys at home carry their names at first.
func (w *writer) labelled() bool {
	return w.onKeys() && w.Approach[approach.Labels] == approach.Labelled
}

// onKeys reports whether the sheet is for keys.
func (w *writer) onKeys() bool { return w.Plays.Family == instrument.Keyboard }

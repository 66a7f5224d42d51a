package week

import (
	"slices"
	"strings"

	"patientladder/core/approach"
	"patientladder/core/instrument"
	"patientladder/core/pitch"
	"patientladder/core/reading"
)

// sharps are flats as the keys that they are.
var sharps = map[string]string{"Db": "C#", "Eb": "D#", "Gb": "F#", "Ab": "G#", "Bb": "A#", "Cb": "B", "Fb": "E", "E#": "F", "B#": "C"}

// where tells a key by the black ones that it is beside, and by the middle of the keyboard: one of a
// to g or a sharp, and one of middle, above, below, second-above and second-below.
func where(key string) (place, octave string) {
	p, err := pitch.Parse(key)
	if err != nil {
		return "", ""
	}
	place = strings.TrimRight(key, "0123456789-")
	if plain, is := sharps[place]; is {
		place = plain
	}
	if len(strings.TrimSuffix(place, "#")) != 1 { // a double sharp is not asked of who is told this
		return "", ""
	}
	switch middle := p.MIDI() - 60; {
	case middle == 0:
		return place, "middle"
	case middle > 0 && middle < 12:
		return place, "above"
	case middle < 0 && middle > -12:
		return place, "below"
	case middle >= 12:
		return place, "second-above"
	}
	return place, "second-below"
}

// at says which key of its name a note is; empty where that is not told.
func (v teller) at(key string) string {
	place, octave := where(key)
	if place == "" {
		return ""
	}
	return v.line("key-at", "place", place, "octave", octave)
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
			names[i] = w.tell().line("note", "key", n)
		}
		return strings.Join(names, ", ")
	case school == approach.ByDirection, w.Age < arrows && !slices.Contains([]approach.School{approach.ByEar, approach.ByTablature}, school):
		said := []string{w.tell().line("note", "key", c.Names[0])}
		for _, d := range c.Ways {
			said = append(said, w.tell().line("direction-"+string(d)))
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

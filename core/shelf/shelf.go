// Package shelf holds materials: books made of units, units made of items, and
// what each item brings, needs and revisits.
package shelf

import (
	"fmt"
	"strings"

	"patientladder/core/score"
)

// A Strand is one of the four lanes of a ladder.
type Strand string

// The strands, in the order of the lanes.
const (
	Book       Strand = "book"
	Technique  Strand = "technique"
	Reading    Strand = "reading"
	Repertoire Strand = "repertoire"
)

// Strands lists the lanes from left to right.
var Strands = []Strand{Book, Technique, Reading, Repertoire}

// Known reports whether s is one of the four.
func (s Strand) Known() bool {
	for _, k := range Strands {
		if s == k {
			return true
		}
	}
	return false
}

// An Instrument is what an item is played on.
type Instrument string

// The instruments that materials and students may name.
const (
	Piano  Instrument = "piano"
	Cello  Instrument = "cello"
	Guitar Instrument = "guitar"
)

// Known reports whether i is an instrument of the program.
func (i Instrument) Known() bool { return i == Piano || i == Cello || i == Guitar }

// An Item is one thing to learn.
type Item struct {
	ID         string     `json:"id"`
	Title      string     `json:"title"`
	Composer   string     `json:"composer,omitempty"`
	Instrument Instrument `json:"instrument" enum:"piano,cello,guitar"`
	Strand     Strand     `json:"strand" enum:"book,technique,reading,repertoire"`
	Unit       string     `json:"unit" doc:"the unit's title"`
	Book       string     `json:"book" doc:"the book's title"`
	Brings     []string   `json:"brings" nullable:"false" doc:"skills met here first"`
	Needs      []string   `json:"needs" nullable:"false" doc:"skills taken for granted"`
	Revisits   []string   `json:"revisits" nullable:"false" doc:"skills asked for again on purpose"`
	Parts      []string   `json:"parts" nullable:"false" doc:"parts with a foothold each; empty for one whole"`
	Points     []string   `json:"points" nullable:"false" doc:"usual focus points"`
	Cue        string     `json:"cue,omitempty" doc:"what is said before playing"`
	Bars       int        `json:"bars" doc:"written bars; 0 without a score"`
	Staves     int        `json:"staves" doc:"staves of the first part; 2 means two hands"`
	HasScore   bool       `json:"hasScore"`
}

// Check says what is wrong with an item.
func (it Item) Check() error {
	switch {
	case strings.TrimSpace(it.Title) == "":
		return fmt.Errorf("an item needs a title")
	case len(it.Title) > 200:
		return fmt.Errorf("the title is longer than 200 characters")
	case !it.Instrument.Known():
		return fmt.Errorf("%q is not an instrument here: piano, cello or guitar", it.Instrument)
	case !it.Strand.Known():
		return fmt.Errorf("%q is not a strand: book, technique, reading or repertoire", it.Strand)
	}
	seen := map[string]bool{}
	for _, p := range it.Points {
		key := PointKey(p)
		if key == "" || seen[key] {
			return fmt.Errorf("the focus point %q is empty or stands twice", p)
		}
		seen[key] = true
	}
	return nil
}

// PointKey turns the name of a focus point into the key that facts use.
func PointKey(name string) string {
	return strings.Join(strings.Fields(strings.ToLower(name)), "-")
}

// Spots is the key of the focus point that is met when every spot is.
const Spots = "spots"

// UsualPoints returns the focus points an imported piece starts with: tone,
// rhythm and the instrument's own, loudness where it is written, spots last.
// Common practice, no source.
func UsualPoints(i Instrument, s score.Score) []string {
	points := []string{"Rhythm", "Tone"}
	switch i {
	case Cello:
		points = append(points, "Tuning")
	case Piano:
		points = append(points, "Fingering")
	case Guitar:
		points = append(points, "Even strokes")
	}
	for _, p := range s.Parts {
		for _, b := range p.Bars {
			for _, m := range b.Marks {
				if m.Kind == "dynamic" {
					return append(points, "Loud and soft", "Spots")
				}
			}
		}
	}
	return append(points, "Spots")
}

// Describe fills in what an item's score tells.
func (it *Item) Describe(s score.Score) {
	it.HasScore, it.Bars = true, s.Bars()
	if it.Composer == "" {
		it.Composer = s.Composer
	}
	if len(s.Parts) > 0 {
		it.Staves = s.Parts[0].Staves
	}
}

// Package shelf holds materials: books made of units, units made of items, and
// what each item brings, needs and revisits.
package shelf

import (
	"fmt"
	"slices"
	"strings"

	"patientladder/core/card"
	"patientladder/core/exercise"
	"patientladder/core/instrument"
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

// Piece reports whether a strand holds pieces, which are played, and not what prepares them.
func (s Strand) Piece() bool { return s == Book || s == Repertoire }

// Known reports whether s is one of the four.
func (s Strand) Known() bool { return slices.Contains(Strands, s) }

// An Item is one thing to learn.
type Item struct {
	ID         string        `json:"id"`
	Title      string        `json:"title"`
	Composer   string        `json:"composer,omitempty"`
	Instrument instrument.ID `json:"instrument"`
	Strand     Strand        `json:"strand" enum:"book,technique,reading,repertoire"`
	Unit       string        `json:"unit" doc:"the unit's title"`
	Book       string        `json:"book" doc:"the book's title"`
	Brings     []string      `json:"brings" doc:"skills met here first"`
	Needs      []string      `json:"needs" doc:"skills taken for granted"`
	Revisits   []string      `json:"revisits" doc:"skills asked for again on purpose"`
	Parts      Parts         `json:"parts" maxItems:"100" doc:"parts with a foothold each; empty for one whole"`
	Points     Points        `json:"points" maxItems:"40" doc:"usual focus points"`
	Revision   int           `json:"revision,omitempty" doc:"counts changes of what its points and parts are"`
	Past       []Past        `json:"past,omitempty" doc:"points and parts of earlier revisions"`
	Exercise   string        `json:"exercise,omitempty" maxLength:"80" doc:"specification of an exercise whose notes are made by rule, as scale Eb major both; empty for none"`
	Cards      string        `json:"cards,omitempty" maxLength:"80" doc:"decks of reading or theory cards that it asks, as landmarks, steps; empty for none"`
	Steps      []string      `json:"steps,omitempty" maxItems:"12" doc:"how it goes, one after the other, of what has no notes"`
	Cue        string        `json:"cue,omitempty" doc:"what is said before playing"`
	Taste      Taste         `json:"taste,omitempty" enum:"lively,lyrical,familiar" doc:"of repertoire"`
	Asks       []string      `json:"asks,omitempty" enum:"touch,pedals" doc:"what the instrument must have"`
	Bars       int           `json:"bars" doc:"written bars; 0 without a score"`
	Different  int           `json:"different,omitempty" doc:"bars with notes that are not the same again; 0 without a score"`
	Staves     int           `json:"staves" doc:"staves of the first part; 2 means two hands"`
	Tempo      float64       `json:"tempo,omitempty" doc:"quarter notes a minute; 0 where none is written"`
	Low        int           `json:"low,omitempty" doc:"lowest note as a MIDI number; 0 without a score"`
	High       int           `json:"high,omitempty" doc:"highest note"`
	Key        string        `json:"key,omitempty" doc:"as G major; empty without a score"`
	HasScore   bool          `json:"hasScore"`
	SameAs     string        `json:"sameAs,omitempty" maxLength:"60" doc:"the item that it was told to be the same as, whose words it has"`
	Archived   bool          `json:"archived,omitempty" doc:"laid away: whoever has it goes on, nobody is offered it"`
	Meter      string        `json:"meter,omitempty" doc:"that it begins in, as 3/4; empty where its score tells none"`
	Demanded   []string      `json:"demanded,omitempty" doc:"skills that the score asks for"`
	Settled    []string      `json:"settled,omitempty" doc:"skills of which the tags stand, whatever the score tells"`
}

// A Taste is what a piece of repertoire is like to play.
type Taste string

// The tastes.
const (
	Lively   Taste = "lively"
	Lyrical  Taste = "lyrical"
	Familiar Taste = "familiar"
)

// Tastes lists them.
var Tastes = []Taste{Lively, Lyrical, Familiar}

// BeforeBook is the unit of items for a student who has not begun the first
// book: small things without an order.
const BeforeBook = "Before the first book"

// Offered returns what a player of an instrument may be offered: what stands on its
// shelf and is not archived.
func Offered(items []Item, all instrument.Set, plays instrument.Profile) []Item {
	own, shelf := make([]Item, 0, len(items)), plays.Shelf()
	for _, it := range items {
		if !it.Archived && (it.Instrument == plays.ID || all.Of(it.Instrument).Shelf() == shelf) {
			own = append(own, it)
		}
	}
	return own
}

// Skills lists each skill that the item brings, needs or revisits, once.
func (it Item) Skills() []string {
	ids := make([]string, 0, len(it.Brings)+len(it.Needs)+len(it.Revisits))
	for _, list := range [][]string{it.Brings, it.Needs, it.Revisits} {
		for _, id := range list {
			if !slices.Contains(ids, id) {
				ids = append(ids, id)
			}
		}
	}
	return ids
}

// Check says what is wrong with an item on the shelf of a studio that has all these
// instruments.
func (it Item) Check(all instrument.Set) error {
	_, known := all.Find(it.Instrument)
	switch {
	case strings.TrimSpace(it.Title) == "":
		return fmt.Errorf("an item needs a title")
	case len(it.Title) > 200:
		return fmt.Errorf("the title is longer than 200 characters")
	case !known:
		return fmt.Errorf("%q is not an instrument here: %s, or add it to the studio", it.Instrument, all.Names())
	case !it.Strand.Known():
		return fmt.Errorf("%q is not an area: book, technique, reading or repertoire", it.Strand)
	case it.Taste != "" && !slices.Contains(Tastes, it.Taste):
		return fmt.Errorf("%q is not a taste: lively, lyrical or familiar", it.Taste)
	}
	if it.Exercise != "" {
		if _, err := exercise.Parse(it.Exercise); err != nil {
			return err
		}
	}
	if it.Cards != "" {
		if _, err := card.Parse(it.Cards); err != nil {
			return err
		}
	}
	for _, s := range it.Steps {
		if strings.TrimSpace(s) == "" || len(s) > 300 {
			return fmt.Errorf("a step has one to 300 letters")
		}
	}
	for _, a := range it.Asks {
		if !slices.Contains(things, a) {
			return fmt.Errorf("%q is not something to ask of an instrument: %s", a, strings.Join(things, " or "))
		}
	}
	for what, list := range map[string][]Named{"focus point": it.Points, "part": it.Parts} {
		seen := map[string]bool{}
		for _, p := range list {
			name, id := strings.ToLower(strings.TrimSpace(p.Name)), "id "+p.ID
			if name == "" || seen[name] || p.ID != "" && seen[id] {
				return fmt.Errorf("the %s %q is empty or stands twice", what, p.Name)
			}
			seen[name], seen[id] = true, true
		}
	}
	return nil
}

// Cycle reports whether an item is a cycle of keys, whose parts each open its aims anew.
func (it Item) Cycle() bool {
	return strings.HasPrefix(it.Exercise, string(exercise.Cycle)) && len(it.Parts) > 1
}

// Spots is the key of the focus point that is met when every spot is.
const Spots = "spots"

// UsualPoints returns the focus points an imported piece starts with: tone,
// rhythm and the instrument's own, loudness where it is written, spots last.
// Common practice, no source.
func UsualPoints(on instrument.Profile, s score.Score) Points {
	points := append([]string{"Rhythm", "Tone"}, on.Points...)
	for _, p := range s.Parts {
		for _, b := range p.Bars {
			for _, m := range b.Marks {
				if m.Kind == "dynamic" {
					return PointsOf(append(points, "Loud and soft", "Spots")...)
				}
			}
		}
	}
	return PointsOf(append(points, "Spots")...)
}

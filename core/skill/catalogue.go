package skill

import (
	"slices"

	"patientladder/core/instrument"
)

// Catalogue returns the skills that the shipped materials speak of, by their ids: names and the
// words of small tasks are a language's. Weights are ours, a judgement: a heavier skill makes every
// piece that brings it weigh more and take longer. Chains are common practice, no source.
func Catalogue() Graph {
	var all []Skill
	for _, r := range slices.Concat(shared, keyboard, bowed, plucked) {
		s := Skill{ID: r.id, Family: r.family, Area: r.area, Weight: r.weight, RestsOn: r.restsOn}
		for _, t := range r.chain {
			s.Chain = append(s.Chain, Link{Minutes: t.minutes, Weeks: t.weeks, Old: t.old, Notes: t.notes})
		}
		all = append(all, s)
	}
	g, err := New(all)
	if err != nil {
		panic(err) // the test of this package would have failed first
	}
	return g
}

// A row is a skill of the catalogue as the tables have it.
type row struct {
	id      string
	family  instrument.Family
	area    Area
	weight  float64
	restsOn rests
	chain   chain
}

// A task is one of its small tasks.
type task struct {
	minutes, weeks int
	old            Old
	notes          string
}

type (
	rests = []string
	chain = []task
)

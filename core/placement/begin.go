package placement

import (
	"slices"

	"patientladder/core/shelf"
	"patientladder/core/skill"
)

// Order returns the skills that items bring, in the order in which they are taught: by the items,
// and each after all that it rests on.
func Order(g skill.Graph, items []shelf.Item) []string {
	var out []string
	placed := map[string]bool{}
	var place func(id string)
	place = func(id string) {
		if _, is := g[id]; !is || placed[id] {
			return
		}
		placed[id] = true
		for _, below := range g[id].RestsOn {
			place(below)
		}
		out = append(out, id)
	}
	for _, it := range items {
		if it.Strand == shelf.Repertoire {
			continue
		}
		for _, id := range it.Brings {
			place(id)
		}
	}
	return out
}

// Begin returns the first item of a book that brings what lies beyond what a student has come
// through; false where no book goes so far.
func (b Belief) Begin(items []shelf.Item, doubt float64) (shelf.Item, bool) {
	through := b.Order[:b.Reached(doubt)]
	i := slices.IndexFunc(items, func(it shelf.Item) bool {
		return it.Strand == shelf.Book && slices.ContainsFunc(it.Brings, func(id string) bool { return slices.Contains(b.Order, id) && !slices.Contains(through, id) })
	})
	if i < 0 {
		return shelf.Item{}, false
	}
	return items[i], true
}

// Missing lists the skills under what a student has come through that are not there.
func (b Belief) Missing(doubt float64) []string {
	var out []string
	for i, id := range b.Order[:b.Reached(doubt)] {
		if b.Known[i] < 0.5 {
			out = append(out, id)
		}
	}
	return out
}

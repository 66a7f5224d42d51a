package placement

import (
	"cmp"
	"slices"

	"patientladder/core/judgement"
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

// A Place is where a student begins, or while too little was asked the pieces that it lies between.
type Place struct {
	At       *shelf.Item // where doubt has the student begin; nil while that is not known well enough, and where no book goes so far
	From, To *shelf.Item // between which it lies, one time in two; To is nil where it may lie beyond every book
}

// Begin returns where a student begins. The place is known well enough when it lies, one time in
// two, within a unit of a book; or when nothing would tell more.
func (b Belief) Begin(items []shelf.Item, doubt float64, more bool) Place {
	book := slices.DeleteFunc(slices.Clone(items), func(it shelf.Item) bool { return it.Strand != shelf.Book })
	from, to := b.first(book, lowQuarter), b.first(book, highQuarter)
	if at := b.first(book, doubt); at < len(book) && (to-from <= int(judgement.PlacementNear) || !more) {
		return Place{At: &book[at]}
	}
	at := func(i int) *shelf.Item {
		if i == len(book) {
			return nil
		}
		return &book[i]
	}
	return Place{From: at(from), To: at(to)}
}

// The quarters of a belief: the chances of having come so far.
const (
	lowQuarter  = 0.75
	highQuarter = 0.25
)

// first is the place of the first piece that brings what lies beyond what a student has come
// through by a chance; the number of pieces where none does.
func (b Belief) first(book []shelf.Item, chance float64) int {
	beyond := map[string]bool{}
	for _, id := range b.Order[b.Reached(chance):] {
		beyond[id] = true
	}
	i := slices.IndexFunc(book, func(it shelf.Item) bool {
		return slices.ContainsFunc(it.Brings, func(id string) bool { return beyond[id] })
	})
	if i < 0 {
		return len(book)
	}
	return i
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

// Ticks returns the few of the skills taken for granted that most of the items to come stand on,
// by asking for them or by what they bring: ticked off when a student is taken over in a hurry. Of
// equals the heavier comes first.
func Ticks(g skill.Graph, presumed []string, coming []shelf.Item, n int) []string {
	stands := map[string]int{} // how many items stand on a skill
	for _, it := range coming {
		on := slices.Clone(it.Needs)
		for _, id := range it.Brings {
			on = append(on, g[id].RestsOn...)
		}
		slices.Sort(on)
		for _, id := range slices.Compact(on) {
			stands[id]++
		}
	}
	out := slices.DeleteFunc(slices.Clone(presumed), func(id string) bool { return stands[id] == 0 })
	slices.SortStableFunc(out, func(a, b string) int {
		return cmp.Or(cmp.Compare(stands[b], stands[a]), cmp.Compare(g[b].Weight, g[a].Weight))
	})
	return out[:min(n, len(out))]
}

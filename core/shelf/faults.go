package shelf

import (
	"cmp"
	"slices"

	"patientladder/core/instrument"
	"patientladder/core/reason"
	"patientladder/core/skill"
)

// A Fault is something wrong between the shelf and the skill graph.
type Fault struct {
	Item  string        `json:"item" doc:"id; empty of a fault of the graph alone"`
	Title string        `json:"title"`
	Why   reason.Reason `json:"why"`
}

// Faults lists, by title and skill: skills that are not in the graph, needs of
// an instrument that nothing on its shelf brings and no other item's skill
// rests on, items that bring and need the same skill, and orphans: skills that
// no item and no instrument names and nothing rests on.
func Faults(g skill.Graph, all instrument.Set, items []Item) []Fault {
	brought := map[instrument.ID]map[string]bool{}
	for _, id := range all.Shelves() {
		brought[id] = map[string]bool{}
	}
	on := func(it Item) map[string]bool { return brought[all.Of(it.Instrument).Shelf()] }
	named := map[string]bool{}
	for _, it := range items {
		for _, id := range it.Brings {
			on(it)[id] = true
		}
		for _, id := range it.Skills() {
			named[id] = true
		}
	}
	var out []Fault
	for _, it := range items {
		out = append(out, FaultsOf(g, all.Of(it.Instrument), it, on(it))...)
	}
	for _, s := range g {
		for _, below := range s.RestsOn {
			named[below] = true
		}
	}
	for _, p := range all {
		named[p.Holds] = true
		for _, id := range p.First {
			named[id] = true
		}
	}
	for _, s := range g.Sorted() {
		if !named[s.ID] {
			out = append(out, Fault{"", s.Name, reason.Of("orphan-skill", "skill", s.Name)})
		}
	}
	slices.SortStableFunc(out, func(a, b Fault) int { return cmp.Compare(a.Title, b.Title) })
	return out
}

// FaultsOf lists the faults of one item of an instrument; brought are the skills that its
// instrument's shelf brings.
func FaultsOf(g skill.Graph, plays instrument.Profile, it Item, brought map[string]bool) []Fault {
	var out []Fault
	found := func(code, id string) {
		out = append(out, Fault{it.ID, it.Title, reason.Of(code, "title", it.Title, "skill", g.Name(id))})
	}
	for _, id := range it.Skills() {
		s, ok := g[id]
		switch {
		case !ok:
			found("no-such-skill", id)
		case s.Family != instrument.Shared && s.Family != plays.Family:
			found("other-family", id)
		}
	}
	for _, id := range it.Needs {
		switch {
		case slices.Contains(it.Brings, id):
			found("brings-and-needs", id)
		case !brought[id] && g[id].ID != "":
			found("nothing-brings", id)
		}
	}
	return out
}

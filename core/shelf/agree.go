package shelf

import (
	"slices"

	"patientladder/core/instrument"
	"patientladder/core/reading"
	"patientladder/core/skill"
)

// A Disagreement is a skill of which an item's tags and its score tell
// different things.
type Disagreement struct {
	Item   string `json:"item"`
	Title  string `json:"title"`
	Skill  string `json:"skill"`
	Name   string `json:"name"`
	Asked  bool   `json:"asked" doc:"the score asks for it and no tag says so; else a tag says so and the score does not show it"`
	Tagged string `json:"tagged" doc:"brings, needs or revisits; empty when asked"`
}

// Disagreements lists where items' tags and their scores disagree and the
// teacher has not settled it, item by item in the shelf's order. Only skills
// that a page surely shows are compared. One that the score asks for needs no
// tag when another tag rests on it, or when an earlier item of the instrument's
// books brings it: it is taken for granted then. One that a tag names may be
// missing from the page when something that the page asks for rests on it.
// Pieces outside the books are taken to come after the first book.
func Disagreements(g skill.Graph, all instrument.Set, items []Item) []Disagreement {
	out := []Disagreement{}
	for _, plays := range all.Shelves() {
		granted, first := map[string]bool{}, map[string]bool{}
		book := ""
		for _, it := range items {
			if all.Of(it.Instrument).Shelf() != plays || it.Strand == Repertoire || it.Unit == BeforeBook {
				continue
			}
			if book == "" {
				book = it.Book
			}
			out = append(out, disagree(g, all.Of(it.Instrument), it, granted)...)
			for _, id := range it.Brings {
				g.Under(id, granted)
				if it.Book == book {
					g.Under(id, first)
				}
			}
		}
		for _, it := range items {
			if all.Of(it.Instrument).Shelf() == plays && it.Strand == Repertoire && it.Unit != BeforeBook {
				out = append(out, disagree(g, all.Of(it.Instrument), it, first)...)
			}
		}
	}
	place := map[string]int{}
	for i, it := range items {
		place[it.ID] = i
	}
	slices.SortStableFunc(out, func(a, b Disagreement) int { return place[a.Item] - place[b.Item] })
	return out
}

// disagree compares one item's tags with what its score asks for.
func disagree(g skill.Graph, plays instrument.Profile, it Item, granted map[string]bool) []Disagreement {
	if !it.HasScore || it.Demanded == nil {
		return nil
	}
	tagged := map[string]bool{}
	for _, id := range it.Skills() {
		g.Under(id, tagged)
	}
	shown := map[string]bool{}
	for _, id := range it.Demanded {
		g.Under(id, shown)
	}
	var out []Disagreement
	for _, id := range it.Demanded {
		if reading.Certain(id, plays.Family) && !tagged[id] && !granted[id] && !slices.Contains(it.Settled, id) {
			out = append(out, Disagreement{it.ID, it.Title, id, g.Name(id), true, ""})
		}
	}
	for _, list := range []struct {
		name string
		ids  []string
	}{{"brings", it.Brings}, {"needs", it.Needs}, {"revisits", it.Revisits}} {
		for _, id := range list.ids {
			if reading.Certain(id, plays.Family) && !shown[id] && !slices.Contains(it.Settled, id) {
				out = append(out, Disagreement{it.ID, it.Title, id, g.Name(id), false, list.name})
			}
		}
	}
	return out
}

// Tag fills an item's brings and needs from what its score asks for: it needs
// what another item of the instrument brings, and brings what none does. What
// another of its own tags rests on goes without saying.
func (it *Item) Tag(g skill.Graph, all instrument.Set, items []Item) {
	brought := map[string]bool{}
	for _, other := range items {
		if all.Together(other.Instrument, it.Instrument) && other.ID != it.ID {
			for _, id := range other.Brings {
				brought[id] = true
			}
		}
	}
	it.Brings, it.Needs = []string{}, []string{}
	for _, id := range it.Demanded {
		if _, known := g[id]; !known || slices.ContainsFunc(it.Demanded, func(over string) bool { return over != id && under(g, over, id) }) {
			continue
		}
		if brought[id] {
			it.Needs = append(it.Needs, id)
		} else {
			it.Brings = append(it.Brings, id)
		}
	}
}

// under reports whether a skill rests on another.
func under(g skill.Graph, over, below string) bool {
	set := map[string]bool{}
	g.Under(over, set)
	return set[below]
}

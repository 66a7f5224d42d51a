package shelf

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"
)

// A Named is a focus point or a part: marks hold on to its id, people to its name,
// so that a name may change and no mark is lost.
type Named struct {
	ID   string `json:"id" maxLength:"100" doc:"stays when the name changes; empty of a new one"`
	Name string `json:"name" maxLength:"200"`
}

// Points are the focus points of an item.
type Points []Named

// Parts are the parts of an item that have a foothold each.
type Parts []Named

// PointsOf makes points of names, each with the id that its name gives.
func PointsOf(names ...string) Points { return renamed(nil, names, PointKey) }

// PartsOf makes parts of names.
func PartsOf(names ...string) Parts { return renamed(nil, names, partKey) }

// PointKey turns the name of a focus point into its first id.
func PointKey(name string) string {
	return strings.Join(strings.Fields(strings.ToLower(name)), "-")
}

func partKey(name string) string { return name }

// UnmarshalJSON also reads points as they were first kept, by their names.
func (p *Points) UnmarshalJSON(raw []byte) error { return readNamed((*[]Named)(p), raw, PointKey) }

// UnmarshalJSON also reads parts as they were first kept, by their names.
func (p *Parts) UnmarshalJSON(raw []byte) error { return readNamed((*[]Named)(p), raw, partKey) }

func readNamed(into *[]Named, raw []byte, key func(string) string) error {
	var names []string
	if json.Unmarshal(raw, &names) == nil {
		*into = renamed(nil, names, key)
		return nil
	}
	return json.Unmarshal(raw, into)
}

// MarshalJSON writes an empty list for none.
func (p Points) MarshalJSON() ([]byte, error) { return json.Marshal(append([]Named{}, p...)) }

// MarshalJSON writes an empty list for none.
func (p Parts) MarshalJSON() ([]byte, error) { return json.Marshal(append([]Named{}, p...)) }

// Names lists the names.
func (p Points) Names() []string { return names(p) }

// Names lists the names.
func (p Parts) Names() []string { return names(p) }

func names(list []Named) []string {
	out := []string{}
	for _, n := range list {
		out = append(out, n.Name)
	}
	return out
}

// Index finds a part by id; -1 where there is none.
func (p Parts) Index(id string) int { return index(p, id) }

// Index finds a point by id; -1 where there is none.
func (p Points) Index(id string) int { return index(p, id) }

func index(list []Named, id string) int {
	return slices.IndexFunc(list, func(n Named) bool { return n.ID == id })
}

// renamed gives names their ids: the id of the one that had that name before; else,
// where one of before has lost its name and stood in that place, its id, for that is a
// new name of the same thing; else one of its own.
func renamed(before []Named, to []string, key func(string) string) []Named {
	out := make([]Named, len(to))
	used := map[string]bool{}
	for i, name := range to {
		j := slices.IndexFunc(before, func(n Named) bool { return n.Name == name && !used[n.ID] })
		out[i].Name = name
		if j >= 0 {
			out[i].ID = before[j].ID
			used[out[i].ID] = true
		}
	}
	for i := range out {
		if out[i].ID == "" && i < len(before) && !used[before[i].ID] && !slices.Contains(to, before[i].Name) {
			out[i].ID = before[i].ID
			used[out[i].ID] = true
		}
	}
	for _, n := range before {
		used[n.ID] = true // an id is never given to another thing
	}
	return identified(out, used, key)
}

// identified gives ids to those that have none, each once.
func identified(list []Named, used map[string]bool, key func(string) string) []Named {
	for i := range list {
		for n := 1; list[i].ID == ""; n++ {
			id := key(list[i].Name)
			if n > 1 {
				id = fmt.Sprintf("%s-%d", id, n)
			}
			if !used[id] {
				list[i].ID, used[id] = id, true
			}
		}
	}
	return list
}

// A Past is what an item's points and parts were in an earlier revision.
type Past struct {
	Revision int    `json:"revision"`
	Points   Points `json:"points"`
	Parts    Parts  `json:"parts"`
}

// At returns the points and parts of a revision, by the names that they have now; those
// of today for a revision that is not kept.
func (it Item) At(revision int) (Points, Parts) {
	i := slices.IndexFunc(it.Past, func(p Past) bool { return p.Revision == revision })
	if i < 0 {
		return it.Points, it.Parts
	}
	now := func(was, today []Named) []Named {
		out := slices.Clone(was)
		for k := range out {
			if j := index(today, out[k].ID); j >= 0 {
				out[k].Name = today[j].Name
			}
		}
		return out
	}
	return now(it.Past[i].Points, it.Points), now(it.Past[i].Parts, it.Parts)
}

// Succeed makes an edited item the next of one that stands: new points and parts get
// ids of their own, and where others stand than before the item is another revision,
// the one before kept for the rungs that were placed with it.
func (it *Item) Succeed(was Item) {
	it.Revision, it.Past = was.Revision, was.Past
	usedPoints, usedParts := map[string]bool{}, map[string]bool{}
	note := func(points Points, parts Parts) {
		for _, p := range points {
			usedPoints[p.ID] = true
		}
		for _, p := range parts {
			usedParts[p.ID] = true
		}
	}
	note(was.Points, was.Parts)
	for _, p := range was.Past {
		note(p.Points, p.Parts)
	}
	note(it.Points, it.Parts)
	it.Points = identified(slices.Clone(it.Points), usedPoints, PointKey)
	it.Parts = identified(slices.Clone(it.Parts), usedParts, partKey)
	same := func(a, b []Named) bool { // in whatever order
		return len(a) == len(b) && !slices.ContainsFunc(a, func(n Named) bool { return index(b, n.ID) < 0 })
	}
	if was.ID == "" || same(was.Points, it.Points) && same(was.Parts, it.Parts) {
		return
	}
	it.Past = append(slices.Clone(was.Past), Past{was.Revision, was.Points, was.Parts})
	it.Revision++
}

package shelf

import (
	"fmt"
	"slices"
	"strings"

	"patientladder/core/instrument"
)

// Same makes one item of two that are the same thing: whoever has the first goes on
// with every mark, and sees the words of the second; nobody is offered the first any
// more. It returns the first as it is to be kept.
func Same(all instrument.Set, items []Item, id, as string) (Item, error) {
	one, there := byID(items, id)
	other, known := byID(items, as)
	switch {
	case !there || !known:
		return one, fmt.Errorf("one of the two is not on the shelf")
	case id == as:
		return one, fmt.Errorf("it is itself already")
	case other.SameAs != "":
		return one, fmt.Errorf("%q is told to be the same as another item; choose that one", other.Title)
	case slices.ContainsFunc(items, func(it Item) bool { return it.SameAs == id }):
		return one, fmt.Errorf("other items are told to be the same as %q; part them first", one.Title)
	case !all.Together(one.Instrument, other.Instrument):
		return one, fmt.Errorf("%q and %q are for different instruments", one.Title, other.Title)
	case one.Strand != other.Strand:
		return one, fmt.Errorf("%q and %q belong to different areas", one.Title, other.Title)
	}
	one.SameAs = as
	return one, nil
}

func byID(items []Item, id string) (Item, bool) {
	i := slices.IndexFunc(items, func(it Item) bool { return it.ID == id })
	if i < 0 {
		return Item{}, false
	}
	return items[i], true
}

// Resolve gives each item that is the same as another the other's words, in place; its
// id, points, parts and revision stay its own, since marks hold on to them. One that is told to
// be the same as an item that is not there, or is itself the same as another, as in a circle, is
// an item of its own, so that nothing is hidden by what leads nowhere.
func Resolve(items []Item) {
	at, same := map[string]int{}, map[string]bool{}
	for i, it := range items {
		at[it.ID], same[it.ID] = i, it.SameAs != ""
	}
	for i, it := range items {
		if _, there := at[it.SameAs]; !there || same[it.SameAs] {
			items[i].SameAs = ""
		}
	}
	for i := range items {
		if items[i].SameAs == "" {
			continue
		}
		j := at[items[i].SameAs]
		own, it := items[i], items[j]
		it.ID, it.SameAs, it.Points, it.Parts, it.Revision, it.Past = own.ID, own.SameAs, own.Points, own.Parts, own.Revision, own.Past
		it.Archived = true
		if own.HasScore || !it.HasScore { // each keeps its own file
			it.Take(own.Printed())
			it.HasScore = own.HasScore
		} else {
			it.HasScore = false
		}
		items[i] = it
	}
}

// Is returns the id by which an item is known on the shelf: that of the item that it
// is the same as.
func (it Item) Is() string {
	if it.SameAs != "" {
		return it.SameAs
	}
	return it.ID
}

// Twin returns the item of a shelf that a new one seems to be: of the same title, book
// and instrument.
func Twin(items []Item, it Item) (Item, bool) {
	name := func(s string) string { return strings.ToLower(strings.TrimSpace(s)) }
	i := slices.IndexFunc(items, func(other Item) bool {
		return other.ID != it.ID && other.SameAs == "" && other.Instrument == it.Instrument && name(other.Title) == name(it.Title) && name(other.Book) == name(it.Book)
	})
	if i < 0 {
		return Item{}, false
	}
	return items[i], true
}

package library

import (
	"context"
	"fmt"
	"slices"

	"patientladder/core/fact"
	"patientladder/core/notation"
	"patientladder/core/shelf"
	"patientladder/store"
	"patientladder/studio"
)

// ArchiveBook lays a book of the shelf away, or brings it back: whoever has something of it goes
// on, nobody is offered it.
func ArchiveBook(ctx context.Context, a *studio.App, who studio.Who, book string, away bool) error {
	return editShelf(ctx, a, who, func(r studio.Room, items []shelf.Item) error {
		var changed []shelf.Item
		there := false
		for _, it := range items {
			if it.Book != book {
				continue
			}
			there = true
			if it.Archived != away {
				it.Archived = away
				changed = append(changed, it)
			}
		}
		if !there {
			return &studio.Error{Kind: studio.Missing, Says: fmt.Sprintf("There is no book %q on the shelf.", book)}
		}
		return keep(ctx, r, items, changed)
	})
}

// editShelf is an edit that goes by the whole shelf.
func editShelf(ctx context.Context, a *studio.App, who studio.Who, change func(studio.Room, []shelf.Item) error) error {
	return a.Edit(ctx, who, func(r studio.Room) error {
		items, err := r.Items(ctx)
		if err != nil {
			return studio.Failed(err, "shelf")
		}
		return change(r, items)
	})
}

// DropBook takes a book off the shelf for good, all or none of it. One of which a student has,
// or had, something is part of what was told: it can be laid away only.
func DropBook(ctx context.Context, a *studio.App, who studio.Who, book string) error {
	return editShelf(ctx, a, who, func(r studio.Room, items []shelf.Item) error {
		var ids []string
		for _, it := range items {
			if it.Book == book {
				ids = append(ids, it.ID)
			}
		}
		if len(ids) == 0 {
			return &studio.Error{Kind: studio.Missing, Says: fmt.Sprintf("There is no book %q on the shelf.", book)}
		}
		return drop(ctx, r, items, ids, book, "A student has something of %q, or had. Archive it instead: students who have it carry on, and it is not suggested to anyone else.", book)
	})
}

// DropItem takes an item off the shelf for good. One that a student has, or had, is
// part of what was told: it can be archived only.
func DropItem(ctx context.Context, a *studio.App, who studio.Who, id string, seen *shelf.Item) error {
	return editShelf(ctx, a, who, func(r studio.Room, items []shelf.Item) error {
		it, err := r.Item(ctx, id)
		if err != nil {
			return studio.Failed(err, "item")
		}
		if err := studio.Unseen(seen, &it); err != nil {
			return err
		}
		return drop(ctx, r, items, []string{id}, "", "%q is on a student's ladder, or was. Archive it instead: students who have it carry on, and it is not suggested to anyone else.", it.Title)
	})
}

// drop takes items off a shelf, where no student has or had one of them or chose the book, and
// no other was told to be the same. used says why not, of a title.
func drop(ctx context.Context, r studio.Room, shelved []shelf.Item, ids []string, book, used, title string) error {
	facts, err := r.FactsOf(ctx, fact.RungAdded{}, fact.BookChosen{})
	if err != nil {
		return studio.Failed(err, "studio")
	}
	for _, f := range facts {
		body := r.Present(f.Body)
		chosen, is := body.(fact.BookChosen)
		if is && chosen.Book == book || slices.ContainsFunc(fact.Refs(body), func(ref fact.Ref) bool { return ref.To == "item" && slices.Contains(ids, ref.ID) }) {
			return &studio.Error{Kind: studio.Conflict, Says: fmt.Sprintf(used, title)}
		}
	}
	for _, other := range shelved {
		if slices.Contains(ids, other.SameAs) && !slices.Contains(ids, other.ID) {
			return &studio.Error{Kind: studio.Conflict, Says: fmt.Sprintf("Another item was told to be the same as %q; part them first, or archive it.", title)}
		}
	}
	return studio.Failed(r.DropItems(ctx, ids), "item")
}

// A Replaced is what another score changed.
type Replaced struct {
	Was  int    `json:"was" doc:"bars"`
	Bars int    `json:"bars"`
	Says string `json:"says" doc:"what to look at now; empty when the places are where they were"`
}

// ReplaceScore gives an item another score file. Marks stay; where bars moved, places
// that were told by their bars are to be looked at.
func ReplaceScore(ctx context.Context, a *studio.App, who studio.Who, id, name string, data []byte) (Replaced, error) {
	s, err := notation.Read(name, data)
	if err != nil {
		return Replaced{}, unreadable(name, err)
	}
	var out Replaced
	err = a.Edit(ctx, who, func(r studio.Room) error {
		it, err := r.Item(ctx, id)
		if err != nil {
			return studio.Failed(err, "item")
		}
		out = Replaced{Was: it.Bars}
		it.Take(shelf.PrintedOf(s, r.Instruments.Of(it.Instrument)))
		if out.Bars = it.Bars; out.Was != out.Bars {
			out.Says = fmt.Sprintf("It had %d bars and has %d now: look at spots that name a bar.", out.Was, out.Bars)
		}
		return studio.Failed(r.SetScore(ctx, it, store.ScoreFile{Name: name, Data: data}), "item")
	})
	return out, err
}

// SameItem tells that an item is the same as another, or, as nothing, that it is an item
// of its own again. Whoever has it keeps every mark.
func SameItem(ctx context.Context, a *studio.App, who studio.Who, id, as string) error {
	return editShelf(ctx, a, who, func(r studio.Room, items []shelf.Item) error {
		it, err := r.Listed(ctx, id)
		if err != nil {
			return studio.Failed(err, "item")
		}
		if as != "" {
			if _, err := shelf.Same(r.Instruments, items, id, as); err != nil {
				return studio.Refuse("They cannot be made one: %v.", err)
			}
		}
		it.SameAs = as
		return studio.Failed(r.SetItems(ctx, []shelf.Item{it}, r.Row.Titles), "item")
	})
}

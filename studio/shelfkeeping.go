package studio

import (
	"context"
	"fmt"
	"slices"

	"patientladder/core/fact"
	"patientladder/core/notation"
	"patientladder/core/shelf"
	"patientladder/store"
)

// ArchiveBook lays a book of the shelf away, or brings it back: whoever has something of it goes
// on, nobody is offered it.
func (a *App) ArchiveBook(ctx context.Context, who Who, book string, away bool) error {
	r, items, err := a.shelved(ctx, who)
	if err != nil {
		return err
	}
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
		return &Error{Kind: Missing, Says: fmt.Sprintf("There is no book %q on the shelf.", book)}
	}
	return r.keep(ctx, items, changed)
}

// DropBook takes a book off the shelf for good, where no student has or had anything of it.
func (a *App) DropBook(ctx context.Context, who Who, book string) error {
	_, items, err := a.shelved(ctx, who)
	if err != nil {
		return err
	}
	var ids []string
	for _, it := range items {
		if it.Book == book {
			ids = append(ids, it.ID)
		}
	}
	if len(ids) == 0 {
		return &Error{Kind: Missing, Says: fmt.Sprintf("There is no book %q on the shelf.", book)}
	}
	facts, err := a.store.In(who.Studio).FactsOf(ctx, fact.RungAdded{}, fact.BookChosen{})
	if err != nil {
		return told(err, "studio")
	}
	for _, f := range facts {
		chosen, is := f.Body.(fact.BookChosen)
		used := is && chosen.Book == book
		for _, ref := range fact.Refs(f.Body) {
			used = used || ref.To == "item" && slices.Contains(ids, ref.ID)
		}
		if used {
			return &Error{Kind: Conflict, Says: fmt.Sprintf("A student has something of %q, or had. Lay it away: whoever has it goes on, and nobody is offered it.", book)}
		}
	}
	for _, id := range ids {
		if err := a.store.In(who.Studio).DropItem(ctx, id); err != nil {
			return told(err, "item")
		}
	}
	return nil
}

// DropItem takes an item off the shelf for good. One that a student has, or had, is
// part of what was told: it can be archived only.
func (a *App) DropItem(ctx context.Context, who Who, id string) error {
	r := a.store.In(who.Studio)
	it, err := r.Item(ctx, id)
	if err != nil {
		return told(err, "item")
	}
	facts, err := r.FactsOf(ctx, fact.RungAdded{}, fact.BookChosen{})
	if err != nil {
		return told(err, "studio")
	}
	for _, f := range facts {
		for _, ref := range fact.Refs(f.Body) {
			if ref.To == "item" && ref.ID == id {
				return &Error{Kind: Conflict, Says: fmt.Sprintf("%q is on a student's ladder, or was. Archive it: whoever has it goes on, and nobody is offered it.", it.Title)}
			}
		}
	}
	items, err := r.Items(ctx)
	if err != nil {
		return told(err, "shelf")
	}
	for _, other := range items {
		if other.SameAs == id {
			return &Error{Kind: Conflict, Says: fmt.Sprintf("Another item was told to be the same as %q; part them first, or archive it.", it.Title)}
		}
	}
	return told(r.DropItem(ctx, id), "item")
}

// A Replaced is what another score changed.
type Replaced struct {
	Was  int    `json:"was" doc:"bars"`
	Bars int    `json:"bars"`
	Says string `json:"says" doc:"what to look at now; empty when the places are where they were"`
}

// ReplaceScore gives an item another score file. Marks stay; where bars moved, places
// that were told by their bars are to be looked at.
func (a *App) ReplaceScore(ctx context.Context, who Who, id, name string, data []byte) (Replaced, error) {
	r, err := a.enter(ctx, who)
	if err != nil {
		return Replaced{}, err
	}
	it, err := r.Item(ctx, id)
	if err != nil {
		return Replaced{}, told(err, "item")
	}
	s, err := notation.Read(name, data)
	if err != nil {
		return Replaced{}, unreadable(name, 0, 1, err)
	}
	out := Replaced{Was: it.Bars}
	it.Take(shelf.PrintedOf(s, r.instruments.Of(it.Instrument)))
	if out.Bars = it.Bars; out.Was != out.Bars {
		out.Says = fmt.Sprintf("It had %d bars and has %d now: look at spots that name a bar.", out.Was, out.Bars)
	}
	return out, told(r.SetScore(ctx, it, store.ScoreFile{Name: name, Data: data}), "item")
}

// SameItem tells that an item is the same as another, or, as nothing, that it is an item
// of its own again. Whoever has it keeps every mark.
func (a *App) SameItem(ctx context.Context, who Who, id, as string) error {
	r, items, err := a.shelved(ctx, who)
	if err != nil {
		return err
	}
	it, err := r.Listed(ctx, id)
	if err != nil {
		return told(err, "item")
	}
	if as != "" {
		if _, err := shelf.Same(r.instruments, items, id, as); err != nil {
			return invalid("They cannot be made one: %v.", err)
		}
	}
	it.SameAs = as
	return told(r.SetItems(ctx, []shelf.Item{it}, r.row.Titles), "item")
}

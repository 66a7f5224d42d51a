// Package demo fills a studio with the ferry house: invented people and tunes,
// and a history made by telling the app, lesson by lesson, what happened.
package demo

import (
	"context"
	"embed"
	"fmt"
	"path"
	"strings"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/instrument"
	"patientladder/core/programme"
	"patientladder/core/shelf"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/account"
	"patientladder/studio/diary"
	"patientladder/studio/library"
	"patientladder/studio/roster"
)

// The demo's sign-in.
const (
	Email    = "ottilie@ferryhouse.example"
	Password = "lantern-slipway-nine"
	zone     = "Europe/London"
)

//go:embed shelf.csv scores
var files embed.FS

// Now is the moment at which the demo's clock stands when it is new.
func Now() time.Time {
	at, err := time.LoadLocation(zone)
	if err != nil {
		at = time.UTC
	}
	return time.Date(2026, time.November, 18, 15, 40, 0, 0, at)
}

var terms = calendar.Calendar{
	Terms: []calendar.Span{
		{Name: "summer", From: "2026-04-20", To: "2026-07-10"},
		{Name: "autumn", From: "2026-09-07", To: "2026-12-11"},
		{Name: "spring", From: "2027-01-11", To: "2027-03-26"},
		{Name: "summer", From: "2027-04-19", To: "2027-07-09"},
	},
	Free: []calendar.Span{{Name: "free week", From: "2026-10-26", To: "2026-10-30"}},
}

// Seed makes the demo studio. The same seed gives the same history. real is
// the machine's clock. The studio can be signed in to only when it is whole, so
// that a start which was cut short is made good by the next.
func Seed(ctx context.Context, s *store.Store, seed uint64, real func() time.Time) error {
	return fill(ctx, s, seed, real, students)
}

// concert plans the studio's concert with a secure piece of some students, and one that has its day as
// its date since long.
func concert(ctx context.Context, app *studio.App, who studio.Who) error {
	e := programme.Event{ID: studio.NewID(), Name: "Concert at the Ferry House", Kind: "concert", Day: "2026-12-05", Start: "15:00", Place: "The old ticket office"}
	if err := diary.KeepEvent(ctx, app, who, e.ID, studio.Set(e)); err != nil {
		return err
	}
	v, err := diary.Event(ctx, app, who, e.ID, 0)
	if err != nil {
		return err
	}
	playing := map[string]bool{"Mei-Lin": true, "Anselm": true, "Freya": true, "Zuri": true}
	for _, c := range v.Choices {
		if playing[c.Name] && c.Ready.State == "polish" || c.Name == "Hyacinth" && c.Title == "Ode to Joy" {
			e.Entries = append(e.Entries, c.Listing)
			delete(playing, c.Name)
		}
	}
	return diary.KeepEvent(ctx, app, who, e.ID, studio.Set(e))
}

func fill(ctx context.Context, s *store.Store, seed uint64, real func() time.Time, students []student) error {
	clock := terms.Terms[0].From.Time()
	app := studio.New(s, func() time.Time { return clock }).Lives()
	filling := studio.NewID() + "@filling.example"
	who, err := account.Make(ctx, app, account.SignUp{Name: "Ottilie Brandvold", Email: filling, Password: Password, Studio: "The Ferry House",
		Zone: zone, Calendar: terms, Demo: true})
	if err != nil {
		return fmt.Errorf("make the demo studio: %w", err)
	}
	items, err := ownBooks()
	if err == nil {
		err = library.AddItems(ctx, app, who, items)
	}
	if err != nil {
		return fmt.Errorf("fill the demo's shelf: %w", err)
	}
	for i, st := range students {
		m := newModel(app, who, &clock, seed+uint64(i), st, items)
		if err := m.live(ctx); err != nil {
			return fmt.Errorf("tell %s's history: %w", st.first, err)
		}
	}
	if err := diary.SetClock(ctx, studio.New(s, real), who, Now()); err != nil {
		return err
	}
	if err := concert(ctx, studio.New(s, real), who); err != nil {
		return fmt.Errorf("plan the concert: %w", err)
	}
	if err := roster.SetHome(ctx, app, who, "", studio.Set(shelf.Home{KeyTops: 72, BenchLow: 46, BenchHigh: 56, Tile: 3})); err != nil {
		return fmt.Errorf("measure the studio's bench: %w", err)
	}
	return s.In(who.Studio).SetEmail(ctx, who.Teacher, Email)
}

// OwnBooks puts the shipped books, pieces and scores on a studio's shelf; what
// is there already is left alone.
func OwnBooks(ctx context.Context, app *studio.App, who studio.Who) error {
	items, err := ownBooks()
	if err != nil {
		return err
	}
	return library.AddItems(ctx, app, who, items)
}

// ownBooks reads the shelf's table; an item's score is the file of its id.
func ownBooks() ([]store.NewItem, error) {
	table, err := files.ReadFile("shelf.csv")
	if err != nil {
		return nil, err
	}
	rows, _, bad, err := shelf.Merge(nil, instrument.Shipped, table, studio.NewID)
	if err != nil {
		return nil, err
	}
	if len(bad) > 0 {
		return nil, fmt.Errorf("shelf.csv, line %d: %s", bad[0].Line, bad[0].Says)
	}
	scores, err := files.ReadDir("scores")
	if err != nil {
		return nil, err
	}
	named := map[string]string{}
	for _, f := range scores {
		named[strings.TrimSuffix(f.Name(), path.Ext(f.Name()))] = f.Name()
	}
	var items []store.NewItem
	for _, row := range rows {
		in := store.NewItem{Item: row.Item}
		if name := named[row.Item.ID]; name != "" {
			data, err := files.ReadFile("scores/" + name)
			if err != nil {
				return nil, err
			}
			in.File = &store.ScoreFile{Name: name, Data: data}
		}
		items = append(items, in)
	}
	return items, nil
}

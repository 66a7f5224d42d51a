// Package demo fills a studio with the ferry house: invented people and tunes,
// and a history made by telling the app, lesson by lesson, what happened.
package demo

import (
	"context"
	"embed"
	"encoding/json"
	"fmt"
	"time"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/shelf"
	"patientladder/store"
	"patientladder/studio"
)

// The demo's sign-in.
const (
	Email    = "ottilie@ferryhouse.example"
	Password = "lantern-slipway-nine"
	zone     = "Europe/London"
)

//go:embed shelf.json scores
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

// A lane is a student's path through one strand: pieces secured so far, the
// current one with the weeks it has been taught and the points met, and what
// is placed above it.
type lane struct {
	strand shelf.Strand
	items  []string
	secure int
	weeks  int // of the current rung
	met    int
	spot   string // a spot of the current rung, still open
}

type student struct {
	first, family string
	year, month   int
	instrument    shelf.Instrument
	slot          calendar.Slot
	ear           bool
	days          float64 // practised of each six
	own           string  // a standing point
	lanes         []lane
}

var students = []student{
	{first: "Tobias", family: "Lindqvist-Roy", year: 2020, month: 5, instrument: shelf.Piano, days: 0.7,
		slot: calendar.Slot{Weekday: time.Wednesday, Start: "16:40", Minutes: 30},
		lanes: []lane{
			{shelf.Book, []string{"shore-rope-walk", "shore-gulls", "shore-low-bell", "shore-two-oars", "shore-stairs", "shore-whistle", "shore-nets",
				"shore-tin-boat", "shore-half-tide", "shore-lights", "shore-sailcloth", "shore-tar-barrel"}, 7, 2, 2, "bar 4"},
			{shelf.Technique, []string{"shore-t1", "shore-t2", "shore-t3"}, 1, 3, 1, ""},
			{shelf.Reading, []string{"shore-r1", "shore-r2", "shore-r3"}, 1, 2, 1, ""},
			{shelf.Repertoire, []string{"folk-clair", "folk-jacques"}, 1, 1, 0, ""},
		}},
	{first: "Priya", family: "Halvorsen", year: 2017, month: 2, instrument: shelf.Piano, days: 0.8,
		slot: calendar.Slot{Weekday: time.Monday, Start: "16:00", Minutes: 30},
		lanes: []lane{
			{shelf.Book, []string{"shore-half-tide", "shore-lights", "shore-sailcloth", "shore-tar-barrel", "harbour-fathoms", "harbour-fog", "harbour-quay", "harbour-lock"}, 5, 2, 2, "bars 5 to 6"},
			{shelf.Technique, []string{"shore-t2", "shore-t3", "harbour-scales"}, 2, 10, 1, ""},
			{shelf.Reading, []string{"shore-r2", "shore-r3", "harbour-r1"}, 2, 1, 0, ""},
			{shelf.Repertoire, []string{"folk-jacques", "folk-sakura"}, 1, 3, 2, ""},
		}},
	{first: "Emil", family: "Castellano", year: 2018, month: 3, instrument: shelf.Cello, ear: true, days: 0.85, own: "Bow hold",
		slot: calendar.Slot{Weekday: time.Wednesday, Start: "16:00", Minutes: 30},
		lanes: []lane{
			{shelf.Book, []string{"bow-open", "bow-strings", "bow-march", "bow-coil", "bow-gull", "bow-slack", "bow-lamp", "bow-slipway", "bow-half", "bow-reel", "bow-jig", "bow-fog"}, 6, 2, 3, "bar 11"},
			{shelf.Technique, []string{"bow-t1", "bow-t2", "bow-t3", "bow-t4"}, 1, 2, 1, ""},
			{shelf.Reading, []string{"bow-r1", "bow-r2"}, 0, 1, 1, ""},
			{shelf.Repertoire, []string{"folk-skye"}, 0, 3, 2, "bar 5"},
		}},
}

// Seed makes the demo studio. The same seed gives the same history. real is
// the machine's clock. The studio can be signed in to only when it is whole, so
// that a start which was cut short is made good by the next.
func Seed(ctx context.Context, s *store.Store, seed uint64, real func() time.Time) error {
	clock := terms.Terms[0].From.Time()
	app := studio.New(s, func() time.Time { return clock })
	filling := studio.NewID() + "@filling.example"
	who, err := app.SignUp(ctx, studio.SignUp{Name: "Ottilie Brandvold", Email: filling, Password: Password, Studio: "The Ferry House",
		Zone: zone, Calendar: terms, Demo: true})
	if err != nil {
		return fmt.Errorf("make the demo studio: %w", err)
	}
	if err := fillShelf(ctx, app, who); err != nil {
		return fmt.Errorf("fill the demo's shelf: %w", err)
	}
	for i, st := range students {
		m := newModel(app, who, &clock, seed+uint64(i), st)
		if err := m.live(ctx); err != nil {
			return fmt.Errorf("tell %s's history: %w", st.first, err)
		}
	}
	if err := studio.New(s, real).SetClock(ctx, who, Now()); err != nil {
		return err
	}
	return s.In(who.Studio).SetEmail(ctx, who.Teacher, Email)
}

func fillShelf(ctx context.Context, app *studio.App, who studio.Who) error {
	data, err := files.ReadFile("shelf.json")
	if err != nil {
		return err
	}
	var list struct {
		Books []struct {
			Title      string
			Instrument shelf.Instrument
			Units      []struct {
				Title string
				Items []struct {
					shelf.Item
					Score string
				}
			}
		}
	}
	if err := json.Unmarshal(data, &list); err != nil {
		return err
	}
	for _, b := range list.Books {
		for _, u := range b.Units {
			for _, in := range u.Items {
				it := in.Item
				it.Book, it.Unit, it.Instrument = b.Title, u.Title, b.Instrument
				var file *store.ScoreFile
				if in.Score != "" {
					score, err := files.ReadFile(in.Score)
					if err != nil {
						return err
					}
					file = &store.ScoreFile{Name: in.Score, Data: score}
				}
				if err := app.AddItem(ctx, who, it, file); err != nil {
					return err
				}
			}
		}
	}
	return nil
}

func (s student) card(id string) studio.NewStudent {
	in := studio.NewStudent{ID: id, FirstName: s.first, FamilyName: s.family, BirthYear: s.year, BirthMonth: s.month, Instrument: s.instrument, Slot: s.slot}
	if s.ear {
		a := approach.EarFirst(2026 - s.year)
		in.Approach = &a
	}
	return in
}

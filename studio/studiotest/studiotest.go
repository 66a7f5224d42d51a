// Package studiotest gives tests of the use cases a studio to live in, over a database of its own.
package studiotest

import (
	"context"
	"encoding/json"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/demo"
	"patientladder/store"
	"patientladder/store/storetest"
	"patientladder/studio"
	"patientladder/studio/account"
	"patientladder/studio/library"
	"patientladder/studio/places"
	"patientladder/studio/roster"
)

// A Room is a studio with one student, a piece on the shelf, and a clock that
// the test moves.
type Room struct {
	T       *testing.T
	App     *studio.App
	Store   *store.Store
	Who     studio.Who
	Now     time.Time
	Student string
}

var ctx = context.Background()

// Tests sign in often.
func init() { account.HashInAMoment() }

// New makes a room for a test.
func New(t *testing.T) *Room {
	r := &Room{T: t, Now: time.Date(2026, 11, 18, 15, 40, 0, 0, time.UTC)}
	r.Store = storetest.New(t)
	r.App = studio.New(r.Store, func() time.Time { return r.Now })
	var err error
	r.Who, err = account.Make(ctx, r.App, account.SignUp{Name: "T", Studio: "S", Email: "t@example.com", Password: "a long password", Zone: "Europe/London",
		Calendar: calendar.Calendar{Terms: []calendar.Span{{Name: "autumn", From: "2026-09-07", To: "2026-12-11"}}}})
	require.NoError(t, err)
	r.Student = studio.NewID()
	_, err = roster.AddStudent(ctx, r.App, r.Who, roster.NewStudent{ID: r.Student, FirstName: "Emil", BirthYear: 2018, BirthMonth: 3, Instrument: "cello",
		Slot: calendar.Slot{Weekday: time.Wednesday, Start: "16:00", Minutes: 30}})
	require.NoError(t, err)
	for _, title := range []string{"Lamp Room", "Slipway Song", "Half Tide"} {
		require.NoError(t, library.AddItems(ctx, r.App, r.Who, []store.NewItem{{Item: shelf.Item{ID: strings.ToLower(strings.Fields(title)[0]), Title: title, Instrument: "cello", Strand: shelf.Book, Bars: 16, Points: shelf.PointsOf("Tone", "Tuning", "Spots")}}}))
	}
	return r
}

// Furnished is a room whose shelf holds the shipped books.
func Furnished(t *testing.T) *Room {
	r := New(t)
	require.NoError(t, demo.OwnBooks(ctx, r.App, r.Who))
	return r
}

// Tell says a fact a minute after the one before.
func (r *Room) Tell(b fact.Body) string {
	r.T.Helper()
	r.Now = r.Now.Add(time.Minute)
	f := fact.Fact{ID: studio.NewID(), Student: r.Student, At: r.Now, Body: b}
	require.NoError(r.T, r.App.Tell(ctx, r.Who, []fact.Fact{f}))
	return f.ID
}

// Lesson is the student's lesson of today, or the next.
func (r *Room) Lesson() places.LessonView {
	v, err := places.Lesson(ctx, r.App, r.Who, r.Student, "")
	require.NoError(r.T, err)
	return v
}

// Week is the student's last week sheet.
func (r *Room) Week() places.WeekView {
	v, err := places.Week(ctx, r.App, r.Who, r.Student, "", 0)
	require.NoError(r.T, err)
	return v
}

// InHand puts a piece with its notes on the ladder, gives it its first lesson and
// closes that.
func (r *Room) InHand() string {
	require.NoError(r.T, library.AddItems(ctx, r.App, r.Who, []store.NewItem{{
		Item: shelf.Item{ID: "rope", Title: "Rope Walk", Instrument: "cello", Strand: shelf.Book, Bars: 8, HasScore: true, Points: shelf.PointsOf("Tone")},
		File: &store.ScoreFile{Name: "rope.abc", Data: []byte(ropeWalk)},
	}}))
	rope := r.Tell(fact.RungAdded{Item: "rope", Strand: "book", After: fact.Top})
	r.Tell(fact.LessonOpened{Day: "2026-11-18"})
	r.Tell(fact.Taught{Rung: rope})
	r.Tell(fact.LessonClosed{Day: "2026-11-18"})
	return rope
}

const ropeWalk = "X:1\nT:Rope Walk\nM:4/4\nL:1/4\nK:C clef=bass\nC, D, E, F,|G,2 E,2|C, D, E, D,|C,4|G, F, E, D,|E,2 C,2|D, E, F, D,|C,4|\n"

// SignIn signs the teacher in.
func (r *Room) SignIn(password, code string) error {
	_, err := account.Admit(ctx, r.App, account.SignIn{Email: "t@example.com", Password: password, Code: code, From: "here"})
	return err
}

// Newcomer is a pianist of ten, changed as a test likes.
func Newcomer(change func(*roster.NewStudent)) roster.NewStudent {
	in := roster.NewStudent{ID: studio.NewID(), FirstName: "Ida", BirthYear: 2016, BirthMonth: 5, Instrument: "piano",
		Slot: calendar.Slot{Weekday: 1, Start: "16:00", Minutes: 30}, Books: []string{"Tidelines: Harbour", "Folk tunes and others"}}
	change(&in)
	return in
}

// Codes are those of some reasons.
func Codes(list []reason.Reason) (out []string) {
	for _, r := range list {
		out = append(out, r.Code)
	}
	return out
}

// JSON is a value as it is sent.
func JSON(t *testing.T, v any) string {
	out, err := json.Marshal(v)
	require.NoError(t, err)
	return string(out)
}

// FerryHouse is the demo on a database of the test's own, its clock at its beginning by the
// machine's clock. It is filled once for all packages that are tested together.
func FerryHouse(t testing.TB, now func() time.Time) *store.Store {
	s := storetest.Copy(t, "ferryhouse", func(s *store.Store) error { return demo.Seed(ctx, s, 17, now) })
	_, err := s.DB().Exec("UPDATE studios SET clock_shift = ? WHERE demo", int64(demo.Now().Sub(now())/time.Second))
	require.NoError(t, err)
	return s
}

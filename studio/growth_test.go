package studio_test

import (
	"database/sql"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"path/filepath"
	"testing"
	"time"

	"github.com/oklog/ulid/v2"
	"github.com/stretchr/testify/require"

	"patientladder/core/activity"
	"patientladder/core/ahead"
	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/lesson"
	"patientladder/core/notation"
	"patientladder/core/reading"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/core/week"
	"patientladder/demo"
	"patientladder/internal/yardstick"
	"patientladder/store"
	"patientladder/store/mariadb"
	"patientladder/store/storetest"
	"patientladder/studio"
	"patientladder/studio/account"
	"patientladder/studio/library"
	"patientladder/studio/roster"
)

var weekly = calendar.Slot{Weekday: time.Wednesday, Start: "16:00", Minutes: 30}

// schoolYears makes terms as long as the facts go, and one more.
func schoolYears(from, years int) calendar.Calendar {
	var c calendar.Calendar
	for y := from; y <= from+years; y++ {
		day := func(md string) calendar.Date { return calendar.Date(fmt.Sprintf("%d-%s", y, md)) }
		c.Terms = append(c.Terms, calendar.Span{Name: "spring", From: day("01-11"), To: day("03-26")}, calendar.Span{Name: "summer", From: day("04-19"), To: day("07-09")},
			calendar.Span{Name: "autumn", From: day("09-07"), To: day("12-11")})
		c.Free = append(c.Free, calendar.Span{Name: "free week", From: day("10-26"), To: day("10-30")})
	}
	return c
}

// longAgo makes a student's facts of some years: rungs along the shelf, a
// lesson a week with its marks, hearings and four days of practice.
func longAgo(items []shelf.Item, cal calendar.Calendar, first, last calendar.Date, seed uint64) []fact.Fact {
	rng := rand.New(rand.NewPCG(seed, 5))
	var facts []fact.Fact
	n := 0
	say := func(at time.Time, b fact.Body) string {
		n++
		facts = append(facts, fact.Fact{ID: fmt.Sprintf("%02d%024d", seed, n), Student: "s", At: at, Body: b})
		return facts[len(facts)-1].ID
	}
	say(first.Time(), fact.BookChosen{Book: "Tidelines: Open Water"})
	type open struct {
		id    string
		left  int
		point int
	}
	next, hand := 0, []*open{}
	var secure []string
	for _, day := range cal.Lessons(weekly, first, last) {
		at := day.Time().Add(16 * time.Hour)
		step := func() time.Time { at = at.Add(30 * time.Second); return at }
		say(step(), fact.LessonOpened{Day: day})
		for len(hand) < 4 {
			it := items[next%len(items)]
			next++
			id := say(step(), fact.RungAdded{Item: it.ID, Strand: string(it.Strand), After: fact.Top})
			say(step(), fact.Taught{Rung: id})
			hand = append(hand, &open{id: id, left: 1 + rng.IntN(6)})
		}
		for i := 0; i < len(hand); i++ {
			h := hand[i]
			keys := []string{"rhythm", "tone", "fingering"}
			say(step(), fact.PointMarked{Rung: h.id, Point: keys[h.point%3], State: fact.Met})
			h.point++
			if h.left--; h.left <= 0 {
				say(step(), fact.FootholdTried{Rung: h.id, Outcome: "granted"})
				secure = append(secure, h.id)
				hand = append(hand[:i], hand[i+1:]...)
				i--
			}
		}
		for range min(4, len(secure)) {
			say(step(), fact.Heard{Rung: secure[rng.IntN(len(secure))], Grade: "fine"})
		}
		say(step(), fact.LessonClosed{Day: day})
		for d := 1; d <= 4; d++ {
			home := day.Add(d).Time().Add(18 * time.Hour)
			say(home, fact.Practised{Day: day.Add(d), Minutes: 20, Felt: "fine"})
			for range min(2, len(secure)) {
				say(home.Add(time.Minute), fact.Played{Rung: secure[rng.IntN(len(secure))], Day: day.Add(d)})
			}
		}
	}
	return facts
}

// plan is a student's whole plan from loaded facts: standing, forecast, order,
// head starts, and the week with its choice of upkeep.
func plan(facts []fact.Fact, items []shelf.Item, byID map[string]shelf.Item, cal calendar.Calendar, graph skill.Graph, at time.Time) {
	s := ladder.Fold(facts, byID)
	st := climb.Student{Standing: s, Graph: graph, Shelf: items, Approach: approach.Default(12), Plays: instrument.Shipped.Of("piano"), Calendar: cal, Slot: weekly, Now: at}
	p := climb.Reckon(st)
	h := ahead.Plan(s, graph, p, 2, at)
	week.Make(week.Ask{Standing: s, Graph: graph, Path: p, Ahead: h, Approach: st.Approach, Age: 12, From: calendar.On(at), Next: calendar.On(at).Add(7), Through: calendar.On(at).Add(6), At: at})
}

// A booked studio has the shipped books on its shelf.
type booked struct {
	store *store.Store
	app   *studio.App
	who   studio.Who
	shelf []shelf.Item
	piano []shelf.Item
	byID  map[string]shelf.Item
}

func withBooks(b *testing.B) booked {
	h := booked{store: storetest.New(b), byID: map[string]shelf.Item{}}
	h.app = studio.New(h.store, time.Now)
	var err error
	h.who, err = account.Make(ctx, h.app, account.SignUp{Name: "T", Studio: "S", Email: ulid.Make().String() + "@example.com", Password: "a long password", Zone: "UTC"})
	require.NoError(b, err)
	require.NoError(b, demo.OwnBooks(ctx, h.app, h.who))
	view, err := library.Shelf(ctx, h.app, h.who, "", 0)
	require.NoError(b, err)
	h.shelf = view.Items
	for _, it := range h.shelf {
		h.byID[it.ID] = it
		if it.Instrument == "piano" {
			h.piano = append(h.piano, it)
		}
	}
	return h
}

// BenchmarkGrowth measures the plan of 60 students with five years of facts,
// and how it grows with facts and with students. After loading, in one run.
func BenchmarkGrowth(b *testing.B) {
	h := withBooks(b)
	graph := skill.Catalogue()
	now := calendar.Date("2026-11-18").Time().Add(16 * time.Hour)
	cal := schoolYears(2016, 11)
	one := func(facts []fact.Fact) float64 {
		return yardstick.Took(func() { plan(facts, h.shelf, h.byID, cal, graph, now) })
	}

	var students [][]fact.Fact
	for i := range 60 {
		students = append(students, longAgo(h.piano, cal, "2021-11-18", "2026-11-17", uint64(i)))
	}
	one(students[0])
	var each []float64
	whole := 0.0
	for _, facts := range students {
		ms := one(facts)
		each = append(each, ms)
		whole += ms
	}
	fmt.Printf("plan of a student, five years (%d facts): median %.2f ms; 60 students: %.0f ms\n", len(students[0]), yardstick.Median(each), whole)

	text, err := json.Marshal(students[0])
	require.NoError(b, err)
	yardstick.Print("plan", 30, func() { one(students[0]) }, func() {
		var facts []fact.Fact
		require.NoError(b, json.Unmarshal(text, &facts))
	}, "encoding/json reading the same facts")

	var sizes, times []float64
	for years := 1; years <= 8; years *= 2 {
		facts := longAgo(h.piano, cal, calendar.Date(fmt.Sprintf("%d-11-18", 2026-years)), "2026-11-17", 1)
		var ms []float64
		for range 15 {
			ms = append(ms, one(facts))
		}
		sizes, times = append(sizes, float64(len(facts))), append(times, yardstick.Median(ms))
	}
	fmt.Printf("growth with facts: exponent %.2f (%.0f to %.0f facts: %.2f to %.2f ms)\n", yardstick.Exponent(sizes, times), sizes[0], sizes[3], times[0], times[3])

	sizes, times = nil, nil
	for n := 15; n <= 60; n *= 2 {
		var ms []float64
		for range 5 {
			ms = append(ms, yardstick.Took(func() {
				for _, facts := range students[:n] {
					one(facts)
				}
			}))
		}
		sizes, times = append(sizes, float64(n)), append(times, yardstick.Median(ms))
	}
	fmt.Printf("growth with students: exponent %.2f (15 to 60 students: %.0f to %.0f ms)\n", yardstick.Exponent(sizes, times), times[0], times[2])
}

// A way is a student of five years with what screens have at hand.
type way struct {
	climb.Student
	path  climb.Path
	ahead []ahead.HeadStart
	age   int
}

// ways are those of 60 students at a moment.
func (h booked) ways(graph skill.Graph, at time.Time) []way {
	cal := schoolYears(2016, 11)
	var out []way
	for i := range 60 {
		age := 6 + i%12
		st := climb.Student{Standing: ladder.Fold(longAgo(h.piano, cal, "2021-11-18", "2026-11-17", uint64(i)), h.byID), Graph: graph, Shelf: h.shelf,
			Approach: approach.Default(age), Plays: instrument.Shipped.Of("piano"), Calendar: cal, Slot: weekly, Now: at}
		path := climb.Reckon(st)
		out = append(out, way{st, path, ahead.Plan(st.Standing, graph, path, 2, at), age})
	}
	return out
}

// BenchmarkSheets measures 60 week sheets of students with five years of facts, from
// the ways and the chunks that the screens have at hand, against encoding/json writing
// the same sheets; and the chunks read off the scores of the pieces in hand.
func BenchmarkSheets(b *testing.B) {
	h := withBooks(b)
	graph := skill.Catalogue()
	at := calendar.Date("2026-11-18").Time().Add(16 * time.Hour)
	var asks []week.Ask
	var ids [][]string
	for _, w := range h.ways(graph, at) {
		asks = append(asks, week.Ask{Standing: w.Standing, Graph: graph, Path: w.path, Ahead: w.ahead, Approach: w.Approach, Age: w.age, From: calendar.On(at), Next: calendar.On(at).Add(7), Through: calendar.On(at).Add(6), At: at})
		var hand []string
		for _, r := range w.Standing.In(ladder.Current) {
			if r.Item.HasScore && r.Taught != nil {
				hand = append(hand, r.Item.ID)
			}
		}
		ids = append(ids, hand)
	}
	read := func(i int) map[string][]reading.Chunk {
		files, err := h.store.In(h.who.Studio).Scores(ctx, ids[i])
		require.NoError(b, err)
		trees := map[string][]reading.Chunk{}
		for _, r := range asks[i].Standing.In(ladder.Current) {
			if f, has := files[r.Item.ID]; has {
				s, err := notation.Read(f.Name, f.Data)
				require.NoError(b, err)
				trees[r.ID] = reading.Read(s, instrument.Shipped.Of("piano")).Chunks(reading.Size(asks[i].Age, false))
			}
		}
		return trees
	}
	for i := range asks {
		asks[i].Trees = read(i)
	}
	var sheets []week.Sheet
	yardstick.Print("60-sheets", 9, func() {
		sheets = sheets[:0]
		for _, ask := range asks {
			sheets = append(sheets, week.Make(ask))
		}
	}, func() {
		_, err := json.Marshal(sheets)
		require.NoError(b, err)
	}, "encoding/json writing the same sheets")
	yardstick.Print("chunks-of-60-sheets", 5, func() {
		for i := range asks {
			read(i)
		}
	}, func() {
		for i := range asks {
			_, err := h.store.In(h.who.Studio).Scores(ctx, ids[i])
			require.NoError(b, err)
		}
	}, "fetching the same scores from the database")
}

// BenchmarkLessons measures a week of 60 lessons, of students with five years of
// facts, planned from the ways that the screens have at hand, against encoding/json
// writing the same plans; and one mark kept through the use case against one bare
// insert of the same row.
func BenchmarkLessons(b *testing.B) {
	h := withBooks(b)
	graph := skill.Catalogue()
	at := calendar.Date("2026-11-18").Time().Add(16 * time.Hour)
	var asks []lesson.Ask
	for i, w := range h.ways(graph, at) {
		asks = append(asks, lesson.Ask{Standing: w.Standing, Graph: graph, Bank: activity.Bank(), Path: w.path, Ahead: w.ahead, Approach: w.Approach,
			Plays: instrument.Shipped.Of("piano"), Age: w.age, Minutes: []int{15, 30, 45, 60}[i%4], Day: calendar.On(at), At: at})
	}
	var plans []lesson.Plan
	yardstick.Print("week-of-60-lessons", 9, func() {
		plans = plans[:0]
		for _, ask := range asks {
			plans = append(plans, lesson.Make(ask))
		}
	}, func() {
		_, err := json.Marshal(plans)
		require.NoError(b, err)
	}, "encoding/json writing the same plans")
}

// BenchmarkMark measures one mark kept through the use case against one bare insert
// of the same row, on a server that keeps its promises when the power goes.
func BenchmarkMark(b *testing.B) {
	server, err := mariadb.Start(ctx, filepath.Join(b.TempDir(), "db"))
	require.NoError(b, err)
	defer server.Stop()
	db, err := sql.Open("mysql", server.DSN(""))
	require.NoError(b, err)
	defer db.Close()
	_, err = db.Exec("CREATE DATABASE marks CHARACTER SET utf8mb4")
	require.NoError(b, err)
	s, err := store.Open(ctx, server.DSN("marks"), time.Second)
	require.NoError(b, err)
	defer s.Close()
	_, err = s.Migrate(ctx)
	require.NoError(b, err)
	app := studio.New(s, time.Now)
	who, err := account.Make(ctx, app, account.SignUp{Name: "T", Studio: "S", Email: "t@example.com", Password: "a long password", Zone: "UTC"})
	require.NoError(b, err)
	require.NoError(b, library.AddItems(ctx, app, who, []store.NewItem{{Item: shelf.Item{ID: "lamp", Title: "Lamp Room", Instrument: "piano", Strand: shelf.Book, Points: shelf.PointsOf("Tone")}}}))
	id, rung := studio.NewID(), studio.NewID()
	_, err = roster.AddStudent(ctx, app, who, roster.NewStudent{ID: id, FirstName: "A", BirthYear: 2018, BirthMonth: 1, Instrument: "piano", Slot: weekly})
	require.NoError(b, err)
	told := func(id string, student string, body fact.Body) fact.Fact {
		return fact.Fact{ID: id, Student: student, At: time.Now().UTC(), Body: body}
	}
	require.NoError(b, app.Tell(ctx, who, []fact.Fact{told(rung, id, fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})}))
	mark := func() fact.Fact {
		return told(studio.NewID(), id, fact.PointMarked{Rung: rung, Point: "tone", State: fact.Met})
	}
	yardstick.Print("a-mark-kept", 300, func() {
		require.NoError(b, app.Tell(ctx, who, []fact.Fact{mark()}))
	}, func() {
		f := mark()
		detail, err := fact.Encode(f.Body)
		require.NoError(b, err)
		_, err = s.DB().ExecContext(ctx, "INSERT INTO facts (studio_id, id, student_id, at, kind, form, author, detail) VALUES (?, ?, ?, ?, ?, ?, ?, ?)", who.Studio, f.ID, f.Student, f.At, string(f.Kind()), fact.Version, "teacher", detail)
		require.NoError(b, err)
	}, "one bare insert of the same row")
}

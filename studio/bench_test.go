package studio_test

import (
	"database/sql"
	"encoding/json"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/calendar"
	"patientladder/core/document"
	"patientladder/core/shelf"
	"patientladder/demo"
	"patientladder/internal/yardstick"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/account"
	"patientladder/studio/diary"
	"patientladder/studio/library"
	"patientladder/studio/places"
	"patientladder/studio/roster"
	"patientladder/studio/studiotest"
)

// BenchmarkStudentView measures the ladder of a demo student, and of one with five
// years of facts and 200 documents, each against the bare queries of the same rows, in
// turn, and prints the ratio of the medians.
func BenchmarkStudentView(b *testing.B) {
	s := studiotest.FerryHouse(b, time.Now)
	app := studio.New(s, time.Now)
	who, err := account.Admit(ctx, app, account.SignIn{Email: demo.Email, Password: demo.Password, From: "bench"})
	require.NoError(b, err)
	day, err := diary.Day(ctx, app, who, "")
	require.NoError(b, err)
	compare := func(name, student string) {
		ladder, err := places.Ladder(ctx, app, who, student)
		require.NoError(b, err)
		items := []any{who.Studio}
		for _, r := range ladder.Rungs {
			items = append(items, r.Item)
		}
		byID := "SELECT id, detail FROM items WHERE studio_id = ? AND id IN (?" + strings.Repeat(", ?", len(items)-2) + ")"
		yardstick.Print(name, 200, func() {
			_, err := places.Ladder(ctx, app, who, student)
			require.NoError(b, err)
		}, func() {
			drain(b, s.DB(), "SELECT id, name, zone, calendar, demo, clock_shift FROM studios WHERE id = ?", who.Studio)
			drain(b, s.DB(), "SELECT id, first_name, family_name, birth_year, birth_month, instrument, slot, approach FROM students WHERE studio_id = ? AND id = ?", who.Studio, student)
			drain(b, s.DB(), "SELECT id, student_id, at, kind, form, author, detail FROM facts WHERE studio_id = ? AND student_id = ? ORDER BY at, id", who.Studio, student)
			drain(b, s.DB(), byID, items...)
		}, "the bare queries of the same view")
	}
	compare("student-view", day.Students[0].ID)

	old := studio.NewID()
	_, err = roster.AddStudent(ctx, app, who, roster.NewStudent{ID: old, FirstName: "Old", BirthYear: 2012, BirthMonth: 1, Instrument: "piano", Slot: weekly})
	require.NoError(b, err)
	view, err := library.Shelf(ctx, app, who, "", 0)
	require.NoError(b, err)
	piano := slices.DeleteFunc(slices.Clone(view.Items), func(it shelf.Item) bool { return it.Instrument != "piano" })
	facts := longAgo(piano, schoolYears(2016, 11), "2021-11-18", "2026-11-17", 1)
	st := s.In(who.Studio)
	for i := range facts {
		facts[i].Student = old
	}
	for list := range slices.Chunk(facts, 500) {
		require.NoError(b, st.AddTold(ctx, list, nil, store.Limits{Student: 1 << 30, Studio: 1 << 30}))
	}
	sheet, err := json.Marshal(map[string]string{"text": strings.Repeat("what to do, how often and why; ", 1000)})
	require.NoError(b, err)
	var docs []store.KeptDocument
	for i := range 200 {
		docs = append(docs, store.KeptDocument{Document: document.Document{ID: studio.NewID(), Student: old, Kind: document.Sheet, Day: calendar.Date("2021-11-18").Add(7 * i), Revision: 1, Reason: document.Given, At: time.Now()},
			Summary: studio.SheetSummary{Lines: []studio.SheetLine{}}, Body: sheet})
	}
	require.NoError(b, st.AddTold(ctx, nil, docs, store.Limits{Student: 1 << 30, Studio: 1 << 30}))
	compare("student-view-of-five-years", old)

	ancient := studio.NewID()
	_, err = roster.AddStudent(ctx, app, who, roster.NewStudent{ID: ancient, FirstName: "Ancient", BirthYear: 2008, BirthMonth: 1, Instrument: "piano", Slot: weekly})
	require.NoError(b, err)
	facts = longAgo(piano, schoolYears(2016, 11), "2016-11-18", "2026-11-17", 2)
	docs = docs[:0]
	for i := range facts {
		facts[i].Student = ancient
	}
	for list := range slices.Chunk(facts, 500) {
		require.NoError(b, st.AddTold(ctx, list, nil, store.Limits{Student: 1 << 30, Studio: 1 << 30}))
	}
	for i := range 400 {
		docs = append(docs, store.KeptDocument{Document: document.Document{ID: studio.NewID(), Student: ancient, Kind: document.Sheet, Day: calendar.Date("2018-11-18").Add(7 * i), Revision: 1, Reason: document.Given, At: time.Now()},
			Summary: studio.SheetSummary{Lines: []studio.SheetLine{}}, Body: sheet})
	}
	require.NoError(b, st.AddTold(ctx, nil, docs, store.Limits{Student: 1 << 30, Studio: 1 << 30}))
	yardstick.Print("record-of-ten-years", 20, func() {
		_, err := places.Record(ctx, app, who, ancient, 0)
		require.NoError(b, err)
		_, err = places.RecordYear(ctx, app, who, ancient, 0)
		require.NoError(b, err)
	}, func() {
		for range 2 {
			drain(b, s.DB(), "SELECT id, student_id, at, kind, form, author, detail FROM facts WHERE studio_id = ? AND student_id = ? ORDER BY at, id", who.Studio, ancient)
		}
		drain(b, s.DB(), "SELECT id, summary FROM documents WHERE studio_id = ? AND student_id = ?", who.Studio, ancient)
	}, "the bare queries of the same record and year")
}

func drain(b *testing.B, db *sql.DB, query string, args ...any) {
	rows, err := db.QueryContext(ctx, query, args...)
	require.NoError(b, err)
	defer rows.Close()
	columns, err := rows.Columns()
	require.NoError(b, err)
	cells := make([]sql.RawBytes, len(columns))
	into := make([]any, len(columns))
	for i := range cells {
		into[i] = &cells[i]
	}
	for rows.Next() {
		require.NoError(b, rows.Scan(into...))
	}
	require.NoError(b, rows.Err())
}

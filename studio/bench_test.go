package studio_test

import (
	"database/sql"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/demo"
	"patientladder/internal/yardstick"
	"patientladder/store/storetest"
	"patientladder/studio"
)

// BenchmarkStudentView measures the ladder of a demo student against the bare
// queries it asks, in turn, and prints the ratio of the medians.
func BenchmarkStudentView(b *testing.B) {
	s := storetest.New(b)
	require.NoError(b, demo.Seed(ctx, s, 17, time.Now))
	app := studio.New(s, time.Now)
	who, err := app.SignIn(ctx, demo.Email, demo.Password, "bench")
	require.NoError(b, err)
	day, err := app.Day(ctx, who, "")
	require.NoError(b, err)
	emil := day.Students[0].ID
	ladder, err := app.Ladder(ctx, who, emil)
	require.NoError(b, err)
	items := []any{who.Studio}
	for _, r := range ladder.Rungs {
		items = append(items, r.Item)
	}
	byID := "SELECT id, detail FROM items WHERE studio_id = ? AND id IN (?" + strings.Repeat(", ?", len(items)-2) + ")"
	bare := func() {
		drain(b, s.DB(), "SELECT id, name, zone, calendar, demo, clock_shift FROM studios WHERE id = ?", who.Studio)
		drain(b, s.DB(), "SELECT id, first_name, family_name, birth_year, birth_month, instrument, slot, approach FROM students WHERE studio_id = ? AND id = ?", who.Studio, emil)
		drain(b, s.DB(), "SELECT detail FROM facts WHERE studio_id = ? AND student_id = ? ORDER BY at, id", who.Studio, emil)
		drain(b, s.DB(), byID, items...)
	}
	view := func() {
		_, err := app.Ladder(ctx, who, emil)
		require.NoError(b, err)
	}
	yardstick.Print("student-view", 200, view, bare, "the bare queries of the same view")
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

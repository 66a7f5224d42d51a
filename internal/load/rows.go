package main

import (
	"context"
	"database/sql"
	"fmt"
	"strings"
	"time"

	"patientladder/store"
	"patientladder/studio"
	"patientladder/year"
)

// students is how many a studio has.
const students = 20

// original lives a studio by the program's own use cases: twenty students, two school years.
func original(ctx context.Context, s *store.Store, weeks int) (*year.Studio, error) {
	st, err := year.Open(ctx, s)
	if err != nil {
		return nil, err
	}
	names := year.Names()
	for i := range students {
		if _, err := st.Live(ctx, names[i%len(names)], uint64(i+1), weeks, year.ByPath); err != nil {
			return nil, err
		}
	}
	return st, nil
}

// copied are the tables of a studio's rows. Keys of all but the first two hold the studio, so that a copy
// differs in nothing else.
var copied = []string{"studios", "teachers", "students", "items", "scores", "readings", "facts", "activities", "documents"}

// columns lists a table's columns.
func columns(ctx context.Context, db *sql.DB, table string) ([]string, error) {
	rows, err := db.QueryContext(ctx, `SELECT column_name FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = ? ORDER BY ordinal_position`, table)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []string
	for rows.Next() {
		var c string
		if err := rows.Scan(&c); err != nil {
			return nil, err
		}
		out = append(out, c)
	}
	return out, rows.Err()
}

// mail is the address of the teacher of a copy.
func mail(n int) string { return fmt.Sprintf("t%d@load.example", n) }

// copies makes copies of a studio, row by row, from one number to another.
func copies(ctx context.Context, db *sql.DB, of string, from, to int) error {
	for n := from; n < to; n++ {
		id := studio.NewID()
		for _, table := range copied {
			list, err := columns(ctx, db, table)
			if err != nil {
				return err
			}
			values := make([]string, len(list))
			var args []any
			where := "studio_id"
			for i, c := range list {
				values[i] = c
				switch {
				case c == "studio_id", table == "studios" && c == "id":
					values[i] = "?"
					args = append(args, id)
				case table == "teachers" && c == "id":
					values[i] = "?"
					args = append(args, studio.NewID())
				case c == "email":
					values[i] = "?"
					args = append(args, mail(n))
				}
			}
			if table == "studios" {
				where = "id"
			}
			_, err = db.ExecContext(ctx, fmt.Sprintf("INSERT INTO %s (%s) SELECT %s FROM %s WHERE %s = ?", table, strings.Join(list, ", "), strings.Join(values, ", "), table, where), append(args, of)...)
			if err != nil {
				return fmt.Errorf("copy %s: %w", table, err)
			}
		}
	}
	return nil
}

// setClocks has every studio stand at a moment, told nothing yet today.
func setClocks(ctx context.Context, db *sql.DB, at time.Time) error {
	if _, err := db.ExecContext(ctx, `UPDATE studios SET clock_shift = ?`, int64(time.Until(at).Seconds())); err != nil {
		return err
	}
	_, err := db.ExecContext(ctx, `DELETE FROM told`) // what was lived was lived today
	return err
}

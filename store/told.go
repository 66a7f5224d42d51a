package store

import (
	"context"
	"database/sql"
	"errors"
	"strings"

	"patientladder/core/fact"
)

// ErrTooMany is more facts in a day than are taken.
var ErrTooMany = errors.New("too many facts in a day")

// Limits are how many facts are taken in a day (UTC): of a family, of a student by anybody, of a studio.
type Limits struct{ Family, Student, Studio int }

// within counts facts among those that came in today, and refuses what is too many.
func (s Studio) within(ctx context.Context, tx *sql.Tx, facts []fact.Fact, most Limits) error {
	if len(facts) == 0 {
		return nil
	}
	n, family := map[string]int{"": len(facts)}, map[string]int{} // the empty student is the studio
	order := []string{""}
	for _, f := range facts {
		if n[f.Student] == 0 {
			order = append(order, f.Student)
		}
		n[f.Student]++
		if f.By == fact.Family {
			family[f.Student]++
		}
	}
	var args []any
	for _, id := range order {
		args = append(args, s.id, id, family[id], n[id])
	}
	rows, err := tx.QueryContext(ctx, `INSERT INTO told (studio_id, day, student_id, family, n) VALUES (?, UTC_DATE(), ?, ?, ?)`+strings.Repeat(", (?, UTC_DATE(), ?, ?, ?)", len(order)-1)+
		` ON DUPLICATE KEY UPDATE family = family + VALUES(family), n = n + VALUES(n) RETURNING student_id, family, n`, args...)
	if err != nil {
		return err
	}
	defer rows.Close()
	tooMany := false
	for rows.Next() {
		var id string
		var atHome, all int
		if err := rows.Scan(&id, &atHome, &all); err != nil {
			return err
		}
		tooMany = tooMany || id == "" && all > most.Studio || id != "" && (all > most.Student || family[id] > 0 && atHome > most.Family)
	}
	if err := rows.Err(); err != nil || !tooMany {
		return err
	}
	return ErrTooMany
}

// ForgetTold lets counts of days before go.
func (s *Store) ForgetTold(ctx context.Context) error {
	_, err := s.db.ExecContext(ctx, `DELETE FROM told WHERE day < UTC_DATE()`)
	return classify(err)
}

package store

import (
	"context"
	"database/sql"

	"patientladder/core/activity"
	"patientladder/core/fact"
)

// Activities returns the studio's own activities by title.
func (s Studio) Activities(ctx context.Context) ([]activity.Activity, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT detail FROM activities WHERE studio_id = ? ORDER BY JSON_VALUE(detail, '$.title'), id`, s.id)
	return collect(rows, err, scanDetail[activity.Activity])
}

// SetActivity keeps an activity of the studio's own.
func (s Studio) SetActivity(ctx context.Context, a activity.Activity) error {
	return s.edit(ctx, func(tx *sql.Tx) error { return s.setDetail(ctx, tx, "activities", a.ID, a) })
}

// DropActivity takes an activity of the studio's own away; one that is gone
// already is no error.
func (s Studio) DropActivity(ctx context.Context, id string) error {
	return s.edit(ctx, func(tx *sql.Tx) error {
		_, err := tx.ExecContext(ctx, `DELETE FROM activities WHERE studio_id = ? AND id = ?`, s.id, id)
		return err
	})
}

// FactsOf returns the facts of some kinds of all students, by student, time and
// id. Facts that took others back come along, of whatever kind those were.
func (s Studio) FactsOf(ctx context.Context, kinds ...fact.Body) ([]fact.Fact, error) {
	among, args := ofKinds(kinds)
	rows, err := s.db.QueryContext(ctx, `SELECT `+factColumns+` FROM facts WHERE studio_id = ? AND kind IN `+among+` ORDER BY student_id, at, id`, append([]any{s.id}, args...)...)
	return collect(rows, err, scanFact)
}

package store

import (
	"context"
	"database/sql"

	"patientladder/core/fact"
	"patientladder/core/programme"
)

// Events returns the days on which students play before others, the last first.
func (s Studio) Events(ctx context.Context) ([]programme.Event, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT detail FROM events WHERE studio_id = ? ORDER BY JSON_VALUE(detail, '$.day') DESC, id`, s.id)
	return collect(rows, err, scanDetail[programme.Event])
}

// SetEvent keeps such a day, and the facts that follow from it: all or none.
func (s Studio) SetEvent(ctx context.Context, e programme.Event, facts []fact.Fact) error {
	return s.edit(ctx, func(tx *sql.Tx) error {
		if err := s.setEvent(ctx, tx, e); err != nil {
			return err
		}
		return s.addFacts(ctx, tx, facts)
	})
}

func (s Studio) setEvent(ctx context.Context, tx *sql.Tx, e programme.Event) error {
	return s.setDetail(ctx, tx, "events", e.ID, e)
}

// DropEvent takes such a day away, with the facts that follow; one that is gone already is no error.
func (s Studio) DropEvent(ctx context.Context, id string, facts []fact.Fact) error {
	return s.edit(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `DELETE FROM events WHERE studio_id = ? AND id = ?`, s.id, id); err != nil {
			return err
		}
		return s.addFacts(ctx, tx, facts)
	})
}

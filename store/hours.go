package store

import (
	"context"
	"database/sql"

	"patientladder/core/gather"
)

// Hours returns the hours that several students share, the last first.
func (s Studio) Hours(ctx context.Context) ([]gather.Hour, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT detail FROM hours WHERE studio_id = ? ORDER BY JSON_VALUE(detail, '$.day') DESC, id`, s.id)
	return collect(rows, err, scanDetail[gather.Hour])
}

// SetHour keeps such an hour.
func (s Studio) SetHour(ctx context.Context, h gather.Hour) error {
	return s.edit(ctx, func(tx *sql.Tx) error { return s.setHour(ctx, tx, h) })
}

func (s Studio) setHour(ctx context.Context, tx *sql.Tx, h gather.Hour) error {
	return s.setDetail(ctx, tx, "hours", h.ID, h)
}

// DropHour takes such an hour away; one that is gone already is no error.
func (s Studio) DropHour(ctx context.Context, id string) error {
	return s.edit(ctx, func(tx *sql.Tx) error {
		_, err := tx.ExecContext(ctx, `DELETE FROM hours WHERE studio_id = ? AND id = ?`, s.id, id)
		return err
	})
}

package store

import (
	"context"
	"database/sql"
	"encoding/json"

	"patientladder/core/calendar"
)

// SetCalendar keeps the studio's terms and free spans.
func (s Studio) SetCalendar(ctx context.Context, c calendar.Calendar) error {
	data, err := json.Marshal(c)
	if err != nil {
		return err
	}
	return s.put(ctx, `UPDATE studios SET calendar = ? WHERE id = ?`, data, s.id)
}

// SetSlot keeps a student's weekly lesson.
func (s Studio) SetSlot(ctx context.Context, student string, slot calendar.Slot) error {
	data, err := json.Marshal(slot)
	if err != nil {
		return err
	}
	return s.put(ctx, `UPDATE students SET slot = ? WHERE studio_id = ? AND id = ?`, data, s.id, student)
}

// SetFeed keeps the hash of the token that opens the studio's calendar feed, and
// ends the one before.
func (s Studio) SetFeed(ctx context.Context, token string) error {
	return s.inTx(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `DELETE FROM calendar_feeds WHERE studio_id = ?`, s.id); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO calendar_feeds (token, studio_id) VALUES (?, ?)`, hashed(token), s.id)
		return err
	})
}

// Feed finds the studio whose calendar a token opens.
func (s *Store) Feed(ctx context.Context, token string) (studio string, err error) {
	err = s.db.QueryRowContext(ctx, `SELECT studio_id FROM calendar_feeds WHERE token = ?`, hashed(token)).Scan(&studio)
	return studio, classify(err)
}

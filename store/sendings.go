package store

import (
	"context"
	"errors"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/document"
)

// States of a sending. One that failed may be tried again; one that was refused or
// bounced needs another address.
const (
	Sending = "sending"
	Sent    = "sent"
	Failed  = "failed"
	Refused = "refused"
	Bounced = "bounced"
)

// A Mailing is a document on its way to a family.
type Mailing struct {
	ID      string
	Student string
	Kind    document.Kind
	Day     calendar.Date // of the document
	Address string
	State   string
	Says    string // why it was not delivered
	At      time.Time
}

// AddMailing keeps that a sheet is being sent. False when this studio sends it already under its id: then it
// is on its way or was. ErrTaken when the id is another's.
func (s Studio) AddMailing(ctx context.Context, m Mailing) (bool, error) {
	_, err := s.db.ExecContext(ctx, `INSERT INTO sendings (id, studio_id, student_id, kind, day, address, state, at) VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
		m.ID, s.id, m.Student, string(m.Kind), string(m.Day), m.Address, Sending, m.At.UTC())
	if err = classify(err); !errors.Is(err, ErrTaken) {
		return err == nil, err
	}
	var n int
	if err := s.db.QueryRowContext(ctx, `SELECT COUNT(*) FROM sendings WHERE id = ? AND studio_id = ?`, m.ID, s.id).Scan(&n); err != nil {
		return false, classify(err)
	}
	if n == 0 {
		return false, err
	}
	return false, nil
}

// EndMailing keeps what became of a sheet that was being sent; a report that came
// before stands.
func (s Studio) EndMailing(ctx context.Context, id, state, says string) error {
	_, err := s.db.ExecContext(ctx, `UPDATE sendings SET state = ?, says = LEFT(?, 300) WHERE studio_id = ? AND id = ? AND state = ?`, state, says, s.id, id, Sending)
	return classify(err)
}

// Return keeps that a letter came back, whichever studio sent it. One that nobody
// sent changes nothing.
func (s *Store) Return(ctx context.Context, id, says string) error {
	_, err := s.db.ExecContext(ctx, `UPDATE sendings SET state = ?, says = LEFT(?, 300) WHERE id = ?`, Bounced, says, id)
	return classify(err)
}

// Mailings returns the studio's letters of a kind of document from a day on, the newest first.
func (s Studio) Mailings(ctx context.Context, kind document.Kind, from calendar.Date) ([]Mailing, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT id, student_id, kind, day, address, state, says, at FROM sendings WHERE studio_id = ? AND kind = ? AND day >= ? ORDER BY at DESC, id DESC`, s.id, string(kind), string(from))
	return collect(rows, err, func(row interface{ Scan(...any) error }) (Mailing, error) {
		var m Mailing
		var day time.Time
		err := row.Scan(&m.ID, &m.Student, &m.Kind, &day, &m.Address, &m.State, &m.Says, &m.At)
		m.Day = calendar.On(day)
		return m, err
	})
}

// SetContact keeps the address that a student's sheets go to.
func (s Studio) SetContact(ctx context.Context, student, address string) error {
	return changed(s.db.ExecContext(ctx, `UPDATE students SET contact = ? WHERE studio_id = ? AND id = ?`, address, s.id, student))
}

// SentIDs lists the ids of all letters that the studio has sent.
func (s Studio) SentIDs(ctx context.Context) ([]string, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT id FROM sendings WHERE studio_id = ?`, s.id)
	return collect(rows, err, func(row interface{ Scan(...any) error }) (id string, err error) {
		return id, row.Scan(&id)
	})
}

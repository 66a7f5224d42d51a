package store

import (
	"context"
	"database/sql"
	"errors"
	"strings"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/document"
)

// States of a sending. One that waits may be undone until it is due. One that failed may be
// tried again; one that was refused or bounced needs another address.
const (
	Waiting = "waiting"
	Undone  = "undone"
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
	Paper   string
	Teacher string // who sends it
	State   string
	Says    string // why it was not delivered
	At      time.Time
	Due     time.Time // when it goes out, by the machine's clock
}

// AddMailing keeps that a letter waits to be sent when it is due. False when this studio sends it already under
// its id. ErrTaken when the id is another's.
func (s Studio) AddMailing(ctx context.Context, m Mailing) (bool, error) {
	_, err := s.db.ExecContext(ctx, `INSERT INTO sendings (id, studio_id, student_id, kind, day, address, state, at, teacher_id, paper, due) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
		m.ID, s.id, m.Student, string(m.Kind), string(m.Day), m.Address, Waiting, m.At.UTC(), m.Teacher, m.Paper, m.Due.UTC())
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

// EndMailing keeps what became of a letter that was being sent; a report that came
// before stands.
func (s Studio) EndMailing(ctx context.Context, id, state, says string) error {
	_, err := s.db.ExecContext(ctx, `UPDATE sendings SET state = ?, says = LEFT(?, 300), due = NULL WHERE studio_id = ? AND id = ? AND state = ?`, state, says, s.id, id, Sending)
	return classify(err)
}

// UndoMailing takes back a letter that still waits; false where it does not.
func (s Studio) UndoMailing(ctx context.Context, id string) (bool, error) {
	return one(s.db.ExecContext(ctx, `UPDATE sendings SET state = ?, due = NULL WHERE studio_id = ? AND id = ? AND state = ?`, Undone, s.id, id, Waiting))
}

// one reports whether a statement changed a row.
func one(res sql.Result, err error) (bool, error) {
	if err != nil {
		return false, classify(err)
	}
	n, err := res.RowsAffected()
	return n > 0, classify(err)
}

// A DueMailing is a letter of some studio that is due.
type DueMailing struct {
	Mailing
	Studio string
	Tries  int // begun before
}

// DueMailings lists the letters of all studios that are due at a moment, the first due first: those that waited,
// and those whose sender has stopped in the middle.
func (s *Store) DueMailings(ctx context.Context, now time.Time) ([]DueMailing, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT id, studio_id, student_id, kind, day, address, paper, teacher_id, state, at, due, tries FROM sendings WHERE due <= ? ORDER BY due, id LIMIT 100`, now.UTC())
	return collect(rows, err, func(row interface{ Scan(...any) error }) (DueMailing, error) {
		var m DueMailing
		var day time.Time
		err := row.Scan(&m.ID, &m.Studio, &m.Student, &m.Kind, &day, &m.Address, &m.Paper, &m.Teacher, &m.State, &m.At, &m.Due, &m.Tries)
		m.Day = calendar.On(day)
		return m, err
	})
}

// TakeMailing takes a due letter to be sent by whoever asks first, until a moment; past that another may take it.
// False where somebody else has it.
func (s *Store) TakeMailing(ctx context.Context, m DueMailing, until time.Time) (bool, error) {
	return one(s.db.ExecContext(ctx, `UPDATE sendings SET state = ?, due = ?, tries = tries + 1 WHERE id = ? AND state = ? AND due = ?`, Sending, until.UTC(), m.ID, m.State, m.Due.UTC()))
}

// Return keeps that a letter came back, whichever studio sent it. One that nobody
// sent changes nothing.
func (s *Store) Return(ctx context.Context, id, says string) error {
	_, err := s.db.ExecContext(ctx, `UPDATE sendings SET state = ?, says = LEFT(?, 300), due = NULL WHERE id = ?`, Bounced, says, id)
	return classify(err)
}

// mailing names the columns that readMailing reads.
const mailing = `id, student_id, kind, day, address, paper, state, says, at`

func readMailing(row interface{ Scan(...any) error }) (Mailing, error) {
	var m Mailing
	var day time.Time
	err := row.Scan(&m.ID, &m.Student, &m.Kind, &day, &m.Address, &m.Paper, &m.State, &m.Says, &m.At)
	m.Day = calendar.On(day)
	return m, err
}

// Mailings returns the studio's letters of a kind of document from a day on, the newest first.
func (s Studio) Mailings(ctx context.Context, kind document.Kind, from calendar.Date) ([]Mailing, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT `+mailing+` FROM sendings WHERE studio_id = ? AND kind = ? AND day >= ? ORDER BY at DESC, id DESC`, s.id, string(kind), string(from))
	return collect(rows, err, readMailing)
}

// MailingsNamed returns the letters of a sending, one to each address, by the id that it was begun with.
func (s Studio) MailingsNamed(ctx context.Context, ids []string) ([]Mailing, error) {
	args := []any{s.id}
	for _, id := range ids {
		args = append(args, id)
	}
	rows, err := s.db.QueryContext(ctx, `SELECT `+mailing+` FROM sendings WHERE studio_id = ? AND id IN (?`+strings.Repeat(", ?", len(ids)-1)+`)`, args...)
	return collect(rows, err, readMailing)
}

// SetContact keeps the address that a student's sheets go to, and the language that is read there.
func (s Studio) SetContact(ctx context.Context, student, address, language string) error {
	return s.put(ctx, `UPDATE students SET contact = ?, language = ? WHERE studio_id = ? AND id = ?`, address, language, s.id, student)
}

// SentIDs lists the ids of all letters that the studio has sent.
func (s Studio) SentIDs(ctx context.Context) ([]string, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT id FROM sendings WHERE studio_id = ?`, s.id)
	return collect(rows, err, func(row interface{ Scan(...any) error }) (id string, err error) {
		return id, row.Scan(&id)
	})
}

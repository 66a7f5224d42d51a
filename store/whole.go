package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"

	"patientladder/core/activity"
	"patientladder/core/fact"
	"patientladder/core/gather"
	"patientladder/core/programme"
)

// A Whole is all that a studio has beside its accounts.
type Whole struct {
	Row        StudioRow
	Items      []NewItem
	Activities []activity.Activity
	Events     []programme.Event
	Hours      []gather.Hour
	Students   []WholeStudent
}

// A WholeStudent is all that is kept of a student.
type WholeStudent struct {
	Student
	Facts     []fact.Fact
	Documents []KeptDocument
}

// factsAtOnce is how many one statement takes.
const factsAtOnce = 500

// AddWhole brings a studio's content into this one, all or none. ErrNotEmpty where there are
// students or items already.
func (s Studio) AddWhole(ctx context.Context, w Whole) error {
	cal, err1 := json.Marshal(w.Row.Calendar)
	home, err2 := json.Marshal(w.Row.Home)
	words, err3 := json.Marshal(w.Row.Words)
	titles, err4 := json.Marshal(w.Row.Titles)
	instruments, err5 := json.Marshal(w.Row.Instruments)
	skills, err6 := json.Marshal(w.Row.Skills)
	if err := errors.Join(err1, err2, err3, err4, err5, err6); err != nil {
		return err
	}
	return s.inTx(ctx, func(tx *sql.Tx) error {
		var n int
		err := tx.QueryRowContext(ctx, `SELECT (SELECT COUNT(*) FROM students WHERE studio_id = ?) + (SELECT COUNT(*) FROM items WHERE studio_id = ?)`, s.id, s.id).Scan(&n)
		if err != nil {
			return err
		}
		if n > 0 {
			return ErrNotEmpty
		}
		if _, err := tx.ExecContext(ctx, `UPDATE studios SET name = ?, zone = ?, language = COALESCE(NULLIF(?, ''), language), calendar = ?, home = ?, rhythm_words = ?, book_titles = ?, instruments = ?, skills = ? WHERE id = ?`,
			w.Row.Name, w.Row.Zone, w.Row.Language, cal, home, words, titles, instruments, skills, s.id); err != nil {
			return err
		}
		if err := errors.Join(s.shelfChanged(ctx, tx), s.addItems(ctx, tx, w.Items)); err != nil {
			return err
		}
		for _, a := range w.Activities {
			detail, err := json.Marshal(a)
			if err != nil {
				return err
			}
			if _, err := tx.ExecContext(ctx, `INSERT INTO activities (studio_id, id, detail) VALUES (?, ?, ?)`, s.id, a.ID, detail); err != nil {
				return err
			}
		}
		for _, e := range w.Events {
			if err := s.setEvent(ctx, tx, e); err != nil {
				return err
			}
		}
		for _, h := range w.Hours {
			if err := s.setHour(ctx, tx, h); err != nil {
				return err
			}
		}
		for _, st := range w.Students {
			if err := s.addStudent(ctx, tx, st.Student); err != nil {
				return err
			}
			for facts := st.Facts; len(facts) > 0; facts = facts[min(factsAtOnce, len(facts)):] {
				if err := s.addFacts(ctx, tx, facts[:min(factsAtOnce, len(facts))]); err != nil {
					return err
				}
			}
			if err := s.addDocuments(ctx, tx, st.Documents); err != nil {
				return err
			}
		}
		return nil
	})
}

// content are the tables that a studio's content is in, what refers to others first.
var content = []string{"sendings", "family_links", "documents", "facts", "students", "readings", "scores", "items", "activities", "events", "hours", "told"}

// Empty deletes all that a studio has beside its name, its calendar and its accounts.
func (s Studio) Empty(ctx context.Context) error {
	err := s.inTx(ctx, func(tx *sql.Tx) error {
		if err := s.empty(ctx, tx); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `UPDATE studios SET book_titles = '{}', instruments = '[]', skills = '[]' WHERE id = ?`, s.id); err != nil {
			return err
		}
		return s.shelfChanged(ctx, tx)
	})
	s.known.forget(s.id)
	return err
}

func (s Studio) empty(ctx context.Context, tx *sql.Tx) error {
	for _, table := range content {
		if _, err := tx.ExecContext(ctx, `DELETE FROM `+table+` WHERE studio_id = ?`, s.id); err != nil {
			return err
		}
	}
	return nil
}

// Delete deletes the studio with its accounts and everything in it.
func (s Studio) Delete(ctx context.Context) error {
	err := s.inTx(ctx, func(tx *sql.Tx) error {
		if err := s.empty(ctx, tx); err != nil {
			return err
		}
		for _, statement := range []string{
			`DELETE d FROM devices d JOIN teachers t ON t.id = d.teacher_id WHERE t.studio_id = ?`,
			`DELETE r FROM resets r JOIN teachers t ON t.id = r.teacher_id WHERE t.studio_id = ?`,
			`DELETE FROM teachers WHERE studio_id = ?`,
			`DELETE FROM erasures WHERE studio_id = ?`,
			`DELETE FROM calendar_feeds WHERE studio_id = ?`,
			`DELETE FROM studios WHERE id = ?`,
		} {
			if _, err := tx.ExecContext(ctx, statement, s.id); err != nil {
				return err
			}
		}
		return nil
	})
	s.known.forget(s.id)
	return err
}

package store

import (
	"cmp"
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/instrument"
	"patientladder/core/reading"
	"patientladder/core/shelf"
	"patientladder/core/skill"
)

// A StudioRow is one teacher's practice.
type StudioRow struct {
	ID         string
	Name       string
	Zone       string // IANA name
	Language   string // as BCP 47 names it
	Calendar   calendar.Calendar
	Demo       bool
	ClockShift time.Duration
	Home       shelf.Home    // the instrument taught on
	Words      reading.Words // for rhythms; empty for those that the program brings
	Titles     shelf.Titles  // of books that were renamed

	Instruments []instrument.Profile // of its own
	Skills      []skill.Skill        // of its own

	ShelfVersion int64 // of its items
	Edits        int64 // how often it was changed beside facts
}

// A Teacher may sign in to a studio.
type Teacher struct {
	ID       string
	Studio   string
	Email    string
	Name     string
	Password string // encoded argon2id
}

// A SignUp is a studio and its teacher as somebody wants them.
type SignUp struct {
	Name, Email, Password string // of the teacher; the password encoded
	Studio, Zone          string
	Language              string // empty for the base
	Calendar              calendar.Calendar
	Demo                  bool
	Shift                 time.Duration
	Invitation            string
}

// AddSignUp keeps what is made when a token comes back; of the token only the hash. Those of yesterday are
// forgotten.
func (s *Store) AddSignUp(ctx context.Context, token string, in SignUp) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM sign_ups WHERE made < NOW(6) - INTERVAL 1 DAY`); err != nil {
		return classify(err)
	}
	detail, err := json.Marshal(in)
	if err != nil {
		return err
	}
	_, err = s.db.ExecContext(ctx, `INSERT INTO sign_ups (token, detail) VALUES (?, ?)`, hashed(token), detail)
	return classify(err)
}

// TakeSignUp returns what a token of the last while was kept for, once. ErrNotFound for another token.
func (s *Store) TakeSignUp(ctx context.Context, token string, while time.Duration) (in SignUp, err error) {
	var detail []byte
	err = s.db.QueryRowContext(ctx, `DELETE FROM sign_ups WHERE token = ? AND made > NOW(6) - INTERVAL ? SECOND RETURNING detail`, hashed(token), int(while.Seconds())).Scan(&detail)
	if err != nil {
		return in, classify(err)
	}
	return in, json.Unmarshal(detail, &in)
}

// AddStudio saves a studio and its teacher, and uses up their invitation where there is one. ErrTaken when
// the email address has an account, ErrNotFound when the invitation holds no more.
func (s *Store) AddStudio(ctx context.Context, st StudioRow, t Teacher, invitation string) error {
	cal, err := json.Marshal(st.Calendar)
	if err != nil {
		return err
	}
	return s.inTx(ctx, func(tx *sql.Tx) error {
		if invitation != "" {
			res, err := tx.ExecContext(ctx, `DELETE FROM invitations WHERE token = ? AND at > NOW(6) - INTERVAL 30 DAY`, hashed(invitation))
			if err != nil {
				return err
			}
			if n, err := res.RowsAffected(); err != nil || n == 0 {
				return errors.Join(err, ErrNotFound)
			}
		}
		if _, err := tx.ExecContext(ctx, `INSERT INTO studios (id, name, zone, language, calendar, demo, clock_shift) VALUES (?, ?, ?, ?, ?, ?, ?)`,
			st.ID, st.Name, st.Zone, cmp.Or(st.Language, "en-GB"), cal, st.Demo, int64(st.ClockShift/time.Second)); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO teachers (id, studio_id, email, name, password) VALUES (?, ?, ?, ?, ?)`,
			t.ID, st.ID, t.Email, t.Name, t.Password)
		return err
	})
}

// TeacherByEmail finds who signs in.
func (s *Store) TeacherByEmail(ctx context.Context, email string) (Teacher, error) {
	var t Teacher
	err := s.db.QueryRowContext(ctx, `SELECT id, studio_id, email, name, password FROM teachers WHERE email = ?`, email).
		Scan(&t.ID, &t.Studio, &t.Email, &t.Name, &t.Password)
	return t, classify(err)
}

// TeacherName returns a teacher's name.
func (s *Store) TeacherName(ctx context.Context, id string) (string, error) {
	var name string
	err := s.db.QueryRowContext(ctx, `SELECT name FROM teachers WHERE id = ?`, id).Scan(&name)
	return name, classify(err)
}

// ReserveSignIn counts one more failure of a name (a mail or network address), and returns it, how many
// there were before in a window of time up to now, and how long ago the last of those was. Those of yesterday
// are forgotten.
func (s *Store) ReserveSignIn(ctx context.Context, who string, window time.Duration, now time.Time) (id int64, before int, last time.Duration, err error) {
	now = now.UTC().Truncate(time.Microsecond)
	if _, err := s.db.ExecContext(ctx, `DELETE FROM sign_ins WHERE at < ?`, now.Add(-24*time.Hour)); err != nil {
		return 0, 0, 0, classify(err)
	}
	res, err := s.db.ExecContext(ctx, `INSERT INTO sign_ins (who, at) VALUES (?, ?)`, hashed(who), now)
	if err != nil {
		return 0, 0, 0, classify(err)
	}
	if id, err = res.LastInsertId(); err != nil {
		return 0, 0, 0, err
	}
	var latest sql.NullTime
	err = s.db.QueryRowContext(ctx, `SELECT COUNT(*), MAX(at) FROM sign_ins WHERE who = ? AND id < ? AND at > ?`, hashed(who), id, now.Add(-window)).Scan(&before, &latest)
	if latest.Valid {
		last = now.Sub(latest.Time)
	}
	return id, before, last, classify(err)
}

// RefundSignIns takes failures back that were none.
func (s *Store) RefundSignIns(ctx context.Context, ids []int64) error {
	for _, id := range ids {
		if _, err := s.db.ExecContext(ctx, `DELETE FROM sign_ins WHERE id = ?`, id); err != nil {
			return classify(err)
		}
	}
	return nil
}

// AddInvitation keeps an invitation.
func (s *Store) AddInvitation(ctx context.Context, token string) error {
	_, err := s.db.ExecContext(ctx, `INSERT INTO invitations (token) VALUES (?)`, hashed(token))
	return classify(err)
}

// hashed is what is kept of a token or a name that nobody needs to read again.
func hashed(s string) []byte {
	sum := sha256.Sum256([]byte(s))
	return sum[:]
}

// A Studio is the store as one studio sees it.
type Studio struct {
	*Store
	id    string
	edits *int64 // of the row that was read; nil for however it is
}

// In returns the store of one studio.
func (s *Store) In(studio string) Studio { return Studio{Store: s, id: studio} }

// Row returns the studio itself.
func (s Studio) Row(ctx context.Context) (StudioRow, error) {
	var r StudioRow
	var cal, home, words, titles, instruments, skills []byte
	var shift int64
	err := s.db.QueryRowContext(ctx, `SELECT id, name, zone, language, calendar, demo, clock_shift, home, rhythm_words, book_titles, instruments, skills, shelf_version, edits FROM studios WHERE id = ?`, s.id).
		Scan(&r.ID, &r.Name, &r.Zone, &r.Language, &cal, &r.Demo, &shift, &home, &words, &titles, &instruments, &skills, &r.ShelfVersion, &r.Edits)
	if err != nil {
		return r, classify(err)
	}
	r.ClockShift = time.Duration(shift) * time.Second
	return r, errors.Join(json.Unmarshal(cal, &r.Calendar), json.Unmarshal(home, &r.Home), json.Unmarshal(words, &r.Words), json.Unmarshal(titles, &r.Titles),
		json.Unmarshal(instruments, &r.Instruments), json.Unmarshal(skills, &r.Skills))
}

// SetClock moves a demo studio's clock; ErrNotFound for any other studio.
func (s Studio) SetClock(ctx context.Context, shift time.Duration) error {
	return s.one(s.db.ExecContext(ctx, `UPDATE studios SET clock_shift = ? WHERE id = ? AND demo`, int64(shift/time.Second), s.id))
}

// SetEmail changes the email address with which a teacher of this studio signs
// in. ErrTaken when another account has it.
func (s Studio) SetEmail(ctx context.Context, teacher, email string) error {
	return s.one(s.db.ExecContext(ctx, `UPDATE teachers SET email = ? WHERE studio_id = ? AND id = ?`, email, s.id, teacher))
}

// one checks that a statement found its row.
func (s Studio) one(res sql.Result, err error) error {
	if err != nil {
		return classify(err)
	}
	if n, err := res.RowsAffected(); err != nil {
		return err
	} else if n == 0 {
		return fmt.Errorf("%w in this studio", ErrNotFound)
	}
	return nil
}

package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"time"
)

// A Device is a sign-in that still holds or held.
type Device struct {
	ID    string
	Agent string // what the browser calls itself
	Made  time.Time
	Seen  time.Time
	Ended bool
}

// AddDevice keeps that a teacher signed in.
func (s *Store) AddDevice(ctx context.Context, teacher, id, agent string) error {
	_, err := s.db.ExecContext(ctx, `INSERT INTO devices (id, teacher_id, agent) VALUES (?, ?, LEFT(?, 200))`, id, teacher, agent)
	return classify(err)
}

// SeeDevice reports whether a sign-in of a teacher still holds, which it does not when it was not seen for a
// week, and keeps when it was seen, to ten minutes. It returns the language of the teacher's studio.
func (s *Store) SeeDevice(ctx context.Context, teacher, id string) (holds bool, language string, err error) {
	var stale bool
	err = s.db.QueryRowContext(ctx, `SELECT d.seen < NOW(6) - INTERVAL 10 MINUTE, s.language FROM devices d JOIN teachers t ON t.id = d.teacher_id JOIN studios s ON s.id = t.studio_id
		WHERE d.id = ? AND d.teacher_id = ? AND NOT d.ended AND d.seen > NOW(6) - INTERVAL 7 DAY`, id, teacher).Scan(&stale, &language)
	if errors.Is(err, sql.ErrNoRows) {
		return false, "", nil
	}
	if err == nil && stale {
		_, err = s.db.ExecContext(ctx, `UPDATE devices SET seen = NOW(6) WHERE id = ?`, id)
	}
	return err == nil, language, classify(err)
}

// mostDevices is how many sign-ins are listed.
const mostDevices = 30

// Devices lists a teacher's sign-ins, the newest first.
func (s *Store) Devices(ctx context.Context, teacher string) ([]Device, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT id, agent, made, seen, ended FROM devices WHERE teacher_id = ? ORDER BY made DESC, id DESC LIMIT ?`, teacher, mostDevices)
	return collect(rows, err, func(row interface{ Scan(...any) error }) (d Device, err error) {
		return d, row.Scan(&d.ID, &d.Agent, &d.Made, &d.Seen, &d.Ended)
	})
}

// EndDevice ends a teacher's sign-in; none is no error.
func (s *Store) EndDevice(ctx context.Context, teacher, id string) error {
	_, err := s.db.ExecContext(ctx, `UPDATE devices SET ended = TRUE WHERE teacher_id = ? AND id = ?`, teacher, id)
	return classify(err)
}

// EndOtherDevices ends a teacher's sign-ins but one; all for the empty id.
func (s *Store) EndOtherDevices(ctx context.Context, teacher, but string) error {
	_, err := s.db.ExecContext(ctx, `UPDATE devices SET ended = TRUE WHERE teacher_id = ? AND id <> ?`, teacher, but)
	return classify(err)
}

// AddReset keeps a token that lets a teacher set another password; of it only the hash.
// Those of the same teacher before it end.
func (s *Store) AddReset(ctx context.Context, teacher, token string) error {
	return s.inTx(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `DELETE FROM resets WHERE teacher_id = ?`, teacher); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO resets (token, teacher_id) VALUES (?, ?)`, hashed(token), teacher)
		return err
	})
}

// Reset sets the password of whom a token of the last while is for, ends the token and all
// sign-ins. It returns whose it was; ErrNotFound for another token.
func (s *Store) Reset(ctx context.Context, token, password string, while time.Duration) (teacher string, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		err := tx.QueryRowContext(ctx, `SELECT teacher_id FROM resets WHERE token = ? AND made > NOW(6) - INTERVAL ? SECOND FOR UPDATE`, hashed(token), int(while.Seconds())).Scan(&teacher)
		if err != nil {
			return err
		}
		for _, change := range []string{`DELETE FROM resets WHERE teacher_id = ?`, `UPDATE devices SET ended = TRUE WHERE teacher_id = ?`} {
			if _, err := tx.ExecContext(ctx, change, teacher); err != nil {
				return err
			}
		}
		return changed(tx.ExecContext(ctx, `UPDATE teachers SET password = ? WHERE id = ?`, password, teacher))
	})
	return teacher, err
}

// Factors are what a teacher signs in with beside a password.
type Factors struct {
	AppSecret string            // of the app that shows codes; empty for none
	AppStep   int64             // of the last code that was taken
	Recovery  []string          // hashes of the codes that are left
	Passkeys  []json.RawMessage // as the program keeps them
}

// ChangeFactors changes a teacher's, one change after another.
func (s *Store) ChangeFactors(ctx context.Context, teacher string, change func(*Factors) error) error {
	return s.inTx(ctx, func(tx *sql.Tx) error {
		f, err := scanFactors(tx.QueryRowContext(ctx, `SELECT app_secret, app_step, recovery, passkeys FROM teachers WHERE id = ? FOR UPDATE`, teacher))
		if err != nil {
			return err
		}
		if err := change(&f); err != nil {
			return err
		}
		recovery, err := json.Marshal(f.Recovery)
		if err != nil {
			return err
		}
		passkeys, err := json.Marshal(f.Passkeys)
		if err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `UPDATE teachers SET app_secret = ?, app_step = ?, recovery = ?, passkeys = ? WHERE id = ?`, f.AppSecret, f.AppStep, recovery, passkeys, teacher)
		return err
	})
}

// FactorsOf returns a teacher's.
func (s *Store) FactorsOf(ctx context.Context, teacher string) (Factors, error) {
	f, err := scanFactors(s.db.QueryRowContext(ctx, `SELECT app_secret, app_step, recovery, passkeys FROM teachers WHERE id = ?`, teacher))
	return f, classify(err)
}

func scanFactors(row interface{ Scan(...any) error }) (Factors, error) {
	var f Factors
	var recovery, passkeys []byte
	if err := row.Scan(&f.AppSecret, &f.AppStep, &recovery, &passkeys); err != nil {
		return f, err
	}
	if err := json.Unmarshal(recovery, &f.Recovery); err != nil {
		return f, err
	}
	return f, json.Unmarshal(passkeys, &f.Passkeys)
}

// Teacher returns who has an id.
func (s *Store) Teacher(ctx context.Context, id string) (Teacher, error) {
	var t Teacher
	err := s.db.QueryRowContext(ctx, `SELECT id, studio_id, email, name, password FROM teachers WHERE id = ?`, id).Scan(&t.ID, &t.Studio, &t.Email, &t.Name, &t.Password)
	return t, classify(err)
}

// SetTeacher changes a teacher's name, email address and password. ErrTaken when another
// account has the address.
func (s *Store) SetTeacher(ctx context.Context, t Teacher) error {
	return changed(s.db.ExecContext(ctx, `UPDATE teachers SET name = ?, email = ?, password = ? WHERE id = ?`, t.Name, t.Email, t.Password, t.ID))
}

// SetNames changes a teacher's name, and what the studio is called and its zone.
func (s Studio) SetNames(ctx context.Context, teacher, name, called, zone, language string) error {
	return s.edit(ctx, func(tx *sql.Tx) error {
		if err := changed(tx.ExecContext(ctx, `UPDATE teachers SET name = ? WHERE studio_id = ? AND id = ?`, name, s.id, teacher)); err != nil {
			return err
		}
		return changed(tx.ExecContext(ctx, `UPDATE studios SET name = ?, zone = ?, language = ? WHERE id = ?`, called, zone, language, s.id))
	})
}

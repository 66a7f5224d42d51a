package store

import (
	"context"
	"time"

	"patientladder/core/calendar"
)

// A FamilyLink opens one student's week to whoever holds its token.
type FamilyLink struct {
	Studio  string
	Student string
	Own     bool // the student's own, not the family's
	LastDay calendar.Date
	Ended   bool // by the teacher, before its last day
}

// AddFamilyLink keeps a link of a student; of its token only the hash.
func (s Studio) AddFamilyLink(ctx context.Context, student, token string, own bool, lastDay calendar.Date) error {
	_, err := s.db.ExecContext(ctx, `INSERT INTO family_links (token, studio_id, student_id, own, last_day) VALUES (?, ?, ?, ?, ?)`, hashed(token), s.id, student, own, string(lastDay))
	return classify(err)
}

// FamilyLinks returns a student's links that were not ended.
func (s Studio) FamilyLinks(ctx context.Context, student string) ([]FamilyLink, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT studio_id, student_id, own, last_day, ended FROM family_links WHERE studio_id = ? AND student_id = ? AND NOT ended ORDER BY last_day`, s.id, student)
	return collect(rows, err, scanLink)
}

// EndFamilyLinks ends all links of a family, or a student's own; none is no error.
func (s Studio) EndFamilyLinks(ctx context.Context, student string, own bool) error {
	_, err := s.db.ExecContext(ctx, `UPDATE family_links SET ended = TRUE WHERE studio_id = ? AND student_id = ? AND own = ?`, s.id, student, own)
	return classify(err)
}

// FamilyLink finds the link of a token, also one that has ended.
func (s *Store) FamilyLink(ctx context.Context, token string) (FamilyLink, error) {
	l, err := scanLink(s.db.QueryRowContext(ctx, `SELECT studio_id, student_id, own, last_day, ended FROM family_links WHERE token = ?`, hashed(token)))
	return l, classify(err)
}

// OpenFamilyLink keeps that a link was opened on a day, as far as it was not known.
func (s *Store) OpenFamilyLink(ctx context.Context, token string, day calendar.Date) error {
	_, err := s.db.ExecContext(ctx, `UPDATE family_links SET opened = ? WHERE token = ? AND (opened IS NULL OR opened < ?)`, string(day), hashed(token), string(day))
	return classify(err)
}

// LastOpened returns the day on which a link of each student was opened last; students of
// whom none was are left out.
func (s Studio) LastOpened(ctx context.Context) (map[string]calendar.Date, error) {
	out := map[string]calendar.Date{}
	rows, err := s.db.QueryContext(ctx, `SELECT student_id, MAX(opened) FROM family_links WHERE studio_id = ? AND opened IS NOT NULL GROUP BY student_id`, s.id)
	_, err = collect(rows, err, func(row interface{ Scan(...any) error }) (none struct{}, err error) {
		var student string
		var day time.Time
		err = row.Scan(&student, &day)
		out[student] = calendar.On(day)
		return none, err
	})
	return out, err
}

func scanLink(row interface{ Scan(...any) error }) (FamilyLink, error) {
	var l FamilyLink
	var last time.Time
	err := row.Scan(&l.Studio, &l.Student, &l.Own, &last, &l.Ended)
	l.LastDay = calendar.On(last)
	return l, err
}

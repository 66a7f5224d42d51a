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

func scanLink(row interface{ Scan(...any) error }) (FamilyLink, error) {
	var l FamilyLink
	var last time.Time
	err := row.Scan(&l.Studio, &l.Student, &l.Own, &last, &l.Ended)
	l.LastDay = calendar.On(last)
	return l, err
}

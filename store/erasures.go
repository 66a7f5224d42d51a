package store

import (
	"context"
	"database/sql"
	"encoding/json"
)

// An Erased counts what was deleted with a student.
type Erased struct {
	Facts     int `json:"facts"`
	Documents int `json:"documents"`
	Links     int `json:"links"`
	Letters   int `json:"letters"`
}

// CountStudent counts what would be deleted with a student.
func (s Studio) CountStudent(ctx context.Context, student string) (Erased, error) {
	var e Erased
	err := s.db.QueryRowContext(ctx, `SELECT
		(SELECT COUNT(*) FROM facts WHERE studio_id = ? AND student_id = ?),
		(SELECT COUNT(*) FROM documents WHERE studio_id = ? AND student_id = ?),
		(SELECT COUNT(*) FROM family_links WHERE studio_id = ? AND student_id = ?),
		(SELECT COUNT(*) FROM sendings WHERE studio_id = ? AND student_id = ?)`,
		s.id, student, s.id, student, s.id, student, s.id, student).Scan(&e.Facts, &e.Documents, &e.Links, &e.Letters)
	return e, classify(err)
}

// EraseStudent deletes all that is kept of a student, all or none, and keeps a receipt
// of an id that says how much it was and of nobody. ErrNotFound where there is no such
// student.
func (s Studio) EraseStudent(ctx context.Context, student, receipt string) (Erased, error) {
	var e Erased
	err := s.inTx(ctx, func(tx *sql.Tx) error {
		e = Erased{}
		for _, from := range []struct {
			table string
			n     *int
		}{{"sendings", &e.Letters}, {"family_links", &e.Links}, {"documents", &e.Documents}, {"facts", &e.Facts}} {
			res, err := tx.ExecContext(ctx, `DELETE FROM `+from.table+` WHERE studio_id = ? AND student_id = ?`, s.id, student)
			if err != nil {
				return err
			}
			n, err := res.RowsAffected()
			if err != nil {
				return err
			}
			*from.n = int(n)
		}
		if _, err := tx.ExecContext(ctx, `UPDATE students s JOIN (SELECT MIN(id) AS next FROM students WHERE studio_id = ? AND person = ?) n SET s.person = IF(s.id = n.next, '', n.next)
			WHERE s.studio_id = ? AND s.person = ?`, s.id, student, s.id, student); err != nil {
			return err // the next instrument is the first now
		}
		if err := changed(tx.ExecContext(ctx, `DELETE FROM students WHERE studio_id = ? AND id = ?`, s.id, student)); err != nil {
			return err
		}
		deleted, err := json.Marshal(e)
		if err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO erasures (id, studio_id, deleted) VALUES (?, ?, ?)`, receipt, s.id, deleted)
		return err
	})
	s.known.forget(s.id)
	return e, err
}

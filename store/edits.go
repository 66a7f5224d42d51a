package store

import (
	"context"
	"database/sql"
	"errors"
)

// ErrStale is a change that was reckoned from what a studio no longer is.
var ErrStale = errors.New("the studio was changed since it was read")

// At returns the studio as its row told it: what it changes beside facts is kept only if nothing
// of the studio but facts was changed since, and is ErrStale otherwise. All that is read of the
// studio after its row is then as it was when the change is kept. What the same Studio changes
// next goes by its own change.
func (s Studio) At(row StudioRow) Studio {
	s.edits = &row.Edits
	return s
}

// edit changes what a studio holds beside facts, in a transaction. The studio's count comes
// first: who changes the same studio waits there, where neither holds yet what the other wants,
// and the nodes of a cluster see there that two changed it at once.
func (s Studio) edit(ctx context.Context, change func(*sql.Tx) error) error {
	err := s.inTx(ctx, func(tx *sql.Tx) error {
		count, args := `UPDATE studios SET edits = edits + 1 WHERE id = ?`, []any{s.id}
		if s.edits != nil {
			count, args = count+` AND edits = ?`, append(args, *s.edits)
		}
		res, err := tx.ExecContext(ctx, count, args...)
		if err != nil {
			return err
		}
		n, err := res.RowsAffected()
		switch {
		case err != nil:
			return err
		case n == 0 && s.edits != nil:
			return ErrStale
		case n == 0:
			return ErrNotFound
		}
		return change(tx)
	})
	if err == nil && s.edits != nil {
		*s.edits++
	}
	return err
}

// put is an edit of one statement, which must find its row.
func (s Studio) put(ctx context.Context, query string, args ...any) error {
	return s.edit(ctx, func(tx *sql.Tx) error { return changed(tx.ExecContext(ctx, query, args...)) })
}

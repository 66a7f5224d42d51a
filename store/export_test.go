package store

import (
	"context"
	"database/sql"
)

// Classify is classify, for the tests outside.
var Classify = classify

// Age makes every reading one that an older reader left, with nothing in it.
func Age(ctx context.Context, s *Store) error {
	_, err := s.db.ExecContext(ctx, `UPDATE readings SET reader = 0, detail = '{}'`)
	return err
}

// InTx and Beginnings are inTx and beginnings, for the tests outside.
func (s *Store) InTx(ctx context.Context, f func(*sql.Tx) error) error { return s.inTx(ctx, f) }

const Beginnings = beginnings

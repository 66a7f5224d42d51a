package store

import "context"

// Classify is classify, for the tests outside.
var Classify = classify

// Age makes every reading one that an older reader left, with nothing in it.
func Age(ctx context.Context, s *Store) error {
	_, err := s.db.ExecContext(ctx, `UPDATE readings SET reader = 0, detail = '{}'`)
	return err
}

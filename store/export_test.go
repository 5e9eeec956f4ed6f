package store

import (
	"context"

	"sectilis/core/card"
)

// SetVersionForTest makes the file look as if a newer version had made it.
func (s *Store) SetVersionForTest(ctx context.Context, v int) error {
	_, err := s.db.ExecContext(ctx, `INSERT INTO goose_db_version(version_id, is_applied) VALUES(?, 1)`, v)
	return err
}

// RevisionForTest reads one row of the log.
func (s *Store) RevisionForTest(ctx context.Context, id string, n int64) (card.Card, error) {
	r, err := get(ctx, s.db, id, n)
	if err != nil {
		return card.Card{}, err
	}
	return unpack(r.doc)
}

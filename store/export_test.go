package store

import (
	"context"
	"fmt"

	"sectilis/core/document/card"
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

// DamageForTest makes the document of a row unreadable.
func (s *Store) DamageForTest(ctx context.Context, id string, n int64) error {
	_, err := s.db.ExecContext(ctx, `UPDATE revisions SET doc = x'00ff00' WHERE card = ? AND number = ?`, id, n)
	return err
}

// FillForTest leaves no more room in the file, or much room again.
func (s *Store) FillForTest(ctx context.Context, full bool) error {
	s.db.SetMaxOpenConns(1) // the limit is that of a connection
	pages := 1_000_000
	if full {
		if err := s.db.QueryRowContext(ctx, `PRAGMA page_count`).Scan(&pages); err != nil {
			return err
		}
	}
	return s.db.QueryRowContext(ctx, fmt.Sprintf(`PRAGMA max_page_count = %d`, pages)).Scan(&pages)
}

// BoundForTest sets how large a document may be.
func BoundForTest(bytes int) (was int) {
	was, maxDoc = maxDoc, bytes
	return was
}

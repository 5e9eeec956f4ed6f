package store

import (
	"context"
	"fmt"
)

// AddEdits implements app.Store.
func (s *Store) AddEdits(ctx context.Context, id, picture string, edits []byte) error {
	if _, err := s.exec(ctx, `INSERT INTO edits(id, picture, edits) VALUES(?, ?, ?) ON CONFLICT(id) DO NOTHING`, id, picture, edits); err != nil {
		return fmt.Errorf("add edits: %w", err)
	}
	return nil
}

// Edits implements app.Store.
func (s *Store) Edits(ctx context.Context, id string) (picture string, edits []byte, err error) {
	err = s.db.QueryRowContext(ctx, `SELECT picture, edits FROM edits WHERE id = ?`, id).Scan(&picture, &edits)
	return picture, edits, notFound(err)
}

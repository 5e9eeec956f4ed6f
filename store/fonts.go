package store

import (
	"context"
	"fmt"
	"time"

	"sectilis/app"
)

// AddFont implements app.Store. A font that is there already moves to the front of the tray.
func (s *Store) AddFont(ctx context.Context, f app.KeptFont, at time.Time) error {
	if _, err := s.exec(ctx, `INSERT INTO fonts(id, file, added, bytes) VALUES(?, ?, ?, ?)
		ON CONFLICT(id) DO UPDATE SET added = excluded.added, removed = NULL`, f.ID, f.File, at.UnixMilli(), f.Raw); err != nil {
		return fmt.Errorf("add font: %w", err)
	}
	return nil
}

// Fonts implements app.Store.
func (s *Store) Fonts(ctx context.Context) ([]app.KeptFont, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT id, file, removed IS NULL, bytes FROM fonts ORDER BY added, id`)
	if err != nil {
		return nil, fmt.Errorf("list fonts: %w", err)
	}
	defer func() { _ = rows.Close() }() // Err below tells what went wrong
	var out []app.KeptFont
	for rows.Next() {
		var f app.KeptFont
		if err := rows.Scan(&f.ID, &f.File, &f.Offered, &f.Raw); err != nil {
			return nil, fmt.Errorf("list fonts: %w", err)
		}
		out = append(out, f)
	}
	return out, rows.Err()
}

// HideFont implements app.Store.
func (s *Store) HideFont(ctx context.Context, id string, at time.Time) error {
	if _, err := s.exec(ctx, `UPDATE fonts SET removed = ? WHERE id = ?`, at.UnixMilli(), id); err != nil {
		return fmt.Errorf("remove font: %w", err)
	}
	return nil
}

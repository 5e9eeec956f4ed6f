package store

import (
	"context"
	"fmt"
	"time"

	"sectilis/app"
	"sectilis/core/document/card"
)

// AllArt implements app.Store.
func (s *Store) AllArt(ctx context.Context) ([]app.Art, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT id, name, width, height, parts FROM art ORDER BY added DESC, rowid DESC`)
	if err != nil {
		return nil, fmt.Errorf("list art: %w", err)
	}
	defer func() { _ = rows.Close() }() // Err below tells what went wrong
	out := []app.Art{}
	for rows.Next() {
		var a app.Art
		if err := rows.Scan(&a.ID, &a.Name, &a.Width, &a.Height, &a.Parts); err != nil {
			return nil, fmt.Errorf("list art: %w", err)
		}
		out = append(out, a)
	}
	return out, rows.Err()
}

// AddArt implements app.Store. Art that is there already moves to the front of the tray.
func (s *Store) AddArt(ctx context.Context, a app.Art, c card.Card, at time.Time) error {
	doc, err := pack(c)
	if err != nil {
		return err
	}
	if _, err := s.exec(ctx, `INSERT INTO art(id, name, width, height, parts, added, doc) VALUES(?, ?, ?, ?, ?, ?, ?)
		ON CONFLICT(id) DO UPDATE SET name = excluded.name, added = excluded.added`, a.ID, a.Name, a.Width, a.Height, a.Parts, at.UnixMilli(), doc); err != nil {
		return fmt.Errorf("keep art: %w", err)
	}
	return nil
}

// Art implements app.Store.
func (s *Store) Art(ctx context.Context, id string) (app.Art, card.Card, error) {
	var a app.Art
	var doc []byte
	err := s.db.QueryRowContext(ctx, `SELECT id, name, width, height, parts, doc FROM art WHERE id = ?`, id).
		Scan(&a.ID, &a.Name, &a.Width, &a.Height, &a.Parts, &doc)
	if err != nil {
		return a, card.Card{}, notFound(err)
	}
	c, err := unpack(doc)
	return a, c, err
}

// RemoveArt implements app.Store.
func (s *Store) RemoveArt(ctx context.Context, id string) error {
	res, err := s.exec(ctx, `DELETE FROM art WHERE id = ?`, id)
	if err != nil {
		return fmt.Errorf("remove art: %w", err)
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return app.ErrNotFound
	}
	return nil
}

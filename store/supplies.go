package store

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"sectilis/app"
	"sectilis/core/document/card"
)

// Supplies implements app.Store.
func (s *Store) Supplies(ctx context.Context) ([]app.Supply, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT kind, id, name, tags, favourite, used, rights, credit FROM supplies ORDER BY kind, id`)
	if err != nil {
		return nil, fmt.Errorf("list supplies: %w", err)
	}
	defer func() { _ = rows.Close() }() // Err below tells what went wrong
	out := []app.Supply{}
	for rows.Next() {
		var u app.Supply
		var tags string
		var used int64
		if err := rows.Scan(&u.Kind, &u.ID, &u.Name, &tags, &u.Favourite, &used, &u.Rights, &u.Credit); err != nil {
			return nil, fmt.Errorf("list supplies: %w", err)
		}
		if err := json.Unmarshal([]byte(tags), &u.Tags); err != nil {
			return nil, fmt.Errorf("tags of %s %s: %w", u.Kind, u.ID, err)
		}
		if used > 0 {
			u.Used = time.UnixMilli(used)
		}
		out = append(out, u)
	}
	return out, rows.Err()
}

// Note implements app.Store.
func (s *Store) Note(ctx context.Context, u app.Supply) error {
	used := int64(0)
	if !u.Used.IsZero() {
		used = u.Used.UnixMilli()
	}
	if _, err := s.exec(ctx, `INSERT OR REPLACE INTO supplies(kind, id, name, tags, favourite, used, rights, credit) VALUES(?, ?, ?, ?, ?, ?, ?, ?)`,
		u.Kind, u.ID, u.Name, list(u.Tags), u.Favourite, used, u.Rights, u.Credit); err != nil {
		return fmt.Errorf("note supply: %w", err)
	}
	return nil
}

// list is a list of strings as JSON.
func list(v []string) string {
	raw, err := json.Marshal(v)
	if err != nil || v == nil {
		return "[]"
	}
	return string(raw)
}

// HidePicture implements app.Store.
func (s *Store) HidePicture(ctx context.Context, id string, at time.Time) error {
	if _, err := s.exec(ctx, `UPDATE pictures SET removed = ? WHERE id = ?`, at.UnixMilli(), id); err != nil {
		return fmt.Errorf("remove picture: %w", err)
	}
	return nil
}

// Sketches implements app.Store.
func (s *Store) Sketches(ctx context.Context) ([]app.Sketch, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT id, title, face, occasion, tags FROM sketches ORDER BY added DESC, rowid DESC`)
	if err != nil {
		return nil, fmt.Errorf("list sketches: %w", err)
	}
	defer func() { _ = rows.Close() }() // Err below tells what went wrong
	out := []app.Sketch{}
	for rows.Next() {
		k, err := scanSketch(rows.Scan)
		if err != nil {
			return nil, fmt.Errorf("list sketches: %w", err)
		}
		out = append(out, k)
	}
	return out, rows.Err()
}

func scanSketch(scan func(...any) error, more ...any) (k app.Sketch, err error) {
	var tags string
	if err := scan(append([]any{&k.ID, &k.Title, &k.Face, &k.Occasion, &tags}, more...)...); err != nil {
		return k, err
	}
	return k, json.Unmarshal([]byte(tags), &k.Tags)
}

// AddSketch implements app.Store.
func (s *Store) AddSketch(ctx context.Context, k app.Sketch, c card.Card, at time.Time) error {
	doc, err := pack(c)
	if err != nil {
		return err
	}
	if _, err := s.exec(ctx, `INSERT INTO sketches(id, title, face, occasion, tags, added, doc) VALUES(?, ?, ?, ?, ?, ?, ?)`,
		k.ID, k.Title, k.Face, k.Occasion, list(k.Tags), at.UnixMilli(), doc); err != nil {
		return fmt.Errorf("keep sketch: %w", err)
	}
	return nil
}

// Sketch implements app.Store.
func (s *Store) Sketch(ctx context.Context, id string) (app.Sketch, card.Card, error) {
	var doc []byte
	k, err := scanSketch(s.db.QueryRowContext(ctx, `SELECT id, title, face, occasion, tags, doc FROM sketches WHERE id = ?`, id).Scan, &doc)
	if err != nil {
		return k, card.Card{}, notFound(err)
	}
	c, err := unpack(doc)
	return k, c, err
}

// RemoveSketch implements app.Store.
func (s *Store) RemoveSketch(ctx context.Context, id string) error {
	res, err := s.exec(ctx, `DELETE FROM sketches WHERE id = ?`, id)
	if err != nil {
		return fmt.Errorf("remove sketch: %w", err)
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return app.ErrNotFound
	}
	return nil
}

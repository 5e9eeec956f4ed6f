package store

import (
	"context"
	"fmt"
	"time"

	"sectilis/app"
)

// AddPicture implements app.Store. A picture that is there already moves to
// the front of the tray.
func (s *Store) AddPicture(ctx context.Context, p app.Picture, raw []byte, at time.Time) error {
	if _, err := s.exec(ctx, `INSERT INTO pictures(id, name, type, width, height, added, bytes) VALUES(?, ?, ?, ?, ?, ?, ?)
		ON CONFLICT(id) DO UPDATE SET added = excluded.added, removed = NULL`,
		p.ID, p.Name, p.Type, p.Width, p.Height, at.UnixMilli(), raw); err != nil {
		return fmt.Errorf("add picture: %w", err)
	}
	return nil
}

// The previews of a picture are PNG where parts of it are transparent.
const pictureColumns = `id, name, type, width, height, length(bytes), EXISTS (SELECT 1 FROM previews WHERE picture = pictures.id AND previews.type = 'image/png')`

func scanPicture(scan func(...any) error, more ...any) (p app.Picture, err error) {
	err = scan(append([]any{&p.ID, &p.Name, &p.Type, &p.Width, &p.Height, &p.Bytes, &p.Clear}, more...)...)
	return p, err
}

// Pictures implements app.Store.
func (s *Store) Pictures(ctx context.Context) ([]app.Picture, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT `+pictureColumns+` FROM pictures WHERE removed IS NULL ORDER BY added DESC, id`)
	if err != nil {
		return nil, fmt.Errorf("list pictures: %w", err)
	}
	defer func() { _ = rows.Close() }() // Err below tells what went wrong
	out := []app.Picture{}
	for rows.Next() {
		p, err := scanPicture(rows.Scan)
		if err != nil {
			return nil, fmt.Errorf("list pictures: %w", err)
		}
		out = append(out, p)
	}
	return out, rows.Err()
}

// Picture implements app.Store.
func (s *Store) Picture(ctx context.Context, id string) (app.Picture, []byte, error) {
	var raw []byte
	p, err := scanPicture(s.db.QueryRowContext(ctx, `SELECT `+pictureColumns+`, bytes FROM pictures WHERE id = ?`, id).Scan, &raw)
	return p, raw, notFound(err)
}

// HasPicture implements app.Store.
func (s *Store) HasPicture(ctx context.Context, id string) (bool, error) {
	var n int
	err := s.db.QueryRowContext(ctx, `SELECT count(*) FROM pictures WHERE id = ?`, id).Scan(&n)
	return n > 0, err
}

// Preview implements app.Store.
func (s *Store) Preview(ctx context.Context, id string, side int) (kind string, raw []byte, err error) {
	err = s.db.QueryRowContext(ctx, `SELECT type, bytes FROM previews WHERE picture = ? AND side = ?`, id, side).Scan(&kind, &raw)
	return kind, raw, notFound(err)
}

// AddPreview implements app.Store.
func (s *Store) AddPreview(ctx context.Context, id string, side int, kind string, raw []byte) error {
	if _, err := s.exec(ctx, `INSERT OR REPLACE INTO previews(picture, side, type, bytes) VALUES(?, ?, ?, ?)`, id, side, kind, raw); err != nil {
		return fmt.Errorf("add preview: %w", err)
	}
	return nil
}

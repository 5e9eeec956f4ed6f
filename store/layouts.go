package store

import (
	"context"
	"fmt"
	"time"
)

// Layout implements app.Store.
func (s *Store) Layout(ctx context.Context, key string) ([]byte, error) {
	var raw []byte
	err := s.db.QueryRowContext(ctx, `SELECT answer FROM layouts WHERE key = ?`, key).Scan(&raw)
	return raw, notFound(err)
}

// KeepLayout implements app.Store.
func (s *Store) KeepLayout(ctx context.Context, key string, answer []byte, at time.Time) error {
	if _, err := s.exec(ctx, `INSERT INTO layouts(key, answer, at) VALUES(?, ?, ?)
		ON CONFLICT(key) DO UPDATE SET answer = excluded.answer, at = excluded.at`, key, string(answer), at.UnixMilli()); err != nil {
		return fmt.Errorf("keep layout: %w", err)
	}
	return nil
}

// Run implements app.Store.
func (s *Store) Run(ctx context.Context, key string) ([]byte, error) {
	var raw []byte
	err := s.db.QueryRowContext(ctx, `SELECT state FROM runs WHERE key = ?`, key).Scan(&raw)
	return raw, notFound(err)
}

// KeepRun implements app.Store.
func (s *Store) KeepRun(ctx context.Context, key string, state []byte, at time.Time) error {
	if _, err := s.exec(ctx, `INSERT INTO runs(key, state, at) VALUES(?, ?, ?)
		ON CONFLICT(key) DO UPDATE SET state = excluded.state, at = excluded.at`, key, string(state), at.UnixMilli()); err != nil {
		return fmt.Errorf("keep run: %w", err)
	}
	return nil
}

// maxResults is how many pictures of results are kept; the oldest go.
const maxResults = 60

// Result implements app.Store.
func (s *Store) Result(ctx context.Context, key string) ([]byte, error) {
	var raw []byte
	err := s.db.QueryRowContext(ctx, `SELECT picture FROM results WHERE key = ?`, key).Scan(&raw)
	return raw, notFound(err)
}

// KeepResult implements app.Store.
func (s *Store) KeepResult(ctx context.Context, key string, picture []byte, at time.Time) error {
	if _, err := s.exec(ctx, `INSERT INTO results(key, picture, at) VALUES(?, ?, ?)
		ON CONFLICT(key) DO UPDATE SET picture = excluded.picture, at = excluded.at`, key, picture, at.UnixMilli()); err != nil {
		return fmt.Errorf("keep result: %w", err)
	}
	if _, err := s.exec(ctx, `DELETE FROM results WHERE key NOT IN (SELECT key FROM results ORDER BY at DESC, rowid DESC LIMIT ?)`, maxResults); err != nil {
		return fmt.Errorf("forget old results: %w", err)
	}
	return nil
}

// Settings implements app.Store.
func (s *Store) Settings(ctx context.Context, stock string) ([]byte, error) {
	var raw []byte
	err := s.db.QueryRowContext(ctx, `SELECT settings FROM settings WHERE stock = ?`, stock).Scan(&raw)
	return raw, notFound(err)
}

// KeepSettings implements app.Store.
func (s *Store) KeepSettings(ctx context.Context, stock string, settings []byte) error {
	if _, err := s.exec(ctx, `INSERT INTO settings(stock, settings) VALUES(?, ?)
		ON CONFLICT(stock) DO UPDATE SET settings = excluded.settings`, stock, string(settings)); err != nil {
		return fmt.Errorf("keep settings: %w", err)
	}
	return nil
}

// Kept implements app.Store.
func (s *Store) Kept(ctx context.Context, name string) ([]byte, error) {
	var raw []byte
	err := s.db.QueryRowContext(ctx, `SELECT value FROM kept WHERE name = ?`, name).Scan(&raw)
	return raw, notFound(err)
}

// Keep implements app.Store.
func (s *Store) Keep(ctx context.Context, name string, value []byte) error {
	if _, err := s.exec(ctx, `INSERT INTO kept(name, value) VALUES(?, ?)
		ON CONFLICT(name) DO UPDATE SET value = excluded.value`, name, string(value)); err != nil {
		return fmt.Errorf("keep %s: %w", name, err)
	}
	return nil
}

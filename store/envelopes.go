package store

import (
	"context"
	"fmt"
)

// EnvelopeOf implements app.Store.
func (s *Store) EnvelopeOf(ctx context.Context, id string) (string, error) {
	return s.tied(ctx, `SELECT e.envelope FROM envelopes e JOIN cards c ON c.id = e.envelope
		WHERE e.card = ? AND c.removed IS NULL ORDER BY e.rowid DESC LIMIT 1`, id)
}

// CardOfEnvelope implements app.Store.
func (s *Store) CardOfEnvelope(ctx context.Context, id string) (string, error) {
	return s.tied(ctx, `SELECT e.card FROM envelopes e JOIN cards c ON c.id = e.card
		WHERE e.envelope = ? AND c.removed IS NULL`, id)
}

func (s *Store) tied(ctx context.Context, query, id string) (other string, err error) {
	return other, notFound(s.db.QueryRowContext(ctx, query, id).Scan(&other))
}

// TieEnvelope implements app.Store.
func (s *Store) TieEnvelope(ctx context.Context, envelope, card string) error {
	if _, err := s.exec(ctx, `INSERT INTO envelopes(envelope, card) VALUES(?, ?) ON CONFLICT(envelope) DO UPDATE SET card = excluded.card`, envelope, card); err != nil {
		return fmt.Errorf("tie envelope: %w", err)
	}
	return nil
}

// UntieEnvelope implements app.Store.
func (s *Store) UntieEnvelope(ctx context.Context, envelope string) error {
	if _, err := s.exec(ctx, `DELETE FROM envelopes WHERE envelope = ?`, envelope); err != nil {
		return fmt.Errorf("untie envelope: %w", err)
	}
	return nil
}

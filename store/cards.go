package store

import (
	"bytes"
	"compress/flate"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"strings"
	"sync"
	"time"

	"sectilis/app"
	"sectilis/core/document/card"
)

// writers are kept: making one costs more than a document does.
var writers = sync.Pool{New: func() any {
	w, err := flate.NewWriter(nil, flate.BestSpeed)
	if err != nil {
		panic(err) // the level is one that there is
	}
	return w
}}

func pack(c card.Card) ([]byte, error) {
	raw, err := json.Marshal(c)
	if err != nil {
		return nil, fmt.Errorf("write document: %w", err)
	}
	if len(raw) > maxDoc {
		return nil, card.Refuse("card", "The card would grow to %d MB; %d MB are the most that is kept. Simplify its drawn outlines, or make two cards of it. Nothing was changed.", len(raw)>>20, maxDoc>>20)
	}
	var b bytes.Buffer
	w := writers.Get().(*flate.Writer)
	defer writers.Put(w)
	w.Reset(&b)
	if _, err := w.Write(raw); err != nil {
		return nil, err
	}
	err = w.Close()
	return b.Bytes(), err
}

// maxDoc bounds a document as JSON, when it is written and when it is read.
var maxDoc = 48 << 20

func unpack(doc []byte) (card.Card, error) {
	raw, err := io.ReadAll(io.LimitReader(flate.NewReader(bytes.NewReader(doc)), int64(maxDoc)+1))
	if err == nil && len(raw) > maxDoc {
		err = fmt.Errorf("it has more than %d MB", maxDoc>>20)
	}
	if err != nil {
		return card.Card{}, fmt.Errorf("read document: %w", err)
	}
	return card.Parse(raw)
}

// searchable is the title and all words of a card in lower case.
func searchable(c card.Card) string {
	var b strings.Builder
	b.WriteString(c.Title)
	for _, f := range c.Faces {
		for _, it := range f.Items {
			if it.Words != nil {
				b.WriteString("\n" + it.Words.Text)
			}
		}
	}
	return strings.ToLower(b.String())
}

// Cards implements app.Store.
func (s *Store) Cards(ctx context.Context, find string) ([]app.Summary, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT id, title, kind, width, height, stock, head, changed FROM cards
		WHERE removed IS NULL AND instr(words, ?) > 0 ORDER BY changed DESC, id`, strings.ToLower(strings.TrimSpace(find)))
	if err != nil {
		return nil, fmt.Errorf("list cards: %w", err)
	}
	defer func() { _ = rows.Close() }() // Err below tells what went wrong
	out := []app.Summary{}
	for rows.Next() {
		var c app.Summary
		var at int64
		if err := rows.Scan(&c.ID, &c.Title, &c.Kind, &c.Width, &c.Height, &c.Stock, &c.Revision, &at); err != nil {
			return nil, fmt.Errorf("list cards: %w", err)
		}
		c.Changed = time.UnixMilli(at)
		out = append(out, c)
	}
	return out, rows.Err()
}

// Create implements app.Store.
func (s *Store) Create(ctx context.Context, id string, c card.Card, label string, at time.Time) error {
	doc, err := pack(c)
	if err != nil {
		return err
	}
	return s.write(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `INSERT INTO cards(id, head, changed, title, words, kind, width, height, stock) VALUES(?, 1, ?, ?, ?, ?, ?, ?, ?)`,
			id, at.UnixMilli(), c.Title, searchable(c), c.Base.Kind, c.Base.Width, c.Base.Height, c.Base.Stock); err != nil {
			return fmt.Errorf("create card: %w", err)
		}
		return add(ctx, tx, id, row{number: 1, doc: doc, label: label, at: at})
	})
}

// row is a row of the revision log.
type row struct {
	card        *card.Card // what doc holds, where it is at hand
	number      int64
	doc         []byte
	label       string
	at          time.Time
	back, forth sql.NullInt64
}

func add(ctx context.Context, tx *sql.Tx, id string, r row) error {
	if _, err := tx.ExecContext(ctx, `INSERT INTO revisions(card, number, doc, label, at, back, forth) VALUES(?, ?, ?, ?, ?, ?, ?)`,
		id, r.number, r.doc, r.label, r.at.UnixMilli(), r.back, r.forth); err != nil {
		return fmt.Errorf("add revision: %w", err)
	}
	return nil
}

type querier interface {
	QueryRowContext(ctx context.Context, query string, args ...any) *sql.Row
}

func get(ctx context.Context, q querier, id string, number int64) (row, error) {
	r := row{number: number}
	var at int64
	err := q.QueryRowContext(ctx, `SELECT doc, label, at, back, forth FROM revisions WHERE card = ? AND number = ?`, id, number).
		Scan(&r.doc, &r.label, &at, &r.back, &r.forth)
	r.at = time.UnixMilli(at)
	return r, notFound(err)
}

func head(ctx context.Context, q querier, id string) (int64, error) {
	var n int64
	err := q.QueryRowContext(ctx, `SELECT head FROM cards WHERE id = ? AND removed IS NULL`, id).Scan(&n)
	return n, notFound(err)
}

// revision reads a row as the caller sees it.
func revision(ctx context.Context, q querier, id string, r row) (app.Revision, error) {
	c, err := unpack(r.doc)
	if err != nil {
		return app.Revision{}, err
	}
	out := app.Revision{Number: r.number, Card: c, At: r.at}
	if r.back.Valid {
		out.Undo = r.label
	}
	if r.forth.Valid {
		next, err := get(ctx, q, id, r.forth.Int64)
		if err != nil {
			return app.Revision{}, err
		}
		out.Redo = next.label
	}
	return out, nil
}

// Head implements app.Store.
func (s *Store) Head(ctx context.Context, id string) (app.Revision, error) {
	n, err := head(ctx, s.db, id)
	if err != nil {
		return app.Revision{}, err
	}
	r, err := get(ctx, s.db, id, n)
	if err != nil {
		return app.Revision{}, err
	}
	rev, err := revision(ctx, s.db, id, r)
	if err == nil || ctx.Err() != nil {
		return rev, err
	}
	last, lastErr := s.lastReadable(ctx, id, n)
	if lastErr != nil {
		return rev, lastErr
	}
	return rev, &app.Damaged{Last: last.number, At: last.at, Err: err}
}

// maxLookBack is how many revisions are tried for one that can be read.
const maxLookBack = 200

// lastReadable is the newest row before a number whose document can be read; its number is
// 0 if there is none.
func (s *Store) lastReadable(ctx context.Context, id string, before int64) (row, error) {
	for n := before - 1; n > 0 && n > before-maxLookBack; n-- {
		r, err := get(ctx, s.db, id, n)
		if errors.Is(err, app.ErrNotFound) {
			continue
		}
		if err != nil {
			return row{}, err
		}
		if _, err := unpack(r.doc); err == nil {
			return r, nil
		}
	}
	return row{}, nil
}

// Recover implements app.Store.
func (s *Store) Recover(ctx context.Context, id string, at time.Time) (app.Revision, error) {
	var out app.Revision
	err := s.write(ctx, func(tx *sql.Tx) error {
		n, err := head(ctx, tx, id)
		if err != nil {
			return err
		}
		last, err := s.lastReadable(ctx, id, n)
		if err != nil {
			return err
		}
		if last.number == 0 {
			return app.ErrNotFound
		}
		c, err := unpack(last.doc)
		if err != nil {
			return err
		}
		next := row{number: n + 1, doc: last.doc, label: "Take up the last state that can be read", at: at, back: last.back}
		if err := add(ctx, tx, id, next); err != nil {
			return err
		}
		out = app.Revision{Number: next.number, Card: c, At: at}
		if next.back.Valid {
			out.Undo = next.label
		}
		return s.toHead(ctx, tx, id, next, c)
	})
	return out, err
}

// toHead makes a row the newest of its card.
func (s *Store) toHead(ctx context.Context, tx *sql.Tx, id string, r row, c card.Card) error {
	if _, err := tx.ExecContext(ctx, `UPDATE cards SET head = ?, changed = ?, title = ?, words = ?, kind = ?, width = ?, height = ?, stock = ? WHERE id = ?`,
		r.number, r.at.UnixMilli(), c.Title, searchable(c), c.Base.Kind, c.Base.Width, c.Base.Height, c.Base.Stock, id); err != nil {
		return fmt.Errorf("update card: %w", err)
	}
	return nil
}

// advance adds a revision on top of base, made from the newest row.
func (s *Store) advance(ctx context.Context, id string, base int64, at time.Time, next func(*sql.Tx, row) (row, error)) (app.Revision, error) {
	var out app.Revision
	err := s.write(ctx, func(tx *sql.Tx) error {
		n, err := head(ctx, tx, id)
		if err != nil {
			return err
		}
		if n != base {
			return app.ErrStale
		}
		was, err := get(ctx, tx, id, n)
		if err != nil {
			return err
		}
		r, err := next(tx, was)
		if err != nil {
			return err
		}
		r.number, r.at = n+1, at
		if err := add(ctx, tx, id, r); err != nil {
			return err
		}
		if r.card != nil {
			// What was just written need not be read again.
			out = app.Revision{Number: r.number, Card: *r.card, At: r.at, Undo: r.label}
		} else if out, err = revision(ctx, tx, id, r); err != nil {
			return err
		}
		return s.toHead(ctx, tx, id, r, out.Card)
	})
	return out, err
}

// Commit implements app.Store.
func (s *Store) Commit(ctx context.Context, id string, base int64, c card.Card, label string, at time.Time) (app.Revision, error) {
	doc, err := pack(c)
	if err != nil {
		return app.Revision{}, err
	}
	return s.advance(ctx, id, base, at, func(_ *sql.Tx, was row) (row, error) {
		return row{doc: doc, card: &c, label: label, back: sql.NullInt64{Int64: was.number, Valid: true}}, nil
	})
}

// Undo implements app.Store.
func (s *Store) Undo(ctx context.Context, id string, base int64, at time.Time) (app.Revision, error) {
	return s.advance(ctx, id, base, at, func(tx *sql.Tx, was row) (row, error) {
		if !was.back.Valid {
			return row{}, app.ErrNothing
		}
		to, err := get(ctx, tx, id, was.back.Int64)
		to.forth = sql.NullInt64{Int64: was.number, Valid: true}
		return to, err
	})
}

// Redo implements app.Store.
func (s *Store) Redo(ctx context.Context, id string, base int64, at time.Time) (app.Revision, error) {
	return s.advance(ctx, id, base, at, func(tx *sql.Tx, was row) (row, error) {
		if !was.forth.Valid {
			return row{}, app.ErrNothing
		}
		return get(ctx, tx, id, was.forth.Int64)
	})
}

// Remove implements app.Store.
func (s *Store) Remove(ctx context.Context, id string, at time.Time) error {
	return s.one(ctx, `UPDATE cards SET removed = ? WHERE id = ? AND removed IS NULL`, at.UnixMilli(), id)
}

// Restore implements app.Store.
func (s *Store) Restore(ctx context.Context, id string) error {
	return s.one(ctx, `UPDATE cards SET removed = NULL WHERE id = ? AND removed IS NOT NULL`, id)
}

// one runs a statement that has to touch a row.
func (s *Store) one(ctx context.Context, query string, args ...any) error {
	res, err := s.exec(ctx, query, args...)
	if err != nil {
		return fmt.Errorf("update card: %w", err)
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return app.ErrNotFound
	}
	return nil
}

// Package store keeps cards and pictures in SQLite behind app.Store.
package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"
	"path/filepath"

	"github.com/gofrs/flock"
	"github.com/pressly/goose/v3"
	"modernc.org/sqlite" // the driver named "sqlite", too
	sqlite3 "modernc.org/sqlite/lib"

	"sectilis/app"
)

//go:embed migrations/*.sql
var migrations embed.FS

// Store is a database file. It is safe for concurrent use. Only one program has it open.
type Store struct {
	db   *sql.DB
	lock *flock.Flock
}

var _ app.Store = (*Store)(nil)

// Open opens or makes the database file and brings its tables up to date. A
// file that cannot be written, or that a newer version has made, is refused
// with a sentence for the person.
func Open(ctx context.Context, path string) (*Store, error) {
	if err := writable(path); err != nil {
		return nil, err
	}
	lock := flock.New(path + ".lock")
	switch held, err := lock.TryLock(); {
	case err != nil:
		return nil, fmt.Errorf("the lock beside the database %s cannot be taken: %w", path, err)
	case !held:
		return nil, fmt.Errorf("the cards in %s are open in another Sectilis already. Use that one, or end it first; two on one file would overwrite each other", path)
	}
	// Every accepted change is on disk before it is answered: WAL with
	// synchronous FULL flushes the log at each commit.
	q := url.Values{"_txlock": {"immediate"}, "_pragma": {
		"journal_mode(WAL)", "synchronous(FULL)", "busy_timeout(5000)", "foreign_keys(1)",
	}}
	db, err := sql.Open("sqlite", (&url.URL{Scheme: "file", Opaque: (&url.URL{Path: path}).EscapedPath(), RawQuery: q.Encode()}).String())
	if err != nil {
		_ = lock.Unlock() // the reason it cannot be used is what counts
		return nil, fmt.Errorf("open database %s: %w", path, err)
	}
	s := &Store{db, lock}
	if err := s.migrate(ctx); err != nil {
		_ = s.Close() // the reason it cannot be used is what counts
		return nil, plainly(path, err)
	}
	return s, nil
}

// plainly says what is wrong with a database file and what to do.
func plainly(path string, err error) error {
	var own *sqlite.Error
	if !errors.As(err, &own) {
		return fmt.Errorf("database %s: %w", path, err)
	}
	switch own.Code() & 0xff {
	case sqlite3.SQLITE_NOTADB:
		return fmt.Errorf("%s is not a file of cards: it is something else, or its beginning is damaged. Name another file with --data, or put a copy that is whole in its place", path)
	case sqlite3.SQLITE_CORRUPT:
		return fmt.Errorf("the file of cards %s is damaged or cut off. Put a copy that is whole in its place; this one was not changed", path)
	case sqlite3.SQLITE_FULL, sqlite3.SQLITE_IOERR:
		return fmt.Errorf("the file of cards %s cannot be written: the disk is full, or does not answer. Make room and start again", path)
	case sqlite3.SQLITE_READONLY, sqlite3.SQLITE_CANTOPEN, sqlite3.SQLITE_PERM:
		return fmt.Errorf("the file of cards %s cannot be written. Look at its permissions and at those of its folder", path)
	}
	return fmt.Errorf("database %s: %w", path, err)
}

// told turns an error of the database that a person can mend into one that says so.
func told(err error) error {
	var own *sqlite.Error
	if errors.As(err, &own) && own.Code()&0xff == sqlite3.SQLITE_FULL {
		return fmt.Errorf("%w: %w", app.ErrFull, err)
	}
	return err
}

// exec runs a statement by itself.
func (s *Store) exec(ctx context.Context, query string, args ...any) (sql.Result, error) {
	res, err := s.db.ExecContext(ctx, query, args...)
	return res, told(err)
}

// writable finds out before SQLite does, to say it in plain words.
func writable(path string) error {
	if err := os.MkdirAll(filepath.Dir(path), 0o750); err != nil {
		return fmt.Errorf("the folder of the database %s cannot be made: %w", path, err)
	}
	f, err := os.OpenFile(path, os.O_RDWR|os.O_CREATE, 0o640)
	if err != nil {
		return fmt.Errorf("the database %s cannot be written: %w", path, err)
	}
	return f.Close()
}

func (s *Store) migrate(ctx context.Context) error {
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	p, err := goose.NewProvider(goose.DialectSQLite3, s.db, files)
	if err != nil {
		return fmt.Errorf("read migrations: %w", err)
	}
	have, err := p.GetDBVersion(ctx)
	if err != nil {
		return fmt.Errorf("it cannot be read: %w", err)
	}
	sources := p.ListSources()
	if newest := sources[len(sources)-1].Version; have > newest {
		return fmt.Errorf("it was made by a newer version of Sectilis (tables %d, this one knows %d); start that version, or name another file", have, newest)
	}
	if _, err := p.Up(ctx); err != nil {
		return fmt.Errorf("bring tables up to date: %w", err)
	}
	return nil
}

// Close closes the file. It returns the errors of both.
func (s *Store) Close() error { return errors.Join(s.db.Close(), s.lock.Unlock()) }

// write runs f in a transaction that holds the write lock from its start.
func (s *Store) write(ctx context.Context, f func(*sql.Tx) error) error {
	tx, err := s.db.BeginTx(ctx, nil)
	if err != nil {
		return told(fmt.Errorf("begin: %w", err))
	}
	if err := f(tx); err != nil {
		return told(errors.Join(err, tx.Rollback()))
	}
	if err := tx.Commit(); err != nil {
		return told(fmt.Errorf("commit: %w", err))
	}
	return nil
}

// notFound turns an empty result into app.ErrNotFound.
func notFound(err error) error {
	if errors.Is(err, sql.ErrNoRows) {
		return app.ErrNotFound
	}
	return err
}

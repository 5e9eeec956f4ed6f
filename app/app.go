// Package app holds the use cases: opening and changing cards, undo, bringing
// in pictures, laying sheets, printing and cutting. It declares what it needs
// of the store and of the devices and knows neither HTTP nor SQL.
package app

import (
	"context"
	"crypto/rand"
	"encoding/hex"
	"errors"
	"fmt"
	"log/slog"
	"sync"
	"time"

	"sectilis/core/check"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/cache"
)

// Errors that callers tell apart.
var (
	// ErrNotFound is for an id that names nothing, or nothing any more.
	ErrNotFound = errors.New("not found")
	// ErrStale is for a change based on a revision that is not the newest.
	ErrStale = errors.New("the card has been changed elsewhere since")
	// ErrFull is for what could not be kept because the disk is full. Nothing was changed.
	ErrFull = errors.New("the disk is full")
	// ErrMissing is for files of sheets on which some pieces have no room; it wraps a
	// sentence that names them.
	ErrMissing = errors.New("pieces are missing")
	// ErrBusy is for a machine that somebody else is using; it wraps a sentence.
	ErrBusy = errors.New("busy")
	// ErrNothing is for undo at the beginning and redo at the end.
	ErrNothing = errors.New("there is nothing to undo or redo")
)

// Damaged is a card whose newest state is there and cannot be read: it was damaged, or
// written by a newer version. Last is the newest revision that can be read, of the time At;
// 0 if there is none.
type Damaged struct {
	Last int64
	At   time.Time
	Err  error
}

func (d *Damaged) Error() string {
	return fmt.Sprintf("the newest state of the card cannot be read: %v", d.Err)
}

func (d *Damaged) Unwrap() error { return d.Err }

// sentenceError is one of the errors above with a sentence of its own.
type sentenceError struct {
	is  error
	why string
}

func (e *sentenceError) Error() string { return e.why }

func (e *sentenceError) Unwrap() error { return e.is }

// Revision is one accepted state of a card.
type Revision struct {
	Number int64
	Card   card.Card
	At     time.Time
	// Undo and Redo name the change that would be undone or redone; empty when
	// there is none.
	Undo, Redo string
}

// Summary is a card on the table.
type Summary struct {
	ID       string        `json:"id"`
	Title    string        `json:"title"`
	Kind     card.BaseKind `json:"kind"`
	Width    float64       `json:"width"`
	Height   float64       `json:"height"`
	Stock    string        `json:"stock"`
	Revision int64         `json:"revision"`
	Changed  time.Time     `json:"changed"`
}

// Picture is a picture that was brought in.
type Picture struct {
	ID     string `json:"id"` // SHA-256 of its bytes, in hex
	Name   string `json:"name"`
	Type   string `json:"type"`
	Width  int    `json:"width"` // upright, in pixels
	Height int    `json:"height"`
	Bytes  int    `json:"bytes"`
}

// Store keeps cards and pictures. When a method returns, what it was given is
// safe on disk.
type Store interface {
	// Cards lists the cards on the table, newest change first, whose title or
	// words contain the text.
	Cards(ctx context.Context, find string) ([]Summary, error)
	// Create adds a card as revision 1.
	Create(ctx context.Context, id string, c card.Card, label string, at time.Time) error
	// Head returns the newest revision; ErrNotFound if the card is gone, a *Damaged if the
	// revision is there and cannot be read.
	Head(ctx context.Context, id string) (Revision, error)
	// Recover adds a revision that equals the newest one that can be read; ErrNotFound if
	// there is none.
	Recover(ctx context.Context, id string, at time.Time) (Revision, error)
	// Commit adds a revision after base; ErrStale if base is not the newest.
	Commit(ctx context.Context, id string, base int64, c card.Card, label string, at time.Time) (Revision, error)
	// Undo and Redo add a revision that equals an earlier one; ErrNothing if
	// there is none to go to.
	Undo(ctx context.Context, id string, base int64, at time.Time) (Revision, error)
	Redo(ctx context.Context, id string, base int64, at time.Time) (Revision, error)
	// Remove takes a card off the table; Restore puts it back.
	Remove(ctx context.Context, id string, at time.Time) error
	Restore(ctx context.Context, id string) error

	AddPicture(ctx context.Context, p Picture, raw []byte, at time.Time) error
	Pictures(ctx context.Context) ([]Picture, error)
	Picture(ctx context.Context, id string) (Picture, []byte, error)
	HasPicture(ctx context.Context, id string) (bool, error)
	// HidePicture takes a picture out of the tray; bringing it in again brings
	// it back.
	HidePicture(ctx context.Context, id string, at time.Time) error

	// Supplies lists what was noted about supplies; Note notes it.
	Supplies(ctx context.Context) ([]Supply, error)
	Note(ctx context.Context, s Supply) error

	// Sketches lists the card sketches, newest first.
	Sketches(ctx context.Context) ([]Sketch, error)
	AddSketch(ctx context.Context, s Sketch, c card.Card, at time.Time) error
	// Sketch returns a sketch with its document; ErrNotFound if it is gone.
	Sketch(ctx context.Context, id string) (Sketch, card.Card, error)
	RemoveSketch(ctx context.Context, id string) error

	// Layout returns how something was laid on sheets; ErrNotFound if that is not
	// known. KeepLayout keeps it, in place of what was kept before.
	Layout(ctx context.Context, key string) ([]byte, error)
	KeepLayout(ctx context.Context, key string, answer []byte, at time.Time) error
	// Run returns how far a run came; ErrNotFound if there was none. KeepRun keeps it.
	Run(ctx context.Context, key string) ([]byte, error)
	KeepRun(ctx context.Context, key string, state []byte, at time.Time) error
	// Result is the picture of what a run cut; ErrNotFound if there is none. KeepResult
	// keeps it, for a good while.
	Result(ctx context.Context, key string) ([]byte, error)
	KeepResult(ctx context.Context, key string, picture []byte, at time.Time) error
	// Settings returns how a stock is cut; ErrNotFound if it is cut as usual.
	Settings(ctx context.Context, stock string) ([]byte, error)
	KeepSettings(ctx context.Context, stock string, settings []byte) error
	// Kept is what was kept under a name, or ErrNotFound.
	Kept(ctx context.Context, name string) ([]byte, error)
	Keep(ctx context.Context, name string, value []byte) error

	// Preview returns a kept preview; ErrNotFound if there is none yet.
	Preview(ctx context.Context, id string, side int) (kind string, raw []byte, err error)
	AddPreview(ctx context.Context, id string, side int, kind string, raw []byte) error
}

// App is the use cases over a store and devices.
type App struct {
	store      Store
	printer    Printer
	printScale float64
	machine    machine
	now        func() time.Time
	log        *slog.Logger
	Events     *Hub
	jobs       *jobs
	runs       runs
	fitted     fitted
	drawings   waiting
	layouts    *cache.Cache[string, layout]
	onHand     sync.Mutex // over a change of what is on hand
	// large is held while a picture that takes much memory is worked on.
	large chan struct{}

	mu    sync.Mutex
	cards map[string]*opened
	thumb *cache.Cache[string, thumbnail]
}

// opened is a card held in memory. Its lock is held over a whole change, so
// that changes to one card follow each other.
type opened struct {
	sync.Mutex
	rev   Revision
	scene scene.Scene
}

// Config is what an App is made of. Printer and Cutter may be nil.
type Config struct {
	Store   Store
	Printer Printer
	Cutter  Cutter
	// OtherCutter makes a driver for a cutter that a person names; nil where none can be
	// named.
	OtherCutter func(OtherCutter) Cutter
	// PrintScale is the resolution of pages for the printer in pixels per mm; 0 is 300 dpi.
	PrintScale float64
	Now        func() time.Time
	Log        *slog.Logger
}

// New returns an App.
func New(c Config) *App {
	if c.Now == nil {
		c.Now = time.Now
	}
	if c.Log == nil {
		c.Log = slog.Default()
	}
	if c.PrintScale == 0 {
		c.PrintScale = printScale
	}
	hub := newHub()
	a := &App{
		store: c.Store, printer: c.Printer, printScale: c.PrintScale, now: c.Now, log: c.Log,
		large:  make(chan struct{}, 1),
		Events: hub, jobs: newJobs(hub), cards: map[string]*opened{}, thumb: cache.New[string, thumbnail](256), layouts: cache.New[string, layout](256),
		runs:    runs{known: cache.New[string, RunState](512)},
		machine: machine{own: c.Cutter, other: c.OtherCutter},
	}
	if err := a.useKeptCutter(context.Background()); err != nil {
		a.log.Warn("cutter not read", "err", err) // CutterState asks again
	}
	return a
}

// Close stops all jobs and waits for them.
func (a *App) Close() { a.jobs.close() }

func newID() string {
	var b [9]byte
	_, _ = rand.Read(b[:]) // never fails: crypto/rand panics instead
	return hex.EncodeToString(b[:])
}

// View is an opened card as the client gets it, or, as an answer to a change, the
// part of it that is not as it was before.
type View struct {
	ID       string      `json:"id"`
	Revision int64       `json:"revision"`
	Saved    time.Time   `json:"saved"`
	Undo     string      `json:"undo,omitempty"`
	Redo     string      `json:"redo,omitempty"`
	Card     card.Card   `json:"card"`
	Scene    scene.Scene `json:"scene"`
	// Findings are those of the checks that read the scene.
	Findings []check.Finding `json:"findings"`
	// Made are the ids of items that the change made.
	Made []string `json:"made,omitempty"`
	// Part says that Scene.Faces are only the faces that differ, and items, in
	// the scene and in the document, only those that do; Order then lists all.
	Part  bool    `json:"part,omitempty"`
	Order []Order `json:"order,omitempty"`
}

// load returns the card in memory, locked; the caller unlocks it.
func (a *App) load(ctx context.Context, id string) (*opened, error) {
	a.mu.Lock()
	o := a.cards[id]
	if o == nil {
		// A handful of cards is open at a time; an odd many is simply reread.
		if len(a.cards) > 64 {
			clear(a.cards)
		}
		o = &opened{}
		a.cards[id] = o
	}
	a.mu.Unlock()
	o.Lock()
	if o.rev.Number == 0 {
		rev, err := a.store.Head(ctx, id)
		if err == nil {
			err = o.set(rev)
		}
		if err != nil {
			o.Unlock()
			return nil, err
		}
	}
	return o, nil
}

func (o *opened) set(rev Revision) error {
	s, err := scene.After(rev.Card, o.rev.Card, o.scene)
	if err != nil {
		return err
	}
	o.rev, o.scene = rev, s
	return nil
}

func (a *App) view(id string, o *opened) View {
	return View{ID: id, Revision: o.rev.Number, Saved: o.rev.At, Undo: o.rev.Undo, Redo: o.rev.Redo, Card: o.rev.Card, Scene: o.scene, Findings: check.Run(check.TheScene, o.rev.Card, o.scene)}
}

// Cards lists the cards on the table.
func (a *App) Cards(ctx context.Context, find string) ([]Summary, error) {
	return a.store.Cards(ctx, find)
}

// Create puts a new card on the table.
func (a *App) Create(ctx context.Context, c card.Card) (string, error) {
	if err := a.verify(ctx, c); err != nil {
		return "", err
	}
	id := newID()
	if err := a.store.Create(ctx, id, c, "", a.now()); err != nil {
		return "", fmt.Errorf("create card: %w", err)
	}
	a.Events.send(Event{Kind: "table"})
	return id, nil
}

// Duplicate puts a copy of the card on the table.
func (a *App) Duplicate(ctx context.Context, id string) (string, error) {
	rev, err := a.store.Head(ctx, id)
	if err != nil {
		return "", err
	}
	c, err := card.RenameCard{Title: copyTitle(rev.Card.Title)}.Apply(rev.Card)
	if err != nil {
		return "", err
	}
	return a.Create(ctx, c)
}

// Title is the name of a card.
func (a *App) Title(ctx context.Context, id string) (string, error) {
	o, err := a.load(ctx, id)
	if err != nil {
		return "", err
	}
	defer o.Unlock()
	return o.rev.Card.Title, nil
}

func copyTitle(title string) string {
	const suffix = ", copy"
	if r := []rune(title); len(r)+len(suffix) > 120 {
		title = string(r[:120-len(suffix)])
	}
	return title + suffix
}

// Remove takes a card off the table; it can be restored.
func (a *App) Remove(ctx context.Context, id string) error {
	if err := a.store.Remove(ctx, id, a.now()); err != nil {
		return err
	}
	a.mu.Lock()
	delete(a.cards, id)
	a.mu.Unlock()
	a.Events.send(Event{Kind: "table"})
	return nil
}

// Restore puts a removed card back.
func (a *App) Restore(ctx context.Context, id string) error {
	if err := a.store.Restore(ctx, id); err != nil {
		return err
	}
	a.Events.send(Event{Kind: "table"})
	return nil
}

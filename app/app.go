// Package app holds the use cases, each with the small part of the store that it needs:
// cards (opening, changing, undo), supplies (pictures, drawings, sketches and what is noted
// about them), production (sheets, paper on hand, printing), outcomes (what became of runs),
// machining (the cutter) and jobs. It declares what it needs of the store and of the devices
// and knows neither HTTP nor SQL.
package app

import (
	"context"
	"crypto/rand"
	"encoding/hex"
	"log/slog"
	"sync"
	"time"

	"sectilis/core/document/pattern"
	"sectilis/core/ground/cache"
	"sectilis/core/ground/edging"
)

// Store keeps everything. When a method returns, what it was given is safe on disk.
type Store interface {
	CardStore
	SupplyStore
	ProductionStore
	OutcomeStore
}

// keeper keeps values under names.
type keeper interface {
	// Kept is what was kept under a name, or ErrNotFound.
	Kept(ctx context.Context, name string) ([]byte, error)
	Keep(ctx context.Context, name string, value []byte) error
}

// App is the use cases over a store and devices.
type App struct {
	*cards
	*supplies
	*production
	*outcomes
	*machining
	*jobs
	Events *Hub
}

// common is what all use cases have.
type common struct {
	now    func() time.Time
	log    *slog.Logger
	events *Hub
	// lists is held while a list that is kept beside the cards is read, changed and written.
	lists *sync.Mutex
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
	all := common{c.Now, c.Log, newHub(), new(sync.Mutex)}
	a := &App{Events: all.events, jobs: newJobs(all.events)}
	m := &machine{own: c.Cutter, other: c.OtherCutter}
	fonts := &fontShelf{store: c.Store}
	edited := newEdited()
	papers := &shelf[pattern.Paper]{store: c.Store, name: keptPapers, know: pattern.Know}
	motifs := &shelf[edging.Own]{store: c.Store, name: keptMotifs, know: edging.Know}
	stocks := newStockShelf(c.Store, c.Log)
	shelf := &inkShelf{store: c.Store, stocks: stocks, printer: printerName(c.Printer), log: c.Log, events: all.events}
	a.cards = &cards{common: all, store: c.Store, fonts: fonts, edited: edited, inks: shelf, stocks: stocks, papers: papers, motifs: motifs, open: map[string]*opened{}}
	a.supplies = &supplies{common: all, store: c.Store, cards: a.cards, fonts: fonts, edited: edited, large: make(chan struct{}, 1), thumb: cache.New[string, thumbnail](256)}
	a.outcomes = &outcomes{common: all, store: c.Store, runs: runs{known: cache.New[string, RunState](512)}}
	a.production = &production{common: all, store: c.Store, cards: a.cards, supplies: a.supplies, outcomes: a.outcomes, jobs: a.jobs, machine: m,
		printer: c.Printer, inks: shelf, stocks: stocks, printScale: c.PrintScale, layouts: cache.New[string, layout](256)}
	a.machining = &machining{common: all, store: c.Store, production: a.production, outcomes: a.outcomes, jobs: a.jobs, machine: m}
	if err := fonts.ready(context.Background()); err != nil {
		c.Log.Warn("fonts not read", "err", err) // whoever needs them asks again
	}
	if err := stocks.ready(context.Background()); err != nil {
		c.Log.Warn("stocks not read", "err", err) // likewise
	}
	if err := a.cards.supplied(context.Background()); err != nil {
		c.Log.Warn("papers and motifs not read", "err", err) // likewise
	}
	if err := a.useKeptCutter(context.Background()); err != nil {
		c.Log.Warn("cutter not read", "err", err) // CutterState asks again
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

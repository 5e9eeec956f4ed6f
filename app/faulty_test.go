package app_test

import (
	"context"
	"encoding/json"
	"errors"
	"io"
	"log/slog"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/core/production/sheet"
)

var errDisk = errors.New("the disk does not answer")

// faulty is a store of which some methods fail.
type faulty struct {
	app.Store
	mu    sync.Mutex
	fails map[string]bool
	keys  []string // of layouts that were asked for
}

func (s *faulty) fail(names ...string) {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.fails = map[string]bool{}
	for _, n := range names {
		s.fails[n] = true
	}
}

func (s *faulty) err(name string) error {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.fails[name] {
		return errDisk
	}
	return nil
}

// unless returns what a method of the store does, unless it fails.
func unless[T any](s *faulty, name string, do func() (T, error)) (v T, err error) {
	if err := s.err(name); err != nil {
		return v, err
	}
	return do()
}

func (s *faulty) Layout(ctx context.Context, key string) ([]byte, error) {
	s.mu.Lock()
	s.keys = append(s.keys, key)
	s.mu.Unlock()
	return unless(s, "layout", func() ([]byte, error) { return s.Store.Layout(ctx, key) })
}

func (s *faulty) Run(ctx context.Context, key string) ([]byte, error) {
	return unless(s, "run", func() ([]byte, error) { return s.Store.Run(ctx, key) })
}

func (s *faulty) Result(ctx context.Context, key string) ([]byte, error) {
	return unless(s, "result", func() ([]byte, error) { return s.Store.Result(ctx, key) })
}

func (s *faulty) Settings(ctx context.Context, stock string) ([]byte, error) {
	return unless(s, "settings", func() ([]byte, error) { return s.Store.Settings(ctx, stock) })
}

func (s *faulty) Kept(ctx context.Context, name string) ([]byte, error) {
	return unless(s, "kept", func() ([]byte, error) { return s.Store.Kept(ctx, name) })
}

func (s *faulty) EnvelopeOf(ctx context.Context, id string) (string, error) {
	return unless(s, "envelopeOf", func() (string, error) { return s.Store.EnvelopeOf(ctx, id) })
}

func (s *faulty) TieEnvelope(ctx context.Context, envelope, id string) error {
	_, err := unless(s, "tie", func() (string, error) { return "", s.Store.TieEnvelope(ctx, envelope, id) })
	return err
}

func (s *faulty) KeepRun(ctx context.Context, key string, state []byte, at time.Time) error {
	_, err := unless(s, "keep run", func() (any, error) { return nil, s.Store.KeepRun(ctx, key, state, at) })
	return err
}

// onFaulty starts the program anew on a store that can be made to fail.
func (f *fixture) onFaulty(fails ...string) *faulty {
	s := &faulty{Store: f.store}
	s.fail(fails...)
	f.App = app.New(app.Config{Store: s, Printer: f.press, Cutter: f.bench, Log: slog.New(slog.NewTextHandler(io.Discard, nil)),
		OtherCutter: func(o app.OtherCutter) app.Cutter { return &bench{state: app.CutterState{Name: o.Address}} }})
	f.t.Cleanup(f.App.Close)
	return s
}

// A layout that was printed is not replaced by another because the store does not answer.
func TestAFailingStoreIsNoEmptyStore(t *testing.T) {
	f := start(t)
	id := f.card()
	s := f.onFaulty()
	first, err := f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	// Another layout was found later, and printed: a piece lies a little lower.
	var answer map[string]any
	var key string
	s.mu.Lock()
	keys := s.keys
	s.mu.Unlock()
	for _, sh := range first.Sheets {
		require.NotEmpty(t, sh.Pieces)
	}
	rev, err := f.store.Head(t.Context(), id)
	require.NoError(t, err)
	view, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	problems := sheet.Lay(rev.Card, view.Scene, letter(), nil).Nested
	for _, p := range problems {
		raw, err := json.Marshal(sheet.First(p))
		require.NoError(t, err)
		require.NoError(t, json.Unmarshal(raw, &answer))
		place := answer["Places"].([]any)[0].(map[string]any)
		place["At"].([]any)[5] = place["At"].([]any)[5].(float64) + 1
		raw, err = json.Marshal(answer)
		require.NoError(t, err)
		if key = p.Key(); len(p.Parts) == 1 {
			require.Contains(t, keys, key)
			require.NoError(t, f.store.KeepLayout(t.Context(), key, raw, time.Now()))
		}
	}
	at := func(l app.LayoutView, n int) float64 { return l.Sheets[n].Pieces[0].At.F }

	s = f.onFaulty("layout")
	_, err = f.Layout(t.Context(), id, letter())
	require.ErrorIs(t, err, errDisk)
	s.fail()
	second, err := f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	moved := 0
	for n := range first.Sheets {
		if at(second, n) != at(first, n) {
			moved++
			assert.InDelta(t, at(first, n)+1, at(second, n), 1e-9)
		}
	}
	assert.NotZero(t, moved, "what was kept is laid, not what comes first")

	// A run that was broken off is not begun anew, nor is anything else made up.
	j, err := f.Run(t.Context(), id, letter(), 1, app.From{})
	require.NoError(t, err)
	f.step(j.ID, nil)
	f.step(j.ID, errDisk)
	f.until(j.ID, app.Failed)
	for _, name := range []string{"run", "result", "settings", "kept"} {
		s = f.onFaulty(name)
		_, err = f.Layout(t.Context(), id, letter())
		require.ErrorIs(t, err, errDisk, name)
		_, err = f.Run(t.Context(), id, letter(), 1, app.From{})
		require.ErrorIs(t, err, errDisk, name)
		s.fail()
		l, err := f.Layout(t.Context(), id, letter())
		require.NoError(t, err)
		assert.Equal(t, app.RunFailed, l.Sheets[0].State.State, name)
	}
	s.fail("kept")
	_, err = f.Scraps(t.Context())
	require.ErrorIs(t, err, errDisk)
	_, err = f.OnHand(t.Context())
	require.ErrorIs(t, err, errDisk)
	_, err = f.TrueSize(t.Context(), letter().Size)
	require.ErrorIs(t, err, errDisk)

	// Which cutter was named is asked again, and no other is used meanwhile.
	s.fail()
	require.NoError(t, f.UseCutter(t.Context(), app.OtherCutter{Address: "garage:9100", Width: 600, Height: 300}))
	s = f.onFaulty("kept")
	assert.Equal(t, app.CutterAway, f.CutterState(t.Context()).State)
	s.fail()
	assert.Equal(t, "garage:9100", f.CutterState(t.Context()).Name)
}

// How far a run has come is noted before the machine is let go on; where that fails, the
// run ends.
func TestARunEndsWhenItsProgressCannotBeNoted(t *testing.T) {
	f := start(t)
	id := f.card()
	s := f.onFaulty()
	j, err := f.Run(t.Context(), id, letter(), 1, app.From{})
	require.NoError(t, err)
	f.step(j.ID, nil)
	s.fail("keep run")
	for range 8 {
		select {
		case f.bench.goOn <- nil:
			continue
		case <-time.After(2 * time.Second):
		}
		break
	}
	f.until(j.ID, app.Failed)
	now, err := f.Job(j.ID)
	require.NoError(t, err)
	assert.Contains(t, now.Note, "could not be noted")
	assert.LessOrEqual(t, len(f.bench.ran), 5)
}

// One owner has the machine from the loading of a sheet to the end of its run.
func TestTheMachineHasOneOwner(t *testing.T) {
	f := start(t)
	id := f.card()
	j, err := f.Run(t.Context(), id, letter(), 1, app.From{})
	require.NoError(t, err)
	f.step(j.ID, nil)
	for name, do := range map[string]func() error{
		"run":  func() error { _, err := f.Run(t.Context(), id, letter(), 2, app.From{}); return err },
		"load": func() error { _, err := f.Load(t.Context(), id, letter(), 2); return err },
		"find": func() error { _, err := f.FindMarks(t.Context(), id, letter(), 1); return err },
		"test": func() error { _, err := f.TestCut(t.Context(), id, letter(), 1); return err },
		"name": func() error { return f.UseCutter(t.Context(), app.OtherCutter{}) },
	} {
		err := do()
		require.ErrorIs(t, err, app.ErrBusy, name)
		assert.Regexp(t, `^Sheet 1 of “.*” is being cut\. Wait until that is done, or stop it\.$`, err.Error())
	}
	// What is cut is the sheet as it was: a change meanwhile is told.
	l, err := f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	assert.Empty(t, l.Changed)
	_, err = f.Change(t.Context(), id, 1, []card.Command{fold.SetBase{Base: card.Base{Kind: card.TopFold, Width: 127, Height: 120, Stock: "cream-300"}}})
	require.NoError(t, err)
	l, err = f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	assert.Contains(t, l.Changed, "changed while sheet 1 is being cut")

	require.NoError(t, f.StopJob(j.ID))
	f.until(j.ID, app.Stopped)
	l, err = f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	assert.Empty(t, l.Changed)
	j, err = f.Run(t.Context(), id, letter(), 2, app.From{})
	require.NoError(t, err, "it is free again")
	require.NoError(t, f.StopJob(j.ID))
	f.until(j.ID, app.Stopped)
}

// Of a machine that tells nothing, nobody knows how far it came: a person points at the
// path to go on from.
func TestAfterASilentMachineAPersonSaysWhereToGoOn(t *testing.T) {
	f := start(t)
	id := f.card()
	j, err := f.Run(t.Context(), id, letter(), 1, app.From{})
	require.NoError(t, err)
	for range 5 {
		f.step(j.ID, nil)
	}
	f.step(j.ID, &app.Halt{Err: errors.New("the connection to the cutter was lost"), Unknown: true})
	f.until(j.ID, app.Failed)
	l, err := f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	state := l.Sheets[0].State
	assert.True(t, state.Unknown)
	assert.Contains(t, state.Why, "point at the first path that is not cut")
	_, err = f.Run(t.Context(), id, letter(), 1, app.From{GoOn: true})
	require.ErrorContains(t, err, "How far sheet 1 is cut is not known")
	_, err = f.Run(t.Context(), id, letter(), 1, app.From{GoOn: true, Path: &app.PathOf{Pass: 7, Path: 0}})
	require.ErrorContains(t, err, "no such path")
	ran := len(f.bench.ran)
	j, err = f.Run(t.Context(), id, letter(), 1, app.From{GoOn: true, Path: &app.PathOf{Pass: 0, Path: 0}})
	require.NoError(t, err)
	f.step(j.ID, nil)
	require.Eventually(t, func() bool { return f.bench.steps.Load() == int64(ran+1) }, time.Minute, time.Millisecond)
	assert.Regexp(t, `^SP2;`, f.bench.ran[ran].Text, "the score once more")
	require.NoError(t, f.StopJob(j.ID))
	f.until(j.ID, app.Stopped)
}

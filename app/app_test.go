package app_test

import (
	"bytes"
	"context"
	"errors"
	"image/png"
	"io"
	"log/slog"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/coretest"
	"sectilis/core/coretest/sheettest"
	"sectilis/core/design/pathops"
	"sectilis/core/document/card"
	"sectilis/core/document/picture"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/format/hpgl"
	"sectilis/core/ground/geom"
	"sectilis/core/production/cut"
	"sectilis/core/production/sheet"
	"sectilis/store"
)

// press is a printer that keeps what it gets; each page waits for a go.
type press struct {
	pages []app.Page
	goOn  chan error
}

func (p *press) Name() string { return "Press" }

func (p *press) Print(ctx context.Context, page app.Page) (string, error) {
	select {
	case err := <-p.goOn:
		if err == nil {
			p.pages = append(p.pages, page)
		}
		return "", err
	case <-ctx.Done():
		return "", ctx.Err()
	}
}

func (p *press) Picture(context.Context, string, bool) ([]byte, error) { return nil, app.ErrNotFound }

// bench is a cutter that does one step for each go.
type bench struct {
	ran   []hpgl.Step
	state app.CutterState
	goOn  chan error
	steps atomic.Int64
}

func (b *bench) State(context.Context) app.CutterState { return b.state }

func (b *bench) Run(ctx context.Context, steps []hpgl.Step, done func(int) error) error {
	for i := range steps {
		select {
		case err := <-b.goOn:
			if err != nil {
				return err
			}
			b.ran = append(b.ran, steps[i])
			b.steps.Add(1)
			if err := done(i); err != nil {
				return &app.Halt{Err: err}
			}
		case <-ctx.Done():
			return &app.Halt{Err: ctx.Err()}
		}
	}
	return nil
}

func (b *bench) See(_ context.Context, _, _ geom.Point, n int) ([]float64, error) {
	return make([]float64, n), nil
}

// Rest is the end of what it has done last, with the tool down.
func (b *bench) Rest(context.Context) (geom.Point, bool, error) {
	for _, s := range slices.Backward(b.ran) {
		if at, ok := s.End(); ok {
			return at, true, nil
		}
	}
	return geom.Point{}, false, nil
}

func (b *bench) Picture(context.Context) ([]byte, error) { return []byte("picture"), nil }

type fixture struct {
	t *testing.T
	*app.App
	store *store.Store
	press *press
	bench *bench
}

func start(t *testing.T) *fixture {
	t.Helper()
	s, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "a.db"))
	require.NoError(t, err)
	f := &fixture{t: t, store: s, press: &press{goOn: make(chan error)}, bench: &bench{
		state: app.CutterState{Name: "Bench", Ready: true, State: "ready", Bed: [2]float64{305, 305}}, goOn: make(chan error),
	}}
	f.App = app.New(app.Config{Store: s, Printer: f.press, Cutter: f.bench, Log: slog.New(slog.NewTextHandler(io.Discard, nil)),
		Now: func() time.Time { return time.UnixMilli(1_790_000_000_000) }})
	t.Cleanup(func() { f.Close(); _ = s.Close() })
	return f
}

// again is the program started anew on the same cards.
func (f *fixture) again() *app.App {
	a := app.New(app.Config{Store: f.store, Printer: f.press, Cutter: f.bench, Log: slog.New(slog.NewTextHandler(io.Discard, nil))})
	f.t.Cleanup(a.Close)
	return a
}

// step lets the cutter do one step of a run, or fail at it. Tools that the run asks for
// are put in.
func (f *fixture) step(job string, err error) {
	f.t.Helper()
	for end := time.Now().Add(time.Minute); time.Now().Before(end); {
		select {
		case f.bench.goOn <- err:
			return
		case <-time.After(time.Millisecond):
			if j, err := f.Job(job); err == nil && j.Needs > 0 {
				require.NoError(f.t, f.HoldJob(job, false))
			}
		}
	}
	f.t.Fatal("the cutter waits for nothing")
}

// card puts the test card on the table, with its picture in the tray.
func (f *fixture) card() string {
	f.t.Helper()
	raw, _ := coretest.Photo(f.t, 300, 200)
	_, err := f.BringIn(f.t.Context(), "gate.jpg", raw)
	require.NoError(f.t, err)
	id, err := f.Create(f.t.Context(), coretest.Card(f.t))
	require.NoError(f.t, err)
	return id
}

func letter() sheet.Options { return sheettest.Usual(sheet.Sizes()[0]) }

func TestAChangeBehindItsBackIsNoticed(t *testing.T) {
	f := start(t)
	id := f.card()
	v, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	// Another process on the same file.
	_, err = f.store.Commit(t.Context(), id, v.Revision, coretest.Empty(t), "Elsewhere", time.Now())
	require.NoError(t, err)
	_, err = f.Change(t.Context(), id, v.Revision, []card.Command{card.RenameCard{Title: "Here"}})
	require.ErrorIs(t, err, app.ErrStale)
	v, err = f.Open(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, int64(2), v.Revision, "what is on disk is what counts")
	assert.Equal(t, "Test card", v.Card.Title)
	v, err = f.Change(t.Context(), id, 2, []card.Command{card.RenameCard{Title: "Here"}})
	require.NoError(t, err)
	assert.Equal(t, "Rename the card", v.Undo)
}

func TestARefusedBatchLeavesTheCardAsItWas(t *testing.T) {
	f := start(t)
	id := f.card()
	_, err := f.Change(t.Context(), id, 1, []card.Command{card.RenameCard{Title: "Good"}, card.MoveItems{IDs: []string{"nobody"}}})
	var r *card.Refusal
	require.ErrorAs(t, err, &r)
	v, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, int64(1), v.Revision)
	assert.Equal(t, "Test card", v.Card.Title)
	gone, cancel := context.WithCancel(t.Context())
	cancel()
	_, err = f.Change(gone, id, 1, []card.Command{card.RenameCard{Title: "Late"}})
	require.Error(t, err, "a client that is gone gets nothing acknowledged")
	v, err = f.Open(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, "Test card", v.Card.Title)
}

func TestListenersHearOfEveryChange(t *testing.T) {
	f := start(t)
	id := f.card()
	list, end := f.Events.Listen()
	_, err := f.Change(t.Context(), id, 1, []card.Command{card.RenameCard{Title: "One"}})
	require.NoError(t, err)
	assert.Equal(t, app.Event{Kind: "card", Card: id, Revision: 2}, <-list)
	_, err = f.Undo(t.Context(), id, 2)
	require.NoError(t, err)
	assert.Equal(t, int64(3), (<-list).Revision)
	require.NoError(t, f.Remove(t.Context(), id))
	assert.Equal(t, app.TableEvent, (<-list).Kind)
	end()
	end() // twice does no harm
	_, open := <-list
	assert.False(t, open)
	require.NoError(t, f.Restore(t.Context(), id), "with nobody listening")
}

func TestCopiesHaveTheirOwnLife(t *testing.T) {
	f := start(t)
	id := f.card()
	long := strings.Repeat("ä", 120)
	_, err := f.Change(t.Context(), id, 1, []card.Command{card.RenameCard{Title: long}})
	require.NoError(t, err)
	twin, err := f.Duplicate(t.Context(), id)
	require.NoError(t, err)
	v, err := f.Open(t.Context(), twin)
	require.NoError(t, err)
	assert.True(t, strings.HasSuffix(v.Card.Title, "ä, copy"))
	assert.Empty(t, v.Undo, "a copy begins anew")
	assert.Len(t, v.Card.Faces[0].Items, 5)
	_, err = f.Duplicate(t.Context(), "nobody")
	assert.ErrorIs(t, err, app.ErrNotFound)
}

func TestPicturesAreNamedAsPeopleSayThem(t *testing.T) {
	f := start(t)
	raw, id := coretest.Photo(t, 30, 20)
	for name, want := range map[string]string{
		"garden_gate.JPG": "garden gate", ".jpg": ".jpg", "no\x00\x01tes.jpeg": "notes", strings.Repeat("x", 300) + ".jpg": strings.Repeat("x", 80),
	} {
		p, err := f.BringIn(t.Context(), name, raw)
		require.NoError(t, err, name)
		assert.Equal(t, want, p.Name)
		assert.Equal(t, id, p.ID)
	}
	all, err := f.Pictures(t.Context())
	require.NoError(t, err)
	assert.Len(t, all, 1, "the same bytes are the same picture")
	_, err = f.BringIn(t.Context(), "x.jpg", raw[:len(raw)/2])
	var bad *picture.Error
	assert.ErrorAs(t, err, &bad)
	for _, side := range app.Sides {
		kind, preview, err := f.PicturePreview(t.Context(), id, side)
		require.NoError(t, err)
		assert.Equal(t, "image/jpeg", kind)
		assert.NotEmpty(t, preview)
	}
}

func TestTheThumbnailFollowsTheCard(t *testing.T) {
	f := start(t)
	id := f.card()
	first, err := f.Thumbnail(t.Context(), id)
	require.NoError(t, err)
	img, err := png.Decode(bytes.NewReader(first))
	require.NoError(t, err)
	assert.Equal(t, 360, img.Bounds().Dy())
	again, err := f.Thumbnail(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, first, again)
	_, err = f.Change(t.Context(), id, 1, []card.Command{card.RemoveItems{IDs: []string{"i1"}}})
	require.NoError(t, err)
	changed, err := f.Thumbnail(t.Context(), id)
	require.NoError(t, err)
	assert.NotEqual(t, first, changed)
}

// until waits for a job to come to its end.
func (f *fixture) until(id string, state app.JobState) app.Job {
	f.t.Helper()
	var j app.Job
	require.Eventually(f.t, func() bool {
		var err error
		j, err = f.Job(id)
		require.NoError(f.t, err)
		return j.State == state
	}, time.Minute, time.Millisecond, "the job should be %s", state)
	return j
}

func TestAPrintJobTellsWhatBecameOfIt(t *testing.T) {
	f := start(t)
	id := f.card()
	j, err := f.Print(t.Context(), id, letter())
	require.NoError(t, err)
	for range 5 {
		f.press.goOn <- nil
	}
	j = f.until(j.ID, app.Done)
	assert.Equal(t, "5 pages printed", j.Note)
	require.Len(t, f.press.pages, 5)
	assert.Equal(t, "Test card, sheet 1, inside", f.press.pages[1].Title)
	cfg, err := png.DecodeConfig(bytes.NewReader(f.press.pages[0].PNG))
	require.NoError(t, err)
	assert.Equal(t, []int{2550, 3300}, []int{cfg.Width, cfg.Height}, "Letter at 300 dpi")

	j, err = f.Print(t.Context(), id, letter())
	require.NoError(t, err)
	f.press.goOn <- errors.New("out of ink")
	assert.Equal(t, "Out of ink.", f.until(j.ID, app.Failed).Note)

	j, err = f.Print(t.Context(), id, letter())
	require.NoError(t, err)
	require.NoError(t, f.StopJob(j.ID))
	f.until(j.ID, app.Stopped)

	empty, err := f.Create(t.Context(), coretest.Empty(t))
	require.NoError(t, err)
	_, err = f.Print(t.Context(), empty, letter())
	assert.ErrorContains(t, err, "Nothing on these sheets is printed")
}

func TestARunIsRememberedAsLongAsTheSheetIsTheSame(t *testing.T) {
	f := start(t)
	id := f.card()
	state := func() app.RunState {
		l, err := f.Layout(t.Context(), id, letter())
		require.NoError(t, err)
		return l.Sheets[0].State
	}
	assert.Equal(t, app.RunWaiting, state().State)
	l, err := f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	steps := hpgl.Steps(l.Sheets[0].Passes, l.Sheets[0].Size.Height)

	j, err := f.Run(t.Context(), id, letter(), 1, app.From{})
	require.NoError(t, err)
	last := -1.0
	for i := range steps {
		f.step(j.ID, nil)
		require.Eventually(t, func() bool { return f.bench.steps.Load() == int64(i+1) }, time.Minute, time.Millisecond)
		now, err := f.Job(j.ID)
		require.NoError(t, err)
		assert.GreaterOrEqual(t, now.Progress, last, "progress never goes back")
		last = now.Progress
	}
	f.until(j.ID, app.Done)
	done := state()
	assert.Equal(t, app.RunDone, done.State)
	raw, err := f.RunPicture(t.Context(), regexp.MustCompile(`[0-9a-f]{24}`).FindString(done.Picture))
	require.NoError(t, err)
	assert.Equal(t, "picture", string(raw))

	// A stop keeps the picture, a lost connection says so.
	j, err = f.Run(t.Context(), id, letter(), 1, app.From{})
	require.NoError(t, err)
	f.step(j.ID, nil)
	require.NoError(t, f.StopJob(j.ID))
	f.until(j.ID, app.Stopped)
	assert.Equal(t, app.RunStopped, state().State)
	j, err = f.Run(t.Context(), id, letter(), 1, app.From{})
	require.NoError(t, err)
	f.step(j.ID, errors.New("the connection to the cutter was lost"))
	f.until(j.ID, app.Failed)
	assert.Equal(t, "The connection to the cutter was lost.", state().Why)

	// What has been changed since has not been cut.
	_, err = f.Change(t.Context(), id, 1, []card.Command{fold.SetBase{Base: card.Base{Kind: card.TopFold, Width: 127, Height: 120, Stock: "cream-300"}}})
	require.NoError(t, err)
	assert.Equal(t, app.RunWaiting, state().State)
}

func TestARunGoesOnWhereItWasBrokenOff(t *testing.T) {
	f := start(t)
	id := f.card()
	_, err := f.Run(t.Context(), id, letter(), 1, app.From{GoOn: true})
	assert.ErrorContains(t, err, "was not broken off")
	j, err := f.Run(t.Context(), id, letter(), 1, app.From{})
	require.NoError(t, err)
	const done = 6
	for range done {
		f.step(j.ID, nil)
	}
	f.step(j.ID, errors.New("the connection to the cutter was lost"))
	f.until(j.ID, app.Failed)

	// The program ends and starts again.
	f.Close()
	f.App = app.New(app.Config{Store: f.store, Printer: f.press, Cutter: f.bench, Log: slog.New(slog.NewTextHandler(io.Discard, nil))})
	t.Cleanup(f.Close)
	l, err := f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	state := l.Sheets[0].State
	assert.Equal(t, []any{app.RunFailed, done}, []any{state.State, state.Done})
	j, err = f.Run(t.Context(), id, letter(), 1, app.From{GoOn: true})
	require.NoError(t, err)
	for range state.Of - done {
		f.step(j.ID, nil)
	}
	f.until(j.ID, app.Done)
	require.Len(t, f.bench.ran, state.Of, "each step is done once")
	assert.Regexp(t, `^SP\d;VS\d+;FS\d+;PU`, f.bench.ran[done].Text, "the tool is taken up where it was")
	moved := cut.Move(l.Sheets[0].Passes, geom.Shift(0, 305-l.Sheets[0].Size.Height))
	for i, want := range hpgl.Steps(moved, 305) {
		assert.True(t, strings.HasSuffix(f.bench.ran[i].Text, want.Text), "step %d: %s", i, f.bench.ran[i].Text)
	}
	_, err = f.Run(t.Context(), id, letter(), 1, app.From{GoOn: true})
	assert.ErrorContains(t, err, "was not broken off", "what is done is done")
}

func TestARunGoesOnOnlyOnItsOwnSheet(t *testing.T) {
	f := start(t)
	id := f.card()
	for _, sheet := range []int{1, 2} {
		j, err := f.Run(t.Context(), id, letter(), sheet, app.From{})
		require.NoError(t, err)
		f.step(j.ID, nil)
		f.step(j.ID, errors.New("the connection to the cutter was lost"))
		f.until(j.ID, app.Failed)
	}
	_, err := f.Run(t.Context(), id, letter(), 1, app.From{GoOn: true})
	assert.ErrorContains(t, err, "does not lie on the cutting mat any more", "sheet 2 does")
	f.bench.state.Hand = true
	_, err = f.Run(t.Context(), id, letter(), 2, app.From{GoOn: true})
	assert.ErrorContains(t, err, "does not lie on the cutting mat any more", "it was taken off")
	f.bench.state.Loaded = true
	j, err := f.Run(t.Context(), id, letter(), 2, app.From{GoOn: true})
	require.NoError(t, err)
	require.NoError(t, f.StopJob(j.ID))
	f.until(j.ID, app.Stopped)
}

func TestAPageGoesOutAsAPicture(t *testing.T) {
	f := start(t)
	id := f.card()
	var b bytes.Buffer
	require.NoError(t, f.WritePage(t.Context(), &b, id, letter(), 1, app.PageAs{DPI: 150}))
	cfg, err := png.DecodeConfig(bytes.NewReader(b.Bytes()))
	require.NoError(t, err)
	assert.Equal(t, []int{1275, 1650}, []int{cfg.Width, cfg.Height}, "Letter at 150 to the inch")
	b.Reset()
	require.NoError(t, f.WritePage(t.Context(), &b, id, letter(), 1, app.PageAs{DPI: 150, JPEG: true, Back: true}))
	assert.Equal(t, "\xff\xd8", b.String()[:2])
	assert.ErrorContains(t, f.WritePage(t.Context(), &b, id, letter(), 1, app.PageAs{DPI: 50}), "from 150 to 600")
	l, err := f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	for _, sh := range l.Sheets {
		if !sh.Printed {
			assert.ErrorContains(t, f.WritePage(t.Context(), &b, id, letter(), sh.Number, app.PageAs{DPI: 150}), "Nothing is printed")
		}
	}
}

func TestAStockIsCutAsItWasNoted(t *testing.T) {
	f := start(t)
	id := f.card()
	first := func() app.SheetView {
		l, err := f.Layout(t.Context(), id, letter())
		require.NoError(t, err)
		return l.Sheets[0]
	}
	was := first()
	assert.Equal(t, was.Usual, was.Settings)
	with := was.Settings
	with.Rounds, with.Speed = 3, 20
	require.NoError(t, f.KeepSettings(t.Context(), was.Stock.ID, with))
	is := first()
	assert.Equal(t, with, is.Settings)
	assert.Equal(t, was.Usual, is.Usual)
	last := len(is.Passes) - 1
	assert.InDelta(t, 1.5, is.Passes[last].Length/was.Passes[last].Length, .01, "three times round for twice")

	with.Offset = -1
	var refusal *card.Refusal
	require.ErrorAs(t, f.KeepSettings(t.Context(), was.Stock.ID, with), &refusal)
	assert.Equal(t, "offset", refusal.Field)
	assert.Equal(t, "The blade’s offset is from 0 to 2 mm.", refusal.Why)
	assert.Equal(t, is.Settings, first().Settings)
	assert.ErrorIs(t, f.KeepSettings(t.Context(), "velvet", is.Settings), app.ErrNotFound)
}

func TestARunThatCannotBeIsRefused(t *testing.T) {
	f := start(t)
	id := f.card()
	f.bench.state.Bed = [2]float64{200, 200}
	_, err := f.Run(t.Context(), id, letter(), 1, app.From{})
	assert.ErrorContains(t, err, "the machine reaches 7 ⅞ × 7 ⅞ in (200 × 200 mm)")
	f.bench.state = app.CutterState{State: "away", Why: "its cable is out"}
	_, err = f.Run(t.Context(), id, letter(), 1, app.From{})
	assert.ErrorContains(t, err, "The cutter is not ready: its cable is out")
	_, err = f.Run(t.Context(), id, letter(), 99, app.From{})
	assert.ErrorIs(t, err, app.ErrNotFound)

	bare := app.New(app.Config{Store: f.store})
	defer bare.Close()
	assert.Equal(t, app.CutterAway, bare.CutterState(t.Context()).State)
	_, err = bare.Printed(t.Context(), "p1", false)
	assert.ErrorIs(t, err, app.ErrNotFound)
	j, err := bare.Print(t.Context(), id, letter())
	require.NoError(t, err)
	require.Eventually(t, func() bool {
		j, err = bare.Job(j.ID)
		return err == nil && j.State == app.Failed
	}, time.Minute, time.Millisecond)
	assert.Contains(t, j.Note, "No printer is named")
}

// Joined script is cut as one outline, not letter by letter.
func TestLetteringIsCutAsItIsCovered(t *testing.T) {
	f := start(t)
	id := f.card()
	cut := card.SetMade{IDs: []string{"i5"}, Made: card.Made{As: card.Cut, Stock: "moss-216", Lift: 1}}
	_, err := f.Change(t.Context(), id, 1, []card.Command{cut})
	require.NoError(t, err)
	outlines := func() []geom.Path {
		l, err := f.Layout(t.Context(), id, letter())
		require.NoError(t, err)
		for _, sh := range l.Sheets {
			if sh.Stock.ID == "moss-216" {
				assert.Equal(t, "Inside cuts", sh.Passes[0].Name, "the middles of a, e and p first")
				assert.Equal(t, "Outlines", sh.Passes[1].Name)
				return sh.Passes[1].Lines
			}
		}
		return nil
	}
	script := outlines()
	require.NotEmpty(t, script)
	assert.Less(t, len(script), len("HarvestSupper"))
	v, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	_, it := v.Card.Find("i5")
	words := *it.Words
	words.Font = "alfa-slab-one-400"
	_, err = f.Change(t.Context(), id, 2, []card.Command{card.SetWords{ID: "i5", Words: words}})
	require.NoError(t, err)
	assert.Len(t, outlines(), len("HarvestSupper"))
}

func TestATrialChangesNothing(t *testing.T) {
	f := start(t)
	id := f.card()
	grow := pathops.Grow{IDs: []string{"i4"}, By: 2, Corner: card.Round}
	v, err := f.Try(t.Context(), id, 1, []card.Command{grow})
	require.NoError(t, err)
	assert.EqualValues(t, 1, v.Revision)
	require.Len(t, v.Scene.Faces, 1)
	var grown scene.Item
	for _, it := range v.Scene.Faces[0].Items {
		if it.ID == "i4" {
			grown = it
		}
	}
	after, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	assert.EqualValues(t, 1, after.Revision)
	for _, it := range after.Scene.Face(card.Front).Items {
		if it.ID == "i4" {
			assert.InDelta(t, it.Bounds.W+4, grown.Bounds.W, 1e-6)
		}
	}
	_, err = f.Try(t.Context(), id, 1, []card.Command{pathops.Grow{IDs: []string{"i4"}, By: -50, Corner: card.Round}})
	assert.ErrorContains(t, err, "Nothing would be left of")
	_, err = f.Try(t.Context(), id, 7, []card.Command{grow})
	assert.ErrorIs(t, err, app.ErrStale)
}

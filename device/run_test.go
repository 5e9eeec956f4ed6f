package device_test

import (
	"bytes"
	"encoding/json"
	"image/png"
	"io"
	"log/slog"
	"math"
	"math/rand/v2"
	"net/http/httptest"
	"os"
	"path"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/coretest"
	"sectilis/core/coretest/sheettest"
	"sectilis/core/production/sheet"
	"sectilis/device"
	"sectilis/device/standin"
	"sectilis/store"
)

// desk is the app with both stand-ins and the test card, printed.
type desk struct {
	*app.App
	t      *testing.T
	store  *store.Store
	cutter *device.Cutter
	again  func() *app.App // the program started anew
	card   string
}

func letter() sheet.Options { return sheettest.Usual(sheet.Sizes()[0]) }

// coarse is the resolution of pages here, 200 dpi in pixels per mm: with that of real pages
// these tests take minutes under the race detector.
const coarse = 200 / 25.4

// printedOnce is a directory with the database and the printed sheets of the test card,
// made by the first test that needs it.
var printedOnce struct {
	dir, card string
}

func TestMain(m *testing.M) {
	code := m.Run()
	if printedOnce.dir != "" {
		_ = os.RemoveAll(printedOnce.dir)
	}
	os.Exit(code)
}

func newDesk(t *testing.T, pace float64) *desk {
	t.Helper()
	if printedOnce.dir == "" {
		dir, err := os.MkdirTemp("", "desk")
		require.NoError(t, err)
		d := deskIn(t, dir, 0)
		raw, _ := coretest.Photo(t, 300, 200)
		_, err = d.BringIn(t.Context(), "gate.jpg", raw)
		require.NoError(t, err)
		card, err := d.Create(t.Context(), coretest.Card(t))
		require.NoError(t, err)
		j, err := d.Print(t.Context(), card, letter())
		require.NoError(t, err)
		require.Equal(t, app.Done, d.until(j, nil).State)
		d.Close()
		require.NoError(t, d.store.Close())
		printedOnce.dir, printedOnce.card = dir, card
	}
	dir := t.TempDir()
	require.NoError(t, os.CopyFS(dir, os.DirFS(printedOnce.dir)))
	d := deskIn(t, dir, pace)
	d.card = printedOnce.card
	return d
}

// deskIn is a desk whose database and printed sheets are in a directory.
func deskIn(t *testing.T, dir string, pace float64) *desk {
	t.Helper()
	s, err := store.Open(t.Context(), filepath.Join(dir, "a.db"))
	require.NoError(t, err)
	cutter, _ := start(t, pace)
	paper, err := standin.NewPrinter(5, filepath.Join(dir, "printed"))
	require.NoError(t, err)
	paper.Scale = coarse
	printer := httptest.NewServer(paper.Handler())
	t.Cleanup(printer.Close)
	t.Cleanup(func() { _ = s.Close() })
	start := func() *app.App {
		a := app.New(app.Config{Store: s, Cutter: cutter, Printer: device.Printer{URL: printer.URL}, PrintScale: coarse, Log: slog.New(slog.NewTextHandler(io.Discard, nil))})
		t.Cleanup(a.Close)
		return a
	}
	return &desk{App: start(), t: t, store: s, cutter: cutter, again: start}
}

// until waits for the end of a job; tools that it asks for are put in, and a pause
// ends.
func (d *desk) until(j app.Job, look func(app.Job)) app.Job {
	d.t.Helper()
	require.Eventually(d.t, func() bool {
		var err error
		j, err = d.Job(j.ID)
		require.NoError(d.t, err)
		if look != nil {
			look(j)
		}
		if j.Needs > 0 || j.Paused {
			require.NoError(d.t, d.HoldJob(j.ID, false))
		}
		return j.State != app.Running
	}, 30*waitFor, tick)
	return j
}

// printed is the number of a sheet with marks, bare of one without.
func (d *desk) sheets() (printed, bare int) {
	l, err := d.Layout(d.t.Context(), d.card, letter())
	require.NoError(d.t, err)
	for _, sh := range l.Sheets {
		if len(sh.Marks) > 0 {
			printed = sh.Number
		} else {
			bare = sh.Number
		}
	}
	require.NotZero(d.t, printed)
	require.NotZero(d.t, bare)
	return printed, bare
}

func (d *desk) length() float64 {
	ways, err := d.cutter.Outcome(d.t.Context())
	require.NoError(d.t, err)
	sum := 0.0
	for _, w := range ways {
		for i := 1; i < len(w.Points); i++ {
			sum += w.Points[i].Sub(w.Points[i-1]).Len()
		}
	}
	return sum
}

func TestARunThatIsBrokenOffCutsEachPathOnce(t *testing.T) {
	d := newDesk(t, 25)
	printed, _ := d.sheets()
	j, err := d.Run(t.Context(), d.card, letter(), printed, app.From{})
	require.NoError(t, err)
	require.Equal(t, app.Done, d.until(j, nil).State)
	whole := d.length()

	r := rand.New(rand.NewPCG(61, 62))
	j, err = d.Run(t.Context(), d.card, letter(), printed, app.From{})
	require.NoError(t, err)
	broken, turns := 0, 0
	for kind := 0; ; kind++ {
		at := .05 + .18*r.Float64()
		from := -1.0
		if kind%3 == 1 {
			require.NoError(t, d.cutter.Mishap(t.Context(), app.Mishap{Lost: 40 + 100*r.Float64()}))
		}
		asked, paused := false, false
		j = d.until(j, func(j app.Job) {
			paused = paused || j.Paused
			if from < 0 {
				from = j.Progress
			}
			if asked || j.Progress < from+at || kind%3 == 1 {
				return
			}
			asked = true
			if kind%3 == 0 {
				require.NoError(t, d.StopJob(j.ID))
			} else {
				require.NoError(t, d.HoldJob(j.ID, true))
			}
		})
		if paused {
			turns++
		}
		if j.State == app.Done {
			break
		}
		if j.State == app.Failed {
			require.Contains(t, j.Note, "connection to the cutter was lost")
			if kind%2 == 0 {
				d.killed(printed)
			}
		}
		broken++
		turns++
		require.Eventually(t, func() bool { return d.cutter.State(t.Context()).Ready }, waitFor, tick)
		j, err = d.Run(t.Context(), d.card, letter(), printed, app.From{GoOn: true})
		require.NoError(t, err)
	}
	assert.GreaterOrEqual(t, broken, 2)
	// Every time the blade is turned by a stroke of 2.5 mm in the waste.
	assert.GreaterOrEqual(t, d.length(), whole-.5)
	assert.LessOrEqual(t, d.length(), whole+2.6*float64(turns)+.5, "of %.0f mm", whole)
	l, err := d.Layout(t.Context(), d.card, letter())
	require.NoError(t, err)
	apart := l.Sheets[printed-1].State.Apart
	require.Len(t, apart, len(l.Sheets[printed-1].Pieces))
	for _, a := range apart {
		assert.Less(t, a.Mean, .02, a.Name)
		assert.Less(t, a.Worst, .06, "%s: the blade was turned before it went on", a.Name)
	}
}

// killed is as if the program had been killed: what is on disk is some steps old, and the
// program starts anew.
func (d *desk) killed(printed int) {
	l, err := d.Layout(d.t.Context(), d.card, letter())
	require.NoError(d.t, err)
	was := l.Sheets[printed-1].State
	key := strings.TrimSuffix(path.Base(strings.Split(was.Picture, "?")[0]), ".png")
	was.State, was.Rest, was.Given = "cutting", nil, was.Done+1
	was.Done = max(0, was.Done-3)
	raw, err := json.Marshal(was)
	require.NoError(d.t, err)
	require.NoError(d.t, d.store.KeepRun(d.t.Context(), key, raw, time.Now()))
	d.App = d.again()
}

func TestACutterThatTakesNoTime(t *testing.T) {
	d := newDesk(t, 0)
	t.Run("every mishap is said and nothing is cut wrongly", d.mishaps)
	t.Run("what was printed and cut is known after a restart", d.restart)
	t.Run("a test cut leaves the sheet as it is", d.testCuts)
}

// restart is after the last of the mishaps, a run that went well.
func (d *desk) restart(t *testing.T) {
	printed, _ := d.sheets()
	before, err := d.Layout(t.Context(), d.card, letter())
	require.NoError(t, err)
	was := before.Sheets[printed-1].State
	require.Equal(t, app.RunDone, was.State)
	old := d.App
	defer func() { d.App = old }()
	d.App = d.again()
	after, err := d.Layout(t.Context(), d.card, letter())
	require.NoError(t, err)
	is := after.Sheets[printed-1].State
	assert.Equal(t, was.Picture, is.Picture)
	assert.Equal(t, was.Apart, is.Apart)
	raw, err := d.RunPicture(t.Context(), strings.TrimSuffix(path.Base(strings.Split(is.Picture, "?")[0]), ".png"))
	require.NoError(t, err)
	_, err = png.DecodeConfig(bytes.NewReader(raw))
	require.NoError(t, err)

	// The printed sheet is put on the mat as it came out before.
	require.NoError(t, d.Unload(t.Context()))
	j, err := d.Run(t.Context(), d.card, letter(), printed, app.From{})
	require.NoError(t, err)
	j = d.until(j, nil)
	assert.Equal(t, app.Done, j.State, j.Note)
}

func (d *desk) mishaps(t *testing.T) {
	printed, _ := d.sheets()
	for _, c := range []struct {
		m     app.Mishap
		why   string
		state app.JobState
		cuts  bool
	}{
		{app.Mishap{Off: true}, "switched off", "", false},
		{app.Mishap{NoMat: true}, "no cutting mat in it", "", false},
		{app.Mishap{Smudged: []int{1, 4}}, "the eye found 2", app.Failed, false},
		{app.Mishap{Missing: []int{1, 2, 3}}, "the eye found 1", app.Failed, false},
		{app.Mishap{Missing: []int{1, 2, 3, 4}}, "the eye found 0", app.Failed, false},
		{app.Mishap{Smudged: []int{3}}, "", app.Done, true},
		{app.Mishap{Slip: 30}, "has slipped on the cutting mat", app.Failed, true},
		{app.Mishap{Lost: 30}, "connection to the cutter was lost", app.Failed, true},
		{app.Mishap{Jam: 30}, "The tool is jammed. Free the tool", app.Failed, true},
		{app.Mishap{}, "", app.Done, true},
	} {
		require.NoError(t, d.Mishap(t.Context(), app.Mishap{}))
		require.NoError(t, d.Unload(t.Context()))
		require.Eventually(t, func() bool { return d.CutterState(t.Context()).Ready }, waitFor, tick)
		require.NoError(t, d.Mishap(t.Context(), c.m))
		if told := d.CutterState(t.Context()).Mishap; told == nil {
			assert.Zero(t, c.m, "nothing is told to go wrong")
		} else {
			assert.Equal(t, [5]any{c.m.Off, c.m.NoMat, c.m.Slip, c.m.Lost, c.m.Jam}, [5]any{told.Off, told.NoMat, told.Slip, told.Lost, told.Jam})
			assert.True(t, told.Smudged != nil && told.Missing != nil, "lists, for whoever reads them")
			assert.Equal(t, len(c.m.Smudged)+len(c.m.Missing), len(told.Smudged)+len(told.Missing))
		}
		j, err := d.Run(t.Context(), d.card, letter(), printed, app.From{})
		if c.state == "" {
			require.ErrorContains(t, err, c.why)
		} else {
			require.NoError(t, err, c.why)
			j = d.until(j, nil)
			assert.Equal(t, c.state, j.State, "%s: %s", c.why, j.Note)
			assert.Contains(t, j.Note, c.why)
		}
		assert.Equal(t, c.cuts, d.length() > 0, c.why)
		if left := d.CutterState(t.Context()).Mishap; c.m.Slip+c.m.Lost > 0 {
			assert.Nil(t, left, "it happens once")
		} else if c.m.Jam > 0 {
			assert.NotZero(t, left.Jam, "until it is freed")
		}
	}
	l, err := d.Layout(t.Context(), d.card, letter())
	require.NoError(t, err)
	assert.Len(t, l.Sheets[printed-1].State.Apart, len(l.Sheets[printed-1].Pieces))
}

func TestTimesByPlanAreThoseOfTheCutter(t *testing.T) {
	d := newDesk(t, 16)
	_, bare := d.sheets()
	l, err := d.Layout(t.Context(), d.card, letter())
	require.NoError(t, err)
	plan := 0.0
	for _, p := range l.Sheets[bare-1].Passes {
		plan += p.Seconds
	}
	j, err := d.Run(t.Context(), d.card, letter(), bare, app.From{})
	require.NoError(t, err)
	told := math.Inf(1)
	j = d.until(j, func(j app.Job) {
		if j.Run != nil {
			assert.LessOrEqual(t, j.Run.Seconds, plan*1.5)
			told = min(told, j.Run.Seconds)
		}
	})
	assert.Equal(t, app.Done, j.State)
	assert.Zero(t, told, "at the end nothing is left")
}

func (d *desk) testCuts(t *testing.T) {
	printed, bare := d.sheets()
	for _, n := range []int{printed, bare} {
		for k := range 2 {
			j, err := d.TestCut(t.Context(), d.card, letter(), n)
			require.NoError(t, err)
			j = d.until(j, nil)
			require.Equal(t, app.Done, j.State, j.Note)
			l, err := d.Layout(t.Context(), d.card, letter())
			require.NoError(t, err)
			assert.Equal(t, app.RunFound, l.Sheets[n-1].State.State)
			assert.Equal(t, k+1, l.Sheets[n-1].State.Tests)
		}
		tests := d.length()
		assert.Greater(t, tests, 80.0)
		j, err := d.Run(t.Context(), d.card, letter(), n, app.From{})
		require.NoError(t, err)
		j = d.until(j, func(j app.Job) { assert.False(t, strings.Contains(j.Note, "Putting"), "the sheet lies there already") })
		require.Equal(t, app.Done, j.State, j.Note)
		assert.Greater(t, d.length(), tests+100)
	}
}

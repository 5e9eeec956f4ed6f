package app_test

import (
	"io"
	"log/slog"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
)

func TestAnotherCutterIsNamedAndRemembered(t *testing.T) {
	f := start(t)
	other := &bench{state: app.CutterState{Name: "Garage", State: "ready", Ready: true, Bed: [2]float64{600, 300}}}
	begin := func() {
		f.Close()
		f.App = app.New(app.Config{Store: f.store, Printer: f.press, Cutter: f.bench, Log: slog.New(slog.NewTextHandler(io.Discard, nil)),
			OtherCutter: func(o app.OtherCutter) app.Cutter { return other }})
		t.Cleanup(f.Close)
	}
	begin()
	assert.Equal(t, "Bench", f.CutterState(t.Context()).Name)
	for _, address := range []string{"garage", "garage:", ":9100", "garage:99999", "garage:x", "a/b:9100"} {
		err := f.UseCutter(t.Context(), app.OtherCutter{Address: address, Width: 600, Height: 300})
		assert.ErrorContains(t, err, "named by its address and port", address)
	}
	for _, address := range []string{"garage\r\n:9100", "ga rage:9100", "/dev/tty\nS0", "garage\u202e:9100", strings.Repeat("g", 300) + ":9100"} {
		assert.ErrorContains(t, f.UseCutter(t.Context(), app.OtherCutter{Address: address, Width: 600, Height: 300}), "cannot be seen", address)
	}
	for _, address := range []string{"/etc/passwd", "/dev/../etc/passwd", "/"} {
		assert.ErrorContains(t, f.UseCutter(t.Context(), app.OtherCutter{Address: address, Width: 600, Height: 300}), "by its device path", address)
	}
	assert.ErrorContains(t, f.UseCutter(t.Context(), app.OtherCutter{Address: "garage:9100", Width: 1e308, Height: 300}), "reaches between")
	assert.ErrorContains(t, f.UseCutter(t.Context(), app.OtherCutter{Address: "/dev/ttyS9", Width: 6, Height: 300}), "reaches between")
	named := app.OtherCutter{Address: " garage:9100 ", Width: 600, Height: 300}
	require.NoError(t, f.UseCutter(t.Context(), named))
	assert.Equal(t, "Garage", f.CutterState(t.Context()).Name)
	begin()
	assert.Equal(t, "Garage", f.CutterState(t.Context()).Name, "after a restart too")
	assert.Equal(t, "garage:9100", f.Named().Address)
	require.NoError(t, f.UseCutter(t.Context(), app.OtherCutter{}))
	assert.Equal(t, "Bench", f.CutterState(t.Context()).Name)
	assert.Error(t, f.Unload(t.Context()), "no hand to take it off")
	assert.Error(t, f.Mishap(t.Context(), app.Mishap{Jam: 3}))
}

// A run that is paused waits with the tool up until it is let go on; a test cut comes
// before and leaves it to be run.
func TestARunIsPausedAndGoesOn(t *testing.T) {
	f := start(t)
	id := f.card()
	j, err := f.Run(t.Context(), id, letter(), 1, app.From{})
	require.NoError(t, err)
	for range 2 {
		f.step(j.ID, nil)
	}
	require.NoError(t, f.HoldJob(j.ID, true))
	require.Eventually(t, func() bool { now, err := f.Job(j.ID); return err == nil && now.Paused }, time.Minute, time.Millisecond)
	ran := len(f.bench.ran)
	require.NoError(t, f.HoldJob(j.ID, false))
	l, err := f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	for range l.Sheets[0].State.Of - ran {
		f.step(j.ID, nil)
	}
	f.until(j.ID, app.Done)
	assert.Len(t, f.bench.ran, l.Sheets[0].State.Of)
	assert.ErrorIs(t, f.HoldJob("nothing", true), app.ErrNotFound)
}

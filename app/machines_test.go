package app_test

import (
	"io"
	"log/slog"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/document/card"
	"sectilis/core/format/hpgl"
	"sectilis/core/ground/geom"
	"sectilis/core/production/cut"
)

// garage is a machine of a person's own: it reaches less than Letter, on a mat that takes it.
func garage() app.OtherCutter {
	return app.OtherCutter{Name: "Garage", Address: "garage:9100", Width: 200, Height: 262, Blind: [4]float64{8, 9, 12, 7}, Speed: 30, Force: 90,
		Tools: []app.ToolAt{{Tool: cut.Pen, Across: 21.5, Down: -3}}}
}

// withMachine is the program with a machine of a person's own in use, which answers as a bench does.
func withMachine(t *testing.T, o app.OtherCutter) (*fixture, *bench) {
	t.Helper()
	f := start(t)
	other := &bench{state: app.CutterState{Name: "HP-GL", State: "ready", Ready: true, Bed: [2]float64{o.Width, o.Height}}, goOn: make(chan error)}
	f.Close()
	f.App = app.New(app.Config{Store: f.store, Printer: f.press, Cutter: f.bench, Log: slog.New(slog.NewTextHandler(io.Discard, nil)),
		OtherCutter: func(app.OtherCutter) app.Cutter { return other }})
	t.Cleanup(f.Close)
	require.NoError(t, f.UseCutter(t.Context(), o))
	return f, other
}

// What a machine of a person's own reaches, and does not, decides how sheets are laid and what goes into it.
func TestAMachineOfOnesOwnReachesWhatItIsSaidTo(t *testing.T) {
	o := garage()
	f, _ := withMachine(t, o)
	s := f.CutterState(t.Context())
	assert.Equal(t, "Garage", s.Name)
	id := f.card()
	l, err := f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	for _, sh := range l.Sheets {
		assert.Empty(t, sh.Beyond, "the mat is 217 by 281 mm")
		for _, p := range sh.Pieces {
			b := p.Outline.Bounds()
			assert.GreaterOrEqual(t, min(b.X, b.Y, sh.Size.Width-b.Right(), sh.Size.Height-b.Bottom()), 12-1e-6, "%s is where tools reach", p.Name)
		}
		for _, p := range sh.Passes {
			assert.LessOrEqual(t, p.Speed, 30.)
			assert.LessOrEqual(t, p.Travel, 30.)
			assert.LessOrEqual(t, p.Force, 90)
		}
	}
	small := o
	small.Blind = [4]float64{}
	require.NoError(t, f.UseCutter(t.Context(), small))
	l, err = f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	assert.Contains(t, l.Sheets[0].Beyond, "the machine reaches", "Letter is larger than it")
}

// The tools of a machine of a person's own go where they ought to: by where the sheet lies on its mat, and by
// where they stand from the blade.
func TestToolsOfAMachineOfOnesOwnGoWhereTheyOught(t *testing.T) {
	o := garage()
	f, other := withMachine(t, o)
	id := f.card()
	v, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	var b geom.Builder
	line := card.Item{Name: "Name line", Kind: card.Drawing, On: "i4", Place: card.Place{X: 63, Y: 150}, Made: card.Made{As: card.Lined}, Fill: card.Fill{Colour: "#1f2b38"},
		Lines: &card.Lines{Role: card.RolePen, Width: 20, Height: 4, Path: card.NewDrawn(b.Move(geom.Pt(-10, -2)).Line(geom.Pt(10, 2)).Path())}}
	_, it := v.Card.Find("i4")
	line.Place.X, line.Place.Y = it.Place.X, it.Place.Y
	_, err = f.Change(t.Context(), id, v.Revision, []card.Command{card.PlaceItems{Face: card.Front, Items: []card.Item{line}}})
	require.NoError(t, err)
	l, err := f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	number := 0
	for _, sh := range l.Sheets {
		if len(sh.Passes) > 0 && sh.Passes[0].Tool == cut.Pen {
			number = sh.Number
		}
	}
	require.Positive(t, number, "a sheet with a pen line")
	sh := l.Sheets[number-1]
	j, err := f.Run(t.Context(), id, letter(), number, app.From{})
	require.NoError(t, err)
	bed := geom.Shift(-8, 262+7-sh.Size.Height)
	var want []cut.Pass
	for _, p := range sh.Passes {
		m := bed
		if p.Tool == cut.Pen {
			m = bed.Then(geom.Shift(-21.5, 3))
		}
		want = append(want, cut.Move([]cut.Pass{p}, m)...)
	}
	steps := hpgl.Steps(want, 262)
	f.bench = other
	for range steps {
		f.step(j.ID, nil)
	}
	f.until(j.ID, app.Done)
	require.Len(t, f.bench.ran, len(steps))
	penned := false
	for i := range steps {
		assert.True(t, strings.HasSuffix(f.bench.ran[i].Text, steps[i].Text), "step %d: %s, not %s", i, f.bench.ran[i].Text, steps[i].Text)
		penned = penned || strings.Contains(f.bench.ran[i].Text, "SP1")
	}
	assert.True(t, penned)
}

func TestMachinesOfOnesOwnAreKept(t *testing.T) {
	f, _ := withMachine(t, garage())
	shed := app.OtherCutter{Address: "/dev/ttyS9", Width: 300, Height: 600}
	require.NoError(t, f.UseCutter(t.Context(), shed))
	all, err := f.Machines(t.Context())
	require.NoError(t, err)
	require.Len(t, all, 2)
	assert.Equal(t, shed, all[0], "the last one first")
	assert.Equal(t, garage(), all[1])
	require.NoError(t, f.UseCutter(t.Context(), garage()))
	require.NoError(t, f.UseCutter(t.Context(), app.OtherCutter{}))
	all, err = f.again().Machines(t.Context())
	require.NoError(t, err)
	assert.Equal(t, []app.OtherCutter{garage(), shed}, all, "after a restart too, and while none is used")
	require.NoError(t, f.ForgetMachine(t.Context(), "Garage"))
	require.ErrorIs(t, f.ForgetMachine(t.Context(), "Garage"), app.ErrNotFound)
	for field, change := range map[string]func(*app.OtherCutter){
		"blind": func(o *app.OtherCutter) { o.Blind[2] = -1 },
		"speed": func(o *app.OtherCutter) { o.Speed = 1 },
		"force": func(o *app.OtherCutter) { o.Force = -5 },
		"tools": func(o *app.OtherCutter) { o.Tools = []app.ToolAt{{Tool: 9}} },
		"name":  func(o *app.OtherCutter) { o.Name = strings.Repeat("long ", 30) },
	} {
		o := garage()
		change(&o)
		var refused *card.Refusal
		require.ErrorAs(t, f.UseCutter(t.Context(), o), &refused)
		assert.Equal(t, field, refused.Field)
	}
}

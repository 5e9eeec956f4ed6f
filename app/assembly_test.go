package app_test

import (
	"bytes"
	"context"
	"fmt"
	"image/png"
	"sync"
	"testing"

	"github.com/kovidgoyal/imaging/apng"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/document/card"
	"sectilis/core/ground/measure"
	"sectilis/core/production/assembly"
	"sectilis/core/production/sheet"
)

// Steps are ticked off and kept, also when the card has changed; each has a picture, and the guide a page.
func TestTheGuideOfACardIsTickedOff(t *testing.T) {
	f := start(t)
	id := f.card()
	v, err := f.Assembly(t.Context(), id, measure.In)
	require.NoError(t, err)
	require.NotEmpty(t, v.Steps)
	assert.Empty(t, v.Done)
	assert.NotEmpty(t, v.Hand)
	first, second := v.Steps[0].ID, v.Steps[1].ID
	require.NoError(t, f.TickStep(t.Context(), id, first, true))
	require.NoError(t, f.TickStep(t.Context(), id, second, true))
	require.NoError(t, f.TickStep(t.Context(), id, first, true), "twice is once")
	open, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	_, err = f.Change(t.Context(), id, open.Revision, []card.Command{card.RenameCard{Title: "Going on"},
		card.ChangeStep{Step: card.StepChange{ID: second, Title: "In my words"}}})
	require.NoError(t, err)
	v, err = f.Assembly(t.Context(), id, measure.In)
	require.NoError(t, err)
	assert.Equal(t, []string{second, first}, v.Done)
	titles := map[string]string{}
	for _, s := range v.Steps {
		titles[s.ID] = s.Title
		raw, err := f.StepPicture(t.Context(), id, s.ID, measure.In, 300)
		require.NoError(t, err, s.Title)
		assert.Greater(t, bytes.Count(raw, []byte("<path ")), 3, "%s is drawn", s.Title)
	}
	assert.Equal(t, "In my words", titles[second])
	require.NoError(t, f.TickStep(t.Context(), id, first, false))
	v, err = f.Assembly(t.Context(), id, measure.In)
	require.NoError(t, err)
	assert.Equal(t, []string{second}, v.Done)

	for _, per := range []int{1, 2, 4} {
		var b bytes.Buffer
		require.NoError(t, f.WriteGuide(t.Context(), &b, id, measure.In, per))
		assert.True(t, bytes.HasPrefix(b.Bytes(), []byte("%PDF")))
	}
	var b bytes.Buffer
	require.ErrorContains(t, f.WriteGuide(t.Context(), &b, id, measure.In, 3), "1, 2 or 4")
	_, err = f.StepPicture(t.Context(), id, "none", measure.In, 300)
	require.ErrorIs(t, err, app.ErrNotFound)
	_, err = f.Assembly(t.Context(), "none", measure.In)
	require.ErrorIs(t, err, app.ErrNotFound)
	require.ErrorIs(t, f.TickStep(t.Context(), "none", "cut", true), app.ErrNotFound)
	require.Error(t, f.TickStep(t.Context(), id, "", true))
}

// The guide of several cards is that of one, which is put together as the only one is.
func TestTheGuideOfSeveralCardsIsThatOfOne(t *testing.T) {
	f := start(t)
	id := f.card()
	one, err := f.Assembly(t.Context(), id, measure.In)
	require.NoError(t, err)
	assert.Equal(t, 1, one.Cards)
	setup := card.UsualSheets()
	setup.Cards = 4
	f.change(id, sheet.SetSheets{Sheets: setup})
	v, err := f.Assembly(t.Context(), id, measure.In)
	require.NoError(t, err)
	assert.Equal(t, 4, v.Cards)
	titles := func(g app.AssemblyView) (out []string) {
		for _, s := range g.Steps {
			if s.Kind != assembly.Print && s.Kind != assembly.Cut { // on how many sheets its pieces are
				out = append(out, s.Title)
			}
		}
		return out
	}
	assert.Equal(t, titles(one), titles(v))
	// A sheet with the base of one is another than that of the next: each is cut by itself.
	l, err := f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	bases := []int{}
	for _, sh := range l.Sheets {
		if sh.Pieces[0].Item == card.BasePiece {
			bases = append(bases, sh.Number)
		}
	}
	require.GreaterOrEqual(t, len(bases), 2)
	f.runs(id, bases[0])
	l, err = f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	assert.Equal(t, app.RunDone, l.Sheets[bases[0]-1].State.State)
	assert.Equal(t, app.RunWaiting, l.Sheets[bases[1]-1].State.State)
}

// Steps that are ticked off at once are all kept, and whoever looks on is told.
func TestStepsTickedOffAtOnceAreAllKept(t *testing.T) {
	f := start(t)
	id := f.card()
	told, end := f.Events.Listen()
	defer end()
	var all sync.WaitGroup
	want := []string{}
	for i := range 40 {
		step := fmt.Sprint("step ", i)
		want = append(want, step)
		all.Go(func() { assert.NoError(t, f.TickStep(t.Context(), id, step, true)) })
	}
	all.Wait()
	v, err := f.Assembly(t.Context(), id, measure.In)
	require.NoError(t, err)
	assert.ElementsMatch(t, want, v.Done)
	require.Len(t, told, 40)
	assert.Equal(t, app.Event{Kind: app.AssemblyEvent, Card: id}, <-told)
}

// The moving picture is one of all its frames, of the size that is asked for, and ends with its request.
func TestACardIsSeenToOpen(t *testing.T) {
	f := start(t)
	id := f.card()
	var moving, stills bytes.Buffer
	require.NoError(t, f.WriteFolding(t.Context(), &moving, id, 200))
	img, err := png.Decode(bytes.NewReader(moving.Bytes()))
	require.NoError(t, err)
	assert.Equal(t, 200, max(img.Bounds().Dx(), img.Bounds().Dy()))
	film, err := apng.DecodeAll(bytes.NewReader(moving.Bytes()))
	require.NoError(t, err)
	assert.Zero(t, film.LoopCount, "it goes on without an end")
	require.Len(t, film.Frames, 24, "there and back")
	for i, f := range film.Frames {
		assert.Equal(t, img.Bounds(), f.Image.Bounds())
		assert.False(t, f.IsDefault)
		assert.InDelta(t, map[bool]float64{true: .9, false: .09}[i%12 == 0], f.GetDelay(), 1e-9, "it rests closed and open")
		assert.Equal(t, film.Frames[(24-i)%24].Image, f.Image, "the way back is the way there")
	}
	assert.NotEqual(t, film.Frames[0].Image, film.Frames[12].Image)
	require.NoError(t, f.WriteStills(t.Context(), &stills, id, 200))
	row, err := png.Decode(bytes.NewReader(stills.Bytes()))
	require.NoError(t, err)
	require.Zero(t, row.Bounds().Dx()%5)
	one := row.Bounds().Dx() / 5
	differs := 0
	for x := range one {
		for y := 0; y < row.Bounds().Dy(); y += 2 {
			if row.At(x, y) != row.At(x+4*one, y) {
				differs++
			}
		}
	}
	assert.Greater(t, differs, 200, "closed and open are two pictures")
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	require.Error(t, f.WriteFolding(ctx, &moving, id, 200))
	require.ErrorIs(t, f.WriteStills(t.Context(), &stills, "none", 200), app.ErrNotFound)
}

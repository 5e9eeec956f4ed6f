package app_test

import (
	"errors"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
)

// made is the size of the base of a card on the table.
func (f *fixture) made(id string) card.Base {
	f.t.Helper()
	v, err := f.Open(f.t.Context(), id)
	require.NoError(f.t, err)
	return v.Card.Base
}

func (f *fixture) sized(id string, w, h float64) {
	f.t.Helper()
	v, err := f.Open(f.t.Context(), id)
	require.NoError(f.t, err)
	b := v.Card.Base
	b.Width, b.Height = w, h
	_, err = f.Change(f.t.Context(), id, v.Revision, []card.Command{fold.SetBase{Base: b}})
	require.NoError(f.t, err)
}

// An envelope takes up each size that its card comes to need, by change, undo and redo, as long as nobody
// has given it another; on its own, or gone from the table, it is left alone.
func TestAnEnvelopeFollowsItsCard(t *testing.T) {
	f := start(t)
	id := f.card()
	e, err := f.MakeEnvelope(t.Context(), id)
	require.NoError(t, err)
	again, err := f.MakeEnvelope(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, e, again, "a card has one envelope")
	_, err = f.MakeEnvelope(t.Context(), e)
	var refusal *card.Refusal
	require.ErrorAs(t, err, &refusal)

	needs := func() (w, h float64) {
		v, err := f.Fold(t.Context(), id)
		require.NoError(t, err)
		return v.Sending.Landscape()
	}
	follows := func(why string) {
		t.Helper()
		w, h := needs()
		b := f.made(e)
		assert.Equal(t, []float64{w, h}, []float64{b.Width, b.Height}, why)
		assert.GreaterOrEqual(t, b.Width, b.Height)
	}
	follows("as it is made")
	f.sized(id, 90, 120)
	follows("a smaller card")
	w, _ := needs()
	v, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	v, err = f.Undo(t.Context(), id, v.Revision)
	require.NoError(t, err)
	follows("undone")
	back, _ := needs()
	assert.NotEqual(t, w, back)
	_, err = f.Redo(t.Context(), id, v.Revision)
	require.NoError(t, err)
	follows("done again")

	view, err := f.Fold(t.Context(), e)
	require.NoError(t, err)
	require.NotNil(t, view.Tied)
	assert.Equal(t, id, view.Tied.ID)
	check, err := f.Check(t.Context(), id)
	require.NoError(t, err)
	require.NotNil(t, check.Tied)
	assert.Equal(t, e, check.Tied.ID)
	assert.True(t, strings.HasSuffix(check.Tied.Title, ", envelope"))

	f.sized(e, 200, 150)
	f.sized(id, 100, 140)
	assert.InDelta(t, 200, f.made(e).Width, 1e-9, "the size of a person's own stays")
	w, h := needs()
	f.sized(e, w, h)
	require.NoError(t, f.Untie(t.Context(), e))
	f.sized(id, 101, 140)
	assert.InDelta(t, w, f.made(e).Width, 1e-9, "it is on its own")
	other, err := f.MakeEnvelope(t.Context(), id)
	require.NoError(t, err)
	assert.NotEqual(t, e, other)
	require.NoError(t, f.Remove(t.Context(), other))
	f.sized(id, 102, 140)
	view, err = f.Fold(t.Context(), id)
	require.NoError(t, err)
	assert.Nil(t, view.Tied, "an envelope off the table is none")
}

// Two requests at once make one envelope; where the tie cannot be kept, none is left on the table; that the
// store fails afterwards costs the card nothing.
func TestEnvelopesWhenThingsFail(t *testing.T) {
	f := start(t)
	id := f.card()
	ids := make([]string, 4)
	var all sync.WaitGroup
	for i := range ids {
		all.Go(func() { ids[i], _ = f.MakeEnvelope(t.Context(), id) })
	}
	all.Wait()
	for _, e := range ids {
		assert.NotEmpty(t, e)
		assert.Equal(t, ids[0], e)
	}
	require.NoError(t, f.Remove(t.Context(), ids[0]))

	s := f.onFaulty("tie")
	_, err := f.MakeEnvelope(t.Context(), id)
	require.ErrorIs(t, err, errDisk)
	all2, err := f.Cards(t.Context(), "")
	require.NoError(t, err)
	for _, c := range all2 {
		assert.NotEqual(t, card.Envelope, c.Kind)
	}
	s.fail("envelopeOf")
	_, err = f.Fold(t.Context(), id)
	require.ErrorIs(t, err, errDisk, "what could not be read is not told as none")
	f.sized(id, 100, 140)
	assert.InDelta(t, 100, f.made(id).Width, 1e-9)
	s.fail()
	_, err = f.MakeEnvelope(t.Context(), "nothing")
	assert.True(t, errors.Is(err, app.ErrNotFound))
}

// Two windows change the card while others look at both: nobody waits for ever, and in the end the envelope
// is to measure.
func TestAnEnvelopeFollowsWhoeverChangesTheCard(t *testing.T) {
	f := start(t)
	id := f.card()
	e, err := f.MakeEnvelope(t.Context(), id)
	require.NoError(t, err)
	var all sync.WaitGroup
	for w := range 3 {
		all.Go(func() {
			for n := range 12 {
				v, err := f.Open(t.Context(), id)
				if !assert.NoError(t, err) {
					return
				}
				b := v.Card.Base
				b.Width, b.Height = float64(90+7*w+n), float64(120+5*n)
				_, err = f.Change(t.Context(), id, v.Revision, []card.Command{fold.SetBase{Base: b}})
				if !errors.Is(err, app.ErrStale) {
					assert.NoError(t, err)
				}
			}
		})
		all.Go(func() {
			for range 20 {
				for _, one := range []string{id, e} {
					_, err := f.Fold(t.Context(), one)
					assert.NoError(t, err)
					_, err = f.Check(t.Context(), one)
					assert.NoError(t, err)
				}
			}
		})
	}
	all.Wait()
	v, err := f.Fold(t.Context(), id)
	require.NoError(t, err)
	w, h := v.Sending.Landscape()
	b := f.made(e)
	assert.Equal(t, []float64{w, h}, []float64{b.Width, b.Height})
}

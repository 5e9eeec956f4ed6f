package app_test

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/coretest"
	"sectilis/core/design/pathops"
	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// slow is a change that takes as long as its test lets it.
type slow struct {
	begun chan struct{}
	goOn  chan struct{}
}

func (slow) Label() string { return "Slow" }

func (k slow) Apply(c card.Card) (card.Card, error) {
	close(k.begun)
	<-k.goOn
	return card.RenameCard{Title: "Slow"}.Apply(c)
}

// While a change is worked out the card can be read and changed by others; the slow one then
// learns that it has moved on.
func TestAHeavyChangeKeepsNobodyWaiting(t *testing.T) {
	f := start(t)
	id := f.card()
	k := slow{make(chan struct{}), make(chan struct{})}
	done := make(chan error)
	go func() {
		_, err := f.Change(t.Context(), id, 1, []card.Command{k})
		done <- err
	}()
	<-k.begun
	v, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, int64(1), v.Revision)
	v, err = f.Change(t.Context(), id, 1, []card.Command{card.RenameCard{Title: "Quick"}})
	require.NoError(t, err)
	close(k.goOn)
	require.ErrorIs(t, <-done, app.ErrStale)
	v, err = f.Open(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, []any{int64(2), "Quick"}, []any{v.Revision, v.Card.Title})
}

// Whoever stops waiting for a change finds the card as it was, and can go on.
func TestAHeavyChangeIsStopped(t *testing.T) {
	f := start(t)
	id := f.card()
	k := slow{make(chan struct{}), make(chan struct{})}
	ctx, cancel := context.WithCancel(t.Context())
	done := make(chan error)
	go func() {
		_, err := f.Change(ctx, id, 1, []card.Command{k})
		done <- err
	}()
	<-k.begun
	cancel()
	close(k.goOn)
	require.ErrorIs(t, <-done, context.Canceled)
	v, err := f.Change(t.Context(), id, 1, []card.Command{card.RenameCard{Title: "After"}})
	require.NoError(t, err)
	assert.Equal(t, []any{int64(2), "After"}, []any{v.Revision, v.Card.Title})
}

// Outlines that cross each other all over are refused before they are worked on.
func TestOutlinesThatCrossAllOverAreRefused(t *testing.T) {
	c := coretest.Empty(t)
	var items []card.Item
	ids := make([]string, 2)
	for i := range ids {
		// A comb of a thousand teeth; the other one lies across it.
		var b geom.Builder
		b.Move(geom.Pt(0, 0))
		for k := range 1000 {
			x := float64(k) * .09
			b.Line(geom.Pt(x, 90)).Line(geom.Pt(x+.045, 90)).Line(geom.Pt(x+.045, 1)).Line(geom.Pt(x+.09, 1))
		}
		p := b.Line(geom.Pt(90, 0)).Close().Path()
		if i == 1 {
			p = p.Transform(geom.Affine{B: 1, C: 1})
		}
		box := p.Bounds()
		p = p.Transform(geom.Shift(-box.Centre().X, -box.Centre().Y))
		items = append(items, card.Item{
			Name: fmt.Sprintf("Comb %d", i+1), Kind: card.Shape, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#123456"}, Place: card.Place{X: 50, Y: 50},
			Form: &card.Form{Outline: card.Free, Width: box.W, Height: box.H, Path: card.NewDrawn(p)},
		})
	}
	c, err := card.Apply(c, card.PlaceItems{Face: card.Front, Items: items})
	require.NoError(t, err)
	for i, it := range c.Face(card.Front).Items {
		ids[i] = it.ID
	}
	for _, k := range []card.Command{pathops.Weld{IDs: ids}, pathops.Carve{IDs: ids}, pathops.Divide{IDs: ids}, pathops.KeepOverlap{IDs: ids}} {
		_, err := card.Apply(c, k)
		var refusal *card.Refusal
		require.ErrorAs(t, err, &refusal, k.Label())
		assert.Contains(t, refusal.Why, "cross each other more than a hundred thousand times")
	}
}

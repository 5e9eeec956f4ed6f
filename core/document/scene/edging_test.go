package scene_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/edging"
	"sectilis/core/ground/geom"
)

func found(t *testing.T, c card.Card, id string) scene.Item {
	t.Helper()
	f, it := c.Find(id)
	require.NotNil(t, it)
	out, err := scene.Resolve(f, it)
	require.NoError(t, err)
	return out
}

// An edged piece is cut along its motif, keeps whole repeats when it is made larger, and mats follow it;
// an edged mat has the motif itself, and what lies under that follows. Its frame is that of the thing.
func TestAnEdgingIsLive(t *testing.T) {
	c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Label", Kind: card.Shape, Place: card.Place{X: 60, Y: 60, Turn: 15},
		Made: card.Made{As: card.Cut, Stock: "moss-216"}, Form: &card.Form{Outline: card.Rectangle, Width: 60, Height: 40, Corner: card.Square}}}})
	require.NoError(t, err)
	wave := &edging.Edging{Motif: "wave", Depth: 3}
	apply := func(k card.Command) {
		t.Helper()
		c, err = card.Apply(c, k)
		require.NoError(t, err)
	}
	plain := found(t, c, "i1")
	apply(card.SetEdging{IDs: []string{"i1"}, Edging: wave})
	edged := found(t, c, "i1")
	assert.Positive(t, edged.Repeats)
	assert.Equal(t, plain.Box, edged.Box)
	assert.InDelta(t, 46, edged.Outline.Bounds().H, .01)

	apply(card.AddMat{IDs: []string{"i1"}, Width: 2, Corner: card.Round, Stock: "brick-216"})
	mat := found(t, c, "i2")
	assert.Less(t, geom.Difference(geom.NonZero, edged.Outline, mat.Outline).Area(), 1e-6)
	assert.InDelta(t, 50, mat.Outline.Bounds().H, .02, "two more all round the motif")

	apply(card.SetEdging{IDs: []string{"i1"}})
	apply(card.SetEdging{IDs: []string{"i2"}, Edging: wave})
	apply(card.AddMat{IDs: []string{"i1"}, Width: 1, Corner: card.Round, Stock: "moss-216"})
	low := found(t, c, "i3")
	assert.InDelta(t, 40+2*2+2*3+2*1, low.Outline.Bounds().H, .02)
	assert.Equal(t, found(t, c, "i1").At, low.At)

	apply(card.SetEdging{IDs: []string{"i1"}, Edging: wave})
	before := found(t, c, "i1").Repeats
	apply(card.ResizeItems{IDs: []string{"i1"}, FX: 1.5, FY: 1.5, About: geom.Pt(60, 60)})
	after := found(t, c, "i1")
	assert.Greater(t, after.Repeats, before)
	assert.InDelta(t, 66, after.Outline.Bounds().H, .01, "its depth is kept")

	apply(card.SetMat{ID: "i2", Width: 2, Corner: card.Square, Hollow: 6})
	frame := found(t, c, "i2")
	assert.Positive(t, frame.Saved)
	assert.Len(t, frame.Outline.Rings(), 2)

	for _, spoilt := range []edging.Edging{{Motif: "none", Depth: 3}, {Motif: "wave"}, {Motif: "wave", Depth: 3, Count: 3000}, {Motif: "wave", Depth: 3, Side: "north"}, {Motif: "wave", Depth: 3, Open: .1}, {Motif: "wave", Depth: 3, Corner: "sharp"}, {Motif: "wave", Depth: 3, Length: .1}} {
		_, err := card.Apply(c, card.SetEdging{IDs: []string{"i1"}, Edging: &spoilt})
		var refusal *card.Refusal
		require.ErrorAs(t, err, &refusal)
	}
}

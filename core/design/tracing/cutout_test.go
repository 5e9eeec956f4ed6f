package tracing_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/design/tracing"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// What is cut out lies over the place where it was, as a piece of its own on foam; the photo keeps
// what else was done to it.
func TestWhatIsCutOutIsLaidOverItsGround(t *testing.T) {
	_, id := coretest.Photo(t, 300, 200)
	edits := []card.Edit{{Light: &card.Light{Warmth: 10}}, {CutOut: &card.CutOut{Within: []geom.Point{{X: .2, Y: .2}, {X: .6, Y: .2}, {X: .4, Y: .8}}}}}
	c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Lake", Kind: card.Photo, Place: card.Place{X: 60, Y: 70, Turn: 10},
		Made: card.Made{As: card.Cut, Stock: "satin-240"}, Photo: &card.Print{Picture: id, PixelWidth: 300, PixelHeight: 200, Width: 60, Height: 60, Edits: edits}}}})
	require.NoError(t, err)
	f, it := c.Find("i1")
	before, err := scene.Resolve(f, it)
	require.NoError(t, err)
	edge := geom.RectPath(geom.Rect{X: 60, Y: 40, W: 120, H: 120})
	c, err = card.Apply(c, tracing.LayCutOut{ID: "i1", Edge: card.NewDrawn(edge), Rim: &card.Rim{Width: 2, Solid: true}, Lift: 2})
	require.NoError(t, err)
	f, ground := c.Find("i1")
	_, laid := c.Find("i2")
	require.NotNil(t, laid)
	assert.Equal(t, edits[:1], ground.Photo.Edits)
	assert.Equal(t, edits, laid.Photo.Edits)
	assert.Equal(t, "i1", laid.On)
	assert.InDelta(t, 2, laid.Made.Lift, 1e-9)
	after, err := scene.Resolve(f, laid)
	require.NoError(t, err)
	was, is := before.Picture.Box, after.Picture.Box
	// Its picture lies where it lay, pixel on pixel.
	for _, p := range []geom.Point{{X: 0, Y: 0}, {X: 1, Y: 0}, {X: .3, Y: 1}} {
		a := before.At.Apply(geom.Pt(was.X+p.X*was.W, was.Y+p.Y*was.H))
		b := after.At.Apply(geom.Pt(is.X+p.X*is.W, is.Y+p.Y*is.H))
		assert.Less(t, a.Sub(b).Len(), 1e-4)
	}
	for behind, want := range map[tracing.Behind]card.Edit{
		tracing.FilledIn: {Filled: &card.Filled{Of: edits[1].CutOut}},
		tracing.Hole:     {CutOut: &card.CutOut{Within: edits[1].CutOut.Within, Rest: true}},
	} {
		again, err := card.Apply(c, card.EditPhoto{IDs: []string{"i1"}, Edits: edits}, tracing.LayCutOut{ID: "i1", Edge: card.NewDrawn(edge), Behind: behind})
		require.NoError(t, err)
		_, ground := again.Find("i1")
		assert.Equal(t, []card.Edit{edits[0], want}, ground.Photo.Edits)
	}
	_, err = card.Apply(c, tracing.LayCutOut{ID: "i1", Edge: card.NewDrawn(edge)})
	assert.ErrorContains(t, err, "Nothing is cut out")
}

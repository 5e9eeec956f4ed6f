package tracing_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/design/opening"
	"sectilis/core/design/tracing"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// framed is a picture of 300 by 200 pixels, 60 by 40 mm, with two holes of 10 by 20 mm and a speck.
func framed(t *testing.T, made card.Made, turn float64) (card.Card, *card.Drawn, string) {
	t.Helper()
	_, id := coretest.Photo(t, 300, 200)
	c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Frame", Kind: card.Photo, Place: card.Place{X: 60, Y: 70, Turn: turn},
		Made: made, Photo: &card.Print{Picture: id, PixelWidth: 300, PixelHeight: 200, Width: 60, Height: 40}}}})
	require.NoError(t, err)
	hole := func(x, y, w, h float64) geom.Path { return geom.RectPath(geom.Rect{X: x, Y: y, W: w, H: h}) }
	edge := geom.Difference(geom.NonZero, hole(0, 0, 300, 200), geom.Union(geom.NonZero, hole(50, 50, 50, 100), hole(200, 50, 50, 100), hole(150, 20, 5, 5)))
	return c, card.NewDrawn(edge), id
}

func TestHolesOfAFrameBecomeOpeningsUnderIt(t *testing.T) {
	for _, made := range []card.Made{{As: card.Printed}, {As: card.Cut, Stock: "satin-240"}} {
		c, edge, id := framed(t, made, 90)
		c, err := card.Apply(c, tracing.FrameOpenings{ID: "i1", Edge: edge, Tuck: .4})
		require.NoError(t, err)
		f := c.Face(card.Front)
		require.Len(t, f.Items, 3, "a speck is no opening")
		assert.Equal(t, "i1", f.Items[2].ID, "the frame lies over them")
		for i, it := range f.Items[:2] {
			require.Equal(t, card.Slot, it.Kind)
			assert.Equal(t, made.As, it.Slot.Made.As)
			assert.InDelta(t, 10.8, it.Form.Width, 1e-3)
			assert.InDelta(t, 20.8, it.Form.Height, 1e-3)
			assert.InDelta(t, 60, it.Place.X, 1e-6)
			assert.InDelta(t, 70-15+30*float64(i), it.Place.Y, 1e-6, "turned with the frame")
			assert.Equal(t, f.Items[2].Group, it.Group)
			assert.NotEmpty(t, it.Group)
		}
		s, err := scene.Of(c)
		require.NoError(t, err)
		if made.As == card.Cut {
			assert.InDelta(t, 60*40-2*200-1, s.Faces[0].Items[2].Outline.Area(), .1, "it has windows")
		}
		// Photos that are put in fill them, under the frame.
		for _, n := range []string{f.Items[0].ID, f.Items[1].ID} {
			c, err = card.Apply(c, opening.FillOpening{ID: n, Picture: id, PixelWidth: 300, PixelHeight: 200})
			require.NoError(t, err)
		}
		f = c.Face(card.Front)
		assert.Equal(t, []card.Kind{card.Photo, card.Photo, card.Photo}, []card.Kind{f.Items[0].Kind, f.Items[1].Kind, f.Items[2].Kind})
		assert.Equal(t, made.As, f.Items[0].Made.As)
	}
	c, edge, _ := framed(t, card.Made{As: card.Printed}, 0)
	for _, k := range []tracing.FrameOpenings{{ID: "i1", Edge: edge, Tuck: -1}, {ID: "i1", Edge: card.NewDrawn(geom.RectPath(geom.Rect{W: 300, H: 200}))}, {ID: "i9", Edge: edge}} {
		_, err := card.Apply(c, k)
		var refusal *card.Refusal
		assert.ErrorAs(t, err, &refusal)
	}
}

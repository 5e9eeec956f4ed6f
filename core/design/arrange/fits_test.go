package arrange_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/design/arrange"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
)

func TestSizesThatFitAreTakenExactly(t *testing.T) {
	piece := func(name string, x, y, w, h float64, o card.Outline) card.Item {
		it := card.Item{Name: name, Kind: card.Shape, Place: card.Place{X: x, Y: y}, Made: card.Made{As: card.Cut, Stock: "moss-216"},
			Form: &card.Form{Outline: o, Width: w, Height: h}}
		if o == card.Rectangle {
			it.Form.Corner = card.Square
		}
		return it
	}
	put := func(items ...card.Item) card.Command {
		return card.PlaceItems{Face: card.Front, Items: items}
	}
	words := card.Item{Name: "Words", Kind: card.Lettering, Place: card.Place{X: 60, Y: 142, Turn: 90}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#1f2b38"},
		Words: &card.Words{Text: "Hello", Font: "pacifico-400", Size: 8, Leading: 1.2, Align: card.AlignCentre}}
	c, err := card.Apply(coretest.Empty(t), put(piece("Panel", 63.5, 88.9, 100, 120, card.Rectangle)), put(piece("Sun", 40, 60, 20, 20, card.Ellipse), words),
		put(piece("Wall", 100, 88.9, 4, 110, card.Rectangle)), card.AddMat{IDs: []string{"i2"}, Width: 2, Corner: card.Square, Stock: "cream-300"})
	require.NoError(t, err)
	s, err := scene.Of(c)
	require.NoError(t, err)
	areas := map[arrange.Area]int{}
	for _, id := range []string{"i1", "i2", "i3"} {
		fits := arrange.Fits(s.Face(card.Front), id)
		require.NotEmpty(t, fits, id)
		assert.Equal(t, arrange.FaceArea, fits[0].Area)
		assert.Equal(t, 127., fits[0].Box.W)
		for _, fit := range fits {
			areas[fit.Area]++
			got := after(t, c, arrange.FitTo{ID: id, Area: fit.Area, Less: fit.Less})[id]
			_, it := c.Find(id)
			assert.InDelta(t, fit.Box.Centre().X, got.Centre().X, 1e-3, "%s %+v", id, fit)
			assert.InDelta(t, fit.Box.Centre().Y, got.Centre().Y, 1e-3)
			if it.Words == nil {
				assert.InDelta(t, fit.Box.W, got.W, 1e-3)
				assert.InDelta(t, fit.Box.H, got.H, 1e-3)
				continue
			}
			assert.True(t, fit.Box.Contains(got, 1e-3), "words are as large as fits: %v in %v", got, fit.Box)
			assert.InDelta(t, 0, min(fit.Box.W-got.W, fit.Box.H-got.H), 1e-3)
		}
	}
	assert.Positive(t, areas[arrange.PieceArea], "the panel under the sun, not the sun's own mat")
	assert.Positive(t, areas[arrange.GapArea])
	gap := arrange.Fits(s.Face(card.Front), "i2")
	assert.InDelta(t, 98, gap[len(gap)-2].Box.Right(), 1e-3, "the gap ends at the wall")

	turned, err := card.Apply(c, card.TurnItems{IDs: []string{"i2"}, Degrees: 20})
	require.NoError(t, err)
	st, err := scene.Of(turned)
	require.NoError(t, err)
	assert.Empty(t, arrange.Fits(st.Face(card.Front), "i2"))
	for _, bad := range []arrange.FitTo{{ID: "i2", Area: arrange.FaceArea}, {ID: "i1", Area: "moon"}, {ID: "i1", Area: arrange.FaceArea, Less: 5}} {
		_, err := card.Apply(turned, bad)
		assert.ErrorContains(t, err, "cannot be made that large")
	}
}

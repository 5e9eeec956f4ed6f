package opening_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/design/opening"
	"sectilis/core/document/card"
)

// Whatever receives a photo, by any way, is cut of a stock that shows photos; papers come on white ones.
func TestWhatReceivesAPhotoShowsIt(t *testing.T) {
	picture := strings.Repeat("c", 64)
	for _, s := range card.Stocks() {
		plate := card.Item{Name: "Plate", Kind: card.Shape, Place: card.Place{X: 50, Y: 60}, Made: card.Made{As: card.Cut, Stock: s.ID},
			Form: &card.Form{Outline: card.Rectangle, Corner: card.Square, Width: 60, Height: 40}}
		base, err := card.Apply(card.Card{Schema: 1, Title: "Card", NextID: 1, Base: card.Base{Kind: card.SideFold, Width: 100, Height: 150, Stock: "white-300"}, Faces: []card.Face{{ID: card.Front}, {ID: card.InsideFirst}, {ID: card.InsideSecond}, {ID: card.Back}}},
			card.PlaceItems{Face: card.Front, Items: []card.Item{plate}})
		require.NoError(t, err)
		fill := func(c card.Card, id string) card.Card {
			c, err := card.Apply(c, opening.FillOpening{ID: id, Picture: picture, PixelWidth: 900, PixelHeight: 600})
			require.NoError(t, err)
			return c
		}
		shows := func(c card.Card, id string) {
			_, it := c.Find(id)
			on, _ := card.StockByID(it.Made.Stock)
			assert.True(t, on.ShowsInk() && on.Coated, "%s on %s: was %s", it.Name, on.ID, s.ID)
			assert.Greater(t, it.Made.Bleed, 0.0)
		}
		shows(fill(base, "i1"), "i1")

		cells, err := card.Apply(base, opening.DivideOpening{ID: "i1", Columns: 2, Rows: 2, Gap: 2})
		require.NoError(t, err)
		for _, it := range cells.Face(card.Front).Items {
			cells = fill(cells, it.ID)
			shows(cells, it.ID)
		}

		waits, err := card.Apply(base, card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Place", Kind: card.Slot, Place: card.Place{X: 50, Y: 120}, Made: card.Made{As: card.Printed},
			Form: &card.Form{Outline: card.Rectangle, Corner: card.Square, Width: 30, Height: 20}, Slot: &card.Waits{Takes: card.TakesPhoto, Made: card.Made{As: card.Cut, Stock: s.ID}}}}})
		require.NoError(t, err)
		waits = fill(waits, "i1")
		swapped, err := card.Apply(waits, opening.SwapPictures{A: "i1", B: "i2"})
		require.NoError(t, err)
		_, it := swapped.Find("i2")
		on, _ := card.StockByID(it.Made.Stock)
		assert.True(t, on.ShowsInk(), "a slot of %s filled by a swap is on %s", s.ID, on.ID)

		papered, err := card.Apply(base, card.SetFill{IDs: []string{"i1"}, Fill: card.Fill{Paper: "oat-stripe"}})
		require.NoError(t, err)
		_, it = papered.Find("i1")
		on, _ = card.StockByID(it.Made.Stock)
		assert.True(t, on.ShowsInk(), "a paper on %s is on %s", s.ID, on.ID)
		if s.ShowsInk() {
			assert.Equal(t, s.ID, on.ID, "a white stock is kept")
		}
		again, err := card.Apply(papered, card.SetMade{IDs: []string{"i1"}, Made: card.Made{As: card.Cut, Stock: s.ID}})
		require.NoError(t, err)
		_, it = again.Find("i1")
		assert.Equal(t, s.ID, it.Made.Stock, "a person may choose another")
	}
}

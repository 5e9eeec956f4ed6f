package sheet_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/production/sheet"
)

// What is printed keeps as far from the edges as the printer does, but on sizes that it prints to their edges
// where that is asked for; what is not printed goes by the setup alone.
func TestThePrinterReachesWhatItIsSaidTo(t *testing.T) {
	printed := card.Item{Name: "Panel", Kind: card.Shape, Place: card.Place{X: 60, Y: 90}, Made: card.Made{As: card.Cut, Stock: "white-216"},
		Fill: card.Fill{Colour: "#a8432a"}, Form: &card.Form{Outline: card.Rectangle, Corner: card.Square, Width: 60, Height: 50}}
	bare := printed
	bare.Name, bare.Fill, bare.Made.Stock = "Bare", card.Fill{}, "moss-216"
	c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{printed, bare}})
	require.NoError(t, err)
	margins := func(reach *sheet.PrinterReach, setup float64) (of map[string]float64) {
		of = map[string]float64{}
		l := layWith(t, c, func(o *sheet.Options) { o.Printer, o.Margin, o.Marking = reach, setup, sheet.Unmarked })
		for _, sh := range l.Sheets {
			for _, p := range sh.Pieces {
				b := p.Outline.Bounds()
				assert.GreaterOrEqual(t, min(b.X, b.Y, sh.Size.Width-b.Right(), sh.Size.Height-b.Bottom()), sh.Margin-1e-6, p.Name)
				of[p.Name] = sh.Margin
			}
		}
		return of
	}
	size := sheet.Sizes()[0].ID
	wide := &sheet.PrinterReach{Margin: 9}
	assert.InDelta(t, 3, margins(nil, 3)["Panel"], 1e-9)
	assert.InDelta(t, 9, margins(wide, 3)["Panel"], 1e-9)
	assert.InDelta(t, 3, margins(wide, 3)["Bare"], 1e-9, "nothing is printed there")
	assert.InDelta(t, 12, margins(wide, 12)["Panel"], 1e-9, "more may be kept free")
	assert.InDelta(t, 9, margins(wide, 0)["Panel"], 1e-9, "not to the edges of this size")
	edge := &sheet.PrinterReach{Margin: 9, Borderless: []string{size}}
	assert.InDelta(t, 0, margins(edge, 0)["Panel"], 1e-9)
	assert.InDelta(t, 9, margins(edge, 3)["Panel"], 1e-9)
	require.Error(t, sheet.PrinterReach{Margin: -1}.Check())
	require.Error(t, sheet.PrinterReach{Borderless: []string{"napkin"}}.Check())
}

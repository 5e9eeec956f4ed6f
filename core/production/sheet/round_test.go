package sheet_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest/sheettest"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/production/sheet"
)

// A printed disc has room between the marks in the corners although its box has not, and so
// has a square that stands on its corner.
func TestRoundAndSlantedFormsFitBetweenTheMarks(t *testing.T) {
	for _, k := range []struct {
		name string
		form card.Form
		turn float64
	}{
		{"disc", card.Form{Outline: card.Ellipse, Width: 286, Height: 286}, 0},
		{"disc to the margins", card.Form{Outline: card.Ellipse, Width: 291, Height: 291}, 0},
		{"diamond", card.Form{Outline: card.Rectangle, Width: 204, Height: 204, Corner: card.Square}, 45},
	} {
		t.Run(k.name, func(t *testing.T) {
			form := k.form
			c := folded(t, card.SideFold, 100, 100, card.PlaceItems{Face: card.Front, Items: []card.Item{{
				Name: "Form", Kind: card.Shape, Place: card.Place{X: 50, Y: 50, Turn: k.turn}, Made: card.Made{As: card.Cut, Stock: "moss-216"},
				Fill: card.Fill{Colour: "#a8432a"}, Form: &form,
			}}})
			s, err := scene.Of(c)
			require.NoError(t, err)
			size, _ := sheet.SizeByID("square")
			opt := sheettest.Usual(size)
			if k.turn != 0 {
				setup := card.UsualSheets()
				setup.Size, setup.Turning = "square", card.TurnFreely
				opt, err = sheet.OptionsOf(setup)
				require.NoError(t, err)
			}
			l := sheet.Lay(c, s, opt, nil)
			require.Empty(t, l.Problems)
			for _, sh := range l.Sheets {
				for _, m := range sh.Marks {
					for _, p := range sh.Pieces {
						near, ok := p.Outline.Nearest(m.At)
						require.True(t, ok)
						assert.Greater(t, near.Distance, sheet.MarkRing+sheet.MarkClear-.01)
						assert.False(t, math.IsNaN(near.Distance))
					}
				}
			}
		})
	}
}

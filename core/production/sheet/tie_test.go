package sheet_test

import (
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/production/sheet"
)

// Printed pieces that have no room beside the marks lose them on sheets of their own; every other sheet keeps
// its marks, and a sheet that is cut without is told.
func TestMarksBelongToTheSheetThatLacksRoom(t *testing.T) {
	c := labels(t, [2]float64{300, 300}, [2]float64{60, 40})
	c, err := card.Apply(c, card.SetFill{IDs: []string{"i1", "i2"}, Fill: card.Fill{Colour: "#35658c"}})
	require.NoError(t, err)
	setup := card.UsualSheets()
	setup.Size, setup.Margin, setup.Unmarked = "square", 0, []string{"i1"}
	s, err := scene.Of(c)
	require.NoError(t, err)
	opt, err := sheet.OptionsOf(setup)
	require.NoError(t, err)
	l := sheet.Lay(c, s, opt, nil)
	at := map[string]sheet.Sheet{}
	for _, sh := range l.Sheets {
		for _, p := range sh.Pieces {
			at[p.ID] = sh
		}
	}
	require.Contains(t, at, "i1", "%v", l.Problems)
	require.Contains(t, at, "i2")
	assert.Empty(t, at["i1"].Marks)
	assert.True(t, at["i1"].Unregistered())
	assert.Len(t, at["i2"].Marks, 4)
	assert.False(t, at["i2"].Unregistered())
	assert.NotEqual(t, at["i1"].Number, at["i2"].Number)
}

// A set that is tied keeps its arrangement on the face, turned by quarters alone, however the layout had its
// pieces.
func TestATieKeepsTheArrangementOnTheFace(t *testing.T) {
	c := labels(t, [2]float64{40, 20}, [2]float64{30, 30})
	c, err := card.Apply(c, card.MoveItems{IDs: []string{"i1"}, DY: -60}, card.MoveItems{IDs: []string{"i2"}, DY: 30}, card.TurnItems{IDs: []string{"i2"}, Degrees: 12})
	require.NoError(t, err)
	askew := []card.Laid{{Piece: "i1", Place: card.Place{X: 40, Y: 40, Turn: 3.5}}, {Piece: "i2", Place: card.Place{X: 120, Y: 50, Turn: 41}}}
	c, err = card.Apply(c, sheet.TiePieces{Pieces: askew})
	require.NoError(t, err)
	_, one := c.Find("i1")
	_, two := c.Find("i2")
	want := math.Hypot(two.Place.X-one.Place.X, two.Place.Y-one.Place.Y)
	l := lay(t, c, 0)
	require.Empty(t, l.Problems)
	var at [2]card.Place
	for _, sh := range l.Sheets {
		for _, p := range sh.Pieces {
			if k := slices.Index([]string{"i1", "i2"}, p.ID); k >= 0 {
				at[k] = p.Place
			}
		}
	}
	assert.InDelta(t, want, math.Hypot(at[1].X-at[0].X, at[1].Y-at[0].Y), 1e-3)
	assert.InDelta(t, 0, math.Remainder(at[0].Turn, 90), 1e-6, "only by quarters")
	assert.InDelta(t, 0, math.Remainder(at[1].Turn-at[0].Turn-12, 360), 1e-3)

	// Laid by hand, they stay as they lie; one upon the other is turned back to quarters.
	hand, err := card.Apply(labels(t, [2]float64{40, 20}, [2]float64{30, 30}), card.LayPieces{Pieces: askew}, sheet.TiePieces{Pieces: askew})
	require.NoError(t, err)
	assert.Equal(t, askew, hand.Ties[0].Pieces)
	over, err := card.Apply(labels(t, [2]float64{40, 20}, [2]float64{30, 30}), card.MoveItems{IDs: []string{"i1"}, DX: .1}, sheet.TiePieces{Pieces: askew})
	require.NoError(t, err)
	if turn := over.Ties[0].Pieces[0].Place.Turn; turn != 0 {
		assert.InDelta(t, 0, math.Remainder(turn, 90), 1e-6)
	}
}

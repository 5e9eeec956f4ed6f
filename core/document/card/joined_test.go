package card_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
)

// tagged is a card with a cut label, i1, words over it, i2, and words beside it, i3.
func tagged(t *testing.T) card.Card {
	t.Helper()
	words := func(x float64) card.Item {
		return card.Item{Name: "Words", Kind: card.Lettering, Place: card.Place{X: x, Y: 60}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#35658c"},
			Words: &card.Words{Text: "Boat", Font: "alfa-slab-one-400", Size: 14, Leading: 1.2, Align: card.AlignCentre}}
	}
	c, err := card.Apply(coretest.Empty(t),
		card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Label", Kind: card.Shape, Place: card.Place{X: 50, Y: 60}, Made: card.Made{As: card.Cut, Stock: "moss-216"},
			Form: &card.Form{Outline: card.Rectangle, Width: 60, Height: 30, Corner: card.Square}}}},
		card.PlaceItems{Face: card.Front, Items: []card.Item{words(50), words(105)}})
	require.NoError(t, err)
	return c
}

func made(t *testing.T, c card.Card, id string) card.Item {
	t.Helper()
	_, it := c.Find(id)
	require.NotNil(t, it)
	return *it
}

// What is carved out lies on a piece for good: it stays on it wherever it is moved, and is ink
// again when the piece goes.
func TestCarvedWordsBelongToTheirPiece(t *testing.T) {
	c := tagged(t)
	refused(t, c, card.SetMade{IDs: []string{"i3"}, Made: card.Made{As: card.Carved}}, "on", "lies on no piece")
	refused(t, c, card.SetMade{IDs: []string{"i2"}, Made: card.Made{As: card.Carved, Stock: "moss-216"}}, "made", "no stock")
	c, err := card.Apply(c, card.PutOn{IDs: []string{"i2"}, On: ""}, card.SetMade{IDs: []string{"i2"}, Made: card.Made{As: card.Carved}})
	require.NoError(t, err)
	assert.Equal(t, "i1", made(t, c, "i2").On, "of what is under it")
	far, err := card.Apply(c, card.MoveItems{IDs: []string{"i2"}, DX: 0, DY: 90})
	require.NoError(t, err)
	assert.Equal(t, "i1", made(t, far, "i2").On)
	assert.Len(t, far.Face(card.Front).Joined("i1"), 1)
	moved, err := card.Apply(c, card.MoveItems{IDs: []string{"i1"}, DX: 5, DY: 0})
	require.NoError(t, err)
	assert.InDelta(t, 55, made(t, moved, "i2").Place.X, 1e-9, "it goes with it")

	for _, k := range []card.Command{card.RemoveItems{IDs: []string{"i1"}}, card.SetMade{IDs: []string{"i1"}, Made: card.Made{As: card.Printed}}, card.PutOn{IDs: []string{"i2"}, On: ""}} {
		d := c
		if _, ink := k.(card.SetMade); ink {
			d, err = card.Apply(d, card.SetFill{IDs: []string{"i1"}, Fill: card.Fill{Colour: "#587a4a"}})
			require.NoError(t, err)
		}
		d, err = card.Apply(d, k)
		require.NoError(t, err, k)
		it := made(t, d, "i2")
		assert.Equal(t, card.Made{As: card.Printed}, it.Made, "%T", k)
		assert.Equal(t, "#35658c", it.Fill.Colour)
	}
	d, err := card.Apply(c, card.AddMat{IDs: []string{"i2"}, Width: 2, Corner: card.Round, Stock: "moss-216"})
	require.NoError(t, err)
	assert.Equal(t, card.Cut, made(t, d, "i2").Made.As, "what has a mat is a piece")
}

func TestHowIslandsAreHeldIsChecked(t *testing.T) {
	c := tagged(t)
	for _, k := range []struct {
		field string
		s     card.Islands
	}{
		{"islands", card.Islands{How: "glued"}},
		{"each", card.Islands{How: card.BridgedIslands, Each: 5, Width: 1}},
		{"width", card.Islands{How: card.BridgedIslands, Each: 1}},
		{"foot", card.Islands{How: card.BridgedIslands, Each: 1, Width: 1, Foot: -1}},
	} {
		refused(t, c, card.SetMade{IDs: []string{"i1"}, Made: card.Made{As: card.Cut, Stock: "moss-216", Islands: k.s}}, k.field, "")
	}
	c, err := card.Apply(c, card.SetMade{IDs: []string{"i1"}, Made: card.Made{As: card.Cut, Stock: "moss-216", Islands: card.FirstBridges()}})
	require.NoError(t, err)
	assert.Equal(t, card.FirstBridges(), made(t, c, "i1").Made.Islands)
}

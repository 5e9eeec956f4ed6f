package scene_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
)

func TestPhotosAndSlotsSideBySideInAGroupAreCells(t *testing.T) {
	_, id := coretest.Photo(t, 90, 60)
	photo := func(x float64) card.Item {
		return card.Item{Name: "Photo", Kind: card.Photo, Place: card.Place{X: x, Y: 40}, Made: card.Made{As: card.Printed},
			Photo: &card.Print{Picture: id, PixelWidth: 90, PixelHeight: 60, Width: 20, Height: 20}}
	}
	slot := card.Item{Name: "Slot", Kind: card.Slot, Place: card.Place{X: 64, Y: 40}, Made: card.Made{As: card.Printed},
		Form: &card.Form{Outline: card.Rectangle, Corner: card.Square, Width: 20, Height: 20}, Slot: &card.Waits{Takes: card.TakesPhoto, Made: card.Made{As: card.Printed}}}
	shape := card.Item{Name: "Shape", Kind: card.Shape, Place: card.Place{X: 100, Y: 40}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#587a4a"},
		Form: &card.Form{Outline: card.Ellipse, Width: 10, Height: 10}}
	c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{photo(20), photo(42), slot, shape}})
	require.NoError(t, err)

	cells := func(c card.Card) (out []string) {
		s, err := scene.Of(c)
		require.NoError(t, err)
		for _, it := range s.Face(card.Front).Items {
			if it.Cell {
				out = append(out, it.ID)
			}
		}
		return out
	}
	assert.Empty(t, cells(c), "nothing is a group")
	grouped := func(ids ...string) card.Card {
		got, err := card.Apply(c, card.GroupItems{IDs: ids})
		require.NoError(t, err)
		return got
	}
	all := grouped("i1", "i2", "i3")
	assert.Equal(t, []string{"i1", "i2", "i3"}, cells(all))
	assert.Empty(t, cells(grouped("i1", "i2", "i4")), "a group of photos and a shape")
	over, err := card.Apply(all, card.MoveItems{IDs: []string{"i2"}, DX: -5})
	require.NoError(t, err)
	assert.Empty(t, cells(over), "one lies on another")
}

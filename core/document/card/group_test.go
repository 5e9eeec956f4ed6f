package card_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
)

// lone is a face with n printed shapes, i1 to in.
func lone(t *testing.T, n int) card.Card {
	t.Helper()
	var items []card.Item
	for i := range n {
		items = append(items, card.Item{Name: "Dot", Kind: card.Shape, Place: card.Place{X: 10 + 10*float64(i), Y: 20},
			Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#587a4a"}, Form: &card.Form{Outline: card.Ellipse, Width: 6, Height: 6}})
	}
	return do(t, coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: items})
}

func TestGroupsHoldGroupsAndComeApart(t *testing.T) {
	c := lone(t, 5)
	inner := do(t, c, card.GroupItems{IDs: []string{"i1", "i2"}, Name: "Pair"})
	outer := do(t, inner, card.GroupItems{IDs: []string{"i1", "i2", "i3"}})
	f := outer.Face(card.Front)
	require.Len(t, f.Groups, 2)
	assert.Equal(t, "Group of 3", f.Groups[1].Name)
	assert.Equal(t, f.Groups[1].ID, f.Groups[0].In)
	assert.Equal(t, [][]string{{"i1", "i2", "i3"}, {"i4"}}, f.Units([]string{"i1", "i2", "i3", "i4"}))
	assert.Equal(t, [][]string{{"i1", "i2"}, {"i3"}}, f.Units([]string{"i1", "i2", "i3"}), "of a group alone, its parts")

	copied := do(t, outer, card.DuplicateItems{IDs: []string{"i1", "i2", "i3"}, DY: 30})
	f = copied.Face(card.Front)
	require.Len(t, f.Groups, 4)
	assert.Len(t, f.Units([]string{"i1", "i2", "i3", f.Items[5].ID, f.Items[6].ID, f.Items[7].ID}), 2, "the copies are a group of their own")
	part := do(t, outer, card.DuplicateItems{IDs: []string{"i1"}})
	assert.Equal(t, part.Face(card.Front).Items[0].Group, part.Face(card.Front).Items[5].Group, "a copy of a part belongs to the same group")

	apart := do(t, outer, card.UngroupItems{IDs: []string{"i2"}})
	assert.Len(t, apart.Face(card.Front).Groups, 1)
	assert.Equal(t, inner.Face(card.Front).Groups, apart.Face(card.Front).Groups)
	left := do(t, outer, card.RemoveItems{IDs: []string{"i1", "i3"}})
	assert.Empty(t, left.Face(card.Front).Groups, "what holds one thing holds nothing together")
	assert.Empty(t, left.Face(card.Front).Items[0].Group)
	refused(t, c, card.GroupItems{IDs: []string{"i1"}}, "ids", "two things or more")
	refused(t, inner, card.GroupItems{IDs: []string{"i1", "i2", "i1"}}, "ids", "named twice")
	refused(t, c, card.UngroupItems{IDs: []string{"i1"}}, "ids", "None of these")
}

func TestLockedItemsStay(t *testing.T) {
	c := do(t, coretest.Card(t), card.LockItems{IDs: []string{"i2"}, Locked: true})
	for _, k := range []card.Command{card.MoveItems{IDs: []string{"i2"}, DX: 1}, card.TurnItems{IDs: []string{"i2"}, Degrees: 5}, card.RemoveItems{IDs: []string{"i2"}},
		card.ResizeItems{IDs: []string{"i2"}, FX: 2, FY: 2}, card.PutOnFace{IDs: []string{"i2"}, Face: card.Back}} {
		refused(t, c, k, "ids", "“Photo” is locked")
	}
	c = do(t, c, card.LockItems{IDs: []string{"i2"}})
	do(t, c, card.MoveItems{IDs: []string{"i2"}, DX: 1})
}

func TestHiddenItemsTakeWhatTheyCarryAlong(t *testing.T) {
	c := do(t, coretest.Card(t), card.HideItems{IDs: []string{"i2", "i4"}, Hidden: true})
	s, err := scene.Of(c)
	require.NoError(t, err)
	f := s.Face(card.Front)
	require.Len(t, f.Items, 1)
	assert.Equal(t, []scene.Hidden{{ID: "i3", Name: "Photo mat"}, {ID: "i4", Name: "Label"}}, f.Hidden)
	back := do(t, c, card.HideItems{IDs: []string{"i3", "i4"}})
	assert.Equal(t, coretest.Card(t), back)
}

func TestItemsGoToTheSamePlaceOnAnotherFace(t *testing.T) {
	c := coretest.Card(t)
	moved := do(t, c, card.PutOnFace{IDs: []string{"i2"}, Face: card.Back})
	assert.Equal(t, "i1 i4 i5/i4", order(moved, card.Front))
	back := moved.Face(card.Back)
	require.Len(t, back.Items, 3)
	assert.Equal(t, card.Mat, back.Items[1].Kind)
	assert.Equal(t, back.Items[1].ID, back.Items[2].On)
	_, photo := c.Find("i2")
	assert.Equal(t, photo.Place, back.Items[2].Place)
	both := do(t, c, card.PutOnFace{IDs: []string{"i2"}, Face: card.Back, Copy: true})
	assert.Equal(t, c.Face(card.Front), both.Face(card.Front))
	refused(t, c, card.PutOnFace{IDs: []string{"i2"}, Face: card.Front}, "face", "another face")
}

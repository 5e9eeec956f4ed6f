package check_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/card"
	"sectilis/core/check"
	"sectilis/core/fold"
	"sectilis/core/scene"
)

func square(name string, x, y, size float64) card.Item {
	return card.Item{Name: name, Kind: card.Shape, Place: card.Place{X: x, Y: y}, Made: card.Made{As: card.Cut, Stock: "moss-216"},
		Form: &card.Form{Outline: card.Rectangle, Width: size, Height: size, Corner: card.Square}}
}

func look(t *testing.T, c card.Card) []check.Finding {
	t.Helper()
	s, err := scene.Of(c)
	require.NoError(t, err)
	return check.Folding(c, s)
}

func TestPiecesThatStickOutAreFoundAndMended(t *testing.T) {
	c, err := fold.New("Trial", card.Base{Kind: card.StepCard, Width: 114.3, Height: 114.3, Stock: "cream-300"})
	require.NoError(t, err)
	for _, face := range []card.FaceID{card.Front, card.Back, card.InsideFirst, card.InsideSecond} {
		// Inside, the steps take up the middle: the corners are free.
		c2, err := card.Apply(c, card.PlaceItems{Face: face, Items: []card.Item{square("Bird", 4, 8, 10), square("Tree", 110, 108, 8)}})
		require.NoError(t, err)
		found := look(t, c2)
		require.Len(t, found, 1, "%s: %v", face, found)
		assert.Equal(t, check.Stop, found[0].Weight)
		assert.InDelta(t, 1, found[0].By, 1e-6)
		assert.Contains(t, found[0].Why, "“Bird” sticks out by")
		require.NotNil(t, found[0].Mend)
		mended, err := card.Apply(c2, card.MoveItems{IDs: []string{found[0].Mend.ID}, DX: found[0].Mend.DX, DY: found[0].Mend.DY})
		require.NoError(t, err)
		assert.Empty(t, look(t, mended), "%s", face)
	}
}

func TestPiecesAcrossFoldsAreFound(t *testing.T) {
	c, err := fold.New("Trial", card.Base{Kind: card.StepCard, Width: 114.3, Height: 114.3, Stock: "cream-300"})
	require.NoError(t, err)
	n := fold.Of(c.Base)
	var ridge fold.Line
	for _, l := range n.FoldsOn(card.InsideFirst) {
		if l.Role == fold.Mountain {
			ridge = l
		}
	}
	mid := ridge.From.Lerp(ridge.To, .5)
	c, err = card.Apply(c, card.PlaceItems{Face: card.InsideFirst, Items: []card.Item{square("Gate", mid.X, mid.Y, 8)}})
	require.NoError(t, err)
	found := look(t, c)
	require.Len(t, found, 1)
	assert.Contains(t, found[0].Why, "“Gate” is glued across a valley score")
	assert.InDelta(t, 8, found[0].By, 1e-6)
}

// A tucked leaf is shorter; what reaches over it still lies within the card.
func TestWhatATriFoldHidesDoesNotStickOut(t *testing.T) {
	c, err := fold.New("Trial", card.Base{Kind: card.TriFold, Width: 100, Height: 150, Stock: "cream-300"})
	require.NoError(t, err)
	_, inside := card.LeafFaces(2)
	c, err = card.Apply(c, card.PlaceItems{Face: inside, Items: []card.Item{square("Leaf", 97, 75, 6)}})
	require.NoError(t, err)
	assert.Empty(t, look(t, c))
	c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{square("Sun", 99, 75, 6)}})
	require.NoError(t, err)
	found := look(t, c)
	require.Len(t, found, 1)
	assert.Contains(t, found[0].Why, "at the right")
}

// A liner lies in the middle and the flap of its envelope, and folds with it.
func TestALinerFoldsWithItsEnvelope(t *testing.T) {
	c, err := fold.New("Trial", card.Base{Kind: card.Envelope, Width: 165, Height: 120, Stock: "text-120"})
	require.NoError(t, err)
	c, err = card.Apply(c, fold.AddLiner{Stock: "text-120", Paper: "comb"})
	require.NoError(t, err)
	it := c.Face(card.InsideFirst).Items[0]
	assert.InDelta(t, 165-8, it.Form.Width, 1e-3)
	assert.Greater(t, it.Form.Height, 120., "it reaches into the flap")
	found := look(t, c)
	require.Len(t, found, 1)
	assert.Equal(t, check.Note, found[0].Weight)
	assert.Contains(t, found[0].Why, "score it there too")
	_, err = card.Apply(c, fold.SetBase{Base: card.Base{Kind: card.TopFold, Width: 100, Height: 100, Stock: "text-120"}}, fold.AddLiner{Stock: "text-120"})
	assert.ErrorContains(t, err, "goes into an envelope")
}

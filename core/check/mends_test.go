package check_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/check"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// ofScene are the findings of one check about what is seen of a card.
func ofScene(t *testing.T, c card.Card, id check.ID) (out []check.Finding) {
	t.Helper()
	s, err := scene.Of(c)
	require.NoError(t, err)
	for _, f := range check.Run(check.TheScene, check.Input{Card: c, Scene: &s}) {
		if f.Check == id {
			out = append(out, f)
		}
	}
	return out
}

// with is a side fold with items on its front, each placed after those before.
func with(t *testing.T, items ...card.Item) card.Card {
	t.Helper()
	c, err := fold.New("Trial", card.Base{Kind: card.SideFold, Width: 127, Height: 178, Stock: "cream-300"})
	require.NoError(t, err)
	for _, it := range items {
		c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{it}})
		require.NoError(t, err)
	}
	return c
}

// A whole mat below a mat, or below another piece, carries the loose middles of what lies on that.
func TestAWholeMatCarriesLooseMiddlesFromBelow(t *testing.T) {
	ring, err := geom.ParsePath("M0 0H40V40H0ZM10 10V30H30V10ZM16 16H24V24H16Z")
	require.NoError(t, err)
	frame := square("Frame", 60, 80, 40)
	frame.Form.Outline, frame.Form.Corner, frame.Form.Path = card.Free, "", card.NewDrawn(ring)
	matted := func(c card.Card) card.Card {
		c, err := card.Apply(c, card.AddMat{IDs: []string{"i1"}, Width: 3, Corner: card.Square, Stock: "moss-216"})
		require.NoError(t, err)
		return c
	}
	onPanel := frame
	onPanel.On = "i1"
	for name, k := range map[string]struct {
		c  card.Card
		id string
	}{
		"a mat":         {matted(with(t, frame)), "i1"},
		"another piece": {with(t, square("Panel", 60, 80, 70), onPanel), "i2"},
	} {
		found := ofScene(t, k.c, "looseMiddles")
		require.NotEmpty(t, found, name)
		c, err := card.Apply(k.c, check.Backing(k.id))
		require.NoError(t, err)
		for _, f := range ofScene(t, c, "looseMiddles") {
			assert.NotEqual(t, k.id, f.Item, "%s: %s", name, f.Why)
		}
	}
}

// Words that run off a piece are not moved in to where it is not: they would be printed on what is below.
func TestWordsAreMovedInOnlyWhereTheirPieceIs(t *testing.T) {
	bar := square("Bar", 60, 90, 20)
	bar.Form.Width, bar.Place.Turn = 100, 45
	words := func(x, y float64) card.Item {
		return card.Item{Name: "Words", Kind: card.Lettering, On: "i1", Place: card.Place{X: x, Y: y}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#35658c"},
			Words: &card.Words{Text: "in", Font: "courier-prime-400", Size: 12, Leading: 1.2, Align: card.AlignCentre}}
	}
	// The box around the bar ends 102.4 mm from the left; it is empty at the top there.
	found := ofScene(t, with(t, bar, words(96, 124)), "runsOff")
	require.Len(t, found, 1)
	require.Len(t, found[0].Mends, 1, found[0].Why)
	c := mended(t, with(t, bar, words(96, 124)), found[0])
	_, it := c.Find("i2")
	assert.Equal(t, "i1", it.On)
	found = ofScene(t, with(t, bar, words(96, 56)), "runsOff")
	require.Len(t, found, 1)
	assert.Contains(t, found[0].Why, "at the right")
	assert.Empty(t, found[0].Mends)
}

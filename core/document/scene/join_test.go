package scene_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// carved is a card with a turned cut label, i1, that words, i2, are joined to.
func carved(t *testing.T, as card.As, how card.Islands) card.Card {
	t.Helper()
	c, err := card.Apply(coretest.Empty(t),
		card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Label", Kind: card.Shape, Place: card.Place{X: 60, Y: 60, Turn: 30}, Made: card.Made{As: card.Cut, Stock: "moss-216", Islands: how},
			Form: &card.Form{Outline: card.Rectangle, Width: 60, Height: 30, Corner: card.Square}}}},
		card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Words", Kind: card.Lettering, Place: card.Place{X: 60, Y: 60, Turn: 12}, Made: card.Made{As: card.Printed},
			Fill: card.Fill{Colour: "#35658c"}, Words: &card.Words{Text: "Boat", Font: "alfa-slab-one-400", Size: 14, Leading: 1.2, Align: card.AlignCentre}}}},
		card.SetMade{IDs: []string{"i2"}, Made: card.Made{As: as}})
	require.NoError(t, err)
	return c
}

func itemOf(t *testing.T, c card.Card, id string) scene.Item {
	t.Helper()
	s, err := scene.Of(c)
	require.NoError(t, err)
	for _, it := range s.Faces[0].Items {
		if it.ID == id {
			return it
		}
	}
	t.Fatal(id)
	return scene.Item{}
}

// A piece that words are carved out of has its own outline less theirs, wherever both are
// turned to; of words that are welded to it, both.
func TestWordsAreCarvedOutOfTheirPieceOrWeldedToIt(t *testing.T) {
	bare := card.Form{Outline: card.Rectangle, Width: 60, Height: 30, Corner: card.Square}
	for _, as := range []card.As{card.Carved, card.Welded} {
		c := carved(t, as, card.Islands{})
		label, words := itemOf(t, c, "i1"), itemOf(t, c, "i2")
		plate := card.OutlineOf(bare).Transform(label.At)
		letters := words.Outline.Transform(words.At)
		want := geom.Difference(geom.NonZero, plate, letters)
		if as == card.Welded {
			want = geom.Union(geom.NonZero, plate, letters)
		}
		is := label.Outline.Transform(label.At)
		assert.Less(t, geom.Difference(geom.NonZero, want, is).Area()+geom.Difference(geom.NonZero, is, want).Area(), 1e-3, as)
		assert.Equal(t, as, words.Joined)
		assert.False(t, words.Piece)
		assert.InDelta(t, 60, label.Box.W, 1e-9, "its frame is that of its own outline")

		s, err := scene.Of(c)
		require.NoError(t, err)
		inks := s.Faces[0].PieceInks(&s.Faces[0].Items[0])
		assert.Empty(t, inks, "words that are cut are not printed")
		for _, u := range s.Colours {
			assert.NotEqual(t, "#35658c", u.Colour)
		}
	}
}

func TestIslandsOfAPieceAreLooseHeldOrLeftOut(t *testing.T) {
	loose := itemOf(t, carved(t, card.Carved, card.Islands{}), "i1")
	assert.Len(t, loose.Islands, 4, "two of B, of o and of a")
	assert.Empty(t, loose.Bridges)
	held := itemOf(t, carved(t, card.Carved, card.FirstBridges()), "i1")
	assert.Empty(t, held.Islands)
	assert.NotEmpty(t, held.Bridges)
	assert.Greater(t, held.Outline.Area(), loose.Outline.Area())
	out := itemOf(t, carved(t, card.Carved, card.Islands{How: card.NoIslands}), "i1")
	assert.Empty(t, out.Islands)
	sum := 0.0
	for _, i := range loose.Islands {
		sum += i.Area()
	}
	assert.InDelta(t, loose.Outline.Area()-sum, out.Outline.Area(), 1e-6)
}

// What is carved on after every kind of change is what it would be if it were made anew.
func TestCarvingFollowsItsWords(t *testing.T) {
	c := carved(t, card.Carved, card.FirstBridges())
	s, err := scene.Of(c)
	require.NoError(t, err)
	_, doc := c.Find("i2")
	words := *doc.Words
	words.Text = "Tea & oat"
	for _, k := range []card.Command{
		card.SetWords{ID: "i2", Words: words},
		card.MoveItems{IDs: []string{"i2"}, DX: 3, DY: 1},
		card.HideItems{IDs: []string{"i2"}, Hidden: true},
		card.HideItems{IDs: []string{"i2"}, Hidden: false},
		card.MoveItems{IDs: []string{"i1"}, DX: 3, DY: 1},
		card.SetMade{IDs: []string{"i2"}, Made: card.Made{As: card.Welded}},
		card.SetMade{IDs: []string{"i2"}, Made: card.Made{As: card.Printed}},
	} {
		next, err := card.Apply(c, k)
		require.NoError(t, err, "%T", k)
		after, err := scene.After(next, c, s)
		require.NoError(t, err)
		anew, err := scene.Of(next)
		require.NoError(t, err)
		require.Equal(t, anew, after, "%T", k)
		c, s = next, after
	}
}

// A piece is told where it is thinner than its stock bears, or grown there; thicker stock bears
// less.
func TestThinPartsAreToldOrThickened(t *testing.T) {
	script := func(stock string, thicken bool) scene.Item {
		c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Words", Kind: card.Lettering, Place: card.Place{X: 60, Y: 60},
			Made: card.Made{As: card.Cut, Stock: stock, Thicken: thicken}, Words: &card.Words{Text: "lake", Font: "great-vibes-400", Size: 24, Leading: 1.2, Align: card.AlignCentre}}}})
		require.NoError(t, err)
		return itemOf(t, c, "i1")
	}
	thin := script("white-216", false)
	require.NotNil(t, thin.Thin)
	assert.InDelta(t, 1.15, thin.Thin.Bears, .051)
	assert.Less(t, thin.Thin.Least, .6)
	area := func(it scene.Item) (sum float64) {
		for _, r := range it.Thin.Regions {
			sum += r.Area()
		}
		return sum
	}
	paper, board := script("text-120", false), script("kraft-280", false)
	assert.Less(t, area(paper), area(thin))
	assert.Greater(t, area(board), area(thin))
	grown := script("white-216", true)
	assert.Nil(t, grown.Thin)
	assert.Greater(t, grown.Outline.Area(), thin.Outline.Area()*1.2)
	assert.Less(t, geom.Difference(geom.NonZero, thin.Outline, grown.Outline).Area(), 1e-3)
}

package typeset_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/design/typeset"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// lettered is a card with turned words, i1, and an ellipse, i2.
func lettered(t *testing.T, text, font string) card.Card {
	t.Helper()
	c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{
		{Name: "Words", Kind: card.Lettering, Place: card.Place{X: 60, Y: 80, Turn: 20}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#35658c"},
			Words: &card.Words{Text: text, Font: font, Size: 9, Leading: 1.2, Align: card.AlignLeft}},
		{Name: "Oval", Kind: card.Shape, Place: card.Place{X: 60, Y: 90, Turn: -10}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#587a4a"},
			Form: &card.Form{Outline: card.Ellipse, Width: 60, Height: 40}},
	}})
	require.NoError(t, err)
	return c
}

func item(t *testing.T, c card.Card, id string) scene.Item {
	t.Helper()
	f, it := c.Find(id)
	require.NotNil(t, it)
	s, err := scene.Resolve(f, it)
	require.NoError(t, err)
	return s
}

func refused(t *testing.T, c card.Card, k card.Command, why string) {
	t.Helper()
	after, err := card.Apply(c, k)
	var r *card.Refusal
	require.ErrorAs(t, err, &r)
	assert.Contains(t, r.Why, why)
	assert.Equal(t, c, after)
}

// However words are laid, one way after another, their middle stays and their letters keep
// their size; straight again they are what they were.
func TestWordsAreLaidInEveryWayAboutTheirMiddle(t *testing.T) {
	c := lettered(t, "Harvest\nSupper", "pacifico-400")
	before := item(t, c, "i1")
	for _, lie := range typeset.Lies() {
		if lie == typeset.OnLine {
			continue
		}
		var err error
		c, err = card.Apply(c, typeset.LayWords{ID: "i1", Lie: lie})
		require.NoError(t, err, lie)
		is := item(t, c, "i1")
		assert.InDelta(t, before.Bounds.Centre().X, is.Bounds.Centre().X, 1e-3, lie)
		assert.InDelta(t, before.Bounds.Centre().Y, is.Bounds.Centre().Y, 1e-3, lie)
		assert.InDelta(t, 9, is.Words.Size, 1e-9)
		assert.Zero(t, is.Words.Over, "%s begins with room", lie)
		assert.Equal(t, lie == typeset.InBox, is.FreeRatio, "only a box has a ratio of its own")
		if lie == typeset.OnArc {
			assert.Greater(t, geom.Difference(geom.NonZero, is.Outline, before.Outline).Area(), 1.0)
		}
	}
	c, err := card.Apply(c, typeset.LayWords{ID: "i1", Lie: typeset.Straight})
	require.NoError(t, err)
	is := item(t, c, "i1")
	assert.InDelta(t, before.Outline.Area(), is.Outline.Area(), 1e-9)
	assert.InDelta(t, before.Bounds.X, is.Bounds.X, 1e-3)
	_, doc := c.Find("i1")
	assert.Nil(t, doc.Words.Box)
	assert.Nil(t, doc.Words.Path)
	assert.Nil(t, doc.Words.Warp)
	refused(t, c, typeset.LayWords{ID: "i1", Lie: "spiral"}, "do not lie so")
	refused(t, c, typeset.LayWords{ID: "i2", Lie: typeset.OnArc}, "no lettering")
	locked, err := card.Apply(c, card.LockItems{IDs: []string{"i1"}, Locked: true})
	require.NoError(t, err)
	refused(t, locked, typeset.LayWords{ID: "i1", Lie: typeset.OnArc}, "locked")
}

// Letters as large as fits keep that size when the box goes, and lines that reached both edges
// stand in their middle.
func TestWordsLeaveTheirBoxAsTheyWere(t *testing.T) {
	c := lettered(t, "Harvest Supper at noon", "nunito-400")
	c, err := card.Apply(c, typeset.LayWords{ID: "i1", Lie: typeset.InBox})
	require.NoError(t, err)
	_, doc := c.Find("i1")
	w := *doc.Words
	w.Align, w.Box = card.AlignJustify, &card.TextBox{Width: 30, Height: 40, Fit: true}
	c, err = card.Apply(c, card.SetWords{ID: "i1", Words: w})
	require.NoError(t, err)
	size := item(t, c, "i1").Words.Size
	assert.NotEqual(t, 9.0, size)
	c, err = card.Apply(c, typeset.LayWords{ID: "i1", Lie: typeset.OnArc})
	require.NoError(t, err)
	_, doc = c.Find("i1")
	assert.InDelta(t, size, doc.Words.Size, 1e-6)
	assert.Equal(t, card.AlignCentre, doc.Words.Align)
}

// Along another item the feet of the letters are on its outline, wherever both are turned to;
// the item may go afterwards.
func TestWordsStandAlongAnotherItem(t *testing.T) {
	c := lettered(t, "Harvest Supper", "nunito-400")
	c, err := card.Apply(c, typeset.LayWords{ID: "i1", Lie: typeset.OnLine, Along: "i2"})
	require.NoError(t, err)
	oval, words := item(t, c, "i2"), item(t, c, "i1")
	edge := oval.Outline.Transform(oval.At)
	box := words.Outline.Transform(words.At)
	inside := geom.Intersection(geom.NonZero, box, edge)
	assert.Less(t, inside.Area(), .25*box.Area(), "letters stand outside")
	for _, ring := range box.Rings() {
		n, ok := edge.Nearest(ring.Bounds().Centre())
		require.True(t, ok)
		assert.Less(t, n.Distance, 9.0)
	}
	c, err = card.Apply(c, card.RemoveItems{IDs: []string{"i2"}})
	require.NoError(t, err)
	assert.InDelta(t, words.Bounds.X, item(t, c, "i1").Bounds.X, 1e-9)
	refused(t, c, typeset.LayWords{ID: "i1", Lie: typeset.OnLine, Along: "i1"}, "one other item")
	refused(t, c, typeset.LayWords{ID: "i1", Lie: typeset.OnLine}, "one other item")
}

// Taken apart, the letters cover what the words did, each in its ink, as a group.
func TestLettersThatAreTakenApartStayInTheirPlaces(t *testing.T) {
	for _, lie := range []typeset.Lie{typeset.Straight, typeset.OnArc, typeset.ToArch} {
		c := lettered(t, "Plum\nLane", "alfa-slab-one-400")
		_, doc := c.Find("i1")
		w := *doc.Words
		w.Colours, w.ColourBy = []string{"#112233", "#445566"}, card.ByLetter
		c, err := card.Apply(c, card.SetWords{ID: "i1", Words: w}, typeset.LayWords{ID: "i1", Lie: lie})
		require.NoError(t, err)
		was := item(t, c, "i1")
		c, err = card.Apply(c, typeset.LettersApart{ID: "i1"})
		require.NoError(t, err)
		_, gone := c.Find("i1")
		assert.Nil(t, gone)
		f := c.Face(card.Front)
		var all []geom.Path
		var names []string
		var inks []string
		for _, it := range f.Items {
			if it.Group == "" {
				continue
			}
			s := item(t, c, it.ID)
			all = append(all, s.Outline.Transform(s.At))
			names, inks = append(names, it.Name), append(inks, it.Fill.Colour)
		}
		assert.Equal(t, []string{"P", "l", "u", "m", "L", "a", "n", "e"}, names)
		assert.Equal(t, "#445566", inks[1])
		whole, letters := was.Outline.Transform(was.At), geom.Union(geom.NonZero, geom.Join(all...))
		assert.Less(t, geom.Difference(geom.NonZero, whole, letters).Area()+geom.Difference(geom.NonZero, letters, whole).Area(), .05, lie)
		require.Len(t, f.Groups, 1)
		assert.Equal(t, "Words", f.Groups[0].Name)
	}
	c := lettered(t, "A", "nunito-400")
	refused(t, c, typeset.LettersApart{ID: "i1"}, "has 1")
	refused(t, c, typeset.LettersApart{ID: "i2"}, "no lettering")
	c = lettered(t, "AB", "nunito-400")
	c, err := card.Apply(c, card.AddMat{IDs: []string{"i1"}, Width: 2, Corner: card.Round, Stock: "moss-216"})
	require.NoError(t, err)
	refused(t, c, typeset.LettersApart{ID: "i1"}, "has a mat")
}

// A band lies right below its words, turned as they are, and reaches beyond them on all sides; they
// are moved together.
func TestABandLiesRightBehindWords(t *testing.T) {
	c := lettered(t, "Harvest\nSupper", "pacifico-400")
	words := item(t, c, "i1")
	c, err := card.Apply(c, typeset.BandBehind{ID: "i1", Colour: "#ffffff"})
	require.NoError(t, err)
	f := c.Face(card.Front)
	require.Equal(t, []string{"i3", "i1", "i2"}, []string{f.Items[0].ID, f.Items[1].ID, f.Items[2].ID})
	band := item(t, c, "i3")
	assert.Equal(t, "#ffffff", band.Fill.Colour)
	assert.Empty(t, geom.Difference(geom.NonZero, words.Outline.Transform(words.At), band.Outline.Transform(band.At)).Rings())
	assert.InDelta(t, 20, band.Turn, 1e-9)
	assert.Equal(t, words.At, item(t, c, "i1").At)
	assert.NotEmpty(t, f.Items[0].Group)
	assert.Equal(t, f.Items[0].Group, f.Items[1].Group)

	refused(t, c, typeset.BandBehind{ID: "i2", Colour: "#ffffff"}, "behind printed words")
	refused(t, c, typeset.BandBehind{ID: "i1", Colour: "white"}, "#rrggbb")
	blank, err := card.Apply(c, card.SetWords{ID: "i1", Words: card.Words{Text: "\u00ad", Font: "pacifico-400", Size: 9, Leading: 1.2, Align: card.AlignLeft}})
	require.NoError(t, err)
	refused(t, blank, typeset.BandBehind{ID: "i1", Colour: "#ffffff"}, "no letters")
}

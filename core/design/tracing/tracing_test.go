package tracing

import (
	"math"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/design/arrange"
	"sectilis/core/design/opening"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/cleanform"
	"sectilis/core/ground/geom"
)

// photographed is a card with a photo of 400 by 300 pixels, 80 by 60 mm, turned and mirrored.
func photographed(t *testing.T) card.Card {
	t.Helper()
	_, id := coretest.Photo(t, 400, 300)
	c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Fox", Kind: card.Photo,
		Place: card.Place{X: 60, Y: 80, Turn: 30, Mirrored: true}, Made: card.Made{As: card.Cut, Stock: "satin-240", Bleed: 1},
		Photo: &card.Print{Picture: id, PixelWidth: 400, PixelHeight: 300, Width: 80, Height: 60}}}})
	require.NoError(t, err)
	return c
}

// edge is a square with a round hole and a narrow bay, in pixels.
func edge(t *testing.T) *card.Drawn {
	return card.NewDrawn(coretest.Path(t, "M100 50H300V120H280V124H300V250H100ZM220 150A20 20 0 0 0 180 150A20 20 0 0 0 220 150Z"))
}

func item(t *testing.T, c card.Card, id string) scene.Item {
	t.Helper()
	f, doc := c.Find(id)
	require.NotNil(t, doc)
	it, err := scene.Resolve(f, doc)
	require.NoError(t, err)
	return it
}

// pixel is where a pixel of a photo is seen on the face.
func pixel(t *testing.T, c card.Card, id string, x, y float64) geom.Point {
	t.Helper()
	_, doc := c.Find(id)
	return scene.OnPhoto(doc).Then(doc.Place.Map()).Apply(geom.Pt(x, y))
}

func near(t *testing.T, want, got geom.Point) {
	t.Helper()
	assert.InDelta(t, 0, want.Sub(got).Len(), 1e-3)
}

// The picture stays where it is, its piece has the traced outline and a rim, and what is printed
// ends at the outline.
func TestAPictureIsCutRoundItsForm(t *testing.T) {
	c := photographed(t)
	was := pixel(t, c, "i1", 130, 70)
	c, err := card.Apply(c, CutRound{ID: "i1", Edge: edge(t)})
	require.NoError(t, err)
	bare := item(t, c, "i1")
	const px = 62. / 300 // its ink runs past its edge by 1 mm
	const w = 200 * px
	area := (200*200 - 20*4 - math.Pi*400) * px * px
	assert.InDelta(t, area, bare.Outline.Area(), .05)
	near(t, was, pixel(t, c, "i1", 130, 70))

	c, err = card.Apply(c, SetRim{IDs: []string{"i1"}, Rim: &card.Rim{Width: 3, Bays: 2}})
	require.NoError(t, err)
	near(t, was, pixel(t, c, "i1", 130, 70))
	it := item(t, c, "i1")
	// The bay is filled and the hole is smaller by the rim.
	want := w*w + 4*w*3 + math.Pi*9 - math.Pi*(20*px-3)*(20*px-3)
	assert.InDelta(t, want, it.Outline.Area(), .2)
	require.NotNil(t, it.Rest)
	assert.InDelta(t, area, it.Rest.Area(), .05)
	assert.Zero(t, it.Bleed)
	f := scene.Face{Items: []scene.Item{it}}
	inks := f.PieceInks(&it)
	require.Len(t, inks, 1)
	assert.InDelta(t, area, math.Abs(inks[0].Region.Area()), .05, "ink ends at the outline")

	solid, err := card.Apply(c, SetRim{IDs: []string{"i1"}, Rim: &card.Rim{Width: 3, Bays: 2, Solid: true}})
	require.NoError(t, err)
	assert.InDelta(t, w*w+4*w*3+math.Pi*9, item(t, solid, "i1").Outline.Area(), .05)

	// A mat follows the rim.
	matted, err := card.Apply(solid, card.AddMat{IDs: []string{"i1"}, Width: 2, Corner: card.Round, Stock: "white-216"})
	require.NoError(t, err)
	assert.InDelta(t, w*w+4*w*5+math.Pi*25, item(t, matted, "i2").Outline.Area(), .05)
	for _, bad := range []float64{-1, 51, math.NaN()} {
		_, err = card.Apply(c, SetRim{IDs: []string{"i1"}, Rim: &card.Rim{Width: bad}})
		assert.Error(t, err)
	}
}

func TestATransparentPictureIsPlacedCutRound(t *testing.T) {
	_, id := coretest.Photo(t, 400, 300)
	c, err := card.Apply(coretest.Empty(t), arrange.PlaceSupply{Face: card.Front, Kind: arrange.PhotoSupply, ID: id, PixelWidth: 400, PixelHeight: 300, Edge: edge(t)})
	require.NoError(t, err)
	it := item(t, c, "i1")
	rim := card.FirstRim().Width
	_, doc := c.Find("i1")
	assert.InDelta(t, doc.Photo.Width+2*rim, it.Bounds.W, 1e-3)
	assert.InDelta(t, 1, doc.Photo.Width/doc.Photo.Height, 1e-3, "the square that is seen, not the whole picture")
}

// Another picture takes the place of one that is cut round its form: it is as wide as that was, cut round its
// own form with the same rim, and turned as that was. Without an outline it is seen through the old one.
func TestAPictureThatIsReplacedIsCutRoundItsOwnForm(t *testing.T) {
	c, err := card.Apply(photographed(t), CutRound{ID: "i1", Edge: edge(t)}, SetRim{IDs: []string{"i1"}, Rim: &card.Rim{Width: 3, Solid: true}})
	require.NoError(t, err)
	wide := pixel(t, c, "i1", 400, 0).Sub(pixel(t, c, "i1", 0, 0)).Len()
	old := item(t, c, "i1").Outline.Area()
	_, id := coretest.Photo(t, 500, 500)
	other := opening.FillOpening{ID: "i1", Picture: id, PixelWidth: 500, PixelHeight: 500, Name: "Owl"}
	plain, err := card.Apply(c, other)
	require.NoError(t, err)
	assert.InDelta(t, old, item(t, plain, "i1").Outline.Area(), 1e-6)

	other.Edge = card.NewDrawn(coretest.Path(t, "M50 100H450V300H50Z"))
	c, err = card.Apply(c, other)
	require.NoError(t, err)
	_, doc := c.Find("i1")
	px := wide / 500
	assert.InDelta(t, 400*px*200*px+2*3*600*px+math.Pi*9, item(t, c, "i1").Outline.Area(), .05)
	near(t, geom.Pt(0, 0).Add(doc.Place.Map().Apply(geom.Pt(0, 0))), pixel(t, c, "i1", 250, 200))
	assert.InDelta(t, 30, doc.Place.Turn, 1e-9)
	assert.True(t, doc.Place.Mirrored)
	assert.Equal(t, "Owl", doc.Name)
	assert.InDelta(t, 3, doc.Photo.Rim.Width, 1e-9)
	other.Edge = card.NewDrawn(coretest.Path(t, "M0 0H1"))
	_, err = card.Apply(c, other)
	assert.Error(t, err, "what is no outline")
}

// Outlines are laid where they are seen in the picture, of the nearest stock or printed.
func TestOutlinesAreLaidOverThePicture(t *testing.T) {
	c := photographed(t)
	c, err := card.Apply(c, LayTraced{ID: "i1", As: card.Cut, Parts: []TracedPart{{"#ffffff", edge(t)}, {"#202020", card.NewDrawn(coretest.Path(t, "M0 0H40V40H0Z"))}}})
	require.NoError(t, err)
	f := c.Face(card.Front)
	require.Len(t, f.Items, 3)
	assert.Len(t, f.Groups, 1)
	low, high := item(t, c, f.Items[1].ID), item(t, c, f.Items[2].ID)
	assert.True(t, low.Piece)
	assert.NotEqual(t, f.Items[1].Made.Stock, f.Items[2].Made.Stock)
	outline := high.Outline.Transform(high.At)
	for _, at := range [][2]float64{{0, 0}, {40, 0}, {40, 40}} {
		n, ok := outline.Nearest(pixel(t, c, "i1", at[0], at[1]))
		require.True(t, ok)
		assert.Less(t, n.Distance, 1e-3)
	}
	assert.InDelta(t, 30, high.Turn, 1e-9)
	inside := low.Outline.Transform(low.At)
	assert.True(t, inside.Covers(pixel(t, c, "i1", 110, 60), geom.NonZero))
	assert.False(t, inside.Covers(pixel(t, c, "i1", 200, 150), geom.NonZero), "the hole")

	c, err = card.Apply(photographed(t), LayTraced{ID: "i1", As: card.Printed, Parts: []TracedPart{{"#a01020", edge(t)}}})
	require.NoError(t, err)
	_, doc := c.Find("i2")
	assert.Equal(t, "#a01020", doc.Fill.Colour)
	for _, bad := range []LayTraced{{ID: "i1", As: card.Cut}, {ID: "i1", As: card.Carved, Parts: []TracedPart{{"#fff", edge(t)}}}, {ID: "i1", As: card.Cut, Parts: []TracedPart{{}}}} {
		_, err = card.Apply(photographed(t), bad)
		var refusal *card.Refusal
		require.ErrorAs(t, err, &refusal)
	}
}

// A ragged rectangle becomes one with measures, turned as it lay; a photo keeps its picture where
// it is.
func TestThePlainFormIsTaken(t *testing.T) {
	ragged := "M-30 -20"
	for i := 1; i < 60; i++ {
		ragged += "H" + num(-30+float64(i)) + "V" + num(-20+.3*float64(i%2))
	}
	ragged += "H30V20H-30Z"
	c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Frame", Kind: card.Shape,
		Place: card.Place{X: 60, Y: 80, Turn: 20, Mirrored: true}, Made: card.Made{As: card.Cut, Stock: "white-216"},
		Form: &card.Form{Outline: card.Free, Width: 60, Height: 40, Path: card.NewDrawn(coretest.Path(t, ragged))}}}})
	require.NoError(t, err)
	was := item(t, c, "i1")
	f, doc := c.Find("i1")
	require.NotNil(t, f)
	forms, err := Forms(doc)
	require.NoError(t, err)
	require.Equal(t, cleanform.Rectangle, forms[0].Kind)
	assert.Less(t, forms[0].Worst, .4)
	taken, err := card.Apply(c, TakeForm{ID: "i1", Kind: cleanform.Rectangle})
	require.NoError(t, err)
	_, doc = taken.Find("i1")
	assert.Equal(t, card.Rectangle, doc.Form.Outline)
	assert.InDelta(t, 60, doc.Form.Width, .2)
	assert.InDelta(t, 40, doc.Form.Height, .2)
	assert.InDelta(t, 20, doc.Place.Turn, .2)
	now := item(t, taken, "i1")
	shown := now.Outline.Transform(now.At)
	assert.Less(t, geom.Difference(geom.NonZero, shown, was.Outline.Transform(was.At)).Area(), 20.)
	assert.Less(t, geom.Difference(geom.NonZero, shown, forms[0].Outline).Area(), .5, "where it was shown")
	for _, kind := range []cleanform.Kind{cleanform.Ellipse, cleanform.Star, cleanform.Polygon} {
		other, err := card.Apply(c, TakeForm{ID: "i1", Kind: kind})
		require.NoError(t, err)
		now := item(t, other, "i1")
		for _, form := range forms {
			if form.Kind == kind {
				over := geom.Difference(geom.NonZero, now.Outline.Transform(now.At), form.Outline).Area()
				assert.Less(t, math.Abs(over), 2., kind)
			}
		}
	}

	p := photographed(t)
	p, err = card.Apply(p, CutRound{ID: "i1", Edge: card.NewDrawn(coretest.Path(t, "M100 50H299V52H300V250H100Z"))})
	require.NoError(t, err)
	at := pixel(t, p, "i1", 130, 70)
	p, err = card.Apply(p, TakeForm{ID: "i1", Kind: cleanform.Rectangle})
	require.NoError(t, err)
	_, doc = p.Find("i1")
	assert.Nil(t, doc.Photo.Opening, "a plain rectangle")
	near(t, at, pixel(t, p, "i1", 130, 70))

	_, err = card.Apply(photographed(t), TakeForm{ID: "i1", Kind: cleanform.Rectangle})
	assert.ErrorContains(t, err, "no drawn outline")
}

func num(v float64) string { return strconv.FormatFloat(v, 'f', 3, 64) }

package arrange_test

import (
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/design/arrange"
	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/document/pattern"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/edging"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
	"sectilis/core/ground/shape"
)

// based is an empty card whose front is w by h.
func based(t *testing.T, w, h float64) card.Card {
	t.Helper()
	c, err := fold.New("Plums", card.Base{Kind: card.SideFold, Width: w, Height: h, Stock: "cream-300"})
	require.NoError(t, err)
	return c
}

// placed is the one item that a command leaves on the front of an empty card.
func placed(t *testing.T, w, h float64, k card.Command) card.Item {
	t.Helper()
	c, err := card.Apply(based(t, w, h), k)
	require.NoError(t, err)
	items := c.Face(card.Front).Items
	require.Len(t, items, 1)
	return items[0]
}

var picture = strings.Repeat("a", 64)

func TestPhotosComeInAtFourInchesOrWhatTheFaceHasRoomFor(t *testing.T) {
	for _, size := range [][2]int{{3000, 2000}, {1000, 4000}, {1, 9000}, {4000, 4000}} {
		it := placed(t, 127, 177.8, arrange.PlaceSupply{Face: card.Front, Kind: arrange.PhotoSupply, ID: picture, Name: "Lake", PixelWidth: size[0], PixelHeight: size[1]})
		p := it.Photo
		assert.Equal(t, "Lake", it.Name)
		assert.LessOrEqual(t, max(p.Width, p.Height), 4*measure.Inch+1e-6)
		assert.LessOrEqual(t, p.Width, 127*.8+1e-6)
		if size[0] > 1 {
			assert.InDelta(t, float64(size[0])/float64(size[1]), p.Width/p.Height, 1e-6, "it is not stretched")
		}
		assert.Equal(t, card.Made{As: card.Cut, Stock: card.First().Photo, Bleed: card.UsualBleed}, it.Made)
	}
}

func TestPapersLeaveAnEvenBorderOnAFaceOfAnySize(t *testing.T) {
	paper := pattern.Papers()[0]
	for _, size := range [][2]float64{{127, 177.8}, {60, 40}, {300, 26}} {
		it := placed(t, size[0], size[1], arrange.PlaceSupply{Face: card.Front, Kind: arrange.PaperSupply, ID: paper.ID})
		assert.Equal(t, paper.Name, it.Name)
		assert.Equal(t, paper.ID, it.Fill.Paper)
		for i, side := range []float64{it.Form.Width, it.Form.Height} {
			assert.Greater(t, side, 0.)
			assert.Less(t, side, size[i])
			if size[i] > 40 {
				assert.InDelta(t, measure.Inch/2, size[i]-side, measure.Inch/32+1e-6)
			}
			assert.InDelta(t, math.Round(side*16/measure.Inch), side*16/measure.Inch, 1e-4, "a whole number of sixteenths")
		}
	}
}

func TestEveryShapeOfTheCatalogueIsPlacedInItsProportions(t *testing.T) {
	for _, r := range shape.All() {
		for _, size := range [][2]float64{{127, 177.8}, {30, 40}} {
			it := placed(t, size[0], size[1], arrange.PlaceSupply{Face: card.Front, Kind: arrange.ShapeSupply, ID: r.ID})
			f := it.Form
			assert.Equal(t, r.Name, it.Name)
			assert.True(t, f.Width <= size[0] && f.Height <= size[1], r.ID)
			assert.InDelta(t, r.Width/r.Height, f.Width/f.Height, 1e-5, r.ID)
			assert.InDelta(t, r.Radius/r.Width, f.Radius/f.Width, 1e-6, r.ID)
			assert.Equal(t, card.Made{As: card.Cut, Stock: card.First().Piece}, it.Made)
		}
	}
	it := placed(t, 127, 177.8, arrange.PlaceSupply{Face: card.Front, Kind: arrange.ShapeSupply, ID: "tag", Stock: "kraft-280"})
	assert.Equal(t, "kraft-280", it.Made.Stock, "the stock that was used last")
}

func TestWordsBeginAsInk(t *testing.T) {
	for _, f := range lettering.Fonts() {
		it := placed(t, 60, 60, arrange.PlaceSupply{Face: card.Front, Kind: arrange.LetteringSupply, ID: f.ID})
		assert.Equal(t, card.Printed, it.Made.As)
		assert.Equal(t, card.First().Ink, it.Fill.Colour)
	}
	it := placed(t, 127, 177.8, arrange.PlaceSupply{Face: card.Front, Kind: arrange.LetteringSupply, ID: lettering.Fonts()[0].ID, Colour: "#35658c"})
	assert.Equal(t, "#35658c", it.Fill.Colour)
}

func TestWhatIsPlacedRoughlyLiesStraight(t *testing.T) {
	drop := func(kind arrange.SupplyKind, id string, x, y float64) card.Place {
		at := geom.Pt(x, y)
		return placed(t, 127, 177.8, arrange.PlaceSupply{Face: card.Front, Kind: kind, ID: id, At: &at}).Place
	}
	assert.Equal(t, card.Place{X: 63.5, Y: 88.9}, drop(arrange.ShapeSupply, "circle", 62, 87), "near the middle")
	assert.Equal(t, card.Place{X: 50, Y: 70}, drop(arrange.ShapeSupply, "circle", 50, 70), "near nothing")
	assert.Equal(t, 5+measure.Inch, drop(arrange.ShapeSupply, "circle", 33, 70).X, "its edge on the line that words stay within")
	assert.Equal(t, card.Place{X: 63.5, Y: 88.9}, drop(arrange.PaperSupply, pattern.Papers()[0].ID, 20, 150), "what nearly fills the face")
	assert.Equal(t, card.Place{X: 62, Y: 87}, drop(arrange.LetteringSupply, lettering.Fonts()[0].ID, 62, 87), "words are placed where they are wanted")
}

func TestSuppliesThatAreNotThereAreRefused(t *testing.T) {
	c := based(t, 127, 177.8)
	for _, k := range []arrange.PlaceSupply{
		{Face: "roof", Kind: arrange.ShapeSupply, ID: "tag"},
		{Face: card.Front, Kind: arrange.ShapeSupply, ID: "cloud"},
		{Face: card.Front, Kind: arrange.EdgingSupply, ID: "cloud"},
		{Face: card.Front, Kind: arrange.PaperSupply, ID: "cloud"},
		{Face: card.Front, Kind: arrange.LetteringSupply, ID: "cloud"},
		{Face: card.Front, Kind: arrange.PhotoSupply, ID: picture},
		{Face: card.Front, Kind: "glitter", ID: "cloud"},
	} {
		_, err := card.Apply(c, k)
		var refused *card.Refusal
		require.ErrorAs(t, err, &refused, "%+v", k)
	}
}

func TestASketchIsLaidAsItIsOrEvenlyToAnotherFace(t *testing.T) {
	slot := card.Item{ID: "a", Name: "Photo", Kind: card.Slot, Locked: true, Place: card.Place{X: 20, Y: 40}, Made: card.Made{As: card.Printed},
		Form: &card.Form{Outline: card.Rectangle, Corner: card.Round, Radius: 4, Width: 30, Height: 20},
		Slot: &card.Waits{Takes: card.TakesPhoto, Made: card.Made{As: card.Printed}}}
	sketch := func(w, h float64) arrange.PlaceSketch {
		return arrange.PlaceSketch{Face: card.Front, Width: w, Height: h, Items: []card.Item{slot}}
	}
	same := placed(t, 100, 200, sketch(100, 200))
	assert.Equal(t, slot.Place, same.Place)
	assert.Equal(t, slot.Form, same.Form)
	half := placed(t, 80, 100, sketch(100, 200))
	assert.Equal(t, card.Place{X: 40 - 15, Y: 50 - 30}, half.Place, "about the middle")
	assert.Equal(t, []float64{15, 10, 2}, []float64{half.Form.Width, half.Form.Height, half.Form.Radius})
	assert.Equal(t, 30., slot.Form.Width, "the sketch stays as it is")
	for _, k := range []arrange.PlaceSketch{sketch(0, 100), sketch(math.NaN(), 1), sketch(100, math.Inf(1)), {Face: "roof", Width: 1, Height: 1}} {
		_, err := card.Apply(based(t, 80, 100), k)
		assert.Error(t, err)
	}
}

// An edging by itself is a strip with the motif along its top, nearly as wide as the face.
func TestAStripOfEdging(t *testing.T) {
	it := placed(t, 127, 177.8, arrange.PlaceSupply{Face: card.Front, Kind: arrange.EdgingSupply, ID: "lace", Stock: "kraft-280"})
	assert.Equal(t, "Lace", it.Name)
	assert.Equal(t, "kraft-280", it.Made.Stock)
	assert.Equal(t, edging.Top, it.Edging.Side)
	assert.InDelta(t, .85*127, it.Form.Width, 1e-3)
}

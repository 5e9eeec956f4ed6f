package opening_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/design/opening"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
)

// photo is a card with a printed photo, i1, 60 × 40 mm of 3:2, and a round shape,
// i2, on its right half.
func photo(t *testing.T) card.Card {
	t.Helper()
	_, id := coretest.Photo(t, 300, 200)
	c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{
		{Name: "Photo", Kind: card.Photo, Place: card.Place{X: 60, Y: 50}, Made: card.Made{As: card.Printed},
			Photo: &card.Print{Picture: id, PixelWidth: 300, PixelHeight: 200, Width: 60, Height: 40}},
		{Name: "Round", Kind: card.Shape, Place: card.Place{X: 75, Y: 50}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#587a4a"},
			Form: &card.Form{Outline: card.Ellipse, Width: 20, Height: 20}},
	}})
	require.NoError(t, err)
	return c
}

func do(t *testing.T, c card.Card, commands ...card.Command) card.Card {
	t.Helper()
	c, err := card.Apply(c, commands...)
	require.NoError(t, err)
	return c
}

// seen is the box of the picture on the face.
func seen(t *testing.T, c card.Card, id string) (x, y, w, h float64) {
	t.Helper()
	s, err := scene.Of(c)
	require.NoError(t, err)
	for _, it := range s.Faces[0].Items {
		if it.ID == id {
			b := it.Picture.Box
			p := it.At.Apply(b.Centre())
			return p.X - b.W/2, p.Y - b.H/2, b.W, b.H
		}
	}
	require.Fail(t, "no such item")
	return
}

func TestASlidPictureAlwaysCoversItsOpening(t *testing.T) {
	c := do(t, photo(t), opening.CropPhoto{ID: "i1", Zoom: 2, ShiftX: 9, ShiftY: -.25})
	x, y, w, h := seen(t, c, "i1")
	assert.InDelta(t, 120, w, 1e-6)
	assert.InDelta(t, 80, h, 1e-6)
	assert.InDelta(t, 30, x, 1e-6, "no farther right than the opening's left edge")
	assert.InDelta(t, 50-.25*40-40, y, 1e-6)
	_, it := c.Find("i1")
	assert.InDelta(t, .5, it.Photo.ShiftX, 1e-6, "what is kept is what is seen")
	whole := do(t, photo(t), card.ResizeItems{IDs: []string{"i1"}, FX: 1, FY: 2}, opening.CropPhoto{ID: "i1", Fit: true})
	_, _, w, h = seen(t, whole, "i1")
	assert.InDelta(t, 60, w, 1e-6)
	assert.InDelta(t, 40, h, 1e-6)
}

func TestACropLeavesThePictureWhereItIs(t *testing.T) {
	c := photo(t)
	x, y, w, h := seen(t, c, "i1")
	same := func(c card.Card, why string) {
		t.Helper()
		x2, y2, w2, h2 := seen(t, c, "i1")
		assert.InDelta(t, x, x2, 1e-4, why)
		assert.InDelta(t, y, y2, 1e-4, why)
		assert.InDelta(t, w, w2, 1e-4, why)
		assert.InDelta(t, h, h2, 1e-4, why)
	}
	cropped := do(t, c, opening.CropToOutline{Photo: "i1", By: "i2"})
	same(cropped, "cropped to the shape")
	assert.Len(t, cropped.Face(card.Front).Items, 1, "the shape is used up")
	_, it := cropped.Find("i1")
	assert.InDelta(t, 20, it.Photo.Width, 1e-5)
	assert.InDelta(t, 75, it.Place.X, 1e-5)
	grown := do(t, cropped, opening.GrowOpening{IDs: []string{"i1"}, By: 2, Corner: card.Round})
	same(grown, "grown to tuck under a frame")
	_, it = grown.Find("i1")
	assert.InDelta(t, 24, it.Photo.Height, 1e-3)
	same(do(t, c, opening.GrowOpening{IDs: []string{"i1"}, By: -3, Corner: card.Square}), "shrunk")
	_, err := card.Apply(c, opening.GrowOpening{IDs: []string{"i1"}, By: -30, Corner: card.Round})
	assert.ErrorContains(t, err, "Nothing would be left")
	_, err = card.Apply(c, card.MoveItems{IDs: []string{"i2"}, DX: 40, DY: 80}, opening.CropToOutline{Photo: "i1", By: "i2"})
	assert.ErrorContains(t, err, "does not lie on the photo")
}

func TestOpeningsAreFilledDividedAndSwapped(t *testing.T) {
	c := photo(t)
	_, id := coretest.Photo(t, 90, 30)
	ax, ay := .9, .5
	c = do(t, c, opening.FillOpening{ID: "i2", Picture: id, PixelWidth: 90, PixelHeight: 30, AtX: &ax, AtY: &ay})
	x, _, w, _ := seen(t, c, "i2")
	assert.InDelta(t, 60, w, 1e-5)
	assert.InDelta(t, 85, x+w, 1e-5, "its detail is as near the middle as it may be")
	for _, it := range []string{"i1", "i2"} {
		named := do(t, c, opening.FillOpening{ID: it, Picture: id, PixelWidth: 90, PixelHeight: 30, Name: "Lake"})
		_, now := named.Find(it)
		assert.Equal(t, "Lake", now.Name, "the name of a photo that is replaced, too")
	}
	swapped := do(t, c, opening.SwapPictures{A: "i1", B: "i2"})
	_, a := swapped.Find("i1")
	assert.Equal(t, id, a.Photo.Picture)
	assert.Equal(t, 60., a.Photo.Width, "the openings stay")
	_, was := c.Find("i2")
	assert.Equal(t, was.Name, a.Name, "a name goes with its picture")

	d := do(t, c, opening.DivideOpening{ID: "i1", Columns: 2, Rows: 2, Gap: 4})
	f := d.Face(card.Front)
	require.Len(t, f.Items, 5)
	require.Len(t, f.Groups, 1)
	cells := f.Items[:4]
	assert.Equal(t, card.Photo, cells[0].Kind)
	for _, cell := range cells[1:] {
		assert.Equal(t, card.Slot, cell.Kind)
		assert.Equal(t, 28., cell.Form.Width)
		assert.Equal(t, 18., cell.Form.Height)
		assert.Equal(t, f.Groups[0].ID, cell.Group)
	}
	assert.Equal(t, card.Place{X: 76, Y: 61}, cells[3].Place)
	moved := do(t, d, opening.SwapPictures{A: cells[3].ID, B: cells[0].ID})
	_, first := moved.Find(cells[0].ID)
	_, last := moved.Find(cells[3].ID)
	assert.Equal(t, card.Slot, first.Kind, "the photo went from one cell to the other")
	assert.Equal(t, card.Photo, last.Kind)
	for _, bad := range []card.Command{opening.DivideOpening{ID: "i1", Columns: 1, Rows: 1}, opening.DivideOpening{ID: "i1", Columns: 9, Rows: 1, Gap: 8},
		opening.SwapPictures{A: "i2", B: "i2"}} {
		_, err := card.Apply(c, bad)
		var r *card.Refusal
		assert.ErrorAs(t, err, &r)
	}
	// What has a mat, which follows its outline, is not divided; what is cropped to
	// something with a mat uses that up too.
	matted := do(t, photo(t), card.AddMat{IDs: []string{"i1"}, Width: 3, Corner: card.Square, Stock: "white-216"})
	_, err := card.Apply(matted, opening.DivideOpening{ID: "i1", Columns: 2, Rows: 1})
	assert.ErrorContains(t, err, "has a mat or carries something")
	matted = do(t, photo(t), card.AddMat{IDs: []string{"i2"}, Width: 3, Corner: card.Round, Stock: "white-216"}, opening.CropToOutline{Photo: "i1", By: "i2"})
	assert.Len(t, matted.Face(card.Front).Items, 1)
	round := do(t, photo(t), opening.DivideOpening{ID: "i2", Columns: 2, Rows: 1, Gap: 2})
	assert.Equal(t, card.Free, round.Face(card.Front).Items[1].Form.Outline, "halves of a circle")
}

package app_test

import (
	"bytes"
	"image"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/document/card"
	"sectilis/core/document/picture"
	"sectilis/core/ground/geom"
)

// grey reports whether the middle of an encoded picture is a grey.
func grey(t *testing.T, raw []byte) bool {
	t.Helper()
	img, _, err := picture.Decode("", raw)
	require.NoError(t, err)
	b := img.Bounds()
	r, g, bl, _ := img.At(b.Dx()/2, b.Dy()/2).RGBA()
	near := func(a, b uint32) bool { return max(a, b)-min(a, b) < 4<<8 }
	return near(r, g) && near(g, bl)
}

// What is done to a photo is seen in every preview, on the page and in the PDF, after a restart
// too; the original, and other uses of it, stay.
func TestAnEditedPhotoIsSeenEverywhere(t *testing.T) {
	f := start(t)
	id := f.card()
	v, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	_, photo := v.Card.Find("i2")
	original := photo.Photo.Picture
	_, before, err := f.PicturePreview(t.Context(), original, app.Sides[0])
	require.NoError(t, err)
	require.False(t, grey(t, before))
	var plain bytes.Buffer
	require.NoError(t, f.WritePDF(t.Context(), &plain, id, letter(), 0, app.PDFAs{}))

	toned := []card.Edit{{Tone: &card.Tone{Colour: "#808080", Amount: 100}}}
	_, err = f.Change(t.Context(), id, v.Revision, []card.Command{card.EditPhoto{IDs: []string{"i2"}, Edits: toned}})
	require.NoError(t, err)
	g := f.again()
	v, err = g.Open(t.Context(), id)
	require.NoError(t, err)
	ref := ""
	for _, it := range v.Scene.Faces[0].Items {
		if it.ID == "i2" {
			ref = it.Picture.ID
		}
	}
	require.NotEqual(t, original, ref)
	for _, side := range app.Sides {
		_, raw, err := g.PicturePreview(t.Context(), ref, side)
		require.NoError(t, err)
		assert.True(t, grey(t, raw), side)
	}
	_, raw, err := g.PicturePreview(t.Context(), original, app.Sides[0])
	require.NoError(t, err)
	assert.Equal(t, before, raw)
	_, raw, err = g.TryEdits(t.Context(), original, toned, 100)
	require.NoError(t, err)
	assert.True(t, grey(t, raw))
	img, _, err := image.Decode(bytes.NewReader(raw))
	require.NoError(t, err)
	assert.Equal(t, 100, img.Bounds().Dx())
	var edited bytes.Buffer
	require.NoError(t, g.WritePDF(t.Context(), &edited, id, letter(), 0, app.PDFAs{}))
	assert.NotEqual(t, plain.Len(), edited.Len())
	_, _, err = g.PicturePreview(t.Context(), "none", app.Sides[0])
	assert.ErrorIs(t, err, app.ErrNotFound)
}

// A cut that takes all, or nothing, says so and what to change.
func TestACutThatTakesAllOrNothingSaysSo(t *testing.T) {
	f := start(t)
	id := f.card()
	v, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	_, photo := v.Card.Find("i2")
	for says, tolerance := range map[string]float64{"Nothing stays": 100, "": 10} {
		cut := []card.Edit{{CutOut: &card.CutOut{Ground: &card.PlainGround{At: []geom.Point{{X: .1, Y: .1}, {X: .1, Y: .9}}[:1+int(tolerance)/100], Tolerance: tolerance}}}}
		_, _, err := f.TryEdits(t.Context(), photo.Photo.Picture, cut, 200)
		if says == "" {
			assert.NoError(t, err)
			continue
		}
		assert.ErrorContains(t, err, says)
	}
	whole := []geom.Point{{X: -.5, Y: -.5}, {X: 1.5, Y: -.5}, {X: 1.5, Y: 1.5}, {X: -.5, Y: 1.5}}
	_, _, err = f.TryEdits(t.Context(), photo.Photo.Picture, []card.Edit{{CutOut: &card.CutOut{Within: whole}}}, 200)
	assert.ErrorContains(t, err, "Nothing goes")
}

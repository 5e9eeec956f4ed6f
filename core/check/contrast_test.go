package check_test

import (
	"image"
	"image/color"
	"image/draw"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/check"
	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// on finds what is said of words of an ink and a size on a ground; a dark patch covers a share of
// that from the left.
func on(t *testing.T, c card.Card, ground, patch string, share float64) []check.Finding {
	t.Helper()
	s, err := scene.Of(c)
	require.NoError(t, err)
	return check.Run(check.ThePrint, check.Input{Card: c, Scene: &s, Seen: func(_ *scene.Face, box geom.Rect, without string, perMM float64) image.Image {
		assert.Equal(t, "i1", without)
		img := image.NewRGBA(image.Rect(0, 0, int(box.W*perMM), int(box.H*perMM)))
		draw.Draw(img, img.Rect, image.NewUniform(hex(ground)), image.Point{}, draw.Src)
		draw.Draw(img, image.Rect(0, 0, int(share*box.W*perMM), img.Rect.Dy()), image.NewUniform(hex(patch)), image.Point{}, draw.Src)
		return img
	}})
}

func hex(s string) (c color.RGBA) {
	var v [3]uint8
	for i := range v {
		for _, d := range []byte(s[1+2*i : 3+2*i]) {
			n := d - '0'
			if d > '9' {
				n = d - 'a' + 10
			}
			v[i] = v[i]*16 + n
		}
	}
	return color.RGBA{v[0], v[1], v[2], 255}
}

func wordsOf(t *testing.T, ink string, size float64) card.Card {
	t.Helper()
	c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Words", Kind: card.Lettering, Place: card.Place{X: 60, Y: 60},
		Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: ink}, Words: &card.Words{Text: "Harvest", Font: "nunito-400", Size: size, Leading: 1.2, Align: card.AlignCentre}}}})
	require.NoError(t, err)
	return c
}

// Words that are hard to tell from what lies under them are found, by the worst tenth of that; the
// mend makes them readable.
func TestWeakContrastIsFoundAndMended(t *testing.T) {
	assert.Empty(t, on(t, wordsOf(t, "#1f2b38", 4), "#ffffff", "#ffffff", 0))
	assert.Empty(t, on(t, wordsOf(t, "#1f2b38", 4), "#ffffff", "#2a2a2a", .05), "a twentieth is no tenth")
	assert.Empty(t, on(t, wordsOf(t, "#767676", 4), "#ffffff", "#ffffff", 0), "4.5 to 1 will do")
	assert.Empty(t, on(t, wordsOf(t, "#949494", 12), "#ffffff", "#ffffff", 0), "3 to 1 will do for large ones")
	for _, k := range []struct{ ink, ground, patch, says string }{
		{"#a0a0a0", "#ffffff", "#ffffff", "Make it darker"},
		{"#c8605a", "#7a2020", "#7a2020", "Make it lighter"},
		{"#1f2b38", "#ffffff", "#303030", "Put a line round it"}, // no ink is read on both
	} {
		c := wordsOf(t, k.ink, 4)
		found := on(t, c, k.ground, k.patch, .4)
		require.Len(t, found, 1, k.ink)
		assert.Contains(t, found[0].Why, "hard to read")
		assert.Equal(t, k.says, found[0].Mends[0].Says)
		if c = mended(t, c, found[0]); k.ground == k.patch {
			assert.Empty(t, on(t, c, k.ground, k.patch, .4))
		}
	}
}

// Nothing that lies behind words is offered where no such thing helps: under inks that are read
// neither on white nor on dark, and under what is cut.
func TestWhatDoesNotMendIsNotOffered(t *testing.T) {
	grey := on(t, wordsOf(t, "#808080", 4), "#808080", "#808080", 1)
	require.Len(t, grey, 1)
	assert.Len(t, grey[0].Mends, 1, "another ink alone")
	c := wordsOf(t, "#808080", 4)
	c, err := card.Apply(c, card.SetMade{IDs: []string{"i1"}, Made: card.Made{As: card.Cut, Stock: "moss-216"}})
	require.NoError(t, err)
	cut := on(t, c, "#587a4a", "#587a4a", 1)
	require.Len(t, cut, 1)
	assert.Empty(t, cut[0].Mends)
}

// plain is a picture: grey, or by the first letter of its id b: grey but for a tenth of glowing green, e: black
// strokes on white.
func plain(id string) image.Image {
	img := image.NewRGBA(image.Rect(0, 0, 40, 40))
	draw.Draw(img, img.Rect, image.NewUniform(color.RGBA{120, 118, 116, 255}), image.Point{}, draw.Src)
	switch id[0] {
	case 'b':
		draw.Draw(img, image.Rect(0, 0, 40, 4), image.NewUniform(color.RGBA{0, 255, 40, 255}), image.Point{}, draw.Src)
	case 'e':
		draw.Draw(img, img.Rect, image.White, image.Point{}, draw.Src)
		for x := 4; x < 40; x += 9 {
			draw.Draw(img, image.Rect(x, 4, x+2, 36), image.Black, image.Point{}, draw.Src)
		}
	}
	return img
}

// white is a face with nothing on it.
func white(_ *scene.Face, box geom.Rect, _ string, perMM float64) image.Image {
	img := image.NewRGBA(image.Rect(0, 0, int(box.W*perMM), int(box.H*perMM)))
	draw.Draw(img, img.Rect, image.White, image.Point{}, draw.Src)
	return img
}

package svg_test

import (
	"bytes"
	"errors"
	"image"
	"image/color"
	"image/png"
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/document/pattern"
	"sectilis/core/document/scene"
	"sectilis/core/format/raster"
	"sectilis/core/format/svg"
	"sectilis/core/ground/geom"
)

// stripes are a picture of colours across and levels down.
func stripes() *image.RGBA {
	img := image.NewRGBA(image.Rect(0, 0, 48, 32))
	for y := range 32 {
		for x := range 48 {
			img.SetRGBA(x, y, color.RGBA{uint8(x / 8 * 50), uint8(y * 7), uint8(255 - x/8*40), 255})
		}
	}
	return img
}

// scattered are inks of every kind, laid down as a face is that is looked at from the side.
func scattered(r *rand.Rand) (inks []scene.Ink) {
	at := func() geom.Affine {
		return geom.Affine{A: .8, B: .3 * r.Float64(), C: -.5 * r.Float64(), D: .6}.Then(geom.Shift(8+r.Float64()*20, 2+r.Float64()*10))
	}
	shape := func() geom.Path {
		return geom.Offset(geom.RectPath(geom.Rect{W: 8 + 14*r.Float64(), H: 8 + 10*r.Float64()}), 2, geom.RoundCorner)
	}
	for range 7 {
		m := at()
		k := scene.Ink{Region: shape(), Colour: []string{"#a8432a", "#35658c", "#e2a42b"}[r.IntN(3)], PaperAt: geom.Identity, PictureAt: geom.Scale(32, 26).Then(geom.Shift(-4, -4)), GradientAt: geom.Scale(18, 14)}
		switch r.IntN(6) {
		case 0:
			k.Picture = "stripes"
		case 1:
			k.Picture, k.Tint = "stripes", &card.Tint{Colour: "#587a4a", Strength: .4}
		case 2:
			p, _ := pattern.ByID("leaf-drift")
			k.Paper = &p
		case 3:
			k.Gradient = &card.Gradient{Kind: []string{card.Linear, card.Radial}[r.IntN(2)], ToX: 1, ToY: .4, Stops: []card.Stop{{Colour: "#a8432a"}, {At: .6, Colour: "#fff6e0", Clear: .5}, {At: 1, Colour: "#35658c"}}}
		case 4:
			k.Blur = .4 + r.Float64()
		case 5:
			b := k.Region.Bounds()
			k.Fade = &scene.Fade{From: geom.Pt(b.X, b.Y), To: geom.Pt(b.X, b.Bottom())}
		}
		if r.IntN(2) == 0 {
			k.Clear = r.Float64() * .7
		}
		if r.IntN(3) == 0 {
			k.Clips = []geom.Path{geom.EllipsePath(geom.Rect{X: 2, Y: 1, W: 14, H: 14}), geom.RectPath(geom.Rect{X: 1, Y: 1, W: 12, H: 20})}
		}
		inks = append(inks, scene.Transform([]scene.Ink{k}, m)...)
	}
	return inks
}

// Inks of every kind, over each other and seen askew, look in SVG as our painter paints them, when Debian's
// SVG library draws them; what is there twice is defined once.
func TestInksLookInSVGAsTheyArePainted(t *testing.T) {
	var file bytes.Buffer
	require.NoError(t, png.Encode(&file, stripes()))
	asked := 0
	originals := func(string) ([]byte, error) { asked++; return file.Bytes(), nil }
	for seed := range uint64(24) {
		asked = 0
		inks := scattered(rand.New(rand.NewPCG(19, seed)))
		var b strings.Builder
		require.NoError(t, svg.WriteInks(&b, inks, geom.Rect{W: 60, H: 40}, originals))
		assert.LessOrEqual(t, asked, 1, "a picture is in the file once")
		canvas := raster.New(60, 40, perMM, color.Transparent, func(string) (image.Image, error) { return stripes(), nil })
		require.NoError(t, canvas.Paint(inks))
		ours := canvas.Image()
		alpha, colour := differ(ours, rendered(t, b.String(), ours.Bounds().Dx(), ours.Bounds().Dy()))
		assert.LessOrEqual(t, alpha, .012, "alpha of %d\n%s", seed, b.String())
		assert.LessOrEqual(t, colour, .025, "colours of %d\n%s", seed, b.String())
	}
	gone := errors.New("it is gone")
	err := svg.WriteInks(&strings.Builder{}, []scene.Ink{{Region: geom.RectPath(geom.Rect{W: 1, H: 1}), Picture: "stripes"}}, geom.Rect{W: 1, H: 1}, func(string) ([]byte, error) { return nil, gone })
	require.ErrorIs(t, err, gone)
}

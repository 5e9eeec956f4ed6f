package testpage_test

import (
	"context"
	"image"
	"image/color"
	"image/draw"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/kovidgoyal/imaging"
	"github.com/lucasb-eyer/go-colorful"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/format/raster"
	"sectilis/core/ground/gamut"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/pixels"
	"sectilis/core/production/testpage"
)

// page is the page of a size, mm, as pixels.
func page(t *testing.T, w, h, perMM float64) *image.RGBA {
	t.Helper()
	inks, err := testpage.Inks(w, h)
	require.NoError(t, err)
	canvas := raster.New(w, h, perMM, color.White, nil)
	require.NoError(t, canvas.Paint(inks))
	return canvas.Image()
}

// printed is a page laid down by a printer, its inks on a coloured paper.
func printed(page *image.RGBA, by func(r, g, b uint8) (uint8, uint8, uint8), paper [3]float64) *image.NRGBA {
	out := imaging.AsNRGBA(page)
	for i := 0; i < len(out.Pix); i += 4 {
		p := out.Pix[i : i+3 : i+3]
		p[0], p[1], p[2] = by(p[0], p[1], p[2])
		for k := range p {
			p[k] = uint8(float64(p[k]) * paper[k])
		}
	}
	return out
}

// photographed is a page on a table, seen aslant from a little above one corner, unevenly lit, with
// noise.
func photographed(t *testing.T, page *image.NRGBA, turn, aslant float64, r *rand.Rand) *image.NRGBA {
	t.Helper()
	const n = 1500
	w, h := float64(page.Rect.Dx()), float64(page.Rect.Dy())
	grow := n * .86 / math.Hypot(w, h)
	m := geom.Shift(-w/2, -h/2).Then(geom.Turn(turn)).Then(geom.Scale(grow, grow))
	back, _ := m.Inverse()
	out, err := pixels.Resampled(context.Background(), page, n, n, func(x, y float64) (float64, float64) {
		k := 1 + aslant*(x-n/2)/n
		p := back.Apply(geom.Pt((x-n/2)/k, (y-n/2)/k))
		return p.X, p.Y
	})
	require.NoError(t, err)
	table := image.NewNRGBA(out.Rect)
	draw.Draw(table, table.Rect, image.NewUniform(color.NRGBA{150, 120, 90, 255}), image.Point{}, draw.Src)
	draw.Draw(table, table.Rect, out, image.Point{}, draw.Over)
	for y := range n {
		for x := range n {
			p := table.Pix[table.PixOffset(x, y):]
			for k := range 3 {
				p[k] = pixels.Byte(float64(p[k])*(.95-.15*float64(x)/n) + r.NormFloat64()*2)
			}
		}
	}
	return table
}

func far(a, b testpage.RGB) float64 {
	c := func(v testpage.RGB) colorful.Color {
		return colorful.Color{R: v[0] / 255, G: v[1] / 255, B: v[2] / 255}
	}
	return 100 * c(a).Clamped().DistanceCIEDE2000(c(b).Clamped())
}

var sizes = [][2]float64{{215.9, 279.4}, {210, 297}, {101.6, 152.4}, {152.4, 101.6}, {148, 105}, {304.8, 304.8}}

// The row is read off the page itself to the value, on every size of paper.
func TestTheRowIsReadAsItIs(t *testing.T) {
	for _, s := range sizes {
		got, err := testpage.Read(t.Context(), page(t, s[0], s[1], 4))
		require.NoError(t, err, "%v", s)
		require.Len(t, got, len(testpage.Patches()))
		for i, c := range testpage.Patches() {
			for k := range c {
				assert.InDelta(t, c[k], got[i][k], 2, "%v patch %d", s, i)
			}
		}
	}
}

// It is read from scans and photos, whichever way up, on paper of any colour.
func TestTheRowIsReadFromPhotos(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 2))
	sheet := page(t, 215.9, 279.4, 6)
	for i := range 8 {
		paper := [3]float64{1, .9 + .1*r.Float64(), .8 + .2*r.Float64()}
		img := photographed(t, printed(sheet, func(r, g, b uint8) (uint8, uint8, uint8) { return r, g, b }, paper), float64(i)*math.Pi/4+.1, .2*r.Float64(), r)
		got, err := testpage.Read(t.Context(), img)
		require.NoError(t, err, "%d", i)
		for k, c := range testpage.Patches() {
			assert.Less(t, far(c, got[k]), 5.0, "%d patch %d: %v for %v", i, k, got[k], c)
		}
	}
}

// A printer whose inks cover too much or too little comes out much nearer to what prints once its
// tones are corrected.
func TestAMeasuredPrinterPrintsTruer(t *testing.T) {
	all, corrected := 0.0, 0.0
	for seed := range uint64(4) {
		r := rand.New(rand.NewPCG(seed, 9))
		var gain gamut.Gain
		for i := range gain {
			gain[i] = (2*r.Float64() - 1) * .1
		}
		inks := gamut.Laid(gamut.Matt, gain)
		measure := func(tone gamut.Tone) []testpage.RGB {
			sheet := page(t, 215.9, 279.4, 4)
			tone.Apply(sheet)
			got, err := testpage.Read(t.Context(), printed(sheet, inks.Colour, [3]float64{1, .97, .9}))
			require.NoError(t, err)
			return got
		}
		tone := testpage.Tone(gamut.Tone{}, measure(gamut.Tone{}))
		tone = testpage.Tone(tone, measure(tone)) // and once more
		before, after := 0.0, 0.0
		const n = 300
		for range n {
			c := [3]uint8{uint8(r.IntN(256)), uint8(r.IntN(256)), uint8(r.IntN(256))}
			want := rgbOf(gamut.On(gamut.Matt).Table().Colour(c[0], c[1], c[2]))
			before += far(want, rgbOf(inks.Colour(c[0], c[1], c[2])))
			sent := func(k int) uint8 { return uint8(math.Round(tone.At(k, float64(c[k])))) }
			after += far(want, rgbOf(inks.Colour(sent(0), sent(1), sent(2))))
		}
		t.Logf("gain %.2f: mean %.1f, corrected %.1f", gain, before/n, after/n)
		assert.Less(t, after, before)
		all, corrected = all+before, corrected+after
		for v := range 16 { // greys above all
			g := float64(v * 17)
			sent := func(k int) uint8 { return uint8(math.Round(tone.At(k, g))) }
			assert.Less(t, far(testpage.RGB{g, g, g}, rgbOf(inks.Colour(sent(0), sent(1), sent(2)))), 4.0, "grey %v", g)
		}
	}
	assert.Less(t, corrected, .8*all)
}

func rgbOf(r, g, b uint8) testpage.RGB { return testpage.RGB{float64(r), float64(g), float64(b)} }

func TestWhatShowsNoRowIsRefusedInASentence(t *testing.T) {
	r := rand.New(rand.NewPCG(8, 8))
	noise := image.NewNRGBA(image.Rect(0, 0, 900, 900))
	for i := range noise.Pix {
		noise.Pix[i] = uint8(r.IntN(256))
	}
	squares := image.NewNRGBA(image.Rect(0, 0, 900, 900))
	for i := range squares.Pix {
		squares.Pix[i] = 255
		if x, y := i/4%900, i/3600; x%30 < 8+x/90 && y%30 < 8+x/90 && i%4 < 3 {
			squares.Pix[i] = 0
		}
	}
	half := page(t, 215.9, 279.4, 4)
	mirrored := imaging.FlipH(half)
	for name, img := range map[string]image.Image{
		"a point": image.NewNRGBA(image.Rect(0, 0, 1, 1)), "white": image.NewGray(image.Rect(0, 0, 50, 900)), "noise": noise, "many squares": squares,
		"half of the row": half.SubImage(image.Rect(0, 0, half.Rect.Dx()*3/4, half.Rect.Dy())), "mirrored": mirrored,
	} {
		got, err := testpage.Read(t.Context(), img)
		assert.ErrorContains(t, err, "No colour row", name)
		assert.Nil(t, got, name)
	}
	ctx, stop := context.WithCancel(t.Context())
	stop()
	_, err := testpage.Read(ctx, half)
	assert.ErrorIs(t, err, context.Canceled)
}

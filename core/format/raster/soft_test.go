package raster_test

import (
	"image/color"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/format/raster"
	"sectilis/core/ground/geom"
)

const perMM = 8.0

// painted is inks on a white page of 40 mm a side; at is a pixel by its place in mm.
func painted(t *testing.T, inks ...scene.Ink) (at func(x, y float64) color.RGBA) {
	t.Helper()
	c := raster.New(40, 40, perMM, color.White, nil)
	require.NoError(t, c.Paint(inks))
	return func(x, y float64) color.RGBA { return c.Image().RGBAAt(int(x*perMM), int(y*perMM)) }
}

func box(x, y, w, h float64) geom.Path { return geom.RectPath(geom.Rect{X: x, Y: y, W: w, H: h}) }

// dark is how much of black ink there is, 0 to 1.
func dark(c color.RGBA) float64 { return 1 - float64(c.G)/255 }

func TestALinearGradientRunsBetweenItsEnds(t *testing.T) {
	g := &card.Gradient{Kind: card.Linear, FromX: .25, FromY: .5, ToX: .75, ToY: .5, Stops: []card.Stop{{At: 0, Colour: "#000000"}, {At: .5, Colour: "#ff0000"}, {At: 1, Colour: "#ffffff"}}}
	at := painted(t, scene.Ink{Region: box(0, 0, 40, 40), Gradient: g, GradientAt: geom.Scale(40, 40)})
	near(t, "#000000", at(2, 20), "before the first end all is the first stop")
	near(t, "#800000", at(15, 3), "half way to the second")
	near(t, "#ff0000", at(20, 37))
	near(t, "#ff8080", at(25, 20))
	near(t, "#ffffff", at(38, 20))

	// A turned item turns its gradient.
	turned := geom.Scale(40, 40).Then(geom.Shift(-20, -20)).Then(geom.Turn(math.Pi / 2)).Then(geom.Shift(20, 20))
	at = painted(t, scene.Ink{Region: box(0, 0, 40, 40), Gradient: g, GradientAt: turned})
	near(t, "#800000", at(37, 15))
	near(t, "#ff8080", at(3, 25))
}

// A stop that is seen through lets what lies below show, and between stops it goes evenly.
func TestAGradientIsSeenThrough(t *testing.T) {
	g := &card.Gradient{Kind: card.Linear, ToX: 1, Stops: []card.Stop{{Colour: "#000000", Clear: 1}, {At: .5, Colour: "#000000", Clear: .5}, {At: 1, Colour: "#000000"}}}
	at := painted(t, scene.Ink{Region: box(0, 0, 40, 40), Colour: "#ffffff"}, scene.Ink{Region: box(0, 0, 40, 40), Gradient: g, GradientAt: geom.Scale(40, 40)})
	for x, want := range map[float64]float64{1: 249, 10: 191, 20: 127.5, 30: 64, 39: 6} {
		assert.InDelta(t, want, float64(at(x, 20).R), 4, "%v", x)
	}
	back := painted(t, scene.Ink{Region: box(0, 0, 40, 40), Colour: "#ffffff"}, scene.Ink{Region: box(0, 0, 40, 40), Gradient: g, GradientAt: geom.Scale(40, 40), Clear: .5})
	assert.InDelta(t, 255*.75, float64(back(20, 20).R), 4, "and with the rest of the ink")
}

func TestARadialGradientGrowsFromItsMiddle(t *testing.T) {
	g := &card.Gradient{Kind: card.Radial, FromX: .5, FromY: .5, ToX: 1, ToY: .5, Stops: []card.Stop{{At: 0, Colour: "#ffffff"}, {At: 1, Colour: "#0000ff"}}}
	at := painted(t, scene.Ink{Region: box(0, 0, 40, 40), Gradient: g, GradientAt: geom.Scale(40, 40)})
	for k := range 12 {
		s, c := math.Sincos(float64(k))
		near(t, "#8080ff", at(20+10*c, 20+10*s), "alike all round")
	}
	near(t, "#0000ff", at(39, 39), "beyond the end")
}

func TestTwoStopsAtOnePlaceMakeAnEdge(t *testing.T) {
	g := &card.Gradient{Kind: card.Linear, ToX: 1, Stops: []card.Stop{{At: 0, Colour: "#ff0000"}, {At: .5, Colour: "#ff0000"}, {At: .5, Colour: "#0000ff"}, {At: 1, Colour: "#0000ff"}}}
	at := painted(t, scene.Ink{Region: box(0, 0, 40, 40), Gradient: g, GradientAt: geom.Scale(40, 40)})
	near(t, "#ff0000", at(19.8, 10))
	near(t, "#0000ff", at(20.3, 10))
}

// Across a long straight edge a blurred region is the Gaussian's integral.
func TestASoftEdgeIsGaussian(t *testing.T) {
	for _, sigma := range []float64{.5, 1.5} {
		at := painted(t, scene.Ink{Region: box(-30, -30, 50, 100), Colour: "#000000", Blur: sigma})
		for d := -2.5 * sigma; d <= 2.5*sigma; d += sigma / 2 {
			want := .5 * math.Erfc(d/sigma/math.Sqrt2)
			assert.InDelta(t, want, dark(at(20+d, 20)), .05, "sigma %g, %g mm beyond the edge", sigma, d)
		}
	}
	// What lies off the page throws its softness onto it, and the page stays as large.
	at := painted(t, scene.Ink{Region: box(-10, 0, 9.5, 40), Colour: "#000000", Blur: 1})
	assert.InDelta(t, .5*math.Erfc(.6/math.Sqrt2), dark(at(.1, 20)), .06)
	assert.Zero(t, dark(at(8, 20)))
	at = painted(t, scene.Ink{Region: box(70, 0, 5, 5), Colour: "#000000", Blur: 1})
	assert.Zero(t, dark(at(39, 2)))
}

func TestInkFadesAlongItsWay(t *testing.T) {
	at := painted(t, scene.Ink{Region: box(0, 0, 40, 40), Colour: "#000000", Clear: .2, Fade: &scene.Fade{From: geom.Pt(0, 10), To: geom.Pt(0, 30)}})
	for y, want := range map[float64]float64{5: .8, 15: .6, 20: .4, 25: .2, 35: 0} {
		assert.InDelta(t, want, dark(at(20, y)), .02, "at %g", y)
	}
	// A way without length fades nothing.
	at = painted(t, scene.Ink{Region: box(0, 0, 40, 40), Colour: "#000000", Fade: &scene.Fade{From: geom.Pt(5, 5), To: geom.Pt(5, 5)}})
	assert.InDelta(t, 1, dark(at(20, 20)), .01)
}

func TestInksShowThroughOneAnother(t *testing.T) {
	red, blue := scene.Ink{Region: box(0, 0, 30, 40), Colour: "#ff0000"}, scene.Ink{Region: box(10, 0, 30, 40), Colour: "#0000ff", Clear: .75}
	at := painted(t, red, blue)
	near(t, "#ff0000", at(5, 20))
	near(t, "#bf0040", at(20, 20))
	near(t, "#bfbfff", at(35, 20))
}

// Softness and fading turn and grow with what they belong to.
func TestSoftInkIsTransformedWhole(t *testing.T) {
	k := scene.Ink{Region: box(2, 2, 6, 6), Colour: "#000000", Blur: .4, Fade: &scene.Fade{From: geom.Pt(2, 5), To: geom.Pt(8, 5)}}
	small := painted(t, k)
	m := geom.Scale(2, 2).Then(geom.Turn(math.Pi / 2)).Then(geom.Shift(30, 4))
	large := painted(t, scene.Transform([]scene.Ink{k}, m)...)
	for _, p := range []geom.Point{{X: 3, Y: 5}, {X: 5, Y: 5}, {X: 7, Y: 4}, {X: 5, Y: 1.8}, {X: 8.3, Y: 5}} {
		q := m.Apply(p)
		assert.InDelta(t, dark(small(p.X, p.Y)), dark(large(q.X, q.Y)), .07, "at %v", p)
	}
}

package light

import (
	"image"
	"image/color"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// noisy is a picture of all sorts of colours.
func noisy(w, h int) *image.NRGBA {
	r := rand.New(rand.NewPCG(4, 2))
	img := image.NewNRGBA(image.Rect(0, 0, w, h))
	for i := range img.Pix {
		img.Pix[i] = uint8(r.IntN(256))
	}
	return img
}

func copied(img *image.NRGBA) *image.NRGBA {
	return &image.NRGBA{Pix: append([]uint8(nil), img.Pix...), Stride: img.Stride, Rect: img.Rect}
}

// each setting alone, and some together, both ways.
func allSettings() (out []Settings) {
	for _, v := range []float64{-1, -.4, .3, 1} {
		out = append(out, Settings{Brightness: v}, Settings{Contrast: v}, Settings{Highlights: v}, Settings{Shadows: v}, Settings{Saturation: v}, Settings{Lively: v}, Settings{Warmth: v}, Settings{Tint: v},
			Settings{v, v, v, v, v, v, v, v}, Settings{v, -v, v, -v, -v, v, v, -v})
	}
	return out
}

func TestWhatIsNeutralChangesNothing(t *testing.T) {
	assert.Nil(t, Settings{}.Table())
	assert.Nil(t, Right{}.Table())
	assert.Nil(t, OneColour([3]uint8{90, 60, 20}, 0))
	img := noisy(60, 40)
	was := copied(img)
	require.NoError(t, Detail{}.Apply(t.Context(), img))
	Darken(img, nil)
	assert.Equal(t, was, img)
	same := tableOf(func(c colour) colour { return c })
	require.NoError(t, same.Apply(t.Context(), img))
	assert.Equal(t, was, img)
}

// alone reports whether only one thing is set; all at once at their ends makes greys one.
func alone(s Settings) bool {
	n := 0
	for _, v := range []float64{s.Brightness, s.Contrast, s.Highlights, s.Shadows, s.Saturation, s.Lively, s.Warmth, s.Tint} {
		if v != 0 {
			n++
		}
	}
	return n == 1
}

// Black stays black, white white, and sixteen greys keep their order whatever is set; a colour
// has the luminance of the grey that it would be as bright as.
func TestGreysKeepTheirOrder(t *testing.T) {
	for _, s := range allSettings() {
		table := s.Table()
		last := -1
		for i := range 16 {
			v := uint8(i * 17)
			r, g, b := table.Colour(v, v, v)
			at := int(.2126*float64(r) + .7152*float64(g) + .0722*float64(b) + .5)
			assert.GreaterOrEqual(t, at, last, "%+v at %d", s, v)
			if alone(s) {
				assert.Greater(t, at, last, "%+v at %d", s, v)
			}
			last = at
		}
		r, g, b := table.Colour(0, 0, 0)
		assert.Equal(t, [3]uint8{}, [3]uint8{r, g, b}, "%+v", s)
		r, g, b = table.Colour(255, 255, 255)
		assert.Equal(t, [3]uint8{255, 255, 255}, [3]uint8{r, g, b}, "%+v", s)
		for i := range 256 {
			assert.LessOrEqual(t, s.Curve(float64(i)/256), s.Curve(float64(i+1)/256))
		}
	}
}

// The table is near what it stands for: on average within one step of 255, of single settings
// at 24 of 25 places within six. Only colours as strong as sRGB has them are farther off.
func TestTheTableIsNearWhatItStandsFor(t *testing.T) {
	rng := rand.New(rand.NewPCG(7, 1))
	for _, s := range allSettings() {
		table, far, sum := s.Table(), 0, 0.0
		for range 400 {
			c := [3]uint8{uint8(rng.IntN(256)), uint8(rng.IntN(256)), uint8(rng.IntN(256))}
			want := each(s.shade(each(colour{float64(c[0]) / 255, float64(c[1]) / 255, float64(c[2]) / 255}, linear)), encoded)
			r, g, b := table.Colour(c[0], c[1], c[2])
			for i, v := range []uint8{r, g, b} {
				d := math.Abs(float64(v) - want[i]*255)
				sum += d / 1200
				if d > 6 {
					far++
				}
			}
		}
		assert.Less(t, sum, 1.0, "%+v", s)
		if alone(s) {
			assert.Less(t, far, 48, "%+v", s)
		}
	}
}

func TestKnownColoursBecomeKnownColours(t *testing.T) {
	of := func(s Settings, r, g, b uint8) [3]uint8 {
		x, y, z := s.Table().Colour(r, g, b)
		return [3]uint8{x, y, z}
	}
	near := func(want, got [3]uint8) {
		t.Helper()
		for i := range want {
			assert.InDelta(t, want[i], got[i], 1.5)
		}
	}
	// One stop brighter is the square root of what sRGB has; one darker its square.
	near([3]uint8{128, 128, 128}, of(Settings{Brightness: 1}, 64, 64, 64))
	near([3]uint8{64, 64, 64}, of(Settings{Brightness: -1}, 128, 128, 128))
	// The middle grey is where contrast turns.
	near([3]uint8{127, 127, 127}, of(Settings{Contrast: 1}, 127, 127, 127))
	// Without saturation a colour is a grey of its lightness.
	grey := of(Settings{Saturation: -1}, 200, 60, 40)
	near([3]uint8{grey[0], grey[0], grey[0]}, grey)
	assert.InDelta(t, 119, grey[0], 3)
	// Warm is redder and less blue, of the luminance that it had.
	warm := of(Settings{Warmth: .5}, 120, 120, 120)
	assert.Greater(t, warm[0], uint8(124))
	assert.Less(t, warm[2], uint8(112))
	lum := func(c [3]uint8) float64 {
		return luminance(each(colour{float64(c[0]) / 255, float64(c[1]) / 255, float64(c[2]) / 255}, linear))
	}
	assert.InDelta(t, lum([3]uint8{120, 120, 120}), lum(warm), .004)
	// Lively moves a pale blue more than skin and than a strong blue.
	moved := func(r, g, b uint8) float64 {
		c := of(Settings{Lively: .6}, r, g, b)
		return math.Hypot(float64(c[0])-float64(r), math.Hypot(float64(c[1])-float64(g), float64(c[2])-float64(b)))
	}
	assert.Greater(t, moved(150, 165, 190), 2*moved(214, 172, 150))
	assert.Greater(t, moved(150, 165, 190), 2*moved(20, 40, 230))
	// One colour: greys of it, black and white as they were.
	sepia := OneColour([3]uint8{112, 66, 20}, 1)
	r, g, b := sepia.Colour(128, 128, 128)
	assert.True(t, r > g && g > b)
	r, g, b = sepia.Colour(255, 255, 255)
	assert.Equal(t, [3]uint8{255, 255, 255}, [3]uint8{r, g, b})
	grey2 := OneColour([3]uint8{128, 128, 128}, 1)
	r, g, b = grey2.Colour(30, 200, 90)
	near([3]uint8{g, g, g}, [3]uint8{r, g, b})
}

// scene is a picture with a dull range and a cast: greys of every kind, a third of them tinted.
func sceneOf(lo, hi float64, cast [3]float64) *image.NRGBA {
	img := image.NewNRGBA(image.Rect(0, 0, 120, 90))
	rng := rand.New(rand.NewPCG(9, 9))
	for i := 0; i < len(img.Pix); i += 4 {
		v := linear(lo + (hi-lo)*rng.Float64())
		for c := range 3 {
			img.Pix[i+c] = uint8(255*encoded(min(v*cast[c], 1)) + .5)
		}
		img.Pix[i+3] = 255
	}
	return img
}

func TestAPictureIsSetRight(t *testing.T) {
	assert.Equal(t, Right{}, RightOf(sceneOf(0, 1, [3]float64{1, 1, 1})), "what is right already")
	assert.Equal(t, Right{}, RightOf(sceneOf(.4, .6, [3]float64{1, 1, 1})), "a mist is meant so")
	assert.Equal(t, Right{}, RightOf(image.NewNRGBA(image.Rect(0, 0, 3, 3))), "nothing there")

	dull := RightOf(sceneOf(.08, .85, [3]float64{1, 1, 1}))
	assert.InDelta(t, .08, dull.Black, .01)
	assert.InDelta(t, .85, dull.White, .02)
	table := dull.Table()
	r, _, _ := table.Colour(216, 216, 216)
	assert.Greater(t, r, uint8(250))

	yellow := sceneOf(.02, .98, [3]float64{1.08, 1, .82})
	before, after := yellow, copied(yellow)
	right := RightOf(before)
	require.NotZero(t, right.Blue)
	require.NoError(t, right.Table().Apply(t.Context(), after))
	cast := func(img *image.NRGBA) float64 {
		c := img.NRGBAAt(60, 45)
		return math.Abs(float64(c.R)-float64(c.B)) / float64(c.G)
	}
	assert.Less(t, cast(after), .6*cast(before))
	assert.LessOrEqual(t, right.Blue, mostCast)
}

func TestDetailIsMadeSharperSofterAndFreeOfGrain(t *testing.T) {
	step := image.NewNRGBA(image.Rect(0, 0, 400, 100))
	for y := range 100 {
		for x := range 400 {
			v := uint8(80)
			if x >= 200 {
				v = 160
			}
			step.SetNRGBA(x, y, color.NRGBA{v, v, v, 255})
		}
	}
	sharp := copied(step)
	require.NoError(t, Detail{Sharpness: .5}.Apply(t.Context(), sharp))
	assert.Less(t, sharp.NRGBAAt(199, 50).R, uint8(78))
	assert.Greater(t, sharp.NRGBAAt(200, 50).R, uint8(162))
	assert.Equal(t, step.NRGBAAt(100, 50), sharp.NRGBAAt(100, 50), "flat parts stay")

	soft := copied(step)
	require.NoError(t, Detail{Softness: 1}.Apply(t.Context(), soft))
	const sigma = 4.0 // a hundredth of the longer side
	for _, d := range []float64{-8.5, -3.5, -.5, .5, 4.5} {
		want := 120 + 40*math.Erf(d/sigma/math.Sqrt2)
		assert.InDelta(t, want, soft.NRGBAAt(int(200+d), 50).R, 2, "%v", d)
	}

	grainy := copied(step)
	rng := rand.New(rand.NewPCG(3, 3))
	for i := range grainy.Pix {
		if i%4 < 3 {
			grainy.Pix[i] = uint8(float64(grainy.Pix[i]) + 8*rng.NormFloat64())
		}
	}
	deviation := func(img *image.NRGBA, from, to int) float64 {
		sum, squares, n := 0.0, 0.0, 0.0
		for y := 10; y < 90; y++ {
			for x := from; x < to; x++ {
				v := float64(img.NRGBAAt(x, y).G)
				sum, squares, n = sum+v, squares+v*v, n+1
			}
		}
		return math.Sqrt(squares/n - sum*sum/n/n)
	}
	smooth := copied(grainy)
	require.NoError(t, Detail{Smooth: .6}.Apply(t.Context(), smooth))
	assert.Less(t, deviation(smooth, 20, 180), .5*deviation(grainy, 20, 180))
	assert.InDelta(t, 80, float64(smooth.NRGBAAt(197, 50).G), 12, "the edge stays")
	assert.InDelta(t, 160, float64(smooth.NRGBAAt(202, 50).G), 12)
}

func TestRedPupilsBecomeDark(t *testing.T) {
	face := image.NewNRGBA(image.Rect(0, 0, 80, 80))
	for y := range 80 {
		for x := range 80 {
			c := color.NRGBA{214, 172, 150, 255}
			if math.Hypot(float64(x)-40, float64(y)-40) < 8 {
				c = color.NRGBA{190, 30, 40, 255}
			}
			face.SetNRGBA(x, y, c)
		}
	}
	Darken(face, []Eye{{40, 40, 14}, {-50, 500, 3}})
	p := face.NRGBAAt(40, 40)
	assert.Less(t, p.R, uint8(60))
	assert.Equal(t, color.NRGBA{214, 172, 150, 255}, face.NRGBAAt(40, 51), "skin stays")
}

// A picture that is changed in strips is as it would be at once.
func TestStripsLeaveNoSeam(t *testing.T) {
	was := stripPixels
	defer func() { stripPixels = was }()
	for _, d := range []Detail{{Smooth: .5}, {Softness: 1}, {Sharpness: .7}} {
		whole, strips := noisy(90, 400), noisy(90, 400)
		stripPixels = was
		require.NoError(t, d.Apply(t.Context(), whole))
		stripPixels = 90 * 70
		require.NoError(t, d.Apply(t.Context(), strips))
		for i := range whole.Pix {
			if off := int(whole.Pix[i]) - int(strips.Pix[i]); off > 1 || off < -1 {
				t.Fatalf("%+v: byte %d is %d and %d", d, i, whole.Pix[i], strips.Pix[i])
			}
		}
	}
}

package gamut

import (
	"image"
	"image/color"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/lucasb-eyer/go-colorful"
	"github.com/stretchr/testify/assert"
)

func hueOff(a, b colorful.Color) float64 {
	_, a1, b1 := a.Lab()
	_, a2, b2 := b.Lab()
	d := math.Abs(math.Atan2(b1, a1)-math.Atan2(b2, a2)) * 180 / math.Pi
	return min(d, 360-d)
}

// What can be printed stays to the bit; what cannot becomes a colour that can, of its hue, that no
// other comes nearer to it than.
func TestColoursBecomeTheNearestThatPrint(t *testing.T) {
	r := rand.New(rand.NewPCG(2, 8))
	for _, p := range []Paper{Photo, Matt} {
		g := On(p)
		kept, mapped := 0, 0
		for range 400 {
			c := [3]uint8{uint8(r.IntN(256)), uint8(r.IntN(256)), uint8(r.IntN(256))}
			own := rgb(c[0], c[1], c[2])
			pr, pg, pb, off := g.Prints(c[0], c[1], c[2])
			l, a, b := own.Lab()
			if 100*math.Hypot(a, b) <= g.chroma(100*l, math.Atan2(b, a)) {
				assert.Equal(t, c, [3]uint8{pr, pg, pb})
				assert.Zero(t, off)
				kept++
				continue
			}
			if off == 0 {
				continue // as near as makes no difference
			}
			mapped++
			prints := rgb(pr, pg, pb)
			l2, a2, b2 := prints.Lab()
			assert.LessOrEqual(t, 100*math.Hypot(a2, b2), g.chroma(100*l2, math.Atan2(b2, a2))+2.5, "%v is within", c)
			if 100*math.Hypot(a2, b2) > 12 {
				assert.Less(t, hueOff(own, prints), 5.0, "%v", c)
			}
			// Brute force: all lightnesses and chromas of the hue.
			least := math.Inf(1)
			hue := math.Atan2(b, a)
			for k := range 101 {
				for ch := 0.0; ch <= g.chroma(float64(k), hue); ch++ {
					least = min(least, 100*own.DistanceCIEDE2000(colorful.Lab(float64(k)/100, ch/100*math.Cos(hue), ch/100*math.Sin(hue))))
				}
			}
			assert.InDelta(t, least, off, .8, "%v", c)
		}
		assert.Greater(t, kept, 60)
		assert.Greater(t, mapped, 60)
	}
}

// Greys print on every paper; solid inks do, on that which they are of; a card prints less than a
// paper for photos.
func TestWhatEveryPaperPrints(t *testing.T) {
	for _, p := range []Paper{Photo, Matt} {
		g := On(p)
		for v := range 256 {
			_, _, _, off := g.Prints(uint8(v), uint8(v), uint8(v))
			assert.Zero(t, off)
		}
		s := solids[p]
		for _, l := range []lab{s.c, s.m, s.y, s.r, s.g} {
			l = s.relative(l)
			assert.LessOrEqual(t, math.Hypot(l[1], l[2]), g.chroma(l[0], math.Atan2(l[2], l[1]))*1.2+3, "%v", l)
		}
	}
	wider := 0
	for l := range lights {
		for h := range hues {
			if On(Photo).most[l][h] >= On(Matt).most[l][h]-1 {
				wider++
			}
		}
	}
	assert.Greater(t, wider, lights*hues*85/100)
	assert.Same(t, On(Matt), On("cloth"))
}

// The table says what single colours say.
func TestTheTableFollows(t *testing.T) {
	g := On(Matt)
	for _, c := range [][3]uint8{{128, 128, 128}, {88, 122, 74}, {255, 0, 0}, {255, 255, 0}, {40, 40, 200}} {
		r, gr, b, _ := g.Prints(c[0], c[1], c[2])
		tr, tg, tb := g.Table().Colour(c[0], c[1], c[2])
		assert.InDelta(t, r, tr, 8)
		assert.InDelta(t, gr, tg, 8)
		assert.InDelta(t, b, tb, 8)
	}
}

// The share of a picture that comes out duller is that of its pixels one by one, of what is seen and
// opaque.
func TestTheShareThatComesOutDuller(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 4))
	g := On(Matt)
	for range 6 {
		img := image.NewNRGBA(image.Rect(3, 5, 83, 65))
		for i := range img.Pix {
			img.Pix[i] = uint8(r.IntN(256))
		}
		part := image.Rect(0, 10, 50, 200)
		off, n := 0, 0
		for y := 10; y < 65; y++ {
			for x := 3; x < 50; x++ {
				c := img.NRGBAAt(x, y)
				if c.A <= 127 {
					continue
				}
				n++
				if _, _, _, d := g.Prints(c.R, c.G, c.B); d >= 5 {
					off++
				}
			}
		}
		assert.InDelta(t, float64(off)/float64(n), g.Duller(img, part, 5), .04)
	}
	assert.Zero(t, g.Duller(image.NewNRGBA(image.Rect(0, 0, 9, 9)), image.Rect(0, 0, 9, 9), 5), "nothing is opaque")
	assert.Zero(t, g.Duller(image.NewUniform(color.White), image.Rectangle{}, 5))
}

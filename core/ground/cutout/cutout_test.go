package cutout

import (
	"context"
	"image"
	"math"
	"testing"

	"github.com/kovidgoyal/imaging"
	"github.com/lucasb-eyer/go-colorful"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/ground/geom"
	"sectilis/core/ground/pixels"
)

func copied(img *image.NRGBA) *image.NRGBA {
	return &image.NRGBA{Pix: append([]uint8(nil), img.Pix...), Stride: img.Stride, Rect: img.Rect}
}

// measured is how a mask compares with what is known: the mean error of alpha, intersection over
// union, and the mean ΔE of the edge on a new ground.
type measured struct{ alpha, overlap, halo float64 }

func (c composite) measure(got *image.NRGBA) (m measured) {
	both, either, edge := 0.0, 0.0, 0.0
	for i, want := range c.alpha {
		a := float64(got.Pix[4*i+3]) / 255
		m.alpha += math.Abs(a-want) / float64(len(c.alpha))
		if a >= .5 && want >= .5 {
			both++
		}
		if a >= .5 || want >= .5 {
			either++
		}
		if want > .02 && want < .98 {
			over := func(f rgb, a float64) colorful.Color {
				new := rgb{240, 236, 225}
				var v rgb
				for k := range v {
					v[k] = (f[k]*a + new[k]*(1-a)) / 255
				}
				return colorful.Color{R: v[0], G: v[1], B: v[2]}
			}
			f := rgb{float64(got.Pix[4*i]), float64(got.Pix[4*i+1]), float64(got.Pix[4*i+2])}
			m.halo += 100 * over(f, a).DistanceCIEDE2000(over(c.colour(i), want))
			edge++
		}
	}
	m.overlap, m.halo = both/either, m.halo/edge
	return m
}

// strokes on a subject and beside it, as a hand makes them.
func strokes(c composite) *Subject {
	goes := []geom.Point{{X: .04, Y: .06}, {X: .5, Y: .04}, {X: .96, Y: .07}, {X: .95, Y: .95}, {X: .05, Y: .94}}
	return &Subject{Stays: []Stroke{{c.inside, .008}}, Goes: []Stroke{{goes, .012}}}
}

// A plain ground goes, with the shares of the edge and without its colour, through hair too.
func TestAPlainGroundIsTakenOff(t *testing.T) {
	for i, c := range scenes()[:15] {
		got := copied(c.img)
		require.NoError(t, Apply(t.Context(), got, Spec{Ground: &Ground{At: []geom.Point{{X: .02, Y: .03}}, Tolerance: .06}, Clean: 1}))
		m := c.measure(got)
		assert.LessOrEqual(t, m.alpha, .01, "%d %s", i, c.name)
		most := 3.0
		if c.name == "glass" {
			most = 4 // edges of thirty pixels
		}
		assert.LessOrEqual(t, m.halo, most, "%d %s", i, c.name)
	}
}

// Two strokes take a subject out of plain and of patterned grounds, like its own colour too.
func TestASubjectIsTakenOutByTwoStrokes(t *testing.T) {
	for i, c := range scenes() {
		got := copied(c.img)
		require.NoError(t, Apply(t.Context(), got, Spec{Subject: strokes(c), Clean: 1}))
		m := c.measure(got)
		overlap, halo := .985, 3.0
		switch c.name {
		case "hair":
			overlap, halo = .95, 10 // single hairs on a pattern
		case "glass":
			overlap, halo = .95, 6.5
		case "fur":
			overlap = .95
		}
		assert.GreaterOrEqual(t, m.overlap, overlap, "%d %s", i, c.name)
		assert.LessOrEqual(t, m.halo, halo, "%d %s", i, c.name)
		if !c.soft {
			assert.LessOrEqual(t, c.offEdge(got), 1.5, "%d %s", i, c.name)
		}
	}
}

// Of things alike only that stays which a stroke is on, with what is enclosed by it.
func TestOnlyWhatIsMarkedStays(t *testing.T) {
	img := image.NewNRGBA(image.Rect(0, 0, 600, 300))
	for i := range 600 * 300 {
		x, y := float64(i%600), float64(i/600)
		c := []uint8{60, 110, 50, 255}
		for k, m := range []float64{110, 300, 490} {
			d := math.Hypot(x-m, y-150)
			if d < 70 {
				c = []uint8{230, 130, 40, 255}
			}
			if d < 9 && k != 1 { // a spot like the ground in the others
				c = []uint8{62, 108, 52, 255}
			}
		}
		copy(img.Pix[4*i:], c)
	}
	s := Subject{Stays: []Stroke{{[]geom.Point{{X: .45, Y: .45}, {X: .55, Y: .5}}, .01}}, Goes: []Stroke{{[]geom.Point{{X: .05, Y: .05}, {X: .95, Y: .06}}, .01}}}
	require.NoError(t, Apply(t.Context(), img, Spec{Subject: &s, Clean: 1}))
	for i := range 600 * 300 {
		if x := i % 600; (x < 220 || x > 380) && img.Pix[4*i+3] > 0 {
			t.Fatalf("something is left at %d, %d", x, i/600)
		}
	}
}

// A line roughly round a subject does, too; what lies out of it goes.
func TestASubjectIsTakenOutByALineRoundIt(t *testing.T) {
	for _, i := range []int{0, 11, 20, 25} {
		c := scenes()[i]
		box := c.box().Grow(30)
		var round []geom.Point
		for k := range 24 {
			a := 2 * math.Pi * float64(k) / 24
			m := box.Centre()
			round = append(round, geom.Pt((m.X+.72*box.W*math.Cos(a))/sceneW, (m.Y+.72*box.H*math.Sin(a))/sceneH))
		}
		got := copied(c.img)
		require.NoError(t, Apply(t.Context(), got, Spec{Subject: &Subject{Round: round}, Clean: 1}))
		assert.GreaterOrEqual(t, c.measure(got).overlap, .97, "%d %s", i, c.name)
	}
}

// box is what the subject covers, in pixels.
func (c composite) box() (r geom.Rect) {
	for i, a := range c.alpha {
		if a > .5 {
			r = r.Union(geom.Rect{X: float64(i % c.w), Y: float64(i / c.w), W: 1, H: 1})
		}
	}
	return r
}

// offEdge is how far the edge of a mask is from that which is known, on average, in pixels.
func (c composite) offEdge(got *image.NRGBA) float64 {
	is := func(i int) bool { return got.Pix[4*i+3] >= 128 }
	edge := func(of func(int) bool) func(int) bool {
		return func(i int) bool { return i%c.w > 0 && of(i) != of(i-1) || i >= c.w && of(i) != of(i-c.w) }
	}
	want, _ := pixels.Distance(context.Background(), c.w, c.h, edge(func(i int) bool { return c.alpha[i] >= .5 }))
	sum, n := 0.0, 0.0
	for i := range c.alpha {
		if edge(is)(i) {
			sum, n = sum+float64(want.V[i]), n+1
		}
	}
	return sum / n
}

// What is painted in stays, what is painted out goes, and the edge is moved and blurred.
func TestEdgesAreMovedBlurredAndPainted(t *testing.T) {
	c := scenes()[0]
	alpha := func(s Spec) (out []float64, area float64) {
		got := copied(c.img)
		s.Subject = strokes(c)
		require.NoError(t, Apply(t.Context(), got, s))
		for i := range c.alpha {
			out = append(out, float64(got.Pix[4*i+3])/255)
			area += out[i]
		}
		return out, area
	}
	plain, area := alpha(Spec{})
	_, larger := alpha(Spec{Out: .01})
	_, smaller := alpha(Spec{Out: -.01})
	around := 2 * math.Sqrt(math.Pi*area) * .01 * sceneW
	assert.InDelta(t, area+around, larger, .25*around)
	assert.InDelta(t, area-around, smaller, .25*around)
	soft, same := alpha(Spec{Softness: .01})
	assert.InDelta(t, area, same, .01*area)
	partly := func(all []float64) (n int) {
		for _, a := range all {
			if a > .1 && a < .9 {
				n++
			}
		}
		return n
	}
	assert.Greater(t, partly(soft), 4*partly(plain))

	m := c.box().Centre()
	at := func(x, y float64) int { return int(y)*sceneW + int(x) }
	out, _ := alpha(Spec{Paint: []Paint{
		{Stroke: Stroke{[]geom.Point{{X: m.X / sceneW, Y: m.Y / sceneH}}, .02}},
		{Stroke: Stroke{[]geom.Point{{X: .05, Y: .5}, {X: .1, Y: .5}}, .02}, In: true},
		{Stroke: Stroke{[]geom.Point{{X: .9, Y: .9}}, .03}, In: true, Soft: true},
	}})
	assert.Zero(t, out[at(m.X, m.Y)])
	assert.Equal(t, 1.0, out[at(.07*sceneW, .5*sceneH+10)])
	assert.Zero(t, out[at(.07*sceneW, .5*sceneH+15)])
	assert.Greater(t, out[at(.9*sceneW, .9*sceneH)], .95)
	assert.InDelta(t, .55, out[at(.9*sceneW+9.6, .9*sceneH)], .12)
}

// Marks that say all, or nothing, and strokes beside the picture, do no harm.
func TestStrangeMarksDoNoHarm(t *testing.T) {
	img := scenes()[0].img
	whole := []geom.Point{{X: -3, Y: -3}, {X: 4, Y: -3}, {X: 4, Y: 4}, {X: -3, Y: 4}}
	for _, s := range []Spec{
		{Subject: &Subject{}}, {Subject: &Subject{Round: whole}}, {Subject: &Subject{Stays: []Stroke{{[]geom.Point{{X: 5, Y: 5}, {X: 9, Y: -4}}, .1}}}},
		{Subject: &Subject{Stays: []Stroke{{whole, 2}}}}, {Subject: &Subject{Goes: []Stroke{{whole, 2}}}}, {Ground: &Ground{At: []geom.Point{{X: 7, Y: -2}}, Tolerance: 1}},
		{Ground: &Ground{}}, {}, {Within: whole}, {Within: whole[:2]}, {Within: []geom.Point{{}, {}, {}}, Softness: .1, Out: -.1, Clean: 1},
	} {
		for _, size := range []image.Rectangle{img.Rect, image.Rect(0, 0, 1, 1), image.Rect(0, 0, 5, 1), image.Rect(0, 0, 2, 60)} {
			got := image.NewNRGBA(size)
			for i := range got.Pix {
				got.Pix[i] = img.Pix[i]
			}
			require.NoError(t, Apply(t.Context(), got, s))
		}
	}
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	assert.ErrorIs(t, Apply(ctx, copied(img), Spec{Subject: strokes(scenes()[0])}), context.Canceled)
}

func BenchmarkSubject(b *testing.B) {
	c := scenes()[20]
	large := imaging.AsNRGBA(imaging.Resize(c.img, 1600, 1200, imaging.CatmullRom))
	for b.Loop() {
		require.NoError(b, Apply(b.Context(), copied(large), Spec{Subject: strokes(c), Clean: 1}))
	}
}

func BenchmarkPlainGround(b *testing.B) {
	c := scenes()[0]
	large := imaging.AsNRGBA(imaging.Resize(c.img, 1600, 1200, imaging.CatmullRom))
	for b.Loop() {
		require.NoError(b, Apply(b.Context(), copied(large), Spec{Ground: &Ground{At: []geom.Point{{X: .02, Y: .03}}, Tolerance: .06}, Clean: 1}))
	}
}

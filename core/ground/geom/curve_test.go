package geom

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// randomCurved is a path of closed rings with every kind of segment.
func randomCurved(r *rand.Rand) Path {
	pt := func() Point { return Pt(r.Float64()*200-100, r.Float64()*200-100) }
	var b Builder
	for range 1 + r.IntN(2) {
		at := pt()
		b.Move(at)
		for range 2 + r.IntN(4) {
			p := pt()
			switch r.IntN(4) {
			case 0:
				b.Line(p)
			case 1:
				b.Quad(pt(), p)
			case 2:
				b.Cubic(pt(), pt(), p)
			default:
				a, ok := arcByEnds(at, p, 5+r.Float64()*120, 5+r.Float64()*120, r.Float64()*7, r.IntN(2) == 0, r.IntN(2) == 0)
				if !ok {
					continue
				}
				b.segs = append(b.segs, Segment{Op: ArcTo, P: [3]Point{p}, Arc: &a})
			}
			at = p
		}
		b.Close()
	}
	return b.Path()
}

func eachCurve(p Path, f func(Curve)) {
	for _, ring := range p.Curves() {
		for _, c := range ring {
			f(c)
		}
	}
}

func TestArcsMeetTheirEndsAndTheirEllipse(t *testing.T) {
	r := rand.New(rand.NewPCG(15, 16))
	for range 5000 {
		from, to := Pt(r.Float64()*100, r.Float64()*100), Pt(r.Float64()*100, r.Float64()*100)
		rx, ry, turn := 1+r.Float64()*80, 1+r.Float64()*80, r.Float64()*6
		large, sweep := r.IntN(2) == 0, r.IntN(2) == 0
		a, ok := arcByEnds(from, to, rx, ry, turn, large, sweep)
		require.True(t, ok)
		require.InDelta(t, 0, a.At(a.From).Sub(from).Len(), 1e-6)
		require.InDelta(t, 0, a.At(a.To).Sub(to).Len(), 1e-6)
		require.Equal(t, sweep, a.clockwise())
		if w := math.Abs(a.To - a.From); math.Abs(w-math.Pi) > 1e-6 {
			require.Equal(t, large, w > math.Pi)
		}
		long, short, _ := a.axes()
		require.InDelta(t, rx/ry, map[bool]float64{true: long / short, false: short / long}[rx > ry], 1e-6)
	}
}

func TestArcsStayArcsUnderEveryMap(t *testing.T) {
	r := rand.New(rand.NewPCG(17, 18))
	circle := EllipsePath(Rect{-10, -10, 20, 20})
	for range 500 {
		m := Affine{r.Float64()*4 - 2, r.Float64()*4 - 2, r.Float64()*4 - 2, r.Float64()*4 - 2, r.Float64() * 50, r.Float64() * 50}
		p := circle.Transform(m)
		require.InDelta(t, math.Pi*100*m.Det(), p.Area(), 1e-6)
		require.Equal(t, circle.Len(), p.Len())
		long, short, _ := p.segs[1].Arc.axes()
		require.InDelta(t, math.Abs(m.Det())*100, long*short, 1e-6, "the axes span the ellipse's area")
		back, err := ParsePath(p.String())
		require.NoError(t, err)
		require.InDelta(t, p.Area(), back.Area(), .02+1e-4*math.Abs(p.Area()))
	}
}

func TestLengthsAgreeWithFineChords(t *testing.T) {
	r := rand.New(rand.NewPCG(19, 20))
	for range 150 {
		p := randomCurved(r)
		sum := 0.0
		for _, l := range p.Flatten(1e-6) {
			sum += l.Length()
		}
		require.InEpsilon(t, sum, p.Length(), 1e-5)
		eachCurve(p, func(c Curve) {
			total := c.Length()
			k := r.Float64()
			at := c.AtLength(k * total)
			require.InDelta(t, k*total, c.LengthTo(at), 1e-6*total)
		})
	}
	circle := EllipsePath(Rect{0, 0, 20, 20})
	assert.InEpsilon(t, 20*math.Pi, circle.Length(), 1e-9)
	q, tangent, ok := circle.PointAt(5 * math.Pi)
	require.True(t, ok)
	assert.InDelta(t, 10, q.X, 1e-6, "a quarter round from the right is the foot")
	assert.InDelta(t, 20, q.Y, 1e-6)
	assert.InDelta(t, -1, tangent.X, 1e-6)
	_, _, ok = Path{}.PointAt(1)
	assert.False(t, ok)
}

func TestDerivativesAreThoseOfTheCurve(t *testing.T) {
	r := rand.New(rand.NewPCG(21, 22))
	for range 300 {
		eachCurve(randomCurved(r), func(c Curve) {
			k, h := .1+.8*r.Float64(), 1e-5
			d := c.At(k + h).Sub(c.At(k - h)).Mul(1 / (2 * h))
			require.InDelta(t, 0, d.Sub(c.Derivative(k)).Len(), 1e-3*(1+d.Len()))
			if c.Op != LineTo {
				return
			}
			require.Zero(t, c.Curvature(k))
		})
	}
	c := EllipsePath(Rect{0, 0, 20, 20}).Curves()[0][0]
	assert.InDelta(t, .1, c.Curvature(.3), 1e-9, "clockwise bends are positive, by one over the radius")
	cusp := Curve{Pt(0, 0), Segment{Op: CubicTo, P: [3]Point{{0, 0}, {0, 0}, {10, 0}}}}
	assert.InDelta(t, 1, cusp.Tangent(0).X, 1e-9, "a cusp has the direction of what follows")
	assert.True(t, math.IsInf(cusp.Curvature(0), 1))
	assert.Zero(t, Curve{Pt(1, 1), Segment{Op: LineTo, P: [3]Point{{1, 1}}}}.Tangent(.5))
}

func TestSplitsTogetherAreTheCurve(t *testing.T) {
	r := rand.New(rand.NewPCG(23, 24))
	for range 300 {
		eachCurve(randomCurved(r), func(c Curve) {
			k := r.Float64()
			a, b := c.Split(k)
			require.Equal(t, c.From, a.From)
			require.InDelta(t, 0, b.At(1).Sub(c.At(1)).Len(), 1e-9)
			for range 5 {
				u := r.Float64()
				require.InDelta(t, 0, a.At(u).Sub(c.At(u*k)).Len(), 1e-6)
				require.InDelta(t, 0, b.At(u).Sub(c.At(k+u*(1-k))).Len(), 1e-6)
			}
		})
	}
}

func TestTheNearestPlaceIsNoFartherThanAnyOther(t *testing.T) {
	r := rand.New(rand.NewPCG(25, 26))
	for range 150 {
		p := randomCurved(r)
		lines := p.Flatten(1e-4)
		for range 10 {
			q := Pt(r.Float64()*300-150, r.Float64()*300-150)
			best := math.Inf(1)
			for _, l := range lines {
				for i, a := range l.Points {
					best = min(best, distance(q, a, l.Points[(i+1)%len(l.Points)]))
				}
			}
			n, ok := p.Nearest(q)
			require.True(t, ok)
			require.InDelta(t, best, n.Distance, 2e-4, p.String())
			require.InDelta(t, 0, p.Curves()[n.Ring][n.Curve].At(n.T).Sub(n.Point).Len(), 1e-9)
		}
	}
	_, ok := Path{}.Nearest(Pt(0, 0))
	assert.False(t, ok)
}

func TestWindingIsThatOfTheCurveItself(t *testing.T) {
	r := rand.New(rand.NewPCG(27, 28))
	for range 300 {
		p := randomCurved(r)
		lines := p.Flatten(1e-4)
		for range 20 {
			q := Pt(r.Float64()*240-120, r.Float64()*240-120)
			if n, _ := p.Nearest(q); n.Distance < 1e-3 {
				continue
			}
			require.Equal(t, Winding(lines, q), p.Winding(q), "%s at %v", p, q)
			require.Equal(t, -p.Winding(q), p.Reverse().Winding(q))
		}
	}
	ring := Join(EllipsePath(Rect{-10, -10, 20, 20}), EllipsePath(Rect{-5, -5, 10, 10}).Reverse())
	assert.Equal(t, 0, ring.Winding(Pt(0, 0)))
	assert.Equal(t, 1, ring.Winding(Pt(7, 0)))
	// Within a nanometre of the edge, where chords would be wrong.
	for i := range 360 {
		s, c := math.Sincos(float64(i) * math.Pi / 180)
		assert.Equal(t, 1, ring.Winding(Pt(c, s).Mul(10-1e-6)))
		assert.Equal(t, 0, ring.Winding(Pt(c, s).Mul(10+1e-6)))
	}
}

func TestCubicsStandForArcs(t *testing.T) {
	p := EllipsePath(Rect{-40, -40, 80, 80})
	n := 0
	p.Cubics(func(from Point, s Segment) {
		if s.Op != CubicTo {
			return
		}
		n++
		for i := range 11 {
			require.InDelta(t, 40, at(cubic(from, s), float64(i)/10).Len(), 5e-6*40)
		}
	})
	assert.Equal(t, 8, n)
	assert.Equal(t, "M40 0A40 40 0 0 1 -20 34.641A40 40 0 0 1 -20 -34.641A40 40 0 0 1 40 0Z", p.String())
}

// A ray that leaves by the seam of two arcs, which rounding has moved a little
// from where their angles have it, meets the ring once.
func TestTheSeamOfTwoArcsIsMetOnce(t *testing.T) {
	const off = 1e-9
	full := Arc{U: Pt(5, 0), V: Pt(0, 5)}
	lower, upper := full, full
	lower.To, upper.From, upper.To = math.Pi, math.Pi, 2*math.Pi
	for _, seam := range []Point{Pt(5, off), Pt(5, -off)} {
		p := Path{[]Segment{
			{Op: MoveTo, P: [3]Point{seam}},
			{Op: ArcTo, P: [3]Point{Pt(-5, 0)}, Arc: &lower},
			{Op: ArcTo, P: [3]Point{seam}, Arc: &upper}, {Op: Close},
		}}
		for _, y := range []float64{-off, -off / 2, 0, off / 2, off} {
			assert.Equal(t, 1, p.Winding(Pt(0, y)), "%v with the seam at %v", y, seam)
		}
	}
}

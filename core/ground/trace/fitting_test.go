package trace

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/ground/geom"
)

// through is a fitting of places on a cubic between its ends, whose directions are known unless
// they are corners.
func through(k [4]geom.Point, corners bool) *fitting {
	c := powersOf(k)
	f := &fitting{i: joint{p: k[0], dir: unit(k[1].Sub(k[0])), corner: corners}, j: joint{p: k[3], dir: unit(k[3].Sub(k[2])), corner: corners}}
	last := k[0]
	for i := range 33 {
		p, _ := c.at(float64(i) / 32)
		f.way += p.Sub(last).Len()
		last = p
		f.pts = append(f.pts, p)
	}
	way := 0.
	for i, p := range f.pts {
		if i > 0 {
			way += p.Sub(f.pts[i-1]).Len()
		}
		f.us = append(f.us, way/f.way)
	}
	return f
}

// A cubic is found again from its places, with the directions of its ends known or not.
func TestCubicsAreFoundAgain(t *testing.T) {
	rnd := rand.New(rand.NewPCG(4, 4))
	for n := range 80 {
		// Handles that make no loop.
		k := [4]geom.Point{{}, geom.Pt(100+200*rnd.Float64(), 150*rnd.Float64()-75), geom.Pt(500-200*rnd.Float64(), 200*rnd.Float64()-100), geom.Pt(600, 40)}
		f := through(k, n%2 == 1)
		got := f.nearest(f.first(), Fine)
		assert.LessOrEqual(t, got.off, Fine, "%v", k)
	}
}

// The value and the way of a cubic as a polynomial are those of the curve.
func TestPowersAreTheCubic(t *testing.T) {
	k := [4]geom.Point{{X: 1, Y: 2}, {X: 30, Y: -8}, {X: 12, Y: 44}, {X: 70, Y: 9}}
	s := stroke{k: k}
	c := geom.Curve{From: s.k[0], Segment: geom.Segment{Op: geom.CubicTo, P: [3]geom.Point{k[1], k[2], k[3]}}}
	p := powersOf(k)
	for u := 0.; u <= 1; u += .125 {
		at, v := p.at(u)
		assert.InDelta(t, 0, at.Sub(c.At(u)).Len(), 1e-9)
		assert.InDelta(t, 0, v.Sub(c.Derivative(u)).Len(), 1e-9)
	}
}

func TestEquationsAreSolved(t *testing.T) {
	rnd := rand.New(rand.NewPCG(6, 6))
	for n := 1; n <= 4; n++ {
		var m system
		want := [4]float64{3, -2, .5, 7}
		for r := range n {
			for q := range n {
				m[r][q] = rnd.NormFloat64()
				m[r][n] += m[r][q] * want[q]
			}
		}
		got, ok := m.solve(n)
		require.True(t, ok)
		for i := range n {
			assert.InDelta(t, want[i], got[i], 1e-9)
		}
	}
	_, ok := new(system).solve(2)
	assert.False(t, ok, "none of them says anything")
}

// ringOf is a chain of places on a circle, with noise.
func ringOf(r, noise float64, rnd *rand.Rand) *chain {
	n := int(2 * math.Pi * r / .8)
	pts := make([]geom.Point, n)
	for i := range pts {
		a := 2 * math.Pi * float64(i) / float64(n)
		q := r + noise*rnd.NormFloat64()
		pts[i] = geom.Pt(200+q*math.Cos(a), 200+q*math.Sin(a))
	}
	return newChain(pts)
}

// The polygon has every place within the tolerance of a side, and about as few sides as a circle
// of the size needs.
func TestPolygonsAreNearAndFew(t *testing.T) {
	rnd := rand.New(rand.NewPCG(2, 7))
	for _, r := range []float64{20, 90, 180} {
		for _, tol := range []float64{.4, 1.2} {
			c := ringOf(r, .03, rnd)
			corners := c.polygon(tol)
			for i, v := range corners {
				to := corners[(i+1)%len(corners)]
				if i == len(corners)-1 {
					to += c.n
				}
				a, b := c.pts[v], c.pts[to]
				side := b.Sub(a)
				for at := v; at <= to; at++ {
					off := math.Abs(unit(side).Cross(c.pts[at].Sub(a)))
					assert.LessOrEqual(t, off, tol*1.01)
				}
			}
			// A chord whose middle is tol from the arc.
			fewest := math.Pi / math.Acos(1-tol/r)
			assert.LessOrEqual(t, float64(len(corners)), 1.25*fewest+2, "radius %v within %v", r, tol)
		}
	}
}

// The places and directions of smooth joints are those of the curve, to a small part of a pixel.
func TestSmoothJointsLieOnTheCurve(t *testing.T) {
	rnd := rand.New(rand.NewPCG(3, 8))
	c := ringOf(150, .04, rnd)
	o := Options{Smooth: Fine, Corner: UsualCorner}
	joints := c.joints(c.polygon(.3), o)
	require.Greater(t, len(joints), 20)
	for _, j := range joints {
		require.False(t, j.corner, "a circle has none")
		d := j.p.Sub(geom.Pt(200, 200))
		assert.InDelta(t, 150, d.Len(), .05)
		assert.InDelta(t, 0, unit(d).Dot(j.dir), .012)
	}
}

// Where two parabolas meet is found from nearby; where they run side by side there is no place.
func TestPolynomialsMeet(t *testing.T) {
	p := bend{dir: geom.Pt(1, 0), c: [4]float64{1, .5, .01}}
	q := bend{dir: geom.Pt(0, 1), c: [4]float64{-2, .1, 0}}
	at, ok := meet(p, q, geom.Pt(1, 1))
	require.True(t, ok)
	assert.InDelta(t, 0, p.off(at), 1e-6)
	assert.InDelta(t, 0, q.off(at), 1e-6)
	_, ok = meet(bend{dir: geom.Pt(1, 0)}, bend{dir: geom.Pt(1, 0), origin: geom.Pt(0, 5)}, geom.Pt(0, 0))
	assert.False(t, ok)
}

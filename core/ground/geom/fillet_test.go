package geom

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestCornersGetArcsThatTouchTheirSides(t *testing.T) {
	square := RectPath(Rect{0, 0, 20, 10})
	assert.InDelta(t, 200-(4-math.Pi)*9, RoundCorners(square, 3).Area(), 1e-6)
	assert.InDelta(t, 200-(4-math.Pi)*25, RoundCorners(square, 50).Area(), 1e-4, "no rounder than the sides allow")
	assert.Equal(t, square, RoundCorners(square, 0))
	assert.Equal(t, EllipsePath(Rect{0, 0, 9, 9}).String(), RoundCorners(EllipsePath(Rect{0, 0, 9, 9}), 2).String(), "a circle has no corner")
	open := RoundCorners(mustPath("M0 0L10 0L10 10"), 2)
	assert.Equal(t, "M0 0L8 0A2 2 0 0 1 10 2L10 10", open.String())
	half := RoundCorners(mustPath("M-10 0A10 10 0 0 1 10 0Z"), 1)
	assert.Len(t, half.Curves()[0], 4)

	r := rand.New(rand.NewPCG(61, 62))
	for range cases(5000, 200) {
		p := randomCurved(r)
		if r.IntN(2) == 0 {
			p = star(r, Pt(0, 0), 3+r.IntN(20), 5, 40)
		}
		rad := r.Float64() * 5
		got := RoundCorners(p, rad)
		for _, cs := range got.Curves() {
			for i, c := range cs {
				next := cs[(i+1)%len(cs)]
				require.InDelta(t, 0, c.End().Sub(next.From).Len(), 1e-6)
				if c.Op == ArcTo && c.Arc.circular() || next.Op == ArcTo && next.Arc.circular() {
					// Smooth where an arc meets a side.
					a, b := c.Tangent(1), next.Tangent(0)
					turn := math.Abs(math.Atan2(a.Cross(b), a.Dot(b)))
					if turn > .01 {
						// Only where a side ends that turned too little for a corner, or too much.
						old := false
						eachCurve(p, func(o Curve) { old = old || o.From.Sub(next.From).Len() < 1e-6 })
						require.True(t, old, "%v of %s\n= %s", rad, p, got)
					}
				}
			}
		}
		eachCurve(got, func(c Curve) {
			n, _ := p.Nearest(c.At(.5))
			require.LessOrEqual(t, n.Distance, 12*rad+1e-6, "%v of %s\n= %s", rad, p, got)
		})
	}
}

func TestSimplerOutlinesStayClose(t *testing.T) {
	// A traced circle, all short curves, becomes a handful.
	l := EllipsePath(Rect{-20, -20, 40, 40}).Flatten(.0005)[0]
	var b Builder
	b.Move(l.Points[0])
	for i := 1; i < len(l.Points); i++ {
		p, q := l.Points[i-1], l.Points[i]
		b.Cubic(p.Lerp(q, .3), p.Lerp(q, .7), q)
	}
	many := b.Close().Path()
	few := Simplify(many, .02)
	assert.Less(t, few.Len(), 16)
	assert.Less(t, Xor(NonZero, many, few).Area(), .02*many.Length())
	box := Simplify(RectPath(Rect{0, 0, 10, 10}), .05)
	assert.InDelta(t, 100, box.Area(), 1e-6, "corners stay")
}

func TestPlacesAreCoveredByEitherRule(t *testing.T) {
	twice := Join(RectPath(Rect{0, 0, 10, 10}), RectPath(Rect{2, 2, 4, 4}))
	assert.True(t, twice.Covers(Pt(3, 3), NonZero))
	assert.False(t, twice.Covers(Pt(3, 3), EvenOdd))
	assert.True(t, twice.Covers(Pt(1, 1), EvenOdd))
	assert.False(t, twice.Covers(Pt(-1, 1), NonZero))
	assert.False(t, twice.Reverse().Covers(Pt(3, 3), Positive))
}

// A rough outline loses its roughness where that is finer than the tolerance.
func TestRoughOutlinesAreSmoothed(t *testing.T) {
	r := rand.New(rand.NewPCG(111, 112))
	for range cases(300, 12) {
		p := noisy(r, 2000+r.IntN(2000), .003)
		q := Simplify(p, .02)
		require.Less(t, 3*q.Len(), p.Len())
		for i := range 40 {
			at, _, _ := q.PointAt(q.Length() * float64(i) / 40)
			near, _ := p.Nearest(at)
			require.Less(t, near.Distance, .02)
		}
	}
}

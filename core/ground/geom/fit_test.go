package geom

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// farthest is how far the chain's points lie from the fitted path.
func farthest(t *testing.T, l Polyline, p Path) float64 {
	t.Helper()
	worst := 0.0
	for _, q := range l.Points {
		n, ok := p.Nearest(q)
		require.True(t, ok)
		worst = max(worst, n.Distance)
	}
	return worst
}

func TestACircleIsFittedByAHandfulOfCurves(t *testing.T) {
	l := EllipsePath(Rect{-30, -30, 60, 60}).Flatten(1e-4)[0]
	require.Greater(t, len(l.Points), 1000)
	p := Fit(l, .01, .5)
	assert.LessOrEqual(t, p.Len(), 14)
	assert.True(t, p.Closed())
	assert.LessOrEqual(t, farthest(t, l, p), .01)
	assert.InEpsilon(t, math.Pi*900, p.Area(), 1e-3)
	for _, c := range p.Curves()[0] {
		for _, k := range []float64{0, .3, .6, 1} {
			assert.InDelta(t, 30, c.At(k).Len(), .02, "no wobble between the points")
		}
	}
}

func TestCornersAreKept(t *testing.T) {
	square := Polyline{Closed: true}
	for i := range 400 {
		k := float64(i%100) / 100 * 20
		square.Points = append(square.Points, []Point{{k, 0}, {20, k}, {20 - k, 20}, {0, 20 - k}}[i/100])
	}
	p := Fit(square, .01, .5)
	assert.InDelta(t, 400, p.Area(), 1e-6)
	assert.LessOrEqual(t, p.Len(), 6)
	for _, corner := range []Point{{0, 0}, {20, 0}, {20, 20}, {0, 20}} {
		n, _ := p.Nearest(corner)
		assert.InDelta(t, 0, n.Distance, 1e-9)
	}
}

func TestEveryChainIsFittedWithinTheTolerance(t *testing.T) {
	r := rand.New(rand.NewPCG(29, 30))
	for range 300 {
		l := Polyline{Closed: r.IntN(2) == 0}
		at, heading := Pt(0, 0), 0.0
		for range 3 + r.IntN(120) {
			heading += (r.Float64() - .5) * 1.2
			if r.IntN(25) == 0 {
				heading += math.Pi * (r.Float64() - .5) * 2
			}
			s, c := math.Sincos(heading)
			at = at.Add(Pt(c, s).Mul(r.Float64() * 4))
			l.Points = append(l.Points, at)
			if r.IntN(20) == 0 {
				l.Points = append(l.Points, at) // a point twice
			}
		}
		tol := []float64{.01, .1, 1}[r.IntN(3)]
		p := Fit(l, tol, .6)
		require.LessOrEqual(t, farthest(t, l, p), tol+1e-9)
		require.Equal(t, l.Closed, p.Closed())
		require.LessOrEqual(t, p.Len(), len(l.Points)+2, "never more pieces than the chain has sides")
		b := p.Bounds()
		require.False(t, math.IsNaN(b.W) || math.IsInf(b.W, 0))
	}
}

func TestWhatIsNoChainGivesNothing(t *testing.T) {
	assert.True(t, Fit(Polyline{}, .1, .5).Empty())
	assert.True(t, Fit(Polyline{Points: []Point{{1, 1}, {1, 1}}}, .1, .5).Empty())
	two := Fit(Polyline{Points: []Point{{0, 0}, {5, 0}}}, .1, .5)
	assert.Equal(t, "M0 0L5 0", two.String())
	sharp := Fit(Polyline{Points: []Point{{0, 0}, {5, 0}, {0, 0.001}}, Closed: true}, .1, .5)
	assert.True(t, sharp.Closed())
}

func BenchmarkFit(b *testing.B) {
	l := EllipsePath(Rect{-30, -30, 60, 60}).Flatten(1e-4)[0]
	for b.Loop() {
		Fit(l, .01, .5)
	}
}

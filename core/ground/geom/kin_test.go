package geom

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// shapesOfCurves are outlines that are moved a little and combined with themselves.
func shapesOfCurves() map[string]Path {
	return map[string]Path{
		"circle":  EllipsePath(Rect{0, 0, 30, 30}),
		"ellipse": EllipsePath(Rect{0, 0, 40, 30}).Transform(Turn(.4)),
		"blob":    Fit(polar(60, func(_ int, a float64) float64 { return 20 + 5*math.Sin(3*a) }).Flatten(.01)[0], .01, .5),
	}
}

// What runs within a hundredth of a micrometre along all its length is one edge: the same
// shape moved by so little gives its own nodes and no slivers.
func TestCurvesThatAllButLieOnEachOtherAreOne(t *testing.T) {
	r := rand.New(rand.NewPCG(81, 82))
	for name, p := range shapesOfCurves() {
		for range cases(500, 30) {
			far := math.Pow(10, -9+4*r.Float64())
			s, c := math.Sincos(7 * r.Float64())
			q := p.Transform(Shift(far*c, far*s))
			if r.IntN(2) == 0 {
				q = q.Reverse()
			}
			u := Union(NonZero, p, q)
			require.LessOrEqual(t, u.Len(), p.Len()+4, "%s moved by %g", name, far)
			require.InDelta(t, p.Area(), u.Area(), 2*far*p.Length()+1e-5*p.Length(), name)
			require.Len(t, u.Rings(), 1)
			requireClean(t, u, name)
			x := Intersection(NonZero, p, q)
			require.InDelta(t, p.Area(), x.Area(), 2*far*p.Length()+1e-5*p.Length(), name)
			require.Less(t, Difference(NonZero, p, q).Area(), 2e-5*p.Length(), name)
		}
	}
}

// Moved by more they cross, and what lies between them is theirs.
func TestCurvesThatRunCloseKeepWhatIsBetween(t *testing.T) {
	for name, p := range shapesOfCurves() {
		for _, far := range []float64{1e-4, 1e-3, 1e-2, .1} {
			q := p.Transform(Shift(far, far/3))
			u, x := Union(NonZero, p, q), Intersection(NonZero, p, q)
			// Each place of the outline sweeps its way times its part across it.
			swept := 0.0
			eachCurve(p, func(c Curve) {
				const n = 200
				for i := range n {
					swept += math.Abs(c.Derivative((float64(i)+.5)/n).Cross(Pt(far, far/3))) / n
				}
			})
			assert.InEpsilon(t, swept/2, u.Area()-p.Area(), .02, "%s moved by %g", name, far)
			assert.InEpsilon(t, swept/2, p.Area()-x.Area(), .02, "%s moved by %g", name, far)
			assert.LessOrEqual(t, u.Len(), 2*p.Len()+4*6, name)
		}
	}
}

func TestACurvePassesWhereItGoes(t *testing.T) {
	r := rand.New(rand.NewPCG(83, 84))
	for range cases(20000, 400) {
		for _, c := range randomCurved(r).Curves()[0] {
			k := r.Float64()
			d := c.Derivative(k)
			if d.Len() < 1 {
				continue
			}
			off := .01 * (2*r.Float64() - 1)
			q := c.At(k).Add(outward(d.Mul(1 / d.Len())).Mul(off))
			at := c.passes(q, .02)
			require.GreaterOrEqual(t, at, 0.0, "%v misses %v", c, q)
			require.LessOrEqual(t, c.At(at).Sub(q).Len(), .02)
			far := c.At(k).Add(Pt(500, 500))
			require.Less(t, c.passes(far, .02), 0.0)
		}
	}
}

func BenchmarkUnionOfNearlyTheSame(b *testing.B) {
	for name, p := range shapesOfCurves() {
		for _, far := range []float64{1, 1e-5} {
			q := p.Transform(Shift(far, 0))
			b.Run(name+map[bool]string{true: ", 1 mm apart", false: ", 0.01 µm apart"}[far == 1], func(b *testing.B) {
				for b.Loop() {
					Union(NonZero, p, q)
				}
			})
		}
	}
}

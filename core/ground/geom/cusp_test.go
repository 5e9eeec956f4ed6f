package geom_test

import (
	"math"
	"math/rand/v2"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/ground/geom"
)

// nearCusp is a closed curve whose controls all but make a cusp, off by eps.
func nearCusp(eps float64) geom.Path {
	var b geom.Builder
	return b.Move(geom.Pt(0, 0)).Cubic(geom.Pt(20, 20+eps), geom.Pt(0, 20), geom.Pt(20, 0)).Close().Path()
}

// sampled is the area of all places within d of what a path covers, counted on a grid and
// by the distance to dense chords: an independent reckoning, to about the given error.
func sampled(p geom.Path, d, step float64) float64 {
	lines := p.Flatten(1e-3)
	box := p.Bounds().Grow(d + step)
	n := 0
	for y := box.Y; y < box.Bottom(); y += step {
		for x := box.X; x < box.Right(); x += step {
			q := geom.Pt(x+step/2, y+step/2)
			in := geom.Winding(lines, q) != 0
			for _, l := range lines {
				if in {
					break
				}
				for i, a := range l.Points {
					v := l.Points[(i+1)%len(l.Points)].Sub(a)
					k := 0.0
					if s := v.Dot(v); s > 0 {
						k = min(max(q.Sub(a).Dot(v)/s, 0), 1)
					}
					if in = q.Sub(a.Add(v.Mul(k))).Len() <= d; in {
						break
					}
				}
			}
			if in {
				n++
			}
		}
	}
	return float64(n) * step * step
}

func TestOffsetsRoundNearCuspsLoseNothing(t *testing.T) {
	for d, want := range map[float64]float64{1: 179.710, 3: 317.99} {
		assert.InDelta(t, want, geom.Offset(nearCusp(1e-4), d, geom.RoundCorner).Area(), .01, "by %g", d)
	}
	rounds := 24
	if os.Getenv("SOAK") != "" {
		rounds = 1000
	}
	r := rand.New(rand.NewPCG(17, 18))
	for k := range rounds {
		eps := math.Pow(10, -2-10*r.Float64()) * float64(1-2*r.IntN(2))
		m := geom.Turn(7 * r.Float64()).Then(geom.Shift(5*r.Float64(), 5*r.Float64()))
		if k%2 == 1 {
			m = geom.Scale(-1, 1).Then(m)
		}
		p := nearCusp(eps).Transform(m)
		for _, d := range []float64{.3, 1, 3} {
			exact := geom.Offset(nearCusp(0), d, geom.RoundCorner).Area()
			got := geom.Offset(p, d, geom.RoundCorner).Area()
			require.InDelta(t, exact, got, .02+20*math.Abs(eps)*(1+d), "eps %g, by %g, %d", eps, d, k)
			// Any other corner holds no less than the round one, and what was there.
			for _, corner := range []geom.Corner{geom.MitreCorner, geom.BevelCorner} {
				o := geom.Offset(p, d, corner)
				require.Less(t, geom.Difference(geom.NonZero, p, o).Area(), 1e-3, "eps %g, by %g", eps, d)
			}
			// And back.
			back := geom.Offset(geom.Offset(p, d, geom.RoundCorner), -d, geom.RoundCorner)
			require.Less(t, geom.Difference(geom.NonZero, p, geom.Offset(back, .01, geom.RoundCorner)).Area(), 1e-3, "eps %g, by %g and back", eps, d)
		}
	}
	for _, eps := range []float64{1e-3, -1e-3, 1e-6} {
		for _, d := range []float64{1, 3} {
			p := nearCusp(eps)
			assert.InDelta(t, sampled(p, d, .1), geom.Offset(p, d, geom.RoundCorner).Area(), .35, "eps %g, by %g", eps, d)
		}
	}
}

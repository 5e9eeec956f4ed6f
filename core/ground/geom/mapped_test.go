package geom_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/ground/geom"
)

// A path that is mapped is within the tolerance of where its points go, for random curves of
// every kind and maps that bend, stretch and shear; ends are exact.
func TestAMappedPathIsWhereItsPointsGo(t *testing.T) {
	rng := rand.New(rand.NewPCG(8, 8))
	maps := map[string]func(geom.Point) geom.Point{
		"wave":  func(p geom.Point) geom.Point { return geom.Pt(p.X, p.Y+4*math.Sin(p.X/9)) },
		"arch":  func(p geom.Point) geom.Point { return geom.Pt(p.X, p.Y-p.X*p.X/60) },
		"swirl": func(p geom.Point) geom.Point { return geom.Turn(p.Len() / 80).Apply(p) },
		"shear": func(p geom.Point) geom.Point { return geom.Pt(p.X+p.Y/2, p.Y*1.3) },
	}
	at := func() geom.Point { return geom.Pt(rng.Float64()*60-30, rng.Float64()*60-30) }
	for name, f := range maps {
		for range 40 {
			var b geom.Builder
			b.Move(at())
			for range 1 + rng.IntN(5) {
				switch rng.IntN(3) {
				case 0:
					b.Line(at())
				case 1:
					b.Quad(at(), at())
				default:
					b.Cubic(at(), at(), at())
				}
			}
			if rng.IntN(2) == 0 {
				b.Close()
			}
			p := b.Path()
			q := p.Map(f, .01)
			require.NoError(t, q.Check())
			require.Equal(t, p.Closed(), q.Closed())
			for _, ring := range p.Curves() {
				for _, c := range ring {
					for range 6 {
						want := f(c.At(rng.Float64()))
						n, ok := q.Nearest(want)
						require.True(t, ok)
						require.Less(t, n.Distance, .0101, name)
					}
				}
			}
			if name == "shear" {
				assert.LessOrEqual(t, q.Len(), p.Len()+1, "an affine map needs no halving")
			}
		}
	}
	circle := geom.EllipsePath(geom.Centred(40, 40)).Map(maps["shear"], .01)
	assert.InDelta(t, math.Pi*400*1.3, circle.Area(), .5)
	line := geom.RectPath(geom.Centred(10, 10)).Map(maps["shear"], .01)
	line.Segments(func(_ geom.Point, s geom.Segment) {
		assert.NotEqual(t, geom.CubicTo, s.Op, "what stays straight stays a line")
	})
	assert.True(t, geom.Path{}.Map(maps["wave"], .01).Empty())
}

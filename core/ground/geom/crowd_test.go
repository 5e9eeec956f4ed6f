package geom_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/ground/geom"
)

// scallop is a wavy outline of arcs about the origin.
func scallop(r float64, n int) geom.Path {
	var b geom.Builder
	at := func(i int) geom.Point {
		s, c := math.Sincos(2 * math.Pi * float64(i) / float64(n))
		return geom.Pt(r*c, r*s)
	}
	b.Move(at(0))
	for i := range n {
		p, q := at(i), at(i+1)
		m, d := p.Lerp(q, .5), q.Sub(p).Len()/2
		a := math.Atan2(p.Y-m.Y, p.X-m.X)
		b.Arc(m, d, d, a, a+math.Pi)
	}
	return b.Close().Path()
}

func crowdOf(r *rand.Rand, n int, over float64) []geom.Path {
	out := make([]geom.Path, n)
	for i := range out {
		out[i] = scallop(15+10*r.Float64(), 16).Transform(geom.Turn(6 * r.Float64()).Then(geom.Shift(over*r.Float64(), over*r.Float64())))
	}
	return out
}

// A crowd of outlines that lie on each other is united as if each had been added by
// itself: the same is covered, and the outline has no more pieces.
func TestACrowdIsUnitedAsOneByOne(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 9))
	for range 4 {
		all := crowdOf(r, 40, 60)
		united := geom.Union(geom.NonZero, all...)
		one := all[0]
		for _, p := range all[1:] {
			one = geom.Union(geom.NonZero, one, p)
		}
		assert.Less(t, geom.Xor(geom.NonZero, united, one).Area(), 1e-4)
		assert.InDelta(t, one.Len(), united.Len(), 2)
		for range 60 {
			p := geom.Pt(-30+120*r.Float64(), -30+120*r.Float64())
			in := false
			near := math.Inf(1)
			for _, q := range all {
				in = in || q.Winding(p) != 0
				n, ok := q.Nearest(p)
				require.True(t, ok)
				near = min(near, n.Distance)
			}
			if near > 1e-4 {
				assert.Equal(t, in, united.Winding(p) != 0)
			}
		}
	}
}

// BenchmarkWeld400Scallops: goal 2 s.
func BenchmarkWeld400Scallops(b *testing.B) {
	all := crowdOf(rand.New(rand.NewPCG(1, 2)), 400, 100)
	for b.Loop() {
		geom.Union(geom.NonZero, all...)
	}
}

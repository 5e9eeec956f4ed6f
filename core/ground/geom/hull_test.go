package geom

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The hull of points turns one way at every corner, goes through some of them, and holds them all.
func TestTheHullHoldsItsPoints(t *testing.T) {
	r := rand.New(rand.NewPCG(8, 1))
	for range 200 {
		pts := make([]Point, 3+r.IntN(60))
		for i := range pts {
			pts[i] = Pt(math.Round(r.Float64()*40)/2, math.Round(r.Float64()*40)/2) // many lie in rows
		}
		given := map[Point]bool{}
		for _, p := range pts {
			given[p] = true
		}
		hull := Hull(pts)
		require.GreaterOrEqual(t, len(hull), 2)
		for i, p := range hull {
			assert.True(t, given[p])
			a, b := hull[(i+1)%len(hull)], hull[(i+2)%len(hull)]
			if len(hull) > 2 {
				assert.Positive(t, a.Sub(p).Cross(b.Sub(a)), "it turns one way, and nowhere runs straight on")
			}
			for q := range given {
				assert.GreaterOrEqual(t, a.Sub(p).Cross(q.Sub(p)), -1e-9, "%v lies outside", q)
			}
		}
	}
	same := Hull([]Point{{X: 1, Y: 1}, {X: 1, Y: 1}, {X: 1, Y: 1}})
	assert.LessOrEqual(t, len(same), 2)
}

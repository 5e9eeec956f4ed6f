package geom_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"sectilis/core/ground/geom"
)

// A path has the digest of another only if it is the same: not its twin turned by half a
// turn, and not one of which a single coordinate differs in sign or in the last bit.
func TestOnlyEqualPathsHaveEqualDigests(t *testing.T) {
	triangle := func(k float64) geom.Path {
		var b geom.Builder
		return b.Move(geom.Pt(-10*k, -7*k)).Line(geom.Pt(10*k, -7*k)).Line(geom.Pt(3*k, 9*k)).Close().Path()
	}
	assert.NotEqual(t, triangle(1).Digest(), triangle(-1).Digest())
	assert.Equal(t, triangle(1).Digest(), triangle(1).Digest())
	r := rand.New(rand.NewPCG(7, 8))
	for range 200 {
		p := make([]geom.Point, 3+r.IntN(6))
		for i := range p {
			p[i] = geom.Pt(r.NormFloat64(), r.NormFloat64())
		}
		path := func() geom.Path {
			var b geom.Builder
			b.Move(p[0])
			for i := 1; i+1 < len(p); i += 2 {
				b.Quad(p[i], p[i+1])
			}
			return b.Close().Path()
		}
		was := path()
		k := r.IntN(len(p)/2*2 - 1)
		old := p[k]
		for _, other := range []geom.Point{old.Mul(-1), {X: old.Y, Y: old.X}, {X: -old.X, Y: old.Y}, {X: math.Nextafter(old.X, 9), Y: old.Y}} {
			p[k] = other
			assert.NotEqual(t, was.Digest(), path().Digest())
		}
		p[k] = old
		assert.Equal(t, was.Digest(), path().Digest())
	}
}

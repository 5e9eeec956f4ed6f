package geom_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"sectilis/core/ground/geom"
)

func TestTangledCountsCrossings(t *testing.T) {
	grid := func(n int, turned float64) geom.Path {
		var b geom.Builder
		for i := range n {
			at := float64(i) + .5
			b.Move(geom.Pt(0, at)).Line(geom.Pt(float64(n), at)).Move(geom.Pt(at, 0)).Line(geom.Pt(at, float64(n)))
		}
		return b.Path().Transform(geom.Turn(turned))
	}
	for _, turned := range []float64{0, .3, 2} {
		assert.True(t, geom.Tangled(9999, grid(100, turned)), "10,000 crossings, turned by %g", turned)
		assert.False(t, geom.Tangled(10000, grid(100, turned)), "turned by %g", turned)
	}
	var hatch geom.Builder
	for i := range 80_000 {
		hatch.Move(geom.Pt(0, float64(i)/400)).Line(geom.Pt(200, float64(i)/400))
	}
	assert.False(t, geom.Tangled(1000, hatch.Path()), "a hatch crosses nowhere, however long its lines")
	assert.False(t, geom.Tangled(1000, hatch.Path().Transform(geom.Affine{B: 1, C: 1})))
	assert.False(t, geom.Tangled(0))
	r := rand.New(rand.NewPCG(5, 6))
	var many []geom.Path
	for range 20_000 {
		c := geom.EllipsePath(geom.Rect{W: .5, H: .5})
		many = append(many, c.Transform(geom.Shift(200*r.Float64(), 200*r.Float64())))
	}
	assert.False(t, geom.Tangled(200_000, many...), "20,000 small rings lie over a few others each")
	var wild geom.Builder
	for range 80_000 {
		wild.Move(geom.Pt(200*r.Float64(), 200*r.Float64())).Line(geom.Pt(200*r.Float64(), 200*r.Float64()))
	}
	assert.True(t, geom.Tangled(200_000, wild.Path()))
}

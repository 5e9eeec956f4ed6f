package trace

import (
	"context"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/ground/geom"
)

// The more may be given away, the fewer nodes there are, and corners stay.
func TestOutlinesAreRedrawnSimpler(t *testing.T) {
	rnd := rand.New(rand.NewPCG(9, 9))
	var b geom.Builder
	b.Move(geom.Pt(0, 0)).Line(geom.Pt(60, 0)).Line(geom.Pt(60, 40))
	for i := 1; i < 200; i++ { // a ragged way back, along an arc
		a := math.Pi / 2 * float64(i) / 200
		l := 1 + .004*rnd.NormFloat64()
		b.Line(geom.Pt(60-60*l*math.Sin(a), 40*l*math.Cos(a)))
	}
	ragged := b.Close().Path()
	last := nodes(ragged)
	for _, tol := range []float64{.4, 1.2} {
		simple, err := Redraw(context.Background(), ragged, tol)
		require.NoError(t, err)
		assert.Less(t, nodes(simple), last)
		assert.LessOrEqual(t, max(apart(ragged, simple), apart(simple, ragged)), 2.2*tol)
		near, _ := simple.Nearest(geom.Pt(60, 0))
		assert.Less(t, near.Distance, .05, "the corner")
		last = nodes(simple)
	}
	assert.LessOrEqual(t, last, 6)
	square := coretest.Path(t, "M0 0H40V30H0Z")
	same, err := Redraw(context.Background(), square, .5)
	require.NoError(t, err)
	assert.Equal(t, square, same, "nothing simpler")
	ctx, cancel := context.WithCancel(context.Background())
	cancel()
	_, err = Redraw(ctx, ragged, .4)
	assert.ErrorIs(t, err, context.Canceled)
}

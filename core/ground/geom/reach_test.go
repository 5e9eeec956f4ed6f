package geom_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/ground/geom"
)

func TestWhatIsNoNumberIsToldAndNeverHangs(t *testing.T) {
	square := geom.RectPath(geom.Rect{W: 10, H: 10})
	for _, v := range []float64{math.NaN(), math.Inf(1), math.Inf(-1), 1e300, -1e300, math.MaxFloat64} {
		for at := range 4 {
			q := [4]geom.Point{{X: 1, Y: 1}, {X: 5, Y: 1}, {X: 5, Y: 5}, {X: 1, Y: 5}}
			q[at].X = v
			var b geom.Builder
			wild := b.Move(q[0]).Cubic(q[1], q[2], q[3]).Close().Path()
			require.Error(t, wild.Check(), "%g at %d", v, at)
			both := geom.Join(square, wild)
			require.InDelta(t, 100, geom.Union(geom.NonZero, both).Area(), 1e-9, "%g at %d", v, at)
			require.InDelta(t, 144, geom.Offset(both, 1, geom.MitreCorner).Area(), 1e-6, "%g at %d", v, at)
			require.InDelta(t, 0, geom.Difference(geom.NonZero, square, both).Area(), 1e-9)
			require.Len(t, geom.Divide(geom.NonZero, square, wild), 1)
		}
		round := geom.EllipsePath(geom.Rect{X: v, W: 2, H: 2})
		require.Error(t, round.Check())
		require.InDelta(t, 100, geom.Union(geom.NonZero, square, round).Area(), 1e-9)
	}
	assert.NoError(t, square.Check())
	assert.ErrorIs(t, geom.Join(square, square.Transform(geom.Shift(9e8, 0))).Check(), geom.ErrFar)
	assert.Equal(t, geom.Point{}, geom.Polyline{}.At(1))
	assert.Equal(t, geom.Point{}, geom.Polyline{Closed: true}.At(0))
}

func TestOneFarPlaceErasesNothing(t *testing.T) {
	unit := geom.RectPath(geom.Rect{W: 1, H: 1})
	for _, away := range []float64{9e3, 9e8} {
		far := geom.RectPath(geom.Rect{X: away, W: 1, H: 1})
		u := geom.Union(geom.NonZero, unit, far)
		assert.InDelta(t, 1, geom.Intersection(geom.NonZero, u, geom.RectPath(geom.Rect{X: -5, Y: -5, W: 10, H: 10})).Area(), 1e-4, "%g mm away", away)
	}
}

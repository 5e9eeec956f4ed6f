package geom

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// swept combines by the sweep over all segments.
func swept(rule FillRule, op Operation, paths ...Path) Path {
	ar := arrange(inputs(paths))
	defer ar.release()
	return ar.label(rule, &counter{all: len(paths), in: op.in}).path()
}

// chained combines by chains, where they will do.
func chained(rule FillRule, op Operation, paths ...Path) (Path, bool) {
	ar := arrange(inputs(paths))
	defer ar.release()
	return ar.chainPath(rule, op.in)
}

// Whether chains or segments are followed, the result is the same to the last bit.
func TestChainsGiveWhatTheSweepGives(t *testing.T) {
	eachKind(t, cases(3000, 250), func(t *testing.T, r *rand.Rand, rule FillRule, a, b Path) {
		if r.IntN(3) == 0 {
			rule = Positive
		}
		paths := []Path{a, b}
		switch r.IntN(4) {
		case 0:
			paths = paths[:1]
		case 1:
			paths = append(paths, star(r, somewhere(r, 60), 3+r.IntN(9), 5, 40))
		}
		for _, op := range []Operation{Unite, Intersect, Subtract, Alternate} {
			if got, ok := chained(rule, op, paths...); ok {
				require.Equal(t, swept(rule, op, paths...).Data(12), got.Data(12), "operation %d, rule %d of %v", op, rule, paths)
			}
		}
	})
}

// Rings within rings, side by side and touching in a point are put where they belong.
func TestChainsOfRingsWithinRings(t *testing.T) {
	square := func(x, y, half float64) Path { return RectPath(Rect{x - half, y - half, 2 * half, 2 * half}) }
	for _, paths := range [][]Path{
		{Join(square(0, 0, 20), square(0, 0, 16), square(0, 0, 12), square(0, 0, 8), square(0, 0, 4)), square(50, 0, 5)},
		{Join(square(0, 0, 20), square(-8, 0, 5), square(8, 0, 5), square(8, 0, 2)), square(0, 30, 5)},
		{square(0, 0, 10), square(20, 20, 10)},                                           // share a corner
		{Join(square(0, 0, 20), mustPath("M0 -10L10 0L0 10L-10 0Z")), square(10, 10, 8)}, // a hole is crossed
		{mustPath("M0 0L10 10L20 0L20 20L10 10L0 20Z"), square(10, 10, 3)},
	} {
		for _, op := range []Operation{Unite, Intersect, Subtract, Alternate} {
			got, ok := chained(EvenOdd, op, paths...)
			require.True(t, ok, "%v", paths)
			assert.Equal(t, swept(EvenOdd, op, paths...).Data(12), got.Data(12))
		}
	}
}

package gamut

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
)

// A printer without gain lays down what the gamut says that prints; one with gain shows.
func TestALaidPageShowsWhatPrints(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 1))
	for _, p := range []Paper{Photo, Matt} {
		good, bad := Laid(p, Gain{}), Laid(p, Gain{.1, -.08, .06, .05})
		sum, off, worst := 0.0, 0.0, 0.0
		const n = 2000
		for range n {
			c := [3]uint8{uint8(r.IntN(256)), uint8(r.IntN(256)), uint8(r.IntN(256))}
			pr, pg, pb, _ := On(p).Prints(c[0], c[1], c[2])
			d := 100 * rgb(pr, pg, pb).DistanceCIEDE2000(rgb(good.Colour(c[0], c[1], c[2])))
			sum, worst = sum+d, max(worst, d)
			off += 100 * rgb(pr, pg, pb).DistanceCIEDE2000(rgb(bad.Colour(c[0], c[1], c[2])))
		}
		t.Logf("%s: mean %.2f, worst %.2f; with gain %.2f", p, sum/n, worst, off/n)
		assert.Less(t, sum/n, 1.0)
		assert.Less(t, worst, 10.0)
		assert.Greater(t, off/n, 3.0)
	}
}

// Paper stays bare and black black, whatever the gain; a wedge of greys falls all the way.
func TestALaidWedgeFalls(t *testing.T) {
	for _, gain := range []Gain{{}, {-.1, .05, .1, -.05}} {
		table := Laid(Matt, gain)
		r, g, b := table.Colour(255, 255, 255)
		assert.Equal(t, [3]uint8{255, 255, 255}, [3]uint8{r, g, b})
		r, g, b = table.Colour(0, 0, 0)
		assert.Less(t, max(r, g, b), uint8(12))
		was := math.Inf(1)
		for i := range 16 {
			v := uint8(255 - 17*i)
			l, _, _ := rgb(table.Colour(v, v, v)).Lab()
			if i < 13 || gain == (Gain{}) {
				assert.Less(t, l, was, "%v step %d", gain, i)
			}
			assert.LessOrEqual(t, l, was+.3, "%v step %d", gain, i)
			was = l
		}
	}
}

// What is separated gives, laid down, what was wanted.
func TestSeparatingIsUndoneByMixing(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 5))
	over := solids[Photo].overprints()
	for range 500 {
		cmy, k := [3]float64{r.Float64(), r.Float64(), r.Float64()}, r.Float64()*.7
		want := over.mixed(cmy, k)
		at, black := over.separate(want, k)
		for c, v := range over.mixed(at, black) {
			assert.InDelta(t, want[c], v, 2e-3, "%v %v", cmy, k)
		}
	}
}

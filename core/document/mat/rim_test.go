package mat_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/document/mat"
	"sectilis/core/ground/geom"
)

// A rim is as wide as it is set to all round; bays narrower than is set are paper, wider ones
// are not; holes are, if that is wished.
func TestRimsFollowTheOpening(t *testing.T) {
	square := geom.RectPath(geom.Centred(40, 30))
	assert.InDelta(t, 1200+140*3+math.Pi*9, mat.Rim(square, card.Rim{Width: 3}).Area(), 1e-3)
	assert.Equal(t, square, mat.Rim(square, card.Rim{}), "no rim, no change")

	// A bay of 3 mm and one of 8 mm.
	comb := coretest.Path(t, "M-20 -15H-10V5H-7V-15H4V5H12V-15H20V15H-20Z")
	area := func(bays float64) float64 { return mat.Rim(comb, card.Rim{Bays: bays}).Area() }
	none, narrow, both := comb.Area(), area(4), area(9)
	assert.InDelta(t, none, area(0), 1e-9)
	assert.InDelta(t, none+3*20, narrow, 4*4*(1-math.Pi/4)+2, "the bay of 3 mm")
	assert.InDelta(t, none+3*20+8*20, both, 16, "both bays, hollow at their mouths")
	for _, corner := range []geom.Point{{X: -20, Y: 15}, {X: 20, Y: 15}} {
		n, _ := mat.Rim(comb, card.Rim{Bays: 9}).Nearest(corner)
		assert.Less(t, n.Distance, 1e-3, "corners outside stay")
	}

	ring := geom.Join(square, geom.RectPath(geom.Centred(10, 8)).Reverse())
	assert.Len(t, mat.Rim(ring, card.Rim{Width: 1}).Rings(), 2)
	assert.Len(t, mat.Rim(ring, card.Rim{Width: 1, Solid: true}).Rings(), 1)
	assert.Len(t, mat.Rim(ring, card.Rim{Width: 4.5}).Rings(), 1, "it is closed by itself")
}

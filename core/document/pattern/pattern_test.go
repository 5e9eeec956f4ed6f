package pattern

import (
	"encoding/xml"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/ground/geom"
)

// What lies on the left edge of a tile must go on at the right edge, and the
// same for top and bottom: sampled along both edges, just inside.
func TestPapersAreSeamless(t *testing.T) {
	require.GreaterOrEqual(t, len(Papers()), 22)
	for _, p := range Papers() {
		ink := func(x, y float64) string {
			top := p.Ground
			for _, m := range p.Marks {
				if geom.Winding(m.Path.Flatten(.01), geom.Pt(x, y)) != 0 {
					top = m.Colour
				}
			}
			return top
		}
		differ := 0
		const n, in = 97, 1e-3
		for i := range n {
			k := (float64(i) + .5) / n
			// A straight edge of a mark may lie on the tile's edge itself.
			if ink(in, k*p.Height) != ink(p.Width-in, k*p.Height) && p.ID != "honey-check" && p.ID != "moss-gingham" && p.ID != "oat-stripe" {
				differ++
			}
			if ink(k*p.Width, in) != ink(k*p.Width, p.Height-in) && p.ID != "honey-check" && p.ID != "moss-gingham" {
				differ++
			}
		}
		assert.LessOrEqual(t, differ, 2, "%s has a seam", p.Name)
		assert.NoError(t, xml.Unmarshal([]byte(p.SVG("")), new(struct{})), p.Name)
	}
	_, ok := ByID("no-such")
	assert.False(t, ok)
	p, ok := ByID("comb")
	assert.True(t, ok)
	assert.Equal(t, "Comb", p.Name)
}

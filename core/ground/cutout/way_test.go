package cutout

import (
	"image"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"sectilis/core/ground/geom"
)

// A way between two places on the edge of a disc follows the edge; across what is plain it is nearly
// straight.
func TestWaysClingToEdges(t *testing.T) {
	const r, mx, my = 150.0, 320.0, 240.0
	img := image.NewNRGBA(image.Rect(0, 0, 640, 480))
	for i := range 640 * 480 {
		c := []uint8{90, 120, 60, 255}
		if math.Hypot(float64(i%640)+.5-mx, float64(i/640)+.5-my) < r {
			c = []uint8{220, 150, 70, 255}
		}
		copy(img.Pix[4*i:], c)
	}
	g := NewWays(img)
	on := func(degrees float64) geom.Point {
		s, c := math.Sincos(degrees * math.Pi / 180)
		return geom.Pt((mx+r*c)/640, (my+r*s)/480)
	}
	for _, k := range [][2]float64{{0, 80}, {100, 190}, {200, 350}} {
		way := g.Along(on(k[0]), on(k[1]))
		assert.Equal(t, on(k[0]), way[0])
		assert.Equal(t, on(k[1]), way[len(way)-1])
		assert.Greater(t, len(way), 40)
		for _, p := range way {
			assert.InDelta(t, r, math.Hypot(p.X*640-mx, p.Y*480-my), 2.5, "%v", k)
		}
	}
	a, b := geom.Pt(.02, .03), geom.Pt(.15, .9)
	length := 0.0
	way := NewWays(image.NewNRGBA(img.Rect)).Along(a, b)
	for i := 1; i < len(way); i++ {
		length += math.Hypot((way[i].X-way[i-1].X)*640, (way[i].Y-way[i-1].Y)*480)
	}
	assert.Less(t, length, 1.12*math.Hypot(.13*640, .87*480))
	assert.Len(t, g.Along(a, a), 2)
	assert.NotEmpty(t, g.Along(geom.Pt(-5, -5), geom.Pt(9, 9)), "beside the picture")
	assert.Len(t, NewWays(image.NewNRGBA(image.Rect(0, 0, 1, 1))).Along(a, b), 2)
}

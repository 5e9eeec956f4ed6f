package raster_test

import (
	"fmt"
	"image/color"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/format/raster"
	"sectilis/core/ground/gamut"
	"sectilis/core/ground/geom"
)

// On every stock that ships no more of an ink is seen than the stock gives back, whatever lies below it in
// ink; no ink on it is lighter than it is bare.
func TestInkLetsItsStockThrough(t *testing.T) {
	rng := rand.New(rand.NewPCG(30, 1))
	square := geom.RectPath(geom.Rect{X: 1, Y: 1, W: 8, H: 8})
	for _, s := range card.Stocks() {
		on := raster.Colour(s.Colour)
		for range 20 {
			c := color.RGBA{uint8(rng.IntN(256)), uint8(rng.IntN(256)), uint8(rng.IntN(256)), 255}
			hex := fmt.Sprintf("#%02x%02x%02x", c.R, c.G, c.B)
			canvas := raster.New(10, 10, 4, color.White, nil)
			inks := []scene.Ink{{Region: square, Colour: "#102030"}, {Region: square, Colour: hex}}
			require.NoError(t, canvas.Paint(scene.Printed(scene.Stocked(square, s, geom.Identity), inks)))
			is := canvas.Image().RGBAAt(20, 20)
			want := gamut.OnStock(c, on)
			for i, v := range [3][3]uint8{{is.R, want.R, on.R}, {is.G, want.G, on.G}, {is.B, want.B, on.B}} {
				assert.InDelta(t, v[1], v[0], 6, "%s on %s, part %d: white stocks give back all", hex, s.ID, i)
				assert.LessOrEqual(t, int(v[0]), int(v[2])+5, "%s on %s is lighter than its stock", hex, s.ID)
			}
			assert.Equal(t, color.RGBA{255, 255, 255, 255}, canvas.Image().RGBAAt(1, 1), "beside the stock is nothing")
		}
	}
}

// A stock that is bought printed shows its pattern through ink, and ends where it ends.
func TestAPatternedStockShowsThrough(t *testing.T) {
	stock := card.Stock{Colour: "#ffffff", Pattern: "oat-stripe"}
	all := geom.RectPath(geom.Rect{W: 20, H: 20})
	paint := func(inks ...scene.Ink) *raster.Canvas {
		c := raster.New(20, 20, 4, color.White, nil)
		require.NoError(t, c.Paint(scene.Printed(scene.Stocked(all, stock, geom.Identity), inks)))
		return c
	}
	bare, printed := paint(), paint(scene.Ink{Region: all, Colour: "#ff0000"})
	differ := map[color.RGBA]bool{}
	for i := range 79 {
		b, p := bare.Image().RGBAAt(i, 40), printed.Image().RGBAAt(i, 40)
		assert.Equal(t, gamut.OnStock(color.RGBA{255, 0, 0, 255}, b), p)
		differ[p] = true
	}
	assert.Greater(t, len(differ), 1)
}

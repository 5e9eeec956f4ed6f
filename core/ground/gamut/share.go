package gamut

import (
	"image"
	"image/color"

	"github.com/lucasb-eyer/go-colorful"
)

// Duller is the share of what is opaque of a part of a picture, 0 to 1, that comes out on the paper at
// least so far off (CIEDE2000); 0 where nothing is opaque.
func (g *Gamut) Duller(img image.Image, within image.Rectangle, least float64) float64 {
	// Colours that agree in five bits are told by one of them.
	var all [1 << 15]int
	within = within.Intersect(img.Bounds())
	n := 0
	for y := within.Min.Y; y < within.Max.Y; y++ {
		for x := within.Min.X; x < within.Max.X; x++ {
			if c := color.NRGBAModel.Convert(img.At(x, y)).(color.NRGBA); c.A > 127 {
				all[int(c.R>>3)<<10|int(c.G>>3)<<5|int(c.B>>3)]++
				n++
			}
		}
	}
	if n == 0 {
		return 0
	}
	t, off := g.Table(), 0
	for i, k := range all {
		if k == 0 {
			continue
		}
		mid := func(v int) uint8 { return uint8((v&31)<<3 | (v&31)>>2) }
		r, gr, b := mid(i>>10), mid(i>>5), mid(i)
		to := rgb(t.Colour(r, gr, b))
		if 100*rgb(r, gr, b).DistanceCIEDE2000(to) >= least {
			off += k
		}
	}
	return float64(off) / float64(n)
}

func rgb(r, g, b uint8) colorful.Color {
	return colorful.Color{R: float64(r) / 255, G: float64(g) / 255, B: float64(b) / 255}
}

package picture

import (
	"image"

	"github.com/kovidgoyal/imaging"

	"sectilis/core/ground/trace"
)

// Palette is n colours, #rrggbb, that stand for a picture, the most frequent first; fewer when
// the picture has fewer. They are told from a small copy of it.
func Palette(img image.Image, n int) []string {
	var out []string
	for _, c := range trace.Colours(imaging.AsNRGBA(Scale(img, 192)), n) {
		out = append(out, c.String())
	}
	return out
}

// Detail is the middle of what there is to see in a picture, in shares of its
// width and height: the mean place of its edges, weighed by the square of their
// strength (the luminance gradient of a small copy) so that a plain ground does
// not pull it away. A picture without edges has its middle in its middle.
func Detail(img image.Image) (x, y float64) {
	small := Scale(img, 64)
	b := small.Bounds()
	at := func(x, y int) float64 {
		r, g, bl, a := small.At(b.Min.X+x, b.Min.Y+y).RGBA()
		return (.2126*float64(r) + .7152*float64(g) + .0722*float64(bl) + float64(a)) / 65535
	}
	var sum float64
	for j := 1; j+1 < b.Dy(); j++ {
		for i := 1; i+1 < b.Dx(); i++ {
			gx, gy := at(i+1, j)-at(i-1, j), at(i, j+1)-at(i, j-1)
			w := gx*gx + gy*gy
			x += w * (float64(i) + .5)
			y += w * (float64(j) + .5)
			sum += w
		}
	}
	if sum < 1e-6 {
		return .5, .5
	}
	return x / sum / float64(b.Dx()), y / sum / float64(b.Dy())
}

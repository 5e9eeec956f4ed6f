package cutout

import (
	"context"
	"image"
	"math"

	"sectilis/core/ground/pixels"
)

// groundBand is how far into what stays pixels may be partly of a plain ground, in shares of the
// longer side of a picture; leastBand that in pixels.
const (
	groundBand = .006
	leastBand  = 4
)

// matte tells what stays when a plain ground goes.
func (g Ground) matte(ctx context.Context, img *image.NRGBA) (*matte, error) {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	goes, err := g.region(ctx, img)
	if err != nil {
		return nil, err
	}
	// All that has not its colours may be partly of it near its edge; the ground itself is known.
	band := max(groundBand*float64(max(w, h)), leastBand)
	m, err := newMatte(ctx, img, func(i int) bool { return !goes[i] }, nil, band)
	if err != nil {
		return nil, err
	}
	m.plain = goes
	return m, m.widen(ctx, img, nil)
}

// region is what has the colours of the ground and touches the places where it was clicked, or
// all that has them.
func (g Ground) region(ctx context.Context, img *image.NRGBA) ([]bool, error) {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	var colours []rgb
	var starts []int
	for _, p := range g.At {
		x, y := min(max(int(p.X*float64(w)), 0), w-1), min(max(int(p.Y*float64(h)), 0), h-1)
		starts = append(starts, y*w+x)
		colours = append(colours, around(img, x, y))
	}
	within := math.Pow(6+150*g.Tolerance, 2)
	alike := make([]bool, w*h)
	err := pixels.Rows(ctx, h, func(from, to int) {
		for y := from; y < to; y++ {
			for x := range w {
				p := img.Pix[y*img.Stride+4*x:]
				_, d := nearest(colours, rgb{float64(p[0]), float64(p[1]), float64(p[2])})
				alike[y*w+x] = d <= within || p[3] < 10
			}
		}
	})
	if err != nil || g.Everywhere {
		return alike, err
	}
	out := make([]bool, w*h)
	for len(starts) > 0 {
		i := starts[len(starts)-1]
		starts = starts[:len(starts)-1]
		if out[i] || !alike[i] {
			continue
		}
		out[i] = true
		if x := i % w; x > 0 {
			starts = append(starts, i-1)
		}
		if x := i % w; x < w-1 {
			starts = append(starts, i+1)
		}
		if i >= w {
			starts = append(starts, i-w)
		}
		if i < w*(h-1) {
			starts = append(starts, i+w)
		}
	}
	return out, ctx.Err()
}

// around is the mean colour of the few pixels about one.
func around(img *image.NRGBA, x, y int) (c rgb) {
	n := 0.0
	for v := max(y-1, 0); v <= min(y+1, img.Rect.Dy()-1); v++ {
		for u := max(x-1, 0); u <= min(x+1, img.Rect.Dx()-1); u++ {
			p := img.Pix[v*img.Stride+4*u:]
			c[0], c[1], c[2] = c[0]+float64(p[0]), c[1]+float64(p[1]), c[2]+float64(p[2])
			n++
		}
	}
	return rgb{c[0] / n, c[1] / n, c[2] / n}
}

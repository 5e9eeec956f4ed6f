package edits

import (
	"bytes"
	"context"
	"image"
	"math"

	"github.com/kovidgoyal/imaging"

	"sectilis/core/document/card"
	"sectilis/core/ground/cutout"
	"sectilis/core/ground/infill"
	"sectilis/core/ground/pixels"
)

// mostFilled is how many pixels a picture has at most that is filled in its own size; a larger one
// is filled in a smaller copy, from which the hole is taken.
const mostFilled = 24_000_000

// fringe is by how much more than what was cut out is filled, in shares of the width, since its edge
// has left its colours beside it.
const fringe = .006

// fill fills part of a picture, in place.
func fill(ctx context.Context, img *image.NRGBA, f card.Filled) error {
	hole, err := holeOf(ctx, img, f)
	if err != nil {
		return err
	}
	return fillHole(ctx, img, hole, f.Seed)
}

// holeOf are the pixels that are to be filled.
func holeOf(ctx context.Context, img *image.NRGBA, f card.Filled) ([]bool, error) {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	hole := make([]bool, w*h)
	if f.Of == nil {
		for _, s := range brushed(f.Strokes) {
			s.Cover(w, h, false, func(i int, k float64) { hole[i] = hole[i] || k > 0 })
		}
		return hole, nil
	}
	stays, err := cutout.Mask(ctx, img, spec(*f.Of))
	if err != nil {
		return nil, err
	}
	if err := stays.Spread(ctx, int(math.Ceil(fringe*float64(w))), true); err != nil {
		return nil, err
	}
	for i, v := range stays.V {
		hole[i] = v > .02
	}
	return hole, nil
}

// fillHole fills pixels of a picture, in place; what cannot be filled stays.
func fillHole(ctx context.Context, img *image.NRGBA, hole []bool, seed uint64) error {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	if w*h <= mostFilled {
		_, err := infill.Fill(ctx, img, hole, seed)
		return err
	}
	k := math.Sqrt(mostFilled / float64(w*h))
	sw, sh := int(float64(w)*k), int(float64(h)*k)
	small := imaging.AsNRGBA(imaging.Resize(img, sw, sh, imaging.Box))
	part := make([]bool, sw*sh)
	for i, is := range hole {
		if is {
			part[min(int(float64(i/w)*k), sh-1)*sw+min(int(float64(i%w)*k), sw-1)] = true
		}
	}
	if _, err := infill.Fill(ctx, small, part, seed); err != nil {
		return err
	}
	return pixels.Rows(ctx, h, func(from, to int) {
		for i := from * w; i < to*w; i++ {
			if hole[i] {
				r, g, b, _ := pixels.At(small, (float64(i%w)+.5)*k, (float64(i/w)+.5)*k)
				copy(img.Pix[4*i:], []uint8{pixels.Byte(r), pixels.Byte(g), pixels.Byte(b), 255})
			}
		}
	})
}

// copyOver copies part of a picture over another along a stroke, in place.
func copyOver(img *image.NRGBA, c card.Copied) {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	from := &image.NRGBA{Pix: bytes.Clone(img.Pix), Stride: img.Stride, Rect: img.Rect}
	by := c.From.Sub(c.Points[0])
	dx, dy := by.X*float64(w), by.Y*float64(h)
	stroke(c.Brushed).Cover(w, h, c.Soft, func(i int, k float64) {
		r, g, b, a := pixels.At(from, float64(i%w)+.5+dx, float64(i/w)+.5+dy)
		p := img.Pix[4*i:]
		for n, v := range [4]float64{r, g, b, a} {
			p[n] = pixels.Byte(float64(p[n]) + (v-float64(p[n]))*k)
		}
	})
}

// wider is a picture with more at its sides.
func wider(ctx context.Context, img *image.NRGBA, k card.Wider) (*image.NRGBA, error) {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	left, top, _, _ := k.Margins(w, h)
	tw, th := k.Size(w, h)
	out := image.NewNRGBA(image.Rect(0, 0, tw, th))
	hole := make([]bool, tw*th)
	for i := range hole {
		x, y := i%tw-left, i/tw-top
		if hole[i] = x < 0 || y < 0 || x >= w || y >= h; !hole[i] {
			copy(out.Pix[4*i:4*i+4], img.Pix[y*img.Stride+4*x:])
		}
	}
	return out, fillHole(ctx, out, hole, k.Seed)
}

package light

import (
	"bytes"
	"context"
	"image"
	"math"

	"sectilis/core/ground/pixels"
)

// The radii of what is done to detail are in shares of the longer side of a picture, so that a
// small copy shows what the large one becomes.
const (
	sharpReach = .0006 // of the standard deviation
	softReach  = .01
	grainReach = .0012
)

// Detail is what is done to fine detail, each 0 to 1: made sharper, softer, or freed of grain.
type Detail struct{ Sharpness, Softness, Smooth float64 }

// Apply changes a picture in place: grain first, then the rest. It returns the error of the
// context, and the picture is spoilt then.
func (d Detail) Apply(ctx context.Context, img *image.NRGBA) error {
	if d.Smooth > 0 {
		r := max(int(math.Round(reach(img, grainReach))), 1)
		// Two means of colours, each twice as wide.
		if err := inStrips(img, 4*r, func(strip *image.NRGBA) error { return smoothed(ctx, strip, d.Smooth, r) }); err != nil {
			return err
		}
	}
	if sigma := reach(img, softReach) * d.Softness * d.Softness; sigma > .2 {
		if err := inStrips(img, blurReach(sigma), func(strip *image.NRGBA) error { return soften(ctx, strip, sigma) }); err != nil {
			return err
		}
	}
	if d.Sharpness > 0 {
		sigma := max(reach(img, sharpReach), .6)
		return inStrips(img, blurReach(sigma), func(strip *image.NRGBA) error { return sharpen(ctx, strip, sigma, 2*d.Sharpness) })
	}
	return nil
}

// blurReach is how many pixels a blur reaches at most.
func blurReach(sigma float64) int { return int(math.Ceil(3.2*sigma)) + 4 }

// soften blurs a picture; colours count as much as they are opaque.
func soften(ctx context.Context, img *image.NRGBA, sigma float64) error {
	alpha, err := pixels.PlaneOf(ctx, img, func(p []uint8) float32 { return float32(p[3]) })
	if err != nil {
		return err
	}
	if err := alpha.Blur(ctx, sigma); err != nil {
		return err
	}
	for c := range 3 {
		of, err := pixels.PlaneOf(ctx, img, func(p []uint8) float32 { return float32(p[c]) * float32(p[3]) })
		if err != nil {
			return err
		}
		if err := of.Blur(ctx, sigma); err != nil {
			return err
		}
		for i, v := range of.V {
			if a := alpha.V[i]; a > 0 {
				img.Pix[4*i+c] = pixels.Byte(float64(v / a))
			}
		}
	}
	for i, v := range alpha.V {
		img.Pix[4*i+3] = pixels.Byte(float64(v))
	}
	return nil
}

// sharpen adds to each pixel by how much it is lighter than what is about it (unsharp masking).
func sharpen(ctx context.Context, img *image.NRGBA, sigma, amount float64) error {
	about, err := pixels.PlaneOf(ctx, img, pixels.Light)
	if err != nil {
		return err
	}
	if err := about.Blur(ctx, sigma); err != nil {
		return err
	}
	return pixels.Rows(ctx, about.H, func(from, to int) {
		for i := from * about.W; i < to*about.W; i++ {
			p := img.Pix[4*i : 4*i+4]
			by := float64(pixels.Light(p)-about.V[i]) * amount
			p[0], p[1], p[2] = pixels.Byte(float64(p[0])+by), pixels.Byte(float64(p[1])+by), pixels.Byte(float64(p[2])+by)
		}
	})
}

// stripPixels is how many pixels of a picture are worked on at once, which bounds what that takes of
// memory.
var stripPixels = 6_000_000

// inStrips changes a picture strip by strip, in place. Each strip is worked out with rows beside it
// that are as they came, as many as what is done reaches, so that no seam is left.
func inStrips(img *image.NRGBA, reach int, do func(strip *image.NRGBA) error) error {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	rows := max(stripPixels/max(w, 1), 2*reach)
	var above []uint8 // the rows above the strip, as they came
	for y := 0; y < h; y += rows {
		top, end := max(y-reach, 0), min(y+rows, h)
		foot := min(end+reach, h)
		strip := image.NewNRGBA(image.Rect(0, 0, w, foot-top))
		copy(strip.Pix, above)
		copy(strip.Pix[(y-top)*strip.Stride:], img.Pix[y*img.Stride:foot*img.Stride])
		above = bytes.Clone(img.Pix[max(end-reach, 0)*img.Stride : end*img.Stride])
		if err := do(strip); err != nil {
			return err
		}
		copy(img.Pix[y*img.Stride:end*img.Stride], strip.Pix[(y-top)*strip.Stride:])
	}
	return nil
}

// smoothed takes grain off: light by a guided filter that reaches r pixels and keeps edges, colours
// by a wider one, since eyes see less of theirs.
func smoothed(ctx context.Context, img *image.NRGBA, amount float64, r int) error {
	guide, err := pixels.PlaneOf(ctx, img, pixels.Light)
	if err != nil {
		return err
	}
	noise := 2 + 22*amount // standard deviation that counts as grain, of 255
	light := pixels.Plane{W: guide.W, H: guide.H, V: append([]float32(nil), guide.V...)}
	if err := light.Guided(ctx, guide, r, float32(noise*noise)); err != nil {
		return err
	}
	for c := range 3 {
		of, err := pixels.PlaneOf(ctx, img, func(p []uint8) float32 { return float32(p[c]) })
		if err != nil {
			return err
		}
		for i, v := range guide.V {
			of.V[i] -= v
		}
		if err := of.Guided(ctx, guide, 2*r, float32(noise*noise)); err != nil {
			return err
		}
		for i, v := range of.V {
			img.Pix[4*i+c] = pixels.Byte(float64(v + light.V[i]))
		}
	}
	return nil
}

// Eye is a disc about a pupil that a flash made red, in pixels.
type Eye struct{ X, Y, Radius float64 }

// Darken takes the red out of pupils: where red is much stronger than green and blue it becomes
// as dark as those are.
func Darken(img *image.NRGBA, eyes []Eye) {
	for _, e := range eyes {
		box := image.Rect(int(e.X-e.Radius), int(e.Y-e.Radius), int(e.X+e.Radius)+2, int(e.Y+e.Radius)+2).Intersect(img.Rect)
		for y := box.Min.Y; y < box.Max.Y; y++ {
			for x := box.Min.X; x < box.Max.X; x++ {
				d := math.Hypot(float64(x)+.5-e.X, float64(y)+.5-e.Y) / e.Radius
				p := img.Pix[y*img.Stride+4*x:]
				r, others := float64(p[0]), (float64(p[1])+float64(p[2]))/2
				red := min(max((r-1.5*max(float64(p[1]), float64(p[2])))/40, 0), 1)
				k := red * min(max((1-d)/.25, 0), 1)
				p[0] = pixels.Byte(r + (others-r)*k)
				for c := range 3 { // a pupil is dark
					p[c] = pixels.Byte(float64(p[c]) * (1 - .35*k))
				}
			}
		}
	}
}

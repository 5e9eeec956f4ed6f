package raster

import (
	"image"
	"image/color"
	"math"

	"github.com/kovidgoyal/imaging"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// soft is the mask of a region blurred by a Gaussian of standard deviation
// sigma, mm.
func (c *Canvas) soft(p geom.Path, sigma float64) (*image.Alpha, image.Rectangle) {
	s := sigma * c.scale
	reach := int(math.Ceil(3 * s))
	limits := c.img.Bounds().Inset(-reach)
	mask, box := c.mask(p, limits)
	if mask == nil || s < .05 {
		return mask, box.Intersect(c.img.Bounds())
	}
	wide := box.Inset(-reach)
	in := image.NewAlpha(image.Rect(0, 0, wide.Dx(), wide.Dy()))
	for y := range box.Dy() {
		copy(in.Pix[(y+reach)*in.Stride+reach:], mask.Pix[y*mask.Stride:y*mask.Stride+box.Dx()])
	}
	blurred := imaging.Blur(in, s)
	// What is off the page is not kept.
	on := wide.Intersect(c.img.Bounds())
	if on.Empty() {
		return nil, on
	}
	out := image.NewAlpha(image.Rect(0, 0, on.Dx(), on.Dy()))
	for y := range on.Dy() {
		for x := range on.Dx() {
			out.Pix[y*out.Stride+x] = blurred.NRGBAAt(x+on.Min.X-wide.Min.X, y+on.Min.Y-wide.Min.Y).A
		}
	}
	return out, on
}

// weaken scales a mask by how much of the ink there is at each place.
func (c *Canvas) weaken(mask *image.Alpha, box image.Rectangle, k scene.Ink) {
	whole := 1 - k.Clear
	var way geom.Point
	var length2 float64
	if k.Fade != nil {
		way = k.Fade.To.Sub(k.Fade.From)
		length2 = way.Dot(way)
	}
	for y := range box.Dy() {
		row := mask.Pix[y*mask.Stride : y*mask.Stride+box.Dx()]
		for x := range row {
			if row[x] == 0 {
				continue
			}
			f := whole
			if length2 > 0 {
				at := c.at(box, x, y).Sub(k.Fade.From).Dot(way) / length2
				f *= 1 - min(max(at, 0), 1)
			}
			row[x] = uint8(float64(row[x])*f + .5)
		}
	}
}

// at is the middle of a pixel of a box, in mm.
func (c *Canvas) at(box image.Rectangle, x, y int) geom.Point {
	return geom.Pt((float64(box.Min.X+x)+.5)/c.scale, (float64(box.Min.Y+y)+.5)/c.scale)
}

// gradient fills a box as SVG 2, 14.2 has it for userSpaceOnUse and pad.
func (c *Canvas) gradient(k scene.Ink, box image.Rectangle) image.Image {
	g := k.Gradient
	from, to := k.GradientAt.Apply(geom.Pt(g.FromX, g.FromY)), k.GradientAt.Apply(geom.Pt(g.ToX, g.ToY))
	way := to.Sub(from)
	out := image.NewRGBA(image.Rect(0, 0, box.Dx(), box.Dy()))
	for y := range box.Dy() {
		for x := range box.Dx() {
			d := c.at(box, x, y).Sub(from)
			at := d.Len() / way.Len()
			if g.Kind == card.Linear {
				at = d.Dot(way) / way.Dot(way)
			}
			out.SetRGBA(x, y, stop(g.Stops, at))
		}
	}
	return out
}

func stop(stops []card.Stop, at float64) color.RGBA {
	if at <= stops[0].At {
		return inked(stops[0].Colour, stops[0].Clear)
	}
	for i := 1; i < len(stops); i++ {
		a, b := stops[i-1], stops[i]
		if at <= b.At {
			k := (at - a.At) / max(b.At-a.At, 1e-12)
			c, clear := mix(Colour(a.Colour), Colour(b.Colour), k), a.Clear+(b.Clear-a.Clear)*k
			return weak(c, clear)
		}
	}
	last := stops[len(stops)-1]
	return inked(last.Colour, last.Clear)
}

func inked(colour string, clear float64) color.RGBA { return weak(Colour(colour), clear) }

// weak is a colour of which a share shows what lies below, premultiplied.
func weak(c color.RGBA, clear float64) color.RGBA {
	if clear == 0 {
		return c
	}
	part := func(v uint8) uint8 { return uint8(float64(v)*(1-clear) + .5) }
	return color.RGBA{part(c.R), part(c.G), part(c.B), part(c.A)}
}

// mix goes from one colour to another, share by share of each part.
func mix(a, b color.RGBA, k float64) color.RGBA {
	part := func(a, b uint8) uint8 { return uint8(float64(a) + (float64(b)-float64(a))*k + .5) }
	return color.RGBA{part(a.R, b.R), part(a.G, b.G), part(a.B, b.B), part(a.A, b.A)}
}

// tinted draws a colour, premultiplied as it is, toward the tint.
func tinted(c color.RGBA, t *card.Tint) color.RGBA {
	if t == nil || c.A == 0 {
		return c
	}
	to := Colour(t.Colour)
	to.R, to.G, to.B = uint8(int(to.R)*int(c.A)/255), uint8(int(to.G)*int(c.A)/255), uint8(int(to.B)*int(c.A)/255)
	to.A = c.A
	return mix(c, to, t.Strength)
}

package card

import (
	"sectilis/core/ground/geom"
	"sectilis/core/ground/shape"
)

// Outline names an outline: one of the catalogue of shapes, or Free.
type Outline = shape.ID

// The outlines that rules speak of.
const (
	Rectangle = shape.Rectangle
	Ellipse   = shape.Ellipse
	Free      = shape.Free
)

// Corner is the kind of corners of a rectangle.
type Corner = shape.Corner

// The kinds of corners.
const (
	Square = shape.Square
	Round  = shape.Round
	Bevel  = shape.Bevel
)

// Form is the outline of a shape or a paper. Width, Height and Radius are mm.
type Form struct {
	Outline Outline `json:"outline"`
	Width   float64 `json:"width"`
	Height  float64 `json:"height"`
	Corner  Corner  `json:"corner,omitempty"` // of a rectangle
	Radius  float64 `json:"radius,omitempty"` // of round or bevelled corners
	// Path is a free outline; it is stretched to Width and Height.
	Path *Drawn `json:"path,omitempty"`
	// Ends keeps both ends of a free outline in proportion to its height and
	// stretches what is between them: their length in shares of the outline as it
	// was drawn, 0 stretching all of it.
	Ends float64 `json:"ends,omitempty"`
}

// OutlineOf is the outline of a form about its centre, mm. Outer rings run clockwise on
// screen, holes the other way.
func OutlineOf(f Form) geom.Path {
	if f.Outline == Free {
		if f.Ends > 0 {
			return lengthened(f.Path, f.Width, f.Height, f.Ends)
		}
		return f.Path.In(f.Width, f.Height)
	}
	p, ok := shape.Outline(f.Outline, f.Width, f.Height, f.Corner, f.Radius)
	if !ok {
		return geom.RectPath(geom.Centred(f.Width, f.Height)) // which check refuses
	}
	return p
}

// lengthened is a drawn outline of a height, with both its ends in proportion to
// that and the middle stretched to the width. It is cut where its ends begin, so
// that curves are stretched only as far as they lie in the middle.
func lengthened(d *Drawn, w, h, ends float64) geom.Path {
	box := d.Box()
	if box.H <= 0 || box.W <= 0 {
		return d.In(w, h)
	}
	k := h / box.H
	whole := box.W * k
	end := ends * whole
	if w <= 2*end {
		return d.In(w, h) // there is no middle left
	}
	even := d.In(whole, h)
	middle := whole - 2*end
	stretch := (w - 2*end) / middle
	strip := func(x0, x1 float64) geom.Path {
		return geom.Intersection(geom.NonZero, even, geom.RectPath(geom.Rect{X: x0, Y: -h, W: x1 - x0, H: 2 * h}))
	}
	return geom.Union(geom.NonZero,
		strip(-whole, -middle/2).Transform(geom.Shift(-(w-whole)/2, 0)),
		strip(-middle/2, middle/2).Transform(geom.Scale(stretch, 1)),
		strip(middle/2, whole).Transform(geom.Shift((w-whole)/2, 0)))
}

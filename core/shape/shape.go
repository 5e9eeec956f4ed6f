// Package shape makes the parametric outlines: rectangles, ellipses, tags and the like.
// Outlines lie about the origin, x right and y down, in millimetres.
package shape

import (
	"math"

	"sectilis/core/card"
	"sectilis/core/geom"
)

// Outline is the outline of a form about its centre. Outer rings run
// clockwise on screen, holes the other way.
func Outline(f card.Form) geom.Path {
	box := geom.Centred(f.Width, f.Height)
	switch f.Outline {
	case card.Ellipse:
		return geom.EllipsePath(box)
	case card.Scallop:
		return scallop(f.Width, f.Height)
	case card.Tag:
		return tag(f.Width, f.Height)
	case card.Banner:
		return banner(f.Width, f.Height)
	case card.Flag:
		return flag(f.Width, f.Height)
	case card.Tab:
		return tab(f.Width, f.Height)
	case card.Strip:
		return geom.RoundRectPath(box, min(f.Width, f.Height)/2)
	case card.Free:
		if f.Ends > 0 {
			return lengthened(f.Path, f.Width, f.Height, f.Ends)
		}
		return f.Path.In(f.Width, f.Height)
	}
	switch f.Corner {
	case card.Round:
		return geom.RoundRectPath(box, f.Radius)
	case card.Bevel:
		return geom.BevelRectPath(box, f.Radius)
	}
	return geom.RectPath(box)
}

// scallop is a rectangle edged with whole half circles. With n of diameter a
// along the width and m of diameter b along the height, n·a + b = width and
// m·b + a = height.
func scallop(w, h float64) geom.Path {
	d := min(max(min(w, h)/7, 3), 8, min(w, h)/3)
	n, m := max(2, math.Round(w/d-1)), max(2, math.Round(h/d-1))
	a, b := (w*m-h)/(n*m-1), (h*n-w)/(n*m-1)
	if a <= 0 || b <= 0 {
		// Too slender for whole half circles on both sides.
		return geom.RoundRectPath(geom.Centred(w, h), min(w, h)/2)
	}
	l, t := -n*a/2, -m*b/2
	var p geom.Builder
	p.Move(geom.Pt(l, t))
	side := func(count, d float64, start, step geom.Point, from float64) {
		for i := range int(count) {
			c := start.Add(step.Mul(float64(i) + .5))
			p.Arc(c, d/2, d/2, from, from+math.Pi)
		}
	}
	side(n, a, geom.Pt(l, t), geom.Pt(a, 0), math.Pi)
	side(m, b, geom.Pt(-l, t), geom.Pt(0, b), -math.Pi/2)
	side(n, a, geom.Pt(-l, -t), geom.Pt(-a, 0), 0)
	side(m, b, geom.Pt(l, -t), geom.Pt(0, -b), math.Pi/2)
	return p.Close().Path()
}

// tag has two corners cut off at its left end and a hole for a string.
func tag(w, h float64) geom.Path {
	c := min(h*.3, w*.25)
	l, t := -w/2, -h/2
	var p geom.Builder
	p.Move(geom.Pt(l, t+c)).Line(geom.Pt(l+c, t)).Line(geom.Pt(-l, t)).Line(geom.Pt(-l, -t)).
		Line(geom.Pt(l+c, -t)).Line(geom.Pt(l, -t-c)).Close()
	r := min(3, c*.38)
	hole := geom.EllipsePath(geom.Rect{X: l + c*.9 - r, Y: -r, W: 2 * r, H: 2 * r})
	return geom.Join(p.Path(), hole.Reverse())
}

// banner has a notch in each end.
func banner(w, h float64) geom.Path {
	d := min(h*.45, w/5)
	l, t := -w/2, -h/2
	var p geom.Builder
	p.Move(geom.Pt(l, t)).Line(geom.Pt(-l, t)).Line(geom.Pt(-l-d, 0)).Line(geom.Pt(-l, -t)).
		Line(geom.Pt(l, -t)).Line(geom.Pt(l+d, 0)).Close()
	return p.Path()
}

// flag is straight at its left end and has a notch in its right one.
func flag(w, h float64) geom.Path {
	d := min(h*.45, w/3)
	l, t := -w/2, -h/2
	var p geom.Builder
	p.Move(geom.Pt(l, t)).Line(geom.Pt(-l, t)).Line(geom.Pt(-l-d, 0)).Line(geom.Pt(-l, -t)).Line(geom.Pt(l, -t)).Close()
	return p.Path()
}

// tab is straight at its left end and round at its right one.
func tab(w, h float64) geom.Path {
	r := min(h/2, w/2)
	l, t := -w/2, -h/2
	var p geom.Builder
	p.Move(geom.Pt(l, t)).Line(geom.Pt(-l-r, t))
	p.Arc(geom.Pt(-l-r, 0), r, h/2, -math.Pi/2, math.Pi/2)
	p.Line(geom.Pt(l, -t)).Close()
	return p.Path()
}

// lengthened is a drawn outline of a height, with both its ends in proportion to
// that and the middle stretched to the width. It is cut where its ends begin, so
// that curves are stretched only as far as they lie in the middle.
func lengthened(d *card.Drawn, w, h, ends float64) geom.Path {
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

package shape

import (
	"math"

	"sectilis/core/ground/geom"
)

// ring is a ring of straight sides through points, x and y in turn.
func ring(xy ...float64) geom.Path {
	var b geom.Builder
	b.Move(geom.Pt(xy[0], xy[1]))
	for i := 2; i < len(xy); i += 2 {
		b.Line(geom.Pt(xy[i], xy[i+1]))
	}
	return b.Close().Path()
}

// fitted is an outline stretched to a size, about the origin.
func fitted(p geom.Path, w, h float64) geom.Path {
	b := p.Bounds()
	c := b.Centre()
	return p.Transform(geom.Shift(-c.X, -c.Y)).Transform(geom.Scale(w/b.W, h/b.H))
}

// ticket has a quarter circle taken out of each corner.
func ticket(w, h float64) geom.Path {
	r := min(min(w, h)*.24, 6)
	l, t := -w/2, -h/2
	var p geom.Builder
	p.Move(geom.Pt(l+r, t)).Line(geom.Pt(-l-r, t))
	p.Arc(geom.Pt(-l, t), r, r, math.Pi, math.Pi/2)
	p.Line(geom.Pt(-l, -t-r))
	p.Arc(geom.Pt(-l, -t), r, r, -math.Pi/2, -math.Pi)
	p.Line(geom.Pt(l+r, -t))
	p.Arc(geom.Pt(l, -t), r, r, 0, -math.Pi/2)
	p.Line(geom.Pt(l, t+r))
	p.Arc(geom.Pt(l, t), r, r, math.Pi/2, 0)
	return p.Close().Path()
}

// stub has a half circle taken out of the middle of each end.
func stub(w, h float64) geom.Path {
	r := min(h*.25, w*.2, 8)
	l, t := -w/2, -h/2
	var p geom.Builder
	p.Move(geom.Pt(l, t)).Line(geom.Pt(-l, t)).Line(geom.Pt(-l, -r))
	p.Arc(geom.Pt(-l, 0), r, r, -math.Pi/2, -3*math.Pi/2)
	p.Line(geom.Pt(-l, -t)).Line(geom.Pt(l, -t)).Line(geom.Pt(l, r))
	p.Arc(geom.Pt(l, 0), r, r, math.Pi/2, -math.Pi/2)
	return p.Close().Path()
}

// notched has a square step in each corner.
func notched(w, h float64) geom.Path {
	n := min(min(w, h)*.2, 6)
	l, t := -w/2, -h/2
	return ring(l+n, t, -l-n, t, -l-n, t+n, -l, t+n, -l, -t-n, -l-n, -t-n, -l-n, -t, l+n, -t, l+n, -t-n, l, -t-n, l, t+n, l+n, t+n)
}

// pointed runs into a point at both ends, which are d long.
func pointed(w, h, d float64) geom.Path {
	l, t := -w/2, -h/2
	return ring(l+d, t, -l-d, t, -l, 0, -l-d, -t, l+d, -t, l, 0)
}

func lozenge(w, h float64) geom.Path { return pointed(w, h, min(h/2, w/3)) }
func hexagon(w, h float64) geom.Path { return pointed(w, h, w/4) }

// spool has hollow ends.
func spool(w, h float64) geom.Path {
	d := min(h*.2, w/5)
	l, t := -w/2, -h/2
	var p geom.Builder
	p.Move(geom.Pt(l, t)).Line(geom.Pt(-l, t)).Quad(geom.Pt(-l-2*d, 0), geom.Pt(-l, -t)).Line(geom.Pt(l, -t)).Quad(geom.Pt(l+2*d, 0), geom.Pt(l, t))
	return p.Close().Path()
}

// leaf is pointed at both ends and round between.
func leaf(w, h float64) geom.Path {
	var p geom.Builder
	p.Move(geom.Pt(-w/2, 0)).Quad(geom.Pt(0, -h), geom.Pt(w/2, 0)).Quad(geom.Pt(0, h), geom.Pt(-w/2, 0))
	return p.Close().Path()
}

// stamp has half circles taken out all along its sides.
func stamp(w, h float64) geom.Path {
	d := min(max(min(w, h)/9, 2.4), 5, min(w, h)/2)
	n, m := max(1, math.Round(w/d)), max(1, math.Round(h/d))
	a, b := w/n, h/m
	r := min(a, b) * .3
	l, t := -w/2, -h/2
	var p geom.Builder
	p.Move(geom.Pt(l, t))
	side := func(count float64, start, step geom.Point, from float64) {
		for i := range int(count) {
			c := start.Add(step.Mul(float64(i) + .5))
			p.Line(c.Add(geom.Pt(r*math.Cos(from), r*math.Sin(from))))
			p.Arc(c, r, r, from, from-math.Pi)
		}
		p.Line(start.Add(step.Mul(count)))
	}
	side(n, geom.Pt(l, t), geom.Pt(a, 0), math.Pi)
	side(m, geom.Pt(-l, t), geom.Pt(0, b), -math.Pi/2)
	side(n, geom.Pt(-l, -t), geom.Pt(-a, 0), 0)
	side(m, geom.Pt(l, -t), geom.Pt(0, -b), math.Pi/2)
	return p.Close().Path()
}

// ribbon is cut in teeth at both ends.
func ribbon(w, h float64) geom.Path {
	d := min(w/6, h/4, 4)
	k := max(1, math.Round(h/(2*d)))
	s := h / k
	l, t := -w/2, -h/2
	xy := []float64{l, t, -l, t}
	for i := range int(k) {
		xy = append(xy, -l-d, t+(float64(i)+.5)*s, -l, t+float64(i+1)*s)
	}
	xy = append(xy, l, -t)
	for i := range int(k) - 1 {
		xy = append(xy, l+d, -t-(float64(i)+.5)*s, l, -t-float64(i+1)*s)
	}
	return ring(append(xy, l+d, t+s/2)...)
}

// luggage has both ends cut off at their corners, with a hole in each.
func luggage(w, h float64) geom.Path {
	c := min(h*.3, w*.2)
	l, t := -w/2, -h/2
	r := min(3, c*.38)
	body := ring(l, t+c, l+c, t, -l-c, t, -l, t+c, -l, -t-c, -l-c, -t, l+c, -t, l, -t-c)
	hole := func(x float64) geom.Path {
		return geom.EllipsePath(geom.Rect{X: x - r, Y: -r, W: 2 * r, H: 2 * r}).Reverse()
	}
	return geom.Join(body, geom.Join(hole(l+c*.9), hole(-l-c*.9)))
}

// arrow points to the right.
func arrow(w, h float64) geom.Path {
	d := min(w*.45, h*.7)
	l, t := -w/2, -h/2
	return ring(l, t*.5, -l-d, t*.5, -l-d, t, -l, 0, -l-d, -t, -l-d, -t*.5, l, -t*.5)
}

// pennant runs to a point at the right.
func pennant(w, h float64) geom.Path { return ring(-w/2, -h/2, w/2, 0, -w/2, h/2) }

// flower has six petals.
func flower(w, h float64) geom.Path {
	parts := []geom.Path{geom.EllipsePath(geom.Centred(1.2, 1.2))}
	for i := range 6 {
		a := float64(i) * math.Pi / 3
		parts = append(parts, geom.EllipsePath(geom.Centred(.9, .9)).Transform(geom.Shift(.62*math.Cos(a), .62*math.Sin(a))))
	}
	return fitted(geom.Union(geom.NonZero, parts...), w, h)
}

// plus has four arms of the same width.
func plus(w, h float64) geom.Path {
	a := min(w, h) / 3
	x, y := a/2, a/2
	l, t := -w/2, -h/2
	return ring(-x, t, x, t, x, -y, -l, -y, -l, y, x, y, x, -t, -x, -t, -x, y, l, y, l, -y, -x, -y)
}

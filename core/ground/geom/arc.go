package geom

import "math"

// Arc is a piece of an ellipse: Centre + U·cos t + V·sin t for t from From to
// To, in radians. U and V are conjugate half diameters, not always the axes,
// which makes an arc stay an arc under every affine map.
type Arc struct {
	Centre, U, V Point
	From, To     float64
}

// At is the point at the angle t.
func (a Arc) At(t float64) Point {
	s, c := math.Sincos(t)
	return a.Centre.Add(a.U.Mul(c)).Add(a.V.Mul(s))
}

// derivative is the first or second derivative by t.
func (a Arc) derivative(t float64, order int) Point {
	s, c := math.Sincos(t)
	if order == 1 {
		return a.V.Mul(c).Sub(a.U.Mul(s))
	}
	return a.U.Mul(-c).Sub(a.V.Mul(s))
}

// axes are the half axes of the ellipse, the longer first, and the turn of the
// longer one: the singular values of the matrix with the columns U and V.
func (a Arc) axes() (long, short, turn float64) {
	e, f := (a.U.X+a.V.Y)/2, (a.U.X-a.V.Y)/2
	g, h := (a.U.Y+a.V.X)/2, (a.U.Y-a.V.X)/2
	q, r := math.Hypot(e, h), math.Hypot(f, g)
	return q + r, math.Abs(q - r), (math.Atan2(g, f) + math.Atan2(h, e)) / 2
}

// clockwise reports whether the arc runs clockwise on screen.
func (a Arc) clockwise() bool { return (a.U.Cross(a.V) > 0) == (a.To > a.From) }

func (a Arc) transform(m Affine) Arc {
	o := m.Apply(Point{})
	a.Centre, a.U, a.V = m.Apply(a.Centre), m.Apply(a.U).Sub(o), m.Apply(a.V).Sub(o)
	return a
}

// turnings are the angles inside the arc where x or y is largest or smallest.
func (a Arc) turnings() []float64 {
	lo, hi := min(a.From, a.To), max(a.From, a.To)
	var out []float64
	for _, t := range []float64{math.Atan2(a.V.X, a.U.X), math.Atan2(a.V.Y, a.U.Y)} {
		for k := math.Ceil((lo - t) / math.Pi); t+k*math.Pi < hi; k++ {
			out = append(out, t+k*math.Pi)
		}
	}
	return out
}

// area is the integral of (x·dy - y·dx)/2 along the arc.
func (a Arc) area() float64 {
	return (a.Centre.Cross(a.At(a.To).Sub(a.At(a.From))) + a.U.Cross(a.V)*(a.To-a.From)) / 2
}

// steps is how many chords stay within tol of the arc: a chord of a circle of
// radius r over the angle w lies r·(1 - cos(w/2)) inside it, and an affine map
// stretches that by no more than the longer half axis.
func (a Arc) steps(tol float64) int {
	long, _, _ := a.axes()
	if long <= tol {
		return 1
	}
	return max(1, int(math.Ceil(math.Abs(a.To-a.From)/(2*math.Acos(1-tol/long)))))
}

// cubics are Bézier curves over at most an eighth turn each, which keep the
// radius to 5e-6 of itself (Riškus, "Approximation of a cubic Bézier curve by
// circular arcs and vice versa", 2006).
func (a Arc) cubics() [][4]Point {
	n := max(1, int(math.Ceil(math.Abs(a.To-a.From)/(math.Pi/4)-1e-9)))
	step := (a.To - a.From) / float64(n)
	k := 4. / 3 * math.Tan(step/4)
	out := make([][4]Point, n)
	for i := range out {
		t, u := a.From+step*float64(i), a.From+step*float64(i+1)
		p, q := a.At(t), a.At(u)
		out[i] = [4]Point{p, p.Add(a.derivative(t, 1).Mul(k)), q.Sub(a.derivative(u, 1).Mul(k)), q}
	}
	return out
}

// arcByEnds is the arc of SVG's path data: from one point to another on an
// ellipse of the given radii and turn (SVG 1.1, appendix F.6). ok is false
// where it is a straight line.
func arcByEnds(from, to Point, rx, ry, turn float64, large, sweep bool) (a Arc, ok bool) {
	rx, ry = math.Abs(rx), math.Abs(ry)
	if rx == 0 || ry == 0 || from == to {
		return Arc{}, false
	}
	s, c := math.Sincos(turn)
	d := from.Sub(to).Mul(.5)
	x, y := c*d.X+s*d.Y, -s*d.X+c*d.Y
	// Radii that are too small are grown until the ends can be reached.
	if k := (x/rx)*(x/rx) + (y/ry)*(y/ry); k > 1 {
		rx, ry = rx*math.Sqrt(k), ry*math.Sqrt(k)
	}
	num := rx*rx*ry*ry - rx*rx*y*y - ry*ry*x*x
	k := math.Sqrt(max(0, num/(rx*rx*y*y+ry*ry*x*x)))
	if large == sweep {
		k = -k
	}
	cx, cy := k*rx*y/ry, -k*ry*x/rx
	middle := from.Lerp(to, .5)
	a = Arc{
		Centre: Point{c*cx - s*cy + middle.X, s*cx + c*cy + middle.Y},
		U:      Point{c * rx, s * rx}, V: Point{-s * ry, c * ry},
		From: math.Atan2((y-cy)/ry, (x-cx)/rx), To: math.Atan2((-y-cy)/ry, (-x-cx)/rx),
	}
	if sweep && a.To < a.From {
		a.To += 2 * math.Pi
	} else if !sweep && a.To > a.From {
		a.To -= 2 * math.Pi
	}
	return a, true
}

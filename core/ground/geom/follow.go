package geom

import "math"

// curve adds the offset of one curve, whose start it is at.
func (o *offsetter) curve(c Curve) {
	end := c.End().Add(outward(c.Tangent(1)).Mul(o.d))
	switch {
	case c.Op == LineTo:
		o.to(end)
	case c.Op == ArcTo && c.Arc.circular():
		a := *c.Arc
		r := a.U.Len()
		k := (r + o.d) / r
		if !a.clockwise() {
			k = (r - o.d) / r
		}
		if math.Abs(k)*r < 1e-9 {
			o.to(end)
			return
		}
		a.U, a.V = a.U.Mul(k), a.V.Mul(k)
		o.segs = append(o.segs, Segment{Op: ArcTo, P: [3]Point{end}, Arc: &a})
		o.at = end
	default:
		o.fit(c, 0, 1)
	}
}

func (a Arc) circular() bool {
	long, short, _ := a.axes()
	return long-short < 1e-9*long
}

// place is the offset of the curve at t, and its derivative there.
func (o *offsetter) place(c Curve, t float64) (p, v Point) {
	p = c.At(t).Add(outward(c.Tangent(t)).Mul(o.d))
	v = c.Derivative(t)
	if k := 1 + c.Curvature(t)*o.d; !math.IsInf(k, 0) && !math.IsNaN(k) {
		v = v.Mul(k)
	}
	return p, v
}

// fit adds cubics with the true places and derivatives at their ends (Hermite),
// halved until they are close to the true offset between.
func (o *offsetter) fit(c Curve, t0, t1 float64) {
	p0, v0 := o.place(c, t0)
	p1, v1 := o.place(c, t1)
	h := (t1 - t0) / 3
	k := [4]Point{p0, p0.Add(v0.Mul(h)), p1.Sub(v1.Mul(h)), p1}
	for _, u := range [...]float64{.2, .5, .8} {
		q := at(k, u)
		t := t0 + (t1-t0)*u
		p, _ := o.place(c, t)
		// Only what is across the curve counts.
		n := outward(c.Tangent(t))
		if e := q.Sub(p); math.Abs(e.Dot(n)) <= o.tolerance && e.Len() <= 100*o.tolerance {
			continue
		}
		if c.stands(t0, t1, o.tolerance) {
			o.swing(c, t0, t1, p1)
			return
		}
		m := (t0 + t1) / 2
		o.fit(c, t0, m)
		o.fit(c, m, t1)
		return
	}
	if p1.Sub(p0).Len() < 1e-9 && k[1].Sub(p0).Len() < 1e-9 {
		return
	}
	o.Cubic(k[1], k[2], p1)
	o.at = p1
}

// stands says that the curve hardly gets anywhere between two parameters: the
// polygon of the cubic that it is there is as good as a place.
func (c Curve) stands(t0, t1, tol float64) bool {
	h := (t1 - t0) / 3
	return t1-t0 < 1e-12 || c.Derivative(t0).Len()*h+c.Derivative(t1).Len()*h+c.At(t1).Sub(c.At(t0)).Len() < tol/4
}

// swing goes round a place at which the curve only turns, as it all but does
// near a cusp: no cubic follows an offset there.
func (o *offsetter) swing(c Curve, t0, t1 float64, end Point) {
	a, b := c.Tangent(t0), c.Tangent(t1)
	turn := math.Atan2(a.Cross(b), a.Dot(b))
	if math.Pi-math.Abs(turn) < .1 {
		// A cusp, which has no side of its own: round it on the outside, as corners are.
		// All of that disc is within d of the curve.
		turn = math.Copysign(turn, o.d)
	} else {
		// The ends tell the angle but for whole turns.
		turn += 2 * math.Pi * math.Round((c.rotation(t0, t1)-turn)/(2*math.Pi))
	}
	n := outward(a).Mul(o.d)
	from := math.Atan2(n.Y, n.X)
	o.round(c.At(t0), math.Abs(o.d), from, from+turn, end)
}

// rotation is by how much the tangent of a Bézier curve turns between two parameters,
// radians, clockwise on screen counted positive: the angle that the hodograph, a Bézier
// curve of one degree less, runs through as seen from the origin. It may be more than half
// a turn.
func (c Curve) rotation(t0, t1 float64) float64 {
	k := cubic(c.From, c.Segment)
	h := [3]Point{k[1].Sub(k[0]), k[2].Sub(k[1]), k[3].Sub(k[2])}
	// Blossoming gives the hodograph between the parameters.
	at := func(s, t float64) Point {
		return h[0].Lerp(h[1], s).Lerp(h[1].Lerp(h[2], s), t)
	}
	v := [3]Point{at(t0, t0), at(t0, t1), at(t1, t1)}
	// Where the curve comes to a stand at an end, it arrives from its middle control.
	for _, end := range []int{0, 2} {
		if v[end].Len() < 1e-12 {
			v[end] = v[1]
		}
	}
	return turned3(v, 0)
}

// turned3 is the angle from the first to the last point of a quadratic curve as seen from
// the origin. Where its polygon lies in a half plane the ends tell it; else it is halved.
func turned3(h [3]Point, depth int) float64 {
	a, b, c := h[0], h[1], h[2]
	ends := math.Atan2(a.Cross(c), a.Dot(c))
	// The middle one between the outer two, or all within less than half a turn.
	u, v := math.Atan2(a.Cross(b), a.Dot(b)), math.Atan2(b.Cross(c), b.Dot(c))
	if lo, hi := min(0, u, u+v), max(0, u, u+v); !(hi-lo >= math.Pi-1e-9) || depth > 60 {
		if depth > 60 {
			return ends
		}
		return u + v
	}
	m0, m1 := a.Lerp(b, .5), b.Lerp(c, .5)
	m := m0.Lerp(m1, .5)
	return turned3([3]Point{a, m0, m}, depth+1) + turned3([3]Point{m, m1, c}, depth+1)
}

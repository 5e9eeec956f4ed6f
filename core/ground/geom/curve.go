package geom

import (
	"iter"
	"math"
)

// Curve is one segment of a path with the point it starts from.
type Curve struct {
	From Point
	Segment
}

// Curves lists what is drawn: every segment that has a length, closing sides
// as lines, ring by ring.
func (p Path) Curves() [][]Curve {
	var out [][]Curve
	for segs := range p.drawn() {
		out = append(out, appendCurves(make([]Curve, 0, len(segs)), segs))
	}
	return out
}

// drawn yields the segments of every ring and stroke, each with its move.
func (p Path) drawn() iter.Seq[[]Segment] {
	return func(yield func([]Segment) bool) {
		for i := 0; i < len(p.segs); {
			j := i + 1
			for j < len(p.segs) && p.segs[j].Op != MoveTo {
				j++
			}
			if j > i+1 && !yield(p.segs[i:j]) {
				return
			}
			i = j
		}
	}
}

// appendCurves appends the curves of a ring or stroke, as Curves lists them.
func appendCurves(out []Curve, segs []Segment) []Curve {
	start := segs[0].P[0]
	at := start
	for i := range segs[1:] {
		s := &segs[1+i]
		switch {
		case s.Op != Close:
			out = append(out, Curve{at, *s})
			at = s.P[max(points[s.Op]-1, 0)]
		case at != start:
			out = append(out, Curve{at, Segment{Op: LineTo, P: [3]Point{start}}})
			at = start
		}
	}
	return out
}

// angle is the angle of an arc at t.
func (c Curve) angle(t float64) float64 { return c.Arc.From + (c.Arc.To-c.Arc.From)*t }

// At is the point at t, 0 at the start and 1 at the end. The ends are met to
// the last bit, so that curves in a row leave no gap.
func (c Curve) At(t float64) Point {
	switch t {
	case 0:
		return c.From
	case 1:
		return c.End()
	}
	switch c.Op {
	case QuadTo, CubicTo:
		return at(cubic(c.From, c.Segment), t)
	case ArcTo:
		return c.Arc.At(c.angle(t))
	}
	return c.From.Lerp(c.P[0], t)
}

// Derivative is the first derivative by t. t runs from 0 to 1.
func (c Curve) Derivative(t float64) Point {
	switch c.Op {
	case QuadTo, CubicTo:
		k := cubic(c.From, c.Segment)
		a, b, d := k[1].Sub(k[0]), k[2].Sub(k[1]), k[3].Sub(k[2])
		return a.Lerp(b, t).Lerp(b.Lerp(d, t), t).Mul(3)
	case ArcTo:
		return c.Arc.derivative(c.angle(t), 1).Mul(c.Arc.To - c.Arc.From)
	}
	return c.P[0].Sub(c.From)
}

func (c Curve) second(t float64) Point {
	switch c.Op {
	case QuadTo, CubicTo:
		k := cubic(c.From, c.Segment)
		a, b := k[0].Sub(k[1].Mul(2)).Add(k[2]), k[1].Sub(k[2].Mul(2)).Add(k[3])
		return a.Lerp(b, t).Mul(6)
	case ArcTo:
		w := c.Arc.To - c.Arc.From
		return c.Arc.derivative(c.angle(t), 2).Mul(w * w)
	}
	return Point{}
}

// Tangent is the direction at t, of length 1; where a cusp leaves none it is
// that of a point close by, and zero for a curve without extent.
func (c Curve) Tangent(t float64) Point {
	if c.Op == LineTo {
		v := c.P[0].Sub(c.From)
		if l := math.Sqrt(v.Dot(v)); l > 0 {
			return v.Mul(1 / l)
		}
		return Point{}
	}
	for _, d := range []float64{0, 1e-6, -1e-6, 1e-3, -1e-3} {
		if u := min(max(t+d, 0), 1); true {
			if v := c.Derivative(u); v.Len() > 1e-12 {
				return v.Mul(1 / v.Len())
			}
		}
	}
	return Point{}
}

// Curvature is the signed curvature at t in 1/mm, positive where the curve
// bends clockwise on screen; infinite at a cusp.
func (c Curve) Curvature(t float64) float64 {
	d := c.Derivative(t)
	l := d.Len()
	if l == 0 {
		return math.Inf(1)
	}
	return d.Cross(c.second(t)) / (l * l * l)
}

// Split cuts the curve at t into two that together are the same. t runs from 0 to 1.
func (c Curve) Split(t float64) (a, b Curve) {
	m := c.At(t)
	a, b = Curve{From: c.From, Segment: c.Segment}, Curve{From: m, Segment: c.Segment}
	switch c.Op {
	case QuadTo:
		a.P = [3]Point{c.From.Lerp(c.P[0], t), m}
		b.P = [3]Point{c.P[0].Lerp(c.P[1], t), c.P[1]}
	case CubicTo:
		p01, p12, p23 := c.From.Lerp(c.P[0], t), c.P[0].Lerp(c.P[1], t), c.P[1].Lerp(c.P[2], t)
		a.P = [3]Point{p01, p01.Lerp(p12, t), m}
		b.P = [3]Point{p12.Lerp(p23, t), p23, c.P[2]}
	case ArcTo:
		left, right := *c.Arc, *c.Arc
		left.To, right.From = c.angle(t), c.angle(t)
		a.P, a.Arc = [3]Point{m}, &left
		b.Arc = &right
	default:
		a.P = [3]Point{m}
	}
	return a, b
}

// between is the stretch of the curve from one parameter to another, run
// backward when they fall.
func (c Curve) between(t0, t1 float64) Curve {
	if t0 > t1 {
		return c.between(t1, t0).reverse()
	}
	if t0 == 0 && t1 == 1 {
		return c
	}
	from, to := c.From, c.End()
	if t0 > 0 {
		from = c.At(t0)
	}
	if t1 < 1 {
		to = c.At(t1)
	}
	switch c.Op {
	case QuadTo, CubicTo:
		if t1 < 1 {
			c, _ = c.Split(t1)
		}
		if t0 > 0 {
			_, c = c.Split(t0 / t1)
		}
		c.From, c.P[points[c.Op]-1] = from, to
	case ArcTo:
		a := *c.Arc
		a.From, a.To = c.angle(t0), c.angle(t1)
		c = Curve{from, Segment{Op: ArcTo, P: [3]Point{to}, Arc: &a}}
	default:
		c.From, c.P[0] = from, to
	}
	return c
}

// reverse runs the curve the other way.
func (c Curve) reverse() Curve {
	r := Curve{c.End(), Segment{Op: c.Op}}
	k := points[c.Op]
	for j := range k - 1 {
		r.P[j] = c.P[k-2-j]
	}
	r.P[k-1] = c.From
	if c.Arc != nil {
		a := *c.Arc
		a.From, a.To = a.To, a.From
		r.Arc = &a
	}
	return r
}

func (c Curve) transform(m Affine) Curve {
	c.From = m.Apply(c.From)
	for j := range points[c.Op] {
		c.P[j] = m.Apply(c.P[j])
	}
	if c.Arc != nil {
		a := c.Arc.transform(m)
		c.Arc = &a
	}
	return c
}

// The nodes and weights of Gauss and Legendre's rule of eight points.
var gauss = [4][2]float64{
	{.18343464249564980494, .36268378337836198297}, {.52553240991632898582, .31370664587788728734},
	{.79666647741362673959, .22238103445337447054}, {.96028985649753623168, .10122853629037625915},
}

// eightPoints is the integral of f from a to b by the rule.
func eightPoints(f func(t float64) float64, a, b float64) float64 {
	sum, m, h := 0.0, (a+b)/2, (b-a)/2
	for _, g := range gauss {
		sum += g[1] * (f(m-h*g[0]) + f(m+h*g[0]))
	}
	return sum * h
}

// Integral is that of something along the curve's parameter, from 0 to t: Gauss and Legendre's
// rule on eight parts.
func (c Curve) Integral(t float64, of func(u float64) float64) float64 {
	const parts = 8
	sum := 0.0
	for i := range parts {
		sum += eightPoints(of, t*float64(i)/parts, t*float64(i+1)/parts)
	}
	return sum
}

func (c Curve) speeds(a, b float64) float64 {
	return eightPoints(func(t float64) float64 { return c.Derivative(t).Len() }, a, b)
}

// LengthTo is the length from the start to t: Gauss and Legendre's rule, halved
// until two halves agree with the whole to 1e-9.
func (c Curve) LengthTo(t float64) float64 {
	if c.Op == LineTo {
		return c.P[0].Sub(c.From).Len() * t
	}
	var part func(a, b, whole float64, depth int) float64
	part = func(a, b, whole float64, depth int) float64 {
		m := (a + b) / 2
		left, right := c.speeds(a, m), c.speeds(m, b)
		if depth == 0 || math.Abs(left+right-whole) <= 1e-9*(left+right) {
			return left + right
		}
		return part(a, m, left, depth-1) + part(m, b, right, depth-1)
	}
	return part(0, t, c.speeds(0, t), 24)
}

// Length is the length of the curve.
func (c Curve) Length() float64 { return c.LengthTo(1) }

// AtLength is the t at which the curve has the given length, by bisection and
// Newton's steps between.
func (c Curve) AtLength(want float64) float64 {
	total := c.Length()
	if want <= 0 || total == 0 {
		return 0
	}
	if want >= total {
		return 1
	}
	lo, hi, t := 0.0, 1.0, want/total
	for range 60 {
		off := c.LengthTo(t) - want
		if math.Abs(off) <= 1e-10*total {
			break
		}
		if off > 0 {
			hi = t
		} else {
			lo = t
		}
		next := t - off/c.Derivative(t).Len()
		if !(next > lo && next < hi) {
			next = (lo + hi) / 2
		}
		t = next
	}
	return t
}

// Length is the length of all rings and strokes.
func (p Path) Length() float64 {
	sum := 0.0
	for _, ring := range p.Curves() {
		for _, c := range ring {
			sum += c.Length()
		}
	}
	return sum
}

// PointAt is the point and the direction at a length along the path, ring
// after ring; its ends beyond. ok is false for an empty path.
func (p Path) PointAt(length float64) (q, tangent Point, ok bool) {
	for _, ring := range p.Curves() {
		for _, c := range ring {
			l := c.Length()
			if length <= l {
				t := c.AtLength(length)
				return c.At(t), c.Tangent(t), true
			}
			length -= l
			q, tangent, ok = c.At(1), c.Tangent(1), true
		}
	}
	return q, tangent, ok
}

// hull is a box that the curve does not leave.
func (c Curve) hull() Rect {
	if c.Op == ArcTo {
		a := c.Arc
		if math.Abs(a.To-a.From) < 1.6 {
			// Where the tangents at the ends meet.
			k := math.Tan((a.To - a.From) / 2)
			c = Curve{c.From, Segment{Op: QuadTo, P: [3]Point{c.From.Add(a.derivative(a.From, 1).Mul(k)), c.P[0]}}}
		} else {
			w, h := math.Hypot(a.U.X, a.V.X), math.Hypot(a.U.Y, a.V.Y)
			return Rect{a.Centre.X - w, a.Centre.Y - h, 2 * w, 2 * h}
		}
	}
	lo, hi := c.From, c.From
	for _, p := range c.P[:points[c.Op]] {
		lo = Point{min(lo.X, p.X), min(lo.Y, p.Y)}
		hi = Point{max(hi.X, p.X), max(hi.Y, p.Y)}
	}
	return Rect{lo.X, lo.Y, hi.X - lo.X, hi.Y - lo.Y}
}

// ReverseCurves runs a chain of curves the other way.
func ReverseCurves(cs []Curve) []Curve {
	out := make([]Curve, len(cs))
	for i, c := range cs {
		out[len(cs)-1-i] = c.reverse()
	}
	return out
}

// FromCurves is the path of a chain of curves, each of which starts where the
// one before ended. The last of a closed chain is led to the start if it ends
// within 0.02 mm of it.
func FromCurves(cs []Curve, closed bool) Path {
	if len(cs) == 0 {
		return Path{}
	}
	b := Builder{segs: make([]Segment, 0, len(cs)+2)}
	b.Move(cs[0].From)
	for _, c := range cs {
		b.segs = append(b.segs, c.Segment)
	}
	if closed {
		if last := &b.segs[len(b.segs)-1]; last.End().Sub(cs[0].From).Len() < .02 {
			last.P[points[last.Op]-1] = cs[0].From
		}
		b.Close()
	}
	return b.Path()
}

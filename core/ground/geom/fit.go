package geom

import "math"

// Fit lays few cubics through a chain of points, so that no point is farther
// than tol millimetres from them. Where the chain turns by more than corner
// radians at a point, the curves meet in a corner there; elsewhere they meet
// smoothly. A closed chain gives a closed ring. (Schneider, "An algorithm for
// automatically fitting digitized curves", Graphics Gems, 1990.)
func Fit(l Polyline, tol, corner float64) Path {
	pts := dedupe(l)
	if len(pts) < 2 {
		return Path{}
	}
	var b Builder
	breaks := corners(pts, l.Closed, corner)
	if l.Closed {
		// Begin at a corner if there is one, so that no smooth place is cut.
		start := 0
		if len(breaks) > 0 {
			start = breaks[0]
		}
		pts = append(append([]Point{}, pts[start:]...), pts[:start]...)
		pts = append(pts, pts[0])
		for i := range breaks {
			breaks[i] -= start
		}
		smooth := len(breaks) == 0
		b.Move(pts[0])
		if smooth {
			// The seam has one direction for both its ends.
			t := unit(pts[1].Sub(pts[len(pts)-2]))
			f := fitter{&b, tol}
			f.run(pts, t, t.Mul(-1), 0)
		} else {
			b.chain(pts, breaks[1:], tol)
		}
		return b.Close().Path()
	}
	b.Move(pts[0])
	b.chain(pts, breaks, tol)
	return b.Path()
}

// FitOne is the one cubic through a chain of points, from the first to the last, with the given
// directions at its ends, both pointing into it, that lies closest to them in the sense of least
// squares.
func FitOne(pts []Point, t0, t1 Point) Curve {
	us := chordLengths(pts)
	c := bezier(pts, us, t0, t1)
	for range 6 {
		if !reparametrize(pts, us, c) {
			break
		}
		c = bezier(pts, us, t0, t1)
	}
	return Curve{c[0], Segment{Op: CubicTo, P: [3]Point{c[1], c[2], c[3]}}}
}

// chain fits the stretches between corners one by one.
func (b *Builder) chain(pts []Point, breaks []int, tol float64) {
	from := 0
	f := fitter{b, tol}
	for _, to := range append(append([]int{}, breaks...), len(pts)-1) {
		s := pts[from : to+1]
		f.run(s, unit(s[1].Sub(s[0])), unit(s[len(s)-2].Sub(s[len(s)-1])), 0)
		from = to
	}
}

// dedupe drops points that lie on the one before, and a last one that lies on
// the first of a closed chain.
func dedupe(l Polyline) []Point {
	var out []Point
	for _, p := range l.Points {
		if n := len(out); n == 0 || p.Sub(out[n-1]).Len() > 1e-9 {
			out = append(out, p)
		}
	}
	if n := len(out); l.Closed && n > 1 && out[0].Sub(out[n-1]).Len() <= 1e-9 {
		out = out[:n-1]
	}
	return out
}

// corners are the points where the chain turns by more than the angle.
func corners(pts []Point, closed bool, angle float64) []int {
	n := len(pts)
	var out []int
	for i := range pts {
		if !closed && (i == 0 || i == n-1) {
			continue
		}
		u, v := pts[i].Sub(pts[(i+n-1)%n]), pts[(i+1)%n].Sub(pts[i])
		if math.Abs(math.Atan2(u.Cross(v), u.Dot(v))) > angle {
			out = append(out, i)
		}
	}
	return out
}

func unit(p Point) Point {
	if l := p.Len(); l > 0 {
		return p.Mul(1 / l)
	}
	return Point{1, 0}
}

type fitter struct {
	b   *Builder
	tol float64
}

// maxSplit bounds how often a stretch is halved; each half has fewer points,
// so it is never reached but by broken input.
const maxSplit = 48

// run fits one stretch with the given directions at its ends, both pointing
// into it.
func (f fitter) run(pts []Point, t0, t1 Point, depth int) {
	end := pts[len(pts)-1]
	if len(pts) == 2 || depth > maxSplit {
		f.b.Line(end)
		return
	}
	us := chordLengths(pts)
	for round := 0; ; round++ {
		c := bezier(pts, us, t0, t1)
		off, where := worst(pts, c, us)
		if off <= f.tol {
			f.b.Cubic(c[1], c[2], end)
			return
		}
		// Far off, or after some rounds, better parameters will not help.
		if round == 6 || off > f.tol*16 || !reparametrize(pts, us, c) {
			f.split(pts, where, t0, t1, depth)
			return
		}
	}
}

func (f fitter) split(pts []Point, at int, t0, t1 Point, depth int) {
	at = min(max(at, 1), len(pts)-2)
	middle := unit(pts[at-1].Sub(pts[at+1]))
	f.run(pts[:at+1], t0, middle, depth+1)
	f.run(pts[at:], middle.Mul(-1), t1, depth+1)
}

// worst is the largest distance of a point from its place on the curve, and
// which point it is.
func worst(pts []Point, c [4]Point, us []float64) (off float64, where int) {
	where = len(pts) / 2
	for i := 1; i < len(pts)-1; i++ {
		if e := at(c, us[i]).Sub(pts[i]).Len(); e > off {
			off, where = e, i
		}
	}
	return off, where
}

func chordLengths(pts []Point) []float64 {
	us := make([]float64, len(pts))
	for i := 1; i < len(pts); i++ {
		us[i] = us[i-1] + pts[i].Sub(pts[i-1]).Len()
	}
	total := us[len(us)-1]
	for i := range us {
		us[i] /= total
	}
	return us
}

// bezier is the cubic with the given end directions that lies closest to the
// points in the sense of least squares.
func bezier(pts []Point, us []float64, t0, t1 Point) [4]Point {
	p0, p3 := pts[0], pts[len(pts)-1]
	var c00, c01, c11, x0, x1 float64
	for i, u := range us {
		v := 1 - u
		b0, b1, b2, b3 := v*v*v, 3*u*v*v, 3*u*u*v, u*u*u
		a0, a1 := t0.Mul(b1), t1.Mul(b2)
		r := pts[i].Sub(p0.Mul(b0 + b1)).Sub(p3.Mul(b2 + b3))
		c00, c01, c11 = c00+a0.Dot(a0), c01+a0.Dot(a1), c11+a1.Dot(a1)
		x0, x1 = x0+a0.Dot(r), x1+a1.Dot(r)
	}
	chord := p3.Sub(p0).Len()
	det := c00*c11 - c01*c01
	l0, l1 := chord/3, chord/3
	if math.Abs(det) > 1e-12*c00*c11 {
		l0, l1 = (x0*c11-x1*c01)/det, (c00*x1-c01*x0)/det
	}
	// Handles that point backward, or that are longer than the way there is to go,
	// make loops: Wu and Barsky's rule.
	way := 0.0
	for i := 1; i < len(pts); i++ {
		way += pts[i].Sub(pts[i-1]).Len()
	}
	if least := 1e-6 * chord; !(l0 > least && l1 > least) || l0+l1 > way {
		l0, l1 = chord/3, chord/3
	}
	return [4]Point{p0, p0.Add(t0.Mul(l0)), p3.Add(t1.Mul(l1)), p3}
}

// reparametrize moves each parameter toward the place nearest to its point by
// one step of Newton's; false when they would not stay in order.
func reparametrize(pts []Point, us []float64, c [4]Point) bool {
	k := Curve{c[0], Segment{Op: CubicTo, P: [3]Point{c[1], c[2], c[3]}}}
	next := make([]float64, len(us))
	next[len(us)-1] = 1
	for i := 1; i < len(us)-1; i++ {
		u := us[i]
		d, v, a := k.At(u).Sub(pts[i]), k.Derivative(u), k.second(u)
		if den := v.Dot(v) + d.Dot(a); den > 0 {
			u -= d.Dot(v) / den
		}
		if !(u > next[i-1] && u < 1) {
			return false
		}
		next[i] = u
	}
	copy(us, next)
	return true
}

package geom

import "math"

// RoundCorners lays an arc of the given radius into every corner of a path,
// outward and inward ones, where the sides touch it. Where they are too short
// for it, the radius is the largest that fits into half of each.
func RoundCorners(p Path, radius float64) Path {
	return RoundSome(p, radius, func(Point) bool { return true })
}

// RoundSome is RoundCorners for the corners that are wanted.
func RoundSome(p Path, radius float64, wanted func(at Point) bool) Path {
	if radius <= 0 {
		return p
	}
	var out []Path
	rings := p.Rings()
	for i, cs := range p.Curves() {
		out = append(out, roundRing(smoothPieces(cs), rings[i].Closed(), radius, wanted))
	}
	return Join(out...)
}

// sharp is the turn, in radians, from which on a corner is one.
const sharp = .05

// fillet is the arc in a corner: where it leaves the side before and joins the
// side after, and its centre.
type fillet struct {
	r, s, u float64
	centre  Point
	side    float64 // 1 where the path turns clockwise on screen, -1 where not
}

func roundRing(cs []Curve, closed bool, radius float64, wanted func(Point) bool) Path {
	n := len(cs)
	if n == 0 {
		return Path{}
	}
	corner := make([]float64, n) // the turn at the end of each side
	for i, c := range cs {
		if (i < n-1 || closed) && wanted(c.End()) {
			t0, t1 := c.Tangent(1), cs[(i+1)%n].Tangent(0)
			if turn := math.Atan2(t0.Cross(t1), t0.Dot(t1)); math.Abs(turn) > sharp && math.Abs(turn) < math.Pi-1e-6 {
				corner[i] = turn
			}
		}
	}
	fillets := make([]fillet, n)
	from := make([]float64, n) // where each side starts
	for i, turn := range corner {
		if turn == 0 {
			continue
		}
		j := (i + 1) % n
		// A side with a corner at either end is shared by both.
		lo, hi := 0.0, 1.0
		if corner[(i+n-1)%n] != 0 {
			lo = cs[i].AtLength(cs[i].Length() / 2)
		}
		if corner[j] != 0 {
			hi = cs[j].AtLength(cs[j].Length() / 2)
		}
		fillets[i] = findFillet(cs[i], cs[j], radius, math.Copysign(1, turn), lo, hi)
		if fillets[i].r > 0 {
			from[j] = fillets[i].u
		}
	}
	var b Builder
	b.Move(cs[0].between(from[0], 1).From)
	for i, c := range cs {
		f := fillets[i]
		to := 1.0
		if f.r > 0 {
			to = f.s
		}
		if to-from[i] > 1e-9 {
			b.segs = append(b.segs, c.between(from[i], to).Segment)
		}
		if f.r > 0 {
			b.segs = append(b.segs, f.arc(c, cs[(i+1)%n]))
		}
	}
	if closed {
		b.Close()
	}
	return b.Path()
}

func (f fillet) arc(a, b Curve) Segment {
	p, q := a.At(f.s).Sub(f.centre), b.At(f.u).Sub(f.centre)
	a0, turn := math.Atan2(p.Y, p.X), math.Atan2(p.Cross(q), p.Dot(q))
	return Segment{Op: ArcTo, P: [3]Point{b.At(f.u)}, Arc: &Arc{f.centre, Point{X: f.r}, Point{Y: f.r}, a0, a0 + turn}}
}

// findFillet grows an arc out of the corner between two sides, keeping it
// tangent to both by Newton's steps, as far as it may go on each.
func findFillet(a, b Curve, radius, side, lo, hi float64) fillet {
	const steps = 24
	best := fillet{s: 1, side: side}
	within := func(f fillet) bool { return f.s >= lo-1e-9 && f.s <= 1 && f.u >= 0 && f.u <= hi+1e-9 }
	try := func(r float64) bool {
		f, ok := tangent(a, b, r, side, best.s, best.u)
		if !ok || !within(f) || !f.goesOn(a, b) {
			return false
		}
		best = f
		return true
	}
	for i := 1; i <= steps; i++ {
		if r := radius * float64(i) / steps; !try(r) {
			// The last bit by halving.
			from, to := best.r, r
			for range 30 {
				m := (from + to) / 2
				if try(m) {
					from = m
				} else {
					to = m
				}
			}
			break
		}
	}
	return best
}

// goesOn reports whether the arc runs on from one side into the other. Curved
// sides may also be touched by circles along which a path would turn back.
func (f fillet) goesOn(a, b Curve) bool {
	arc := f.arc(a, b).Arc
	along := func(at float64, side Point) bool {
		v := arc.derivative(at, 1)
		if arc.To < arc.From {
			v = v.Mul(-1)
		}
		return v.Dot(side) > 0
	}
	return (arc.To-arc.From)*f.side > 0 && along(arc.From, a.Tangent(f.s)) && along(arc.To, b.Tangent(f.u))
}

// tangent solves for the arc of radius r that touches both sides, from a place
// close by.
func tangent(a, b Curve, r, side, s, u float64) (fillet, bool) {
	for range 20 {
		p, v := inset(a, s, r*side)
		q, w := inset(b, u, r*side)
		d := p.Sub(q)
		if d.Len() < 1e-10*(1+r) {
			return fillet{r, s, u, p, side}, true
		}
		// d + v·ds - w·du = 0
		det := w.Cross(v)
		if math.Abs(det) < 1e-14 {
			return fillet{}, false
		}
		s += d.Cross(w) / det
		u += d.Cross(v) / det
		if !(s > -.5 && s < 1.5 && u > -.5 && u < 1.5) {
			return fillet{}, false
		}
	}
	return fillet{}, false
}

// inset is the place at distance d to the right of travel on screen, and its
// derivative.
func inset(c Curve, t, d float64) (p, v Point) {
	p = c.At(t).Sub(outward(c.Tangent(t)).Mul(d))
	v = c.Derivative(t)
	if k := 1 - c.Curvature(t)*d; !math.IsInf(k, 0) && !math.IsNaN(k) {
		v = v.Mul(k)
	}
	return p, v
}

// Simplify lays few cubics through every ring and stroke, nowhere farther than tol from it.
// Corners stay; where there are so many that little is gained, a roughness of less than about a
// third of tol goes. tol is mm.
func Simplify(p Path, tol float64) Path {
	var out []Path
	for _, l := range p.Flatten(tol / 4) {
		fit := Fit(l, tol*3/4, .35)
		if 2*fit.Len() > len(l.Points) {
			l.Points = thin(l.Points, tol*.35)
			if smooth := Fit(l, tol*.4, .35); smooth.Len() < fit.Len() {
				fit = smooth
			}
		}
		out = append(out, fit)
	}
	return Join(out...)
}

// thin leaves out points that are within tol of the lines between those that stay.
// (Douglas and Peucker, "Algorithms for the reduction of the number of points required to
// represent a digitized line", 1973.)
func thin(pts []Point, tol float64) []Point {
	if len(pts) < 3 {
		return pts
	}
	keep := make([]bool, len(pts))
	keep[0], keep[len(pts)-1] = true, true
	type stretch struct{ from, to int }
	todo := []stretch{{0, len(pts) - 1}}
	for len(todo) > 0 {
		s := todo[len(todo)-1]
		todo = todo[:len(todo)-1]
		far, at := tol, -1
		for i := s.from + 1; i < s.to; i++ {
			if d := foot(pts[i], pts[s.from], pts[s.to]).Sub(pts[i]).Len(); d > far {
				far, at = d, i
			}
		}
		if at > 0 {
			keep[at] = true
			todo = append(todo, stretch{s.from, at}, stretch{at, s.to})
		}
	}
	out := make([]Point, 0, len(pts)/4)
	for i, p := range pts {
		if keep[i] {
			out = append(out, p)
		}
	}
	return out
}

// Covers reports whether a path covers a place under a fill rule.
func (p Path) Covers(q Point, rule FillRule) bool { return rule.covers(int32(p.Winding(q))) }

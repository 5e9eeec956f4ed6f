package geom

import "math"

// Polyline is a flattened ring or stroke. A closed one does not repeat its
// first point.
type Polyline struct {
	Points []Point
	Closed bool
}

// Length is the length along the polyline, the closing side included.
func (l Polyline) Length() float64 {
	sum := 0.0
	for i := 1; i < len(l.Points); i++ {
		sum += l.Points[i].Sub(l.Points[i-1]).Len()
	}
	if l.Closed && len(l.Points) > 1 {
		sum += l.Points[0].Sub(l.Points[len(l.Points)-1]).Len()
	}
	return sum
}

// Area is the signed area, positive when clockwise on screen. It is mm².
func (l Polyline) Area() float64 {
	sum := 0.0
	for i, p := range l.Points {
		sum += p.Cross(l.Points[(i+1)%len(l.Points)]) / 2
	}
	return sum
}

// Flatten turns curves into lines that stay within tol millimetres of them.
// The number of steps follows from the bound on the second differences of the
// control points, max|Δ²|·n(n-1)/8 ≤ tol·steps² (Wang, 1984), which holds for
// cusps and loops too. Points closer than 1 nm to the one before are left out.
func (p Path) Flatten(tol float64) []Polyline {
	var out []Polyline
	for _, ring := range p.Rings() {
		var l Polyline
		put := func(q Point) {
			if n := len(l.Points); n == 0 || q.Sub(l.Points[n-1]).Len() > 1e-6 {
				l.Points = append(l.Points, q)
			}
		}
		ring.Segments(func(from Point, s Segment) {
			switch s.Op {
			case MoveTo, LineTo:
				put(s.P[0])
			case QuadTo, CubicTo:
				c := cubic(from, s)
				d := max(c[0].Add(c[2]).Sub(c[1].Mul(2)).Len(), c[1].Add(c[3]).Sub(c[2].Mul(2)).Len())
				n := max(1, int(math.Ceil(math.Sqrt(.75*d/tol))))
				for i := 1; i < n; i++ {
					put(at(c, float64(i)/float64(n)))
				}
				put(c[3])
			case ArcTo:
				n := s.Arc.steps(tol)
				for i := 1; i < n; i++ {
					put(s.Arc.At(s.Arc.From + (s.Arc.To-s.Arc.From)*float64(i)/float64(n)))
				}
				put(s.P[0])
			case Close:
				l.Closed = true
			}
		})
		if n := len(l.Points); l.Closed && n > 1 && l.Points[0].Sub(l.Points[n-1]).Len() <= 1e-6 {
			l.Points = l.Points[:n-1]
		}
		if len(l.Points) > 1 {
			out = append(out, l)
		}
	}
	return out
}

// Winding counts how often the closed rings of lines run round q, clockwise on
// screen counted positive. (Sunday, "Inclusion of a point in a polygon", 2001.)
func Winding(lines []Polyline, q Point) int {
	n := 0
	for _, l := range lines {
		for i, a := range l.Points {
			b := l.Points[(i+1)%len(l.Points)]
			side := b.Sub(a).Cross(q.Sub(a))
			if a.Y <= q.Y && b.Y > q.Y && side > 0 {
				n++
			} else if a.Y > q.Y && b.Y <= q.Y && side < 0 {
				n--
			}
		}
	}
	return n
}

// At is the point at the given distance along the polyline; its ends beyond; the origin
// where it has no points.
func (l Polyline) At(distance float64) Point {
	pts := l.Points
	if len(pts) == 0 {
		return Point{}
	}
	if l.Closed {
		pts = append(pts[:len(pts):len(pts)], pts[0])
	}
	for i := 1; i < len(pts); i++ {
		step := pts[i].Sub(pts[i-1]).Len()
		if distance <= step {
			return pts[i-1].Lerp(pts[i], max(distance, 0)/step)
		}
		distance -= step
	}
	return pts[len(pts)-1]
}

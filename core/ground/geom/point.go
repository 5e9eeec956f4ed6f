// Package geom holds the plane geometry of Sectilis: points, affine maps,
// rectangles and paths of lines and Bézier curves. Lengths are millimetres,
// angles radians, x runs right and y down, and all values are immutable.
package geom

import (
	"encoding/json"
	"math"
)

// Point is a place or a vector in the plane, in millimetres.
type Point struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
}

// Pt is short for a Point literal.
func Pt(x, y float64) Point { return Point{x, y} }

// Add returns p + q.
func (p Point) Add(q Point) Point { return Point{p.X + q.X, p.Y + q.Y} }

// Sub returns p - q.
func (p Point) Sub(q Point) Point { return Point{p.X - q.X, p.Y - q.Y} }

// Mul returns p scaled by k.
func (p Point) Mul(k float64) Point { return Point{p.X * k, p.Y * k} }

// Dot is the scalar product.
func (p Point) Dot(q Point) float64 { return p.X*q.X + p.Y*q.Y }

// Cross is the z component of the vector product.
func (p Point) Cross(q Point) float64 { return p.X*q.Y - p.Y*q.X }

// Len is the length of the vector.
func (p Point) Len() float64 { return math.Hypot(p.X, p.Y) }

// Lerp returns the point at parameter t on the line from p to q.
func (p Point) Lerp(q Point, t float64) Point {
	return Point{p.X + (q.X-p.X)*t, p.Y + (q.Y-p.Y)*t}
}

// Affine maps (x, y) to (A·x + C·y + E, B·x + D·y + F), as SVG's matrix().
// The zero value maps everything to the origin; Identity is the start.
type Affine struct{ A, B, C, D, E, F float64 }

// Identity maps every point to itself.
var Identity = Affine{A: 1, D: 1}

// Shift moves by (x, y). Lengths are mm.
func Shift(x, y float64) Affine { return Affine{1, 0, 0, 1, x, y} }

// Scale stretches about the origin. Both are factors.
func Scale(x, y float64) Affine { return Affine{A: x, D: y} }

// Turn rotates about the origin, clockwise on screen for positive radians.
func Turn(radians float64) Affine {
	s, c := math.Sincos(radians)
	return Affine{A: c, B: s, C: -s, D: c}
}

// Then returns the map that applies m first and n after it.
func (m Affine) Then(n Affine) Affine {
	return Affine{
		A: n.A*m.A + n.C*m.B, B: n.B*m.A + n.D*m.B,
		C: n.A*m.C + n.C*m.D, D: n.B*m.C + n.D*m.D,
		E: n.A*m.E + n.C*m.F + n.E, F: n.B*m.E + n.D*m.F + n.F,
	}
}

// Apply maps a point.
func (m Affine) Apply(p Point) Point {
	return Point{m.A*p.X + m.C*p.Y + m.E, m.B*p.X + m.D*p.Y + m.F}
}

// Det is the factor by which m scales areas; negative when it mirrors.
func (m Affine) Det() float64 { return m.A*m.D - m.B*m.C }

// Inverse returns the map that undoes m; ok is false when there is none.
func (m Affine) Inverse() (inv Affine, ok bool) {
	d := m.Det()
	if d == 0 || math.IsNaN(d) || math.IsInf(d, 0) {
		return Identity, false
	}
	inv = Affine{A: m.D / d, B: -m.B / d, C: -m.C / d, D: m.A / d}
	o := inv.Apply(Point{m.E, m.F})
	inv.E, inv.F = -o.X, -o.Y
	return inv, true
}

// MarshalJSON writes the six numbers of SVG's matrix(). It fails for a number that is none.
func (m Affine) MarshalJSON() ([]byte, error) {
	return json.Marshal([6]float64{m.A, m.B, m.C, m.D, m.E, m.F})
}

// UnmarshalJSON reads what MarshalJSON writes. It fails for anything else.
func (m *Affine) UnmarshalJSON(raw []byte) error {
	var v [6]float64
	if err := json.Unmarshal(raw, &v); err != nil {
		return err
	}
	*m = Affine{v[0], v[1], v[2], v[3], v[4], v[5]}
	return nil
}

// Rect is an axis-parallel rectangle; it is empty when it has no extent. Lengths are mm.
type Rect struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
	W float64 `json:"w"`
	H float64 `json:"h"`
}

// Centred returns the rectangle of the given size about the origin. Lengths are mm.
func Centred(w, h float64) Rect { return Rect{-w / 2, -h / 2, w, h} }

// Right is the x of the right edge.
func (r Rect) Right() float64 { return r.X + r.W }

// Bottom is the y of the lower edge.
func (r Rect) Bottom() float64 { return r.Y + r.H }

// Centre is the middle of the rectangle.
func (r Rect) Centre() Point { return Point{r.X + r.W/2, r.Y + r.H/2} }

// Empty reports whether r has no extent in x and y.
func (r Rect) Empty() bool { return r.W <= 0 && r.H <= 0 }

// Grow moves every edge outward by d. d is mm.
func (r Rect) Grow(d float64) Rect { return Rect{r.X - d, r.Y - d, r.W + 2*d, r.H + 2*d} }

// Union is the smallest rectangle around both.
func (r Rect) Union(s Rect) Rect {
	if r.Empty() {
		return s
	}
	if s.Empty() {
		return r
	}
	x, y := min(r.X, s.X), min(r.Y, s.Y)
	return Rect{x, y, max(r.Right(), s.Right()) - x, max(r.Bottom(), s.Bottom()) - y}
}

// Intersect returns what both rectangles cover; its width or height is not more
// than nothing when that is nothing.
func (r Rect) Intersect(s Rect) Rect {
	x, y := max(r.X, s.X), max(r.Y, s.Y)
	return Rect{x, y, min(r.Right(), s.Right()) - x, min(r.Bottom(), s.Bottom()) - y}
}

// Overlaps reports whether the interiors meet.
func (r Rect) Overlaps(s Rect) bool {
	return r.X < s.Right() && s.X < r.Right() && r.Y < s.Bottom() && s.Y < r.Bottom()
}

// Contains reports whether s lies within r, allowing slack millimetres.
func (r Rect) Contains(s Rect, slack float64) bool {
	return s.X >= r.X-slack && s.Y >= r.Y-slack && s.Right() <= r.Right()+slack && s.Bottom() <= r.Bottom()+slack
}

// Has reports whether p lies in r or on its edge.
func (r Rect) Has(p Point) bool {
	return p.X >= r.X && p.X <= r.Right() && p.Y >= r.Y && p.Y <= r.Bottom()
}

// extent is the least box around all points that it was given.
type extent struct {
	lo, hi Point
	begun  bool
}

func (e *extent) hold(p Point) {
	if !e.begun {
		*e = extent{p, p, true}
		return
	}
	e.lo = Point{min(e.lo.X, p.X), min(e.lo.Y, p.Y)}
	e.hi = Point{max(e.hi.X, p.X), max(e.hi.Y, p.Y)}
}

func (e *extent) rect() Rect { return Rect{e.lo.X, e.lo.Y, e.hi.X - e.lo.X, e.hi.Y - e.lo.Y} }

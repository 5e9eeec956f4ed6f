package fold

import (
	"math"

	"sectilis/core/ground/geom"
)

// V3 is a place or a vector in space, mm. The flat sheet lies in z = 0, seen
// from outside with x right and y down; z points at the viewer.
type V3 struct{ X, Y, Z float64 }

// Add is the sum of two vectors, Sub their difference, Mul a multiple of one.
func (a V3) Add(b V3) V3      { return V3{a.X + b.X, a.Y + b.Y, a.Z + b.Z} }
func (a V3) Sub(b V3) V3      { return V3{a.X - b.X, a.Y - b.Y, a.Z - b.Z} }
func (a V3) Mul(k float64) V3 { return V3{a.X * k, a.Y * k, a.Z * k} }

// Dot is the scalar product, Cross the vector product.
func (a V3) Dot(b V3) float64 { return a.X*b.X + a.Y*b.Y + a.Z*b.Z }
func (a V3) Cross(b V3) V3 {
	return V3{a.Y*b.Z - a.Z*b.Y, a.Z*b.X - a.X*b.Z, a.X*b.Y - a.Y*b.X}
}

// Len is the length of a vector.
func (a V3) Len() float64 { return math.Sqrt(a.Dot(a)) }

// Flat is a place on the sheet as one in space.
func Flat(p geom.Point) V3 { return V3{X: p.X, Y: p.Y} }

// Motion is a rigid motion: a rotation by the rows of R, then a shift.
type Motion struct {
	R [3]V3
	T V3
}

// still leaves everything where it is.
var still = Motion{R: [3]V3{{X: 1}, {Y: 1}, {Z: 1}}}

// Apply moves a place.
func (m Motion) Apply(p V3) V3 { return m.turn(p).Add(m.T) }

// turn moves a direction.
func (m Motion) turn(p V3) V3 { return V3{m.R[0].Dot(p), m.R[1].Dot(p), m.R[2].Dot(p)} }

// then is the motion that does n first and m after it: m·n.
func (m Motion) after(n Motion) Motion {
	col := func(f func(V3) float64) V3 { return V3{f(n.R[0]), f(n.R[1]), f(n.R[2])} }
	x, y, z := col(func(v V3) float64 { return v.X }), col(func(v V3) float64 { return v.Y }), col(func(v V3) float64 { return v.Z })
	var r [3]V3
	for i, row := range m.R {
		r[i] = V3{row.Dot(x), row.Dot(y), row.Dot(z)}
	}
	return Motion{r, m.Apply(n.T)}
}

// about turns by an angle about a line through p in the direction of the unit
// vector u (Rodrigues).
func about(p, u V3, angle float64) Motion {
	s, c := math.Sincos(angle)
	k := 1 - c
	r := [3]V3{
		{c + u.X*u.X*k, u.X*u.Y*k - u.Z*s, u.X*u.Z*k + u.Y*s},
		{u.Y*u.X*k + u.Z*s, c + u.Y*u.Y*k, u.Y*u.Z*k - u.X*s},
		{u.Z*u.X*k - u.Y*s, u.Z*u.Y*k + u.X*s, c + u.Z*u.Z*k},
	}
	m := Motion{R: r}
	m.T = p.Sub(m.turn(p))
	return m
}

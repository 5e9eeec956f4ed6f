package trace

import (
	"math"

	"sectilis/core/ground/geom"
)

// bend is a polynomial laid through a stretch of a chain by least squares: v = c0 + c1·u +
// c2·u² + c3·u³ in the frame at origin along dir.
type bend struct {
	origin, dir geom.Point
	c           [4]float64
	worst, mean float64 // the largest and the root of the mean square distance of the places, pixels
}

// bendOf lays a polynomial of a degree up to 3 through the places from i to j, of a lower one
// where there are few.
func (c *chain) bendOf(i, j, degree int) bend {
	k := bend{origin: c.pts[(i+j)/2]}
	if k.dir = c.pts[j].Sub(c.pts[i]); k.dir.Len() < 1e-9 {
		k.dir = geom.Pt(1, 0)
	}
	k.dir = unit(k.dir)
	degree = min(degree, (j-i+1)/3)
	var s [7]float64
	var r [4]float64
	for at := i; at <= j; at++ {
		u, v := k.frame(c.pts[at])
		p := 1.
		for m := range 2*degree + 1 {
			s[m] += p
			if m <= degree {
				r[m] += v * p
			}
			p *= u
		}
	}
	var m system
	for n := range degree + 1 {
		copy(m[n][:degree+1], s[n:])
		m[n][degree+1] = r[n]
	}
	if x, ok := m.solve(degree + 1); ok {
		k.c = x
	}
	for at := i; at <= j; at++ {
		off := k.off(c.pts[at])
		k.worst, k.mean = max(k.worst, math.Abs(off)), k.mean+off*off
	}
	k.mean = math.Sqrt(k.mean / float64(j-i+1))
	return k
}

// off is how far a place lies to one side, or the other, of the polynomial.
func (k bend) off(p geom.Point) float64 {
	u, v := k.frame(p)
	return v - k.value(u)
}

func (k bend) value(u float64) float64 { return k.c[0] + u*(k.c[1]+u*(k.c[2]+u*k.c[3])) }

func (k bend) slope(u float64) float64 { return k.c[1] + u*(2*k.c[2]+u*3*k.c[3]) }

func (k bend) frame(p geom.Point) (u, v float64) {
	d := p.Sub(k.origin)
	return d.Dot(k.dir), k.dir.Cross(d)
}

func (k bend) at(u float64) geom.Point {
	v := k.value(u)
	return geom.Pt(k.origin.X+k.dir.X*u-k.dir.Y*v, k.origin.Y+k.dir.Y*u+k.dir.X*v)
}

// tangent is the direction at u, as far as u goes in one.
func (k bend) tangent(u float64) geom.Point {
	s := k.slope(u)
	return geom.Pt(k.dir.X-k.dir.Y*s, k.dir.Y+k.dir.X*s)
}

// meet is where two polynomials cross, near a place, by Newton's method.
func meet(p, q bend, near geom.Point) (geom.Point, bool) {
	u, _ := p.frame(near)
	w, _ := q.frame(near)
	for range 12 {
		d := p.at(u).Sub(q.at(w))
		tp, tq := p.tangent(u), q.tangent(w)
		det := tp.Cross(tq)
		if math.Abs(det) < 1e-3 {
			return geom.Point{}, false
		}
		u -= d.Cross(tq) / det
		w -= d.Cross(tp) / det
		if d.Len() < 1e-9 {
			break
		}
	}
	at := p.at(u)
	return at, p.at(u).Sub(q.at(w)).Len() < .01
}

// system is up to four linear equations, each row with its right side behind its factors.
type system [4][5]float64

// solve solves the first n by elimination with pivots; ok is false where they have no single
// solution.
func (m *system) solve(n int) (x [4]float64, ok bool) {
	for i := range n {
		p := i
		for r := i + 1; r < n; r++ {
			if math.Abs(m[r][i]) > math.Abs(m[p][i]) {
				p = r
			}
		}
		m[i], m[p] = m[p], m[i]
		if math.Abs(m[i][i]) < 1e-12 {
			return x, false
		}
		for r := i + 1; r < n; r++ {
			k := m[r][i] / m[i][i]
			for q := i; q <= n; q++ {
				m[r][q] -= k * m[i][q]
			}
		}
	}
	for i := n - 1; i >= 0; i-- {
		x[i] = m[i][n]
		for q := i + 1; q < n; q++ {
			x[i] -= m[i][q] * x[q]
		}
		x[i] /= m[i][i]
	}
	return x, true
}

package trace

import (
	"math"

	"sectilis/core/ground/geom"
)

// fitting lays a cubic between two joints through places, each at a parameter.
type fitting struct {
	i, j joint
	way  float64 // along the chain from joint to joint, pixels
	pts  []geom.Point
	us   []float64
}

// first is the cubic that the search begins with: handles of a third of the way, along the
// directions of smooth joints and along the chord at corners.
func (f *fitting) first() stroke {
	chord := f.j.p.Sub(f.i.p)
	out, in := chord.Mul(1./3), chord.Mul(-1./3)
	if !f.i.corner {
		out = f.i.dir.Mul(f.way / 3)
	}
	if !f.j.corner {
		in = f.j.dir.Mul(-f.way / 3)
	}
	return stroke{k: [4]geom.Point{f.i.p, f.i.p.Add(out), f.j.p.Add(in), f.j.p}}
}

// rounds is how many steps the search for a cubic makes at most.
const rounds = 9

// nearest moves the handles so that the squares of the places' distances from the cubic become
// least, by the method of Levenberg and Marquardt: distances are those across the cubic, where
// the places are nearest to it (Wang, Pottmann and Liu, Fitting B-spline curves to point clouds
// by curvature-based squared distance minimization, 2006). It ends early where it comes nowhere
// near tol.
func (f *fitting) nearest(s stroke, tol float64) stroke {
	sum := f.settle(&s)
	damp := 1e-3
	var us []float64
	for round := range rounds {
		next, ok := f.step(s, damp)
		if !ok {
			damp *= 20
			continue
		}
		us = append(us[:0], f.us...)
		after := f.settle(&next)
		if after >= sum {
			copy(f.us, us)
			if damp *= 20; damp > 1e3 || after < sum*1.0001 {
				break
			}
			continue
		}
		gain := sum - after
		s, sum, damp = next, after, damp/10
		if gain < .02*sum || s.off < tol/3 || round > 1 && s.off > 12*tol || round > 3 && s.off > 4*tol {
			break
		}
	}
	return s
}

// step moves the handles by one step, with a damping; false where they would run backward, or
// be longer than the way, which makes loops.
func (f *fitting) step(s stroke, damp float64) (stroke, bool) {
	// The unknowns: along its direction for the handle of a smooth joint, else x and y.
	var xs [4]struct {
		dir geom.Point
		end int
	}
	n := 0
	for end, e := range [...]joint{f.i, f.j} {
		if e.corner {
			xs[n].dir, xs[n].end, xs[n+1].dir, xs[n+1].end = geom.Pt(1, 0), end, geom.Pt(0, 1), end
			n += 2
		} else {
			xs[n].dir, xs[n].end = e.dir.Mul(float64(1-2*end)), end
			n++
		}
	}
	var m system
	var row [4]float64
	c := powersOf(s.k)
	for k, u := range f.us {
		at, along := c.at(u)
		l := math.Sqrt(along.Dot(along))
		if l < 1e-9 {
			continue
		}
		across := geom.Pt(-along.Y/l, along.X/l)
		v := 1 - u
		b := [2]float64{3 * u * v * v, 3 * u * u * v}
		off := across.Dot(f.pts[k].Sub(at))
		for r := range n {
			row[r] = b[xs[r].end] * across.Dot(xs[r].dir)
			for q := range r + 1 {
				m[r][q] += row[r] * row[q]
			}
			m[r][n] += row[r] * off
		}
	}
	trace := 0.
	for r := range n {
		trace += m[r][r]
		for q := range r {
			m[q][r] = m[r][q]
		}
	}
	for r := range n {
		m[r][r] += damp * trace / float64(n)
	}
	x, ok := m.solve(n)
	if !ok {
		return s, false
	}
	for r := range n {
		s.k[1+xs[r].end] = s.k[1+xs[r].end].Add(xs[r].dir.Mul(x[r]))
	}
	out, in := s.k[1].Sub(f.i.p), s.k[2].Sub(f.j.p)
	least := 1e-3 * f.way
	if !f.i.corner && out.Dot(f.i.dir) < least || !f.j.corner && in.Dot(f.j.dir) > -least || out.Len()+in.Len() > 1.3*f.way+1 {
		return s, false
	}
	return s, true
}

// settle moves the parameters to the nearest places on the cubic, sets how far the farthest
// place lies from it, and returns the sum of the squares of all distances.
func (f *fitting) settle(s *stroke) float64 {
	k, sum := powersOf(s.k), 0.
	s.off = 0
	for n, p := range f.pts {
		u := f.us[n]
		at, v := k.at(u)
		for range 2 {
			if vv := v.Dot(v); vv > 1e-12 {
				u = min(max(u-at.Sub(p).Dot(v)/vv, 0), 1)
				at, v = k.at(u)
			}
		}
		f.us[n] = u
		d := at.Sub(p)
		off := d.Dot(d)
		s.off = max(s.off, off)
		sum += off
	}
	s.off = math.Sqrt(s.off)
	return sum
}

// powers is a cubic as a polynomial of its parameter.
type powers [4]geom.Point

func powersOf(k [4]geom.Point) powers {
	a, b, c := k[1].Sub(k[0]), k[2].Sub(k[1]), k[3].Sub(k[2])
	return powers{k[0], a.Mul(3), b.Sub(a).Mul(3), c.Sub(b).Sub(b.Sub(a))}
}

// at is the place at u and how it moves there.
func (k *powers) at(u float64) (p, v geom.Point) {
	x3, y3 := k[3].X*u, k[3].Y*u
	p = geom.Pt(k[0].X+u*(k[1].X+u*(k[2].X+x3)), k[0].Y+u*(k[1].Y+u*(k[2].Y+y3)))
	v = geom.Pt(k[1].X+u*(2*k[2].X+3*x3), k[1].Y+u*(2*k[2].Y+3*y3))
	return p, v
}

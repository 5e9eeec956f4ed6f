package geom

import "math"

// Nearest is a place on a path that is closest to a point.
type Nearest struct {
	Ring, Curve int     // as Curves lists them
	T           float64 // on that curve
	Point       Point
	Distance    float64
}

// Nearest finds the closest place on the path, to about 1 nm. ok is false for
// an empty path.
func (p Path) Nearest(q Point) (best Nearest, ok bool) {
	best.Distance = math.Inf(1)
	for i, ring := range p.Curves() {
		for j, c := range ring {
			t := c.nearest(q, best.Distance, 1e-7)
			if t < 0 {
				continue
			}
			m := c.At(t)
			if d := m.Sub(q).Len(); d < best.Distance {
				best, ok = Nearest{i, j, t, m, d}, true
			}
		}
	}
	return best, ok
}

// nearest is the t closest to q, or -1 when no place is closer than the limit.
// Halves whose hull is farther than the best place so far are left aside; the
// rest are halved until they are as good as straight, to tol.
func (c Curve) nearest(q Point, limit, tol float64) float64 {
	s := nearestSearch{q: q, tol: tol, best: limit, found: -1}
	s.in(c, 0, 1, 50)
	return s.found
}

// passes is a t at which the curve passes q no farther away than the limit, which is small
// against the curve, or -1.
func (c Curve) passes(q Point, limit float64) float64 {
	s := nearestSearch{q: q, tol: limit / 64, best: limit, found: -1, any: true}
	s.in(c, 0, 1, 50)
	return s.found
}

type nearestSearch struct {
	q     Point
	tol   float64
	best  float64
	found float64
	any   bool // the first that is found will do
}

func (s *nearestSearch) in(c Curve, t0, t1 float64, depth int) {
	box := c.hull()
	away := Point{max(box.X-s.q.X, 0, s.q.X-box.Right()), max(box.Y-s.q.Y, 0, s.q.Y-box.Bottom())}
	if away.Len() >= s.best || s.any && s.found >= 0 {
		return
	}
	v := c.End().Sub(c.From)
	if l := v.Dot(v); depth == 0 || c.even(s.tol) {
		k := 0.0
		if l > 0 {
			k = min(max(s.q.Sub(c.From).Dot(v)/l, 0), 1)
		}
		s.take(c, k, t0, t1)
		return
	} else if s.any && depth < 48 && l > 0 {
		// Newton's method, from where the chord is nearest.
		k := s.q.Sub(c.From).Dot(v) / l
		for range 4 {
			k = min(max(k, 0), 1)
			if d := c.Derivative(k); d != (Point{}) {
				k += s.q.Sub(c.At(k)).Dot(d) / d.Dot(d)
			}
		}
		if s.take(c, min(max(k, 0), 1), t0, t1); s.found >= 0 {
			return
		}
	}
	a, b := c.Split(.5)
	m := (t0 + t1) / 2
	// The likelier half first.
	if a.From.Sub(s.q).Len() <= b.End().Sub(s.q).Len() {
		s.in(a, t0, m, depth-1)
		s.in(b, m, t1, depth-1)
	} else {
		s.in(b, m, t1, depth-1)
		s.in(a, t0, m, depth-1)
	}
}

// take keeps the place at k of a part of the curve if it is the closest so far.
func (s *nearestSearch) take(c Curve, k, t0, t1 float64) {
	if d := c.At(k).Sub(s.q).Len(); d < s.best {
		s.best, s.found = d, t0+(t1-t0)*k
	}
}

// even reports whether the curve is within tol of the line between its ends,
// run at an even pace.
func (c Curve) even(tol float64) bool {
	switch c.Op {
	case QuadTo, CubicTo:
		k := cubic(c.From, c.Segment)
		return k[0].Sub(k[1].Mul(2)).Add(k[2]).Len() < tol && k[1].Sub(k[2].Mul(2)).Add(k[3]).Len() < tol
	case ArcTo:
		w := c.Arc.To - c.Arc.From
		return max(c.Arc.U.Len(), c.Arc.V.Len())*w*w/4 < tol
	}
	return true
}

// Winding counts how often the closed rings run round q, clockwise on screen
// counted positive; open strokes count as if closed. Curves are cut where they
// turn in y, so that each piece is met once at most.
func (p Path) Winding(q Point) int {
	n := 0
	for _, ring := range p.Curves() {
		if len(ring) == 0 {
			continue
		}
		first, last := ring[0].From, ring[len(ring)-1].End()
		if first != last {
			ring = append(ring, Curve{last, Segment{Op: LineTo, P: [3]Point{first}}})
		}
		for _, c := range ring {
			n += c.crossing(q)
		}
	}
	return n
}

// turns are the t inside (0, 1) where y is largest or smallest.
func (c Curve) turns() []float64 {
	switch c.Op {
	case QuadTo, CubicTo:
		k := cubic(c.From, c.Segment)
		return turning(k[0].Y, k[1].Y, k[2].Y, k[3].Y)
	case ArcTo:
		var out []float64
		w := c.Arc.To - c.Arc.From
		at := math.Atan2(c.Arc.V.Y, c.Arc.U.Y)
		lo, hi := min(c.Arc.From, c.Arc.To), max(c.Arc.From, c.Arc.To)
		for k := math.Ceil((lo - at) / math.Pi); at+k*math.Pi < hi; k++ {
			out = append(out, (at+k*math.Pi-c.Arc.From)/w)
		}
		return out
	}
	return nil
}

// crossing counts the crossings of the ray from q to the right, downward ones
// positive.
func (c Curve) crossing(q Point) int {
	stops := append([]float64{0, 1}, c.turns()...)
	// Three turns at most: a simple sort will do.
	for i := range stops {
		for j := i + 1; j < len(stops); j++ {
			if stops[j] < stops[i] {
				stops[i], stops[j] = stops[j], stops[i]
			}
		}
	}
	n := 0
	for i := 1; i < len(stops); i++ {
		lo, hi := stops[i-1], stops[i]
		a, b := c.At(lo).Y, c.At(hi).Y
		down := a <= q.Y && b > q.Y
		if !down && !(a > q.Y && b <= q.Y) {
			continue
		}
		for range 60 {
			m := (lo + hi) / 2
			if (c.At(m).Y > q.Y) == down {
				hi = m
			} else {
				lo = m
			}
		}
		if c.At(lo).X <= q.X {
			continue
		}
		if down {
			n++
		} else {
			n--
		}
	}
	return n
}

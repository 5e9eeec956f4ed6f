package geom

import "math"

// A curve enters the arrangement as chords. Far from everything else a few
// chords will do; near other outlines they must be as good as the curve. So
// each curve is halved until it and whatever it might touch can be kept apart
// by a straight line, or until it is flat to a unit of the grid. Chords lie
// within the hulls of their curves, so chords of curves that are apart cross
// nothing that the curves do not.

// flatness is how far in grid units a curve may leave its chord and still pass
// for straight.
const flatness = 1

// piece is a stretch of a curve between two parameters, with a hull of two to
// four points in grid units. Pieces form trees by halving; leaves become
// chords.
type piece struct {
	base   int32
	half   int32 // index of the first of two halves, 0 for a leaf
	n      int8
	flat   bool
	t0, t1 float64
	p      [4]Point
	a, b   ipoint // ends on the grid
}

type pieces struct {
	base []Curve // in millimetres
	in   Affine  // to grid units
	stop *ending
	n    uint32
	tree []piece
}

// add appends the piece of a curve between two parameters and returns its
// index.
func (ps *pieces) add(base int32, t0, t1 float64) int32 {
	return ps.push(piece{base: base, t0: t0, t1: t1}, ps.base[base].between(t0, t1).transform(ps.in))
}

func (ps *pieces) push(q piece, c Curve) int32 {
	end := c.End()
	switch c.Op {
	case QuadTo:
		q.n, q.p = 3, [4]Point{c.From, c.P[0], end}
	case CubicTo:
		q.n, q.p = 4, [4]Point{c.From, c.P[0], c.P[1], end}
	case ArcTo:
		// Where the tangents at the ends meet.
		k := math.Tan((c.Arc.To - c.Arc.From) / 2)
		q.n, q.p = 3, [4]Point{c.From, c.From.Add(c.Arc.derivative(c.Arc.From, 1).Mul(k)), end}
	default:
		q.n, q.p = 2, [4]Point{c.From, end}
	}
	q.a, q.b = round(c.From), round(end)
	q.flat = q.n == 2 || q.bulge() <= flatness || q.size() <= 2*flatness
	ps.tree = append(ps.tree, q)
	return int32(len(ps.tree) - 1)
}

// bulge is how far the hull leaves the chord.
func (q *piece) bulge() float64 {
	v := q.p[q.n-1].Sub(q.p[0])
	l := v.Len()
	if l == 0 {
		return q.size()
	}
	worst := 0.0
	for _, c := range q.p[1 : q.n-1] {
		worst = max(worst, math.Abs(v.Cross(c.Sub(q.p[0])))/l)
		// A control beyond the chord's ends may carry the curve beyond them.
		if k := c.Sub(q.p[0]).Dot(v) / l; k < 0 || k > l {
			worst = max(worst, -k, k-l)
		}
	}
	return worst
}

func (q *piece) box() Rect {
	lo, hi := q.p[0], q.p[0]
	for _, p := range q.p[1:q.n] {
		lo = Point{min(lo.X, p.X), min(lo.Y, p.Y)}
		hi = Point{max(hi.X, p.X), max(hi.Y, p.Y)}
	}
	return Rect{lo.X, lo.Y, hi.X - lo.X, hi.Y - lo.Y}
}

func (q *piece) size() float64 {
	worst := 0.0
	for _, c := range q.p[1:q.n] {
		d := c.Sub(q.p[0])
		worst = max(worst, math.Abs(d.X), math.Abs(d.Y))
	}
	return worst
}

// steady reports whether the piece runs forward along its chord all the way,
// so that it cannot meet itself, and is slim enough to be kept apart from
// others.
func (q *piece) steady() bool {
	if q.flat {
		return true
	}
	v := q.p[q.n-1].Sub(q.p[0])
	for i := range q.n - 1 {
		if q.p[i+1].Sub(q.p[i]).Dot(v) <= 0 {
			return false
		}
	}
	return q.bulge() <= .3*v.Len()
}

// halves returns the two halves of a piece, made on first use.
func (ps *pieces) halves(i int32) (a, b int32) {
	q := ps.tree[i]
	if q.half == 0 {
		m := (q.t0 + q.t1) / 2
		var l, r Curve
		switch q.n {
		case 3, 4:
			if c := ps.base[q.base]; c.Op == ArcTo {
				l, r = c.between(q.t0, m).transform(ps.in), c.between(m, q.t1).transform(ps.in)
				// Ends are kept as they are, so that the chain has no gaps.
				l.From, r.P[0] = q.p[0], q.p[2]
				r.From = l.P[0]
			} else {
				op := CubicTo
				if q.n == 3 {
					op = QuadTo
				}
				c := Curve{q.p[0], Segment{Op: op, P: [3]Point{q.p[1], q.p[2], q.p[3]}}}
				l, r = c.Split(.5)
			}
		}
		first := ps.push(piece{base: q.base, t0: q.t0, t1: m}, l)
		ps.push(piece{base: q.base, t0: m, t1: q.t1}, r)
		ps.tree[i].half, q.half = first, first
	}
	return q.half, q.half + 1
}

// roots cuts a stretch of a curve into steady pieces.
func (ps *pieces) roots(base int32, t0, t1 float64, out []int32) []int32 {
	if c := ps.base[base]; c.Op == ArcTo {
		// Tangents at the ends meet only below half a turn.
		if n := int(math.Ceil(math.Abs(c.Arc.To-c.Arc.From) * (t1 - t0) / 1.6)); n > 1 {
			at := t0
			for i := 1; i <= n; i++ {
				to := t0 + (t1-t0)*float64(i)/float64(n)
				if i == n {
					to = t1
				}
				out = ps.grow(ps.add(base, at, to), out, 0)
				at = to
			}
			return out
		}
	}
	return ps.grow(ps.add(base, t0, t1), out, 0)
}

func (ps *pieces) grow(i int32, out []int32, depth int) []int32 {
	if ps.tree[i].steady() || depth > 60 {
		return append(out, i)
	}
	a, b := ps.halves(i)
	return ps.grow(b, ps.grow(a, out, depth+1), depth+1)
}

// part keeps halving two pieces until they are apart or flat.
func (ps *pieces) part(i, j int32) {
	p, q := &ps.tree[i], &ps.tree[j]
	if p.flat && q.flat || ps.stop.now(&ps.n) || apart(p, q) {
		return
	}
	if q.flat || !p.flat && p.bulge() >= q.bulge() {
		a, b := ps.halves(i)
		ps.part(a, j)
		ps.part(b, j)
		return
	}
	a, b := ps.halves(j)
	ps.part(i, a)
	ps.part(i, b)
}

// clearance is how far apart hulls must be, so that rounding cannot bring
// their chords together.
const clearance = 3

// apart reports whether the hulls of two pieces meet nowhere but in an end that
// both share.
func apart(p, q *piece) bool {
	switch {
	case p.a == p.b || q.a == q.b:
		// A speck, or a closed loop, which cones say nothing of.
	case p.a == q.a && p.b == q.b || p.a == q.b && p.b == q.a:
		return false // their chords would be one
	case p.a == q.a:
		return partFromEnd(p, q, false, false)
	case p.a == q.b:
		return partFromEnd(p, q, false, true)
	case p.b == q.a:
		return partFromEnd(p, q, true, false)
	case p.b == q.b:
		return partFromEnd(p, q, true, true)
	}
	return stripsApart(p, q) || stripsApart(q, p)
}

// partFromEnd is apart for two pieces that share an end; last says whether it is
// the last point of each. It is not enough that they part there: a chord passes
// nearer to the other's far end than its curve does, and must not catch it.
func partFromEnd(p, q *piece, lastP, lastQ bool) bool {
	return conesApart(p.p[:p.n], q.p[:q.n], lastP, lastQ) && p.misses(q.far(lastQ)) && q.misses(p.far(lastP))
}

// far is the end of a piece other than its first, or its last.
func (q *piece) far(last bool) Point {
	if last {
		return q.p[0]
	}
	return q.p[q.n-1]
}

// misses reports whether the chord of a piece that is not flat keeps clear of a
// place.
func (q *piece) misses(c Point) bool {
	if q.flat {
		return true
	}
	o := q.p[0]
	v := q.p[q.n-1].Sub(o)
	k := min(max(c.Sub(o).Dot(v)/v.Dot(v), 0), 1)
	return o.Add(v.Mul(k)).Sub(c).Len() > clearance
}

// stripsApart tries the axes along and across the chord of p.
func stripsApart(p, q *piece) bool {
	v := p.p[p.n-1].Sub(p.p[0])
	l := v.Len()
	if l == 0 {
		v, l = Point{1, 0}, 1
	}
	v = v.Mul(1 / l)
	for _, axis := range [2]Point{v, {-v.Y, v.X}} {
		lo, hi := math.Inf(1), math.Inf(-1)
		for _, c := range p.p[:p.n] {
			k := c.Dot(axis)
			lo, hi = min(lo, k), max(hi, k)
		}
		l2, h2 := math.Inf(1), math.Inf(-1)
		for _, c := range q.p[:q.n] {
			k := c.Dot(axis)
			l2, h2 = min(l2, k), max(h2, k)
		}
		if l2 > hi+clearance || h2 < lo-clearance {
			return true
		}
	}
	return false
}

// conesApart reports whether two hulls with a common end have no direction in
// common as seen from there; last says whether it is the last point of each.
func conesApart(p, q []Point, lastP, lastQ bool) bool {
	a, b := cone(p, lastP)
	c, d := cone(q, lastQ)
	return !within(a, b, c) && !within(a, b, d) && !within(c, d, a) && !within(c, d, b)
}

// cone is the first and the last direction, turning to greater y, in which the
// other points are seen from one end. A steady piece fills less than half a
// turn.
func cone(p []Point, last bool) (a, b Point) {
	n := len(p)
	at := func(i int) Point {
		if last {
			return p[n-1-i].Sub(p[n-1])
		}
		return p[i].Sub(p[0])
	}
	a = at(1)
	b = a
	for i := 2; i < n; i++ {
		v := at(i)
		if a.Cross(v) < 0 || a == (Point{}) {
			a = v
		}
		if b.Cross(v) > 0 || b == (Point{}) {
			b = v
		}
	}
	return a, b
}

// within reports whether a direction lies in the cone from a to b.
func within(a, b, v Point) bool {
	const slack = 1e-9
	l := v.Len()
	return a.Cross(v) >= -slack*a.Len()*l && v.Cross(b) >= -slack*b.Len()*l && (a.Dot(v) > 0 || b.Dot(v) > 0)
}

// leaves lists the leaves under a piece in their order.
func (ps *pieces) leaves(i int32, out []int32) []int32 {
	if ps.tree[i].half == 0 {
		return append(out, i)
	}
	h := ps.tree[i].half
	return ps.leaves(h+1, ps.leaves(h, out))
}

package geom

import (
	"container/heap"
	"math"
)

// Gap is the way between two paths where they are closest.
type Gap struct {
	Distance float64 // mm
	A, B     Point   // on the outline of the one and of the other
}

// Distance is the gap between the outlines of two paths, to a nanometre; it is 0 mm where
// they meet. ok is false when one of them is empty. What a path covers does not count: an
// outline within another has a distance from it.
//
// Pairs of curves are taken nearest boxes first and halved until both are as good as
// straight (branch and bound).
func Distance(a, b Path) (gap Gap, ok bool) {
	gap.Distance = math.Inf(1)
	var q pairQueue
	for _, ca := range a.Curves() {
		for _, c := range ca {
			for _, cb := range b.Curves() {
				for _, d := range cb {
					q.add(c, d, math.Inf(1))
				}
			}
		}
	}
	heap.Init(&q)
	for q.Len() > 0 && q[0].least < gap.Distance {
		p := heap.Pop(&q).(curvePair)
		c, d := p.c, p.d
		straightC, straightD := c.even(5e-8), d.even(5e-8)
		if straightC && straightD {
			if g := between(c.From, c.End(), d.From, d.End()); g.Distance < gap.Distance {
				gap = g
			}
			ok = true
			continue
		}
		if straightD || !straightC && c.hull().span() >= d.hull().span() {
			u, v := c.Split(.5)
			q.push(u, d, gap.Distance)
			q.push(v, d, gap.Distance)
		} else {
			u, v := d.Split(.5)
			q.push(c, u, gap.Distance)
			q.push(c, v, gap.Distance)
		}
	}
	return gap, ok
}

func (r Rect) span() float64 { return max(r.W, r.H) }

// between is the gap between two straight lines.
func between(a, b, c, d Point) Gap {
	v, w := b.Sub(a), d.Sub(c)
	if den := v.Cross(w); den != 0 {
		t, u := c.Sub(a).Cross(w)/den, c.Sub(a).Cross(v)/den
		if t >= 0 && t <= 1 && u >= 0 && u <= 1 {
			p := a.Add(v.Mul(t))
			return Gap{0, p, p}
		}
	}
	best := Gap{Distance: math.Inf(1)}
	take := func(p, q Point) {
		if l := p.Sub(q).Len(); l < best.Distance {
			best = Gap{l, p, q}
		}
	}
	take(a, foot(a, c, d))
	take(b, foot(b, c, d))
	take(foot(c, a, b), c)
	take(foot(d, a, b), d)
	return best
}

// foot is the place on the line from a to b that is closest to p.
func foot(p, a, b Point) Point {
	v := b.Sub(a)
	l := v.Dot(v)
	if l == 0 {
		return a
	}
	return a.Add(v.Mul(min(max(p.Sub(a).Dot(v)/l, 0), 1)))
}

type curvePair struct {
	c, d  Curve
	least float64 // between their boxes
}

// pairQueue is a heap of pairs of curves, those that may be closest first.
type pairQueue []curvePair

func (q pairQueue) Len() int           { return len(q) }
func (q pairQueue) Less(i, j int) bool { return q[i].least < q[j].least }
func (q pairQueue) Swap(i, j int)      { q[i], q[j] = q[j], q[i] }
func (q *pairQueue) Push(x any)        { *q = append(*q, x.(curvePair)) }
func (q *pairQueue) Pop() any {
	n := len(*q) - 1
	p := (*q)[n]
	*q = (*q)[:n]
	return p
}

func (q *pairQueue) add(c, d Curve, limit float64) bool {
	r, s := c.hull(), d.hull()
	away := Point{max(r.X-s.Right(), 0, s.X-r.Right()), max(r.Y-s.Bottom(), 0, s.Y-r.Bottom())}
	if away.Len() >= limit {
		return false
	}
	*q = append(*q, curvePair{c, d, away.Len()})
	return true
}

func (q *pairQueue) push(c, d Curve, limit float64) {
	if q.add(c, d, limit) {
		heap.Fix(q, q.Len()-1)
	}
}

// Contains reports whether a covers all that b covers, to a nanometre.
func Contains(rule FillRule, a, b Path) bool { return Difference(rule, b, a).Empty() }

// Touches reports whether the outlines come within tol mm of each other and nothing is
// covered by both but what lies as near the edge of each.
func Touches(rule FillRule, a, b Path, tol float64) bool {
	gap, ok := Distance(a, b)
	if !ok || gap.Distance > tol {
		return false
	}
	common := Intersection(rule, a, b)
	return Offset(common, -tol, RoundCorner).Empty()
}

package arrange

import (
	"container/heap"
	"math"

	"sectilis/core/ground/geom"
)

// square is a part of the plane that may hold the middle of a larger circle.
type square struct {
	c     geom.Point
	half  float64
	d     float64 // from the middle to the nearest side
	bound float64 // no circle with its middle in here is larger
}

type squares []square

func (q squares) Len() int           { return len(q) }
func (q squares) Less(i, j int) bool { return q[i].bound > q[j].bound }
func (q squares) Swap(i, j int)      { q[i], q[j] = q[j], q[i] }
func (q *squares) Push(s any)        { *q = append(*q, s.(square)) }
func (q *squares) Pop() any {
	last := (*q)[len(*q)-1]
	*q = (*q)[:len(*q)-1]
	return last
}

// circleTolerance is how much larger another circle could be, mm.
const circleTolerance = .002

// roundest is the largest circle that holds the origin and crosses no side.
func roundest(sides []segment) (geom.Point, float64) {
	dist := func(p geom.Point) float64 {
		best := math.Inf(1)
		for _, s := range sides {
			best = min(best, s.distance2(p))
		}
		return math.Sqrt(best)
	}
	// The circle about the origin bounds nothing yet, but every circle with the
	// origin in it has its middle within the distance to the farthest side.
	best, radius := geom.Point{}, dist(geom.Point{})
	reach := 0.
	for _, s := range sides {
		reach = max(reach, s.a.Len())
	}
	q := &squares{}
	add := func(c geom.Point, half float64) {
		d := dist(c)
		bound := d + half*math.Sqrt2
		// Its nearest middle must be no farther from the origin than its radius.
		gap := geom.Pt(max(math.Abs(c.X)-half, 0), max(math.Abs(c.Y)-half, 0)).Len()
		if gap <= bound && bound > radius+circleTolerance {
			heap.Push(q, square{c, half, d, bound})
		}
		if c.Len() <= d && d > radius {
			best, radius = c, d
		}
	}
	add(geom.Point{}, reach)
	for q.Len() > 0 {
		s := heap.Pop(q).(square)
		if s.bound <= radius+circleTolerance {
			break
		}
		h := s.half / 2
		for _, k := range []geom.Point{{X: -h, Y: -h}, {X: h, Y: -h}, {X: -h, Y: h}, {X: h, Y: h}} {
			add(s.c.Add(k), h)
		}
	}
	return best, radius
}

// distance2 is the square of the distance from a point.
func (s segment) distance2(p geom.Point) float64 {
	d := s.b.Sub(s.a)
	k := 0.
	if n := d.Dot(d); n > 0 {
		k = min(max(p.Sub(s.a).Dot(d)/n, 0), 1)
	}
	off := p.Sub(s.a).Sub(d.Mul(k))
	return off.Dot(off)
}

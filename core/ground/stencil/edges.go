package stencil

import (
	"math"

	"sectilis/core/ground/geom"
)

// edgeIndex finds whether a place is on the edge of an outline: its flattened edge, by the
// squares of a grid that each piece runs through.
type edgeIndex struct {
	cell  float64
	cells map[[2]int][][2]geom.Point
}

// indexFlat is how near the flattened edge is to the outline, and onEdge how near a place that
// is on it may be to that, mm.
const (
	indexFlat = 5e-4
	onEdge    = 3e-3
)

func newEdgeIndex(p geom.Path) *edgeIndex {
	x := &edgeIndex{cell: .5, cells: map[[2]int][][2]geom.Point{}}
	for _, l := range p.Flatten(indexFlat) {
		n := len(l.Points)
		for i := range n {
			if i == n-1 && !l.Closed {
				break
			}
			x.add(l.Points[i], l.Points[(i+1)%n])
		}
	}
	return x
}

// add notes a piece in all squares that its box meets, long ones bit by bit.
func (x *edgeIndex) add(a, b geom.Point) {
	n := int(math.Ceil(b.Sub(a).Len()/x.cell)) + 1
	for i := range n {
		p, q := a.Lerp(b, float64(i)/float64(n)), a.Lerp(b, float64(i+1)/float64(n))
		for u := x.at(min(p.X, q.X) - onEdge); u <= x.at(max(p.X, q.X)+onEdge); u++ {
			for v := x.at(min(p.Y, q.Y) - onEdge); v <= x.at(max(p.Y, q.Y)+onEdge); v++ {
				x.cells[[2]int{u, v}] = append(x.cells[[2]int{u, v}], [2]geom.Point{p, q})
			}
		}
	}
}

func (x *edgeIndex) at(v float64) int { return int(math.Floor(v / x.cell)) }

// on reports whether a place is on the edge.
func (x *edgeIndex) on(p geom.Point) bool {
	for _, e := range x.cells[[2]int{x.at(p.X), x.at(p.Y)}] {
		if apartFrom(p, e[0], e[1]) <= onEdge {
			return true
		}
	}
	return false
}

// apartFrom is how far a point is from a straight piece.
func apartFrom(p, a, b geom.Point) float64 {
	d := b.Sub(a)
	k := 0.0
	if l := d.Dot(d); l > 0 {
		k = min(max(p.Sub(a).Dot(d)/l, 0), 1)
	}
	return p.Sub(a.Lerp(b, k)).Len()
}

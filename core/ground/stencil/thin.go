package stencil

import (
	"math"

	"sectilis/core/ground/geom"
)

// Thin is a part of an outline that is thinner than a limit. A tip ends in the open, such as
// the point of a wedge; others lie between parts that are not thin, or are a piece as a whole.
type Thin struct {
	Region geom.Path
	Tip    bool
}

// Thinner returns the parts of an outline that are thinner than a limit, mm: what no disc of
// that diameter covers that lies within the outline (the local thickness of Hildebrand and
// Rüegsegger, "A new method for the model-independent assessment of thickness", 1997, here by
// opening with exact offsets). Corners do not count, since a disc reaches into none: a tip is
// longer than the limit, so sharper than 39 degrees.
func Thinner(p geom.Path, limit float64) []Thin {
	open := opened(p, limit)
	rest := p
	if !open.Empty() {
		rest = geom.Difference(geom.NonZero, p, open)
	}
	edge := newEdgeIndex(p)
	var out []Thin
	for _, q := range parts(rest) {
		if q.area < speck || q.area < hair*q.outer.Length()/2 {
			continue
		}
		region := q.path()
		if thin, tip := isThin(region, edge, limit); thin {
			out = append(out, Thin{region, tip})
		}
	}
	return out
}

// speck is the area of a part that is left aside, mm²; hair the mean width of one.
const (
	speck = 1e-4
	hair  = 2e-3
)

// opened is what discs of a diameter cover that lie within an outline.
func opened(p geom.Path, width float64) geom.Path {
	return geom.Offset(geom.Offset(p, -width/2, geom.RoundCorner), width/2, geom.RoundCorner)
}

// isThin tells a thin part from a corner: it lies between several places of what was opened,
// by itself, or is a tip that reaches farther from that than its width.
func isThin(region geom.Path, edge *edgeIndex, width float64) (thin, tip bool) {
	runs := 0
	var opening [][2]geom.Point // where it meets what was opened
	var outer []geom.Point
	for _, ring := range region.Curves() {
		var inner []bool
		for _, c := range ring {
			in := !edge.on(c.At(.5))
			inner = append(inner, in)
			const pieces = 6
			for k := range pieces {
				a, b := c.At(float64(k)/pieces), c.At(float64(k+1)/pieces)
				if in {
					opening = append(opening, [2]geom.Point{a, b})
				} else {
					outer = append(outer, a, b)
				}
			}
		}
		for i, in := range inner {
			if in && !inner[(i+len(inner)-1)%len(inner)] {
				runs++
			}
		}
	}
	if len(opening) == 0 || runs > 1 {
		return true, false
	}
	for _, at := range outer {
		near := math.Inf(1)
		for _, o := range opening {
			near = min(near, apartFrom(at, o[0], o[1]))
		}
		if near > width {
			return true, true
		}
	}
	return false, false
}

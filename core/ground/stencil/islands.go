// Package stencil looks after what falls out of an outline that is cut: islands, which lie in
// holes and touch nothing, are found, and held by bridges. Lengths are mm. It is on the ground
// floor of core and stands on geom alone.
package stencil

import (
	"cmp"
	"math"
	"slices"

	"sectilis/core/ground/geom"
)

// part is a connected part of a region: its outer ring and its holes.
type part struct {
	outer geom.Path
	holes []geom.Path
	// in is the part in whose hole it lies, and hole that hole; in is -1 for one that lies in
	// none.
	in    int
	hole  geom.Path
	depth int // in how many holes it lies
	area  float64
}

// path is the part as a region.
func (p part) path() geom.Path {
	return geom.Join(append([]geom.Path{p.outer}, p.holes...)...)
}

// parts are the connected parts of a clean outline, those that hold others before them. Rings
// are outer ones where they run clockwise on screen, as geom.Union leaves them.
func parts(p geom.Path) []part {
	type ring struct {
		path geom.Path
		area float64
		box  geom.Rect
		at   geom.Point // on it
	}
	var outer, holes []ring
	for _, r := range p.Rings() {
		curves := r.Curves()
		if !r.Closed() || len(curves) == 0 || len(curves[0]) == 0 {
			continue
		}
		g := ring{r, r.Area(), r.Bounds(), curves[0][0].At(.5)}
		if g.area > 0 {
			outer = append(outer, g)
		} else if g.area < 0 {
			holes = append(holes, g)
		}
	}
	// inside is the smallest of some rings that holds a ring; -1 if none does.
	inside := func(g ring, of []ring) int {
		best, least := -1, math.Inf(1)
		for i, o := range of {
			if a := math.Abs(o.area); a < least && a > math.Abs(g.area) && o.box.Contains(g.box, 1e-6) && o.path.Winding(g.at) != 0 {
				best, least = i, a
			}
		}
		return best
	}
	slices.SortStableFunc(outer, func(a, b ring) int { return cmp.Compare(b.area, a.area) })
	out := make([]part, len(outer))
	for i, g := range outer {
		out[i] = part{outer: g.path, in: -1, area: g.area}
	}
	of := make([]int, len(holes)) // the part that each hole is in
	for i, h := range holes {
		if of[i] = inside(h, outer); of[i] >= 0 {
			out[of[i]].holes = append(out[of[i]].holes, h.path)
			out[of[i]].area += h.area
		}
	}
	for i, g := range outer { // the larger ones come first
		if h := inside(g, holes); h >= 0 && of[h] >= 0 && of[h] != i {
			out[i].in, out[i].hole, out[i].depth = of[h], holes[h].path, out[of[h]].depth+1
		}
	}
	return out
}

// Parts are the connected parts of a clean outline, each with its holes, the largest first.
func Parts(p geom.Path) []geom.Path {
	var out []geom.Path
	for _, q := range parts(p) {
		out = append(out, q.path())
	}
	return out
}

// Islands are the parts of a clean outline that lie in holes of others: when the holes fall
// away, they do too. Each comes with its own holes.
func Islands(p geom.Path) []geom.Path {
	var out []geom.Path
	for _, q := range parts(p) {
		if q.in >= 0 {
			out = append(out, q.path())
		}
	}
	return out
}

// WithoutIslands is a clean outline without its islands, and without what lies in those.
func WithoutIslands(p geom.Path) geom.Path {
	var out []geom.Path
	for _, q := range parts(p) {
		if q.in < 0 {
			out = append(out, q.path())
		}
	}
	return geom.Join(out...)
}

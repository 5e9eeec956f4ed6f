package lettering

import (
	"math"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// How far a bar reaches up into the feet of letters, in its thickness, how far apart the points
// are that a bar along a curve is laid through, ems, and how near it comes to them, mm.
const (
	intoFeet     = .25
	barStep      = .05
	barTolerance = .005
)

// bar is the bar along the feet of a line, from its first letter to its last, that holds the
// letters together; empty for a line without letters. thick is in mm.
func (l line) bar(number int, place placing, size, thick float64) geom.Path {
	if len(l.glyphs) == 0 || thick <= 0 {
		return geom.Path{}
	}
	from, to := math.Inf(1), math.Inf(-1)
	for _, g := range l.glyphs {
		c := l.clusters[g.in]
		from, to = min(from, c.left), max(to, c.right)
	}
	top, foot := -intoFeet*thick/size, (1-intoFeet)*thick/size
	at := func(x, y float64) geom.Point { return place(number, x).Apply(geom.Pt(x, y)) }
	n := int(math.Ceil((to - from) / barStep))
	var upper, lower []geom.Point
	for i := range n + 1 {
		x := from + (to-from)*float64(i)/float64(n)
		upper, lower = append(upper, at(x, top)), append(lower, at(to-(x-from), foot))
	}
	ring := append(upper, lower...)
	return geom.Union(geom.NonZero, geom.Fit(geom.Polyline{Points: ring, Closed: true}, barTolerance, .5))
}

// barsOf are the bars of the lines of words.
func barsOf(w card.Words) (out []geom.Path) {
	if w.Bar <= 0 {
		return nil
	}
	s := newShaper(w)
	set := Setting{Size: w.Size}
	lines := s.broken(&set)
	place := s.place(lines, &set)
	for i, l := range lines {
		out = append(out, l.bar(i, place, set.Size, w.Bar))
	}
	return out
}

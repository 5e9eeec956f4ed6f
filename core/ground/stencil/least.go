package stencil

import (
	"math"
	"slices"

	"sectilis/core/ground/geom"
)

// Sampling of edges, mm, and how far apart two places at least are where a disc touches an
// outline across it, seen from its middle, radians: at a corner of 60 degrees it is 120.
const (
	sampling = .04
	across   = 2 * math.Pi / 3
)

// place is a place of the edge of an outline, with the direction into it.
type place struct{ at, inward geom.Point }

// disc is one that lies in an outline and touches it on both sides.
type disc struct {
	middle geom.Point
	radius float64
}

// Least is the least width, mm, of the parts of an outline that are thinner than a limit, as
// Thinner finds them: that of the smallest disc that lies in the outline and touches it on both
// sides in one of them. What runs to a point does not count there; it is the limit where there
// are no others.
func Least(p geom.Path, thin []Thin, limit float64) float64 {
	least := limit
	thin = slices.DeleteFunc(slices.Clone(thin), func(t Thin) bool { return t.Tip })
	for _, run := range discs(p, thin, limit) {
		for _, d := range withoutPoints(run, limit) {
			least = min(least, 2*d.radius)
		}
	}
	return least
}

// pointed is how thin a part is where it ends in a point, in limits.
const pointed = .15

// withoutPoints are the discs of a run that are not nearer than the limit to an end of it where
// it runs to a point.
func withoutPoints(run []disc, limit float64) []disc {
	trim := func() {
		way := 0.0
		for len(run) > 1 && way < limit {
			way += run[1].middle.Sub(run[0].middle).Len()
			run = run[1:]
		}
		if way < limit {
			run = nil
		}
	}
	for range 2 {
		if len(run) > 0 && 2*run[0].radius < pointed*limit {
			trim()
		}
		run = slices.Clone(run)
		slices.Reverse(run)
	}
	return run
}

// Thicken is an outline with its thin parts, as Thinner finds them, grown to a limit, mm: by
// what a disc of that diameter covers which runs along their middle (the medial axis).
func Thicken(p geom.Path, thin []Thin, limit float64) geom.Path {
	grown := []geom.Path{p}
	for _, run := range discs(p, thin, limit) {
		var line geom.Polyline
		for _, d := range run {
			line.Points = append(line.Points, d.middle)
		}
		round := geom.EllipsePath(geom.Centred(limit, limit)).Transform(geom.Shift(line.Points[0].X, line.Points[0].Y))
		if middle := geom.Fit(line, fitted, math.Pi/6); middle.Length() > sampling {
			round = geom.Stroke(middle, limit, geom.RoundCorner, geom.RoundCap)
		}
		grown = append(grown, round)
	}
	if len(grown) == 1 {
		return p
	}
	return geom.Union(geom.NonZero, grown...)
}

// fitted is how near the curves through the middles of discs are to them, mm.
const fitted = .004

// discs are the discs along the thin parts of an outline, in runs side by side. One that touches
// at a point with the inward direction n and at q has the radius |q-p|² / 2n·(q-p), so the
// largest one within is the least of these (Ma, Bae and Choi, "3D medial axis point
// approximation using nearest neighbors and the normal field", 2012).
func discs(p geom.Path, thin []Thin, limit float64) [][]disc {
	if len(thin) == 0 {
		return nil
	}
	in := newThinIndex(thin)
	all := newPlaces(p, limit)
	var out [][]disc
	var run []disc
	end := func() {
		if len(run) > 0 {
			out, run = append(out, run), nil
		}
	}
	for _, a := range all.places {
		d, touch := all.largest(a)
		one, other := a.at.Sub(d.middle), touch.Sub(d.middle)
		if 2*d.radius >= limit || math.Abs(math.Atan2(one.Cross(other), one.Dot(other))) < across-1e-3 || !in.has(a.at) {
			end()
			continue
		}
		if n := len(run); n > 0 && run[n-1].middle.Sub(d.middle).Len() > 5*sampling {
			end()
		}
		run = append(run, d)
	}
	end()
	return out
}

// places are those of an edge, by the squares of a grid as large as the limit.
type places struct {
	places []place
	limit  float64
	cells  map[[2]int][]int
}

func newPlaces(p geom.Path, limit float64) *places {
	out := &places{limit: limit, cells: map[[2]int][]int{}}
	for _, ring := range p.Curves() {
		for _, c := range ring {
			n := int(math.Ceil(c.Length()/sampling)) + 1
			for i := range n {
				t := (float64(i) + .5) / float64(n)
				at, ahead := c.At(t), c.Tangent(t)
				k := out.cell(at)
				out.cells[k] = append(out.cells[k], len(out.places))
				// Rings run clockwise about what is filled.
				out.places = append(out.places, place{at, geom.Pt(-ahead.Y, ahead.X)})
			}
		}
	}
	return out
}

func (x *places) cell(p geom.Point) [2]int {
	return [2]int{int(math.Floor(p.X / x.limit)), int(math.Floor(p.Y / x.limit))}
}

// largest is the largest disc within the outline that touches it at a place, and where it
// touches it again; one of more than half the limit may be too large.
func (x *places) largest(a place) (d disc, touch geom.Point) {
	d.radius = math.Inf(1)
	k := x.cell(a.at)
	for u := k[0] - 1; u <= k[0]+1; u++ {
		for v := k[1] - 1; v <= k[1]+1; v++ {
			for _, j := range x.cells[[2]int{u, v}] {
				to := x.places[j].at.Sub(a.at)
				if n := to.Dot(a.inward); n > 1e-9 {
					if r := to.Dot(to) / (2 * n); r < d.radius {
						d.radius, touch = r, x.places[j].at
					}
				}
			}
		}
	}
	d.middle = a.at.Add(a.inward.Mul(d.radius))
	return d, touch
}

// thinIndex finds whether a place is on the edge of a thin part.
type thinIndex struct {
	boxes []geom.Rect
	edges []*edgeIndex
}

func newThinIndex(thin []Thin) thinIndex {
	var x thinIndex
	for _, t := range thin {
		x.boxes, x.edges = append(x.boxes, t.Region.Bounds().Grow(onEdge)), append(x.edges, newEdgeIndex(t.Region))
	}
	return x
}

func (x thinIndex) has(p geom.Point) bool {
	for i, b := range x.boxes {
		if b.Has(p) && x.edges[i].on(p) {
			return true
		}
	}
	return false
}

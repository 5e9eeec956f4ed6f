package geom

import (
	"errors"
	"math"
	"slices"
)

// Reach is how far apart the places of one path may be, mm.
const Reach = 10_000

// Check tells why outlines cannot be combined: the error is ErrNoNumber where a coordinate
// is no finite number, ErrFar where places are more than Reach apart. One that passes is
// combined to a nanometre up to a metre across, and to 0.02 µm up to Reach.
func (p Path) Check() error {
	for _, cs := range p.Curves() {
		for _, c := range cs {
			if !c.within(math.MaxFloat64) {
				return ErrNoNumber
			}
			if !c.within(combined) {
				return ErrFar
			}
		}
	}
	if b := p.Bounds(); !(max(b.W, b.H) <= Reach) {
		return ErrFar
	}
	return nil
}

var (
	ErrNoNumber = errors.New("a coordinate is no number")
	ErrFar      = errors.New("places are more than 10 m from each other")
)

// combined is the greatest coordinate that is taken, mm: the grid is 2 µm there. A ring
// that reaches beyond, or has a coordinate that is no number, is left out; Path.Check tells.
const combined = 1e6

// sound is the path without the rings that no arrangement takes.
func (p Path) sound() Path {
	far := func(s Segment) bool {
		c := Curve{Segment: s} // where it begins the one before ends
		return !c.within(combined)
	}
	if !slices.ContainsFunc(p.segs, far) {
		return p
	}
	return Join(slices.DeleteFunc(p.Rings(), func(ring Path) bool { return slices.ContainsFunc(ring.segs, far) })...)
}

// within reports whether all coordinates that make a curve are numbers of at most the size.
func (c *Curve) within(size float64) bool {
	ok := func(q Point) bool { return math.Abs(q.X) <= size && math.Abs(q.Y) <= size }
	if !ok(c.From) || !ok(c.P[0]) || !ok(c.P[1]) || !ok(c.P[2]) {
		return false
	}
	a := c.Arc
	return a == nil || ok(a.Centre) && ok(a.U) && ok(a.V) && ok(Point{a.From, a.To})
}

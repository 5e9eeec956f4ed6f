package lettering

import (
	"math"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// warpTolerance is how far a bent outline may be from the outline that every point of it were
// bent to, mm.
const warpTolerance = .01

// warp bends all outlines of the words between the two curves of an envelope about the
// outline of the straight ones. Curves stay curves: see geom.Path.Map.
func (s *Setting) warp(w card.Warp) {
	box := s.Outline.Bounds()
	if box.W <= 0 || box.H <= 0 {
		return
	}
	bend := bending(w, box)
	s.Outline = geom.Union(geom.NonZero, s.Outline.Map(bend, warpTolerance))
	s.Rest = s.Rest.Map(bend, warpTolerance)
	for i := range s.Parts {
		s.Parts[i].Outline = s.Parts[i].Outline.Map(bend, warpTolerance)
	}
	for i, c := range s.Carets {
		at := bend(c.At)
		s.Carets[i] = Caret{at, bend(c.At.Add(c.Up)).Sub(at)}
	}
	s.Block = s.Outline.Bounds()
}

// bending maps a point of the box to where it is between the curves.
func bending(w card.Warp, box geom.Rect) func(geom.Point) geom.Point {
	rise := w.Amount * box.H
	return func(p geom.Point) geom.Point {
		u := (p.X - box.X) / box.W
		v := (p.Y - box.Y) / box.H // 0 at the upper curve, 1 at the lower
		up, down := 0.0, 0.0       // how far the curves are above the edges of the box
		switch w.Form {
		case card.Arch:
			up = rise * 4 * u * (1 - u)
			down = up
		case card.Bulge:
			up = rise * 4 * u * (1 - u) / 2
			down = -up
		case card.Flag:
			up = rise / 2 * math.Sin(2*math.Pi*u)
			down = up
		case card.Wedge:
			up = rise / 2 * (2*u - 1)
			down = -up
		}
		top, bottom := box.Y-up, box.Bottom()-down
		return geom.Pt(p.X, top+(bottom-top)*v)
	}
}

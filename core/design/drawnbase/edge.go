package drawnbase

import (
	"fmt"
	"math"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
)

// onEdge is how far a line may be from the edge of the sheet and still lie on it, mm.
const onEdge = .05

// leastSide is the least width and height of all lines, mm, and leastSheet the least area of a sheet, mm².
const (
	leastSide  = 1
	leastSheet = 1
)

// edge finds the edge of the sheet with its holes; it returns false while the drawing does not tell.
// Cuts that are no part of it become lines.
func (r *reader) edge() bool {
	ring := largest(r.cuts)
	if net := r.around(); net.Area() > 1.02*ring.Area() {
		ring = net
	}
	if ring.Area() < leastSheet {
		var ok bool
		if ring, ok = r.askEdge(); !ok {
			return false
		}
	}
	if ring.Area() < 0 {
		ring = ring.Reverse()
	}
	var holes []geom.Path
	for _, p := range r.cuts {
		switch {
		case !p.Closed():
			for _, q := range offEdge(p, ring) {
				r.out.Lines = append(r.out.Lines, Line{Role: card.RoleCut, Path: q})
			}
		case p.Digest() == ring.Digest() || math.Abs(math.Abs(p.Area())-ring.Area()) < 1e-6*ring.Area() && p.Bounds().Contains(ring.Bounds(), onEdge):
		case geom.Difference(geom.NonZero, geom.Union(geom.EvenOdd, p), ring).Area() > .01:
			// Closed cuts that share a side with the edge, or lie outside.
			for _, q := range offEdge(p, ring) {
				r.out.Lines = append(r.out.Lines, Line{Role: card.RoleCut, Path: q})
			}
		default:
			holes = append(holes, geom.Union(geom.EvenOdd, p))
		}
	}
	r.out.Edge = geom.Union(geom.NonZero, ring)
	if len(holes) > 0 {
		all := geom.Union(geom.NonZero, holes...)
		if len(all.Rings()) < len(holes) {
			r.note("What lies within a hole falls out with it.")
		}
		r.out.Edge = geom.Difference(geom.NonZero, r.out.Edge, all)
	}
	return true
}

// largest is the closed path with the most area.
func largest(paths []geom.Path) (best geom.Path) {
	for _, p := range paths {
		if p.Closed() && math.Abs(p.Area()) > math.Abs(best.Area()) {
			best = p
		}
	}
	if best.Area() < 0 {
		best = best.Reverse()
	}
	return best
}

// around is the outer edge of all that cuts enclose, where no cut goes round the sheet in one piece.
// It is made of chords.
func (r *reader) around() geom.Path {
	var sides []geom.LineSegment
	for _, p := range r.cuts {
		for _, l := range p.Flatten(.01) {
			n := len(l.Points)
			for i := 1; i < n; i++ {
				sides = append(sides, geom.LineSegment{From: l.Points[i-1], To: l.Points[i]})
			}
			if l.Closed {
				sides = append(sides, geom.LineSegment{From: l.Points[n-1], To: l.Points[0]})
			}
		}
	}
	d := geom.Subdivide(sides)
	var rings []geom.Path
	for _, f := range d.Faces {
		rings = append(rings, d.Path(f.Ring))
	}
	return largest(geom.Union(geom.NonZero, rings...).Rings())
}

// askEdge asks what the sheet is when no cut encloses it; ok is false while there is no answer.
func (r *reader) askEdge() (ring geom.Path, ok bool) {
	var open geom.Path // the longest
	long := 0.0
	for _, p := range r.cuts {
		b := p.Bounds()
		if !p.Closed() && b.W*b.H > long {
			open, long = p, b.W*b.H
		}
	}
	box := geom.RectPath(r.out.Box)
	if open.Empty() {
		return box, r.question("edge", r.out.Box.Centre(), "No cut goes round the sheet.", TakeBox) == TakeBox
	}
	curves := open.Curves()[0]
	from, to := curves[0].From, curves[len(curves)-1].End()
	switch r.question("edge", from.Lerp(to, .5), fmt.Sprintf("The outline of the sheet is open: its ends are %s apart.", measure.FormatBoth(to.Sub(from).Len())), CloseIt, TakeBox) {
	case CloseIt:
		for i, p := range r.cuts {
			if p.Digest() == open.Digest() {
				r.cuts[i] = geom.FromCurves(curves, true)
				return largest(r.cuts[i : i+1]), true
			}
		}
	case TakeBox:
		return box, true
	}
	return geom.Path{}, false
}

// offEdge are the parts of a path that do not run along a ring.
func offEdge(p, ring geom.Path) (out []geom.Path) {
	for _, curves := range p.Curves() {
		var chain []geom.Curve
		end := func() {
			if len(chain) > 0 {
				out = append(out, geom.FromCurves(chain, false))
			}
			chain = nil
		}
		for _, c := range curves {
			along := true
			for _, t := range []float64{.1, .5, .9} {
				n, ok := ring.Nearest(c.At(t))
				along = along && ok && n.Distance < onEdge
			}
			if along {
				end()
				continue
			}
			chain = append(chain, c)
		}
		end()
	}
	return out
}

// trim cuts lines off at the edge of the sheet, and leaves out what lies off it or along it.
func (r *reader) trim() {
	lines := r.out.Lines
	r.out.Lines = []Line{}
	for _, l := range lines {
		if l.Path.Closed() && l.Role.Folds() {
			l.Path = geom.FromCurves(l.Path.Curves()[0], false)
		}
		in, off := geom.CutStrokes(l.Path, geom.NonZero, r.out.Edge)
		for _, c := range off.Curves() {
			long := 0.0
			for _, k := range c {
				long += k.Length()
			}
			if long > r.ask.Meet {
				r.note("Lines outside the sheet are left out.")
			}
		}
		for _, p := range in.Rings() {
			for _, q := range offEdge(p, r.out.Edge) {
				l.Path = q
				if p.Closed() && q.Len() == p.Len()-1 {
					l.Path = p
				}
				r.out.Lines = append(r.out.Lines, l)
			}
		}
	}
}

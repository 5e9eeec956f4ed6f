package cut

import (
	"math"

	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
	"sectilis/core/production/sheet"
)

// Apart is how far a piece was cut from where its outline was printed, mm: on
// average over the cut, and at the worst place.
type Apart struct {
	Piece string  `json:"piece"`
	Name  string  `json:"name"`
	Mean  float64 `json:"mean"`
	Worst float64 `json:"worst"`
	// Off says that the worst place is farther off than can be left unseen.
	Off bool `json:"off"`
}

// seen is how far a cut may lie beside its print, mm, before it catches the eye.
const seen = .2

// Judge sets Off.
func (a *Apart) Judge() { a.Off = a.Worst > seen }

// taken is how far from an outline, mm, a cut still counts as one of it.
const taken = 3.0

// Measure compares the cuts that a blade has truly made with the outlines of the
// pieces, both on the same paper. A cut belongs to the piece it is nearest to; pieces
// that nothing was cut of are left out.
func Measure(sh sheet.Sheet, cuts [][]geom.Point) []Apart {
	sums := make([]sum, len(sh.Pieces))
	outlines := outlinesOf(sh)
	for _, c := range cuts {
		for i, p := range c {
			// Every half millimetre says enough.
			if i > 0 && i < len(c)-1 && i%5 != 0 && len(c) > 50 {
				continue
			}
			if best, far := nearest(outlines, p); best >= 0 {
				s := &sums[best]
				s.total, s.worst, s.n = s.total+far, math.Max(s.worst, far), s.n+1
			}
		}
	}
	var out []Apart
	for i, s := range sums {
		if s.n > 0 {
			a := Apart{Piece: sh.Pieces[i].ID, Name: sh.Pieces[i].Name, Mean: s.total / float64(s.n), Worst: s.worst}
			a.Judge()
			out = append(out, a)
		}
	}
	return out
}

// sum adds up how far the cuts of a piece are off, mm.
type sum struct {
	total, worst float64
	n            int
}

// near is an outline with the box in which cuts may belong to it.
type near struct {
	path geom.Path
	box  geom.Rect
}

// outlinesOf are the lines that the pieces of a sheet are cut along.
func outlinesOf(sh sheet.Sheet) []near {
	out := make([]near, len(sh.Pieces))
	for i, p := range sh.Pieces {
		var all []geom.Path
		for _, l := range p.Lines {
			if l.Role == fold.Cut || l.Role == fold.Kiss || l.Role == fold.Perforation {
				all = append(all, l.Path)
			}
		}
		out[i].path = geom.Join(all...)
		out[i].box = out[i].path.Bounds().Grow(taken)
	}
	return out
}

// nearest is the outline that a place of a cut belongs to and how far it is from it, mm; -1
// for none.
func nearest(outlines []near, p geom.Point) (best int, far float64) {
	best, far = -1, taken
	for k, o := range outlines {
		if !o.box.Has(p) {
			continue
		}
		if n, ok := o.path.Nearest(p); ok && n.Distance < far {
			best, far = k, n.Distance
		}
	}
	return best, far
}

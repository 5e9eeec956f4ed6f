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
	type sum struct {
		total, worst float64
		n            int
	}
	sums := make([]sum, len(sh.Pieces))
	outlines := make([]geom.Path, len(sh.Pieces))
	boxes := make([]geom.Rect, len(sh.Pieces))
	for i, p := range sh.Pieces {
		var all []geom.Path
		for _, l := range p.Lines {
			if l.Role == fold.Cut || l.Role == fold.Kiss || l.Role == fold.Perforation {
				all = append(all, l.Path)
			}
		}
		outlines[i] = geom.Join(all...)
		boxes[i] = outlines[i].Bounds().Grow(taken)
	}
	for _, c := range cuts {
		for i, p := range c {
			// Every half millimetre says enough.
			if i > 0 && i < len(c)-1 && i%5 != 0 && len(c) > 50 {
				continue
			}
			best, least := -1, taken
			for k := range outlines {
				if !boxes[k].Has(p) {
					continue
				}
				if n, ok := outlines[k].Nearest(p); ok && n.Distance < least {
					best, least = k, n.Distance
				}
			}
			if best >= 0 {
				s := &sums[best]
				s.total, s.worst, s.n = s.total+least, math.Max(s.worst, least), s.n+1
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

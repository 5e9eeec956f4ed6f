package registration

import (
	"context"

	"sectilis/core/ground/geom"
)

// Slipped is how far a mark may be from where it was found, mm, before the sheet
// counts as moved: several times what an eye is off by.
const Slipped = .15

// nearby is how far about its place a mark is looked for again.
const nearby = 4.0

// Still reports whether one of the marks that a sheet was found by, by its number, is where it
// was, and how far off it is; one that is not near any more is off by 4 mm. It returns the
// error of the eye.
func Still(ctx context.Context, eye Eye, shape Shape, found Found, number int) (off float64, ok bool, err error) {
	for _, m := range found.Marks {
		if m.Number != number {
			continue
		}
		s := search{ctx: ctx, eye: eye, shape: shape}
		at, err := s.find(m.At, nearby)
		if err != nil {
			return 0, false, err
		}
		off = nearby
		if at != nil {
			off = at.Sub(m.At).Len()
		}
		return off, off <= Slipped, nil
	}
	return 0, true, nil
}

// Farthest are the numbers of the two used marks that are farthest apart.
func (f Found) Farthest() []int {
	var out []int
	most := -1.0
	for i, a := range f.Marks {
		for _, b := range f.Marks[:i] {
			if d := a.At.Sub(b.At).Len(); a.Used && b.Used && d > most {
				out, most = []int{b.Number, a.Number}, d
			}
		}
	}
	return out
}

// Used are the numbers of the marks that a sheet was found by.
func (f Found) Used() []int {
	var out []int
	for _, m := range f.Marks {
		if m.Used {
			out = append(out, m.Number)
		}
	}
	return out
}

// Printed is where the marks of a sheet lie on its own paper, found in what came from the
// printer: mm from the upper left corner. It returns the error of the eye, and one that names
// the mark that was not found.
func Printed(ctx context.Context, page Eye, drawn []Mark, shape Shape) (geom.Affine, error) {
	f, err := Find(ctx, page, drawn, shape, geom.Identity)
	return f.At, err
}

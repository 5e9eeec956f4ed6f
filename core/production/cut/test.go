package cut

import (
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
	"sectilis/core/production/sheet"
)

// A test cut is a small square with a triangle in it: the corners show whether the
// blade's offset is right, the middle whether it cuts through.
const (
	testSide = 8.0
	testRoom = 2.0 // about it, mm
)

// Test is a plan that cuts the nth test in a free place of a sheet, from its corners
// inward; false when there is no such place.
func Test(sh sheet.Sheet, with Settings, n int) ([]Pass, geom.Rect, bool) {
	at, ok := spot(sh, n)
	if !ok {
		return nil, at, false
	}
	c := at.Centre()
	var b geom.Builder
	triangle := b.Move(geom.Pt(c.X-2, c.Y+1.7)).Line(geom.Pt(c.X+2, c.Y+1.7)).Line(geom.Pt(c.X, c.Y-1.8)).Close().Path()
	test := sh
	test.Pieces = []sheet.Piece{{ID: "test", Name: "Test cut", Lines: []sheet.Line{
		{Role: fold.Cut, Path: triangle}, {Role: fold.Cut, Path: geom.RectPath(at)},
	}}}
	return Plan(test, with), at, true
}

// spot is the nth place for a test: within the margins, clear of pieces and marks, the
// nearest to a corner first.
func spot(sh sheet.Sheet, n int) (geom.Rect, bool) {
	area := geom.Rect{W: sh.Size.Width, H: sh.Size.Height}.Grow(-max(sh.Margin, 3))
	step := testSide + testRoom
	columns, rows := int((area.W-testSide)/step)+1, int((area.H-testSide)/step)+1
	for ring := range columns + rows {
		// From the lower right corner, where layouts are emptiest, then the others.
		for _, corner := range [][2]bool{{true, true}, {false, true}, {true, false}, {false, false}} {
			for i := range ring + 1 {
				x, y := i, ring-i
				if x >= (columns+1)/2 || y >= (rows+1)/2 {
					continue
				}
				r := geom.Rect{X: area.X + float64(x)*step, Y: area.Y + float64(y)*step, W: testSide, H: testSide}
				if corner[0] {
					r.X = area.Right() - float64(x)*step - testSide
				}
				if corner[1] {
					r.Y = area.Bottom() - float64(y)*step - testSide
				}
				if !free(sh, r.Grow(testRoom), r.Grow(testRoom)) {
					continue
				}
				if n == 0 {
					return r, true
				}
				n--
			}
		}
	}
	return geom.Rect{}, false
}

// free reports whether no piece, its bleed included, is in r, and no mark near onPaper.
func free(sh sheet.Sheet, r, onPaper geom.Rect) bool {
	for _, m := range sh.Marks {
		if m.Path().Bounds().Grow(1).Overlaps(onPaper) {
			return false
		}
	}
	box := geom.RectPath(r)
	for _, p := range sh.Pieces {
		if !p.Box.Overlaps(r) {
			continue
		}
		outline := p.Outline
		bleed := max(0, (p.Box.W-outline.Bounds().W)/2)
		if !geom.Intersection(geom.NonZero, geom.Offset(outline, bleed, geom.MitreCorner), box).Empty() {
			return false
		}
	}
	return true
}

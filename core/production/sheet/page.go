package sheet

import (
	"math"

	"sectilis/core/document/exchange"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// ink of the marks: a black that home printers lay down densest.
const markInk = "#000000"

// Front is all that is printed on the front of the sheet, marks included.
func (sh Sheet) Front() []scene.Ink {
	var out []scene.Ink
	for _, p := range sh.Pieces {
		out = append(out, p.Inks...)
	}
	for _, m := range sh.Marks {
		out = append(out, scene.Ink{Region: m.Path(), Colour: markInk})
	}
	for _, c := range sh.Crops {
		out = append(out, scene.Ink{Region: geom.Stroke(c, cropWidth, geom.RoundCorner, geom.ButtCap), Colour: markInk})
	}
	return out
}

// cropWidth is how broad crop marks are, mm: a quarter of a point and some more, which
// home printers still lay down.
const cropWidth = .12

// Inked is what is printed of the pieces on the front, without marks.
func (sh Sheet) Inked() []scene.Ink {
	front := sh.Front()
	return front[:len(front)-len(sh.Marks)-len(sh.Crops)]
}

// Marked is the marks alone.
func (sh Sheet) Marked() []scene.Ink {
	front := sh.Front()
	return front[len(front)-len(sh.Marks)-len(sh.Crops):]
}

// Trim is the box round all outlines of the sheet, Bled that round all that is printed
// and cut away, mm from the upper left corner.
func (sh Sheet) Trim() (trim, bled geom.Rect) {
	for i, p := range sh.Pieces {
		box := p.Outline.Bounds()
		if i == 0 {
			trim, bled = box, p.Box
			continue
		}
		trim, bled = trim.Union(box), bled.Union(p.Box)
	}
	return trim, bled
}

// Reverse is all that is printed on the other side, as it lies in the printer
// when the sheet is turned over about its upright axis.
func (sh Sheet) Reverse() []scene.Ink {
	var out []scene.Ink
	for _, p := range sh.Pieces {
		out = append(out, p.Reverse...)
	}
	return scene.Transform(out, geom.Affine{A: -1, D: 1, E: sh.Size.Width})
}

// Moved is the sheet with its lines where m puts them; what is printed and the marks
// stay.
func (sh Sheet) Moved(m geom.Affine) Sheet {
	pieces := make([]Piece, len(sh.Pieces))
	for i, p := range sh.Pieces {
		lines := make([]Line, len(p.Lines))
		for k, l := range p.Lines {
			lines[k] = Line{l.Role, l.Path.Transform(m)}
		}
		p.Lines, p.Outline, p.At = lines, p.Outline.Transform(m), p.At.Then(m)
		pieces[i] = p
	}
	sh.Pieces = pieces
	return sh
}

// Path is the mark as a region to be filled by the non-zero rule.
func (m Mark) Path() geom.Path {
	disc := func(at geom.Point, r float64) geom.Path {
		var b geom.Builder
		return b.Move(at.Add(geom.Pt(r, 0))).Arc(at, r, r, 0, 2*math.Pi).Close().Path()
	}
	parts := []geom.Path{disc(m.At, MarkRing), disc(m.At, MarkRing-MarkStroke).Reverse(), disc(m.At, MarkDot)}
	if m.Second != nil {
		parts = append(parts, disc(*m.Second, MarkDot))
	}
	return geom.Join(parts...)
}

// Drawing is the lines of the sheet by their roles, each with the name of its
// piece.
func (sh Sheet) Drawing() exchange.Drawing {
	d := exchange.Drawing{Width: sh.Size.Width, Height: sh.Size.Height}
	for _, p := range sh.Pieces {
		for _, l := range p.Lines {
			d.Shapes = append(d.Shapes, exchange.Shape{Name: p.Name, Role: l.Role, Path: l.Path})
		}
	}
	return d
}

// Package mat makes the outlines of mats, which follow what lies on them, and of ink that
// runs past an edge. Outlines lie about the origin, x right and y down, in millimetres.
package mat

import (
	"crypto/sha256"
	"math"

	"sectilis/core/document/card"
	"sectilis/core/ground/cache"
	"sectilis/core/ground/geom"
)

// Outline is the outline of the outermost of several mats about the outline they
// lie under. Each shows by its width beyond the one before, at its foot by more where it says so, or
// has a form of its own; the outermost may have its middle taken out. The form is that of the outline if it has one, else nil: mats about a
// rectangle have corners of their own, where others follow what they lie under.
func Outline(of geom.Path, form *card.Form, mats []card.Border) geom.Path {
	var rect *card.Form // while mats are rectangles about a rectangle
	at := geom.Point{}  // its middle
	if form != nil && form.Outline == card.Rectangle {
		own := *form
		rect = &own
	}
	var middle geom.Path // which is taken out
	for i, m := range mats {
		before := of
		switch {
		case m.Form != "":
			of, rect = holding(of, m), nil
		case rect != nil:
			about(rect, m)
			at.Y += m.Below / 2
			of = card.OutlineOf(*rect).Transform(geom.Shift(at.X, at.Y))
		default:
			of = offset(of, m)
		}
		if i == len(mats)-1 && m.Hollow > 0 {
			middle = geom.Offset(before, -m.Hollow, geom.MitreCorner)
		}
		if m.DX != 0 || m.DY != 0 {
			of, at = of.Transform(geom.Shift(m.DX, m.DY)), at.Add(geom.Pt(m.DX, m.DY))
		}
	}
	if !middle.Empty() {
		of = geom.Difference(geom.NonZero, of, Solid(middle))
	}
	return of
}

// about makes of a rectangle that of a mat about it: a round corner keeps the centre of the corner it
// surrounds, a bevel keeps its distance.
func about(f *card.Form, m card.Border) {
	radius := f.Radius
	if f.Corner == card.Square {
		radius = 0
	}
	switch {
	case m.Corner == card.Square:
		radius = 0
	case m.Corner == card.Round && f.Corner == card.Bevel:
		radius = m.Width
	case m.Corner == card.Round:
		radius += m.Width
	case f.Corner == card.Bevel:
		// A bevel moved out by w meets sides moved out by w.
		radius += m.Width * (2 - math.Sqrt2)
	default:
		radius = max(radius, m.Width)
	}
	*f = card.Form{Outline: card.Rectangle, Width: f.Width + 2*m.Width, Height: f.Height + 2*m.Width + m.Below, Corner: m.Corner, Radius: radius}
}

// Corner is how an offset goes round corners of a kind.
func Corner(c card.Corner) geom.Corner {
	switch c {
	case card.Round:
		return geom.RoundCorner
	case card.Bevel:
		return geom.BevelCorner
	}
	return geom.MitreCorner
}

// offsets are kept by content: a card is resolved anew at every change, and most of its
// mats are as they were.
var offsets = cache.New[offsetKey, geom.Path](4000)

type offsetKey struct {
	of     [sha256.Size]byte
	border card.Border
}

func offset(of geom.Path, m card.Border) geom.Path {
	m.Of, m.DX, m.DY, m.Hollow = "", 0, 0, 0 // the same border wherever it lies
	out, _ := offsets.Of(offsetKey{of.Digest(), m}, func() (geom.Path, error) {
		out := geom.Offset(of, m.Width, Corner(m.Corner))
		if m.Below > 0 {
			out = swept(out, m.Below)
		}
		if m.Solid {
			out = Solid(out)
		}
		return out, nil
	})
	return out
}

// rims are kept by content, as offsets are.
var rims = cache.New[rimKey, geom.Path](1000)

type rimKey struct {
	of  [sha256.Size]byte
	rim card.Rim
}

// Rim is the outline that a picture is cut along with a rim of paper round its opening. Bays are
// filled by growing the outline by half their width more, and shrinking it by that again.
func Rim(of geom.Path, r card.Rim) geom.Path {
	out, _ := rims.Of(rimKey{of.Digest(), r}, func() (geom.Path, error) {
		out := of
		if by := r.Width + r.Bays/2; by > 0 {
			out = geom.Offset(out, by, geom.RoundCorner)
		}
		if r.Bays > 0 {
			out = geom.Offset(out, -r.Bays/2, geom.RoundCorner)
		}
		if r.Solid {
			out = Solid(out)
		}
		return out, nil
	})
	return out
}

// Bleed is the region that ink of an outline reaches: d beyond its edge, mm.
func Bleed(of geom.Path, d float64) geom.Path {
	if d <= 0 {
		return of
	}
	return offset(of, card.Border{Width: d, Corner: card.Round})
}

// Solid is a clean outline without its holes.
func Solid(p geom.Path) geom.Path {
	var outer []geom.Path
	for _, r := range p.Rings() {
		if r.Area() > 0 {
			outer = append(outer, r)
		}
	}
	return geom.Union(geom.NonZero, outer...)
}

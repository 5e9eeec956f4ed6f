package check

import (
	"math"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// wanted is how much ink past a cut is enough, mm, nearly is how far from an edge of the card ink that is
// meant to meet it may end.
const (
	wanted = .5
	nearly = .8
)

// noBleed finds pieces with ink that ends at their cut, and ink on the base that ends at the edge of the
// card.
func noBleed(in *Input) (out []Finding) {
	in.each(func(f *scene.Face, it *scene.Item, doc *card.Item) {
		switch {
		case it.Joined != "" || it.Slot != "" || it.Role != "" || doc.Words != nil:
		case it.Piece:
			if inked(it) && it.Bleed < wanted && it.Rest == nil {
				made := doc.Made
				made.Bleed = card.UsualBleed
				found := of(Caution, f, it, wanted-it.Bleed, []Mend{{Says: "Print 1 mm past the edge", Do: []Step{{"setMade", card.SetMade{IDs: []string{it.ID}, Made: made}}}}},
					"is printed up to its cut and no further.")
				// Its right edge stands for all of it.
				b := it.Bounds
				found.At = &geom.Rect{X: b.Right() - 4, Y: b.Centre().Y - 4, W: 8, H: 8}
				out = append(out, found)
			}
		case it.On == "" && inked(it) && !doc.Background:
			if found, ok := in.endsAtEdge(f, it); ok {
				out = append(out, found)
			}
		}
	})
	return out
}

func inked(it *scene.Item) bool {
	return it.Picture != nil || it.Fill != (card.Fill{}) || len(it.Parts) > 0
}

// endsAtEdge tells of ink on the base that ends at an edge of the sheet instead of running past it.
func (in *Input) endsAtEdge(f *scene.Face, it *scene.Item) (Finding, bool) {
	sheet := in.Scene.Net.Outline()
	b := it.Bounds
	c := b.Centre()
	for _, side := range []struct {
		name     string
		at       geom.Point // the middle of the side, on the face
		gap      float64    // how far the ink ends within the face
		long     float64
		from, to geom.Point
	}{
		{"left", geom.Pt(0, c.Y), b.X, b.H, geom.Pt(b.X, b.Y), geom.Pt(b.X, b.Bottom())},
		{"right", geom.Pt(f.Width, c.Y), f.Width - b.Right(), b.H, geom.Pt(b.Right(), b.Y), geom.Pt(b.Right(), b.Bottom())},
		{"top", geom.Pt(c.X, 0), b.Y, b.W, geom.Pt(b.X, b.Y), geom.Pt(b.Right(), b.Y)},
		{"bottom", geom.Pt(c.X, f.Height), f.Height - b.Bottom(), b.W, geom.Pt(b.X, b.Bottom()), geom.Pt(b.Right(), b.Bottom())},
	} {
		if math.Abs(side.gap) > nearly || side.gap < -wanted || side.long < 10 {
			continue
		}
		// At a fold the ink ends by itself, and only a straight side lies along the edge.
		if n, ok := sheet.Nearest(f.OnSheet.Apply(side.at)); !ok || n.Distance > .05 {
			continue
		}
		if n, ok := it.Outline.Transform(it.At).Nearest(side.from.Lerp(side.to, .25)); !ok || n.Distance > .05 {
			continue
		}
		found := of(Caution, f, it, wanted+side.gap, nil, "ends at the %s edge of %s: let it run 1 to 3 mm past it, so that no white line is left.", side.name, f.Name)
		at := geom.Rect{X: min(side.from.X, side.to.X), Y: min(side.from.Y, side.to.Y), W: math.Abs(side.to.X - side.from.X), H: math.Abs(side.to.Y - side.from.Y)}.Grow(1)
		found.At = &at
		return found, true
	}
	return Finding{}, false
}

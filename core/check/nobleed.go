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
	for _, e := range edges(f, it) {
		if math.Abs(e.gap) > nearly || e.gap < -wanted || e.long < 10 {
			continue
		}
		// Only a straight side lies along the edge of the sheet; folds are another check's.
		if n, ok := sheet.Nearest(f.OnSheet.Apply(e.at)); !ok || n.Distance > .05 || !e.straight(it) {
			continue
		}
		found := of(Caution, f, it, wanted+e.gap, nil, "ends at the %s edge of %s: let it run 1 to 3 mm past it, so that no white line is left.", e.name, f.Name)
		found.At = e.strip()
		return found, true
	}
	return Finding{}, false
}

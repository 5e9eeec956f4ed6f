package card

import (
	"slices"

	"sectilis/core/ground/edging"
)

// SetEdging runs a motif along the outlines of items; none takes it off.
type SetEdging struct {
	IDs    []string       `json:"ids"`
	Edging *edging.Edging `json:"edging,omitempty"`
}

// FirstDepth is how deep an edging is until that is set, mm.
const FirstDepth = 3

// Label implements Command.
func (k SetEdging) Label() string {
	if k.Edging == nil {
		return label("Take the edging off", k.IDs)
	}
	return label("Edge", k.IDs)
}

// Apply implements Command.
func (k SetEdging) Apply(c Card) (Card, error) {
	return OnFace(c, k.IDs, func(_ *Card, f *Face) error {
		for _, id := range k.IDs {
			it := f.Item(id)
			if it.Lines != nil || it.Slot != nil || it.Background {
				return Refuse("ids", "“%s” has no edge that a motif could run along.", it.Name)
			}
			it.Edging = copied(k.Edging)
		}
		return nil
	})
}

// checkEdging refuses what no edging is.
func checkEdging(e *edging.Edging) error {
	if e == nil {
		return nil
	}
	if _, ok := edging.ByID(e.Motif); !ok {
		return Refuse("motif", "There is no motif “%s”.", e.Motif)
	}
	switch {
	case !within(e.Depth, .3, 60):
		return Refuse("depth", "An edging is between 0.3 mm and 60 mm (2 ⅜ in) deep.")
	case e.Length != 0 && !within(e.Length, .3, 1000):
		return Refuse("length", "A repeat of an edging is between 0.3 mm and 1 m long; 0 follows from its depth.")
	case e.Count < 0 || e.Count > edging.Most:
		return Refuse("count", "An edging has up to %d repeats; 0 follows from their length.", edging.Most)
	case e.Open != 0 && !within(e.Open, .5, 300):
		return Refuse("open", "An edging that is open in the middle leaves a band of 0.5 mm to 300 mm (11 13/16 in); 0 leaves all.")
	case !slices.Contains(edging.Sides(), e.Side):
		return Refuse("side", "An edging runs all round, or along the top, right, bottom or left.")
	case !slices.Contains(edging.Corners(), e.Corner):
		return Refuse("corner", "At corners repeats end, meet in a mitre, turn, or have a piece between.")
	}
	return nil
}

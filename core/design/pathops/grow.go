package pathops

import (
	"math"

	"sectilis/core/document/card"
	"sectilis/core/document/mat"
	"sectilis/core/ground/geom"
)

// Grow moves the outline of each item outward by By, mm, or inward if By is
// less than nothing.
type Grow struct {
	IDs    []string    `json:"ids"`
	By     float64     `json:"by"`
	Corner card.Corner `json:"corner"`
}

// Label implements card.Command.
func (k Grow) Label() string {
	if k.By < 0 {
		return "Shrink"
	}
	return "Grow"
}

// maxGrow is the largest step, mm.
const maxGrow = 150

// Apply implements card.Command.
func (k Grow) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, k.IDs, func(_ *card.Card, f *card.Face) error {
		if k.By == 0 || math.Abs(k.By) > maxGrow || math.IsNaN(k.By) {
			return card.Refuse("by", "Grow or shrink by something up to %d mm (5 ⅞ in).", maxGrow)
		}
		verb := "grow"
		if k.By < 0 {
			verb = "shrink"
		}
		ops, err := operands(f, k.IDs, verb, 1)
		if err != nil {
			return err
		}
		for _, o := range ops {
			it := f.Item(o.item.ID)
			if it.Form != nil && k.measured(it.Form) {
				continue
			}
			path := geom.Offset(o.path, k.By, mat.Corner(k.Corner))
			if path.Empty() {
				return card.Refuse("by", "Nothing would be left of “%s”. Shrink it by less.", it.Name)
			}
			o.become(it, path)
		}
		return nil
	})
}

// measured grows a form whose measures can say the result.
func (k Grow) measured(f *card.Form) bool {
	w, h := f.Width+2*k.By, f.Height+2*k.By
	if min(w, h) <= 0 {
		return false
	}
	switch {
	case f.Outline == card.Ellipse && f.Width == f.Height:
	case f.Outline == card.Rectangle && f.Corner == card.Square && (k.By < 0 || k.Corner == card.Square):
	case f.Outline == card.Rectangle && f.Corner == card.Round && f.Radius+k.By > 0 && 2*f.Radius < min(f.Width, f.Height):
		f.Radius = card.Tidy(f.Radius + k.By)
	default:
		return false
	}
	f.Width, f.Height = card.Tidy(w), card.Tidy(h)
	return true
}

// RoundCorners lays arcs of a radius, mm, into all corners of the items.
type RoundCorners struct {
	IDs    []string `json:"ids"`
	Radius float64  `json:"radius"`
}

// Label implements card.Command.
func (RoundCorners) Label() string { return "Round corners" }

// Apply implements card.Command.
func (k RoundCorners) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, k.IDs, func(_ *card.Card, f *card.Face) error {
		if !(k.Radius > 0 && k.Radius <= maxGrow) {
			return card.Refuse("radius", "Round corners by something up to %d mm (5 ⅞ in).", maxGrow)
		}
		ops, err := operands(f, k.IDs, "round", 1)
		if err != nil {
			return err
		}
		for _, o := range ops {
			it := f.Item(o.item.ID)
			if it.Form != nil && it.Form.Outline == card.Rectangle && it.Form.Corner == card.Square {
				it.Form.Corner, it.Form.Radius = card.Round, card.Tidy(min(k.Radius, it.Form.Width/2, it.Form.Height/2))
				continue
			}
			// Arcs in two corners close by may cross; what they leave is clean.
			path := geom.Union(geom.NonZero, geom.RoundCorners(o.path, k.Radius))
			if math.Abs(path.Area()-o.path.Area()) < 1e-6 {
				return card.Refuse("ids", "“%s” has no corner to round.", it.Name)
			}
			o.become(it, path)
		}
		return nil
	})
}

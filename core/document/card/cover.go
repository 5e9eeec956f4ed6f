package card

import (
	"slices"

	"sectilis/core/ground/geom"
)

// PanelMats say how the panels of a face are covered with mats, one layer on the other. They are
// kept with the face, so that the mats follow when the base changes.
type PanelMats struct {
	// Layers are from the base upward.
	Layers []PanelLayer `json:"layers"`
	// Panels is how many panels have been covered: one whose mats a person takes away stays bare,
	// while one that the base gains is covered.
	Panels int `json:"panels,omitempty"`
}

// PanelLayer is a layer of mats. Margin is mm.
type PanelLayer struct {
	// Margin is how far in it lies: the lowest from the edges, folds and cuts of its panel, another
	// from the edge of the layer below it.
	Margin float64 `json:"margin"`
	// Stocks are what they are cut from, in turn from panel to panel.
	Stocks []string `json:"stocks"`
	// Papers are what is printed on them, in turn; "" leaves the stock as it is, as does none.
	Papers []string `json:"papers,omitempty"`
}

// Cover says which mat of which panel an item is: both are counted from 1, the panels as they are
// read on their face, the layers from the base upward.
type Cover struct {
	Panel int `json:"panel"`
	Layer int `json:"layer"`
}

// LeastMargin is how near the edge of a panel a mat may lie, mm: nearer, it would be in the way of
// the fold.
const LeastMargin = 1.0

// maxLayers and maxTurn bound the layers of a set and what they are made of in turn.
const (
	maxLayers = 4
	maxTurn   = 6
)

// Check refuses what cannot cover panels. The error is a *Refusal.
func (m *PanelMats) Check() error {
	if m == nil {
		return nil
	}
	if len(m.Layers) == 0 || len(m.Layers) > maxLayers {
		return Refuse("layers", "Panels are covered with 1 to %d layers.", maxLayers)
	}
	for _, l := range m.Layers {
		if !within(l.Margin, LeastMargin, 100) {
			return Refuse("margin", "A mat lies between 1 mm (1/32 in) and 100 mm (3 15/16 in) inside the edge of its panel or of the mat below it.")
		}
		if len(l.Stocks) == 0 || len(l.Stocks) > maxTurn || len(l.Papers) > maxTurn {
			return Refuse("stocks", "The mats of a layer are of 1 to %d stocks in turn, with at most %d papers.", maxTurn, maxTurn)
		}
		for _, s := range l.Stocks {
			if _, ok := StockByID(s); !ok {
				return Refuse("stocks", "There is no stock “%s”.", s)
			}
		}
	}
	return nil
}

func (m *PanelMats) clone() *PanelMats {
	out := copied(m)
	if out != nil {
		out.Layers = slices.Clone(out.Layers)
	}
	return out
}

// Of is how the mat of a layer on a panel is made, and the ink on it; both are counted from 1.
func (m *PanelMats) Of(on Cover) (Made, Fill) {
	l := m.Layers[on.Layer-1]
	made, fill := Made{As: Cut, Stock: l.Stocks[(on.Panel-1)%len(l.Stocks)]}, Fill{}
	if n := len(l.Papers); n > 0 && l.Papers[(on.Panel-1)%n] != "" {
		made.Bleed, fill.Paper = UsualBleed, l.Papers[(on.Panel-1)%n]
	}
	return made, fill
}

// CoverAt is the mat of a panel's layer; nil where there is none.
func (f *Face) CoverAt(at Cover) *Item {
	for i := range f.Items {
		if c := f.Items[i].Cover; c != nil && *c == at {
			return &f.Items[i]
		}
	}
	return nil
}

// RestOn lays on a piece what lies on the base with its middle where the piece is, but for lines of
// the base, the background and what the piece itself belongs to.
func (f *Face) RestOn(id string, covers func(geom.Point) bool) {
	for i := range f.Items {
		it := &f.Items[i]
		if it.On != "" || it.Background || it.Cover != nil || it.Lines != nil || it.Joined() {
			continue
		}
		if top := f.top(it.ID); covers(geom.Pt(top.Place.X, top.Place.Y)) {
			it.On = id
		}
	}
}

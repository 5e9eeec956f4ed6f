package check

import (
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
)

// noInk finds what is printed on a stock that no ink holds on.
func noInk(in *Input) (out []Finding) {
	in.each(func(f *scene.Face, it *scene.Item, doc *card.Item) {
		if it.Joined != "" || it.Role != "" || it.Slot != "" || it.Picture == nil && it.Fill == (card.Fill{}) && len(it.Parts) == 0 {
			return
		}
		s, _ := card.StockByID(scene.StockUnder(in.Card.Face(f.ID), doc, in.Card.Base.Stock))
		if s.NoInk {
			out = append(out, of(Stop, f, it, 0, nil, "is printed on %s, on which no ink holds: cut it from another stock and glue it on.", s.Name))
		}
	})
	return out
}

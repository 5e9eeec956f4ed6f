package sheet

import (
	"slices"

	"sectilis/core/document/card"
)

// PrinterReach is what a printer of a person's own reaches.
type PrinterReach struct {
	// Margin is what it leaves free along every edge, mm.
	Margin float64 `json:"margin"`
	// Borderless are the ids of the sizes that it prints to their edges.
	Borderless []string `json:"borderless"`
}

// Check refuses what no printer reaches. The error is a *card.Refusal.
func (r PrinterReach) Check() error {
	if !(r.Margin >= 0 && r.Margin <= 40) {
		return card.Refuse("margin", "A printer leaves up to 40 mm (1 9/16 in) free along the edges.")
	}
	for _, id := range r.Borderless {
		if _, ok := SizeByID(id); !ok {
			return card.Refuse("borderless", "There is no size of sheet “%s”.", id)
		}
	}
	return nil
}

// marginOn is what is kept free along the edges of a printed sheet of a size, where a setup keeps a
// margin free, mm.
func (opt Options) marginOn(s Size, margin float64) float64 {
	r := opt.Printer
	if r == nil || margin >= r.Margin || margin == 0 && slices.Contains(r.Borderless, s.ID) {
		return margin
	}
	return r.Margin
}

// edge is what the printer leaves free along the edges of a sheet of a size that is the whole of what is
// printed on it, mm.
func (p paper) edge(s Size) float64 {
	if p.Borderless {
		return p.marginOn(s, 0)
	}
	return p.marginOn(s, p.Margin)
}

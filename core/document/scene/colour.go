package scene

import (
	"cmp"
	"math"
	"slices"

	"github.com/lucasb-eyer/go-colorful"
)

// ColourUse is an ink of a card and how many items have it.
type ColourUse struct {
	Colour string `json:"colour"`
	Count  int    `json:"count"`
	// Twin is a colour that is used more often and that the eye can hardly tell
	// from this one; empty when there is none.
	Twin string `json:"twin,omitempty"`
}

// twinDistance is how far apart two colours are, in OKLab, that side by side can
// just be told apart; printed on different sheets they look like a mistake.
const twinDistance = .035

// colourUses lists inks, the most used first, and finds near twins.
func colourUses(uses map[string]int) []ColourUse {
	out := make([]ColourUse, 0, len(uses))
	for c, n := range uses {
		out = append(out, ColourUse{Colour: c, Count: n})
	}
	slices.SortFunc(out, func(a, b ColourUse) int {
		return cmp.Or(cmp.Compare(b.Count, a.Count), cmp.Compare(a.Colour, b.Colour))
	})
	for i := range out {
		for j := range i {
			if out[j].Twin == "" && Difference(out[i].Colour, out[j].Colour) < twinDistance {
				out[i].Twin = out[j].Colour
				break
			}
		}
	}
	return out
}

// Difference is how different two colours, #rrggbb, look: their distance in
// OKLab (Ottosson, “A perceptual color space for image processing”, 2020). What
// is no colour is black.
func Difference(a, b string) float64 {
	p, _ := colorful.Hex(a)
	q, _ := colorful.Hex(b)
	pl, pa, pb := p.OkLab()
	ql, qa, qb := q.OkLab()
	return math.Sqrt((pl-ql)*(pl-ql) + (pa-qa)*(pa-qa) + (pb-qb)*(pb-qb))
}

package scene

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"github.com/lucasb-eyer/go-colorful"

	"sectilis/core/document/card"
	"sectilis/core/ground/cache"
	"sectilis/core/ground/gamut"
)

// ColourUse is an ink of a card and how many items have it.
type ColourUse struct {
	Colour string `json:"colour"`
	Count  int    `json:"count"`
	// Twin is a colour that is used more often and that the eye can hardly tell
	// from this one; empty when there is none.
	Twin string `json:"twin,omitempty"`
	// Prints is the nearest colour that can be printed where it is, and Off how far that is from it
	// (CIEDE2000); there is neither where that makes no difference.
	Prints string  `json:"prints,omitempty"`
	Off    float64 `json:"off,omitempty"`
}

// dull is how far off a colour comes out before that is told (CIEDE2000): what lies side by side can
// be told apart by less, but what one has in mind cannot.
const dull = 5

// use is where a colour is used.
type use struct {
	colour string
	paper  gamut.Paper
}

var printed = cache.New[use, ColourUse](4096)

// prints is how a colour is printed on a paper.
func (u use) prints() ColourUse {
	out, _ := printed.Of(u, func() (ColourUse, error) {
		c, err := colorful.Hex(u.colour)
		if err != nil {
			return ColourUse{}, nil
		}
		r, g, b := c.RGB255()
		r, g, b, off := gamut.On(u.paper).Prints(r, g, b)
		if off < dull {
			return ColourUse{}, nil
		}
		return ColourUse{Prints: fmt.Sprintf("#%02x%02x%02x", r, g, b), Off: math.Round(off*10) / 10}, nil
	})
	return out
}

// Dull is the nearest colour to one that prints on a stock; empty where that makes no difference.
func Dull(colour, stock string) (prints string, off float64) {
	s, _ := card.StockByID(stock)
	out := use{colour, s.Paper()}.prints()
	return out.Prints, out.Off
}

// twinDistance is how far apart two colours are, in OKLab, that side by side can
// just be told apart; printed on different sheets they look like a mistake.
const twinDistance = .035

// colourUses lists inks, the most used first, and finds near twins.
func colourUses(uses map[use]int) []ColourUse {
	by := map[string]ColourUse{}
	for u, n := range uses {
		// Told as it comes out worst.
		o, p := by[u.colour], u.prints()
		o.Colour, o.Count = u.colour, o.Count+n
		if p.Off > o.Off {
			o.Prints, o.Off = p.Prints, p.Off
		}
		by[u.colour] = o
	}
	out := make([]ColourUse, 0, len(uses))
	for _, o := range by {
		out = append(out, o)
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

// PaperUnder is the kind of paper that an item is printed on: its own, that of the piece that it
// lies on, or that of the base, whose stock is given.
func PaperUnder(f *card.Face, it *card.Item, base string) gamut.Paper {
	stock, _ := card.StockByID(StockUnder(f, it, base))
	return stock.Paper()
}

// StockUnder is the stock that an item is printed on.
func StockUnder(f *card.Face, it *card.Item, base string) string {
	for it != nil && !it.IsPiece() {
		it = f.Item(it.On)
	}
	if it == nil {
		return base
	}
	return it.Made.Stock
}

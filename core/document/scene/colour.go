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
	// Prints is the nearest colour that can be printed where it is; "" where that makes no difference.
	Prints string `json:"prints,omitempty"`
	// Seen is what is seen of it where it is printed, and Off how far that is from it (CIEDE2000);
	// there is neither where that makes no difference.
	Seen string  `json:"seen,omitempty"`
	Off  float64 `json:"off,omitempty"`
}

// Duller is how far off a colour comes out before that is told (CIEDE2000): what lies side by side can
// be told apart by less, but what one has in mind cannot.
const Duller = 5.0

// use is where a colour is used: on which stock.
type use struct{ colour, stock string }

// Papers gives what a printer lays down on each stock.
type Papers func(stock string) *gamut.Gamut

// AsUsual are printers of which nothing more is known than what paper is in them.
func AsUsual(stock string) *gamut.Gamut {
	s, _ := card.StockByID(stock)
	return gamut.On(s.Paper())
}

type onPaper struct {
	colour string
	paper  *gamut.Gamut
}

var printed = cache.New[onPaper, ColourUse](4096)

// Dull is the nearest colour to one that prints on a stock, and how far that is from it (CIEDE2000);
// empty where that makes no difference.
func (p Papers) Dull(colour, stock string) (prints string, off float64) {
	at := onPaper{colour, p(stock)}
	out, _ := printed.Of(at, func() (ColourUse, error) {
		c, err := colorful.Hex(colour)
		if err != nil {
			return ColourUse{}, nil
		}
		r, g, b := c.RGB255()
		r, g, b, off := at.paper.Prints(r, g, b)
		if off < Duller {
			return ColourUse{}, nil
		}
		return ColourUse{Prints: fmt.Sprintf("#%02x%02x%02x", r, g, b), Off: math.Round(off*10) / 10}, nil
	})
	return out.Prints, out.Off
}

// On is what is seen of an ink on a stock, both #rrggbb and an id: the nearest colour that prints on it,
// and of that what the stock gives back.
func (p Papers) On(ink, stock string) string {
	if prints, _ := p.Dull(ink, stock); prints != "" {
		ink = prints
	}
	s, _ := card.StockByID(stock)
	return gamut.HexOnStock(ink, s.Colour)
}

// Changed is how far off an ink is by the stock alone that it is printed on (CIEDE2000).
func Changed(ink string, s card.Stock) float64 { return distance(ink, gamut.HexOnStock(ink, s.Colour)) }

// distance is CIEDE2000 of two colours, #rrggbb.
func distance(a, b string) float64 {
	p, _ := colorful.Hex(a)
	q, _ := colorful.Hex(b)
	return 100 * p.DistanceCIEDE2000(q)
}

// ColoursOn are the colours of a scene with what becomes of each on the papers, told as it comes out
// worst.
func (s *Scene) ColoursOn(p Papers) []ColourUse {
	out := slices.Clone(s.Colours)
	at := make(map[string]int, len(out))
	for i := range out {
		at[out[i].Colour] = i
	}
	for u := range s.uses {
		o := &out[at[u.colour]]
		seen := p.On(u.colour, u.stock)
		if off := math.Round(distance(u.colour, seen)*10) / 10; off >= Duller && off > o.Off {
			o.Seen, o.Off = seen, off
			o.Prints, _ = p.Dull(u.colour, u.stock)
		}
	}
	return out
}

// twinDistance is how far apart two colours are, in OKLab, that side by side can
// just be told apart; printed on different sheets they look like a mistake.
const twinDistance = .035

// colourUses lists inks, the most used first, and finds near twins.
func colourUses(uses map[use]int) []ColourUse {
	by := map[string]ColourUse{}
	for u, n := range uses {
		o := by[u.colour]
		o.Colour, o.Count = u.colour, o.Count+n
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

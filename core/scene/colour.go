package scene

import (
	"cmp"
	"fmt"
	"math"
	"slices"
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
// OKLab (Ottosson, “A perceptual color space for image processing”, 2020).
func Difference(a, b string) float64 {
	p, q := oklab(a), oklab(b)
	return math.Sqrt((p[0]-q[0])*(p[0]-q[0]) + (p[1]-q[1])*(p[1]-q[1]) + (p[2]-q[2])*(p[2]-q[2]))
}

func oklab(hex string) [3]float64 {
	var c [3]uint8
	_, _ = fmt.Sscanf(hex, "#%02x%02x%02x", &c[0], &c[1], &c[2]) // what is no colour is black
	var l [3]float64
	for i, v := range c {
		s := float64(v) / 255
		if s <= .04045 {
			l[i] = s / 12.92
		} else {
			l[i] = math.Pow((s+.055)/1.055, 2.4)
		}
	}
	long := math.Cbrt(.4122214708*l[0] + .5363325363*l[1] + .0514459929*l[2])
	mid := math.Cbrt(.2119034982*l[0] + .6806995451*l[1] + .1073969566*l[2])
	short := math.Cbrt(.0883024619*l[0] + .2817188376*l[1] + .6299787005*l[2])
	return [3]float64{
		.2104542553*long + .7936177850*mid - .0040720468*short,
		1.9779984951*long - 2.4285922050*mid + .4505937099*short,
		.0259040371*long + .7827717662*mid - .8086757660*short,
	}
}

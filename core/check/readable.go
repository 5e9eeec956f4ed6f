package check

import (
	"math"

	"github.com/lucasb-eyer/go-colorful"

	"sectilis/core/design/typeset"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/gamut"
)

// How far words are lifted off what lies under them, in sizes of their letters.
const (
	ringWide           = .08
	shadeFar, shadeSof = .16, .06
)

// readable are the mends of words that cannot be read: another ink, or something right behind them.
func readable(it *scene.Item, doc *card.Item, on ground, ink string, least float64) []Mend {
	if it.Piece {
		return nil // no ink lies behind a cut piece
	}
	var out []Mend
	if len(it.Parts) == 0 && doc.Fill.Colour != "" {
		out = otherInk(it, on, ink, least)
	}
	behind := on.against(inks(it), least)
	if behind == "" {
		return out
	}
	look := card.Look{}
	if doc.Look != nil {
		look = *doc.Look
	}
	size := it.Words.Size
	lined := look
	lined.Line = &card.InkLine{Colour: behind, Width: card.Tidy(min(max(size*ringWide, 1.5*roundStrokes), 2)), Outside: true}
	out = append(out, Mend{Says: "Put a line round it", Do: []Step{{"setLook", card.SetLook{IDs: []string{it.ID}, Look: lined}}}})
	for opacity := .7; opacity <= 1; opacity += .1 {
		if !on.shaded(inks(it), behind, opacity*shadeLeast, least) {
			continue
		}
		soft := look
		soft.Shadow = &card.Shadow{Colour: behind, Opacity: card.Tidy(opacity), Spread: card.Tidy(max(size*shadeFar, 3.2*roundStrokes)), Blur: card.Tidy(max(size*shadeSof, 1.1*roundStrokes))}
		out = append(out, Mend{Says: "Put a soft shade behind it", Do: []Step{{"setLook", card.SetLook{IDs: []string{it.ID}, Look: soft}}}})
		break
	}
	return append(out, Mend{Says: "Lay a band behind it", Do: []Step{{"bandBehind", typeset.BandBehind{ID: it.ID, Colour: behind}}}})
}

// otherInk is a darker or a lighter ink of the same hue, whichever is nearer, that is read against
// luminances; none where neither is.
func otherInk(it *scene.Item, on ground, ink string, least float64) []Mend {
	c, _ := colorful.Hex(ink)
	l, a, b := c.OkLab()
	for step := .02; step <= 1; step += .02 {
		for _, to := range []float64{l - step, l + step} {
			if to < 0 || to > 1 {
				continue
			}
			other := colorful.OkLab(to, a, b).Clamped().Hex()
			if on.ratio(other) < least {
				continue
			}
			says := "Make it darker"
			if to > l {
				says = "Make it lighter"
			}
			return []Mend{{Says: says, Do: []Step{{"setFill", card.SetFill{IDs: []string{it.ID}, Fill: card.Fill{Colour: other}}}}}}
		}
	}
	return nil
}

// against is white or the darkest ink that is offered, whichever all of some inks are read best on;
// "" where not all are on either.
func (g ground) against(inks []string, least float64) (best string) {
	for _, c := range []string{"#ffffff", "#1f2b38"} {
		behind, _ := colorful.Hex(gamut.HexOnStock(c, g.stock))
		ratio := math.Inf(1)
		for _, ink := range inks {
			ratio = min(ratio, ground{[]float64{lightOf(behind)}, g.stock}.ratio(ink))
		}
		if ratio >= least {
			best, least = c, ratio
		}
	}
	return best
}

// shadeLeast is the share of its strength that a soft shade has as far from the strokes as words are
// read.
const shadeLeast = .95

// shaded reports whether inks are read against the luminances after a colour lies over them.
func (g ground) shaded(inks []string, over string, opacity, least float64) bool {
	c, _ := colorful.Hex(gamut.HexOnStock(over, g.stock))
	mixed := make([]float64, len(g.lights))
	for i, l := range g.lights {
		_, _, v := colorful.LinearRgb(l, l, l).Hsv() // the grey of that luminance
		mixed[i] = lightOf(colorful.Color{R: v, G: v, B: v}.BlendRgb(c, opacity))
	}
	for _, ink := range inks {
		if (ground{mixed, g.stock}).ratio(ink) < least {
			return false
		}
	}
	return true
}

package check

import (
	"github.com/lucasb-eyer/go-colorful"

	"sectilis/core/document/card"
	"sectilis/core/document/pattern"
	"sectilis/core/document/scene"
)

// mostChanged is how far off an ink may be by its stock (CIEDE2000).
const mostChanged = 10

// muchDarker is by how much lightness (CIELAB) an ink has to fall for that to matter more than its hue.
const muchDarker = 12

// changed finds ink that its stock shows through: printers lay no white, so that on a coloured stock
// a pale ink is hardly more than the stock.
func changed(in *Input) (out []Finding) {
	in.each(func(f *scene.Face, it *scene.Item, doc *card.Item) {
		if it.Joined != "" || it.Role != "" || it.Slot != "" {
			return
		}
		stock, ok := card.StockByID(scene.StockUnder(in.Card.Face(f.ID), doc, in.Card.Base.Stock))
		if !ok || stock.NoInk {
			return
		}
		ink, off := worstOn(stock, printedIn(doc))
		if off <= mostChanged {
			return
		}
		weight := Caution
		if lightness(ink)-lightness(in.Papers.On(ink, stock.ID)) < muchDarker {
			weight = Note // a dark ink stays a dark ink
		}
		out = append(out, of(weight, f, it, 0, unchanged(it, doc, stock),
			"is printed on %s, which shows through: printers lay no white, so %s comes out about %s.", stock.Name, nameOf(doc, ink), in.Papers.On(ink, stock.ID)))
	})
	return out
}

// lightness is how light a colour is, #rrggbb, from 0 to 100 (CIELAB).
func lightness(hex string) float64 {
	c, _ := colorful.Hex(hex)
	l, _, _ := c.Lab()
	return 100 * l
}

// printedIn are the colours that an item is printed in; of a photo its lights, which change most.
func printedIn(doc *card.Item) []string {
	out := doc.Colours()
	if doc.Photo != nil {
		out = append(out, "#ffffff")
	}
	if p, ok := pattern.ByID(doc.Fill.Paper); ok {
		if p.Ground != "" {
			out = append(out, p.Ground)
		}
		for _, m := range p.Marks {
			out = append(out, m.Colour)
		}
		if p.Picture != "" {
			out = append(out, "#ffffff")
		}
	}
	return out
}

func nameOf(doc *card.Item, ink string) string {
	if doc.Photo != nil && ink == "#ffffff" {
		return "what is white in it"
	}
	return "its " + ink
}

// worstOn is the ink that a stock changes most, and how far.
func worstOn(s card.Stock, inks []string) (ink string, off float64) {
	for _, c := range inks {
		if d := scene.Changed(c, s); d > off {
			ink, off = c, d
		}
	}
	return ink, off
}

// unchanged are the mends of ink that its stock changes.
func unchanged(it *scene.Item, doc *card.Item, stock card.Stock) (out []Mend) {
	if doc.Words == nil && !doc.Background || it.Piece {
		made := doc.Made
		made.As, made.Bleed = card.Cut, max(made.Bleed, card.UsualBleed)
		kind := card.Paper
		if doc.Photo != nil {
			kind = card.Photo
		}
		made.Stock = card.StockFor(kind, doc.Kind, stock.ID)
		if on, _ := card.StockByID(made.Stock); on.ShowsInk() {
			out = append(out, Mend{Says: "Print it on " + on.Name, Do: []Step{{"setMade", card.SetMade{IDs: []string{it.ID}, Made: made}}}})
		}
	}
	if doc.Fill.Colour == "" || len(doc.Colours()) != 1 {
		return out
	}
	c, err := colorful.Hex(doc.Fill.Colour)
	if err != nil {
		return out
	}
	l, a, b := c.OkLab()
	for to := l - .02; to > 0; to -= .02 {
		darker := colorful.OkLab(to, a, b).Clamped().Hex()
		if scene.Changed(darker, stock) <= mostChanged {
			return append(out, Mend{Says: "Take a darker colour", Do: []Step{{"setFill", card.SetFill{IDs: []string{it.ID}, Fill: card.Fill{Colour: darker}}}}})
		}
	}
	return out
}

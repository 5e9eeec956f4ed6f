package assembly

import (
	"fmt"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/measure"
	"sectilis/core/ground/wording"
	"sectilis/core/production/sheet"
)

// Material is something that the whole card takes, and how much of it.
type Material struct {
	Name string `json:"name"`
	Says string `json:"says"`
}

// takes is what the whole card takes, in short.
func (p *planner) takes() []string {
	out := []string{}
	stocks := map[string]bool{}
	for _, sh := range p.sheets {
		stocks[sh.Stock.ID] = true
	}
	if len(p.sheets) > 0 {
		out = append(out, fmt.Sprintf("%s of %s", wording.Counted(len(p.sheets), "sheet", "sheets"), wording.Counted(len(stocks), "stock", "stocks")))
	}
	if cost := sheet.Cost(p.sheets); cost > 0 {
		out = append(out, fmt.Sprintf("paper for %.2f", cost))
	}
	for _, foam := range card.Foam {
		if n := p.pads(foam); n > 0 {
			out = append(out, fmt.Sprintf("%s of foam, %g mm", wording.Counted(n, "pad", "pads"), foam))
		}
	}
	if p.glued() > 0 {
		out = append(out, "glue")
	}
	if p.does(Fold) {
		out = append(out, "bone folder")
	}
	return out
}

// pads is how many pads of foam of a height the guide uses.
func (p *planner) pads(foam float64) (n int) {
	for _, s := range p.steps {
		if s.Kind == Raise && s.Foam == foam {
			n += s.Pads
		}
	}
	return n
}

// glued is how many steps need glue.
func (p *planner) glued() (n int) {
	for _, s := range p.steps {
		if s.Kind == Glue || s.Kind == Leaf || s.Kind == Tabs {
			n++
		}
	}
	return n
}

func (p *planner) does(k Kind) bool {
	return slices.ContainsFunc(p.steps, func(s Step) bool { return s.Kind == k })
}

// materials lists papers by stock and size, foam, glue, the envelope and tools.
func (p *planner) materials() []Material {
	out := []Material{}
	put := func(name, says string) { out = append(out, Material{name, says}) }
	for i, sh := range p.sheets {
		same := func(o sheet.Sheet) bool {
			return o.Stock.ID == sh.Stock.ID && o.Size == sh.Size && (o.Of < 0) == (sh.Of < 0)
		}
		if slices.ContainsFunc(p.sheets[:i], same) {
			continue // counted already
		}
		var all []sheet.Sheet
		for _, o := range p.sheets[i:] {
			if same(o) {
				all = append(all, o)
			}
		}
		says := fmt.Sprintf("%s, %s", wording.Counted(len(all), "sheet", "sheets"), sh.Size.Name)
		if sh.Of < 0 {
			says = wording.Counted(len(all), "scrap", "scraps") + " on hand"
		}
		if cost := sheet.Cost(all); cost > 0 {
			says += fmt.Sprintf(", %.2f", cost)
		}
		put(sh.Stock.Name, says)
	}
	for _, foam := range card.Foam {
		if n := p.pads(foam); n > 0 {
			put(fmt.Sprintf("Foam, %g mm", foam), fmt.Sprintf("%s of about %.0f × %.0f mm", wording.Counted(n, "pad", "pads"), padWide, padHigh))
		}
	}
	if n := p.glued(); n > 0 {
		put("Glue that dries flat", "for "+wording.Counted(n, "step", "steps"))
	}
	if p.does(Send) {
		s := p.sending()
		name := s.Trade
		if name == "" {
			name = "Envelope"
		}
		put(name, "1, or made to measure "+measure.FormatSize(s.Width, s.Height, p.unit))
	}
	return append(out, p.tools()...)
}

// tools are what hands and the machine work with.
func (p *planner) tools() (out []Material) {
	does := map[fold.Role]bool{}
	for _, sh := range p.sheets {
		for _, piece := range sh.Pieces {
			for _, l := range piece.Lines {
				does[l.Role] = true
			}
		}
	}
	put := func(is bool, name, says string) {
		if is {
			out = append(out, Material{name, says})
		}
	}
	put(p.does(Print), "Printer", "in true size")
	put(does[fold.Cut] || does[fold.Kiss], "Cutting machine with a blade", "or trimmer, knife and scissors")
	put(does[fold.Mountain] || does[fold.Valley], "Scoring tip", "or scoring board and bone folder")
	put(does[fold.Perforation], "Perforating blade", "or perforating wheel")
	put(does[fold.Pen], "Pen for the machine", "or by hand")
	put(p.does(Fold), "Bone folder", "for every fold")
	return out
}

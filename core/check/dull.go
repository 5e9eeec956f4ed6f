package check

import (
	"strings"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
)

// dull finds colours that no printer lays down on the paper that they are on, each once, where it is
// first.
func dull(in *Input) (out []Finding) {
	told := map[string]bool{}
	in.each(func(f *scene.Face, it *scene.Item, doc *card.Item) {
		if it.Joined != "" {
			return
		}
		stock := scene.StockUnder(in.Card.Face(f.ID), doc, in.Card.Base.Stock)
		for _, c := range doc.Colours() {
			prints, _ := in.Papers.Dull(c, stock)
			s, _ := card.StockByID(stock)
			if prints == "" || told[c] || scene.Changed(c, s) > mostChanged {
				continue // what the stock itself changes is told by another check
			}
			told[c] = true
			out = append(out, of(Note, f, it, 0, []Mend{{Says: "Take the nearest that prints", Do: []Step{{"recolour", card.Recolour{From: []string{c}, To: prints}}}}},
				"has the colour %s, which comes out duller on %s: about %s.", strings.ToUpper(c), s.Name, strings.ToUpper(in.Papers.On(c, stock))))
		}
	})
	return out
}

package check

import (
	"strings"

	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/document/scene"
	"sectilis/core/ground/wording"
)

// fallsApart finds words of a joined script that are cut, and whose letters do not all touch.
func fallsApart(in *Input) (out []Finding) {
	in.eachCutWords(func(f *scene.Face, it *scene.Item, doc *card.Item, loose lettering.Loose) {
		font, _ := lettering.ByID(doc.Words.Font)
		if !font.Joined || len(loose.Pairs) == 0 {
			return
		}
		stock, _ := card.StockByID(doc.Made.Stock)
		barred := *doc.Words
		barred.Bar = max(1.5*stock.Bears(), .06*doc.Words.Size)
		out = append(out, of(Caution, f, it, 0, []Mend{
			{Says: "Join up", Do: []Step{{"setWords", card.SetWords{ID: it.ID, Words: loose.Joined}}}},
			{Says: "Hold by a bar below", Do: []Step{{"setWords", card.SetWords{ID: it.ID, Words: barred}}}},
		}, "falls apart when it is cut: %s do not touch.", quoted(loose.Pairs)))
	})
	return out
}

// looseDots finds dots and accents of words that are cut: they are pieces of their own.
func looseDots(in *Input) (out []Finding) {
	in.eachCutWords(func(f *scene.Face, it *scene.Item, doc *card.Item, loose lettering.Loose) {
		if len(loose.Dots) == 0 {
			return
		}
		stock, _ := card.StockByID(doc.Made.Stock)
		words := *doc.Words
		words.Tie = stock.Bears()
		out = append(out, of(Note, f, it, 0, []Mend{{Says: "Tie them", Do: []Step{{"setWords", card.SetWords{ID: it.ID, Words: words}}}}},
			"has parts that are pieces of their own when it is cut: of %s.", quoted(loose.Dots)))
	})
	return out
}

// eachCutWords calls a function for lettering that is a cut piece, with what of it is loose.
func (in *Input) eachCutWords(do func(f *scene.Face, it *scene.Item, doc *card.Item, loose lettering.Loose)) {
	in.each(func(f *scene.Face, it *scene.Item, doc *card.Item) {
		if doc.Words == nil || !it.Piece {
			return
		}
		if loose, err := lettering.LooseOf(*doc.Words); err == nil {
			do(f, it, doc, loose)
		}
	})
}

// quoted lists a few words as a sentence has them.
func quoted(words []string) string {
	const most = 4
	var out []string
	for _, w := range words[:min(most, len(words))] {
		out = append(out, "“"+w+"”")
	}
	if len(words) > most {
		return strings.Join(out, ", ") + " and others"
	}
	return wording.And(out)
}

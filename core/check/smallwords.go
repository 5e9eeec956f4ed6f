package check

import (
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/measure"
)

// point is a typographic point, mm.
const point = measure.Inch / 72

// leastLetters is the size of the smallest letters that people read with ease, mm.
const leastLetters = 6 * point

// smallWords finds lettering that is too small to be read.
func smallWords(in *Input) (out []Finding) {
	in.each(func(f *scene.Face, it *scene.Item, doc *card.Item) {
		if doc.Words == nil || it.Words == nil || it.Words.Size >= leastLetters-1e-9 {
			return
		}
		var mends []Mend
		if doc.Words.Box == nil || !doc.Words.Box.Fit {
			words := *doc.Words
			words.Size = card.Tidy(leastLetters)
			mends = []Mend{{Says: "Set it in 6 pt", Do: []Step{{"setWords", card.SetWords{ID: it.ID, Words: words}}}}}
		}
		out = append(out, of(Caution, f, it, 0, mends,
			"has letters %.1f pt (%.1f mm) high: below 6 pt they are hard to read.", it.Words.Size/point, it.Words.Size))
	})
	return out
}

package check

import (
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
)

// overfull finds words that have no room in their box, or on their line. All of them are seen
// and printed all the same.
func overfull(in *Input) (out []Finding) {
	in.each(func(f *scene.Face, it *scene.Item, doc *card.Item) {
		if doc.Words == nil || it.Words == nil || it.Words.Over <= small {
			return
		}
		words := *doc.Words
		over := it.Words.Over
		if words.Path != nil {
			out = append(out, of(Caution, f, it, over, nil,
				"is longer than its line by %s: make the letters smaller or the line longer.", say(over)))
			return
		}
		var mends []Mend
		box, says := *words.Box, "As large as fits"
		if box.Fit {
			box.Least, box.Lines, says = 0, 0, "However small they become"
		}
		if box.Fit = true; box.Height > 0 && box != *words.Box {
			words.Box = &box
			mends = []Mend{{Says: says, Do: []Step{{"setWords", card.SetWords{ID: it.ID, Words: words}}}}}
		}
		out = append(out, of(Caution, f, it, over, mends, "is larger than its box by %s: make the letters smaller or the box larger.", say(over)))
	})
	return out
}

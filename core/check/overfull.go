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
		if box := *words.Box; box.Height > 0 {
			box.Fit = true
			words.Box = &box
			mends = []Mend{{Says: "As large as fits", Do: []Step{{"setWords", card.SetWords{ID: it.ID, Words: words}}}}}
		}
		out = append(out, of(Caution, f, it, over, mends, "is larger than its box by %s: make the letters smaller or the box larger.", say(over)))
	})
	return out
}

package check

import (
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
)

// missingLetters finds letters that have no outline in their font: they are neither seen nor
// cut.
func missingLetters(in *Input) (out []Finding) {
	in.each(func(f *scene.Face, it *scene.Item, _ *card.Item) {
		if it.Words != nil && it.Words.Missing != "" {
			out = append(out, of(Stop, f, it, 0, nil, "has letters that its font lacks: “%s”. Use other letters or another font.", it.Words.Missing))
		}
	})
	return out
}

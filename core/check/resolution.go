package check

import (
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
)

// resolution finds photos with too few pixels for the size that they are printed in.
func resolution(in *Input) (out []Finding) {
	in.each(func(f *scene.Face, it *scene.Item, _ *card.Item) {
		if it.Picture == nil {
			return
		}
		switch it.Picture.Prints {
		case scene.Coarse:
			out = append(out, of(Caution, f, it, 0, nil, "prints coarse, with %.0f pixels to the inch: show it smaller, zoom out or take a larger picture.", it.Picture.PPI))
		case scene.Soft:
			out = append(out, of(Note, f, it, 0, nil, "prints a little soft, with %.0f pixels to the inch.", it.Picture.PPI))
		}
	})
	return out
}

package check

import (
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/pattern"
	"sectilis/core/document/scene"
	"sectilis/core/ground/measure"
)

// laidBy is how many times its true size a pattern is laid.
func laidBy(it *scene.Item) float64 {
	if it.PatternAt == nil {
		return 1
	}
	return math.Sqrt(math.Abs(it.PatternAt.Det()))
}

// patternPPI is how many pixels to the inch a pattern needs: a repeat bears less than a photo does.
const patternPPI = 110

// resolution finds photos, and patterns that show a picture, with too few pixels for the size that they are
// printed in.
func resolution(in *Input) (out []Finding) {
	in.each(func(f *scene.Face, it *scene.Item, doc *card.Item) {
		if it.Picture == nil {
			if p, ok := pattern.ByID(doc.Fill.Paper); ok && p.PixelWidth > 0 {
				ppi := float64(p.PixelWidth) / p.Width * measure.Inch / laidBy(it)
				if ppi < patternPPI {
					out = append(out, of(Note, f, it, 0, nil, "prints soft: its paper “%s” has %.0f pixels to the inch there. Lay it smaller, or bring in a larger picture of it.", p.Name, ppi))
				}
			}
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

// coarse is resolution, of what the eye sees.
func coarse(in *Input) []Finding {
	return slices.DeleteFunc(resolution(in), func(f Finding) bool { return f.Weight == Note })
}

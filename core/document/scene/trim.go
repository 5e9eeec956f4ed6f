package scene

import (
	"sectilis/core/document/card"
	"sectilis/core/document/mat"
	"sectilis/core/ground/geom"
)

// trim ends an item at the outlines that its groups are trimmed by: a piece with its outline, ink and
// what a look adds where it is drawn. It fails as Resolve does.
func (it *Item) trim(f *card.Face, doc *card.Item) error {
	by := f.TrimmedBy(doc)
	back, ok := it.At.Inverse()
	if len(by) == 0 || !ok {
		return nil
	}
	var clip geom.Path
	for i, o := range by {
		r, err := Resolve(f, o)
		if err != nil {
			return err
		}
		p := r.Outline.Transform(r.At.Then(back))
		if clip = geom.Union(geom.NonZero, p); i > 0 {
			clip = geom.Intersection(geom.NonZero, *it.Clip, p)
		}
		it.Clip = &clip
	}
	if it.Piece {
		it.Outline = geom.Intersection(geom.NonZero, it.Outline, clip)
		if it.Rest != nil {
			rest := geom.Intersection(geom.NonZero, *it.Rest, clip)
			it.Rest = &rest
		}
		// Ink runs past the new edge as it did past its own.
		clip = mat.Bleed(clip, it.Bleed)
	}
	return nil
}

// trims are the items of a face that groups are trimmed by, and the groups.
func trims(f *card.Face) (out []any) {
	for _, it := range f.Items {
		if it.Trims() {
			out = append(out, it, f.Groups)
		}
	}
	return out
}

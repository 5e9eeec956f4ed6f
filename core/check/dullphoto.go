package check

import (
	"image"
	"math"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
)

// dullShare is how much of a photo has to come out duller before that is told.
const dullShare = .05

// dullPhoto finds photos that come out duller on the paper that they are printed on, by what is seen
// of them.
func dullPhoto(in *Input) (out []Finding) {
	in.each(func(f *scene.Face, it *scene.Item, doc *card.Item) {
		if in.Picture == nil || it.Picture == nil || it.Joined != "" {
			return
		}
		img := in.Picture(it.Picture.ID)
		if img == nil {
			return
		}
		stock := scene.StockUnder(in.Card.Face(f.ID), doc, in.Card.Base.Stock)
		share := in.Papers(stock).Duller(img, shownOf(it, img.Bounds()), scene.Duller)
		if share < dullShare {
			return
		}
		s, _ := card.StockByID(stock)
		out = append(out, of(Note, f, it, 0, nil, "comes out duller on %s, in about %.0f %% of what is seen of it: look at the face as it will print.", s.Name, 100*share))
	})
	return out
}

// shownOf is the part of a picture, of some pixels, that its opening shows.
func shownOf(it *scene.Item, px image.Rectangle) image.Rectangle {
	box, see := it.Picture.Box, it.Picture.Box.Intersect(it.Outline.Bounds())
	at := func(v, from, length float64, pixels int) int {
		return int(math.Round((v - from) / length * float64(pixels)))
	}
	return image.Rect(at(see.X, box.X, box.W, px.Dx()), at(see.Y, box.Y, box.H, px.Dy()),
		at(see.Right(), box.X, box.W, px.Dx()), at(see.Bottom(), box.Y, box.H, px.Dy())).Add(px.Min)
}

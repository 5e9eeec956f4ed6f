package app

import (
	"context"
	"image"

	"sectilis/core/check"
	"sectilis/core/document/picture"
	"sectilis/core/document/scene"
	"sectilis/core/format/raster"
	"sectilis/core/ground/geom"
)

// PrintView is what is found about how a revision of a card will look when it is printed.
type PrintView struct {
	Revision int64           `json:"revision"`
	Findings []check.Finding `json:"findings"`
}

// Prints looks at how a card will look when it is printed. It returns ErrNotFound for a card that is
// not on the table and a *Damaged for one that cannot be read.
func (u *supplies) Prints(ctx context.Context, id string) (PrintView, error) {
	o, err := u.cards.load(ctx, id)
	if err != nil {
		return PrintView{}, err
	}
	rev, s := o.rev, o.scene
	o.Unlock()
	var failed error
	in := check.Input{Card: rev.Card, Scene: &s, Seen: func(f *scene.Face, box geom.Rect, without string, perMM float64) image.Image {
		img, err := u.seen(ctx, &s, f, rev, box, without, perMM)
		if err != nil {
			failed = err
			return nil
		}
		return img
	}}
	out := PrintView{rev.Number, check.Run(check.ThePrint, in)}
	return out, failed
}

// seen paints a face in a box without an item.
func (u *supplies) seen(ctx context.Context, s *scene.Scene, f *scene.Face, rev Revision, box geom.Rect, without string, perMM float64) (image.Image, error) {
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	others := *f
	others.Items = nil
	for _, it := range f.Items {
		if it.ID != without && (it.Bounds.Overlaps(box) || it.Bounds.Empty()) {
			others.Items = append(others.Items, it)
		}
	}
	canvas := raster.New(box.W, box.H, perMM, raster.Colour("#ffffff"), func(id string) (image.Image, error) {
		_, raw, err := u.PicturePreview(ctx, id, Sides[0])
		if err != nil {
			return nil, err
		}
		img, _, err := picture.Decode("", raw)
		return img, err
	})
	err := canvas.Paint(scene.Transform(s.Look(&others, rev.Card.Base), geom.Shift(-box.X, -box.Y)))
	return canvas.Image(), err
}

package app

import (
	"bytes"
	"context"
	"errors"
	"image"
	"image/color"
	"image/png"

	"sectilis/core/check"
	"sectilis/core/document/card"
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
	papers, _ := u.cards.inks.papers()
	var failed error
	kept := func(img image.Image, err error) image.Image {
		if err != nil {
			if !errors.Is(err, ErrNotFound) {
				failed = err
			}
			return nil
		}
		return img
	}
	pictures := u.small(ctx)
	in := check.Input{Card: rev.Card, Scene: &s, Papers: papers, Seen: func(f *scene.Face, box geom.Rect, without string, perMM float64) image.Image {
		return kept(u.seen(ctx, &s, f, rev, box, without, perMM))
	}, Picture: func(id string) image.Image { return kept(pictures(id)) }}
	out := PrintView{rev.Number, check.Run(check.ThePrint, in)}
	return out, failed
}

// printSide is the longer side, in pixels, of what shows how a face is printed.
const printSide = 1400

// FacePrint is a face with all on it as printers lay its colours down on its papers, as a PNG. It
// returns ErrNotFound for a card or a face that is not there.
func (u *supplies) FacePrint(ctx context.Context, id string, face card.FaceID) ([]byte, error) {
	o, err := u.cards.load(ctx, id)
	if err != nil {
		return nil, err
	}
	s, c := o.scene, o.rev.Card
	o.Unlock()
	papers, _ := u.cards.inks.papers()
	f := s.Face(face)
	if f == nil {
		return nil, ErrNotFound
	}
	canvas := raster.New(f.Width, f.Height, printSide/max(f.Width, f.Height), color.White, u.small(ctx))
	paint := func(region geom.Path, ground, stock string, inks []scene.Ink) error {
		for i := range inks {
			inks[i].Clips = append([]geom.Path{region}, inks[i].Clips...)
		}
		if err := canvas.Paint(append([]scene.Ink{{Region: region, Colour: "#ffffff"}}, inks...)); err != nil {
			return err
		}
		canvas.Printed(region, papers(stock).Table(), ground)
		return ctx.Err()
	}
	stock, _ := card.StockByID(c.Base.Stock)
	if err := paint(f.Shape, stock.Colour, c.Base.Stock, f.BaseInks()); err != nil {
		return nil, err
	}
	docs := c.Face(face)
	for i := range f.Items {
		it := &f.Items[i]
		doc := docs.Item(it.ID)
		if !it.Piece || doc == nil {
			continue
		}
		if err := paint(it.Outline.Transform(it.At), it.Ground, doc.Made.Stock, f.PieceInks(it)); err != nil {
			return nil, err
		}
	}
	var out bytes.Buffer
	err = png.Encode(&out, canvas.Image())
	return out.Bytes(), err
}

// small gives pictures as small as is enough to look at colours.
func (u *supplies) small(ctx context.Context) raster.Pictures {
	return func(id string) (image.Image, error) {
		_, raw, err := u.PicturePreview(ctx, id, Sides[1])
		if err != nil {
			return nil, err
		}
		img, _, err := picture.Decode("", raw)
		return img, err
	}
}

// seen paints a face in a box without the ink of an item.
func (u *supplies) seen(ctx context.Context, s *scene.Scene, f *scene.Face, rev Revision, box geom.Rect, without string, perMM float64) (image.Image, error) {
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	others := *f
	others.Items = nil
	for i := range f.Items {
		it := f.Items[i]
		if !it.Bounds.Overlaps(box) && !it.Bounds.Empty() {
			continue
		}
		if it.ID == without {
			it = it.Beneath()
		}
		others.Items = append(others.Items, it)
	}
	canvas := raster.New(box.W, box.H, perMM, color.White, u.small(ctx))
	err := canvas.Paint(scene.Transform(s.Look(&others, rev.Card.Base), geom.Shift(-box.X, -box.Y)))
	return canvas.Image(), err
}

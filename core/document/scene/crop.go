package scene

import (
	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// PhotoOf is the photo with the id on a face, or a *card.Refusal for something else.
func PhotoOf(f *card.Face, id string) (*card.Item, error) {
	it := f.Item(id)
	if it.Photo == nil {
		return nil, card.Refuse("id", "“%s” is no photo.", it.Name)
	}
	return it, nil
}

// OnPhoto maps the pixels of a photo's picture, upright and as it is seen after all edits, to the
// item.
func OnPhoto(it *card.Item) geom.Affine {
	box := Seen(*it.Photo, it.Bleeds()).Box
	w, h := it.Photo.Pixels()
	return geom.Scale(box.W/float64(w), box.H/float64(h)).Then(geom.Shift(box.X, box.Y))
}

// CutRound cuts a photo round an outline in its picture, in pixels, with a rim of paper, nil
// being none; the picture stays where it is. It returns a *card.Refusal for what is no outline.
func CutRound(it *card.Item, edge *card.Drawn, rim *card.Rim) error {
	if err := edge.Check(it.Name); err != nil {
		return err
	}
	OpenPhoto(it, geom.Union(geom.NonZero, edge.Path()).Transform(OnPhoto(it)))
	Rim(it, rim)
	return nil
}

// Rim gives a photo that is cut, or is to be cut, a rim of paper, nil being none, and leaves its
// picture where and as large as it is.
func Rim(it *card.Item, rim *card.Rim) {
	was := Seen(*it.Photo, it.Bleeds()).Box
	if !it.IsPiece() {
		it.Made = card.Made{As: card.Cut, Stock: card.First().Photo}
	}
	it.Photo.Rim = rim
	KeepPicture(it, was)
}

// KeepPicture sets the crop of a photo so that its picture lies in the box, as nearly
// as its opening can be filled with it there. Lengths are mm.
func KeepPicture(it *card.Item, box geom.Rect) {
	p := it.Photo
	p.Zoom, p.ShiftX, p.ShiftY = 0, 0, 0
	least := Seen(*p, it.Bleeds()).Least
	if z := card.Tidy(box.W / least.X); z > 1+1e-6 {
		p.Zoom = min(z, 50)
	}
	mid := box.Centre()
	p.ShiftX, p.ShiftY = mid.X/p.Width, mid.Y/p.Height
	// What would leave the opening bare is brought back.
	seen := Seen(*p, it.Bleeds()).Box.Centre()
	p.ShiftX, p.ShiftY = card.Tidy(seen.X/p.Width), card.Tidy(seen.Y/p.Height)
}

// OpenPhoto gives a photo another outline, in its own coordinates, and leaves its
// picture where and as large as it was if it still fills the outline.
func OpenPhoto(it *card.Item, outline geom.Path) {
	p := it.Photo
	was := Seen(*p, it.Bleeds()).Box
	box := outline.Bounds()
	c := box.Centre()
	at := it.Place.Map().Apply(c)
	it.Place.X, it.Place.Y = card.Tidy(at.X), card.Tidy(at.Y)
	p.Width, p.Height = card.Tidy(box.W), card.Tidy(box.H)
	p.Opening = &card.Form{Outline: card.Free, Width: p.Width, Height: p.Height, Path: card.NewDrawn(outline.Transform(geom.Shift(-c.X, -c.Y)))}
	KeepPicture(it, geom.Rect{X: was.X - c.X, Y: was.Y - c.Y, W: was.W, H: was.H})
}

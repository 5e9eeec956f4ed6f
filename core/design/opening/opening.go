// Package opening holds the commands about photos in openings: any outline can
// hold a picture, which slides and zooms inside it and is never stretched.
package opening

import (
	"cmp"
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/mat"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// Commands are the commands of this package, for card.Decode.
var Commands = map[string]func() card.Command{
	"cropPhoto":     func() card.Command { return &CropPhoto{} },
	"fillOpening":   func() card.Command { return &FillOpening{} },
	"setOpening":    func() card.Command { return &SetOpening{} },
	"cropToOutline": func() card.Command { return &CropToOutline{} },
	"growOpening":   func() card.Command { return &GrowOpening{} },
	"divideOpening": func() card.Command { return &DivideOpening{} },
	"swapPictures":  func() card.Command { return &SwapPictures{} },
	"widenToFace":   func() card.Command { return &WidenToFace{} },
}

// CropPhoto says how much of a picture is seen: the whole of it or as much as
// fills the opening, zoomed and shifted in shares of the opening.
type CropPhoto struct {
	ID     string  `json:"id"`
	Fit    bool    `json:"fit"`
	Zoom   float64 `json:"zoom"`
	ShiftX float64 `json:"shiftX"`
	ShiftY float64 `json:"shiftY"`
}

// Label implements card.Command.
func (CropPhoto) Label() string { return "Crop a photo" }

// Apply implements card.Command.
func (k CropPhoto) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, []string{k.ID}, func(_ *card.Card, f *card.Face) error {
		it, err := scene.PhotoOf(f, k.ID)
		if err != nil {
			return err
		}
		p := it.Photo
		p.Fit, p.Zoom, p.ShiftX, p.ShiftY = k.Fit, k.Zoom, k.ShiftX, k.ShiftY
		scene.KeepPicture(it, scene.Seen(*p, it.Bleeds()).Box)
		return nil
	})
}

// FillOpening puts a picture into the outline of an item: a shape, a paper or a
// slot becomes a photo, a photo keeps its crop and shows another picture. AtX and
// AtY are where in the picture the middle of the opening should be, in shares of
// it, such as its most detailed part.
type FillOpening struct {
	ID          string   `json:"id"`
	Picture     string   `json:"picture"`
	PixelWidth  int      `json:"pixelWidth"`
	PixelHeight int      `json:"pixelHeight"`
	Name        string   `json:"name,omitempty"`
	AtX         *float64 `json:"atX,omitempty"`
	AtY         *float64 `json:"atY,omitempty"`
	// Edits are what is done to the picture.
	Edits []card.Edit `json:"edits,omitempty"`
	// Edge is the outline of what the picture shows, in pixels. A photo that is cut round its form with a
	// rim is cut round this one, as wide as the picture before; elsewhere it does not count.
	Edge *card.Drawn `json:"edge,omitempty"`
}

// withPicture is the command that puts the picture of a photo elsewhere.
func withPicture(p card.Print) FillOpening {
	return FillOpening{Picture: p.Picture, PixelWidth: p.PixelWidth, PixelHeight: p.PixelHeight, Edits: p.Edits}
}

// Label implements card.Command.
func (FillOpening) Label() string { return "Put a photo in" }

// Apply implements card.Command.
func (k FillOpening) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, []string{k.ID}, func(_ *card.Card, f *card.Face) error {
		return Fill(f.Item(k.ID), k)
	})
}

// Fill does what the command says to one item. It returns a *card.Refusal for what cannot hold
// a photo.
func Fill(it *card.Item, k FillOpening) error {
	switch {
	case it.Photo != nil && it.Rimmed() && k.Edge != nil && k.PixelWidth > 0 && k.PixelHeight > 0:
		wide, rim := scene.Seen(*it.Photo, it.Bleeds()).Box.W, it.Photo.Rim
		it.Photo = &card.Print{Picture: k.Picture, PixelWidth: k.PixelWidth, PixelHeight: k.PixelHeight, Edits: slices.Clone(k.Edits),
			Width: wide, Height: wide * float64(k.PixelHeight) / float64(k.PixelWidth)}
		// Until it has its rim its picture reaches past it by the bleed.
		bleed := 2 * it.Bleeds()
		it.Photo.Width, it.Photo.Height = max(1, it.Photo.Width-bleed), max(1, it.Photo.Height-bleed)
		it.Name = cmp.Or(k.Name, it.Name)
		return scene.CutRound(it, k.Edge, rim)
	case it.Photo != nil:
		it.Receive(card.Photo)
		it.Photo.Picture, it.Photo.PixelWidth, it.Photo.PixelHeight, it.Photo.Edits = k.Picture, k.PixelWidth, k.PixelHeight, slices.Clone(k.Edits)
		it.Name = cmp.Or(k.Name, it.Name)
	case it.Slot != nil && it.Slot.Takes == card.TakesWords:
		return card.Refuse("id", "The slot “%s” waits for words.", it.Name)
	case it.Form != nil:
		form := *it.Form
		if it.Slot != nil {
			it.Made = it.Slot.Made
		}
		it.Receive(card.Photo)
		it.Photo = &card.Print{Picture: k.Picture, PixelWidth: k.PixelWidth, PixelHeight: k.PixelHeight, Width: form.Width, Height: form.Height, Edits: slices.Clone(k.Edits)}
		if form.Outline != card.Rectangle || form.Corner != card.Square {
			it.Photo.Opening = &form
		}
		it.Kind, it.Form, it.Slot, it.Fill = card.Photo, nil, nil, card.Fill{}
		it.Name = cmp.Or(k.Name, it.Name)
	default:
		return card.Refuse("id", "“%s” has no outline that could hold a photo. Shapes, papers, slots and photos have.", it.Name)
	}
	p := it.Photo
	if k.AtX != nil && k.AtY != nil && p.PixelWidth > 0 && p.PixelHeight > 0 {
		p.Fit, p.Zoom = false, 0
		least := scene.Seen(*p, it.Bleeds()).Least
		scene.KeepPicture(it, geom.Rect{X: -*k.AtX * least.X, Y: -*k.AtY * least.Y, W: least.X, H: least.Y})
	} else if p.Opening != nil || p.Zoom != 0 || p.ShiftX != 0 || p.ShiftY != 0 {
		scene.KeepPicture(it, scene.Seen(*p, it.Bleeds()).Box)
	}
	return nil
}

// SetOpening gives photos a ready outline. Radius, mm, is that of its corners.
type SetOpening struct {
	IDs     []string     `json:"ids"`
	Outline card.Outline `json:"outline"`
	Corner  card.Corner  `json:"corner,omitempty"`
	Radius  float64      `json:"radius,omitempty"`
}

// Label implements card.Command.
func (SetOpening) Label() string { return "Change an opening" }

// Apply implements card.Command.
func (k SetOpening) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, k.IDs, func(_ *card.Card, f *card.Face) error {
		if k.Outline == card.Free {
			return card.Refuse("outline", "Choose a photo and a shape, and crop the photo to the shape.")
		}
		for _, id := range k.IDs {
			it, err := scene.PhotoOf(f, id)
			if err != nil {
				return err
			}
			it.Photo.Opening = &card.Form{Outline: k.Outline, Width: it.Photo.Width, Height: it.Photo.Height}
			if k.Outline == card.Rectangle {
				it.Photo.Opening.Corner, it.Photo.Opening.Radius = k.Corner, card.Tidy(k.Radius)
				if k.Corner == card.Square || k.Corner == "" {
					it.Photo.Opening = nil
				}
			}
		}
		return nil
	})
}

// CropToOutline crops a photo to the outline of another item, which goes.
type CropToOutline struct {
	Photo string `json:"photo"`
	By    string `json:"by"`
}

// Label implements card.Command.
func (CropToOutline) Label() string { return "Crop a photo to an outline" }

// Apply implements card.Command.
func (k CropToOutline) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, []string{k.Photo, k.By}, func(_ *card.Card, f *card.Face) error {
		it, err := scene.PhotoOf(f, k.Photo)
		if err != nil {
			return err
		}
		by := f.Item(k.By)
		if by.Photo != nil || by.Lines != nil {
			return card.Refuse("by", "“%s” has no outline to crop to. Shapes, papers and lettering have.", by.Name)
		}
		if err := f.Unlocked([]string{k.Photo, k.By}); err != nil {
			return err
		}
		s, err := scene.Resolve(f, by)
		if err != nil {
			return err
		}
		back, _ := it.Place.Map().Inverse()
		outline := geom.Union(geom.NonZero, s.Outline.Transform(s.At).Transform(back))
		if !outline.Bounds().Overlaps(scene.Seen(*it.Photo, 0).Box) {
			return card.Refuse("by", "“%s” does not lie on the photo. Put it where the photo is to be seen.", by.Name)
		}
		scene.OpenPhoto(it, outline)
		f.Remove(k.By)
		return nil
	})
}

// GrowOpening moves the outlines of photos outward by By, mm, or inward if By
// is less than nothing, and leaves their pictures where they are.
type GrowOpening struct {
	IDs    []string    `json:"ids"`
	By     float64     `json:"by"`
	Corner card.Corner `json:"corner"`
}

// Label implements card.Command.
func (GrowOpening) Label() string { return "Grow or shrink a crop" }

// Apply implements card.Command.
func (k GrowOpening) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, k.IDs, func(_ *card.Card, f *card.Face) error {
		if k.By == 0 || math.IsNaN(k.By) || math.Abs(k.By) > 150 {
			return card.Refuse("by", "Grow or shrink by something up to 150 mm (5 ⅞ in).")
		}
		for _, id := range k.IDs {
			it, err := scene.PhotoOf(f, id)
			if err != nil {
				return err
			}
			form := it.Photo.Form()
			if form.Outline == card.Rectangle && form.Corner == card.Square && k.Corner == card.Square && min(form.Width, form.Height)+2*k.By > .5 {
				was := scene.Seen(*it.Photo, it.Bleeds()).Box
				it.Photo.Width, it.Photo.Height = card.Tidy(form.Width+2*k.By), card.Tidy(form.Height+2*k.By)
				scene.KeepPicture(it, was)
				continue
			}
			grown := geom.Offset(card.OutlineOf(form), k.By, mat.Corner(k.Corner))
			if grown.Empty() {
				return card.Refuse("by", "Nothing would be left of “%s”. Shrink it by less.", it.Name)
			}
			scene.OpenPhoto(it, grown)
		}
		return nil
	})
}

// SwapPictures swaps the pictures of two photos, or of a photo and a slot, and
// leaves the openings.
type SwapPictures struct {
	A string `json:"a"`
	B string `json:"b"`
}

// Label implements card.Command.
func (SwapPictures) Label() string { return "Swap two pictures" }

// Apply implements card.Command.
func (k SwapPictures) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, []string{k.A, k.B}, func(_ *card.Card, f *card.Face) error {
		a, b := f.Item(k.A), f.Item(k.B)
		if a.Photo == nil {
			a, b = b, a
		}
		if a.Photo == nil || b.Photo == nil && b.Slot == nil {
			return card.Refuse("a", "Pictures are swapped between photos, or a photo and a slot.")
		}
		from := *a.Photo
		if b.Photo == nil {
			to := emptied(a, b.Slot)
			to.Name, b.Name = b.Name, a.Name
			if err := Fill(b, withPicture(from)); err != nil {
				return err
			}
			*a = to
			return nil
		}
		other := *b.Photo
		// A photo is named by its picture.
		a.Name, b.Name = b.Name, a.Name
		for _, s := range []struct {
			it *card.Item
			p  card.Print
		}{{a, other}, {b, from}} {
			s.it.Photo.Zoom, s.it.Photo.ShiftX, s.it.Photo.ShiftY = 0, 0, 0
			if err := Fill(s.it, withPicture(s.p)); err != nil {
				return err
			}
		}
		return nil
	})
}

// emptied is the slot that a photo leaves when its picture goes elsewhere.
func emptied(it *card.Item, like *card.Waits) card.Item {
	out := *it
	form := it.Photo.Form()
	w := *like
	w.Made = it.Made
	out.Kind, out.Photo, out.Form, out.Slot, out.Look = card.Slot, nil, &form, &w, nil
	out.Made = card.Made{As: card.Printed}
	return out
}

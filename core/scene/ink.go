package scene

import (
	"sectilis/core/card"
	"sectilis/core/geom"
	"sectilis/core/layer"
	"sectilis/core/paper"
)

// Ink is one thing to print: a region filled with a colour, a paper or a
// picture, and clipped to every one of Clips. All is in the coordinates the
// inks were asked for; regions are filled by the non-zero rule.
type Ink struct {
	Region geom.Path
	Clips  []geom.Path
	Colour string
	Paper  *paper.Paper
	// PaperAt maps the pattern's coordinates to the target's.
	PaperAt geom.Affine
	Picture string
	// PictureAt maps the upright picture's unit square, v down, to the target.
	PictureAt geom.Affine
}

// transform maps the ink by m.
func (k Ink) transform(m geom.Affine) Ink {
	k.Region = k.Region.Transform(m)
	clips := make([]geom.Path, len(k.Clips))
	for i, c := range k.Clips {
		clips[i] = c.Transform(m)
	}
	k.Clips = clips
	k.PaperAt, k.PictureAt = k.PaperAt.Then(m), k.PictureAt.Then(m)
	return k
}

// Transform maps inks by m.
func Transform(inks []Ink, m geom.Affine) []Ink {
	out := make([]Ink, len(inks))
	for i, k := range inks {
		out[i] = k.transform(m)
	}
	return out
}

// own is the ink of the item itself, in face coordinates.
func (it *Item) own(clips ...geom.Path) []Ink {
	k := Ink{Region: layer.Bleed(it.Outline, it.Bleed).Transform(it.At), Clips: clips, PaperAt: it.At}
	switch {
	case it.Role != "":
		return nil // a line is worked, not printed
	case it.Picture != nil:
		b := it.Picture.Box
		k.Picture = it.Picture.ID
		k.PictureAt = geom.Scale(b.W, b.H).Then(geom.Shift(b.X, b.Y)).Then(it.At)
	case it.Fill.Paper != "":
		p, ok := paper.ByID(it.Fill.Paper)
		if !ok {
			return nil
		}
		k.Paper = &p
	case it.Fill.Colour != "":
		k.Colour = it.Fill.Colour
	default:
		return nil
	}
	return []Ink{k}
}

// BaseInks is what is printed on the base itself on this face, in face
// coordinates, clipped to the face.
func (f *Face) BaseInks() []Ink {
	return f.inksOn("", f.Shape)
}

func (f *Face) inksOn(carrier string, clip geom.Path) []Ink {
	var out []Ink
	for i := range f.Items {
		if it := &f.Items[i]; it.On == carrier && !it.Piece {
			out = append(out, it.own(clip)...)
		}
	}
	return out
}

// PieceInks is what is printed on a piece: its own ink with bleed, and the ink
// on it, which ends where the piece does, in face coordinates.
func (f *Face) PieceInks(it *Item) []Ink {
	clip := layer.Bleed(it.Outline, it.Bleed).Transform(it.At)
	return append(it.own(), f.inksOn(it.ID, clip)...)
}

// Look is the whole face as it is seen, the base's stock first, in face
// coordinates.
func (s *Scene) Look(f *Face, base card.Base) []Ink {
	stock, _ := card.StockByID(base.Stock)
	out := []Ink{{Region: f.Shape, Colour: stock.Colour}}
	out = append(out, f.BaseInks()...)
	for i := range f.Items {
		it := &f.Items[i]
		if !it.Piece {
			continue
		}
		outline := it.Outline.Transform(it.At)
		out = append(out, Ink{Region: outline, Colour: it.Ground})
		for _, k := range f.PieceInks(it) {
			k.Clips = append([]geom.Path{outline}, k.Clips...)
			out = append(out, k)
		}
	}
	return out
}

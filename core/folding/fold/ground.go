package fold

import (
	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// groundBleed is how far a printed background runs past the edges of its face, mm, so
// that no white shows where the sheet is cut.
const groundBleed = 3

// Ground is the box of a face's background: the face with bleed, but no further over a fold
// than the fold itself, since the neighbour is another face.
func Ground(n Net, id card.FaceID) geom.Rect {
	f := n.Face(id)
	box := geom.Rect{W: f.Width, H: f.Height}.Grow(groundBleed)
	for _, o := range n.Neighbours(id) {
		mid := o.At.Apply(geom.Pt(o.Width/2, o.Height/2))
		switch {
		case mid.X < 0:
			box.W, box.X = box.W+box.X, 0
		case mid.X > f.Width:
			box.W = f.Width - box.X
		case mid.Y < 0:
			box.H, box.Y = box.H+box.Y, 0
		case mid.Y > f.Height:
			box.H = f.Height - box.Y
		}
	}
	return box
}

// layGrounds gives the backgrounds of all faces of a card the size of their faces.
func layGrounds(c *card.Card) {
	n := Of(c.Base)
	for i := range c.Faces {
		f := &c.Faces[i]
		if n.Face(f.ID).ID == "" {
			continue // it waits for a base that has this face
		}
		for j := range f.Items {
			it := &f.Items[j]
			if !it.Background {
				continue
			}
			box := Ground(n, f.ID)
			it.Place.X, it.Place.Y = card.Tidy(box.Centre().X), card.Tidy(box.Centre().Y)
			w, h := card.Tidy(box.W), card.Tidy(box.H)
			switch {
			case it.Form != nil:
				it.Form.Width, it.Form.Height = w, h
			case it.Photo != nil:
				it.Photo.Width, it.Photo.Height = w, h
			}
		}
	}
}

package arrange

import (
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
)

// SetBackground prints a fill or a picture over whole faces, under all else, or takes it
// away when both are empty. It is locked: nobody means to drag it.
type SetBackground struct {
	Faces   []card.FaceID  `json:"faces"`
	Fill    card.Fill      `json:"fill"`
	Picture *GroundPicture `json:"picture,omitempty"`
}

// GroundPicture is a picture that fills a face: its id and its size in pixels, upright, and how
// it is zoomed and shifted, as in card.Print.
type GroundPicture struct {
	ID          string  `json:"id"`
	PixelWidth  int     `json:"pixelWidth"`
	PixelHeight int     `json:"pixelHeight"`
	Zoom        float64 `json:"zoom,omitempty"`
	ShiftX      float64 `json:"shiftX,omitempty"`
	ShiftY      float64 `json:"shiftY,omitempty"`
	// Edits are what is done to it.
	Edits []card.Edit `json:"edits,omitempty"`
}

// Label implements card.Command.
func (SetBackground) Label() string { return "Change the background" }

// Apply implements card.Command.
func (k SetBackground) Apply(c card.Card) (card.Card, error) {
	if len(k.Faces) == 0 {
		return c, card.Refuse("faces", "Choose a face.")
	}
	if k.Picture != nil && k.Fill != (card.Fill{}) {
		return c, card.Refuse("fill", "A background is a picture or a fill, not both.")
	}
	for _, id := range k.Faces {
		next, err := k.on(c, id)
		if err != nil {
			return c, err
		}
		c = next
	}
	return c, nil
}

func (k SetBackground) on(c card.Card, id card.FaceID) (card.Card, error) {
	net := fold.StudyOf(c.Base).Net
	nf := net.Face(id)
	f := c.Face(id)
	if f == nil || nf.ID == "" {
		return c, card.Refuse("faces", "There is no face “%s”.", id)
	}
	i := slices.IndexFunc(f.Items, func(it card.Item) bool { return it.Background })
	if k.Fill == (card.Fill{}) && k.Picture == nil {
		if i < 0 {
			return c, nil
		}
		return card.Change(c, func(c *card.Card) error {
			f := c.Face(id)
			f.Release(f.Items[i].ID)
			return nil
		})
	}
	box := fold.Ground(net, id)
	at := box.Centre()
	w, h := card.Tidy(box.W), card.Tidy(box.H)
	it := card.Item{Name: "Background", Kind: card.Paper, Made: card.Made{As: card.Printed}, Fill: k.Fill, Locked: true, Background: true,
		Place: card.Place{X: card.Tidy(at.X), Y: card.Tidy(at.Y)}}
	if p := k.Picture; p != nil {
		it.Kind, it.Photo = card.Photo, &card.Print{Picture: p.ID, PixelWidth: p.PixelWidth, PixelHeight: p.PixelHeight, Width: w, Height: h,
			Zoom: p.Zoom, ShiftX: p.ShiftX, ShiftY: p.ShiftY, Edits: slices.Clone(p.Edits)}
	} else {
		it.Form = &card.Form{Outline: card.Rectangle, Corner: card.Square, Width: w, Height: h}
	}
	if i >= 0 {
		if k.Picture == nil && f.Items[i].Photo == nil {
			return card.SetFill{IDs: []string{f.Items[i].ID}, Fill: k.Fill}.Apply(c)
		}
		return card.Change(c, func(c *card.Card) error {
			was := &c.Face(id).Items[i]
			it.ID, it.Name = was.ID, was.Name
			*was = it
			return nil
		})
	}
	return card.Change(c, func(c *card.Card) error {
		made, err := c.Insert(c.Face(id), "", []card.Item{it})
		if err != nil {
			return err
		}
		// What it is printed on is the base, whatever lies there.
		c.Face(id).Item(made[0]).On = ""
		return nil
	})
}

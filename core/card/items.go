package card

import (
	"fmt"
	"slices"
	"strings"

	"sectilis/core/geom"
)

// PlaceItems puts new items on a face, lowest first. Their ids only say how
// they belong together (On and Mat.Of); each gets an id of its own. One that
// names no carrier of the batch or the face lies on what is under its middle
// or, so that what belongs together stays together, under Around.
type PlaceItems struct {
	Face   FaceID      `json:"face"`
	Items  []Item      `json:"items"`
	Around *geom.Point `json:"around,omitempty"`
}

// Label implements Command.
func (k PlaceItems) Label() string {
	if len(k.Items) == 1 {
		return "Place " + strings.ToLower(string(k.Items[0].Kind))
	}
	return fmt.Sprintf("Place %d items", len(k.Items))
}

// Apply implements Command.
func (k PlaceItems) Apply(c Card) (Card, error) {
	return Change(c, func(c *Card) error {
		f := c.Face(k.Face)
		if f == nil {
			return refuse("face", "There is no face “%s”.", k.Face)
		}
		if len(k.Items) == 0 {
			return refuse("items", "There is nothing to place.")
		}
		return c.place(f, k.Items, func(before *Face, it Item) string {
			at := geom.Pt(it.Place.X, it.Place.Y)
			if k.Around != nil {
				at = *k.Around
			}
			return before.pieceAt(at, nil)
		})
	})
}

// place adds copies of the items to the top of their carriers. Those without
// one lie on what settle says or, if it is nil, on the base.
func (c *Card) place(f *Face, items []Item, settle func(before *Face, it Item) string) error {
	ids := map[string]string{}
	for _, it := range items {
		if it.ID == "" {
			continue
		}
		if ids[it.ID] != "" {
			return refuse("items", "Two of the new items have the same id.")
		}
		ids[it.ID] = fmt.Sprintf("i%d", c.NextID+len(ids))
	}
	before := *f
	for _, it := range items {
		it = it.clone()
		it.ID = ids[it.ID]
		if it.ID == "" {
			it.ID = fmt.Sprintf("i%d", c.NextID+len(ids))
			ids[it.ID] = it.ID
		}
		if it.Mat != nil {
			it.Mat.Of = ids[it.Mat.Of]
			it.Place = Place{}
		}
		if on := ids[it.On]; it.On != "" && on != "" {
			it.On = on
		} else if carrier := before.Item(it.On); carrier == nil || !carrier.IsPiece() {
			it.On = ""
			if settle != nil && it.Mat == nil {
				it.On = settle(&before, it)
			}
		}
		it.Place = Place{tidy(it.Place.X), tidy(it.Place.Y), tidy(it.Place.Turn)}
		f.Items = append(f.Items, it)
	}
	c.NextID += len(ids)
	return nil
}

// DuplicateItems copies items with their mats and all they carry, moved by
// (dx, dy).
type DuplicateItems struct {
	IDs []string `json:"ids"`
	DX  float64  `json:"dx"`
	DY  float64  `json:"dy"`
}

// Label implements Command.
func (k DuplicateItems) Label() string { return label("Duplicate", k.IDs) }

// Apply implements Command.
func (k DuplicateItems) Apply(c Card) (Card, error) {
	return OnFace(c, k.IDs, func(c *Card, f *Face) error {
		all := f.together(k.IDs)
		var copies []Item
		for _, it := range f.Items {
			if slices.Contains(all, it.ID) {
				it = it.clone()
				it.Place.X += k.DX
				it.Place.Y += k.DY
				copies = append(copies, it)
			}
		}
		return c.place(f, copies, nil)
	})
}

// RemoveItems takes items away, with the mats under them. What lay on a piece
// stays where it is, on what carried the piece.
type RemoveItems struct {
	IDs []string `json:"ids"`
}

// Label implements Command.
func (k RemoveItems) Label() string { return label("Remove", k.IDs) }

// Apply implements Command.
func (k RemoveItems) Apply(c Card) (Card, error) {
	return OnFace(c, k.IDs, func(_ *Card, f *Face) error {
		for _, id := range k.IDs {
			it := f.Item(id)
			if it == nil {
				continue // a mat that went with what lay on it
			}
			gone := []string{id}
			if it.Mat == nil {
				for m := f.Item(it.On); m != nil && m.Mat != nil && m.Mat.Of == gone[len(gone)-1]; m = f.Item(m.On) {
					gone = append(gone, m.ID)
				}
			}
			for _, g := range gone {
				f.Release(g)
			}
		}
		return nil
	})
}

// MoveItems moves items with their mats and all they carry.
type MoveItems struct {
	IDs []string `json:"ids"`
	DX  float64  `json:"dx"`
	DY  float64  `json:"dy"`
}

// Label implements Command.
func (k MoveItems) Label() string { return label("Move", k.IDs) }

// Apply implements Command.
func (k MoveItems) Apply(c Card) (Card, error) {
	return OnFace(c, k.IDs, func(_ *Card, f *Face) error {
		moved := f.together(k.IDs)
		f.shiftPlaces(moved, k.DX, k.DY)
		for _, id := range k.IDs {
			f.settle(id, moved)
		}
		return nil
	})
}

func (f *Face) shiftPlaces(ids []string, dx, dy float64) {
	for _, id := range ids {
		if it := f.Item(id); it.Mat == nil {
			it.Place.X, it.Place.Y = tidy(it.Place.X+dx), tidy(it.Place.Y+dy)
		}
	}
}

// ResizeItems stretches items about a point of the face by fx and fy, along
// the item's own axes when there is one, along the face's when there are
// several. What they carry keeps its size and its distance from their middle.
type ResizeItems struct {
	IDs   []string   `json:"ids"`
	FX    float64    `json:"fx"`
	FY    float64    `json:"fy"`
	About geom.Point `json:"about"`
}

// Label implements Command.
func (k ResizeItems) Label() string { return label("Resize", k.IDs) }

// Apply implements Command.
func (k ResizeItems) Apply(c Card) (Card, error) {
	return OnFace(c, k.IDs, func(_ *Card, f *Face) error {
		if k.FX <= 0 || k.FY <= 0 {
			return refuse("size", "Width and height are more than nothing.")
		}
		for _, id := range k.IDs {
			if err := k.resize(f, f.Item(id)); err != nil {
				return err
			}
		}
		return nil
	})
}

func (k ResizeItems) resize(f *Face, it *Item) error {
	even := k.FX == k.FY
	switch {
	case it.Mat != nil:
		return refuse("size", "A mat takes its size from what lies on it. Change its width, or resize “%s”.", f.top(it.ID).Name)
	case it.Words != nil && !even:
		return refuse("size", "Lettering keeps its proportions. Turn “In ratio” on, or change the size of the letters.")
	case len(k.IDs) > 1 && !even:
		return refuse("size", "Several items keep their proportions while they are resized together.")
	}
	switch {
	case it.Photo != nil:
		it.Photo.Width, it.Photo.Height = tidy(it.Photo.Width*k.FX), tidy(it.Photo.Height*k.FY)
	case it.Form != nil:
		it.Form.Width, it.Form.Height = tidy(it.Form.Width*k.FX), tidy(it.Form.Height*k.FY)
		if even {
			it.Form.Radius = tidy(it.Form.Radius * k.FX)
		}
	case it.Words != nil:
		it.Words.Size = tidy(it.Words.Size * k.FX)
	case it.Lines != nil:
		it.Lines.Width, it.Lines.Height = tidy(it.Lines.Width*k.FX), tidy(it.Lines.Height*k.FY)
	}
	turn := geom.Turn(radians(it.Place.Turn))
	back := geom.Turn(-radians(it.Place.Turn))
	from := geom.Pt(it.Place.X, it.Place.Y)
	to := k.About.Add(turn.Apply(geom.Scale(k.FX, k.FY).Apply(back.Apply(from.Sub(k.About)))))
	d := to.Sub(from)
	it.Place.X, it.Place.Y = tidy(to.X), tidy(to.Y)
	for _, id := range f.carried(it.ID)[1:] {
		if !slices.Contains(k.IDs, id) {
			f.shiftPlaces([]string{id}, d.X, d.Y)
		}
	}
	return nil
}

// TurnItems turns items with all they carry, clockwise by degrees, about a
// point of the face.
type TurnItems struct {
	IDs     []string   `json:"ids"`
	Degrees float64    `json:"degrees"`
	About   geom.Point `json:"about"`
}

// Label implements Command.
func (k TurnItems) Label() string { return label("Turn", k.IDs) }

// Apply implements Command.
func (k TurnItems) Apply(c Card) (Card, error) {
	return OnFace(c, k.IDs, func(_ *Card, f *Face) error {
		if !within(k.Degrees, -360, 360) {
			return refuse("turn", "A turn is between -360° and 360°.")
		}
		m := geom.Turn(radians(k.Degrees))
		for _, id := range f.together(k.IDs) {
			it := f.Item(id)
			if it.Mat != nil {
				continue
			}
			p := k.About.Add(m.Apply(geom.Pt(it.Place.X, it.Place.Y).Sub(k.About)))
			it.Place = Place{tidy(p.X), tidy(p.Y), wrap(it.Place.Turn + k.Degrees)}
		}
		return nil
	})
}

// NameItem names an item.
type NameItem struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// Label implements Command.
func (NameItem) Label() string { return "Name an item" }

// Apply implements Command.
func (k NameItem) Apply(c Card) (Card, error) {
	return OnFace(c, []string{k.ID}, func(_ *Card, f *Face) error {
		f.Item(k.ID).Name = strings.TrimSpace(k.Name)
		return nil
	})
}

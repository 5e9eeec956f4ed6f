package card

import (
	"fmt"
	"slices"
	"strings"

	"sectilis/core/ground/geom"
)

// PlaceItems puts new items on a face, lowest first. Their ids only say how
// they belong together (On and Mat.Of); each gets an id of its own. One that
// names no carrier of the batch or the face lies on what is under its middle
// or, so that what belongs together stays together, under Around.
type PlaceItems struct {
	Face   FaceID      `json:"face"`
	Items  []Item      `json:"items"`
	Groups []Group     `json:"groups,omitempty"` // of the new items
	Around *geom.Point `json:"around,omitempty"`
	// Along turns the items as the piece is turned that they are placed on.
	Along bool `json:"along,omitempty"`
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
			return Refuse("face", "There is no face “%s”.", k.Face)
		}
		if len(k.Items) == 0 {
			return Refuse("items", "There is nothing to place.")
		}
		_, err := c.place(f, k.Items, k.Groups, func(before *Face, it *Item) {
			at := geom.Pt(it.Place.X, it.Place.Y)
			if k.Around != nil {
				at = *k.Around
			}
			it.On = before.pieceAt(at, nil)
			if k.Along {
				it.Place.Turn += before.turnOf(it.On)
			}
		})
		return err
	})
}

// turnOf is how a piece of the face is turned, degrees; a mat is turned as what lies on it.
func (f *Face) turnOf(id string) float64 {
	it := f.Item(id)
	for it != nil && it.Mat != nil {
		it = f.Item(it.Mat.Of)
	}
	if it == nil {
		return 0
	}
	return it.Place.Turn
}

// place adds copies of the items to the top of their carriers and returns their
// new ids by the old ones. Those without a carrier are put on one by settle or,
// if it is nil, lie on the base.
func (c *Card) place(f *Face, items []Item, groups []Group, settle func(before *Face, it *Item)) (map[string]string, error) {
	ids := map[string]string{}
	for _, it := range items {
		if it.ID == "" {
			continue
		}
		if ids[it.ID] != "" {
			return nil, Refuse("items", "Two of the new items have the same id.")
		}
		ids[it.ID] = fmt.Sprintf("i%d", c.NextID+len(ids))
	}
	before := *f
	for _, it := range items {
		it = it.Clone()
		it.Cover = nil // a copy covers no panel
		it.ID = ids[it.ID]
		if it.ID == "" {
			it.ID = fmt.Sprintf("i%d", c.NextID+len(ids))
			ids[it.ID] = it.ID
		}
		if it.Mat != nil {
			it.Mat.Of = ids[it.Mat.Of]
			it.Place = Place{}
		}
		if it.Window != nil { // a copy follows the copies
			for i, of := range it.Window.Of {
				it.Window.Of[i] = ids[of]
			}
		}
		if on := ids[it.On]; it.On != "" && on != "" {
			it.On = on
		} else if carrier := before.Item(it.On); carrier == nil || !carrier.IsPiece() {
			it.On = ""
			if settle != nil && it.Mat == nil && !it.isGuide() {
				settle(&before, &it)
			}
		}
		if f.GroupByID(it.Group) == nil && !slices.ContainsFunc(groups, func(g Group) bool { return g.ID == it.Group }) {
			it.Group = ""
		}
		it.Place.X, it.Place.Y, it.Place.Turn = Tidy(it.Place.X), Tidy(it.Place.Y), Tidy(it.Place.Turn)
		f.Items = append(f.Items, it)
	}
	c.NextID += len(ids)
	c.copyGroups(f, groups, f.Items[len(f.Items)-len(items):])
	return ids, nil
}

// isGuide says that the item is a guide, which lies on the face whatever is there.
func (it *Item) isGuide() bool { return it.Lines != nil && it.Lines.Role == RoleGuide }

// DuplicateItems copies items with their mats and all they carry, moved by (dx, dy). The shift
// is mm.
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
		_, err := c.Duplicate(f, k.IDs, k.DX, k.DY)
		return err
	})
}

// Duplicate copies items of a face with their mats and all they carry, moved by (dx, dy), and
// returns the ids of the copies by those of the originals. A group that is copied whole is
// copied as a group. It returns a *Refusal when that is more than a face holds. The shift is
// mm.
func (c *Card) Duplicate(f *Face, ids []string, dx, dy float64) (map[string]string, error) {
	all := f.Together(ids)
	var copies []Item
	for _, it := range f.Items {
		if slices.Contains(all, it.ID) {
			it = it.Clone()
			it.Place.X += dx
			it.Place.Y += dy
			copies = append(copies, it)
		}
	}
	return c.place(f, copies, f.whole(all), nil)
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
		if err := f.unlocked(k.IDs, "remove it"); err != nil {
			return err
		}
		for _, id := range k.IDs {
			if f.Item(id) != nil { // a mat went with what lay on it
				f.Remove(id)
			}
		}
		return nil
	})
}

// Remove takes an item away, with the mats under it. What lay on it lies on what
// carried it then.
func (f *Face) Remove(id string) {
	it := f.Item(id)
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

// MoveItems moves items with their mats and all they carry. The shift is mm.
type MoveItems struct {
	IDs []string `json:"ids"`
	DX  float64  `json:"dx"`
	DY  float64  `json:"dy"`
}

// Label implements Command.
func (k MoveItems) Label() string { return label("Move", k.IDs) }

// Apply implements Command.
func (k MoveItems) Apply(c Card) (Card, error) {
	return OnFace(c, k.IDs, func(_ *Card, f *Face) error { return f.Move(f.seenThrough(k.IDs), k.DX, k.DY) })
}

// Move moves items by (dx, dy) with their mats and all they carry, and lets them lie on what is
// under them then. It refuses what is locked. The shift is mm.
func (f *Face) Move(ids []string, dx, dy float64) error {
	if err := f.Unlocked(ids); err != nil {
		return err
	}
	moved := f.Together(ids)
	f.shiftPlaces(moved, dx, dy)
	for _, id := range ids {
		f.settle(id, moved)
	}
	return nil
}

func (f *Face) shiftPlaces(ids []string, dx, dy float64) {
	for _, id := range ids {
		if it := f.Item(id); it.Mat == nil {
			it.Place.X, it.Place.Y = Tidy(it.Place.X+dx), Tidy(it.Place.Y+dy)
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
	return OnFace(c, k.IDs, func(_ *Card, f *Face) error { return f.Resize(k) })
}

// Resize does what the command says, and refuses what is locked.
func (f *Face) Resize(k ResizeItems) error {
	if k.FX <= 0 || k.FY <= 0 {
		return Refuse("size", "Width and height are more than nothing.")
	}
	if err := f.Unlocked(k.IDs); err != nil {
		return err
	}
	for _, id := range k.IDs {
		if err := k.resize(f, f.Item(id)); err != nil {
			return err
		}
	}
	return nil
}

func (k ResizeItems) resize(f *Face, it *Item) error {
	even := k.FX == k.FY
	switch {
	case it.Window != nil:
		return Refuse("size", "A window mat takes its size from what is seen through it. Change how far it reaches, or resize “%s”.", f.Item(it.Window.Of[0]).Name)
	case it.Mat != nil:
		return Refuse("size", "A mat takes its size from what lies on it. Change its width, or resize “%s”.", f.top(it.ID).Name)
	case it.Words != nil && it.Words.Box == nil && !even:
		return Refuse("size", "Lettering keeps its proportions. Turn “In ratio” on, or change the size of the letters.")
	case len(k.IDs) > 1 && !even:
		return Refuse("size", "Several items keep their proportions while they are resized together.")
	}
	it.Scale(k.FX, k.FY)
	turn := geom.Turn(radians(it.Place.Turn))
	back := geom.Turn(-radians(it.Place.Turn))
	from := geom.Pt(it.Place.X, it.Place.Y)
	to := k.About.Add(turn.Apply(geom.Scale(k.FX, k.FY).Apply(back.Apply(from.Sub(k.About)))))
	d := to.Sub(from)
	it.Place.X, it.Place.Y = Tidy(to.X), Tidy(to.Y)
	for _, id := range f.Carried(it.ID)[1:] {
		if !slices.Contains(k.IDs, id) {
			f.shiftPlaces([]string{id}, d.X, d.Y)
		}
	}
	return nil
}

// Scale multiplies the sizes that an item has by itself, by fx along and fy down; those of
// letters and of round corners only evenly.
func (it *Item) Scale(fx, fy float64) {
	even := fx == fy
	switch {
	case it.Photo != nil:
		it.Photo.Width, it.Photo.Height = Tidy(it.Photo.Width*fx), Tidy(it.Photo.Height*fy)
		if o := it.Photo.Opening; o != nil && even {
			o.Radius = Tidy(o.Radius * fx)
		}
	case it.Form != nil:
		it.Form.Width, it.Form.Height = Tidy(it.Form.Width*fx), Tidy(it.Form.Height*fy)
		if even {
			it.Form.Radius = Tidy(it.Form.Radius * fx)
		}
	case it.Words != nil && even:
		it.Words.scale(fx)
	case it.Words != nil && it.Words.Box != nil:
		it.Words.Box.Width, it.Words.Box.Height = Tidy(it.Words.Box.Width*fx), Tidy(it.Words.Box.Height*fy)
	case it.Lines != nil:
		it.Lines.Width, it.Lines.Height = Tidy(it.Lines.Width*fx), Tidy(it.Lines.Height*fy)
	}
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
			return Refuse("turn", "A turn is between -360° and 360°.")
		}
		return f.Turn(k.IDs, k.Degrees, k.About)
	})
}

// Turn turns items with all they carry, clockwise by degrees, about a point.
// It refuses what is locked.
func (f *Face) Turn(ids []string, degrees float64, about geom.Point) error {
	return f.swing(ids, geom.Turn(radians(degrees)), about, func(p *Place) { p.Turn += degrees })
}

// Mirror mirrors items with all they carry about an upright line through the
// point, or about a level one. It refuses what is locked.
func (f *Face) Mirror(ids []string, level bool, about geom.Point) error {
	m := geom.Scale(-1, 1)
	if level {
		m = geom.Scale(1, -1)
	}
	return f.swing(ids, m, about, func(p *Place) {
		p.Mirrored, p.Turn = !p.Mirrored, -p.Turn
		if level {
			p.Turn += 180
		}
	})
}

func (f *Face) swing(ids []string, m geom.Affine, about geom.Point, turn func(*Place)) error {
	if err := f.Unlocked(ids); err != nil {
		return err
	}
	for _, id := range f.Together(ids) {
		it := f.Item(id)
		if it.Mat != nil {
			continue
		}
		p := about.Add(m.Apply(geom.Pt(it.Place.X, it.Place.Y).Sub(about)))
		it.Place.X, it.Place.Y = Tidy(p.X), Tidy(p.Y)
		turn(&it.Place)
		it.Place.Turn = wrap(it.Place.Turn)
	}
	return nil
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

// Insert puts new items directly above another in the list of its face, or lowest when there
// is none of that id, and returns their ids. It returns a *Refusal when that is more than a
// face holds.
func (c *Card) Insert(f *Face, above string, items []Item) ([]string, error) {
	n := len(f.Items)
	if _, err := c.place(f, items, nil, nil); err != nil {
		return nil, err
	}
	made := slices.Clone(f.Items[n:])
	f.Items = f.Items[:n]
	i := slices.IndexFunc(f.Items, func(it Item) bool { return it.ID == above })
	f.Items = slices.Insert(f.Items, i+1, made...)
	ids := make([]string, len(made))
	for i, it := range made {
		ids[i] = it.ID
	}
	return ids, nil
}

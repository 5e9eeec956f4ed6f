// Package points holds the commands that change single points of an outline: of a shape, of the
// opening of a photo, or of lines.
package points

import (
	"context"
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/nodes"
	"sectilis/core/ground/trace"
)

// Commands are the commands of this package, for card.Decode.
var Commands = map[string]func() card.Command{
	"movePoints":      func() card.Command { return &MovePoints{} },
	"moveHandle":      func() card.Command { return &MoveHandle{} },
	"addPoint":        func() card.Command { return &AddPoint{} },
	"removePoints":    func() card.Command { return &RemovePoints{} },
	"bendPoints":      func() card.Command { return &BendPoints{} },
	"roundPoints":     func() card.Command { return &RoundPoints{} },
	"joinPoints":      func() card.Command { return &JoinPoints{} },
	"splitPoint":      func() card.Command { return &SplitPoint{} },
	"simplifyOutline": func() card.Command { return &SimplifyOutline{} },
	"cleanOutline":    func() card.Command { return &CleanOutline{} },
}

// Points are the points of an outline, in the item's own coordinates.
type Points struct {
	Rings []nodes.Ring `json:"rings"`
	// Crosses says that the outline crosses itself.
	Crosses bool `json:"crosses,omitempty"`
}

// outlineOf is the outline of an item by itself, or a refusal for one whose outline follows from
// something else.
func outlineOf(it *card.Item) (geom.Path, error) {
	switch {
	case it.Photo != nil:
		return card.OutlineOf(it.Photo.Form()), nil
	case it.Form != nil:
		return card.OutlineOf(*it.Form), nil
	case it.Lines != nil:
		return it.Lines.Path.In(it.Lines.Width, it.Lines.Height), nil
	case it.Words != nil:
		return geom.Path{}, card.Refuse("id", "The outline of “%s” follows from its words. Make it one outline to change its points.", it.Name)
	}
	return geom.Path{}, card.Refuse("id", "The outline of “%s” follows from what lies on it.", it.Name)
}

// Of are the points of an item. It returns a *card.Refusal for one whose outline follows from
// something else.
func Of(it *card.Item) (Points, error) {
	p, err := outlineOf(it)
	if err != nil {
		return Points{}, err
	}
	return Points{nodes.Of(p), it.Lines == nil && crosses(p)}, nil
}

// crosses reports whether an outline crosses itself: cleaned, it has another area or other rings.
func crosses(p geom.Path) bool {
	clean := geom.Union(geom.NonZero, p)
	return len(clean.Rings()) != len(p.Rings()) || math.Abs(clean.Area()-p.Area()) > 1e-6*max(1, math.Abs(clean.Area()))
}

// edit changes the rings of an item's outline.
func edit(c card.Card, id string, change func(it *card.Item, rings []nodes.Ring) ([]nodes.Ring, error)) (card.Card, error) {
	return card.OnFace(c, []string{id}, func(_ *card.Card, f *card.Face) error {
		it := f.Item(id)
		p, err := outlineOf(it)
		if err != nil {
			return err
		}
		if err := f.Unlocked([]string{id}); err != nil {
			return err
		}
		rings, err := change(it, nodes.Of(p))
		if err != nil {
			return err
		}
		return take(it, nodes.Path(rings))
	})
}

// take gives an item an outline in its own coordinates, and leaves everything where it is.
func take(it *card.Item, p geom.Path) error {
	box := p.Bounds()
	if p.Empty() || it.Lines == nil && min(box.W, box.H) < 1e-6 {
		return card.Refuse("points", "Nothing would be left of “%s”. Remove the whole of it instead.", it.Name)
	}
	if it.Photo != nil {
		scene.OpenPhoto(it, p)
		return nil
	}
	c := box.Centre()
	at := it.Place.Map().Apply(c)
	it.Place.X, it.Place.Y = card.Tidy(at.X), card.Tidy(at.Y)
	drawn := card.NewDrawn(p.Transform(geom.Shift(-c.X, -c.Y)))
	if it.Lines != nil {
		it.Lines.Path, it.Lines.Width, it.Lines.Height = drawn, card.Tidy(box.W), card.Tidy(box.H)
		return nil
	}
	it.Form = &card.Form{Outline: card.Free, Width: card.Tidy(box.W), Height: card.Tidy(box.H), Path: drawn}
	return nil
}

// have looks whether there are such points.
func have(it *card.Item, rings []nodes.Ring, which ...nodes.Ref) error {
	if len(which) == 0 {
		return card.Refuse("points", "Choose a point of “%s”.", it.Name)
	}
	for i, at := range which {
		if !nodes.Has(rings, at) || slices.Contains(which[:i], at) {
			return card.Refuse("points", "A point that was chosen is not there any more. Choose again.")
		}
	}
	return nil
}

// near looks whether a place can be one of an outline.
func near(p geom.Point) error {
	if !(math.Abs(p.X) < 2000 && math.Abs(p.Y) < 2000) {
		return card.Refuse("to", "That is too far away for a point of an outline.")
	}
	return nil
}

// MovePoints moves points with their handles. DX and DY are mm in the item's own coordinates.
type MovePoints struct {
	ID     string      `json:"id"`
	Points []nodes.Ref `json:"points"`
	DX     float64     `json:"dx"`
	DY     float64     `json:"dy"`
}

// Label implements card.Command.
func (MovePoints) Label() string { return "Move points" }

// Apply implements card.Command.
func (k MovePoints) Apply(c card.Card) (card.Card, error) {
	return edit(c, k.ID, func(it *card.Item, rings []nodes.Ring) ([]nodes.Ring, error) {
		if err := have(it, rings, k.Points...); err != nil {
			return nil, err
		}
		if err := near(geom.Pt(k.DX, k.DY)); err != nil {
			return nil, err
		}
		return nodes.Move(rings, k.Points, geom.Pt(k.DX, k.DY)), nil
	})
}

// MoveHandle moves the end of a handle of a point to a place, mm in the item's own coordinates;
// at a smooth point the other handle turns with it, unless it is moved alone.
type MoveHandle struct {
	ID    string     `json:"id"`
	Point nodes.Ref  `json:"point"`
	Out   bool       `json:"out,omitempty"` // the handle toward the next point
	To    geom.Point `json:"to"`
	Alone bool       `json:"alone,omitempty"`
}

// Label implements card.Command.
func (MoveHandle) Label() string { return "Bend an outline" }

// Apply implements card.Command.
func (k MoveHandle) Apply(c card.Card) (card.Card, error) {
	return edit(c, k.ID, func(it *card.Item, rings []nodes.Ring) ([]nodes.Ring, error) {
		if err := have(it, rings, k.Point); err != nil {
			return nil, err
		}
		if err := near(k.To); err != nil {
			return nil, err
		}
		return nodes.MoveHandle(rings, k.Point, k.Out, k.To, k.Alone), nil
	})
}

// AddPoint puts a point into the part of the outline that starts at another, at a share of it.
type AddPoint struct {
	ID    string    `json:"id"`
	After nodes.Ref `json:"after"`
	At    float64   `json:"at"`
}

// Label implements card.Command.
func (AddPoint) Label() string { return "Add a point" }

// Apply implements card.Command.
func (k AddPoint) Apply(c card.Card) (card.Card, error) {
	return edit(c, k.ID, func(it *card.Item, rings []nodes.Ring) ([]nodes.Ring, error) {
		if err := have(it, rings, k.After); err != nil {
			return nil, err
		}
		if r := rings[k.After.Ring]; !(k.At > 0 && k.At < 1) || !r.Closed && k.After.Node == len(r.Nodes)-1 {
			return nil, card.Refuse("at", "A point is added between two others.")
		}
		return nodes.Add(rings, k.After, k.At), nil
	})
}

// RemovePoints takes points out; the outline runs on as near to where it was as it can.
type RemovePoints struct {
	ID     string      `json:"id"`
	Points []nodes.Ref `json:"points"`
}

// Label implements card.Command.
func (RemovePoints) Label() string { return "Remove points" }

// Apply implements card.Command.
func (k RemovePoints) Apply(c card.Card) (card.Card, error) {
	return edit(c, k.ID, func(it *card.Item, rings []nodes.Ring) ([]nodes.Ring, error) {
		if err := have(it, rings, k.Points...); err != nil {
			return nil, err
		}
		return nodes.Remove(rings, k.Points), nil
	})
}

// Bend is what becomes of points, or of the parts of the outline that start at them.
type Bend string

// What becomes of points: smooth ones or corners; and of the parts that start at them: straight
// or curved.
const (
	Smooth   Bend = "smooth"
	Corner   Bend = "corner"
	Straight Bend = "straight"
	Curved   Bend = "curved"
)

// BendPoints makes points smooth or corners, or the parts of the outline that start at them
// straight or curved.
type BendPoints struct {
	ID     string      `json:"id"`
	Points []nodes.Ref `json:"points"`
	To     Bend        `json:"to"`
}

// Label implements card.Command.
func (BendPoints) Label() string { return "Bend an outline" }

// Apply implements card.Command.
func (k BendPoints) Apply(c card.Card) (card.Card, error) {
	return edit(c, k.ID, func(it *card.Item, rings []nodes.Ring) ([]nodes.Ring, error) {
		if err := have(it, rings, k.Points...); err != nil {
			return nil, err
		}
		switch k.To {
		case Smooth:
			return nodes.Smoothen(rings, k.Points), nil
		case Corner:
			return nodes.Sharpen(rings, k.Points), nil
		case Straight, Curved:
			return nodes.Straighten(rings, k.Points, k.To == Curved), nil
		}
		return nil, card.Refuse("to", "Points are smooth or corners, and what starts at them is straight or curved.")
	})
}

// RoundPoints lays an arc of a radius, mm, into the corners at points, and into no others.
type RoundPoints struct {
	ID     string      `json:"id"`
	Points []nodes.Ref `json:"points"`
	Radius float64     `json:"radius"`
}

// Label implements card.Command.
func (RoundPoints) Label() string { return "Round corners" }

// Apply implements card.Command.
func (k RoundPoints) Apply(c card.Card) (card.Card, error) {
	return edit(c, k.ID, func(it *card.Item, rings []nodes.Ring) ([]nodes.Ring, error) {
		if err := have(it, rings, k.Points...); err != nil {
			return nil, err
		}
		if !(k.Radius > 0 && k.Radius <= 150) {
			return nil, card.Refuse("radius", "Round corners by something up to 150 mm (5 ⅞ in).")
		}
		out, ok := nodes.Round(rings, k.Points, k.Radius)
		if !ok {
			return nil, card.Refuse("points", "There is no corner at this point of “%s”.", it.Name)
		}
		return out, nil
	})
}

// JoinPoints joins two ends of lines.
type JoinPoints struct {
	ID string    `json:"id"`
	A  nodes.Ref `json:"a"`
	B  nodes.Ref `json:"b"`
}

// Label implements card.Command.
func (JoinPoints) Label() string { return "Join ends" }

// Apply implements card.Command.
func (k JoinPoints) Apply(c card.Card) (card.Card, error) {
	return edit(c, k.ID, func(it *card.Item, rings []nodes.Ring) ([]nodes.Ring, error) {
		if err := have(it, rings, k.A, k.B); err != nil {
			return nil, err
		}
		out, ok := nodes.Join(rings, k.A, k.B)
		if !ok {
			return nil, card.Refuse("points", "Choose two ends of lines to join them.")
		}
		return out, nil
	})
}

// SplitPoint opens lines at a point, or parts them there.
type SplitPoint struct {
	ID    string    `json:"id"`
	Point nodes.Ref `json:"point"`
}

// Label implements card.Command.
func (SplitPoint) Label() string { return "Split at a point" }

// Apply implements card.Command.
func (k SplitPoint) Apply(c card.Card) (card.Card, error) {
	return edit(c, k.ID, func(it *card.Item, rings []nodes.Ring) ([]nodes.Ring, error) {
		if err := have(it, rings, k.Point); err != nil {
			return nil, err
		}
		if it.Lines == nil {
			return nil, card.Refuse("point", "The outline of “%s” has to stay closed. Lines can be split.", it.Name)
		}
		return nodes.Split(rings, k.Point), nil
	})
}

// SimplifyOutline draws an outline with fewer points, none of it farther than a tolerance, mm,
// from where it was.
type SimplifyOutline struct {
	ID        string  `json:"id"`
	Tolerance float64 `json:"tolerance"`
}

// Label implements card.Command.
func (SimplifyOutline) Label() string { return "Simplify an outline" }

// Apply implements card.Command.
func (k SimplifyOutline) Apply(c card.Card) (card.Card, error) {
	return edit(c, k.ID, func(it *card.Item, rings []nodes.Ring) ([]nodes.Ring, error) {
		if !(k.Tolerance >= .01 && k.Tolerance <= 20) {
			return nil, card.Refuse("tolerance", "An outline is simplified by 0.01 to 20 mm.")
		}
		p, err := trace.Redraw(context.Background(), nodes.Path(rings), k.Tolerance)
		if err != nil {
			return nil, err
		}
		out := nodes.Of(p)
		if nodes.Count(out) >= nodes.Count(rings) {
			return nil, card.Refuse("tolerance", "“%s” has no points to spare at that tolerance. Allow more.", it.Name)
		}
		return out, nil
	})
}

// CleanOutline takes out what crosses itself in an outline.
type CleanOutline struct {
	ID string `json:"id"`
}

// Label implements card.Command.
func (CleanOutline) Label() string { return "Clean an outline" }

// Apply implements card.Command.
func (k CleanOutline) Apply(c card.Card) (card.Card, error) {
	return edit(c, k.ID, func(it *card.Item, rings []nodes.Ring) ([]nodes.Ring, error) {
		p := nodes.Path(rings)
		if it.Lines != nil || !crosses(p) {
			return nil, card.Refuse("id", "The outline of “%s” crosses itself nowhere.", it.Name)
		}
		return nodes.Of(geom.Union(geom.NonZero, p)), nil
	})
}

// Package tracing holds the commands that make outlines of pictures: cutting a picture round
// what it shows, laying its outlines as shapes, and taking the plain form nearest to a ragged
// outline.
package tracing

import (
	"fmt"
	"math"

	"sectilis/core/design/pathops"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/cleanform"
	"sectilis/core/ground/geom"
)

// Commands are the commands of this package, for card.Decode.
var Commands = map[string]func() card.Command{
	"cutRound":      func() card.Command { return &CutRound{} },
	"setRim":        func() card.Command { return &SetRim{} },
	"layTraced":     func() card.Command { return &LayTraced{} },
	"frameOpenings": func() card.Command { return &FrameOpenings{} },
	"layCutOut":     func() card.Command { return &LayCutOut{} },
	"takeForm":      func() card.Command { return &TakeForm{} },
}

// traced looks whether a path can be an outline in a picture, and returns it clean.
func traced(d *card.Drawn, name string) (geom.Path, error) {
	if err := d.Check(name); err != nil {
		return geom.Path{}, err
	}
	p := geom.Union(geom.NonZero, d.Path())
	if p.Empty() {
		return p, card.Refuse("path", "“%s” has no area.", name)
	}
	return p, nil
}

// CutRound cuts a photo round an outline in its picture, in pixels, with a rim of paper; nil is
// none. The picture stays where it is.
type CutRound struct {
	ID   string      `json:"id"`
	Edge *card.Drawn `json:"edge"`
	Rim  *card.Rim   `json:"rim,omitempty"`
}

// Label implements card.Command.
func (CutRound) Label() string { return "Cut round a picture" }

// Apply implements card.Command.
func (k CutRound) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, []string{k.ID}, func(_ *card.Card, f *card.Face) error {
		it, err := scene.PhotoOf(f, k.ID)
		if err != nil {
			return err
		}
		if err := f.Unlocked([]string{k.ID}); err != nil {
			return err
		}
		return scene.CutRound(it, k.Edge, k.Rim)
	})
}

// SetRim changes the paper that shows round photos; nil is none.
type SetRim struct {
	IDs []string  `json:"ids"`
	Rim *card.Rim `json:"rim,omitempty"`
}

// Label implements card.Command.
func (SetRim) Label() string { return "Change the rim of a picture" }

// Apply implements card.Command.
func (k SetRim) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, k.IDs, func(_ *card.Card, f *card.Face) error {
		for _, id := range k.IDs {
			it, err := scene.PhotoOf(f, id)
			if err != nil {
				return err
			}
			var rim *card.Rim
			if k.Rim != nil {
				rim = &card.Rim{Width: card.Tidy(k.Rim.Width), Solid: k.Rim.Solid, Bays: card.Tidy(k.Rim.Bays)}
			}
			scene.Rim(it, rim)
		}
		return nil
	})
}

// TracedPart is an outline in a picture, in pixels, and its colour, #rrggbb.
type TracedPart struct {
	Colour string      `json:"colour"`
	Path   *card.Drawn `json:"path"`
}

// LayTraced lays outlines of a photo's picture over it, where they are in the picture, the first
// lowest: each a piece of the stock that is nearest to its colour, or printed in that. Several
// are a group.
type LayTraced struct {
	ID    string       `json:"id"`
	Parts []TracedPart `json:"parts"`
	As    card.As      `json:"as"`
}

// maxTraced is how many outlines are laid at once.
const maxTraced = 24

// Label implements card.Command.
func (LayTraced) Label() string { return "Lay the outline of a picture" }

// Apply implements card.Command.
func (k LayTraced) Apply(c card.Card) (card.Card, error) {
	if k.As != card.Cut && k.As != card.Printed {
		return c, card.Refuse("as", "An outline is laid as a cut piece, or printed.")
	}
	if len(k.Parts) == 0 || len(k.Parts) > maxTraced {
		return c, card.Refuse("parts", "Lay 1 to %d outlines at once.", maxTraced)
	}
	group := card.GroupItems{}
	next, err := card.OnFace(c, []string{k.ID}, func(c *card.Card, f *card.Face) error {
		it, err := scene.PhotoOf(f, k.ID)
		if err != nil {
			return err
		}
		group.Name = it.Name + ", traced"
		at := scene.OnPhoto(it).Then(it.Place.Map())
		items := make([]card.Item, len(k.Parts))
		for i, part := range k.Parts {
			name := group.Name
			if len(k.Parts) > 1 {
				name = fmt.Sprintf("%s %d", it.Name, i+1)
			}
			path, err := traced(part.Path, name)
			if err != nil {
				return err
			}
			made := card.Made{As: card.Printed}
			fill := card.Fill{Colour: part.Colour}
			if k.As == card.Cut {
				made, fill = card.Made{As: card.Cut, Stock: nearestStock(part.Colour)}, card.Fill{}
			}
			items[i] = card.Item{Name: name, Kind: card.Shape, On: it.On, Made: made, Fill: fill}
			pathops.Become(&items[i], path.Transform(at), it.Place.Turn)
		}
		group.IDs, err = c.Insert(f, k.ID, items)
		return err
	})
	if err != nil || len(k.Parts) == 1 {
		return next, err
	}
	return group.Apply(next)
}

// nearestStock is the stock whose colour is nearest to another.
func nearestStock(colour string) string {
	best, id := math.Inf(1), card.First().Piece
	for _, s := range card.Stocks() {
		if d := scene.Difference(s.Colour, colour); d < best {
			best, id = d, s.ID
		}
	}
	return id
}

// PlainForm is a plain form that could stand for the outline of an item. Off and Worst are mm.
type PlainForm struct {
	Kind   cleanform.Kind `json:"kind"`
	Points int            `json:"points,omitempty"` // corners of a polygon, tips of a star
	Off    float64        `json:"off"`              // root of the mean square distance of the outline
	Worst  float64        `json:"worst"`            // largest distance of the outline
	// Outline is where it would lie, in face coordinates.
	Outline geom.Path `json:"outline"`
}

// formOf is the drawn form of an item, or a refusal for one whose outline is no drawn one.
func formOf(it *card.Item) (card.Form, error) {
	switch {
	case it.Photo != nil && it.Photo.Opening != nil && it.Photo.Opening.Outline == card.Free:
		return it.Photo.Form(), nil
	case it.Form != nil && it.Form.Outline == card.Free:
		return *it.Form, nil
	}
	return card.Form{}, card.Refuse("id", "“%s” has no drawn outline that a plain form could stand for.", it.Name)
}

// Forms are the plain forms that could stand for the outline of an item, the best first. It
// returns a *card.Refusal for an item whose outline is no drawn one.
func Forms(it *card.Item) ([]PlainForm, error) {
	form, err := formOf(it)
	if err != nil {
		return nil, err
	}
	out := []PlainForm{}
	for _, f := range cleanform.Nearest(card.OutlineOf(form)) {
		place := geom.Turn(f.Turn).Then(geom.Shift(f.Centre.X, f.Centre.Y)).Then(it.Place.Map())
		out = append(out, PlainForm{f.Kind, f.Points, card.Tidy(f.Mean), card.Tidy(f.Worst), f.Outline().Transform(place)})
	}
	return out, nil
}

// TakeForm gives an item the plain form of a kind that is nearest to its outline: a shape as its
// form, a photo as its opening.
type TakeForm struct {
	ID   string         `json:"id"`
	Kind cleanform.Kind `json:"kind"`
}

// Label implements card.Command.
func (TakeForm) Label() string { return "Take the plain form" }

// Apply implements card.Command.
func (k TakeForm) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, []string{k.ID}, func(_ *card.Card, f *card.Face) error {
		it := f.Item(k.ID)
		form, err := formOf(it)
		if err != nil {
			return err
		}
		if err := f.Unlocked([]string{k.ID}); err != nil {
			return err
		}
		for _, found := range cleanform.Nearest(card.OutlineOf(form)) {
			if found.Kind == k.Kind {
				take(it, found)
				return nil
			}
		}
		return card.Refuse("kind", "There is no such form near the outline of “%s”.", it.Name)
	})
}

// level is the turn, radians, below which a form lies straight.
const level = .005

// take gives an item a plain form, in its own coordinates.
func take(it *card.Item, f cleanform.Form) {
	if math.Abs(f.Turn) < level {
		f.Turn = 0
	}
	form := card.Form{Outline: card.Free, Width: card.Tidy(f.Width), Height: card.Tidy(f.Height)}
	switch f.Kind {
	case cleanform.Rectangle:
		form.Outline, form.Corner = card.Rectangle, card.Square
	case cleanform.Rounded:
		form.Outline, form.Corner, form.Radius = card.Rectangle, card.Round, card.Tidy(f.Radius)
	case cleanform.Circle, cleanform.Ellipse:
		form.Outline = card.Ellipse
	}
	if it.Photo != nil {
		// The picture keeps its turn, so what is turned against it is drawn.
		if f.Turn != 0 || form.Outline == card.Free {
			scene.OpenPhoto(it, f.Outline().Transform(geom.Turn(f.Turn).Then(geom.Shift(f.Centre.X, f.Centre.Y))))
			return
		}
		scene.OpenPhoto(it, card.OutlineOf(form).Transform(geom.Shift(f.Centre.X, f.Centre.Y)))
		it.Photo.Opening = &form
		if form.Outline == card.Rectangle && form.Corner == card.Square {
			it.Photo.Opening = nil
		}
		return
	}
	turn := f.Turn
	if it.Place.Mirrored {
		turn = -turn
	}
	at := it.Place.Map().Apply(f.Centre)
	it.Place.X, it.Place.Y, it.Place.Turn = card.Tidy(at.X), card.Tidy(at.Y), card.Turned(it.Place.Turn, turn)
	if form.Outline == card.Free {
		path := f.Outline()
		box := path.Bounds()
		c := box.Centre()
		form.Path = card.NewDrawn(path.Transform(geom.Shift(-c.X, -c.Y)))
		form.Width, form.Height = card.Tidy(box.W), card.Tidy(box.H)
		moved := it.Place.Map().Apply(c)
		it.Place.X, it.Place.Y = card.Tidy(moved.X), card.Tidy(moved.Y)
	}
	it.Form = &form
}

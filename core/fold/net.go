// Package fold knows how bases lie flat: for each kind of base its net, the
// sheet seen from outside with its lines and the place of every face on it.
package fold

import (
	"fmt"

	"sectilis/core/card"
	"sectilis/core/geom"
)

// Role is what a line is for.
type Role = card.Role

// The line roles.
const (
	Cut         = card.RoleCut
	Mountain    = card.RoleMountain
	Valley      = card.RoleValley
	Perforation = card.RolePerforation
	Kiss        = card.RoleKiss
	Pen         = card.RolePen
	Guide       = card.RoleGuide
)

// Line is a straight line of a net, in millimetres on the sheet.
type Line struct {
	Role Role       `json:"role"`
	From geom.Point `json:"from"`
	To   geom.Point `json:"to"`
}

// Side is the side of the sheet that a face is on.
type Side string

// A sheet has two sides.
const (
	Outside Side = "outside"
	Inside  Side = "inside"
)

// Face is the place of a face on the sheet.
type Face struct {
	ID     card.FaceID `json:"id"`
	Name   string      `json:"name"`
	Side   Side        `json:"side"`
	Width  float64     `json:"width"`
	Height float64     `json:"height"`
	// OnSheet maps the face's own coordinates to the sheet seen from outside.
	// For an inside face it mirrors: one looks through the paper.
	OnSheet geom.Affine `json:"onSheet"`
	// OnMap maps the face to the sheet as seen from its own side, turned so
	// that the two faces of the side lie as they are read.
	OnMap geom.Affine `json:"onMap"`
}

// Net is the flat drawing of a base, seen from outside.
type Net struct {
	Width  float64 `json:"width"`
	Height float64 `json:"height"`
	Lines  []Line  `json:"lines"` // folds, as seen from outside
	Faces  []Face  `json:"faces"` // in the order of card.Card
}

// Outline is the edge of the sheet.
func (n Net) Outline() geom.Path { return geom.RectPath(geom.Rect{W: n.Width, H: n.Height}) }

// Face returns the face with the id.
func (n Net) Face(id card.FaceID) Face {
	for _, f := range n.Faces {
		if f.ID == id {
			return f
		}
	}
	return Face{}
}

// Of returns the net of a base. An unknown kind is a programming error: a
// card's base was checked when it was set.
func Of(b card.Base) Net {
	w, h := b.Width, b.Height
	switch b.Kind {
	case card.SideFold:
		// Seen from outside: Back left, Front right. Front's reverse is read
		// at the left of the open card.
		mirror := geom.Affine{A: -1, D: 1, E: 2 * w}
		return Net{
			Width: 2 * w, Height: h,
			Lines: []Line{{Mountain, geom.Pt(w, 0), geom.Pt(w, h)}},
			Faces: []Face{
				{card.Front, "Front", Outside, w, h, geom.Shift(w, 0), geom.Shift(w, 0)},
				{card.InsideFirst, "Inside left", Inside, w, h, mirror, geom.Identity},
				{card.InsideSecond, "Inside right", Inside, w, h, geom.Affine{A: -1, D: 1, E: w}, geom.Shift(w, 0)},
				{card.Back, "Back", Outside, w, h, geom.Identity, geom.Identity},
			},
		}
	case card.TopFold:
		// Seen from outside: Front below the fold, Back above it with its head
		// down, so that both stand upright when the card is closed.
		back := geom.Affine{A: -1, D: -1, E: w, F: h}
		return Net{
			Width: w, Height: 2 * h,
			Lines: []Line{{Mountain, geom.Pt(0, h), geom.Pt(w, h)}},
			Faces: []Face{
				{card.Front, "Front", Outside, w, h, geom.Shift(0, h), geom.Shift(0, h)},
				{card.InsideFirst, "Inside top", Inside, w, h, geom.Affine{A: 1, D: -1, F: 2 * h}, geom.Identity},
				{card.InsideSecond, "Inside bottom", Inside, w, h, geom.Affine{A: 1, D: -1, F: h}, geom.Shift(0, h)},
				{card.Back, "Back", Outside, w, h, back, back},
			},
		}
	}
	panic(fmt.Sprintf("fold: no net for base kind %q", b.Kind))
}

// KindName is the name of a kind of base as people read it.
func KindName(k card.BaseKind) string {
	if k == card.TopFold {
		return "top fold"
	}
	return "side fold"
}

// Neighbour is a face that shares a fold with another and the map that brings
// it into the other's coordinates.
type Neighbour struct {
	ID   card.FaceID `json:"id"`
	Name string      `json:"name"`
	At   geom.Affine `json:"at"`
}

// Neighbours lists the faces beside a face on its side of the sheet.
func (n Net) Neighbours(id card.FaceID) []Neighbour {
	me := n.Face(id)
	back, _ := me.OnMap.Inverse()
	var out []Neighbour
	for _, f := range n.Faces {
		if f.ID != id && f.Side == me.Side {
			out = append(out, Neighbour{f.ID, f.Name, f.OnMap.Then(back)})
		}
	}
	return out
}

// FoldsOn lists the folds along a face in its own coordinates, with the role
// they have as seen from its side: a mountain from outside is a valley inside.
func (n Net) FoldsOn(id card.FaceID) []Line {
	me := n.Face(id)
	back, _ := me.OnSheet.Inverse()
	var out []Line
	for _, l := range n.Lines {
		if me.Side == Inside {
			l.Role = Flipped(l.Role)
		}
		l.From, l.To = back.Apply(l.From), back.Apply(l.To)
		out = append(out, l)
	}
	return out
}

// Flipped is the role of a line as seen from the other side of the sheet.
func Flipped(r Role) Role {
	switch r {
	case Mountain:
		return Valley
	case Valley:
		return Mountain
	}
	return r
}

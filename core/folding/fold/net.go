// Package fold knows how bases lie flat: for each kind of base its net, the
// sheet seen from outside with its lines and the place of every face on it.
package fold

import (
	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
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
	// Main folds are turned by hand, those of a later Stage after those of an
	// earlier one, up to Stop radians (0 is all the way). Others follow.
	Main  bool    `json:"main,omitempty"`
	Stage int     `json:"stage,omitempty"`
	Stop  float64 `json:"stop,omitempty"`
	// On says that it goes on from the end of the line before: both are of one curve.
	On bool `json:"on,omitempty"`
	// Slit is a cut that ends within the sheet and parts nothing.
	Slit bool `json:"slit,omitempty"`

	own   bool // a person has added it
	drawn int  // of a drawn base, which of its lines it is of
	order int  // of an own line, when hands fold it; 0 is whenever it works out
}

// Side is the side of the sheet that a face is on.
type Side string

// A sheet has two sides.
const (
	Outside Side = "outside"
	Inside  Side = "inside"
)

// Face is the place of a face on the sheet. Width and Height are mm.
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

// Net is the flat drawing of a base, seen from outside. Width and Height are mm.
type Net struct {
	Width  float64 `json:"width"`
	Height float64 `json:"height"`
	Lines  []Line  `json:"lines"` // as seen from outside
	Faces  []Face  `json:"faces"` // in the order of card.Card
	// Edge is the edge of a sheet that is no rectangle.
	Edge geom.Path `json:"edge"`
	// Closed is the size of the closed card.
	Closed geom.Rect `json:"closed"`
	// Stands says that the card is not meant to lie flat when it is closed.
	Stands bool `json:"stands,omitempty"`

	slack float64 // how far panels may pull apart at a fold and still meet, mm
}

// Outline is the edge of the sheet.
func (n Net) Outline() geom.Path {
	if !n.Edge.Empty() {
		return n.Edge
	}
	return geom.RectPath(geom.Rect{W: n.Width, H: n.Height})
}

// Shape is what there is of a face, in its own coordinates: all of it, unless
// the sheet has an edge of its own.
func (n Net) Shape(f Face) geom.Path {
	all := geom.RectPath(geom.Rect{W: f.Width, H: f.Height})
	if n.Edge.Empty() {
		return all
	}
	back, _ := f.OnSheet.Inverse()
	return geom.Intersection(geom.NonZero, all, n.Edge.Transform(back))
}

// Face returns the face with the id.
func (n Net) Face(id card.FaceID) Face {
	for _, f := range n.Faces {
		if f.ID == id {
			return f
		}
	}
	return Face{}
}

// Neighbour is a face that shares a fold with another and the map that brings
// it into the other's coordinates.
type Neighbour struct {
	ID   card.FaceID `json:"id"`
	Name string      `json:"name"`
	At   geom.Affine `json:"at"`
	// Width and Height are the neighbour's own.
	Width  float64 `json:"width"`
	Height float64 `json:"height"`
}

// Neighbours lists the faces beside a face on its side of the sheet.
func (n Net) Neighbours(id card.FaceID) []Neighbour {
	me := n.Face(id)
	back, _ := me.OnMap.Inverse()
	out := []Neighbour{}
	for _, f := range n.Faces {
		if f.ID != id && f.Side == me.Side {
			out = append(out, Neighbour{f.ID, f.Name, f.OnMap.Then(back), f.Width, f.Height})
		}
	}
	return out
}

// FoldsOn lists the lines on and along a face in its own coordinates, with the
// role they have as seen from its side: a mountain from outside is a valley
// inside.
func (n Net) FoldsOn(id card.FaceID) []Line {
	me := n.Face(id)
	back, _ := me.OnSheet.Inverse()
	near := geom.Rect{W: me.Width, H: me.Height}.Grow(.1)
	out := []Line{}
	for _, l := range n.Lines {
		if me.Side == Inside {
			l.Role = Flipped(l.Role)
		}
		l.From, l.To = back.Apply(l.From), back.Apply(l.To)
		if within(near, l) > 1 {
			out = append(out, l)
		}
	}
	return out
}

// within is how much of a line lies in a rectangle, mm. (Liang and Barsky, "A
// new concept and method for line clipping", 1984.)
func within(r geom.Rect, l Line) float64 {
	v := l.To.Sub(l.From)
	t0, t1 := 0.0, 1.0
	for _, e := range [4][2]float64{{-v.X, l.From.X - r.X}, {v.X, r.Right() - l.From.X}, {-v.Y, l.From.Y - r.Y}, {v.Y, r.Bottom() - l.From.Y}} {
		switch {
		case e[0] == 0 && e[1] < 0:
			return 0
		case e[0] < 0:
			t0 = max(t0, e[1]/e[0])
		case e[0] > 0:
			t1 = min(t1, e[1]/e[0])
		}
	}
	return max(0, t1-t0) * v.Len()
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

// Package arrange holds the commands that place items and lay them out by each other
// and by their face: from the tray, line up, space out, same size, stretch, mirror, repeat.
// Items that make up a group are handled as one.
package arrange

import (
	"cmp"
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// Commands are the commands of this package, for card.Decode.
var Commands = map[string]func() card.Command{
	"placeSupply":   func() card.Command { return &PlaceSupply{} },
	"placeSketch":   func() card.Command { return &PlaceSketch{} },
	"setBase":       func() card.Command { return &SetBase{} },
	"fitTo":         func() card.Command { return &FitTo{} },
	"copyToFaces":   func() card.Command { return &CopyToFaces{} },
	"setBackground": func() card.Command { return &SetBackground{} },
	"lineUp":        func() card.Command { return &LineUp{} },
	"spaceOut":      func() card.Command { return &SpaceOut{} },
	"matchSize":     func() card.Command { return &MatchSize{} },
	"stretch":       func() card.Command { return &Stretch{} },
	"mirrorItems":   func() card.Command { return &MirrorItems{} },
	"repeatItems":   func() card.Command { return &RepeatItems{} },
}

// unit is what is moved as one, with its box on the face.
type unit struct {
	ids []string
	box geom.Rect
}

func units(f *card.Face, ids []string) ([]unit, error) {
	var out []unit
	for _, some := range f.Units(ids) {
		box, err := boxOf(f, some)
		if err != nil {
			return nil, err
		}
		out = append(out, unit{some, box})
	}
	return out, nil
}

// boxOf is the exact box about the outlines of items, in face coordinates.
func boxOf(f *card.Face, ids []string) (geom.Rect, error) {
	var box geom.Rect
	for i, id := range ids {
		s, err := scene.Resolve(f, f.Item(id))
		if err != nil {
			return box, err
		}
		if i == 0 {
			box = s.Bounds
		} else {
			box = box.Union(s.Bounds)
		}
	}
	return box, nil
}

// face is the face of the net, from its own upper left corner.
func face(c *card.Card, f *card.Face) geom.Rect {
	net := fold.StudyOf(c.Base).Net
	nf := net.Face(f.ID)
	return geom.Rect{W: nf.Width, H: nf.Height}
}

// Edge is a line of a box that others are brought to.
type Edge string

// The edges and middles.
const (
	Left   Edge = "left"
	Centre Edge = "centre" // across
	Right  Edge = "right"
	Top    Edge = "top"
	Middle Edge = "middle" // down
	Bottom Edge = "bottom"
)

// at is the place of the edge in a box; level says that it is measured down.
func (e Edge) at(r geom.Rect) (v float64, level, ok bool) {
	switch e {
	case Left:
		return r.X, false, true
	case Centre:
		return r.X + r.W/2, false, true
	case Right:
		return r.Right(), false, true
	case Top:
		return r.Y, true, true
	case Middle:
		return r.Y + r.H/2, true, true
	case Bottom:
		return r.Bottom(), true, true
	}
	return 0, false, false
}

// To is what items are lined up to.
type To string

// What items can be lined up to: the box about all of them, the face, or the
// one that was chosen first.
const (
	EachOther To = "eachOther"
	TheFace   To = "face"
	TheFirst  To = "first"
)

// LineUp brings an edge or the middle of items onto one line. Several edges are
// brought into line one after the other, so that Centre with Middle centres.
type LineUp struct {
	IDs   []string `json:"ids"`
	Edges []Edge   `json:"edges"`
	To    To       `json:"to"`
}

// Label implements card.Command.
func (LineUp) Label() string { return "Line up" }

// Apply implements card.Command.
func (k LineUp) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, k.IDs, func(c *card.Card, f *card.Face) error {
		us, err := units(f, k.IDs)
		if err != nil {
			return err
		}
		target, err := k.target(c, f, us)
		if err != nil {
			return err
		}
		if k.To != TheFace && len(us) < 2 {
			return card.Refuse("ids", "Choose two items or more to line up, or line up to the face.")
		}
		for _, u := range us {
			var dx, dy float64
			for _, e := range k.Edges {
				want, level, ok := e.at(target)
				if !ok {
					return card.Refuse("edges", "There is no edge “%s”.", e)
				}
				have, _, _ := e.at(u.box)
				if level {
					dy = want - have
				} else {
					dx = want - have
				}
			}
			if near(dx) && near(dy) {
				continue
			}
			if err := f.Move(u.ids, dx, dy); err != nil {
				return err
			}
		}
		return nil
	})
}

// target is the box that units are lined up to.
func (k LineUp) target(c *card.Card, f *card.Face, us []unit) (geom.Rect, error) {
	switch k.To {
	case TheFace:
		return face(c, f), nil
	case TheFirst:
		return us[0].box, nil
	case EachOther:
		box := us[0].box
		for _, u := range us {
			box = box.Union(u.box)
		}
		return box, nil
	}
	return geom.Rect{}, card.Refuse("to", "Items are lined up to each other, to the face or to the first that was chosen.")
}

// near says that a length is nothing, as the document keeps it.
func near(v float64) bool { return math.Abs(v) < 5e-7 }

// SpaceOut makes the gaps between items equal, from left to right or, Down, from
// top to bottom. The outermost stay where they are, unless Gap says how wide
// the gaps are to be; then the first stays.
type SpaceOut struct {
	IDs  []string `json:"ids"`
	Down bool     `json:"down"`
	Gap  *float64 `json:"gap,omitempty"`
}

// Label implements card.Command.
func (SpaceOut) Label() string { return "Space out" }

// Apply implements card.Command.
func (k SpaceOut) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, k.IDs, func(_ *card.Card, f *card.Face) error {
		us, err := units(f, k.IDs)
		if err != nil {
			return err
		}
		if len(us) < 3 && k.Gap == nil {
			return card.Refuse("ids", "Choose three items or more to space out; between two there is only one gap.")
		}
		if len(us) < 2 {
			return card.Refuse("ids", "Choose two items or more to set the gap between them.")
		}
		start := func(u unit) float64 { return u.box.X }
		size := func(u unit) float64 { return u.box.W }
		if k.Down {
			start = func(u unit) float64 { return u.box.Y }
			size = func(u unit) float64 { return u.box.H }
		}
		slices.SortStableFunc(us, func(a, b unit) int { return cmp.Compare(start(a)+size(a)/2, start(b)+size(b)/2) })
		last := us[len(us)-1]
		gap := start(last) + size(last) - start(us[0])
		for _, u := range us {
			gap -= size(u)
		}
		gap /= float64(len(us) - 1)
		if k.Gap != nil {
			gap = *k.Gap
			if math.IsNaN(gap) || math.Abs(gap) > 1000 {
				return card.Refuse("gap", "A gap is between -1000 mm and 1000 mm (39 ⅜ in); less than nothing overlaps.")
			}
		}
		at := start(us[0])
		for _, u := range us {
			d := at - start(u)
			at += size(u) + gap
			if near(d) {
				continue
			}
			dx, dy := d, 0.
			if k.Down {
				dx, dy = 0, d
			}
			if err := f.Move(u.ids, dx, dy); err != nil {
				return err
			}
		}
		return nil
	})
}

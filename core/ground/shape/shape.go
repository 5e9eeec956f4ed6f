// Package shape is the catalogue of parametric outlines: each is a Go value with its name,
// the size that it is first laid in and its drawing. It stands on geom and measure, below
// card. Outlines lie about the origin, x right and y down, in millimetres; outer rings run
// clockwise on screen, holes the other way.
package shape

import (
	"math"
	"slices"
	"sync"

	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
)

// ID names an outline in documents.
type ID string

// The outlines that rules elsewhere speak of. Free is the outline that was drawn, traced,
// brought in or made of others, and has no entry in the catalogue.
const (
	Rectangle ID = "rectangle"
	Ellipse   ID = "ellipse"
	Free      ID = "free"
)

// Corner is the kind of corners of a rectangle.
type Corner string

// The kinds of corners.
const (
	Square Corner = "square"
	Round  Corner = "round"
	Bevel  Corner = "bevel"
)

// Ready is an entry of the catalogue: an outline with the corners and the size that it is
// first laid in, mm. Several entries may share an outline.
type Ready struct {
	ID      string  `json:"id"`
	Name    string  `json:"name"`
	Outline ID      `json:"outline"`
	Corner  Corner  `json:"corner,omitempty"` // of a rectangle
	Radius  float64 `json:"radius,omitempty"` // of round or bevelled corners
	Width   float64 `json:"width"`
	Height  float64 `json:"height"`
	// Tray says that the tray offers it.
	Tray bool `json:"tray"`
	// Opening is what it is called as the opening of a photo, which has its own size; empty
	// where another entry is the same opening.
	Opening string `json:"opening,omitempty"`
	// Preview is a small picture of it, within PreviewWidth and PreviewHeight from 0.
	Preview geom.Path `json:"preview"`

	// upright says that it has a foot: that it is not as high above its middle as below.
	upright bool
	// draw is the outline in a size; nil for rectangles, whose corners decide.
	draw func(w, h float64) geom.Path
}

// The box of a preview.
const (
	PreviewWidth  = 60
	PreviewHeight = 44
)

const in = measure.Inch

// ready is the catalogue in the order it is offered. A new shape is one entry and, where it
// needs one, a function below.
var ready = []Ready{
	{ID: "rectangle", Name: "Rectangle", Outline: Rectangle, Corner: Square, Width: 3 * in, Height: 2 * in, Opening: "Rectangle", Tray: true},
	{ID: "rounded", Name: "Rounded", Outline: Rectangle, Corner: Round, Radius: in / 4, Width: 3 * in, Height: 2 * in, Opening: "Rounded rectangle", Tray: true},
	{ID: "bevelled", Name: "Bevelled", Outline: Rectangle, Corner: Bevel, Radius: in / 4, Width: 3 * in, Height: 2 * in, Opening: "Bevelled rectangle"},
	{ID: "circle", Name: "Circle", Outline: Ellipse, Width: 2 * in, Height: 2 * in, Tray: true, draw: ellipse},
	{ID: "ellipse", Name: "Ellipse", Outline: Ellipse, Width: 3 * in, Height: 2 * in, Opening: "Circle or ellipse", Tray: true, draw: ellipse},
	{ID: "scallop", Name: "Scalloped", Outline: "scallop", Width: 3 * in, Height: 2 * in, Opening: "Scalloped", Tray: true, draw: scallop},
	{ID: "tag", Name: "Tag", Outline: "tag", Width: 3 * in, Height: 1.25 * in, Opening: "Tag", Tray: true, draw: tag},
	{ID: "banner", Name: "Banner", Outline: "banner", Width: 4 * in, Height: .875 * in, Opening: "Banner", Tray: true, draw: banner},
	{ID: "bracket", Name: "Bracket", Outline: "bracket", Width: 3.5 * in, Height: 1.25 * in, Opening: "Bracket", Tray: true, draw: bracket},
	{ID: "flag", Name: "Flag", Outline: "flag", Width: 3 * in, Height: .875 * in, Opening: "Flag", Tray: true, draw: flag},
	{ID: "tab", Name: "Tab", Outline: "tab", Width: 1.5 * in, Height: .75 * in, Opening: "Tab", Tray: true, draw: tab},
	{ID: "strip", Name: "Strip", Outline: "strip", Width: 4 * in, Height: .5 * in, Opening: "Strip", Tray: true, draw: strip},
	{ID: "lozenge", Name: "Pointed", Outline: "lozenge", Width: 3.5 * in, Height: 1 * in, Opening: "Pointed", Tray: true, draw: lozenge},
	{ID: "ticket", Name: "Ticket", Outline: "ticket", Width: 3 * in, Height: 1.5 * in, Opening: "Ticket", Tray: true, draw: ticket},
	{ID: "stub", Name: "Stub", Outline: "stub", Width: 3 * in, Height: 1.375 * in, Opening: "Stub", Tray: true, draw: stub},
	{ID: "notched", Name: "Notched", Outline: "notched", Width: 3 * in, Height: 2 * in, Opening: "Notched", Tray: true, draw: notched},
	{ID: "spool", Name: "Spool", Outline: "spool", Width: 3 * in, Height: 1.25 * in, Opening: "Spool", Tray: true, draw: spool},
	{ID: "ribbon", Name: "Ribbon", Outline: "ribbon", Width: 4 * in, Height: .625 * in, Opening: "Ribbon", Tray: true, draw: ribbon},
	{ID: "luggage", Name: "Luggage tag", Outline: "luggage", Width: 3.5 * in, Height: 1.25 * in, Opening: "Luggage tag", Tray: true, draw: luggage},
	{ID: "stamp", Name: "Stamp", Outline: "stamp", Width: 1.5 * in, Height: 1.875 * in, Opening: "Stamp", Tray: true, draw: stamp},
	{ID: "arrow", Name: "Arrow", Outline: "arrow", Width: 3 * in, Height: 1.25 * in, Opening: "Arrow", Tray: true, draw: arrow},
	{ID: "pennant", Name: "Pennant", Outline: "pennant", Width: 3 * in, Height: 1.25 * in, Opening: "Pennant", Tray: true, draw: pennant},
	{ID: "leaf", Name: "Leaf", Outline: "leaf", Width: 2.5 * in, Height: 1.125 * in, Opening: "Leaf", Tray: true, draw: leaf},
	{ID: "flower", Name: "Flower", Outline: "flower", Width: 2 * in, Height: 2 * in, Opening: "Flower", Tray: true, draw: flower},
	{ID: "hexagon", Name: "Hexagon", Outline: "hexagon", Width: 2 * in, Height: 1.75 * in, Opening: "Hexagon", Tray: true, draw: hexagon},
	{ID: "plus", Name: "Plus", Outline: "plus", Width: 2 * in, Height: 2 * in, Opening: "Plus", Tray: true, draw: plus},
	{ID: "heart", Name: "Heart", Outline: "heart", Width: 2 * in, Height: 1.875 * in, Opening: "Heart", Tray: true, upright: true, draw: heart},
	{ID: "star", Name: "Star", Outline: "star", Width: 2 * in, Height: 1.9375 * in, Opening: "Star", Tray: true, upright: true, draw: star},
	{ID: "arch", Name: "Arch", Outline: "arch", Width: 2 * in, Height: 3 * in, Opening: "Arch", Tray: true, upright: true, draw: arch},
	{ID: "lancet", Name: "Lancet", Outline: "lancet", Width: 2 * in, Height: 3 * in, Opening: "Lancet", Tray: true, upright: true, draw: lancet},
	{ID: "house", Name: "House", Outline: "house", Width: 2 * in, Height: 2.5 * in, Opening: "House", Tray: true, upright: true, draw: house},
	{ID: "shield", Name: "Shield", Outline: "shield", Width: 2 * in, Height: 2.375 * in, Opening: "Shield", Tray: true, upright: true, draw: shield},
	{ID: "dome", Name: "Dome", Outline: "dome", Width: 3 * in, Height: 1.5 * in, Opening: "Dome", Tray: true, upright: true, draw: dome},
	{ID: "triangle", Name: "Triangle", Outline: "triangle", Width: 2 * in, Height: 1.75 * in, Opening: "Triangle", Tray: true, upright: true, draw: triangle},
	{ID: "drop", Name: "Drop", Outline: "drop", Width: 1.25 * in, Height: 1.875 * in, Opening: "Drop", Tray: true, upright: true, draw: drop},
	{ID: "egg", Name: "Egg", Outline: "egg", Width: 1.5 * in, Height: 2 * in, Opening: "Egg", Tray: true, upright: true, draw: egg},
	{ID: "speech", Name: "Speech", Outline: "speech", Width: 2.5 * in, Height: 1.75 * in, Opening: "Speech", Tray: true, upright: true, draw: speech},
	{ID: "bubble", Name: "Speech, round", Outline: "bubble", Width: 2.5 * in, Height: 1.75 * in, Opening: "Speech, round", Tray: true, upright: true, draw: bubble},
	{ID: "bookmark", Name: "Bookmark", Outline: "bookmark", Width: 1.5 * in, Height: 4 * in, Opening: "Bookmark", Tray: true, upright: true, draw: bookmark},
	{ID: "divider", Name: "Divider", Outline: "divider", Width: 3 * in, Height: 2.25 * in, Opening: "Divider", Tray: true, upright: true, draw: divider},
}

// All lists the catalogue with the previews drawn.
func All() []Ready { return slices.Clone(drawn()) }

var drawn = sync.OnceValue(func() []Ready {
	out := slices.Clone(ready)
	for i, r := range out {
		out[i].Preview = r.preview()
	}
	return out
})

// ByID is an entry of the catalogue, without its preview; ok is false for an unknown id.
func ByID(id string) (r Ready, ok bool) {
	for _, r := range ready {
		if r.ID == id {
			return r, true
		}
	}
	return Ready{}, false
}

// IDs lists the outlines that documents may name, Free last.
func IDs() []ID { return ids }

var ids = func() []ID {
	var out []ID
	for _, r := range ready {
		if !slices.Contains(out, r.Outline) {
			out = append(out, r.Outline)
		}
	}
	return append(out, Free)
}()

// Outline is a parametric outline in a size, mm; corner and radius matter to a rectangle
// alone. ok is false for an unknown id and for Free, which has no parameters.
func Outline(id ID, w, h float64, corner Corner, radius float64) (p geom.Path, ok bool) {
	for _, r := range ready {
		if r.Outline == id && r.draw != nil {
			return r.draw(w, h), true
		}
	}
	if id != Rectangle {
		return geom.Path{}, false
	}
	box := geom.Centred(w, h)
	switch corner {
	case Round:
		return geom.RoundRectPath(box, radius), true
	case Bevel:
		return geom.BevelRectPath(box, radius), true
	}
	return geom.RectPath(box), true
}

// preview draws the entry as large as its box takes, slender ones less slender, so that
// their ends can be told apart.
func (r Ready) preview() geom.Path {
	const w, h, least = PreviewWidth - 8, PreviewHeight - 8, 14
	k := min(w/r.Width, h/r.Height)
	p, _ := Outline(r.Outline, r.Width*k, max(r.Height*k, least), r.Corner, r.Radius*k)
	return p.Transform(geom.Shift(PreviewWidth/2, PreviewHeight/2))
}

func ellipse(w, h float64) geom.Path { return geom.EllipsePath(geom.Centred(w, h)) }

// strip is round at both ends.
func strip(w, h float64) geom.Path { return geom.RoundRectPath(geom.Centred(w, h), min(w, h)/2) }

// scallop is a rectangle edged with whole half circles. With n of diameter a
// along the width and m of diameter b along the height, n·a + b = width and
// m·b + a = height.
func scallop(w, h float64) geom.Path {
	d := min(max(min(w, h)/7, 3), 8, min(w, h)/3)
	n, m := max(2, math.Round(w/d-1)), max(2, math.Round(h/d-1))
	a, b := (w*m-h)/(n*m-1), (h*n-w)/(n*m-1)
	if a <= 0 || b <= 0 {
		// Too slender for whole half circles on both sides.
		return geom.RoundRectPath(geom.Centred(w, h), min(w, h)/2)
	}
	l, t := -n*a/2, -m*b/2
	var p geom.Builder
	p.Move(geom.Pt(l, t))
	side := func(count, d float64, start, step geom.Point, from float64) {
		for i := range int(count) {
			c := start.Add(step.Mul(float64(i) + .5))
			p.Arc(c, d/2, d/2, from, from+math.Pi)
		}
	}
	side(n, a, geom.Pt(l, t), geom.Pt(a, 0), math.Pi)
	side(m, b, geom.Pt(-l, t), geom.Pt(0, b), -math.Pi/2)
	side(n, a, geom.Pt(-l, -t), geom.Pt(-a, 0), 0)
	side(m, b, geom.Pt(l, -t), geom.Pt(0, -b), math.Pi/2)
	return p.Close().Path()
}

// tag has two corners cut off at its left end and a hole for a string.
func tag(w, h float64) geom.Path {
	c := min(h*.3, w*.25)
	l, t := -w/2, -h/2
	var p geom.Builder
	p.Move(geom.Pt(l, t+c)).Line(geom.Pt(l+c, t)).Line(geom.Pt(-l, t)).Line(geom.Pt(-l, -t)).
		Line(geom.Pt(l+c, -t)).Line(geom.Pt(l, -t-c)).Close()
	r := min(3, c*.38)
	hole := geom.EllipsePath(geom.Rect{X: l + c*.9 - r, Y: -r, W: 2 * r, H: 2 * r})
	return geom.Join(p.Path(), hole.Reverse())
}

// banner has a notch in each end.
func banner(w, h float64) geom.Path {
	d := min(h*.45, w/5)
	l, t := -w/2, -h/2
	var p geom.Builder
	p.Move(geom.Pt(l, t)).Line(geom.Pt(-l, t)).Line(geom.Pt(-l-d, 0)).Line(geom.Pt(-l, -t)).
		Line(geom.Pt(l, -t)).Line(geom.Pt(l+d, 0)).Close()
	return p.Path()
}

// flag is straight at its left end and has a notch in its right one.
func flag(w, h float64) geom.Path {
	d := min(h*.45, w/3)
	l, t := -w/2, -h/2
	var p geom.Builder
	p.Move(geom.Pt(l, t)).Line(geom.Pt(-l, t)).Line(geom.Pt(-l-d, 0)).Line(geom.Pt(-l, -t)).Line(geom.Pt(l, -t)).Close()
	return p.Path()
}

// tab is straight at its left end and round at its right one.
func tab(w, h float64) geom.Path {
	r := min(h/2, w/2)
	l, t := -w/2, -h/2
	var p geom.Builder
	p.Move(geom.Pt(l, t)).Line(geom.Pt(-l-r, t))
	p.Arc(geom.Pt(-l-r, 0), r, h/2, -math.Pi/2, math.Pi/2)
	p.Line(geom.Pt(l, -t)).Close()
	return p.Path()
}

// bracket has ends like curly brackets: each runs out of its corners into a point.
func bracket(w, h float64) geom.Path {
	d := min(h*.35, w/5)
	l, t := -w/2, -h/2
	var p geom.Builder
	p.Move(geom.Pt(l+d, t)).Line(geom.Pt(-l-d, t)).
		Cubic(geom.Pt(-l-d, t*.45), geom.Pt(-l-d*.55, 0), geom.Pt(-l, 0)).
		Cubic(geom.Pt(-l-d*.55, 0), geom.Pt(-l-d, -t*.45), geom.Pt(-l-d, -t)).
		Line(geom.Pt(l+d, -t)).
		Cubic(geom.Pt(l+d, -t*.45), geom.Pt(l+d*.55, 0), geom.Pt(l, 0)).
		Cubic(geom.Pt(l+d*.55, 0), geom.Pt(l+d, t*.45), geom.Pt(l+d, t)).Close()
	return p.Path()
}

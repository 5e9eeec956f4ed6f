package assembly

import (
	"math"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// The papers of an envelope in pictures.
const (
	envelopeBack  = "#cdb48c"
	envelopeFront = "#dcc6a0"
)

// sending draws the closed card half in the envelope that is to measure for it, and an arrow for the way;
// ok is false for a card without a front.
func (d *drawn) sending() (ok bool) {
	f := d.scene.Face(card.Front)
	if f == nil {
		return false
	}
	d.face = f
	w, h := fold.SendingOf(d.scene.Net.Closed, d.scene.Thickness).Landscape()
	d.size = w
	// The card lies across, half of it still out of the envelope.
	at, wide, high := geom.Identity, f.Width, f.Height
	if wide < high {
		at, wide, high = geom.Turn(-math.Pi/2).Then(geom.Shift(0, f.Width)), high, wide
	}
	at = at.Then(geom.Shift((w-wide)/2, .45*h-high))
	var flap, pocket geom.Builder
	back := flap.Move(geom.Pt(0, 0)).Line(geom.Pt(.16*w, -.5*h)).Line(geom.Pt(.84*w, -.5*h)).Line(geom.Pt(w, 0)).Line(geom.Pt(w, h)).Line(geom.Pt(0, h)).Close().Path()
	front := pocket.Move(geom.Pt(0, 0)).Line(geom.Pt(.42*w, .3*h)).Line(geom.Pt(.58*w, .3*h)).Line(geom.Pt(w, 0)).Line(geom.Pt(w, h)).Line(geom.Pt(0, h)).Close().Path()
	paper := func(outline geom.Path, z float64, colour string) float64 {
		top := d.slab(outline, .6, z)
		d.ink(scene.Ink{Region: outline.Transform(flat(top)), Colour: colour},
			scene.Ink{Region: geom.Stroke(outline.Transform(flat(top)), .25, geom.RoundCorner, geom.RoundCap), Colour: shadow, Clear: .7})
		return top
	}
	d.fall(back, 0, 1.6)
	top := paper(back, 0, envelopeBack)
	shape := f.Shape.Transform(at)
	d.fall(shape, top, 1)
	top = d.slab(shape, min(d.scene.Thickness, 3), top)
	m := at.Then(flat(top))
	d.ink(scene.Transform(f.BaseSeen(d.stock), m)...)
	d.but = ""
	d.on(f, "", at, top)
	d.fall(front, top, 1.2)
	top = paper(front, top, envelopeFront)
	var way geom.Builder
	a, b := flat(top).Apply(geom.Pt(w+9, -.3*h)), flat(top).Apply(geom.Pt(w+9, .35*h))
	d.arrow(way.Move(a).Line(b).Path(), b, a.Sub(b))
	return true
}

// closing draws the card as it stands, and an arrow for the way in which it is closed; ok is false where
// nothing moves.
func (d *drawn) closing() (ok bool) {
	way := d.scene.ClosingWay(d.card)
	if way.Empty() {
		return false
	}
	inks, box := d.scene.Standing(d.card)
	d.ink(inks...)
	d.size = max(box.W, box.H)
	var last [2]geom.Point
	way.Segments(func(from geom.Point, s geom.Segment) {
		if s.Op == geom.LineTo && s.End() != from {
			last = [2]geom.Point{from, s.End()}
		}
	})
	d.arrow(way, last[1], last[0].Sub(last[1]))
	return true
}

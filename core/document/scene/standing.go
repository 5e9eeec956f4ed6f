package scene

import (
	"cmp"
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// view is how a standing card is looked at: turned over to be seen from its inside, about
// its upright axis or its level one, then turned by yaw and tipped by pitch, radians. It is
// closed so far, from 0, flat, to 1.
type view struct {
	level, spun bool // spun: turned about what stands up, as on a table
	yaw, pitch  float64
	closed      float64
}

// viewOf is how a base is best seen: a little open, what stands up from above.
func viewOf(b card.Base) view {
	kind := b.Kind
	switch eye := fold.EyeOf(b); {
	case eye == fold.OnTable:
		return view{level: true, spun: true, yaw: .5, pitch: 1.08, closed: .5}
	case kind == card.Easel:
		return view{level: true, yaw: -.2, pitch: .35, closed: .78}
	case eye == fold.Level:
		return view{level: true, yaw: -.2, pitch: -.06, closed: .8}
	}
	switch kind {
	case card.Flat:
		return view{yaw: math.Pi - .24, pitch: .12}
	case card.Accordion, card.ZFold, card.TriFold:
		return view{yaw: .3, pitch: .3, closed: .6}
	case card.GateFold:
		return view{yaw: .24, pitch: .2, closed: .86}
	}
	return view{yaw: .24, pitch: .2, closed: .8}
}

// at is where the eye has a place: x right, y down, z toward the eye.
func (v view) at(p fold.V3) fold.V3 {
	a, b, c := -p.X, p.Y, -p.Z
	if v.level {
		a, b = p.X, -p.Y
	}
	sy, cy := math.Sincos(v.yaw)
	if v.spun {
		a, b = a*cy-b*sy, a*sy+b*cy
	} else {
		a, c = a*cy+c*sy, c*cy-a*sy
	}
	sp, cp := math.Sincos(v.pitch)
	return fold.V3{X: a, Y: b*cp - c*sp, Z: b*sp + c*cp}
}

// standingPanel is a panel as the eye has it, with the pieces that are glued to it.
type standingPanel struct {
	number    int
	at        geom.Affine // from the sheet, seen from outside, to the eye's plane
	depth     float64     // of its middle, toward the eye
	near, far *Face       // the faces on the side that is seen, and on the other
	nearer    []gluedPiece
	farther   []gluedPiece
	place     placed
}

// Standing is the card as it stands on a table, a little open, from the back forward, and
// the box that it takes, mm. Pieces lie on the panel that they are glued to.
func (s *Scene) Standing(c card.Card) (inks []Ink, box geom.Rect) {
	return s.StandingAt(c, viewOf(c.Base).closed)
}

// StandingAt is Standing with the card closed so far, from 0, flat, to 1.
func (s *Scene) StandingAt(c card.Card, closed float64) (inks []Ink, box geom.Rect) {
	v := viewOf(c.Base)
	v.closed = min(max(closed, 0), 1)
	stock, _ := card.StockByID(c.Base.Stock)
	study := fold.StudyOf(c.Base)
	for _, group := range inOrder(s.standingPanels(c, study, v)) {
		put := func(p part, all ...Ink) {
			for _, k := range all {
				if p.within != nil {
					k.Clips = append(k.Clips, p.clip(k.Region.Bounds()))
				}
				inks = append(inks, k)
			}
		}
		for _, p := range group {
			for _, g := range p.of.farther {
				put(p, g.inks...) // seen only where it is past the panel
			}
		}
		for _, p := range group {
			put(p, p.of.paper(study.Panels[p.of.number].Ring, stock, v)...)
		}
		for _, p := range group {
			for _, g := range p.of.nearer {
				put(p, g.inks...)
			}
		}
	}
	return inks, Reach(inks)
}

// ClosingWay is the way, in the picture of Standing, of the corner of the base that goes farthest while the
// card is closed from there. It is empty where nothing moves.
func (s *Scene) ClosingWay(c card.Card) geom.Path {
	const least = 5 // mm; less is no way to point out
	v := viewOf(c.Base)
	study := fold.StudyOf(c.Base)
	from := poseAt(study, v.closed)
	var best []geom.Point
	far := float64(least)
	for i, p := range study.Panels {
		for _, corner := range slices.Concat(corners(p.Ring)...) {
			way := make([]geom.Point, 0, len(study.Poses)-from)
			for _, pose := range study.Poses[from:] {
				at := v.at(pose.Panels[i].Apply(fold.V3{X: corner.X, Y: corner.Y}))
				way = append(way, geom.Pt(at.X, at.Y))
			}
			if d := way[len(way)-1].Sub(way[0]).Len(); d > far {
				best, far = way, d
			}
		}
	}
	return geom.PolylinePath(best...)
}

// poseAt is the number of the pose in which a card is closed so far, from 0, flat, to 1.
func poseAt(study *fold.Study, closed float64) int {
	return int(math.Round(closed * float64(len(study.Poses)-1)))
}

// paper is the panel itself with what is printed on the side that is seen.
func (p *standingPanel) paper(ring geom.Path, stock card.Stock, v view) []Ink {
	edge := ring.Transform(p.at)
	var printed []Ink
	// Paper that turns away from the light is darker.
	shade := .02 + .2*(1-min(1, math.Abs(p.at.Det())))
	if p.near != nil {
		printed = Transform(p.near.BaseInks(), p.near.OnSheet.Then(p.at))
		if p.near.Side == fold.Inside && !v.spun {
			shade += .05
		}
	}
	return append(Printed(Stocked(edge, stock, p.at), printed), Ink{Region: edge, Colour: "#3a2a18", Clear: 1 - shade},
		Ink{Region: geom.Stroke(edge, .35, geom.RoundCorner, geom.RoundCap), Colour: "#b9a67f"})
}

// standingPanels are the panels as the eye has them, those that are not seen edge on, the farthest first.
func (s *Scene) standingPanels(c card.Card, study *fold.Study, v view) []*standingPanel {
	pose := study.Poses[poseAt(study, v.closed)]
	homes := s.Homes(c)
	var panels []*standingPanel
	for i, p := range study.Panels {
		place := func(x, y float64) fold.V3 { return v.at(pose.Panels[i].Apply(fold.V3{X: x, Y: y})) }
		o, x, y := place(0, 0), place(1, 0), place(0, 1)
		one := &standingPanel{number: i, depth: place(p.Middle.X, p.Middle.Y).Z,
			at: geom.Affine{A: x.X - o.X, B: x.Y - o.Y, C: y.X - o.X, D: y.Y - o.Y, E: o.X, F: o.Y}}
		if math.Abs(one.at.Det()) < .02 {
			continue
		}
		one.place = placed{at: o, x: x.Sub(o), y: y.Sub(o)}
		outside, inside := study.FacesOn(i)
		one.near, one.far = s.Face(inside), s.Face(outside)
		if one.at.Det() > 0 {
			one.near, one.far = one.far, one.near
		}
		one.nearer, one.farther = s.glued(one.near, homes, one, false), s.glued(one.far, homes, one, true)
		one.place.reach = corners(p.Ring)
		for _, g := range append(slices.Clone(one.nearer), one.farther...) {
			one.place.reach = append(one.place.reach, corners(g.outline)...)
		}
		panels = append(panels, one)
	}
	slices.SortStableFunc(panels, func(a, b *standingPanel) int { return cmp.Compare(a.depth, b.depth) })
	return panels
}

// gluedPiece is a piece on a panel: its inks as the eye has them, and its outline on the sheet.
type gluedPiece struct {
	inks    []Ink
	outline geom.Path
}

// glued are the pieces of a face that are on a panel, from the base upward; of their backs the bare stock is
// seen.
func (s *Scene) glued(f *Face, homes map[string]int, p *standingPanel, backs bool) (out []gluedPiece) {
	if f == nil {
		return nil
	}
	m := f.OnSheet.Then(p.at)
	for i := range f.Items {
		it := &f.Items[i]
		if !it.Piece || homes[it.ID] != p.number {
			continue
		}
		outline := it.Outline.Transform(it.At)
		inks := []Ink{it.Bare()}
		if !backs {
			inks = f.PieceSeen(it)
		}
		inks = append(inks, Ink{Region: geom.Stroke(outline, .2, geom.RoundCorner, geom.RoundCap), Colour: "#3a2a18", Clear: .8})
		out = append(out, gluedPiece{Transform(inks, m), outline.Transform(f.OnSheet)})
	}
	if backs {
		slices.Reverse(out) // from behind, what lies lowest is nearest
	}
	return out
}

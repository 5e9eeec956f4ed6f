package assembly

import (
	"maps"
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// base draws the base as it lies open on the desk, with its folds by their kind and, unless it is bare, with
// all that is on that side of it by then; it returns the height of its top.
func (d *drawn) base(full bool) float64 {
	toDesk, _ := d.face.OnSheet.Inverse() // a face is never flat
	sheet := d.scene.Net.Outline().Transform(toDesk)
	if b := sheet.Bounds(); full {
		d.size = max(min(b.W, 2*d.face.Width), min(b.H, 2*d.face.Height))
	}
	begin := len(d.inks)
	defer func() {
		if full {
			d.inSight(sheet.Bounds(), d.inks[begin:])
		}
	}()
	d.fall(sheet, 0, 1.6)
	top := d.slab(sheet, d.stock.Thickness, 0)
	m := flat(top)
	var faces []*scene.Face
	if full {
		faces = append(faces, d.face)
	}
	for i := range d.scene.Faces {
		if f := &d.scene.Faces[i]; full && f.Side == d.face.Side && f.ID != d.face.ID {
			faces = append(faces, f)
		}
	}
	places := make([]geom.Affine, len(faces))
	var printed []scene.Ink
	for i, f := range faces {
		places[i] = geom.Identity
		if i > 0 {
			places[i] = f.OnSheet.Then(toDesk)
		}
		for _, k := range f.BaseInks() {
			k.Clips = append([]geom.Path{f.Shape}, k.Clips...)
			printed = append(printed, scene.Transform([]scene.Ink{k}, places[i])...)
		}
	}
	d.ink(scene.Transform(scene.Printed(scene.Stocked(sheet, d.stock, geom.Identity), printed), m)...)
	for _, l := range d.scene.Net.Lines {
		if d.face.Side == fold.Inside {
			l.Role = fold.Flipped(l.Role)
		}
		d.line(l, toDesk.Then(m))
	}
	d.ink(scene.Ink{Region: geom.Stroke(sheet.Transform(m), .25, geom.RoundCorner, geom.RoundCap), Colour: shadow, Clear: .7})
	for i, f := range faces {
		d.on(f, "", places[i], top)
	}
	return top
}

// inSight cuts the inks of a base off that reaches far past the face that is worked on: half a face of its
// neighbours is seen.
func (d *drawn) inSight(sheet geom.Rect, inks []scene.Ink) {
	w, h := d.face.Width, d.face.Height
	view := geom.Rect{X: -w / 2, Y: -h / 2, W: 2 * w, H: 2 * h}
	if sheet.W <= 2.2*w && sheet.H <= 2.2*h {
		return
	}
	// As high as anything is stacked on the base.
	var corners []geom.Point
	for _, z := range []float64{-2, .3 * max(w, h)} {
		for _, p := range []geom.Point{geom.Pt(view.X, view.Y), geom.Pt(view.Right(), view.Y), geom.Pt(view.Right(), view.Bottom()), geom.Pt(view.X, view.Bottom())} {
			corners = append(corners, flat(z).Apply(p))
		}
	}
	sight := geom.PolygonPath(geom.Hull(corners)...)
	for i := range inks {
		inks[i].Clips = append(inks[i].Clips, sight)
	}
}

// looks are how lines of a base are drawn, by their kind.
var looks = map[fold.Role]struct {
	colour string
	dashes []float64
}{
	fold.Mountain: {"#a4572b", []float64{4, 1, .8, 1}}, fold.Valley: {"#35658c", []float64{2.4, 1.5}},
	fold.Cut: {shadow, nil}, fold.Perforation: {shadow, []float64{.5, 1}},
}

// line draws a line of the base.
func (d *drawn) line(l fold.Line, m geom.Affine) {
	as, ok := looks[l.Role]
	if !ok {
		return
	}
	var b geom.Builder
	line := b.Move(l.From).Line(l.To).Path()
	if as.dashes != nil {
		line = geom.Dash(line, as.dashes, 0)
	}
	d.ink(scene.Ink{Region: geom.Stroke(line.Transform(m), .55, geom.RoundCorner, geom.ButtCap), Colour: as.colour})
}

// inside is the first face of the inside, nil where there is none.
func (d *drawn) inside() *scene.Face {
	for i := range d.scene.Faces {
		if f := &d.scene.Faces[i]; f.Side == fold.Inside {
			return f
		}
	}
	return nil
}

// folding draws the bare base with its inside up and, at each fold that hands turn, an arrow for the way: of
// a valley over it, of a mountain beneath, in dashes. ok is false for a base without folds.
func (d *drawn) folding() (ok bool) {
	if d.face = d.inside(); d.face == nil {
		return false
	}
	study := fold.StudyOf(d.card.Base)
	toDesk, _ := d.face.OnSheet.Inverse()
	turns := map[float64]turn{} // the longest fold of each line
	whole := d.scene.Net.Outline().Bounds()
	middle := whole.Centre()
	d.size = max(whole.W, whole.H)
	for _, h := range study.Hinges {
		if l := study.Net.Lines[h.Line]; !l.Main {
			continue
		}
		along := h.To.Sub(h.From)
		out := geom.Pt(-along.Y, along.X).Mul(1 / along.Len())
		m := turn{at: h.From.Lerp(h.To, .5), long: along.Len(), role: fold.Flipped(h.Role)}
		// The outer panel is the one that is turned.
		if out.Dot(m.at.Sub(middle)) < -.01 {
			out = out.Mul(-1)
		}
		panel := study.Panels[h.A]
		if other := study.Panels[h.B]; other.Middle.Sub(m.at).Dot(out) > 0 {
			panel = other
		}
		b := panel.Ring.Transform(geom.Affine{A: out.X, C: out.Y, D: 1}).Bounds()
		m.far = .62 * (b.Right() - m.at.Dot(out))
		line := math.Round(m.at.Dot(out)*100) + 1e7*math.Round(math.Abs(out.X)*1000)
		if m.long > turns[line].long {
			m.out = toDesk.Apply(m.at.Add(out)).Sub(toDesk.Apply(m.at))
			m.at = toDesk.Apply(m.at)
			turns[line] = m
		}
	}
	each := func(role fold.Role, up float64) {
		for _, line := range slices.Sorted(maps.Keys(turns)) {
			if m := turns[line]; m.role == role {
				d.turning(m, up)
			}
		}
	}
	each(fold.Mountain, -1)
	d.base(false)
	each(fold.Valley, 1)
	return len(turns) > 0
}

// turn is a fold that hands turn: its middle, the way that the panel which turns lies from it, how far from
// the fold the arrow begins and how long the fold is, mm; and its role as seen from inside.
type turn struct {
	at, out   geom.Point
	far, long float64
	role      fold.Role
}

// turning draws an arrow of a place on a panel that turns about its fold, up (1) or down (-1), for two thirds
// of a right angle.
func (d *drawn) turning(m turn, up float64) {
	const steps, whole = 24, math.Pi / 3
	place := func(angle float64) geom.Point {
		s, c := math.Sincos(angle)
		return flat(up * m.far * s).Apply(m.at.Add(m.out.Mul(m.far * c)))
	}
	k := d.size / labelFace
	var at [steps + 1]geom.Point
	for i := range at {
		at[i] = place(whole * float64(i) / steps)
	}
	way := geom.PolylinePath(at[:]...)
	if up < 0 {
		way = geom.Dash(way, []float64{2 * k, 2 * k}, 0)
	}
	d.arrow(way, place(whole), place(whole*.9).Sub(place(whole)))
}

// arrow draws a way in the picture with a head at its tip; back is where the way comes from there.
func (d *drawn) arrow(way geom.Path, tip, back geom.Point) {
	k := d.size / labelFace
	d.ink(scene.Ink{Region: geom.Stroke(way, 1.2*k, geom.RoundCorner, geom.RoundCap), Colour: arrowColour})
	back = back.Mul(4.6 * k / back.Len())
	side := geom.Pt(-back.Y, back.X).Mul(.65)
	var h geom.Builder
	head := h.Move(tip.Add(back).Add(side)).Line(tip).Line(tip.Add(back).Sub(side)).Path()
	d.ink(scene.Ink{Region: geom.Stroke(head, 1.2*k, geom.RoundCorner, geom.RoundCap), Colour: arrowColour})
}

// leaf draws the insert over the open card, with its line of glue along the main fold; ok is false for a card
// without one.
func (d *drawn) leaf() (ok bool) {
	if d.face = d.inside(); d.face == nil || d.card.Leaf == nil {
		return false
	}
	const glueWide = 12.0
	toDesk, _ := d.face.OnSheet.Inverse()
	sheet := d.scene.Net.Outline().Transform(toDesk)
	insert := geom.Offset(sheet, -d.card.Leaf.Less, geom.MitreCorner)
	b := insert.Bounds()
	d.size = max(b.W, b.H)
	stock, _ := card.StockByID(d.card.Leaf.Stock)
	top := d.base(false)
	for _, l := range d.scene.Net.Lines {
		if !l.Main || !l.Role.Folds() {
			continue
		}
		var g geom.Builder
		line := g.Move(toDesk.Apply(l.From)).Line(toDesk.Apply(l.To)).Path()
		d.hatch(geom.Intersection(geom.NonZero, geom.Stroke(line, glueWide, geom.RoundCorner, geom.ButtCap), insert), flat(top))
		break // it is glued along one fold
	}
	dashes := geom.Dash(insert, []float64{2.2, 1.6}, 0)
	d.ink(scene.Ink{Region: geom.Stroke(dashes.Transform(flat(top)), .5, geom.RoundCorner, geom.ButtCap), Colour: arrowColour})
	rise := .3 * max(d.face.Width, d.face.Height)
	d.way(insert, top, rise)
	d.fall(insert, top+rise, 1.2)
	high := d.slab(insert, stock.Thickness, top+rise)
	m := flat(high)
	var printed []scene.Ink
	for i := range d.scene.Faces {
		if f := &d.scene.Faces[i]; f.Side == fold.Inside {
			printed = append(printed, scene.Transform(f.BaseInks(), f.OnSheet.Then(toDesk))...)
		}
	}
	d.ink(scene.Transform(scene.Printed(scene.Stocked(insert, stock, geom.Identity), printed), m)...)
	d.ink(scene.Ink{Region: geom.Stroke(insert.Transform(m), .25, geom.RoundCorner, geom.RoundCap), Colour: shadow, Clear: .7})
	return true
}

package assembly

import (
	"math"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
	"sectilis/core/production/sheet"
)

// The size of a foam pad, and how far from the edge of its piece it stays, mm.
const (
	padWide = 8.0
	padHigh = 16.0
	padIn   = 2.0
)

// Pads are where foam goes under a raised piece, on its face: in a grid, as far as they lie within it. A
// piece that is too small for any has one in its middle.
func Pads(it *scene.Item) []geom.Rect {
	outline := it.Outline.Transform(it.At)
	room := geom.Offset(outline, -padIn, geom.RoundCorner)
	b := room.Bounds()
	w, h := padWide, padHigh
	if b.W > b.H {
		w, h = h, w
	}
	across, down := max(1, int(math.Round(b.W/38))), max(1, int(math.Round(b.H/38)))
	if across == 1 && b.W > 2.4*w {
		across = 2
	}
	if down == 1 && b.H > 2.4*h {
		down = 2
	}
	// Where a round or ragged piece has no corners, the grid is drawn together.
	var out []geom.Rect
	for shrink := 1.0; shrink > .35 && len(out) < across*down; shrink -= .1 {
		in := geom.Rect{X: b.Centre().X - b.W*shrink/2, Y: b.Centre().Y - b.H*shrink/2, W: b.W * shrink, H: b.H * shrink}
		if shrink < 1 && (across > 1 && in.W < 1.2*w*float64(across) || down > 1 && in.H < 1.2*h*float64(down)) {
			break
		}
		if list := padsIn(room, in, across, down, w, h); len(list) > len(out) {
			out = list
		}
	}
	if len(out) == 0 {
		c := outline.Bounds().Centre()
		w, h = min(w, it.Bounds.W*.6), min(h, it.Bounds.H*.6)
		out = append(out, geom.Rect{X: c.X - w/2, Y: c.Y - h/2, W: w, H: h})
	}
	return out
}

// padsIn are the pads of a grid that lie within a room.
func padsIn(room geom.Path, in geom.Rect, across, down int, w, h float64) (out []geom.Rect) {
	place := func(n, k int, from, long, size float64) float64 {
		if n == 1 {
			return from + (long-size)/2
		}
		return from + (long-size)*float64(k)/float64(n-1)
	}
	for j := range down {
		for i := range across {
			r := geom.Rect{X: place(across, i, in.X, in.W, w), Y: place(down, j, in.Y, in.H, h), W: w, H: h}
			if geom.Difference(geom.NonZero, geom.RectPath(r), room).Area() < .25*w*h {
				out = append(out, r)
			}
		}
	}
	return out
}

// flat maps what lies on the desk to the picture, seen from the lower left and above, so many mm over it.
func flat(z float64) geom.Affine { return geom.Affine{A: .82, B: .3, C: -.56, D: .5, F: -z} }

// drawn is a picture in the making. The desk has the coordinates of the face that is worked on.
type drawn struct {
	card  card.Card
	scene *scene.Scene
	stock card.Stock // of the base
	face  *scene.Face
	done  map[string]bool // pieces that have been laid by then
	but   string          // the piece that is laid now
	unit  measure.Unit
	size  float64 // the longer side of what is drawn, mm
	inks  []scene.Ink
}

func (d *drawn) ink(inks ...scene.Ink) { d.inks = append(d.inks, inks...) }

const (
	edgeColour  = "#7d6a4d"
	arrowColour = "#a8432a"
	shadow      = "#3a2a18"
)

// Picture draws a step. Where a piece is laid down that is what it is laid on with all that is there by then,
// the piece above it, where it goes, its glue or foam, its measures, and an arrow for the way; where the base
// is folded, its lines and which way they turn; where the card is closed, the card and an arrow. before are the
// steps before it in the guide. ok is false for a step of another kind. Box is the room that the picture takes,
// mm.
func Picture(c card.Card, s *scene.Scene, st Step, before []Step, u measure.Unit) (inks []scene.Ink, box geom.Rect, ok bool) {
	stock, _ := card.StockByID(c.Base.Stock)
	d := drawn{card: c, scene: s, stock: stock, done: map[string]bool{}, but: st.Piece, unit: u}
	for _, b := range before {
		d.done[b.Piece] = true
	}
	switch st.Kind {
	case Glue, Raise:
		ok = d.laid(st)
	case Fold:
		ok = d.folding()
	case Leaf:
		ok = d.leaf()
	case Send:
		ok = d.sending()
	case Close:
		ok = d.closing()
	case Print, Cut, Tabs, Own:
	}
	return d.inks, scene.Reach(d.inks), ok
}

// laid draws how a piece is laid down; ok is false where it is none of the card's.
func (d *drawn) laid(st Step) (ok bool) {
	if d.face = d.scene.Face(st.Face); d.face == nil {
		return false
	}
	f, it := d.face, d.face.Item(st.Piece)
	if it == nil {
		return false
	}
	top, carrier := 0.0, geom.Rect{W: f.Width, H: f.Height}
	if on := f.Carrier(it); on != nil {
		top, carrier = d.piece(f, on, geom.Identity, 0), on.Bounds
		d.size = max(carrier.W, carrier.H)
	} else {
		top = d.base(true)
	}
	outline := it.Outline.Transform(it.At)
	d.glue(it, outline, top)
	rise := max(14, .22*max(f.Width, f.Height)) + it.Lift
	d.way(outline, top, rise)
	d.but = ""
	d.piece(f, it, geom.Identity, top+rise)
	d.measures(st.Measures, it.Bounds, carrier, top)
	return true
}

// slab draws paper of an outline with its edge, lying so high, and returns how high its top is. Paper is
// drawn at least half a millimetre thick, or nobody would see it.
func (d *drawn) slab(outline geom.Path, thick, z float64) float64 {
	t := max(.6, thick)
	for _, k := range []float64{0, .5} {
		d.ink(scene.Ink{Region: outline.Transform(flat(z + t*k)), Colour: edgeColour})
	}
	return z + t
}

// fall draws the shadow of an outline on what lies so high.
func (d *drawn) fall(outline geom.Path, z, far float64) {
	d.ink(scene.Ink{Region: outline.Transform(flat(z).Then(geom.Shift(-far, far))), Colour: shadow, Clear: .84})
}

// piece draws a piece of a face, which at maps to the desk, so high, with all that is on it by then; it
// returns the height of its top.
func (d *drawn) piece(f *scene.Face, it *scene.Item, at geom.Affine, z float64) float64 {
	outline := it.Outline.Transform(it.At)
	d.fall(outline.Transform(at), z, 1.2+it.Lift*.3)
	top := d.slab(outline.Transform(at), it.To-it.From-it.Lift, z)
	m := at.Then(flat(top))
	d.ink(scene.Transform(f.PieceSeen(it), m)...)
	d.ink(scene.Ink{Region: geom.Stroke(outline.Transform(m), .25, geom.RoundCorner, geom.RoundCap), Colour: shadow, Clear: .7})
	d.on(f, it.ID, at, top)
	return top
}

// on draws the pieces that lie on a piece, or on the base where that is "", by then.
func (d *drawn) on(f *scene.Face, carrier string, at geom.Affine, top float64) {
	for i := range f.Items {
		if o := &f.Items[i]; o.Piece && o.On == carrier && o.ID != d.but && d.done[o.ID] {
			d.piece(f, o, at, top+o.Lift)
		}
	}
}

// glue draws where a piece goes: its outline in dashes, and its foam, or its glue hatched.
func (d *drawn) glue(it *scene.Item, outline geom.Path, top float64) {
	m := flat(top)
	if it.Lift > 0 {
		for _, r := range Pads(it) {
			pad := geom.RectPath(r)
			high := d.slab(pad, it.Lift, top)
			d.ink(scene.Ink{Region: pad.Transform(flat(high)), Colour: "#ffffff"},
				scene.Ink{Region: geom.Stroke(pad.Transform(flat(high)), .2, geom.RoundCorner, geom.RoundCap), Colour: shadow, Clear: .7})
		}
	} else {
		d.hatch(outline, m)
	}
	dashes := geom.Dash(outline, []float64{2.2, 1.6}, 0)
	d.ink(scene.Ink{Region: geom.Stroke(dashes.Transform(m), .5, geom.RoundCorner, geom.ButtCap), Colour: arrowColour})
}

// hatch draws slanting lines over an outline, as glue is drawn.
func (d *drawn) hatch(outline geom.Path, m geom.Affine) {
	b := outline.Bounds()
	apart := max(3, max(b.W, b.H)/16)
	var lines []geom.Path
	for at := b.X - b.H; at < b.Right(); at += apart {
		var g geom.Builder
		lines = append(lines, g.Move(geom.Pt(at, b.Bottom())).Line(geom.Pt(at+b.H, b.Y)).Path())
	}
	in, _ := geom.CutStrokes(geom.Join(lines...), geom.NonZero, geom.Offset(outline, -1, geom.RoundCorner))
	if !in.Empty() {
		d.ink(scene.Ink{Region: geom.Stroke(in.Transform(m), .35, geom.RoundCorner, geom.ButtCap), Colour: arrowColour, Clear: .45})
	}
}

// way draws the way down: dotted lines from the corners, and an arrow.
func (d *drawn) way(outline geom.Path, top, rise float64) {
	b := outline.Bounds()
	line := func(p geom.Point, dashes []float64, width float64, colour string, from, to float64) {
		var g geom.Builder
		l := g.Move(flat(from).Apply(p)).Line(flat(to).Apply(p)).Path()
		if dashes != nil {
			l = geom.Dash(l, dashes, 0)
		}
		d.ink(scene.Ink{Region: geom.Stroke(l, width, geom.RoundCorner, geom.RoundCap), Colour: colour})
	}
	for _, p := range []geom.Point{geom.Pt(b.X, b.Y), geom.Pt(b.Right(), b.Y), geom.Pt(b.Right(), b.Bottom()), geom.Pt(b.X, b.Bottom())} {
		line(p, []float64{.6, 1.6}, .45, "#b98a55", top+rise, top)
	}
	// The arrow stands to the right of the piece, where neither that nor a measure hides it.
	p := geom.Pt(b.Right()+7, b.Y+.35*b.H)
	long := rise * .8
	line(p, nil, 1.1, arrowColour, top+long, top+3)
	tip := flat(top + 2).Apply(p)
	var g geom.Builder
	head := g.Move(tip.Add(geom.Pt(-2.6, -3.6))).Line(tip).Line(tip.Add(geom.Pt(2.6, -3.6))).Path()
	d.ink(scene.Ink{Region: geom.Stroke(head, 1.1, geom.RoundCorner, geom.RoundCap), Colour: arrowColour})
}

// SheetsPicture draws sheets side by side: what is printed on them, or, cut, their pieces.
func SheetsPicture(sheets []sheet.Sheet, cut bool) (inks []scene.Ink, box geom.Rect) {
	const most, apart = 6, 14.0
	x, y, row := 0.0, 0.0, 0.0
	shown := 0
	for i := range sheets {
		sh := &sheets[i]
		if !cut && !sh.Printed || shown == most {
			continue
		}
		if shown == most/2 {
			x, y = 0, row+apart
		}
		shown++
		m := geom.Shift(x, y)
		paper := geom.RectPath(geom.Rect{X: x, Y: y, W: sh.Size.Width, H: sh.Size.Height})
		inks = append(inks, scene.Ink{Region: paper.Transform(geom.Shift(1.5, 2)), Colour: shadow, Clear: .85}, scene.Ink{Region: paper, Colour: sh.Stock.Colour})
		for _, p := range sh.Pieces {
			for _, k := range p.Inks {
				k.Clips = append([]geom.Path{p.Outline}, k.Clips...)
				inks = append(inks, scene.Transform([]scene.Ink{k}, m)...)
			}
			if cut {
				// On stocks of every colour it is seen for the light round it.
				line := p.Outline.Transform(m)
				inks = append(inks, scene.Ink{Region: geom.Stroke(line, 2.2, geom.RoundCorner, geom.RoundCap), Colour: labelHalo},
					scene.Ink{Region: geom.Stroke(line, .9, geom.RoundCorner, geom.RoundCap), Colour: arrowColour})
			}
		}
		inks = append(inks, scene.Ink{Region: geom.Stroke(paper, .5, geom.RoundCorner, geom.RoundCap), Colour: "#b9a67f"})
		box = box.Union(paper.Bounds())
		x += sh.Size.Width + apart
		row = max(row, y+sh.Size.Height)
	}
	return inks, box
}

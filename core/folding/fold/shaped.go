package fold

import (
	"fmt"
	"math"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
)

// easel is a top fold whose front leaf has a second fold across its middle.
// Seen from outside the front lies below the fold.
func easel(b card.Base) Net {
	w, h := b.Width, b.Height
	front := func(name, inside string, leaf int, y float64) []Face {
		out, in := card.LeafFaces(leaf)
		return []Face{
			{out, name, Outside, w, h / 2, geom.Shift(0, y), geom.Shift(0, y)},
			{in, inside, Inside, w, h / 2, geom.Affine{A: 1, D: -1, F: y + h/2}, geom.Shift(0, 2*h-y-h/2)},
		}
	}
	upper, lower := front("Front upper", "Behind upper", 2, h), front("Front", "Behind lower", 0, 3*h/2)
	back := geom.Affine{A: -1, D: -1, E: w, F: h}
	return Net{
		Width: w, Height: 2 * h,
		Lines: []Line{
			{Role: Mountain, From: geom.Pt(0, h), To: geom.Pt(w, h), Main: true},
			{Role: Valley, From: geom.Pt(0, 3*h/2), To: geom.Pt(w, 3*h/2), Main: true},
		},
		Faces: []Face{lower[0], upper[0], lower[1], upper[1],
			{card.InsideSecond, "Inside", Inside, w, h, geom.Affine{A: 1, D: -1, F: h}, geom.Shift(0, h)},
			{card.Back, "Back", Outside, w, h, back, back}},
	}
}

// shapes are the outlines of shaped cards, in a box from (0, 0).
var shapes = []struct {
	name string
	path func(w, h float64) geom.Path
}{
	{"House", func(w, h float64) geom.Path { return polygon(0, h*.36, w/2, 0, w, h*.36, w, h, 0, h) }},
	{"Oval", func(w, h float64) geom.Path { return geom.EllipsePath(geom.Rect{W: w, H: h}) }},
	{"Heart", func(w, h float64) geom.Path {
		r := w / 4
		disc := func(x float64) geom.Path { return geom.EllipsePath(geom.Rect{X: x - r, W: 2 * r, H: 2 * r}) }
		// The sides leave the discs where they touch them.
		p := geom.Pt(w/2, h)
		touch := func(c geom.Point, s float64) geom.Point {
			v := c.Sub(p)
			a := math.Asin(r/v.Len()) * s
			d := geom.Turn(a).Apply(v.Mul(1 / v.Len()))
			return p.Add(d.Mul(math.Sqrt(v.Dot(v) - r*r)))
		}
		l, m := touch(geom.Pt(r, r), -1), touch(geom.Pt(w-r, r), 1)
		return geom.Union(geom.NonZero, disc(r), disc(w-r), polygon(l.X, l.Y, r, r, w/2, r, w-r, r, m.X, m.Y, p.X, p.Y))
	}},
	{"Cloud", func(w, h float64) geom.Path {
		puff := func(x, y, rx, ry float64) geom.Path {
			return geom.EllipsePath(geom.Rect{X: (x - rx) * w, Y: (y - ry) * h, W: 2 * rx * w, H: 2 * ry * h})
		}
		return geom.Union(geom.NonZero, puff(.25, .6, .25, .28), puff(.5, .38, .28, .38), puff(.76, .56, .24, .3), puff(.5, .74, .4, .26))
	}},
	{"Tab", func(w, h float64) geom.Path {
		return geom.Union(geom.NonZero, geom.RoundRectPath(geom.Rect{Y: h * .12, W: w, H: h * .88}, min(w, h)*.05),
			geom.RoundRectPath(geom.Rect{X: w * .55, W: w * .32, H: h * .3}, min(w, h)*.05))
	}},
}

func polygon(xy ...float64) geom.Path {
	var b geom.Builder
	b.Move(geom.Pt(xy[0], xy[1]))
	for i := 2; i < len(xy); i += 2 {
		b.Line(geom.Pt(xy[i], xy[i+1]))
	}
	return b.Close().Path()
}

func shapedMeasures(b card.Base, _ func(string) float64) []Measure {
	names := make([]string, len(shapes))
	for i, s := range shapes {
		names[i] = s.name
	}
	return []Measure{
		choice("shape", "Outline", names...),
		length("inset", "Fold from its left edge", b.Width*.12, 0, b.Width*.45),
	}
}

// shapedNet is the outline right of the fold, and its mirror image left of it.
func shapedNet(b card.Base, v func(string) float64) Net {
	inset := v("inset")
	leaf := b.Width - inset
	outline := shapes[int(v("shape"))].path(b.Width, b.Height).Transform(geom.Shift(-inset, 0))
	right := geom.Intersection(geom.NonZero, outline, geom.RectPath(geom.Rect{W: leaf + 1, Y: -1, H: b.Height + 2}))
	both := geom.Union(geom.NonZero, right.Transform(geom.Shift(leaf, 0)), right.Transform(geom.Affine{A: -1, D: 1, E: leaf}))
	n := leaves(func(card.Base, func(string) float64) []leafOf {
		return []leafOf{{leaf, "Front", "Inside left", Mountain, 0, 0}, {leaf, "Back", "Inside right", "", 0, 0}}
	})(b, v)
	n.Edge, n.Lines = both, nil
	n.Closed = geom.Rect{W: leaf, H: b.Height}
	for _, s := range hinge(both, leaf, b.Height) {
		n.Lines = append(n.Lines, Line{Role: Mountain, From: geom.Pt(leaf, s[0]), To: geom.Pt(leaf, s[1]), Main: true})
	}
	return n
}

// hinge is where an upright line at x runs inside an outline, from y to y.
func hinge(outline geom.Path, x, height float64) [][2]float64 {
	var b geom.Builder
	in, _ := geom.CutStrokes(b.Move(geom.Pt(x, -1)).Line(geom.Pt(x, height+1)).Path(), geom.NonZero, outline)
	var out [][2]float64
	for _, cs := range in.Curves() {
		out = append(out, [2]float64{cs[0].From.Y, cs[len(cs)-1].End().Y})
	}
	return out
}

func shapedLimit(b card.Base, v func(string) float64) (string, bool) {
	long := 0.0
	for _, l := range shapedNet(b, v).Lines {
		long += math.Abs(l.To.Y - l.From.Y)
	}
	return fmt.Sprintf("The fold needs a fifth of the height to hold; now it is %s long.", measure.FormatUnit(long, measure.In)), long >= b.Height/5
}

func pocketMeasures(b card.Base, _ func(string) float64) []Measure {
	return []Measure{
		length("deep", "Pocket deep", eighth(b.Height*.45), 15, b.Height-5),
		length("tab", "Tabs wide", eighth(12), 6, b.Width/3),
	}
}

// pocketNet is a leaf with the pocket below it, seen from outside, which is the
// leaf's back. The pocket folds up in front, its tabs behind the leaf's edges
// first.
func pocketNet(b card.Base, v func(string) float64) Net {
	w, h, p, t := b.Width, b.Height, v("deep"), v("tab")
	c := min(t*.8, p/4) // the tabs are cut off slanting, to slip in
	edge := polygon(t, 0, t+w, 0, t+w, h, 2*t+w, h+c, 2*t+w, h+p-c, t+w, h+p, t, h+p, 0, h+p-c, 0, h+c, t, h)
	out, in := card.LeafFaces(1)
	return Net{
		Width: w + 2*t, Height: h + p, Edge: edge, Closed: geom.Rect{W: w, H: h},
		Lines: []Line{
			{Role: Mountain, From: geom.Pt(t, h), To: geom.Pt(t, h+p), Main: true},
			{Role: Mountain, From: geom.Pt(t+w, h), To: geom.Pt(t+w, h+p), Main: true},
			{Role: Mountain, From: geom.Pt(t, h), To: geom.Pt(t+w, h), Main: true, Stage: 1},
		},
		Faces: []Face{
			{card.Front, "Pocket", Outside, w, p, geom.Affine{A: -1, D: -1, E: t + w, F: h + p}, geom.Affine{A: -1, D: -1, E: t + w, F: h + p}},
			{card.InsideFirst, "Inside pocket", Inside, w, p, geom.Affine{A: -1, D: 1, E: t + w, F: h}, geom.Shift(t, h)},
			{in, "Leaf", Inside, w, h, geom.Affine{A: -1, D: 1, E: t + w}, geom.Shift(t, 0)},
			{out, "Back", Outside, w, h, geom.Shift(t, 0), geom.Shift(t, 0)},
		},
	}
}

func envelopeMeasures(b card.Base, _ func(string) float64) []Measure {
	return []Measure{
		choice("flap", "Flap", "Slanted", "Pointed", "Straight"),
		length("flapDeep", "Flap deep", eighth(b.Height*.5), 15, b.Height),
		length("side", "Side flaps", eighth(18), 10, b.Width/2-1),
	}
}

// envelopeNet is seen from outside: the address side in the middle, the flap
// above it, the bottom below.
func envelopeNet(b card.Base, v func(string) float64) Net {
	w, h, s, f := b.Width, b.Height, v("side"), v("flapDeep")
	up := h - min(8, h/8) // the bottom leaves room under the flap
	slant := min(s, 12.0)
	top := []float64{s + f*.28, 0, s + w - f*.28, 0}
	switch v("flap") {
	case 1:
		top = []float64{s + w/2, 0}
	case 2:
		top = []float64{s + 2, 0, s + w - 2, 0}
	}
	y0, y1 := f, f+h
	xy := append([]float64{s + .5, y0}, top...)
	xy = append(xy, s+w-.5, y0, s+w, y0, 2*s+w, y0+slant, 2*s+w, y1-slant, s+w, y1, s+w-slant/2, y1+up, s+slant/2, y1+up, s, y1, 0, y1-slant, 0, y0+slant, s, y0)
	in1, in2 := geom.Pt(s, y0), geom.Pt(s+w, y0)
	out, inside := card.LeafFaces(0)
	return Net{
		Width: 2*s + w, Height: f + h + up, Edge: geom.Union(geom.NonZero, polygon(xy...)), Closed: geom.Rect{W: w, H: h},
		Lines: []Line{
			{Role: Mountain, From: in1, To: geom.Pt(s, y1), Main: true},
			{Role: Mountain, From: in2, To: geom.Pt(s+w, y1), Main: true},
			{Role: Mountain, From: geom.Pt(s, y1), To: geom.Pt(s+w, y1), Main: true, Stage: 1},
			{Role: Mountain, From: in1, To: in2, Main: true, Stage: 2},
		},
		Faces: []Face{
			{out, "Address side", Outside, w, h, geom.Shift(s, y0), geom.Shift(s, y0)},
			{inside, "Inside", Inside, w, h, geom.Affine{A: -1, D: 1, E: s + w, F: y0}, geom.Shift(s, y0)},
			{"flap", "Flap", Outside, w, f, geom.Affine{A: -1, D: -1, E: s + w, F: y0}, geom.Affine{A: -1, D: -1, E: s + w, F: y0}},
			{"flapInside", "Inside of the flap", Inside, w, f, geom.Affine{A: -1, D: 1, E: s + w}, geom.Shift(s, 0)},
		},
	}
}

// Sending is how a card can be sent: the first trade envelope that it fits and the size of one
// made to measure, for the closed card as thick as it is. Width and Height are mm.
type Sending struct {
	Trade  string  `json:"trade"` // "" for none
	Width  float64 `json:"width"` // made to measure
	Height float64 `json:"height"`
	// Takes is how thick a card an envelope takes without bulging, mm.
	Takes float64 `json:"takes"`
}

// envelopeTakes is how thick a card an envelope of paper takes without bulging, mm.
const envelopeTakes = 5.0

// Landscape is the size of the envelope that is made to measure, its longer side across.
func (s Sending) Landscape() (width, height float64) {
	return max(s.Width, s.Height), min(s.Width, s.Height)
}

// SendingOf finds the envelope for a closed card of a thickness in mm. Paper
// goes round what is in it, so each side takes up half the thickness twice.
func SendingOf(closed geom.Rect, thick float64) Sending {
	const ease = 3.0
	w, h := max(closed.W, closed.H)+thick, max(0, min(closed.W, closed.H))+thick
	s := Sending{Width: nano(closed.W + thick + 2*ease), Height: nano(closed.H + thick + ease), Takes: envelopeTakes}
	for _, e := range card.Envelopes() {
		if e.Width >= w+ease && e.Height >= h+ease/2 && e.Width < w+40 && e.Height < h+40 {
			s.Trade = e.Name
			break
		}
	}
	return s
}

// linerInset is how far a liner stays from the edge of its envelope, where the
// flap is gummed, mm.
const linerInset = 4.0

// Liner is the outline of a liner for an envelope, on its face InsideFirst: the
// middle and the flap, a little smaller. ok is false for other bases.
func Liner(b card.Base) (p geom.Path, ok bool) {
	if b.Kind != card.Envelope {
		return p, false
	}
	n := Of(b)
	f := n.Face(card.InsideFirst)
	back, _ := f.OnSheet.Inverse()
	flap := n.Face("flap")
	middle := geom.RectPath(geom.Rect{X: f.OnSheet.Apply(geom.Pt(f.Width, 0)).X, W: f.Width, H: flap.Height + f.Height})
	whole := geom.Intersection(geom.NonZero, n.Edge, middle)
	liner := geom.Offset(whole, -linerInset, geom.MitreCorner)
	return geom.Union(geom.NonZero, liner.Transform(back)), !liner.Empty()
}

// AddLiner lays a liner into an envelope, of a thin stock and with a patterned
// paper printed on it if one is named.
type AddLiner struct {
	Stock string `json:"stock"`
	Paper string `json:"paper"`
}

// Label implements card.Command.
func (AddLiner) Label() string { return "Lay a liner in" }

// Apply implements card.Command.
func (k AddLiner) Apply(c card.Card) (card.Card, error) {
	p, ok := Liner(c.Base)
	if !ok {
		return c, &card.Refusal{Field: "kind", Why: "A liner goes into an envelope."}
	}
	box := p.Bounds()
	m := box.Centre()
	return card.PlaceItems{Face: card.InsideFirst, Items: []card.Item{{
		Name: "Liner", Kind: card.Paper, Place: card.Place{X: m.X, Y: m.Y},
		Made: card.Made{As: card.Cut, Stock: k.Stock, Bleed: 1}, Fill: card.Fill{Paper: k.Paper},
		Form: &card.Form{Outline: card.Free, Width: box.W, Height: box.H, Path: card.NewDrawn(p.Transform(geom.Shift(-m.X, -m.Y)))},
	}}}.Apply(c)
}

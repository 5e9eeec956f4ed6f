// Package freehand holds the commands of drawing by hand: strokes with a tip, and
// rubbing them out, whole or in part.
package freehand

import (
	"fmt"
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// Commands are the commands of this package, for card.Decode.
var Commands = map[string]func() card.Command{
	"drawStroke": func() card.Command { return &DrawStroke{} },
	"rubOut":     func() card.Command { return &RubOut{} },
}

// Tip is what a stroke is drawn with.
type Tip string

// The tips. A pen's and a marker's are round, and heavier where they are
// pressed; a chisel's is a slanted edge, broad one way and fine the other.
const (
	Pen    Tip = "pen"
	Marker Tip = "marker"
	Chisel Tip = "chisel"
)

// Touch is a place that a stroke went through, and how hard the tip was pressed
// there, 0 to 1; one half is what a mouse has.
type Touch struct {
	X        float64 `json:"x"`
	Y        float64 `json:"y"`
	Pressure float64 `json:"pressure"`
}

// DrawStroke draws a stroke on a face: printed, or as a line for the machine's
// pen, which is as wide as that pen.
type DrawStroke struct {
	Face    card.FaceID `json:"face"`
	Touches []Touch     `json:"touches"`
	Tip     Tip         `json:"tip"`
	Weight  float64     `json:"weight"` // mm
	Colour  string      `json:"colour"`
	Opacity float64     `json:"opacity"` // 0 to 1
	Machine bool        `json:"machine,omitempty"`
	// With names a stroke drawn before it in the same run: both are in one group then. That it
	// is gone meanwhile is no error.
	With string `json:"with,omitempty"`
}

// Limits of a stroke.
const (
	maxTouches = 20000
	minWeight  = .1
	maxWeight  = 40
)

// Label implements card.Command.
func (DrawStroke) Label() string { return "Draw a stroke" }

// Apply implements card.Command.
func (k DrawStroke) Apply(c card.Card) (card.Card, error) {
	if !(k.Weight >= minWeight && k.Weight <= maxWeight) {
		return c, card.Refuse("weight", "A stroke is between 0.1 mm and 40 mm (1 ⁹⁄₁₆ in) wide.")
	}
	line, err := smooth(k.Touches)
	if err != nil {
		return c, err
	}
	it := card.Item{Kind: card.Shape, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: k.Colour}, ByHand: true}
	path := line.path
	switch {
	case k.Machine:
		it.Name, it.Kind, it.Made = "Pen line", card.Drawing, card.Made{As: card.Lined}
	case k.Tip == Chisel:
		it.Name, path = "Chisel stroke", chisel(line.path, k.Weight)
	case k.Tip == Pen || k.Tip == Marker:
		it.Name, path = "Pen stroke", line.round(k.Weight)
		if k.Tip == Marker {
			it.Name = "Marker stroke"
		}
	default:
		return c, card.Refuse("tip", "A stroke is drawn with a pen, a marker or a chisel tip.")
	}
	if path.Empty() {
		return c, card.Refuse("touches", "A stroke needs to go somewhere.")
	}
	box := path.Bounds()
	mid := box.Centre()
	it.Place = card.Place{X: card.Tidy(mid.X), Y: card.Tidy(mid.Y)}
	drawn := card.NewDrawn(path.Transform(geom.Shift(-mid.X, -mid.Y)))
	if k.Machine {
		it.Lines = &card.Lines{Role: card.RolePen, Path: drawn, Width: card.Tidy(box.W), Height: card.Tidy(box.H)}
	} else {
		it.Form = &card.Form{Outline: card.Free, Path: drawn, Width: card.Tidy(box.W), Height: card.Tidy(box.H)}
		if k.Opacity < 1 {
			it.Look = &card.Look{Clear: card.Tidy(1 - k.Opacity)}
		}
	}
	id := fmt.Sprintf("i%d", c.NextID)
	c, err = card.PlaceItems{Face: k.Face, Items: []card.Item{it}}.Apply(c)
	if err != nil || k.With == "" {
		return c, err
	}
	return together(c, k.Face, k.With, id)
}

// together puts a stroke into the group of one that was drawn before it, which is made if
// there is none.
func together(c card.Card, face card.FaceID, before, id string) (card.Card, error) {
	f, was := c.Find(before)
	if was == nil || f.ID != face || !was.ByHand || was.Locked {
		return c, nil
	}
	if was.Group == "" {
		return card.GroupItems{IDs: []string{before, id}, Name: "Drawn by hand"}.Apply(c)
	}
	return card.Change(c, func(c *card.Card) error {
		_, was := c.Find(before)
		_, it := c.Find(id)
		it.Group = was.Group
		return nil
	})
}

// stroke is a smooth line, with the pressure along it by length.
type stroke struct {
	path     geom.Path
	at       []float64 // lengths from the start at which the pressure is known
	pressure []float64
}

// Tolerance and corner of what a hand drew: it means the curve, not the tremor.
const (
	tremor   = .12 // mm
	dot      = .5  // mm
	handTurn = 70 * math.Pi / 180
)

// smooth takes the tremor out of a hand's touches and fits few curves to them.
func smooth(touches []Touch) (stroke, error) {
	if len(touches) > maxTouches {
		return stroke{}, card.Refuse("touches", "A stroke has at most %d touches. Draw it in parts.", maxTouches)
	}
	var s stroke
	var pts []geom.Point
	length := 0.
	for _, t := range touches {
		for _, v := range []float64{t.X, t.Y, t.Pressure} {
			if math.IsNaN(v) || math.Abs(v) > 2000 {
				return stroke{}, card.Refuse("touches", "A stroke would lie more than 2 m off the face.")
			}
		}
		p := geom.Pt(t.X, t.Y)
		if n := len(pts); n > 0 {
			d := p.Sub(pts[n-1]).Len()
			if d < .05 {
				continue
			}
			length += d
		}
		pts = append(pts, p)
		s.at = append(s.at, length)
		s.pressure = append(s.pressure, min(max(t.Pressure, .05), 1))
	}
	if len(pts) == 0 {
		return stroke{}, card.Refuse("touches", "A stroke needs to go somewhere.")
	}
	if len(pts) == 1 {
		// A dot is a very short stroke.
		pts = append(pts, pts[0].Add(geom.Pt(dot, 0)))
		s.at, s.pressure = append(s.at, dot), append(s.pressure, s.pressure[0])
	}
	calm := slices.Clone(pts)
	for i := 1; i+1 < len(pts); i++ {
		// Binomial smoothing (1 2 1) where the touches lie closer than a tip sees.
		if pts[i+1].Sub(pts[i-1]).Len() < 3 {
			calm[i] = pts[i-1].Add(pts[i].Mul(2)).Add(pts[i+1]).Mul(.25)
		}
	}
	s.path = geom.Fit(geom.Polyline{Points: calm}, tremor, handTurn)
	return s, nil
}

// pressed is the pressure at a length from the start.
func (s stroke) pressed(length float64) float64 {
	i, found := slices.BinarySearch(s.at, length)
	switch {
	case found:
		return s.pressure[i]
	case i == 0:
		return s.pressure[0]
	case i == len(s.at):
		return s.pressure[i-1]
	}
	k := (length - s.at[i-1]) / (s.at[i] - s.at[i-1])
	return s.pressure[i-1] + (s.pressure[i]-s.pressure[i-1])*k
}

// round is the outline that a round tip leaves.
func (s stroke) round(weight float64) geom.Path {
	lo, hi := slices.Min(s.pressure), slices.Max(s.pressure)
	if hi-lo < .02 {
		return geom.Stroke(s.path, weight, geom.RoundCorner, geom.RoundCap)
	}
	// A tip pressed half way leaves its weight, one pressed fully nearly twice.
	line := even(s.path.Flatten(.02)[0].Points, max(weight/6, .25))
	half := make([]float64, len(line))
	length := 0.
	for i, p := range line {
		if i > 0 {
			length += p.Sub(line[i-1]).Len()
		}
		half[i] = weight * (.15 + 1.7*s.pressed(length)) / 2
	}
	var left, right []geom.Point
	for i := range line {
		along := line[min(i+1, len(line)-1)].Sub(line[max(i-1, 0)])
		side := geom.Pt(-along.Y, along.X).Mul(half[i] / max(along.Len(), 1e-9))
		left, right = append(left, line[i].Add(side)), append(right, line[i].Sub(side))
	}
	slices.Reverse(right)
	parts := []geom.Path{geom.Fit(geom.Polyline{Points: append(left, right...), Closed: true}, .03, handTurn)}
	// Ends are round, and so is the inside of a turn that is tighter than the tip.
	for i := range line {
		end := i == 0 || i == len(line)-1
		if end || tight(line[i-1], line[i], line[i+1], half[i]) {
			parts = append(parts, geom.EllipsePath(geom.Rect{X: line[i].X - half[i], Y: line[i].Y - half[i], W: 2 * half[i], H: 2 * half[i]}))
		}
	}
	return geom.Union(geom.NonZero, parts...)
}

// even puts points between those that are farther apart than step.
func even(pts []geom.Point, step float64) []geom.Point {
	out := pts[:1:1]
	for i := 1; i < len(pts); i++ {
		n := math.Ceil(pts[i].Sub(pts[i-1]).Len() / step)
		for k := 1.; k <= n; k++ {
			out = append(out, pts[i-1].Lerp(pts[i], k/n))
		}
	}
	return out
}

// tight says that a line turns within less than a radius.
func tight(a, b, c geom.Point, radius float64) bool {
	p, q := b.Sub(a), c.Sub(b)
	turn := math.Abs(math.Atan2(p.Cross(q), p.Dot(q)))
	return turn*radius > (p.Len()+q.Len())/2
}

// slant is the angle of a chisel's edge, as a right hand holds it.
const slant = -40 * math.Pi / 180

// chisel is the outline that a slanted edge sweeps over: from touch to touch,
// the convex hull of the edge at both.
func chisel(line geom.Path, weight float64) geom.Path {
	turn := geom.Turn(slant)
	var nib [4]geom.Point
	for i, c := range [4]geom.Point{{X: -.5, Y: -.08}, {X: .5, Y: -.08}, {X: .5, Y: .08}, {X: -.5, Y: .08}} {
		nib[i] = turn.Apply(c.Mul(weight))
	}
	pts := line.Flatten(.03)[0].Points
	var parts []geom.Path
	for i := 1; i < len(pts); i++ {
		var all []geom.Point
		for _, c := range nib {
			all = append(all, pts[i-1].Add(c), pts[i].Add(c))
		}
		var b geom.Builder
		for j, q := range geom.Hull(all) {
			if j == 0 {
				b.Move(q)
			} else {
				b.Line(q)
			}
		}
		parts = append(parts, b.Close().Path())
	}
	return geom.Union(geom.NonZero, parts...)
}

// RubOut rubs out what was drawn by hand along a way: the parts of strokes that
// the rubber goes over or, Whole, every stroke that it touches.
type RubOut struct {
	Face    card.FaceID `json:"face"`
	Touches []Touch     `json:"touches"`
	Width   float64     `json:"width"` // of the rubber, mm
	Whole   bool        `json:"whole,omitempty"`
}

// Label implements card.Command.
func (RubOut) Label() string { return "Rub out" }

// Apply implements card.Command.
func (k RubOut) Apply(c card.Card) (card.Card, error) {
	if !(k.Width >= minWeight && k.Width <= maxWeight) {
		return c, card.Refuse("width", "A rubber is between 0.1 mm and 40 mm (1 ⁹⁄₁₆ in) wide.")
	}
	way, err := smooth(k.Touches)
	if err != nil {
		return c, err
	}
	over := geom.Stroke(way.path, k.Width, geom.RoundCorner, geom.RoundCap)
	reach := over.Bounds()
	return card.Change(c, func(c *card.Card) error {
		f := c.Face(k.Face)
		if f == nil {
			return card.Refuse("face", "There is no face “%s”.", k.Face)
		}
		rubbed := false
		var gone []string
		for i := range f.Items {
			it := &f.Items[i]
			if !it.ByHand || it.Locked || it.Hidden {
				continue
			}
			s, err := scene.Resolve(f, it)
			if err != nil {
				return err
			}
			if !s.Bounds.Grow(.01).Overlaps(reach) {
				continue
			}
			left, touched := rub(it, s.Outline.Transform(s.At), over)
			if !touched {
				continue
			}
			rubbed = true
			if k.Whole || left.Empty() || max(left.Bounds().W, left.Bounds().H) < .5 {
				gone = append(gone, it.ID)
				continue
			}
			keep(it, left)
		}
		for _, id := range gone {
			f.Remove(id)
		}
		if !rubbed {
			return card.Refuse("touches", "Nothing drawn by hand lies there.")
		}
		return nil
	})
}

// rub is what is left of a stroke, on the face; touched is false if it is all.
func rub(it *card.Item, path, over geom.Path) (left geom.Path, touched bool) {
	if it.Lines != nil {
		in, out := geom.CutStrokes(path, geom.NonZero, over)
		return out, !in.Empty()
	}
	if geom.Intersection(geom.NonZero, path, over).Empty() {
		return path, false
	}
	return geom.Difference(geom.NonZero, path, over), true
}

// keep gives a stroke another path, in face coordinates.
func keep(it *card.Item, path geom.Path) {
	box := path.Bounds()
	mid := box.Centre()
	it.Place = card.Place{X: card.Tidy(mid.X), Y: card.Tidy(mid.Y)}
	drawn := card.NewDrawn(path.Transform(geom.Shift(-mid.X, -mid.Y)))
	if it.Lines != nil {
		it.Lines.Path, it.Lines.Width, it.Lines.Height = drawn, card.Tidy(box.W), card.Tidy(box.H)
		return
	}
	it.Form.Path, it.Form.Width, it.Form.Height = drawn, max(card.Tidy(box.W), .5), max(card.Tidy(box.H), .5)
}

package svg

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"sectilis/core/document/exchange"
	"sectilis/core/ground/geom"
)

// finish applies what an element's style does to all that it has drawn: the shapes and the
// pictures from the given numbers on. In SVG's order: clip path, mask, opacity.
func (r *reader) finish(c around, shapes, pictures int) error {
	if len(r.d.Shapes) == shapes && len(r.d.Pictures) == pictures {
		return nil
	}
	set := func(name string) (string, bool) {
		v := c.style.extra[name]
		return v, v != "" && v != "none"
	}
	pictured := len(r.d.Pictures) > pictures
	if _, ok := set("filter"); ok {
		r.d.Note("A filter was not applied; what it would change is there as it is drawn.")
	}
	if v, ok := set("clip-path"); ok {
		if err := r.clip(v, c, shapes); err != nil {
			return err
		}
		if pictured {
			r.d.Note("A picture that would be clipped came in whole.")
		}
	}
	if v, ok := set("mask"); ok {
		if err := r.mask(v, c, shapes); err != nil {
			return err
		}
		if pictured {
			r.d.Note("A picture that would be masked came in whole.")
		}
	}
	if k := c.style.opacity; k < 1 {
		if pictured {
			r.d.Note("A picture that would be seen through came in solid.")
		}
		return r.weaken(k, shapes)
	}
	return nil
}

// box is that of the fills drawn from a number on, in user units.
func (r *reader) box(c around, from int) geom.Rect {
	back, ok := c.at.Inverse()
	if !ok {
		return geom.Rect{}
	}
	d := exchange.Drawing{}
	for _, s := range r.d.Shapes[from:] {
		d.Shapes = append(d.Shapes, exchange.Shape{Path: s.Path.Transform(back)})
	}
	return d.Bounds()
}

// clipPart is what a child of a clip path, or what it refers to, leaves; empty for none. own
// is the style of the clip path and m its map to millimetres.
func (r *reader) clipPart(k *node, own style, m geom.Affine) (geom.Path, error) {
	props, err := r.sheet.of(k)
	if err != nil {
		return geom.Path{}, err
	}
	st := own.with(props, r.d)
	if st.gone || st.unseen {
		return geom.Path{}, nil
	}
	of, at := k, geom.Identity
	if k.name == "use" {
		of = r.ids[strings.TrimPrefix(k.attr["href"], "#")]
		at = geom.Shift(r.length(k, "x", 0), r.length(k, "y", 0))
	}
	if of == nil {
		return geom.Path{}, nil
	}
	p, ok, err := r.shape(of)
	if err != nil || !ok || p.Empty() {
		return geom.Path{}, err
	}
	for _, el := range []*node{k, of} {
		t, err := parseTransform(el.attr["transform"])
		if err != nil {
			return geom.Path{}, refuse("The transform of a %s cannot be read: %v.", el.name, err)
		}
		if el == k {
			at = at.Then(t)
		} else if of != k {
			at = t.Then(at)
		}
	}
	if err := r.budget.Spend(8 * p.Len()); err != nil {
		return geom.Path{}, err
	}
	rule := geom.NonZero
	if st.extra["clip-rule"] == "evenodd" || own.extra["clip-rule"] == "evenodd" && st.extra["clip-rule"] == "" {
		rule = geom.EvenOdd
	}
	return geom.Union(rule, p.Transform(at.Then(m))), nil
}

// clipRegion is what a clip path leaves, in millimetres.
func (r *reader) clipRegion(n *node, c around, from, depth int) (geom.Path, error) {
	props, err := r.sheet.of(n)
	if err != nil {
		return geom.Path{}, err
	}
	own := initial().with(props, r.d)
	m, err := parseTransform(own.transform)
	if err != nil {
		return geom.Path{}, refuse("The transform of a clip path cannot be read: %v.", err)
	}
	if n.attr["clipPathUnits"] == "objectBoundingBox" {
		b := r.box(c, from)
		m = m.Then(geom.Scale(b.W, b.H)).Then(geom.Shift(b.X, b.Y))
	}
	m = m.Then(c.at)
	var parts []geom.Path
	for _, k := range n.kids {
		p, err := r.clipPart(k, own, m)
		if err != nil {
			return geom.Path{}, err
		}
		if !p.Empty() {
			parts = append(parts, p)
		}
	}
	out := geom.Union(geom.NonZero, parts...)
	if next := r.referred(own.extra["clip-path"]); next != nil && next.name == "clipPath" && depth < 8 {
		more, err := r.clipRegion(next, c, from, depth+1)
		if err != nil {
			return geom.Path{}, err
		}
		out = geom.Intersection(geom.NonZero, out, more)
	}
	return out, nil
}

// clip leaves of the shapes from a number on what a clip path does.
func (r *reader) clip(ref string, c around, from int) error {
	n := r.referred(ref)
	if n == nil || n.name != "clipPath" {
		r.d.Note("A clip path was not applied; what it would cut off is there as it is drawn.")
		return nil
	}
	region, err := r.clipRegion(n, c, from, 0)
	if err != nil {
		return err
	}
	drawn := append([]exchange.Shape(nil), r.d.Shapes[from:]...)
	r.d.Shapes = r.d.Shapes[:from]
	for _, s := range drawn {
		if err := r.budget.Spend(8 * (region.Len() + s.Path.Len())); err != nil {
			return err
		}
		r.d.Shapes = append(r.d.Shapes, within(s, region)...)
	}
	return nil
}

// fineLine is how wide, in mm, a line is at most that goes on being a line where a clip path
// cuts it off; of a wider one the clip cuts its edges.
const fineLine = .3

// What of a line is worked out as an outline: longer ones, and those that cross themselves
// more often, stay lines.
const (
	mostOutlined = 3000
	mostCrossed  = 20_000
)

// outlined reports whether the stroke of a shape, if it has one, can be worked out.
func outlined(s exchange.Shape) bool {
	return s.Stroke == "" || s.Path.Len() <= mostOutlined && !geom.Tangled(mostCrossed, s.Path)
}

// within is what lies of a shape in a region.
func within(s exchange.Shape, region geom.Path) []exchange.Shape {
	var out []exchange.Shape
	fill, line := s, s
	fill.Stroke, line.Fill, line.Gradient = "", "", nil
	if s.Fill != "" {
		fill.Path, fill.Rule = geom.Intersection(geom.NonZero, geom.Union(s.Rule, s.Path), region), geom.NonZero
		out = append(out, fill)
	}
	if s.Stroke != "" {
		if s.Role != "" || s.Width <= fineLine || !outlined(s) {
			line.Path, _ = geom.CutStrokes(s.Path, geom.NonZero, region)
		} else if edge := s.Outline(); geom.Contains(geom.NonZero, region, edge) {
			line.Path = s.Path
		} else {
			line = inked(s, exchange.Part{Region: geom.Intersection(geom.NonZero, edge, region), Colour: s.Stroke, Faint: s.Line.Faint})
		}
		out = append(out, line)
	}
	if len(out) == 2 && s.LineFirst {
		out[0], out[1] = out[1], out[0]
	}
	kept := out[:0]
	for _, k := range out {
		if !k.Path.Empty() {
			kept = append(kept, k)
		}
	}
	return kept
}

// inked is a part of a shape as a filled one.
func inked(s exchange.Shape, p exchange.Part) exchange.Shape {
	return exchange.Shape{Name: s.Name, Layer: s.Layer, Role: s.Role, Path: p.Region, Fill: p.Colour, Faint: p.Faint, Gradient: p.Gradient}
}

// mostMasked bounds the parts of a mask: they are divided along all their outlines.
const mostMasked = 100

// mask weakens the shapes from a number on by what a mask shows: by its light, or by how
// much of it is there.
func (r *reader) mask(ref string, c around, from int) error {
	n := r.referred(ref)
	if n == nil || n.name != "mask" {
		r.d.Note("A mask was not applied; what it would hide is there as it is drawn.")
		return nil
	}
	if r.uses++; r.uses > maxUses {
		return refuse("Masks in the SVG are nested more than %d deep, or hold themselves.", maxUses)
	}
	defer func() { r.uses-- }()
	props, err := r.sheet.of(n)
	if err != nil {
		return err
	}
	b := r.box(c, from)
	inside := around{at: c.at, style: initial().with(props, r.d)}
	byAlpha := inside.style.extra["mask-type"] == "alpha"
	if n.attr["maskContentUnits"] == "objectBoundingBox" {
		inside.at = geom.Scale(b.W, b.H).Then(geom.Shift(b.X, b.Y)).Then(c.at)
	}
	drawn := r.takeFrom(from)
	if err := r.children(n, inside); err != nil {
		return err
	}
	parts, simple := simpleParts(r.takeFrom(from))
	if !simple || slices.ContainsFunc(drawn, func(s exchange.Shape) bool { return !outlined(s) }) {
		r.d.Note("A mask that is too intricate was not applied; what it would hide is there as it is drawn.")
		r.d.Shapes = append(r.d.Shapes, drawn...)
		return nil
	}
	levels, err := r.levels(parts, r.maskArea(n, c, b), byAlpha)
	if err != nil {
		return err
	}
	r.d.Shapes = append(r.d.Shapes, drawn...)
	if err := r.weaken(1, from); err != nil { // what lies on each other is weakened as one
		return err
	}
	for _, s := range r.takeFrom(from) {
		for _, p := range s.Parts() {
			if err := r.show(s, p, levels); err != nil {
				return err
			}
		}
	}
	return nil
}

// takeFrom takes the shapes from a number on out of the drawing.
func (r *reader) takeFrom(from int) []exchange.Shape {
	out := slices.Clone(r.d.Shapes[from:])
	r.d.Shapes = r.d.Shapes[:from]
	return out
}

// simpleParts are the parts of the shapes of a mask; ok is false for a mask that is too
// intricate.
func simpleParts(shapes []exchange.Shape) (parts []exchange.Part, ok bool) {
	for _, s := range shapes {
		if !outlined(s) {
			return nil, false
		}
		if parts = append(parts, s.Parts()...); len(parts) > mostMasked {
			return nil, false
		}
	}
	return parts, true
}

// level is where a mask shows a share of what it masks, in 510ths.
type level struct {
	share  int
	region geom.Path
}

// levels divide the area of a mask by how much its parts, from below, show there.
func (r *reader) levels(parts []exchange.Part, area geom.Path, byAlpha bool) ([]level, error) {
	regions := make([]geom.Path, len(parts))
	for i, p := range parts {
		if p.Gradient != nil {
			r.d.Note("A gradient in a mask was taken as one colour.")
		}
		regions[i] = geom.Intersection(geom.NonZero, p.Region, area)
		if err := r.budget.Spend(16 * (p.Region.Len() + area.Len())); err != nil {
			return nil, err
		}
	}
	// What is shown alike is one region.
	shown := map[int][]geom.Path{}
	var order []int
	for _, d := range geom.Divide(geom.NonZero, regions...) {
		v := 0.0
		for _, i := range d.Cover {
			a, light := 1-parts[i].Faint, 1.0
			if !byAlpha {
				light = luminance(parts[i].Colour)
			}
			v += (light - v) * a
		}
		k := int(math.Round(v * 510))
		if k == 0 {
			continue
		}
		if shown[k] == nil {
			order = append(order, k)
		}
		shown[k] = append(shown[k], d.Path)
	}
	out := make([]level, len(order))
	for i, k := range order {
		out[i] = level{k, geom.Union(geom.NonZero, shown[k]...)}
	}
	return out, nil
}

// show adds what the levels of a mask show of a part of a shape.
func (r *reader) show(s exchange.Shape, p exchange.Part, levels []level) error {
	for _, l := range levels {
		if err := r.budget.Spend(8 * (l.region.Len() + p.Region.Len())); err != nil {
			return err
		}
		if left := geom.Intersection(geom.NonZero, p.Region, l.region); !left.Empty() {
			r.d.Shapes = append(r.d.Shapes, inked(s, exchange.Part{Region: left, Colour: p.Colour, Faint: 1 - (1-p.Faint)*float64(l.share)/510, Gradient: p.Gradient}))
		}
	}
	return nil
}

// maskArea is where a mask shows anything, in millimetres.
func (r *reader) maskArea(n *node, c around, b geom.Rect) geom.Path {
	whole := n.attr["maskUnits"] == "userSpaceOnUse"
	at := func(name, def string) float64 {
		return r.inBox(cmp.Or(n.attr[name], def), name, !whole)
	}
	area := geom.Rect{X: at("x", "-10%"), Y: at("y", "-10%"), W: at("width", "120%"), H: at("height", "120%")}
	if !whole {
		area = geom.Rect{X: b.X + area.X*b.W, Y: b.Y + area.Y*b.H, W: area.W * b.W, H: area.H * b.H}
	}
	return geom.RectPath(area).Transform(c.at)
}

// luminance is how light a colour is, 0 to 1, with the weights that SVG masks have.
func luminance(colour string) float64 {
	c := rgb(colour)
	return (.2125*c[0] + .7154*c[1] + .0721*c[2]) / 255
}

// mostFlattened bounds the parts of a group that are taken apart where they lie on each
// other.
const mostFlattened = 400

// weaken makes the shapes from a number on be seen through, as the group that they are: of
// what lies on each other in it only the uppermost is seen.
func (r *reader) weaken(k float64, from int) error {
	drawn := r.d.Shapes[from:]
	overlap, simple := false, true
	boxes := make([]geom.Rect, 0, len(drawn))
	for _, s := range drawn {
		overlap = overlap || s.Fill != "" && s.Stroke != ""
		simple = simple && outlined(s)
		b := s.Path.Bounds().Grow(s.Width / 2)
		for i := 0; i < len(boxes) && !overlap && len(drawn) <= mostFlattened; i++ {
			overlap = boxes[i].Overlaps(b)
		}
		boxes = append(boxes, b)
	}
	if !overlap || !simple || len(drawn) > mostFlattened {
		for i := range drawn {
			s := &drawn[i]
			s.Faint, s.Line.Faint = 1-(1-s.Faint)*k, 1-(1-s.Line.Faint)*k
		}
		return nil
	}
	var parts []exchange.Part
	var of []exchange.Shape
	through := false // some of what lies on others is seen through
	for _, s := range drawn {
		for _, p := range s.Parts() {
			parts, of = append(parts, p), append(of, s)
			through = through || p.Faint >= 1/512.
			if err := r.budget.Spend(8 * (s.Path.Len() + p.Region.Len())); err != nil {
				return err
			}
		}
	}
	var out []exchange.Shape
	var err error
	if through && len(parts) <= mostMasked {
		out, err = r.blended(parts, of)
	} else {
		out, err = r.uppermost(parts, of)
	}
	if err != nil {
		return err
	}
	for i := range out {
		out[i].Faint = 1 - (1-out[i].Faint)*k
	}
	r.d.Shapes = append(r.d.Shapes[:from], out...)
	return nil
}

// uppermost is what is seen of parts that cover each other; of holds the shape of each.
func (r *reader) uppermost(parts []exchange.Part, of []exchange.Shape) ([]exchange.Shape, error) {
	var out []exchange.Shape
	var covered geom.Path
	for i := len(parts) - 1; i >= 0; i-- {
		p := parts[i]
		if err := r.budget.Spend(8 * (covered.Len() + p.Region.Len())); err != nil {
			return nil, err
		}
		seen := geom.Difference(geom.NonZero, p.Region, covered)
		if p.Faint < 1/512. && p.Gradient == nil {
			covered = geom.Union(geom.NonZero, covered, p.Region)
		}
		if !seen.Empty() {
			p.Region = seen
			out = append(out, inked(of[i], p))
		}
	}
	slices.Reverse(out)
	return out, nil
}

// blended is what parts that are seen through give together: where several lie on each
// other, their mixed colour. Gradients are mixed as their mean.
func (r *reader) blended(parts []exchange.Part, of []exchange.Shape) ([]exchange.Shape, error) {
	regions := make([]geom.Path, len(parts))
	n := 0
	for i, p := range parts {
		regions[i] = p.Region
		n += p.Region.Len()
	}
	if err := r.budget.Spend(16 * n); err != nil {
		return nil, err
	}
	var out []exchange.Shape
	for _, d := range geom.Divide(geom.NonZero, regions...) {
		top := d.Cover[len(d.Cover)-1]
		p := exchange.Part{Region: d.Path, Colour: parts[top].Colour, Faint: parts[top].Faint, Gradient: parts[top].Gradient}
		if len(d.Cover) > 1 {
			p.Gradient = nil
			p.Colour, p.Faint = blend(parts, d.Cover)
		}
		out = append(out, inked(of[top], p))
	}
	return out, nil
}

// blend is the colour of parts that lie on each other, from below, and how much of what is
// under all of them is seen. (Porter and Duff, "Compositing digital images", 1984: over.)
func blend(parts []exchange.Part, cover []int) (colour string, faint float64) {
	var sum [3]float64 // premultiplied
	there := 0.0
	for _, i := range cover {
		a := 1 - parts[i].Faint
		for k, v := range rgb(parts[i].Colour) {
			sum[k] = sum[k]*(1-a) + v*a
		}
		there = there*(1-a) + a
	}
	if there == 0 {
		return "#000000", 1
	}
	return fmt.Sprintf("#%02x%02x%02x", int(sum[0]/there+.5), int(sum[1]/there+.5), int(sum[2]/there+.5)), 1 - there
}

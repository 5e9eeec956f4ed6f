package svg

import (
	"encoding/base64"
	"fmt"
	"math"
	"net/url"
	"strings"

	"sectilis/core/card"
	"sectilis/core/drawing"
	"sectilis/core/geom"
)

// Error is why an SVG is not read, in words for the person.
type Error struct{ Why string }

func (e *Error) Error() string { return e.Why }

func refuse(format string, args ...any) error { return &Error{fmt.Sprintf(format, args...)} }

// Bounds on what one file may unfold to.
const (
	maxElements = 200_000
	maxDepth    = 120
	maxUses     = 16
)

// perUnit is the length of a user unit where a file says nothing else: a CSS
// pixel, of which there are 96 to the inch.
const perUnit = 25.4 / 96

// Read reads an SVG into true millimetres. Text, filters and whatever else has
// no outline is listed in the drawing's notes. Files with scripts, with
// references to other files or with entities of their own are refused.
func Read(raw []byte) (drawing.Drawing, error) {
	var d drawing.Drawing
	if len(raw) > drawing.MaxBytes {
		return d, refuse("The SVG is larger than %d MB.", drawing.MaxBytes>>20)
	}
	root, css, err := parse(raw)
	if err != nil {
		return d, err
	}
	r := reader{d: &d, ids: map[string]*node{}}
	if err := r.index(root, 0); err != nil {
		return d, err
	}
	if r.sheet, err = parseCSS(css, &d); err != nil {
		return d, err
	}
	at, w, h := r.viewport(root)
	d.Width, d.Height = w, h
	if err := r.children(root, context{at: at, style: initial().with(r.sheet.of(root), &d)}); err != nil {
		return d, err
	}
	if w == 0 || h == 0 {
		b := d.Bounds()
		d.Transform(geom.Shift(-b.X, -b.Y))
		d.Width, d.Height = b.W, b.H
	}
	return d, nil
}

// reader turns elements into shapes.
type reader struct {
	d     *drawing.Drawing
	ids   map[string]*node
	sheet stylesheet
	made  int
	uses  int
}

func (r *reader) index(n *node, depth int) error {
	if id := n.attr["id"]; id != "" && r.ids[id] == nil {
		r.ids[id] = n
	}
	for _, k := range n.kids {
		if err := r.index(k, depth+1); err != nil {
			return err
		}
	}
	return nil
}

// context is what an element takes from those around it.
type context struct {
	at    geom.Affine // to millimetres
	style style
	layer string
}

func (r *reader) children(n *node, c context) error {
	for _, k := range n.kids {
		if err := r.element(k, c); err != nil {
			return err
		}
	}
	return nil
}

// silent are elements that draw nothing where they stand.
var silent = map[string]bool{
	"defs": true, "symbol": true, "style": true, "title": true, "desc": true, "metadata": true, "clipPath": true, "mask": true,
	"linearGradient": true, "radialGradient": true, "pattern": true, "marker": true, "filter": true, "view": true, "namedview": true,
}

func (r *reader) element(n *node, c context) error {
	if silent[n.name] {
		return nil
	}
	if r.made++; r.made > maxElements {
		return refuse("The SVG unfolds to more than %d elements.", maxElements)
	}
	c.style = c.style.with(r.sheet.of(n), r.d)
	if c.style.hidden {
		return nil
	}
	m, err := parseTransform(n.attr["transform"])
	if err != nil {
		return refuse("The transform of a %s cannot be read: %v.", n.name, err)
	}
	c.at = m.Then(c.at)
	for _, a := range []string{"clip-path", "mask", "filter"} {
		if v := c.style.extra[a]; v != "" && v != "none" {
			r.d.Note("A %s was not applied; what it would cut off or change is there as it is drawn.", strings.ReplaceAll(a, "-", " "))
		}
	}
	switch n.name {
	case "g", "a":
		if id := n.attr["id"]; id != "" {
			c.layer = id
		}
		return r.children(n, c)
	case "switch":
		if len(n.kids) > 0 {
			return r.element(n.kids[0], c)
		}
	case "svg":
		at, _, _ := r.viewport(n)
		c.at = at.Then(geom.Shift(r.length(n, "x", 0), r.length(n, "y", 0))).Then(c.at)
		return r.children(n, c)
	case "use":
		return r.use(n, c)
	case "image":
		return r.image(n, c)
	case "text":
		text := strings.Join(strings.Fields(allText(n)), " ")
		if len([]rune(text)) > 40 {
			text = string([]rune(text)[:40]) + "…"
		}
		r.d.Note("The text “%s” was left out: set it here as lettering, or turn it into outlines before.", text)
	default:
		p, ok, err := r.shape(n)
		if err != nil {
			return err
		}
		if !ok {
			r.d.Note("A %s was left out.", n.name)
			return nil
		}
		return r.add(n, p, c)
	}
	return nil
}

func allText(n *node) string {
	out := n.text
	for _, k := range n.kids {
		out += " " + allText(k)
	}
	return out
}

// shape is the outline of a basic shape or path, in user units.
func (r *reader) shape(n *node) (geom.Path, bool, error) {
	l := func(name string) float64 { return r.length(n, name, 0) }
	var b geom.Builder
	switch n.name {
	case "path":
		p, err := geom.ParsePath(n.attr["d"])
		if err != nil {
			return p, false, refuse("A path cannot be read: %v.", err)
		}
		return p, true, nil
	case "rect":
		box := geom.Rect{X: l("x"), Y: l("y"), W: l("width"), H: l("height")}
		if box.W <= 0 || box.H <= 0 {
			return geom.Path{}, true, nil
		}
		rx, ry := r.length(n, "rx", -1), r.length(n, "ry", -1)
		if rx < 0 {
			rx = ry
		}
		if ry < 0 {
			ry = rx
		}
		if rx <= 0 || ry <= 0 {
			return geom.RectPath(box), true, nil
		}
		// A rounded rectangle with circles for corners, stretched.
		rx, ry = min(rx, box.W/2), min(ry, box.H/2)
		k := rx / ry
		return geom.RoundRectPath(geom.Rect{X: box.X, Y: box.Y * k, W: box.W, H: box.H * k}, rx).Transform(geom.Scale(1, 1/k)), true, nil
	case "circle", "ellipse":
		rx, ry := l("r"), l("r")
		if n.name == "ellipse" {
			rx, ry = l("rx"), l("ry")
		}
		if rx <= 0 || ry <= 0 {
			return geom.Path{}, true, nil
		}
		return geom.EllipsePath(geom.Rect{X: l("cx") - rx, Y: l("cy") - ry, W: 2 * rx, H: 2 * ry}), true, nil
	case "line":
		return b.Move(geom.Pt(l("x1"), l("y1"))).Line(geom.Pt(l("x2"), l("y2"))).Path(), true, nil
	case "polyline", "polygon":
		v, err := numbers(n.attr["points"])
		if err != nil {
			return geom.Path{}, false, refuse("The points of a %s cannot be read: %v.", n.name, err)
		}
		for i := 0; i+1 < len(v); i += 2 {
			if i == 0 {
				b.Move(geom.Pt(v[0], v[1]))
			} else {
				b.Line(geom.Pt(v[i], v[i+1]))
			}
		}
		if n.name == "polygon" && len(v) > 2 {
			b.Close()
		}
		return b.Path(), true, nil
	}
	return geom.Path{}, false, nil
}

func (r *reader) add(n *node, p geom.Path, c context) error {
	if p.Len() < 2 {
		return nil
	}
	p = p.Transform(c.at)
	box := p.Bounds()
	if !(math.Abs(box.X) <= drawing.MaxPlace && math.Abs(box.Y) <= drawing.MaxPlace && box.W <= drawing.MaxPlace && box.H <= drawing.MaxPlace) {
		return refuse("Something in the SVG lies more than %d m away.", drawing.MaxPlace/1000)
	}
	s := drawing.Shape{Name: strings.TrimSpace(title(n)), Layer: c.layer, Role: drawing.RoleOf(c.layer), Path: p, Rule: c.style.rule}
	if s.Name == "" {
		s.Name = n.attr["id"]
	}
	s.Fill = r.paint(c.style.fill, c.style)
	if s.Stroke = r.paint(c.style.stroke, c.style); s.Stroke != "" {
		s.Width = c.style.width * math.Sqrt(math.Abs(c.at.Det()))
		if s.Width <= 0 {
			s.Stroke = ""
		}
	}
	if s.Fill == "" && s.Stroke == "" {
		return nil
	}
	if len(r.d.Shapes) >= drawing.MaxShapes {
		return refuse("The SVG has more than %d shapes.", drawing.MaxShapes)
	}
	if c.style.faint {
		r.d.Note("What is see-through was taken as solid.")
	}
	if len(c.style.dashes) > 0 && s.Stroke != "" && s.Role == card.Role("") {
		r.d.Note("Dashed lines were taken as whole ones.")
	}
	r.d.Shapes = append(r.d.Shapes, s)
	return nil
}

func title(n *node) string {
	for _, k := range n.kids {
		if k.name == "title" {
			return k.text
		}
	}
	return ""
}

func (r *reader) use(n *node, c context) error {
	of := r.ids[strings.TrimPrefix(n.attr["href"], "#")]
	if of == nil {
		r.d.Note("A copy of “%s” was left out: there is no such thing in the file.", n.attr["href"])
		return nil
	}
	if r.uses++; r.uses > maxUses {
		return refuse("Copies in the SVG are nested more than %d deep, or hold themselves.", maxUses)
	}
	defer func() { r.uses-- }()
	c.at = geom.Shift(r.length(n, "x", 0), r.length(n, "y", 0)).Then(c.at)
	if of.name != "symbol" {
		return r.element(of, c)
	}
	inner := *of
	inner.attr = map[string]string{}
	for k, v := range of.attr {
		inner.attr[k] = v
	}
	for _, k := range []string{"width", "height"} {
		if n.attr[k] != "" {
			inner.attr[k] = n.attr[k]
		}
	}
	if inner.attr["viewBox"] != "" && inner.attr["width"] != "" {
		at, _, _ := r.viewport(&inner)
		c.at = at.Then(c.at)
	}
	c.style = c.style.with(r.sheet.of(of), r.d)
	return r.children(of, c)
}

func (r *reader) image(n *node, c context) error {
	head, data, ok := strings.Cut(n.attr["href"], ",")
	if !ok {
		return nil
	}
	var raw []byte
	var err error
	if strings.HasSuffix(head, ";base64") {
		raw, err = base64.StdEncoding.DecodeString(strings.Map(func(c rune) rune {
			if c == ' ' || c == '\n' || c == '\r' || c == '\t' {
				return -1
			}
			return c
		}, data))
	} else {
		var text string
		text, err = url.PathUnescape(data)
		raw = []byte(text)
	}
	w, h := r.length(n, "width", 0), r.length(n, "height", 0)
	if err != nil || len(raw) == 0 || w <= 0 || h <= 0 {
		r.d.Note("An embedded picture cannot be read and was left out.")
		return nil
	}
	r.d.Pictures = append(r.d.Pictures, drawing.Picture{
		Name: n.attr["id"], Raw: raw,
		At: geom.Scale(w, h).Then(geom.Shift(r.length(n, "x", 0), r.length(n, "y", 0))).Then(c.at),
	})
	return nil
}

// viewport maps the inside of an svg element to what is around it, the
// outermost to millimetres, whose size is returned if the file says it.
func (r *reader) viewport(n *node) (at geom.Affine, width, height float64) {
	outermost := r.made == 0
	unit := 1.0
	if outermost {
		unit = perUnit
	}
	w, h := r.length(n, "width", 0), r.length(n, "height", 0)
	v, err := numbers(n.attr["viewBox"])
	if err != nil || len(v) != 4 || v[2] <= 0 || v[3] <= 0 {
		return geom.Scale(unit, unit), w * unit, h * unit
	}
	if w <= 0 && h <= 0 {
		if outermost {
			r.d.Note("The drawing does not say how large it is; 96 of its units were taken for an inch.")
		}
		w, h = v[2], v[3]
	} else if w <= 0 {
		w = h * v[2] / v[3]
	} else if h <= 0 {
		h = w * v[3] / v[2]
	}
	sx, sy := w/v[2], h/v[3]
	dx, dy := 0.0, 0.0
	if fit := n.attr["preserveAspectRatio"]; !strings.HasPrefix(strings.TrimSpace(fit), "none") {
		s := min(sx, sy)
		if strings.Contains(fit, "slice") {
			s = max(sx, sy)
		}
		align := func(low, high string, room float64) float64 {
			switch {
			case strings.Contains(fit, low):
				return 0
			case strings.Contains(fit, high):
				return room
			}
			return room / 2
		}
		dx, dy = align("xMin", "xMax", w-v[2]*s), align("YMin", "YMax", h-v[3]*s)
		sx, sy = s, s
	}
	return geom.Shift(-v[0], -v[1]).Then(geom.Scale(sx, sy)).Then(geom.Shift(dx, dy)).Then(geom.Scale(unit, unit)), w * unit, h * unit
}

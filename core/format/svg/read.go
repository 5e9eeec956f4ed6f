package svg

import (
	"context"
	"encoding/base64"
	"errors"
	"fmt"
	"math"
	"net/url"
	"slices"
	"strings"

	"sectilis/core/document/exchange"
	"sectilis/core/ground/geom"
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

// Read reads an SVG into true millimetres. Text, filters and whatever else has no outline,
// scripts and what would be fetched from elsewhere is left out and listed in the drawing's
// notes. Files with entities of their own, and those that would cost more than
// exchange.MaxWork to read, are refused with an *Error; an error of ctx is passed on.
//
// Words are set in the faces that are at hand; faces may be nil.
func Read(ctx context.Context, raw []byte, faces Faces) (exchange.Drawing, error) {
	var d exchange.Drawing
	if len(raw) > exchange.MaxBytes {
		return d, refuse("The SVG is larger than %d MB.", exchange.MaxBytes>>20)
	}
	root, css, err := elements(raw, &d)
	if err != nil {
		return d, err
	}
	r := reader{d: &d, faces: faces, ids: map[string]*node{}, paths: map[*node]geom.Path{}, budget: exchange.NewBudget(ctx)}
	r.index(root)
	if r.sheet, err = parseCSS(css, &d, r.budget); err != nil {
		return d, asError(err)
	}
	at, w, h := r.viewport(root)
	d.Width, d.Height = w, h
	props, err := r.sheet.of(root)
	if err == nil {
		err = r.children(root, around{at: at, style: initial().with(props, &d)})
	}
	if err != nil {
		return d, asError(err)
	}
	if w == 0 || h == 0 {
		b := d.Bounds()
		d.Transform(geom.Shift(-b.X, -b.Y))
		d.Width, d.Height = b.W, b.H
	}
	return d, nil
}

// asError is the sentence for a file that costs too much, or the error itself.
func asError(err error) error {
	if errors.Is(err, exchange.ErrWork) {
		return refuse("The SVG cannot be read: %v.", err)
	}
	return err
}

// reader turns elements into shapes.
type reader struct {
	d      *exchange.Drawing
	ids    map[string]*node
	paths  map[*node]geom.Path // that were read, since a path may be used many times
	sheet  *stylesheet
	faces  Faces
	budget *exchange.Budget
	view   view
	made   int
	uses   int
}

func (r *reader) index(n *node) {
	if id := n.attr["id"]; id != "" && r.ids[id] == nil {
		r.ids[id] = n
	}
	for _, k := range n.kids {
		r.index(k)
	}
}

// around is what an element takes from those around it.
type around struct {
	at    geom.Affine // to millimetres
	style style
	layer string
	// named says that the layer has a name that a person gave it.
	named bool
}

func (r *reader) children(n *node, c around) error {
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

func (r *reader) element(n *node, c around) error {
	if silent[n.name] {
		return nil
	}
	if r.made++; r.made > maxElements {
		return refuse("The SVG unfolds to more than %d elements.", maxElements)
	}
	props, err := r.sheet.of(n)
	if err != nil {
		return err
	}
	c.style = c.style.with(props, r.d)
	if c.style.gone || c.style.opacity == 0 {
		return nil
	}
	if c.at, err = r.placed(n, c); err != nil {
		return err
	}
	shapes, pictures := len(r.d.Shapes), len(r.d.Pictures)
	if err := r.body(n, c); err != nil {
		return err
	}
	return r.finish(c, shapes, pictures)
}

// body adds what an element and those in it draw.
func (r *reader) body(n *node, c around) error {
	switch n.name {
	case "g", "a":
		// The name that a person gave counts, then the id where no name is around.
		switch id := n.attr["id"]; {
		case n.label != "":
			c.layer, c.named = n.label, true
		case id != "" && !c.named:
			c.layer = id
		}
		return r.children(n, c)
	case "switch":
		for _, k := range n.kids {
			if k.holds() {
				return r.element(k, c)
			}
		}
	case "svg":
		was := r.view
		defer func() { r.view = was }()
		x, y := r.length(n, "x", 0), r.length(n, "y", 0)
		at, _, _ := r.viewport(n)
		c.at = at.Then(geom.Shift(x, y)).Then(c.at)
		return r.children(n, c)
	case "use":
		return r.use(n, c)
	case "image":
		return r.image(n, c)
	case "text":
		return r.text(n, c)
	default:
		p, ok, err := r.shape(n)
		if err != nil {
			return err
		}
		if !ok {
			r.d.Note("A %s was left out.", n.name)
			return nil
		}
		if c.style.unseen {
			return nil
		}
		return r.add(n, p, c)
	}
	return nil
}

// holds reports whether the conditions of an element in a switch are met: it needs no
// extension, and is for those who read English or for all.
func (n *node) holds() bool {
	if v, ok := n.attr["requiredExtensions"]; ok && strings.TrimSpace(v) != "" || silent[n.name] || n.name == "foreignObject" {
		return false
	}
	languages, ok := n.attr["systemLanguage"]
	if !ok {
		return true
	}
	return slices.ContainsFunc(strings.Split(languages, ","), func(l string) bool {
		return strings.HasPrefix(strings.ToLower(strings.TrimSpace(l)), "en")
	})
}

// placed is where an element is put by its transform, about its origin.
func (r *reader) placed(n *node, c around) (geom.Affine, error) {
	m, err := parseTransform(c.style.transform)
	if err != nil {
		return m, refuse("The transform of a %s cannot be read: %v.", n.name, err)
	}
	if o := strings.Fields(c.style.origin); len(o) > 0 && m != geom.Identity {
		at := func(i int, name string) float64 {
			text := "0"
			if i < len(o) {
				text = o[i]
			}
			switch text {
			case "center":
				text = "50%"
			case "right", "bottom":
				text = "100%"
			case "left", "top":
				text = "0"
			}
			return r.length(&node{attr: map[string]string{name: text}}, name, 0)
		}
		x, y := at(0, "x"), at(1, "y")
		m = geom.Shift(-x, -y).Then(m).Then(geom.Shift(x, y))
	}
	return m.Then(c.at), nil
}

// allText is the text of an element and of those in it, as much as a note needs.
func allText(n *node) string {
	var b strings.Builder
	var add func(n *node)
	add = func(n *node) {
		if n.name != "text" && n.name != "tspan" { // their words are stretches of their own
			b.WriteString(n.text + " ")
		}
		for _, k := range n.kids {
			if b.Len() < maxText {
				add(k)
			}
		}
	}
	add(n)
	return b.String()
}

// shape is the outline of a basic shape or path, in user units.
func (r *reader) shape(n *node) (geom.Path, bool, error) {
	l := func(name string) float64 { return r.length(n, name, 0) }
	var b geom.Builder
	switch n.name {
	case "path":
		p, ok := r.paths[n]
		if !ok {
			var err error
			if p, err = geom.ParsePath(n.attr["d"]); err != nil {
				return p, false, refuse("A path cannot be read: %v.", err)
			}
			r.paths[n] = p
		}
		return p, true, nil
	case "rect":
		return r.rect(n), true, nil
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

// rect is the outline of a rectangle, with its round corners.
func (r *reader) rect(n *node) geom.Path {
	box := geom.Rect{X: r.length(n, "x", 0), Y: r.length(n, "y", 0), W: r.length(n, "width", 0), H: r.length(n, "height", 0)}
	if box.W <= 0 || box.H <= 0 {
		return geom.Path{}
	}
	rx, ry := r.length(n, "rx", -1), r.length(n, "ry", -1)
	if rx < 0 {
		rx = ry
	}
	if ry < 0 {
		ry = rx
	}
	if rx <= 0 || ry <= 0 {
		return geom.RectPath(box)
	}
	// A rounded rectangle with circles for corners, stretched.
	rx, ry = min(rx, box.W/2), min(ry, box.H/2)
	k := rx / ry
	return geom.RoundRectPath(geom.Rect{X: box.X, Y: box.Y * k, W: box.W, H: box.H * k}, rx).Transform(geom.Scale(1, 1/k))
}

func (r *reader) add(n *node, p geom.Path, c around) error {
	if p.Len() < 2 {
		return nil
	}
	if err := r.budget.Spend(p.Len()); err != nil {
		return err
	}
	inUnits := p.Bounds()
	p = p.Transform(c.at)
	box := p.Bounds()
	if !(math.Abs(box.X) <= exchange.MaxPlace && math.Abs(box.Y) <= exchange.MaxPlace && box.W <= exchange.MaxPlace && box.H <= exchange.MaxPlace) {
		return refuse("Something in the SVG lies more than %d m away.", exchange.MaxPlace/1000)
	}
	s := exchange.Shape{Name: strings.TrimSpace(title(n)), Layer: c.layer, Role: exchange.RoleOf(c.layer), Path: p, Rule: c.style.rule}
	if s.Name == "" {
		s.Name = n.attr["id"]
	}
	var alpha float64
	if s.Gradient = r.gradient(c.style.fill, inUnits, c.at); s.Gradient != nil {
		s.Fill, _ = mean(s.Gradient.Stops)
		alpha = 1 // the stops have their own
	} else {
		s.Fill, alpha = r.paint(c.style.fill, c.style)
	}
	if alpha *= c.style.fillOpacity; alpha < 1/512. || min(box.W, box.H) < 1e-9 {
		s.Fill, s.Gradient = "", nil
	} else {
		s.Faint = 1 - alpha
	}
	r.stroke(&s, c)
	if s.Fill == "" && s.Stroke == "" {
		return nil
	}
	// A line that goes nowhere is a dot where its ends are round.
	if s.Stroke != "" && s.Line.Cap == geom.RoundCap && max(box.W, box.H) < s.Width/2 {
		s.Path, s.Rule, s.Fill, s.Faint, s.Stroke = s.Outline(), geom.NonZero, s.Stroke, s.Line.Faint, ""
	}
	if len(r.d.Shapes) >= exchange.MaxShapes {
		return refuse("The SVG has more than %d shapes.", exchange.MaxShapes)
	}
	r.d.Shapes = append(r.d.Shapes, s)
	return nil
}

// stroke gives a shape the line that its style has.
func (r *reader) stroke(s *exchange.Shape, c around) {
	var alpha float64
	if s.Stroke, alpha = r.paint(c.style.stroke, c.style); s.Stroke == "" {
		return
	}
	scale := math.Sqrt(math.Abs(c.at.Det()))
	s.Line, s.LineFirst = c.style.line, c.style.lineFirst
	if c.style.fixed {
		scale = perUnit
	} else if pen := (geom.Affine{A: c.at.A / scale, B: c.at.B / scale, C: c.at.C / scale, D: c.at.D / scale}); !conformal(pen) {
		s.Line.Pen = &pen
	}
	s.Width = c.style.width * scale
	s.Line.Offset *= scale
	s.Line.Dashes = nil
	for _, l := range c.style.line.Dashes {
		s.Line.Dashes = append(s.Line.Dashes, l*scale)
	}
	if s.Width > exchange.MaxPlace {
		r.d.Note("A line more than %d m wide was left out.", exchange.MaxPlace/1000)
		s.Stroke = ""
	}
	if alpha *= c.style.strokeOpacity; s.Width <= 0 || alpha < 1/512. {
		s.Stroke = ""
	}
	s.Line.Faint = 1 - alpha
}

// conformal reports whether a map keeps circles round.
func conformal(m geom.Affine) bool {
	size := math.Abs(m.A) + math.Abs(m.B)
	return math.Abs(m.A-m.D)+math.Abs(m.B+m.C) < 1e-6*size || math.Abs(m.A+m.D)+math.Abs(m.B-m.C) < 1e-6*size
}

func title(n *node) string {
	for _, k := range n.kids {
		if k.name == "title" {
			return k.text
		}
	}
	return ""
}

func (r *reader) use(n *node, c around) error {
	of := r.ids[strings.TrimPrefix(n.attr["href"], "#")]
	if of == nil {
		r.d.Note("A copy of “%s” was left out: there is no such thing in the file.", n.attr["href"])
		return nil
	}
	if r.uses++; r.uses > maxUses {
		return refuse("Copies in the SVG are nested more than %d deep, or hold themselves.", maxUses)
	}
	defer func() { r.uses-- }()
	was := r.view
	defer func() { r.view = was }()
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
	props, err := r.sheet.of(of)
	if err != nil {
		return err
	}
	c.style = c.style.with(props, r.d)
	return r.children(of, c)
}

func (r *reader) image(n *node, c around) error {
	head, data, ok := strings.Cut(n.attr["href"], ",")
	if !ok {
		r.d.Note("A picture that is not in the SVG was left out.")
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
	r.d.Pictures = append(r.d.Pictures, exchange.Picture{
		Name: n.attr["id"], Raw: raw,
		At: geom.Scale(w, h).Then(geom.Shift(r.length(n, "x", 0), r.length(n, "y", 0))).Then(c.at),
	})
	return nil
}

const noSize = "The drawing does not say how large it is; 96 of its units were taken for an inch."

// viewport maps the inside of an svg element to what is around it, the
// outermost to millimetres, whose size is returned if the file says it.
func (r *reader) viewport(n *node) (at geom.Affine, width, height float64) {
	outermost := r.made == 0
	unit := 1.0
	if outermost {
		unit = perUnit
	}
	// Of an inner one that does not say how large it is, it is all that there is.
	w, h := r.length(n, "width", r.view.w), r.length(n, "height", r.view.h)
	v, err := numbers(n.attr["viewBox"])
	if err != nil || len(v) != 4 || v[2] <= 0 || v[3] <= 0 {
		if outermost && w <= 0 && h <= 0 {
			r.d.Note(noSize)
		}
		r.view = view{w, h}
		return geom.Scale(unit, unit), w * unit, h * unit
	}
	r.view = view{v[2], v[3]}
	if w <= 0 && h <= 0 {
		if outermost {
			r.d.Note(noSize)
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

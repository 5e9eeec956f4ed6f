package pathops

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"sectilis/core/document/card"
	"sectilis/core/document/exchange"
	"sectilis/core/ground/geom"
)

// Use is what becomes of lines or filled shapes that are brought in: a line
// role, or one of the following.
type Use string

// The uses besides the line roles.
const (
	AsPiece   Use = "piece"   // cut out of a stock of its own
	AsPrinted Use = "printed" // ink
	LeaveOut  Use = "leave"
)

// LineKind is the lines of a drawing that look alike: one layer, one colour.
type LineKind struct {
	Key    string `json:"key"`
	Layer  string `json:"layer"`
	Colour string `json:"colour"`
	Count  int    `json:"count"`
	Closed int    `json:"closed"` // how many are outlines rather than open lines
	Dashes int    `json:"dashes"` // how many lengths of dashes and gaps take turns; 0 for solid lines
	Likely Use    `json:"likely"` // what they probably are for
}

// LineKey is what the lines of a drawing that look alike are known by.
func LineKey(s exchange.Shape) string {
	key := s.Layer + "\x1f" + s.Stroke
	if n := len(s.Line.Dashes); n > 0 {
		key += fmt.Sprintf("\x1f%d dashes", n)
	}
	return key
}

// LineKinds lists the lines of a drawing by how they look, in their order.
func LineKinds(d exchange.Drawing) []LineKind {
	out := []LineKind{}
	for _, s := range d.Shapes {
		if s.Stroke == "" {
			continue
		}
		i := slices.IndexFunc(out, func(k LineKind) bool { return k.Key == LineKey(s) })
		if i < 0 {
			i = len(out)
			out = append(out, LineKind{Key: LineKey(s), Layer: s.Layer, Colour: s.Stroke, Dashes: len(s.Line.Dashes), Likely: Use(s.Role)})
		}
		out[i].Count++
		if s.Path.Closed() {
			out[i].Closed++
		}
	}
	filled := slices.ContainsFunc(d.Shapes, func(s exchange.Shape) bool { return s.Fill != "" })
	for i := range out {
		k := &out[i]
		switch {
		case k.Likely != "":
		case filled:
			k.Likely = AsPrinted // part of a picture
		case k.Closed > 0:
			k.Likely = AsPiece
		default:
			k.Likely = Use(card.RoleCut)
		}
	}
	return out
}

// maxBrought bounds how many items one drawing becomes.
const maxBrought = 300

// maxCrossings bounds what is combined; a second or two for as many.
const maxCrossings = 100_000

// Items makes items of a drawing with its middle at a place. Lines become what uses says by
// their keys, filled shapes what filled says. Filled shapes of one colour that follow each
// other are one item, as they look. It returns a *card.Refusal when nothing is left to lay, or
// more than a face holds.
func Items(d exchange.Drawing, name string, uses map[string]Use, filled Use, middle geom.Point) ([]card.Item, error) {
	b := d.Bounds()
	if !(max(b.W, b.H) <= geom.Reach) {
		return nil, card.Refuse("drawing", "The drawing reaches over more than %d m. Something in it lies far away from the rest: take that out in the program it comes from.", int(geom.Reach/1000))
	}
	var combined []geom.Path
	for _, s := range d.Shapes {
		if use := uses[LineKey(s)]; s.Fill != "" && filled != LeaveOut || s.Stroke != "" && (use == AsPiece || use == AsPrinted) {
			combined = append(combined, s.Path)
		}
	}
	if geom.Tangled(maxCrossings, combined...) {
		return nil, card.Refuse("drawing", "The shapes and lines cross each other more than a hundred thousand times. Leave some out, or bring lines in as lines rather than as shapes.")
	}
	d.Transform(geom.Shift(middle.X-b.Centre().X, middle.Y-b.Centre().Y))
	m := maker{name: name, counts: map[string]int{}}
	lines := map[string][]exchange.Shape{}
	var order []string
	var seen painting
	for _, s := range d.Shapes {
		use := uses[LineKey(s)]
		printed := s
		printed.Width = max(s.Width, finestLine)
		if use != AsPrinted {
			printed.Stroke = ""
		}
		if filled == LeaveOut {
			printed.Fill = ""
		}
		for _, p := range printed.Parts() {
			seen.add(s.Name, p, filled == AsPiece && !p.Line)
		}
		if s.Stroke != "" && use != AsPrinted {
			k := LineKey(s)
			if lines[k] == nil {
				order = append(order, k)
			}
			lines[k] = append(lines[k], s)
		}
	}
	for _, l := range seen {
		m.ink(l, filled)
	}
	for _, k := range order {
		m.lines(lines[k], uses[k])
	}
	if len(m.items) == 0 {
		return nil, card.Refuse("drawing", "Nothing of the drawing would be brought in: everything is left out, or too small to see.")
	}
	if len(m.items) > maxBrought {
		return nil, card.Refuse("drawing", "The drawing would become %d items; %d are the most. Leave some lines out, or join shapes in the program it comes from.", len(m.items), maxBrought)
	}
	return m.items, nil
}

// finestLine is the least width of a line that is printed, mm.
const finestLine = .1

// painting is what is printed of a drawing, from below.
type painting []inkLayer

// inkLayer is regions of one ink that become one item.
type inkLayer struct {
	name string // of the only shape
	look exchange.Part
	all  []geom.Path
}

// add puts a part on top, or into a layer of its ink that it lies on: the uppermost, or one
// under layers of the other kind, fills or lines, that it does not meet. Of ink that is seen
// through no two regions of a layer meet. Pieces lie in no order.
func (p *painting) add(name string, part exchange.Part, piece bool) {
	for i := len(*p) - 1; i >= 0; i-- {
		l := &(*p)[i]
		if l.look.Colour == part.Colour && l.look.Faint == part.Faint && l.look.Line == part.Line && l.look.Gradient == nil && part.Gradient == nil {
			if part.Faint > 0 && !piece && l.meets(part.Region) {
				break
			}
			l.name = ""
			l.all = append(l.all, part.Region)
			return
		}
		if l.look.Line == part.Line || l.meets(part.Region) {
			break
		}
	}
	*p = append(*p, inkLayer{name, part, []geom.Path{part.Region}})
}

// meets reports whether a region's box meets that of one in the layer.
func (l *inkLayer) meets(region geom.Path) bool {
	b := region.Bounds()
	return slices.ContainsFunc(l.all, func(o geom.Path) bool { return o.Bounds().Overlaps(b) })
}

type maker struct {
	name   string
	items  []card.Item
	counts map[string]int
}

// title is a name of its own, or the drawing's with a number.
func (m *maker) title(own, what string) string {
	if own = strings.TrimSpace(own); own != "" {
		if r := []rune(own); len(r) > 80 {
			own = string(r[:80])
		}
		return own
	}
	m.counts[what]++
	if n := m.counts[what]; n > 1 {
		return fmt.Sprintf("%s, %s %d", m.name, what, n)
	}
	return m.name + ", " + what
}

// tooSmall is the least extent of something that is worth an item, mm.
const tooSmall = .5

// within is how far, in mm, an outline of too many pieces may be moved to have fewer.
var within = []float64{.01, .02, .05, .1}

// Simplified is a path of no more pieces than an item may have, where that can be had within
// a tenth of a millimetre; one of few is as it was.
func Simplified(p geom.Path) geom.Path {
	out := p
	for _, tol := range within {
		if out.Len() <= card.MaxSegments {
			break
		}
		out = geom.Simplify(p, tol)
	}
	return out
}

func (m *maker) outline(name string, path geom.Path, made card.Made, fill card.Fill) {
	if path.Len() > card.MaxSegments {
		path = geom.Union(geom.NonZero, Simplified(path))
	}
	b := path.Bounds()
	if min(b.W, b.H) < tooSmall {
		return
	}
	c := b.Centre()
	m.items = append(m.items, card.Item{
		Name: name, Kind: card.Shape, Place: card.Place{X: c.X, Y: c.Y}, Made: made, Fill: fill,
		Form: &card.Form{Outline: card.Free, Width: b.W, Height: b.H, Path: card.NewDrawn(path.Transform(geom.Shift(-c.X, -c.Y)))},
	})
}

// ink makes the item of a layer, or pieces of its fills.
func (m *maker) ink(l inkLayer, filled Use) {
	region := geom.Union(geom.NonZero, l.all...)
	if filled == AsPiece && !l.look.Line {
		for _, p := range geom.Divide(geom.NonZero, region) {
			m.outline(m.title(l.name, "piece"), p.Path, card.Made{As: card.Cut, Stock: nearestStock(l.look.Colour)}, card.Fill{})
		}
		return
	}
	what := "shape"
	if l.look.Line {
		what = "lines"
	}
	n := len(m.items)
	m.outline(m.title(l.name, what), region, card.Made{As: card.Printed}, fill(l.look, region.Bounds()))
	if faint := l.look.Faint; faint > .001 && len(m.items) > n {
		m.items[n].Look = &card.Look{Clear: min(math.Round(faint*1000)/1000, .95)}
	}
}

// farthest is how far from an item's box, in shares of it, a gradient may end.
const farthest = 5

// fill is the ink of a part whose region has a box.
func fill(p exchange.Part, box geom.Rect) card.Fill {
	if p.Gradient == nil || box.W <= 0 || box.H <= 0 {
		return card.Fill{Colour: p.Colour}
	}
	share := func(q geom.Point) geom.Point { return geom.Pt((q.X-box.X)/box.W, (q.Y-box.Y)/box.H) }
	from, to := share(p.Gradient.From), share(p.Gradient.To)
	if max(math.Abs(from.X), math.Abs(from.Y), math.Abs(to.X), math.Abs(to.Y)) > farthest {
		return card.Fill{Colour: p.Colour}
	}
	g := card.Gradient{Kind: card.Linear, FromX: from.X, FromY: from.Y, ToX: to.X, ToY: to.Y, Stops: p.Gradient.Stops}
	if p.Gradient.Radial {
		g.Kind = card.Radial
	}
	return card.Fill{Gradient: &g}
}

func (m *maker) lines(shapes []exchange.Shape, use Use) {
	paths := make([]geom.Path, len(shapes))
	for i, s := range shapes {
		paths[i] = s.Path
	}
	own := ""
	if len(shapes) == 1 {
		own = shapes[0].Name
	}
	switch use {
	case LeaveOut, "":
	case AsPiece:
		// Rings in rings are holes, in whatever direction they run.
		for _, p := range geom.Divide(geom.EvenOdd, geom.Join(paths...)) {
			m.outline(m.title(own, "piece"), p.Path, card.Made{As: card.Cut, Stock: card.First().Piece}, card.Fill{})
		}
	default:
		path := Simplified(geom.Join(paths...))
		b := path.Bounds()
		if max(b.W, b.H) < tooSmall {
			return
		}
		c := b.Centre()
		it := card.Item{
			Name: m.title(own, "lines"), Kind: card.Drawing, Place: card.Place{X: c.X, Y: c.Y}, Made: card.Made{As: card.Lined},
			Lines: &card.Lines{Role: card.Role(use), Width: b.W, Height: b.H, Path: card.NewDrawn(path.Transform(geom.Shift(-c.X, -c.Y)))},
		}
		if use == Use(card.RolePen) {
			it.Fill.Colour = shapes[0].Stroke
		}
		m.items = append(m.items, it)
	}
}

// nearestStock is the card stock whose colour is nearest.
func nearestStock(colour string) string {
	best, least := card.First().Piece, math.Inf(1)
	for _, s := range card.Stocks() {
		if d := distance(s.Colour, colour); strings.HasSuffix(s.ID, "-216") && d < least {
			best, least = s.ID, d
		}
	}
	return best
}

func distance(a, b string) float64 {
	v, err := strconv.ParseUint(strings.TrimPrefix(a, "#"), 16, 32)
	w, err2 := strconv.ParseUint(strings.TrimPrefix(b, "#"), 16, 32)
	if err != nil || err2 != nil {
		return math.Inf(1)
	}
	sum := 0.0
	for shift := range 3 {
		d := float64(v>>(8*shift)&255) - float64(w>>(8*shift)&255)
		sum += d * d
	}
	return sum
}

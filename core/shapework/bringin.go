package shapework

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"sectilis/core/card"
	"sectilis/core/drawing"
	"sectilis/core/geom"
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
	Likely Use    `json:"likely"` // what they probably are for
}

func lineKey(s drawing.Shape) string { return s.Layer + "\x1f" + s.Stroke }

// LineKinds lists the lines of a drawing by how they look, in their order.
func LineKinds(d drawing.Drawing) []LineKind {
	out := []LineKind{}
	for _, s := range d.Shapes {
		if s.Stroke == "" {
			continue
		}
		i := slices.IndexFunc(out, func(k LineKind) bool { return k.Key == lineKey(s) })
		if i < 0 {
			i = len(out)
			out = append(out, LineKind{Key: lineKey(s), Layer: s.Layer, Colour: s.Stroke, Likely: Use(s.Role)})
		}
		out[i].Count++
		if s.Path.Closed() {
			out[i].Closed++
		}
	}
	filled := slices.ContainsFunc(d.Shapes, func(s drawing.Shape) bool { return s.Fill != "" })
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

// Items makes items of a drawing with its middle at a place. Lines become what
// uses says by their keys, filled shapes what filled says. Filled shapes of one
// colour that follow each other are one item, as they look.
func Items(d drawing.Drawing, name string, uses map[string]Use, filled Use, middle geom.Point) ([]card.Item, error) {
	b := d.Bounds()
	if !(max(b.W, b.H) <= geom.Reach) {
		return nil, card.Refuse("drawing", "The drawing reaches over more than %d m. Something in it lies far away from the rest: take that out in the program it comes from.", int(geom.Reach/1000))
	}
	var combined []geom.Path
	for _, s := range d.Shapes {
		if use := uses[lineKey(s)]; s.Fill != "" && filled != LeaveOut || s.Stroke != "" && (use == AsPiece || use == AsPrinted) {
			combined = append(combined, s.Path)
		}
	}
	if geom.Tangled(maxCrossings, combined...) {
		return nil, card.Refuse("drawing", "The shapes and lines cross each other more than %d times. Leave some out, or bring lines in as lines rather than as shapes.", maxCrossings)
	}
	d.Transform(geom.Shift(middle.X-b.Centre().X, middle.Y-b.Centre().Y))
	m := maker{name: name, counts: map[string]int{}}
	lines := map[string][]drawing.Shape{}
	var order []string
	for i := 0; i < len(d.Shapes); {
		s := d.Shapes[i]
		if s.Stroke != "" {
			k := lineKey(s)
			if lines[k] == nil {
				order = append(order, k)
			}
			lines[k] = append(lines[k], s)
		}
		if s.Fill == "" {
			i++
			continue
		}
		var same []geom.Path
		title := s.Name
		for ; i < len(d.Shapes) && d.Shapes[i].Fill == s.Fill && d.Shapes[i].Faint == s.Faint && (len(same) == 0 || d.Shapes[i].Stroke == ""); i++ {
			same = append(same, geom.Union(d.Shapes[i].Rule, d.Shapes[i].Path))
			if len(same) > 1 {
				title = ""
			}
		}
		if filled != LeaveOut {
			m.fill(title, s.Fill, s.Faint, geom.Union(geom.NonZero, same...), filled)
		}
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

func (m *maker) outline(name string, path geom.Path, made card.Made, fill card.Fill) {
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

func (m *maker) fill(own, colour string, faint float64, path geom.Path, as Use) {
	if as == AsPiece {
		for _, p := range geom.Divide(geom.NonZero, path) {
			m.outline(m.title(own, "piece"), p.Path, card.Made{As: card.Cut, Stock: nearestStock(colour)}, card.Fill{})
		}
		return
	}
	n := len(m.items)
	m.outline(m.title(own, "shape"), path, card.Made{As: card.Printed}, card.Fill{Colour: colour})
	if faint > .001 && len(m.items) > n {
		m.items[n].Look = &card.Look{Clear: min(math.Round(faint*1000)/1000, .95)}
	}
}

func (m *maker) lines(shapes []drawing.Shape, use Use) {
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
			m.outline(m.title(own, "piece"), p.Path, card.Made{As: card.Cut, Stock: "white-216"}, card.Fill{})
		}
	case AsPrinted:
		var inks []geom.Path
		for _, s := range shapes {
			inks = append(inks, geom.Stroke(s.Path, max(s.Width, .1), geom.MitreCorner, geom.ButtCap))
		}
		m.outline(m.title(own, "lines"), geom.Union(geom.NonZero, inks...), card.Made{As: card.Printed}, card.Fill{Colour: shapes[0].Stroke})
	default:
		path := geom.Join(paths...)
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
	best, least := "white-216", math.Inf(1)
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

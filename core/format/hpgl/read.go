package hpgl

import (
	"context"
	"errors"
	"fmt"
	"io"
	"math"
	"strconv"
	"strings"

	"sectilis/core/document/card"
	"sectilis/core/document/exchange"
	"sectilis/core/ground/geom"
	"sectilis/core/production/cut"
)

// Error is why an HP-GL file is not read, in words for the person.
type Error struct{ Why string }

func (e *Error) Error() string { return e.Why }

func refuse(format string, args ...any) error { return &Error{fmt.Sprintf(format, args...)} }

// pens are the roles by the pen that draws them, as this program writes them.
var pens = map[int]card.Role{
	1: card.RolePen, 2: card.RoleMountain, 3: card.RoleCut, 4: card.RoleKiss, 5: card.RoleValley, 6: card.RolePerforation,
}

// penOf is the pen of a role.
func penOf(r card.Role) int {
	for pen, role := range pens {
		if role == r {
			return pen
		}
	}
	return 1
}

// maxPoints of a file that is read.
const maxRead = 2_000_000

// plotter follows the instructions.
type plotter struct {
	d        *exchange.Drawing
	at       geom.Point // plotter units, y up
	down     bool
	relative bool
	pen      int
	b        geom.Builder
	drawn    bool
	points   int
	label    byte // what ends a label
}

// Read reads HP-GL: moves, lines, packed lines, arcs, circles and rectangles, 40 units to
// the millimetre. Labels, fills and whatever else draws no outline are noted. It returns an
// *Error for a file that cannot be read, and the error of the context when that ends.
func Read(ctx context.Context, raw []byte) (exchange.Drawing, error) {
	var d exchange.Drawing
	if len(raw) > exchange.MaxBytes {
		return d, refuse("The file is larger than %d MB.", exchange.MaxBytes>>20)
	}
	p := plotter{d: &d, label: 3}
	known := 0
	budget := exchange.NewBudget(ctx)
	for t := (tape{text: string(raw)}); t.more(); {
		if err := budget.Spend(1); err != nil {
			if errors.Is(err, exchange.ErrWork) {
				return d, refuse("The file cannot be read: %v.", err)
			}
			return d, err
		}
		did, err := p.next(&t)
		if err != nil {
			return d, err
		}
		if did {
			known++
		}
	}
	p.flush()
	if known == 0 || len(d.Shapes) == 0 {
		return d, refuse("There is no line in the file that can be taken.")
	}
	d.Transform(geom.Scale(1./PerMM, 1./PerMM))
	box := d.Bounds()
	if !(max(box.W, box.H) <= exchange.MaxPlace) {
		return d, refuse("The drawing would be larger than %d m.", exchange.MaxPlace/1000)
	}
	d.Upright()
	return d, nil
}

// tape is the text of a file, read up to a byte.
type tape struct {
	text string
	i    int
}

func (t *tape) more() bool { return t.i < len(t.text) }

// to reads up to the first of some bytes, which is left, or to the end.
func (t *tape) to(stops func(c byte) bool) string {
	start := t.i
	for t.more() && !stops(t.text[t.i]) {
		t.i++
	}
	return t.text[start:t.i]
}

const escape = 27

// control passes over a control sequence for the device: to the next colon, if it has
// parameters.
func (t *tape) control() {
	t.i += 2
	if t.i >= len(t.text) || t.text[t.i-1] != '.' {
		return
	}
	t.i++
	t.to(func(c byte) bool { return (c < '0' || c > '9') && c != ';' })
	if t.more() && t.text[t.i] == ':' {
		t.i++
	}
}

// next carries out what stands next on the tape; did says that it is an instruction that is
// known.
func (p *plotter) next(t *tape) (did bool, err error) {
	c := t.text[t.i]
	switch {
	case c == escape:
		t.control()
		return false, nil
	case !letter(c):
		t.i++
		return false, nil
	case t.i+1 >= len(t.text) || !letter(t.text[t.i+1]):
		return false, refuse("The file is no HP-GL that can be read: there is a stray “%c” at byte %d.", c, t.i+1)
	}
	op, at := strings.ToUpper(t.text[t.i:t.i+2]), t.i+1
	t.i += 2
	switch op {
	case "LB":
		words := t.to(func(c byte) bool { return c == p.label })
		t.i++
		p.d.Note("The label “%s” was left out: set it here as lettering.", strings.TrimSpace(strings.ToValidUTF8(words, "")))
		return false, nil
	case "DT":
		if t.more() && t.text[t.i] != ';' {
			p.label = t.text[t.i]
		}
		t.i++
		return false, nil
	case "PE":
		return true, p.packed(t.to(func(c byte) bool { return c == ';' }), at)
	}
	args, ok := arguments(t.to(func(c byte) bool { return c == ';' || letter(c) || c == escape }))
	if !ok {
		return false, refuse("The file is no HP-GL that can be read: what follows “%s” at byte %d is no list of numbers.", op, at)
	}
	return p.do(op, args)
}

func letter(c byte) bool { return c >= 'A' && c <= 'Z' || c >= 'a' && c <= 'z' }

func arguments(text string) ([]float64, bool) {
	var out []float64
	for _, f := range strings.FieldsFunc(text, func(c rune) bool { return c == ',' || c == ' ' || c == '\n' || c == '\r' || c == '\t' }) {
		v, err := strconv.ParseFloat(f, 64)
		if err != nil || math.IsNaN(v) || math.Abs(v) > 1<<30 {
			return nil, false
		}
		out = append(out, v)
	}
	return out, true
}

// settings change how things are drawn, not what.
var settings = map[string]bool{
	"IN": true, "DF": true, "VS": true, "FS": true, "AS": true, "PW": true, "WU": true, "RO": true, "IW": true, "OW": true, "SI": true,
	"SR": true, "DI": true, "DR": true, "SL": true, "CS": true, "CA": true, "SS": true, "SA": true, "TL": true, "PG": true, "NR": true,
	"PS": true, "BP": true, "NP": true, "LA": true, "MC": true, "TD": true, "UL": true, "CO": true, "SM": true, "ES": true, "CP": true,
	"OE": true, "OI": true, "OS": true, "IM": true, "FT": true, "PT": true, "AC": true, "EC": true, "LO": true,
}

// do carries out one instruction; false when it is not one that is known.
func (p *plotter) do(op string, a []float64) (bool, error) {
	switch op {
	case "PU", "PD":
		p.down = op == "PD"
		return true, p.moves(a)
	case "PA", "PR":
		p.relative = op == "PR"
		return true, p.moves(a)
	case "SP":
		p.flush()
		p.pen, p.down = 0, false
		if len(a) > 0 {
			p.pen = int(a[0])
		}
	case "AA", "AR":
		if len(a) < 3 {
			return true, nil
		}
		c := geom.Pt(a[0], a[1])
		if op == "AR" {
			c = c.Add(p.at)
		}
		return true, p.arc(c, a[2])
	case "CI":
		if len(a) < 1 || a[0] == 0 {
			return true, nil
		}
		p.flush()
		r := math.Abs(a[0])
		return true, p.add(geom.EllipsePath(geom.Rect{X: p.at.X - r, Y: p.at.Y - r, W: 2 * r, H: 2 * r}))
	case "EA", "ER", "RA", "RR":
		if len(a) < 2 {
			return true, nil
		}
		to := geom.Pt(a[0], a[1])
		if op[1] == 'R' {
			to = to.Add(p.at)
		}
		if op[0] == 'R' {
			p.d.Note("A filled rectangle was taken as its outline.")
		}
		p.flush()
		x, y := min(p.at.X, to.X), min(p.at.Y, to.Y)
		return true, p.add(geom.RectPath(geom.Rect{X: x, Y: y, W: math.Abs(to.X - p.at.X), H: math.Abs(to.Y - p.at.Y)}))
	case "SC", "IP":
		if len(a) > 0 {
			p.d.Note("The drawing sets a scale of its own, which was not applied; look at its size.")
		}
	case "LT":
		if len(a) > 0 {
			p.d.Note("Dashed lines were taken as whole ones.")
		}
	default:
		if !settings[op] {
			p.d.Note("The instruction %s was left out.", op)
			return false, nil
		}
	}
	return true, nil
}

func (p *plotter) moves(a []float64) error {
	for i := 0; i+1 < len(a); i += 2 {
		to := geom.Pt(a[i], a[i+1])
		if p.relative {
			to = to.Add(p.at)
		}
		if err := p.move(to); err != nil {
			return err
		}
	}
	return nil
}

// move goes to a place, drawing when the pen is down.
func (p *plotter) move(to geom.Point) error {
	if !p.down {
		p.flush()
	} else if to != p.at {
		p.begin()
		p.b.Line(to)
	}
	p.at = to
	if p.points++; p.points > maxRead {
		return refuse("The file has more than %d points.", maxRead)
	}
	return nil
}

func (p *plotter) begin() {
	if !p.drawn {
		p.b.Move(p.at)
		p.drawn = true
	}
}

// arc turns about c by degrees, from x to y when positive.
func (p *plotter) arc(c geom.Point, degrees float64) error {
	d := p.at.Sub(c)
	r := d.Len()
	if r == 0 || degrees == 0 {
		return nil
	}
	a0 := math.Atan2(d.Y, d.X)
	a1 := a0 + min(max(degrees, -360), 360)*math.Pi/180
	s, co := math.Sincos(a1)
	to := c.Add(geom.Pt(co, s).Mul(r))
	if p.down {
		p.begin()
		p.b.ArcTo(c, r, a0, a1, to)
	}
	p.at = to
	return nil
}

// flush ends the line that is being drawn. One that comes back to its start is
// closed.
func (p *plotter) flush() {
	if !p.drawn {
		return
	}
	p.drawn = false
	path := p.b.Path()
	cs := path.Curves()[0]
	closed := (len(cs) > 1 || cs[0].Op == geom.ArcTo) && cs[0].From.Sub(cs[len(cs)-1].End()).Len() < .75
	if closed && cs[len(cs)-1].Op == geom.LineTo {
		cs = append(cs[:len(cs)-1:len(cs)-1], geom.Curve{From: cs[len(cs)-1].From, Segment: geom.Segment{Op: geom.LineTo, P: [3]geom.Point{cs[0].From}}})
	}
	_ = p.add(geom.FromCurves(cs, closed))
}

func (p *plotter) add(path geom.Path) error {
	if len(p.d.Shapes) >= exchange.MaxShapes {
		return refuse("The file has more than %d lines.", exchange.MaxShapes)
	}
	role := pens[p.pen]
	p.d.Shapes = append(p.d.Shapes, exchange.Shape{Layer: fmt.Sprintf("Pen %d", p.pen), Role: role, Path: path, Stroke: exchange.RoleColour(role), Width: .25})
	return nil
}

// WriteDrawing writes the lines of a drawing, each role with its own pen, in the order of the
// roles. Curves become lines within 0.01 mm. It returns the error of the writer.
func WriteDrawing(w io.Writer, d exchange.Drawing) error {
	var b strings.Builder
	b.WriteString("IN;PA;\n")
	for _, role := range []card.Role{card.RolePen, card.RoleMountain, card.RoleValley, card.RolePerforation, card.RoleKiss, "", card.RoleCut} {
		selected := false
		for _, s := range d.Shapes {
			if s.Role != role {
				continue
			}
			if !selected {
				fmt.Fprintf(&b, "SP%d;\n", penOf(role))
				selected = true
			}
			for _, l := range s.Path.Flatten(tolerance) {
				writeLine(&b, l, d.Height)
			}
		}
	}
	b.WriteString("PU;SP0;\n")
	if _, err := io.WriteString(w, b.String()); err != nil {
		return fmt.Errorf("write HP-GL: %w", err)
	}
	return nil
}

// tolerance of flattening, mm: below one unit.
const tolerance = .01

func writeLine(b *strings.Builder, l geom.Polyline, height float64) {
	pts := l.Points
	if l.Closed {
		pts = append(pts[:len(pts):len(pts)], pts[0])
	}
	for i, p := range pts {
		switch {
		case i == 0:
			b.WriteString("PU")
		case (i-1)%cut.Chunk == 0:
			if i > 1 {
				b.WriteString(";\n")
			}
			b.WriteString("PD")
		default:
			b.WriteByte(',')
		}
		b.WriteString(place(p, height))
		if i == 0 {
			b.WriteByte(';')
		}
	}
	b.WriteString(";\n")
}

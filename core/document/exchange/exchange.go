// Package exchange is what is exchanged with other programs: outlines and lines
// with their inks and roles, in true millimetres, whatever file they stand in.
// The origin is the upper left corner, x right and y down.
package exchange

import (
	"fmt"
	"strings"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// Drawing is a drawing with what could not be taken from its file. Width and Height are mm.
type Drawing struct {
	Width    float64 // mm; 0 where the file does not say
	Height   float64
	Shapes   []Shape // from below
	Pictures []Picture
	Notes    []string
	// NoUnit says that the file names no unit; millimetres were taken.
	NoUnit bool

	noted map[string]bool
}

// Shape is a path that is filled, stroked or both. Lines with a role are worked
// rather than drawn.
type Shape struct {
	Name  string
	Layer string // of the file: a group, a layer or a pen
	Role  card.Role
	Path  geom.Path
	Rule  geom.FillRule
	Fill  string // #rrggbb; empty for none
	// Faint is how much of the fill is seen through, 0 to 1.
	Faint float64
	// Gradient is what the fill runs through, nil where it is one colour. Fill is then the
	// mean of its colours.
	Gradient *Gradient
	Stroke   string
	Width    float64 // of the stroke, mm
	Line     LineStyle
	// LineFirst says that the stroke lies beneath the fill.
	LineFirst bool
}

// LineStyle is how a stroke looks. The zero value is solid, cut off straight at its ends and
// mitred at its corners. MitreLimit is the length of a mitre in widths of the line.
type LineStyle struct {
	Cap        geom.Cap
	Join       Join
	MitreLimit float64   // as a multiple of the width; 0 is 4
	Dashes     []float64 // lengths of dash and gap in turn, mm
	Offset     float64   // into the dashes where a line begins, mm
	Faint      float64   // how much is seen through, 0 to 1
	// Pen is what a round pen of the width is stretched to, nil for a round one.
	Pen *geom.Affine
}

// Join is how a stroke goes round a corner.
type Join uint8

// The joins of a stroke.
const (
	MitreJoin Join = iota
	RoundJoin
	BevelJoin
)

// Gradient runs from colour to colour between two places of a drawing, mm; a radial one
// outward from From.
type Gradient struct {
	Radial   bool
	From, To geom.Point
	Stops    []card.Stop
}

// Part is a region of one ink. Faint is a share from 0 to 1.
type Part struct {
	Region   geom.Path
	Colour   string
	Faint    float64
	Gradient *Gradient
	Line     bool // it is a stroke
}

// Outline is what the stroke covers; empty without one.
func (s Shape) Outline() geom.Path {
	if s.Stroke == "" || s.Width <= 0 {
		return geom.Path{}
	}
	l := s.Line
	path := s.Path
	m := geom.Identity
	if l.Pen != nil {
		if back, ok := l.Pen.Inverse(); ok {
			path, m = path.Transform(back), *l.Pen
		}
	}
	if len(l.Dashes) > 0 {
		path = geom.Dash(path, l.Dashes, l.Offset)
	}
	corner := map[Join]geom.Corner{MitreJoin: geom.MitreCorner, RoundJoin: geom.RoundCorner, BevelJoin: geom.BevelCorner}[l.Join]
	out := geom.StrokeWith(path, s.Width, l.Cap, geom.OffsetOptions{Corner: corner, MitreLimit: l.MitreLimit, Blunt: true})
	if l.Pen != nil {
		out = geom.Union(geom.NonZero, out.Transform(m))
	}
	return out
}

// Parts are the inks of a shape, from below: its fill and its stroke.
func (s Shape) Parts() []Part {
	var out []Part
	if s.Fill != "" {
		out = append(out, Part{geom.Union(s.Rule, s.Path), s.Fill, s.Faint, s.Gradient, false})
	}
	if s.Stroke != "" {
		out = append(out, Part{Region: s.Outline(), Colour: s.Stroke, Faint: s.Line.Faint, Line: true})
		if s.LineFirst && len(out) == 2 {
			out[0], out[1] = out[1], out[0]
		}
	}
	return out
}

// transform maps a gradient; turns, shifts, flips and one scale keep it exact.
func (g *Gradient) transform(m geom.Affine) *Gradient {
	if g == nil {
		return nil
	}
	return &Gradient{g.Radial, m.Apply(g.From), m.Apply(g.To), g.Stops}
}

// Picture is a picture embedded in a drawing. At maps its unit square, v down,
// to the drawing.
type Picture struct {
	Name string
	Raw  []byte
	At   geom.Affine
}

// Limits on what is read: enough for any drawing that a person would cut.
const (
	MaxBytes  = 24 << 20
	MaxShapes = 100_000
	// MaxPlace is the largest coordinate, mm.
	MaxPlace = 100_000
)

// maxNotes is how many notes a person is told; a file may have a thousand times as many.
const maxNotes = 40

// Note adds a note once. After many, it is only said that there are more.
func (d *Drawing) Note(format string, args ...any) {
	n := fmt.Sprintf(format, args...)
	if d.noted == nil {
		d.noted = map[string]bool{}
		for _, old := range d.Notes {
			d.noted[old] = true
		}
	}
	switch {
	case d.noted[n] || len(d.Notes) > maxNotes:
		return
	case len(d.Notes) == maxNotes:
		n = "There is more of the kind."
	}
	d.noted[n] = true
	d.Notes = append(d.Notes, n)
}

// Bounds is the box of all shapes and pictures.
func (d *Drawing) Bounds() geom.Rect {
	var r geom.Rect
	for _, s := range d.Shapes {
		r = join(r, s.Path.Bounds())
	}
	for _, p := range d.Pictures {
		r = join(r, geom.RectPath(geom.Rect{W: 1, H: 1}).Transform(p.At).Bounds())
	}
	return r
}

// join is the union of boxes that may be as slim as a line.
func join(r, s geom.Rect) geom.Rect {
	if r == (geom.Rect{}) {
		return s
	}
	x, y := min(r.X, s.X), min(r.Y, s.Y)
	return geom.Rect{X: x, Y: y, W: max(r.Right(), s.Right()) - x, H: max(r.Bottom(), s.Bottom()) - y}
}

// Transform maps the whole drawing. Widths of strokes and dashes stay as they are.
func (d *Drawing) Transform(m geom.Affine) {
	for i := range d.Shapes {
		s := &d.Shapes[i]
		s.Path, s.Gradient = s.Path.Transform(m), s.Gradient.transform(m)
	}
	for i := range d.Pictures {
		d.Pictures[i].At = d.Pictures[i].At.Then(m)
	}
}

// Upright turns a drawing whose y runs up, as in plotters' files, and puts its
// upper left corner at the origin.
func (d *Drawing) Upright() {
	b := d.Bounds()
	d.Transform(geom.Shift(-b.X, -b.Bottom()).Then(geom.Scale(1, -1)))
	d.Width, d.Height = b.W, b.H
}

// roleNames are what layers that hold lines of a role are called, here and by
// people.
var roleNames = map[string]card.Role{
	"cut": card.RoleCut, "mountain": card.RoleMountain, "valley": card.RoleValley, "score": card.RoleValley, "fold": card.RoleValley,
	"mountain score": card.RoleMountain, "valley score": card.RoleValley,
	"perforation": card.RolePerforation, "kiss": card.RoleKiss, "kiss cut": card.RoleKiss, "pen": card.RolePen, "guide": card.RoleGuide,
}

// RoleOf is the role that a layer's name tells, or none.
func RoleOf(layer string) card.Role {
	return roleNames[strings.ToLower(strings.TrimSpace(strings.NewReplacer("_", " ", "-", " ").Replace(layer)))]
}

// RoleColour is the colour of a role's lines on screen and in files.
func RoleColour(r card.Role) string {
	switch r {
	case card.RoleMountain:
		return "#a4572b"
	case card.RoleValley:
		return "#35658c"
	case card.RoleGuide:
		return "#a9b0b5"
	}
	return "#1f2b38"
}

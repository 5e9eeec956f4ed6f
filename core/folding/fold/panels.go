package fold

import (
	"fmt"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// Panel is a rigid region of a sheet between folds and cuts.
type Panel struct {
	Ring  geom.Path // clockwise on screen, as seen from outside, in mm
	Holes []geom.Path
	// Middle is a point inside it.
	Middle geom.Point
}

// Hinge is a fold that two panels share. The first panel lies on its left, on
// screen, when going from From to To.
type Hinge struct {
	A, B     int // panels
	Role     Role
	Line     int // of the net
	From, To geom.Point
}

// Division is a sheet divided into panels.
type Division struct {
	Panels []Panel
	Hinges []Hinge
	// Faults say what is wrong with the lines, each with its place.
	Faults []Fault
}

// Fault is something about a net that a person should mend.
type Fault struct {
	Line int        `json:"line"` // of the net, -1 for none
	At   geom.Point `json:"at"`
	Why  string     `json:"why"`
}

// chordTolerance is how far the chords of a curved edge may be from it, mm.
const chordTolerance = .05

// Divide cuts the sheet along its cuts and folds into panels and hinges.
// Perforations and kiss cuts hold together and divide nothing.
func (n Net) Divide() Division {
	var sides []geom.LineSegment
	line := []int{} // of each side, the line of the net; -1 for the edge
	for _, l := range n.Outline().Flatten(chordTolerance) {
		for i, p := range l.Points {
			sides = append(sides, geom.LineSegment{From: p, To: l.Points[(i+1)%len(l.Points)]})
			line = append(line, -1)
		}
	}
	for i, l := range n.Lines {
		if l.Role == Cut || l.Role == Mountain || l.Role == Valley {
			sides = append(sides, geom.LineSegment{From: l.From, To: l.To})
			line = append(line, i)
		}
	}
	d := geom.Subdivide(sides)
	var out Division
	for _, f := range d.Faces {
		p := Panel{Ring: d.Path(f.Ring)}
		for _, h := range f.Holes {
			p.Holes = append(p.Holes, d.Path(h))
		}
		p.Middle = inside(p)
		out.Panels = append(out.Panels, p)
	}
	for _, k := range d.Loose {
		if i := line[k]; i >= 0 {
			l := n.Lines[i]
			out.Faults = append(out.Faults, Fault{i, l.From.Lerp(l.To, .5), fmt.Sprintf("A %s ends in nowhere. Let it meet a cut, a fold or the edge.", RoleName(l.Role))})
		}
	}
	doubled := map[[2]int]bool{}
	for _, e := range d.Edges {
		own := make([]int, 0, len(e.Lines))
		for _, k := range e.Lines {
			if line[k] >= 0 {
				own = append(own, line[k])
			}
		}
		a, b := d.Points[e.A], d.Points[e.B]
		if len(own) > 1 && !doubled[[2]int{own[0], own[1]}] {
			doubled[[2]int{own[0], own[1]}] = true
			out.Faults = append(out.Faults, Fault{own[1], a.Lerp(b, .5), fmt.Sprintf("A %s lies on a %s. Take one of them away.", RoleName(n.Lines[own[1]].Role), RoleName(n.Lines[own[0]].Role))})
		}
		if len(own) == 0 || e.Left < 0 || e.Right < 0 {
			continue
		}
		// Where a cut lies on a fold, the cut parts it.
		fold := own[0]
		if slices.ContainsFunc(own, func(i int) bool { return n.Lines[i].Role == Cut }) {
			continue
		}
		out.hinge(Hinge{A: e.Left, B: e.Right, Role: n.Lines[fold].Role, Line: fold, From: a, To: b})
	}
	return out
}

// hinge adds a hinge, as more of one that it goes on with.
func (d *Division) hinge(h Hinge) {
	for i := range d.Hinges {
		o := &d.Hinges[i]
		if o.Line != h.Line || !(o.A == h.A && o.B == h.B || o.A == h.B && o.B == h.A) {
			continue
		}
		if o.A == h.B {
			h.A, h.B, h.From, h.To = h.B, h.A, h.To, h.From
		}
		v := o.To.Sub(o.From)
		if h.From.Sub(o.From).Dot(v) < 0 {
			o.From = h.From
		}
		if h.To.Sub(o.From).Dot(v) > o.To.Sub(o.From).Dot(v) {
			o.To = h.To
		}
		return
	}
	d.Hinges = append(d.Hinges, h)
}

// inside is a point of a panel, away from its edge.
func inside(p Panel) geom.Point {
	b := p.Ring.Bounds()
	best, far := b.Centre(), -1.0
	all := geom.Join(append([]geom.Path{p.Ring}, p.Holes...)...)
	for i := 1; i < 8; i++ {
		for j := 1; j < 8; j++ {
			q := geom.Pt(b.X+b.W*float64(i)/8, b.Y+b.H*float64(j)/8)
			if all.Winding(q) == 0 {
				continue
			}
			if n, ok := all.Nearest(q); ok && n.Distance > far {
				best, far = q, n.Distance
			}
		}
	}
	return best
}

// RoleName is a line role as people read it.
func RoleName(r Role) string {
	switch r {
	case Mountain:
		return "mountain score"
	case Valley:
		return "valley score"
	case Kiss:
		return "kiss cut"
	}
	return string(r)
}

// PanelAt is the panel at a place on the sheet, or -1.
func (d Division) PanelAt(p geom.Point) int {
	for i, q := range d.Panels {
		if geom.Join(append([]geom.Path{q.Ring}, q.Holes...)...).Winding(p) != 0 {
			return i
		}
	}
	return -1
}

// PanelOf is the panel that a path on the sheet is glued to: that of a face on which most
// of it lies; -1 if it lies on none. A panel is of a face if its middle is on it.
func (d Division) PanelOf(n Net, f card.FaceID, path geom.Path) int {
	face := n.Face(f)
	back, ok := face.OnSheet.Inverse()
	if !ok {
		return -1
	}
	best, most := -1, 0.0
	box := path.Bounds()
	var on []int
	for i, q := range d.Panels {
		if q.Ring.Bounds().Overlaps(box) && (geom.Rect{W: face.Width, H: face.Height}).Grow(.01).Has(back.Apply(q.Middle)) {
			on = append(on, i)
		}
	}
	if len(on) == 1 && d.Panels[on[0]].Ring.Bounds().Contains(box, 0) {
		return on[0]
	}
	for _, i := range on {
		q := d.Panels[i]
		on := geom.Intersection(geom.NonZero, path, geom.Join(append([]geom.Path{q.Ring}, q.Holes...)...)).Area()
		if on > most+1e-9 {
			best, most = i, on
		}
	}
	return best
}

// sign is the direction in which a fold of a role turns: seen from outside, a
// valley folds both panels toward the viewer.
func sign(r Role) float64 {
	if r == Mountain {
		return -1
	}
	return 1
}

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
	sides, line := n.sides()
	d := geom.Subdivide(sides)
	var out Division
	panel := make([]int, len(d.Faces)) // of each face; -1 where there is no paper
	for i, f := range d.Faces {
		p := Panel{Ring: d.Path(f.Ring)}
		for _, h := range f.Holes {
			p.Holes = append(p.Holes, d.Path(h))
		}
		p.Middle = inside(p)
		if panel[i] = -1; n.Edge.Empty() || n.Edge.Winding(p.Middle) != 0 {
			panel[i] = len(out.Panels)
			out.Panels = append(out.Panels, p)
		}
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
		if len(own) == 0 || e.Left < 0 || e.Right < 0 || panel[e.Left] < 0 || panel[e.Right] < 0 {
			continue
		}
		// Where a cut lies on a fold, the cut parts it.
		fold := own[0]
		if slices.ContainsFunc(own, func(i int) bool { return n.Lines[i].Role == Cut }) {
			continue
		}
		out.hinge(Hinge{A: panel[e.Left], B: panel[e.Right], Role: n.Lines[fold].Role, Line: fold, From: a, To: b})
	}
	return out
}

// sides are the straight lines that part the sheet, and of each the line of the net that it is of; -1 for
// the edge.
func (n Net) sides() (sides []geom.LineSegment, line []int) {
	var ends []geom.Point
	if !n.Edge.Empty() {
		for _, l := range n.Lines {
			ends = append(ends, l.From, l.To)
		}
	}
	for _, l := range n.Outline().Flatten(chordTolerance) {
		ring := through(append(l.Points, l.Points[0]), ends, chordTolerance)
		for i := 1; i < len(ring); i++ {
			sides = append(sides, geom.LineSegment{From: ring[i-1], To: ring[i]})
			line = append(line, -1)
		}
	}
	for i, l := range n.Lines {
		if l.Role == Cut && !l.Slit || l.Role.Folds() {
			sides = append(sides, geom.LineSegment{From: l.From, To: l.To})
			line = append(line, i)
		}
	}
	return sides, line
}

// through leads a chain of chords through the places that are within tol of it, mm, so that what ends on
// the curve ends on its chords.
func through(chain, places []geom.Point, tol float64) []geom.Point {
	box := geom.Rect{X: chain[0].X, Y: chain[0].Y}
	for _, p := range chain {
		box = geom.Rect{X: min(box.X, p.X), Y: min(box.Y, p.Y), W: max(box.Right(), p.X) - min(box.X, p.X), H: max(box.Bottom(), p.Y) - min(box.Y, p.Y)}
	}
	box = box.Grow(tol)
	for _, q := range places {
		if !box.Has(q) {
			continue
		}
		best, least := -1, tol
		for i := 1; i < len(chain); i++ {
			a, v := chain[i-1], chain[i].Sub(chain[i-1])
			t := min(max(q.Sub(a).Dot(v)/max(v.Dot(v), 1e-18), 0), 1)
			if d := q.Sub(a.Add(v.Mul(t))).Len(); d < least {
				best, least = i, d
			}
		}
		if best > 0 && q.Sub(chain[best-1]).Len() > 1e-9 && q.Sub(chain[best]).Len() > 1e-9 {
			chain = slices.Insert(slices.Clone(chain), best, q)
		}
	}
	return chain
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

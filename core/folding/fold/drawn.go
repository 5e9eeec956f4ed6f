package fold

import (
	"cmp"
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// curveTolerance is how far the chords of a curved cut may be from it, mm.
const curveTolerance = .02

// drawnSlack is how far panels of a drawn base may pull apart, mm: its places are kept to a nanometre,
// and near the closed state a nanometre opens a thousand times as much.
const drawnSlack = 1e-3

// mostRoom is how far apart two scores may be that share a fold, mm.
const mostRoom = 15

// drawnScale is how much a drawn base is stretched across and down the sheet.
func drawnScale(b card.Base) (x, y float64) {
	d := b.Drawn
	x, y = b.Width/d.Width, b.Height/d.Height
	if d.Leaves[0].OutsideTurn%180 != 0 {
		x, y = y, x
	}
	return x, y
}

// drawnNet is the net of a base that is made from a drawing; without one, that of a side fold.
func drawnNet(b card.Base, v func(string) float64) Net {
	d := b.Drawn
	if d == nil {
		return leaves(sideLeaves)(b, v)
	}
	sx, sy := drawnScale(b)
	m := geom.Scale(sx, sy)
	edge := d.Outline.Path().Transform(m)
	if edge.Area() < 0 { // drawn with the inside up
		edge = edge.Reverse()
	}
	box := edge.Bounds()
	n := Net{Width: box.Right(), Height: box.Bottom(), slack: drawnSlack}
	if math.Abs(edge.Area()-box.W*box.H) > 1e-6*box.W*box.H {
		n.Edge = edge
	}
	var ends []geom.Point
	for _, l := range d.Lines {
		cs := l.Path.Path().Transform(m).Curves()[0]
		ends = append(ends, cs[0].From, cs[len(cs)-1].End())
	}
	for k, l := range d.Lines {
		for _, p := range l.Path.Path().Transform(m).Flatten(curveTolerance) {
			chain := p.Points
			if p.Closed {
				chain = append(slices.Clone(chain), chain[0])
			}
			if l.Role == Cut && len(chain) > 2 {
				chain = through(chain, ends, 2*curveTolerance)
			}
			for i := 1; i < len(chain); i++ {
				n.Lines = append(n.Lines, Line{Role: l.Role, From: chain[i-1], To: chain[i], On: i > 1, Slit: l.Slit, drawn: k})
			}
		}
	}
	n.markMain()
	turned := func(box geom.Rect, turn int) (at geom.Affine, w, h float64) {
		switch turn {
		case 90:
			return geom.Affine{B: 1, C: -1, E: box.Right(), F: box.Y}, box.H, box.W
		case 180:
			return geom.Affine{A: -1, D: -1, E: box.Right(), F: box.Bottom()}, box.W, box.H
		case 270:
			return geom.Affine{B: -1, C: 1, E: box.X, F: box.Bottom()}, box.H, box.W
		}
		return geom.Shift(box.X, box.Y), box.W, box.H
	}
	// Turned over about the way of its main folds, the sheet shows its inside.
	over := geom.Affine{A: -1, D: 1, E: n.Width}
	if !n.upright() {
		over = geom.Affine{A: 1, D: -1, F: n.Height}
	}
	var outside, inside []Face
	for i, l := range d.Leaves {
		out, in := card.LeafFaces(i)
		if len(d.Leaves) == 1 {
			in = card.Back
		}
		where := geom.RectPath(l.Box).Transform(m).Bounds()
		at, w, h := turned(where, l.OutsideTurn)
		outside = append(outside, Face{out, l.Outside, Outside, w, h, at, at})
		at, w, h = turned(geom.RectPath(where).Transform(over).Bounds(), l.InsideTurn)
		inside = append(inside, Face{in, l.Inside, Inside, w, h, at.Then(over), at})
	}
	n.Faces = faceOrder(outside, inside)
	return n
}

// drawnLimit: slanting scores keep their angles.
func drawnLimit(b card.Base, _ func(string) float64) (says string, holds bool) {
	if b.Drawn == nil {
		return "", true
	}
	x, y := drawnScale(b)
	for _, l := range b.Drawn.Lines {
		box := l.Path.Box()
		if l.Role.Folds() && min(box.W, box.H) > 1e-6 && math.Abs(x-y) > 1e-4*max(x, y) {
			return "Its scores do not all run up and down or across, so it keeps its proportions.", false
		}
	}
	return "", true
}

// LevelFolds reports whether the main folds of a base run across rather than up and down, as seen with the
// sheet as its net is drawn.
func LevelFolds(b card.Base) bool { return !Of(b).upright() }

// scored is a straight way of scores that lie along each other.
type scored struct {
	role   Role
	lines  []int
	length float64
	// across says that it runs from edge to edge of the sheet.
	across bool
	at     geom.Point
	mid    geom.Point
	way    geom.Point // of length 1
}

// markMain finds the folds that are turned by hand: the scores that together run from edge to edge of
// the sheet, or the longest of all where none does. Two of one role close beside each other share a
// fold. They come first among the lines, the longest before all.
func (n *Net) markMain() {
	all := n.scored()
	main := all[:0:0]
	for _, s := range all {
		if s.across {
			main = append(main, s)
		}
	}
	if len(main) == 0 && len(all) > 0 {
		main = all[:1]
	}
	var first []Line
	taken := map[int]bool{}
	for i, s := range main {
		shared := slices.ContainsFunc(main, func(o scored) bool {
			d := math.Abs(s.way.Cross(o.at.Sub(s.at)))
			return o.role == s.role && math.Abs(s.way.Cross(o.way)) < 1e-6 && d > sameLine && d <= mostRoom
		})
		for _, k := range main[i].lines {
			l := n.Lines[k]
			l.Main, taken[k] = true, true
			if shared {
				l.Stop = math.Pi / 2
			}
			first = append(first, l)
		}
	}
	for k, l := range n.Lines {
		if !taken[k] {
			first = append(first, l)
		}
	}
	n.Lines = first
}

// scored are the straight ways of scores, the longest first.
func (n Net) scored() []scored {
	var out []scored
	for i, l := range n.Lines {
		if !l.Role.Folds() {
			continue
		}
		k := slices.IndexFunc(out, func(s scored) bool { return s.role == l.Role && n.Lines[s.lines[0]].along(l) })
		if k < 0 {
			v := l.To.Sub(l.From)
			k = len(out)
			out = append(out, scored{role: l.Role, at: l.From, way: v.Mul(1 / v.Len())})
		}
		out[k].lines = append(out[k].lines, i)
	}
	edge := n.Outline()
	for i := range out {
		s := &out[i]
		lo, hi := math.Inf(1), math.Inf(-1)
		for _, k := range s.lines {
			for _, p := range []geom.Point{n.Lines[k].From, n.Lines[k].To} {
				at := p.Sub(s.at).Dot(s.way)
				lo, hi = min(lo, at), max(hi, at)
			}
		}
		s.length, s.mid = hi-lo, s.at.Add(s.way.Mul((lo+hi)/2))
		onEdge := func(at float64) bool {
			q, ok := edge.Nearest(s.at.Add(s.way.Mul(at)))
			return ok && q.Distance < .05
		}
		s.across = onEdge(lo) && onEdge(hi)
	}
	slices.SortStableFunc(out, func(a, b scored) int { return cmp.Compare(b.length, a.length) })
	return out
}

// Package nodes takes outlines apart into their nodes and handles, changes them, and puts them
// together again. Lengths are mm. All values are copied: a change gives new rings.
package nodes

import (
	"math"
	"slices"

	"sectilis/core/ground/geom"
)

// Node is a place where lines or curves meet. In and Out are the ends of its handles; nil where
// the outline runs straight to the neighbour, or from it.
type Node struct {
	At  geom.Point  `json:"at"`
	In  *geom.Point `json:"in,omitempty"`
	Out *geom.Point `json:"out,omitempty"`
	// Smooth says that the outline passes without a corner; it follows from the handles.
	Smooth bool `json:"smooth,omitempty"`
}

// Ring is a ring, or a line with two ends.
type Ring struct {
	Closed bool   `json:"closed"`
	Nodes  []Node `json:"nodes"`
}

// Ref names a node by the ring it is in and its place there. A segment is named by the node that
// it starts from.
type Ref struct {
	Ring int `json:"ring"`
	Node int `json:"node"`
}

// Of takes a path apart. Quadratic curves and arcs become cubics.
func Of(p geom.Path) []Ring {
	var out []Ring
	var r Ring
	finish := func() {
		if n := len(r.Nodes); n > 1 && r.Closed && r.Nodes[n-1].At.Sub(r.Nodes[0].At).Len() < 1e-9 {
			r.Nodes[0].In = r.Nodes[n-1].In
			r.Nodes = r.Nodes[:n-1]
		}
		if len(r.Nodes) > 0 {
			out = append(out, r)
		}
		r = Ring{}
	}
	p.Cubics(func(from geom.Point, s geom.Segment) {
		switch s.Op {
		case geom.MoveTo:
			finish()
			r.Nodes = []Node{{At: s.P[0]}}
		case geom.Close:
			r.Closed = true
			finish()
		case geom.LineTo:
			r.Nodes = append(r.Nodes, Node{At: s.P[0]})
		case geom.QuadTo, geom.CubicTo:
			c := [4]geom.Point{from, s.P[0], s.P[1], s.P[2]}
			if s.Op == geom.QuadTo {
				c = [4]geom.Point{from, from.Lerp(s.P[0], 2./3), s.P[1].Lerp(s.P[0], 2./3), s.P[1]}
			}
			r.Nodes[len(r.Nodes)-1].Out = &c[1]
			r.Nodes = append(r.Nodes, Node{At: c[3], In: &c[2]})
		}
	})
	finish()
	return told(out)
}

// Path puts rings together.
func Path(rings []Ring) geom.Path {
	var b geom.Builder
	for _, r := range rings {
		if len(r.Nodes) < 2 {
			continue
		}
		b.Move(r.Nodes[0].At)
		for i := range r.segments() {
			c := r.segment(i)
			if i == len(r.Nodes)-1 && c.Op == geom.LineTo {
				break // closing draws it
			}
			b.Add(c)
		}
		if r.Closed {
			b.Close()
		}
	}
	return b.Path()
}

// segments is how many lines and curves a ring has.
func (r Ring) segments() int {
	if r.Closed {
		return len(r.Nodes)
	}
	return len(r.Nodes) - 1
}

// next is the node after another, round a ring.
func (r Ring) next(i int) int { return (i + 1) % len(r.Nodes) }

func (r Ring) prev(i int) int { return (i + len(r.Nodes) - 1) % len(r.Nodes) }

// segment is the line or curve from a node to the next.
func (r Ring) segment(i int) geom.Curve {
	a, b := r.Nodes[i], r.Nodes[r.next(i)]
	if a.Out == nil && b.In == nil {
		return geom.Curve{From: a.At, Segment: geom.Segment{Op: geom.LineTo, P: [3]geom.Point{b.At}}}
	}
	p, q := a.At, b.At
	if a.Out != nil {
		p = *a.Out
	}
	if b.In != nil {
		q = *b.In
	}
	return geom.Curve{From: a.At, Segment: geom.Segment{Op: geom.CubicTo, P: [3]geom.Point{p, q, b.At}}}
}

// even is the turn, in radians, up to which a node is smooth.
const even = .02

// told sets what follows from the handles.
func told(rings []Ring) []Ring {
	for _, r := range rings {
		for i := range r.Nodes {
			n := &r.Nodes[i]
			n.Smooth = false
			if !r.Closed && (i == 0 || i == len(r.Nodes)-1) || n.In == nil && n.Out == nil {
				continue
			}
			a, b := r.segment(r.prev(i)).Tangent(1), r.segment(i).Tangent(0)
			n.Smooth = math.Abs(math.Atan2(a.Cross(b), a.Dot(b))) < even
		}
	}
	return rings
}

// copied are rings that may be changed.
func copied(rings []Ring) []Ring {
	out := make([]Ring, len(rings))
	for i, r := range rings {
		out[i] = Ring{r.Closed, slices.Clone(r.Nodes)}
	}
	return out
}

// Has reports whether there is such a node.
func Has(rings []Ring, at Ref) bool {
	return at.Ring >= 0 && at.Ring < len(rings) && at.Node >= 0 && at.Node < len(rings[at.Ring].Nodes)
}

// moved is a handle moved along.
func moved(p *geom.Point, by geom.Point) *geom.Point {
	if p == nil {
		return nil
	}
	q := p.Add(by)
	return &q
}

// Move moves nodes, with their handles.
func Move(rings []Ring, which []Ref, by geom.Point) []Ring {
	out := copied(rings)
	for _, at := range which {
		n := &out[at.Ring].Nodes[at.Node]
		n.At, n.In, n.Out = n.At.Add(by), moved(n.In, by), moved(n.Out, by)
	}
	return told(out)
}

// MoveHandle moves the end of a handle to a place. At a smooth node the other handle turns with
// it, unless alone is set.
func MoveHandle(rings []Ring, at Ref, outward bool, to geom.Point, alone bool) []Ring {
	out := copied(rings)
	n := &out[at.Ring].Nodes[at.Node]
	own, other := &n.In, &n.Out
	if outward {
		own, other = other, own
	}
	*own = &to
	if d := n.At.Sub(to); n.Smooth && !alone && *other != nil && d.Len() > 1e-9 {
		q := n.At.Add(d.Mul((*other).Sub(n.At).Len() / d.Len()))
		*other = &q
	}
	return told(out)
}

// Add puts a node into a segment, at a parameter of it; the outline stays as it is.
func Add(rings []Ring, at Ref, t float64) []Ring {
	out := copied(rings)
	r := &out[at.Ring]
	c := r.segment(at.Node)
	a, b := c.Split(t)
	n := Node{At: a.End()}
	next := r.next(at.Node)
	if c.Op == geom.CubicTo {
		p := [4]geom.Point{a.P[0], a.P[1], b.P[0], b.P[1]}
		r.Nodes[at.Node].Out, n.In, n.Out, r.Nodes[next].In = &p[0], &p[1], &p[2], &p[3]
	}
	r.Nodes = slices.Insert(r.Nodes, at.Node+1, n)
	return told(out)
}

// Remove takes nodes out; what is left of the outline runs as near to where it did as one curve
// can. A ring that has one node left, or none, goes.
func Remove(rings []Ring, which []Ref) []Ring {
	out := copied(rings)
	order := slices.Clone(which)
	slices.SortFunc(order, func(a, b Ref) int { return b.Node - a.Node }) // from the last on
	for _, at := range order {
		r := &out[at.Ring]
		r.remove(at.Node)
	}
	return told(slices.DeleteFunc(out, func(r Ring) bool { return len(r.Nodes) < 2 }))
}

func (r *Ring) remove(i int) {
	n := len(r.Nodes)
	inner := r.Closed || i > 0 && i < n-1
	if n > 2 && inner {
		a, b := r.segment(r.prev(i)), r.segment(i)
		if a.Op == geom.LineTo && b.Op == geom.LineTo {
			r.Nodes[r.prev(i)].Out, r.Nodes[r.next(i)].In = nil, nil
		} else {
			out, in := joined(a, b)
			r.Nodes[r.prev(i)].Out, r.Nodes[r.next(i)].In = &out, &in
		}
	}
	r.Nodes = slices.Delete(r.Nodes, i, i+1)
	if m := len(r.Nodes); m > 0 && !r.Closed {
		r.Nodes[0].In, r.Nodes[m-1].Out = nil, nil
	}
}

// joined are the handles of the one curve that lies nearest to two that follow each other.
func joined(a, b geom.Curve) (out, in geom.Point) {
	var pts []geom.Point
	for i := range 17 {
		pts = append(pts, a.At(float64(i)/16))
	}
	for i := 1; i < 17; i++ {
		pts = append(pts, b.At(float64(i)/16))
	}
	c := geom.FitOne(pts, a.Tangent(0), b.Tangent(1).Mul(-1))
	return c.P[0], c.P[1]
}

// Smoothen makes nodes smooth: both handles lie in one line, as long as they were, or a third of
// the way to their neighbours.
func Smoothen(rings []Ring, which []Ref) []Ring {
	out := copied(rings)
	for _, at := range which {
		r := &out[at.Ring]
		n := &r.Nodes[at.Node]
		if !r.Closed && (at.Node == 0 || at.Node == len(r.Nodes)-1) {
			continue
		}
		before, after := r.Nodes[r.prev(at.Node)].At, r.Nodes[r.next(at.Node)].At
		a, b := geom.Point{}, geom.Point{}
		lenIn, lenOut := before.Sub(n.At).Len()/3, after.Sub(n.At).Len()/3
		if n.In != nil {
			a, lenIn = n.At.Sub(*n.In), n.In.Sub(n.At).Len()
		} else {
			a = n.At.Sub(before)
		}
		if n.Out != nil {
			b, lenOut = n.Out.Sub(n.At), n.Out.Sub(n.At).Len()
		} else {
			b = after.Sub(n.At)
		}
		d := unit(a).Add(unit(b))
		if d.Len() < 1e-6 {
			d = after.Sub(before)
		}
		d = unit(d)
		in, outw := n.At.Sub(d.Mul(lenIn)), n.At.Add(d.Mul(lenOut))
		n.In, n.Out = &in, &outw
	}
	return told(out)
}

// Sharpen makes corners of nodes: each handle points straight to its neighbour.
func Sharpen(rings []Ring, which []Ref) []Ring {
	out := copied(rings)
	for _, at := range which {
		r := &out[at.Ring]
		n := &r.Nodes[at.Node]
		if n.In != nil {
			p := n.At.Lerp(r.Nodes[r.prev(at.Node)].At, 1./3)
			n.In = &p
		}
		if n.Out != nil {
			p := n.At.Lerp(r.Nodes[r.next(at.Node)].At, 1./3)
			n.Out = &p
		}
	}
	return told(out)
}

// Straighten makes lines of the segments from nodes on, or curves with handles of a third of
// the way where bent is set.
func Straighten(rings []Ring, from []Ref, bent bool) []Ring {
	out := copied(rings)
	for _, at := range from {
		r := &out[at.Ring]
		if !r.Closed && at.Node == len(r.Nodes)-1 {
			continue
		}
		a, b := &r.Nodes[at.Node], &r.Nodes[r.next(at.Node)]
		switch line := a.Out == nil && b.In == nil; {
		case !bent:
			a.Out, b.In = nil, nil
		case line:
			p, q := a.At.Lerp(b.At, 1./3), a.At.Lerp(b.At, 2./3)
			a.Out, b.In = &p, &q
		}
	}
	return told(out)
}

// Split opens a ring at a node, or parts a line there.
func Split(rings []Ring, at Ref) []Ring {
	out := copied(rings)
	r := out[at.Ring]
	if r.Closed {
		nodes := append(slices.Clone(r.Nodes[at.Node:]), r.Nodes[:at.Node+1]...)
		nodes[0].In, nodes[len(nodes)-1].Out = nil, nil
		out[at.Ring] = Ring{Nodes: nodes}
		return told(out)
	}
	if at.Node == 0 || at.Node == len(r.Nodes)-1 {
		return told(out)
	}
	first, second := slices.Clone(r.Nodes[:at.Node+1]), slices.Clone(r.Nodes[at.Node:])
	first[at.Node].Out, second[0].In = nil, nil
	out[at.Ring] = Ring{Nodes: first}
	return told(slices.Insert(out, at.Ring+1, Ring{Nodes: second}))
}

// Join joins two ends of lines by a line: those of one line close it. ok is false where they are
// no ends of lines.
func Join(rings []Ring, a, b Ref) (joined []Ring, ok bool) {
	end := func(at Ref) bool {
		r := rings[at.Ring]
		return !r.Closed && (at.Node == 0 || at.Node == len(r.Nodes)-1)
	}
	if a == b || !end(a) || !end(b) {
		return rings, false
	}
	out := copied(rings)
	if a.Ring == b.Ring {
		out[a.Ring].Closed = true
		return told(out), true
	}
	first, second := out[a.Ring], out[b.Ring]
	if a.Node == 0 {
		first = first.reversed()
	}
	if b.Node != 0 {
		second = second.reversed()
	}
	out[a.Ring] = Ring{Nodes: append(first.Nodes, second.Nodes...)}
	return told(slices.Delete(out, b.Ring, b.Ring+1)), true
}

func (r Ring) reversed() Ring {
	out := Ring{r.Closed, slices.Clone(r.Nodes)}
	slices.Reverse(out.Nodes)
	for i, n := range out.Nodes {
		out.Nodes[i].In, out.Nodes[i].Out = n.Out, n.In
	}
	return out
}

// Round lays an arc of a radius, or as large as fits, into the corners at nodes. ok is false
// where none of them is a corner.
func Round(rings []Ring, which []Ref, radius float64) (rounded []Ring, ok bool) {
	for i, r := range rings {
		var corners []geom.Point
		for _, at := range which {
			if at.Ring == i {
				corners = append(corners, r.Nodes[at.Node].At)
			}
		}
		if len(corners) > 0 {
			p := geom.RoundSome(Path([]Ring{r}), radius, func(q geom.Point) bool {
				return slices.ContainsFunc(corners, func(c geom.Point) bool { return c.Sub(q).Len() < 1e-9 })
			})
			arcs := false
			p.Segments(func(_ geom.Point, s geom.Segment) { arcs = arcs || s.Op == geom.ArcTo })
			if arcs {
				ok = true
				rounded = append(rounded, Of(p)...)
				continue
			}
		}
		rounded = append(rounded, r)
	}
	return rounded, ok
}

// Count is how many nodes rings have.
func Count(rings []Ring) int {
	n := 0
	for _, r := range rings {
		n += len(r.Nodes)
	}
	return n
}

func unit(p geom.Point) geom.Point {
	if l := p.Len(); l > 0 {
		return p.Mul(1 / l)
	}
	return geom.Point{}
}

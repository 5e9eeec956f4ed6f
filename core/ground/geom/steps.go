package geom

import "slices"

// A ring comes out of the arrangement as many short edges. Here stretches that
// follow one another on one curve become one piece of that curve again.

// source is a stretch of a base curve.
type source struct {
	base     int32
	from, to float64
}

// step is one edge of a ring or stroke in the direction of travel.
type step struct {
	from, to ipoint
	src      []source // the curves that run here, the earliest first
	inside   bool     // of strokes, whether it lies in the region
}

// write appends a ring given by half edges, and returns of each of its curves the number of
// the path that it came in with, if that is to be traced.
func (sd *subdivision) write(b *Builder, halves []half) []int {
	sd.room.steps = again(sd.room.steps, len(halves))
	steps := sd.room.steps
	srcs := sd.room.sources[:0]
	for i, h := range halves {
		from, to := sd.places(h)
		at := len(srcs)
		for s := sd.edges[h.edge()].first; s >= 0; s = sd.next[s] {
			srcs = append(srcs, sd.source(sd.segs[s], sd.segs[s].a != from))
		}
		// Chains grow at their heads: the earliest is last.
		for l, r := at, len(srcs)-1; l < r; l, r = l+1, r-1 {
			srcs[l], srcs[r] = srcs[r], srcs[l]
		}
		steps[i] = step{from: from, to: to, src: srcs[at:len(srcs):len(srcs)]}
	}
	sd.room.sources = srcs
	return sd.writeSteps(b, steps, true)
}

func (sd *subdivision) stepAlong(s seg, against, inside bool) step {
	st := step{from: s.a, to: s.b, src: []source{sd.source(s, against)}, inside: inside}
	if against {
		st.from, st.to = s.b, s.a
	}
	return st
}

func (sd *subdivision) source(s seg, against bool) source {
	base := sd.strands[s.strand].base
	if against {
		return source{base, s.t1, s.t0}
	}
	return source{base, s.t0, s.t1}
}

// stretch is a piece of a base curve, or a straight line, of the result. A line
// made of several has the ends of the first and the last.
type stretch struct {
	first, last source
	from, to    ipoint
}

// writeSteps joins steps to stretches and writes them, and returns of each the number of
// its path, if that is to be traced.
//
// It stays whole: where a stretch ends is known only from the next one, so reading, turning
// and writing share the list.
//
//gocognit:ignore
func (sd *subdivision) writeSteps(b *Builder, steps []step, closed bool) []int {
	if closed {
		steps = sd.startAtBreak(steps)
	}
	sd.room.list = again(sd.room.list, len(steps))
	list := sd.room.list[:0]
	var live []source
	for i, s := range steps {
		if i > 0 {
			if next := sd.goOn(live, s); len(next) > 0 {
				live = next
				l := &list[len(list)-1]
				l.first, l.last, l.to = live[0], live[0], s.to
				continue
			}
		}
		live = s.src
		list = append(list, stretch{live[0], live[0], s.from, s.to})
	}
	list = sd.straighten(list, closed)
	n, least := len(list), 0
	if closed {
		// The same ring starts in the same place, however it was put together.
		for i := range list {
			if list[i].from.less(list[least].from) {
				least = i
			}
		}
	}
	at := func(i int) *stretch { return &list[(least+i)%n] }
	// Where two stretches meet, the place is that of a curve's own end if the
	// vertex is one, so that what is not cut comes out as it went in.
	place := func(i int) Point {
		var v ipoint
		if i < n {
			v = at(i).from
			if p, ok := sd.own(at(i).first.base, at(i).first.from, v); ok {
				return p
			}
		} else {
			v = at(n - 1).to
		}
		if i > 0 || closed {
			before := at(i + n - 1)
			if p, ok := sd.own(before.last.base, before.last.to, v); ok {
				return p
			}
		}
		return sd.grid.out(v)
	}
	start := place(0)
	b.segs = slices.Grow(b.segs, n+2)
	b.Move(start)
	for i := range n {
		end := start
		if !closed || i < n-1 {
			end = place(i + 1)
		}
		s := at(i)
		if c := &sd.base[s.first.base]; c.Op != LineTo {
			c := c.between(sd.polish(*c, s.first.from, s.from), sd.polish(*c, s.first.to, s.to))
			c.P[points[c.Op]-1] = end
			b.segs = append(b.segs, c.Segment)
		} else if !closed || i < n-1 {
			b.segs = append(b.segs, Segment{Op: LineTo, P: [3]Point{end}})
		}
	}
	if closed {
		b.Close()
	}
	if !sd.traced {
		return nil
	}
	from := make([]int, n)
	for i := range from {
		from[i] = int(sd.of[at(i).first.base])
	}
	return from
}

// polish moves a parameter to where the curve is nearest to its vertex: along
// a chord it was taken to run at an even pace. (Newton's steps.)
func (sd *subdivision) polish(c Curve, t float64, at ipoint) float64 {
	if t == 0 || t == 1 {
		return t
	}
	p, best := sd.grid.out(at), t
	for range 4 {
		d, v := c.At(t).Sub(p), c.Derivative(t)
		l := v.Dot(v)
		if l == 0 {
			break
		}
		t = min(max(t-d.Dot(v)/l, 0), 1)
		if c.At(t).Sub(p).Len() < c.At(best).Sub(p).Len() {
			best = t
		}
	}
	return best
}

// own is the end of a base curve if the parameter is at one and the vertex is
// still where it was.
func (sd *subdivision) own(base int32, t float64, at ipoint) (Point, bool) {
	c := &sd.base[base]
	var p Point
	switch t {
	case 0:
		p = c.From
	case 1:
		p = c.End()
	default:
		return p, false
	}
	return p, round(sd.into.Apply(p)) == at
}

// goOn are those of the sources that go on in the next step, each as one
// stretch from its start to the end of the step.
func (sd *subdivision) goOn(live []source, s step) []source {
	var out []source
	for _, a := range live {
		for _, b := range s.src {
			if a.base != b.base {
				continue
			}
			if (a.to > a.from) == (b.to > b.from) && (a.to == b.from || sd.close(a.base, a.to, b.from)) {
				out = append(out, source{a.base, a.from, b.to})
				break
			}
		}
	}
	return out
}

// close reports whether two parameters of a curve are one place: a step of no
// length lay between them.
func (sd *subdivision) close(base int32, t, u float64) bool {
	const near = 4
	if d := t - u; d > .01 || d < -.01 {
		return false
	}
	c := &sd.base[base]
	return c.At(t).Sub(c.At(u)).Len()*sd.grid.scale <= near
}

// startAtBreak turns a ring so that it starts where one curve ends and another
// begins, if there is such a place.
func (sd *subdivision) startAtBreak(steps []step) []step {
	n := len(steps)
	for i := range steps {
		if len(sd.goOn(steps[(i+n-1)%n].src, steps[i])) == 0 {
			if i == 0 {
				return steps
			}
			return slices.Concat(steps[i:], steps[:i])
		}
	}
	return steps
}

// straighten joins lines that lie exactly on one.
func (sd *subdivision) straighten(list []stretch, closed bool) []stretch {
	line := func(s stretch) bool { return sd.base[s.first.base].Op == LineTo }
	joins := func(p, q stretch) bool {
		v, w := p.to.sub(p.from), q.to.sub(q.from)
		return line(p) && line(q) && v.cross(w) == 0 && v.dot(w) > 0
	}
	out := list[:0]
	for _, s := range list {
		if n := len(out); n > 0 && joins(out[n-1], s) {
			out[n-1].last, out[n-1].to = s.last, s.to
			continue
		}
		out = append(out, s)
	}
	if n := len(out); closed && n > 2 && joins(out[n-1], out[0]) {
		out[0].first, out[0].from = out[n-1].first, out[n-1].from
		out = out[:n-1]
	}
	return out
}

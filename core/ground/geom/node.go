package geom

import (
	"cmp"
	"math"
	"slices"
	"sync"
)

// Segments are cut where they meet until none crosses another. A crossing is
// rounded to the grid, which moves the parts a little and may make them meet
// anew, so it is done in rounds. That ends: rounding keeps each crossing within
// the box of the segment that it cuts and keeps their order, so the parts
// together are as long, in steps along x and y, as the whole; each is one step
// at least; and every round but the last cuts something. (Hobby, "Practical
// segment intersection with finite precision output", 1999, has the rounding;
// rounds instead of hot pixels keep it simple.)
//
// In the first two rounds what is within two units is also joined, so that
// edges that ought to coincide, and were rounded apart, do.

// seg is a straight piece of a strand on the grid, from a to b with the base
// curve, whose parameters are t0 and t1 there.
type seg struct {
	a, b   ipoint
	t0, t1 float64
	strand int32
	fresh  bool // not yet compared since it last moved
}

func (s seg) span(slack, of int32) span {
	return span{
		min(s.a.x, s.b.x) - slack, min(s.a.y, s.b.y) - slack,
		max(s.a.x, s.b.x) + slack, max(s.a.y, s.b.y) + slack, of, !s.fresh,
	}
}

type cut struct {
	seg int32
	at  ipoint
}

type noder struct {
	segs    []seg
	cuts    []cut
	moves   map[ipoint]ipoint
	finders [2]finder // share the search for pairs
	// Room that is used again.
	spare []seg
	order []keyed
	boxes []span
	pairs pairer
}

// finder notes what must be done to segments that meet.
type finder struct {
	segs  []seg
	slack int64
	stop  *ending
	n     uint32
	cuts  []cut
	joins [][2]ipoint // ends to make one
}

var noders = sync.Pool{New: func() any { return new(noder) }}

// node returns the segments cut so that none meets another but at its ends, or
// as the very same segment. uncut says that none had to be cut or moved.
func node(segs []seg, stop *ending) (out []seg, uncut bool) {
	n := noders.Get().(*noder)
	defer func() {
		n.segs = nil
		for i := range n.finders {
			n.finders[i].segs, n.finders[i].stop = nil, nil
		}
		noders.Put(n)
	}()
	n.segs = segs
	slack := int64(2)
	for round := 0; ; round++ {
		if round == 2 {
			slack = 0
		}
		boxes := again(n.boxes, len(n.segs))
		n.boxes = boxes
		for i := range n.segs {
			boxes[i] = n.segs[i].span(int32(slack), int32(i))
		}
		for i := range n.finders {
			f := &n.finders[i]
			*f = finder{segs: n.segs, slack: slack, stop: stop, cuts: f.cuts[:0], joins: f.joins[:0]}
		}
		n.pairs.each(boxes, n.finders[0].pair, n.finders[1].pair)
		n.cuts, n.moves = n.cuts[:0], nil
		for i := range n.finders {
			n.cuts = append(n.cuts, n.finders[i].cuts...)
			for _, j := range n.finders[i].joins {
				n.merge(j[0], j[1])
			}
		}
		// What nothing touches with slack, nothing touches without.
		if len(n.cuts) == 0 && len(n.moves) == 0 || stop.over.Load() {
			return n.segs, round == 0
		}
		n.apply()
	}
}

// pair finds where two segments must be cut.
func (f *finder) pair(i, j int32) {
	if f.stop.now(&f.n) {
		return
	}
	s, u := &f.segs[i], &f.segs[j]
	sa, sb := side(s.a, s.b, u.a), side(s.a, s.b, u.b)
	if apartBy(sa, sb, f.slack, s) {
		return
	}
	ua, ub := side(u.a, u.b, s.a), side(u.a, u.b, s.b)
	if apartBy(ua, ub, f.slack, u) {
		return
	}
	touch := f.end(i, u.a, sa)
	touch = f.end(i, u.b, sb) || touch
	touch = f.end(j, s.a, ua) || touch
	touch = f.end(j, s.b, ub) || touch
	if touch || (sa > 0) == (sb > 0) || sa == 0 || sb == 0 || (ua > 0) == (ub > 0) || ua == 0 || ub == 0 {
		return
	}
	p := meet(s.a, s.b, u.a, u.b)
	if p != s.a && p != s.b {
		f.cuts = append(f.cuts, cut{i, p})
	}
	if p != u.a && p != u.b {
		f.cuts = append(f.cuts, cut{j, p})
	}
}

// apartBy reports whether both ends of another segment lie clear on one side.
func apartBy(a, b, slack int64, s *seg) bool {
	if (a > 0) != (b > 0) || a == 0 || b == 0 {
		return false
	}
	if slack == 0 {
		return true
	}
	v := s.b.sub(s.a)
	// The sum of both legs is no less than the length.
	reach := slack * (int64(max(v.x, -v.x)) + int64(max(v.y, -v.y)))
	return max(a, -a) > reach && max(b, -b) > reach
}

// end sees to the end p of another segment, which lies at the given side of
// segment i: it reports whether it touches.
func (f *finder) end(i int32, p ipoint, side int64) bool {
	s := &f.segs[i]
	if p == s.a || p == s.b {
		return false
	}
	if f.slack > 0 {
		for _, e := range [2]ipoint{s.a, s.b} {
			if d := p.sub(e); d.dot(d) <= f.slack*f.slack {
				f.joins = append(f.joins, [2]ipoint{p, e})
				return true
			}
		}
	}
	v := s.b.sub(s.a)
	if f.slack == 0 {
		if side != 0 {
			return false
		}
	} else if math.Abs(float64(side)) > float64(f.slack)*math.Sqrt(float64(v.dot(v))) {
		return false
	}
	if k := p.sub(s.a).dot(v); k <= 0 || k >= v.dot(v) {
		return false
	}
	f.cuts = append(f.cuts, cut{i, p})
	return true
}

// merge makes two ends one; the lesser stays.
func (n *noder) merge(p, q ipoint) {
	if n.moves == nil {
		n.moves = map[ipoint]ipoint{}
	}
	p, q = n.moved(p), n.moved(q)
	if q.less(p) {
		p, q = q, p
	}
	if p != q {
		n.moves[q] = p
	}
}

func (n *noder) moved(p ipoint) ipoint {
	for {
		q, ok := n.moves[p]
		if !ok {
			return p
		}
		p = q
	}
}

// apply makes the cuts and moves of a round.
func (n *noder) apply() {
	n.order = again(n.order, len(n.cuts))
	order := n.order
	for i, c := range n.cuts {
		order[i] = keyed{uint64(c.seg) << 32, int32(i)}
	}
	sortKeyed(order)
	out := again(n.spare, len(n.segs)+len(n.cuts))[:0]
	var at []ipoint
	k := 0
	for i, s := range n.segs {
		at = at[:0]
		for ; k < len(order) && order[k].key>>32 == uint64(i); k++ {
			at = append(at, n.cuts[order[k].of].at)
		}
		if len(at) == 0 {
			s.fresh = false
			out = append(out, s)
			continue
		}
		out = appendCut(out, s, at)
	}
	if len(n.moves) > 0 {
		kept := out[:0]
		for _, s := range out {
			a, b := n.moved(s.a), n.moved(s.b)
			if a != s.a || b != s.b {
				s.a, s.b, s.fresh = a, b, true
			}
			if a != b {
				kept = append(kept, s)
			}
		}
		out = kept
	}
	n.segs, n.spare = out, n.segs
}

// appendCut appends the parts of a segment that is cut at the given places.
func appendCut(out []seg, s seg, at []ipoint) []seg {
	v := s.b.sub(s.a)
	steps := func(p ipoint) int64 {
		d := p.sub(s.a)
		return int64(max(d.x, -d.x)) + int64(max(d.y, -d.y))
	}
	if len(at) > 1 {
		slices.SortFunc(at, func(p, q ipoint) int {
			return cmp.Or(cmp.Compare(steps(p), steps(q)), cmp.Compare(p.x, q.x), cmp.Compare(p.y, q.y))
		})
	}
	length := float64(v.dot(v))
	from, t := s.a, s.t0
	for _, p := range at {
		if p == from {
			continue
		}
		k := min(max(float64(p.sub(s.a).dot(v))/length, 0), 1)
		u := s.t0 + (s.t1-s.t0)*k
		out = append(out, seg{from, p, t, u, s.strand, true})
		from, t = p, u
	}
	if from != s.b {
		out = append(out, seg{from, s.b, t, s.t1, s.strand, true})
	}
	return out
}

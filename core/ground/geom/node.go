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
}

func (s *seg) span(slack, of int32) span {
	return span{
		min(s.a.x, s.b.x) - slack, min(s.a.y, s.b.y) - slack,
		max(s.a.x, s.b.x) + slack, max(s.a.y, s.b.y) + slack, of, false,
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
	fresh   []int32   // those not yet compared since they last moved, in their order; all in the first round
	finders [2]finder // share the search for pairs
	// Room that is used again.
	spare []seg
	order []keyed
	at    []ipoint
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
	meets meets
	_     [128]byte // so that what two processors write shares no line of their caches
}

// meets are the places where more meets than one segment and the next after it, or more
// places than these: some may be named twice, and some where nothing meets any more.
type meets struct {
	at   []ipoint
	many bool // more than are counted: at is not complete
}

// countedMeets is how many meets are told of.
const countedMeets = 128

func (m *meets) add(p ipoint) {
	if len(m.at) >= countedMeets {
		m.many = true
		return
	}
	m.at = append(m.at, p)
}

var noders = sync.Pool{New: func() any { return new(noder) }}

// node returns the segments cut so that none meets another but at its ends, or
// as the very same segment. uncut says that none had to be cut or moved. The places where
// they meet are added to m.
func node(segs []seg, stop *ending, m *meets) (out []seg, uncut bool) {
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
		for i := range n.finders {
			f := &n.finders[i]
			*f = finder{segs: n.segs, slack: slack, stop: stop, cuts: f.cuts[:0], joins: f.joins[:0], meets: meets{at: f.meets.at[:0]}}
		}
		n.compare(int32(slack), round > 0)
		n.cuts, n.moves = n.cuts[:0], nil
		for i := range n.finders {
			f := &n.finders[i]
			n.cuts = append(n.cuts, f.cuts...)
			for _, j := range f.joins {
				n.merge(j[0], j[1])
			}
			for _, p := range f.meets.at {
				m.add(p)
			}
			m.many = m.many || f.meets.many
		}
		for _, c := range n.cuts {
			m.add(c.at)
		}
		for _, p := range n.moves {
			m.add(p)
		}
		// What nothing touches with slack, nothing touches without.
		if len(n.cuts) == 0 && len(n.moves) == 0 || stop.over.Load() {
			return n.segs, round == 0
		}
		n.apply()
	}
}

// compare holds the segments against each other, or the fresh ones against all.
func (n *noder) compare(slack int32, freshOnly bool) {
	f, g := n.finders[0].pair, n.finders[1].pair
	if freshOnly && len(n.fresh) < fewMoving {
		n.compareFew(slack, f)
		return
	}
	n.boxes = again(n.boxes, len(n.segs))
	for i := range n.segs {
		n.boxes[i] = n.segs[i].span(slack, int32(i))
		n.boxes[i].still = freshOnly
	}
	if freshOnly {
		for _, i := range n.fresh {
			n.boxes[i].still = false
		}
	}
	n.pairs.each(n.boxes, f, g)
}

// compareFew is compare for few fresh segments.
func (n *noder) compareFew(slack int32, f func(a, b int32)) {
	if len(n.fresh) == 0 {
		return
	}
	n.boxes = again(n.boxes, len(n.fresh))
	// What lies left, right, above or below of all of a group of fresh ones that follow one
	// another is met once.
	const group = 4
	for k, i := range n.fresh {
		n.boxes[k] = n.segs[i].span(slack, i)
	}
	for at := 0; at < len(n.boxes); at += group {
		list := n.boxes[at:min(at+group, len(n.boxes))]
		all := list[0]
		for i := range list {
			all.hold(&list[i])
		}
		for j := range n.segs {
			s := &n.segs[j]
			if min(s.a.x, s.b.x)-slack > all.x1 || max(s.a.x, s.b.x)+slack < all.x0 || min(s.a.y, s.b.y)-slack > all.y1 || max(s.a.y, s.b.y)+slack < all.y0 {
				continue
			}
			o := s.span(slack, int32(j))
			_, fresh := slices.BinarySearch(n.fresh, int32(j))
			for i := range list {
				if b := &list[i]; b.touches(&o) && (!fresh || o.of > b.of) {
					f(b.of, o.of)
				}
			}
		}
	}
}

// pair finds where two segments must be cut.
func (f *finder) pair(i, j int32) {
	if f.stop.now(&f.n) {
		return
	}
	s, u := &f.segs[i], &f.segs[j]
	if p, v, w, ok := s.sharedEnd(u); ok {
		// Segments that follow one another along a ring always meet.
		if !(j == i+1 && p == s.b && p == u.a) && !(i == j+1 && p == u.b && p == s.a) {
			f.meets.add(p)
		}
		// In a right angle or more they come near each other there alone.
		const long = 3 * 3
		if v.dot(w) <= 0 && v.dot(v) > long && w.dot(w) > long {
			return
		}
		if v == w {
			f.meets.add(p.add(v)) // they lie on each other
		}
	}
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

// sharedEnd is an end that two segments share, with their ways from there; of segments that
// lie on each other one of both.
func (s *seg) sharedEnd(u *seg) (p, v, w ipoint, ok bool) {
	switch {
	case s.b == u.a:
		return s.b, s.a.sub(s.b), u.b.sub(u.a), true
	case s.a == u.b:
		return s.a, s.b.sub(s.a), u.a.sub(u.b), true
	case s.a == u.a:
		return s.a, s.b.sub(s.a), u.b.sub(u.a), true
	case s.b == u.b:
		return s.b, s.a.sub(s.b), u.a.sub(u.b), true
	}
	return p, v, w, false
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
	n.fresh = n.fresh[:0]
	done := 0
	for k := 0; k < len(order); {
		i := int(order[k].key >> 32)
		n.at = n.at[:0]
		for ; k < len(order) && int(order[k].key>>32) == i; k++ {
			n.at = append(n.at, n.cuts[order[k].of].at)
		}
		out = append(out, n.segs[done:i]...)
		first := len(out)
		out = appendCut(out, n.segs[i], n.at)
		for j := first; j < len(out); j++ {
			n.fresh = append(n.fresh, int32(j))
		}
		done = i + 1
	}
	out = append(out, n.segs[done:]...)
	if len(n.moves) > 0 {
		out = n.move(out)
	}
	n.segs, n.spare = out, n.segs
}

// move moves the ends of segments; those without length are left out.
func (n *noder) move(segs []seg) []seg {
	was := n.fresh
	kept := segs[:0]
	var fresh []int32
	for i, s := range segs {
		isFresh := len(was) > 0 && was[0] == int32(i)
		if isFresh {
			was = was[1:]
		}
		a, b := n.moved(s.a), n.moved(s.b)
		isFresh = isFresh || a != s.a || b != s.b
		s.a, s.b = a, b
		if a == b {
			continue
		}
		if isFresh {
			fresh = append(fresh, int32(len(kept)))
		}
		kept = append(kept, s)
	}
	n.fresh = fresh
	return kept
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
		out = append(out, seg{from, p, t, u, s.strand})
		from, t = p, u
	}
	if from != s.b {
		out = append(out, seg{from, s.b, t, s.t1, s.strand})
	}
	return out
}

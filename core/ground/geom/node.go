package geom

import (
	"cmp"
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
	seg    int32
	at     ipoint
	clear2 float64 // the square of the distance within which no other end of a piece should lie
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
	at    []place
	boxes []span
	pairs pairer
	// Of the first round.
	starts []int32 // of each segment, the first of its pieces
	tight  bool    // ends of pieces lie nearer to each other than they should
}

// place is where a segment is cut.
type place struct {
	ipoint
	clear2 float64
}

var noders = sync.Pool{New: func() any { return new(noder) }}

// node returns the segments cut so that none meets another but at its ends, or
// as the very same segment. uncut says that none had to be cut or moved. The places where
// they meet are added to m.
func node(segs []seg, stop *ending, m *meets) (out []seg, uncut bool) {
	return nodeBy(segs, stop, m, false)
}

// nodeBy is node. everyRound has all compared in every round, which changes nothing.
func nodeBy(segs []seg, stop *ending, m *meets, everyRound bool) (out []seg, uncut bool) {
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
	settled := false // only pieces of segments that were near each other can meet
	for round := 0; ; round++ {
		if round == 2 {
			slack = 0
		}
		n.begin(round == 0, slack, stop)
		if round == 1 && settled {
			n.compareNear(int32(slack))
		} else {
			n.compare(int32(slack), round > 0)
		}
		n.gather(m)
		// What nothing touches with slack, nothing touches without.
		if len(n.cuts) == 0 && len(n.moves) == 0 || stop.over.Load() {
			return n.segs, round == 0
		}
		moved := len(n.moves) > 0
		n.apply()
		// Where not all meets are counted those of the second round need not be known either.
		settled = round == 0 && !everyRound && m.many && !moved && len(n.fresh) >= fewMoving && n.settled()
	}
}

// begin makes the finders ready for a round.
func (n *noder) begin(first bool, slack int64, stop *ending) {
	for i := range n.finders {
		f := &n.finders[i]
		near, apart := f.near, slack
		if first {
			near, apart = nearness{pairs: near.pairs[:0], spikes: near.spikes[:0]}, nearBy
		}
		*f = finder{segs: n.segs, slack: slack, apart: apart, stop: stop, cuts: f.cuts[:0], joins: f.joins[:0], meets: meets{at: f.meets.at[:0]}, near: near}
	}
}

// gather takes what the finders found. The places where segments meet are added to m.
func (n *noder) gather(m *meets) {
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
}

// compare holds the segments against each other, or the fresh ones against all.
func (n *noder) compare(slack int32, freshOnly bool) {
	f, g := n.finders[0].pair, n.finders[1].pair
	if freshOnly && len(n.fresh) < fewMoving {
		n.compareFew(slack, f)
		return
	}
	n.boxes = again(n.boxes, len(n.segs))
	if !freshOnly {
		slack = nearBy / 2
	}
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
	n.starts, n.tight = again(n.starts, len(n.segs)+1), false
	done := 0
	whole := func(to int) {
		for i := done; i < to; i++ {
			n.starts[i] = int32(len(out) + i - done)
		}
		out = append(out, n.segs[done:to]...)
		done = to
	}
	for k := 0; k < len(order); {
		i := int(order[k].key >> 32)
		n.at = n.at[:0]
		for ; k < len(order) && int(order[k].key>>32) == i; k++ {
			c := &n.cuts[order[k].of]
			n.at = append(n.at, place{c.at, c.clear2})
		}
		whole(i)
		first := len(out)
		n.starts[i] = int32(first)
		var tight bool
		out, tight = appendCut(out, n.segs[i], n.at)
		n.tight = n.tight || tight
		for j := first; j < len(out); j++ {
			n.fresh = append(n.fresh, int32(j))
		}
		done = i + 1
	}
	whole(len(n.segs))
	n.starts[done] = int32(len(out))
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

// appendCut appends the parts of a segment that is cut at the given places. tight says that ends of parts
// lie within the distances of places where none should.
func appendCut(out []seg, s seg, at []place) (_ []seg, tight bool) {
	v := s.b.sub(s.a)
	steps := func(p ipoint) int64 {
		d := p.sub(s.a)
		return int64(max(d.x, -d.x)) + int64(max(d.y, -d.y))
	}
	if len(at) > 1 {
		slices.SortFunc(at, func(p, q place) int {
			return cmp.Or(cmp.Compare(steps(p.ipoint), steps(q.ipoint)), cmp.Compare(p.x, q.x), cmp.Compare(p.y, q.y))
		})
	}
	length := float64(v.dot(v))
	from, t := place{s.a, 0}, s.t0
	for _, p := range at {
		if p.ipoint == from.ipoint {
			from.clear2 = max(from.clear2, p.clear2)
			last := &out[len(out)-1] // no place is the segment's own end
			tight = tight || place{last.a, 0}.near(from)
			continue
		}
		k := min(max(float64(p.sub(s.a).dot(v))/length, 0), 1)
		u := s.t0 + (s.t1-s.t0)*k
		out = append(out, seg{from.ipoint, p.ipoint, t, u, s.strand})
		tight = tight || from.near(p)
		from, t = p, u
	}
	if from.ipoint != s.b {
		out = append(out, seg{from.ipoint, s.b, t, s.t1, s.strand})
		tight = tight || from.near(place{s.b, 0})
	}
	return out, tight
}

// near reports whether two places lie within the distance of either.
func (p place) near(q place) bool {
	d := q.sub(p.ipoint)
	return float64(d.dot(d)) <= max(p.clear2, q.clear2)
}

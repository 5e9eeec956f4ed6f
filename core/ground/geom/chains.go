package geom

import (
	"math"
	"slices"
)

// Where outlines meet in few places, most segments only lead from one meeting to the next.
// Then chains of them are classified and followed in place of the segments. The result is
// that of the sweep over all segments, to the last bit.

// chain is a run of segments, from first up to before end, along which nothing else meets
// them. Both ends are meets.
type chain struct {
	first, end int32
	path       int32
	// The classes of the regions on the side of greater y when it runs to greater x, in the
	// direction of its segments and against it.
	with, against bool
}

// link is a chain in a direction: twice its number, plus one along its segments.
type link int32

// mostChains is how many chains are worked with: each is held against all segments.
const mostChains = 40

// chainPath combines what was arranged if it meets in few places. ok tells whether it does.
func (ar *arrangement) chainPath(rule FillRule, in func(n, all int, first bool) bool) (out Path, ok bool) {
	cp := chainer{subdivision: subdivision{arrangement: ar, slim: 2}}
	if !cp.collect() {
		return Path{}, false
	}
	cp.classify(rule, in)
	return cp.write(cp.loops()), true
}

type chainer struct {
	subdivision
	chains []chain
	meets  []ipoint // in their order
	links  [][]link // that begin at each meet, turning clockwise with y up
	open   []bool   // of each link, whether it runs with what is covered to its left and is not yet followed
}

// collect finds the chains. It is false where there are too many, or where some lie on each
// other.
func (cp *chainer) collect() bool {
	ar := cp.arrangement
	if ar.meets.many || len(ar.courses) > 0 {
		return false
	}
	slices.SortFunc(ar.meets.at, ipoint.compare)
	cp.meets = slices.Compact(ar.meets.at)
	var known [8]uint64 // by which most places that are no meets are told
	for _, p := range cp.meets {
		k := p.hash()
		known[k>>6&7] |= 1 << (k & 63)
	}
	isMeet := func(p ipoint) bool {
		if k := p.hash(); known[k>>6&7]>>(k&63)&1 == 0 {
			return false
		}
		_, found := slices.BinarySearchFunc(cp.meets, p, ipoint.compare)
		return found
	}
	for i := 0; i < len(ar.segs); {
		if len(cp.chains) == mostChains || !isMeet(ar.segs[i].a) {
			return false
		}
		path := ar.strands[ar.segs[i].strand].only.path
		j := i
		for {
			s := &ar.segs[j]
			if d := &ar.strands[s.strand]; len(d.runs) > 0 || d.only.delta != 1 || d.only.path != path {
				return false
			}
			j++
			if isMeet(s.b) {
				break
			}
			if j == len(ar.segs) || ar.segs[j].a != s.b {
				return false
			}
		}
		cp.chains = append(cp.chains, chain{first: int32(i), end: int32(j), path: path})
		i = j
	}
	return !cp.doubled()
}

// doubled reports whether two segments lie on each other: both are chains of their own.
func (cp *chainer) doubled() bool {
	for i := range cp.chains {
		c := &cp.chains[i]
		if c.end != c.first+1 {
			continue
		}
		s := &cp.segs[c.first]
		for _, d := range cp.chains[:i] {
			if u := &cp.segs[d.first]; d.end == d.first+1 && (s.a == u.a && s.b == u.b || s.a == u.b && s.b == u.a) {
				return true
			}
		}
	}
	return false
}

// probe is a segment of a chain seen so that it runs to greater x.
type probe struct {
	l, r    ipoint
	quarter bool // all is seen turned by a quarter, for a chain that runs along y alone
	forward bool // it runs so, too
}

func (cp *chainer) probe(c *chain) probe {
	for _, s := range cp.segs[c.first:c.end] {
		if s.a.x != s.b.x {
			if s.a.x < s.b.x {
				return probe{l: s.a, r: s.b, forward: true}
			}
			return probe{l: s.b, r: s.a}
		}
	}
	s := cp.segs[c.first]
	a, b := s.a.quarter(), s.b.quarter()
	if a.x < b.x {
		return probe{a, b, true, true}
	}
	return probe{b, a, true, false}
}

// below calls f for each segment of a chain right below which, however far, the probe's
// start lies, and tells whether it runs to greater x.
func (cp *chainer) below(p probe, c *chain, f func(forward bool)) {
	for i := c.first; i < c.end; i++ {
		a, b := cp.segs[i].a, cp.segs[i].b
		if p.quarter {
			a, b = a.quarter(), b.quarter()
		}
		if (a.x <= p.l.x) == (b.x <= p.l.x) {
			continue
		}
		forward := a.x < b.x
		if !forward {
			a, b = b, a
		}
		d := side(a, b, p.l)
		if d == 0 {
			d = side(a, b, p.r) // they begin in one place
		}
		if d > 0 {
			f(forward)
		}
	}
}

// classify tells what lies on both sides of each chain: of one by what lies below it, of
// those that are reached from it by going around the meets.
func (cp *chainer) classify(rule FillRule, in func(n, all int, first bool) bool) {
	cp.list()
	right := make([]int32, len(cp.chains)*cp.paths) // how often each path runs round what lies right of a chain
	of := func(c int) []int32 { return right[c*cp.paths : (c+1)*cp.paths] }
	known := make([]bool, len(cp.chains))
	var reached []link
	for i := range cp.chains {
		if known[i] {
			continue
		}
		known[i] = true
		cp.count(i, of(i))
		reached = append(reached[:0], link(2*i), link(2*i+1))
		for len(reached) > 0 {
			l := reached[len(reached)-1]
			reached = reached[:len(reached)-1]
			from, _ := cp.ends(l)
			around := cp.links[cp.number(from)]
			at := slices.Index(around, l)
			for k := 1; k < len(around); k++ {
				q := around[(at+k)%len(around)]
				before := around[(at+k-1)%len(around)]
				if known[q>>1] {
					continue
				}
				known[q>>1] = true
				// What lies right of the one before lies left of this one.
				w := of(int(q >> 1))
				copy(w, of(int(before>>1)))
				if before&1 == 0 {
					w[cp.chains[before>>1].path]++
				}
				if q&1 == 1 {
					w[cp.chains[q>>1].path]--
				}
				reached = append(reached, q^1)
			}
		}
	}
	cp.open = make([]bool, 2*len(cp.chains))
	class := func(w []int32) bool {
		n := 0
		for _, k := range w {
			if rule.covers(k) {
				n++
			}
		}
		return in(n, cp.paths, rule.covers(w[0]))
	}
	for i := range cp.chains {
		c, w := &cp.chains[i], of(i)
		c.against = class(w)
		w[c.path]++
		c.with = class(w)
		if c.with != c.against {
			cp.open[2*i], cp.open[2*i+1] = c.against, c.with
		}
	}
}

// count counts how often each path runs round what lies right of a chain.
func (cp *chainer) count(i int, w []int32) {
	c := &cp.chains[i]
	p := cp.probe(c)
	for j := range cp.chains {
		o := &cp.chains[j]
		cp.below(p, o, func(forward bool) {
			if forward {
				w[o.path]++
			} else {
				w[o.path]--
			}
		})
	}
	if !p.forward {
		w[c.path]-- // what lies below lies left of it
	}
}

// list lists the links by the meets where they begin, turning clockwise with y up.
func (cp *chainer) list() {
	cp.links = make([][]link, len(cp.meets))
	for i := range 2 * len(cp.chains) {
		from, _ := cp.ends(link(i))
		v := cp.number(from)
		cp.links[v] = append(cp.links[v], link(i))
	}
	for v, here := range cp.links {
		if len(here) < 3 {
			continue
		}
		at := cp.meets[v]
		first := cp.leaves(here[0]).sub(at)
		slices.SortFunc(here[1:], func(p, q link) int {
			if before(first, cp.leaves(p).sub(at), cp.leaves(q).sub(at)) {
				return -1
			}
			return 1
		})
	}
}

func (cp *chainer) ends(l link) (from, to ipoint) {
	c := &cp.chains[l>>1]
	from, to = cp.segs[c.first].a, cp.segs[c.end-1].b
	if l&1 == 0 {
		from, to = to, from
	}
	return from, to
}

// leaves is where a link goes at first.
func (cp *chainer) leaves(l link) ipoint {
	c := &cp.chains[l>>1]
	if l&1 == 1 {
		return cp.segs[c.first].b
	}
	return cp.segs[c.end-1].a
}

func (cp *chainer) number(p ipoint) int {
	i, _ := slices.BinarySearchFunc(cp.meets, p, ipoint.compare)
	return i
}

// circuit is a loop of links around what is covered, or around a hole in it.
type circuit struct {
	links []link
	area  float64 // in units of the grid, less than 0 for a hole
	faint bool
	path  Path
}

// loops follows what is covered around, as the tracer does over edges.
func (cp *chainer) loops() []circuit {
	at := make([]int, len(cp.meets)) // where on the stack a meet is passed, from 1
	var stack []link
	var rings []circuit
	for start := range cp.open {
		stack = stack[:0]
		for l := link(start); cp.open[l]; {
			from, to := cp.ends(l)
			cp.open[l] = false
			stack = append(stack, l)
			at[cp.number(from)] = len(stack)
			v := cp.number(to)
			if k := at[v]; k > 0 {
				loop := stack[k-1:]
				for _, q := range loop {
					f, _ := cp.ends(q)
					at[cp.number(f)] = 0
				}
				if r, ok := cp.ring(loop); ok {
					rings = append(rings, r)
				}
				stack = stack[:k-1]
			}
			l = cp.follow(l, v)
		}
	}
	return rings
}

// follow is the first link with what is covered to its left, turning clockwise with y up from
// where l came, at a meet.
func (cp *chainer) follow(l link, meet int) link {
	here := cp.links[meet]
	at := slices.Index(here, l^1)
	for k := 1; k <= len(here); k++ {
		q := here[(at+k)%len(here)]
		if c := &cp.chains[q>>1]; c.with != c.against && c.with == (q&1 == 1) {
			return q
		}
	}
	return l // never: what is covered goes on
}

// each calls f for the segments of a loop in their order.
func (cp *chainer) each(links []link, f func(s *seg, against bool)) {
	for _, l := range links {
		c := &cp.chains[l>>1]
		if l&1 == 1 {
			for i := c.first; i < c.end; i++ {
				f(&cp.segs[i], false)
			}
			continue
		}
		for i := c.end - 1; i >= c.first; i-- {
			f(&cp.segs[i], true)
		}
	}
}

// ring makes a ring of a loop unless it is too slim.
func (cp *chainer) ring(loop []link) (circuit, bool) {
	area, length := 0.0, 0.0
	o, _ := cp.ends(loop[0])
	cp.each(loop, func(s *seg, against bool) {
		p, q := s.a.sub(o).float(), s.b.sub(o).float()
		a := p.Cross(q) / 2
		if against {
			a = -a
		}
		area += a
		length += math.Abs(q.X-p.X) + math.Abs(q.Y-p.Y) // no less than it is
	})
	faint := math.Abs(area) < bend*length/2
	if faint {
		length = 0
		cp.each(loop, func(s *seg, _ bool) { length += s.b.sub(s.a).float().Len() })
		if math.Abs(area) < cp.slim*length/2 {
			return circuit{}, false
		}
	}
	return circuit{links: slices.Clone(loop), area: area, faint: faint}, true
}

// write is what the rings enclose, in the order of the sweep.
func (cp *chainer) write(rings []circuit) Path {
	var b Builder
	kept := rings[:0]
	for _, r := range rings {
		n := 0
		for _, l := range r.links {
			n += int(cp.chains[l>>1].end - cp.chains[l>>1].first)
		}
		steps, srcs := again(cp.room.steps, n), again(cp.room.sources, n)
		cp.room.steps, cp.room.sources = steps, srcs
		k := 0
		cp.each(r.links, func(s *seg, against bool) {
			srcs[k] = cp.source(*s, against)
			from, to := s.a, s.b
			if against {
				from, to = to, from
			}
			steps[k] = step{from: from, to: to, src: srcs[k : k+1 : k+1]}
			k++
		})
		cp.writeSteps(&b, steps, true)
		r.path = b.Path()
		o := outline{hole: r.area < 0, faint: r.faint}
		if !o.nothing(r.path) {
			kept = append(kept, r)
		}
	}
	if len(kept) == 1 && kept[0].area > 0 {
		return kept[0].path
	}
	slices.SortStableFunc(kept, func(p, q circuit) int { return byStart(p.path, q.path) })
	var all []Path
	for i := range kept {
		if kept[i].area < 0 {
			continue
		}
		all = append(all, kept[i].path)
		for j := range kept {
			if kept[j].area < 0 && cp.around(kept, j) == i {
				all = append(all, kept[j].path)
			}
		}
	}
	return Join(all...)
}

// around is the number of the ring that a hole is in: of those around it, the least.
func (cp *chainer) around(rings []circuit, hole int) int {
	best := -1
	p := cp.probe(&cp.chains[rings[hole].links[0]>>1])
	for i := range rings {
		if rings[i].area < 0 || best >= 0 && rings[i].area > rings[best].area {
			continue
		}
		n := 0
		for _, l := range rings[i].links {
			cp.below(p, &cp.chains[l>>1], func(bool) { n++ })
		}
		if n&1 == 1 {
			best = i
		}
	}
	return best
}

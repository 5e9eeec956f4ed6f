package geom

import "slices"

// Where outlines meet in few places, most segments only lead from one meeting to the next.
// Then chains of them are classified and followed in place of the segments. The result is
// that of the sweep over all segments, to the last bit.

// chain is a run of segments, from first up to before end, along which nothing else meets
// them. Both ends are meets.
type chain struct {
	first, end int32
	path       int32
	// Whether the result covers what lies to the left, with y up, in the direction of its
	// segments and against it.
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

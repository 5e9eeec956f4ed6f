package geom

import "slices"

// A line that sweeps from left to right over the cut-up plane knows for each
// edge the one right below it. Above that one and below this lies the same
// region, so the winding numbers of every region follow from one to the next,
// up a tree whose root is the outside. The numbers of many paths are kept once
// and changed while the tree is walked.

// edge is a segment with its ends in order and all strands that run along it.
type edge struct {
	l, r         ipoint
	vl, vr       int32 // the ends as vertices, numbered in their order
	first        int32 // segments that lie here, chained by next
	pred         int32 // the edge right below, or -1
	below, above int32 // classes of the regions on either side
}

// subdivision is the labelled arrangement.
type subdivision struct {
	*arrangement
	edges    []edge
	next     []int32 // of each segment, the next on the same edge, or -1
	vertices int
	traced   bool    // which path each curve came in with is told
	slim     float64 // the mean width in grid units below which a ring is but a trace of rounding
}

// classifier tells what a region is from the paths that cover it. Class 0 is
// nothing; regions of one class that meet are one.
type classifier interface {
	turn(path int32, covered bool)
	class() int32
}

func (ar *arrangement) label(rule FillRule, c classifier) *subdivision {
	rules := make([]FillRule, ar.paths)
	for i := range rules {
		rules[i] = rule
	}
	return ar.labelEach(rules, c)
}

// labelEach is label with a rule for each path.
func (ar *arrangement) labelEach(rules []FillRule, c classifier) *subdivision {
	sd := &subdivision{arrangement: ar, slim: 2}
	sd.collect()
	sd.sweep()
	sd.classify(rules, c)
	return sd
}

// collect makes one edge of all segments in the same place, in the order of
// their left ends, from below.
func (sd *subdivision) collect() {
	sd.room.keys = again(sd.room.keys, len(sd.segs))
	sd.room.next = again(sd.room.next, len(sd.segs))
	keys := sd.room.keys
	sd.next = sd.room.next
	for i, s := range sd.segs {
		sd.next[i] = -1
		if s.b.less(s.a) {
			s.a = s.b
		}
		keys[i] = keyed{s.a.key(), int32(i)}
	}
	sortKeyed(keys)
	far := func(l ipoint, i int32) ipoint {
		if s := &sd.segs[i]; s.a == l {
			return s.b
		}
		return sd.segs[i].a
	}
	sd.room.edges = again(sd.room.edges, len(keys))
	sd.edges = sd.room.edges[:0]
	for i := 0; i < len(keys); {
		j := i + 1
		for j < len(keys) && keys[j].key == keys[i].key {
			j++
		}
		group := keys[i:j]
		s := &sd.segs[group[0].of]
		l := s.a
		if s.b.less(l) {
			l = s.b
		}
		if len(group) > 1 {
			slices.SortFunc(group, func(p, q keyed) int {
				switch d := side(l, far(l, p.of), far(l, q.of)); {
				case d > 0:
					return -1
				case d < 0:
					return 1
				}
				return int(p.of - q.of)
			})
		}
		for _, k := range group {
			r := far(l, k.of)
			if n := len(sd.edges); n > 0 && sd.edges[n-1].l == l && sd.edges[n-1].r == r {
				e := &sd.edges[n-1]
				sd.next[k.of] = e.first
				e.first = k.of
				continue
			}
			sd.edges = append(sd.edges, edge{l: l, r: r, first: k.of, pred: -1})
		}
		i = j
	}
}

// sweep finds the edge below each and numbers the vertices.
func (sd *subdivision) sweep() {
	ends := again(sd.room.keys, len(sd.edges)) // collect is done with them
	for i := range sd.edges {
		ends[i] = keyed{sd.edges[i].r.key(), int32(i)}
	}
	sortKeyed(ends)
	var status []int32 // the edges that the line crosses, from below
	i, j := 0, 0
	for j < len(ends) {
		v := sd.edges[ends[j].of].r
		if i < len(sd.edges) && sd.edges[i].l.less(v) {
			v = sd.edges[i].l
		}
		id := int32(sd.vertices)
		sd.vertices++
		for ; j < len(ends) && sd.edges[ends[j].of].r == v; j++ {
			sd.edges[ends[j].of].vr = id
		}
		first := i
		for ; i < len(sd.edges) && sd.edges[i].l == v; i++ {
			sd.edges[i].vl = id
		}
		lo, hi := 0, len(status)
		for lo < hi {
			m := int(uint(lo+hi) >> 1)
			if e := &sd.edges[status[m]]; side(e.l, e.r, v) > 0 {
				lo = m + 1
			} else {
				hi = m
			}
		}
		done := lo
		for done < len(status) && sd.edges[status[done]].r == v {
			done++
		}
		below := int32(-1)
		if lo > 0 {
			below = status[lo-1]
		}
		status = splice(status, lo, done, i-first)
		for k := first; k < i; k++ {
			sd.edges[k].pred = below
			status[lo+k-first] = int32(k)
			below = int32(k)
		}
	}
}

// splice makes room for n entries in place of those from lo to hi.
func splice(s []int32, lo, hi, n int) []int32 {
	was := len(s)
	if grow := n - (hi - lo); grow > 0 {
		s = append(s, make([]int32, grow)...)
		copy(s[hi+grow:], s[hi:was])
	} else if grow < 0 {
		copy(s[hi+grow:], s[hi:])
		s = s[:was+grow]
	}
	return s
}

// classify walks the tree of edges from below and gives both sides of each
// edge their class.
func (sd *subdivision) classify(rules []FillRule, c classifier) {
	n := len(sd.edges)
	child, sibling := make([]int32, n+1), make([]int32, n)
	for i := range child {
		child[i] = -1
	}
	for i := n - 1; i >= 0; i-- {
		p := sd.edges[i].pred
		if p < 0 {
			p = int32(n)
		}
		sibling[i], child[p] = child[p], int32(i)
	}
	w := make([]int32, sd.paths)
	wind := func(r run, sign int32) {
		was := rules[r.path].covers(w[r.path])
		w[r.path] += sign * r.delta
		if is := rules[r.path].covers(w[r.path]); is != was {
			c.turn(r.path, is)
		}
	}
	cross := func(e *edge, up int32) {
		for s := e.first; s >= 0; s = sd.next[s] {
			q := &sd.segs[s]
			sign := up
			if q.a != e.l {
				sign = -up
			}
			d := &sd.strands[q.strand]
			if d.only.path >= 0 {
				wind(d.only, sign)
			}
			for _, r := range d.runs {
				wind(r, sign)
			}
		}
	}
	at := child[n]
	var up []int32
	for at >= 0 {
		e := &sd.edges[at]
		e.below = c.class()
		cross(e, 1)
		e.above = c.class()
		if child[at] >= 0 {
			up = append(up, at)
			at = child[at]
			continue
		}
		cross(e, -1)
		for at = sibling[at]; at < 0 && len(up) > 0; {
			p := up[len(up)-1]
			up = up[:len(up)-1]
			cross(&sd.edges[p], -1)
			at = sibling[p]
		}
	}
}

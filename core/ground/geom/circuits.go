package geom

import (
	"math"
	"slices"
)

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

package geom

import (
	"math"
	"slices"
)

// half is an edge seen from the region on one of its sides: twice the number of
// the edge, plus one for the side above it. Regions are followed with
// themselves to the side of greater y when they run to greater x, which is
// clockwise on screen.
type half int32

func (h half) edge() int32 { return int32(h) >> 1 }

func (h half) rising() bool { return h&1 == 1 }

// outline is one ring around a region, or around a hole in one.
type outline struct {
	class  int32
	halves []half
	hole   bool
	faint  bool  // so slim that its curves decide whether there is anything of it
	parent int32 // of a hole, the outline around it; -1 when that was too slim
}

func (sd *subdivision) class(h half) int32 {
	if h.rising() {
		return sd.edges[h.edge()].above
	}
	return sd.edges[h.edge()].below
}

func (sd *subdivision) ends(h half) (from, to int32) {
	e := &sd.edges[h.edge()]
	if h.rising() {
		return e.vl, e.vr
	}
	return e.vr, e.vl
}

func (sd *subdivision) places(h half) (from, to ipoint) {
	e := &sd.edges[h.edge()]
	if h.rising() {
		return e.l, e.r
	}
	return e.r, e.l
}

// outlines traces the rings of all regions with a class. Every ring is simple:
// it passes no vertex twice. They are in the order of their leftmost edges.
func (sd *subdivision) outlines() []outline {
	room := &sd.room
	room.starts, room.fill, room.at = again(room.starts, sd.vertices+1), again(room.fill, sd.vertices), again(room.at, sd.vertices)
	room.ring = again(room.ring, 2*len(sd.edges))
	starts, fill := room.starts, room.fill
	clear(starts)
	each := func(f func(h half)) {
		for i := range sd.edges {
			e := &sd.edges[i]
			if e.below == e.above {
				continue
			}
			if e.below != 0 {
				f(half(2 * i))
			}
			if e.above != 0 {
				f(half(2*i + 1))
			}
		}
	}
	each(func(h half) {
		v, _ := sd.ends(h)
		starts[v+1]++
	})
	for i := 1; i < len(starts); i++ {
		starts[i] += starts[i-1]
	}
	out := make([]half, starts[sd.vertices])
	copy(fill, starts)
	each(func(h half) {
		v, _ := sd.ends(h)
		out[fill[v]] = h
		fill[v]++
	})
	t := tracer{sd: sd, starts: starts, out: out, ring: room.ring, at: room.at}
	for i := range t.ring {
		t.ring[i] = -2
	}
	for i := range t.at {
		t.at[i] = -1
	}
	each(t.trace)
	return t.nest()
}

type tracer struct {
	sd     *subdivision
	starts []int32
	out    []half  // half edges by the vertex where they start
	ring   []int32 // of each half edge, the ring it is in; -1 while traced or dropped, -2 before
	at     []int32 // where on the stack a vertex is passed, or -1
	stack  []half
	rings  []outline
}

// trace follows the region beside h around and splits what it finds where it
// passes a vertex twice.
func (t *tracer) trace(h half) {
	if t.ring[h] != -2 {
		return
	}
	t.stack = t.stack[:0]
	for t.ring[h] == -2 {
		from, to := t.sd.ends(h)
		t.ring[h] = -1
		t.at[from] = int32(len(t.stack))
		t.stack = append(t.stack, h)
		if k := t.at[to]; k >= 0 {
			loop := t.stack[k:]
			for _, q := range loop {
				v, _ := t.sd.ends(q)
				t.at[v] = -1
			}
			t.keep(loop)
			t.stack = t.stack[:k]
		}
		h = t.follow(h, to)
	}
}

// follow is the next half edge around the region: the first of its class,
// turning clockwise, with y up, from where h came.
func (t *tracer) follow(h half, v int32) half {
	class := t.sd.class(h)
	here := t.out[t.starts[v]:t.starts[v+1]]
	if len(here) == 1 {
		return here[0]
	}
	from, at := t.sd.places(h)
	back := from.sub(at)
	best, found := half(-1), ipoint{}
	for _, q := range here {
		if t.sd.class(q) != class {
			continue
		}
		_, to := t.sd.places(q)
		if d := to.sub(at); best < 0 || before(back, d, found) {
			best, found = q, d
		}
	}
	return best
}

// before reports whether, turning clockwise with y up from the direction r, p
// comes before q. r itself comes last.
func before(r, p, q ipoint) bool {
	a, b := quadrantFrom(r, p), quadrantFrom(r, q)
	if a != b {
		return a < b
	}
	return p.cross(q) < 0
}

// quadrantFrom is 0 less than half a turn clockwise from r, 1 half a turn and
// more, 2 for r's own direction.
func quadrantFrom(r, p ipoint) int {
	switch c := r.cross(p); {
	case c < 0:
		return 0
	case c == 0 && r.dot(p) > 0:
		return 2
	}
	return 1
}

// bend is how far, in grid units, the pieces of curves that are edges may lie from
// their chords: a ring whose mean width is less can have any area.
const bend = 2000

// nothing says that the ring, written out, has no area of its kind: it is but a
// trace of rounding.
func (o *outline) nothing(ring Path) bool {
	if !o.faint {
		return false
	}
	area := ring.Area()
	if o.hole {
		area = -area
	}
	return area < 1e-6*ring.Length()
}

// keep makes an outline of a loop unless it is too slim.
func (t *tracer) keep(loop []half) {
	area, length := 0.0, 0.0
	o, _ := t.sd.places(loop[0])
	for _, h := range loop {
		a, b := t.sd.places(h)
		p, q := a.sub(o).float(), b.sub(o).float()
		area += p.Cross(q) / 2
		length += q.Sub(p).Len()
	}
	if math.Abs(area) < t.sd.slim*length/2 {
		return
	}
	for _, h := range loop {
		t.ring[h] = int32(len(t.rings))
	}
	t.rings = append(t.rings, outline{class: t.sd.class(loop[0]), halves: slices.Clone(loop), hole: area < 0, faint: math.Abs(area) < bend*length/2, parent: -1})
}

// nest finds the ring around each hole: below a hole's leftmost edge lies the
// region, and below that the region's own edge, which belongs to the ring
// sought or to a hole beside.
func (t *tracer) nest() []outline {
	for i := range t.rings {
		r := &t.rings[i]
		if !r.hole {
			continue
		}
		first := r.halves[0]
		for _, h := range r.halves {
			first = min(first, h)
		}
		r.parent = -1
		for e := t.sd.edges[first.edge()].pred; e >= 0; e = t.sd.edges[e].pred {
			d := &t.sd.edges[e]
			if d.above != r.class || d.below == d.above {
				continue
			}
			// -1 here is a ring too slim to keep: go on below it.
			if k := t.ring[2*e+1]; k >= 0 {
				r.parent = k
				break
			}
		}
	}
	for i := range t.rings {
		for p := t.rings[i].parent; p >= 0 && t.rings[p].hole; p = t.rings[i].parent {
			t.rings[i].parent = t.rings[p].parent
		}
	}
	return t.rings
}

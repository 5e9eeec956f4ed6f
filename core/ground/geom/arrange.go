package geom

import (
	"context"
	"math"
	"slices"
	"sync"
	"sync/atomic"
)

// arrangement is the plane cut up by the rings of several paths.
type arrangement struct {
	grid    grid
	into    Affine  // from millimetres to the grid
	base    []Curve // the curves that came in, in millimetres
	strands []strand
	segs    []seg
	paths   int
	courses [][]course // of strokes, which are followed rather than filled
	rings   int
	uncut   bool  // nothing crosses or touches on the way
	meets   meets // where more meets than one segment and the next
	room    room
	of      []int32 // of each base curve, the path that it came in with
}

// room is what the steps after the cutting work in, kept for the next time.
type room struct {
	keys    []keyed
	next    []int32
	edges   []edge
	steps   []step
	sources []source
	list    []stretch
	out     []Segment
	// Of the tracer.
	starts, fill, ring, at []int32
}

var arrangements = sync.Pool{New: func() any { return new(arrangement) }}

// release gives the arrangement's room to the next one: nothing may point into
// it any more. Very large ones go to the collector.
func (ar *arrangement) release() {
	if len(ar.segs) > 1<<18 {
		return
	}
	clear(ar.base) // it points to arcs
	clear(ar.strands)
	clear(ar.room.out) // so does it
	*ar = arrangement{base: ar.base[:0], of: ar.of[:0], strands: ar.strands[:0], segs: ar.segs[:0], room: ar.room, meets: meets{at: ar.meets.at[:0]}}
	arrangements.Put(ar)
}

// course is a strand as a stroke runs along it.
type course struct {
	strand  int32
	against bool
}

// input is a path for the arrangement. Rings that are open are closed unless
// they are strokes.
type input struct {
	path    Path
	strokes bool
}

// arrange cuts up the plane by paths.
func arrange(inputs []input) *arrangement {
	ar, _ := arrangeIn(context.Background(), inputs) // which never ends
	return ar
}

// arrangeIn is arrange for as long as the context lasts; the error is the context's.
func arrangeIn(ctx context.Context, inputs []input) (*arrangement, error) {
	ar := arrangements.Get().(*arrangement)
	stop := &ending{ctx: ctx}
	ar.paths = len(inputs)
	rings, curvy, box := ar.read(inputs)
	ar.grid = newGrid(box)
	in := ar.grid.in()
	ar.into = in
	family := ar.family(curvy, in)
	ar.strands = again(ar.strands, len(ar.base)+len(rings))[:0]
	for _, r := range rings {
		w := walk{ar: ar, in: in, path: r.path, stroke: r.stroke, family: family}
		if len(family.cuts) == 0 && !r.stroke {
			w.whole(r.first, r.last)
			continue
		}
		for id := r.first; id < r.last; id++ {
			w.curve(id)
		}
		w.end()
	}
	ar.flatten(in, len(curvy) > 0, stop)
	ar.segs, ar.uncut = node(ar.segs, stop, &ar.meets)
	ar.rings = len(rings)
	if err := ctx.Err(); err != nil {
		ar.release()
		return nil, err
	}
	return ar, nil
}

// ring is a ring or stroke of a path, from its first base curve up to before the last.
type ring struct {
	path        int32
	first, last int32
	stroke      bool
}

// read takes in the curves of paths. It returns their rings, the numbers of the curves that
// are no lines, and the box around all.
func (ar *arrangement) read(inputs []input) (rings []ring, curvy []int32, box Rect) {
	n := 0
	for _, in := range inputs {
		n += in.path.Len()
	}
	ar.base, ar.of = again(ar.base, n)[:0], again(ar.of, n)[:0]
	var all extent
	for i, in := range inputs {
		for segs := range in.path.drawn() {
			first := int32(len(ar.base))
			ar.base = appendCurves(ar.base, segs)
			curves := ar.base[first:]
			// A ring that reaches too far is left out.
			for k := range curves {
				if !curves[k].within(combined) {
					ar.base, curves = ar.base[:first], nil
					break
				}
			}
			if len(curves) == 0 {
				continue
			}
			rings = append(rings, ring{int32(i), first, int32(len(ar.base)), in.strokes})
			all.hold(curves[0].From)
			for k := range curves {
				ar.of = append(ar.of, int32(i))
				if c := &curves[k]; c.Op == LineTo {
					all.hold(c.P[0])
				} else {
					curvy = append(curvy, first+int32(k))
					h := c.hull()
					all.hold(Point{h.X, h.Y})
					all.hold(Point{h.Right(), h.Bottom()})
				}
			}
		}
	}
	return rings, curvy, all.rect()
}

// ending tells work on many pairs that its context is over, asking now and then.
type ending struct {
	ctx  context.Context
	over atomic.Bool
}

// now reports whether the work is to end; n counts how often its caller asked.
func (e *ending) now(n *uint32) bool {
	if *n++; *n&1023 == 0 && e.ctx.Err() != nil {
		e.over.Store(true)
	}
	return e.over.Load()
}

// simple reports whether what came in is a single ring that nowhere touches
// itself and is no sliver, and whether it runs clockwise on screen.
func (ar *arrangement) simple() (clockwise, ok bool) {
	if ar.rings != 1 || !ar.uncut {
		return false, false
	}
	ar.room.keys = again(ar.room.keys, len(ar.segs))
	keys := ar.room.keys
	area, length := 0.0, 0.0
	for i, s := range ar.segs {
		keys[i] = keyed{s.a.key(), int32(i)}
		o := ar.segs[0].a
		p, q := s.a.sub(o).float(), s.b.sub(o).float()
		area += p.Cross(q) / 2
		length += q.Sub(p).Len()
	}
	sortKeyed(keys)
	for i := 1; i < len(keys); i++ {
		if keys[i].key == keys[i-1].key {
			return false, false
		}
	}
	return area > 0, math.Abs(area) >= length
}

// family is what findKin found, and the strands made of curves with kin.
type family struct {
	kin
	elders map[int32][]int32 // the earlier curves that a curve runs along
	made   map[int32][]int32 // the strands of a curve
}

func (ar *arrangement) family(curvy []int32, in Affine) *family {
	f := &family{}
	if len(curvy) > 1 {
		curves := make(map[int32]Curve, len(curvy))
		for _, id := range curvy {
			curves[id] = ar.base[id].transform(in)
		}
		f.kin = findKin(curves, curvy)
	}
	if len(f.pairs) > 0 {
		f.elders, f.made = map[int32][]int32{}, map[int32][]int32{}
		for _, p := range f.pairs {
			f.elders[p[1]] = append(f.elders[p[1]], p[0])
		}
	}
	return f
}

// walk follows one ring and makes its strands.
type walk struct {
	ar      *arrangement
	in      Affine
	path    int32
	stroke  bool
	family  *family
	begun   bool
	start   ipoint
	at      ipoint
	courses []course
}

// whole goes along curves without kin that form a ring, as curve does one by one.
func (w *walk) whole(first, last int32) {
	ar := w.ar
	start := round(w.in.Apply(ar.base[first].From))
	w.begun, w.start, w.at = true, start, start
	only := run{w.path, 1}
	for id := first; id < last; id++ {
		to := round(w.in.Apply(ar.base[id].End()))
		ar.strands = append(ar.strands, strand{base: id, t1: 1, a: w.at, b: to, only: only})
		w.at = to
	}
	w.end()
}

func (w *walk) curve(id int32) {
	cuts := w.family.cuts[id]
	if len(cuts) == 0 {
		w.own(id, 0, 1)
		return
	}
	slices.Sort(cuts)
	from := 0.0
	for _, t := range append(cuts, 1) {
		if t-from < 1e-9 {
			continue
		}
		if 1-t < 1e-9 {
			t = 1
		}
		w.stretch(id, from, t)
		from = t
	}
}

// stretch goes along an earlier curve's strand where there is one, else along
// one of its own.
func (w *walk) stretch(id int32, t0, t1 float64) {
	c := w.ar.base[id].between(t0, t1).transform(w.in)
	for _, elder := range append(w.family.elders[id], id) {
		for _, s := range w.family.made[elder] {
			d := &w.ar.strands[s]
			against, ok := coincide(w.ar.base[d.base].between(d.t0, d.t1).transform(w.in), c)
			if !ok {
				continue
			}
			w.follow(s, against)
			w.family.made[id] = append(w.family.made[id], s)
			return
		}
	}
	w.own(id, t0, t1)
	w.family.made[id] = append(w.family.made[id], int32(len(w.ar.strands)-1))
}

// own makes a new strand of the curve.
func (w *walk) own(id int32, t0, t1 float64) {
	c := &w.ar.base[id]
	a, b := c.From, c.End()
	if t0 > 0 {
		a = c.At(t0)
	}
	if t1 < 1 {
		b = c.At(t1)
	}
	w.add(id, t0, t1, round(w.in.Apply(a)), round(w.in.Apply(b)))
}

func (w *walk) add(id int32, t0, t1 float64, a, b ipoint) {
	w.ar.strands = append(w.ar.strands, strand{base: id, t0: t0, t1: t1, a: a, b: b, only: run{path: -1}})
	w.follow(int32(len(w.ar.strands)-1), false)
}

// follow goes along a strand, over a bridge if it begins elsewhere.
func (w *walk) follow(s int32, against bool) {
	d := &w.ar.strands[s]
	from, to, delta := d.a, d.b, int32(1)
	if against {
		from, to, delta = to, from, -1
	}
	if !w.begun {
		w.begun, w.start = true, from
	} else if w.at != from {
		w.bridge(from)
		d = &w.ar.strands[s]
	}
	if w.stroke {
		delta = 0
		w.courses = append(w.courses, course{s, against})
	}
	d.along(run{w.path, delta})
	w.at = to
}

// bridge is a straight strand to p.
func (w *walk) bridge(p ipoint) {
	a, b := w.at, p
	g := w.ar.grid
	w.ar.base, w.ar.of = append(w.ar.base, Curve{g.out(a), Segment{Op: LineTo, P: [3]Point{g.out(b)}}}), append(w.ar.of, w.path)
	w.add(int32(len(w.ar.base)-1), 0, 1, a, b)
}

func (w *walk) end() {
	if w.stroke {
		w.ar.courses = append(w.ar.courses, w.courses)
	} else if w.begun && w.at != w.start {
		w.bridge(w.start)
	}
}

// flatten turns strands into segments.
//
// It stays whole: the pieces of a strand are numbered by the loop before and read by the
// loop after, in buffers that are used again.
//
//gocognit:ignore
func (ar *arrangement) flatten(in Affine, curvy bool, stop *ending) {
	ar.segs = again(ar.segs, len(ar.strands))[:0]
	if !curvy {
		for i, s := range ar.strands {
			if s.a != s.b {
				ar.segs = append(ar.segs, seg{s.a, s.b, s.t0, s.t1, int32(i)})
			}
		}
		return
	}
	ps := pieces{base: ar.base, in: in, stop: stop}
	var roots []int32
	ends := make([]int32, len(ar.strands))
	boxes := make([]span, 0, len(ar.strands))
	for i, s := range ar.strands {
		if ar.base[s.base].Op == LineTo {
			// A line becomes a piece when a curve comes near.
			a, b := s.a.float(), s.b.float()
			x, y := min(a.X, b.X), min(a.Y, b.Y)
			boxes = append(boxes, hullSpan(Rect{x, y, max(a.X, b.X) - x, max(a.Y, b.Y) - y}, int32(-1-i)))
			boxes[len(boxes)-1].still = true
		} else {
			n := len(roots)
			roots = ps.roots(s.base, s.t0, s.t1, roots)
			for _, r := range roots[n:] {
				boxes = append(boxes, hullSpan(ps.tree[r].box(), r))
			}
		}
		ends[i] = int32(len(roots))
	}
	lines := map[int32]int32{}
	piece := func(of int32) int32 {
		if of >= 0 {
			return of
		}
		r, ok := lines[of]
		if !ok {
			s := &ar.strands[-1-of]
			r = ps.add(s.base, s.t0, s.t1)
			lines[of] = r
		}
		return r
	}
	eachPair(boxes, func(i, j int32) { ps.part(piece(i), piece(j)) })
	var leaves []int32
	k := 0
	for i, s := range ar.strands {
		if int(ends[i]) == k {
			if s.a != s.b {
				ar.segs = append(ar.segs, seg{s.a, s.b, s.t0, s.t1, int32(i)})
			}
			continue
		}
		leaves = leaves[:0]
		for ; k < int(ends[i]); k++ {
			leaves = ps.leaves(roots[k], leaves)
		}
		at, t := s.a, s.t0
		for j, l := range leaves {
			q := &ps.tree[l]
			b, u := q.b, q.t1
			if j == len(leaves)-1 {
				b, u = s.b, s.t1
			}
			if b == at {
				continue
			}
			ar.segs = append(ar.segs, seg{at, b, t, u, int32(i)})
			at, t = b, u
		}
	}
}

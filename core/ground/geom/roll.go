package geom

import (
	"math"
	"slices"
	"sync"
)

// The outline of an offset by d is where the centre of a disc of radius |d| runs that
// rolls along the ring without overlapping it. What such a disc cannot touch, the foot of a
// dent narrower than the disc or the chords of a bay of about its radius, adds nothing to
// the offset, but the raw curves of it run to and fro and cross each other as often as the
// square of their number. So before a raw curve is written, what lies beneath a disc that
// touches its two neighbours at once is taken out, and the neighbours' curves end in the
// disc's centre. That is as if the dent were filled up to the disc, which is part of the
// closing of the inside by that disc (Serra, "Image analysis and mathematical morphology",
// 1982), and the offset of a closing is that of the set itself. Filling widens the inside
// only where no disc reaches without meeting the dent's sides, so the number of parts that
// Offset counts stays zero where it was zero, and positive where it was positive.

// facet is a part of a ring that a rolling disc may touch.
type facet struct {
	kind       facetKind
	curve      int32 // of the ring; for corners the one before; -1 when taken out
	prev, next int32
	// A straight one runs from at along dir, a unit vector; out leads to its offset. A
	// vertex lies at at; its arc begins at the angle start, radians.
	at, dir, out  Point
	length, start float64
	// What is left of its offset: mm along a straight one, radians along an arc.
	from, to float64
	// linked says that its offset ends at joint, where that of the next one begins.
	linked bool
	joint  Point
}

type facetKind uint8

const (
	straight facetKind = iota
	vertex             // an outward corner that an arc goes round
	square             // an outward corner that none goes round
	curved
)

// fewFacets is how many straight parts a ring has for which leaving some out does not pay.
const fewFacets = 16

// maxDent is how many facets are taken out at a time at the most: the sides of a dent need
// not go one by one.
const maxDent = 32

// widestMouth is how wide the mouth of what is taken out is at most, in radii.
const widestMouth = 1.9

// roller is the facets of one ring.
type roller struct {
	d         float64
	r         float64 // |d|
	list      []facet
	left      int // in the list
	straights int
}

var rollers = sync.Pool{New: func() any { return new(roller) }}

// facets lists what a disc rolls along: the curves of a closed ring and its outward
// corners.
func (o *offsetter) facets(cs []Curve) *roller {
	w := rollers.Get().(*roller)
	*w = roller{d: o.d, r: math.Abs(o.d), list: again(w.list, 2*len(cs))[:0]}
	for i, c := range cs {
		f := facet{kind: curved, curve: int32(i), at: c.From}
		if c.Op == LineTo {
			v := c.P[0].Sub(c.From)
			f.kind, f.length = straight, v.Len()
			f.to, f.dir = f.length, v.Mul(1/f.length)
			f.out = outward(f.dir).Mul(o.d)
			w.straights++
		}
		w.list = append(w.list, f)
		next := cs[(i+1)%len(cs)]
		t0, t1 := c.Tangent(1), next.Tangent(0)
		cross, dot := t0.Cross(t1), t0.Dot(t1)
		switch {
		case !turnsOut(cross, dot, o.d) || c.Op == LineTo && next.Op == LineTo && o.sharp(cross, dot):
		case o.corner == RoundCorner:
			n0 := outward(t0).Mul(o.d)
			w.list = append(w.list, facet{
				kind: vertex, curve: int32(i), at: next.From, start: math.Atan2(n0.Y, n0.X), to: math.Abs(math.Atan2(cross, dot)),
			})
		default:
			w.list = append(w.list, facet{kind: square, curve: int32(i)})
		}
	}
	w.left = len(w.list)
	for i := range w.list {
		w.list[i].prev, w.list[i].next = int32((i+w.left-1)%w.left), int32((i+1)%w.left)
	}
	return w
}

// turnsOut reports whether an offset by d has a gap at a corner whose tangents have the
// given products.
func turnsOut(cross, dot, d float64) bool {
	return (cross*d > 0 || dot < -.999999) && !(cross*cross < 1e-18 && dot > 0)
}

// sharp reports whether an outward corner between two lines is left sharp: it steps out too
// little for an arc.
func (o *offsetter) sharp(cross, dot float64) bool {
	if o.corner == BevelCorner || dot < .2 {
		return false
	}
	return math.Abs(o.d)*(1/math.Sqrt((1+dot)/2)-1) < o.cornerTolerance()
}

// pos is a place on what a facet is offset to.
func (w *roller) pos(f *facet, x float64) Point {
	if f.kind == straight {
		return f.at.Add(f.out).Add(f.dir.Mul(x))
	}
	s, c := math.Sincos(f.start + math.Copysign(x, w.d))
	return f.at.Add(Point{c, s}.Mul(w.r))
}

// touch is where a disc centred on a facet's offset touches the facet.
func (f *facet) touch(x float64) Point {
	if f.kind == straight {
		return f.at.Add(f.dir.Mul(x))
	}
	return f.at
}

// cross is where the offset of a, followed onward, enters the disc or the side that b
// covers, at x along a and y along b.
func (w *roller) cross(a, b *facet) (c Point, x, y float64, ok bool) {
	switch {
	case a.kind == straight && b.kind == straight:
		den := a.dir.Cross(b.dir)
		if den*w.d > -1e-9*w.r {
			return c, 0, 0, false
		}
		x = b.at.Add(b.out).Sub(a.at).Sub(a.out).Cross(b.dir) / den
		c = w.pos(a, x)
	case a.kind == straight:
		x, ok = w.onLine(a, b.at, -1)
		c = w.pos(a, x)
	case b.kind == straight:
		y, ok = w.onLine(b, a.at, 1)
		c = w.pos(b, y)
	default:
		v := b.at.Sub(a.at)
		h := w.r*w.r - v.Dot(v)/4
		if h <= 0 || v.Dot(v) < 1e-18 {
			return c, 0, 0, false
		}
		// Where the one arc enters the other's disc lies to the side that the ring's
		// offset does.
		c = a.at.Lerp(b.at, .5).Add(outward(v).Mul(math.Copysign(math.Sqrt(h/v.Dot(v)), w.d)))
	}
	if a.kind == straight != (b.kind == straight) && !ok {
		return c, 0, 0, false
	}
	if a.kind == vertex {
		x = w.along(a, c)
	} else if b.kind == vertex {
		x = c.Sub(a.at).Dot(a.dir)
	}
	if b.kind == vertex {
		y = w.along(b, c)
	} else {
		y = c.Sub(b.at).Dot(b.dir)
	}
	return c, x, y, true
}

// onLine is where the offset of a straight facet enters (side -1) or leaves (side 1) the
// disc about a place.
func (w *roller) onLine(f *facet, centre Point, side float64) (x float64, ok bool) {
	v := centre.Sub(f.at).Sub(f.out)
	foot, away := v.Dot(f.dir), v.Cross(f.dir)
	h := w.r*w.r - away*away
	if h <= 0 {
		return 0, false
	}
	return foot + side*math.Sqrt(h), true
}

// along is how far along the arc of a vertex a place lies, in radians; just before its
// begin is a little less than 0.
func (w *roller) along(f *facet, c Point) float64 {
	v := c.Sub(f.at)
	a := math.Mod((math.Atan2(v.Y, v.X)-f.start)*math.Copysign(1, w.d), 2*math.Pi)
	if a < -1e-9 {
		a += 2 * math.Pi
	}
	if a > 2*math.Pi-1e-9 {
		a -= 2 * math.Pi
	}
	return a
}

// holds reports whether x is on what is left of a facet's offset.
func (f *facet) holds(x float64) bool { return x >= f.from-1e-12 && x <= f.to+1e-12 }

// link ends the offset of a and begins that of b at c.
func (w *roller) link(a, b *facet, c Point, x, y float64) {
	a.to, b.from, a.linked, a.joint = x, y, true, c
}

// trim lets the offsets of straight neighbours end where they cross: at an inward corner,
// a step back that is shorter than half of either, or a little outward, at one that is left
// sharp. It spares loops that would be taken out again.
func (w *roller) trim(o *offsetter) {
	for i := range w.list {
		a := &w.list[i]
		b := &w.list[a.next]
		if a.kind != straight || b.kind != straight {
			continue
		}
		cross, dot := a.dir.Cross(b.dir), a.dir.Dot(b.dir)
		step := math.Abs(w.d*cross) / (1 + dot) // tan(θ/2) = sin θ/(1 + cos θ)
		if dot < .2 {
			continue
		}
		if cross*w.d > 0 {
			step = -step // one that is left sharp
		} else if 2*step > min(a.length, b.length) {
			continue
		}
		w.link(a, b, b.at.Add(a.out.Add(b.out).Mul(1/(1+dot))), a.to-step, step)
	}
}

// roll takes out what the disc cannot touch, a few facets at a time and then more.
func (w *roller) roll() {
	w.take(4)
	for i := range w.list {
		if f := &w.list[i]; f.curve >= 0 && f.stopped(w) {
			w.bridge(f.next, 0)
		}
	}
	w.take(maxDent)
}

// stopped says that a side ends at an inward corner where the offset of the next does not
// begin.
func (f *facet) stopped(w *roller) bool {
	return f.kind == straight && !f.linked && w.list[f.next].kind == straight
}

// take takes out up to most facets at a time.
func (w *roller) take(most int) {
	todo := w.dents(most)
	for len(todo) > 0 {
		i := todo[len(todo)-1]
		todo = todo[:len(todo)-1]
		if w.list[i].curve < 0 {
			continue
		}
		for n := 1; n <= most && w.left > n+3; n++ {
			if w.bridge(i, n) {
				todo = append(todo, w.list[i].next, w.list[i].prev)
				break
			}
		}
	}
}

// dents are the facets, the first of them last, from which an inward corner at which the
// offsets of two sides do not meet is not farther than most: what is to be taken out
// holds one.
func (w *roller) dents(most int) []int32 {
	var out []int32
	far := most
	for k := 2*len(w.list) - 1; k >= 0; k-- { // once round to find the last of them
		i := k % len(w.list)
		f := &w.list[i]
		if f.curve < 0 {
			continue
		}
		far++
		if f.stopped(w) {
			far = 0
		}
		if k < len(w.list) && far < most {
			out = append(out, int32(i))
		}
	}
	return out
}

// bridge takes out n facets from the i-th on and reports whether that could be done; with
// none it lets the offsets on both sides of the corner before it end where they cross.
func (w *roller) bridge(i int32, n int) bool {
	from, to := w.list[i].prev, i
	a := &w.list[from]
	if a.kind > vertex {
		return false
	}
	for range n {
		if w.list[to].kind > vertex {
			return false
		}
		to = w.list[to].next
	}
	b := &w.list[to]
	if b.kind > vertex {
		return false
	}
	c, x, y, ok := w.cross(a, b)
	if !ok || !a.holds(x) || !b.holds(y) {
		return false
	}
	// The dent is too small for a disc to lie in it. One that came in at the mouth, touching
	// neither p nor q, would have its centre .62 radii from c or more, since the circles
	// meet within the mouth, and so 1.2 squares of the radius of it would lie in the dent.
	p, q := a.touch(x), b.touch(y)
	if n > 0 && q.Sub(p).Len() > widestMouth*w.r {
		return false
	}
	at, area := a.end(), 0.0
	for k := i; k != to; k = w.list[k].next {
		f := &w.list[k]
		if !w.clears(f, c) {
			return false
		}
		next := f.end()
		area += at.Sub(p).Cross(next.Sub(p)) / 2
		at = next
	}
	area += at.Sub(p).Cross(b.at.Sub(p))/2 + b.at.Sub(p).Cross(q.Sub(p))/2
	if math.Abs(area) > w.r*w.r {
		return false
	}
	for k := i; k != to; {
		f := &w.list[k]
		k = f.next
		f.curve, f.prev, f.next = -1, from, to
		w.left--
	}
	w.link(a, b, c, x, y)
	a.next, b.prev = to, from
	return true
}

// end is where a facet ends on the ring.
func (f *facet) end() Point {
	if f.kind == straight {
		return f.touch(f.length)
	}
	return f.at
}

// clears reports whether a disc about c that touches the facets on both sides of one leaves
// it beneath.
func (w *roller) clears(f *facet, c Point) bool {
	closest := f.at
	if f.kind == straight {
		closest = foot(c, f.at, f.end())
	}
	return closest.Sub(c).Len() >= w.r-1e-10
}

// write writes the offsets of what is left, one after another.
func (w *roller) write(o *offsetter, cs []Curve) {
	o.segs = slices.Grow(o.segs, w.left+2)
	first := 0
	for w.list[first].curve < 0 {
		first++
	}
	for i := int32(first); ; {
		f := &w.list[i]
		switch begin := &w.list[f.prev]; {
		case begin.linked:
			o.to(begin.joint)
		case f.kind == curved:
			o.to(f.at.Add(outward(cs[f.curve].Tangent(0)).Mul(w.d)))
		case f.kind != square:
			o.to(w.pos(f, f.from))
		}
		end := f.joint
		if !f.linked && f.kind <= vertex {
			end = w.pos(f, f.to)
		}
		switch f.kind {
		case straight:
			o.to(end)
		case vertex:
			a0, a1 := f.start+math.Copysign(f.from, w.d), f.start+math.Copysign(f.to, w.d)
			if end.Sub(o.at).Len() > 1e-9 || f.to-f.from > 1 {
				o.round(f.at, w.r, a0, a1, end)
			}
		case square:
			o.join(cs[f.curve], cs[(int(f.curve)+1)%len(cs)])
		case curved:
			o.curve(cs[f.curve])
		}
		if i = f.next; i == int32(first) {
			return
		}
	}
}

package geom

import (
	"cmp"
	"math"
	"math/bits"
	"slices"
	"sync"
)

// Everything that combines outlines works on a grid of whole numbers, where
// the side of a line that a point lies on is known exactly. The unit is 2^-20
// mm, just under a nanometre, for outlines up to a metre across, and a larger
// power of two beyond, so that places keep to 29 bits and products to 62.
const (
	gridBits  = 29
	gridScale = 1 << 20
)

type ipoint struct{ x, y int32 }

func (p ipoint) sub(q ipoint) ipoint { return ipoint{p.x - q.x, p.y - q.y} }

// less orders points by x, then y.
func (p ipoint) less(q ipoint) bool { return p.x < q.x || p.x == q.x && p.y < q.y }

func (p ipoint) compare(q ipoint) int { return cmp.Or(cmp.Compare(p.x, q.x), cmp.Compare(p.y, q.y)) }

// quarter is the point turned by a quarter about the origin.
func (p ipoint) quarter() ipoint { return ipoint{p.y, -p.x} }

// hash is a number of 9 bits and more that differs for most points. It tells points that are
// not of a few, never that two are one.
func (p ipoint) hash() uint32 { return (uint32(p.x)*0x9e3779b1 ^ uint32(p.y)*0x85ebca6b) >> 20 }

func (p ipoint) cross(q ipoint) int64 { return int64(p.x)*int64(q.y) - int64(p.y)*int64(q.x) }

func (p ipoint) dot(q ipoint) int64 { return int64(p.x)*int64(q.x) + int64(p.y)*int64(q.y) }

func (p ipoint) float() Point { return Point{float64(p.x), float64(p.y)} }

// side is positive when c lies to the side of greater y of a line that runs
// from a to greater x.
func side(a, b, c ipoint) int64 { return b.sub(a).cross(c.sub(a)) }

// grid maps millimetres to grid units. Its lines lie in the same places
// whatever is combined, so that what is cut twice is cut alike.
type grid struct {
	origin Point
	scale  float64
}

func newGrid(box Rect) grid {
	g := grid{scale: gridScale}
	half := max(box.W, box.H)/2 + 2
	for half*g.scale >= 1<<gridBits {
		g.scale /= 2
	}
	step := max(1, 1/g.scale)
	c := box.Centre()
	g.origin = Point{math.Round(c.X/step) * step, math.Round(c.Y/step) * step}
	return g
}

// in maps to grid units without rounding.
func (g grid) in() Affine { return Shift(-g.origin.X, -g.origin.Y).Then(Scale(g.scale, g.scale)) }

func (g grid) out(p ipoint) Point {
	return Point{float64(p.x)/g.scale + g.origin.X, float64(p.y)/g.scale + g.origin.Y}
}

// round is the grid point next to a place in grid units.
func round(p Point) ipoint {
	return ipoint{int32(math.Floor(p.X + .5)), int32(math.Floor(p.Y + .5))}
}

// meet is the grid point next to the crossing of the lines ab and cd, which
// must cross: exact in 128 bits, and the same whichever line comes first.
func meet(a, b, c, d ipoint) ipoint {
	v, w := b.sub(a), d.sub(c)
	num, den := c.sub(a).cross(w), v.cross(w)
	if den < 0 {
		num, den = -num, -den
	}
	return ipoint{a.x + mulDiv(v.x, num, den), a.y + mulDiv(v.y, num, den)}
}

// mulDiv is floor(k·num/den + 1/2) for 0 ≤ num ≤ den.
func mulDiv(k int32, num, den int64) int32 {
	hi, lo := bits.Mul64(uint64(max(k, -k)), uint64(num))
	q, r := bits.Div64(hi, lo, uint64(den))
	up := 2*r >= uint64(den)
	if k < 0 {
		// floor(-v + 1/2): an exact half goes up, that is toward zero.
		up = 2*r > uint64(den)
		if up {
			q++
		}
		return -int32(q)
	}
	if up {
		q++
	}
	return int32(q)
}

// key packs a point so that keys are in the order of less.
func (p ipoint) key() uint64 {
	const half = 1 << (gridBits + 1)
	return uint64(int64(p.x)+half)<<32 | uint64(int64(p.y)+half)
}

// keyed is a sort key and what it belongs to.
type keyed struct {
	key uint64
	of  int32
}

// sorter is the room that sortKeyed works in.
type sorter struct {
	a, b  []uint64
	list  []keyed
	count [3][1 << 11]int32
}

var sorters = sync.Pool{New: func() any { return new(sorter) }}

// sortKeyed sorts by key, equal keys by their order in the list. Longer lists
// go by radix over the upper half, which is x in keys of points, with the place
// in the list for the lower; runs of one x are then sorted by themselves.
func sortKeyed(list []keyed) {
	compare := func(a, b keyed) int { return cmp.Compare(a.key, b.key) }
	if len(list) < 64 {
		slices.SortStableFunc(list, compare)
		return
	}
	s := sorters.Get().(*sorter)
	defer sorters.Put(s)
	s.a, s.b, s.list = again(s.a, len(list)), again(s.b, len(list)), again(s.list, len(list))
	const width, mask = 11, 1<<11 - 1
	clear(s.count[0][:])
	clear(s.count[1][:])
	clear(s.count[2][:])
	for i := range list {
		x := list[i].key >> 32
		s.a[i] = x<<32 | uint64(i)
		s.count[0][x&mask]++
		s.count[1][x>>width&mask]++
		s.count[2][x>>(2*width)&mask]++
	}
	from, to := s.a, s.b
	for k := range s.count {
		count, shift := &s.count[k], 32+width*k
		if count[from[0]>>shift&mask] == int32(len(list)) {
			continue // all alike here
		}
		at := int32(0)
		for i, n := range count {
			count[i], at = at, at+n
		}
		for _, v := range from {
			slot := &count[v>>shift&mask]
			to[*slot] = v
			*slot++
		}
		from, to = to, from
	}
	copy(s.list, list)
	for i, v := range from {
		list[i] = s.list[uint32(v)]
	}
	for i := 0; i < len(list); {
		j := i + 1
		for j < len(list) && list[j].key>>32 == list[i].key>>32 {
			j++
		}
		if j > i+1 {
			slices.SortStableFunc(list[i:j], compare)
		}
		i = j
	}
}

// span is a box with whole numbers that holds a segment or a piece. Pairs of two
// still ones are of no interest.
type span struct {
	x0, y0, x1, y1 int32
	of             int32
	still          bool
}

func (s *span) touches(o *span) bool {
	return o.x0 <= s.x1 && s.x0 <= o.x1 && o.y0 <= s.y1 && s.y0 <= o.y1
}

// hold grows the box to hold another.
func (s *span) hold(o *span) {
	s.x0, s.x1 = min(s.x0, o.x0), max(s.x1, o.x1)
	s.y0, s.y1 = min(s.y0, o.y0), max(s.y1, o.y1)
}

// fewMoving is how many boxes that move are fewer than need an order.
const fewMoving = 48

// eachPair calls f for every two boxes that touch, once, in an order that
// depends on the boxes alone. Boxes are met from left to right, each against
// those that it still may touch; these are kept in strips as high as boxes are
// on average, so that short ones meet few.
func eachPair(boxes []span, f func(a, b int32)) {
	p := pairers.Get().(*pairer)
	defer pairers.Put(p)
	p.each(boxes, f, nil)
}

var pairers = sync.Pool{New: func() any { return new(pairer) }}

// pairer is eachPair with room that can be used again.
type pairer struct {
	order  []int32
	counts []int32
	room   []int32
	stands []span
	open   [][]span
}

// each calls f for every two boxes that touch. Where there are many, what lies
// in one half of the strips may go to g instead, at the same time.
//
// It stays whole: its two passes share the strips and their scratch buffers, and a call for
// each box would cost a third of its time.
//
//gocognit:ignore
func (p *pairer) each(boxes []span, f, g func(a, b int32)) {
	if len(boxes) < 2 {
		return
	}
	moving := 0
	all := boxes[0]
	for i := range boxes {
		if !boxes[i].still {
			moving++
		}
		all.hold(&boxes[i])
	}
	if moving < fewMoving {
		eachPairWithFew(boxes, f)
		return
	}
	if len(boxes) > 2000 && moving < len(boxes)/2 {
		boxes = nearMoving(boxes, all)
	}
	sum := 0.0
	for i := range boxes {
		b := &boxes[i]
		sum += float64(b.y1-b.y0) + 1
	}
	order := p.fromTheLeft(boxes, all)
	height := float64(all.y1-all.y0) + 1
	n := max(1, int(min(height/(sum/float64(len(boxes))), float64(len(boxes))/8, 1024)))
	scale := float64(n) / height
	strip := func(y int32) int { return min(int(float64(y-all.y0)*scale), n-1) }
	// Room for all that ever stand in each strip.
	p.room = again(p.room, n+1)
	room := p.room
	clear(room)
	for i := range boxes {
		b := &boxes[i]
		for s, last := strip(b.y0), strip(b.y1); s <= last; s++ {
			room[s+1]++
		}
	}
	for s := range n {
		room[s+1] += room[s]
	}
	p.stands, p.open = again(p.stands, int(room[n])), again(p.open, n)
	stands, open := p.stands, p.open
	for s := range open {
		open[s] = stands[room[s]:room[s]:room[s+1]]
	}
	meet := func(from, to int, f func(a, b int32)) {
		for _, k := range order {
			b := &boxes[k]
			first := strip(b.y0)
			for s, last := max(first, from), min(strip(b.y1), to); s <= last; s++ {
				at, n := open[s], 0
				for i := range at {
					o := &at[i]
					if o.x1 < b.x0 {
						continue // behind it
					}
					if n != i {
						at[n] = *o
					}
					n++
					// Two that share several strips are reported in the first.
					if o.y0 <= b.y1 && b.y0 <= o.y1 && !(o.still && b.still) && (s == first || s == strip(o.y0)) {
						f(o.of, b.of)
					}
				}
				open[s] = append(at[:n], *b)
			}
		}
	}
	if g == nil || len(boxes) < 1000 || n < 2 {
		meet(0, n-1, f)
		return
	}
	// Half of all that stand anywhere for each.
	half := 1
	for half < n-1 && room[half] < room[n]/2 {
		half++
	}
	var done sync.WaitGroup
	done.Go(func() { meet(half, n-1, g) })
	meet(0, half-1, f)
	done.Wait()
}

// fromTheLeft are the numbers of the boxes in the order of their left sides; those that
// begin in one place keep theirs. all is around them.
func (p *pairer) fromTheLeft(boxes []span, all span) []int32 {
	// Strips of equal width with a few boxes each, and these sorted by themselves.
	const few = 4
	n := len(boxes)/few + 1
	p.counts = again(p.counts, n+1)
	counts := p.counts
	clear(counts)
	scale := float64(n) / (float64(all.x1-all.x0) + 1)
	strip := func(b *span) int { return min(int(float64(b.x0-all.x0)*scale), n-1) }
	for i := range boxes {
		counts[strip(&boxes[i])+1]++
	}
	for i := range n {
		counts[i+1] += counts[i]
	}
	p.order = again(p.order, len(boxes))
	order := p.order
	for i := range boxes {
		at := &counts[strip(&boxes[i])]
		order[*at] = int32(i)
		*at++
	}
	first := int32(0)
	for _, end := range counts[:n] { // each count has become the end of its strip
		if part := order[first:end]; len(part) > 1 {
			sortFromTheLeft(boxes, part)
		}
		first = end
	}
	return order
}

func sortFromTheLeft(boxes []span, part []int32) {
	if len(part) > 16 {
		slices.SortStableFunc(part, func(a, b int32) int { return cmp.Compare(boxes[a].x0, boxes[b].x0) })
		return
	}
	for i := 1; i < len(part); i++ {
		k := part[i]
		j := i
		for ; j > 0 && boxes[part[j-1]].x0 > boxes[k].x0; j-- {
			part[j] = part[j-1]
		}
		part[j] = k
	}
}

// again is a slice of n, of the room there is if it suffices.
func again[T any](s []T, n int) []T {
	if cap(s) < n {
		return make([]T, n, n+n/4)
	}
	return s[:n]
}

// nearMoving are the boxes that move and those in whose neighbourhood one does,
// by a coarse chequerboard.
func nearMoving(boxes []span, all span) []span {
	const n = 128
	var board [n][n]bool
	sx, sy := n/(float64(all.x1-all.x0)+1), n/(float64(all.y1-all.y0)+1)
	cells := func(b *span, f func(cell *bool)) {
		for y := int(float64(b.y0-all.y0) * sy); y <= int(float64(b.y1-all.y0)*sy); y++ {
			for x := int(float64(b.x0-all.x0) * sx); x <= int(float64(b.x1-all.x0)*sx); x++ {
				f(&board[y][x])
			}
		}
	}
	for i := range boxes {
		if !boxes[i].still {
			cells(&boxes[i], func(c *bool) { *c = true })
		}
	}
	var out []span
	for i := range boxes {
		near := !boxes[i].still
		if !near {
			cells(&boxes[i], func(c *bool) { near = near || *c })
		}
		if near {
			out = append(out, boxes[i])
		}
	}
	return out
}

// eachPairWithFew is eachPair where few boxes move: each is held against all.
func eachPairWithFew(boxes []span, f func(a, b int32)) {
	for i := range boxes {
		b := &boxes[i]
		if b.still {
			continue
		}
		for j := range boxes {
			o := &boxes[j]
			if b.touches(o) && (o.still || j > i) {
				f(b.of, o.of)
			}
		}
	}
}

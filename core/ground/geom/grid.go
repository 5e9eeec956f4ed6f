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

func (p ipoint) add(q ipoint) ipoint { return ipoint{p.x + q.x, p.y + q.y} }

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

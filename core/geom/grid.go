package geom

import (
	"cmp"
	"math"
	"math/bits"
	"slices"
)

// Everything that combines outlines works on a grid of whole numbers, where
// the side of a line that a point lies on is known exactly. The unit is 2^-20
// mm, just under a nanometre, for outlines up to a metre across, and a larger
// power of two beyond, so that places keep to 29 bits and products to 62.
const (
	gridBits  = 29
	gridScale = 1 << 20
)

type ipoint struct{ x, y int64 }

func (p ipoint) sub(q ipoint) ipoint { return ipoint{p.x - q.x, p.y - q.y} }

// less orders points by x, then y.
func (p ipoint) less(q ipoint) bool { return p.x < q.x || p.x == q.x && p.y < q.y }

func (p ipoint) cross(q ipoint) int64 { return p.x*q.y - p.y*q.x }

func (p ipoint) dot(q ipoint) int64 { return p.x*q.x + p.y*q.y }

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
	return ipoint{int64(math.Floor(p.X + .5)), int64(math.Floor(p.Y + .5))}
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
func mulDiv(k, num, den int64) int64 {
	hi, lo := bits.Mul64(uint64(max(k, -k)), uint64(num))
	q, r := bits.Div64(hi, lo, uint64(den))
	up := 2*r >= uint64(den)
	if k < 0 {
		// floor(-v + 1/2): an exact half goes up, that is toward zero.
		up = 2*r > uint64(den)
		if up {
			q++
		}
		return -int64(q)
	}
	if up {
		q++
	}
	return int64(q)
}

// key packs a point so that keys are in the order of less.
func (p ipoint) key() uint64 {
	const half = 1 << (gridBits + 1)
	return uint64(p.x+half)<<32 | uint64(p.y+half)
}

// keyed is a sort key and what it belongs to.
type keyed struct {
	key uint64
	of  int32
}

// sortKeyed sorts by key, equal keys by what they belong to. Long lists go by
// radix, eleven bits at a time, passes that would change nothing left out.
func sortKeyed(list []keyed) []keyed {
	if len(list) < 512 {
		slices.SortFunc(list, func(a, b keyed) int {
			if c := cmp.Compare(a.key, b.key); c != 0 {
				return c
			}
			return cmp.Compare(a.of, b.of)
		})
		return list
	}
	const width = 11
	var differ uint64
	for _, k := range list {
		differ |= k.key ^ list[0].key
	}
	to := make([]keyed, len(list))
	for shift := 0; shift < 64; shift += width {
		if differ>>shift&(1<<width-1) == 0 {
			continue
		}
		var count [1<<width + 1]int32
		for _, k := range list {
			count[k.key>>shift&(1<<width-1)+1]++
		}
		for i := 1; i < len(count); i++ {
			count[i] += count[i-1]
		}
		for _, k := range list {
			slot := &count[k.key>>shift&(1<<width-1)]
			to[*slot] = k
			*slot++
		}
		list, to = to, list
	}
	return list
}

// span is a box with whole numbers that holds a segment or a piece.
type span struct {
	x0, y0, x1, y1 int32
	of             int32
}

// eachPair calls f for every two boxes that touch, once. Boxes are met from
// left to right, each against those that it still may touch.
func eachPair(boxes []span, f func(a, b int32)) {
	keys := make([]keyed, len(boxes))
	for i, b := range boxes {
		keys[i] = keyed{uint64(int64(b.x0) + 1<<31), int32(i)}
	}
	keys = sortKeyed(keys)
	var open []span
	for _, k := range keys {
		b := boxes[k.of]
		n := 0
		for _, o := range open {
			if o.x1 < b.x0 {
				continue
			}
			open[n] = o
			n++
			if o.y0 <= b.y1 && b.y0 <= o.y1 {
				f(o.of, b.of)
			}
		}
		open = append(open[:n], b)
	}
}

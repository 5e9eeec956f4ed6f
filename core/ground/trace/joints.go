package trace

import (
	"math"
	"slices"

	"sectilis/core/ground/geom"
)

// joint is a place where lines and curves of an outline may meet: a corner, with a direction
// for each side, or a smooth place, with one.
type joint struct {
	at     int // the place of the chain nearest to it
	p      geom.Point
	dir    geom.Point // at a smooth place, of length 1
	corner bool
	// before and after are the last and the first place that tell how the outline runs to a
	// corner: those nearer are rounded by the pixels.
	before, after int
}

// windows are how far from a corner its sides are looked at, pixels.
var windows = [...]float64{48, 32, 22, 15, 11, 8, 5.5}

// cornerAt looks for a corner at a place of the polygon: the sides before and after, each as
// a cubic polynomial, meet at an angle, and the edge comes as near to where they meet as the pixels'
// rounding allows.
func (c *chain) cornerAt(v int, o Options) (joint, bool) {
	slack := o.Smooth - Fine
	gaps := [...]float64{1.7, 1.7, 1.7, 2.4, 3.4}
	for n, gap := range gaps {
		gap += slack
		left, okLeft := c.side(v, -1, gap, o)
		right, okRight := c.side(v, 1, gap, o)
		if !okLeft || !okRight {
			return joint{}, false
		}
		p, ok := meet(left, right, c.pts[v])
		if !ok || p.Sub(c.pts[v]).Len() > 6+4*o.Smooth {
			return joint{}, false
		}
		ul, _ := left.frame(p)
		ur, _ := right.frame(p)
		a, b := left.tangent(ul), right.tangent(ur)
		turn := math.Abs(math.Atan2(a.Cross(b), a.Dot(b)))
		at, near := c.nearest(v, p)
		// Half of a pixel's area is covered where a corner of the angle π - turn is as wide
		// as half a pixel. Nearer than a little more the sides are rounded.
		round := .04 + .25*math.Tan(turn/2)
		clear := min(round+1.3, 5) + slack
		if n < len(gaps)-1 && (abs(at-v) > 1 || clear > gap+.3) {
			v = at // look again from there, or from farther
			continue
		}
		if turn < o.Corner || near > round*2+.3+slack {
			return joint{}, false
		}
		j := joint{at: at, p: p, corner: true, before: at, after: at}
		for j.before > 0 && c.pts[j.before].Sub(p).Len() < clear && at-j.before < c.n/4 {
			j.before--
		}
		for j.after < len(c.pts)-1 && c.pts[j.after].Sub(p).Len() < clear && j.after-at < c.n/4 {
			j.after++
		}
		return j, true
	}
	return joint{}, false
}

// side is the polynomial along one side of a place, from gap pixels away on: over the longest
// stretch that it fits.
func (c *chain) side(v, step int, gap float64, o Options) (bend, bool) {
	near := c.along(v, step, gap)
	var last bend
	ok := false
	for i, w := range windows {
		w *= 1 + (o.Smooth-Fine)*1.5
		if w > c.way[c.n]/4 {
			continue
		}
		far := c.along(v, step, gap+w)
		if abs(far-near) < 3 {
			continue
		}
		degree := 3
		if i > 3 {
			degree = 2 // a short stretch does not tell more
		}
		last, ok = c.bendOf(min(near, far), max(near, far), degree), true
		if last.fits(o) && math.Abs(c.lean(last, near, far)) <= .02+.3*(o.Smooth-Fine) {
			break
		}
	}
	return last, ok
}

// lean is the mean distance, to one side or the other, of the quarter of a stretch that is
// nearest to its first place from a polynomial.
func (c *chain) lean(k bend, near, far int) float64 {
	step, n := 1, abs(far-near)/4+1
	if far < near {
		step = -1
	}
	sum := 0.
	for m := range n {
		sum += k.off(c.pts[near+m*step])
	}
	return sum / float64(n)
}

// fits reports whether places lie about the polynomial as noise lets them.
func (k bend) fits(o Options) bool {
	return k.mean <= .06+.4*(o.Smooth-Fine) && k.worst <= .2+o.Smooth-Fine
}

// along is the place of the chain that lies a way before or after another.
func (c *chain) along(v, step int, way float64) int {
	i := v
	for i+step >= 0 && i+step < len(c.way) && math.Abs(c.way[i+step]-c.way[v]) <= way {
		i += step
	}
	return i
}

func abs(i int) int { return max(i, -i) }

// nearest is the place of the chain nearest to p, sought about v, and how far the chain is.
func (c *chain) nearest(v int, p geom.Point) (at int, d float64) {
	at, d = v, c.pts[v].Sub(p).Len()
	least := d
	for _, step := range [...]int{-1, 1} {
		for i := v; i > 0 && i < len(c.pts)-1 && math.Abs(c.way[i]-c.way[v]) < 8; i += step {
			if e := c.pts[i].Sub(p).Len(); e < least {
				at, least = i, e
			}
			side := c.pts[i+1].Sub(c.pts[i])
			if l := side.Dot(side); l > 0 {
				k := min(max(p.Sub(c.pts[i]).Dot(side)/l, 0), 1)
				d = min(d, c.pts[i].Lerp(c.pts[i+1], k).Sub(p).Len())
			}
		}
	}
	return at, d
}

// smoothAt is a smooth place of the chain: on the polynomial through what lies within way
// pixels of it, or farther, up to most, as long as that fits.
func (c *chain) smoothAt(v int, way, most float64, o Options) joint {
	k := c.bendOf(c.along(v, -1, way), c.along(v, 1, way), 2)
	for way *= 1.5; way < most; way *= 1.5 {
		wider := c.bendOf(c.along(v, -1, way), c.along(v, 1, way), 2)
		if !wider.fits(o) {
			break
		}
		k = wider
	}
	u, _ := k.frame(c.pts[v])
	return joint{at: v, p: k.at(u), dir: unit(k.tangent(u)), before: v, after: v}
}

// joints are the corners of a ring, and the smooth places where curves may meet: the middles
// of the polygon's edges and, where an edge is much longer than its neighbour, places toward
// its ends. They grow along the chain, from its second ring on, and go once round; the first is
// a corner if there is one.
func (c *chain) joints(polygon []int, o Options) []joint {
	var corners []joint
	for _, v := range polygon {
		j, ok := c.cornerAt(v%c.n+c.n, o)
		if !ok {
			continue
		}
		j.move(c.n + j.at%c.n - j.at)
		if !slices.ContainsFunc(corners, func(k joint) bool { return c.apart(k.at, j.at) < 1.5+2*(o.Smooth-Fine) }) {
			corners = append(corners, j)
		}
	}
	slices.SortFunc(corners, func(a, b joint) int { return a.at - b.at })
	var smooth []joint
	for i, v := range polygon {
		k := len(polygon)
		from, to := v%c.n, polygon[(i+1)%k]%c.n
		if to <= from {
			to += c.n
		}
		length := c.way[to] - c.way[from]
		for _, w := range spots(length, c.edge(polygon, i-1), c.edge(polygon, i+1)) {
			at := c.along(from, 1, w)
			at = c.n + at%c.n
			way := min(12*(1+(o.Smooth-Fine)), max(min(w, length-w)+3, 5))
			room := min(100, c.way[c.n]/16)
			for _, j := range corners {
				room = min(room, c.apart(j.at, at)-1.5)
			}
			way = min(way, room)
			if way < 1.5 {
				continue
			}
			if w != length/2 {
				room = way
			}
			smooth = append(smooth, c.smoothAt(at, way, room, o))
		}
	}
	all := append(corners, smooth...)
	slices.SortFunc(all, func(a, b joint) int { return a.at - b.at })
	// Begin at a corner.
	for i, j := range all {
		if j.corner {
			all = append(append([]joint{}, all[i:]...), all[:i]...)
			break
		}
	}
	for i := 1; i < len(all); i++ {
		for all[i].at < all[i-1].at {
			all[i].move(c.n)
		}
	}
	return all
}

// move shifts the places of a joint along the chain.
func (j *joint) move(by int) {
	j.at, j.before, j.after = j.at+by, j.before+by, j.after+by
}

// apart is the shorter way along the ring between two places, pixels.
func (c *chain) apart(i, j int) float64 {
	d := math.Abs(c.way[i%c.n] - c.way[j%c.n])
	return min(d, c.way[c.n]-d)
}

// edge is the length of an edge of the polygon.
func (c *chain) edge(polygon []int, i int) float64 {
	k := len(polygon)
	i = (i + k) % k
	from, to := polygon[i]%c.n, polygon[(i+1)%k]%c.n
	if to <= from {
		to += c.n
	}
	return c.way[to] - c.way[from]
}

// spots are the places along an edge of a length, between neighbours of others, where curves
// may meet: nearer and nearer toward an end where a much shorter edge follows, since a
// straight part that runs into a curve ends near there.
func spots(length, before, after float64) []float64 {
	out := []float64{length / 2}
	if length > 2*before {
		for d := 2.; d < length/2.5; d *= 2 {
			out = append(out, d)
		}
	}
	if length > 2*after {
		for d := 2.; d < length/2.5; d *= 2 {
			out = append(out, length-d)
		}
	}
	slices.Sort(out)
	return out
}

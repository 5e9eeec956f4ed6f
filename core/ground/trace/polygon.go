package trace

import (
	"math"

	"sectilis/core/ground/geom"
)

// chain is a closed ring of n places along an edge, written three times, so that a stretch over
// its start is a range, with the length of the way to each.
type chain struct {
	n   int
	pts []geom.Point
	way []float64
	sum []moments // of the places before each
}

type moments struct{ x, y, xx, xy, yy float64 }

func newChain(ring []geom.Point) *chain {
	n := len(ring)
	c := &chain{n: n, pts: make([]geom.Point, 3*n+1), way: make([]float64, 3*n+1), sum: make([]moments, 3*n+2)}
	for i := range c.pts {
		c.pts[i] = ring[i%n]
		if i > 0 {
			c.way[i] = c.way[i-1] + c.pts[i].Sub(c.pts[i-1]).Len()
		}
		p, s := c.pts[i].Sub(ring[0]), c.sum[i]
		c.sum[i+1] = moments{s.x + p.X, s.y + p.Y, s.xx + p.X*p.X, s.xy + p.X*p.Y, s.yy + p.Y*p.Y}
	}
	return c
}

// line is the line that lies closest to the places from i to j, in the sense of least
// squares, and the sum of the squares of their distances.
func (c *chain) line(i, j int) (mid, dir geom.Point, off float64) {
	a, b := c.sum[i], c.sum[j+1]
	k := float64(j - i + 1)
	x, y := (b.x-a.x)/k, (b.y-a.y)/k
	xx, xy, yy := (b.xx-a.xx)/k-x*x, (b.xy-a.xy)/k-x*y, (b.yy-a.yy)/k-y*y
	turn := math.Atan2(2*xy, xx-yy) / 2
	dir = geom.Pt(math.Cos(turn), math.Sin(turn))
	if dir.Dot(c.pts[j].Sub(c.pts[i])) < 0 {
		dir = dir.Mul(-1)
	}
	least := (xx+yy)/2 - math.Hypot((xx-yy)/2, xy)
	return geom.Pt(x, y).Add(c.pts[0]), dir, max(least, 0) * k
}

// reach is, for every place of the ring, the farthest that a straight edge from it can go to
// while all between are within tol of it. It grows along the ring.
func (c *chain) reach(tol float64) []int {
	far := make([]int, c.n)
	for i := range far {
		far[i] = c.reachOf(i, tol)
	}
	// An edge within an edge that does is one that does, so what starts later reaches as far.
	for range 2 {
		for i := c.n - 1; i >= 0; i-- {
			next := far[(i+1)%c.n]
			if i == c.n-1 {
				next += c.n
			}
			far[i] = max(min(far[i], next), i+1)
		}
	}
	return far
}

// reachOf narrows the directions in which every place so far is within tol: those between lo
// and hi, which turns right of lo.
func (c *chain) reachOf(i int, tol float64) int {
	from := c.pts[i]
	var lo, hi geom.Point
	open := true
	far := i + 1
	for j := i + 1; j <= i+c.n-1; j++ {
		d := c.pts[j].Sub(from)
		l2 := d.Dot(d)
		if l2 <= tol*tol {
			if open {
				far = j
			}
			continue
		}
		along := math.Sqrt(l2 - tol*tol)
		left := geom.Pt(d.X*along+d.Y*tol, d.Y*along-d.X*tol)
		right := geom.Pt(d.X*along-d.Y*tol, d.Y*along+d.X*tol)
		if open {
			lo, hi, open = left, right, false
			far = j
			continue
		}
		if lo.Cross(d) >= 0 && d.Cross(hi) >= 0 && lo.Dot(d) > 0 {
			far = j
		}
		if lo.Cross(left) > 0 {
			lo = left
		}
		if right.Cross(hi) > 0 {
			hi = right
		}
		if lo.Cross(hi) < 0 || lo.Dot(d) < 0 {
			break
		}
	}
	return far
}

// polygon is the corners, as places of the ring and growing, of a polygon with as few edges
// as can be that has every place within tol of it, and among those one that lies closest: the
// shortest way in the graph of edges that do (Imai and Iri, Polygonal approximations of a
// curve, 1988), with the squares of the distances as the second measure.
func (c *chain) polygon(tol float64) []int {
	far := c.reach(tol)
	start := c.sharpest(c.greedy(far, 0))
	return c.closest(far, c.greedy(far, start))
}

// greedy goes as far as it can with every edge, once round.
func (c *chain) greedy(far []int, start int) []int {
	var out []int
	for at := start; at < start+c.n; {
		out = append(out, at)
		at = far[at%c.n] + at/c.n*c.n
	}
	return out
}

// sharpest is the place of the corner with the largest turn.
func (c *chain) sharpest(corners []int) int {
	best, at := -1., 0
	k := len(corners)
	for i, v := range corners {
		p := c.pts[v%c.n]
		a, b := p.Sub(c.pts[corners[(i+k-1)%k]%c.n]), c.pts[corners[(i+1)%k]%c.n].Sub(p)
		if turn := math.Abs(math.Atan2(a.Cross(b), a.Dot(b))); turn > best {
			best, at = turn, v%c.n
		}
	}
	return at
}

// choices is how many places are tried for each corner.
const choices = 16

// closest moves the corners, but the first, to where the edges lie closest to the ring.
func (c *chain) closest(far []int, latest []int) []int {
	k := len(latest)
	start, end := latest[0], latest[0]+c.n
	reach := func(i int) int { return far[i%c.n] + i/c.n*c.n }
	// earliest[m] is where corner m may lie at the earliest, for the rest to reach the end.
	earliest := make([]int, k+1)
	earliest[k] = end
	for m := k - 1; m > 0; m-- {
		i := latest[m]
		for i > latest[m-1]+1 && reach(i-1) >= earliest[m+1] {
			i--
		}
		earliest[m] = i
	}
	type state struct {
		at, from int
		cost     float64
	}
	layers := make([][]state, k+1)
	layers[0] = []state{{at: start}}
	for m := 1; m <= k; m++ {
		lo, hi := earliest[m], end
		if m < k {
			hi = latest[m]
		}
		step := max(1, (hi-lo)/choices)
		for at := hi; at >= lo; at -= step {
			best := state{at: at, from: -1, cost: math.Inf(1)}
			for p, before := range layers[m-1] {
				if before.at >= at || reach(before.at) < at {
					continue
				}
				_, _, off := c.line(before.at, at)
				if before.cost+off < best.cost {
					best.from, best.cost = p, before.cost+off
				}
			}
			if best.from >= 0 {
				layers[m] = append(layers[m], best)
			}
		}
	}
	if len(layers[k]) == 0 {
		return latest
	}
	out := make([]int, k)
	at := layers[k][0]
	for m := k - 1; m >= 0; m-- {
		at = layers[m][at.from]
		out[m] = at.at
	}
	return out
}

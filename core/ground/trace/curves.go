package trace

import (
	"context"
	"math"

	"sectilis/core/ground/geom"
)

// drawRing draws one ring: few lines and cubics through its joints. What it returns once the
// context has ended is nothing to be used.
func drawRing(ctx context.Context, ring []geom.Point, o Options) geom.Path {
	c := newChain(ring)
	d := drawer{ctx: ctx, c: c, tol: o.Smooth, joints: c.joints(c.polygon(max(o.Smooth, .3)), o)}
	if len(d.joints) == 0 { // too small to tell what it is
		return geom.Fit(geom.Polyline{Points: ring, Closed: true}, min(o.Smooth, 2), math.Pi)
	}
	first := d.joints[0]
	first.move(c.n)
	d.joints = append(d.joints, first)
	var b geom.Builder
	b.Move(first.p)
	from := 0
	for to := 1; to < len(d.joints); to++ {
		if d.joints[to].corner || to == len(d.joints)-1 {
			d.stretch(&b, from, to)
			from = to
		}
	}
	return b.Close().Path()
}

// drawer chooses among the joints of a ring.
type drawer struct {
	ctx    context.Context
	c      *chain
	tol    float64
	joints []joint
	pts    []geom.Point // of the fitting at hand
	us     []float64
}

// stroke is a line or a cubic between two joints, and how far it lies from the places
// between, pixels.
type stroke struct {
	k    [4]geom.Point
	line bool
	off  float64
}

// The costs of strokes against one another: fewer matter first, then nearness.
const (
	lineCost  = .75
	curveCost = 1
	offCost   = .3
)

func (s stroke) cost(tol float64) float64 {
	c := float64(curveCost)
	if s.line {
		c = lineCost
	}
	return c + offCost*(s.off/tol)*(s.off/tol)
}

// forced is the cost of a stroke between neighbouring joints that lies too far off.
const forced = 100

// tries is how many joints in a row may be out of reach before nothing farther is tried.
const tries = 3

// leg is the cheapest way to a joint: from which joint, by which stroke and at which cost.
type leg struct {
	cost float64
	from int
	by   stroke
}

// stretch draws from one joint to another, with no corner between, by the cheapest way over
// the joints between.
func (d *drawer) stretch(b *geom.Builder, from, to int) {
	best := d.cheapest(from, to)
	if d.ctx.Err() != nil {
		return
	}
	var way []leg // from the last to the first
	for j := to - from; j > 0; j = best[j].from {
		way = append(way, best[j])
	}
	end := to
	ends := make([]int, len(way))
	for n := range way {
		ends[n], end = end, from+way[n].from
	}
	for n := len(way) - 1; n >= 0; n-- {
		i, j, s := d.joints[from+way[n].from], d.joints[ends[n]], way[n].by
		switch {
		case s.off > 2*d.tol+stubborn:
			d.split(b, i, j)
		case s.line:
			b.Line(j.p)
		default:
			var before, after *stroke
			if n+1 < len(way) {
				before = &way[n+1].by
			}
			if n > 0 {
				after = &way[n-1].by
			}
			s = d.beside(s, i, j, before, after)
			b.Cubic(s.k[1], s.k[2], j.p)
		}
	}
}

// cheapest is the cheapest way to every joint between two, counted from the first.
func (d *drawer) cheapest(from, to int) []leg {
	best := make([]leg, to-from+1)
	missed := make([]int, to-from+1)
	var open []int // joints that strokes may still start from, in order
	for j := 1; j <= to-from && d.ctx.Err() == nil; j++ {
		best[j].cost = math.Inf(1)
		open = append(open, j-1)
		kept := open[:0]
		for _, i := range open {
			// What starts earlier costs less so far: the others seldom need a look.
			if best[i].cost+lineCost < best[j].cost {
				s := d.stroke(d.joints[from+i], d.joints[from+j])
				cost := best[i].cost + s.cost(d.tol)
				missed[i]++
				if s.off <= d.tol {
					missed[i] = 0
				} else if cost += forced; i < j-1 {
					if missed[i] < tries {
						kept = append(kept, i)
					}
					continue
				}
				if cost < best[j].cost {
					best[j] = leg{cost, i, s}
				}
			}
			kept = append(kept, i)
		}
		open = kept
	}
	return best
}

// beside lets a cubic between two joints leave the lines before and after it in their
// directions, if it lies as near then.
func (d *drawer) beside(s stroke, i, j joint, before, after *stroke) stroke {
	turned := false
	if before != nil && before.line && !i.corner {
		i.dir, turned = unit(i.p.Sub(before.k[0])), true
	}
	if after != nil && after.line && !j.corner {
		j.dir, turned = unit(after.k[3].Sub(j.p)), true
	}
	if turned {
		if t := d.curve(i, j); t.off <= d.tol*1.1 {
			return t
		}
	}
	return s
}

// stubborn is how much farther off a stroke is drawn from place to place, pixels.
const stubborn = .3

// split draws what no single curve between neighbouring joints fits, as closely as it has to.
func (d *drawer) split(b *geom.Builder, i, j joint) {
	l := geom.Polyline{Points: []geom.Point{i.p}}
	if i.after <= j.before {
		l.Points = append(l.Points, d.c.pts[i.after:j.before+1]...)
	}
	l.Points = append(l.Points, j.p)
	for _, c := range geom.Fit(l, d.tol, UsualCorner).Curves() {
		for _, k := range c {
			b.Add(k)
		}
	}
}

func unit(p geom.Point) geom.Point { return p.Mul(1 / p.Len()) }

// straight is how far off, and by how much turned, a smooth joint may lie for a line.
const straight = .03

// stroke is the line between two joints if it lies as near as a curve has to and runs as
// they do, else the nearest cubic.
func (d *drawer) stroke(i, j joint) stroke {
	if v := j.p.Sub(i.p); v.Len() > 1e-9 {
		turn := 0.
		for _, e := range [...]joint{i, j} {
			if !e.corner {
				turn = max(turn, math.Abs(unit(v).Cross(e.dir)))
			}
		}
		if turn < straight {
			if s := d.chord(i, j); s.off <= d.tol*.8 {
				return s
			}
		}
	}
	return d.curve(i, j)
}

// samples is how many places a cubic is laid through.
const samples = 28

// curve is the cubic between two joints that lies nearest to the places between; their chord
// where none lies nearer. Handles keep the direction of smooth joints.
func (d *drawer) curve(i, j joint) stroke {
	d.pts, d.us = d.pts[:0], d.us[:0]
	f := fitting{i: i, j: j, way: d.c.way[j.at] - d.c.way[i.at], pts: d.pts, us: d.us}
	if lo, hi := i.after, j.before; hi > lo {
		n := min(hi-lo, samples)
		for m := range n + 1 {
			at := lo + (hi-lo)*m/n
			f.pts = append(f.pts, d.c.pts[at])
			f.us = append(f.us, min(max((d.c.way[at]-d.c.way[i.at])/f.way, 0), 1))
		}
	}
	s := f.first()
	d.pts, d.us = f.pts, f.us
	if len(f.pts) < 3 {
		return s
	}
	best := f.nearest(s, d.tol)
	if chord := d.chord(i, j); chord.off < best.off {
		return chord
	}
	return best
}

// chord is the line between two joints.
func (d *drawer) chord(i, j joint) stroke {
	s := stroke{line: true, k: [4]geom.Point{i.p, i.p, j.p, j.p}}
	if l := j.p.Sub(i.p).Len(); l > 1e-9 {
		v := j.p.Sub(i.p).Mul(1 / l)
		for at := i.after; at <= j.before; at++ {
			s.off = max(s.off, math.Abs(v.Cross(d.c.pts[at].Sub(i.p))))
		}
	} else {
		for at := i.after; at <= j.before; at++ {
			s.off = max(s.off, d.c.pts[at].Sub(i.p).Len())
		}
	}
	return s
}

package stencil

import (
	"cmp"
	"math"
	"slices"

	"sectilis/core/ground/geom"
)

// line is a straight line that the bridges of an island are set along.
type line struct {
	at    geom.Point
	ahead geom.Point // a unit vector
}

// lines gives each island a line through it. Islands side by side have one in common, level,
// through as many of them as it can be; one that has none in common has a line toward its
// neighbours.
func (b *bridger) lines() []line {
	out := make([]line, len(b.parts))
	var islands []int
	boxes := make([]geom.Rect, len(b.parts))
	for i, p := range b.parts {
		boxes[i] = p.outer.Bounds()
		if p.in >= 0 {
			islands = append(islands, i)
		}
	}
	slices.SortStableFunc(islands, func(i, j int) int { return cmp.Compare(boxes[i].Centre().X, boxes[j].Centre().X) })
	left := slices.Clone(islands)
	for len(left) > 0 {
		y, through := level(left, boxes)
		for _, i := range through {
			out[i] = line{geom.Pt(boxes[i].Centre().X, y), geom.Pt(1, 0)}
			if len(through) == 1 {
				out[i] = line{boxes[i].Centre(), toward(i, islands, boxes)}
			}
		}
		left = slices.DeleteFunc(left, func(i int) bool { return slices.Contains(through, i) })
	}
	return out
}

// level is the height that lies well within as many boxes as it can, and those boxes.
func level(islands []int, boxes []geom.Rect) (y float64, through []int) {
	const margin = .2 // of a box, above and below
	for _, i := range islands {
		for _, share := range []float64{margin, .5, 1 - margin} {
			at := boxes[i].Y + share*boxes[i].H
			var in []int
			for _, j := range islands {
				if v := (at - boxes[j].Y) / boxes[j].H; v > margin-1e-9 && v < 1-margin+1e-9 {
					in = append(in, j)
				}
			}
			if len(in) > len(through) {
				y, through = at, in
			}
		}
	}
	return y, through
}

// toward is the direction from the neighbour before an island to the one after it; level where
// it has none near by.
func toward(i int, islands []int, boxes []geom.Rect) geom.Point {
	at := slices.Index(islands, i)
	from, to := boxes[i].Centre(), boxes[i].Centre()
	near := 6 * max(boxes[i].W, boxes[i].H)
	if at > 0 && boxes[islands[at-1]].Centre().Sub(boxes[i].Centre()).Len() < near {
		from = boxes[islands[at-1]].Centre()
	}
	if at+1 < len(islands) && boxes[islands[at+1]].Centre().Sub(boxes[i].Centre()).Len() < near {
		to = boxes[islands[at+1]].Centre()
	}
	d := to.Sub(from)
	if l := d.Len(); l > 1e-9 {
		return d.Mul(1 / l)
	}
	return geom.Pt(1, 0)
}

// inLine are the strips along a line through an island, both ways, and across it where more
// than two are wanted; where one is wanted it is the shorter.
func (b *bridger) inLine(island int, l line) []strip {
	across := geom.Pt(-l.ahead.Y, l.ahead.X)
	var out []strip
	for _, ahead := range []geom.Point{l.ahead, l.ahead.Mul(-1), across, across.Mul(-1)} {
		if len(out) >= max(b.opt.Each, 2) {
			break
		}
		if s, ok := b.leaving(island, l.at, ahead); ok {
			out = append(out, s)
		}
	}
	if len(out) > b.opt.Each {
		slices.SortStableFunc(out, func(a, c strip) int { return cmp.Compare(a.gap, c.gap) })
		out = out[:b.opt.Each]
	}
	return out
}

// leaving is the strip that leaves an island for good along a ray through it.
func (b *bridger) leaving(island int, at, ahead geom.Point) (strip, bool) {
	box := b.parts[island].outer.Bounds()
	back := box.W + box.H
	start := at.Sub(ahead.Mul(back))
	last := math.Inf(-1)
	for _, h := range b.along(start, ahead, 3*back) {
		if h.of == island {
			last = h.at
		}
	}
	if math.IsInf(last, 0) {
		return strip{}, false
	}
	s, ok := b.strip(island, start.Add(ahead.Mul(last)), ahead)
	if !ok {
		return strip{}, false
	}
	ring := b.parts[island].outer
	if n, found := ring.Nearest(s.from); found {
		s.at = Share(ring, n)
	}
	return s, true
}

// Share is where a place on a ring is, in shares of its length.
func Share(ring geom.Path, n geom.Nearest) float64 {
	before, whole := 0.0, 0.0
	for j, c := range ring.Curves()[0] {
		l := c.Length()
		switch {
		case j < n.Curve:
			before += l
		case j == n.Curve:
			before += c.LengthTo(n.T)
		}
		whole += l
	}
	return before / whole
}

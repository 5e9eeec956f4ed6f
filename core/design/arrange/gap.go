package arrange

import (
	"cmp"
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// Gap is the room about a place on a face: the largest upright rectangle and the largest circle
// that hold the place and touch nothing. Radius is mm.
type Gap struct {
	Rect   geom.Rect  `json:"rect"`
	Centre geom.Point `json:"centre"`
	Radius float64    `json:"radius"`
}

// gapTolerance is how far the straight sides that stand for curves may stray,
// mm.
const gapTolerance = .002

// GapAt measures the room about a place. It lies on the topmost item there, or
// on the base; that item's own edge, whatever lies on it or above it, and the lines along
// which it is cut, folded or drawn on bound the room. ok is false beside the face and where
// there is no room.
func GapAt(f *scene.Face, p geom.Point) (gap Gap, ok bool) {
	ground, from := f.Shape, 0
	on := ""
	for i := range f.Items {
		if it := &f.Items[i]; it.Role == "" {
			if out := it.Outline.Transform(it.At); out.Winding(p) != 0 {
				ground, from, on = out, i+1, it.ID
				if !it.Piece {
					on = it.On // it is ink on what carries it
				}
				if on == "" {
					ground = geom.Intersection(geom.NonZero, out, f.Shape)
				}
			}
		}
	}
	var above, lines []geom.Path
	for i := range f.Items {
		it := &f.Items[i]
		switch {
		case it.Role == card.RoleGuide:
		case it.Role != "" && (it.On == on || i >= from):
			lines = append(lines, it.Outline.Transform(it.At))
		case it.Role == "" && i >= from:
			above = append(above, it.Outline.Transform(it.At))
		}
	}
	if on == "" {
		for _, l := range f.Folds {
			var b geom.Builder
			lines = append(lines, b.Move(l.From).Line(l.To).Path())
		}
	}
	free := geom.Difference(geom.NonZero, ground, above...)
	return Room(free, p, lines...)
}

// Room is the largest upright rectangle and the largest circle within a region
// that hold a place of it and are crossed by none of the lines. ok is false when the place
// is not inside.
//
// A rectangle about the place is free if its four corners are: in each quarter
// about the place, the nearest edges of the region leave a staircase of steps
// and slopes that a corner stays under. The left and the right side of the
// rectangle then decide its height, and the best pair is found by branch and
// bound over the pieces of the staircases; for one piece on each side the
// area's logarithm is concave. The circle is found by branch and bound over
// squares, where the distance to the edge changes no faster than one goes.
func Room(region geom.Path, p geom.Point, lines ...geom.Path) (gap Gap, ok bool) {
	var sides []segment
	for _, l := range region.Flatten(gapTolerance) {
		for i := 1; i < len(l.Points); i++ {
			sides = append(sides, segment{l.Points[i-1].Sub(p), l.Points[i].Sub(p)})
		}
		if n := len(l.Points); n > 2 && l.Points[0] != l.Points[n-1] {
			sides = append(sides, segment{l.Points[n-1].Sub(p), l.Points[0].Sub(p)})
		}
	}
	for _, line := range lines {
		for _, l := range line.Flatten(gapTolerance) {
			for i := 1; i < len(l.Points); i++ {
				sides = append(sides, segment{l.Points[i-1].Sub(p), l.Points[i].Sub(p)})
			}
			if n := len(l.Points); l.Closed && n > 2 {
				sides = append(sides, segment{l.Points[n-1].Sub(p), l.Points[0].Sub(p)})
			}
		}
	}
	if len(sides) == 0 || region.Winding(p) == 0 {
		return Gap{}, false
	}
	right := profile(sides, 1)
	left := profile(sides, -1)
	r := widest(left, right)
	c, radius := roundest(sides)
	gap = Gap{Rect: geom.Rect{X: r.X + p.X, Y: r.Y + p.Y, W: r.W, H: r.H}, Centre: c.Add(p), Radius: radius}
	return gap, r.W > 0 && r.H > 0
}

type segment struct{ a, b geom.Point }

// piece is a stretch of one side of the rectangle, by its distance from the
// place: how far up and how far down the rectangle may reach while its side is
// within [x0, x1]. Both reach less far, in a straight line, the farther it is.
type piece struct {
	x0, x1   float64
	up, down [2]float64 // at x0 and x1
}

// at is the reach at a distance within the piece.
func (s piece) at(x float64) (up, down float64) {
	k := 0.
	if s.x1 > s.x0 {
		k = (x - s.x0) / (s.x1 - s.x0)
	}
	return s.up[0] + (s.up[1]-s.up[0])*k, s.down[0] + (s.down[1]-s.down[0])*k
}

// profile is the reach of the rectangle to the right of the place, or to its
// left for dir -1, until nothing is left of its height.
func profile(sides []segment, dir float64) []piece {
	up := stairs(sides, geom.Scale(dir, -1))
	down := stairs(sides, geom.Scale(dir, 1))
	var cuts []float64
	for _, s := range append(slices.Clone(up), down...) {
		cuts = append(cuts, s.x0, s.x1)
	}
	slices.Sort(cuts)
	cuts = slices.Compact(cuts)
	var out []piece
	i, j := 0, 0
	for n := 1; n < len(cuts); n++ {
		x0, x1 := cuts[n-1], cuts[n]
		for i < len(up) && up[i].x1 <= x0 {
			i++
		}
		for j < len(down) && down[j].x1 <= x0 {
			j++
		}
		if i == len(up) || j == len(down) {
			break
		}
		out = append(out, piece{x0, x1, [2]float64{up[i].at(x0), up[i].at(x1)}, [2]float64{down[j].at(x0), down[j].at(x1)}})
	}
	return out
}

// step is a piece of the upper bound of one quarter: never rising.
type step struct{ x0, x1, y0, y1 float64 }

func (s step) at(x float64) float64 {
	if s.x1 <= s.x0 {
		return s.y0
	}
	return s.y0 + (s.y1-s.y0)*(x-s.x0)/(s.x1-s.x0)
}

// stairs are the bounds of the quarter that the map brings to x >= 0, y >= 0:
// for every x the least y of any side at that x or before.
func stairs(sides []segment, to geom.Affine) []step {
	var in []segment
	var xs []float64
	for _, s := range sides {
		a, b := to.Apply(s.a), to.Apply(s.b)
		if a.X > b.X || a.X == b.X && a.Y > b.Y {
			a, b = b, a
		}
		if a, b, ok := quarter(a, b); ok {
			in = append(in, segment{a, b})
			xs = append(xs, a.X, b.X)
		}
	}
	slices.SortFunc(in, func(a, b segment) int { return cmp.Compare(a.a.X, b.a.X) })
	xs = append(xs, 0)
	slices.Sort(xs)
	xs = slices.Compact(xs)
	var out []step
	least := math.Inf(1)
	add := func(x0, x1, y0, y1 float64) {
		if x1 > x0 && !math.IsInf(y0, 1) {
			out = append(out, step{x0, x1, y0, y1})
		}
	}
	var live []segment
	next := 0
	for n, x := range xs {
		for ; next < len(in) && in[next].a.X <= x; next++ {
			live = append(live, in[next])
		}
		for _, s := range live {
			if s.a.X == x {
				least = min(least, s.a.Y)
			}
			if s.b.X == x {
				least = min(least, s.b.Y)
			}
		}
		live = slices.DeleteFunc(live, func(s segment) bool { return s.b.X <= x })
		if n+1 == len(xs) || least <= 0 {
			break
		}
		x1 := xs[n+1]
		y0, y1 := lowest(live, x, x1)
		switch {
		case y1 >= least:
			add(x, x1, least, least)
		case y0 <= least:
			add(x, x1, y0, y1)
			least = y1
		default:
			at := x + (x1-x)*(y0-least)/(y0-y1)
			add(x, at, least, least)
			add(at, x1, least, y1)
			least = y1
		}
	}
	return out
}

// lowest is how low the lowest of some sides is between two corners: sides do not cross, so
// one is lowest all the way. Without sides it is infinite.
func lowest(live []segment, x0, x1 float64) (y0, y1 float64) {
	y0, y1 = math.Inf(1), math.Inf(1)
	for _, s := range live {
		k := (s.b.Y - s.a.Y) / (s.b.X - s.a.X)
		if a, b := s.a.Y+k*(x0-s.a.X), s.a.Y+k*(x1-s.a.X); a+b < y0+y1 {
			y0, y1 = a, b
		}
	}
	return y0, y1
}

// quarter clips a side to x >= 0, y >= 0; its ends come with a.X <= b.X.
func quarter(a, b geom.Point) (geom.Point, geom.Point, bool) {
	if b.X < 0 || max(a.Y, b.Y) < 0 {
		return a, b, false
	}
	if a.X < 0 {
		a = geom.Pt(0, a.Y+(b.Y-a.Y)*-a.X/(b.X-a.X))
	}
	if max(a.Y, b.Y) < 0 {
		return a, b, false
	}
	if a.Y < 0 {
		a = geom.Pt(a.X+(b.X-a.X)*-a.Y/(b.Y-a.Y), 0)
	} else if b.Y < 0 {
		b = geom.Pt(a.X+(b.X-a.X)*a.Y/(a.Y-b.Y), 0)
	}
	return a, b, true
}

// widest is the largest rectangle about the origin between two profiles.
func widest(left, right []piece) geom.Rect {
	var best geom.Rect
	if len(left) == 0 || len(right) == 0 {
		return best
	}
	area := 0.
	var search func(l, r []piece)
	search = func(l, r []piece) {
		// Reach is greatest where a run of pieces begins.
		up := min(l[0].up[0], r[0].up[0])
		down := min(l[0].down[0], r[0].down[0])
		if (l[len(l)-1].x1+r[len(r)-1].x1)*(up+down) <= area*(1+1e-12) {
			return
		}
		switch {
		case len(l) == 1 && len(r) == 1:
			if got := tallest(l[0], r[0]); got.W*got.H > area {
				best, area = got, got.W*got.H
			}
		case len(l) >= len(r):
			m := len(l) / 2
			search(l[m:], r)
			search(l[:m], r)
		default:
			m := len(r) / 2
			search(l, r[m:])
			search(l, r[:m])
		}
	}
	search(left, right)
	return best
}

// tallest is the largest rectangle with its sides within one piece each. For a
// fixed left side the area is log-concave in the right one, and the best of
// these is log-concave in the left one.
func tallest(l, r piece) geom.Rect {
	at := func(x, z float64) geom.Rect {
		lu, ld := l.at(x)
		ru, rd := r.at(z)
		up, down := min(lu, ru), min(ld, rd)
		return geom.Rect{X: -x, Y: -up, W: x + z, H: up + down}
	}
	area := func(r geom.Rect) float64 { return r.W * r.H }
	inner := func(x float64) geom.Rect {
		z := golden(r.x0, r.x1, func(z float64) float64 { return area(at(x, z)) })
		return at(x, z)
	}
	return inner(golden(l.x0, l.x1, func(x float64) float64 { return area(inner(x)) }))
}

// golden finds where a function with one peak is greatest, by golden-section
// search (Kiefer 1953); the ends of the range are looked at too.
func golden(a, b float64, f func(float64) float64) float64 {
	const phi = 0.6180339887498949
	lo, hi := a, b
	x1, x2 := hi-phi*(hi-lo), lo+phi*(hi-lo)
	f1, f2 := f(x1), f(x2)
	for hi-lo > 1e-9*(1+math.Abs(b)) {
		if f1 < f2 {
			lo, x1, f1 = x1, x2, f2
			x2 = lo + phi*(hi-lo)
			f2 = f(x2)
		} else {
			hi, x2, f2 = x2, x1, f1
			x1 = hi - phi*(hi-lo)
			f1 = f(x1)
		}
	}
	best := (lo + hi) / 2
	for _, x := range []float64{a, b} {
		if f(x) >= f(best) {
			best = x
		}
	}
	return best
}

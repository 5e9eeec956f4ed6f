package nest

import (
	"math"
	"sync"

	"sectilis/core/ground/geom"
)

// hair is how far, mm, two grown shapes may run into each other by rounding.
const hair = 1e-7

// bin is a sheet while it is filled. Its coordinates start half the room between
// parts outside the margins, since shapes are grown by as much.
type bin struct {
	kind   int
	w, h   float64
	origin geom.Point // of the bin on the sheet
	level  int
	column float64
	cols   [][]span
	gap    float64 // what is narrower along a column is of no use
	top    float64 // how far down it is used
	parts  int
	keep   []geom.Rect
	sky    []step
}

func newBin(kind int, sh Sheet, between, gap float64) *bin {
	in := sh.Margin - between/2
	b := &bin{kind: kind, w: sh.Width - 2*in, h: sh.Height - 2*in, origin: geom.Pt(in, in), gap: gap}
	for _, k := range sh.Keep {
		b.keep = append(b.keep, geom.Rect{X: k.X - in, Y: k.Y - in, W: k.W, H: k.H}.Grow(between/2))
	}
	return b
}

// open makes the columns, and fills what is to be kept clear.
func (b *bin) open(level int, column float64) {
	b.level, b.column = level, column
	b.cols = make([][]span, max(0, int(b.w/b.column+1e-9)))
	for _, k := range b.keep {
		b.fill(k)
	}
}

func (b *bin) fill(k geom.Rect) {
	for c := max(0, int(k.X/b.column)); c < len(b.cols) && float64(c)*b.column < k.Right(); c++ {
		b.cols[c] = merged(append(b.cols[c], span{k.Y, k.Bottom()}), b.gap)
	}
}

// lowest is the least distance from the top at which the shape has room with its
// left end in a column; false when its lower end would come below the limit.
func (b *bin) lowest(s *shape, c int, limit float64) (float64, bool) {
	y, cols := 0.0, s.cols[b.level]
	for moved := true; moved; {
		moved = false
		for j := range cols {
			col := b.cols[c+j]
			if len(col) == 0 {
				continue
			}
			for _, v := range cols[j] {
				// The first stretch that ends below the upper end of v.
				k, n := 0, len(col)
				for k < n {
					m := int(uint(k+n) >> 1)
					if col[m].hi <= v.lo+y+hair {
						k = m + 1
					} else {
						n = m
					}
				}
				for ; k < len(col) && col[k].lo < v.hi+y-hair; k++ {
					y = col[k].hi - v.lo
					moved = true
					if y+s.h > limit {
						return 0, false
					}
				}
			}
		}
	}
	return y, y+s.h <= limit
}

// find is the place where the shape's lower end is highest, above a limit.
func (b *bin) find(s *shape, limit float64) (c int, y, top float64, ok bool) {
	if s.w > b.w+hair {
		return 0, 0, 0, false
	}
	limit = min(limit, b.h+hair)
	places := len(b.cols) - len(s.cols[b.level]) + 1
	if places < worthTwo {
		return b.findFrom(s, 0, places, limit)
	}
	var c2 int
	var y2, top2 float64
	var ok2 bool
	var right sync.WaitGroup
	right.Go(func() { c2, y2, top2, ok2 = b.findFrom(s, places/2, places, limit) })
	c, y, top, ok = b.findFrom(s, 0, places/2, limit)
	right.Wait()
	if ok2 && (!ok || top2 < top-1e-6) {
		return c2, y2, top2, true
	}
	return c, y, top, ok
}

// worthTwo is from how many places on two look for the lowest, each in a half.
const worthTwo = 250

func (b *bin) findFrom(s *shape, from, to int, limit float64) (c int, y, top float64, ok bool) {
	for i := from; i < to; i++ {
		if v, fits := b.lowest(s, i, limit); fits {
			c, y, top, ok = i, v, v+s.h, true
			limit = top - 1e-6
		}
	}
	return c, y, top, ok
}

func (b *bin) lay(s *shape, c int, y float64) {
	for j, spans := range s.cols[b.level] {
		col := b.cols[c+j]
		for _, v := range spans {
			col = insert(col, span{v.lo + y, v.hi + y}, b.gap)
		}
		b.cols[c+j] = col
	}
	b.top = max(b.top, y+s.h)
	b.parts++
}

// insert puts a stretch among others in order, joined to those with no useful gap
// between.
func insert(col []span, v span, gap float64) []span {
	k := len(col)
	for k > 0 && col[k-1].lo > v.lo {
		k--
	}
	if k > 0 && v.lo <= col[k-1].hi+gap {
		k--
		v.lo, v.hi = col[k].lo, max(col[k].hi, v.hi)
	} else {
		col = append(col, span{})
		copy(col[k+1:], col[k:])
	}
	end := k + 1
	for end < len(col) && col[end].lo <= v.hi+gap {
		v.hi = max(v.hi, col[end].hi)
		end++
	}
	col[k] = v
	return append(col[:k+1], col[end:]...)
}

// step is a stretch of a skyline: from x on, as far as the next, the bin is used
// down to y.
type step struct{ x, y float64 }

// openSky is open for boxes.
func (b *bin) openSky() { b.sky = append(b.sky[:0], step{0, 0}, step{b.w, math.Inf(1)}) }

// findBox is find along the skyline, left ends at its steps and behind what is to be
// kept clear.
func (b *bin) findBox(w, h, limit float64) (x, y, top float64, ok bool) {
	limit = min(limit, b.h+hair)
	try := func(left float64, first int) {
		if left+w > b.w+hair {
			return
		}
		v := 0.0
		for k := first; k < len(b.sky)-1 && b.sky[k].x < left+w-hair; k++ {
			if v = max(v, b.sky[k].y); v+h > limit {
				return
			}
		}
		if at := b.clear(geom.Rect{X: left, Y: v, W: w, H: h}); at.Bottom() <= limit {
			x, y, top, ok = left, at.Y, at.Bottom(), true
			limit = top - 1e-6
		}
	}
	for i := 0; i < len(b.sky)-1; i++ {
		try(b.sky[i].x, i)
	}
	for _, k := range b.keep {
		first := 0
		for first+1 < len(b.sky)-1 && b.sky[first+1].x <= k.Right() {
			first++
		}
		try(k.Right(), first)
	}
	return x, y, top, ok
}

// clear moves a box down until it keeps clear of what is to be kept clear.
func (b *bin) clear(r geom.Rect) geom.Rect {
	for moved := true; moved; {
		moved = false
		for _, k := range b.keep {
			if k.X < r.Right()-hair && r.X < k.Right()-hair && k.Y < r.Bottom()-hair && r.Y < k.Bottom()-hair {
				r.Y = k.Bottom()
				moved = true
			}
		}
	}
	return r
}

// layBox raises the skyline by a box.
func (b *bin) layBox(x, y, w, h float64) {
	right := min(x+w, b.w)
	out := make([]step, 0, len(b.sky)+2)
	behind, k := 0.0, 0 // how far down it is used where the box ends
	for ; k < len(b.sky) && b.sky[k].x < right-hair; k++ {
		behind = b.sky[k].y
		if b.sky[k].x < x-hair {
			out = append(out, b.sky[k])
		}
	}
	out = append(out, step{x, y + h})
	if b.sky[k].x > right+hair {
		out = append(out, step{right, behind})
	}
	b.sky = append(out, b.sky[k:]...)
	b.top = max(b.top, y+h)
	b.parts++
}

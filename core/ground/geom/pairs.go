package geom

import (
	"cmp"
	"slices"
	"sync"
)

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

package nest

import (
	"cmp"
	"math"
	"slices"
	"sync"
)

// candidate is a column, at a turn, in which the best place from one to another is sought.
type candidate struct {
	sheet, turn, c int
	from, to       int32
	y              int32
	cost           int64
}

// A place near by is sought at so many columns to either side, and so far up and down, in
// steps of the grid; far away so many columns are looked into at each of two turns, first
// in every coarse-th column of the part alone, the best of them thoroughly.
var nearColumns = [...]int{0, -1, 1, -3, 3, -8, 8}

const (
	nearDown   = 40
	farColumns = 7
	coarse     = 4
	thorough   = 3
)

// move lays a part where it overlaps least, by weight, among places near and far.
func (q *squeezer) move(p int) {
	at := q.spots[p]
	rng := q.s.rng
	q.leave(p)
	near := make([]candidate, 0, len(nearColumns))
	for _, d := range nearColumns {
		near = q.candidate(near, p, at.sheet, at.turn, at.c+d, at.y)
	}
	q.scan(p, near, 1)
	best := cheapest(near)
	if best.cost > 0 {
		turns := len(q.s.shapes.classes[q.s.shapes.of[p]].turns)
		tries := []int{at.turn}
		if turns > 1 {
			tries = append(tries, (at.turn+1+rng.IntN(turns-1))%turns)
		}
		middle := at.c + len(q.shape(p, at.turn).cols)/2
		var far []candidate
		for _, turn := range tries {
			for k := range farColumns {
				sheet := at.sheet
				c := middle - len(q.shape(p, turn).cols)/2
				if k > 0 {
					sheet = rng.IntN(len(q.sheets))
					c = rng.IntN(len(q.sheets[sheet].cols) + 1)
				}
				far = q.candidate(far, p, sheet, turn, c, -1)
			}
		}
		q.scan(p, far, coarse)
		slices.SortStableFunc(far, func(a, b candidate) int { return cmp.Compare(a.cost, b.cost) })
		var again []candidate
		for _, f := range far[:min(thorough, len(far))] {
			again = q.candidate(again, p, f.sheet, f.turn, f.c, f.y)
		}
		q.scan(p, again, 1)
		if len(again) > 0 {
			if f := cheapest(again); f.cost < best.cost {
				best = f
			}
		}
	}
	if best.cost < math.MaxInt64 {
		q.spots[p] = spot{best.sheet, best.turn, best.c, best.y}
	}
	q.take(p)
	q.overlaps(p)
}

// candidate adds a column to a list if the part has room there: near a place y or, where
// that is -1, as far as the sheet goes.
func (q *squeezer) candidate(list []candidate, p, sheet, turn, c int, y int32) []candidate {
	t, sh := &q.sheets[sheet], q.shape(p, turn)
	room, down := len(t.cols)-len(sh.cols), t.limit-sh.h
	if room < 0 || down < 0 {
		return list
	}
	out := candidate{sheet: sheet, turn: turn, c: min(max(c, 0), room), to: down}
	if y >= 0 {
		y = min(y, down)
		out.from, out.to = max(0, y-nearDown), min(down, y+nearDown)
	}
	return append(list, out)
}

func cheapest(list []candidate) candidate {
	best := candidate{cost: math.MaxInt64}
	for _, c := range list {
		if c.cost < best.cost {
			best = c
		}
	}
	return best
}

// scan finds the best place of every candidate; two work at it.
func (q *squeezer) scan(p int, list []candidate, stride int) {
	var other sync.WaitGroup
	other.Go(func() {
		for i := 1; i < len(list); i += 2 {
			q.along(p, &list[i], stride, 1)
		}
	})
	for i := 0; i < len(list); i += 2 {
		q.along(p, &list[i], stride, 0)
	}
	other.Wait()
}

// along finds the best place along a column. What a stretch [a, b) of the part overlaps of
// a held one [l, u) grows from place l−b on, is whole from the lesser of l−a and u−b, falls
// from the greater and is nothing from u−a: the second differences are summed up twice.
func (q *squeezer) along(p int, cand *candidate, stride, worker int) {
	t, sh := &q.sheets[cand.sheet], q.shape(p, cand.turn)
	n := len(q.sum)
	weight := q.weight[p*n : (p+1)*n]
	from, many := cand.from, cand.to-cand.from+1
	if int(many) > len(q.scanner[worker]) {
		q.scanner[worker] = make([]int32, many)
	}
	sums := q.scanner[worker][:many]
	clear(sums)
	var slope, value int64 // at the first place
	add := func(k, w int32) {
		switch {
		case k >= many:
		case k >= 0:
			sums[k] += w
		default:
			slope += int64(w)
			value -= int64(w) * int64(k)
		}
	}
	end := cand.to + sh.h
	for j := 0; j < len(sh.cols); j += stride {
		for _, h := range t.cols[cand.c+j] {
			if h.lo >= end {
				break
			}
			if h.hi <= from {
				continue
			}
			w, lo, hi := weight[h.who], h.lo-from, h.hi-from
			for _, v := range sh.cols[j] {
				if lo-v.hi >= many || hi-v.lo <= 0 {
					continue
				}
				add(lo-v.hi, w)
				add(lo-v.lo, -w)
				add(hi-v.hi, -w)
				add(hi-v.lo, w)
			}
		}
	}
	cand.cost = math.MaxInt64
	for y, d := range sums {
		if value < cand.cost {
			cand.cost, cand.y = value, from+int32(y)
			if value == 0 {
				break
			}
		}
		slope += int64(d)
		value += slope
	}
}

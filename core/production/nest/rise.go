package nest

import (
	"math"
	"slices"
)

// risen are the exact places after every part was moved towards the top as far as it is
// free to slide, the topmost first, over and over.
func (q *squeezer) risen() []laid {
	type taken struct {
		span
		who int
	}
	out := make([]laid, len(q.spots))
	lanes := make([][][]taken, len(q.sheets))
	for k := range q.sheets {
		lanes[k] = make([][]taken, len(q.sheets[k].cols))
		for c, spans := range q.sheets[k].bin.cols {
			for _, v := range spans {
				lanes[k][c] = append(lanes[k][c], taken{v, -1})
			}
		}
	}
	shape := func(p int) *shape { return &q.s.shapes.classes[q.s.shapes.of[p]].turns[out[p].turn] }
	var order []int
	for p, at := range q.spots {
		out[p] = q.s.laid[p]
		if at.sheet < 0 {
			continue
		}
		out[p] = laid{at.sheet, at.turn, float64(at.c) * q.sheets[at.sheet].bin.column, float64(at.y) * grid}
		for j, spans := range shape(p).cols[narrow] {
			for _, v := range spans {
				lane := &lanes[at.sheet][at.c+j]
				*lane = append(*lane, taken{span{v.lo + out[p].y, v.hi + out[p].y}, p})
			}
		}
		order = append(order, p)
	}
	for range 4 {
		slices.SortStableFunc(order, func(a, b int) int { return int(math.Copysign(1, out[a].y-out[b].y)) })
		for _, p := range order {
			at := q.spots[p]
			free := out[p].y
			cols := shape(p).cols[narrow]
			for j, spans := range cols {
				for _, v := range spans {
					for _, h := range lanes[at.sheet][at.c+j] {
						if h.who != p && h.hi <= v.lo+out[p].y+hair {
							free = min(free, v.lo+out[p].y-h.hi)
						}
					}
				}
			}
			if free <= 0 {
				continue
			}
			out[p].y -= free
			for j := range cols {
				for i := range lanes[at.sheet][at.c+j] {
					if h := &lanes[at.sheet][at.c+j][i]; h.who == p {
						h.lo -= free
						h.hi -= free
					}
				}
			}
		}
	}
	return out
}

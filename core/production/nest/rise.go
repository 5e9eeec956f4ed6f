package nest

import (
	"cmp"
	"math"
	"slices"
)

// risen are the exact places after every part was moved towards the top as far as it is
// free to slide, the topmost first, over and over.
func (q *squeezer) risen() []laid {
	out := make([]laid, len(q.spots))
	lanes := make([][]lane, len(q.sheets))
	for k := range q.sheets {
		lanes[k] = make([]lane, len(q.sheets[k].cols))
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
		slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(out[a].y, out[b].y) })
		for _, p := range order {
			at := q.spots[p]
			cols := shape(p).cols[narrow]
			over := lanes[at.sheet][at.c : at.c+len(cols)]
			free := out[p].y
			for j, spans := range cols {
				free = min(free, over[j].above(p, spans, out[p].y))
			}
			if free <= 0 {
				continue
			}
			out[p].y -= free
			for _, l := range over {
				l.rise(p, free)
			}
		}
	}
	return out
}

// taken is a span of a lane that a part covers; -1 stands for the edge of the sheet.
type taken struct {
	span
	who int
}

// lane is what is taken of a column of a sheet.
type lane []taken

// above is how far a part that covers spans, moved down by y, is free to move up in a lane.
func (l lane) above(p int, spans []span, y float64) float64 {
	free := math.Inf(1)
	for _, v := range spans {
		for _, h := range l {
			if h.who != p && h.hi <= v.lo+y+hair {
				free = min(free, v.lo+y-h.hi)
			}
		}
	}
	return free
}

// rise moves a part up.
func (l lane) rise(p int, by float64) {
	for i := range l {
		if l[i].who == p {
			l[i].lo -= by
			l[i].hi -= by
		}
	}
}

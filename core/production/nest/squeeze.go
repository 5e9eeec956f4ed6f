package nest

import (
	"math"
	"slices"
)

// grid is the step, mm, of places along the columns while parts are pressed together.
const grid = .2

// squeezer makes a layout closer by pressing it: the emptiest sheet is made a little
// shorter, so that parts overlap, and one after another they are moved to where they
// overlap the least, until none do. A pair that keeps overlapping weighs more and more.
//
// The method is the guided local search of Egeblad, Nielsen and Odgaard ("Fast
// neighborhood search for two- and three-dimensional nesting problems", 2007) on the
// columns of this package: how much a part overlaps others is, along a column, a sum of
// trapezoids in its place, which is summed up for all places at once.
type squeezer struct {
	s         *Search
	shapes    [][]gridShape // by class and turn
	sheets    []gridSheet
	spots     []spot
	saved     []spot  // the last layout without overlaps
	weight    []int32 // of pairs; the last row and column are of what lies fixed
	over      []int32 // overlap of pairs, in columns times grid
	sum       []int64 // of the overlaps of a part
	target    int     // the sheet that is made shorter
	top       float64 // how far down it is used, mm
	share     float64 // by what share of that it is made shorter next
	queue     []int32
	passes    int
	leastOver int64
	leastPass int
	failed    int
	idle      bool // there is nothing to press
	scanner   [2][]int32
}

// gridShape is a shape on the grid, grown to it.
type gridShape struct {
	cols [][]stretch
	h    int32
}

type stretch struct{ lo, hi int32 }

// held is a stretch of a column that a part takes.
type held struct{ lo, hi, who int32 }

// gridSheet is a sheet of the layout on the grid.
type gridSheet struct {
	cols  [][]held
	limit int32 // how far down parts may reach
	bin   *bin
}

// spot is where a part lies. The sheet is -1 for what has no room or lies fixed.
type spot struct {
	sheet, turn, c int
	y              int32
}

// How the pressing goes: weights are whole numbers from plainWeight to mostWeight, a press
// is given up after so many passes over all parts that overlap in which they did not come
// to overlap less than ever, and the sheet is made shorter by the first share at first,
// never less than the last.
const (
	plainWeight = 16
	mostWeight  = 1 << 18
	patience    = 100
	firstShare  = .02
	lastShare   = .001
)

// newSqueezer starts from the best layout.
func newSqueezer(s *Search) *squeezer {
	n := len(s.p.Parts)
	q := &squeezer{s: s, share: firstShare, spots: make([]spot, n), sum: make([]int64, n+1)}
	q.shapes = make([][]gridShape, len(s.shapes.classes))
	var bins []*bin
	for _, k := range s.kinds {
		b := newBin(k, s.p.Sheets[k], s.p.Between, .25*s.shapes.least)
		b.open(narrow, s.shapes.columns[narrow])
		bins = append(bins, b)
	}
	fixed := make([]laid, n)
	s.fix(fixed, &bins, func() *bin { return nil })
	for _, b := range bins {
		t := gridSheet{cols: make([][]held, len(b.cols)), limit: int32(b.h/grid + hair), bin: b}
		for c, spans := range b.cols {
			for _, v := range spans {
				t.cols[c] = append(t.cols[c], held{int32(math.Floor(v.lo/grid + hair)), int32(math.Ceil(v.hi/grid - hair)), int32(n)})
			}
		}
		q.sheets = append(q.sheets, t)
	}
	for i, l := range s.laid {
		q.spots[i] = spot{sheet: -1}
		if l.bin < 0 || s.p.Parts[i].Fixed != nil {
			continue
		}
		b := q.sheets[l.bin].bin
		q.spots[i] = spot{l.bin, l.turn, int(math.Round(l.x / b.column)), int32(math.Ceil(l.y/grid - hair))}
		q.take(i)
	}
	q.weight = make([]int32, (n+1)*(n+1))
	q.over = make([]int32, (n+1)*(n+1))
	q.saved = slices.Clone(q.spots)
	if q.idle = !q.aim(); !q.idle {
		q.again()
		q.press()
	}
	return q
}

// shape is that of a part at its turn.
func (q *squeezer) shape(p, turn int) *gridShape {
	class := q.s.shapes.of[p]
	if q.shapes[class] == nil {
		for _, t := range q.s.shapes.classes[class].turns {
			g := gridShape{cols: make([][]stretch, len(t.cols[narrow])), h: int32(math.Ceil(t.h/grid - hair))}
			for c, spans := range t.cols[narrow] {
				for _, v := range spans {
					lo, hi := int32(math.Floor(v.lo/grid+hair)), int32(math.Ceil(v.hi/grid-hair))
					if k := len(g.cols[c]); k > 0 && lo <= g.cols[c][k-1].hi {
						g.cols[c][k-1].hi = hi
						continue
					}
					g.cols[c] = append(g.cols[c], stretch{max(0, lo), hi})
				}
			}
			q.shapes[class] = append(q.shapes[class], g)
		}
	}
	return &q.shapes[class][turn]
}

func (q *squeezer) take(p int) {
	at := q.spots[p]
	t := &q.sheets[at.sheet]
	for j, spans := range q.shape(p, at.turn).cols {
		for _, v := range spans {
			// In order from the top, so that what is looked for ends where it can.
			col := append(t.cols[at.c+j], held{})
			k := len(col) - 1
			for ; k > 0 && col[k-1].lo > v.lo+at.y; k-- {
				col[k] = col[k-1]
			}
			col[k] = held{v.lo + at.y, v.hi + at.y, int32(p)}
			t.cols[at.c+j] = col
		}
	}
}

func (q *squeezer) leave(p int) {
	at := q.spots[p]
	t := &q.sheets[at.sheet]
	for j := range q.shape(p, at.turn).cols {
		t.cols[at.c+j] = slices.DeleteFunc(t.cols[at.c+j], func(h held) bool { return h.who == int32(p) })
	}
}

// aim finds the sheet to make shorter: the one of those without number that is used the
// least; false if there is none, or it is no longer than what lies fixed on it.
func (q *squeezer) aim() bool {
	tops := make([]float64, len(q.sheets))
	for i, l := range q.s.laid {
		if l.bin >= 0 && q.s.p.Parts[i].Fixed == nil {
			tops[l.bin] = max(tops[l.bin], l.y+q.s.shapes.classes[q.s.shapes.of[i]].turns[l.turn].h)
		}
	}
	q.target = -1
	fixed := 0.0
	for k := range q.sheets {
		b := q.sheets[k].bin
		q.sheets[k].limit = int32(b.h/grid + hair)
		tops[k] = max(tops[k], b.top)
		if q.s.p.Sheets[b.kind].Count == 0 && tops[k] > 0 && (q.target < 0 || tops[k] < tops[q.target]) {
			q.target, fixed = k, b.top
		}
	}
	if q.target < 0 {
		return false
	}
	q.top = tops[q.target]
	return q.top > fixed+grid
}

// press makes the target shorter and moves what stuck out into it.
func (q *squeezer) press() {
	t := &q.sheets[q.target]
	t.limit = max(int32(math.Ceil(t.bin.top/grid)), min(int32((q.top-q.share*q.top)/grid), int32(q.top/grid)-1))
	for p := range q.spots {
		at := &q.spots[p]
		if at.sheet != q.target {
			continue
		}
		h := q.shape(p, at.turn).h
		if at.y+h <= t.limit {
			continue
		}
		q.leave(p)
		if h > t.limit {
			// It has to leave the sheet.
			*at = q.anywhere(p, *at)
		} else {
			at.y = t.limit - h
		}
		q.take(p)
	}
	q.measure()
	q.queue, q.passes = q.queue[:0], 0
}

// anywhere is a place in some sheet where the part has room by itself, or else the old one.
func (q *squeezer) anywhere(p int, old spot) spot {
	for range 30 {
		k, turn := q.s.rng.IntN(len(q.sheets)), q.s.rng.IntN(len(q.s.shapes.classes[q.s.shapes.of[p]].turns))
		sh, t := q.shape(p, turn), &q.sheets[k]
		if room := len(t.cols) - len(sh.cols); room >= 0 && sh.h <= t.limit {
			return spot{k, turn, q.s.rng.IntN(room + 1), int32(q.s.rng.IntN(int(t.limit-sh.h) + 1))}
		}
	}
	return old
}

// again weighs all pairs alike.
func (q *squeezer) again() {
	for i := range q.weight {
		q.weight[i] = plainWeight
	}
}

// measure sums up all overlaps.
func (q *squeezer) measure() {
	clear(q.over)
	clear(q.sum)
	for p := range q.spots {
		if q.spots[p].sheet >= 0 {
			q.overlaps(p)
		}
	}
}

// overlaps sums up the overlaps of one part.
func (q *squeezer) overlaps(p int) {
	n := len(q.sum)
	row := q.over[p*n : (p+1)*n]
	for j, v := range row {
		if v != 0 {
			q.sum[j] -= int64(v)
			q.over[j*n+p] = 0
			row[j] = 0
		}
	}
	at := q.spots[p]
	t := &q.sheets[at.sheet]
	for j, spans := range q.shape(p, at.turn).cols {
		for _, h := range t.cols[at.c+j] {
			if h.who == int32(p) {
				continue
			}
			for _, v := range spans {
				if o := min(h.hi, v.hi+at.y) - max(h.lo, v.lo+at.y); o > 0 {
					row[h.who] += o
				}
			}
		}
	}
	q.sum[p] = 0
	for j, v := range row {
		if v != 0 {
			q.sum[p] += int64(v)
			q.sum[j] += int64(v)
			q.over[j*n+p] = v
		}
	}
	if at.y+q.shape(p, at.turn).h > t.limit {
		q.sum[p]++ // it sticks out
	}
}

// step moves one part that overlaps others; true if that led to a closer layout.
func (q *squeezer) step() bool {
	for {
		if len(q.queue) == 0 {
			for p := range q.spots {
				if q.spots[p].sheet >= 0 && q.sum[p] > 0 {
					q.queue = append(q.queue, int32(p))
				}
			}
			if len(q.queue) == 0 {
				return q.done()
			}
			total := int64(0)
			for _, v := range q.sum {
				total += v
			}
			if q.passes++; q.passes == 1 || total < q.leastOver {
				q.leastOver, q.leastPass = total, q.passes
			}
			if q.passes > q.leastPass+patience {
				q.fail()
				return false
			}
			if q.passes > 1 {
				q.reweigh()
			}
			q.s.rng.Shuffle(len(q.queue), func(i, j int) { q.queue[i], q.queue[j] = q.queue[j], q.queue[i] })
		}
		p := q.queue[len(q.queue)-1]
		q.queue = q.queue[:len(q.queue)-1]
		if q.sum[p] > 0 {
			q.move(int(p))
			return false
		}
	}
}

// reweigh makes the pairs that overlap weigh more, the others a little less.
func (q *squeezer) reweigh() {
	most := slices.Max(q.over)
	for i, v := range q.over {
		w := q.weight[i]
		if v > 0 {
			w += w/5 + int32(float64(w)*.8*float64(v)/float64(most)) + 1
		} else {
			w -= w / 20
		}
		q.weight[i] = min(max(w, plainWeight), mostWeight)
	}
}

// done keeps a layout without overlaps, lets the parts rise as far as they can, and
// presses on.
func (q *squeezer) done() bool {
	places := q.risen()
	copy(q.saved, q.spots)
	least := q.s.least
	bins := make([]*bin, len(q.sheets))
	for k := range bins {
		b := *q.sheets[k].bin
		bins[k] = &b
	}
	for i, l := range places {
		if q.spots[i].sheet < 0 {
			continue
		}
		b := bins[l.bin]
		b.parts++
		b.top = max(b.top, l.y+q.s.shapes.classes[q.s.shapes.of[i]].turns[l.turn].h)
	}
	q.s.judge(places, bins)
	better := q.s.least < least-1e-9
	if better {
		q.failed = 0
		q.idle = !q.aim()
	}
	if !q.idle {
		q.again()
		q.press()
	}
	return better
}

// fail goes back to the last layout and starts from there anew with two parts exchanged,
// and less to be gained.
func (q *squeezer) fail() {
	for k := range q.sheets {
		for c := range q.sheets[k].cols {
			q.sheets[k].cols[c] = slices.DeleteFunc(q.sheets[k].cols[c], func(h held) bool { return int(h.who) < len(q.spots) })
		}
	}
	copy(q.spots, q.saved)
	var loose []int
	for p := range q.spots {
		if q.spots[p].sheet >= 0 {
			loose = append(loose, p)
		}
	}
	q.share = max(lastShare, q.share/2)
	if q.failed++; q.failed > 2 {
		a, b := loose[q.s.rng.IntN(len(loose))], loose[q.s.rng.IntN(len(loose))]
		q.exchange(a, b)
	}
	for _, p := range loose {
		q.take(p)
	}
	q.again()
	q.press()
}

// exchange lays two parts with their middles where the other's is.
func (q *squeezer) exchange(a, b int) {
	move := func(p int, to spot, of *gridShape) spot {
		sh, t := q.shape(p, q.spots[p].turn), &q.sheets[to.sheet]
		room, down := len(t.cols)-len(sh.cols), t.limit-sh.h
		if room < 0 || down < 0 {
			return q.spots[p]
		}
		c := to.c + (len(of.cols)-len(sh.cols))/2
		y := to.y + (of.h-sh.h)/2
		return spot{to.sheet, q.spots[p].turn, min(max(c, 0), room), min(max(y, 0), down)}
	}
	was := q.spots[a]
	shape := q.shape(a, was.turn)
	q.spots[a] = move(a, q.spots[b], q.shape(b, q.spots[b].turn))
	q.spots[b] = move(b, was, shape)
}

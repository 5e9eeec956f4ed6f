package nest

import (
	"cmp"
	"math"
	"math/rand/v2"
	"slices"

	"sectilis/core/ground/geom"
)

type rng = *rand.Rand

func newRNG(seed uint64) rng { return rand.New(rand.NewPCG(seed, 0x5ec7)) }

// first lays the parts in some plain orders and keeps the best. Where that would take
// too long for a first answer, only one order is tried now, of very many turns with the
// first two, and the others are what Improve begins with.
func (s *Search) first() {
	by := []func(c *class) float64{
		func(c *class) float64 { return c.turns[0].w * c.turns[0].h },
		func(c *class) float64 { return max(c.turns[0].w, c.turns[0].h) },
		func(c *class) float64 { return c.turns[0].w + c.turns[0].h },
	}
	if s.boxes {
		by = append(by, func(c *class) float64 { return c.turns[0].h }, func(c *class) float64 { return min(c.turns[0].w, c.turns[0].h) })
	}
	turns := 0
	for _, c := range s.shapes.of {
		turns += len(s.shapes.classes[c].turns)
	}
	for _, size := range by {
		s.plain = append(s.plain, s.sorted(size))
	}
	s.cost = math.Inf(1)
	now := len(s.plain)
	if !s.boxes && turns > 150 {
		now = 1
	}
	if !s.boxes && turns > 600 {
		s.quick = true
		s.keep(s.sorted(by[0]).all(quarter))
		s.quick = false
		if !slices.ContainsFunc(s.best.Places, func(p Place) bool { return p.Sheet < 0 }) {
			now = 0
		} // else: what has no room upright may have it aslant
	}
	for range now {
		s.next()
	}
	s.heat = warmth * s.cost
}

// sorted are the parts by falling size, each at the turn that lies lowest.
func (s *Search) sorted(size func(c *class) float64) genes {
	n := len(s.p.Parts)
	g := genes{make([]int32, n), make([]int8, n)}.all(-1)
	for i := range g.order {
		g.order[i] = int32(i)
	}
	slices.SortStableFunc(g.order, func(a, b int32) int {
		return -cmp.Compare(size(&s.shapes.classes[s.shapes.of[a]]), size(&s.shapes.classes[s.shapes.of[b]]))
	})
	return g
}

func (g genes) all(turn int8) genes {
	for i := range g.turn {
		g.turn[i] = turn
	}
	return g
}

// next tries the next of the plain orders.
func (s *Search) next() {
	s.keep(s.plain[0])
	s.plain = s.plain[1:]
}

func (s *Search) keep(g genes) {
	if cost := s.try(g); cost < s.cost {
		s.now, s.cost = g, cost
	}
}

// Improve tries n more layouts and reports whether one was better than all
// before.
func (s *Search) Improve(n int) bool {
	least := s.least
	if len(s.p.Parts) < 2 {
		return false
	}
	for range n {
		if len(s.plain) > 0 {
			s.next()
			s.heat = warmth * s.cost
			continue
		}
		s.steps++
		if !s.boxes && s.steps > searching && s.press() {
			continue
		}
		s.scratch.order = append(s.scratch.order[:0], s.now.order...)
		s.scratch.turn = append(s.scratch.turn[:0], s.now.turn...)
		if !s.vary(&s.scratch) {
			continue
		}
		if cost := s.try(s.scratch); cost <= s.cost+s.heat {
			s.now, s.scratch, s.cost = s.scratch, s.now, cost
		}
		s.cool()
	}
	return s.least < least-1e-9
}

// press takes steps of pressing the best layout closer; false where nothing can be pressed.
func (s *Search) press() bool {
	if s.squeeze == nil {
		s.squeeze = newSqueezer(s)
	}
	for range pressing {
		if s.squeeze.idle {
			return false
		}
		s.squeeze.step()
	}
	return true
}

// Outlines are laid anew in so many steps before the best layout is pressed; a step is
// so many moves then, which take about as long.
const (
	searching = 40
	pressing  = 4
)

// Boxes are laid fast and take thousands of steps, other parts dozens. The share of
// the cost that a worse layout may be worse by falls by cooling a step, and is
// what it was at first after so many steps.
//
// nearby is how far in the order a part is mostly moved, and hintShare how much the
// area above the lower ends of all counts beside that of the sheets.
const (
	warmth     = .004
	nearby     = 3
	hintShare  = .5
	coolBoxes  = .9999
	coolOthers = .99
	spell      = 50_000
	spellOther = 400
)

// Round is the number of iterations of one quick batch, some milliseconds.
func (s *Search) Round() int {
	if s.boxes {
		return 4000
	}
	return 4
}

func (s *Search) cool() {
	cooling, length := coolOthers, spellOther
	if s.boxes {
		cooling, length = coolBoxes, spell
	}
	if s.heat *= cooling; s.steps%length == 0 {
		s.heat = warmth * s.cost
	}
}

// vary changes an order a little; false when that changes nothing.
func (s *Search) vary(g *genes) bool {
	n := len(g.order)
	i, j := s.rng.IntN(n), s.rng.IntN(n)
	if !s.boxes && s.rng.IntN(3) > 0 {
		// Mostly one near in the order: large before small is a good rule.
		j = min(max(i+s.rng.IntN(2*nearby+1)-nearby, 0), n-1)
	}
	switch s.rng.IntN(4) {
	case 0:
		p := g.order[i]
		turns := len(s.shapes.classes[s.shapes.of[p]].turns)
		if turns == 1 {
			return false
		}
		was := g.turn[p]
		g.turn[p] = int8(s.rng.IntN(turns+1) - 1)
		return g.turn[p] != was || !s.boxes
	case 1:
		// One is laid earlier or later.
		p := g.order[i]
		g.order = slices.Delete(g.order, i, i+1)
		g.order = slices.Insert(g.order, j, p)
		s.loosen(g, p)
		return i != j
	default:
		a, b := g.order[i], g.order[j]
		if s.shapes.of[a] == s.shapes.of[b] && g.turn[a] == g.turn[b] {
			return false
		}
		g.order[i], g.order[j] = b, a
		s.loosen(g, a)
		s.loosen(g, b)
		return true
	}
}

// loosen lets a part that is moved find its turn anew.
func (s *Search) loosen(g *genes, p int32) {
	if !s.boxes {
		g.turn[p] = -1
	}
}

// laid is where a part was put.
type laid struct {
	bin  int
	turn int
	x, y float64
}

// try lays the parts, roughly where they are no boxes, and keeps the layout if it
// is the best. What it returns is the area, and a little for what is used of the
// last sheet beyond need, which leads the search.
func (s *Search) try(g genes) float64 {
	if s.boxes {
		cost, _ := s.lay(g, narrow)
		return cost
	}
	cost, area := s.lay(g, broad)
	if area < s.rough-1e-9 {
		s.rough = area
		s.lay(g, narrow)
	}
	return cost
}

// lay lays the parts in columns of a level. In narrow ones, a layout is kept if it
// is the best so far.
func (s *Search) lay(g genes, level int) (cost, area float64) {
	var bins []*bin
	places := make([]laid, len(s.p.Parts))
	used := make([]int, len(s.p.Sheets))
	open := func() *bin {
		for k, sh := range s.p.Sheets {
			if sh.Count == 0 || used[k] < sh.Count {
				used[k]++
				b := newBin(k, sh, s.p.Between, .25*s.shapes.least)
				if s.boxes {
					b.openSky()
				} else {
					b.open(level, s.shapes.columns[level])
				}
				bins = append(bins, b)
				return b
			}
		}
		return nil
	}
	for i := range places {
		places[i].bin = -1
	}
	defer s.keepTurns(g, places)
	s.fix(places, &bins, open)
	for _, p := range g.order {
		if s.p.Parts[p].Fixed != nil {
			continue
		}
		k := 0
		for k < len(bins) && !s.put(bins[k], int(p), g.turn[p], &places[p]) {
			k++
		}
		if k == len(bins) {
			if !s.onNew(&bins, open, int(p), g.turn[p], &places[p]) {
				continue
			}
			k = len(bins) - 1 // those before it may have been too small
		}
		places[p].bin = k
	}
	return s.judge(places, bins)
}

// keepTurns lets parts keep the turns that were found for them until they are moved: that
// saves trying them all at every step.
func (s *Search) keepTurns(g genes, places []laid) {
	for i := range places {
		if !s.boxes && places[i].bin >= 0 {
			g.turn[i] = int8(places[i].turn)
		}
	}
}

// onNew lays a part on a new sheet; false when there is none, or it has no room there. An
// empty one that there are more of is not opened twice.
func (s *Search) onNew(bins *[]*bin, open func() *bin, part int, turn int8, at *laid) bool {
	for {
		n := len(*bins)
		if n > 0 && (*bins)[n-1].parts == 0 && s.p.Sheets[(*bins)[n-1].kind].Count == 0 {
			return false // nor would it have room on another
		}
		b := open()
		if b == nil {
			return false
		}
		if s.put(b, part, turn, at) {
			return true
		}
	}
}

// fix lays what lies fixed.
func (s *Search) fix(places []laid, bins *[]*bin, open func() *bin) {
	for i := range s.p.Parts {
		f := s.p.Parts[i].Fixed
		if f == nil {
			continue
		}
		for len(*bins) <= f.Sheet {
			if open() == nil {
				return
			}
		}
		b := (*bins)[f.Sheet]
		outline := geom.Offset(s.p.Parts[i].Outline.Transform(f.At), s.p.Between/2+flat, geom.RoundCorner).Flatten(flat)
		m := geom.Shift(-b.origin.X, -b.origin.Y)
		box := boundsOf(outline)
		at := m.Apply(geom.Pt(box.X, box.Y))
		// The columns of the shape lie on those of the bin.
		first := math.Floor(at.X / b.column)
		left := b.origin.X + first*b.column
		for _, l := range outline {
			for k := range l.Points {
				l.Points[k] = l.Points[k].Sub(geom.Pt(left, b.origin.Y))
			}
		}
		for j, spans := range columns(outline, box.Right()-left, b.column) {
			if c := int(first) + j; c >= 0 && c < len(b.cols) {
				for _, v := range spans {
					b.cols[c] = insert(b.cols[c], v, b.gap)
				}
			}
		}
		b.top = max(b.top, at.Y+box.H)
		b.parts++
		places[i].bin = f.Sheet
	}
}

// put lays a part in a bin at its turn, or at that which lies lowest.
func (s *Search) put(b *bin, p int, turn int8, at *laid) bool {
	c := &s.shapes.classes[s.shapes.of[p]]
	limit, found, column := math.Inf(1), -1, 0
	for t := range c.turns {
		if turn >= 0 && t != int(turn) || turn == quarter && t >= 2 {
			continue
		}
		sh := &c.turns[t]
		if s.boxes {
			if x, y, top, ok := b.findBox(sh.w, sh.h, limit); ok {
				found, limit = t, top-1e-6
				at.x, at.y = x, y
			}
			continue
		}
		if col, y, top, ok := b.find(sh, limit); ok {
			found, limit, column = t, top-1e-6, col
			at.x, at.y = float64(col)*b.column, y
		}
	}
	if found < 0 && turn >= 0 && !s.quick {
		return s.put(b, p, -1, at) // another turn may fit
	}
	if found < 0 {
		return false
	}
	at.turn = found
	sh := &c.turns[found]
	if s.boxes {
		b.layBox(at.x, at.y, sh.w, sh.h)
	} else {
		b.lay(sh, column, at.y)
	}
	return true
}

package sheet

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
	"sectilis/core/production/nest"
)

// Lay lays the base and all pieces of a card on sheets, as LayCopies does.
func Lay(c card.Card, s scene.Scene, opt Options, by Nester) Layout {
	return LayCopies(c, Single(c, s), opt, by)
}

// LayCopies lays the base and all pieces of copies of a card on sheets, stock by stock: what is not
// printed on scraps first, what was laid by hand where it was laid, the rest on the sizes on hand
// that take the least paper.
func LayCopies(c card.Card, copies []Copy, opt Options, by Nester) Layout {
	if by == nil {
		by = First
	}
	out := Layout{Sheets: []Sheet{}, Problems: []Problem{}, Notes: openOf(copies)}
	area, whole := 0.0, 0.0
	for _, group := range byStock(piecesOf(copies)) {
		stock, _ := card.StockByID(group[0].stock)
		p := opt.on(stock.ID)
		printed := slices.ContainsFunc(group, func(l loose) bool { return l.inked() })
		units := unitsOf(c, group, p)
		units = p.apart(&out, c, units, printed)
		bases, units := p.whole(&out, units)
		sheets, rest, taken := onScraps(&out, units, stock, p, by)
		laid := 0
		for _, run := range p.byMarking(rest) {
			f := run.paper.fill(run.units, printed, by)
			if f.problem.Parts != nil {
				out.Nested = append(out.Nested, f.problem)
			}
			sheets = append(sheets, run.sheets(&out, f, stock, laid, printed)...)
			laid += len(f.answer.Sheets)
			out.Taken += f.taken
		}
		for i := range bases {
			bases[i].Of, bases[i].Stock = laid+i, stock
			taken += bases[i].Size.area()
		}
		sheets = append(bases, sheets...)
		for i := range sheets {
			sh := &sheets[i]
			sh.Number = len(out.Sheets) + i + 1
			sh.finish(p)
			area += sh.Used * sh.Size.area()
			whole += sh.Size.area()
		}
		out.Sheets = append(out.Sheets, sheets...)
		out.Taken += taken
	}
	if whole > 0 {
		out.Used = area / whole
	}
	out.Short = opt.short(out.Sheets)
	return out
}

// marked are units that are laid on sheets with marks, or without.
type marked struct {
	paper paper
	units []unit
}

// byMarking parts units into those whose sheets get marks and those whose sheets get none; the latter
// are laid anew wherever they lay before. None are left out.
func (p paper) byMarking(units []unit) (out []marked) {
	with, bare := marked{paper: p}, marked{paper: p}
	for _, u := range units {
		if on := p.markedFor(u); on.Marking == p.Marking {
			with.units = append(with.units, u)
		} else {
			bare.paper, u.fixed = on, nil
			bare.units = append(bare.units, u)
		}
	}
	if out = append(out, with); bare.units != nil {
		out = append(out, bare)
	}
	return out
}

// sheets are the sheets that units are laid on; from is the number of the first among those of their
// stock.
func (m marked) sheets(out *Layout, f filled, stock card.Stock, from int, printed bool) (sheets []Sheet) {
	p := m.paper
	for i, kind := range f.answer.Sheets {
		size := p.sizes[f.sizes[kind]]
		margin := p.Margin
		if printed {
			margin = p.marginOn(size, margin)
		}
		sheets = append(sheets, Sheet{Of: from + i, Stock: stock, Size: size, Margin: margin, Marks: []Mark{}, unmarked: p.Marking == Unmarked})
	}
	for i, u := range m.units {
		place := f.answer.Places[i]
		if place.Sheet < 0 {
			big := oversize{u, p, printed}
			for _, l := range u.members {
				out.Problems = append(out.Problems, big.problem(l, stock))
			}
			continue
		}
		if f.across[i] {
			u.wrong = cmp.Or(u.wrong, fmt.Sprintf("“%s” lies across the grain: along it, the sheet has no room.", u.members[0].Name))
		}
		u.layOn(&sheets[place.Sheet], place.At)
	}
	return sheets
}

// finish marks a sheet that all its pieces lie on, and says what is wrong with them.
func (sh *Sheet) finish(p paper) {
	sh.Shared = p.Share
	switch {
	case sh.Whole || sh.unmarked:
	case sh.Printed && p.Marking == ForMachine:
		sh.Marks = marks(sh.Size, sh.Margin)
	case sh.Printed && p.Marking == ForHand:
		sh.Crops = sh.crops()
	}
	if !sh.Whole {
		sh.clashes(p)
	}
	used := 0.0
	for _, piece := range sh.Pieces {
		used += piece.Area
	}
	sh.Used = used / sh.Size.area()
}

// filled is how units are laid on the sizes on hand.
type filled struct {
	problem nest.Problem
	answer  nest.Answer
	sizes   []int   // of each kind of sheet in the problem, which size it is
	out     int     // units without room
	across  []bool  // of each unit, whether it may lie across the grain
	whole   float64 // area of all sheets that are used
	taken   float64 // of the last as far down as it is used
}

// less reports whether fewer are left out or lie across the grain, or less paper is taken.
func (f filled) less(than filled) bool {
	count := func(a []bool) (n int) {
		for _, v := range a {
			if v {
				n++
			}
		}
		return n
	}
	return cmp.Or(cmp.Compare(f.out, than.out), cmp.Compare(count(f.across), count(than.across)), cmp.Compare(math.Round(f.whole), math.Round(than.whole)), cmp.Compare(len(f.answer.Sheets), len(than.answer.Sheets))) < 0
}

// fill lays units on that size on hand which takes the least paper, or on two: what is
// too large for the smaller on the larger, which others then fill up.
func (p paper) fill(units []unit, printed bool, by Nester) filled {
	if len(units) == 0 {
		return filled{}
	}
	best := filled{out: len(units) + 1}
	area := 0.0
	for _, u := range units {
		area += math.Abs(u.room.Area())
	}
	for small, size := range p.sizes {
		if best.out == 0 && !slices.Contains(best.across, true) && math.Ceil(area/size.area())*size.area() >= best.whole {
			continue // it cannot take less
		}
		alone := p.lay(units, printed, []int{small}, nil, by)
		if alone.less(best) {
			best = alone
		}
		if alone.out == 0 {
			continue
		}
		var large []unit
		for i, place := range alone.answer.Places {
			if place.Sheet < 0 {
				large = append(large, units[i])
			}
		}
		for size := small + 1; size < len(p.sizes); size++ {
			n := len(p.lay(large, printed, []int{size}, nil, by).answer.Sheets)
			if both := p.lay(units, printed, []int{size, small}, []int{n}, by); n > 0 && both.less(best) {
				best = both
			}
		}
	}
	return best
}

// lay lays units on sizes in their order, on so many sheets of the first ones; before all
// come the sheets on which something is fixed, in the sizes that these have.
func (p paper) lay(units []unit, printed bool, sizes, count []int, by Nester) filled {
	var f filled
	if len(p.sizes) > 1 {
		for _, u := range units {
			if u.fixed == nil {
				continue
			}
			for len(f.sizes) <= u.fixed.Sheet {
				f.sizes = append(f.sizes, sizes[len(sizes)-1])
			}
		}
		for _, u := range units {
			if u.fixed != nil {
				f.sizes[u.fixed.Sheet] = max(f.sizes[u.fixed.Sheet], u.size)
			}
		}
	}
	var kinds []nest.Sheet
	for _, k := range f.sizes {
		kind := p.kind(p.sizes[k], printed)
		kind.Count = 1
		kinds = append(kinds, kind)
	}
	for i, k := range sizes {
		kind := p.kind(p.sizes[k], printed)
		if i < len(count) {
			kind.Count = count[i]
		}
		kinds, f.sizes = append(kinds, kind), append(f.sizes, k)
	}
	f.problem, f.across = p.problem(units, kinds)
	f.answer = by(f.problem)
	f.taken = f.answer.Area
	for _, k := range f.answer.Sheets {
		area := p.sizes[f.sizes[k]].area()
		f.whole += area
		if kinds[k].Count > 0 {
			f.taken += area
		}
	}
	for _, place := range f.answer.Places {
		if place.Sheet < 0 {
			f.out++
		}
	}
	return f
}

// onScraps lays what is not printed, and was not laid by hand, on the scraps of its
// stock, the smallest first; rest is what has no room on them.
func onScraps(out *Layout, units []unit, stock card.Stock, p paper, by Nester) (sheets []Sheet, rest []unit, taken float64) {
	var kinds []nest.Sheet
	for _, s := range p.Scraps {
		if s.Stock == stock.ID {
			kinds = append(kinds, nest.Sheet{Width: s.Width, Height: s.Height, Margin: scrapMargin, Count: 1})
		}
	}
	slices.SortStableFunc(kinds, func(a, b nest.Sheet) int { return cmp.Compare(a.Width*a.Height, b.Width*b.Height) })
	var plain []unit
	for _, u := range units {
		if _, across := u.turning(p, kinds); len(kinds) > 0 && u.fixed == nil && !u.inked() && !across {
			plain = append(plain, u)
		} else {
			rest = append(rest, u)
		}
	}
	if len(plain) == 0 {
		return nil, rest, 0
	}
	laid, _ := p.problem(plain, kinds)
	out.Nested = append(out.Nested, laid)
	answer := by(laid)
	for _, k := range answer.Sheets {
		size := Size{"scrap", "Scrap", kinds[k].Width, kinds[k].Height, false}
		sheets = append(sheets, Sheet{Of: -1, Stock: stock, Size: size, Margin: scrapMargin, Marks: []Mark{}})
	}
	for i, u := range plain {
		if place := answer.Places[i]; place.Sheet < 0 {
			rest = append(rest, u)
		} else {
			u.layOn(&sheets[place.Sheet], place.At)
		}
	}
	return sheets, rest, answer.Area
}

// problem is units as parts to be laid; across says which may lie across the grain.
func (p paper) problem(units []unit, kinds []nest.Sheet) (out nest.Problem, across []bool) {
	out = nest.Problem{Sheets: kinds, Between: p.between()}
	across = make([]bool, len(units))
	for i := range units {
		u := &units[i]
		part := nest.Part{Outline: u.room, Turning: p.Turning, Fixed: u.fixed}
		if u.fixed == nil {
			part.Turning, across[i] = u.turning(p, kinds)
		}
		out.Parts = append(out.Parts, part)
	}
	return out, across
}

// between is the room between two pieces, mm; none where they share edges.
func (p paper) between() float64 {
	if p.Share {
		return 0
	}
	return p.Between
}

// roomsOn are the boxes that a single piece may fill: all within the margins or, where
// corners are kept clear, a strip along either pair of edges.
func roomsOn(kind nest.Sheet, between float64) []geom.Rect {
	a := geom.Rect{W: kind.Width, H: kind.Height}.Grow(-kind.Margin)
	if len(kind.Keep) == 0 {
		return []geom.Rect{a}
	}
	c := a.Centre()
	left, right, top, bottom := a.X, a.Right(), a.Y, a.Bottom()
	for _, k := range kind.Keep {
		k = k.Grow(between)
		if k.Centre().X < c.X {
			left = max(left, k.Right())
		} else {
			right = min(right, k.X)
		}
		if k.Centre().Y < c.Y {
			top = max(top, k.Bottom())
		} else {
			bottom = min(bottom, k.Y)
		}
	}
	return []geom.Rect{{X: a.X, Y: top, W: a.W, H: bottom - top}, {X: left, Y: a.Y, W: right - left, H: a.H}}
}

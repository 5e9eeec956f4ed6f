package fold

import (
	"cmp"
	"math"
	"slices"
)

// Folds that are turned by hand are turned one stage after the other. Which comes first
// matters where leaves would lie in one place, run into one another or through a fold: a
// leaf that is folded first lies under those that follow. Where the order as drawn leads to
// that, others are tried.

// maxOrders bounds how many orders of hand folds are tried, and panelsTried how many panels are folded in
// them all together: one order of a hundred panels takes about 0.2 s.
const (
	maxOrders   = 40
	panelsTried = 1200
)

// handFold is a fold that hands turn as one: lines of a net that lie along each other, or
// that stop half way beside each other.
type handFold struct {
	lines []int
	stage int // as drawn, of a fold of the base
	own   bool
	order int // of an own fold, when hands fold it; 0 is whenever it works out
}

// handFolds are the folds of the net that are turned by hand, as drawn.
func (f *Folder) handFolds() []handFold {
	byHand := make([]bool, len(f.net.Lines))
	for j, h := range f.Hinges {
		byHand[h.Line] = byHand[h.Line] || f.main[j]
	}
	var out []handFold
	for i, l := range f.net.Lines {
		if !byHand[i] {
			continue
		}
		k := slices.IndexFunc(out, func(g handFold) bool {
			first := f.net.Lines[g.lines[0]]
			return g.own == l.own && first.Stage == l.Stage && g.order == l.order && (first.Stop != 0 && l.Stop != 0 || first.along(l))
		})
		if k < 0 {
			out, k = append(out, handFold{stage: l.Stage, own: l.own, order: l.order}), len(out)
		}
		out[k].lines = append(out[k].lines, i)
	}
	return out
}

// along reports whether two lines lie on one straight line.
func (l Line) along(o Line) bool {
	v := l.To.Sub(l.From)
	off := func(d float64) bool { return math.Abs(d) <= sameLine*v.Len() }
	return off(v.Cross(o.From.Sub(l.From))) && off(v.Cross(o.To.Sub(l.From)))
}

// byHand is a net whose hand folds are marked as such, own ones too.
func (n Net) byHand(folds []handFold) Net {
	n.Lines = slices.Clone(n.Lines)
	for _, g := range folds {
		for _, i := range g.lines {
			n.Lines[i].Main = true
		}
	}
	return n
}

// inOrder is a net whose folds are turned by hand one after the other.
func (n Net) inOrder(folds []handFold) Net {
	n.Lines = slices.Clone(n.Lines)
	for stage, g := range folds {
		for _, i := range g.lines {
			n.Lines[i].Main, n.Lines[i].Stage = true, stage
		}
	}
	return n
}

// numbered is a net in which own folds that have a number are turned in their order,
// before all others; ok is false if none has.
func (n Net) numbered(folds []handFold) (out Net, ok bool) {
	first := slices.Clone(folds)
	first = slices.DeleteFunc(first, func(g handFold) bool { return g.order == 0 })
	if len(first) == 0 {
		return n, false
	}
	slices.SortStableFunc(first, func(a, b handFold) int { return cmp.Compare(a.order, b.order) })
	out = n.inOrder(first)
	for _, g := range folds {
		for _, i := range g.lines {
			if g.order == 0 {
				out.Lines[i].Main, out.Lines[i].Stage = true, g.stage+len(first)
			}
		}
	}
	return out, true
}

// orders calls try with one order of hand folds after the other, those of the base in their
// stages, until it returns true or enough were tried for so many panels.
func orders(folds []handFold, panels int, try func([]handFold) bool) {
	tried, most := 0, min(maxOrders, max(4, panelsTried/max(panels, 1)))
	var with func(order, left []handFold) bool
	with = func(order, left []handFold) bool {
		if len(left) == 0 {
			tried++
			return try(order) || tried >= most
		}
		for i, g := range left {
			// What has to come before it is not left.
			if slices.ContainsFunc(left, func(o handFold) bool {
				return !g.own && !o.own && o.stage < g.stage || o.order > 0 && (g.order == 0 || o.order < g.order)
			}) {
				continue
			}
			rest := slices.Delete(slices.Clone(left), i, i+1)
			if with(append(slices.Clone(order), g), rest) {
				return true
			}
		}
		return false
	}
	if len(folds) > 1 && len(folds) <= 8 {
		with(nil, folds)
	}
}

package fold

import (
	"math"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
)

// Rounded returns the net of a base as a person can measure it: to 1/parts in, or to 0.1 mm.
// It is rounded as a whole and not line by line, so that what adds up goes on adding up: the
// measures that the base is made from are rounded, and the net made from these. Only places
// that follow from them otherwise, such as the ends of slanting lines, are rounded
// themselves. A base whose rounded measures the catalogue refuses is rounded by places.
func Rounded(b card.Base, u measure.Unit, parts int) Net {
	step := measure.Step(u, parts)
	best, off := StudyOf(b).Net, math.Inf(1)
	// Halves and quarters of measures are on the grid when these are on a coarser one.
	for _, coarse := range []float64{1, 2, 4} {
		r := roundedBase(b, step*coarse, step)
		if Check(r) != nil {
			continue
		}
		n := StudyOf(r).Net
		if d := n.offGrid(step); d < off-1e-9 {
			best, off = n, d
		}
		if off < 1e-6 {
			return best
		}
	}
	best.snap(step)
	return best
}

// roundedBase rounds the measures of a base to steps, and own lines to a finer one.
func roundedBase(b card.Base, step, fine float64) card.Base {
	to := func(v, step float64) float64 { return nano(math.Round(v/step) * step) }
	r := b
	r.Width, r.Height = to(b.Width, step), to(b.Height, step)
	r.Measures = map[string]float64{}
	_, list := find(b.Kind).values(b)
	for _, m := range list {
		v := m.At
		if m.Unit == "mm" {
			v = to(v, step)
		}
		r.Measures[m.ID] = v
	}
	r.Lines = nil
	for _, l := range b.Lines {
		l.From, l.To = geom.Pt(to(l.From.X, fine), to(l.From.Y, fine)), geom.Pt(to(l.To.X, fine), to(l.To.Y, fine))
		r.Lines = append(r.Lines, l)
	}
	return r
}

// offGrid is how far the place of a straight line that is farthest off a grid is off it, mm.
func (n Net) offGrid(step float64) (most float64) {
	for _, l := range n.Lines {
		if l.From.X != l.To.X && l.From.Y != l.To.Y {
			continue
		}
		for _, v := range []float64{l.From.X, l.From.Y, l.To.X, l.To.Y} {
			most = max(most, math.Abs(v-math.Round(v/step)*step))
		}
	}
	return most
}

// snap moves every end to the grid.
func (n *Net) snap(step float64) {
	to := func(p geom.Point) geom.Point {
		return geom.Pt(math.Round(p.X/step)*step, math.Round(p.Y/step)*step)
	}
	lines := make([]Line, len(n.Lines))
	for i, l := range n.Lines {
		l.From, l.To = to(l.From), to(l.To)
		lines[i] = l
	}
	n.Lines = lines
}

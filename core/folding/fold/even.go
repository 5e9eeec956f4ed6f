package fold

import (
	"math"

	"gonum.org/v1/gonum/mat"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// Even returns the lines of a drawn base with its scores moved by as little as makes it fold flat, and
// the largest move, mm; ok is false where that does not lead there, or is too much work. Drawings are rounded, and what is
// rounded by a hundredth of a millimetre does not close.
//
// Closed, every panel lies where the reflections about the scores on the way to it lay it. Going once
// around a loop these must bring a panel back to where it was. Scores that lie along each other move as
// one; those that run up and down or across only move beside themselves. The least moves are found by
// Gauss-Newton steps of least norm.
func Even(b card.Base) (lines []card.DrawnLine, most float64, ok bool) {
	n := drawnNet(b, func(string) float64 { return 0 })
	f := NewFolder(n)
	for _, l := range n.Lines {
		if l.Stop != 0 {
			return b.Drawn.Lines, 0, false
		}
	}
	if len(f.loops) == 0 {
		return b.Drawn.Lines, 0, true
	}
	e := evener{f: f, groups: n.scored()}
	of := make([]int, len(n.Lines))
	for g, s := range e.groups {
		for _, k := range s.lines {
			of[k] = g
		}
		e.first = append(e.first, e.vars)
		if e.vars++; s.slanted() {
			e.vars++
		}
	}
	e.of = of
	if e.vars > maxEven || len(f.loops) > maxEven {
		return b.Drawn.Lines, 0, false
	}
	moves := make([]float64, e.vars)
	for range 8 {
		r := e.residual(moves)
		if mat.Norm(r, math.Inf(1)) < 1e-10 {
			ok = true
			break
		}
		step, solved := e.step(moves, r)
		if !solved {
			return b.Drawn.Lines, 0, false
		}
		for i := range moves {
			moves[i] += step.AtVec(i)
		}
	}
	if !ok {
		return b.Drawn.Lines, 0, false
	}
	lines = append(lines, b.Drawn.Lines...)
	for k, l := range n.Lines {
		if !l.Role.Folds() {
			continue
		}
		m := e.motion(of[k], moves)
		from, to := m.Apply(l.From), m.Apply(l.To)
		most = max(most, from.Sub(l.From).Len(), to.Sub(l.To).Len())
		var g geom.Builder
		lines[l.drawn].Path = card.NewDrawn(g.Move(from).Line(to).Path())
	}
	return lines, most, true
}

// maxEven bounds how many numbers and loops are solved for at once: with as many a step takes some tens of
// milliseconds.
const maxEven = 150

// evener looks for the moves of the groups of scores of a net. A group has one number, how far it moves
// beside itself, mm, and a slanted one a second, how far its ends turn to either side, mm.
type evener struct {
	f      *Folder
	groups []scored
	of     []int // of each line of the net, its group
	first  []int // of each group, its first number
	vars   int
}

func (s scored) slanted() bool { return s.way.X != 0 && s.way.Y != 0 }

// motion is how a group is moved.
func (e *evener) motion(g int, moves []float64) geom.Affine {
	s := e.groups[g]
	m := geom.Shift(-s.way.Y*moves[e.first[g]], s.way.X*moves[e.first[g]])
	if s.slanted() {
		about := geom.Shift(-s.mid.X, -s.mid.Y).Then(geom.Turn(math.Atan(2 * moves[e.first[g]+1] / s.length)))
		m = about.Then(geom.Shift(s.mid.X, s.mid.Y)).Then(m)
	}
	return m
}

// reflection is the reflection about a group of scores that has been moved.
func (e *evener) reflection(g int, moves []float64) geom.Affine {
	m := e.motion(g, moves)
	s := e.groups[g]
	p, q := m.Apply(s.mid), m.Apply(s.mid.Add(s.way))
	w := q.Sub(p)
	c, d := w.X*w.X-w.Y*w.Y, 2*w.X*w.Y
	return geom.Affine{A: c, B: d, C: d, D: -c, E: p.X - c*p.X - d*p.Y, F: p.Y - d*p.X + c*p.Y}
}

// residual is, for each loop, how far the reflections around it take a panel: as a turn and across and
// down, mm.
func (e *evener) residual(moves []float64) *mat.VecDense {
	r := mat.NewVecDense(max(1, 3*len(e.f.loops)), nil)
	for i, l := range e.f.loops {
		m := geom.Identity
		for _, s := range l.steps {
			m = e.reflection(e.of[e.f.Hinges[s.hinge].Line], moves).Then(m)
		}
		at := geom.Pt(l.at.X, l.at.Y)
		d := m.Apply(at).Sub(at)
		r.SetVec(3*i, reach*m.B)
		r.SetVec(3*i+1, d.X)
		r.SetVec(3*i+2, d.Y)
	}
	return r
}

// step is the move of least norm that takes the residual away as far as it is linear.
func (e *evener) step(moves []float64, r *mat.VecDense) (*mat.VecDense, bool) {
	const h = 1e-6
	j := mat.NewDense(r.Len(), max(1, e.vars), nil)
	at := append([]float64(nil), moves...)
	for k := range e.vars {
		at[k] = moves[k] + h
		up := e.residual(at)
		at[k] = moves[k]
		for i := range r.Len() {
			j.Set(i, k, (up.AtVec(i)-r.AtVec(i))/h)
		}
	}
	var svd mat.SVD
	if !svd.Factorize(j, mat.SVDThin) {
		return nil, false
	}
	rank := svd.Rank(1e-7)
	if rank == 0 {
		return nil, false
	}
	neg := mat.NewVecDense(r.Len(), nil)
	neg.ScaleVec(-1, r)
	var step mat.VecDense
	svd.SolveVecTo(&step, neg, rank)
	return &step, true
}

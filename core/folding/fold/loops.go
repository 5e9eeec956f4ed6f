package fold

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"
)

// around is the motion that going once around a loop leaves.
func (f *Folder) around(i int, angles []float64) Motion {
	m := still
	for _, s := range f.loops[i].steps {
		m = m.after(f.turned(s, angles[s.hinge]))
	}
	return m
}

// reach weighs turns against lengths: mm for a radian.
const reach = 50

// residual is how far a loop is from closed: its turn, and how far it takes a
// place nearby.
func (f *Folder) residual(i int, angles []float64) [6]float64 {
	m := f.around(i, angles)
	at := f.loops[i].at
	d := m.Apply(at).Sub(at)
	w := V3{m.R[2].Y - m.R[1].Z, m.R[0].Z - m.R[2].X, m.R[1].X - m.R[0].Y}.Mul(.5 * reach)
	// Half a turn has no such vector; it is as far as can be.
	if trace := m.R[0].X + m.R[1].Y + m.R[2].Z; trace < 0 {
		if l := w.Len(); l < reach {
			w = w.Add(V3{X: reach, Y: reach, Z: reach})
		}
	}
	return [6]float64{w.X, w.Y, w.Z, d.X, d.Y, d.Z}
}

// slopes are the derivatives of a loop's residual by each of its steps' angles:
// the twist about the hinge's line where it is.
func (f *Folder) slopes(i int, angles []float64, put func(hinge int, d [6]float64)) {
	m := still
	all := f.around(i, angles)
	at := all.Apply(f.loops[i].at)
	for _, s := range f.loops[i].steps {
		p, u := f.axis(f.Hinges[s.hinge])
		if !s.forward {
			u = u.Mul(-1)
		}
		w, q := m.turn(u), m.Apply(p)
		v := w.Cross(at.Sub(q))
		// The turn's vector is that of a small turn: near closed it adds up.
		put(s.hinge, [6]float64{w.X * reach, w.Y * reach, w.Z * reach, v.X, v.Y, v.Z})
		m = m.after(f.turned(s, angles[s.hinge]))
	}
}

// solve finds the angles that follow, block by block.
func (f *Folder) solve(angles []float64) {
	for b, loops := range f.blocks {
		if len(f.free[b]) > 0 {
			f.solveBlock(loops, f.free[b], angles)
		}
	}
}

// leave finds the first angles after the flat sheet. From there a block can fold in several
// ways, since all of them meet in the flat state; the one is taken in which every fold
// turns as its role says. Near it the angles may be several times those of the folds that
// are turned by hand, or a part of them: a block is begun from other shares until it is on
// that way. The first attempt stands where none is.
func (f *Folder) leave(angles []float64) {
	shares := []float64{1, 2.5, .4, 6, .15, 15}
	for b, loops := range f.blocks {
		free := f.free[b]
		if len(free) == 0 {
			continue
		}
		begin := append([]float64(nil), angles...)
		f.solveBlock(loops, free, angles)
		if f.asDrawn(loops, free, angles) {
			continue
		}
		first := append([]float64(nil), angles...)
		tries := len(shares) // the same share for all folds, or every mixture for a few
		if len(free) <= 3 {
			tries = int(math.Pow(float64(len(shares)), float64(len(free))))
		}
		found := false
		for k := 1; k < tries && !found; k++ {
			copy(angles, begin)
			for i, rest := 0, k; i < len(free); i++ {
				share := shares[k%len(shares)]
				if len(free) <= 3 {
					share = shares[rest%len(shares)]
					rest /= len(shares)
				}
				angles[free[i]] = begin[free[i]] * share
			}
			f.solveBlock(loops, free, angles)
			found = f.asDrawn(loops, free, angles)
		}
		if !found {
			copy(angles, first)
		}
	}
}

// asDrawn reports whether loops are closed with all their folds turned as their roles say.
func (f *Folder) asDrawn(loops, free []int, angles []float64) bool {
	for _, h := range free {
		if a := angles[h] * sign(f.Hinges[h].Role); a < 1e-9 || a > math.Pi {
			return false
		}
	}
	for _, i := range loops {
		for _, v := range f.residual(i, angles) {
			if math.Abs(v) > gap {
				return false
			}
		}
	}
	return true
}

// normal sets the normal equations, JᵀJ and Jᵀr, of the residuals of loops for the angles of
// the folds that col gives columns to.
func (f *Folder) normal(loops []int, angles []float64, col map[int]int, jtj, jtr []float64) {
	clear(jtj)
	clear(jtr)
	n := len(jtr)
	for _, i := range loops {
		r := f.residual(i, angles)
		rows := make([][6]float64, n)
		f.slopes(i, angles, func(h int, d [6]float64) {
			if c, ok := col[h]; ok {
				for k := range d {
					rows[c][k] += d[k]
				}
			}
		})
		for a := range n {
			jtr[a] += dot(rows[a], r)
			for b := range n {
				jtj[a*n+b] += dot(rows[a], rows[b])
			}
		}
	}
}

func dot(a, b [6]float64) (sum float64) {
	for k := range a {
		sum += a[k] * b[k]
	}
	return sum
}

// solveBlock closes loops by turning their free folds: steps of Levenberg and Marquardt
// (Moré 1978), each fold by at most 0.3 at a time. angles are left where no step helps.
func (f *Folder) solveBlock(loops, free []int, angles []float64) {
	n := len(free)
	col := make(map[int]int, n)
	for i, h := range free {
		col[h] = i
	}
	cost := func(a []float64) float64 {
		sum := 0.0
		for _, i := range loops {
			for _, v := range f.residual(i, a) {
				sum += v * v
			}
		}
		return sum
	}
	jtj, jtr := make([]float64, n*n), make([]float64, n)
	now, damp := cost(angles), 1e-9
	try := append([]float64(nil), angles...)
	for range 80 {
		if now < 1e-22 {
			return
		}
		f.normal(loops, angles, col, jtj, jtr)
		better := false
		for range 12 {
			step, ok := damped(jtj, jtr, n, damp)
			if ok {
				copy(try, angles)
				for i, h := range free {
					try[h] = angles[h] - min(max(step[i], -.3), .3)
				}
				if c := cost(try); c < now {
					copy(angles, try)
					better = c < now*(1-1e-9)
					now, damp = c, max(damp/8, 1e-14)
					break
				}
			}
			damp *= 10
		}
		if !better {
			return
		}
	}
}

// damped solves (JᵀJ + damp·I) x = Jᵀr; ok is false when it cannot be.
func damped(jtj, jtr []float64, n int, damp float64) (x []float64, ok bool) {
	a := mat.NewSymDense(n, slices.Clone(jtj))
	biggest := 0.0
	for i := range n {
		biggest = max(biggest, a.At(i, i))
	}
	for i := range n {
		a.SetSym(i, i, a.At(i, i)+damp*biggest+1e-300)
	}
	var c mat.Cholesky
	if !c.Factorize(a) {
		return nil, false
	}
	var out mat.VecDense
	// A poor condition shows in the next residual, which has to be less.
	_ = c.SolveVecTo(&out, mat.NewVecDense(n, jtr))
	return out.RawVector().Data, true
}

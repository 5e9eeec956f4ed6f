package cleanform

import (
	"math"

	"gonum.org/v1/gonum/mat"

	"sectilis/core/ground/geom"
)

// model is a kind of form by its measures: middle, turn, and what the kind has besides. All are
// in units of the outline's size.
type model struct {
	kind   Kind
	points int
	starts [][]float64
	// off is how far a place, in the form's own frame, lies outside its edge; negative inside.
	off func(p geom.Point, x []float64) float64
	// form tells the measures behind middle and turn.
	form func(f *Form, x []float64)
	// turns is the turn after which the form is the same.
	turns float64
}

// turned are starting turns over a span, each with the same other measures.
func turned(n int, span float64, rest ...float64) (out [][]float64) {
	for i := range n {
		out = append(out, append([]float64{0, 0, span * float64(i) / float64(n)}, rest...))
	}
	return out
}

// models are the kinds of forms that are tried.
func models() []model {
	box := func(w, h float64, p geom.Point) float64 {
		x, y := math.Abs(p.X)-w/2, math.Abs(p.Y)-h/2
		return math.Hypot(max(x, 0), max(y, 0)) + min(max(x, y), 0)
	}
	out := []model{
		{kind: Circle, starts: [][]float64{{0, 0, 0, 2}}, turns: math.Inf(1),
			off:  func(p geom.Point, x []float64) float64 { return p.Len() - x[3]/2 },
			form: func(f *Form, x []float64) { f.Width, f.Height = x[3], x[3] }},
		{kind: Ellipse, starts: turned(4, math.Pi, 2.4, 1.6), turns: math.Pi,
			off:  func(p geom.Point, x []float64) float64 { return offEllipse(p, x[3]/2, x[4]/2) },
			form: func(f *Form, x []float64) { f.Width, f.Height = x[3], x[4] }},
		{kind: Rectangle, starts: turned(6, math.Pi, 2, 1.4), turns: math.Pi,
			off:  func(p geom.Point, x []float64) float64 { return box(x[3], x[4], p) },
			form: func(f *Form, x []float64) { f.Width, f.Height = x[3], x[4] }},
		{kind: Rounded, starts: turned(6, math.Pi, 2, 1.4, .3), turns: math.Pi,
			off: func(p geom.Point, x []float64) float64 {
				r := min(max(x[5], 0), x[3]/2, x[4]/2)
				return box(x[3]-2*r, x[4]-2*r, p) - r
			},
			form: func(f *Form, x []float64) {
				f.Width, f.Height, f.Radius = x[3], x[4], min(max(x[5], 0), x[3]/2, x[4]/2)
			}},
	}
	for n := 3; n <= 8; n++ {
		step := 2 * math.Pi / float64(n)
		if n != 4 { // which is a rectangle
			out = append(out, model{kind: Polygon, points: n, starts: turned(3, step, 2.2), turns: step,
				off:  func(p geom.Point, x []float64) float64 { return offPolygon(p, n, x[3]/2) },
				form: func(f *Form, x []float64) { f.Width, f.Height = x[3], x[3] }})
		}
		if n > 3 {
			out = append(out, model{kind: Star, points: n, starts: turned(4, step, 2.8, .7), turns: step,
				off:  func(p geom.Point, x []float64) float64 { return offStar(p, n, x[3]/2, x[4]) },
				form: func(f *Form, x []float64) { f.Width, f.Height, f.Inner = x[3], x[3], x[4] }})
		}
	}
	return out
}

// offEllipse is the distance from an ellipse with half axes a and b along x and y, by the circle
// of curvature at a place that is moved to the nearest, negative inside.
func offEllipse(p geom.Point, a, b float64) float64 {
	a, b = max(math.Abs(a), 1e-6), max(math.Abs(b), 1e-6)
	x, y := math.Abs(p.X), math.Abs(p.Y)
	c, s := math.Sqrt2/2, math.Sqrt2/2
	for range 6 {
		ex, ey := (a*a-b*b)*c*c*c/a, (b*b-a*a)*s*s*s/b
		rx, ry, qx, qy := a*c-ex, b*s-ey, x-ex, y-ey
		r, q := math.Hypot(rx, ry), math.Hypot(qx, qy)
		if q == 0 {
			break
		}
		c = min(max((qx*r/q+ex)/a, 0), 1)
		s = min(max((qy*r/q+ey)/b, 0), 1)
		l := math.Hypot(c, s)
		if l == 0 {
			break
		}
		c, s = c/l, s/l
	}
	d := math.Hypot(a*c-x, b*s-y)
	if x*x/(a*a)+y*y/(b*b) < 1 {
		return -d
	}
	return d
}

// offPolygon is the distance from a regular polygon of n corners, the first to the right.
func offPolygon(p geom.Point, n int, r float64) float64 {
	half := math.Pi / float64(n)
	a := math.Mod(math.Atan2(p.Y, p.X)+4*math.Pi, 2*half) - half
	l := p.Len()
	x, y := l*math.Cos(a)-r*math.Cos(half), math.Abs(l*math.Sin(a))-r*math.Sin(half)
	if y <= 0 {
		return x
	}
	return math.Hypot(x, y)
}

// offStar is the distance from a star of n tips, the first to the right.
func offStar(p geom.Point, n int, r, inner float64) float64 {
	half := math.Pi / float64(n)
	a := math.Mod(math.Atan2(p.Y, p.X)+4*math.Pi, 2*half)
	a = min(a, 2*half-a)
	l := p.Len()
	q := geom.Pt(l*math.Cos(a), l*math.Sin(a))
	tip, notch := geom.Pt(r, 0), geom.Pt(inner*math.Cos(half), inner*math.Sin(half))
	side := notch.Sub(tip)
	k := min(max(q.Sub(tip).Dot(side)/max(side.Dot(side), 1e-12), 0), 1)
	d := q.Sub(tip.Lerp(notch, k)).Len()
	if side.Cross(q.Sub(tip)) > 0 {
		return -d
	}
	return d
}

// frame takes a place into the form's own frame.
func frame(p geom.Point, x []float64) geom.Point {
	s, c := math.Sincos(x[2])
	d := geom.Pt(p.X-x[0], p.Y-x[1])
	return geom.Pt(d.X*c+d.Y*s, d.Y*c-d.X*s)
}

// best lays the form through the places from every start, and goes on from the best.
func (m model) best(pts []geom.Point) (Form, bool) {
	var x []float64
	least := math.Inf(1)
	for _, start := range m.starts {
		y := append([]float64(nil), start...)
		if sum := m.descend(pts, y, 6); sum < least {
			x, least = y, sum
		}
	}
	if math.IsInf(least, 1) {
		return Form{}, false
	}
	m.descend(pts, x, 40)
	f := Form{Kind: m.kind, Points: m.points, Centre: geom.Pt(x[0], x[1])}
	if m.turns < 10 {
		f.Turn = math.Mod(math.Mod(x[2], m.turns)+m.turns, m.turns)
	}
	m.form(&f, x)
	for _, p := range pts {
		d := m.off(frame(p, x), x)
		f.Mean, f.Worst = f.Mean+d*d/float64(len(pts)), max(f.Worst, math.Abs(d))
	}
	f.Mean = math.Sqrt(f.Mean)
	if m.kind == Ellipse || m.kind == Rectangle || m.kind == Rounded {
		f.upright()
	}
	return f, f.Width > 0 && f.Height > 0 && !math.IsNaN(f.Mean)
}

// upright makes the turn as small as it can be by calling width what is height.
func (f *Form) upright() {
	for f.Turn > math.Pi/4 {
		f.Turn -= math.Pi / 2
		f.Width, f.Height = f.Height, f.Width
	}
}

// descend moves the measures x so that the squares of the distances become least, in at most
// some steps, and returns their sum: Levenberg and Marquardt's method with differences in place
// of derivatives.
func (m model) descend(pts []geom.Point, x []float64, steps int) float64 {
	n := len(x)
	offs := func(x []float64, out []float64) float64 {
		sum := 0.
		for i, p := range pts {
			out[i] = m.off(frame(p, x), x)
			sum += out[i] * out[i]
		}
		return sum
	}
	at, next := make([]float64, len(pts)), make([]float64, len(pts))
	rows := make([][]float64, n)
	for r := range rows {
		rows[r] = make([]float64, len(pts))
	}
	sum, damp := offs(x, at), 1e-3
	y := make([]float64, n)
	for range steps {
		const h = 1e-6
		for r := range n {
			copy(y, x)
			y[r] += h
			offs(y, next)
			for i := range next {
				rows[r][i] = (next[i] - at[i]) / h
			}
		}
		better := false
		for range 8 {
			if !step(rows, at, damp, x, y) || y[3] <= 0 || n > 4 && y[4] <= 0 {
				damp *= 10
				continue
			}
			if s := offs(y, next); s < sum {
				better = s < sum*(1-1e-9)
				copy(x, y)
				at, next = next, at
				sum, damp = s, damp/10
				break
			}
			damp *= 10
		}
		if !better {
			break
		}
	}
	return sum
}

// step sets y to x moved by a damped step of Gauss and Newton's; false where there is none.
func step(rows [][]float64, off []float64, damp float64, x, y []float64) bool {
	n := len(x)
	a := mat.NewSymDense(n, nil)
	b := mat.NewVecDense(n, nil)
	for r := range n {
		for q := r; q < n; q++ {
			s := 0.
			for i := range off {
				s += rows[r][i] * rows[q][i]
			}
			if r == q {
				s += damp*s + 1e-12
			}
			a.SetSym(r, q, s)
		}
		s := 0.
		for i := range off {
			s += rows[r][i] * off[i]
		}
		b.SetVec(r, s)
	}
	var chol mat.Cholesky
	var d mat.VecDense
	if !chol.Factorize(a) || chol.SolveVecTo(&d, b) != nil {
		return false
	}
	for i := range y {
		y[i] = x[i] - d.AtVec(i)
	}
	return true
}

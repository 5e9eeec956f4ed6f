package registration

import (
	"fmt"
	"math"
	"strings"

	"gonum.org/v1/gonum/mat"

	"sectilis/core/ground/geom"
)

// How a sheet lies follows from its marks by least squares, each weighed by how sure it is.
// The model has five unknowns: a shift, a turn, a stretch across and one down, which is
// what hands and printers do. Four marks give eight equations, so that three are left over
// to tell whether the marks agree. Where they do not, a model with a small skew, as some
// printers have, is tried; then the sheet is refused. None is left out because it
// disagrees: of four marks with one left out, a single equation is left to tell whether the
// others are right, and with two wrong marks it is fulfilled by chance in one case of
// twenty. A mark that was not seen at all is left out; the other three have to agree.
//
// The fit is by Gauss and Newton's method, from the affine map: it is nearly linear, a few
// steps end it (Nocedal and Wright, Numerical Optimization, chapter 10).

// What marks may leave over before they are said to disagree, and what printers do.
const (
	maxLeft    = .035 // mm, of any mark
	maxStretch = .006 // share
	maxSkew    = .06  // degrees
	eyeDoubt   = .006 // mm, what an eye is unsure of beside the spread of chords
)

// fit returns how the sheet lies by all marks that were seen. Marks that disagree are a
// Failure.
func fit(marks []Mark, seen []*spot, expect geom.Affine) (Found, error) {
	all, ok := fitWithout(marks, seen, expect, -1, 0)
	if ok && all.Left <= maxLeft && all.plausible() {
		return all, nil
	}
	if skewed, ok := fitWithout(marks, seen, expect, -1, maxSkew); ok && count(seen) > 3 && skewed.Left <= maxLeft/2 && skewed.plausible() {
		return skewed, nil
	}
	maybe := suspects(marks, seen, expect)
	switch {
	case ok && math.Abs(all.Turn) > maxTurn:
		return Found{}, &Failure{fmt.Sprintf("The sheet lies askew by %.1f°; up to %.0f° can be made up for. Lay it straighter and try again.", all.Turn, maxTurn)}
	case maybe == "" && (!ok || all.Left > 2.5 || !all.plausible()):
		return Found{}, &Failure{"The marks do not lie as those of this sheet do. Is it another sheet, or another size? Nothing was cut."}
	}
	return Found{}, &Failure{fmt.Sprintf("The marks disagree by %.2f mm%s. Look whether one is smudged, creased or touched up, or print the sheet again. Nothing was cut.", all.Left, maybe)}
}

// suspects names the marks without which the others would agree.
func suspects(marks []Mark, seen []*spot, expect geom.Affine) string {
	var names []string
	for out := range seen {
		if f, ok := fitWithout(marks, seen, expect, out, 0); count(seen) > 3 && ok && f.plausible() && f.Left <= maxLeft {
			names = append(names, where(marks, out))
		}
	}
	if len(names) == 0 {
		return ""
	}
	return "; it may be " + strings.Join(names, " or ") + " that is wrong"
}

// fitWithout fits the marks that were seen but one, with at most a skew in degrees; -1
// leaves none out. False if too few are left.
func fitWithout(marks []Mark, seen []*spot, expect geom.Affine, out int, skew float64) (Found, bool) {
	var from, to []geom.Point
	var weight []float64
	for i, p := range seen {
		if p != nil && i != out {
			from, to = append(from, marks[i].At), append(to, p.Point)
			weight = append(weight, 1/math.Hypot(p.doubt, eyeDoubt))
		}
	}
	m, ok := affine(from, to)
	if !ok {
		return Found{}, false
	}
	if skew == 0 {
		m = rectangular(from, to, weight, m)
	}
	f := Found{At: m}
	for i, p := range seen {
		if p == nil {
			f.Marks = append(f.Marks, Seen{Number: i + 1, Why: "not found"})
			continue
		}
		s := Seen{Number: i + 1, At: p.Point, Used: i != out, Left: m.Apply(marks[i].At).Sub(p.Point).Len()}
		if s.Used {
			f.Left = max(f.Left, s.Left)
		}
		f.Marks = append(f.Marks, s)
	}
	return f, f.Against(marks, expect) && math.Abs(f.skew()) <= max(skew, 1e-6)
}

// rectangular fits a shift, a turn and two stretches, starting from a map that is near.
func rectangular(from, to []geom.Point, weight []float64, near geom.Affine) geom.Affine {
	turn := math.Atan2(near.B, near.A)
	sx, sy := math.Hypot(near.A, near.B), math.Hypot(near.C, near.D)
	e, f := near.E, near.F
	n := len(from)
	for range 8 {
		sin, cos := math.Sincos(turn)
		j, r := mat.NewDense(2*n, 5, nil), mat.NewVecDense(2*n, nil)
		for i, p := range from {
			w := weight[i]
			x, y := sx*p.X, sy*p.Y
			j.SetRow(2*i, []float64{w, 0, w * (-x*sin - y*cos), w * p.X * cos, -w * p.Y * sin})
			j.SetRow(2*i+1, []float64{0, w, w * (x*cos - y*sin), w * p.X * sin, w * p.Y * cos})
			r.SetVec(2*i, w*(to[i].X-(x*cos-y*sin+e)))
			r.SetVec(2*i+1, w*(to[i].Y-(x*sin+y*cos+f)))
		}
		var step mat.VecDense
		if err := step.SolveVec(j, r); err != nil && step.Len() != 5 {
			break // as near as it was
		}
		e, f, turn = e+step.AtVec(0), f+step.AtVec(1), turn+step.AtVec(2)
		sx, sy = sx+step.AtVec(3), sy+step.AtVec(4)
		if mat.Norm(&step, 2) < 1e-9 {
			break
		}
	}
	sin, cos := math.Sincos(turn)
	return geom.Affine{A: sx * cos, B: sx * sin, C: -sy * sin, D: sy * cos, E: e, F: f}
}

// Against tells shift, turn and stretch of a sheet as against where it was expected; false
// if that was no place at all.
func (f *Found) Against(marks []Mark, expect geom.Affine) bool {
	back, ok := expect.Inverse()
	if !ok {
		return false
	}
	// What became of the sheet, in its own coordinates.
	d := f.At.Then(back)
	f.StretchX, f.StretchY = math.Hypot(f.At.A, f.At.B)-1, math.Hypot(f.At.C, f.At.D)-1
	f.Turn = math.Atan2(d.B, d.A) * 180 / math.Pi
	c := centre(marks)
	moved := f.At.Apply(c).Sub(expect.Apply(c))
	f.ShiftX, f.ShiftY = moved.X, moved.Y
	return true
}

// skew is by how much the corners are no right angles, degrees.
func (f Found) skew() float64 {
	x, y := math.Atan2(f.At.B, f.At.A), math.Atan2(f.At.D, f.At.C)
	return math.Remainder(y-x-math.Pi/2, 2*math.Pi) * 180 / math.Pi
}

func (f Found) plausible() bool {
	return math.Abs(f.StretchX) <= maxStretch && math.Abs(f.StretchY) <= maxStretch && math.Abs(f.Turn) <= maxTurn
}

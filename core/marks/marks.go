// Package marks finds the registration marks of a sheet with an eye that sees
// brightness along a line, and works out how the sheet lies: moved, turned,
// stretched and skewed, as printers and hands leave it.
//
// A ring is found where a chord of it is seen; the middles of chords across and
// along give its centre, again and again until they agree. The map from the sheet
// to the bed is the affine one with the least squares of what is left over (normal
// equations; Golub and Van Loan, Matrix Computations, chapter 5).
//
// Lengths are millimetres, y down.
package marks

import (
	"context"
	"errors"
	"fmt"
	"math"

	"gonum.org/v1/gonum/mat"

	"sectilis/core/geom"
)

// Mark is a mark as it was drawn: a ring about a dot, one of them with a second dot.
type Mark struct {
	At     geom.Point
	Second *geom.Point
}

// Shape is what all marks look like: the outer radius of the ring, how broad it is,
// and the radius of the dot.
type Shape struct{ Ring, Stroke, Dot float64 }

// Eye sees brightness, 0 to 1, at n places spread evenly from one place of the bed
// to another.
type Eye interface {
	See(ctx context.Context, from, to geom.Point, n int) ([]float64, error)
}

// Found is how a sheet lies.
type Found struct {
	// At maps the sheet to the bed.
	At geom.Affine `json:"at"`
	// Marks are where the marks were found on the bed; one that was not, or that
	// disagreed with the others, is left out and named in Out.
	Marks []Seen `json:"marks"`
	// ShiftX, ShiftY in mm, Turn in degrees, StretchX and StretchY as shares: how the
	// sheet lies as against where it was expected.
	ShiftX   float64 `json:"shiftX"`
	ShiftY   float64 `json:"shiftY"`
	Turn     float64 `json:"turn"`
	StretchX float64 `json:"stretchX"`
	StretchY float64 `json:"stretchY"`
	// Left is the most that any mark is off the fitted map, mm.
	Left float64 `json:"left"`
}

// Seen is a mark on the bed.
type Seen struct {
	Number int        `json:"number"` // from 1, as they were drawn
	At     geom.Point `json:"at"`
	Used   bool       `json:"used"`
	Left   float64    `json:"left"` // how far it is off the fitted map, mm
	Why    string     `json:"why,omitempty"`
}

// Failure says why a sheet cannot be cut as it lies. Nothing was cut.
type Failure struct{ Why string }

func (f *Failure) Error() string { return f.Why }

// How a sheet may lie before it is beyond reach, and what printers and hands leave.
const (
	maxTurn    = 4.0  // degrees
	maxStretch = .008 // share
	maxSkew    = .4   // degrees
	maxLeft    = .15  // mm that a mark may be off before it is not believed
	reach      = 16.0 // mm about where the first mark is expected
	near       = 6.0  // mm about where the others then are
	spacing    = .1   // mm between the places seen
)

// Find looks for the marks, which are expected where expect maps them.
func Find(ctx context.Context, eye Eye, marks []Mark, shape Shape, expect geom.Affine) (Found, error) {
	s := search{ctx: ctx, eye: eye, shape: shape}
	seen := make([]*geom.Point, len(marks))
	// The first mark anywhere about its place; those found tell where others are.
	turned := expect
	for i, m := range marks {
		r := reach
		if known := count(seen); known > 0 {
			turned = guess(marks, seen, expect)
			if r = near; known == 1 {
				// A turn about one mark moves another by its distance.
				r = reach
			}
		}
		at, err := s.find(turned.Apply(m.At), r)
		if err != nil {
			return Found{}, err
		}
		seen[i] = at
	}
	if n := count(seen); n < 3 {
		return Found{}, tooFew(n, len(marks))
	}
	f, err := fit(marks, seen, expect)
	if err != nil {
		return Found{}, err
	}
	return f, s.upright(marks, f.At)
}

func tooFew(n, of int) error {
	return &Failure{fmt.Sprintf("Of %d marks the eye found %d, and it needs three. Look whether the sheet lies under the eye, print side up, and whether its marks are whole and clean; then try again.", of, n)}
}

func count(seen []*geom.Point) (n int) {
	for _, p := range seen {
		if p != nil {
			n++
		}
	}
	return n
}

// guess is the map that the marks found so far speak for: moved by one, moved and
// turned by two, fitted by more.
func guess(marks []Mark, seen []*geom.Point, expect geom.Affine) geom.Affine {
	var from, to []geom.Point
	for i, p := range seen {
		if p != nil {
			from, to = append(from, marks[i].At), append(to, *p)
		}
	}
	if len(from) >= 3 {
		if m, ok := affine(from, to); ok {
			return m
		}
	}
	a := expect.Apply(from[0])
	m := expect
	if len(from) >= 2 {
		was, is := expect.Apply(from[1]).Sub(a), to[1].Sub(to[0])
		turn := math.Atan2(is.Y, is.X) - math.Atan2(was.Y, was.X)
		m = m.Then(geom.Shift(-a.X, -a.Y)).Then(geom.Turn(turn)).Then(geom.Shift(a.X, a.Y))
	}
	d := to[0].Sub(a)
	return m.Then(geom.Shift(d.X, d.Y))
}

// fit is the map by all marks, or by all but one that disagrees.
func fit(marks []Mark, seen []*geom.Point, expect geom.Affine) (Found, error) {
	f, ok := fitWithout(marks, seen, expect, -1)
	if ok && f.Left <= maxLeft && f.plausible() {
		return f, nil
	}
	// The one without which what is left is most like a printed sheet is out.
	best, least := Found{}, math.Inf(1)
	if count(seen) > 3 {
		for out := range seen {
			g, ok := fitWithout(marks, seen, expect, out)
			if odd := math.Max(math.Abs(g.StretchX), math.Abs(g.StretchY)) + math.Abs(g.skew())*math.Pi/180; ok && g.plausible() && odd < least {
				best, least = g, odd
			}
		}
	}
	if math.IsInf(least, 1) {
		if ok && math.Abs(f.Turn) > maxTurn {
			return Found{}, &Failure{fmt.Sprintf("The sheet lies askew by %.1f°; up to %.0f° can be made up for. Lay it straighter and try again.", f.Turn, maxTurn)}
		}
		return Found{}, &Failure{"The marks do not lie as those of this sheet do. Is it another sheet, or another size? Nothing was cut."}
	}
	return best, nil
}

func fitWithout(marks []Mark, seen []*geom.Point, expect geom.Affine, out int) (Found, bool) {
	var from, to []geom.Point
	for i, p := range seen {
		if p != nil && i != out {
			from, to = append(from, marks[i].At), append(to, *p)
		}
	}
	m, ok := affine(from, to)
	if !ok {
		return Found{}, false
	}
	f := Found{At: m}
	for i, p := range seen {
		switch {
		case p == nil:
			f.Marks = append(f.Marks, Seen{Number: i + 1, Why: "not found"})
		default:
			s := Seen{Number: i + 1, At: *p, Used: i != out, Left: m.Apply(marks[i].At).Sub(*p).Len()}
			if i == out {
				s.Why = fmt.Sprintf("%.1f mm from where the others put it", s.Left)
			} else {
				f.Left = max(f.Left, s.Left)
			}
			f.Marks = append(f.Marks, s)
		}
	}
	back, ok := expect.Inverse()
	if !ok {
		return Found{}, false
	}
	// What became of the sheet, in its own coordinates.
	d := m.Then(back)
	f.StretchX, f.StretchY = math.Hypot(d.A, d.B)-1, math.Hypot(d.C, d.D)-1
	f.Turn = math.Atan2(d.B, d.A) * 180 / math.Pi
	c := centre(marks)
	moved := m.Apply(c).Sub(expect.Apply(c))
	f.ShiftX, f.ShiftY = moved.X, moved.Y
	return f, true
}

func centre(marks []Mark) geom.Point {
	var sum geom.Point
	for _, m := range marks {
		sum = sum.Add(m.At)
	}
	return sum.Mul(1 / float64(len(marks)))
}

// skew is by how much the corners are no right angles, degrees.
func (f Found) skew() float64 {
	x, y := math.Atan2(f.At.B, f.At.A), math.Atan2(f.At.D, f.At.C)
	return math.Remainder(y-x-math.Pi/2, 2*math.Pi) * 180 / math.Pi
}

func (f Found) plausible() bool {
	return math.Abs(f.StretchX) <= maxStretch && math.Abs(f.StretchY) <= maxStretch && math.Abs(f.skew()) <= maxSkew && math.Abs(f.Turn) <= maxTurn
}

// affine is the least-squares map of three or more places.
func affine(from, to []geom.Point) (geom.Affine, bool) {
	if len(from) < 3 {
		return geom.Affine{}, false
	}
	a, b := mat.NewDense(len(from), 3, nil), mat.NewDense(len(from), 2, nil)
	for i, p := range from {
		a.SetRow(i, []float64{p.X, p.Y, 1})
		b.SetRow(i, []float64{to[i].X, to[i].Y})
	}
	var x mat.Dense
	var condition mat.Condition
	if err := x.Solve(a, b); err != nil && !errors.As(err, &condition) {
		return geom.Affine{}, false
	}
	return geom.Affine{A: x.At(0, 0), B: x.At(0, 1), C: x.At(1, 0), D: x.At(1, 1), E: x.At(2, 0), F: x.At(2, 1)}, true
}

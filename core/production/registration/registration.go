// Package registration finds the registration marks of a sheet with an eye that sees
// brightness along a line, and works out how the sheet lies: moved, turned,
// stretched and skewed, as printers and hands leave it.
//
// A ring is found where a chord of it is seen; the middles of chords across and
// along give its centre, again and again until they agree. How a sheet lies is fitted in
// fit.go.
//
// Lengths are millimetres, y down.
package registration

import (
	"context"
	"errors"
	"fmt"
	"math"
	"strings"

	"gonum.org/v1/gonum/mat"

	"sectilis/core/ground/geom"
)

// Mark is a mark as it was drawn: a ring about a dot, one of them with a second dot.
type Mark struct {
	At     geom.Point
	Second *geom.Point
}

// Shape is what all marks look like: the outer radius of the ring, how broad it is, and the
// radius of the dot. All are mm.
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
	// Marks are where the marks were found on the bed; one that was not seen is not used.
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

// How a sheet may lie before it is beyond reach, and where marks are looked for, mm.
const (
	maxTurn = 4.0  // degrees
	reach   = 16.0 // about where the first mark is expected
	near    = 6.0  // about where the others then are
	spacing = .1   // between the places seen
)

// spot is a mark that was seen: where, and by how much that is uncertain (one standard
// deviation of the mean of its chords, mm).
type spot struct {
	geom.Point
	doubt float64
}

// Find looks for the marks, which are expected where expect maps them. A sheet that cannot
// be cut as it lies is a Failure; any other error is that of the eye.
func Find(ctx context.Context, eye Eye, marks []Mark, shape Shape, expect geom.Affine) (Found, error) {
	s := search{ctx: ctx, eye: eye, shape: shape}
	seen := make([]*spot, len(marks))
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
	if count(seen) < 3 {
		return Found{}, tooFew(marks, seen)
	}
	f, err := fit(marks, seen, expect)
	if err != nil {
		return Found{}, err
	}
	return f, s.upright(marks, seen, f.At)
}

// where says which corner of the sheet a mark is in.
func where(marks []Mark, i int) string {
	c, p := centre(marks), marks[i].At
	down, across := "upper", "left"
	if p.Y > c.Y {
		down = "lower"
	}
	if p.X > c.X {
		across = "right"
	}
	return fmt.Sprintf("mark %d (%s %s)", i+1, down, across)
}

// unseen names the marks that were not found.
func unseen(marks []Mark, seen []*spot) string {
	var names []string
	for i, p := range seen {
		if p == nil {
			names = append(names, where(marks, i))
		}
	}
	return strings.Join(names, ", ")
}

func tooFew(marks []Mark, seen []*spot) error {
	return &Failure{fmt.Sprintf("Of %d marks the eye found %d, and it needs three. Not seen: %s. Look whether the sheet lies under the eye, print side up, and whether these marks are whole and clean; then try again.", len(marks), count(seen), unseen(marks, seen))}
}

func count(seen []*spot) (n int) {
	for _, p := range seen {
		if p != nil {
			n++
		}
	}
	return n
}

// guess is the map that the marks found so far speak for: moved by one, moved and
// turned by two, fitted by more.
func guess(marks []Mark, seen []*spot, expect geom.Affine) geom.Affine {
	var from, to []geom.Point
	for i, p := range seen {
		if p != nil {
			from, to = append(from, marks[i].At), append(to, p.Point)
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

func centre(marks []Mark) geom.Point {
	var sum geom.Point
	for _, m := range marks {
		sum = sum.Add(m.At)
	}
	return sum.Mul(1 / float64(len(marks)))
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

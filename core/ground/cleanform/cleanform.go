// Package cleanform finds the plain form that a ragged outline was meant to be: rectangle,
// rounded rectangle, circle, ellipse, regular polygon or star. Lengths are mm, angles radians,
// clockwise on screen.
package cleanform

import (
	"cmp"
	"math"
	"slices"

	"sectilis/core/ground/geom"
)

// Kind names a plain form.
type Kind string

// The plain forms.
const (
	Rectangle Kind = "rectangle"
	Rounded   Kind = "rounded"
	Circle    Kind = "circle"
	Ellipse   Kind = "ellipse"
	Polygon   Kind = "polygon"
	Star      Kind = "star"
)

// Form is a plain form that stands for an outline.
type Form struct {
	Kind   Kind
	Centre geom.Point
	// Turn is that of its width, or of the first corner of a polygon or a star.
	Turn float64
	// Width and Height are those of rectangles and ellipses; of a polygon or a star Width is
	// twice the way from its middle to a corner.
	Width, Height float64
	Radius        float64 // of the corners of a rounded rectangle
	Points        int     // corners of a polygon, tips of a star
	Inner         float64 // of a star, from its middle to an inner corner
	// Mean is the root of the mean square distance of the outline from the form, Worst the
	// largest.
	Mean, Worst float64
}

// places is how many places of an outline a form is laid through.
const places = 240

// Nearest returns the plain forms that stand for the largest ring of an outline, one of each
// kind, the best first: that with the least mean distance, where one with fewer measures counts
// as good as one with more that is hardly nearer. There are none for an outline without area.
func Nearest(outline geom.Path) []Form {
	pts := sample(outline)
	if len(pts) == 0 {
		return nil
	}
	// Measured about the middle, in units of the size, so that steps of all measures are alike.
	var mid geom.Point
	for _, p := range pts {
		mid = mid.Add(p.Mul(1 / float64(len(pts))))
	}
	size := 0.
	for _, p := range pts {
		size += p.Sub(mid).Dot(p.Sub(mid)) / float64(len(pts))
	}
	if size = math.Sqrt(size); size < 1e-9 {
		return nil
	}
	for i, p := range pts {
		pts[i] = p.Sub(mid).Mul(1 / size)
	}
	var out []Form
	for _, m := range models() {
		if f, ok := m.best(pts); ok {
			out = append(out, f.scaled(size, mid))
		}
	}
	slices.SortStableFunc(out, func(a, b Form) int { return cmp.Compare(a.weight(), b.weight()) })
	seen := map[Kind]bool{}
	return slices.DeleteFunc(out, func(f Form) bool {
		was := seen[f.Kind]
		seen[f.Kind] = true
		return was
	})
}

// burden is by how much nearer a form has to be for each measure more that it has.
const burden = 1.06

// weight is the mean distance, with what lies below a thousandth of the size not told apart.
func (f Form) weight() float64 {
	measures := map[Kind]float64{Circle: 3, Rectangle: 5, Ellipse: 5, Polygon: 5, Rounded: 6, Star: 6}[f.Kind]
	return (f.Mean + 5e-4*f.Width) * math.Pow(burden, measures)
}

func (f Form) scaled(k float64, by geom.Point) Form {
	f.Centre = f.Centre.Mul(k).Add(by)
	for _, v := range []*float64{&f.Width, &f.Height, &f.Radius, &f.Inner, &f.Mean, &f.Worst} {
		*v *= k
	}
	return f
}

// sample is evenly spaced places of the ring with the largest area.
func sample(outline geom.Path) []geom.Point {
	var ring geom.Path
	for _, r := range outline.Rings() {
		if math.Abs(r.Area()) > math.Abs(ring.Area()) {
			ring = r
		}
	}
	box := ring.Bounds()
	if ring.Empty() || math.Abs(ring.Area()) < 1e-9 {
		return nil
	}
	var line []geom.Point
	for _, l := range ring.Flatten(max(box.W, box.H) * 1e-4) {
		line = append(line, l.Points...)
	}
	line = append(line, line[0])
	total := 0.
	for i := 1; i < len(line); i++ {
		total += line[i].Sub(line[i-1]).Len()
	}
	step, left := total/places, total/places/2
	var out []geom.Point
	for i := 1; i < len(line); i++ {
		d := line[i].Sub(line[i-1]).Len()
		for left <= d && d > 0 && len(out) < places {
			out = append(out, line[i-1].Lerp(line[i], left/d))
			left += step
		}
		left -= d
	}
	return out
}

// Outline is the form about its centre, before it is turned: outer rings run clockwise.
func (f Form) Outline() geom.Path {
	switch f.Kind {
	case Circle, Ellipse:
		return geom.EllipsePath(geom.Centred(f.Width, f.Height))
	case Polygon, Star:
		return geom.PolygonPath(f.corners()...)
	}
	if f.Kind == Rounded {
		return geom.RoundRectPath(geom.Centred(f.Width, f.Height), f.Radius)
	}
	return geom.RectPath(geom.Centred(f.Width, f.Height))
}

// corners are those of a polygon or a star, the first to the right.
func (f Form) corners() []geom.Point {
	var out []geom.Point
	for i := range f.Points {
		a := 2 * math.Pi * float64(i) / float64(f.Points)
		out = append(out, geom.Pt(f.Width/2*math.Cos(a), f.Width/2*math.Sin(a)))
		if f.Kind == Star {
			a += math.Pi / float64(f.Points)
			out = append(out, geom.Pt(f.Inner*math.Cos(a), f.Inner*math.Sin(a)))
		}
	}
	return out
}

package drawnbase

import (
	"math"
	"slices"

	"sectilis/core/ground/geom"
)

// upright is the most that an upright or level line may lean, in shares of its length.
const upright = .02

// align brings together what lies on one upright or level line but for some hundredths of a millimetre,
// as files have it that were drawn by hand or rounded: places across and down that are nearer than tol
// to one another become their mean, where upright and level lines run or end there.
func align(paths []geom.Path, tol float64) []geom.Path {
	var across, down axis
	all := make([][][]geom.Curve, len(paths))
	for i, p := range paths {
		all[i] = p.Curves()
		for _, curves := range all[i] {
			for _, c := range curves {
				v := c.End().Sub(c.From)
				if c.Op != geom.LineTo || min(math.Abs(v.X), math.Abs(v.Y)) > min(tol, upright*v.Len()) {
					continue
				}
				if math.Abs(v.X) < math.Abs(v.Y) {
					across = append(across, (c.From.X+c.End().X)/2)
					down = append(down, c.From.Y, c.End().Y)
				} else {
					down = append(down, (c.From.Y+c.End().Y)/2)
					across = append(across, c.From.X, c.End().X)
				}
			}
		}
	}
	across, down = across.means(tol), down.means(tol)
	out := make([]geom.Path, len(paths))
	for i := range all {
		var rings []geom.Path
		for j, ring := range paths[i].Rings() {
			if j < len(all[i]) && len(all[i][j]) > 0 {
				rings = append(rings, aligned(all[i][j], ring.Closed(), across, down, tol))
			}
		}
		out[i] = geom.Join(rings...)
	}
	return out
}

// aligned is a chain of curves whose straight ones end at the places of two axes.
func aligned(curves []geom.Curve, closed bool, across, down axis, tol float64) geom.Path {
	to := func(p geom.Point) geom.Point { return geom.Pt(across.near(p.X, tol), down.near(p.Y, tol)) }
	var b geom.Builder
	at := curves[0].From
	if curves[0].Op == geom.LineTo {
		at = to(at)
	}
	b.Move(at)
	for i, c := range curves {
		// What is curved stays as it is, and is led to by a straight stretch.
		if c.Op != geom.LineTo {
			if from := c.At(0); from.Sub(at).Len() > 1e-9 {
				b.Line(from)
			}
			b.Add(c)
			at = c.End()
			continue
		}
		end := c.End()
		if next := (i + 1) % len(curves); curves[next].Op == geom.LineTo || !closed && next == 0 {
			end = to(end)
		}
		if end != at {
			b.Line(end)
			at = end
		}
	}
	if closed {
		b.Close()
	}
	return b.Path()
}

// axis are places along one direction, mm.
type axis []float64

// means are the means of places that are each nearer than tol to the next, unless they reach farther
// than that together.
func (a axis) means(tol float64) (out axis) {
	slices.Sort(a)
	for i := 0; i < len(a); {
		j, sum := i, 0.0
		for j < len(a) && (j == i || a[j]-a[j-1] <= tol/2) && a[j]-a[i] <= tol {
			sum += a[j]
			j++
		}
		out = append(out, sum/float64(j-i))
		i = j
	}
	return out
}

// near is the place of the axis within tol of v, or v.
func (a axis) near(v, tol float64) float64 {
	i, _ := slices.BinarySearch(a, v)
	best := v
	for _, k := range []int{i - 1, i} {
		if k >= 0 && k < len(a) {
			if d := math.Abs(a[k] - v); d <= tol && (best == v || d < math.Abs(best-v)) {
				best = a[k]
			}
		}
	}
	return best
}

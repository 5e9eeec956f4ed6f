package cut

import (
	"cmp"
	"math"
	"slices"

	"sectilis/core/ground/geom"
)

// Where two outlines run along each other within apartAtMost, for at least sharedAtLeast,
// mm, one cut is enough.
const (
	apartAtMost   = .03
	sharedAtLeast = .5
)

// part is a stretch of an edge that is cut already, as shares of its length.
type part struct{ from, to float64 }

// once leaves of each outline what none before it cuts along: itself where that is all,
// else open lines.
func once(outlines []ring) [][]geom.Path {
	out := make([][]geom.Path, len(outlines))
	for i, r := range outlines {
		gone := map[int][]part{} // by edge, counted over all of the ring's lines
		n, some := 0, 0
		for _, l := range r.lines {
			for k := range edgesOf(l) {
				a, b := edge(l, k)
				for _, o := range outlines[:i] {
					if o.box.Grow(apartAtMost).Overlaps(boxOf(a, b).Grow(apartAtMost)) {
						parts := along(a, b, o)
						gone[n] = append(gone[n], parts...)
						some += len(parts)
					}
				}
				n++
			}
		}
		if some == 0 {
			out[i] = []geom.Path{r.path}
			continue
		}
		n = 0
		for _, l := range r.lines {
			out[i] = append(out[i], without(l, func(k int) []part { return gone[n+k] })...)
			n += edgesOf(l)
		}
	}
	return out
}

func edgesOf(l geom.Polyline) int {
	if l.Closed {
		return len(l.Points)
	}
	return len(l.Points) - 1
}

func edge(l geom.Polyline, k int) (a, b geom.Point) {
	return l.Points[k], l.Points[(k+1)%len(l.Points)]
}

func boxOf(a, b geom.Point) geom.Rect {
	return geom.Rect{X: min(a.X, b.X), Y: min(a.Y, b.Y), W: math.Abs(a.X - b.X), H: math.Abs(a.Y - b.Y)}
}

// along are the parts of the line ab that edges of another outline run along.
func along(a, b geom.Point, o ring) []part {
	v := b.Sub(a)
	length := v.Len()
	if length < sharedAtLeast {
		return nil
	}
	u := v.Mul(1 / length)
	var out []part
	for _, l := range o.lines {
		for k := range edgesOf(l) {
			c, d := edge(l, k)
			if math.Abs(u.Cross(c.Sub(a))) > apartAtMost || math.Abs(u.Cross(d.Sub(a))) > apartAtMost {
				continue
			}
			from, to := u.Dot(c.Sub(a)), u.Dot(d.Sub(a))
			from, to = max(0, min(from, to)), min(length, max(from, to))
			if to-from >= sharedAtLeast {
				out = append(out, part{from / length, to / length})
			}
		}
	}
	return out
}

// without is a polyline less parts of its edges, as open lines. What is left is never
// shorter than a hundredth of a millimetre.
func without(l geom.Polyline, gone func(edge int) []part) []geom.Path {
	var lines [][]geom.Point
	var now []geom.Point
	end := func() {
		if len(now) > 1 {
			lines = append(lines, now)
		}
		now = nil
	}
	n := edgesOf(l)
	for k := range n {
		a, b := edge(l, k)
		parts := gone(k)
		slices.SortFunc(parts, func(p, q part) int { return cmp.Compare(p.from, q.from) })
		at := 0.0
		keep := func(to float64) {
			if (to-at)*b.Sub(a).Len() < .01 {
				return
			}
			if p := a.Lerp(b, at); len(now) == 0 || now[len(now)-1].Sub(p).Len() > 1e-9 {
				end()
				now = []geom.Point{p}
			}
			now = append(now, a.Lerp(b, to))
		}
		for _, p := range parts {
			if p.from > at {
				keep(p.from)
			}
			if p.to > at {
				end()
				at = p.to
			}
		}
		keep(1)
	}
	end()
	// A closed line that was opened elsewhere goes on over its start.
	if last := len(lines) - 1; l.Closed && last > 0 && lines[0][0].Sub(lines[last][len(lines[last])-1]).Len() < 1e-9 {
		lines[0] = append(lines[last], lines[0][1:]...)
		lines = lines[:last]
	}
	var out []geom.Path
	for _, pts := range lines {
		var b geom.Builder
		b.Move(pts[0])
		for _, p := range pts[1:] {
			b.Line(p)
		}
		out = append(out, b.Path())
	}
	return out
}

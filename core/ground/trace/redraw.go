package trace

import (
	"context"

	"sectilis/core/ground/geom"
)

// Redraw draws the rings of an outline anew, with as few lines and curves as lie within a
// tolerance of it, corners kept; a ring that does not become simpler stays as it is. Lengths are
// mm here. It returns the context's error once that ends.
func Redraw(ctx context.Context, outline geom.Path, tol float64) (geom.Path, error) {
	var out []geom.Path
	for _, ring := range outline.Rings() {
		best := ring
		if pts := even(ring, 1/tol); ring.Closed() && len(pts) > 12 && len(pts) <= maxPoints {
			drawn := drawRing(ctx, pts, Options{Smooth: 1, Corner: UsualCorner})
			if ctx.Err() != nil {
				return geom.Path{}, ctx.Err()
			}
			if !drawn.Empty() && drawn.Len() < ring.Len() {
				best = drawn.Transform(geom.Scale(tol, tol))
			}
		}
		out = append(out, best)
	}
	return geom.Join(out...), nil
}

// even is a closed ring k times as large, as places along it that lie as far apart as those of an
// edge in a picture.
func even(ring geom.Path, k float64) []geom.Point {
	const apart = .7
	var out []geom.Point
	for _, l := range ring.Transform(geom.Scale(k, k)).Flatten(.02) {
		n := len(l.Points)
		for i, p := range l.Points {
			q := l.Points[(i+1)%n]
			steps := int(q.Sub(p).Len()/apart) + 1
			for s := range steps {
				if out = append(out, p.Lerp(q, float64(s)/float64(steps))); len(out) > maxPoints {
					return out
				}
			}
		}
	}
	return out
}

package geom

import (
	"cmp"
	"slices"
)

// Hull is the convex hull of points (Andrew's monotone chain, 1979), counterclockwise where y points up.
// The points are put into another order.
func Hull(pts []Point) []Point {
	slices.SortFunc(pts, func(a, b Point) int { return cmp.Or(cmp.Compare(a.X, b.X), cmp.Compare(a.Y, b.Y)) })
	var out []Point
	for range 2 {
		floor := len(out)
		for _, p := range pts {
			for len(out) >= floor+2 && out[len(out)-1].Sub(out[len(out)-2]).Cross(p.Sub(out[len(out)-1])) <= 0 {
				out = out[:len(out)-1]
			}
			out = append(out, p)
		}
		out = out[:len(out)-1] // it begins the other half
		slices.Reverse(pts)
	}
	return out
}

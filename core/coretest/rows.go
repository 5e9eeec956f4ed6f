package coretest

import (
	"cmp"
	"slices"

	"sectilis/core/ground/geom"
)

// Rows is how high boxes stand when they are laid in rows of a width, which is what
// laying outlines is compared with: the longest first, each in the first row with room,
// the flatter way round ("first fit decreasing height": Coffman, Garey, Johnson and
// Tarjan, 1980).
func Rows(boxes []geom.Rect, width, between float64) float64 {
	boxes = slices.Clone(boxes)
	for i, b := range boxes {
		boxes[i] = geom.Rect{W: max(b.W, b.H), H: min(b.W, b.H)}
	}
	slices.SortStableFunc(boxes, func(a, b geom.Rect) int { return -cmp.Compare(a.W, b.W) })
	type row struct{ x, h float64 }
	var all []row
	for _, b := range boxes {
		k := slices.IndexFunc(all, func(r row) bool { return b.H <= r.h && r.x+b.W <= width })
		if k < 0 {
			all = append(all, row{0, b.H})
			k = len(all) - 1
		}
		all[k].x += b.W + between
	}
	sum := -between
	for _, r := range all {
		sum += r.h + between
	}
	return sum
}

package drawnbase

import (
	"cmp"
	"fmt"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// A panel is likely a leaf when it is at least this share of the largest one, and so much of its own edge
// is the edge of the sheet, or when it is as large as that. Where none is, the largest is one.
const (
	leastLeaf = .12
	leastOuts = .15
	largeLeaf = .5
)

// likelyLeaves are the panels that likely have faces, named as cards are: with upright folds from the
// right, which is Front as seen from outside, to the left, with level ones from below upward. back maps
// the sheet to the drawing.
func likelyLeaves(d fold.Division, edge geom.Path, level bool, back geom.Affine) []Leaf {
	type leaf struct {
		at  geom.Point
		mid geom.Point
	}
	largest := 0.0
	for _, p := range d.Panels {
		box := p.Ring.Bounds()
		largest = max(largest, box.W*box.H)
	}
	var found []leaf
	for _, p := range d.Panels {
		if a := p.Ring.Area(); a >= largeLeaf*largest || a >= leastLeaf*largest && outer(p.Ring, edge) >= leastOuts {
			found = append(found, leaf{p.Middle, p.Ring.Bounds().Centre()})
		}
	}
	if len(found) == 0 {
		p := slices.MaxFunc(d.Panels, func(a, b fold.Panel) int { return cmp.Compare(a.Ring.Area(), b.Ring.Area()) })
		found = append(found, leaf{p.Middle, p.Ring.Bounds().Centre()})
	}
	slices.SortStableFunc(found, func(a, b leaf) int {
		if level {
			return cmp.Or(cmp.Compare(b.mid.Y, a.mid.Y), cmp.Compare(a.mid.X, b.mid.X))
		}
		return cmp.Or(cmp.Compare(b.mid.X, a.mid.X), cmp.Compare(a.mid.Y, b.mid.Y))
	})
	if len(found) > card.MaxLeaves {
		found = found[:card.MaxLeaves]
	}
	out := make([]Leaf, len(found))
	for i, f := range found {
		out[i] = Leaf{At: back.Apply(f.at), Outside: fmt.Sprintf("Outside %d", i+1), Inside: fmt.Sprintf("Inside %d", i+1)}
	}
	switch {
	case len(out) == 1:
		out[0].Outside, out[0].Inside = "Front", "Back"
	case len(out) == 2 && level:
		out[0].Outside, out[0].Inside = "Front", "Inside top"
		out[1].Outside, out[1].Inside, out[1].OutsideTurn = "Back", "Inside bottom", 180
	case len(out) == 2:
		out[0].Outside, out[0].Inside = "Front", "Inside left"
		out[1].Outside, out[1].Inside = "Back", "Inside right"
	case len(out) > 2:
		out[0].Outside = "Front"
	}
	return out
}

// outer is the share of a ring that runs along the edge of the sheet.
func outer(ring, edge geom.Path) float64 {
	on, all := 0.0, 0.0
	for _, curves := range ring.Curves() {
		for _, c := range curves {
			long := c.Length()
			all += long
			if n, ok := edge.Nearest(c.At(.5)); ok && n.Distance < 2*onEdge {
				on += long
			}
		}
	}
	return on / max(all, 1e-9)
}

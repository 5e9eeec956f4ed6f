package fold

import (
	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
)

func doubleGateMeasures(b card.Base, v func(string) float64) []Measure {
	return append(gateMeasures(b, v), length("upper", "Upper doors", eighth(b.Height/2), measure.Inch/2, b.Height-measure.Inch/2))
}

// doubleGate is a gate fold whose gates are cut across, from their free edges to their folds.
// Seen from outside the left doors are at the right.
func doubleGate(b card.Base, v func(string) float64) Net {
	list, w, h, upper := gateLeaves(b, v), b.Width, b.Height, v("upper")
	right, left := list[2].width, list[0].width
	n := Net{Width: right + w + left, Height: h}
	var outside, inside []Face
	add := func(leaf int, name, behind string, x, y, width, height float64) {
		out, in := card.LeafFaces(leaf)
		outside = append(outside, Face{out, name, Outside, width, height, geom.Shift(x, y), geom.Shift(x, y)})
		inside = append(inside, Face{in, behind, Inside, width, height, geom.Affine{A: -1, D: 1, E: x + width, F: y}, geom.Shift(n.Width-x-width, y)})
	}
	add(0, "Upper left door", "Inside upper left", right+w, 0, left, upper)
	add(1, "Back", "Inside middle", right, 0, w, h)
	add(2, "Lower left door", "Inside lower left", right+w, upper, left, h-upper)
	add(3, "Upper right door", "Inside upper right", 0, 0, right, upper)
	add(4, "Lower right door", "Inside lower right", 0, upper, right, h-upper)
	n.Faces = faceOrder(outside, inside)
	for _, x := range []float64{right, right + w} {
		n.Lines = append(n.Lines,
			Line{Role: Mountain, From: geom.Pt(x, 0), To: geom.Pt(x, upper), Main: true},
			Line{Role: Mountain, From: geom.Pt(x, upper), To: geom.Pt(x, h), Main: true})
	}
	n.Lines = append(n.Lines,
		Line{Role: Cut, From: geom.Pt(0, upper), To: geom.Pt(right, upper)},
		Line{Role: Cut, From: geom.Pt(right+w, upper), To: geom.Pt(n.Width, upper)})
	return n
}

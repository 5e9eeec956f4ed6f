package fold

import (
	"fmt"

	"sectilis/core/card"
	"sectilis/core/geom"
	"sectilis/core/measure"
)

// leafOf is one leaf of a base whose folds are upright. Leaves are counted from
// Front to the left, as seen from outside.
type leafOf struct {
	width           float64
	outside, inside string
	// fold is the role of the fold at its left, as seen from outside.
	fold  Role
	stage int
}

// leaves makes the net of a base of upright leaves.
func leaves(of func(b card.Base, v func(string) float64) []leafOf) func(card.Base, func(string) float64) Net {
	return func(b card.Base, v func(string) float64) Net {
		list := of(b, v)
		n := Net{Height: b.Height}
		for _, l := range list {
			n.Width += l.width
		}
		x := n.Width
		var outside, inside []Face
		for i, l := range list {
			x -= l.width
			if i < len(list)-1 {
				n.Lines = append(n.Lines, Line{Role: l.fold, From: geom.Pt(x, 0), To: geom.Pt(x, b.Height), Main: true, Stage: l.stage})
			}
			out, in := card.LeafFaces(i)
			outside = append(outside, Face{out, l.outside, Outside, l.width, b.Height, geom.Shift(x, 0), geom.Shift(x, 0)})
			inside = append(inside, Face{in, l.inside, Inside, l.width, b.Height,
				geom.Affine{A: -1, D: 1, E: x + l.width}, geom.Shift(n.Width-x-l.width, 0)})
		}
		n.Faces = faceOrder(outside, inside)
		return n
	}
}

// faceOrder is Front, the inside from left to right, then the rest of the
// outside: the order in which a card is read.
func faceOrder(outside, inside []Face) []Face {
	out := append([]Face{outside[0]}, inside...)
	return append(out, outside[1:]...)
}

func sideLeaves(b card.Base, _ func(string) float64) []leafOf {
	return []leafOf{{b.Width, "Front", "Inside left", Mountain, 0}, {b.Width, "Back", "Inside right", "", 0}}
}

// caliper is the thickness of a base's stock: what is folded round it takes up
// as much room at each fold.
func caliper(b card.Base) float64 {
	s, _ := card.StockByID(b.Stock)
	return s.Thickness
}

func tuckMeasures(b card.Base, _ func(string) float64) []Measure {
	return []Measure{length("tuck", "Tucked leaf shorter by", measure.Inch/16+2*caliper(b), 0, b.Width/4)}
}

// triLeaves: the tucked leaf goes in first and is shorter, so that it does not
// push against the fold.
func triLeaves(b card.Base, v func(string) float64) []leafOf {
	return []leafOf{
		{b.Width, "Front", "Inside left", Mountain, 1},
		{b.Width, "Back", "Inside middle", Mountain, 0},
		{b.Width - v("tuck"), "Tucked leaf", "Inside right", "", 0},
	}
}

func zLeaves(b card.Base, _ func(string) float64) []leafOf {
	return []leafOf{
		{b.Width, "Front", "Inside left", Mountain, 0},
		{b.Width, "Outside middle", "Inside middle", Valley, 0},
		{b.Width, "Outside left", "Inside right", "", 0},
	}
}

func accordionLeaves(b card.Base, v func(string) float64) []leafOf {
	n := int(v("leaves"))
	out := make([]leafOf, n)
	for i := range out {
		out[i] = leafOf{b.Width, fmt.Sprintf("Outside %d", i+1), fmt.Sprintf("Inside %d", i+1), Mountain, 0}
		if i%2 == 1 {
			out[i].fold = Valley
		}
	}
	out[0].outside = "Front"
	return out
}

func gateMeasures(b card.Base, _ func(string) float64) []Measure {
	return []Measure{
		length("gate", "Left gate", b.Width/2, b.Width/8, b.Width*7/8),
		length("between", "Between gates", .2+2*caliper(b), 0, b.Width/8),
	}
}

// gateLeaves: seen from outside the left gate is at the right.
func gateLeaves(b card.Base, v func(string) float64) []leafOf {
	left := v("gate") - v("between")/2
	return []leafOf{
		{left, "Left gate", "Inside left", Mountain, 0},
		{b.Width, "Back", "Inside middle", Mountain, 0},
		{b.Width - left - v("between"), "Right gate", "Inside right", "", 0},
	}
}

// topFold has Front below the fold as seen from outside, and Back above it with
// its head down, so that both stand upright when the card is closed.
func topFold(b card.Base) Net {
	w, h := b.Width, b.Height
	back := geom.Affine{A: -1, D: -1, E: w, F: h}
	return Net{
		Width: w, Height: 2 * h,
		Lines: []Line{{Role: Mountain, From: geom.Pt(0, h), To: geom.Pt(w, h), Main: true}},
		Faces: []Face{
			{card.Front, "Front", Outside, w, h, geom.Shift(0, h), geom.Shift(0, h)},
			{card.InsideFirst, "Inside top", Inside, w, h, geom.Affine{A: 1, D: -1, F: 2 * h}, geom.Identity},
			{card.InsideSecond, "Inside bottom", Inside, w, h, geom.Affine{A: 1, D: -1, F: h}, geom.Shift(0, h)},
			{card.Back, "Back", Outside, w, h, back, back},
		},
	}
}

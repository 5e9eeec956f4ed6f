package fold

import (
	"fmt"
	"math"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
)

// leafOf is one leaf of a base whose folds are upright. Leaves are counted from
// Front to the left, as seen from outside.
type leafOf struct {
	width           float64
	outside, inside string
	// fold is the role of the fold at its left, as seen from outside.
	fold  Role
	stage int
	// room is how far apart that fold is scored twice; 0 is one score.
	room float64
}

// leaves makes the net of a base of upright leaves.
func leaves(of func(b card.Base, v func(string) float64) []leafOf) func(card.Base, func(string) float64) Net {
	return func(b card.Base, v func(string) float64) Net {
		list := of(b, v)
		n := Net{Height: b.Height}
		for _, l := range list {
			n.Width += l.width + l.room
		}
		x := n.Width
		var outside, inside []Face
		for i, l := range list {
			x -= l.width
			out, in := card.LeafFaces(i)
			outside = append(outside, Face{out, l.outside, Outside, l.width, b.Height, geom.Shift(x, 0), geom.Shift(x, 0)})
			inside = append(inside, Face{in, l.inside, Inside, l.width, b.Height,
				geom.Affine{A: -1, D: 1, E: x + l.width}, geom.Shift(n.Width-x-l.width, 0)})
			if i == len(list)-1 {
				break
			}
			score := Line{Role: l.fold, From: geom.Pt(x, 0), To: geom.Pt(x, b.Height), Main: true, Stage: l.stage}
			n.Lines = append(n.Lines, score.withRoom(geom.Pt(-1, 0), l.room)...)
			x -= l.room
		}
		n.Faces = faceOrder(outside, inside)
		return n
	}
}

// flat is one leaf: its back is the inside of the sheet.
func flat(b card.Base) Net {
	w, h := b.Width, b.Height
	return Net{Width: w, Height: h, Faces: []Face{
		{card.Front, "Front", Outside, w, h, geom.Identity, geom.Identity},
		{card.Back, "Back", Inside, w, h, geom.Affine{A: -1, D: 1, E: w}, geom.Identity},
	}}
}

// faceOrder is Front, the inside from left to right, then the rest of the
// outside: the order in which a card is read.
func faceOrder(outside, inside []Face) []Face {
	out := append([]Face{outside[0]}, inside...)
	return append(out, outside[1:]...)
}

func sideLeaves(b card.Base, v func(string) float64) []leafOf {
	return []leafOf{{b.Width, "Front", "Inside left", Mountain, 0, twice(v("room"))}, {b.Width, "Back", "Inside right", "", 0, 0}}
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
		{b.Width, "Front", "Inside left", Mountain, 1, 0},
		{b.Width, "Back", "Inside middle", Mountain, 0, 0},
		{b.Width - v("tuck"), "Tucked leaf", "Inside right", "", 0, 0},
	}
}

func zLeaves(b card.Base, _ func(string) float64) []leafOf {
	return []leafOf{
		{b.Width, "Front", "Inside left", Mountain, 0, 0},
		{b.Width, "Outside middle", "Inside middle", Valley, 0, 0},
		{b.Width, "Outside left", "Inside right", "", 0, 0},
	}
}

func accordionLeaves(b card.Base, v func(string) float64) []leafOf {
	n := int(v("leaves"))
	out := make([]leafOf, n)
	for i := range out {
		out[i] = leafOf{b.Width, fmt.Sprintf("Outside %d", i+1), fmt.Sprintf("Inside %d", i+1), Mountain, 0, 0}
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
		{left, "Left gate", "Inside left", Mountain, 0, 0},
		{b.Width, "Back", "Inside middle", Mountain, 0, 0},
		{b.Width - left - v("between"), "Right gate", "Inside right", "", 0, 0},
	}
}

// withRoom is a fold, or where it has room the two scores of half its turn each
// that stand a stub of paper up between the leaves.
func (l Line) withRoom(step geom.Point, room float64) []Line {
	if room == 0 {
		return []Line{l}
	}
	l.Stop = math.Pi / 2
	second := l
	second.From, second.To = l.From.Add(step.Mul(room)), l.To.Add(step.Mul(room))
	return []Line{l, second}
}

// leastRoom is how far apart two scores must be for the paper between them to
// stand, mm.
const leastRoom = .8

// twice is the room of a fold that is scored twice, 0 where it is too little.
func twice(room float64) float64 {
	if room < leastRoom {
		return 0
	}
	return room
}

// roomMeasures: a thin sheet folds on one score, thick card needs two.
func roomMeasures(b card.Base, _ func(string) float64) []Measure {
	at := 0.0
	if t := caliper(b); t > .5 {
		at = max(leastRoom, 2*t)
	}
	return []Measure{length("room", "Room at the fold", at, 0, 15)}
}

// Room is how far apart the leaves of a base are held by its fold, mm; -1 for a
// kind whose fold is always one score.
func Room(b card.Base) float64 {
	if b.Kind != card.SideFold && b.Kind != card.TopFold {
		return -1
	}
	list, _ := Measures(b)
	return twice(list[0].At)
}

// topFold has Front below the fold as seen from outside, and Back above it with
// its head down, so that both stand upright when the card is closed.
func topFold(b card.Base, room float64) Net {
	w, h := b.Width, b.Height
	room = twice(room)
	y := h + room
	back := geom.Affine{A: -1, D: -1, E: w, F: h}
	return Net{
		Width: w, Height: h + y,
		Lines: Line{Role: Mountain, From: geom.Pt(0, h), To: geom.Pt(w, h), Main: true}.withRoom(geom.Pt(0, 1), room),
		Faces: []Face{
			{card.Front, "Front", Outside, w, h, geom.Shift(0, y), geom.Shift(0, y)},
			{card.InsideFirst, "Inside top", Inside, w, h, geom.Affine{A: 1, D: -1, F: y + h}, geom.Identity},
			{card.InsideSecond, "Inside bottom", Inside, w, h, geom.Affine{A: 1, D: -1, F: h}, geom.Shift(0, y)},
			{card.Back, "Back", Outside, w, h, back, back},
		},
	}
}

// Package nest lays outlines close together on sheets. It knows of outlines,
// room between them and turns; what they are for is the caller's.
//
// Each part is laid as low as it goes, in an order that a search improves: the
// rule is the bottom-left-fill of Art ("An approach to the two dimensional
// irregular cutting stock problem", 1966), the search over orders and turns is
// threshold accepting (Dueck and Scheuer, 1990). Parts that are all but boxes
// are laid by their skyline, exactly (Burke, Kendall and Whitwell, 2004). Other
// parts, and all among which some lie fixed, are compared in narrow columns:
// across the column a part counts as wide as it is anywhere in it, along it
// places are exact (the semi-discrete representation of Chehrazad, Roose and
// Wauters, "A fast and scalable bottom-left-fill algorithm to solve nesting
// problems using a semi-discrete representation", 2022). So parts are never
// nearer than they may be, and use the hollows and the holes of others. Once some
// orders were tried, the best layout is pressed closer on the same columns (see
// squeezer).
//
// Lengths are millimetres, angles radians.
package nest

import (
	"math"

	"sectilis/core/ground/geom"
)

// Turning says how a part may be turned.
type Turning uint8

// The ways a part may be turned: not, by quarter turns, as it fits best; or, where it has
// to run one way, upside down alone, or onto either of its sides.
const (
	Upright Turning = iota
	Quarters
	Freely
	Halves
	Sidelong
)

// Part is something to be laid.
type Part struct {
	// Outline is the region that the part takes, rings and holes; bleed and the
	// like are in it.
	Outline geom.Path
	Turning Turning
	// Fixed is where the part lies already and stays; nil for none.
	Fixed *Place
}

// Sheet is a kind of sheet. Its origin is its top left corner, y down; parts are laid from the
// top. Lengths are mm.
type Sheet struct {
	Width, Height float64
	// Margin along every edge that parts keep out of.
	Margin float64
	// Keep are boxes that parts keep clear of, as they do of one another.
	Keep []geom.Rect
	// Count is how many there are; 0 is any number.
	Count int
}

// Problem is what is to be laid, and on what. Sheets are used in their order.
type Problem struct {
	Parts  []Part
	Sheets []Sheet
	// Between is the least room between two parts.
	Between float64
	Seed    uint64
}

// Place is where a part lies: on which of the answer's sheets, and the map from
// the part's own coordinates to that sheet's.
type Place struct {
	Sheet int // -1 for a part that has no room on any sheet
	At    geom.Affine
}

// Answer is a layout.
type Answer struct {
	Places []Place // by part
	Sheets []int   // of each sheet used, its kind in Problem.Sheets
	// Area is what is taken of sheets without number: all of each but the
	// emptiest, of that as far down as it is used, over its whole width, mm².
	Area float64
}

// Search finds ever closer layouts. The same problem gives the same layouts.
type Search struct {
	p       Problem
	shapes  shapes
	boxes   bool
	quick   bool // a part that does not fit at its turn is not tried at others
	now     genes
	cost    float64
	best    Answer
	laid    []laid  // the best, before it was made an answer
	kinds   []int   // and the kinds of its bins
	least   float64 // total of the best
	rough   float64 // the least in broad columns
	heat    float64
	steps   int
	rng     rng
	scratch genes
	plain   []genes // plain orders that were not tried yet
	squeeze *squeezer
}

// genes are what a layout follows from: the order of parts and the turn of each,
// -1 for the one that lies lowest, quarter for the lower of upright and a quarter turn.
type genes struct {
	order []int32
	turn  []int8
}

// quarter says that only the first two turns are tried: none and a quarter.
const quarter = -2

// New makes a first layout.
func New(p Problem) *Search {
	s := &Search{p: p, rng: newRNG(p.Seed), least: math.Inf(1), rough: math.Inf(1)}
	s.shapes = shapesOf(p)
	s.boxes = s.shapes.allBoxes
	for i := range p.Parts {
		s.boxes = s.boxes && p.Parts[i].Fixed == nil
	}
	s.first()
	return s
}

// Best is the closest layout so far.
func (s *Search) Best() Answer { return s.best }

// Better reports whether a layout leaves fewer parts out than another, or takes
// less.
func (a Answer) Better(than Answer) bool {
	out := func(x Answer) (n int) {
		for _, p := range x.Places {
			if p.Sheet < 0 {
				n++
			}
		}
		return n
	}
	if n, m := out(a), out(than); n != m {
		return n < m
	}
	return a.Area < than.Area-1e-9
}

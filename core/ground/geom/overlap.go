package geom

import (
	"math"
	"slices"
)

// Where two curves run along one another there is no crossing to find, and
// chords of both would weave in and out. So stretches that coincide are found
// first, by what curves of low degree cannot hide: two that agree in so many
// places are one. The later one then runs along the earlier.

// same is how far apart in grid units curves may run and still be one.
const same = 16

// strand is a stretch of a base curve that enters the arrangement once,
// however many rings run along it.
type strand struct {
	base   int32
	t0, t1 float64
	a, b   ipoint
	runs   []run // the rings along it, where it is not just the one in `only`
	only   run
}

// run says how a path's winding number changes across a strand: delta is 1
// where the ring goes with the base curve, -1 against it, 0 for strokes.
type run struct{ path, delta int32 }

func (s *strand) along(r run) {
	if s.only.path < 0 {
		s.only = r
		return
	}
	s.runs = append(s.runs, r)
}

// kin is what is known of base curves that run along one another.
type kin struct {
	cuts  map[int32][]float64 // where a curve must be cut
	pairs [][2]int32          // the earlier first
}

// findKin compares all curves, in grid units, that are not lines.
func findKin(curves map[int32]Curve, order []int32) kin {
	k := kin{cuts: map[int32][]float64{}}
	boxes := make([]span, len(order))
	for i, id := range order {
		boxes[i] = hullSpan(curves[id].hull(), int32(i))
	}
	eachPair(boxes, func(i, j int32) {
		a, b := order[min(i, j)], order[max(i, j)]
		k.compare(a, b, curves[a], curves[b])
	})
	slices.SortFunc(k.pairs, func(p, q [2]int32) int {
		if p[1] != q[1] {
			return int(p[1] - q[1])
		}
		return int(p[0] - q[0])
	})
	return k
}

func hullSpan(r Rect, of int32) span {
	const far = 1 << 30
	lo := func(v float64) int32 { return int32(max(math.Floor(v)-same, -far)) }
	hi := func(v float64) int32 { return int32(min(math.Ceil(v)+same, far)) }
	return span{lo(r.X), lo(r.Y), hi(r.Right()), hi(r.Bottom()), of, false}
}

func (k *kin) compare(ia, ib int32, a, b Curve) {
	if (a.Op == ArcTo) != (b.Op == ArcTo) {
		return
	}
	if a.Op == ArcTo && !sameEllipse(*a.Arc, *b.Arc) {
		return
	}
	onA, onB := contacts(a, b), contacts(b, a)
	if len(onA)+len(onB) < 2 || !twoPlaces(a, b, onA, onB) {
		return
	}
	cutsA, okA := shared(a, b, onA, onB)
	cutsB, okB := shared(b, a, onB, onA)
	if !okA || !okB {
		return
	}
	k.cuts[ia] = append(k.cuts[ia], cutsA...)
	k.cuts[ib] = append(k.cuts[ib], cutsB...)
	k.pairs = append(k.pairs, [2]int32{ia, ib})
}

// twoPlaces reports whether contacts are more than one end that both share, as
// neighbours in a ring do. Closed curves may share just their seam.
func twoPlaces(a, b Curve, onA, onB []float64) bool {
	if len(onA) == 0 || len(onB) == 0 || a.From.Sub(a.End()).Len() <= same {
		return true
	}
	first := a.At(onA[0])
	for _, t := range onA[1:] {
		if a.At(t).Sub(first).Len() > 2*same {
			return true
		}
	}
	for _, t := range onB {
		if b.At(t).Sub(first).Len() > 2*same {
			return true
		}
	}
	return false
}

// sameEllipse reports whether two arcs lie on one ellipse.
func sameEllipse(a, b Arc) bool {
	if a.Centre.Sub(b.Centre).Len() > same {
		return false
	}
	for i := range 4 {
		p := b.At(b.From + (b.To-b.From)*float64(i)/3)
		if t, ok := a.angleOf(p); !ok || a.At(t).Sub(p).Len() > same {
			return false
		}
	}
	return true
}

// angleOf is the angle at which the ellipse is met by a ray from its centre.
func (a Arc) angleOf(p Point) (float64, bool) {
	d := p.Sub(a.Centre)
	det := a.U.Cross(a.V)
	if det == 0 {
		return 0, false
	}
	return math.Atan2(a.U.Cross(d)/det, d.Cross(a.V)/det), true
}

// contacts are the parameters on a where the ends of b lie.
func contacts(a, b Curve) []float64 {
	var out []float64
	for _, q := range []Point{b.From, b.End()} {
		if t, ok := a.along(q); ok {
			out = append(out, t)
		}
	}
	return out
}

// shared finds the stretches of a between contacts that lie on b. It returns
// where a must be cut for them.
func shared(a, b Curve, onA, onB []float64) (cuts []float64, ok bool) {
	stops := append([]float64{}, onA...)
	if len(onB) > 0 {
		stops = append(stops, 0, 1)
	}
	slices.Sort(stops)
	for i := 1; i < len(stops); i++ {
		lo, hi := stops[i-1], stops[i]
		if a.At(lo).Sub(a.At(hi)).Len() <= 2*same && hi-lo < .5 {
			continue
		}
		on := true
		for j := 0; j < 10 && on; j++ {
			_, on = b.along(a.At(lo + (hi-lo)*float64(1+(j+4)%10)/11)) // the middle first
		}
		if on {
			cuts, ok = append(cuts, lo, hi), true
		}
	}
	return cuts, ok
}

// along is the parameter at which the curve passes q, to the tolerance.
func (c Curve) along(q Point) (float64, bool) {
	switch q {
	case c.From:
		return 0, true
	case c.End():
		return 1, true
	}
	if c.Op == ArcTo {
		t, ok := c.Arc.angleOf(q)
		w := c.Arc.To - c.Arc.From
		if !ok || w == 0 {
			return 0, false
		}
		k := (t - c.Arc.From) / w
		turn := 2 * math.Pi / math.Abs(w)
		k -= math.Floor(k/turn) * turn
		// Just before the start is the start.
		for _, k := range []float64{k, k - turn} {
			k = min(max(k, 0), 1)
			if c.At(k).Sub(q).Len() <= same {
				return k, true
			}
		}
		return 0, false
	}
	at := c.passes(q, same)
	if at < 0 {
		return 0, false
	}
	// Ends are met exactly.
	for _, e := range []float64{0, 1} {
		if c.At(e).Sub(q).Len() <= same && math.Abs(at-e) < .1 {
			at = e
		}
	}
	return at, true
}

// coincide reports whether two stretches are the same, and whether the second
// runs against the first. Curves are in grid units.
func coincide(a, b Curve) (against, ok bool) {
	near := func(p, q Point) bool { return p.Sub(q).Len() <= 3*same }
	with, back := near(a.From, b.From) && near(a.End(), b.End()), near(a.From, b.End()) && near(a.End(), b.From)
	if !with && !back {
		return false, false
	}
	for i := 1; i <= 7; i++ {
		if _, on := a.along(b.At(float64(i) / 8)); !on {
			return false, false
		}
		if _, on := b.along(a.At(float64(i) / 8)); !on {
			return false, false
		}
	}
	if with && back {
		// A closed curve: the direction shows a little way along.
		t1, _ := a.along(b.At(1. / 8))
		t2, _ := a.along(b.At(2. / 8))
		return t2 < t1, true
	}
	return back, true
}

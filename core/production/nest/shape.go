package nest

import (
	"cmp"
	"crypto/sha256"
	"math"
	"slices"
	"sync"

	"sectilis/core/ground/geom"
)

// flat is how far, mm, a chord may leave its curve; outlines are grown by as much
// more, so that chords hold the curve.
const flat = .04

// boxlike is the share of its box that an outline fills to be laid as one.
const boxlike = .985

// span is a stretch along a column.
type span struct{ lo, hi float64 }

// shape is a part at one turn, grown by half the room between parts. Its box
// starts at the origin.
type shape struct {
	w, h float64
	// at maps the part's outline to the shape.
	at   geom.Affine
	cols [levels][][]span
}

// Layouts are compared in broad columns and laid in narrow ones.
const (
	narrow = iota
	broad
	levels
)

// class is what parts with the same outline and turning have in common.
type class struct {
	turns []shape
	box   bool
}

type shapes struct {
	classes  []class
	of       []int32         // the class of each part
	columns  [levels]float64 // width of a column
	allBoxes bool
	least    float64 // the least height of any shape
}

type classKey struct {
	outline [sha256.Size]byte
	turns   Turning
}

func shapesOf(p Problem) shapes {
	s := shapes{of: make([]int32, len(p.Parts)), allBoxes: true, least: math.Inf(1)}
	s.columns = columnsOf(p)
	known := map[classKey]int32{}
	var first []int // the first part of each class
	for i := range p.Parts {
		part := &p.Parts[i]
		k := classKey{part.Outline.Digest(), part.Turning}
		id, ok := known[k]
		if !ok {
			id = int32(len(first))
			known[k] = id
			first = append(first, i)
		}
		s.of[i] = id
	}
	// Two work at it: each outline is by itself.
	s.classes = make([]class, len(first))
	var work sync.WaitGroup
	for half := range 2 {
		work.Go(func() {
			for id := half; id < len(first); id += 2 {
				s.classes[id] = classOf(&p.Parts[first[id]], p, s.columns)
			}
		})
	}
	work.Wait()
	for id := range s.classes {
		c := &s.classes[id]
		s.allBoxes = s.allBoxes && c.box
		for t := range c.turns {
			s.least = min(s.least, c.turns[t].h)
		}
	}
	return s
}

// columnsOf are the widths of columns: a quarter of a millimetre or, on very wide
// sheets, what keeps them below a thousand, and four times that.
func columnsOf(p Problem) [levels]float64 {
	widest := 0.0
	for _, sh := range p.Sheets {
		widest = max(widest, sh.Width)
	}
	w := max(.25, widest/1000)
	return [levels]float64{w, 4 * w}
}

func classOf(part *Part, p Problem, column [levels]float64) class {
	between := p.Between
	var c class
	box := part.Outline.Bounds()
	c.box = math.Abs(part.Outline.Area()) >= boxlike*box.W*box.H
	grown := geom.Offset(part.Outline, between/2+flat, geom.RoundCorner)
	lines := grown.Flatten(flat)
	angles := anglesOf(part, lines)
	if slant := aslant(part, lines, p.Sheets); len(slant) > 0 {
		// Side by side as they lie, not box by box.
		angles, c.box = slant, false
	}
	for _, a := range angles {
		if c.box {
			c.turns = append(c.turns, boxShape(box, a, between))
			continue
		}
		c.turns = append(c.turns, shapeOf(lines, a, column))
	}
	// A turn that gives the same box and columns is no other turn.
	out := c.turns[:1]
	for _, t := range c.turns[1:] {
		if !slices.ContainsFunc(out, t.same) {
			out = append(out, t)
		}
	}
	c.turns = out
	if c.box {
		for i := range c.turns {
			t := &c.turns[i]
			r := []geom.Polyline{{Points: []geom.Point{{}, {X: t.w}, {X: t.w, Y: t.h}, {Y: t.h}}, Closed: true}}
			t.cols = bothColumns(r, t.w, column)
		}
	}
	return c
}

// anglesOf are the turns to try.
func anglesOf(part *Part, lines []geom.Polyline) []float64 {
	switch part.Turning {
	case Upright:
		return []float64{0}
	case Halves:
		return []float64{0, math.Pi}
	case Sidelong:
		return []float64{math.Pi / 2, -math.Pi / 2}
	case Quarters:
		return []float64{0, math.Pi / 2, math.Pi, -math.Pi / 2}
	}
	out := []float64{0, math.Pi / 2, math.Pi, -math.Pi / 2}
	if a := squarest(lines); a > .01 && a < math.Pi/2-.01 {
		for q := range 4 {
			out = append(out, a+float64(q)*math.Pi/2)
		}
	}
	for _, a := range []float64{math.Pi / 6, math.Pi / 3} {
		for q := range 4 {
			out = append(out, a+float64(q)*math.Pi/2)
		}
	}
	return out
}

// maxAslant is at how many turns a part is tried that has room only aslant.
const maxAslant = 4

// aslant are the turns at which a part has room that is longer than the sides of every
// sheet; none if it has room at a quarter turn, or may not be turned. A fixed part has its
// turn. Those come first at which most of them have room side by side: a part of a box of
// w × h on a sheet of W × H can be moved aside, square to its length at an angle a, by
// (W − w)·sin a + (H − h)·cos a.
func aslant(part *Part, lines []geom.Polyline, sheets []Sheet) []float64 {
	if part.Fixed != nil || part.Turning != Freely {
		return nil
	}
	aside := func(a float64) float64 {
		b := boundsOf(turned(lines, a))
		sin, cos := math.Sincos(a)
		most := -1.0
		for _, s := range sheets {
			if x, y := s.Width-2*s.Margin-b.W, s.Height-2*s.Margin-b.H; x >= 0 && y >= 0 {
				most = max(most, x*math.Abs(sin)+y*math.Abs(cos))
			}
		}
		return most
	}
	if aside(0) >= 0 || aside(math.Pi/2) >= 0 {
		return nil
	}
	type turn struct{ angle, aside float64 }
	var all []turn
	for half := range 360 {
		a := float64(half) * math.Pi / 360
		if d := aside(a); d >= 0 {
			all = append(all, turn{a, d})
		}
	}
	slices.SortStableFunc(all, func(a, b turn) int { return cmp.Compare(b.aside, a.aside) })
	var out []float64
	for _, t := range all[:min(maxAslant, len(all))] {
		out = append(out, t.angle)
	}
	return out
}

// squarest is the turn, 0 to a quarter, at which the box is smallest, to a degree.
func squarest(lines []geom.Polyline) float64 {
	best, least := 0.0, math.Inf(1)
	for deg := range 90 {
		a := float64(deg) * math.Pi / 180
		b := boundsOf(turned(lines, a))
		if area := b.W * b.H; area < least*(1-1e-6) {
			best, least = a, area
		}
	}
	return best
}

func turned(lines []geom.Polyline, angle float64) []geom.Polyline {
	m := turnBy(angle)
	out := make([]geom.Polyline, len(lines))
	for i, l := range lines {
		out[i] = geom.Polyline{Points: make([]geom.Point, len(l.Points)), Closed: l.Closed}
		for k, p := range l.Points {
			out[i].Points[k] = m.Apply(p)
		}
	}
	return out
}

// turnBy is a turn whose quarters are exact.
func turnBy(angle float64) geom.Affine {
	m := geom.Turn(angle)
	for _, v := range []*float64{&m.A, &m.B, &m.C, &m.D} {
		if r := math.Round(*v); math.Abs(*v-r) < 1e-12 {
			*v = r
		}
	}
	return m
}

func boundsOf(lines []geom.Polyline) geom.Rect {
	lo, hi := geom.Pt(math.Inf(1), math.Inf(1)), geom.Pt(math.Inf(-1), math.Inf(-1))
	for _, l := range lines {
		for _, p := range l.Points {
			lo = geom.Pt(min(lo.X, p.X), min(lo.Y, p.Y))
			hi = geom.Pt(max(hi.X, p.X), max(hi.Y, p.Y))
		}
	}
	return geom.Rect{X: lo.X, Y: lo.Y, W: hi.X - lo.X, H: hi.Y - lo.Y}
}

func boxShape(box geom.Rect, angle, between float64) shape {
	m := turnBy(angle)
	r := geom.RectPath(box).Transform(m).Bounds().Grow(between / 2)
	return shape{w: r.W, h: r.H, at: m.Then(geom.Shift(-r.X, -r.Y))}
}

func shapeOf(lines []geom.Polyline, angle float64, column [levels]float64) shape {
	lines = turned(lines, angle)
	b := boundsOf(lines)
	for _, l := range lines {
		for k := range l.Points {
			l.Points[k] = l.Points[k].Sub(geom.Pt(b.X, b.Y))
		}
	}
	return shape{w: b.W, h: b.H, at: turnBy(angle).Then(geom.Shift(-b.X, -b.Y)), cols: bothColumns(lines, b.W, column)}
}

// same reports whether two turns take the same room.
func (s shape) same(o shape) bool {
	if math.Abs(s.w-o.w) > 1e-6 || math.Abs(s.h-o.h) > 1e-6 {
		return false
	}
	near := func(a, b span) bool { return math.Abs(a.lo-b.lo) <= flat && math.Abs(a.hi-b.hi) <= flat }
	return slices.EqualFunc(s.cols[narrow], o.cols[narrow], func(a, b []span) bool { return slices.EqualFunc(a, b, near) })
}

func bothColumns(lines []geom.Polyline, width float64, column [levels]float64) (out [levels][][]span) {
	for level, w := range column {
		out[level] = columns(lines, width, w)
	}
	return out
}

// columns are, for every column, the stretches that the region covers anywhere in
// it: those that its edges pass there and those inside at the column's middle.
// A place of the region in the column either has the middle on its level, with
// no edge between, or an edge on its level.
func columns(lines []geom.Polyline, width, column float64) [][]span {
	n := max(1, int(math.Ceil(width/column-1e-9)))
	out := make([][]span, n)
	inside := make([][]float64, n)
	for _, l := range lines {
		for k, a := range l.Points {
			b := l.Points[(k+1)%len(l.Points)]
			if b.X < a.X {
				a, b = b, a
			}
			first, last := clampColumn(a.X/column, n), clampColumn(b.X/column, n)
			at := func(x float64) float64 {
				if b.X == a.X {
					return a.Y
				}
				return a.Y + (b.Y-a.Y)*min(max((x-a.X)/(b.X-a.X), 0), 1)
			}
			for c := first; c <= last; c++ {
				y0, y1 := at(float64(c)*column), at(float64(c+1)*column)
				if a.X == b.X {
					y0, y1 = a.Y, b.Y
				}
				out[c] = append(out[c], span{min(y0, y1), max(y0, y1)})
				if mid := (float64(c) + .5) * column; a.X <= mid && mid < b.X {
					inside[c] = append(inside[c], at(mid))
				}
			}
		}
	}
	for c := range out {
		slices.Sort(inside[c])
		for k := 0; k+1 < len(inside[c]); k += 2 {
			out[c] = append(out[c], span{inside[c][k], inside[c][k+1]})
		}
		out[c] = merged(out[c], 0)
	}
	return out
}

func clampColumn(v float64, n int) int { return min(max(int(v), 0), n-1) }

// merged sorts spans and joins those with no more than gap between them.
func merged(s []span, gap float64) []span {
	slices.SortFunc(s, func(a, b span) int { return cmp.Compare(a.lo, b.lo) })
	out := s[:0]
	for _, v := range s {
		if n := len(out); n > 0 && v.lo <= out[n-1].hi+gap {
			out[n-1].hi = max(out[n-1].hi, v.hi)
			continue
		}
		out = append(out, v)
	}
	return out
}

package scene

import (
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// Cut is the closed card cut through along a line: what of it lies in the cut, from Front backward. All
// lengths are mm; places along the line count from its start, depths from the foremost place.
type Cut struct {
	Long  float64 `json:"long"` // of the line
	Thick float64 `json:"thick"`
	// Thickest is how thick the card is at its thickest place in the cut, and At where that is.
	Thickest float64    `json:"thickest"`
	At       float64    `json:"at"`
	Strips   []CutStrip `json:"strips"`
	Folds    []CutFold  `json:"folds"`
}

// CutStrip is a stretch of a leaf, a piece or its foam in a cut.
type CutStrip struct {
	From   float64     `json:"from"`
	To     float64     `json:"to"`
	Upper  float64     `json:"upper"` // how deep its front lies
	Lower  float64     `json:"lower"`
	Foam   bool        `json:"foam,omitempty"`
	Colour string      `json:"colour"`
	Face   card.FaceID `json:"face,omitempty"`
	Item   string      `json:"item,omitempty"` // "" for a leaf
	Name   string      `json:"name"`
}

// CutFold is a fold in a cut, round which two leaves go on into one another.
type CutFold struct {
	At    float64 `json:"at"`
	Upper float64 `json:"upper"`
	Lower float64 `json:"lower"`
	// Ahead says that the leaves lie before it along the line.
	Ahead bool `json:"ahead"`
}

// Cut cuts the closed card through along a line, in the coordinates of Front. Leaves are flat and as far
// apart as what lies between them needs at its thickest place; pieces lie on the leaf that they are glued
// to. A card that does not fold flat has no layers, and nothing in its cut.
func (h *Heap) Cut(c card.Card, from, to geom.Point) Cut {
	study := fold.StudyOf(c.Base)
	out := Cut{Long: to.Sub(from).Len(), Strips: []CutStrip{}, Folds: []CutFold{}}
	if out.Long < 1e-6 {
		return out
	}
	leaf, _ := card.StockByID(c.Base.Stock)
	depth := h.depths(study, leaf.Thickness)
	order := slices.Clone(h.layers)
	slices.SortStableFunc(order, func(a, b sheetLayer) int { return a.at - b.at })
	for i := range order {
		l := &order[i]
		low, high := h.within(l, leaf.Thickness)
		at := depth[l.panel]
		out.Thick = max(out.Thick, at+high)
		add := func(upper, lower float64, strip CutStrip) {
			for _, s := range along(from, to, l.path) {
				strip.From, strip.To, strip.Upper, strip.Lower = s[0], s[1], at+upper, at+lower
				out.Strips = append(out.Strips, strip)
			}
		}
		it := l.item
		if it == nil {
			add(low, high, CutStrip{Colour: leaf.Colour, Name: leafName(study, l.panel)})
			continue
		}
		strip := CutStrip{Colour: it.Ground, Face: l.face, Item: it.ID, Name: it.Name}
		foam := strip
		foam.Foam, foam.Colour = true, "#ffffff"
		paper := high - low - it.Lift
		switch {
		case it.Lift == 0:
			add(low, high, strip)
		case h.behind(l):
			add(low, low+it.Lift, foam)
			add(low+it.Lift, high, strip)
		default:
			add(low, low+paper, strip)
			add(low+paper, high, foam)
		}
	}
	out.Folds = h.cutFolds(study, from, to, depth, leaf.Thickness)
	out.thickest()
	return out
}

// behind reports whether a piece is glued to the side of its leaf that looks away from Front's eye.
func (h *Heap) behind(l *sheetLayer) bool { return l.at > 2*h.place[l.panel] }

// within is where a layer lies from the front of its leaf backward.
func (h *Heap) within(l *sheetLayer, leaf float64) (upper, lower float64) {
	switch it := l.item; {
	case it == nil:
		return 0, leaf
	case h.behind(l):
		return it.From, it.To
	default:
		return leaf - it.To, leaf - it.From
	}
}

// depths are how deep the front of each panel lies, the foremost thing at 0. A panel with all that is
// glued to it lies behind those before it, by as much as what covers what needs.
func (h *Heap) depths(study *fold.Study, leaf float64) []float64 {
	of := make([]float64, len(h.place))
	mine := make([][]*sheetLayer, len(h.place))
	for i := range h.layers {
		l := &h.layers[i]
		mine[l.panel] = append(mine[l.panel], l)
	}
	first := 0.0
	for k, panel := range study.Order {
		level := math.Inf(-1)
		for _, other := range study.Order[:k] {
			for _, a := range mine[other] {
				for _, b := range mine[panel] {
					if a.covers(b) {
						_, lower := h.within(a, leaf)
						upper, _ := h.within(b, leaf)
						level = max(level, of[other]+lower-upper)
					}
				}
			}
		}
		if math.IsInf(level, -1) {
			level = 0
		}
		of[panel] = level
		for _, b := range mine[panel] {
			upper, _ := h.within(b, leaf)
			first = min(first, level+upper)
		}
	}
	for i := range of {
		of[i] -= first
	}
	return of
}

// covers reports whether two layers lie over each other in more than a cell or two.
func (l *sheetLayer) covers(o *sheetLayer) bool {
	cells := 0
	for i, j := 0, 0; i < len(l.rows) && j < len(o.rows); {
		a, b := l.rows[i], o.rows[j]
		if a.row == b.row {
			cells += max(0, min(a.end, b.end)-max(a.first, b.first))
		}
		if cells > 2 {
			return true
		}
		if a.row < b.row || a.row == b.row && a.end < b.end {
			i++
		} else {
			j++
		}
	}
	return false
}

// cutFolds are the folds that a line crosses, where they are closed.
func (h *Heap) cutFolds(study *fold.Study, from, to geom.Point, depth []float64, leaf float64) []CutFold {
	out := []CutFold{}
	way := to.Sub(from)
	long := way.Len()
	way = way.Mul(1 / long)
	last := study.Poses[len(study.Poses)-1]
	for j, e := range study.Hinges {
		if e.A == e.B || math.Abs(math.Abs(last.Angles[j])-math.Pi) > .02 || h.place[e.A] < 0 || h.place[e.B] < 0 {
			continue
		}
		var b geom.Builder
		line := study.Closed(e.A, b.Move(e.From).Line(e.To).Path()).Curves()[0][0]
		p, q := line.From, line.End()
		v := q.Sub(p)
		det := way.Cross(v)
		if math.Abs(det) < 1e-9*v.Len() {
			continue
		}
		at, t := p.Sub(from).Cross(v)/det, p.Sub(from).Cross(way)/det
		if at < -1 || at > long+1 || t < 0 || t > 1 {
			continue
		}
		upper, lower := min(depth[e.A], depth[e.B]), max(depth[e.A], depth[e.B])+leaf
		middle := study.Closed(e.A, study.Panels[e.A].Ring).Bounds().Centre()
		out = append(out, CutFold{At: at, Upper: upper, Lower: lower, Ahead: middle.Sub(from).Dot(way) < at})
	}
	return out
}

// thickest finds where what is cut is thickest.
func (c *Cut) thickest() {
	var ends []float64
	for _, s := range c.Strips {
		ends = append(ends, s.From, s.To)
	}
	slices.Sort(ends)
	for i := 1; i < len(ends); i++ {
		at := (ends[i-1] + ends[i]) / 2
		sum := 0.0
		for _, s := range c.Strips {
			if s.From < at && at < s.To {
				sum += s.Lower - s.Upper
			}
		}
		if sum > c.Thickest+1e-9 {
			c.Thickest, c.At = sum, at
		}
	}
}

// along are the stretches of a line that lie in a region, as places along the line.
func along(from, to geom.Point, region geom.Path) (out [][2]float64) {
	var b geom.Builder
	in, _ := geom.CutStrokes(b.Move(from).Line(to).Path(), geom.NonZero, region)
	for _, cs := range in.Curves() {
		if len(cs) == 0 {
			continue
		}
		a, e := cs[0].From.Sub(from).Len(), cs[len(cs)-1].End().Sub(from).Len()
		if a > e {
			a, e = e, a
		}
		if e-a > .01 {
			out = append(out, [2]float64{a, e})
		}
	}
	return out
}

// leafName is what a panel is called: the names of its faces.
func leafName(study *fold.Study, panel int) string {
	outside, inside := study.FacesOn(panel)
	a, b := study.Net.Face(outside).Name, study.Net.Face(inside).Name
	switch {
	case a != "" && b != "":
		return a + " / " + b
	case a != "":
		return a
	}
	return b
}

package dxf

import (
	"math"

	"sectilis/core/ground/geom"
)

// hatch is the outline of a filled area, by the even-odd rule: its boundary paths follow
// each other in the entity's pairs, each a polyline or a list of edges. ok is false where
// nothing of them can be read.
func hatch(e entity) (p geom.Path, ok bool) {
	h := pairReader{pairs: e.pairs}
	if !h.seek(91) {
		return p, false
	}
	var rings []geom.Path
	for range min(h.whole(), maxBoundaries) {
		if !h.seek(92) {
			break
		}
		var ring geom.Path
		if h.whole()&2 != 0 {
			ring, ok = h.polyline()
		} else {
			ring, ok = h.edges()
		}
		if ok && ring.Len() > 2 {
			rings = append(rings, ring)
		}
	}
	return geom.Join(rings...), len(rings) > 0
}

// maxBoundaries bounds the boundary paths of one hatch.
const maxBoundaries = 10_000

// pairReader goes through pairs in their order.
type pairReader struct {
	pairs []pair
	at    int
}

// seek goes to the next pair with a code, where it stays to be read.
func (h *pairReader) seek(code int) bool {
	for i := h.at; i < len(h.pairs); i++ {
		if h.pairs[i].code == code {
			h.at = i
			return true
		}
	}
	return false
}

// number takes the pair that is next, which may not be of the code: then it is def and
// nothing is taken.
func (h *pairReader) number(code int, def float64) float64 {
	if h.at >= len(h.pairs) || h.pairs[h.at].code != code {
		return def
	}
	h.at++
	return parseNumber(h.pairs[h.at-1].value, def)
}

// whole takes the number that is next, whatever its code.
func (h *pairReader) whole() int {
	if h.at >= len(h.pairs) {
		return 0
	}
	h.at++
	return int(min(max(parseNumber(h.pairs[h.at-1].value, 0), 0), 1e6))
}

func (h *pairReader) point(code int) geom.Point {
	x := h.number(code, 0)
	y := h.number(code+10, 0)
	h.number(code+20, 0)
	return geom.Pt(x, y)
}

func (h *pairReader) polyline() (geom.Path, bool) {
	h.number(72, 0) // whether bulges follow: they tell themselves
	h.number(73, 1) // boundaries are closed
	if !h.seek(93) {
		return geom.Path{}, false
	}
	var pts []geom.Point
	var bulges []float64
	for range h.whole() {
		if h.at >= len(h.pairs) || h.pairs[h.at].code != 10 {
			break
		}
		pts = append(pts, h.point(10))
		bulges = append(bulges, h.number(42, 0))
	}
	return polyline(pts, bulges, true)
}

func (h *pairReader) edges() (geom.Path, bool) {
	if !h.seek(93) {
		return geom.Path{}, false
	}
	var all []geom.Curve
	for range h.whole() {
		if h.at >= len(h.pairs) || h.pairs[h.at].code != 72 {
			break
		}
		edge, ok := h.edge(h.whole())
		if !ok {
			return geom.Path{}, false
		}
		all = append(all, edge...)
	}
	if len(all) == 0 {
		return geom.Path{}, false
	}
	// Edges follow each other; small gaps between them are closed by straight lines.
	var b geom.Builder
	b.Move(all[0].From)
	at := all[0].From
	for _, c := range all {
		if c.From.Sub(at).Len() > 1e-9 {
			b.Line(c.From)
		}
		b.Add(c)
		at = c.End()
	}
	return b.Close().Path(), true
}

// arc is an edge that is an arc of a circle or of an ellipse.
func (h *pairReader) arc(ellipse bool) (geom.Path, bool) {
	c := h.point(10)
	u := geom.Pt(1, 0)
	ratio := 1.0
	if ellipse {
		u = h.point(11)
		ratio = h.number(40, 1)
	} else {
		u = u.Mul(h.number(40, 0))
	}
	a0, a1 := h.number(50, 0)*math.Pi/180, h.number(51, 360)*math.Pi/180
	if u.Len() == 0 || ratio <= 0 || math.Abs(a0) > 1e4 || math.Abs(a1) > 1e4 {
		return geom.Path{}, false
	}
	// Those that run clockwise have the angles of their mirror image.
	sense := 1.0
	if h.number(73, 1) == 0 {
		sense = -1
	}
	for a1 <= a0 {
		a1 += 2 * math.Pi
	}
	a1 = min(a1, a0+2*math.Pi)
	s, co := math.Sincos(sense * a0)
	v := geom.Pt(-u.Y, u.X).Mul(ratio)
	var b geom.Builder
	return b.Move(geom.Pt(co, s)).Arc(geom.Pt(0, 0), 1, 1, sense*a0, sense*a1).Path().
		Transform(geom.Affine{A: u.X, B: u.Y, C: v.X, D: v.Y, E: c.X, F: c.Y}), true
}

// spline is an edge that is a spline.
func (h *pairReader) spline() (geom.Path, bool) {
	first := h.at
	if !h.seek(96) {
		return geom.Path{}, false
	}
	n := h.whole()
	knots, points := 0, 0
	for h.at < len(h.pairs) && (h.pairs[h.at].code == 40 && points == 0 || h.pairs[h.at].code == 10 && points < n || points > 0 && (h.pairs[h.at].code == 20 || h.pairs[h.at].code == 42)) {
		switch h.pairs[h.at].code {
		case 40:
			knots++
		case 10:
			points++
		}
		h.at++
	}
	// A spline of its own has the same values under other codes.
	as := entity{kind: "SPLINE"}
	for _, q := range h.pairs[first:h.at] {
		switch q.code {
		case 94:
			q.code = 71
		case 42:
			q.code = 41
		case 73, 74, 95, 96:
			continue
		}
		as.pairs = append(as.pairs, q)
	}
	return spline(as)
}

// edge is one edge of a boundary, of a kind: a line, an arc, a part of an ellipse, a spline.
func (h *pairReader) edge(kind int) ([]geom.Curve, bool) {
	var p geom.Path
	ok := true
	switch kind {
	case 1:
		from := h.point(10)
		var b geom.Builder
		p = b.Move(from).Line(h.point(11)).Path()
	case 2, 3:
		p, ok = h.arc(kind == 3)
	case 4:
		p, ok = h.spline()
	default:
		ok = false
	}
	if cs := p.Curves(); ok && len(cs) > 0 {
		return cs[0], true
	}
	return nil, false
}

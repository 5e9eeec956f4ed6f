package scene

import (
	"math"

	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// onPlane is how far from a plane, mm, counts as on it: panels pull apart a little at their folds.
const onPlane = .05

// placed is where a panel is in space: where the sheet's origin and its two unit vectors come to lie for the
// eye, and polygons on the sheet that hold all of the panel and what is glued to it.
type placed struct {
	at, x, y fold.V3
	reach    [][]geom.Point
}

// half is a half plane of the sheet: where a·x + b·y + c is not negative.
type half struct{ a, b, c float64 }

func (h half) of(p geom.Point) float64 { return h.a*p.X + h.b*p.Y + h.c }

// cut is the part of a convex polygon, or the parts of any, that lie in the half plane. (Sutherland and
// Hodgman, "Reentrant polygon clipping", 1974.)
func (h half) cut(ring []geom.Point) (out []geom.Point) {
	for i, p := range ring {
		q := ring[(i+1)%len(ring)]
		a, b := h.of(p), h.of(q)
		if a >= 0 {
			out = append(out, p)
		}
		if (a < 0) != (b < 0) {
			out = append(out, p.Lerp(q, a/(a-b)))
		}
	}
	return out
}

// part is a panel, or what of it lies in some half planes of the sheet.
type part struct {
	of     *standingPanel
	within []half
	reach  [][]geom.Point
}

// clip is the part of the eye's plane that the part is in, as far as a box reaches.
func (p part) clip(box geom.Rect) geom.Path {
	back, _ := p.of.at.Inverse() // panels seen edge on are left out
	ring := corners(geom.RectPath(box.Grow(1)).Transform(back))[0]
	for _, h := range p.within {
		ring = h.cut(ring)
	}
	return geom.PolygonPath(ring...).Transform(p.of.at)
}

// corners are the rings of a path as polygons.
func corners(p geom.Path) (out [][]geom.Point) {
	for _, l := range p.Flatten(.1) {
		out = append(out, l.Points)
	}
	return out
}

// inOrder is the order in which panels are drawn over each other, the farthest from the eye first; panels of
// one plane are drawn together. The plane of a panel parts the others into those in front of it and those
// behind, in turn (Fuchs, Kedem and Naylor, "On visible surface generation by a priori tree structures",
// 1980); a panel that reaches through it is drawn in two parts.
func inOrder(panels []*standingPanel) [][]part {
	parts := make([]part, len(panels))
	for i, p := range panels {
		parts[i] = part{of: p, reach: p.place.reach}
	}
	var out [][]part
	order(parts, &out)
	return out
}

// order puts parts behind and before the plane of one of them.
func order(parts []part, out *[][]part) {
	if len(parts) == 0 {
		return
	}
	root := parts[len(parts)/2].of.place
	n := root.x.Cross(root.y)
	n = n.Mul(math.Copysign(1/n.Len(), n.Z)) // toward the eye
	var behind, on, front []part
	for _, p := range parts {
		// How far a place of the sheet is in front of the plane.
		q := p.of.place
		far := half{n.Dot(q.x), n.Dot(q.y), n.Dot(q.at.Sub(root.at))}
		least, most := math.Inf(1), math.Inf(-1)
		for _, ring := range p.reach {
			for _, c := range ring {
				d := far.of(c)
				least, most = min(least, d), max(most, d)
			}
		}
		switch {
		case least >= -onPlane && most <= onPlane:
			on = append(on, p)
		case least >= -onPlane:
			front = append(front, p)
		case most <= onPlane:
			behind = append(behind, p)
		default:
			front = append(front, p.cut(far))
			behind = append(behind, p.cut(half{-far.a, -far.b, -far.c}))
		}
	}
	if len(on) == 0 { // every polygon lies on its own plane, but for what is not a number
		on, front, behind = parts, nil, nil
	}
	order(behind, out)
	*out = append(*out, on)
	order(front, out)
}

// seam is by how much the two parts of a panel lie over each other, mm, so that no hairline is left.
const seam = .15

// cut is what of a part lies in a half plane.
func (p part) cut(h half) part {
	wider := h
	wider.c += seam * math.Hypot(h.a, h.b)
	out := part{of: p.of, within: append(append([]half(nil), p.within...), wider)}
	for _, ring := range p.reach {
		if ring = h.cut(ring); len(ring) > 0 {
			out.reach = append(out.reach, ring)
		}
	}
	return out
}

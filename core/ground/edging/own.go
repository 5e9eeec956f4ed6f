package edging

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"sync/atomic"

	"sectilis/core/ground/geom"
)

// Own is a motif that a person has made of an outline.
type Own struct {
	ID      string    `json:"id"`
	Name    string    `json:"name"`
	Outline geom.Path `json:"outline"`
	// Hidden says that it is not offered any more.
	Hidden bool `json:"hidden,omitempty"`
}

// apart is how much higher one end of a profile may be than the other, and how far from its ends a
// profile may begin, in shares of its height and length: what is less is evened.
const apart = .02

// OfOutline is a motif that is the upper edge of an outline, from where that is farthest left to where it
// is farthest right, with the holes of the outline. The error is a sentence that says why the outline
// is none, as when its ends do not join.
func OfOutline(id, name string, of geom.Path) (Motif, error) {
	box := of.Bounds()
	if of.Empty() || box.W <= 0 || box.H <= 0 {
		return Motif{}, fmt.Errorf("it has no area")
	}
	var outer, inner []geom.Path
	for _, r := range of.Rings() {
		if r.Area() > 0 {
			outer = append(outer, r)
		} else {
			inner = append(inner, r.Reverse())
		}
	}
	if len(outer) != 1 {
		return Motif{}, fmt.Errorf("it has %d parts; a motif is one", len(outer))
	}
	// As a profile: a length of 1, its depth from 0 at the foot to 1.
	unit := geom.Shift(-box.X, -box.Bottom()).Then(geom.Scale(1/box.W, -1/box.H))
	curves, left, right := upperEdge(outer[0].Transform(unit))
	if len(curves) == 0 {
		return Motif{}, fmt.Errorf("it has no edge from left to right")
	}
	if d := left.Y - right.Y; math.Abs(d) > apart {
		high, low := "left", "right"
		if d < 0 {
			high, low = low, high
		}
		return Motif{}, fmt.Errorf("repeats would not join: its %s end lies %.0f %% of its height above its %s end", high, 100*math.Abs(d), low)
	}
	foot := (left.Y + right.Y) / 2
	m := Motif{ID: id, Name: name, Ratio: box.W / box.H, Own: true, foot: foot, draw: func(b *geom.Builder, _ *rand.Rand) {
		for i, c := range curves {
			if i == 0 && c.At(0).Sub(pt(0, foot)).Len() > 1e-9 {
				b.Line(c.At(0))
			}
			b.Add(c)
		}
		b.Line(pt(1, foot))
	}}
	if len(inner) > 0 {
		holes := make([]geom.Path, len(inner))
		for i, h := range inner {
			if holes[i] = h.Transform(unit); holes[i].Area() < 0 {
				holes[i] = holes[i].Reverse()
			}
		}
		m.holes = func() []geom.Path { return holes }
	}
	m.Preview = preview(m)
	return m, nil
}

// upperEdge is the part of a ring that runs over its top, from its highest place farthest left to its
// highest place farthest right, y upward, and both places.
func upperEdge(ring geom.Path) (edge []geom.Curve, left, right geom.Point) {
	all := ring.Curves()
	if len(all) == 0 {
		return nil, left, right
	}
	curves := all[0]
	if ring.Area() > 0 { // seen with y upward it runs the other way round
		curves = geom.ReverseCurves(curves)
	}
	// Curves are parted where they are farthest left and right.
	var parts []geom.Curve
	for _, c := range curves {
		parts = append(parts, atSides(c)...)
	}
	from, to := -1, -1
	left, right = pt(math.Inf(1), math.Inf(-1)), pt(math.Inf(-1), math.Inf(-1))
	for i, c := range parts {
		p := c.At(0)
		if p.X < left.X-1e-6 || p.X < left.X+1e-6 && p.Y > left.Y {
			left, from = p, i
		}
		if p.X > right.X+1e-6 || p.X > right.X-1e-6 && p.Y > right.Y {
			right, to = p, i
		}
	}
	if from < 0 || to < 0 || from == to {
		return nil, left, right
	}
	for i := from; i != to; i = (i + 1) % len(parts) {
		edge = append(edge, parts[i])
	}
	return edge, left, right
}

// atSides parts a curve where it turns back from left to right.
func atSides(c geom.Curve) []geom.Curve {
	const steps = 24
	var out []geom.Curve
	rest, start := c, 0.0
	for i := range steps {
		a, b := float64(i)/steps, float64(i+1)/steps
		da := c.Derivative(a).X
		if da*c.Derivative(b).X >= 0 {
			continue
		}
		for range 50 {
			if m := (a + b) / 2; c.Derivative(m).X*da > 0 {
				a = m
			} else {
				b = m
			}
		}
		if t := (a + b) / 2; t-start > 1e-6 && t < 1-1e-6 {
			var first geom.Curve
			first, rest = rest.Split((t - start) / (1 - start))
			out, start = append(out, first), t
		}
	}
	return append(out, rest)
}

// own are the motifs that people have made, which the whole program knows.
var own atomic.Pointer[[]Motif]

// Know makes a person's own motifs known in place of those before. Outlines that are no motifs are left
// out.
func Know(list []Own) {
	var known []Motif
	for _, o := range list {
		if m, err := OfOutline(o.ID, o.Name, o.Outline); err == nil {
			m.Hidden = o.Hidden
			known = append(known, m)
		}
	}
	own.Store(&known)
}

func owned() []Motif {
	if p := own.Load(); p != nil {
		return *p
	}
	return nil
}

// Known lists all motifs, those that are not offered any more too: a person's own first.
func Known() []Motif { return append(slices.Clone(owned()), motifs...) }

// All lists the motifs in the order they are offered. Those that are hidden are left out.
func All() []Motif {
	return slices.DeleteFunc(Known(), func(m Motif) bool { return m.Hidden })
}

// ByID returns the motif, one that is not offered any more too; ok is false for an unknown id.
func ByID(id string) (m Motif, ok bool) {
	for _, list := range [][]Motif{owned(), motifs} {
		if i := slices.IndexFunc(list, func(m Motif) bool { return m.ID == id }); i >= 0 {
			return list[i], true
		}
	}
	return Motif{}, false
}

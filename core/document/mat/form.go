package mat

import (
	"math"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/shape"
)

// swept is what an outline goes over while it is moved down by d, mm.
func swept(of geom.Path, d float64) geom.Path {
	down := geom.Shift(0, d)
	parts := []geom.Path{of, of.Transform(down)}
	for _, ring := range of.Curves() {
		for _, c := range ring {
			for _, piece := range upright(c) {
				var b geom.Builder
				from, to := piece.At(0), piece.At(1)
				b.Move(from).Add(piece)
				b.Line(to.Add(geom.Pt(0, d)))
				for _, back := range geom.ReverseCurves([]geom.Curve{piece}) {
					for _, moved := range geom.FromCurves([]geom.Curve{back}, false).Transform(down).Curves() {
						for _, m := range moved {
							b.Add(m)
						}
					}
				}
				over := b.Close().Path()
				if over.Area() < 0 {
					over = over.Reverse()
				}
				parts = append(parts, over)
			}
		}
	}
	return geom.Union(geom.NonZero, parts...)
}

// upright parts a curve where it turns back in x, so that no two of its places lie above each other.
func upright(c geom.Curve) []geom.Curve {
	const steps = 32
	var out []geom.Curve
	start := 0.0
	cut := func(t float64) {
		if rest := (t - start) / (1 - start); rest > 1e-6 && rest < 1-1e-6 {
			var a geom.Curve
			a, c = c.Split(rest)
			out, start = append(out, a), t
		}
	}
	whole := c
	for i := range steps {
		a, b := float64(i)/steps, float64(i+1)/steps
		da, db := whole.Derivative(a).X, whole.Derivative(b).X
		if da*db >= 0 {
			continue
		}
		for range 50 {
			if m := (a + b) / 2; whole.Derivative(m).X*da > 0 {
				a = m
			} else {
				b = m
			}
		}
		cut((a + b) / 2)
	}
	return append(out, c)
}

// holding is the smallest outline of the form of a border, about the middle of an outline, that shows
// by its width all round the hull of that.
func holding(of geom.Path, m card.Border) geom.Path {
	m.Of, m.DX, m.DY, m.Hollow = "", 0, 0, 0
	out, _ := offsets.Of(offsetKey{of.Digest(), m}, func() (geom.Path, error) {
		ready, ok := shape.ByID(m.Form)
		if !ok {
			return of, nil // which check refuses
		}
		held := hullOf(geom.Offset(of, m.Width, geom.RoundCorner))
		box := of.Bounds()
		w, h := box.W+2*m.Width, box.H+2*m.Width+m.Below
		if ready.Width == ready.Height { // a circle stays one
			w = max(w, h)
			h = w
		}
		mid := box.Centre().Add(geom.Pt(0, m.Below/2))
		sized := func(k float64) geom.Path {
			return card.OutlineOf(card.Form{Outline: card.Outline(ready.Outline), Width: w * k, Height: h * k, Corner: ready.Corner, Radius: ready.Radius}).Transform(geom.Shift(mid.X, mid.Y))
		}
		lo, hi := .2, 1.0
		for hi < 16 && !held.within(sized(hi)) {
			lo, hi = hi, hi*1.5
		}
		for hi-lo > .002/math.Max(w, h) {
			if k := (lo + hi) / 2; held.within(sized(k)) {
				hi = k
			} else {
				lo = k
			}
		}
		return sized(hi), nil
	})
	return out
}

// hull is a convex ring, and places along it no two of which are farther apart than half a millimetre.
type hull struct {
	ring geom.Path
	pts  []geom.Point
}

func hullOf(p geom.Path) hull {
	var pts []geom.Point
	for _, l := range p.Flatten(.01) {
		pts = append(pts, l.Points...)
	}
	pts = geom.Hull(pts)
	var b geom.Builder
	b.Move(pts[0])
	for _, q := range pts[1:] {
		b.Line(q)
	}
	return hull{b.Close().Path(), around(pts)}
}

// within reports whether an outline holds all of the hull, and no notch of it reaches in.
func (h hull) within(p geom.Path) bool {
	for _, q := range h.pts {
		if !p.Covers(q, geom.NonZero) {
			return false
		}
	}
	for _, l := range p.Rings()[0].Flatten(.02) {
		for _, q := range l.Points {
			if h.ring.Covers(q, geom.NonZero) {
				return false
			}
		}
	}
	return true
}

// around are places along a ring of points, no two farther apart than half a millimetre.
func around(ring []geom.Point) (out []geom.Point) {
	for i, p := range ring {
		d := ring[(i+1)%len(ring)].Sub(p)
		n := max(1, int(math.Ceil(d.Len()/.5)))
		for k := range n {
			out = append(out, p.Add(d.Mul(float64(k)/float64(n))))
		}
	}
	return out
}

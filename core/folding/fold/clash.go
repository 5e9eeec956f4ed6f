package fold

import (
	"math"

	"sectilis/core/ground/geom"
)

// Clash is two panels that pass through one another on the way. Closing is a share of the way
// from flat to closed.
type Clash struct {
	A, B    int
	Closing float64
	At      geom.Point // on the sheet, where panel A is pierced
}

// Touching is no clash: an edge pierces a panel when its ends lie this far on
// either side, and as far inside the panel's own edge, mm.
const pierce = .15

// solid is a panel as straight sides, for looking at clashes: its ring, and the
// same ring a little smaller, since panels of one height meet edge to edge.
type solid struct {
	lines []geom.Polyline // of the ring and its holes
	box   geom.Rect
	flat  []V3
	inner []V3
}

func newSolid(ring geom.Path, holes []geom.Path) solid {
	s := solid{lines: geom.Join(append([]geom.Path{ring}, holes...)...).Flatten(chordTolerance), box: ring.Bounds()}
	for _, l := range ring.Flatten(chordTolerance) {
		for _, q := range l.Points {
			s.flat = append(s.flat, Flat(q))
		}
	}
	var centre V3
	for _, q := range s.flat {
		centre = centre.Add(q.Mul(1 / float64(len(s.flat))))
	}
	for _, q := range s.flat {
		s.inner = append(s.inner, centre.Add(q.Sub(centre).Mul(.93)))
	}
	return s
}

// Clash looks for the first two panels that pass through one another, at a share of the
// poses and at the last ones before the card is closed; nil when none do.
func (f *Folder) Clash(poses []Pose) *Clash {
	solids := make([]solid, len(f.Panels))
	for i, p := range f.Panels {
		solids[i] = newSolid(p.Ring, p.Holes)
	}
	const looks, late = 20, 3
	step := max(1, len(poses)/looks)
	boxes := make([]box3, len(solids))
	for k := 1; k < len(poses)-1; k++ {
		if k%step != 0 && k < len(poses)-1-late {
			continue
		}
		p := poses[k]
		for i := range solids {
			boxes[i] = boxOf(solids[i].flat, p.Panels[i])
		}
		for a := range solids {
			for b := range solids {
				if a == b || !boxes[a].meets(boxes[b]) {
					continue
				}
				if at, ok := pierced(&solids[a], p.Panels[a], &solids[b], p.Panels[b]); ok {
					return &Clash{a, b, p.Closing, at}
				}
			}
		}
	}
	return nil
}

// box3 is an upright box in space.
type box3 struct{ lo, hi V3 }

func boxOf(points []V3, m Motion) box3 {
	b := box3{V3{math.Inf(1), math.Inf(1), math.Inf(1)}, V3{math.Inf(-1), math.Inf(-1), math.Inf(-1)}}
	for _, p := range points {
		q := m.Apply(p)
		b.lo = V3{min(b.lo.X, q.X), min(b.lo.Y, q.Y), min(b.lo.Z, q.Z)}
		b.hi = V3{max(b.hi.X, q.X), max(b.hi.Y, q.Y), max(b.hi.Z, q.Z)}
	}
	return b
}

func (b box3) meets(o box3) bool {
	return b.lo.X <= o.hi.X && o.lo.X <= b.hi.X && b.lo.Y <= o.hi.Y && o.lo.Y <= b.hi.Y && b.lo.Z <= o.hi.Z && o.lo.Z <= b.hi.Z
}

// away is how far a place is from the nearest side of closed lines.
func away(lines []geom.Polyline, p geom.Point) float64 {
	least := math.Inf(1)
	for _, l := range lines {
		for i, a := range l.Points {
			v := l.Points[(i+1)%len(l.Points)].Sub(a)
			k := 0.0
			if d := v.Dot(v); d > 0 {
				k = min(max(p.Sub(a).Dot(v)/d, 0), 1)
			}
			least = min(least, p.Sub(a.Add(v.Mul(k))).Len())
		}
	}
	return least
}

// pierced reports whether a side of b runs through a, and where on a's sheet.
func pierced(a *solid, ma Motion, b *solid, mb Motion) (geom.Point, bool) {
	// Into a's own plane, where it is z that counts.
	to := ma.inverse().after(mb)
	for _, ring := range [][]V3{b.flat, b.inner} {
		last := to.Apply(ring[len(ring)-1])
		for _, q := range ring {
			now := to.Apply(q)
			if last.Z*now.Z < 0 && min(math.Abs(last.Z), math.Abs(now.Z)) > pierce {
				at := last.Add(now.Sub(last).Mul(last.Z / (last.Z - now.Z)))
				p := geom.Pt(at.X, at.Y)
				if a.box.Has(p) && geom.Winding(a.lines, p) != 0 && away(a.lines, p) > pierce {
					return p, true
				}
			}
			last = now
		}
	}
	return geom.Point{}, false
}

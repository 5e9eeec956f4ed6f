package fold

import (
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// Meets looks whether a piece, glued to a panel, runs into another panel on
// the way: that part of it which reaches over the panel's edge. The outline is
// on the sheet. nil when it does not; the clash's A is the other panel.
func (s *Study) Meets(panel int, piece geom.Path) *Clash {
	own := s.Panels[panel]
	over := geom.Difference(geom.NonZero, piece, geom.Join(append([]geom.Path{own.Ring}, own.Holes...)...))
	var parts []solid
	for _, ring := range over.Rings() {
		if ring.Area() > 1 {
			parts = append(parts, newSolid(ring, nil))
		}
	}
	if len(parts) == 0 {
		return nil
	}
	others := make([]solid, len(s.Panels))
	for b, q := range s.Panels {
		others[b] = newSolid(q.Ring, q.Holes)
	}
	const looks = 30
	step := max(1, len(s.Poses)/looks)
	for k := step; k < len(s.Poses)-1; k += step {
		p := s.Poses[k]
		for i := range parts {
			for b := range s.Panels {
				if b == panel {
					continue
				}
				other := &others[b]
				if at, ok := pierced(&parts[i], p.Panels[panel], other, p.Panels[b]); ok {
					return &Clash{b, panel, p.Closing, at}
				}
				if _, ok := pierced(other, p.Panels[b], &parts[i], p.Panels[panel]); ok {
					return &Clash{b, panel, p.Closing, parts[i].box.Centre()}
				}
			}
		}
	}
	return nil
}

// popsUp reports whether something stands up when the card is opened: a fold
// that no hand turns.
func (s *Study) popsUp() bool {
	for _, m := range s.main {
		if !m {
			return true
		}
	}
	return false
}

// Seen is how much, 0 to 1, of what lies on a panel is in sight when the card
// is open: a pop-up at a right angle and looked at from the front, a pocket as
// it is used, all others flat. The outline is on the sheet.
func (s *Study) Seen(panel int, side Side, outline geom.Path) float64 {
	pose, up := s.Poses[0], V3{Z: 1}
	if side == Inside {
		up = V3{Z: -1}
	}
	var eye V3
	switch {
	case s.kind == card.Pocket:
		pose = s.Poses[len(s.Poses)-1]
		eye = pose.Panels[panel].turn(up)
	case side == Inside && s.popsUp():
		// The leaf behind stands up from the far edge of the one that lies: the
		// eye is in front of that and somewhat above.
		pose = s.Poses[len(s.Poses)/2]
		sin, cos := math.Sincos(25 * math.Pi / 180)
		eye = V3{Y: -cos, Z: -sin}
	default:
		return 1
	}
	at := pose.Panels[panel]
	if at.turn(up).Dot(eye) <= 1e-9 {
		return 0
	}
	box := outline.Bounds()
	const n = 9
	all, seen := 0, 0
	for i := range n {
		for j := range n {
			q := geom.Pt(box.X+box.W*(float64(i)+.5)/n, box.Y+box.H*(float64(j)+.5)/n)
			if !outline.Covers(q, geom.NonZero) {
				continue
			}
			all++
			if !s.covered(panel, pose, at.Apply(Flat(q)), eye) {
				seen++
			}
		}
	}
	if all == 0 {
		return 1
	}
	return float64(seen) / float64(all)
}

// covered reports whether a panel other than one's own lies between a place and
// the eye.
func (s *Study) covered(own int, pose Pose, from, eye V3) bool {
	for b := range s.Panels {
		if b == own {
			continue
		}
		back := pose.Panels[b].inverse()
		o, d := back.Apply(from), back.turn(eye)
		if math.Abs(d.Z) < 1e-9 {
			continue
		}
		// Leaves that lie on each other are in one plane here, and their order
		// tells; a place on its own panel is in front of no other.
		t := -o.Z / d.Z
		if t < -1e-6 || t < .05 && !s.liesOver(b, own, eye) {
			continue
		}
		hit := o.Add(d.Mul(t))
		q := s.Panels[b]
		if geom.Join(append([]geom.Path{q.Ring}, q.Holes...)...).Winding(geom.Pt(hit.X, hit.Y)) != 0 {
			return true
		}
	}
	return false
}

// liesOver reports whether, closed, panel a is nearer than b to the eye.
func (s *Study) liesOver(a, b int, eye V3) bool {
	// The order runs from Front's eye backward.
	nearer := slices.Index(s.Order, a) < slices.Index(s.Order, b)
	return s.kind == card.Pocket && nearer == (s.front.turn(eye).Z > 0)
}

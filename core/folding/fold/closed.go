package fold

import (
	"fmt"
	"math"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
)

// crosses are two panels of the closed card that would lie in one place, and a fold that a
// panel between its leaves would run through (Justin's conditions for layers that cross;
// Akitaya, Demaine and Ku, "Simple folding is really hard", 2017, gives them in one place).
func (s *Study) crosses() (why []string) {
	place := make([]int, len(s.Panels)) // in the order of layers
	for i, p := range s.Order {
		place[p] = i
	}
	at := func(p geom.Point) string {
		return measure.FormatUnit(p.X, measure.MM) + " from the left and " + measure.FormatUnit(p.Y, measure.MM) + " from the top of the sheet, seen from outside"
	}
	for _, same := range s.level {
		a, b := s.Panels[same[0]].Middle, s.Panels[same[1]].Middle
		why = append(why, fmt.Sprintf("Closed, the panels at %s and at %s would lie in one place: they meet before it is closed. Make one smaller, or fold one after the other.", at(a), at(b)))
		return why
	}
	if len(s.Order) < len(s.Panels) {
		return why
	}
	last := s.Poses[len(s.Poses)-1]
	for j, h := range s.Hinges {
		// A fold that ends within its panel parts nothing.
		if h.A == h.B || math.Abs(math.Abs(last.Angles[j])-math.Pi) > .02 {
			continue
		}
		lo, hi := min(place[h.A], place[h.B]), max(place[h.A], place[h.B])
		for _, c := range s.Order[lo+1 : hi] {
			for k := 1; k < 8; k++ {
				on := s.closedMap(h.A).Apply(h.From.Lerp(h.To, float64(k)/8))
				if !s.rings[c].Bounds().Has(on) || s.rings[c].Winding(on) == 0 {
					continue
				}
				if n, ok := s.rings[c].Nearest(on); ok && n.Distance > pierce {
					return append(why, fmt.Sprintf("Closed, the panel at %s would run through the fold at %s, by %s. Make it that much smaller, or fold it another way.",
						at(s.Panels[c].Middle), at(h.From.Lerp(h.To, float64(k)/8)), measure.FormatUnit(n.Distance, measure.MM)))
				}
			}
		}
	}
	return why
}

// passes are panels that come to lie on one another at the end of one stage and leave to
// the other side in a later one: one would have to pass through the other.
func (s *Study) passes() []string {
	n := len(s.Poses) - 1
	for stage := 1; stage < s.stages; stage++ {
		k := n * stage / s.stages
		p := s.Poses[k]
		flat := make([]geom.Path, len(s.Panels))
		for i, m := range p.Panels {
			if up := m.turn(V3{Z: 1}); math.Abs(math.Abs(up.Z)-1) < 1e-9 {
				flat[i] = s.Panels[i].Ring.Transform(geom.Affine{A: m.R[0].X, B: m.R[1].X, C: m.R[0].Y, D: m.R[1].Y, E: m.T.X, F: m.T.Y})
			}
		}
		for i := range flat {
			for j := range i {
				if !flat[i].Empty() && !flat[j].Empty() && flat[i].Bounds().Grow(-.01).Overlaps(flat[j].Bounds()) && s.changeSides(i, j, k, flat) {
					c := s.Panels[j].Middle
					return []string{fmt.Sprintf("The panel %.0f mm from the left and %.0f mm from the top of the sheet, seen from outside, would pass through another in stage %d of the folding.", c.X, c.Y, stage+1)}
				}
			}
		}
	}
	return nil
}

// changeSides reports whether two panels that lie flat on one another at pose k come from
// one side and leave to the other.
func (s *Study) changeSides(i, j, k int, flat []geom.Path) bool {
	common := geom.Intersection(geom.NonZero, flat[i], flat[j])
	if common.Area() < 1 {
		return false
	}
	at := inside(Panel{Ring: common.Rings()[0]})
	p := s.Poses[k]
	// Where the place is on each panel, and how far these are apart in height at other poses.
	on := func(panel int) V3 {
		return p.Panels[panel].inverse().Apply(V3{X: at.X, Y: at.Y, Z: p.Panels[panel].T.Z})
	}
	a, b := on(i), on(j)
	over := func(pose int) float64 {
		return s.Poses[pose].Panels[i].Apply(a).Z - s.Poses[pose].Panels[j].Apply(b).Z
	}
	if math.Abs(over(k)) > 1e-6 {
		return false
	}
	before, after := 0.0, 0.0
	for q := k - 1; q > 0 && math.Abs(before) < 1e-6; q-- {
		before = over(q)
	}
	for q := k + 1; q < len(s.Poses) && math.Abs(after) < 1e-6; q++ {
		after = over(q)
	}
	return before*after < -1e-12
}

// leaf is the panel that a face's leaf is made of: the one that has most of the sheet's
// edge there, or the largest.
func (s *Study) leaf(f Face) int {
	back, ok := f.OnSheet.Inverse()
	if !ok {
		return -1
	}
	on := geom.Rect{W: f.Width, H: f.Height}.Grow(.01)
	edge := s.Net.Outline()
	best, most, area := -1, -1.0, -1.0
	for i, p := range s.Panels {
		if !on.Has(back.Apply(p.Middle)) {
			continue
		}
		sum := 0.0
		for _, l := range p.Ring.Flatten(chordTolerance) {
			for k, a := range l.Points {
				b := l.Points[(k+1)%len(l.Points)]
				if n, ok := edge.Nearest(a.Lerp(b, .5)); ok && n.Distance < .01 {
					sum += b.Sub(a).Len()
				}
			}
		}
		if a := p.Ring.Area(); sum > most+.01 || sum > most-.01 && a > area {
			best, most, area = i, sum, a
		}
	}
	return best
}

// sticksOut says by how much, and at which edge as seen from Front, the closed card
// reaches over its leaves: pop-ups do that which are too high or too wide. Nothing is said
// of a card that is not meant to lie flat.
func (s *Study) sticksOut() (why []string) {
	var leaves []geom.Path
	for _, f := range s.Net.Faces {
		if f.Side != Outside {
			continue
		}
		if i := s.leaf(f); i >= 0 {
			leaves = append(leaves, s.Closed(i, s.Net.Shape(f).Transform(f.OnSheet)))
		}
	}
	if len(leaves) == 0 {
		return nil
	}
	whole := geom.Offset(geom.Union(geom.NonZero, leaves...), shows, geom.MitreCorner)
	over := geom.Difference(geom.NonZero, s.Cover, whole)
	if over.Area() < .02 {
		return nil
	}
	b, in := over.Bounds(), whole.Bounds().Grow(-shows)
	by, side := 0.0, "an edge"
	for _, e := range []struct {
		name string
		by   float64
	}{
		{"the left edge", in.X - b.X}, {"the right edge", b.Right() - in.Right()},
		{"the top", in.Y - b.Y}, {"the bottom", b.Bottom() - in.Bottom()},
	} {
		if e.by > by {
			by, side = e.by, e.name
		}
	}
	if by == 0 { // into a hollow of the outline
		for _, cs := range over.Curves() {
			for _, c := range cs {
				if n, ok := whole.Nearest(c.At(.5)); ok {
					by = max(by, n.Distance+shows)
				}
			}
		}
	}
	return []string{fmt.Sprintf("Closed, what stands up sticks out by %s at %s of the card. Make it lower or narrower, or move it in.",
		measure.FormatBoth(by), side)}
}

// shows is how far something may reach over the closed card before it is said, mm.
const shows = .2

// closed works out the outline of the closed card and how many leaves lie on each other.
func (s *Study) closed() {
	last := s.Poses[len(s.Poses)-1]
	f := s.Net.Face(card.Front)
	at := s.leaf(f)
	if at < 0 {
		at = s.root
	}
	s.front = last.Panels[at].inverse()
	s.rings = make([]geom.Path, len(s.Panels))
	for i := range s.Panels {
		s.rings[i] = s.Closed(i, s.Panels[i].Ring)
	}
	s.Cover = geom.Union(geom.NonZero, s.rings...)
	for _, p := range geom.Divide(geom.NonZero, s.rings...) {
		if p.Path.Area() > 1 {
			s.Layers = max(s.Layers, len(p.Cover))
		}
	}
}

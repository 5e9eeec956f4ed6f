package fold

import (
	"math"

	"sectilis/core/ground/geom"
)

// stacked finds how panels lie on each other when the card is closed, from the
// nearest to Front's eye: by which of two is nearer where they cover each other
// a moment before. woven names two panels of which each would have to lie
// above the other, -1 when the order holds.
func (s *Study) stacked() (order []int, woven [2]int) {
	above := s.above()
	n := len(above)
	// Again and again the panel that nothing is left above (Kahn, 1962).
	left := make([]bool, n)
	for i := range left {
		left[i] = true
	}
	for len(order) < n {
		next := -1
		for i := range n {
			free := left[i]
			for j := range n {
				free = free && !(left[j] && above[j][i])
			}
			if free {
				next = i
				break
			}
		}
		if next < 0 {
			return order, oneOver(above, left)
		}
		left[next] = false
		order = append(order, next)
	}
	return order, [2]int{-1, -1}
}

// oneOver are two of the panels that are left of which one has to lie above the other.
func oneOver(above [][]bool, left []bool) [2]int {
	for i := range above {
		for j := range above {
			if left[i] && left[j] && above[i][j] {
				return [2]int{i, j}
			}
		}
	}
	return [2]int{-1, -1}
}

// above says of every two panels that cover each other on the closed card which lies above.
// Those that lie level all the way are kept in s.level.
func (s *Study) above() [][]bool {
	n := len(s.Panels)
	above := make([][]bool, n)
	for i := range above {
		above[i] = make([]bool, n)
	}
	rings := s.rings
	boxes := make([]geom.Rect, n)
	for i := range rings {
		boxes[i] = rings[i].Bounds().Grow(-.01)
	}
	for i := range n {
		for j := range i {
			if !boxes[i].Overlaps(boxes[j]) {
				continue
			}
			common := geom.Intersection(geom.NonZero, rings[i], rings[j])
			if common.Area() < 1 {
				continue
			}
			at := inside(Panel{Ring: common.Rings()[0]})
			switch d := s.nearer(i, j, at); {
			case d > 0:
				above[i][j] = true
			case d < 0:
				above[j][i] = true
			default:
				s.level = append(s.level, [2]int{j, i})
			}
		}
	}
	return above
}

// nearer is by how much panel i is nearer to Front's eye than panel j at a place of the
// closed card, where they cover each other there: before they lie on each other, since
// paper has no thickness here. 0 where they lie level all the way.
func (s *Study) nearer(i, j int, at geom.Point) float64 {
	for k := len(s.Poses) - 2; k > 0; k-- {
		if d := s.depth(i, at, s.Poses[k]) - s.depth(j, at, s.Poses[k]); math.Abs(d) > 1e-6 {
			return d
		}
	}
	return 0
}

// depth is how near a panel is to Front's eye at a place of the closed card.
func (s *Study) depth(panel int, at geom.Point, p Pose) float64 {
	closed := s.closedMap(panel)
	back, ok := closed.Inverse()
	if !ok {
		return 0
	}
	q := s.front.Apply(p.Panels[panel].Apply(Flat(back.Apply(at))))
	// The face Front looks along the sheet's z, to the outside.
	return q.Z
}

// Layer is a panel of the closed card as its edge shows it: from where to where it reaches,
// across the main folds as seen from Front, and how many panels lie over it there. From and To
// are mm.
type Layer struct {
	Panel int     `json:"panel"`
	From  float64 `json:"from"` // mm
	To    float64 `json:"to"`
	Depth int     `json:"depth"`
}

// Edge is the closed card seen along its main folds, from Front backward.
func (s *Study) Edge() []Layer {
	out := make([]Layer, 0, len(s.Order))
	rings := s.rings
	for _, p := range s.Order {
		if s.stub(p) {
			continue
		}
		b := rings[p].Bounds()
		l := Layer{Panel: p, From: b.X, To: b.Right()}
		if !s.Net.upright() {
			l.From, l.To = b.Y, b.Bottom()
		}
		for _, over := range out {
			if over.Depth >= l.Depth && geom.Intersection(geom.NonZero, rings[over.Panel], rings[p]).Area() > 1 {
				l.Depth = over.Depth + 1
			}
		}
		out = append(out, l)
	}
	return out
}

// Piece is what of a path lies on one panel.
type Piece struct {
	Panel int       `json:"panel"`
	Path  geom.Path `json:"path"`
}

// Parted is a path on the sheet, cut up by the panels that it lies on.
func (d Division) Parted(p geom.Path) []Piece {
	var out []Piece
	for i, q := range d.Panels {
		part := geom.Intersection(geom.NonZero, p, geom.Join(append([]geom.Path{q.Ring}, q.Holes...)...))
		if part.Area() > .5 {
			out = append(out, Piece{i, part})
		}
	}
	return out
}

package fold

import (
	"encoding/json"
	"fmt"

	"sectilis/core/document/card"
	"sectilis/core/ground/cache"
	"sectilis/core/ground/geom"
)

// Study is all that is known of how a base folds.
type Study struct {
	*Folder
	Net     Net
	Poses   []Pose
	Verdict Verdict
	// Layers is how many leaves lie on each other where most do, closed.
	Layers int
	// Order is the panels of the closed card from Front's eye backward.
	Order []int
	// Cover is the closed card from Front, in the coordinates of that face.
	Cover geom.Path
	kind  card.BaseKind
	rings []geom.Path // of the panels, closed
	level [][2]int    // panels that would lie in one place, closed
	// inTheWay says what leaves do to one another, which another order of folds may mend.
	inTheWay []string
	front    Motion // from the sheet's space, closed, to the face Front
}

// studies are kept, since a base is asked for at every change of its card. The key is the
// base and its stock as JSON.
var studies = cache.New[string, *Study](200)

// StudyOf folds a base. The study is shared and must not be changed.
func StudyOf(b card.Base) *Study {
	stock, _ := card.StockByID(b.Stock)
	key, err := json.Marshal(struct {
		Base  card.Base
		Stock card.Stock
	}{b, stock})
	if err != nil {
		return study(b) // measures that are no numbers have no JSON
	}
	s, _ := studies.Of(string(key), func() (*Study, error) { return study(b), nil })
	return s
}

// study folds a base as it is drawn or, where leaves would be in each other's way, in an
// order of hand folds in which they are not, if there is one.
func study(b card.Base) (s *Study) {
	net := Of(b)
	folder := NewFolder(net)
	folds := folder.handFolds()
	if ordered, ok := net.numbered(folds); ok {
		folder = NewFolder(ordered)
	}
	s = fold(b, folder)
	defer func() { s.Net = s.Net.byHand(s.handFolds()) }()
	if len(s.inTheWay) == 0 {
		return s
	}
	orders(folds, len(folder.Panels), func(order []handFold) bool {
		other := fold(b, NewFolder(net.inOrder(order)))
		if len(other.inTheWay) == 0 {
			s = other
			return true
		}
		return false
	})
	return s
}

// fold folds a base and looks at it on the way and when it is closed.
func fold(b card.Base, f *Folder) *Study {
	s := &Study{Folder: f, Net: f.net, kind: b.Kind}
	s.Poses = s.Sweep(openings)
	s.Verdict = s.Judge(s.Poses)
	s.closed()
	var woven [2]int
	s.Order, woven = s.stacked()
	if c := s.Clash(s.Poses); c != nil {
		s.inTheWay = append(s.inTheWay, fmt.Sprintf("Two panels pass through one another when it is %.0f° open, %.1f mm from the left and %.1f mm from the top of the sheet, seen from outside.",
			180*(1-c.Closing), c.At.X, c.At.Y))
	}
	s.inTheWay = append(s.inTheWay, s.passes()...)
	if s.Verdict.Flat && !s.Net.Stands {
		if woven[0] >= 0 {
			a, b := s.Panels[woven[0]].Middle, s.Panels[woven[1]].Middle
			s.inTheWay = append(s.inTheWay, fmt.Sprintf("Closed, the panels at %.0f, %.0f mm and at %.0f, %.0f mm of the sheet would each have to lie on the other.", a.X, a.Y, b.X, b.Y))
		}
		s.inTheWay = append(s.inTheWay, s.crosses()...)
		s.Verdict.Why = append(s.Verdict.Why, s.sticksOut()...)
	}
	s.Verdict.Why = append(s.Verdict.Why, s.inTheWay...)
	s.Verdict.Folds = s.Verdict.Folds && len(s.Verdict.Why) == 0
	return s
}

// FacesOn are the faces of a panel, on the outside and the inside of the sheet; empty for
// none.
func (s *Study) FacesOn(panel int) (outside, inside card.FaceID) {
	for _, f := range s.Net.Faces {
		back, _ := f.OnSheet.Inverse()
		if !(geom.Rect{W: f.Width, H: f.Height}).Has(back.Apply(s.Panels[panel].Middle)) {
			continue
		}
		if f.Side == Outside {
			outside = f.ID
		} else {
			inside = f.ID
		}
	}
	return outside, inside
}

// Faces tells whether a side of a panel looks to Front's eye when the card is closed, 1, or
// away from it, -1.
func (s *Study) Faces(panel int, side Side) int {
	up := s.front.after(s.Poses[len(s.Poses)-1].Panels[panel]).turn(V3{Z: 1}).Z
	if (up > 0) == (side == Outside) {
		return 1
	}
	return -1
}

// Closed is where a path on a panel, in the coordinates of the sheet, lies when
// the card is closed, seen from Front, in that face's coordinates.
func (s *Study) Closed(panel int, p geom.Path) geom.Path { return p.Transform(s.closedMap(panel)) }

func (s *Study) closedMap(panel int) geom.Affine {
	m := s.front.after(s.Poses[len(s.Poses)-1].Panels[panel])
	onSheet := geom.Affine{A: m.R[0].X, B: m.R[1].X, C: m.R[0].Y, D: m.R[1].Y, E: m.T.X, F: m.T.Y}
	back, _ := s.Net.Face(card.Front).OnSheet.Inverse()
	return onSheet.Then(back)
}

// inverse undoes a motion.
func (m Motion) inverse() Motion {
	r := [3]V3{{m.R[0].X, m.R[1].X, m.R[2].X}, {m.R[0].Y, m.R[1].Y, m.R[2].Y}, {m.R[0].Z, m.R[1].Z, m.R[2].Z}}
	inv := Motion{R: r}
	inv.T = inv.turn(m.T).Mul(-1)
	return inv
}

// Rows are the motion as twelve numbers, row by row: a rotation's row, then its
// shift.
func (m Motion) Rows() [12]float64 {
	return [12]float64{m.R[0].X, m.R[0].Y, m.R[0].Z, m.T.X, m.R[1].X, m.R[1].Y, m.R[1].Z, m.T.Y, m.R[2].X, m.R[2].Y, m.R[2].Z, m.T.Z}
}

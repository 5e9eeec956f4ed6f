package fold

import (
	"encoding/json"
	"fmt"

	"sectilis/core/cache"
	"sectilis/core/card"
	"sectilis/core/geom"
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
	front Motion // from the sheet's space, closed, to the face Front
}

// studies are kept, since a base is asked for at every change of its card. The key is the
// base as JSON.
var studies = cache.New[string, *Study](200)

// StudyOf folds a base. The study is shared and must not be changed.
func StudyOf(b card.Base) *Study {
	key, err := json.Marshal(b)
	if err != nil {
		return study(b) // measures that are no numbers have no JSON
	}
	s, _ := studies.Of(string(key), func() (*Study, error) { return study(b), nil })
	return s
}

func study(b card.Base) *Study {
	s := &Study{Net: Of(b), kind: b.Kind}
	s.Folder = NewFolder(s.Net)
	s.Poses = s.Sweep(openings)
	s.Verdict = s.Judge(s.Poses)
	if c := s.Clash(s.Poses); c != nil {
		s.Verdict.Folds = false
		s.Verdict.Why = append(s.Verdict.Why, fmt.Sprintf("Two panels pass through one another when it is %.0f° open, %.1f mm from the left and %.1f mm from the top of the sheet, seen from outside.",
			180*(1-c.Closing), c.At.X, c.At.Y))
	}
	s.close()
	var woven [2]int
	if s.Order, woven = s.stacked(); woven[0] >= 0 && s.Verdict.Folds {
		a, b := s.Panels[woven[0]].Middle, s.Panels[woven[1]].Middle
		s.Verdict.Folds = false
		s.Verdict.Why = append(s.Verdict.Why, fmt.Sprintf("Closed, the panels at %.0f, %.0f mm and at %.0f, %.0f mm of the sheet would each have to lie on the other.", a.X, a.Y, b.X, b.Y))
	}
	return s
}

// close looks at the closed card.
func (s *Study) close() {
	last := s.Poses[len(s.Poses)-1]
	f := s.Net.Face(card.Front)
	at := s.PanelAt(f.OnSheet.Apply(geom.Pt(f.Width/2, f.Height*.98)))
	if at < 0 {
		at = s.root
	}
	s.front = last.Panels[at].inverse()
	paths := make([]geom.Path, len(s.Panels))
	for i := range s.Panels {
		paths[i] = s.Closed(i, s.Panels[i].Ring)
	}
	s.Cover = geom.Union(geom.NonZero, paths...)
	for _, p := range geom.Divide(geom.NonZero, paths...) {
		if p.Path.Area() > 1 {
			s.Layers = max(s.Layers, len(p.Cover))
		}
	}
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
	inv.T = inv.turn(m.T).mul(-1)
	return inv
}

// Rows are the motion as twelve numbers, row by row: a rotation's row, then its
// shift.
func (m Motion) Rows() [12]float64 {
	return [12]float64{m.R[0].X, m.R[0].Y, m.R[0].Z, m.T.X, m.R[1].X, m.R[1].Y, m.R[1].Z, m.T.Y, m.R[2].X, m.R[2].Y, m.R[2].Z, m.T.Z}
}

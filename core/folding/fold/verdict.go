package fold

import (
	"fmt"
	"math"
)

// openings is how many steps a sweep has where nothing else is asked for.
const openings = 60

// Verdict is whether a net folds, and what is wrong where it does not.
type Verdict struct {
	Folds bool    `json:"folds"`
	Gap   float64 `json:"gap"` // the largest at any fold, mm
	// Flat says that it folds flat: nothing stands up when it is closed.
	Flat bool     `json:"flat"`
	Why  []string `json:"why"`
}

// Judge looks at a sweep.
func (f *Folder) Judge(poses []Pose) Verdict {
	v := Verdict{Folds: true, Flat: true, Why: []string{}}
	for _, fault := range f.Faults {
		v.Folds = false
		v.Why = append(v.Why, fault.Why)
	}
	worst := poses[0]
	var first *Pose
	for i := range poses {
		if poses[i].Gap > worst.Gap {
			worst = poses[i]
		}
		if poses[i].Gap > max(gap*10, f.net.slack) && first == nil {
			first = &poses[i]
		}
	}
	v.Gap = worst.Gap
	if first != nil {
		v.Folds, v.Flat = false, false
		h := f.Hinges[worst.Where]
		v.Why = append(v.Why, fmt.Sprintf("At the %s %.1f mm from the left and %.1f mm from the top two panels pull apart, by %.2f mm when it is %.0f° open; it begins at %.0f°.",
			RoleName(h.Role), (h.From.X+h.To.X)/2, (h.From.Y+h.To.Y)/2, worst.Gap, 180*(1-worst.Closing), 180*(1-first.Closing)))
	}
	last := poses[len(poses)-1]
	for i := range f.Hinges {
		want := sign(f.Hinges[i].Role)
		if first == nil && !f.main[i] && poses[len(poses)/2].Angles[i]*want < -1e-6 {
			v.Folds = false
			h := f.Hinges[i]
			v.Why = append(v.Why, fmt.Sprintf("The %s %.1f mm from the left and %.1f mm from the top would have to fold the other way.", RoleName(h.Role), (h.From.X+h.To.X)/2, (h.From.Y+h.To.Y)/2))
			break
		}
	}
	for i, m := range last.Panels {
		// A panel lies flat when its own upright points straight up or down.
		if n := m.turn(V3{Z: 1}); math.Abs(math.Abs(n.Z)-1) > max(1e-6, f.net.slack) && !f.net.Stands && !f.stub(i) {
			v.Flat = false
			v.Why = append(v.Why, fmt.Sprintf("The panel %.1f mm from the left and %.1f mm from the top does not lie flat when the card is closed.", f.Panels[i].Middle.X, f.Panels[i].Middle.Y))
			break
		}
	}
	return v
}

// Leaves are the two panels that a fold of two scores holds apart, for the hinge of one of
// them; -1 for what is none.
func (s *Study) Leaves(h Hinge) (a, b int) {
	beyond := func(panel, not int) int {
		for _, o := range s.Hinges {
			if (o.A == panel || o.B == panel) && o.Line != h.Line && s.Net.Lines[o.Line].Stop != 0 {
				if other := o.A + o.B - panel; other != not {
					return other
				}
			}
		}
		return -1
	}
	switch {
	case s.stub(h.A):
		return beyond(h.A, h.B), h.B
	case s.stub(h.B):
		return h.A, beyond(h.B, h.A)
	}
	return -1, -1
}

// stub reports whether a panel only holds two leaves apart: both its folds stop
// half way.
func (f *Folder) stub(panel int) bool {
	for _, h := range f.Hinges {
		if (h.A == panel || h.B == panel) && f.net.Lines[h.Line].Stop == 0 {
			return false
		}
	}
	return len(f.Panels) > 1
}

// Package check looks at a card for what would spoil paper: each finding says
// where, why and what would be right.
package check

import (
	"fmt"
	"math"

	"sectilis/core/card"
	"sectilis/core/fold"
	"sectilis/core/geom"
	"sectilis/core/measure"
	"sectilis/core/scene"
)

// Weight is how much a finding matters.
type Weight string

// A note can be left, a caution should be looked at, a stop spoils the card.
const (
	Note    Weight = "note"
	Caution Weight = "caution"
	Stop    Weight = "stop"
)

// Finding is one result of the check.
type Finding struct {
	Weight Weight      `json:"weight"`
	Face   card.FaceID `json:"face"`
	Item   string      `json:"item"`
	Why    string      `json:"why"`
	// By is how far, mm, where it is a matter of distance.
	By float64 `json:"by"`
	// Mend is a command that mends it, by its name in the protocol; "" where
	// only the person can.
	Mend *Move `json:"mend,omitempty"`
}

// Move is a mend: an item moved on its face.
type Move struct {
	ID string  `json:"id"`
	DX float64 `json:"dx"`
	DY float64 `json:"dy"`
}

// small is what nobody sees, mm.
const small = .2

// Folding looks at what lies on the faces while the base folds: pieces that
// stick out when the card is closed, and pieces glued across a fold or a cut.
func Folding(c card.Card, s scene.Scene) []Finding {
	study := fold.StudyOf(c.Base)
	out := []Finding{}
	crossing := map[string]bool{} // what is glued across, and what lies on it
	for i := range s.Faces {
		f := &s.Faces[i]
		for j := range f.Items {
			it := &f.Items[j]
			if !it.Piece {
				continue
			}
			if it.On != "" && crossing[it.On] {
				crossing[it.ID] = true
				continue
			}
			onSheet := it.Outline.Transform(it.At).Transform(f.OnSheet)
			across, part := crossed(study, onSheet)
			if across != "" && it.On == "" {
				crossing[it.ID] = true
				if thin(c, it.ID) && across != fold.RoleName(fold.Cut) {
					out = append(out, Finding{Note, f.ID, it.ID, fmt.Sprintf("“%s” runs across a %s. Thin paper folds with the base: score it there too.", it.Name, across), part, nil})
					continue
				}
				out = append(out, Finding{Stop, f.ID, it.ID, fmt.Sprintf("“%s” is glued across a %s, over %s. It would hold the fold open, or tear.", it.Name, across, say(part)), part, nil})
				continue
			}
			panel := study.PanelAt(f.OnSheet.Apply(it.At.Apply(it.Box.Centre())))
			if panel < 0 {
				continue // it hangs beside the base: the sheets tell
			}
			if by, side, d := sticksOut(study, panel, onSheet); by > small {
				out = append(out, Finding{Stop, f.ID, it.ID, fmt.Sprintf("“%s” sticks out by %s at the %s when the card is closed.", it.Name, say(by), side), by, inwards(study, panel, f, it.ID, d)})
			}
		}
	}
	return out
}

// thin reports whether a piece is of paper that folds by hand, such as a liner.
func thin(c card.Card, id string) bool {
	_, it := c.Find(id)
	stock, ok := card.StockByID(it.Made.Stock)
	return ok && stock.Weight <= 135 && it.Made.Lift == 0
}

func say(mm float64) string {
	return measure.FormatUnit(mm, measure.In) + " (" + measure.FormatUnit(mm, measure.MM) + ")"
}

// crossed is the name of a fold or cut that runs through a piece, and how much
// of it does.
func crossed(study *fold.Study, piece geom.Path) (name string, length float64) {
	for _, l := range study.Net.Lines {
		if l.Role == fold.Perforation {
			continue
		}
		var b geom.Builder
		in, _ := geom.CutStrokes(b.Move(l.From).Line(l.To).Path(), geom.NonZero, piece)
		// What only runs along its edge does not cross it.
		sum := 0.0
		for _, cs := range in.Curves() {
			for _, c := range cs {
				if n, ok := piece.Nearest(c.At(.5)); ok && n.Distance > small {
					sum += c.Length()
				}
			}
		}
		if sum > length && sum > 1 {
			name, length = fold.RoleName(l.Role), sum
		}
	}
	return name, length
}

// sticksOut is how far a piece reaches over the closed card, on which side as
// seen from Front, and the step that would bring it in, in Front's coordinates.
func sticksOut(study *fold.Study, panel int, piece geom.Path) (by float64, side string, step geom.Point) {
	closed := study.Closed(panel, piece)
	over := geom.Difference(geom.NonZero, closed, study.Cover)
	for _, cs := range over.Curves() {
		for _, c := range cs {
			for _, k := range []float64{0, .5} {
				if n, ok := study.Cover.Nearest(c.At(k)); ok && n.Distance > by && !study.Cover.Covers(c.At(k), geom.NonZero) {
					by = n.Distance
				}
			}
		}
	}
	if by <= small {
		return 0, "", step
	}
	b, cover := closed.Bounds(), study.Cover.Bounds()
	far := 0.0
	for _, e := range []struct {
		name string
		by   float64
		step geom.Point
	}{
		{"left", cover.X - b.X, geom.Pt(1, 0)}, {"right", b.Right() - cover.Right(), geom.Pt(-1, 0)},
		{"top", cover.Y - b.Y, geom.Pt(0, 1)}, {"bottom", b.Bottom() - cover.Bottom(), geom.Pt(0, -1)},
	} {
		if e.by > small {
			step = step.Add(e.step.Mul(e.by))
		}
		if e.by > far {
			side, far = e.name, e.by
		}
	}
	if side == "" {
		side = "edge"
	}
	return by, side, step
}

// inwards turns a step on the closed card into a move on the item's face; none
// where the piece is larger than the card.
func inwards(study *fold.Study, panel int, f *scene.Face, id string, step geom.Point) *Move {
	if step == (geom.Point{}) {
		return nil
	}
	// Where the face's axes point on the closed card.
	axis := func(p geom.Point) geom.Point {
		var b geom.Builder
		at := study.Closed(panel, b.Move(geom.Pt(0, 0)).Line(p).Path().Transform(f.OnSheet)).Curves()[0][0]
		return at.P[0].Sub(at.From)
	}
	x, y := axis(geom.Pt(1, 0)), axis(geom.Pt(0, 1))
	dx, dy := step.Dot(x), step.Dot(y)
	if math.Hypot(dx, dy) < small {
		return nil
	}
	return &Move{id, math.Round(dx*1e4) / 1e4, math.Round(dy*1e4) / 1e4}
}

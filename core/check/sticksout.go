package check

import (
	"math"

	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// sticksOut finds pieces that reach over the edge of the closed card.
func sticksOut(in *Input) (out []Finding) {
	study := in.study()
	for _, p := range in.onPanels().items {
		if !p.item.Piece {
			continue
		}
		if by, side, step := beyond(study, p.panel, p.onSheet); by > small {
			mends, more := inwards(study, p, step), ""
			if mends == nil {
				more = " Make it smaller."
			}
			out = append(out, of(Stop, p.face, p.item, by, mends, "sticks out by %s at the %s when the card is closed.%s", say(by), side, more))
		}
	}
	return out
}

// beyond is how far a piece reaches over the closed card, on which side as
// seen from Front, and the step that would bring it in, in Front's coordinates.
func beyond(study *fold.Study, panel int, piece geom.Path) (by float64, side string, step geom.Point) {
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

// inwards turns a step on the closed card into a move on the item's face; nil where the piece
// would stick out all the same.
func inwards(study *fold.Study, p onPanel, step geom.Point) []Mend {
	if step == (geom.Point{}) {
		return nil
	}
	// Where the face's axes point on the closed card.
	axis := func(to geom.Point) geom.Point {
		var b geom.Builder
		at := study.Closed(p.panel, b.Move(geom.Pt(0, 0)).Line(to).Path().Transform(p.face.OnSheet)).Curves()[0][0]
		return at.P[0].Sub(at.From)
	}
	dx, dy := step.Dot(axis(geom.Pt(1, 0))), step.Dot(axis(geom.Pt(0, 1)))
	dx, dy = math.Round(dx*1e4)/1e4, math.Round(dy*1e4)/1e4
	moved := p.item.Outline.Transform(p.item.At.Then(geom.Shift(dx, dy))).Transform(p.face.OnSheet)
	if by, _, _ := beyond(study, p.panel, moved); by > small {
		return nil
	}
	return []Mend{{Says: "Move it in", Do: []Step{{"moveItems", card.MoveItems{IDs: []string{p.item.ID}, DX: dx, DY: dy}}}}}
}

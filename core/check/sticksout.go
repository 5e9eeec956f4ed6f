package check

import (
	"math"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
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
			out = append(out, of(Stop, p.face, p.item, by, inwards(study, p.panel, p.face, p.item.ID, step),
				"sticks out by %s at the %s when the card is closed.", say(by), side))
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

// inwards turns a step on the closed card into a move on the item's face; none
// where the piece is larger than the card.
func inwards(study *fold.Study, panel int, f *scene.Face, id string, step geom.Point) *Mend {
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
	return &Mend{"Move it in", []Step{{"moveItems", card.MoveItems{IDs: []string{id}, DX: math.Round(dx*1e4) / 1e4, DY: math.Round(dy*1e4) / 1e4}}}}
}

package check

import (
	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// glued finds pieces that are glued across a fold or a cut.
func glued(in *Input) []Finding { return in.onPanels().glued }

// glued looks at a piece that reaches over folds and cuts; found is nil where it may. holds
// says that it holds the base, so that nothing more can be told of what lies on it.
func (p onPanel) glued(study *fold.Study) (found *Finding, holds bool) {
	f, it, doc := p.face, p.item, p.doc
	line, length := crossed(study, p.onSheet, func(fold.Line) bool { return true })
	if length == 0 {
		return nil, false
	}
	// A fold that closes on the piece pushes it away.
	against, hard := crossed(study, p.onSheet, func(n fold.Line) bool {
		r := n.Role
		if f.Side == fold.Inside {
			r = fold.Flipped(r)
		}
		return r == fold.Valley
	})
	switch {
	case doc.Made.Free && hard > 0:
		out := of(Stop, f, it, hard, nil, "reaches over a %s that closes on it, over %s. Move it, or cut it there.", roleOn(f, against), say(hard))
		return &out, true
	case doc.Made.Free:
		return nil, false
	case thin(doc) && line.Role != fold.Cut:
		out := of(Note, f, it, length, nil, "runs across a %s. Thin paper folds with the base: score it there too.", roleOn(f, line))
		return &out, true
	}
	var mends []Mend
	if by, _, _ := beyond(study, p.panel, p.onSheet); hard == 0 && by <= small {
		made := doc.Made
		made.Free = true
		mends = []Mend{{Says: "Glue only its middle", Do: []Step{{"setMade", card.SetMade{IDs: []string{it.ID}, Made: made}}}}}
	}
	mends = append(mends, p.offTheFold(study)...)
	out := of(Stop, f, it, length, mends, "is glued across a %s, over %s. It would hold the fold open, or tear.", roleOn(f, line), say(length))
	return &out, true
}

// clear is how far from a fold a piece is moved, mm.
const clear = .5

// offTheFold moves a piece as little as brings it onto its panel alone; nil where it has no room there.
func (p onPanel) offTheFold(study *fold.Study) []Mend {
	room := study.Panels[p.panel].Ring.Transform(back(p.face)).Bounds().Grow(-clear)
	b := p.item.Bounds
	if b.W > room.W || b.H > room.H {
		return nil
	}
	dx := card.Tidy(max(0, room.X-b.X) - max(0, b.Right()-room.Right()))
	dy := card.Tidy(max(0, room.Y-b.Y) - max(0, b.Bottom()-room.Bottom()))
	moved := p.item.Outline.Transform(p.item.At.Then(geom.Shift(dx, dy))).Transform(p.face.OnSheet)
	if _, still := crossed(study, moved, func(fold.Line) bool { return true }); still > 0 {
		return nil
	}
	if by, _, _ := beyond(study, p.panel, moved); by > small {
		return nil
	}
	return []Mend{{Says: "Move it off the fold", Do: []Step{{"moveItems", card.MoveItems{IDs: []string{p.item.ID}, DX: dx, DY: dy}}}}}
}

package check

import (
	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
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
	if hard == 0 {
		made := doc.Made
		made.Free = true
		mends = []Mend{{Says: "Glue only its middle", Do: []Step{{"setMade", card.SetMade{IDs: []string{it.ID}, Made: made}}}}}
	}
	out := of(Stop, f, it, length, mends, "is glued across a %s, over %s. It would hold the fold open, or tear.", roleOn(f, line), say(length))
	return &out, true
}

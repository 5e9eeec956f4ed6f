package check

import (
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// nearEdge finds words that stand on their face, but nearer to its edge than its safe line.
func nearEdge(in *Input) (out []Finding) {
	in.each(func(f *scene.Face, it *scene.Item, doc *card.Item) {
		if doc.Words == nil || it.Piece || it.Joined != "" || it.On != "" {
			return
		}
		if _, off := in.offEdge(f, it); off {
			return
		}
		b, s := it.Bounds, f.Safe
		if b.W > s.W || b.H > s.H {
			return // as wide as the face, as one may wish
		}
		dx, dy := inward(s, b)
		by := max(geom.Pt(dx, 0).Len(), geom.Pt(0, dy).Len())
		if by <= small {
			return
		}
		var mends []Mend
		if in.staysOn(f, it, dx, dy) {
			mends = []Mend{{Says: "Move it within the safe line", Do: []Step{{"moveItems", card.MoveItems{IDs: []string{it.ID}, DX: dx, DY: dy}}}}}
		}
		out = append(out, of(Note, f, it, by, mends,
			"stands %s beyond the safe line of %s, close to its edge.", say(by), f.Name))
	})
	return out
}

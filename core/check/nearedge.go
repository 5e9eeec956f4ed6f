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
		if _, off := offEdge(f, it); off {
			return
		}
		b, s := it.Bounds, f.Safe
		if b.W > s.W || b.H > s.H {
			return // as wide as the face, as one may wish
		}
		dx := max(0, s.X-b.X) - max(0, b.Right()-s.Right())
		dy := max(0, s.Y-b.Y) - max(0, b.Bottom()-s.Bottom())
		by := max(geom.Pt(dx, 0).Len(), geom.Pt(0, dy).Len())
		if by <= small {
			return
		}
		move := card.MoveItems{IDs: []string{it.ID}, DX: card.Tidy(dx), DY: card.Tidy(dy)}
		out = append(out, of(Note, f, it, by, []Mend{{Says: "Move it within the safe line", Do: []Step{{"moveItems", move}}}},
			"stands %s beyond the safe line of %s, close to its edge.", say(by), f.Name))
	})
	return out
}

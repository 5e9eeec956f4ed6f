package sheet

import (
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// insert is the inner leaf that a card's inside is printed on when it has one: the net
// seen from its inside, smaller by a margin on every side, with the folds.
func insert(c card.Card, s scene.Scene, base loose) (loose, bool) {
	if c.Leaf == nil || !card.TakesInsert(c.Base.Kind) {
		return loose{}, false
	}
	net := s.Net.Outline()
	box := net.Bounds()
	over := geom.Affine{A: -1, D: 1, E: 2*box.X + box.W} // turned over
	outline := geom.Offset(net, -c.Leaf.Less, geom.MitreCorner).Transform(over)
	if outline.Empty() {
		return loose{}, false
	}
	if outline.Area() < 0 {
		outline = outline.Reverse()
	}
	in := loose{stock: c.Leaf.Stock, Piece: Piece{ID: card.InsertPiece, Item: card.InsertPiece, Name: "Insert", At: over, Area: outline.Area(), runs: along(base.runs, over)}}
	for _, l := range base.Lines {
		if !l.Role.Folds() {
			continue
		}
		if path, _ := geom.CutStrokes(l.Path.Transform(over), geom.NonZero, outline); !path.Empty() {
			in.Lines = append(in.Lines, Line{fold.Flipped(l.Role), path})
		}
	}
	in.Lines, in.Outline = append(in.Lines, Line{fold.Cut, outline}), outline
	for _, k := range scene.Transform(base.Reverse, over) {
		k.Clips = append(slices.Clone(k.Clips), geom.Offset(outline, min(baseBleed, c.Leaf.Less), geom.MitreCorner))
		in.Inks = append(in.Inks, k)
	}
	in.room = roomOf(outline, in.Inks, baseBleed)
	return in, true
}

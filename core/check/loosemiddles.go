package check

import (
	"fmt"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/measure"
)

// Backing lays a whole mat below a piece, which carries what would fall out of it.
func Backing(id string) card.AddMat {
	return card.AddMat{IDs: []string{id}, Width: measure.Inch / 8, Corner: card.Square, Solid: true, Stock: card.First().Piece}
}

// looseMiddles finds parts that fall out of a piece when it is cut. A whole mat below carries
// them.
func looseMiddles(in *Input) (out []Finding) {
	in.each(func(f *scene.Face, it *scene.Item, doc *card.Item) {
		if len(it.Islands) == 0 {
			return
		}
		held := doc.Made.Islands
		if carried(in.Card.Face(f.ID), doc) {
			return
		}
		n, fall := fmt.Sprintf("%d loose middles", len(it.Islands)), "They fall"
		if len(it.Islands) == 1 {
			n, fall = "a loose middle", "It falls"
		}
		if held.How == card.BridgedIslands {
			island := it.Islands[0].Transform(it.At).Bounds()
			found := of(Caution, f, it, held.Width, nil, "has %s that no bridge of %s reaches. %s out when it is cut.", n, say(held.Width), fall)
			found.At = &island
			out = append(out, found)
			return
		}
		bridged, without := doc.Made, doc.Made
		bridged.Islands, without.Islands = card.FirstBridges(), card.Islands{How: card.NoIslands}
		out = append(out, of(Caution, f, it, 0, []Mend{
			{Says: "Hold by bridges", Do: []Step{{"setMade", card.SetMade{IDs: []string{it.ID}, Made: bridged}}}},
			{Says: "Lay a whole mat below", Do: []Step{{"addMat", Backing(it.ID)}}},
			{Says: "Leave them out", Do: []Step{{"setMade", card.SetMade{IDs: []string{it.ID}, Made: without}}}},
		}, "has %s. %s out when it is cut.", n, fall))
	})
	return out
}

// carried reports whether a whole mat lies below a piece, or below what it lies on.
func carried(f *card.Face, it *card.Item) bool {
	for on := f.Item(it.On); on != nil; it, on = on, f.Item(on.On) {
		if on.Mat != nil && on.Mat.Of == it.ID && on.Mat.Solid {
			return true
		}
	}
	return false
}

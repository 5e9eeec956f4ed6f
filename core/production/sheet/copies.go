package sheet

import (
	"fmt"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
)

// Copy is a card that is laid on sheets: the only one, one of several that are alike, or the one that is made
// for a row of its list, with what that row is called, and what names all that the card has otherwise than
// others.
type Copy struct {
	Row, Name, Says string
	Card            card.Card
	Scene           scene.Scene
}

// Repeated are so many of a card, numbered; one is the only one.
func Repeated(c card.Card, s scene.Scene, n int) []Copy {
	if n < 2 {
		return Single(c, s)
	}
	out := make([]Copy, n)
	for i := range out {
		out[i] = Copy{Row: card.NumberedRow(i + 1), Name: fmt.Sprintf("Card %d", i+1), Card: c, Scene: s}
	}
	return out
}

// Single is the card as the only one that is laid.
func Single(c card.Card, s scene.Scene) []Copy { return []Copy{{Card: c, Scene: s}} }

// Of is the layout as far as it holds pieces of one card: of the only one, or of that which is made for a
// row, whose pieces are then named by their items.
func (l Layout) Of(row string) Layout {
	if row == "" {
		return l
	}
	out := l
	out.Sheets = nil
	for _, sh := range l.Sheets {
		own := []Piece{}
		for _, p := range sh.Pieces {
			if p.Row == row {
				p.ID = p.Item
				own = append(own, p)
			}
		}
		if sh.Pieces = own; len(own) > 0 {
			out.Sheets = append(out.Sheets, sh)
		}
	}
	return out
}

// piecesOf lists the pieces of all copies. Those that are made for a row are named by it.
func piecesOf(copies []Copy) (out []loose) {
	for _, c := range copies {
		of := pieces(c.Card, c.Scene)
		if c.Row != "" {
			for i := range of {
				p := &of[i].Piece
				p.ID, p.Row, p.Says, p.Name, p.Plain = card.PieceFor(p.Item, c.Row), c.Row, c.Says, c.Name+" · "+p.Name, p.Name
			}
		}
		out = append(out, of...)
	}
	return out
}

// openOf says which slots of copies still wait, each once.
func openOf(copies []Copy) []Note {
	out := []Note{}
	for _, c := range copies {
		for _, n := range open(c.Scene) {
			if !slices.ContainsFunc(out, func(o Note) bool { return o.Why == n.Why }) {
				out = append(out, n)
			}
		}
	}
	return out
}

package card

import (
	"fmt"
	"slices"
	"strings"
)

// Laid is where a person has laid a piece on a sheet by hand: it stays there, and the
// others are laid round it.
type Laid struct {
	Piece string `json:"piece"` // the id of the item; BasePiece for the base
	// Sheet is the number, from 0, among the sheets of the piece's stock, and Size the
	// size that it had; "" where there was but one.
	Sheet int    `json:"sheet"`
	Size  string `json:"size,omitempty"`
	// Place is that of the middle of the piece's own box, mm from the sheet's upper left
	// corner.
	Place Place `json:"place"`
}

// Tie is a tied set: pieces that keep their places relative to each other on the
// sheet, which are given as they lay when they were tied.
type Tie struct {
	Pieces []Laid `json:"pieces"`
}

// BasePiece names the base among the pieces that are laid on sheets.
const BasePiece = "base"

const (
	maxSheets   = 200
	maxSizeName = 40
)

func (l Laid) check() error {
	if l.Sheet < 0 || l.Sheet >= maxSheets {
		return Refuse("sheet", "A card has at most %d sheets of a stock.", maxSheets)
	}
	if len(l.Size) > maxSizeName {
		return Refuse("size", "There is no size of sheet of that name.")
	}
	if !within(l.Place.X, -maxPlace, maxPlace) || !within(l.Place.Y, -maxPlace, maxPlace) || !within(l.Place.Turn, -360, 360) || l.Place.Mirrored {
		return Refuse("place", "A piece is laid on its sheet, turned by up to 360°.")
	}
	return nil
}

func (c Card) checkLaid() error {
	for _, l := range c.Laid {
		if err := l.check(); err != nil {
			return err
		}
	}
	tied := map[string]bool{}
	for _, t := range c.Ties {
		if len(t.Pieces) < 2 {
			return Refuse("pieces", "Tie two pieces or more.")
		}
		for _, l := range t.Pieces {
			if err := l.check(); err != nil {
				return err
			}
			if tied[l.Piece] {
				return Refuse("pieces", "A piece is in one tied set at a time; untie it first.")
			}
			tied[l.Piece] = true
		}
	}
	return nil
}

// PieceFor is the id of a piece of the card that is made for a row of its list, or of a numbered one.
func PieceFor(item, row string) string { return item + ofRow + row }

// ItemOf is the item that a piece is.
func ItemOf(piece string) string {
	item, _, _ := strings.Cut(piece, ofRow)
	return item
}

// ofRow parts an item from a row in the id of a piece.
const ofRow = "@"

// stockOf is the stock that a piece is cut from, "" for what is no piece.
func (c *Card) stockOf(piece string) string {
	if item, row, ok := strings.Cut(piece, ofRow); ok {
		if c.isNumbered(row) {
			return c.stockOf(item)
		}
		made, ok := c.ForName(row)
		if !ok {
			return ""
		}
		return made.stockOf(item)
	}
	switch {
	case piece == BasePiece:
		return c.Base.Stock
	case piece == InsertPiece && c.Leaf != nil:
		return c.Leaf.Stock
	}
	if _, it := c.Find(piece); it != nil && it.IsPiece() {
		return it.Made.Stock
	}
	return ""
}

// tidyLaid forgets pieces that are none any more, and ties that hold nothing together.
func (c *Card) tidyLaid() {
	gone := func(l Laid) bool { return c.stockOf(l.Piece) == "" }
	c.Laid = slices.DeleteFunc(slices.Clone(c.Laid), gone)
	var ties []Tie
	for _, t := range c.Ties {
		t.Pieces = slices.DeleteFunc(slices.Clone(t.Pieces), gone)
		// What is cut from another stock now has left the set.
		if len(t.Pieces) > 0 {
			stock := c.stockOf(t.Pieces[0].Piece)
			t.Pieces = slices.DeleteFunc(t.Pieces, func(l Laid) bool { return c.stockOf(l.Piece) != stock })
		}
		if len(t.Pieces) > 1 {
			ties = append(ties, t)
		}
	}
	c.Ties = ties
	if len(c.Laid) == 0 {
		c.Laid = nil
	}
}

// TiedWith are the pieces of the tied set that a piece belongs to, or itself alone.
func (c *Card) TiedWith(piece string) []string {
	for _, t := range c.Ties {
		if slices.ContainsFunc(t.Pieces, func(l Laid) bool { return l.Piece == piece }) {
			var out []string
			for _, l := range t.Pieces {
				out = append(out, l.Piece)
			}
			return out
		}
	}
	return []string{piece}
}

// LayPieces lays pieces where a person wants them on their sheets; with a piece goes
// the set that it is tied to.
type LayPieces struct {
	Pieces []Laid `json:"pieces"`
}

// Label implements Command.
func (k LayPieces) Label() string { return pieces("Lay", len(k.Pieces)) }

// Apply implements Command.
func (k LayPieces) Apply(c Card) (Card, error) {
	return Change(c, func(c *Card) error {
		if len(k.Pieces) == 0 {
			return Refuse("pieces", "Choose at least one piece.")
		}
		for _, l := range k.Pieces {
			if c.stockOf(l.Piece) == "" {
				return Refuse("pieces", "The piece “%s” is not there any more.", l.Piece)
			}
			l.Place.X, l.Place.Y = Tidy(l.Place.X), Tidy(l.Place.Y)
			c.loosen(l.Piece)
			c.Laid = append(c.Laid, l)
		}
		return nil
	})
}

// loosen forgets where a piece, and what it is tied to, was laid.
func (c *Card) loosen(piece string) {
	set := c.TiedWith(piece)
	c.Laid = slices.DeleteFunc(slices.Clone(c.Laid), func(l Laid) bool { return slices.Contains(set, l.Piece) })
}

// LoosenPieces lets pieces that were laid by hand be laid with the others again.
type LoosenPieces struct {
	Pieces []string `json:"pieces"`
}

// Label implements Command.
func (k LoosenPieces) Label() string { return pieces("Loosen", len(k.Pieces)) }

// Apply implements Command.
func (k LoosenPieces) Apply(c Card) (Card, error) {
	return Change(c, func(c *Card) error {
		for _, id := range k.Pieces {
			c.loosen(id)
		}
		return nil
	})
}

// TiePieces makes a tied set of pieces, as they lie on a sheet.
type TiePieces struct {
	Pieces []Laid `json:"pieces"`
}

// Label implements Command.
func (k TiePieces) Label() string { return pieces("Tie", len(k.Pieces)) }

// Apply implements Command.
func (k TiePieces) Apply(c Card) (Card, error) {
	return Change(c, func(c *Card) error {
		if len(k.Pieces) < 2 {
			return Refuse("pieces", "Tie two pieces or more.")
		}
		for _, l := range k.Pieces {
			if c.stockOf(l.Piece) == "" {
				return Refuse("pieces", "The piece “%s” is not there any more.", l.Piece)
			}
			if c.stockOf(l.Piece) != c.stockOf(k.Pieces[0].Piece) {
				return Refuse("pieces", "Pieces of different stocks lie on different sheets; they cannot be tied.")
			}
			if l.Sheet != k.Pieces[0].Sheet {
				return Refuse("pieces", "Only pieces on one sheet can be tied.")
			}
		}
		c.Ties = append(slices.Clone(c.Ties), Tie{slices.Clone(k.Pieces)})
		return nil
	})
}

// UntiePieces dissolves the tied sets that pieces belong to.
type UntiePieces struct {
	Pieces []string `json:"pieces"`
}

// Label implements Command.
func (k UntiePieces) Label() string { return pieces("Untie", len(k.Pieces)) }

// Apply implements Command.
func (k UntiePieces) Apply(c Card) (Card, error) {
	return Change(c, func(c *Card) error {
		c.Ties = slices.DeleteFunc(slices.Clone(c.Ties), func(t Tie) bool {
			return slices.ContainsFunc(t.Pieces, func(l Laid) bool { return slices.Contains(k.Pieces, l.Piece) })
		})
		return nil
	})
}

func pieces(verb string, n int) string {
	if n == 1 {
		return verb + " a piece"
	}
	return fmt.Sprintf("%s %d pieces", verb, n)
}

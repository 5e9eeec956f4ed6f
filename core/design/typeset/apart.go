package typeset

import (
	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/ground/geom"
)

// LettersApart makes an item of each letter, in its place, as a group: each can be moved, and
// have a stock of its own.
type LettersApart struct {
	ID string `json:"id"`
}

// Label implements card.Command.
func (LettersApart) Label() string { return "Take letters apart" }

// mostLetters bounds how many items words become.
const mostLetters = 200

// Apply implements card.Command.
func (k LettersApart) Apply(c card.Card) (card.Card, error) {
	return card.ReplaceByGroup(c, k.ID, letters)
}

// letters are the letters of words as items of their own.
func letters(it *card.Item) ([]card.Item, error) {
	if it.Words == nil {
		return nil, card.Refuse("id", "“%s” is no lettering.", it.Name)
	}
	all, err := lettering.Letters(*it.Words)
	if err != nil {
		return nil, card.Refuse("font", "“%s” cannot be set: %v.", it.Name, err)
	}
	if len(all) < 2 || len(all) > mostLetters {
		return nil, card.Refuse("id", "Words of 2 to %d letters are taken apart; “%s” has %d.", mostLetters, it.Name, len(all))
	}
	var out []card.Item
	for _, l := range all {
		box := l.Outline.Bounds()
		mid := box.Centre()
		at := it.Place.Map().Apply(mid)
		one := it.Clone()
		one.ID, one.Name, one.Kind, one.Words, one.Bridges = "", l.Text, card.Shape, nil, nil
		one.Place.X, one.Place.Y = card.Tidy(at.X), card.Tidy(at.Y)
		one.Form = &card.Form{Outline: card.Free, Width: card.Tidy(box.W), Height: card.Tidy(box.H),
			Path: card.NewDrawn(l.Outline.Transform(geom.Shift(-mid.X, -mid.Y)))}
		if l.Colour != "" {
			one.Fill = card.Fill{Colour: l.Colour}
		}
		out = append(out, one)
	}
	return out, nil
}

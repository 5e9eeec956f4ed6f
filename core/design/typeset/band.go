package typeset

import (
	"fmt"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/ground/geom"
)

// BandBehind prints a band of a colour right below printed words, as long and as high as they are
// with a little more on every side. Words and band are a group.
type BandBehind struct {
	ID     string `json:"id"`
	Colour string `json:"colour"`
}

// bandBeyond is how far a band reaches beyond its words, in sizes of their letters.
const bandBeyond = .3

// Label implements card.Command.
func (BandBehind) Label() string { return "Lay a band behind words" }

// Apply implements card.Command.
func (k BandBehind) Apply(c card.Card) (card.Card, error) {
	f, it := c.Find(k.ID)
	if it == nil || it.Words == nil || it.Made.As != card.Printed {
		return c, card.Refuse("id", "A band is printed behind printed words.")
	}
	letters, err := lettering.Letters(*it.Words)
	if err != nil {
		return c, card.Refuse("font", "“%s” cannot be set: %v.", it.Name, err)
	}
	var box geom.Rect
	for _, l := range letters {
		box = box.Union(l.Outline.Bounds())
	}
	if len(letters) == 0 {
		return c, card.Refuse("id", "“%s” has no letters that a band could lie behind.", it.Name)
	}
	box = box.Grow(bandBeyond * it.Words.Size)
	own := it.Place
	at := own.Map().Apply(box.Centre())
	own.X, own.Y = card.Tidy(at.X), card.Tidy(at.Y)
	band := card.Item{Name: "Band", Kind: card.Shape, On: it.On, Group: it.Group, Place: own, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: k.Colour},
		Form: &card.Form{Outline: card.Rectangle, Width: card.Tidy(box.W), Height: card.Tidy(box.H), Corner: card.Square}}
	ids := []string{k.ID}
	c, err = card.Change(c, func(c *card.Card) error {
		f := c.Face(f.ID)
		band.ID = fmt.Sprintf("i%d", c.NextID)
		c.NextID++
		ids = append(ids, band.ID)
		f.Items = slices.Insert(f.Items, slices.IndexFunc(f.Items, func(o card.Item) bool { return o.ID == k.ID }), band)
		return nil
	})
	if err != nil {
		return c, err
	}
	return card.Apply(c, card.GroupItems{IDs: ids, Name: it.Name})
}

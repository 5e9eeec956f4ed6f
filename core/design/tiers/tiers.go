// Package tiers makes tiered pictures: a photo cut several times, each time smaller, in register and
// stacked. It is one of the design packages and stands on the document.
package tiers

import (
	"fmt"

	"sectilis/core/document/card"
)

// Commands are the commands of this package by their names in the protocol.
var Commands = map[string]func() card.Command{
	"makeTiers":   func() card.Command { return &MakeTiers{} },
	"setTiers":    func() card.Command { return &SetTiers{} },
	"makeFeature": func() card.Command { return &MakeFeature{} },
}

// MakeTiers makes a tiered picture of a photo, which becomes the lowest tier. Its pieces are a group.
type MakeTiers struct {
	ID    string     `json:"id"`
	Tiers card.Tiers `json:"tiers"`
}

// Label implements card.Command.
func (MakeTiers) Label() string { return "Cut in tiers" }

// Apply implements card.Command.
func (k MakeTiers) Apply(c card.Card) (card.Card, error) {
	f, it := c.Find(k.ID)
	if it == nil || it.Photo == nil {
		return c, card.Refuse("id", "A photo is cut in tiers.")
	}
	if it.Rimmed() {
		return c, card.Refuse("id", "“%s” has a rim of paper: take that off before it is cut in tiers.", it.Name)
	}
	if g := f.GroupByID(it.Group); it.Tier > 0 && g != nil && g.Tiers != nil {
		return c, card.Refuse("id", "“%s” is a tier already: change the tiers that it is one of.", it.Name)
	}
	if !it.IsPiece() {
		var err error
		if c, err = card.Apply(c, card.SetMade{IDs: []string{k.ID}, Made: card.Made{As: card.Cut, Stock: card.First().Photo, Bleed: card.UsualBleed}}); err != nil {
			return c, err
		}
	}
	return card.OnFace(c, []string{k.ID}, func(c *card.Card, f *card.Face) error {
		if err := f.Unlocked([]string{k.ID}); err != nil {
			return err
		}
		it := f.Item(k.ID)
		spec := k.Tiers
		g := card.Group{ID: fmt.Sprintf("g%d", c.NextID), Name: it.Name + " in tiers", In: it.Group, Tiers: &spec}
		c.NextID++
		f.Groups = append(f.Groups, g)
		it.Group, it.Tier = g.ID, 1
		return lay(c, f, g.ID, spec)
	})
}

// SetTiers makes a tiered picture otherwise; its lowest tier says what it shows. Group is that of its
// pieces.
type SetTiers struct {
	Face  card.FaceID `json:"face"`
	Group string      `json:"group"`
	Tiers card.Tiers  `json:"tiers"`
}

// Label implements card.Command.
func (SetTiers) Label() string { return "Change the tiers" }

// Apply implements card.Command.
func (k SetTiers) Apply(c card.Card) (card.Card, error) {
	return card.Change(c, func(c *card.Card) error {
		f := c.Face(k.Face)
		if f == nil {
			return card.Refuse("face", "There is no face “%s”.", k.Face)
		}
		g := f.GroupByID(k.Group)
		if g == nil || g.Tiers == nil || tierOf(f, k.Group, 1) == nil {
			return card.Refuse("group", "That is no tiered picture.")
		}
		spec := k.Tiers
		g.Tiers = &spec
		return lay(c, f, k.Group, spec)
	})
}

// tierOf is the nth tier of a group; nil where there is none.
func tierOf(f *card.Face, group string, n int) *card.Item {
	for i := range f.Items {
		if f.Items[i].Group == group && f.Items[i].Tier == n {
			return &f.Items[i]
		}
	}
	return nil
}

// lay makes the tiers of a group as they are to be, from the lowest up, and its features.
func lay(c *card.Card, f *card.Face, group string, t card.Tiers) error {
	if err := t.Check(); err != nil {
		return err
	}
	base := tierOf(f, group, 1).Clone()
	edge(&base, t)
	*f.Item(base.ID) = base
	all, err := parts(&base, t)
	if err != nil {
		return err
	}
	under := base.ID
	for i, p := range all {
		n := i + 2
		one := p.of(&base, t, n)
		on := under
		if p.onBase {
			on = base.ID
		}
		if was := tierOf(f, group, n); was != nil {
			one.ID, one.Name, one.On = was.ID, was.Name, on
			*was = one
		} else {
			made, err := c.Insert(f, under, []card.Item{one})
			if err != nil {
				return err
			}
			one.ID, one.On = made[0], on
			*f.Item(one.ID) = one
		}
		under = one.ID
	}
	for n := card.MostPieces; n > len(all)+1; n-- {
		if gone := tierOf(f, group, n); gone != nil {
			takeOff(f, gone.ID, under)
		}
	}
	for i := range f.Items {
		if it := &f.Items[i]; it.Group == group && it.Feature && it.Photo != nil {
			follow(it, &base)
		}
	}
	return nil
}

// takeOff takes a tier away: what lay on it lies on another then.
func takeOff(f *card.Face, id, onto string) {
	for i := range f.Items {
		if f.Items[i].On == id {
			f.Items[i].On = onto
		}
	}
	f.Release(id)
}

// edge prints the edge of a tier, half of whose line lies outside what is cut.
func edge(it *card.Item, t card.Tiers) {
	look := card.Look{}
	if it.Look != nil {
		look = *it.Look
	}
	look.Line = nil
	if t.Edge > 0 {
		look.Line = &card.InkLine{Colour: t.EdgeColour, Width: card.Tidy(2 * t.Edge)}
	}
	if it.Look = &look; look == (card.Look{}) {
		it.Look = nil
	}
}

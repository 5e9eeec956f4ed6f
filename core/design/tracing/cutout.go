package tracing

import (
	"fmt"
	"slices"

	"sectilis/core/document/card"
)

// LayCutOut makes a piece of its own of what is cut out of a photo, round an outline in its picture,
// in pixels, with a rim of paper, nil being none, and foam of Lift, mm, under it. It lies just over
// where it was; Behind says what the photo has there.
type LayCutOut struct {
	ID   string      `json:"id"`
	Edge *card.Drawn `json:"edge"`
	Rim  *card.Rim   `json:"rim,omitempty"`
	Lift float64     `json:"lift,omitempty"`
	// Behind is what becomes of the photo.
	Behind Behind `json:"behind,omitempty"`
}

// Behind is what is left of a photo where something was cut out of it.
type Behind string

// The photo is whole again, is filled in from what is about the place, or has a hole there.
const (
	Whole    Behind = ""
	FilledIn Behind = "filled"
	Hole     Behind = "hole"
)

// Label implements card.Command.
func (LayCutOut) Label() string { return "Lay what was cut out" }

// Apply implements card.Command.
func (k LayCutOut) Apply(c card.Card) (card.Card, error) {
	f, it := c.Find(k.ID)
	if it == nil || it.Photo == nil {
		return c, card.Refuse("id", "Only a photo has something cut out of it.")
	}
	i := slices.IndexFunc(it.Photo.Edits, func(e card.Edit) bool { return e.CutOut != nil })
	if i < 0 {
		return c, card.Refuse("id", "Nothing is cut out of “%s” yet.", it.Name)
	}
	one := it.Clone()
	one.ID, one.Group, one.Locked, one.Background, one.Look = "", "", false, false, nil
	one.Name += ", cut out"
	made := fmt.Sprintf("i%d", c.NextID)
	cut := *it.Photo.Edits[i].CutOut
	left := slices.Delete(slices.Clone(it.Photo.Edits), i, i+1)
	switch k.Behind {
	case Whole:
	case FilledIn:
		left = slices.Insert(left, i, card.Edit{Filled: &card.Filled{Of: &cut}})
	case Hole:
		cut.Rest = !cut.Rest
		left = slices.Insert(left, i, card.Edit{CutOut: &cut})
	default:
		return c, card.Refuse("behind", "The photo is whole again, is filled in, or has a hole.")
	}
	c, err := card.Apply(c, card.PlaceItems{Face: f.ID, Items: []card.Item{one}}, CutRound{made, k.Edge, k.Rim})
	if err != nil {
		return c, err
	}
	_, laid := c.Find(made)
	as := laid.Made
	as.Lift = k.Lift
	return card.Apply(c, card.SetMade{IDs: []string{made}, Made: as}, card.EditPhoto{IDs: []string{k.ID}, Edits: left})
}

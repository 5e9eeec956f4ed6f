package arrange

import (
	"slices"

	"sectilis/core/card"
	"sectilis/core/fold"
)

// SetBackground prints one fill over whole faces, under all else, or takes it
// away when the fill is empty. It is locked: nobody means to drag it.
type SetBackground struct {
	Faces []card.FaceID `json:"faces"`
	Fill  card.Fill     `json:"fill"`
}

// Label implements card.Command.
func (SetBackground) Label() string { return "Change the background" }

// Apply implements card.Command.
func (k SetBackground) Apply(c card.Card) (card.Card, error) {
	if len(k.Faces) == 0 {
		return c, card.Refuse("faces", "Choose a face.")
	}
	for _, id := range k.Faces {
		next, err := k.on(c, id)
		if err != nil {
			return c, err
		}
		c = next
	}
	return c, nil
}

func (k SetBackground) on(c card.Card, id card.FaceID) (card.Card, error) {
	net := fold.StudyOf(c.Base).Net
	nf := net.Face(id)
	f := c.Face(id)
	if f == nil || nf.ID == "" {
		return c, card.Refuse("faces", "There is no face “%s”.", id)
	}
	i := slices.IndexFunc(f.Items, func(it card.Item) bool { return it.Background })
	if k.Fill == (card.Fill{}) {
		if i < 0 {
			return c, nil
		}
		return card.Change(c, func(c *card.Card) error {
			f := c.Face(id)
			f.Release(f.Items[i].ID)
			return nil
		})
	}
	if i >= 0 {
		return card.SetFill{IDs: []string{f.Items[i].ID}, Fill: k.Fill}.Apply(c)
	}
	box := fold.Ground(net, id)
	at := box.Centre()
	it := card.Item{Name: "Background", Kind: card.Paper, Made: card.Made{As: card.Printed}, Fill: k.Fill, Locked: true, Background: true,
		Place: card.Place{X: card.Tidy(at.X), Y: card.Tidy(at.Y)},
		Form:  &card.Form{Outline: card.Rectangle, Corner: card.Square, Width: card.Tidy(box.W), Height: card.Tidy(box.H)}}
	return card.Change(c, func(c *card.Card) error {
		made, err := c.Insert(c.Face(id), "", []card.Item{it})
		if err != nil {
			return err
		}
		// What it is printed on is the base, whatever lies there.
		c.Face(id).Item(made[0]).On = ""
		return nil
	})
}

package card

import "slices"

// Recolour puts one ink in place of others: on the items or, with none named,
// everywhere on the card.
type Recolour struct {
	From []string `json:"from"`
	To   string   `json:"to"`
	IDs  []string `json:"ids,omitempty"`
}

// Label implements Command.
func (Recolour) Label() string { return "Change a colour" }

// Apply implements Command.
func (k Recolour) Apply(c Card) (Card, error) {
	return Change(c, func(c *Card) error {
		if len(k.From) == 0 {
			return Refuse("from", "Choose the colour to change.")
		}
		if err := checkColour(k.To); err != nil {
			return err
		}
		found := false
		for i := range c.Faces {
			for j := range c.Faces[i].Items {
				it := &c.Faces[i].Items[j]
				if len(k.IDs) > 0 && !slices.Contains(k.IDs, it.ID) {
					continue
				}
				for _, ink := range it.inks() {
					if slices.Contains(k.From, *ink) {
						*ink = k.To
						found = true
					}
				}
			}
		}
		if !found {
			return Refuse("from", "Nothing has that colour any more.")
		}
		return nil
	})
}

// Repaper puts one paper in place of another, everywhere on the card or on the items named:
// its scale, turn and shift stay.
type Repaper struct {
	From string   `json:"from"`
	To   string   `json:"to"`
	IDs  []string `json:"ids,omitempty"`
}

// Label implements Command.
func (Repaper) Label() string { return "Change a paper" }

// Apply implements Command.
func (k Repaper) Apply(c Card) (Card, error) {
	return Change(c, func(c *Card) error {
		if k.From == "" || k.To == "" {
			return Refuse("from", "Choose the paper to change, and the one to put in its place.")
		}
		found := false
		for i := range c.Faces {
			for j := range c.Faces[i].Items {
				it := &c.Faces[i].Items[j]
				if len(k.IDs) > 0 && !slices.Contains(k.IDs, it.ID) {
					continue
				}
				fills := []*Fill{&it.Fill}
				if it.Slot != nil {
					fills = append(fills, &it.Slot.Fill)
				}
				for _, f := range fills {
					if f.Paper == k.From {
						f.Paper, found = k.To, true
					}
				}
			}
		}
		if !found {
			return Refuse("from", "Nothing has that paper any more.")
		}
		return nil
	})
}

// inks are the places where an item names a colour.
func (it *Item) inks() []*string {
	var out []*string
	add := func(c *string) {
		if *c != "" {
			out = append(out, c)
		}
	}
	add(&it.Fill.Colour)
	if g := it.Fill.Gradient; g != nil {
		for i := range g.Stops {
			add(&g.Stops[i].Colour)
		}
	}
	if l := it.Look; l != nil {
		if l.Line != nil {
			add(&l.Line.Colour)
		}
		if l.Tint != nil {
			add(&l.Tint.Colour)
		}
		if l.Shadow != nil {
			add(&l.Shadow.Colour)
		}
	}
	words := it.Words
	if it.Slot != nil {
		add(&it.Slot.Fill.Colour)
		words = it.Slot.Words
	}
	if words != nil {
		for i := range words.Colours {
			add(&words.Colours[i])
		}
		for i := range words.Runs {
			add(&words.Runs[i].Colour)
		}
	}
	return out
}

// Colours are the inks that an item has, each once. The colour of a shadow is
// none: it is there to be overlooked.
func (it Item) Colours() []string {
	var out []string
	for _, c := range it.inks() {
		if (it.Look == nil || it.Look.Shadow == nil || c != &it.Look.Shadow.Colour) && !slices.Contains(out, *c) {
			out = append(out, *c)
		}
	}
	return out
}

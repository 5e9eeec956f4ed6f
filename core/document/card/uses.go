package card

import "slices"

// Uses are the supplies that a card is made with, by their ids, each once in the order in which they are
// met: pictures, patterned papers, shapes, typefaces, motifs of edgings, art, and the stocks of its pieces.
type Uses struct {
	Pictures []string
	Papers   []string
	Shapes   []string
	Fonts    []string
	Motifs   []string
	Art      []string
	Stocks   []string
}

func once(list *[]string, ids ...string) {
	for _, id := range ids {
		if id != "" && !slices.Contains(*list, id) {
			*list = append(*list, id)
		}
	}
}

// Uses lists what a card is made with. Of slots that wait it is what would be put there.
func (c Card) Uses() Uses {
	var u Uses
	once(&u.Stocks, c.Base.Stock)
	if c.Names != nil {
		for _, d := range c.Names.Differs {
			for _, v := range d.Values {
				switch d.What {
				case StockByName:
					once(&u.Stocks, v.Means)
				case PhotoByName:
					once(&u.Pictures, v.Means)
				}
			}
		}
	}
	if c.Leaf != nil {
		once(&u.Stocks, c.Leaf.Stock)
	}
	for _, f := range c.Faces {
		if f.Covered != nil {
			for _, l := range f.Covered.Layers {
				once(&u.Stocks, l.Stocks...)
				once(&u.Papers, l.Papers...)
			}
		}
		for i := range f.Items {
			u.item(&f.Items[i])
		}
	}
	return u
}

func (u *Uses) item(it *Item) {
	if it.Made.As == Cut {
		once(&u.Stocks, it.Made.Stock)
	}
	once(&u.Art, it.Art)
	once(&u.Papers, it.Fill.Paper)
	words := []*Words{it.Words}
	if it.Slot != nil {
		once(&u.Papers, it.Slot.Fill.Paper)
		words = append(words, it.Slot.Words)
	}
	for _, w := range words {
		if w == nil {
			continue
		}
		once(&u.Fonts, w.Font)
		for _, r := range w.Runs {
			once(&u.Fonts, r.Font)
		}
	}
	if it.Photo != nil {
		once(&u.Pictures, it.Photo.Picture)
		once(&u.Shapes, shapeOf(it.Photo.Opening))
	}
	once(&u.Shapes, shapeOf(it.Form))
	if it.Edging != nil {
		once(&u.Motifs, string(it.Edging.Motif))
	}
}

// shapeOf is the shape of the catalogue that a form has; "" for none.
func shapeOf(f *Form) string {
	if f == nil || f.Outline == Free {
		return ""
	}
	return string(f.Outline)
}

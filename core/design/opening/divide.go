package opening

import (
	"fmt"
	"math"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// DivideOpening divides the outline of an item into rows and columns with a gap between them.
// The first cell keeps the photo, the others are slots; all are a group. Gap is mm.
type DivideOpening struct {
	ID      string  `json:"id"`
	Columns int     `json:"columns"`
	Rows    int     `json:"rows"`
	Gap     float64 `json:"gap"`
}

// Label implements card.Command.
func (DivideOpening) Label() string { return "Divide an opening" }

// Apply implements card.Command.
func (k DivideOpening) Apply(c card.Card) (card.Card, error) {
	return card.ReplaceByGroup(c, k.ID, func(it *card.Item) ([]card.Item, error) {
		cells, err := k.cells(it)
		if p := it.Photo; err == nil && p != nil {
			err = Fill(&cells[0], withPicture(*p))
			cells[0].Look = it.Look
		}
		return cells, err
	})
}

// cells are the slots that an opening is divided into, in reading order.
func (k DivideOpening) cells(it *card.Item) ([]card.Item, error) {
	if it.Photo == nil && it.Form == nil {
		return nil, card.Refuse("id", "“%s” has no outline to divide.", it.Name)
	}
	if k.Columns < 1 || k.Rows < 1 || k.Columns*k.Rows < 2 || k.Columns > 20 || k.Rows > 20 {
		return nil, card.Refuse("columns", "An opening is divided into between 2 and 400 cells.")
	}
	whole := *it
	whole.Receive(card.Photo)
	waits := card.Waits{Takes: card.TakesPhoto, Made: whole.Made}
	if it.Slot != nil {
		waits = *it.Slot
	}
	form := it.Form
	if it.Photo != nil {
		own := it.Photo.Form()
		form = &own
	}
	w := (form.Width - k.Gap*float64(k.Columns-1)) / float64(k.Columns)
	h := (form.Height - k.Gap*float64(k.Rows-1)) / float64(k.Rows)
	if math.IsNaN(k.Gap) || k.Gap < 0 || min(w, h) < 2 {
		return nil, card.Refuse("gap", "The cells would be smaller than 2 mm (³⁄₃₂ in). Take a smaller gap or fewer cells.")
	}
	outline := card.OutlineOf(*form)
	rectangle := form.Outline == card.Rectangle && form.Corner == card.Square
	var out []card.Item
	for r := range k.Rows {
		for col := range k.Columns {
			cell := geom.RectPath(geom.Rect{X: -form.Width/2 + float64(col)*(w+k.Gap), Y: -form.Height/2 + float64(r)*(h+k.Gap), W: w, H: h})
			if !rectangle {
				cell = geom.Intersection(geom.NonZero, outline, cell)
			}
			b := cell.Bounds()
			if cell.Empty() || min(b.W, b.H) < .5 {
				continue // beside a round outline
			}
			mid := b.Centre()
			own := card.Form{Outline: card.Rectangle, Corner: card.Square, Width: card.Tidy(b.W), Height: card.Tidy(b.H)}
			if !rectangle {
				own.Outline, own.Corner = card.Free, ""
				own.Path = card.NewDrawn(cell.Transform(geom.Shift(-mid.X, -mid.Y)))
			}
			place, slot := it.Place, waits
			at := place.Map().Apply(mid)
			place.X, place.Y = card.Tidy(at.X), card.Tidy(at.Y)
			out = append(out, card.Item{Name: fmt.Sprintf("%s %d", it.Name, len(out)+1), Kind: card.Slot, On: it.On, Group: it.Group,
				Place: place, Made: card.Made{As: card.Printed}, Form: &own, Slot: &slot})
		}
	}
	if len(out) < 2 {
		return nil, card.Refuse("columns", "Fewer than two cells would have anything of the outline in them.")
	}
	return out, nil
}

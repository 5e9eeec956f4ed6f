package card

import (
	"path"
	"slices"
	"strings"
)

// Differing is an item, or the base, and what of it can differ by name, the likeliest first.
type Differing struct {
	Item string     `json:"item"`
	Name string     `json:"name"`
	What []DifferBy `json:"what"`
}

// CanDiffer lists what can differ by name: the base first, then the items from below.
func (c *Card) CanDiffer() []Differing {
	out := []Differing{{BasePiece, "The card itself", []DifferBy{StockByName}}}
	for _, f := range c.Faces {
		for i := range f.Items {
			it := &f.Items[i]
			if it.Background {
				continue
			}
			d := Differing{Item: it.ID, Name: it.Name}
			for _, w := range []DifferBy{PhotoByName, StockByName, ThereByName} {
				if (Differs{Item: it.ID, What: w}).fits(it) {
					d.What = append(d.What, w)
				}
			}
			out = append(out, d)
		}
	}
	return out
}

// Called is a stock or a picture that a cell can stand for, by its name.
type Called struct {
	Name string
	ByValue
}

// Meanings are what the cells of a column stand for, each once, in the order of the list: the first that is
// called as the cell says, in capitals or not, with the ending of a picture file or without, or else the first
// whose name begins with these words. A cell that none is called by is left out.
func (n *Names) Meanings(column string, all []Called) []ByValue {
	at := slices.Index(n.Columns, column)
	if at < 0 {
		return nil
	}
	out := []ByValue{}
	for _, r := range n.Rows {
		cell := r.Cells[at]
		says := calledPlainly(cell)
		if says == "" || slices.ContainsFunc(out, func(v ByValue) bool { return v.Cell == cell }) {
			continue
		}
		found := slices.IndexFunc(all, func(k Called) bool { return calledPlainly(k.Name) == says })
		if found < 0 {
			found = slices.IndexFunc(all, func(k Called) bool { return strings.HasPrefix(calledPlainly(k.Name), says+" ") })
		}
		if found >= 0 {
			v := all[found].ByValue
			v.Cell = cell
			out = append(out, v)
		}
	}
	return out
}

// calledPlainly is a name as names are compared.
func calledPlainly(name string) string {
	name = strings.ToLower(strings.TrimSpace(name))
	switch ext := path.Ext(name); ext {
	case ".jpg", ".jpeg", ".png", ".webp":
		name = strings.TrimSuffix(name, ext)
	}
	return strings.Join(strings.Fields(strings.ReplaceAll(name, "_", " ")), " ")
}

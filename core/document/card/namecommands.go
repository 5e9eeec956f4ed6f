package card

import (
	"fmt"
	"maps"
	"slices"
)

// onNames changes the list of a card. It returns a *Refusal for a card that has none.
func onNames(c Card, change func(c *Card, n *Names) error) (Card, error) {
	return Change(c, func(c *Card) error {
		if c.Names == nil {
			return Refuse("names", "This card has no list of names. Bring one in first.")
		}
		return change(c, c.Names)
	})
}

// row is a row that must be there.
func (n *Names) row(id string) (*NameRow, error) {
	if r := n.Row(id); r != nil {
		return r, nil
	}
	return nil, Refuse("row", "This name is not on the list any more.")
}

func (n *Names) hasColumn(name string) error {
	if !slices.Contains(n.Columns, name) {
		return Refuse("column", "The list has no column “%s”.", name)
	}
	return nil
}

// SetNames gives the card a list, in place of the one that it has. Rows that are as they were keep what
// was said of them. No rows take the list off: fields become words again.
type SetNames struct {
	From    string     `json:"from,omitempty"`
	Columns []string   `json:"columns"`
	Rows    [][]string `json:"rows"`
}

// Label implements Command.
func (k SetNames) Label() string {
	if len(k.Rows) == 0 {
		return "Take the list off"
	}
	return "Bring in a list"
}

// Apply implements Command.
func (k SetNames) Apply(c Card) (Card, error) {
	return Change(c, func(c *Card) error {
		if len(k.Rows) > MaxNames {
			return Refuse("rows", "A list has up to %d names; this one has %d.", MaxNames, len(k.Rows))
		}
		if len(k.Rows) > 0 && len(k.Columns) == 0 {
			return Refuse("columns", "A list needs a column for the names.")
		}
		n := &Names{From: k.From, Columns: slices.Clone(k.Columns)}
		var old []NameRow
		if was := c.Names; was != nil {
			n.NextRow, n.Shown, n.Laid, n.Differs = was.NextRow, was.Shown, was.Laid, was.Differs
			old = slices.Clone(was.Rows)
		}
		for _, cells := range k.Rows {
			row := NameRow{Cells: slices.Clone(cells)}
			row.tidyCells(len(n.Columns))
			if i := slices.IndexFunc(old, func(r NameRow) bool { return slices.Equal(r.Cells, row.Cells) }); i >= 0 {
				row = old[i]
				old = slices.Delete(old, i, i+1)
			}
			n.Rows = append(n.Rows, row)
		}
		c.Names = n
		return nil
	})
}

// SetCell changes what stands in a cell. The row after the last is a new one.
type SetCell struct {
	Row    string `json:"row,omitempty"` // "" for a new one
	Column string `json:"column"`
	Text   string `json:"text"`
}

// Label implements Command.
func (k SetCell) Label() string {
	if k.Row == "" {
		return "Add a name"
	}
	return "Change the list"
}

// Apply implements Command.
func (k SetCell) Apply(c Card) (Card, error) {
	return onNames(c, func(_ *Card, n *Names) error {
		if err := n.hasColumn(k.Column); err != nil {
			return err
		}
		at := slices.Index(n.Columns, k.Column)
		if k.Row == "" {
			n.Rows = append(n.Rows, NameRow{Cells: make([]string, len(n.Columns))})
			n.Rows[len(n.Rows)-1].Cells[at] = k.Text
			return nil
		}
		r, err := n.row(k.Row)
		if err == nil {
			r.Cells[at] = k.Text
			delete(r.Said, k.Column)
		}
		return err
	})
}

// SetRow says what is special about a name: that no card is made for it, what its card says in place of
// a cell, and how its letters fit; nil leaves what is so.
type SetRow struct {
	Row     string             `json:"row"`
	Out     *bool              `json:"out,omitempty"`
	Said    *map[string]string `json:"said,omitempty"`
	Smaller *bool              `json:"smaller,omitempty"`
	Lines   *int               `json:"lines,omitempty"`
}

// Label implements Command.
func (k SetRow) Label() string {
	if k.Out != nil && *k.Out {
		return "Leave a name out"
	}
	return "Change a name’s card"
}

// Apply implements Command.
func (k SetRow) Apply(c Card) (Card, error) {
	return onNames(c, func(_ *Card, n *Names) error {
		r, err := n.row(k.Row)
		if err != nil {
			return err
		}
		assign(&r.Out, k.Out)
		assign(&r.Smaller, k.Smaller)
		assign(&r.Lines, k.Lines)
		if k.Said != nil {
			for column := range *k.Said {
				if err := n.hasColumn(column); err != nil {
					return err
				}
			}
			r.Said = maps.Clone(*k.Said)
		}
		return nil
	})
}

// RemoveNames takes rows off the list, all but the last.
type RemoveNames struct {
	Rows []string `json:"rows"`
}

// Label implements Command.
func (k RemoveNames) Label() string { return numbered("Take off", len(k.Rows), "a name", "names") }

// Apply implements Command.
func (k RemoveNames) Apply(c Card) (Card, error) {
	return onNames(c, func(_ *Card, n *Names) error {
		for _, id := range k.Rows {
			if _, err := n.row(id); err != nil {
				return err
			}
		}
		n.Rows = slices.DeleteFunc(n.Rows, func(r NameRow) bool { return slices.Contains(k.Rows, r.ID) })
		if len(n.Rows) == 0 {
			return Refuse("rows", "A list needs a name. Take the whole list off instead.")
		}
		return nil
	})
}

// NameColumn gives a column another name, or adds one; no name takes it off the list.
type NameColumn struct {
	Column string `json:"column,omitempty"` // "" for a new one
	Name   string `json:"name"`
}

// Label implements Command.
func (k NameColumn) Label() string {
	switch {
	case k.Column == "":
		return "Add a column"
	case k.Name == "":
		return "Take off a column"
	}
	return "Rename a column"
}

// Apply implements Command.
func (k NameColumn) Apply(c Card) (Card, error) {
	return onNames(c, func(c *Card, n *Names) error {
		if k.Column == "" {
			n.Columns = append(n.Columns, k.Name)
			return nil
		}
		if err := n.hasColumn(k.Column); err != nil {
			return err
		}
		at := slices.Index(n.Columns, k.Column)
		if k.Name == "" {
			if len(n.Columns) == 1 {
				return Refuse("column", "A list needs a column. Take the whole list off instead.")
			}
			n.Columns = slices.Delete(n.Columns, at, at+1)
			for i := range n.Rows {
				n.Rows[i].Cells = slices.Delete(n.Rows[i].Cells, at, at+1)
			}
			return nil
		}
		name := plainLine(k.Name)
		n.Columns[at] = name
		for i := range n.Rows {
			if said, ok := n.Rows[i].Said[k.Column]; ok {
				delete(n.Rows[i].Said, k.Column)
				n.Rows[i].Said[name] = said
			}
		}
		for i := range n.Differs {
			if n.Differs[i].Column == k.Column {
				n.Differs[i].Column = name
			}
		}
		c.eachField(func(f *Field) {
			if f.Column == k.Column {
				f.Column = name
			}
		})
		return nil
	})
}

// eachField calls a function for each field of the card's words.
func (c *Card) eachField(do func(*Field)) {
	for i := range c.Faces {
		for j := range c.Faces[i].Items {
			if w := c.Faces[i].Items[j].Words; w != nil {
				for k := range w.Fields {
					do(&w.Fields[k])
				}
			}
		}
	}
}

// ShowName has the faces say what a row says.
type ShowName struct {
	Row string `json:"row"`
}

// Label implements Command.
func (ShowName) Label() string { return "Show another name" }

// Apply implements Command.
func (k ShowName) Apply(c Card) (Card, error) {
	return onNames(c, func(_ *Card, n *Names) error {
		_, err := n.row(k.Row)
		n.Shown = k.Row
		return err
	})
}

// LayNames lays a card for each name on sheets, or only the one that is shown.
type LayNames struct {
	All bool `json:"all"`
}

// Label implements Command.
func (k LayNames) Label() string {
	if k.All {
		return "Lay all names"
	}
	return "Lay one card"
}

// Apply implements Command.
func (k LayNames) Apply(c Card) (Card, error) {
	return onNames(c, func(_ *Card, n *Names) error {
		if k.All && len(n.Made()) == 0 {
			return Refuse("all", "No card is made for any name: take some back in first.")
		}
		n.Laid = k.All
		return nil
	})
}

// Differ has something of an item follow a column of the list; no column ends that. A Means of "" is as
// the card has it.
type Differ struct {
	Item   string    `json:"item"`
	What   DifferBy  `json:"what"`
	Column string    `json:"column"`
	Values []ByValue `json:"values,omitempty"`
}

// Label implements Command.
func (k Differ) Label() string {
	if k.Column == "" {
		return "The same for all names"
	}
	return "Differ by name"
}

// Apply implements Command.
func (k Differ) Apply(c Card) (Card, error) {
	return onNames(c, func(c *Card, n *Names) error {
		d := Differs{k.Item, k.What, k.Column, slices.Clone(k.Values)}
		d.Values = slices.DeleteFunc(d.Values, func(v ByValue) bool { return v.Means == "" })
		at := slices.IndexFunc(n.Differs, func(o Differs) bool { return o.Item == k.Item && o.What == k.What })
		if k.Column == "" {
			if at >= 0 {
				n.Differs = slices.Delete(n.Differs, at, at+1)
			}
			return nil
		}
		if err := n.hasColumn(k.Column); err != nil {
			return err
		}
		if _, it := c.Find(k.Item); !d.fits(it) {
			return Refuse("item", "The stock of a piece, the picture of a photo and what is there can differ by name.")
		}
		if at >= 0 {
			n.Differs[at] = d
		} else {
			n.Differs = append(n.Differs, d)
		}
		return nil
	})
}

// MakeField has letters of words stand for a column of the list: the characters from From up to, without,
// To. Before and After are said with what the column says.
type MakeField struct {
	ID     string `json:"id"`
	From   int    `json:"from"`
	To     int    `json:"to"`
	Column string `json:"column"` // "" makes words of the fields there
	Before string `json:"before,omitempty"`
	After  string `json:"after,omitempty"`
}

// Label implements Command.
func (k MakeField) Label() string {
	if k.Column == "" {
		return "Make words of a field"
	}
	return "Make a field"
}

// Apply implements Command.
func (k MakeField) Apply(c Card) (Card, error) {
	return onNames(c, func(c *Card, n *Names) error {
		_, it := c.Find(k.ID)
		if it == nil || it.Words == nil {
			return Refuse("id", "Choose words in which a field is to stand.")
		}
		if letters := len([]rune(it.Words.Text)); k.From < 0 || k.To < k.From || k.To > letters {
			return Refuse("from", "There are %d letters; choose some of them.", letters)
		}
		f := Field{From: k.From, To: k.To, Column: k.Column, Before: k.Before, After: k.After}
		it.Words.stand(f)
		if k.Column == "" {
			it.Words.Fields = slices.DeleteFunc(it.Words.Fields, func(o Field) bool { return o.Column == "" })
			return nil
		}
		return n.hasColumn(k.Column)
	})
}

// tidyCells gives a row so many cells, without what cannot be seen.
func (r *NameRow) tidyCells(columns int) {
	for len(r.Cells) < columns {
		r.Cells = append(r.Cells, "")
	}
	r.Cells = r.Cells[:columns]
	for k := range r.Cells {
		r.Cells[k] = plainLine(r.Cells[k])
	}
}

func numbered(verb string, n int, one, many string) string {
	if n == 1 {
		return verb + " " + one
	}
	return fmt.Sprintf("%s %d %s", verb, n, many)
}

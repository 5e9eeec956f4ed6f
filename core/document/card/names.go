package card

import (
	"fmt"
	"maps"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"
)

// Names is a list that a card is made for: each row is a card of its own, on which the fields in the
// words say what the row says.
type Names struct {
	// From is the file that the list was read from; "" for one that was typed.
	From    string    `json:"from,omitempty"`
	Columns []string  `json:"columns"`
	Rows    []NameRow `json:"rows"`
	// NextRow numbers the next row.
	NextRow int `json:"nextRow"`
	// Shown is the id of the row that stands on the faces.
	Shown string `json:"shown"`
	// Laid lays a card for each name on sheets, in place of the one that is shown.
	Laid bool `json:"laid,omitempty"`
	// Differs is what else differs by name.
	Differs []Differs `json:"differs,omitempty"`
}

// NameRow is a row of a list of names. Cells are as many as the list has columns.
type NameRow struct {
	ID    string   `json:"id"`
	Cells []string `json:"cells"`
	// Out says that no card is made for it.
	Out bool `json:"out,omitempty"`
	// Said is what the card says in place of a cell, by column.
	Said map[string]string `json:"said,omitempty"`
	// Smaller lets its letters be smaller than those of other names may be, Lines lets them stand in so
	// many lines; 0 is as many as the others.
	Smaller bool `json:"smaller,omitempty"`
	Lines   int  `json:"lines,omitempty"`
}

// DifferBy is what of an item differs by name.
type DifferBy string

// What differs by name: the stock of a piece, the picture of a photo, or whether the item is there: it
// is left out where the cell is empty.
const (
	StockByName DifferBy = "stock"
	PhotoByName DifferBy = "photo"
	ThereByName DifferBy = "there"
)

// Differs says that something of an item, or of the base, follows a column.
type Differs struct {
	Item   string   `json:"item"` // BasePiece for the base
	What   DifferBy `json:"what"`
	Column string   `json:"column"`
	// Values are what the words of the column stand for; what has none is as the card has it.
	Values []ByValue `json:"values,omitempty"`
}

// ByValue is the stock, by its id, or the picture that a cell stands for.
type ByValue struct {
	Cell        string `json:"cell"`
	Means       string `json:"means"`
	PixelWidth  int    `json:"pixelWidth,omitempty"`
	PixelHeight int    `json:"pixelHeight,omitempty"`
}

// Limits of a list of names.
const (
	MaxNames   = 200
	MaxColumns = 24
	MaxCell    = 200
	maxDiffers = 40
)

func (n *Names) clone() *Names {
	if n == nil {
		return nil
	}
	v := *n
	v.Columns, v.Rows, v.Differs = slices.Clone(n.Columns), slices.Clone(n.Rows), slices.Clone(n.Differs)
	for i := range v.Rows {
		v.Rows[i].Cells, v.Rows[i].Said = slices.Clone(v.Rows[i].Cells), maps.Clone(v.Rows[i].Said)
	}
	for i := range v.Differs {
		v.Differs[i].Values = slices.Clone(v.Differs[i].Values)
	}
	return &v
}

// Row returns the row with an id, or nil.
func (n *Names) Row(id string) *NameRow {
	if n == nil {
		return nil
	}
	if i := slices.IndexFunc(n.Rows, func(r NameRow) bool { return r.ID == id }); i >= 0 {
		return &n.Rows[i]
	}
	return nil
}

// Says is what a row says in a column: what was typed for the card, or else the cell.
func (n *Names) Says(r *NameRow, column string) string {
	if said, ok := r.Said[column]; ok {
		return said
	}
	return n.cell(r, column)
}

func (n *Names) cell(r *NameRow, column string) string {
	if i := slices.Index(n.Columns, column); i >= 0 && i < len(r.Cells) {
		return r.Cells[i]
	}
	return ""
}

// Name is what a row is called: what stands in its first column, or else in the first that is not empty.
func (r NameRow) Name() string {
	for _, c := range r.Cells {
		if c != "" {
			return c
		}
	}
	return "nameless"
}

// Shorter is a name with initials in place of all but its last word; itself where that is no shorter.
func Shorter(name string) string {
	words := strings.Fields(name)
	for i := range words[:max(0, len(words)-1)] {
		if first := []rune(words[i]); len(first) > 2 && unicode.IsLetter(first[0]) {
			words[i] = string(first[0]) + "."
		}
	}
	return strings.Join(words, " ")
}

// Made are the rows that a card is made for.
func (n *Names) Made() []NameRow {
	if n == nil {
		return nil
	}
	return slices.DeleteFunc(slices.Clone(n.Rows), func(r NameRow) bool { return r.Out })
}

// EachLaid reports whether a card for each name is laid on sheets.
func (c *Card) EachLaid() bool { return c.Names != nil && c.Names.Laid && len(c.Names.Made()) > 0 }

// tidyNames keeps the list and what follows from it together: rows have a cell for each column, one row
// is shown, words without their column are words again, and the faces say what that row says.
func (c *Card) tidyNames() {
	n := c.Names
	if n != nil && (len(n.Columns) == 0 || len(n.Rows) == 0) {
		n, c.Names = nil, nil
	}
	if n != nil {
		n.tidy()
		n.Differs = slices.DeleteFunc(n.Differs, func(d Differs) bool {
			_, it := c.Find(d.Item)
			return !slices.Contains(n.Columns, d.Column) || !d.fits(it)
		})
	}
	for i := range c.Faces {
		for j := range c.Faces[i].Items {
			it := &c.Faces[i].Items[j]
			if it.Words == nil || len(it.Words.Fields) == 0 || it.Words.checkFields() != nil {
				continue // what is not sound is refused
			}
			was := it.Words.Text
			w := it.Words.clone()
			w.Fields = slices.DeleteFunc(w.Fields, func(f Field) bool { return n == nil || !slices.Contains(n.Columns, f.Column) })
			if len(w.Fields) == 0 {
				w.Fields = nil
			} else {
				row := n.Row(n.Shown)
				if next := w.filled(func(f Field) string { return f.saying(n.Says(row, f.Column)) }); strings.TrimSpace(next.Text) != "" {
					w = &next
				}
			}
			it.Words = w
			it.followText(was)
		}
	}
}

// tidy puts the rows in order.
func (n *Names) tidy() {
	n.From = visible(n.From, false)
	for i := range n.Columns {
		n.Columns[i] = plainLine(n.Columns[i])
	}
	for i := range n.Rows {
		r := &n.Rows[i]
		for r.ID == "" {
			n.NextRow++
			if id := fmt.Sprintf("n%d", n.NextRow); n.Row(id) == nil {
				r.ID = id
			}
		}
		r.tidyCells(len(n.Columns))
		maps.DeleteFunc(r.Said, func(column, said string) bool {
			return !slices.Contains(n.Columns, column) || said == n.cell(r, column)
		})
		for column, said := range r.Said {
			r.Said[column] = plainLine(said)
		}
		if len(r.Said) == 0 {
			r.Said = nil
		}
	}
	if n.Row(n.Shown) == nil {
		n.Shown = n.Rows[0].ID
	}
	if len(n.Made()) == 0 {
		n.Laid = false
	}
}

// plainLine is one line of text that can be seen.
func plainLine(text string) string { return strings.TrimSpace(visible(text, false)) }

// fits reports whether the item has what is to differ; nil is the base.
func (d Differs) fits(it *Item) bool {
	switch {
	case d.Item == BasePiece:
		return d.What == StockByName
	case it == nil:
		return false
	case d.What == StockByName:
		return it.IsPiece()
	case d.What == PhotoByName:
		return it.Photo != nil
	}
	return d.What == ThereByName
}

func (n *Names) check() error {
	if n == nil {
		return nil
	}
	if len(n.Columns) == 0 || n.Row(n.Shown) == nil {
		return Refuse("names", "A list has a column and a name, one of which is shown.")
	}
	if len(n.Columns) > MaxColumns || len(n.Rows) > MaxNames {
		return Refuse("names", "A list has up to %d names in up to %d columns; this one has %d in %d.", MaxNames, MaxColumns, len(n.Rows), len(n.Columns))
	}
	for i, c := range n.Columns {
		if err := checkName("columns", c); err != nil {
			return err
		}
		if slices.Contains(n.Columns[:i], c) {
			return Refuse("columns", "Two columns are called “%s”: give one of them another name.", c)
		}
	}
	seen := map[string]bool{}
	for _, r := range n.Rows {
		if !faceName.MatchString(r.ID) || seen[r.ID] {
			return Refuse("names", "Two names of the list have the same id.")
		}
		seen[r.ID] = true
		if len(r.Cells) != len(n.Columns) || r.Lines < 0 || r.Lines > maxBoxLines {
			return Refuse("names", "The row of “%s” does not fit the list.", r.Name())
		}
		for _, s := range slices.Concat(r.Cells, slices.Collect(maps.Values(r.Said))) {
			if utf8.RuneCountInString(s) > MaxCell {
				return Refuse("names", "What stands in a list has up to %d letters; “%s…” has more.", MaxCell, string([]rune(s)[:20]))
			}
		}
	}
	return n.checkDiffers()
}

func (n *Names) checkDiffers() error {
	if len(n.Differs) > maxDiffers {
		return Refuse("differs", "Up to %d things differ by name.", maxDiffers)
	}
	for i, d := range n.Differs {
		if slices.ContainsFunc(n.Differs[:i], func(o Differs) bool { return o.Item == d.Item && o.What == d.What }) {
			return Refuse("differs", "Something follows two columns: choose one.")
		}
		if len(d.Values) > MaxNames {
			return Refuse("differs", "A column stands for up to %d things.", MaxNames)
		}
		for _, v := range d.Values {
			switch {
			case d.What == StockByName:
				if err := checkStock("differs", v.Means); err != nil {
					return err
				}
			case d.What == PhotoByName && !(digest.MatchString(v.Means) && isPicture(v.PixelWidth, v.PixelHeight)):
				return Refuse("differs", "A cell stands for a picture that is none.")
			case d.What == ThereByName:
				return Refuse("differs", "What is there or not takes no other values.")
			}
		}
	}
	return nil
}

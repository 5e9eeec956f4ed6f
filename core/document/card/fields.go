package card

import (
	"cmp"
	"fmt"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"
)

// Field is a stretch of words that says for each name what stands in a column of the list: the
// characters (Unicode code points) from From up to, without, To. Before and After are said with it, and
// not where the cell is empty. It may be empty: where the name that is shown has nothing to say.
type Field struct {
	From   int    `json:"from"`
	To     int    `json:"to"`
	Column string `json:"column"`
	Before string `json:"before,omitempty"`
	After  string `json:"after,omitempty"`
	// Style is that of its letters, kept while it has none.
	Style *Style `json:"style,omitempty"`
}

// maxFields is how many fields words have at most.
const maxFields = 40

// saying is what the field says for what a row says in its column.
func (f Field) saying(cell string) string {
	if cell == "" {
		return ""
	}
	return f.Before + cell + f.After
}

// checkFields refuses fields that overlap, stand in no order or lie outside the text.
func (w Words) checkFields() error {
	if len(w.Fields) > maxFields {
		return Refuse("fields", "Words have up to %d fields.", maxFields)
	}
	at, n := 0, utf8.RuneCountInString(w.Text)
	for _, f := range w.Fields {
		if f.From < at || f.To < f.From || f.To > n {
			return Refuse("fields", "Letters %d to %d cannot stand for a column: there are %d, and each stands for one.", f.From+1, f.To, n)
		}
		at = f.To
		if err := checkName("column", f.Column); err != nil {
			return err
		}
		if f.Style != nil {
			if err := f.Style.check(); err != nil {
				return err
			}
		}
		if utf8.RuneCountInString(f.Before) > MaxCell || utf8.RuneCountInString(f.After) > MaxCell {
			return Refuse("before", "Up to %d letters are said with a field.", MaxCell)
		}
	}
	return nil
}

// filled is the words with other text in their fields. Styles that reach over a field reach over what it
// says then; one that ends within a field goes as far into it as before.
func (w Words) filled(says func(Field) string) Words {
	v := *w.clone()
	for i := range v.Fields {
		v.setField(i, visible(says(v.Fields[i]), true))
	}
	v.tidyRuns()
	return v
}

// setField puts a text in place of what a field says; runs and fields that are beside it move.
func (w *Words) setField(i int, text string) {
	f := &w.Fields[i]
	from, to := f.From, f.To
	all, is := []rune(w.Text), []rune(text)
	if slices.Equal(all[from:to], is) {
		return
	}
	if len(is) == 0 {
		if style := w.StyleAt(from); !style.plain() {
			f.Style = &style
		}
	}
	w.Text = string(slices.Concat(all[:from], is, all[to:]))
	by := from + len(is) - to
	moved := func(at int, end bool) int {
		switch {
		case at > to, at == to && (from < to || !end):
			return at + by
		case at > from:
			return from + min(at-from, len(is))
		}
		return at
	}
	for k, r := range w.Runs {
		w.Runs[k].From, w.Runs[k].To = moved(r.From, false), moved(r.To, true)
	}
	for k := i + 1; k < len(w.Fields); k++ {
		w.Fields[k].From, w.Fields[k].To = w.Fields[k].From+by, w.Fields[k].To+by
	}
	f.To = from + len(is)
	if from == to && f.Style != nil {
		w.restyle(f.From, f.To, func(s *Style) { *s = *f.Style })
	}
}

// followEdit moves fields as a text is edited; those that are edited within are words again.
func (w *Words) followEdit(e edit) {
	var out []Field
	for _, f := range w.Fields {
		switch start, end := e.head, e.was-e.tail; {
		case f.To <= start && (f.From < f.To || f.To < start || e.was != e.is):
		case f.From >= end:
			f.From, f.To = f.From+e.is-e.was, f.To+e.is-e.was
		default:
			continue
		}
		out = append(out, f)
	}
	w.Fields = out
}

// stand makes characters stand for a column; fields that they overlap are words again.
func (w *Words) stand(f Field) {
	w.Fields = slices.DeleteFunc(slices.Clone(w.Fields), func(o Field) bool { return o.From < f.To && f.From < o.To || o.From == f.From && o.To == f.To })
	w.Fields = append(w.Fields, f)
	slices.SortStableFunc(w.Fields, func(a, b Field) int { return cmp.Or(cmp.Compare(a.From, b.From), cmp.Compare(a.To, b.To)) })
}

// ForName is the card as it is made for a row: its fields say what the row says, what has nothing to say
// is left out, and what differs by name is as the row has it. ok is false for a row that is not there.
func (c Card) ForName(row string) (out Card, ok bool) {
	n := c.Names
	r := n.Row(row)
	if r == nil {
		return c, false
	}
	out = c.clone()
	out.Names = nil
	for i := range out.Faces {
		for j := range out.Faces[i].Items {
			if w := out.Faces[i].Items[j].Words; w != nil && len(w.Fields) > 0 {
				out.Faces[i].Items[j].fill(n, r)
			}
		}
	}
	for _, d := range n.Differs {
		out.differ(d, n.Says(r, d.Column))
	}
	return out, true
}

// For is the words as they are for a row: without fields, saying what the row says. The space before a field
// that says nothing goes with it where no word follows.
func (w Words) For(n *Names, r *NameRow) Words {
	out := w.filled(func(f Field) string { return f.saying(n.Says(r, f.Column)) })
	for i := range slices.Backward(out.Fields) {
		f := &out.Fields[i]
		text := []rune(out.Text)
		if f.From < f.To || f.From == 0 || text[f.From-1] != ' ' || f.To < len(text) && (unicode.IsLetter(text[f.To]) || unicode.IsDigit(text[f.To])) {
			continue
		}
		if i > 0 && out.Fields[i-1].To == f.From {
			continue // what is before is said by another field
		}
		f.From--
		out.setField(i, "")
	}
	out.Fields = nil
	out.tidyRuns()
	return out
}

// fill makes lettering say what a row says.
func (it *Item) fill(n *Names, r *NameRow) {
	was := it.Words.Text
	w := it.Words.For(n, r)
	if b := w.Box; b != nil {
		if r.Smaller {
			b.Least = 0
		}
		if b.Lines > 0 {
			b.Lines = max(b.Lines, r.Lines)
		}
	}
	if strings.TrimSpace(w.Text) == "" {
		it.Hidden = true
		w.Text = was
	}
	it.Words = &w
	it.followText(was)
}

// Saying is what the card for a row says and has otherwise than others: a card for which that is the same
// comes out the same.
func (c Card) Saying(r *NameRow) []string {
	n := c.Names
	out := []string{fmt.Sprint(r.Smaller, r.Lines)}
	c.eachField(func(f *Field) { out = append(out, f.saying(n.Says(r, f.Column))) })
	for _, d := range n.Differs {
		cell := n.Says(r, d.Column)
		if at := d.valueOf(cell); d.What != ThereByName && at >= 0 {
			out = append(out, d.Values[at].Means)
		} else {
			out = append(out, fmt.Sprint(d.What == ThereByName && cell != ""))
		}
	}
	return out
}

// valueOf is the index of what a cell stands for; -1 where nothing was chosen for it.
func (d Differs) valueOf(cell string) int {
	return slices.IndexFunc(d.Values, func(v ByValue) bool { return v.Cell == cell })
}

// differ makes what follows a column as a cell has it.
func (c *Card) differ(d Differs, cell string) {
	at := d.valueOf(cell)
	if d.Item == BasePiece {
		if at >= 0 {
			c.Base.Stock = d.Values[at].Means
		}
		return
	}
	_, it := c.Find(d.Item)
	switch {
	case it == nil:
	case d.What == ThereByName:
		it.Hidden = it.Hidden || cell == ""
	case at < 0:
	case d.What == StockByName:
		it.Made.Stock = d.Values[at].Means
	case d.What == PhotoByName && it.Photo != nil:
		v := d.Values[at]
		p := *it.Photo
		// What was done to the other picture is not done to this one.
		p.Picture, p.PixelWidth, p.PixelHeight, p.Edits = v.Means, v.PixelWidth, v.PixelHeight, nil
		p.ShiftX, p.ShiftY, p.Zoom = 0, 0, 0
		it.Photo = &p
	}
}

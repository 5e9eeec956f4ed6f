package check

import (
	"cmp"
	"fmt"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"sectilis/core/design/typeset"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/wording"
	"sectilis/core/production/sheet"
)

// NameFault is what is wrong with the card for one name. Item is that which is at fault, "" for the row of
// the list itself.
type NameFault struct {
	Check ID     `json:"check"`
	Item  string `json:"item,omitempty"`
	// Short says it in a word or two, Why in a sentence.
	Short string `json:"short"`
	Why   string `json:"why"`
}

// byName are the checks of what comes out otherwise from name to name; of an item the first that finds
// something counts.
var byName = []struct {
	id    ID
	as    ID     // the check that tells of it
	says  string // of an item, before the names
	short string
	find  func(*Input) []Finding
	of    func(*card.Card) map[string]bool // the items that it looks at
}{
	{"overfull", "nameFits", "does not fit its box", "too long", overfull, differing},
	{"runsOff", "nameFits", "runs off what it lies on", "runs off", runsOff, differing},
	{"nearEdge", "nameFits", "stands close to the edge", "at the edge", nearEdge, differing},
	{"smallWords", "nameFits", "is set very small", "small", smallWords, differing},
	{"missingLetters", "nameFits", "has letters that its font lacks", "letters", missingLetters, differing},
	{"resolution", "namePictures", "has a picture with few pixels for its size", "few pixels", coarse, picturesByName},
}

// NameFaults are what is wrong with the cards that are made for the rows of a list, by row: words that do
// not fit there, fields that say nothing, names that stand twice.
func NameFaults(c card.Card, copies []sheet.Copy) map[string][]NameFault {
	out := map[string][]NameFault{}
	n := c.Names
	if n == nil {
		return out
	}
	differ := map[ID]map[string]bool{}
	for _, check := range byName {
		differ[check.id] = check.of(&c)
	}
	seen := map[string]string{}
	for _, k := range copies {
		in := Input{Card: k.Card, Scene: &k.Scene, Papers: scene.AsUsual}
		var faults []NameFault
		for _, check := range byName {
			for _, f := range check.find(&in) {
				if differ[check.id][f.Item] && !slices.ContainsFunc(faults, func(o NameFault) bool { return o.Item == f.Item }) {
					faults = append(faults, NameFault{check.id, f.Item, check.short, f.Why})
				}
			}
		}
		row := n.Row(k.Row)
		for _, id := range wordsWithFields(c) {
			_, it := c.Find(id)
			for _, f := range it.Words.Fields {
				if f.Before == "" && f.After == "" && n.Says(row, f.Column) == "" {
					faults = append(faults, NameFault{"emptyFields", id, "a gap", fmt.Sprintf("The list says nothing in “%s”.", f.Column)})
				}
			}
		}
		says := strings.Join(row.Cells, "\n")
		if first, twice := seen[says]; twice {
			faults = append(faults, NameFault{"nameTwice", "", "twice", fmt.Sprintf("“%s” stands on the list twice.", first)})
		} else {
			seen[says] = k.Name
		}
		if len(faults) > 0 {
			out[k.Row] = faults
		}
	}
	return out
}

// wordsWithFields are the ids of the lettering that has fields, from below.
func wordsWithFields(c card.Card) (out []string) {
	for _, f := range c.Faces {
		for i := range f.Items {
			if w := f.Items[i].Words; w != nil && len(w.Fields) > 0 {
				out = append(out, f.Items[i].ID)
			}
		}
	}
	return out
}

// picturesByName are the photos whose pictures differ by name.
func picturesByName(c *card.Card) map[string]bool {
	out := map[string]bool{}
	for _, d := range c.Names.Differs {
		if d.What == card.PhotoByName {
			out[d.Item] = true
		}
	}
	return out
}

// differing are the items that differ by name.
func differing(c *card.Card) map[string]bool {
	out := map[string]bool{}
	for _, id := range wordsWithFields(*c) {
		out[id] = true
	}
	for _, d := range c.Names.Differs {
		out[d.Item] = true
	}
	return out
}

// faultsOf are the faults of a check by the item that they concern, with the names of the rows.
func (in *Input) faultsOf(check ID) (out []nameFaults) {
	if in.Card.Names == nil || len(in.Copies) == 0 {
		return nil
	}
	if in.faults == nil {
		in.faults = NameFaults(in.Card, in.Copies)
	}
	for _, k := range in.Copies {
		for _, f := range in.faults[k.Row] {
			if f.Check != check {
				continue
			}
			at := slices.IndexFunc(out, func(o nameFaults) bool { return o.item == f.Item })
			if at < 0 {
				at = len(out)
				out = append(out, nameFaults{item: f.Item, why: f.Why})
			}
			if o := &out[at]; !slices.Contains(o.rows, k.Row) {
				o.rows, o.names = append(o.rows, k.Row), append(o.names, k.Name)
			}
		}
	}
	return out
}

// nameFaults is a fault of an item on the cards for some rows.
type nameFaults struct {
	item, why   string
	rows, names []string
}

// on says on which cards it is.
func (f nameFaults) on(of int) string {
	const most = 3
	names := f.names
	if n := len(names) - most; n > 1 {
		names = append(slices.Clone(names[:most]), fmt.Sprintf("%d more", n))
	}
	return fmt.Sprintf("on %d of %s: %s", len(f.rows), wording.Counted(of, "card", "cards"), wording.And(names))
}

// nameFits finds words that do not fit on the cards for some names.
func nameFits(in *Input) []Finding { return in.foundByName("nameFits") }

// namePictures finds pictures of some names that are too small for the size that they are printed in.
func namePictures(in *Input) []Finding { return in.foundByName("namePictures") }

// foundByName is what a check tells of the cards for some names.
func (in *Input) foundByName(as ID) (out []Finding) {
	for _, check := range byName {
		if check.as != as {
			continue
		}
		for _, f := range in.faultsOf(check.id) {
			face, it := in.Card.Find(f.item)
			if it == nil {
				continue
			}
			out = append(out, Finding{Weight: Caution, Face: face.ID, Item: f.item, Row: f.rows[0], Why: fmt.Sprintf("“%s” %s %s.", it.Name, check.says, f.on(len(in.Copies))),
				Mends: fitting(it, check.id, f.rows)})
		}
	}
	return out
}

// fitting is what makes words fit for the names in some rows.
func fitting(it *card.Item, check ID, rows []string) []Mend {
	w := it.Words
	switch {
	case w == nil || w.Path != nil || w.Warp != nil || check == "smallWords" || check == "missingLetters":
		return nil
	case check == "overfull" && w.Box != nil && w.Box.Fit:
		smaller := true
		var steps []Step
		for _, row := range rows {
			steps = append(steps, Step{"setRow", card.SetRow{Row: row, Smaller: &smaller}})
		}
		return []Mend{{Says: "Set these smaller", Do: steps}}
	}
	return []Mend{{Says: "Fit the letters of each name", Do: []Step{{"fitNames", typeset.FitNames{ID: it.ID}}}}}
}

// emptyFields finds fields that say nothing on the cards for some names.
func emptyFields(in *Input) (out []Finding) {
	for _, f := range in.faultsOf("emptyFields") {
		if face, it := in.Card.Find(f.item); it != nil {
			out = append(out, Finding{Weight: Caution, Face: face.ID, Item: f.item, Row: f.rows[0], Why: fmt.Sprintf("“%s” has a gap %s. %s", it.Name, f.on(len(in.Copies)), f.why)})
		}
	}
	return out
}

// nameTwice finds rows of the list that say what others say.
func nameTwice(in *Input) (out []Finding) {
	for _, f := range in.faultsOf("nameTwice") {
		stand := "stands on the list twice"
		if len(f.names) > 1 {
			stand = "stand on the list more than once"
		}
		out = append(out, Finding{Weight: Caution, Face: card.Front, Why: fmt.Sprintf("%s %s: a card is made for each time.", wording.And(f.names), stand),
			Mends: []Mend{{Says: "Take off what is there already", Do: []Step{{"removeNames", card.RemoveNames{Rows: f.rows}}}}}})
	}
	return out
}

// sameWords finds words that say on the card for every name what the list says for one, and a card that
// is the same for all names.
func sameWords(in *Input) (out []Finding) {
	n := in.Card.Names
	if n == nil || len(n.Made()) < 2 {
		return nil
	}
	in.each(func(f *scene.Face, it *scene.Item, doc *card.Item) {
		if doc.Words == nil {
			return
		}
		said := namesIn(n, *doc.Words)
		if len(said) == 0 {
			return
		}
		var steps []Step
		for _, s := range slices.Backward(said) { // from the end: those before stay where they are
			steps = append(steps, Step{"makeField", card.MakeField{ID: it.ID, From: s.from, To: s.to, Column: s.column}})
		}
		if doc.Words.Box == nil && doc.Words.Path == nil && doc.Words.Warp == nil {
			steps = append(steps, Step{"fitNames", typeset.FitNames{ID: it.ID}})
		}
		out = append(out, of(Caution, f, it, 0, []Mend{{Says: "Say each name", Do: steps}},
			"says “%s” on all %d cards, which the list has for one.", said[0].text, len(n.Made())))
	})
	if len(out) == 0 && len(differing(&in.Card)) == 0 {
		out = append(out, Finding{Weight: Caution, Face: card.Front, Why: fmt.Sprintf("The card is made for %d names and is the same for each: no words name anybody.", len(n.Made())),
			Mends: []Mend{{Says: "Take the list off", Do: []Step{{"setNames", card.SetNames{Columns: []string{}, Rows: [][]string{}}}}}}})
	}
	return out
}

// saidPlainly is a stretch of words, in characters, that says what stands in a cell of a column.
type saidPlainly struct {
	from, to     int
	column, text string
}

// leastSaid is how many letters what stands in a cell has to have to be looked for in words.
const leastSaid = 3

// namesIn are the stretches of words outside fields that say what a cell says, in their order: of the first
// column whatever it says, of others what has several words.
func namesIn(n *card.Names, w card.Words) (out []saidPlainly) {
	text := []rune(w.Text)
	var cells []saidPlainly
	for i, column := range n.Columns {
		for _, r := range n.Rows {
			if cell := r.Cells[i]; utf8.RuneCountInString(cell) >= leastSaid && strings.ContainsFunc(cell, unicode.IsLetter) && (i == 0 || strings.Contains(cell, " ")) {
				cells = append(cells, saidPlainly{column: column, text: cell})
			}
		}
	}
	// The longest first: a name within another is part of it.
	slices.SortStableFunc(cells, func(a, b saidPlainly) int { return cmp.Compare(len(b.text), len(a.text)) })
	taken := func(from, to int) bool {
		return slices.ContainsFunc(w.Fields, func(f card.Field) bool { return f.From < to && from < f.To }) ||
			slices.ContainsFunc(out, func(s saidPlainly) bool { return s.from < to && from < s.to })
	}
	for _, c := range cells {
		for from := range text {
			to := from + utf8.RuneCountInString(c.text)
			if to <= len(text) && wordEnds(text, from) && wordEnds(text, to) && strings.EqualFold(spaced(text[from:to]), c.text) && !taken(from, to) {
				c.from, c.to = from, to
				out = append(out, c)
			}
		}
	}
	slices.SortFunc(out, func(a, b saidPlainly) int { return cmp.Compare(a.from, b.from) })
	return out
}

// spaced is a text on one line.
func spaced(text []rune) string { return strings.ReplaceAll(string(text), "\n", " ") }

// wordEnds reports whether a word ends or begins before a character.
func wordEnds(text []rune, at int) bool {
	letter := func(i int) bool {
		return i >= 0 && i < len(text) && (unicode.IsLetter(text[i]) || unicode.IsDigit(text[i]))
	}
	return !letter(at-1) || !letter(at)
}

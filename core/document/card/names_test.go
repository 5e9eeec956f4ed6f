package card_test

import (
	"encoding/json"
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
)

var members = card.SetNames{From: "members.csv", Columns: []string{"Name", "Plot", "Guest"}, Rows: [][]string{
	{"Odalys Fernsby", "14", ""}, {"Wilhelmina Tock", "3", "Ptolemy Reed"}, {"Noor", "", "Ida"}}}

// invited is a card for three names, whose words have two fields; the second is said with “ and ”.
func invited(t *testing.T) card.Card {
	t.Helper()
	c, err := card.Apply(lettered(t, "Dear Somebody, come!"), members,
		card.MakeField{ID: "i1", From: 13, To: 13, Column: "Guest", Before: " and ", After: ""},
		card.MakeField{ID: "i1", From: 5, To: 13, Column: "Name"})
	require.NoError(t, err)
	return c
}

func said(t *testing.T, c card.Card, row string) string {
	t.Helper()
	made, ok := c.ForName(row)
	require.True(t, ok)
	w := wordsOf(made)
	require.Empty(t, w.Fields)
	require.Nil(t, made.Names)
	return w.Text
}

func TestFieldsSayWhatTheListSays(t *testing.T) {
	c := invited(t)
	assert.Equal(t, "Dear Odalys Fernsby, come!", wordsOf(c).Text, "the first name stands on the card")
	assert.Equal(t, "Dear Odalys Fernsby, come!", said(t, c, "n1"))
	assert.Equal(t, "Dear Wilhelmina Tock and Ptolemy Reed, come!", said(t, c, "n2"))
	assert.Equal(t, "Dear Noor and Ida, come!", said(t, c, "n3"))

	c, err := card.Apply(c, card.ShowName{Row: "n2"})
	require.NoError(t, err)
	assert.Equal(t, "Dear Wilhelmina Tock and Ptolemy Reed, come!", wordsOf(c).Text)
	assert.Equal(t, []card.Field{{From: 5, To: 20, Column: "Name"}, {From: 20, To: 37, Column: "Guest", Before: " and "}}, wordsOf(c).Fields)

	// What a card says in place of a cell is said on that card alone; the list stays.
	c, err = card.Apply(c, card.SetRow{Row: "n2", Said: &map[string]string{"Name": "W. Tock"}})
	require.NoError(t, err)
	assert.Equal(t, "Dear W. Tock and Ptolemy Reed, come!", wordsOf(c).Text)
	assert.Equal(t, "Wilhelmina Tock", c.Names.Row("n2").Cells[0])
	// A cell that is written anew is said again.
	c, err = card.Apply(c, card.SetCell{Row: "n2", Column: "Name", Text: " Wilma \u202eTock "})
	require.NoError(t, err)
	assert.Equal(t, "Dear Wilma Tock and Ptolemy Reed, come!", wordsOf(c).Text)

	// Columns have other names, and go: what they said stays as words.
	c, err = card.Apply(c, card.NameColumn{Column: "Name", Name: "Who"}, card.NameColumn{Column: "Guest"})
	require.NoError(t, err)
	assert.Equal(t, []string{"Who", "Plot"}, c.Names.Columns)
	assert.Equal(t, "Dear Wilma Tock and Ptolemy Reed, come!", wordsOf(c).Text)
	assert.Equal(t, "Dear Noor and Ptolemy Reed, come!", said(t, c, "n3"))
	// Without a list there are words.
	c, err = card.Apply(c, card.SetNames{})
	require.NoError(t, err)
	assert.Nil(t, c.Names)
	assert.Empty(t, wordsOf(c).Fields)
	assert.Equal(t, "Dear Wilma Tock and Ptolemy Reed, come!", wordsOf(c).Text)
}

func TestEditedWordsKeepTheirFields(t *testing.T) {
	for _, e := range []struct {
		text   string
		fields int
		third  string
	}{
		{"Dearest Odalys Fernsby, come!", 2, "Dearest Noor and Ida, come!"},
		{"Odalys Fernsby, come!", 2, "Noor and Ida, come!"},
		{"Dear Odalys Fernsby, do come!", 2, "Dear Noor and Ida, do come!"},
		{"Dear good Odalys Fernsby, come!", 2, "Dear good Noor and Ida, come!"},
		{"Dear Odalys F. Fernsby, come!", 1, "Dear Odalys F. Fernsby and Ida, come!"},
		{"Dear all", 0, "Dear all"},
	} {
		c, err := card.Apply(invited(t), card.SetText{ID: "i1", Text: e.text})
		require.NoError(t, err)
		assert.Equal(t, e.text, wordsOf(c).Text)
		assert.Len(t, wordsOf(c).Fields, e.fields, e.text)
		assert.Equal(t, e.third, said(t, c, "n3"))
	}
}

// Letters keep their style when another name is said: a style of the whole field is one of the whole
// name, also after a name for which the field says nothing; the first letter's is the first letter's.
func TestFieldsKeepTheirStyle(t *testing.T) {
	c, err := card.Apply(invited(t), card.ShowName{Row: "n2"},
		card.StyleLetters{ID: "i1", From: 20, To: 37, Colour: new("#a8432a")}, card.StyleLetters{ID: "i1", From: 5, To: 6, Scale: new(2.0)})
	require.NoError(t, err)
	c, err = card.Apply(c, card.ShowName{Row: "n1"})
	require.NoError(t, err)
	assert.Equal(t, []card.Run{{From: 5, To: 6, Style: card.Style{Scale: 2}}}, wordsOf(c).Runs)
	c, err = card.Apply(c, card.ShowName{Row: "n3"})
	require.NoError(t, err)
	assert.Equal(t, "Dear Noor and Ida, come!", wordsOf(c).Text)
	assert.Equal(t, []card.Run{{From: 5, To: 6, Style: card.Style{Scale: 2}}, {From: 9, To: 17, Style: card.Style{Colour: "#a8432a"}}}, wordsOf(c).Runs)
}

// Whatever is edited, and whichever name is shown, fields stay sorted, apart and say their column; what is
// beside them is what was written.
func TestFieldsStaySoundWhateverIsEdited(t *testing.T) {
	rng := rand.New(rand.NewPCG(11, 30))
	for range 300 {
		c := invited(t)
		for range 12 {
			w := []rune(wordsOf(c).Text)
			var k card.Command
			switch from := rng.IntN(len(w)); rng.IntN(5) {
			case 0:
				k = card.SetText{ID: "i1", Text: string(w[:from]) + "x y" + string(w[min(len(w), from+rng.IntN(4)):])}
			case 1:
				k = card.MakeField{ID: "i1", From: from, To: min(len(w), from+rng.IntN(5)), Column: "Plot", After: "."}
			case 2:
				k = card.StyleLetters{ID: "i1", From: from, To: len(w), Colour: new("#587a4a")}
			default:
				k = card.ShowName{Row: []string{"n1", "n2", "n3"}[rng.IntN(3)]}
			}
			next, err := card.Apply(c, k)
			require.NoError(t, err, "%#v", k)
			if _, show := k.(card.ShowName); show {
				assert.Equal(t, beside(wordsOf(c)), beside(wordsOf(next)), "another name changes nothing beside the fields")
			}
			c = next
			at := 0
			row := c.Names.Row(c.Names.Shown)
			for _, f := range wordsOf(c).Fields {
				require.GreaterOrEqual(t, f.From, at)
				says := string([]rune(wordsOf(c).Text)[f.From:f.To])
				if cell := c.Names.Says(row, f.Column); cell == "" {
					require.Empty(t, says)
				} else {
					require.Equal(t, f.Before+cell+f.After, says)
				}
				at = f.To
			}
			raw, err := json.Marshal(c)
			require.NoError(t, err)
			back, err := card.Parse(raw)
			require.NoError(t, err)
			for _, id := range []string{"n1", "n2", "n3"} {
				require.Equal(t, said(t, c, id), said(t, back, id))
				shown, err := card.Apply(c, card.ShowName{Row: id})
				require.NoError(t, err)
				squeezed := func(text string) string { return strings.Join(strings.Fields(strings.ReplaceAll(text, " ,", ",")), "") }
				require.Equal(t, squeezed(said(t, c, id)), squeezed(wordsOf(shown).Text))
			}
		}
	}
}

// beside is a text without what its fields say.
func beside(w card.Words) string {
	var out strings.Builder
	at, text := 0, []rune(w.Text)
	for _, f := range w.Fields {
		out.WriteString(string(text[at:f.From]) + "|")
		at = f.To
	}
	return out.String() + string(text[at:])
}

func TestAListThatIsReadAgainKeepsWhatWasSaidOfItsRows(t *testing.T) {
	c, err := card.Apply(invited(t), card.SetRow{Row: "n3", Said: &map[string]string{"Name": "N."}, Lines: new(3)}, card.ShowName{Row: "n3"}, card.LayNames{All: true})
	require.NoError(t, err)
	again := members
	again.Rows = append([][]string{{"Araminta Dove", "31"}}, members.Rows[1:]...)
	c, err = card.Apply(c, again)
	require.NoError(t, err)
	var ids []string
	for _, r := range c.Names.Rows {
		ids = append(ids, r.ID)
	}
	assert.Equal(t, []string{"n4", "n2", "n3"}, ids)
	assert.Equal(t, []string{"Araminta Dove", "31", ""}, c.Names.Rows[0].Cells)
	assert.Equal(t, 3, c.Names.Row("n3").Lines)
	assert.Equal(t, "n3", c.Names.Shown)
	assert.True(t, c.EachLaid())
	assert.Equal(t, "Dear N. and Ida, come!", wordsOf(c).Text)
}

func TestWhatDiffersByName(t *testing.T) {
	c := invited(t)
	picture := strings.Repeat("d", 64)
	c, err := card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{
		{Name: "Label", Kind: card.Shape, Place: card.Place{X: 60, Y: 30}, Made: card.Made{As: card.Cut, Stock: "moss-216"}, Form: &card.Form{Outline: card.Rectangle, Width: 40, Height: 20, Corner: card.Square}},
		{Name: "Portrait", Kind: card.Photo, Place: card.Place{X: 60, Y: 130}, Made: card.Made{As: card.Printed},
			Photo: &card.Print{Picture: strings.Repeat("c", 64), PixelWidth: 400, PixelHeight: 300, Width: 40, Height: 30, Zoom: 2, ShiftX: .2}}}})
	require.NoError(t, err)
	id := func(name string) string {
		for _, it := range c.Faces[0].Items {
			if it.Name == name {
				return it.ID
			}
		}
		return ""
	}
	label, portrait := id("Label"), id("Portrait")
	assert.Equal(t, card.Differing{Item: card.BasePiece, Name: "The card itself", What: []card.DifferBy{card.StockByName}}, c.CanDiffer()[0])
	_, words := c.Find("i1")
	assert.ElementsMatch(t, []card.Differing{
		{Item: "i1", Name: words.Name, What: []card.DifferBy{card.ThereByName}},
		{Item: label, Name: "Label", What: []card.DifferBy{card.StockByName, card.ThereByName}},
		{Item: portrait, Name: "Portrait", What: []card.DifferBy{card.PhotoByName, card.ThereByName}},
	}, c.CanDiffer()[1:])
	c, err = card.Apply(c,
		card.Differ{Item: label, What: card.StockByName, Column: "Plot", Values: []card.ByValue{{Cell: "14", Means: "honey-216"}, {Cell: "3", Means: "sage-216"}, {Cell: "", Means: ""}}},
		card.Differ{Item: portrait, What: card.PhotoByName, Column: "Name", Values: []card.ByValue{{Cell: "Noor", Means: picture, PixelWidth: 90, PixelHeight: 60}}},
		card.Differ{Item: portrait, What: card.ThereByName, Column: "Guest"},
		card.Differ{Item: card.BasePiece, What: card.StockByName, Column: "Plot", Values: []card.ByValue{{Cell: "3", Means: "kraft-280"}}})
	require.NoError(t, err)
	assert.ElementsMatch(t, []string{strings.Repeat("c", 64), picture}, c.Uses().Pictures)
	assert.Contains(t, c.Uses().Stocks, "kraft-280")
	find := func(row, id string) card.Item {
		made, ok := c.ForName(row)
		require.True(t, ok)
		_, it := made.Find(id)
		require.NotNil(t, it)
		return *it
	}
	assert.Equal(t, []string{"honey-216", "sage-216", "moss-216"}, []string{find("n1", label).Made.Stock, find("n2", label).Made.Stock, find("n3", label).Made.Stock})
	assert.True(t, find("n1", portrait).Hidden, "no guest, no portrait")
	assert.False(t, find("n3", portrait).Hidden)
	p := find("n3", portrait).Photo
	assert.Equal(t, card.Print{Picture: picture, PixelWidth: 90, PixelHeight: 60, Width: 40, Height: 30}, *p)
	made, _ := c.ForName("n2")
	assert.Equal(t, "kraft-280", made.Base.Stock)

	for _, k := range []card.Differ{
		{Item: "i1", What: card.StockByName, Column: "Plot"}, {Item: label, What: card.PhotoByName, Column: "Plot"}, {Item: label, What: "colour", Column: "Plot"},
		{Item: card.BasePiece, What: card.ThereByName, Column: "Plot"}, {Item: label, What: card.StockByName, Column: "Age"}, {Item: "i99", What: card.ThereByName, Column: "Plot"},
		{Item: label, What: card.StockByName, Column: "Plot", Values: []card.ByValue{{Cell: "3", Means: "no stock"}}},
		{Item: portrait, What: card.PhotoByName, Column: "Plot", Values: []card.ByValue{{Cell: "3", Means: "no picture", PixelWidth: 3, PixelHeight: 4}}},
	} {
		_, err := card.Apply(c, k)
		var refusal *card.Refusal
		require.ErrorAs(t, err, &refusal, "%v", k)
	}
	// What a cell stands for is part of what a card comes out as.
	was := c.Saying(c.Names.Row("n1"))
	other, err := card.Apply(c, card.Differ{Item: label, What: card.StockByName, Column: "Plot", Values: []card.ByValue{{Cell: "14", Means: "sage-216"}, {Cell: "3", Means: "sage-216"}}})
	require.NoError(t, err)
	assert.NotEqual(t, was, other.Saying(other.Names.Row("n1")))
	assert.Equal(t, c.Saying(c.Names.Row("n2")), other.Saying(other.Names.Row("n2")))
	// What goes does not differ any more.
	c, err = card.Apply(c, card.RemoveItems{IDs: []string{portrait}}, card.Differ{Item: card.BasePiece, What: card.StockByName})
	require.NoError(t, err)
	require.Len(t, c.Names.Differs, 1)
	assert.Equal(t, label, c.Names.Differs[0].Item)
}

func TestWordsThatHaveNothingToSayAreLeftOut(t *testing.T) {
	c, err := card.Apply(lettered(t, "Guest"), members, card.ShowName{Row: "n2"}, card.MakeField{ID: "i1", From: 0, To: 5, Column: "Guest"})
	require.NoError(t, err)
	assert.Equal(t, "Ptolemy Reed", wordsOf(c).Text)
	made, _ := c.ForName("n1")
	_, it := made.Find("i1")
	assert.True(t, it.Hidden)
	// On the card itself they go on saying what they said.
	c, err = card.Apply(c, card.ShowName{Row: "n1"})
	require.NoError(t, err)
	assert.Equal(t, "Ptolemy Reed", wordsOf(c).Text)
	assert.Equal(t, "Ida", said(t, c, "n3"))
}

// The space before a field that says nothing goes with it, unless a word follows.
func TestAGapLeavesNoSpace(t *testing.T) {
	for text, want := range map[string]string{"Noor Guest": "Noor", "Noor Guest, come": "Noor, come", "Noor Guest\ncome": "Noor\ncome", "Noor Guest come": "Noor come", "To Guest": "To", "Guest, come": ", come"} {
		c, err := card.Apply(lettered(t, text), members)
		require.NoError(t, err)
		at := strings.Index(text, "Guest")
		c, err = card.Apply(c, card.ShowName{Row: "n2"}, card.MakeField{ID: "i1", From: at, To: at + 5, Column: "Guest"}, card.StyleLetters{ID: "i1", From: 0, To: 1, Scale: new(2.0)})
		require.NoError(t, err)
		made, _ := c.ForName("n1")
		w := wordsOf(made)
		assert.Equal(t, want, w.Text)
		require.NoError(t, w.Check())
	}
}

func TestListsThatCannotBeAreRefused(t *testing.T) {
	rows := func(n int) (out [][]string) {
		for range n {
			out = append(out, []string{"Noor"})
		}
		return out
	}
	c := invited(t)
	for name, k := range map[string]card.Command{
		"too many":          card.SetNames{Columns: []string{"Name"}, Rows: rows(card.MaxNames + 1)},
		"a column twice":    card.SetNames{Columns: []string{"Name", "Name "}, Rows: [][]string{{"Noor", "1"}}},
		"a nameless column": card.SetNames{Columns: []string{" "}, Rows: rows(1)},
		"a long cell":       card.SetNames{Columns: []string{"Name"}, Rows: [][]string{{strings.Repeat("a", card.MaxCell+1)}}},
		"no column":         card.SetNames{Rows: rows(1)},
		"too many columns":  card.SetNames{Columns: strings.Split("abcdefghijklmnopqrstuvwxyz", ""), Rows: rows(1)},
		"a row that went":   card.SetCell{Row: "n9", Column: "Name", Text: "x"},
		"no such column":    card.SetCell{Row: "n1", Column: "Age", Text: "x"},
		"the last row":      card.RemoveNames{Rows: []string{"n1", "n2", "n3"}},
		"two of one name":   card.NameColumn{Column: "Plot", Name: "Name"},
		"a field nowhere":   card.MakeField{ID: "i1", From: 3, To: 300, Column: "Name"},
		"a field of none":   card.MakeField{ID: "i1", From: 3, To: 4, Column: "Age"},
		"too many lines":    card.SetRow{Row: "n1", Lines: new(99)},
		"said of no column": card.SetRow{Row: "n1", Said: &map[string]string{"Age": "3"}},
		"a name that went":  card.ShowName{Row: "n9"},
	} {
		next, err := card.Apply(c, k)
		var refusal *card.Refusal
		require.ErrorAs(t, err, &refusal, name)
		assert.True(t, strings.HasSuffix(refusal.Why, "."), refusal.Why)
		assert.Equal(t, c, next, name)
	}
	// A list that is read with a card is looked at as closely.
	for name, spoil := range map[string]func(n *card.Names){
		"no rows": func(n *card.Names) { n.Rows = nil }, "no columns": func(n *card.Names) { n.Columns = nil }, "nobody shown": func(n *card.Names) { n.Shown = "n9" },
		"two of one id": func(n *card.Names) { n.Rows[1].ID = "n1" }, "a cell too few": func(n *card.Names) { n.Rows[0].Cells = n.Rows[0].Cells[1:] },
	} {
		spoilt, err := card.Apply(c, card.ShowName{Row: "n1"})
		require.NoError(t, err)
		spoil(spoilt.Names)
		raw, err := json.Marshal(spoilt)
		require.NoError(t, err)
		_, err = card.Parse(raw)
		var refusal *card.Refusal
		require.ErrorAs(t, err, &refusal, name)
	}
	// Numbers that were used go to nobody else.
	c.Names.NextRow = 0
	c, err := card.Apply(c, card.SetCell{Column: "Name", Text: "Casimir"})
	require.NoError(t, err)
	assert.Equal(t, "n4", c.Names.Rows[3].ID)
	_, err = card.Apply(lettered(t, "Dear"), card.ShowName{Row: "n1"})
	assert.EqualError(t, err, "This card has no list of names. Bring one in first.")
	out := true
	c, err = card.Apply(c, card.RemoveNames{Rows: []string{"n4"}}, card.LayNames{All: true}, card.SetRow{Row: "n1", Out: &out}, card.SetRow{Row: "n2", Out: &out}, card.SetRow{Row: "n3", Out: &out})
	require.NoError(t, err)
	assert.False(t, c.EachLaid(), "no card is made for anybody")
	_, err = card.Apply(c, card.LayNames{All: true})
	assert.Error(t, err)
}

// Pieces of the cards for names are laid by hand under ids of their own; those of a name that goes are
// forgotten.
func TestPiecesForNamesAreLaidByHand(t *testing.T) {
	c, err := card.Apply(invited(t), card.LayNames{All: true}, card.LayPieces{Pieces: []card.Laid{
		{Piece: card.PieceFor(card.BasePiece, "n2"), Place: card.Place{X: 90, Y: 80}}, {Piece: card.PieceFor(card.BasePiece, "n3"), Place: card.Place{X: 90, Y: 80}}}})
	require.NoError(t, err)
	assert.Equal(t, card.BasePiece, card.ItemOf(c.Laid[0].Piece))
	c, err = card.Apply(c, card.RemoveNames{Rows: []string{"n2"}})
	require.NoError(t, err)
	require.Len(t, c.Laid, 1)
	assert.Equal(t, card.PieceFor(card.BasePiece, "n3"), c.Laid[0].Piece)
	_, err = card.Apply(c, card.LayPieces{Pieces: []card.Laid{{Piece: card.PieceFor(card.BasePiece, "n2")}}})
	assert.Error(t, err)
}

func TestNamesAreShortened(t *testing.T) {
	for name, short := range map[string]string{"Bartholomew Quillfeather": "B. Quillfeather", "Ada M. Vane": "A. M. Vane", "Élodie Anne Reed": "É. A. Reed",
		"Noor": "Noor", "": "", "14 Plum Lane": "14 P. Lane", "Dr Isolde Marchbanks": "Dr I. Marchbanks"} {
		assert.Equal(t, short, card.Shorter(name))
	}
}

// What cells stand for is found by name: as it is called, in capitals or as a file, before what only begins so.
func TestCellsStandForWhatIsCalledSo(t *testing.T) {
	n := card.Names{Columns: []string{"Name", "Paper"}, Rows: []card.NameRow{
		{ID: "n1", Cells: []string{"Ida", "moss"}}, {ID: "n2", Cells: []string{"Noor", " SAGE  card 216 g"}}, {ID: "n3", Cells: []string{"Ida", "moss"}},
		{ID: "n4", Cells: []string{"Amos_Reed.JPG", ""}}, {ID: "n5", Cells: []string{"Tess", "mo"}}, {ID: "n6", Cells: []string{"Hugh", "gate"}}}}
	called := func(name, means string) card.Called {
		return card.Called{Name: name, ByValue: card.ByValue{Means: means, PixelWidth: 3}}
	}
	all := []card.Called{called("Moss card 216 g", "m1"), called("Moss paper", "m2"), called("Sage card", "s0"), called("Sage card 216 g", "s1"), called("Gate of moss", "g1"), called("Gate.png", "g2")}
	assert.Equal(t, []card.ByValue{{Cell: "moss", Means: "m1", PixelWidth: 3}, {Cell: " SAGE  card 216 g", Means: "s1", PixelWidth: 3}, {Cell: "gate", Means: "g2", PixelWidth: 3}}, n.Meanings("Paper", all))
	assert.Equal(t, []card.ByValue{{Cell: "Amos_Reed.JPG", Means: "a"}}, n.Meanings("Name", []card.Called{{Name: "Amos Reed", ByValue: card.ByValue{Means: "a"}}}))
	assert.Empty(t, n.Meanings("Name", nil))
	assert.Nil(t, n.Meanings("Colour", all))
}

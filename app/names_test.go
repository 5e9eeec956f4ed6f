package app_test

import (
	"bytes"
	"context"
	"encoding/csv"
	"image"
	"image/png"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/coretest"
	"sectilis/core/design/typeset"
	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/format/hpgl"
	"sectilis/core/ground/geom"
)

// named is a card for four names, each said by words on a label that is cut.
func (f *fixture) named() string {
	f.t.Helper()
	c, err := card.Apply(coretest.Empty(f.t), card.PlaceItems{Face: card.Front, Items: []card.Item{
		{Name: "Label", Kind: card.Shape, Place: card.Place{X: 60, Y: 80}, Made: card.Made{As: card.Cut, Stock: "moss-216"}, Form: &card.Form{Outline: card.Rectangle, Width: 60, Height: 20, Corner: card.Square}}}},
		card.PlaceItems{Face: card.Front, Items: []card.Item{
			{Name: "Whom", Kind: card.Lettering, Place: card.Place{X: 60, Y: 80}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#35658c"},
				Words: &card.Words{Text: "Somebody", Font: "courier-prime-400", Size: 6, Leading: 1.2, Align: card.AlignCentre}}}},
		members(), card.MakeField{ID: "i2", From: 0, To: 8, Column: "Name"}, typeset.FitNames{ID: "i2"})
	require.NoError(f.t, err)
	id, err := f.Create(f.t.Context(), c)
	require.NoError(f.t, err)
	return id
}

func (f *fixture) change(id string, commands ...card.Command) app.View {
	f.t.Helper()
	v, err := f.Open(f.t.Context(), id)
	require.NoError(f.t, err)
	v, err = f.Change(f.t.Context(), id, v.Revision, commands)
	require.NoError(f.t, err)
	return v
}

func (f *fixture) names(id string) app.NamesView {
	f.t.Helper()
	v, err := f.Names(f.t.Context(), id, letter())
	require.NoError(f.t, err)
	return v
}

func stages(v app.NamesView) (out []app.NameStage) {
	for _, r := range v.Rows {
		out = append(out, r.Stage)
	}
	return out
}

// runs lets the cutter do the whole run of a sheet.
func (f *fixture) runs(id string, number int) {
	f.t.Helper()
	l, err := f.Layout(f.t.Context(), id, letter())
	require.NoError(f.t, err)
	j, err := f.Run(f.t.Context(), id, letter(), number, app.From{})
	require.NoError(f.t, err)
	for range hpgl.Steps(l.Sheets[number-1].Passes, l.Sheets[number-1].Size.Height) {
		f.step(j.ID, nil)
	}
	f.until(j.ID, app.Done)
}

// What is cut for a name stays cut when sheets are laid anew, until the name is written otherwise; the
// next is the first that is not cut, and those that are left out take no paper.
func TestWhatIsCutForNamesIsKnown(t *testing.T) {
	f := start(t)
	id := f.named()
	v := f.names(id)
	assert.Nil(t, v.Sheets, "one card is laid")
	assert.Equal(t, "n1", v.Next)
	l, err := f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	require.Len(t, l.Sheets, 2)

	f.change(id, card.LayNames{All: true})
	v = f.names(id)
	require.NotNil(t, v.Sheets)
	assert.Equal(t, []int{4, 8}, []int{v.Sheets.Cards, v.Sheets.Pieces})
	assert.Less(t, v.Sheets.Sheets, v.Sheets.Apart)
	assert.Positive(t, v.Sheets.Seconds)
	l, err = f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	require.Equal(t, "B. Quillfeather", v.Rows[2].Short)

	// The labels of all are on the last sheet, the base of the first name on the first.
	labels := len(l.Sheets)
	require.Len(t, l.Sheets[labels-1].Pieces, 4)
	row := l.Sheets[0].Pieces[0].Row
	require.Len(t, l.Sheets[0].Pieces, 1)
	f.runs(id, labels)
	assert.Equal(t, []app.NameStage{app.NamePart, app.NamePart, app.NamePart, app.NamePart}, stages(f.names(id)))
	f.runs(id, 1)
	v = f.names(id)
	for _, r := range v.Rows {
		if r.Row == row {
			assert.Equal(t, app.NameCut, r.Stage)
		} else {
			assert.Equal(t, app.NamePart, r.Stage)
		}
	}
	assert.NotEqual(t, row, v.Next)

	// Another name comes: sheets are laid anew, and what is cut stays cut, after a restart too.
	f.change(id, card.SetCell{Column: "Name", Text: "Araminta Dove"})
	f.App = f.again()
	v = f.names(id)
	require.Len(t, v.Rows, 5)
	for _, r := range v.Rows[:4] {
		assert.NotEqual(t, app.NameWaits, r.Stage, r.Row)
	}
	assert.Equal(t, app.NameWaits, v.Rows[4].Stage)
	// A name that is written otherwise has to be cut again; one that is left out is on no sheet.
	out := true
	f.change(id, card.SetCell{Row: row, Column: "Name", Text: "Somebody Else"}, card.SetRow{Row: "n5", Out: &out})
	v = f.names(id)
	for _, r := range v.Rows {
		switch r.Row {
		case row:
			assert.Equal(t, app.NameWaits, r.Stage)
		case "n5":
			assert.Equal(t, app.NameOut, r.Stage)
		}
	}
	l, err = f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	for _, sh := range l.Sheets {
		for _, p := range sh.Pieces {
			assert.NotEqual(t, "n5", p.Row)
		}
	}
}

// The card of a name that does not fit is told on that name alone, and as one finding of the card.
func TestNamesThatDoNotFitAreTold(t *testing.T) {
	f := start(t)
	id := f.named()
	f.change(id, card.SetCell{Row: "n3", Column: "Name", Text: "Maximilianus-Bartholomaeus Quillfeather-Marchbanks of the Seventh Allotment"}, card.SetCell{Row: "n2", Column: "Name", Text: ""})
	v := f.names(id)
	assert.Empty(t, v.Rows[0].Wrong)
	require.Len(t, v.Rows[1].Wrong, 1)
	assert.Equal(t, "The list says nothing in “Name”.", v.Rows[1].Wrong[0].Why)
	require.Len(t, v.Rows[2].Wrong, 1)
	assert.EqualValues(t, "overfull", v.Rows[2].Wrong[0].Check)
	assert.Equal(t, "too long", v.Rows[2].Wrong[0].Short)
	whole, err := f.Check(t.Context(), id)
	require.NoError(t, err)
	var ids []string
	for _, k := range whole.Findings {
		ids = append(ids, string(k.Check))
	}
	assert.ElementsMatch(t, []string{"nameFits", "emptyFields"}, ids)
}

// Cells that are called as a stock or a picture is stand for it.
func TestWhatCellsStandForIsKnownByName(t *testing.T) {
	f := start(t)
	id := f.named()
	raw, _ := coretest.Photo(t, 60, 40)
	p, err := f.BringIn(t.Context(), "Gate_at_dusk.jpg", raw)
	require.NoError(t, err)
	f.change(id, card.SetCell{Row: "n1", Column: "Name", Text: "gate at dusk"}, card.SetCell{Row: "n2", Column: "Name", Text: "Moss"})
	means, err := f.Meanings(t.Context(), id, card.PhotoByName, "Name")
	require.NoError(t, err)
	assert.Equal(t, []card.ByValue{{Cell: "gate at dusk", Means: p.ID, PixelWidth: 60, PixelHeight: 40}}, means)
	means, err = f.Meanings(t.Context(), id, card.StockByName, "Name")
	require.NoError(t, err)
	assert.Equal(t, []card.ByValue{{Cell: "Moss", Means: "moss-216"}}, means)
	_, err = f.Meanings(t.Context(), id, card.StockByName, "Age")
	require.ErrorIs(t, err, app.ErrNotFound)
	require.NotEmpty(t, f.names(id).CanDiffer)
}

// The picture of a name's card, the print of a sheet and the guide are those of that name.
func TestCardsForNamesAreSeenPrintedAndPutTogether(t *testing.T) {
	f := start(t)
	id := f.named()
	f.change(id, card.LayNames{All: true}, card.ShowName{Row: "n2"})
	look := func(row string) image.Image {
		raw, err := f.NameFace(t.Context(), id, row, card.Front)
		require.NoError(t, err)
		img, err := png.Decode(bytes.NewReader(raw))
		require.NoError(t, err)
		return img
	}
	assert.NotEqual(t, look("n1"), look("n4"))
	_, err := f.NameFace(t.Context(), id, "n9", card.Front)
	assert.ErrorIs(t, err, app.ErrNotFound)
	_, err = f.NameFace(t.Context(), id, "n1", "lid")
	assert.ErrorIs(t, err, app.ErrNotFound)

	l, err := f.Layout(t.Context(), id, letter())
	require.NoError(t, err)
	last := l.Sheets[len(l.Sheets)-1]
	// Each label is printed with the letters of its own name, and no other.
	for _, p := range last.Pieces {
		r := f.names(id).Rows
		require.Len(t, r, 4)
		ink := geom.Rect{}
		area := 0.0
		for _, k := range p.Inks {
			ink = ink.Union(k.Region.Bounds())
			area += k.Region.Area()
		}
		doc, err := f.Open(t.Context(), id)
		require.NoError(t, err)
		made, _ := doc.Card.ForName(p.Row)
		_, it := made.Find("i2")
		set, err := lettering.Set(*it.Words)
		require.NoError(t, err)
		assert.InDelta(t, set.Outline.Area(), area, 1e-3, p.Name)
	}
	raw, err := f.SheetInk(t.Context(), id, letter(), last.Number)
	require.NoError(t, err)
	img, err := png.Decode(bytes.NewReader(raw))
	require.NoError(t, err)
	assert.Equal(t, 1397, img.Bounds().Dy())

	guide, err := f.Assembly(t.Context(), id, "in")
	require.NoError(t, err)
	cuts := 0
	for _, h := range guide.Hand {
		assert.Contains(t, []string{"base", "i1"}, h.Item)
		cuts++
	}
	assert.Equal(t, 2, cuts, "the guide is that of one card")

	var b bytes.Buffer
	require.NoError(t, f.NamesCSV(t.Context(), id)(&b))
	rows, err := csv.NewReader(&b).ReadAll()
	require.NoError(t, err)
	assert.Equal(t, append([][]string{members().Columns}, members().Rows...), rows)
	plain := f.card()
	assert.ErrorIs(t, f.NamesCSV(t.Context(), plain)(&b), app.ErrNotFound)
	_, err = f.Names(t.Context(), plain, letter())
	assert.ErrorIs(t, err, app.ErrNotFound)
}

// What was cut is not taken for uncut because the store does not answer, and a question that nobody waits
// for is not worked out.
func TestNamesOnAFailingStore(t *testing.T) {
	f := start(t)
	id := f.named()
	f.change(id, card.LayNames{All: true})
	s := f.onFaulty()
	_, err := f.Names(t.Context(), id, letter())
	require.NoError(t, err)
	s.fail("kept")
	_, err = f.Names(t.Context(), id, letter())
	require.ErrorIs(t, err, errDisk)
	s.fail()
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	f.change(id, card.SetCell{Row: "n1", Column: "Name", Text: "Noor"})
	_, err = f.Layout(ctx, id, letter())
	assert.ErrorIs(t, err, context.Canceled)
}

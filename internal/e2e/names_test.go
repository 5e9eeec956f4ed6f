package e2e

import (
	"bytes"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"github.com/xuri/excelize/v2"

	"sectilis/core/coretest/sheettest"
	"sectilis/core/document/card"
	"sectilis/core/production/sheet"
	"sectilis/internal/browser"
)

// listed is a card of one label with words on it, in the browser on the page of names.
func listed(t *testing.T) table {
	t.Helper()
	words := card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Greeting", Kind: card.Lettering, Place: card.Place{X: 2.5 * in, Y: 3 * in}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#7d2f1d"},
		Words: &card.Words{Text: "Noor Haldane", Font: "pacifico-400", Size: 8, Leading: 1.2, Align: card.AlignCentre}}}}
	label := card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Label", Kind: card.Shape, Place: card.Place{X: 2.5 * in, Y: 3 * in}, Made: card.Made{As: card.Cut, Stock: "honey-216"},
		Form: &card.Form{Outline: "scallop", Width: 3.5 * in, Height: 1.5 * in}}}}
	h := lay(t, label, words)
	h.click("for-names")
	h.there("list-in")
	return h
}

// A person pastes a list, takes the first row for what it is, makes a field of the name that stands on the
// card, sees who does not fit, mends it, lets the stock follow a column, and lays all on sheets.
func TestACardIsMadeForAList(t *testing.T) {
	h := listed(t)
	h.put("list-text", "Noor Haldane,north\nIda Quince,south\nMaximilianus-Bartholomaeus Quillfeather-Marchbanks of the Seventh Allotment,north\n")
	h.click("list-take")
	h.says("for-names", "for 3 names")
	h.wait(`document.querySelectorAll('[data-testid=name-card]').length === 3`)
	// The words say one name on all cards: that is told, and made a field.
	h.says("fields", "says “Noor Haldane” on all 3 cards")
	h.click("say-each")
	h.says("field-chip", "Name")
	h.says("fit-least", "14 pt")
	h.wait(`document.querySelector('[data-testid=name-n3] .s').textContent === 'too long'`)
	h.click("names-wrong")
	h.wait(`document.querySelectorAll('[data-testid=name-card]').length === 1`)
	h.must(h.Click("[data-card=n3]"))
	h.says("name-chosen", "Maximilianus")
	h.click("name-smaller")
	h.wait(`!document.querySelector('[data-testid=names-wrong]') && document.querySelectorAll('[data-testid=name-card]').length === 3`)
	h.click("name-say")
	h.put("say-Name", "M. Quillfeather")
	h.click("say-do")
	h.wait(`!document.querySelector('[data-testid=say-form]')`)
	h.click("name-plain")
	h.wait(`document.querySelector('[data-testid=name-n3] .s').textContent === 'too long'`)
	h.click("name-lines")
	h.wait(`document.querySelector('[data-testid=name-n3] .s').textContent === ''`)

	// A cell is written in place; Enter goes down, and on to a new name.
	h.must(h.Fill(`[data-cell="1.0"]`, "Ida Quill")) // and Enter
	h.wait(`document.activeElement.dataset.cell === '2.0'`)
	h.keys(kb.ArrowDown)
	h.wait(`document.activeElement.dataset.cell === '3.0'`)
	h.keys("Odalys Fernsby" + kb.Enter)
	h.says("for-names", "for 4 names")
	h.wait(`document.activeElement.dataset.cell === '4.0' && document.activeElement.value === ''`)
	v, err := h.app.App.Open(t.Context(), h.id)
	require.NoError(t, err)
	assert.Equal(t, []string{"Ida Quill", "south"}, v.Card.Names.Rows[1].Cells)
	assert.Equal(t, []string{"Odalys Fernsby", ""}, v.Card.Names.Rows[3].Cells)

	// The stock of the label follows the second column.
	h.click("column-Column 2")
	h.put("column-name", "Lane")
	h.keys(kb.Enter)
	h.there("column-Lane")
	h.click("differ-add")
	h.choose("differ-column", "Lane")
	h.click("differ-do")
	h.choose("means-south", "Sage card 216 g")
	h.wait(`document.querySelector('[data-testid=means-south]').textContent.includes('Sage')`)

	h.click("lay-all")
	h.says("sheet-count", "sheets")
	h.wait(`location.pathname.endsWith('/sheets') && document.querySelectorAll('[data-testid^="piece-i1@"]').length === 4`)
	h.wait(`[...document.querySelectorAll('[data-testid^=sheet-] figcaption')].some(f => f.textContent.includes('Sage'))`)
	h.wait(`!!document.querySelector('image[href*="/ink.png"]')`)
	h.segment("lay-names", "One card")
	h.wait(`document.querySelectorAll('[data-testid^="piece-i1"]').length === 1`)

	// Without its list it is a card with the words that are shown.
	h.click("for-names")
	h.click("list-off")
	h.there("list-in")
	v, err = h.app.App.Open(t.Context(), h.id)
	require.NoError(t, err)
	assert.Nil(t, v.Card.Names)
	h.click("undo")
	h.says("for-names", "for 4 names")
}

// A workbook is brought in; a word that is pointed at becomes a field with what is said before it; what is
// cut for a name is told.
func TestAWorkbookBecomesCardsThatAreCut(t *testing.T) {
	h := listed(t)
	f := excelize.NewFile()
	for i, row := range [][]any{{"Name", "Guest"}, {"Noor", "Ida"}, {"Odalys", ""}} {
		at, err := excelize.CoordinatesToCellName(1, i+1)
		require.NoError(t, err)
		require.NoError(t, f.SetSheetRow("Sheet1", at, &row))
	}
	var b bytes.Buffer
	require.NoError(t, f.Write(&b))
	file := filepath.Join(t.TempDir(), "members.xlsx")
	require.NoError(t, os.WriteFile(file, b.Bytes(), 0o600))
	h.must(h.Upload(browser.ID("list-input"), file))
	h.says("names-list", "members.xlsx")
	h.wait(`document.querySelector('[data-testid=list-headings]').checked`)
	h.click("list-headings")
	h.says("for-names", "for 3 names")
	h.click("list-headings")
	h.says("for-names", "for 2 names")

	h.must(h.Click("[data-testid=fields-text] .word"))
	h.says("field-form", "“Noor” stands for")
	h.click("field-make")
	h.says("field-chip", "Name")
	h.must(h.Click("[data-testid=fields-text] .word"))
	h.choose("field-column", "Guest")
	h.put("field-before", "& ")
	h.click("field-make")
	h.wait(`document.querySelectorAll('[data-testid=field-chip]').length === 2`)
	h.says("fields-text", "& Guest, if any")
	v, err := h.app.App.Open(t.Context(), h.id)
	require.NoError(t, err)
	require.Len(t, v.Card.Names.Rows, 2)
	for i, says := range []string{"Noor & Ida", "Odalys"} {
		made, ok := v.Card.ForName(v.Card.Names.Rows[i].ID)
		require.True(t, ok)
		_, it := made.Find("i2")
		assert.Equal(t, says, it.Words.Text)
	}

	h.click("lay-all")
	h.wait(`location.pathname.endsWith('/sheets') && document.querySelectorAll('[data-testid^="piece-i1@"]').length === 2`)
	h.click("print")
	h.says("print-note", "printed")
	h.click("station-machine")
	last := got(h.app.App.Layout(t.Context(), h.id, sheettest.Usual(sheet.Sizes()[0])))
	n := len(last.Sheets)
	h.click("run-" + string(rune('0'+n)))
	h.click("cut")
	h.says("run-state-"+string(rune('0'+n)), "done")
	h.click("for-names")
	h.wait(`[...document.querySelectorAll('[data-testid=names-list] td.s')].filter(c => c.textContent === 'cut in part').length === 2`)
	h.says("cut-so-far", "Cut so far: 0 of 2")
}

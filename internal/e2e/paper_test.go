package e2e

import (
	"strings"
	"testing"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/document/pattern"
	"sectilis/core/production/sheet"
	"sectilis/internal/browser"
)

func TestAnA4SheetFoldedToA5IsItsOwnSheet(t *testing.T) {
	h := lay(t, card.PlaceItems{Face: card.Front, Items: []card.Item{{
		Name: "Ground", Kind: card.Shape, Place: card.Place{X: 2.5 * in, Y: 3.5 * in}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#35658c"},
		Form: &card.Form{Outline: card.Rectangle, Width: 4 * in, Height: 5 * in, Corner: card.Square},
	}}})
	h.must(h.Go("/cards/" + h.id + "/base"))
	h.there("net")
	h.choose("closed", "A5 ISO")
	h.says("about", "side fold")
	h.must(h.Go("/cards/" + h.id + "/sheets"))
	h.says("finding-noRoom", "too large for Letter")
	h.click("offer")
	h.says("finding-laidOtherwise", "The base is a whole A4 sheet: nothing is cut round it")
	h.says("finding-laidOtherwise", "Its ink ends")
	h.wait(`!document.querySelector('[data-testid=finding-noRoom]')`)
	l, err := h.app.App.Layout(h.Context(), h.id, options(h))
	require.NoError(t, err)
	require.Len(t, l.Sheets, 1)
	assert.True(t, l.Sheets[0].Whole)
	assert.Len(t, l.Sheets[0].Pieces[0].Lines, 1, "the fold is scored, nothing is cut")
}

// options are those that the card's sheets are laid by.
func options(h table) sheet.Options {
	h.Helper()
	v, err := h.app.App.Open(h.Context(), h.id)
	h.must(err)
	opt, err := sheet.OptionsOf(v.Card.SheetsOf())
	h.must(err)
	return opt
}

func TestATiedSetThatIsTooLargeIsToldAndUntied(t *testing.T) {
	bar := func(name string, y float64) card.Command {
		return card.PlaceItems{Face: card.Front, Items: []card.Item{{
			Name: name, Kind: card.Shape, Place: card.Place{X: 2.5 * in, Y: y * in}, Made: card.Made{As: card.Cut, Stock: "moss-216"},
			Form: &card.Form{Outline: card.Rectangle, Width: 4 * in, Height: in, Corner: card.Square},
		}}}
	}
	h := lay(t, bar("A", 1), bar("B", 3), card.TiePieces{Pieces: []card.Laid{{Piece: "i1"}, {Piece: "i2", Place: card.Place{Y: 8 * in}}}})
	h.must(h.Go("/cards/" + h.id + "/sheets"))
	h.there("sheet-count")
	h.wait(`!document.querySelector('[data-testid=finding-laidOtherwise]')`)
	// The pieces grow, and the set with them.
	h.must(h.Go("/cards/" + h.id + "/panels"))
	h.there("layer-i1")
	h.click("layer-i1")
	h.there("ratio")
	for _, id := range []string{"i1", "i2"} {
		h.click("layer-" + id)
		h.fill("height", "2 1/2")
	}
	h.must(h.Go("/cards/" + h.id + "/sheets"))
	h.says("finding-laidOtherwise", "As a tied set, “A” and “B” is")
	h.wait(`!document.querySelector('[data-testid=finding-noRoom]')`)
	h.click("mend")
	h.wait(`!document.querySelector('[data-testid=finding-laidOtherwise]')`)
	v, err := h.app.App.Open(h.Context(), h.id)
	require.NoError(t, err)
	assert.Empty(t, v.Card.Ties)
}

func TestAFlatCardHasAFrontAndABack(t *testing.T) {
	h := lay(t, words("Greetings", 3))
	h.must(h.Go("/cards/" + h.id + "/base"))
	h.there("net")
	h.click("kind-flat")
	h.says("about", "flat card")
	h.choose("closed", "Postcard")
	h.says("verdict", "Nothing sticks out")
	h.click("to-panels")
	h.there("surface")
	h.wait(`[...document.querySelectorAll('.map [role=button]')].length === 2`)
	h.wait(`!document.querySelector('[data-testid=opening]')`)
	h.must(h.Go("/cards/" + h.id + "/sheets"))
	h.says("sheet-count", "1 sheet")
	l, err := h.app.App.Layout(h.Context(), h.id, options(h))
	require.NoError(t, err)
	require.Len(t, l.Sheets, 1)
	box := l.Sheets[0].Pieces[0].Outline.Bounds()
	assert.InDelta(t, 4*in, min(box.W, box.H), .01)
	assert.Len(t, l.Sheets[0].Pieces[0].Lines, 1, "an outline and no fold")
}

func TestASheetWithNothingToCutDoesNotGoIntoTheMachine(t *testing.T) {
	h := lay(t)
	h.must(h.Go("/cards/" + h.id + "/base"))
	h.there("net")
	h.click("kind-flat")
	h.says("about", "flat card")
	h.choose("closed", "12-inch page")
	h.must(h.Go("/cards/" + h.id + "/sheets"))
	h.choose("paper", "12-inch square")
	h.says("finding-laidOtherwise", "The base is a whole 12-inch square sheet")
	h.click("station-machine")
	h.says("headline", "Nothing on sheet 1 is cut")
	h.wait(`document.querySelector('[data-testid=cut]').disabled`)
}

// A picture becomes a paper of one's own: its size is told, its seam found and mended, and it is laid as
// those that ship are; changed, it changes on the card.
func TestAPictureBecomesAPaper(t *testing.T) {
	h := lay(t)
	h.click("tab-papers")
	h.must(h.Upload(browser.ID("paper-input"), photo(t)))
	h.says("paper-seam", "a seam shows where it repeats")
	assert.Equal(t, "true", got(browser.Eval[string](h.Page, `document.querySelector('[data-testid=paper-mirrored]').getAttribute('aria-checked')`)))
	h.put("paper-width", "60 mm")
	h.says("paper-width", "2 ⅜ in")
	h.click("paper-keep")
	h.wait(`!!document.querySelector('.supply.paper[title="Allotment gate"]')`)
	h.must(h.Click(`.supply.paper[title="Allotment gate"]`))
	h.click("surface")
	it := h.item(2, "i1")
	require.True(t, strings.HasPrefix(it.Fill.Paper, "own-"))
	paper, ok := pattern.ByID(it.Fill.Paper)
	require.True(t, ok)
	assert.InDelta(t, 60, paper.Width, 1e-9)
	assert.InDelta(t, 40, paper.Height, .01)
	assert.True(t, paper.Mirrored)
	h.wait(`document.querySelectorAll('#paper-' + CSS.escape(` + "`" + it.Fill.Paper + "`" + `) + ' image').length === 4`)
	h.keys(kb.Escape)
	_, err := browser.Eval[bool](h.Page, `(document.querySelector('.supply.paper[title="Allotment gate"]').focus(), true)`)
	h.must(err)
	h.keys(kb.F2)
	h.there("about-supply")
	h.click("about-paper")
	h.put("paper-width", "30 mm")
	h.click("paper-mirrored")
	h.click("paper-keep")
	h.wait(`document.querySelectorAll('#paper-' + CSS.escape(` + "`" + it.Fill.Paper + "`" + `) + ' image').length === 1`)
	// Out of the tray, it is on the card still.
	_, err = browser.Eval[bool](h.Page, `(document.querySelector('.supply.paper[title="Allotment gate"]').focus(), true)`)
	h.must(err)
	h.keys(kb.F2)
	h.click("about-paper")
	h.click("paper-remove")
	h.wait(`!document.querySelector('.supply.paper[title="Allotment gate"]')`)
	h.click("layer-i1")
	h.says("fill", "Allotment gate")
	h.wait(`!!document.querySelector('#paper-' + CSS.escape(` + "`" + it.Fill.Paper + "`" + `) + ' image')`)
	h.must(h.Upload(browser.ID("paper-input"), saved(t, "words.jpg", []byte("no picture"))))
	h.says("paper-refused", "no picture that can be read")
}

package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"

	"sectilis/core/document/card"
	"sectilis/internal/browser"
)

// headline is a cut label with words over it: i1 and i2.
func headline(t *testing.T) table {
	label := card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Label", Kind: card.Shape, Place: card.Place{X: 2.5 * in, Y: 3 * in},
		Made: card.Made{As: card.Cut, Stock: "white-216", Bleed: 1}, Fill: card.Fill{Colour: "#587a4a"}, Form: &card.Form{Outline: card.Rectangle, Width: 100, Height: 60, Corner: card.Square}}}}
	return lay(t, label, card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Words", Kind: card.Lettering, Place: card.Place{X: 2.5 * in, Y: 3 * in},
		Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#fff6e0"},
		Words: &card.Words{Text: "Orchard day", Font: "alfa-slab-one-400", Size: 14, Leading: 1.2, Align: card.AlignCentre}}}})
}

// A headline is set on an arc, carved out of its label and held by bridges; it is cut so on
// the sheet.
func TestAHeadlineOnAnArcIsCutWithBridges(t *testing.T) {
	h := headline(t)
	h.click("layer-i2")
	h.choose("lie", "on an arc")
	h.fill("bend", "70")
	assert.InDelta(t, 70, h.item(3, "i2").Words.Path.Bend, 1e-9)
	h.click("carve-words")
	h.says("layer-i2", "carved out of Label")
	h.says("layer-i1", "has 5 loose middles")
	h.wait(`document.querySelectorAll('[data-testid=island]').length === 5`)
	h.says("middles-told", "5 fall out")
	h.segment("middles", "Bridges")
	h.says("middles-told", "all held")
	h.wait(`!document.querySelector('[data-testid=island]')`)
	assert.Equal(t, card.FirstBridges(), h.item(5, "i1").Made.Islands)
	h.fill("bridges-each", "3")
	h.fill("bridges-width", "1.2 mm")
	it := h.item(7, "i1")
	assert.Equal(t, 3, it.Made.Islands.Each)
	assert.InDelta(t, 1.2, it.Made.Islands.Width, 1e-6)

	// The words stay words: others are carved and held in their place.
	h.must(h.DoubleClick(`[data-testid="item-i2"] rect`))
	h.there("words-editor")
	h.keys("Apple day" + kb.Escape)
	assert.Equal(t, "Apple day", h.item(8, "i2").Words.Text)
	h.says("middles-told", "all held")

	h.must(h.Go("/cards/" + h.id + "/sheets"))
	h.says("sheet-count", "sheets")
	lines := 0
	for n := 1; n <= 2; n++ {
		lines += strings.Count(string(h.fetch(fmt.Sprintf("/api/cards/%s/sheets/%d/lines.svg", h.id, n))), "M")
	}
	assert.Greater(t, lines, 12, "the letters are cut")
}

// A bridge is dragged along its middle, moved with keys, taken away, and added with a double
// click; it stays with its letter when the words are written on. In the stack the words are a
// part of their label.
func TestBridgesAreMovedByHandAndStayWithTheirLetters(t *testing.T) {
	h := headline(t)
	h.click("layer-i2")
	h.click("carve-words")
	h.segment("middles", "Bridges")
	h.says("middles-told", "all held")
	h.front(3)
	dots := func(n int) {
		t.Helper()
		h.wait(fmt.Sprintf(`document.querySelectorAll('[data-testid=bridge-handles] circle').length === %d`, n))
	}
	dots(10)
	x, y, err := h.Middle(browser.ID("bridge-0"))
	h.must(err)
	h.must(h.Drag(x, y, x+60, y-3)) // across its middle, to the far side
	placed := h.item(4, "i2").Bridges
	assert.Len(t, placed, 2, "both of its middle")
	dots(10)
	h.wait(`document.querySelectorAll('[data-testid=bridge-handles] circle.own').length === 2`)

	h.must(h.Do(chromedp.Focus(browser.ID("bridge-0"))))
	h.keys(kb.ArrowRight)
	moved := h.item(5, "i2").Bridges
	assert.NotEqual(t, placed, moved)
	h.must(h.Do(chromedp.Focus(browser.ID("bridge-0"))))
	h.keys(kb.Delete)
	assert.Len(t, h.item(6, "i2").Bridges, 1)
	dots(9)
	h.must(h.Do(chromedp.Focus(browser.ID("bridge-0"))))
	h.keys(kb.Delete)
	h.tells("only bridge")

	// The words are written on: the bridge is on the same letter.
	h.must(h.DoubleClick(`[data-testid="item-i2"] rect`))
	h.there("words-editor")
	h.keys(kb.Home + "My " + kb.Escape)
	it := h.item(7, "i2")
	assert.Equal(t, "My Orchard day", it.Words.Text)
	assert.Len(t, it.Bridges, 1)
	assert.Equal(t, 3, it.Bridges[0].Letter)

	h.click("bridges-anew")
	assert.Empty(t, h.item(8, "i2").Bridges)

	// Folded away in the stack, and opened again.
	h.click("parts-i1")
	h.wait(`!document.querySelector('[data-testid=layer-i2]')`)
	h.click("parts-i1")
	h.there("layer-i2")
}

// Letters that are chosen where they stand, on an arc too, are set by themselves; what is typed
// before them leaves them so.
func TestLettersAreChosenWhereTheyStand(t *testing.T) {
	h := headline(t)
	h.click("layer-i2")
	h.choose("lie", "on an arc")
	h.front(2)
	h.must(h.DoubleClick(`[data-testid="item-i2"] rect`))
	h.there("words-editor")
	h.keys(kb.Home)
	for range 7 {
		h.keys(kb.ArrowRight, chromedp.KeyModifiers(chromedp.ModifierShift))
	}
	h.says("letters-which", "“Orchard”")
	h.there("letters-chosen")
	h.segment("letters-stand", "Raised")
	assert.Equal(t, []card.Run{{From: 0, To: 7, Style: card.Style{Stand: card.RaisedLetters}}}, h.item(3, "i2").Words.Runs)
	h.fill("letters-scale", "150")
	assert.InDelta(t, 1.5, h.item(4, "i2").Words.Runs[0].Scale, 1e-9)

	// A click puts the caret between letters, a double click chooses a word.
	h.must(h.Click(`[data-testid="words-carets"] .frame`))
	h.keys(kb.End)
	h.wait(`!document.querySelector('[data-testid=letters-chosen]')`)
	x, y, err := h.Middle(browser.ID("caret"))
	h.must(err)
	h.must(h.Do(chromedp.MouseClickXY(x-9, y, chromedp.ClickCount(2))))
	h.says("letters-which", "“day”")
	h.keys("night" + kb.Escape)
	it := h.item(5, "i2")
	assert.Equal(t, "Orchard night", it.Words.Text)
	assert.Equal(t, 7, it.Words.Runs[0].To)

	h.click("letters-open")
	h.choose("colour-by", "letter by letter")
	h.item(6, "i2")
	h.click("letters-apart")
	f := h.front(7)
	var names []string
	for _, it := range f.Items {
		if it.Group != "" {
			names = append(names, it.Name)
		}
	}
	assert.Equal(t, "Orchardnight", strings.Join(names, ""))
}

// Words are laid in a box and along another item, and say when they have no room.
func TestWordsHaveABoxOrALine(t *testing.T) {
	h := headline(t)
	h.click("layer-i2")
	h.choose("lie", "in a box")
	h.fill("box-width", "40 mm")
	h.click("box-limit")
	h.front(4)
	h.fill("box-height", "15 mm")
	h.says("layer-i2", "is larger than its box")
	h.click("mend")
	h.wait(`!document.querySelector('[data-testid=finding]')`)
	it := h.item(6, "i2")
	assert.True(t, it.Words.Box.Fit)
	h.click("box-fit")
	h.item(7, "i2")
	h.click("layer-i1")
	h.must(h.Do(chromedp.MouseEvent("mouseMoved", 5, 5)))
	h.keys("a", ctrl)
	h.says("selected-name", "2 items")
	h.click("lay-along")
	it = h.item(8, "i2")
	assert.NotNil(t, it.Words.Path.Line)
	assert.Nil(t, it.Words.Box)
}

// A thin script that is cut says how thin it is, and is grown there by its mend.
func TestAThinScriptIsToldAndThickened(t *testing.T) {
	h := lay(t, card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Script", Kind: card.Lettering, Place: card.Place{X: 2.5 * in, Y: 3 * in},
		Made: card.Made{As: card.Cut, Stock: "brick-216"}, Words: &card.Words{Text: "Harvest", Font: "great-vibes-400", Size: 26, Leading: 1.1, Align: card.AlignCentre}}}})
	h.says("layer-i1", "wide in places")
	h.click("layer-i1")
	h.says("thin-told", "least is 1.20")
	h.wait(`document.querySelectorAll('[data-testid=thin]').length > 3`)
	h.click("mend")
	h.wait(`!document.querySelector('[data-testid=thin]')`)
	assert.True(t, h.item(2, "i1").Made.Thicken)
	h.says("layer-i1", "Brick")
	h.click("thicken")
	h.says("thin-told", "least is 1.20")
	assert.False(t, h.item(3, "i1").Made.Thicken)
}

// The tray shows the chosen words in every face, and faces by what is measured of them; what
// was carved is made one outline.
func TestFacesShowTheWordsAndAreFoundByTheirStrokes(t *testing.T) {
	h := headline(t)
	h.click("tab-lettering")
	h.says("supply-lettering-nunito-400", "Nunito")
	h.click("layer-i2")
	h.says("supply-lettering-nunito-400", "Orchard day")
	h.says("supply-lettering-nunito-400", "Nunito")
	h.click("faces-joined")
	h.wait(`document.querySelectorAll('[data-testid^=supply-lettering]').length === 3`)
	h.there("supply-lettering-pacifico-400")
	h.click("faces-thick")
	h.there("supply-lettering-alfa-slab-one-400")
	h.wait(`!document.querySelector('[data-testid=supply-lettering-nunito-400]')`)

	h.click("carve-words")
	h.click("one-outline")
	f := h.front(3)
	assert.Len(t, f.Items, 1)
	assert.Equal(t, card.Free, f.Items[0].Form.Outline)
	h.keys("z", ctrl)
	assert.Equal(t, card.Carved, h.item(4, "i2").Made.As)
}

// What opens the parts of a piece stays where it is while the pointer comes to it and the row shows its marks.
func TestTheChipOfPartsDoesNotMoveAwayFromThePointer(t *testing.T) {
	h := headline(t)
	h.click("layer-i2")
	h.click("carve-words")
	h.says("layer-i2", "carved out of Label")
	h.keys(kb.Escape + kb.Escape)
	h.wait(`document.querySelector('[data-testid=parts-i1]').getAttribute('aria-expanded') === 'false'`)
	x, y, err := h.Middle(browser.ID("parts-i1"))
	h.must(err)
	h.must(h.Do(chromedp.MouseEvent(chromedp.MouseMoved, x, y)))
	h.there("hide-i1")
	after, _, err := h.Middle(browser.ID("parts-i1"))
	h.must(err)
	assert.InDelta(t, x, after, .5)
	h.click("parts-i1")
	h.there("layer-i2")
}

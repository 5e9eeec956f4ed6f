package e2e

import (
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"

	"sectilis/core/coretest/fonttest"
	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/internal/browser"
)

// A font of one's own is brought in, stands first in the tray, sets words and tells its rights;
// what is no font says so.
func TestAFontOfOnesOwnSetsWords(t *testing.T) {
	h := headline(t)
	h.click("tab-lettering")
	raw := lettering.File("great-vibes-400")
	h.must(h.Upload(browser.ID("font-input"), saved(t, "Grandmother.woff", raw), saved(t, "Letter.ttf", []byte("this is no font, only words"))))
	h.wait(`!!document.querySelector('[data-testid^=supply-lettering-own-]')`)
	h.says("refused", "“Letter.ttf” is no font")
	first, err := browser.Eval[string](h.Page, `document.querySelector('[data-testid^=supply-lettering-]').dataset.testid`)
	h.must(err)
	id := strings.TrimPrefix(first, "supply-lettering-")
	assert.True(t, strings.HasPrefix(id, "own-"), "it stands first")
	h.wait(`[...document.fonts].some(f => f.family.includes('` + id + `') && f.status !== 'error')`)

	h.click("layer-i2")
	h.choose("font", "Great Vibes")
	assert.Equal(t, id, h.item(2, "i2").Words.Font)

	_, err = browser.Eval[bool](h.Page, `(() => { document.querySelector('[data-testid="supply-lettering-`+id+`"]').focus(); return true })()`)
	h.must(err)
	h.keys(kb.F2)
	h.there("about-supply")
	h.says("font-rights", "allows embedding")
	h.click("about-remove")
	h.wait(`!document.querySelector('[data-testid="supply-lettering-` + id + `"]')`)
}

// A letter gets another of the forms that its font has, from a picture of all of them; a bar
// below holds the words together.
func TestALetterGetsAnotherForm(t *testing.T) {
	h := headline(t)
	h.click("tab-lettering")
	raw := fonttest.WithAlternates(t, lettering.File("alfa-slab-one-400"), 'd', 'g', 'q')
	h.must(h.Upload(browser.ID("font-input"), saved(t, "Signs.ttf", raw)))
	h.wait(`!!document.querySelector('[data-testid^=supply-lettering-own-]')`)
	h.click("layer-i2")
	h.choose("font", "Alfa Slab One")
	own := h.item(2, "i2").Words.Font
	assert.True(t, strings.HasPrefix(own, "own-"))

	h.must(h.DoubleClick(`[data-testid="item-i2"] rect`))
	h.there("words-editor")
	h.keys(kb.End + kb.ArrowLeft + kb.ArrowLeft)
	h.keys(kb.ArrowLeft, chromedp.KeyModifiers(chromedp.ModifierShift))
	h.says("letters-which", "“d”")
	h.there("form-2")
	h.click("form-2")
	assert.Equal(t, []card.Run{{From: 8, To: 9, Style: card.Style{Alternate: 2}}}, h.item(3, "i2").Words.Runs)
	h.wait(`document.querySelector('[data-testid=form-2]').getAttribute('aria-checked') === 'true'`)
	h.keys(kb.Escape)

	h.click("layer-i2")
	h.click("letters-open")
	h.fill("bar", "1 mm")
	assert.InDelta(t, 1, h.item(4, "i2").Words.Bar, 1e-6)
}

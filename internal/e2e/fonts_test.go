package e2e

import (
	"strings"
	"testing"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"

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

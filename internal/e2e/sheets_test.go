package e2e

import (
	"fmt"
	"math"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest/sheettest"
	"sectilis/core/document/card"
	"sectilis/core/production/sheet"
	"sectilis/internal/browser"
	"sectilis/internal/testserver"
)

// Pieces are dragged, turned, tied, set apart and loosened on their sheets; a scrap is
// added and used.
func TestSheetsLaidByHand(t *testing.T) {
	app, err := testserver.Start(t.Context(), testserver.Options{Again: true, Data: filepath.Join(t.TempDir(), "cards.db")})
	require.NoError(t, err)
	defer app.Stop()
	c, err := card.New("Markers", card.Base{Kind: card.SideFold, Width: 5 * in, Height: 7 * in, Stock: "cream-300"})
	require.NoError(t, err)
	for k := range 5 {
		c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{{
			Name: fmt.Sprint("Marker ", k+1), Kind: card.Shape, Place: card.Place{X: 60, Y: 60},
			Made: card.Made{As: card.Cut, Stock: "moss-216"}, Form: &card.Form{Outline: "banner", Width: 60, Height: 30},
		}}})
		require.NoError(t, err)
	}
	id, err := app.App.Create(t.Context(), c)
	require.NoError(t, err)
	piece := func(name string) (sheet.Sheet, sheet.Piece) {
		l, err := app.App.Layout(t.Context(), id, sheettest.Usual(sheet.Sizes()[0]))
		require.NoError(t, err)
		for _, sh := range l.Sheets {
			for _, p := range sh.Pieces {
				if p.ID == name {
					return sh.Sheet, p
				}
			}
		}
		return sheet.Sheet{}, sheet.Piece{}
	}
	h := open(t, app.URL)
	h.must(h.Go("/cards/" + id + "/sheets"))
	h.there("piece-i1")
	drag := func(name string, dx, dy float64) {
		x, y, err := h.Middle(browser.ID(name))
		h.must(err)
		h.must(h.Drag(x, y, x+dx, y+dy))
	}

	drag("piece-i1", 60, 120)
	h.says("piece-note", "Laid by hand")
	_, was := piece("i1")
	require.True(t, was.ByHand)
	h.click("turn")
	h.wait(`document.querySelector('[data-testid=piece-turn]').value.startsWith('90')`)
	h.fill("piece-x", "3 in")
	require.Eventually(t, func() bool {
		_, is := piece("i1")
		return math.Abs(is.Box.X-3*in) < 1e-3 && math.Abs(is.Place.Turn-90) < 1e-6 && math.Abs(is.Place.Y-was.Place.Y) < 1e-3
	}, time.Minute, 20*time.Millisecond)
	h.wait(`document.querySelector('[data-testid=piece-x]').value === '3 in'`)
	h.click("undo")
	h.wait(`document.querySelector('[data-testid=piece-x]').value !== '3 in'`)

	// Two are tied, and go together onto a sheet of their own.
	h.must(h.Click(browser.ID("piece-i2")))
	x, y, err := h.Middle(browser.ID("piece-i3"))
	h.must(err)
	h.must(h.Do(
		chromedp.MouseEvent(chromedp.MousePressed, x, y, chromedp.ButtonLeft, chromedp.ButtonModifiers(chromedp.ModifierShift), chromedp.ClickCount(1)),
		chromedp.MouseEvent(chromedp.MouseReleased, x, y, chromedp.ButtonLeft, chromedp.ButtonModifiers(chromedp.ModifierShift), chromedp.ClickCount(1)),
	))
	h.click("tie")
	h.there("untie")
	h.click("apart-sheet")
	h.says("sheet-count", "3 sheets")
	a, _ := piece("i2")
	b, p3 := piece("i3")
	assert.Equal(t, a.Number, b.Number)
	assert.Equal(t, 1, p3.Tie)
	h.click("loosen")
	h.says("sheet-count", "2 sheets")

	// What lies on another piece, or is dropped on another stock, is said.
	first, err := browser.Eval[bool](h.Page, `!document.querySelector('[data-testid=laid-wrong]')`)
	h.must(err)
	assert.True(t, first)
	x1, y1, err := h.Middle(browser.ID("piece-i1"))
	h.must(err)
	x4, y4, err := h.Middle(browser.ID("piece-i4"))
	h.must(err)
	h.must(h.Click(browser.ID("piece-i4")))
	h.keys(kb.ArrowRight)
	h.says("piece-note", "Laid by hand")
	h.must(h.Drag(x4, y4, x1, y1))
	h.says("laid-wrong", "lies on")
	base, by, err := h.Middle(browser.ID("piece-base"))
	h.must(err)
	h.must(h.Drag(x1, y1, base, by))
	sh, _ := piece("i4")
	assert.Equal(t, "moss-216", sh.Stock.ID)

	h.click("scrap-add")
	h.fill("scrap-width", "6 in")
	h.fill("scrap-height", "4 in")
	h.click("scrap-keep")
	h.says("scraps", "used for Marker")
	h.says("sheet-count", "3 sheets")

	// A5 of the stock is enough; with the grain along the long side of it the markers that
	// are not laid by hand stand upright, as the fold of the card does.
	h.must(h.Click(browser.ID("piece-i5")))
	h.choose("on-hand-sizes", "A5")
	h.keys(kb.Escape)
	h.wait(`[...document.querySelectorAll('figcaption small')].some((e) => e.textContent.startsWith('A5'))`)
	h.choose("on-hand-direction", "Grain along the long side")
	h.says("on-hand-told", "main fold along the grain")
	require.Eventually(t, func() bool {
		a5 := 0
		for _, id := range []string{"i1", "i2", "i3", "i4", "i5"} {
			on, p := piece(id)
			if on.Size.ID == "a5" {
				a5++
			}
			if p.Tie == 0 && !p.ByHand && math.Abs(math.Mod(p.Place.Turn, 180)) > 1e-6 {
				return false
			}
		}
		return a5 > 0
	}, time.Minute, 20*time.Millisecond)

	// A size of the base's stock on which it has no room can be added to, or left again.
	h.must(h.Click(browser.ID("piece-base")))
	h.choose("on-hand-sizes", "4 × 6 in photo")
	h.keys(kb.Escape)
	h.says("finding-noRoom", "“Base” is 10 × 7 in")
	h.click("mend")
	h.wait(`!document.querySelector('[data-testid=finding-noRoom]')`)
	h.there("piece-base")
	on, _ := piece("base")
	assert.Equal(t, "letter", on.Size.ID)
}

// Several of a card are laid together, each piece of each; so many as cannot be laid are refused in a sentence,
// a card that is made next is laid once, and the guide is that of one.
func TestSeveralOfACardAreLaid(t *testing.T) {
	h := lay(t, square("Label", 2, 2))
	h.click("station-sheets")
	h.there("piece-i1")
	h.put("cards", "5")
	h.says("sheet-count", "6 sheets")
	h.wait(`document.querySelectorAll('[data-testid^="piece-i1@k"]').length === 5`)
	h.put("cards", "61")
	h.wait(`document.body.textContent.includes('Between one and 60 cards are laid at once.')`)
	h.says("cards", "5")
	doc, err := h.app.App.Open(t.Context(), h.id)
	require.NoError(t, err)
	assert.Equal(t, 5, doc.Card.CardsLaid())
	h.must(h.Click(browser.ID("piece-i1@k4")))
	h.keys(kb.ArrowRight)
	h.says("piece-note", "Laid by hand")
	h.click("station-assembly")
	h.wait(`document.body.textContent.includes('one of 5 cards')`)
	h.click("station-sheets")
	h.put("cards", "1")
	h.wait(`document.querySelectorAll('[data-testid^="piece-i1"]').length === 1`)
	h.click("undo")
	h.wait(`document.querySelectorAll('[data-testid^="piece-i1@k"]').length === 5`)
	h.must(h.Go("/"))
	h.click("new-card")
	h.there("net")
	next, err := browser.Eval[string](h.Page, `location.pathname.split('/')[2]`)
	h.must(err)
	doc, err = h.app.App.Open(t.Context(), next)
	require.NoError(t, err)
	assert.Equal(t, 1, doc.Card.CardsLaid())
}

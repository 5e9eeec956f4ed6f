package e2e

import (
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/design/arrange"
	"sectilis/core/document/card"
	"sectilis/internal/browser"
	"sectilis/internal/testserver"
)

// From the faulty demo card to none left by keyboard alone: what has a mend is mended, what has none is
// left so with a reason, which is kept and can be taken back.
func TestAFaultyCardIsMendedByKeyboard(t *testing.T) {
	app, err := testserver.Start(t.Context(), testserver.Options{Again: true, Data: filepath.Join(t.TempDir(), "cards.db"), Demo: true})
	require.NoError(t, err)
	t.Cleanup(app.Stop)
	cards, err := app.App.Cards(t.Context(), "Before paper is spoiled")
	require.NoError(t, err)
	require.Len(t, cards, 1)
	h := open(t, app.URL)
	h.must(h.Go("/cards/" + cards[0].ID + "/panels"))
	h.there("surface")
	h.keys("3")
	h.there("cut")
	h.wait(`document.querySelectorAll('[data-testid=slip]').length >= 10`)
	h.says("station-check", "2 stops")
	revision := func() int64 {
		v, err := app.App.Open(t.Context(), cards[0].ID)
		require.NoError(t, err)
		return v.Revision
	}
	left := 0
	for range 30 {
		h.wait(`!!document.querySelector('[data-testid=all-well]') || !!document.querySelector('[data-testid=leave-so]')`)
		h.wait(`!!document.querySelector('[data-fresh=true]')`)
		if done, err := browser.Eval[bool](h.Page, `!!document.querySelector('[data-testid=all-well]')`); err == nil && done {
			break
		}
		before := revision()
		mends, err := browser.Eval[bool](h.Page, `!!document.querySelector('[data-testid=do-mend]')`)
		h.must(err)
		if mends {
			h.keys("m")
		} else {
			h.keys("l")
			h.wait(`document.activeElement?.dataset.testid === 'leave-why'`)
			h.keys("It is meant so" + kb.Enter)
			left++
		}
		require.Eventually(t, func() bool { return revision() > before }, 30*time.Second, 20*time.Millisecond)
		h.wait(`!document.querySelector('[data-testid=leave-why]')`)
	}
	h.wait(`document.querySelector('[data-testid=station-check]').textContent.includes('all is well')`)
	v, err := app.App.Open(t.Context(), cards[0].ID)
	require.NoError(t, err)
	assert.Len(t, v.Card.Left, left)
	for _, f := range v.Findings {
		assert.NotEmpty(t, f.Left, f.Why)
	}
	// One change back, the last finding is there again.
	h.keys("z", ctrl)
	h.wait(`!document.querySelector('[data-testid=station-check]').textContent.includes('all is well')`)
}

// A finding leads to its place; what is left so is told there with its reason, and looked at again.
func TestAFindingLeadsToItsPlace(t *testing.T) {
	h := lay(t, square("Label", 4.9, 2))
	h.click("station-check")
	h.says("finding-title", "“Label” sticks out of the closed card")
	h.says("finding-why", "“Label” sticks out by")
	h.says("cut-thick", "mm")
	h.wait(`!!document.querySelector('[data-testid=seen-as]')`)
	// A mend is seen while the focus is on it, and only then.
	mended := `document.querySelector('main').textContent.includes('Front, mended')`
	h.wait("!" + mended)
	h.must(h.Do(chromedp.Focus(chromedp.CSS("[data-testid=way]"))))
	h.wait(mended)
	h.must(h.Do(chromedp.Focus(chromedp.CSS("[data-testid=do-mend]"))))
	h.wait("!" + mended)
	h.click("go-there")
	h.there("surface")
	h.wait(`!!document.querySelector('[data-testid=measures]')`)
	h.click("station-check")
	h.click("leave-so")
	h.fill("leave-why", "It is a tab to pull")
	h.says("slip", "It is a tab to pull")
	v, err := h.app.App.Open(t.Context(), h.id)
	require.NoError(t, err)
	assert.Equal(t, []card.LeftSo{{Check: "sticksOut", Item: "i1", Why: "It is a tab to pull"}}, v.Card.Left)
	h.there("all-well")
	h.click("slip")
	h.click("look-again")
	h.there("leave-so")
	h.click("do-mend")
	h.there("all-well")
}

// Classes of post are a person's own; a card is told that none takes it any more.
func TestClassesOfPostAreAPersonsOwn(t *testing.T) {
	h := lay(t, square("Label", 2, 2))
	h.click("station-check")
	h.says("post", "Letter")
	h.click("posts-verb")
	h.there("posts")
	h.put("post-thick-0", "0.5 mm")
	h.click("posts-keep")
	h.says("post", "Large letter")
	all, err := h.app.App.Posts(t.Context())
	require.NoError(t, err)
	assert.InDelta(t, .5, all[0].Thick, 1e-6)
}

// What is found of one kind is mended all at once, as one change.
func TestAllOfAKindAreMendedAtOnce(t *testing.T) {
	bare := func(name string, x, y float64) card.Command {
		p := square(name, x, y).(card.PlaceItems)
		p.Items[0].Fill, p.Items[0].Made = card.Fill{Colour: "#35658c"}, card.Made{As: card.Cut, Stock: "text-120"}
		return p
	}
	h := lay(t, bare("One", 1.5, 2), bare("Two", 3.5, 2), bare("Three", 2.5, 5))
	h.click("station-check")
	h.wait(`document.querySelectorAll('[data-check=noBleed]').length === 3`)
	h.must(h.Click("[data-check=noBleed]"))
	h.says("mend-all", "Mend all 3 of this kind")
	h.click("mend-all")
	h.wait(`document.querySelectorAll('[data-check=noBleed]').length === 0`)
	v, err := h.app.App.Open(t.Context(), h.id)
	require.NoError(t, err)
	assert.EqualValues(t, 2, v.Revision, "one change")
	for _, it := range v.Card.Face(card.Front).Items {
		assert.InDelta(t, card.UsualBleed, it.Made.Bleed, 1e-9, it.Name)
	}
}

// What a mend of bleed does is seen at a corner of the piece before it is made: ink past its cut.
func TestInkPastACutIsSeenBefore(t *testing.T) {
	h := lay(t, square("Ground", 2.5, 3), card.SetFill{IDs: []string{"i1"}, Fill: card.Fill{Paper: "leaf-drift"}},
		card.SetMade{IDs: []string{"i1"}, Made: card.Made{As: card.Cut, Stock: "white-216"}})
	h.click("station-check")
	h.says("finding-title", "“Ground” has no ink past its cut")
	seen := `!!document.querySelector('[data-testid=past-cut] path')`
	h.says("place", "dashed: its cut")
	h.wait("!" + seen)
	h.must(h.Do(chromedp.Focus(chromedp.CSS("[data-testid=way]"))))
	h.wait(seen)
	h.click("do-mend")
	h.there("all-well")
}

// What one mend has seen to is not mended once more by a key that comes before the checks have looked again.
func TestWhatIsMendedIsNotMendedTwice(t *testing.T) {
	h := lay(t, card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Greeting", Kind: card.Lettering, Place: card.Place{X: 2.5 * in, Y: 3 * in},
		Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#fbf6ec"},
		Words: &card.Words{Text: arrange.SampleWords, Font: "alfa-slab-one-400", Size: 10, Leading: 1.2, Align: card.AlignCentre}}}})
	h.click("station-check")
	h.wait(`document.querySelectorAll('[data-testid=slip]').length === 2 && !!document.querySelector('[data-fresh=true]')`)
	_, err := browser.Eval[bool](h.Page, `(window.sent = window.fetch, window.held = [], window.changes = 0, window.fetch = async (...a) => { if (String(a[0]).endsWith('/changes')) window.changes++; const r = await window.sent(...a); if (!window.freed && String(a[0]).includes('/print')) await new Promise(d => window.held.push(d)); return r }, true)`)
	h.must(err)
	h.keys("mm")
	h.wait(`window.held.length > 0`)
	_, err = browser.Eval[bool](h.Page, `(window.freed = true, window.held.forEach(d => d()), true)`)
	h.must(err)
	h.there("all-well")
	h.wait(`!!document.querySelector('[data-fresh=true]')`)
	assert.Empty(t, h.front(2).Items, "taken out by the first key")
	assert.Equal(t, 1, got(browser.Eval[int](h.Page, `window.changes`)), "the second has nothing to do")
}

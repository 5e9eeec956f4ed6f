package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/internal/browser"
)

var ctrl = chromedp.KeyModifiers(chromedp.ModifierCtrl)

// point clicks a place on the face, in inches.
func (h table) point(x, y float64, mods ...chromedp.Modifier) {
	h.Helper()
	px, py := h.at(x, y)
	h.must(h.Do(chromedp.MouseClickXY(px, py, chromedp.ButtonModifiers(mods...))))
}

// pointSegment picks an option of a segmented control with the pointer.
func (h table) pointSegment(id string, n int) {
	h.Helper()
	h.click(id) // which brings it into view
	r, err := browser.Eval[[2]float64](h.Page, `(() => { const r = document.querySelectorAll('[data-testid="`+id+`"] .ant-segmented-item')[`+string(rune('0'+n))+`].getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2] })()`)
	h.must(err)
	h.must(h.Do(chromedp.MouseClickXY(r[0], r[1])))
}

// words is lettering in the middle of Front, at y inches.
func words(text string, y float64) card.Command {
	return card.PlaceItems{Face: card.Front, Items: []card.Item{{
		Name: text, Kind: card.Lettering, Place: card.Place{X: 2.5 * in, Y: y * in}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#35658c"},
		Words: &card.Words{Text: text, Font: "pacifico-400", Size: 14, Leading: 1.2, Align: card.AlignCentre},
	}}}
}

func TestAfterAMeasureIsTypedKeysMeanTheFace(t *testing.T) {
	h := lay(t, square("A", 1.5, 1.5))
	h.point(1.5, 1.5)
	h.fill("left", "2")
	h.item(2, "i1")
	h.keys("l")
	assert.True(t, h.item(3, "i1").Locked, "L locks it")
	h.keys("z", ctrl)
	assert.False(t, h.item(4, "i1").Locked)
	h.fill("top", "3")
	h.item(5, "i1")
	h.keys("d", ctrl)
	assert.Len(t, h.front(6).Items, 2, "Ctrl D duplicates it")
	seen := func(n int) {
		h.wait(fmt.Sprintf(`document.querySelectorAll('[data-testid=surface] [data-item]').length === %d`, n))
	}
	seen(2)
	h.keys("z", ctrl)
	seen(1)
	h.point(2.5, 3.5)

	// While a text is being typed, undo is the field's own; in a field at rest it is the card's.
	h.click("left")
	h.keys("9")
	h.keys("z", ctrl)
	h.keys(kb.Escape)
	h.keys("z", ctrl)
	assert.InDelta(t, 1.5*in, h.item(8, "i1").Place.Y, 1e-6, "one undo only, of the place from above")
}

func TestAChoiceMadeWithThePointerLeavesTheKeysToTheFace(t *testing.T) {
	h := lay(t, square("A", 1.5, 1.5))
	h.point(1.5, 1.5)
	h.pointSegment("made-as", 0)
	assert.Equal(t, card.Printed, h.item(2, "i1").Made.As)
	h.keys(kb.ArrowRight)
	it := h.item(3, "i1")
	assert.Equal(t, card.Printed, it.Made.As, "an arrow nudges and does not choose")
	assert.Greater(t, it.Place.X, 1.5*in+.1)
	h.keys("z", ctrl)
	assert.InDelta(t, 1.5*in, h.item(4, "i1").Place.X, 1e-9)
	h.keys("d", ctrl)
	assert.Len(t, h.front(5).Items, 2)
	// An option of a list, too.
	h.choose("fill", "Gradient")
	h.front(6)
	h.keys("h")
	h.front(7)
}

func TestTypingOnWordsWritesThem(t *testing.T) {
	h := lay(t, words("Hello", 2), square("A", 1.5, 5))
	h.point(2.5, 2)
	h.says("selected-name", "Hello")
	h.keys("h3l")
	h.wait(`document.querySelector('[data-testid=words-editor]')?.value === 'h3l'`)
	h.keys(kb.Escape)
	assert.Equal(t, "h3l", h.item(2, "i1").Words.Text, "Escape keeps them")
	h.wait(`!document.querySelector('[data-testid=words-editor]')`)
	h.wait(`location.pathname.endsWith('/panels')`)

	// With words among several things, letters are no commands either.
	h.keys("a", ctrl)
	h.says("selected-name", "2 items")
	h.keys("hl3")
	h.keys("z", ctrl)
	f := h.front(3)
	assert.Equal(t, "Hello", f.Items[0].Words.Text, "undo took back the words, and nothing had happened since")
	assert.False(t, f.Items[0].Hidden || f.Items[1].Hidden)
	h.wait(`location.pathname.endsWith('/panels')`)
}

func TestWordsBeingTypedSurviveAReload(t *testing.T) {
	h := lay(t, words("Hello", 2))
	h.point(2.5, 2)
	h.keys("Good morning")
	h.wait(`document.querySelector('[data-testid=words-editor]')?.value === 'Good morning'`)
	h.must(h.Do(chromedp.Reload()))
	assert.Equal(t, "Good morning", h.item(2, "i1").Words.Text)
	h.there("surface")
}

func TestEnterDoesWhatAPopoverIsFor(t *testing.T) {
	h := lay(t, square("A", 2, 3))
	h.point(2, 3)
	h.click("add-mat")
	h.there("mat-dialog")
	h.fill("new-mat-width", "1/4")
	f := h.front(2)
	require.Len(t, f.Items, 2)
	var mat *card.Border
	for _, it := range f.Items {
		if it.Mat != nil {
			mat = it.Mat
		}
	}
	require.NotNil(t, mat)
	assert.InDelta(t, in/4, mat.Width, 1e-6, "what was typed last counts")
	h.wait(`!document.querySelector('[data-testid=mat-dialog]')?.checkVisibility()`)
	h.keys(kb.ArrowRight)
	h.front(3)

	h.click("repeat")
	h.there("repeat-dialog")
	h.fill("repeat-count", "many")
	h.says("repeat-dialog", "is no number")
	h.fill("repeat-count", "3")
	assert.Len(t, h.front(4).Items, 6)

	h.click("outline-verb")
	h.there("outline-dialog")
	h.click("outline-by")
	h.keys(kb.Escape)
	h.wait(`!document.querySelector('[data-testid=outline-dialog]')?.checkVisibility()`)
	h.keys("d", ctrl)
	assert.Len(t, h.front(5).Items, 12, "after Escape keys mean the face")
}

func TestThePenStaysInTheHand(t *testing.T) {
	h := lay(t)
	h.keys("d")
	h.there("draw-panel")
	_, err := browser.Eval[bool](h.Page, `(() => { const e = document.querySelector('[data-testid=draw-colour]'); e.value = '#a8432a'; e.dispatchEvent(new Event('input', {bubbles: true})); e.dispatchEvent(new Event('change', {bubbles: true})); return true })()`)
	h.must(err)
	for i := range 3 {
		h.drag(1, 1+float64(i), 4, 1.5+float64(i))
	}
	f := h.front(4)
	require.Len(t, f.Items, 3)
	require.Len(t, f.Groups, 1, "a run of strokes is one group")
	for _, it := range f.Items {
		assert.Equal(t, f.Groups[0].ID, it.Group)
		assert.Equal(t, "#a8432a", it.Fill.Colour)
	}
	// Put down and taken up again, it begins another run.
	h.keys(kb.Escape)
	h.keys("d")
	h.there("draw-panel")
	h.drag(1, 6, 4, 6)
	assert.Empty(t, h.front(5).Items[3].Group)
}

func TestOneChangeOfALookLeavesTheRest(t *testing.T) {
	shadowed := func(name string, x, distance float64) card.Command {
		return card.PlaceItems{Face: card.Front, Items: []card.Item{{
			Name: name, Kind: card.Shape, Place: card.Place{X: x * in, Y: 2 * in}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Paper: map[string]string{"A": "moss-gingham", "B": "comb"}[name], Scale: 1, Turn: distance},
			Form: &card.Form{Outline: card.Rectangle, Width: in, Height: in, Corner: card.Square},
			Look: &card.Look{Shadow: &card.Shadow{Distance: distance, Angle: 60, Blur: .9, Opacity: .35, Colour: "#3a2a18"}},
		}}}
	}
	h := lay(t, shadowed("A", 1.5, 1), shadowed("B", 3.5, 2))
	h.point(1.5, 2)
	h.point(3.5, 2, chromedp.ModifierShift)
	h.says("selected-name", "2 items")
	h.fill("shadow-angle", "90")
	f := h.front(2)
	for i, it := range f.Items {
		assert.InDelta(t, 90, it.Look.Shadow.Angle, 1e-9)
		assert.InDelta(t, float64(i+1), it.Look.Shadow.Distance, 1e-9, "each keeps its own distance")
	}
	h.fill("pattern-x", "1/4")
	g := h.front(3)
	for i, it := range g.Items {
		assert.InDelta(t, in/4, it.Fill.ShiftX, 1e-6)
		assert.Equal(t, f.Items[i].Fill.Paper, it.Fill.Paper, "each keeps its own paper")
		assert.InDelta(t, float64(i+1), it.Fill.Turn, 1e-9)
	}
}

func TestAKeyActsOnWhatTheKeyBeforeItMade(t *testing.T) {
	h := lay(t, square("A", 1.5, 1.5))
	h.point(1.5, 1.5)
	// The keys follow each other faster than the program answers.
	_, err := browser.Eval[bool](h.Page, `(() => {
		const at = document.querySelector('[data-testid=surface]')
		const key = (key, ctrlKey = false) => at.dispatchEvent(new KeyboardEvent('keydown', {key, ctrlKey, bubbles: true, cancelable: true}))
		key('d', true); key('ArrowRight'); key('ArrowRight')
		return true })()`)
	h.must(err)
	items := h.front(4).Items
	assert.Len(t, items, 2)
	assert.InDelta(t, 1.5*in, items[0].Place.X, 1e-9, "what was duplicated stays")
	assert.Greater(t, items[1].Place.X, items[0].Place.X)
}

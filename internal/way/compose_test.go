package way

import (
	"encoding/json"
	"fmt"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/card"
	"sectilis/internal/browser"
)

// document is the card as the program has it, as JSON.
func (h table) document() string {
	h.Helper()
	v, err := h.app.App.Open(h.Context(), h.id)
	h.must(err)
	raw, err := json.Marshal(v.Card)
	h.must(err)
	return string(raw)
}

// front is the face in front once the revision is there.
func (h table) front(revision int64) card.Face {
	h.Helper()
	var f card.Face
	require.Eventually(h.T, func() bool {
		v, err := h.app.App.Open(h.Context(), h.id)
		f = *v.Card.Face(card.Front)
		return err == nil && v.Revision >= revision
	}, 10*time.Second, 20*time.Millisecond)
	return f
}

func TestFiveTagsAreLinedUpSpacedAndGrouped(t *testing.T) {
	h := lay(t, square("One", .8, 1.2), square("Two", 1.9, 1.5), square("Three", 2.6, 3), square("Four", 3.3, 1.1), square("Five", 4.3, 1.4))
	start := h.document()
	// The band takes all five; Tab and the arrows could as well.
	h.drag(.05, .3, 4.95, 4)
	h.says("selected-name", "5 items")
	h.click("arrange")
	h.click("line-up-top")
	f := h.front(2)
	for _, it := range f.Items {
		assert.InDelta(t, 1.1*in, it.Place.Y, 1e-5)
	}
	h.click("space-across")
	f = h.front(3)
	for i, it := range f.Items {
		assert.InDelta(t, (.8+float64(i)*3.5/4)*in, it.Place.X, 1e-4, it.Name)
	}
	h.keys("\x1b")
	h.click("group")
	h.says("selected-name", "Group of 5")
	f = h.front(4)
	require.Len(t, f.Groups, 1)

	// One dragged takes the others along.
	h.must(h.Click(browser.ID("surface") + " svg"))
	h.drag(.8, 1.1, .8, 3.1, chromedp.ModifierShift)
	f = h.front(5)
	for _, it := range f.Items {
		assert.InDelta(t, 3.1*in, it.Place.Y, .3)
		assert.Equal(t, f.Items[0].Place.Y, it.Place.Y)
	}
	// A double click goes into the group: then one moves alone.
	h.must(h.DoubleClick(browser.ID("item-i5")))
	h.says("selected-name", "Five")
	h.keys("l")
	h.front(6)
	h.drag(4.3, 3.1, 4.3, 5, chromedp.ModifierShift)
	h.wait(`document.querySelector('[data-testid=selected-name]').textContent.includes('Five')`)
	assert.Equal(t, f.Items[4].Place, h.front(6).Items[4].Place, "what is locked stays")

	for range 5 {
		h.keys("z", chromedp.KeyModifiers(chromedp.ModifierCtrl))
	}
	require.Eventually(t, func() bool { return h.document() == start }, 10*time.Second, 20*time.Millisecond, "undone to the start, byte for byte")
}

func TestAGapIsMeasuredAndBecomesASlot(t *testing.T) {
	h := lay(t, square("Left", .5, 3.5), square("Right", 4.5, 3.5))
	h.keys("w")
	x, y := h.at(2.5, 3.5)
	h.must(h.Do(chromedp.MouseClickXY(x, y)))
	// Between the two squares, over the whole height: 3 × 7 in.
	h.says("gap-size", "3 × 7")
	h.segment("gap-kind", "Circle")
	h.says("gap-size", "across")
	h.segment("gap-kind", "Rectangle")
	h.click("gap-slot")
	f := h.front(2)
	slot := f.Items[0]
	for _, it := range f.Items {
		if it.Kind == card.Slot {
			slot = it
		}
	}
	require.NotNil(t, slot.Slot, fmt.Sprint(f.Items))
	assert.InDelta(t, 3*in, slot.Form.Width, 1e-3)
	assert.InDelta(t, 7*in, slot.Form.Height, 1e-3)
}

func TestMirroredCopiesAndRepeats(t *testing.T) {
	h := lay(t, square("Corner", 1, 1))
	h.keys("\t") // the focus is on the page; Tab reaches the header first
	h.must(h.Click(browser.ID("surface") + " svg"))
	h.keys("\t")
	h.says("selected-name", "Corner")
	h.click("arrange")
	h.click("mirror-copy-across")
	f := h.front(2)
	require.Len(t, f.Items, 2)
	assert.InDelta(t, 4*in, f.Items[1].Place.X, 1e-4)
	assert.True(t, f.Items[1].Place.Mirrored)
	h.keys("\x1b")
	h.click("repeat")
	h.segment("repeat-pattern", "Grid")
	h.fill("repeat-count", "2")
	h.fill("repeat-rows", "3")
	h.wait(`document.querySelectorAll('[data-testid=trial] path').length === 5`)
	h.click("repeat-apply")
	assert.Len(t, h.front(3).Items, 7)
}

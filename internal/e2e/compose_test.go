package e2e

import (
	"encoding/json"
	"fmt"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/document/card"
	"sectilis/internal/browser"
	"sectilis/internal/testserver"
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
func (h table) front(revision int64) *card.Face {
	h.Helper()
	var f *card.Face
	require.Eventually(h.T, func() bool {
		v, err := h.app.App.Open(h.Context(), h.id)
		if err != nil || v.Revision < revision {
			return false
		}
		f = v.Card.Face(card.Front)
		return true
	}, time.Minute, 20*time.Millisecond)
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
	require.Eventually(t, func() bool { return h.document() == start }, time.Minute, 20*time.Millisecond, "undone to the start, byte for byte")
}

func TestAGapIsMeasuredAndBecomesASlot(t *testing.T) {
	h := lay(t, square("Left", .5, 3.5), square("Right", 4.5, 3.5))
	h.keys("g")
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
	h.put("repeat-count", "2")
	h.put("repeat-rows", "3")
	h.wait(`document.querySelectorAll('[data-testid=trial] path').length === 5`)
	h.click("repeat-apply")
	assert.Len(t, h.front(3).Items, 7)
}

// undoAll goes back to the start and checks that not a byte is left of it.
func (h table) undoAll(start string) {
	h.Helper()
	h.must(h.Click(browser.ID("surface") + " svg"))
	for range 80 {
		if h.document() == start {
			break
		}
		v, err := h.app.App.Open(h.Context(), h.id)
		h.must(err)
		if v.Undo == "" {
			break
		}
		h.keys("z", chromedp.KeyModifiers(chromedp.ModifierCtrl))
		h.front(v.Revision + 1)
	}
	assert.Equal(h.T, start, h.document())
}

func TestACardIsComposedFromASketchAndUndone(t *testing.T) {
	app, err := testserver.Start(t.Context(), testserver.Options{Again: true, Data: filepath.Join(t.TempDir(), "cards.db"), Demo: true})
	require.NoError(t, err)
	t.Cleanup(app.Stop)
	p := open(t, app.URL)
	p.must(p.Go("/"))
	p.click("from-sketch")
	p.choose("sketch-for", "birthday")
	p.wait(`document.querySelectorAll('[data-testid=sketch]').length === 1`)
	p.choose("sketch-for", "any day")
	p.click("sketch")
	p.click("sketch-photo")
	p.fill("sketch-card-title", "Plot 9 is ours") // Enter starts it
	p.there("surface")
	p.there("tab-shapes")
	cards, err := app.App.Cards(t.Context(), "plot 9")
	require.NoError(t, err)
	require.Len(t, cards, 1)
	h := table{p, app, cards[0].ID}
	start := h.document()

	// The photo is there, cropped; the words are not.
	f := h.front(1)
	var photo, words, ground card.Item
	for _, it := range f.Items {
		switch {
		case it.Photo != nil:
			photo = it
		case it.Slot != nil:
			words = it
		case it.Kind == card.Paper:
			ground = it
		}
	}
	require.NotEmpty(t, photo.ID)
	h.click("layer-" + words.ID)
	h.must(h.Click(browser.ID("slot-text")))
	h.keys("Come and dig")
	h.click("slot-fill")
	f = h.front(2)
	require.Equal(t, "Come and dig", f.Item(words.ID).Words.Text)

	// A colour is changed everywhere, a look is copied.
	was := f.Item(words.ID).Fill.Colour
	h.click("colour-" + was[1:])
	h.there("colour-menu")
	_, err = browser.Eval[bool](h.Page, `(() => { const e = document.querySelector('[data-testid=colour-everywhere]'); e.value = '#35658c'; e.dispatchEvent(new Event('change', {bubbles: true})); return true })()`)
	h.must(err)
	assert.Equal(t, "#35658c", h.front(3).Item(words.ID).Fill.Colour)
	h.click("look-shadow")
	f = h.front(4)
	require.NotNil(t, f.Item(words.ID).Look.Shadow)
	assert.Equal(t, .35, f.Item(words.ID).Look.Shadow.Opacity)
	h.click("copy-look")
	h.click("layer-" + ground.ID)
	h.click("paste-look")
	assert.Equal(t, "#35658c", h.front(5).Item(ground.ID).Fill.Colour)

	// The photo slides in its opening.
	h.must(h.DoubleClick(browser.ID("item-" + photo.ID)))
	h.there("crop")
	h.drag(2.5, 2.5, 1.5, 2.5)
	slid := h.front(6).Item(photo.ID).Photo
	assert.Less(t, slid.ShiftX, photo.Photo.ShiftX-.05)
	h.keys("\x1b")

	// A stroke is drawn across the face and its middle rubbed out.
	h.keys("d")
	h.there("drawing")
	h.drag(.8, 6.2, 4.2, 6.2)
	f = h.front(7)
	stroke := f.Items[len(f.Items)-1]
	for _, it := range f.Items {
		if it.ByHand {
			stroke = it
		}
	}
	require.True(t, stroke.ByHand)
	area := stroke.Form.Path.Path().Area()
	h.keys("u")
	h.there("rubber")
	h.drag(2.5, 5.9, 2.5, 6.6)
	assert.Less(t, h.front(8).Item(stroke.ID).Form.Path.Path().Area(), area-3)
	h.keys("\x1b")

	h.undoAll(start)
}

func TestPhotosFillSlotsAndOpeningsAreDivided(t *testing.T) {
	app, err := testserver.Start(t.Context(), testserver.Options{Again: true, Data: filepath.Join(t.TempDir(), "cards.db"), Demo: true})
	require.NoError(t, err)
	t.Cleanup(app.Stop)
	c, err := card.New("Two by two", card.Base{Kind: card.SideFold, Width: 5 * in, Height: 7 * in, Stock: "cream-300"})
	require.NoError(t, err)
	c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Window", Kind: card.Slot, Place: card.Place{X: 2.5 * in, Y: 2.5 * in},
		Made: card.Made{As: card.Printed}, Slot: &card.Waits{Takes: card.TakesPhoto, Made: card.Made{As: card.Printed}},
		Form: &card.Form{Outline: card.Rectangle, Corner: card.Square, Width: 4 * in, Height: 4 * in}}}})
	require.NoError(t, err)
	id, err := app.App.Create(t.Context(), c)
	require.NoError(t, err)
	h := table{open(t, app.URL), app, id}
	h.must(h.Go("/cards/" + id + "/panels"))
	h.there("surface")
	h.click("tab-photos")
	start := h.document()
	pics, err := app.App.Pictures(t.Context())
	require.NoError(t, err)

	h.click("layer-i1")
	h.fill("divide-rows", "2")
	h.click("divide-apply")
	f := h.front(2)
	require.Len(t, f.Items, 4)
	// A photo dropped on a cell fills it; one by keyboard fills what is selected.
	x, y, err := h.Middle(browser.ID("supply-photo-" + pics[0].ID))
	h.must(err)
	tx, ty := h.at(1.5, 1.5)
	h.must(h.Drag(x, y, tx, ty))
	f = h.front(3)
	require.NotNil(t, f.Items[0].Photo, "dropped on the first cell")
	assert.InDelta(t, 1.9375*in, f.Items[0].Photo.Width, .1)
	h.click("layer-" + f.Items[3].ID)
	_, err = browser.Eval[bool](h.Page, fmt.Sprintf(`(document.querySelector('[data-testid="supply-photo-%s"]').focus(), true)`, pics[1].ID))
	h.must(err)
	h.keys("\r")
	f = h.front(4)
	assert.Equal(t, pics[1].ID, f.Items[3].Photo.Picture)

	// Dragged over another opening while it is slid, they swap.
	h.must(h.DoubleClick(browser.ID("item-" + f.Items[0].ID)))
	h.must(h.DoubleClick(browser.ID("item-" + f.Items[0].ID)))
	h.there("crop")
	h.drag(1.5, 1.5, 3.5, 3.5)
	f = h.front(5)
	assert.Equal(t, pics[1].ID, f.Items[0].Photo.Picture)
	assert.Equal(t, pics[0].ID, f.Items[3].Photo.Picture)
	h.undoAll(start)
}

func TestAPhotoThatIsUsedStaysInTheTray(t *testing.T) {
	s, err := testserver.Start(t.Context(), testserver.Options{Again: true, Data: filepath.Join(t.TempDir(), "cards.db"), Demo: true})
	require.NoError(t, err)
	t.Cleanup(s.Stop)
	cards, err := s.App.Cards(t.Context(), "")
	require.NoError(t, err)
	pics, err := s.App.Pictures(t.Context())
	require.NoError(t, err)
	h := table{open(t, s.URL), s, cards[0].ID}
	h.must(h.Go("/cards/" + h.id + "/panels"))
	h.click("tab-photos")
	used := slices.IndexFunc(pics, func(p app.Picture) bool { return p.Name == "Bee meadow" })
	supply := browser.ID("supply-photo-" + pics[used].ID)
	h.wait(`!!document.querySelector(` + "`" + supply + "`" + `)`)
	_, err = browser.Eval[bool](h.Page, `(document.querySelector(`+"`"+supply+"`"+`).focus(), true)`)
	h.must(err)
	h.keys(kb.F2)
	h.there("about-supply")
	h.click("about-remove")
	h.says("about-wrong", "This photo stays: it is on “")
	h.fill("about-tags", "meadow, May")
	h.wait(`!document.querySelector('[data-testid=about-supply]')`)
	h.fill("tray-find", "may")
	h.wait(`document.querySelectorAll('.tray .supply').length === 1`)
	all, err := s.App.Supplies(t.Context())
	require.NoError(t, err)
	noted := slices.IndexFunc(all, func(n app.Supply) bool { return n.ID == pics[used].ID })
	require.GreaterOrEqual(t, noted, 0)
	assert.Equal(t, []string{"meadow", "may"}, all[noted].Tags)
}

// tabTo presses Tab until the focus is on the element.
func (h table) tabTo(id string) {
	h.Helper()
	for range 160 {
		at, err := browser.Eval[string](h.Page, `document.activeElement?.dataset?.testid ?? ''`)
		h.must(err)
		if at == id {
			return
		}
		h.keys("\t")
	}
	h.Fatalf("Tab does not reach %s", id)
}

func TestAFaceIsLaidOutByKeyboardAlone(t *testing.T) {
	h := lay(t, square("One", .8, 1.2), square("Two", 1.9, 1.5), square("Three", 2.6, 1.9), square("Four", 3.3, 1.1), square("Five", 4.3, 1.4))
	start := h.document()
	ctrl := chromedp.KeyModifiers(chromedp.ModifierCtrl)
	h.keys("a", ctrl)
	h.says("selected-name", "5 items")
	h.keys("v")
	h.wait(`document.activeElement.dataset.testid === 'arrange'`)
	h.keys("\r")
	h.wait(`!!document.activeElement.closest('[data-testid=arrange-dialog]')`)
	h.tabTo("line-up-top")
	h.keys("\r")
	for _, it := range h.front(2).Items {
		assert.InDelta(t, 1.1*in, it.Place.Y, 1e-5)
	}
	h.tabTo("space-across")
	h.keys("\r")
	for i, it := range h.front(3).Items {
		assert.InDelta(t, (.8+float64(i)*3.5/4)*in, it.Place.X, 1e-4, it.Name)
	}
	h.keys("\x1b")
	h.wait(`document.activeElement.dataset.testid === 'arrange'`)
	h.keys("v")
	h.wait(`document.activeElement.closest('[data-testid=measures]') !== null`)
	// The driver types the letter into what has the focus now: given up by the
	// first Esc, and the second leaves the field.
	h.keys("\x1b\x1b")
	h.wait(`document.activeElement.dataset.testid === 'surface'`)

	// The gap below the five, about the middle of the face, becomes a slot.
	h.keys("\x1b")
	h.keys("g")
	h.tabTo("gap")
	h.keys("\r")
	h.says("gap-size", "5 × ")
	h.tabTo("gap-slot")
	h.keys("\r")
	f := h.front(4)
	require.Len(t, f.Items, 6)
	var slot card.Item
	for _, it := range f.Items {
		if it.Slot != nil {
			slot = it
		}
	}
	require.NotNil(t, slot.Slot)
	assert.InDelta(t, 5*in, slot.Form.Width, 1e-3)

	// One takes another colour, the others its look.
	h.tabTo("surface")
	h.keys("\x1b") // puts the gap tool down
	h.keys("\x1b")
	h.keys("\t")
	h.says("selected-name", "Photo slot") // the lowest of all
	h.keys("\t")
	h.says("selected-name", "One")
	// To the verbs, and on to the measures.
	h.keys("v")
	h.keys("v")
	h.tabTo("fold-look")
	h.keys("\r")
	h.tabTo("copy-look")
	h.keys("\r")
	h.keys("v")
	h.keys("a", ctrl)
	h.says("selected-name", "6 items")
	h.keys("v")
	h.keys("v")
	h.tabTo("fold-look") // that of several things
	h.keys("\r")
	h.tabTo("paste-look")
	h.keys("\r")
	f = h.front(5)
	assert.Equal(t, f.Items[0].Fill, f.Items[1].Fill)
	for range 4 {
		h.keys("z", ctrl)
	}
	require.Eventually(t, func() bool { return h.document() == start }, time.Minute, 20*time.Millisecond)
}

// What is laid down is on the folded card beside the face a moment later, on whatever face, and gone from it
// when it is undone.
func TestTheFoldedCardHasWhatIsLaidDown(t *testing.T) {
	h := lay(t)
	pieces := func(n int) {
		h.wait(fmt.Sprintf(`document.querySelector('[data-testid=folded-card]').dataset.pieces === '%d'`, n))
	}
	pieces(0)
	h.click("tab-shapes")
	h.must(h.DoubleClick(browser.ID("supply-shape-rectangle")))
	pieces(1)
	h.click("face-insideSecond")
	h.must(h.DoubleClick(browser.ID("supply-shape-circle")))
	pieces(2)
	h.keys("z", ctrl)
	pieces(1)
}

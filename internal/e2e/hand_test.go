package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/coretest"
	"sectilis/core/design/opening"
	"sectilis/core/document/card"
	"sectilis/internal/browser"
	"sectilis/internal/testserver"
)

// tells waits for a message of the page that holds the text.
func (h hand) tells(text string) {
	h.Helper()
	h.wait(`[...document.querySelectorAll('.ant-message-notice')].some(e => e.textContent.includes(` + "`" + text + "`" + `))`)
}

// grip drags a handle of what is selected by inches.
func (h table) grip(name string, dx, dy float64) {
	h.Helper()
	x, y, err := h.Middle(browser.ID("grip-" + name))
	h.must(err)
	a, b := h.at(0, 0)
	c, d := h.at(dx, dy)
	h.must(h.Drag(x, y, x+c-a, y+d-b))
}

func TestUndoGoesToTheFaceItChanges(t *testing.T) {
	h := lay(t, square("A", 2, 2))
	h.point(2, 2)
	h.keys("h")
	h.item(2, "i1")
	h.keys("f") // another face
	h.wait(`!document.querySelector('[data-testid=surface]').getAttribute('aria-label').startsWith('Front')`)
	h.keys("z", ctrl)
	h.wait(`document.querySelector('[data-testid=surface]').getAttribute('aria-label').startsWith('Front')`)
	h.tells("Undone on Front: Hide")
	assert.False(t, h.item(3, "i1").Hidden)
}

func TestMessagesSayWhatIsWrong(t *testing.T) {
	h := lay(t, square("A", 2, 2), card.PlaceItems{Face: card.Front, Items: []card.Item{{
		Name: "Sun", Kind: card.Shape, Place: card.Place{X: 3.5 * in, Y: 5 * in}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#e2a42b"},
		Form: &card.Form{Outline: card.Ellipse, Width: in, Height: in},
		Look: &card.Look{Shadow: &card.Shadow{Distance: 1, Angle: 60, Opacity: .3, Colour: "#3a2a18"}},
	}}}, card.LockItems{IDs: []string{"i1"}, Locked: true})
	h.point(2, 2)
	h.keys("\b")
	h.tells("“A” is locked. Unlock it to remove it.")
	h.point(3.5, 5)
	h.fill("shadow-angle", "400")
	h.tells("angle between -360° and 360°")
}

func TestASideHandleMakesAThingLongerThatWayAlone(t *testing.T) {
	h := lay(t, square("A", 2, 2))
	h.point(2, 2)
	h.says("ratio", "")
	h.grip("e", 1, 0)
	it := h.item(2, "i1")
	assert.InDelta(t, 2*in, it.Form.Width, 1.5)
	assert.InDelta(t, in, it.Form.Height, 1e-6, "its height stays, though corners keep the ratio")
	w := it.Form.Width
	h.grip("se", 1, .1)
	it = h.item(3, "i1")
	assert.InDelta(t, w/in, it.Form.Width/it.Form.Height, 1e-3, "a corner keeps the ratio")
}

func TestTheRatioBelongsToTheThing(t *testing.T) {
	h := lay(t, square("A", 1.5, 1.5), square("B", 3.5, 4))
	h.point(1.5, 1.5)
	h.click("ratio")
	h.says("measures", "free")
	h.point(3.5, 4)
	h.says("selected-name", "B")
	h.says("measures", "kept")
	h.fill("width", "2")
	assert.InDelta(t, 2*in, h.item(2, "i2").Form.Height, 1e-6)
	h.point(1.5, 1.5)
	h.says("measures", "free")
	h.fill("width", "2")
	assert.InDelta(t, in, h.item(3, "i1").Form.Height, 1e-6)
}

func TestInkOnAPieceGetsBleed(t *testing.T) {
	h := lay(t, square("A", 2, 2))
	h.point(2, 2)
	h.choose("fill", "Leaf drift")
	it := h.item(2, "i1")
	assert.Equal(t, "leaf-drift", it.Fill.Paper)
	assert.InDelta(t, card.UsualBleed, it.Made.Bleed, 1e-9)
	h.says("bleed", "1 mm")
	// Another paper lies as the one before did.
	h.fill("pattern-turn", "30")
	h.item(3, "i1")
	h.choose("fill", "Comb")
	it = h.item(4, "i1")
	assert.Equal(t, "comb", it.Fill.Paper)
	assert.InDelta(t, 30, it.Fill.Turn, 1e-9)
}

func TestABackgroundIsPutOnAllFaces(t *testing.T) {
	h := lay(t)
	h.choose("background", "Gradient")
	h.says("background-on", "On Front")
	h.click("background-all")
	h.says("background-on", "On all faces")
	v, err := h.app.App.Open(h.Context(), h.id)
	require.NoError(t, err)
	for _, f := range v.Card.Faces {
		require.Len(t, f.Items, 1, f.ID)
		require.NotNil(t, f.Items[0].Fill.Gradient)
	}
	h.pointSegment("background-way", 1)
	h.says("background-on", "On Front")
	h.there("background-all")
}

func TestNumbersAreNeverCutOff(t *testing.T) {
	h := lay(t, card.PlaceItems{Face: card.Front, Items: []card.Item{{
		Name: "A", Kind: card.Shape, Place: card.Place{X: 60, Y: 90}, Made: card.Made{As: card.Cut, Stock: "moss-216"},
		Form: &card.Form{Outline: card.Rectangle, Width: 119.9, Height: 97.6, Corner: card.Square},
	}}})
	h.must(h.Do(chromedp.EmulateViewport(1024, 720)))
	h.point(1.5, 3)
	h.choose("from", "the centre")
	h.says("width", "4 23/32 in")
	h.wait(`[...document.querySelectorAll('[data-testid=measures] input')].every(e => e.scrollWidth <= e.clientWidth)`)
}

func TestWhatIsCopiedGoesToAnotherFaceAndCard(t *testing.T) {
	h := lay(t, square("A", 2, 2), square("B", 3.5, 5), card.GroupItems{IDs: []string{"i1", "i2"}, Name: "Pair"})
	h.point(2, 2)
	h.says("selected-name", "Pair")
	h.keys("c", ctrl)
	h.keys("v", ctrl)
	f := h.front(2)
	require.Len(t, f.Items, 4)
	assert.Greater(t, f.Items[2].Place.X, 2*in+1, "beside what was copied")
	require.Len(t, f.Groups, 2)

	// Another card, after the page was left for the table.
	c, err := card.New("Other", card.Base{Kind: card.TopFold, Width: 7 * in, Height: 5 * in, Stock: "white-300"})
	require.NoError(t, err)
	other, err := h.app.App.Create(h.Context(), c)
	require.NoError(t, err)
	h.must(h.Go("/cards/" + other + "/panels"))
	h.there("tab-shapes")
	h.must(h.Click(browser.ID("surface") + " svg"))
	h.keys("v", ctrl)
	h.id = other
	f = h.front(2)
	require.Len(t, f.Items, 2)
	assert.InDelta(t, 2*in+6.35, f.Items[0].Place.X, 6.4)
	require.Len(t, f.Groups, 1)
	assert.Equal(t, "Pair", f.Groups[0].Name)
}

func TestADrawingOfAnotherProgramIsPasted(t *testing.T) {
	h := lay(t)
	_, err := browser.Eval[bool](h.Page, `(() => {
		const d = new DataTransfer()
		d.setData('text/plain', '<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="30mm" viewBox="0 0 40 30"><rect width="40" height="30" fill="#a8432a"/></svg>')
		document.querySelector('[data-testid=surface]').dispatchEvent(new ClipboardEvent('paste', {clipboardData: d, bubbles: true, cancelable: true}))
		return true })()`)
	h.must(err)
	h.click("lay-drawing")
	f := h.front(2)
	require.Len(t, f.Items, 1)
	assert.InDelta(t, 40, f.Items[0].Form.Width, .01)
}

func TestWordsThatRunOffAreToldWhereverTheyAreSeen(t *testing.T) {
	h := lay(t, words("Congratulations to every one of you", 3))
	h.says("layer-i1", "runs off Front by")
	h.click("layer-i1")
	h.says("finding", "at the left and by")
	h.says("finding", "at the right")
	h.says("finding", " in (")
	h.segment("unit", "mm")
	h.says("finding", " mm (")
	h.segment("unit", "in")
	h.fill("letter-size", "4 mm")
	h.wait(`!document.querySelector('[data-testid=finding]')`)
	h.fill("letter-size", "1.2 mm")
	h.says("finding", "below 6 pt")
	h.must(h.Go("/cards/" + h.id + "/sheets"))
	h.says("stops-line", "One thing is to be looked at again")
	h.must(h.Click("[data-testid=stops-line] a"))
	h.says("finding-why", "hard to read")
}

func TestOnePaperForAnotherEverywhere(t *testing.T) {
	h := lay(t, square("A", 1.5, 2), square("B", 3.5, 2), card.SetFill{IDs: []string{"i1", "i2"}, Fill: card.Fill{Paper: "comb", Scale: 2}})
	h.choose("repaper-comb", "Moss gingham")
	f := h.front(2)
	for _, it := range f.Items {
		assert.Equal(t, "moss-gingham", it.Fill.Paper)
		assert.InDelta(t, 2, it.Fill.Scale, 1e-9)
	}
	h.there("repaper-moss-gingham")
}

func TestARightClickOffersTheVerbsOfAThing(t *testing.T) {
	h := lay(t, square("A", 1.5, 2), words("Hello", 5))
	right := func(x, y float64) {
		px, py := h.at(x, y)
		h.must(h.Do(chromedp.MouseClickXY(px, py, chromedp.ButtonRight)))
		h.there("item-menu")
	}
	right(1.5, 2)
	h.says("selected-name", "A")
	h.click("menu-duplicate")
	assert.Len(t, h.front(2).Items, 3)
	h.keys(kb.ArrowRight)
	h.front(3)
	right(2.5, 5)
	h.says("selected-name", "Hello")
	h.click("menu-edit")
	h.there("words-editor")
	h.keys("Bye" + kb.Escape)
	assert.Equal(t, "Bye", h.item(4, "i2").Words.Text)
	right(4.5, 6.5)
	h.click("menu-all")
	h.says("selected-name", "3 items")
}

func TestAMatIsOfferedAsTheLastOneWas(t *testing.T) {
	h := lay(t, square("A", 1.5, 2), square("B", 3.5, 5))
	h.point(1.5, 2)
	h.click("add-mat")
	h.put("new-mat-width", "3/16")
	h.choose("new-mat-stock", "Kraft card 280 g")
	h.click("lay-mat")
	h.front(2)
	h.point(3.5, 5)
	h.says("selected-name", "B")
	h.click("add-mat")
	h.says("new-mat-width", "3/16")
	h.click("lay-mat")
	f := h.front(3)
	require.Len(t, f.Items, 4)
	for _, it := range f.Items {
		if it.Mat != nil {
			assert.InDelta(t, in*3/16, it.Mat.Width, 1e-6)
			assert.Equal(t, "kraft-280", it.Made.Stock)
		}
	}
}

func TestAPieceDroppedOnATurnedStripTurnsWithIt(t *testing.T) {
	h := lay(t, card.PlaceItems{Face: card.Front, Items: []card.Item{{
		Name: "Strip", Kind: card.Shape, Place: card.Place{X: 2.5 * in, Y: 3.5 * in, Turn: -20}, Made: card.Made{As: card.Cut, Stock: "moss-216"},
		Form: &card.Form{Outline: card.Rectangle, Width: 4 * in, Height: 2 * in, Corner: card.Square},
	}}})
	h.dragUp("supply-paper-comb", 0, 0)
	f := h.front(2)
	require.Len(t, f.Items, 2)
	assert.InDelta(t, -20, f.Items[1].Place.Turn, 1e-9)
	assert.Equal(t, "i1", f.Items[1].On)
}

func TestNewThingsAreOfTheStockThatWasSetForThem(t *testing.T) {
	h := lay(t, square("A", 1.5, 2))
	h.point(1.5, 2)
	h.choose("piece-stock", "Kraft card 280 g")
	assert.Equal(t, "kraft-280", h.item(2, "i1").Made.Stock)
	h.click("tab-shapes")
	h.dragUp("supply-shape-circle", 20, 90)
	f := h.front(3)
	require.Len(t, f.Items, 2)
	assert.Equal(t, "white-216", f.Items[1].Made.Stock, "what was chosen for one thing is no preference")
	h.point(1.5, 2)
	h.click("stock-mine")
	h.click("tab-shapes")
	h.dragUp("supply-shape-circle", -20, -60)
	f = h.front(4)
	require.Len(t, f.Items, 3)
	assert.Equal(t, "kraft-280", f.Items[2].Made.Stock)
}

// cells are two pictures brought in and a 3 × 2 in photo of the first, i1, divided into two.
func cells(t *testing.T) (h table, first, second string) {
	t.Helper()
	h = lay(t)
	var pics []card.Item
	for i, size := range [][2]int{{900, 600}, {600, 620}} {
		raw, _ := coretest.Photo(t, size[0], size[1])
		p, err := h.app.App.BringIn(t.Context(), []string{"Lake.jpg", "Hill.jpg"}[i], raw)
		require.NoError(t, err)
		pics = append(pics, card.Item{Name: p.Name, Photo: &card.Print{Picture: p.ID, PixelWidth: p.Width, PixelHeight: p.Height}})
	}
	it := pics[0]
	it.Kind, it.Place, it.Made = card.Photo, card.Place{X: 2.5 * in, Y: 3 * in}, card.Made{As: card.Printed}
	it.Photo.Width, it.Photo.Height = 3*in, 2*in
	_, err := h.app.App.Change(t.Context(), h.id, 1, []card.Command{
		card.PlaceItems{Face: card.Front, Items: []card.Item{it}},
		opening.DivideOpening{ID: "i1", Columns: 2, Rows: 1, Gap: 3},
	})
	require.NoError(t, err)
	h.must(h.Go("/cards/" + h.id + "/panels"))
	h.there("surface")
	h.there("tab-shapes")
	return h, pics[0].Photo.Picture, pics[1].Photo.Picture
}

func TestADividedPhotoIsDraggedOntoItsNeighbour(t *testing.T) {
	h, lake, _ := cells(t)
	h.must(h.DoubleClick(browser.ID("item-" + h.front(2).Items[0].ID)))
	h.there("selected-name")
	h.drag(1.7, 3, 3.3, 3)
	f := h.front(3)
	require.Len(t, f.Items, 2)
	assert.Nil(t, f.Items[0].Photo, "the first is a slot again")
	require.NotNil(t, f.Items[1].Photo)
	assert.Equal(t, lake, f.Items[1].Photo.Picture)
	assert.InDelta(t, (2.5+.75)*in+.75, f.Items[1].Place.X, 1e-6, "nothing was moved")
}

func TestAPhotoIsTheBackground(t *testing.T) {
	h, _, hill := cells(t)
	h.keys(kb.Escape)
	h.choose("background", "Hill")
	f := h.front(3)
	require.Len(t, f.Items, 3)
	require.NotNil(t, f.Items[0].Photo)
	assert.Equal(t, hill, f.Items[0].Photo.Picture)
	h.says("background-on", "On Front")
	h.click("background-slide")
	h.there("crop")
	x, y := h.at(1, 6)
	h.must(h.Drag(x, y, x+40, y))
	assert.NotZero(t, h.front(4).Items[0].Photo.ShiftX, "it is slid under the face")
	h.keys(kb.Escape)
	h.keys(kb.Escape)
	h.click("background-all")
	h.says("background-on", "On all faces")
	v, err := h.app.App.Open(h.Context(), h.id)
	require.NoError(t, err)
	for _, f := range v.Card.Faces {
		require.NotNil(t, f.Items[0].Photo, f.ID)
		assert.NotZero(t, f.Items[0].Photo.ShiftX)
	}
	// Their colours are offered, whatever is selected.
	h.there("palette-0")
	h.choose("background", "Gradient")
	assert.NotNil(t, h.front(6).Items[0].Fill.Gradient)
}

func TestWhatIsTakenFromTheTrayIsPlacedByClicks(t *testing.T) {
	h := lay(t)
	h.click("tab-shapes")
	h.click("supply-shape-circle")
	h.there("place")
	h.point(1.4, 1.4)
	h.front(2)
	h.point(3.6, 1.4)
	h.front(3)
	h.point(2.5, 5)
	f := h.front(4)
	require.Len(t, f.Items, 3)
	assert.InDelta(t, 1.4*in, f.Items[0].Place.X, 4)
	assert.InDelta(t, 5*in, f.Items[2].Place.Y, 4)
	h.keys(kb.Escape)
	h.wait(`!document.querySelector('[data-testid=place]')`)
	h.point(1.4, 1.4)
	h.says("selected-name", "Circle")
	h.keys("\b")
	assert.Len(t, h.front(5).Items, 2, "a click chooses again")
	// A click on the same thing puts it back; a double click places one in the middle.
	h.click("supply-shape-tag")
	h.there("place")
	h.click("supply-shape-tag")
	h.wait(`!document.querySelector('[data-testid=place]')`)
	h.must(h.DoubleClick(browser.ID("supply-shape-tag")))
	f = h.front(6)
	assert.InDelta(t, 2.5*in, f.Items[2].Place.X, 1e-6)
	h.wait(`!document.querySelector('[data-testid=place]')`)
}

func TestTheCellsOfAnOpeningAreFilledOneAfterTheOther(t *testing.T) {
	h, _, hill := cells(t)
	_, err := h.app.App.Change(t.Context(), h.id, 2, []card.Command{
		card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Opening", Kind: card.Shape, Place: card.Place{X: 2.5 * in, Y: 5.5 * in},
			Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#587a4a"}, Form: &card.Form{Outline: card.Rectangle, Corner: card.Square, Width: 3 * in, Height: 2 * in}}}},
	})
	require.NoError(t, err)
	h.wait(`document.querySelectorAll('[data-testid=surface] [data-item]').length === 3`)
	h.point(2.5, 5.5)
	h.put("divide-rows", "2")
	h.click("divide-apply")
	h.front(4)
	for i := range 4 {
		h.there("awaiting")
		h.click("supply-photo-" + hill)
		h.front(int64(5 + i))
	}
	h.wait(`!document.querySelector('[data-testid=awaiting]')`)
	n := 0
	for _, it := range h.front(8).Items {
		if it.Photo != nil && it.Photo.Picture == hill {
			n++
		}
	}
	assert.Equal(t, 4, n)
}

func TestPastingNothingSaysSo(t *testing.T) {
	h := lay(t)
	h.click("surface")
	_, err := browser.Eval[bool](h.Page, `(document.activeElement.dispatchEvent(new ClipboardEvent('paste', {clipboardData: new DataTransfer(), bubbles: true, cancelable: true})), true)`)
	h.must(err)
	h.tells("There is nothing to paste.")
}

func TestMeasuresTypedLatelyAndSizesThatFitAreOffered(t *testing.T) {
	h := lay(t, square("A", 1.5, 1.5), square("B", 3.5, 4))
	h.point(1.5, 1.5)
	h.click("ratio")
	h.fill("width", "1 3/8")
	h.item(2, "i1")
	h.point(3.5, 4)
	h.says("selected-name", "B")
	// The list is gone through with the arrows.
	h.click("height")
	h.keys(kb.ArrowDown)
	h.there("recent-1 ⅜ in")
	h.keys("\r")
	assert.InDelta(t, 1.375*in, h.item(3, "i2").Form.Height, 1e-6)
	// Or opened with the pointer.
	h.point(1.5, 1.5)
	h.says("selected-name", "A")
	h.click("height")
	h.click("height-recent")
	h.click("recent-1 ⅜ in")
	assert.InDelta(t, 1.375*in, h.item(4, "i1").Form.Height, 1e-6)

	h.click("fits")
	h.says("fit-face-2", "Front less ¼ in")
	h.says("fit-face-2", "4 ½ × 6 ½ in")
	h.click("fit-face-2")
	it := h.item(5, "i1")
	assert.InDelta(t, 4.5*in, it.Form.Width, 1e-6)
	assert.InDelta(t, 2.5*in, it.Place.X, 1e-6)
}

func TestAPhotoBecomesTheBackgroundByItsMenu(t *testing.T) {
	h, lake, _ := cells(t)
	h.must(h.DoubleClick(browser.ID("item-" + h.front(2).Items[0].ID)))
	h.there("selected-name")
	x, y := h.at(1.7, 3)
	h.must(h.Do(chromedp.MouseEvent(chromedp.MousePressed, x, y, chromedp.ButtonRight, chromedp.ClickCount(1)),
		chromedp.MouseEvent(chromedp.MouseReleased, x, y, chromedp.ButtonRight, chromedp.ClickCount(1))))
	h.click("menu-ground")
	f := h.front(3)
	require.Len(t, f.Items, 2, "the slot that is left, and the background")
	assert.True(t, f.Items[0].Background)
	require.NotNil(t, f.Items[0].Photo)
	assert.Equal(t, lake, f.Items[0].Photo.Picture)
	h.keys("z", ctrl)
	assert.Len(t, h.front(4).Items, 2, "one step back")
	assert.False(t, h.front(4).Items[0].Background)
}

func TestTheTrayKeepsItsOrderWhileSeveralArePlaced(t *testing.T) {
	h := lay(t)
	h.click("tab-shapes")
	order := func() string {
		ids, err := browser.Eval[string](h.Page, `[...document.querySelectorAll('.supply')].map(e => e.dataset.testid.replace('supply-shape-', '')).slice(0, 3).join()`)
		h.must(err)
		return ids
	}
	assert.Equal(t, "rectangle,rounded,circle", order())
	h.must(h.DoubleClick(browser.ID("supply-shape-tab")))
	h.front(2)
	assert.Equal(t, "rectangle,rounded,circle", order(), "nothing moves under the hand")
	h.must(h.DoubleClick(browser.ID("supply-shape-circle")))
	h.front(3)
	h.click("tab-papers")
	h.click("tab-shapes")
	assert.Equal(t, "circle,tab,rectangle", order(), "what was used last comes first")

	// A stock that is added in another window moves nothing, and what is favoured keeps the focus where it goes.
	h.must(h.DoubleClick(browser.ID("supply-shape-tab")))
	h.front(4)
	heard := `performance.getEntriesByType('resource').filter(e => e.name.endsWith('/api/catalogue') && e.responseEnd > 0).length`
	before := got(browser.Eval[int](h.Page, heard))
	_, err := h.app.App.AddStock(t.Context(), app.MeasuredStock{Stock: card.Stock{Name: "Barn red", Colour: "#8a2a22", Weight: 200, Thickness: .27}})
	h.must(err)
	h.wait(fmt.Sprintf("%s > %d", heard, before))
	h.wait(`new Promise(done => requestAnimationFrame(() => requestAnimationFrame(() => done(true))))`)
	assert.Equal(t, "circle,tab,rectangle", order())
	_, err = browser.Eval[bool](h.Page, `(document.querySelector('[data-testid=supply-shape-rectangle]').focus(), true)`)
	h.must(err)
	h.keys(kb.F2)
	h.click("about-favourite")
	h.click("about-keep")
	h.wait(`document.querySelector('.supply').dataset.testid === 'supply-shape-rectangle'`)
	assert.Equal(t, "rectangle,tab,circle", order(), "a favourite comes first")
	h.wait(`document.activeElement.dataset.testid === 'supply-shape-rectangle'`)
	// Nor does a placing that is answered late take it away.
	_, err = browser.Eval[bool](h.Page, `(window.sent = window.fetch, window.fetch = async (...a) => { const r = await window.sent(...a); if (String(a[0]).endsWith('/changes')) await new Promise(d => window.letGo = d); return r }, true)`)
	h.must(err)
	h.must(h.DoubleClick(browser.ID("supply-shape-tab")))
	h.wait(`!!window.letGo`)
	_, err = browser.Eval[bool](h.Page, `(document.querySelector('[data-testid=supply-shape-rectangle]').focus(), window.letGo(), true)`)
	h.must(err)
	h.wait(`document.querySelectorAll('[data-testid^=layer-]').length === 5`)
	h.wait(`document.activeElement.dataset.testid === 'supply-shape-rectangle'`)
	// Nor when it was placed by a click and the person has come back to the same supply.
	_, err = browser.Eval[bool](h.Page, `(window.letGo = undefined, true)`)
	h.must(err)
	h.click("supply-shape-rectangle")
	h.click("place")
	h.wait(`!!window.letGo`)
	h.keys(kb.Escape)
	h.wait(`!document.querySelector('[data-testid=place]')`)
	_, err = browser.Eval[bool](h.Page, `(document.querySelector('[data-testid=supply-shape-rectangle]').focus(), window.letGo(), true)`)
	h.must(err)
	h.wait(`document.querySelectorAll('[data-testid^=layer-]').length === 6`)
	h.wait(`document.activeElement.dataset.testid === 'supply-shape-rectangle'`)
	h.keys(kb.F2)
	h.wait(`document.querySelector('[data-testid=about-favourite]')?.getAttribute('aria-checked') === 'true'`)
	h.keys(kb.Delete)
	h.wait(`!!document.activeElement.closest('.ant-modal')`)
	assert.Len(t, h.front(6).Items, 5, "a dialog has the keys from when it opens")
	h.keys(kb.Escape)
	h.wait(`!document.querySelector('[data-testid=about-supply]') && document.activeElement.dataset.testid === 'supply-shape-rectangle'`)
}

func TestGapsAreFilledOneAfterTheOther(t *testing.T) {
	h := lay(t, square("Left", .5, 3.5), square("Right", 4.5, 3.5))
	h.keys("g")
	h.point(2.5, 1)
	h.says("gap-size", "3 × 7")
	h.fill("gap-less", "1/4")
	h.says("gap-size", "2 ½ × 6 ½")
	h.click("gap-piece")
	f := h.front(2)
	require.Len(t, f.Items, 3)
	h.wait(`!document.querySelector('[data-testid=gap-size]')`)
	it := f.Items[2]
	for _, o := range f.Items {
		if o.Name == "Rectangle" {
			it = o
		}
	}
	assert.Equal(t, card.Cut, it.Made.As)
	assert.InDelta(t, 2.5*in, it.Form.Width, 1e-3)
	// The next is as the last: its margin, its making, by Enter.
	h.point(4.5, 1)
	h.there("gap-size")
	h.keys("\r")
	f = h.front(3)
	require.Len(t, f.Items, 4)
	h.keys(kb.Escape)
	h.wait(`!document.querySelector('[data-testid=gap]')`)
}

func TestSheetsTellOfSlotsThatWait(t *testing.T) {
	h, _, _ := cells(t)
	h.must(h.Go("/cards/" + h.id + "/sheets"))
	h.wait(`document.body.textContent.includes('“Lake 2” on Front waits for a photo, and is left out until it has it.')`)
}

// The right column of what is selected most fits a window of 800 pixels, its lesser sections
// folded; how a section stands is remembered for its kind of thing, over a reload too.
func TestSectionsFoldAndStayAsTheyWereLeft(t *testing.T) {
	app, err := testserver.Start(t.Context(), testserver.Options{Again: true, Data: filepath.Join(t.TempDir(), "cards.db"), Demo: true})
	require.NoError(t, err)
	t.Cleanup(app.Stop)
	h := open(t, app.URL)
	h.must(h.Go("/"))
	h.must(h.Click(`[data-testid=card] a[aria-label^="Harvest Supper"]`))
	layer := func(name string) {
		h.Helper()
		find := fmt.Sprintf(`[...document.querySelectorAll('[data-testid^=layer-]')].find(e => e.textContent.trim().startsWith(%q))`, name)
		h.wait("!!" + find)
		id, err := browser.Eval[string](h.Page, find+".dataset.testid")
		h.must(err)
		h.click(id)
		h.says("selected-name", name)
	}
	folded := func(id string) bool {
		h.Helper()
		h.there(id)
		is, err := browser.Eval[bool](h.Page, fmt.Sprintf(`document.querySelector('[data-testid=fold-%s]').getAttribute('aria-expanded') === 'false'`, id))
		h.must(err)
		return is
	}
	for _, name := range []string{"Photo", "Label", "Sentiment"} {
		layer(name)
		h.there("made")
		h.wait(`(e => e.scrollHeight <= e.clientHeight)(document.querySelector('.right'))`)
		require.True(t, folded("look"), name)
	}
	require.True(t, folded("made"), "of lettering")
	h.says("made", "printed")
	h.click("fold-made")
	h.there("lies-on")
	layer("Label")
	require.False(t, folded("made"))
	h.click("fold-made")
	h.must(h.Go("/"))
	h.must(h.Click(`[data-testid=card] a[aria-label^="Harvest Supper"]`))
	layer("Sentiment")
	require.False(t, folded("made"), "it was opened for lettering")
	layer("Label")
	require.True(t, folded("made"), "it was folded for shapes")
	h.says("made", "Cream card 216 g")
	// After a click on a title keys mean the face: Enter does not fold it again.
	h.click("fold-opening-panel")
	h.wait(`document.activeElement?.dataset.testid === 'surface'`)
	h.keys("\u0303") // to the right
	h.says("left", "13/16 in")
	require.False(t, folded("opening-panel"))
	// By keys, beginning with Tab: the title of a section is a button.
	h.keys(kb.Tab)
	h.wait(`(e => (e.focus(), document.activeElement === e))(document.querySelector('[data-testid=fold-look]'))`)
	h.keys(kb.Enter)
	h.wait(`document.querySelector('[data-testid=fold-look]').getAttribute('aria-expanded') === 'true'`)
}

// What a check finds is mended where it is told, by one click that can be undone.
func TestAFindingIsMendedWhereItIsTold(t *testing.T) {
	tiny := words("Plum Lane Allotments", 2)
	h := lay(t, tiny, square("Bar", 4.9, 5))
	h.click("layer-i1")
	h.fill("letter-size", "1.5 mm")
	h.says("finding", "below 6 pt")
	h.says("layer-i1", "below 6 pt")
	if dir := os.Getenv("SECTILIS_SHOTS"); dir != "" {
		raw, err := h.Shot()
		h.must(err)
		h.must(os.WriteFile(filepath.Join(dir, "finding.png"), raw, 0o600))
	}
	h.click("mend")
	h.wait(`!document.querySelector('[data-testid=finding]')`)
	f := h.front(3)
	assert.InDelta(t, 6*25.4/72, f.Items[0].Words.Size, 1e-6)
	h.keys("z", chromedp.KeyModifiers(chromedp.ModifierCtrl))
	h.says("finding", "below 6 pt")

	h.must(h.Go("/cards/" + h.id + "/base"))
	h.says("finding", "“Bar” sticks out by")
	h.click("mend")
	h.wait(`!document.querySelector('[data-testid=finding]')`)
	f = h.front(5)
	assert.LessOrEqual(t, f.Items[1].Place.X+f.Items[1].Form.Width/2, 127+1e-6)
}

package e2e

import (
	"context"
	"fmt"
	"path/filepath"
	"testing"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
	"sectilis/internal/browser"
	"sectilis/internal/testserver"
)

const in = measure.Inch

// table is an open card and a hand over its work surface.
type table struct {
	hand
	app *testserver.Server
	id  string
}

// lay opens a 5 × 7 in side fold with what the commands put on it.
func lay(t *testing.T, commands ...card.Command) table {
	t.Helper()
	app, err := testserver.Start(t.Context(), testserver.Options{Again: true, Data: filepath.Join(t.TempDir(), "cards.db")})
	require.NoError(t, err)
	t.Cleanup(app.Stop)
	c, err := card.New("Trial", card.Base{Kind: card.SideFold, Width: 5 * in, Height: 7 * in, Stock: "cream-300"})
	require.NoError(t, err)
	c, err = card.Apply(c, commands...)
	require.NoError(t, err)
	id, err := app.App.Create(t.Context(), c)
	require.NoError(t, err)
	h := table{open(t, app.URL), app, id}
	h.must(h.Go("/cards/" + id + "/panels"))
	h.there("surface")
	h.there("tab-shapes")
	return h
}

// square is a piece of 1 in, its middle at (x, y) inches of Front.
func square(name string, x, y float64) card.Command {
	return card.PlaceItems{Face: card.Front, Items: []card.Item{{
		Name: name, Kind: card.Shape, Place: card.Place{X: x * in, Y: y * in}, Made: card.Made{As: card.Cut, Stock: "moss-216"},
		Form: &card.Form{Outline: card.Rectangle, Width: in, Height: in, Corner: card.Square},
	}}}
}

// at is where a place on the face, in inches, is in the window, in pixels.
func (h table) at(x, y float64) (px, py float64) {
	h.Helper()
	r, err := browser.Eval[[3]float64](h.Page, `(() => { const r = document.querySelector('[data-testid=face-ground]').getBoundingClientRect(); return [r.x, r.y, r.width / 5] })()`)
	h.must(err)
	return r[0] + x*r[2], r[1] + y*r[2]
}

// drag drags from one place on the face to another, in inches.
func (h table) drag(x0, y0, x1, y1 float64, mods ...chromedp.Modifier) {
	h.Helper()
	a, b := h.at(x0, y0)
	c, d := h.at(x1, y1)
	h.must(h.Drag(a, b, c, d, chromedp.ButtonModifiers(mods...)))
}

// item is an item as the program has it, once the revision is there.
func (h table) item(revision int64, id string) card.Item {
	h.Helper()
	var it card.Item
	require.Eventually(h.T, func() bool {
		v, err := h.app.App.Open(h.Context(), h.id)
		if err != nil || v.Revision < revision {
			return false
		}
		require.Equal(h.T, revision, v.Revision, "one change for one movement")
		_, found := v.Card.Find(id)
		require.NotNil(h.T, found)
		it = *found
		return true
	}, waitFor, tick)
	return it
}

const (
	waitFor = 20e9 // ns
	tick    = 5e6
)

func TestMovingSnapsUnlessShiftIsHeld(t *testing.T) {
	h := lay(t, square("A", 1.5, 1.5), square("B", 3.5, 4))
	h.drag(1.5, 1.5, 2.48, 3.02)
	it := h.item(2, "i1")
	assert.InDelta(t, 2.5*in, it.Place.X, 1e-6, "the middle of the face draws it")
	assert.InDelta(t, 3*in, it.Place.Y, 1e-6, "its foot lies on B’s middle… or its edge on B’s head")

	h.drag(2.5, 3, 1.7, 5.37, chromedp.ModifierShift)
	it = h.item(3, "i1")
	assert.InDelta(t, 1.7*in, it.Place.X, .4)
	assert.InDelta(t, 5.37*in, it.Place.Y, .4)
	h.says("selected-name", "A")
}

func TestAClickIsNoMovement(t *testing.T) {
	h := lay(t, square("A", 1.5, 1.5), square("B", 3.5, 4))
	x, y := h.at(1.5, 1.5)
	h.must(h.Do(chromedp.MouseClickXY(x, y)))
	h.says("selected-name", "A")
	x, y = h.at(3.5, 4)
	h.must(h.Do(chromedp.MouseClickXY(x, y, chromedp.ButtonModifiers(chromedp.ModifierShift))))
	h.says("selected-name", "2 items")
	x, y = h.at(4.6, 6.6)
	h.must(h.Do(chromedp.MouseClickXY(x, y)))
	h.says("selected-name", "Front")
	h.drag(.6, .6, 4.8, 5.5)
	h.says("selected-name", "2 items")
	h.item(1, "i1") // nothing of this changed the card
}

func TestHandlesKeepTheRatioUnlessReleased(t *testing.T) {
	h := lay(t, square("A", 2, 2))
	h.click("layer-i1")
	h.drag(2.5, 2.5, 3.1, 3.1)
	it := h.item(2, "i1")
	assert.InDelta(t, it.Form.Width, it.Form.Height, 1e-6)
	assert.InDelta(t, 1.6*in, it.Form.Width, .5)
	assert.InDelta(t, 1.5*in, it.Place.X-it.Form.Width/2, 1e-5, "the corner across stays")

	h.fill("width", "1")
	h.item(3, "i1")
	h.click("ratio")
	h.says("measures", "free")
	h.fill("width", "2")
	it = h.item(4, "i1")
	assert.InDelta(t, 2*in, it.Form.Width, 1e-4)
	assert.InDelta(t, in, it.Form.Height, 1e-4)
	x, y, err := h.Middle(browser.ID("grip-s"))
	h.must(err)
	h.must(h.Drag(x, y, x, y+70))
	it = h.item(5, "i1")
	assert.InDelta(t, 2*in, it.Form.Width, 1e-4, "a side moves alone")
	assert.Greater(t, it.Form.Height, 1.5*in)
	h.click("ratio")
}

func TestTurningFindsFifteenDegrees(t *testing.T) {
	h := lay(t, square("A", 2.5, 3), card.TurnItems{IDs: []string{"i1"}, Degrees: 3, About: geom.Pt(2.5*in, 3*in)})
	h.click("layer-i1")
	h.says("turn", "3°")
	x, y, err := h.Middle(browser.ID("turn-handle"))
	h.must(err)
	cx, cy := h.at(2.5, 3)
	// A quarter turn, a little short: from below the middle to the left of it.
	h.must(h.Drag(x, y, cx-(y-cy), cy+2))
	it := h.item(2, "i1")
	assert.InDelta(t, 90, it.Place.Turn, 1e-6)
	h.fill("turn", "-12.5")
	assert.InDelta(t, -12.5, h.item(3, "i1").Place.Turn, 1e-6)
	h.fill("turn", "much")
	h.says("measure-wrong", "“much” is no number")
	h.item(3, "i1")
}

func TestTheWheelZoomsAboutThePointer(t *testing.T) {
	h := lay(t, square("A", 2.5, 3))
	x, y := h.at(4, 5)
	before, err := h.Text(browser.ID("zoom"))
	h.must(err)
	h.must(h.Do(chromedp.MouseEvent(chromedp.MouseWheel, x, y, func(p *input.DispatchMouseEventParams) { p.DeltaX, p.DeltaY = 1e-3, -240 })))
	h.wait(fmt.Sprintf(`document.querySelector('[data-testid=zoom]').textContent.trim() !== %q`, before))
	x1, y1 := h.at(4, 5)
	assert.InDelta(t, x, x1, 1, "what is under the pointer stays there")
	assert.InDelta(t, y, y1, 1)
	h.click("zoom")
	h.says("zoom", before)
}

// The caret stands where Go has set the letters, of every font.
func TestWordsAreEditedOverTheirOwnOutline(t *testing.T) {
	for _, font := range []string{"pacifico-400", "amatic-sc-700", "courier-prime-400", "playfair-display-400"} {
		t.Run(font, func(t *testing.T) {
			h := lay(t, card.PlaceItems{Face: card.Front, Items: []card.Item{{
				Name: "Words", Kind: card.Lettering, Place: card.Place{X: 2.5 * in, Y: 3 * in}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#a8432a"},
				Words: &card.Words{Text: "Potting day", Font: font, Size: 10, Leading: 1.3, Align: card.AlignCentre},
			}}})
			h.must(h.DoubleClick(browser.ID("item-i1") + " rect"))
			h.there("words-editor")
			h.keys("Avocado gate", chromedp.KeyModifiers())
			h.wait(`document.querySelector('[data-testid=words-editor]').value === 'Avocado gate'`)
			// The outline follows, and the caret stands at its end.
			h.wait(`(() => {
				const o = document.querySelector('[data-testid=item-i1] path').getBoundingClientRect()
				const c = document.querySelector('[data-testid=caret]')?.getBoundingClientRect()
				return !!c && Math.abs(c.x - o.right) < 6 && c.top < o.top + 8 && c.bottom > o.bottom - 8 })()`)
			h.keys("\u001b")
			h.wait(`!document.querySelector('[data-testid=words-editor]')`)
			assert.Equal(t, "Avocado gate", h.item(2, "i1").Words.Text, "Escape keeps what was typed")
			h.must(h.DoubleClick(browser.ID("item-i1") + " rect"))
			h.there("words-editor")
			h.keys("Two\rlines")
			x, y := h.at(4.7, 6.7)
			h.must(h.Do(chromedp.MouseClickXY(x, y)))
			assert.Equal(t, "Two\nlines", h.item(3, "i1").Words.Text, "going elsewhere keeps it")
		})
	}
}

func TestHowThingsAreMadeIsChangedFromTheRight(t *testing.T) {
	h := lay(t, square("A", 2, 2), square("B", 3.5, 5))
	h.click("layer-i1")
	h.segment("made-as", "Printed")
	it := h.item(2, "i1")
	assert.Equal(t, card.Made{As: card.Printed}, it.Made)
	assert.Equal(t, "#587a4a", it.Fill.Colour, "ink in the colour that the stock had")
	h.choose("lies-on", "B")
	assert.Equal(t, "i2", h.item(3, "i1").On)
	h.choose("fill", "Comb")
	assert.Equal(t, "comb", h.item(4, "i1").Fill.Paper)
	h.segment("corners", "Round")
	assert.Equal(t, card.Round, h.item(5, "i1").Form.Corner)
	h.fill("radius", "1/8")
	assert.InDelta(t, in/8, h.item(6, "i1").Form.Radius, 1e-6)
	h.click("layer-i2")
	h.fill("bleed", "99")
	h.wait(`[...document.querySelectorAll('.ant-message')].some(e => e.textContent.includes('Bleed is between'))`)
	h.says("bleed", "0 in")
	h.segment("unit", "mm")
	h.fill("bleed", "2")
	assert.InDelta(t, 2, h.item(7, "i2").Made.Bleed, 1e-9)
	h.segment("unit", "in")
}

func TestWhatIsTooLargeForASheetIsSaidWhereSheetsAre(t *testing.T) {
	h := lay(t, fold.SetBase{Base: card.Base{Kind: card.SideFold, Width: 148, Height: 210, Stock: "cream-300"}})
	h.click("station-sheets")
	h.says("finding-noRoom", "too large for Letter")
	h.says("sheet-count", "0 sheets")
	h.choose("paper", "A4")
	h.says("finding-laidOtherwise", "The base is a whole A4 sheet")
	h.says("sheet-count", "1 sheet")
	h.choose("paper", "Letter")
	h.fill("between", "1/32")
	h.says("paper-wrong", "between 3 mm")
}

func TestTwoFingersPanAndZoomAndMoveNothing(t *testing.T) {
	h := lay(t, square("A", 2.5, 3))
	touch := func(kind input.DispatchTouchEventType, points ...*input.TouchPoint) {
		t.Helper()
		h.must(h.Do(chromedp.Func(func(ctx context.Context, tab *chromedp.Target) error {
			_, err := cdp.Call(ctx, tab, input.DispatchTouchEvent, input.DispatchTouchEventParams{Type: kind, TouchPoints: points})
			return err
		})))
	}
	finger := func(id, x, y float64) *input.TouchPoint {
		return &input.TouchPoint{X: x, Y: y, ID: &id}
	}
	x, y := h.at(2.5, 3)
	before, err := h.Text(browser.ID("zoom"))
	h.must(err)
	touch(input.DispatchTouchEventTypeTouchStart, finger(1, x, y))
	touch(input.DispatchTouchEventTypeTouchStart, finger(1, x, y), finger(2, x+100, y))
	for i := range 5 {
		d := float64(i+1) * 10
		touch(input.DispatchTouchEventTypeTouchMove, finger(1, x-d, y+d), finger(2, x+100+d, y+d))
	}
	touch(input.DispatchTouchEventTypeTouchEnd)
	h.wait(fmt.Sprintf(`document.querySelector('[data-testid=zoom]').textContent.trim() !== %q`, before))
	// Twice as far apart: twice as large, and 50 pixels further down.
	_, y1 := h.at(2.5, 3)
	assert.InDelta(t, y+50, y1, 6)
	h.item(1, "i1")
}

package e2e

import (
	"os"
	"path/filepath"
	"slices"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/coretest/sheettest"
	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
	"sectilis/core/production/sheet"
	"sectilis/internal/browser"
)

// both selects the first two items.
func (h table) both() {
	h.Helper()
	h.click("layer-i1")
	x, y, err := h.Middle(browser.ID("layer-i2"))
	h.must(err)
	h.must(h.Do(chromedp.MouseClickXY(x, y, chromedp.ButtonModifiers(chromedp.ModifierShift))))
	h.says("selected-name", "2 items")
}

func TestOutlinesAreWeldedAndCarved(t *testing.T) {
	h := lay(t, square("Low", 2, 2), square("High", 2.5, 2.5), square("Aside", 4, 6))
	h.both()
	// What would come of it is shown while a verb is pointed at.
	h.click("combine")
	x, y, err := h.Middle(browser.ID("keepOverlap"))
	h.must(err)
	h.must(h.Do(chromedp.MouseEvent("mouseMoved", x, y)))
	h.there("trial")
	h.click("weld")
	it := h.item(2, "i1")
	require.NotNil(t, it.Form.Path)
	assert.InDelta(t, 1.75*in*in, it.Form.Path.Path().Area(), 1e-3)
	h.keys("z", chromedp.KeyModifiers(chromedp.ModifierCtrl))
	assert.Nil(t, h.item(3, "i1").Form.Path, "one undo")

	h.both()
	h.click("combine")
	h.click("carve")
	assert.InDelta(t, .75*in*in, h.item(4, "i1").Form.Path.Path().Area(), 1e-3)

	// What cannot be says so.
	h.click("layer-i3")
	x, y, err = h.Middle(browser.ID("layer-i1"))
	h.must(err)
	h.must(h.Do(chromedp.MouseClickXY(x, y, chromedp.ButtonModifiers(chromedp.ModifierShift))))
	h.says("selected-name", "2 items")
	h.click("combine")
	h.click("keepOverlap")
	h.wait(`document.querySelector('.ant-message')?.textContent.includes('no overlap to keep')`)
	h.item(4, "i1")
}

func TestOutlinesGrowWhileTheNumberChanges(t *testing.T) {
	h := lay(t, square("A", 2, 2))
	h.click("layer-i1")
	h.click("outline-verb")
	h.there("trial")
	shown := `document.querySelector('[data-testid=trial] path').getAttribute('d')`
	before, err := browser.Eval[string](h.Page, shown)
	h.must(err)
	h.put("outline-by", "1/4")
	h.wait(shown + ` !== ` + "`" + before + "`")
	h.click("outline-apply")
	p := h.item(2, "i1").Form.Path.Path()
	assert.InDelta(t, 1.5*in, p.Bounds().W, 1e-6)
	assert.InDelta(t, 2*in*in+3.14159265*in*in/16, p.Area(), 1e-3, "a quarter inch out, with round corners")

	h.click("outline-verb")
	h.segment("outline-what", "Shrink")
	h.put("outline-by", "2")
	h.wait(`document.querySelector('[data-testid=outline-dialog] [role=alert]')?.textContent.includes('Nothing would be left')`)
	h.wait(`document.querySelector('[data-testid=outline-apply]').disabled`)
	h.item(2, "i1")
}

func TestADrawingIsBroughtIn(t *testing.T) {
	h := lay(t)
	file := filepath.Join(t.TempDir(), "Seed packet.dxf")
	lines := "0\nSECTION\n2\nENTITIES\n"
	for _, side := range []string{"10\n0\n20\n0\n11\n2\n21\n0", "10\n2\n20\n0\n11\n2\n21\n3", "10\n2\n20\n3\n11\n0\n21\n3", "10\n0\n20\n3\n11\n0\n21\n0"} {
		lines += "0\nLINE\n8\nOutline\n" + side + "\n"
	}
	lines += "0\nLINE\n8\nfold\n10\n0\n20\n1\n11\n2\n21\n1\n0\nTEXT\n8\nnotes\n1\nBeans\n0\nENDSEC\n0\nEOF\n"
	require.NoError(t, os.WriteFile(file, []byte(lines), 0o600))
	h.click("tab-art")
	h.must(h.Upload(browser.ID("drawing-input"), file))
	h.says("drawing-notes", "“Beans” was left out")
	h.choose("drawing-unit", "Inches")
	h.says("drawing-size", "2 × 3 in")
	h.says("drawing-line-0", "Cut piece")
	h.says("drawing-line-1", "Valley score")
	h.click("lay-drawing")
	piece := h.item(2, "i1")
	assert.Equal(t, card.Cut, piece.Made.As)
	assert.InDelta(t, 2*in, piece.Form.Width, 1e-6)
	assert.Equal(t, "M-25.4 -38.1L25.4 -38.1L25.4 38.1L-25.4 38.1Z", geom.Union(geom.NonZero, piece.Form.Path.Path()).String())
	score := h.item(2, "i2")
	assert.Equal(t, card.RoleValley, score.Lines.Role)
	h.click("layer-i2")
	h.choose("line-role", "Perforation")
	assert.Equal(t, card.RolePerforation, h.item(3, "i2").Lines.Role)

	// It waits in the tray since, and serves other cards; so does what is kept of this one.
	h.there("keep-art")
	h.click("keep-art")
	h.wait(`document.querySelectorAll('.supply.art').length === 11`)
	other, err := h.app.App.Create(t.Context(), coretest.Empty(t))
	require.NoError(t, err)
	h.must(h.Go("/cards/" + other + "/panels"))
	h.click("tab-art")
	h.must(h.Click(`.supply.art[title="Seed packet"]`))
	h.click("surface")
	h.says("selected-name", "Seed packet")
	v, err := h.app.App.Open(t.Context(), other)
	require.NoError(t, err)
	f := v.Card.Face(card.Front)
	require.Len(t, f.Items, 2)
	require.Len(t, f.Groups, 1)
	assert.Equal(t, "Seed packet", f.Groups[0].Name)
	scored := slices.IndexFunc(f.Items, func(it card.Item) bool { return it.Lines != nil })
	require.GreaterOrEqual(t, scored, 0)
	assert.Equal(t, card.RoleValley, f.Items[scored].Lines.Role, "as it came")
}

// A drawing comes in as it looks: what is seen through, gradients, dashes, words whose face
// is at hand; what is not taken is told before.
func TestADrawingComesInAsItLooks(t *testing.T) {
	h := lay(t)
	file := filepath.Join(t.TempDir(), "Lantern.svg")
	require.NoError(t, os.WriteFile(file, []byte(`<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="50mm" viewBox="0 0 60 50">
		<linearGradient id="sky" x2="0" y2="1"><stop stop-color="#35658c"/><stop offset="1" stop-color="#e2a42b" stop-opacity="0"/></linearGradient>
		<rect width="60" height="50" fill="url(#sky)"/>
		<g opacity=".6"><rect x="20" y="15" width="20" height="20" fill="#a8432a" stroke="#1f2b38" stroke-width="2"/></g>
		<path d="M5 42h50" stroke="#587a4a" stroke-width="2" stroke-dasharray="5 5"/>
		<text x="30" y="10" font-family="Pacifico" font-size="8" text-anchor="middle" fill="#1f2b38">Dusk</text>
		<text x="4" y="49" font-family="Nowhere" font-size="3">small words</text></svg>`), 0o600))
	h.click("tab-art")
	h.must(h.Upload(browser.ID("drawing-input"), file))
	h.says("drawing-notes", "The text “small words” was left out")
	h.says("drawing-line-0", "Printed")
	h.click("lay-drawing")
	sky := h.item(2, "i1")
	require.NotNil(t, sky.Fill.Gradient)
	assert.InDelta(t, 1, sky.Fill.Gradient.Stops[1].Clear, 1e-9)
	wall := h.item(2, "i2")
	assert.Equal(t, "#a8432a", wall.Fill.Colour)
	assert.InDelta(t, .4, wall.Look.Clear, 1e-9)
	assert.InDelta(t, 18*18, wall.Form.Path.Path().Area(), 1e-3, "the line hides what is under it")
	dashes := h.item(2, "i4")
	assert.InDelta(t, 5*5*2, dashes.Form.Path.Path().Area(), 1e-3)
	words := h.item(2, "i5")
	assert.InDelta(t, 8, words.Form.Height, 4)
	h.wait(`!!document.querySelector('[data-testid=surface] stop[stop-opacity="0"]')`)
}

// A change that the program does not answer for long is offered to be stopped; then nothing
// has changed, and work goes on.
func TestAChangeThatTakesLongCanBeStopped(t *testing.T) {
	h := lay(t, square("A", 2, 2))
	_, err := browser.Eval[int](h.Page, `(window.asked = window.fetch, window.fetch = (to, how) => window.held !== 0 && String(to).endsWith('/changes')
		? new Promise((_, stopped) => how.signal.addEventListener('abort', () => stopped(new DOMException('', 'AbortError')))) : window.asked(to, how), 1)`)
	h.must(err)
	h.click("layer-i1")
	h.click("duplicate")
	h.click("stop-change")
	h.wait(`document.body.textContent.includes('Stopped. Nothing was changed.')`)
	h.says("about", "saved")
	h.item(1, "i1")
	_, err = browser.Eval[int](h.Page, `window.held = 0`)
	h.must(err)
	h.click("duplicate")
	h.item(2, "i2")
}

// What the catalogue lists can be used without more: a base of four doors, with a bracket on
// one of them, laid on its sheets.
func TestABracketOnADoorOfADoubleGate(t *testing.T) {
	h := lay(t)
	h.must(h.Go("/cards/" + h.id + "/base"))
	h.click("kind-doubleGate")
	h.wait(`document.body.textContent.includes("Upper doors")`)
	h.keys("2")
	h.says("face-name", "Upper left door")
	h.wait(`document.querySelectorAll('.map .face').length === 10`)
	h.click("tab-shapes")
	h.click("supply-shape-bracket")
	h.point(1.2, 1.2)
	h.says("selected-name", "Bracket")
	it := h.front(3).Items[0]
	assert.EqualValues(t, "bracket", it.Form.Outline)
	h.keys("4")
	h.there("sheet-1")
	l, err := h.app.App.Layout(t.Context(), h.id, sheettest.Usual(sheet.Sizes()[0]))
	h.must(err)
	assert.Empty(t, l.Unlaid)
	pieces := 0
	for _, s := range l.Sheets {
		pieces += len(s.Pieces)
	}
	assert.Equal(t, 2, pieces, "the base and the bracket")
}

package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/internal/browser"
)

// A step card of one's own size; a piece that would stick out is found and
// moved in; the directions are read.
func TestAStepCardIsMadeAndMended(t *testing.T) {
	h := lay(t)
	h.must(h.Go("/cards/" + h.id + "/base"))
	h.click("kind-stepCard")
	h.there("measure-steps")
	h.fill("base-width", "4 1/4\r")
	h.fill("base-height", "4 1/4\r")
	h.says("trade", "own size")
	h.fill("measure-steps", "5\r")
	h.says("verdict", "All panels meet at every opening")
	h.wait(`document.querySelector('[data-testid=folded-card]').dataset.panels === '12'`)
	// The solids are drawn, and again when the slider or a key moves them.
	drawn := `Number(document.querySelector('[data-testid=folded-card] canvas')?.dataset.frames ?? 0)`
	h.wait(drawn + ` > 0`)
	before, err := browser.Eval[float64](h.Page, drawn)
	h.must(err)
	_, err = browser.Eval[bool](h.Page, `(document.querySelector('[data-testid=folded-card]').focus(), true)`)
	h.must(err)
	h.keys("\u0302")
	h.wait(fmt.Sprintf(`%s > %v`, drawn, before))

	// What does not go says so and changes nothing.
	h.fill("measure-middleUp", "4 1/8\r")
	h.wait(`document.querySelector('.ant-message')?.textContent.includes('shows when closed')`)
	v, err := h.app.App.Open(h.Context(), h.id)
	h.must(err)
	assert.Equal(t, card.StepCard, v.Card.Base.Kind)
	assert.Equal(t, 5., v.Card.Base.Measures["steps"])
	assert.NotContains(t, v.Card.Base.Measures, "middleUp")

	_, err = h.app.App.Change(h.Context(), h.id, v.Revision, []card.Command{card.PlaceItems{Face: card.Front, Items: []card.Item{{
		Name: "Kite", Kind: card.Shape, Place: card.Place{X: 4.125 * in, Y: 4 * in}, Made: card.Made{As: card.Cut, Stock: "moss-216"},
		Form: &card.Form{Outline: card.Rectangle, Width: in / 2, Height: in / 2, Corner: card.Square},
	}}}})
	h.must(err)
	h.says("finding", "“Kite” sticks out by ⅛ in")
	h.click("mend")
	h.says("verdict", "Closes with everything that is on it")
	assert.InDelta(t, 4*in, h.item(v.Revision+2, "i1").Place.X, 1e-3)

	h.click("directions-verb")
	h.says("directions", "Cut a sheet of 4 ¼ × 8 ½ in")
	h.says("directions", "Turn the sheet a quarter to the right")
	n := fold.Of(v.Card.Base)
	rows, err := browser.Eval[float64](h.Page, `document.querySelectorAll('[data-testid=directions] ul li').length`)
	h.must(err)
	assert.InDelta(t, len(n.Lines), rows, 1e-9, "one line for every line of the net")
	raw := h.fetch("/api/cards/" + h.id + "/directions.pdf")
	assert.True(t, strings.HasPrefix(string(raw), "%PDF"))
}

// What lies on a face waits while the base does not have it.
func TestFacesComeAndGoWithTheBase(t *testing.T) {
	h := lay(t, square("Label", 2, 2))
	h.must(h.Go("/cards/" + h.id + "/base"))
	h.click("kind-triFold")
	h.front(2)
	h.says("verdict", "Folds flat")
	v, err := h.app.App.Open(h.Context(), h.id)
	h.must(err)
	_, inside := card.LeafFaces(2)
	_, err = h.app.App.Change(h.Context(), h.id, v.Revision, []card.Command{card.PlaceItems{Face: inside, Items: []card.Item{{
		Name: "Map", Kind: card.Shape, Place: card.Place{X: in, Y: in}, Made: card.Made{As: card.Cut, Stock: "moss-216"},
		Form: &card.Form{Outline: card.Rectangle, Width: in, Height: in, Corner: card.Square},
	}}}})
	h.must(err)
	h.must(h.Go("/cards/" + h.id + "/base")) // with what was changed elsewhere
	h.click("kind-sideFold")
	h.says("verdict", "1 item waits on faces that this base does not have")
	h.click("kind-triFold")
	h.wait(`!document.querySelector('[data-testid=verdict]').textContent.includes('waits')`)
	h.must(h.Go("/cards/" + h.id + "/panels"))
	h.click("face-" + string(inside))
	h.says("layer-i2", "Map")
}

func TestWhatIsOnASmallerCardIsKeptInside(t *testing.T) {
	h := lay(t, square("Sign", 4.2, 6.2))
	h.must(h.Go("/cards/" + h.id + "/base"))
	h.fill("base-width", "4")
	h.tells("Kept inside the smaller card: “Sign”.")
	assert.InDelta(t, 3.5*in, h.item(2, "i1").Place.X, 1e-6)
	h.keys("z", ctrl)
	assert.InDelta(t, 4.2*in, h.item(3, "i1").Place.X, 1e-6)
}

// A net drawn in another program becomes the base: what its lines are for and where one of them ends is
// asked, its faces get names, and it folds, is gone back from and named anew.
func TestABaseFromADrawing(t *testing.T) {
	h := lay(t)
	file := filepath.Join(t.TempDir(), "Box.svg")
	require.NoError(t, os.WriteFile(file, []byte(`<svg xmlns="http://www.w3.org/2000/svg" width="160mm" height="230mm" viewBox="0 0 160 230">
<g fill="none" stroke="#000"><path d="M10 10H150V220H10Z"/><path d="M50 75V145M110 75V145"/><path d="M20 180H41"/></g>
<g fill="none" stroke="#c02040" stroke-dasharray="3 2"><path d="M10 115H50M110 115H150M50 75H110M50 145.02H110"/></g>
<g fill="none" stroke="#2040c0" stroke-dasharray="4 1 1 1"><path d="M50 105H110"/></g></svg>`), 0o600))
	h.must(h.Go("/cards/" + h.id + "/base"))
	h.there("kind-fromLines")
	h.must(h.Upload(browser.ID("base-drawing-input"), file))
	h.says("drawn-dialog", "The cut that ends at 20, 180 mm is 13/32 in (10 mm) short")
	h.segment("drawn-side", "Inside up")
	h.choose("drawn-ask-0", "It is a slit")
	h.says("drawn-verdict", "Folds. Closed 5 ½ × 4 ⅛ in")
	h.put("drawn-outside-0", "Shop front")
	h.wait(`document.querySelector('[data-testid=drawn-outside-0]').value === 'Shop front'`)
	h.click("drawn-make")
	h.says("verdict", "Folds flat")
	c := func() card.Card {
		v, err := h.app.App.Open(t.Context(), h.id)
		require.NoError(t, err)
		return v.Card
	}
	b := c().Base
	require.NotNil(t, b.Drawn)
	assert.Equal(t, "Box", b.Drawn.Name)
	assert.InDelta(t, 140, b.Width, .01)
	assert.InDelta(t, 105, b.Height, .01)
	net := fold.StudyOf(b).Net
	assert.Equal(t, "Shop front", net.Face(card.Front).Name)
	assert.True(t, fold.StudyOf(b).Verdict.Folds)
	h.must(h.Click("[aria-label='Rename Back']"))
	h.must(h.Fill("[aria-label='Name of the face Back']", "Yard"))
	h.wait(`document.body.textContent.includes('Yard')`)
	assert.Equal(t, "Yard", fold.Of(c().Base).Face(card.Back).Name)
	h.click("kind-sideFold")
	h.wait(`!document.body.textContent.includes('Yard')`)
	assert.Nil(t, c().Base.Drawn)
	h.keys("z", ctrl)
	h.wait(`document.body.textContent.includes('Yard')`)
}

// Of a drawing that cannot become a base as it is, what is wrong is said, and what is open is asked.
func TestAnUnclearDrawingIsAskedAbout(t *testing.T) {
	h := lay(t)
	dir := t.TempDir()
	write := func(name, body string) string {
		file := filepath.Join(dir, name)
		require.NoError(t, os.WriteFile(file, []byte(`<svg xmlns="http://www.w3.org/2000/svg" width="240mm" height="200mm" viewBox="0 0 240 200"><g fill="none" stroke="#000">`+body+`</g></svg>`), 0o600))
		return file
	}
	h.must(h.Go("/cards/" + h.id + "/base"))
	h.there("kind-fromLines")
	h.must(h.Upload(browser.ID("base-drawing-input"), write("Open.svg", `<path d="M10 20V170H210V10H20"/><path stroke="#00f" stroke-dasharray="3 2" d="M110 10V170"/>`)))
	h.says("drawn-dialog", "The outline of the sheet is open")
	h.choose("drawn-ask-0", "Close it")
	h.says("drawn-verdict", "Folds.")
	h.choose("drawn-line-0", "Leave out")
	h.says("drawn-wrong", "no sheet is so narrow")
	h.wait(`document.querySelector('[data-testid=drawn-make]').disabled`)
	h.keys("\u001b")
	h.wait(`!document.querySelector('[data-testid=drawn-dialog]')?.checkVisibility()`)
	h.must(h.Upload(browser.ID("base-drawing-input"), write("Small.svg", `<path d="M10 10H20V20H10Z"/>`)))
	h.says("drawn-wrong", "between 1 in")
	v, err := h.app.App.Open(t.Context(), h.id)
	require.NoError(t, err)
	assert.EqualValues(t, 1, v.Revision, "nothing was made of either")
}

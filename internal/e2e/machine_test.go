package e2e

import (
	"bytes"
	"image/png"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest/sheettest"
	"sectilis/core/production/sheet"
	"sectilis/internal/browser"
	"sectilis/internal/testserver"
)

// The demo's invitation: its sheets are laid closer and printed, the base is put on the
// mat, its marks are found, it is scored, the tool is changed, the connection is lost
// while it is cut, and the run goes on to the result.
func TestFromTheDemoCardToTheResult(t *testing.T) {
	app, err := testserver.Start(t.Context(), testserver.Options{Data: filepath.Join(t.TempDir(), "cards.db"), Demo: true})
	require.NoError(t, err)
	defer app.Stop()
	cards, err := app.App.Cards(t.Context(), "Harvest Supper")
	require.NoError(t, err)
	require.Len(t, cards, 1)
	id := cards[0].ID
	h := open(t, app.URL)
	h.must(h.Go("/cards/" + id + "/sheets"))
	h.says("sheet-count", "sheets")
	h.click("print")
	h.says("print-note", "pages printed")

	h.click("station-machine")
	h.click("run-1")
	h.click("load")
	h.says("run-state-1", "on the mat")
	h.click("find")
	h.says("lies", "Marks agree within")
	h.mishap("lost")
	h.click("cut")
	h.says("headline", "Put the scoring tip into the holder")
	h.click("tool-in")
	// The score is 178 mm long: the connection is lost on it.
	h.says("headline", "The connection to the cutter was lost")
	h.says("run-state-1", "failed")
	h.click("go-on")
	h.says("headline", "Put the blade into the holder")
	h.says("tool", "scoring tip")
	h.click("tool-in")
	h.says("run-state-1", "done")
	h.there("result")
	h.says("apart", "Base")
	h.click("show-apart")
	h.says("bed", "mm")

	l, err := app.App.Layout(t.Context(), id, sheettest.Usual(sheet.Sizes()[0]))
	require.NoError(t, err)
	state := l.Sheets[0].State
	assert.Equal(t, state.Of, state.Done)
	require.Len(t, state.Apart, 1)
	assert.Less(t, state.Apart[0].Mean, .08)
	assert.Less(t, state.Apart[0].Worst, .2)

	// The picture of the result is that of the bed: a sheet with a dark outline on it.
	h.click("show-result")
	h.wait(`document.querySelector('[data-testid=result]').naturalWidth > 100`)
	src, err := browser.Eval[string](h.Page, `new URL(document.querySelector('[data-testid=result]').src).pathname`)
	h.must(err)
	bed, err := png.Decode(bytes.NewReader(h.fetch(src)))
	require.NoError(t, err)
	dark := 0
	for y := range bed.Bounds().Dy() {
		for x := range bed.Bounds().Dx() {
			if r, g, b, _ := bed.At(x, y).RGBA(); r>>8 == 0x1f && g>>8 == 0x2b && b>>8 == 0x38 {
				dark++
			}
		}
	}
	assert.Greater(t, dark, 2*(254+178)*4, "each mm of the outline has four pixels and more")
}

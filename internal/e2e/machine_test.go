package e2e

import (
	"bytes"
	"image/png"
	"net"
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
	app, err := testserver.Start(t.Context(), testserver.Options{Again: true, Data: filepath.Join(t.TempDir(), "cards.db"), Demo: true})
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

// A cutter of one's own is named with what its tools do not reach, is used, kept on the list, and gives way to
// the one that the program came with.
func TestACutterOfOnesOwnIsUsed(t *testing.T) {
	h := lay(t, square("A", 2, 2))
	garage, err := net.Listen("tcp", "127.0.0.1:0")
	h.must(err)
	defer func() { _ = garage.Close() }()
	h.click("station-machine")
	h.there("run-1")
	h.click("other-cutter")
	h.fill("cutter-name", "Garage")
	h.click("cutter-more")
	h.put("cutter-blind-left", "3/4 in")
	h.put("cutter-speed", "25")
	h.put("cutter-address", garage.Addr().String())
	h.click("cutter-use")
	h.wait(`document.body.textContent.includes('Garage')`)
	l, err := h.app.App.Layout(t.Context(), h.id, options(h))
	h.must(err)
	for _, sh := range l.Sheets {
		for _, p := range sh.Pieces {
			assert.GreaterOrEqual(t, p.Outline.Bounds().X, .75*in-1e-6, "%s is where tools reach", p.Name)
		}
		for _, p := range sh.Passes {
			assert.LessOrEqual(t, p.Speed, 25.)
		}
	}
	h.click("other-cutter")
	h.click("cutter-own")
	h.wait(`!document.querySelector('[data-testid=cutter-menu]')?.checkVisibility()`)
	all, err := h.app.App.Machines(t.Context())
	h.must(err)
	require.Len(t, all, 1)
	assert.Equal(t, "Garage", all[0].Name)
	h.click("other-cutter")
	h.says("machine-list", "Garage")
}

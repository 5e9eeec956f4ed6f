package e2e

import (
	"bytes"
	"image"
	"image/color"
	"image/draw"
	"image/png"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/production/sheet"
	"sectilis/internal/browser"
)

// A stock of one's own is added, its colour picked from a photo and its thickness measured from ten
// sheets; a mat is cut from it, on its own sheet, and what is measured anew follows on the card.
func TestAStockOfOnesOwnIsMeasuredAndUsed(t *testing.T) {
	h := headline(t)
	t.Cleanup(func() { card.KnowStocks(nil); sheet.KnowSizes(nil) })
	h.must(h.Go("/cards/" + h.id + "/panels"))
	h.click("layer-i1")
	h.click("add-mat")
	h.click("new-mat-stock")
	h.click("stocks-open")
	h.there("stocks")
	h.click("stock-add")
	h.wait(`document.querySelector('[data-testid=stock-name]')?.value === 'New stock'`)
	h.put("stock-name", "Linen board")
	paper := image.NewNRGBA(image.Rect(0, 0, 300, 200))
	draw.Draw(paper, paper.Rect, image.NewUniform(color.NRGBA{120, 140, 160, 255}), image.Point{}, draw.Src)
	var raw bytes.Buffer
	require.NoError(t, png.Encode(&raw, paper))
	h.must(h.Upload(browser.ID("stock-photo-input"), saved(t, "linen.png", raw.Bytes())))
	h.wait(`document.querySelector('[data-testid=stock-canvas]')?.width === 300`)
	h.click("stock-canvas")
	h.wait(`document.querySelector('[data-testid=stock-colour]').value === '#788ca0'`)
	h.fill("pile-together", "6.2")
	h.wait(`document.querySelector('[data-testid=stock-thickness]').value === '0.62 mm'`)
	h.fill("stock-thickness", "90")
	h.says("stock-wrong", "between 0.02 mm and 6 mm")
	h.must(h.Click(".ant-modal-close"))

	h.click("add-mat")
	h.choose("new-mat-stock", "Linen board")
	h.click("lay-mat")
	h.says("layer-i3", "Linen board")
	mat := h.item(2, "i3")
	stock, ok := card.StockByID(mat.Made.Stock)
	require.True(t, ok)
	assert.InDelta(t, .62, stock.Thickness, 1e-9)
	// Two mats at once, the lower one wider at its foot; then it becomes a circle, a little to the right.
	h.click("add-mat")
	h.put("new-mat-width", "2 mm")
	h.click("new-mat-more")
	h.put("new-mat-width-2", "4 mm")
	h.put("new-mat-below", "9 mm")
	h.click("lay-mat")
	h.says("layer-i5", "Linen board")
	assert.InDelta(t, 2, h.item(3, "i4").Mat.Width, 1e-9)
	low := h.item(3, "i5").Mat
	assert.Equal(t, [3]any{"i4", 4.0, 9.0}, [3]any{low.Of, low.Width, low.Below})
	h.click("layer-i5")
	h.choose("mat-form", "Circle")
	h.fill("mat-dx", "3 mm")
	low = h.item(5, "i5").Mat
	assert.Equal(t, "circle", low.Form)
	assert.InDelta(t, 3, low.DX, 1e-9)
	h.must(h.Click(browser.ID("station-sheets")))
	h.wait(`document.body.textContent.includes('Linen board')`)
	h.click("size-add")
	h.fill("size-width", "200 mm")
	h.fill("size-height", "500 mm")
	h.put("size-name", "Long strip")
	h.click("size-keep")
	h.says("paper", "Long strip")
	h.wait(`document.body.textContent.includes('Long strip ·')`)
	require.Equal(t, "own-200x500", got(h.app.App.SheetsOf(t.Context(), h.id)).Size)
	h.click("size-add")
	h.click("size-drop-own-200x500")
	h.wait(`!document.querySelector('[data-testid=size-drop-own-200x500]')`)
	h.says("paper", "200 × 500 mm")
}

// How a stock is cut is set on its page, and holds at the machine. All supplies of one's own go out as a file
// and come in at another program.
func TestCutSettingsOfAStockAndSuppliesAsAFile(t *testing.T) {
	h := lay(t, square("A", 2, 2))
	h.click("tab-art")
	h.click("layer-i1")
	h.click("keep-art")
	h.wait(`!!document.querySelector('.supply.art[title="A"]')`)
	h.click("station-sheets")
	h.there("sheet-1")
	h.click("stocks-verb")
	h.click("stock-moss-216")
	h.fill("cut-force", "205")
	h.wait(`document.querySelector('[data-testid=cut-force]').value.startsWith('205')`)
	l, err := h.app.App.Layout(t.Context(), h.id, options(h))
	h.must(err)
	for _, sh := range l.Sheets {
		if sh.Stock.ID == "moss-216" {
			assert.Equal(t, 205, sh.Settings.Force)
		}
	}

	file := saved(t, "supplies.zip", h.fetch("/api/supplies.zip"))
	other := lay(t)
	other.click("tab-art")
	other.click("supplies-all")
	other.there("supplies-in")
	other.must(other.Upload(browser.ID("supplies-input"), file))
	other.says("supplies-came", "1 are new")
	other.wait(`!!document.querySelector('.supply.art[title="A"]')`)
	other.must(other.Upload(browser.ID("supplies-input"), saved(t, "no.zip", []byte("words"))))
	other.says("supplies-came", "no file of supplies")
}

// A card goes out as one file and comes to the table again, with all that is on it.
func TestACardIsHandedOn(t *testing.T) {
	h := lay(t, square("Label", 2, 2))
	h.click("files-out")
	h.there("out-card")
	file := filepath.Join(t.TempDir(), "Trial.sectilis")
	require.NoError(t, os.WriteFile(file, h.fetch("/api/cards/"+h.id+"/file"), 0o600))
	h.must(h.Go("/"))
	h.says("card-count", "1 card")
	h.must(h.Upload(browser.ID("bring-card-input"), file))
	h.says("card-count", "2 cards")
	cards, err := h.app.App.Cards(t.Context(), "")
	require.NoError(t, err)
	was, err := h.app.App.Open(t.Context(), h.id)
	require.NoError(t, err)
	now, err := h.app.App.Open(t.Context(), cards[0].ID)
	require.NoError(t, err)
	assert.NotEqual(t, was.ID, now.ID)
	assert.Equal(t, was.Card, now.Card)
}

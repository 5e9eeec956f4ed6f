package e2e

import (
	"image"
	"image/color"
	"image/png"
	"math"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
	"sectilis/demo"
	"sectilis/internal/browser"
)

// saved writes a picture into a file.
func saved(t *testing.T, name string, raw []byte) string {
	t.Helper()
	path := filepath.Join(t.TempDir(), name)
	require.NoError(t, os.WriteFile(path, raw, 0o600))
	return path
}

// A transparent picture that is brought in is cut round what it shows, with a rim of paper that
// the cutting line follows.
func TestATransparentPictureIsCutRound(t *testing.T) {
	h := lay(t)
	files, err := demo.Photos()
	require.NoError(t, err)
	h.click("tab-photos")
	h.must(h.Upload(browser.ID("file-input"), saved(t, "Robin.png", files["Robin.png"])))
	h.wait(`!!document.querySelector('[data-testid^=supply-photo-]')`)
	h.must(h.Click(`[data-testid^=supply-photo-]`))
	h.point(2.5, 3)
	h.there("item-i1")
	it := h.item(2, "i1")
	require.NotNil(t, it.Photo.Opening)
	assert.Equal(t, card.Free, it.Photo.Opening.Outline)
	assert.Equal(t, card.FirstRim(), it.Photo.Rim)
	h.must(h.Keys("\x1b"))
	h.click("layer-i1")

	cut := func() geom.Path {
		s, err := h.app.App.Open(t.Context(), h.id)
		require.NoError(t, err)
		return s.Scene.Face(card.Front).Items[0].Outline
	}
	narrow := cut()
	assert.Len(t, narrow.Rings(), 1, "holes are filled with paper")
	h.fill("rim-width", "5 mm")
	assert.InDelta(t, 5, h.item(3, "i1").Photo.Rim.Width, 1e-6)
	wide := cut()
	assert.InDelta(t, narrow.Bounds().W+2*(5-card.FirstRim().Width), wide.Bounds().W, .01)
	h.click("rim-solid")
	h.front(4)
	assert.Greater(t, len(cut().Rings()), 1)
	h.click("rim-none")
	assert.Nil(t, h.item(5, "i1").Photo.Rim)
	h.click("rim-add")
	h.front(6)

	h.must(h.Go("/cards/" + h.id + "/sheets"))
	h.says("sheet-count", "sheets")
	lines := ""
	for _, n := range []string{"1", "2"} {
		lines += string(h.fetch("/api/cards/" + h.id + "/sheets/" + n + "/lines.svg"))
	}
	assert.Contains(t, lines, "C", "it is cut along its form")
}

// frame is a picture of a dark rounded rectangle with a ragged edge, 640 by 480 pixels.
func frame(t *testing.T) string {
	img := image.NewNRGBA(image.Rect(0, 0, 640, 480))
	for y := range 480 {
		for x := range 640 {
			dx, dy := math.Abs(float64(x)-320)-240+60, math.Abs(float64(y)-240)-180+60
			off := math.Hypot(max(dx, 0), max(dy, 0)) + min(max(dx, dy), 0) - 60
			rag := 3*math.Sin(float64(x)*.8)*math.Cos(float64(y)*.7) + 2*math.Sin(float64(3*x+5*y)*.31)
			c := color.NRGBA{248, 244, 236, 255}
			if off+rag < 0 {
				c = color.NRGBA{70, 50, 40, 255}
			}
			img.SetNRGBA(x, y, c)
		}
	}
	path := filepath.Join(t.TempDir(), "Old frame.png")
	f, err := os.Create(path)
	require.NoError(t, err)
	require.NoError(t, png.Encode(f, img))
	require.NoError(t, f.Close())
	return path
}

// A ragged frame is traced, laid as a piece and gives way to the rounded rectangle that it was
// meant to be.
func TestARaggedFrameBecomesARoundedRectangle(t *testing.T) {
	h := lay(t)
	h.click("tab-photos")
	h.must(h.Upload(browser.ID("file-input"), frame(t)))
	h.wait(`!!document.querySelector('[data-testid^=supply-photo-]')`)
	h.must(h.Click(`[data-testid^=supply-photo-]`))
	h.point(2.5, 3)
	h.there("item-i1")
	h.must(h.Keys("\x1b"))
	h.click("layer-i1")
	h.click("trace")
	h.there("trace-outline")
	h.says("trace-told", "1 ring of")
	h.segment("trace-by", "Layers")
	h.wait(`document.querySelectorAll('[data-testid=trace-outline]').length === 2`)
	h.segment("trace-by", "Dark")
	h.fill("trace-smooth", "0.5 mm")
	h.wait(`/^1 ring of/.test(document.querySelector('[data-testid=trace-told]')?.textContent ?? '')`)
	h.click("trace-lay")
	h.there("item-i2")
	traced := h.item(3, "i2")
	assert.Equal(t, card.Cut, traced.Made.As)
	assert.Equal(t, card.Free, traced.Form.Outline)
	assert.Equal(t, "Old frame, traced", traced.Name)

	h.click("find-forms")
	h.says("plain-forms", "Rounded rectangle")
	first, err := h.Text(`[data-testid=plain-forms] button b`)
	h.must(err)
	assert.Equal(t, "Rounded rectangle", strings.TrimSpace(first))
	h.click("form-rounded")
	h.front(4)
	it := h.item(4, "i2")
	photo := h.item(4, "i1").Photo
	mm := scene.Seen(*photo, card.UsualBleed).Box.W / 640
	assert.Equal(t, card.Rectangle, it.Form.Outline)
	assert.Equal(t, card.Round, it.Form.Corner)
	assert.InDelta(t, 480*mm, it.Form.Width, .7)
	assert.InDelta(t, 360*mm, it.Form.Height, .7)
	assert.InDelta(t, 60*mm, it.Form.Radius, 1)
	assert.InDelta(t, 0, it.Place.Turn, .3)
}

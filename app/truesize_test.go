package app_test

import (
	"bytes"
	"image/png"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/production/sheet"
)

func TestAPrinterIsCorrectedByItsTestPage(t *testing.T) {
	f := start(t)
	size := sheet.Sizes()[0]
	print := func() (wide, high float64) {
		t.Helper()
		j, err := f.TestPage(t.Context(), size, "white-216")
		require.NoError(t, err)
		f.press.goOn <- nil
		f.until(j.ID, app.Done)
		img, err := png.Decode(bytes.NewReader(f.press.pages[len(f.press.pages)-1].PNG))
		require.NoError(t, err)
		b := img.Bounds()
		scale := float64(b.Dx()) / size.Width
		// The long rulers are the only lines that reach that far.
		x0, x1, y0, y1 := b.Max.X, 0, b.Max.Y, 0
		dark := func(x, y int) bool { r, _, _, _ := img.At(x, y).RGBA(); return r < 0x8000 }
		for x := range b.Dx() {
			if dark(x, b.Dy()/2-int(3*scale)) {
				x0, x1 = min(x0, x), max(x1, x)
			}
		}
		for y := range b.Dy() {
			if dark(b.Dx()/2+int(3*scale), y) {
				y0, y1 = min(y0, y), max(y1, y)
			}
		}
		return float64(x1-x0) / scale, float64(y1-y0) / scale
	}
	w, h := print()
	assert.InDelta(t, 160, w, .3)
	assert.InDelta(t, 220, h, .3)

	// It comes out larger across and smaller down than it should.
	c, err := f.Measured(t.Context(), size, 161.6, 219)
	require.NoError(t, err)
	assert.InDelta(t, 160/161.6, c.Across, 1e-9)
	w, h = print()
	assert.InDelta(t, 160*160/161.6, w, .3)
	assert.InDelta(t, 220*220./219, h, .3)
	assert.Equal(t, app.TrueSize{Correction: c, Rulers: [2]float64{160, 220}}, got(f.TrueSize(t.Context(), size)))

	// Measured again when it is right, it stays; what was fitted to the paper is refused.
	again, err := f.Measured(t.Context(), size, 160, 220)
	require.NoError(t, err)
	assert.InDelta(t, c.Across, again.Across, 1e-9)
	_, err = f.Measured(t.Context(), size, 150, 205)
	assert.ErrorContains(t, err, "actual size")
	_, err = f.Measured(t.Context(), size, 0, 220)
	assert.ErrorContains(t, err, "Measure both rulers")
	require.NoError(t, f.AsItComes(t.Context()))
	assert.Equal(t, app.Correction{Across: 1, Down: 1}, got(f.Correction(t.Context())))
}

func TestScrapsAreKept(t *testing.T) {
	f := start(t)
	assert.Empty(t, got(f.Scraps(t.Context())))
	scraps := []sheet.Scrap{{Stock: "moss-216", Width: 127, Height: 76.2}}
	require.NoError(t, f.KeepScraps(t.Context(), scraps))
	assert.Equal(t, scraps, got(f.Scraps(t.Context())))
	for _, bad := range []sheet.Scrap{{Stock: "gold", Width: 50, Height: 50}, {Stock: "moss-216", Width: 5, Height: 50}} {
		assert.Error(t, f.KeepScraps(t.Context(), []sheet.Scrap{bad}))
	}
	assert.Equal(t, scraps, got(f.Scraps(t.Context())))
}

// got is a value that was to be had without an error.
func got[T any](v T, err error) T {
	if err != nil {
		panic(err)
	}
	return v
}

package standin

import (
	"bytes"
	"image"
	"image/color"
	"math"
	"net/http"
	"net/http/httptest"
	"testing"

	"github.com/stretchr/testify/require"

	"sectilis/core/format/raster"
)

// BenchmarkPage is the time that a letter page at 300 pixels to the inch takes, half of it
// a photo: what the sender takes to write it, and what the stand-in takes to print it at 600.
// The goal is under 1 s for both.
func BenchmarkPage(b *testing.B) {
	const perMM = 300 / 25.4
	img := image.NewRGBA(image.Rect(0, 0, 2550, 3300))
	for y := range 3300 {
		for x := range 2550 {
			c := color.RGBA{255, 255, 255, 255}
			if x > 300 && x < 2200 && y > 300 && y < 1900 {
				f := 90 + 60*math.Sin(float64(x)/70)*math.Cos(float64(y)/90)
				c = color.RGBA{uint8(f), uint8(f/2 + float64((x*7919+y*104729)%13)), uint8(200 - f), 255}
			}
			img.SetRGBA(x, y, c)
		}
	}
	p, err := NewPrinter(3, b.TempDir())
	require.NoError(b, err)
	h := p.Handler()
	for b.Loop() {
		var raw bytes.Buffer
		require.NoError(b, raster.WritePNG(&raw, img, perMM))
		w := httptest.NewRecorder()
		h.ServeHTTP(w, httptest.NewRequest(http.MethodPost, "/pages?width=215.9&paper=%23fff6e0", &raw))
		require.Equal(b, 200, w.Code, w.Body.String())
	}
}

package app_test

import (
	"bytes"
	"image"
	"image/color"
	"image/jpeg"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/store"
)

// BenchmarkBringIn takes a JPEG of 12 megapixels: read, kept, and its previews
// made.
func BenchmarkBringIn(b *testing.B) {
	img := image.NewRGBA(image.Rect(0, 0, 4000, 3000))
	for y := range 3000 {
		for x := range 4000 {
			img.SetRGBA(x, y, color.RGBA{uint8(x / 16), uint8(y / 12), uint8(x * y >> 12), 255})
		}
	}
	var raw bytes.Buffer
	require.NoError(b, jpeg.Encode(&raw, img, nil))
	s, err := store.Open(b.Context(), filepath.Join(b.TempDir(), "a.db"))
	require.NoError(b, err)
	defer func() { _ = s.Close() }()
	a := app.New(app.Config{Store: s})
	defer a.Close()
	for b.Loop() {
		_, err := a.BringIn(b.Context(), "big.jpg", raw.Bytes())
		require.NoError(b, err)
	}
}

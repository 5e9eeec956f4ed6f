package raster_test

import (
	"bytes"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/format/raster"
)

func TestPicturesSayHowLargeTheyAre(t *testing.T) {
	img := image.NewRGBA(image.Rect(0, 0, 30, 20))
	img.Set(3, 4, color.RGBA{200, 10, 20, 255})
	var b bytes.Buffer
	require.NoError(t, raster.WritePNG(&b, img, 600/25.4))
	assert.Contains(t, b.String(), "pHYs\x00\x00\x5c\x46\x00\x00\x5c\x46\x01", "23622 to the metre")
	back, err := png.Decode(bytes.NewReader(b.Bytes()))
	require.NoError(t, err, "the chunk's check is right")
	assert.Equal(t, img.At(3, 4), color.RGBAModel.Convert(back.At(3, 4)))

	b.Reset()
	require.NoError(t, raster.WriteJPEG(&b, img, 150/25.4))
	assert.Equal(t, []byte("\xff\xd8\xff\xe0\x00\x10JFIF\x00\x01\x02\x01\x00\x96\x00\x96"), b.Bytes()[:18])
	cfg, err := jpeg.DecodeConfig(bytes.NewReader(b.Bytes()))
	require.NoError(t, err)
	assert.Equal(t, []int{30, 20}, []int{cfg.Width, cfg.Height})
}

// Bands that are compressed side by side are one picture, whatever its size.
func TestAPNGIsThePictureThatWasWritten(t *testing.T) {
	rnd := rand.New(rand.NewPCG(4, 2))
	for _, size := range [][2]int{{1, 1}, {3, 63}, {5, 64}, {7, 65}, {2, 127}, {9, 128}, {640, 411}, {1, 2000}} {
		img := image.NewRGBA(image.Rect(0, 0, size[0], size[1]))
		for y := range size[1] {
			for x := range size[0] {
				c := color.RGBA{uint8(x), uint8(y), uint8(x * y), 255}
				if x%3 == 0 {
					c = color.RGBA{uint8(rnd.IntN(256)), uint8(rnd.IntN(256)), uint8(rnd.IntN(256)), 255}
				}
				img.SetRGBA(x, y, c)
			}
		}
		var b bytes.Buffer
		require.NoError(t, raster.WritePNG(&b, img, 300/25.4))
		got, err := png.Decode(&b)
		require.NoError(t, err, "%v", size)
		require.Equal(t, img.Bounds(), got.Bounds())
		for y := range size[1] {
			for x := range size[0] {
				require.Equal(t, img.RGBAAt(x, y), color.RGBAModel.Convert(got.At(x, y)), "%v at %d, %d", size, x, y)
			}
		}
	}
	assert.ErrorContains(t, raster.WritePNG(&bytes.Buffer{}, image.NewRGBA(image.Rectangle{}), 1), "0 × 0")
}

package raster_test

import (
	"bytes"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
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

package apng

import (
	"bytes"
	"encoding/binary"
	"image"
	"image/color"
	"image/png"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func frame(size int, c color.Color) Frame {
	img := image.NewRGBA(image.Rect(0, 0, size, size/2))
	for i := range img.Bounds().Dx() {
		for j := range img.Bounds().Dy() {
			img.Set(i, j, c)
		}
	}
	return Frame{img, 120}
}

// Readers that know no animation see the first frame; each frame is a whole picture, in order.
func TestFramesComeBack(t *testing.T) {
	colours := []color.Color{color.RGBA{200, 10, 10, 255}, color.RGBA{10, 200, 10, 255}, color.RGBA{10, 10, 200, 255}}
	var frames []Frame
	for _, c := range colours {
		frames = append(frames, frame(400, c))
	}
	var b bytes.Buffer
	require.NoError(t, Write(&b, frames))
	img, err := png.Decode(bytes.NewReader(b.Bytes()))
	require.NoError(t, err)
	assert.Equal(t, colours[0], img.At(5, 5))
	parts, err := chunks(b.Bytes())
	require.NoError(t, err)
	sequence := uint32(0)
	var header []byte
	var data [][]byte
	for _, c := range parts {
		switch c.name {
		case "IHDR":
			header = c.data
		case "acTL":
			assert.Equal(t, uint32(3), binary.BigEndian.Uint32(c.data))
		case "fcTL":
			assert.Equal(t, sequence, binary.BigEndian.Uint32(c.data))
			assert.Equal(t, uint16(120), binary.BigEndian.Uint16(c.data[20:]))
			sequence++
			data = append(data, nil)
		case "IDAT":
			data[0] = append(data[0], c.data...)
		case "fdAT":
			assert.Equal(t, sequence, binary.BigEndian.Uint32(c.data))
			sequence++
			data[len(data)-1] = append(data[len(data)-1], c.data[4:]...)
		}
	}
	require.Len(t, data, 3)
	for i, d := range data {
		var one bytes.Buffer
		one.WriteString(head)
		w := &writer{w: &one}
		w.chunk("IHDR", header)
		w.chunk("IDAT", d)
		w.chunk("IEND", nil)
		require.NoError(t, w.err)
		img, err := png.Decode(&one)
		require.NoError(t, err, "frame %d", i)
		assert.Equal(t, colours[i], img.At(100, 50))
	}
	require.Error(t, Write(&b, nil))
	require.ErrorContains(t, Write(&b, []Frame{frame(400, colours[0]), frame(300, colours[0])}), "differs")
}

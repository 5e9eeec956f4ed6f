package picture

import (
	"bytes"
	"encoding/binary"
	"hash/crc32"
	"image"
	"image/jpeg"
	"image/png"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// withChunk is a PNG with a chunk after its head.
func withChunk(t *testing.T, kind string, body []byte) []byte {
	t.Helper()
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, image.NewGray(image.Rect(0, 0, 3, 3))))
	raw := b.Bytes()
	const head = 8 + 25
	chunk := binary.BigEndian.AppendUint32(nil, uint32(len(body)))
	chunk = append(append(chunk, kind...), body...)
	chunk = binary.BigEndian.AppendUint32(chunk, crc32.ChecksumIEEE(chunk[4:]))
	return append(append(bytes.Clone(raw[:head]), chunk...), raw[head:]...)
}

// withDensity is a JPEG with a JFIF header that tells its density.
func withDensity(t *testing.T, unit byte, x, y uint16) []byte {
	t.Helper()
	var b bytes.Buffer
	require.NoError(t, jpeg.Encode(&b, image.NewGray(image.Rect(0, 0, 8, 8)), nil))
	app := []byte{0xff, 0xe0, 0, 16, 'J', 'F', 'I', 'F', 0, 1, 2, unit}
	app = binary.BigEndian.AppendUint16(app, x)
	app = append(binary.BigEndian.AppendUint16(app, y), 0, 0)
	return append(append([]byte{0xff, 0xd8}, app...), b.Bytes()[2:]...)
}

func TestThePrintedSizeOfAPictureIsRead(t *testing.T) {
	perMetre := func(x, y uint32, unit byte) []byte {
		return append(binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32(nil, x), y), unit)
	}
	spoilt := withChunk(t, "pHYs", perMetre(11811, 11811, 1))
	spoilt[8+25+10]++
	for name, c := range map[string]struct {
		raw  []byte
		want float64
	}{
		"PNG":                     {withChunk(t, "pHYs", perMetre(11811, 11811, 1)), 300},
		"PNG, no unit":            {withChunk(t, "pHYs", perMetre(11811, 11811, 0)), 0},
		"PNG, not square":         {withChunk(t, "pHYs", perMetre(11811, 5906, 1)), 0},
		"PNG, too short":          {withChunk(t, "pHYs", []byte{1, 2}), 0},
		"PNG, spoilt":             {spoilt, 0},
		"PNG, beyond sense":       {withChunk(t, "pHYs", perMetre(1, 1, 1)), 0},
		"PNG, other chunk":        {withChunk(t, "tEXt", []byte("a\x00b")), 0},
		"JPEG, to the inch":       {withDensity(t, 1, 240, 240), 240},
		"JPEG, to the centimetre": {withDensity(t, 2, 100, 100), 254},
		"JPEG, a ratio":           {withDensity(t, 0, 1, 1), 0},
		"JPEG, not square":        {withDensity(t, 1, 240, 120), 0},
		"nothing":                 {nil, 0},
		"cut off":                 {[]byte("\x89PNG\r\n\x1a\n\x7f\xff\xff\xffpHYs"), 0},
	} {
		got, ok := Resolution(c.raw)
		assert.Equal(t, c.want > 0, ok, name)
		if ok {
			assert.InDelta(t, c.want, got, .01, name)
		}
	}
}

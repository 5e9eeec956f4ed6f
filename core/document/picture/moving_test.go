package picture_test

import (
	"bytes"
	"encoding/base64"
	"encoding/binary"
	"hash/crc32"
	"image"
	"image/png"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/picture"
)

// still is a WebP of one pixel, lossless.
const still = "UklGRhoAAABXRUJQVlA4TA0AAAAvAAAAEAcQERGIiP4HAA=="

func TestAMovingWebPGivesItsFirstPicture(t *testing.T) {
	raw, err := base64.StdEncoding.DecodeString(still)
	require.NoError(t, err)
	_, info, err := picture.Decode("a.webp", raw)
	require.NoError(t, err)
	chunk := func(kind string, body []byte) []byte {
		out := append([]byte(kind), binary.LittleEndian.AppendUint32(nil, uint32(len(body)))...)
		out = append(out, body...)
		if len(body)%2 == 1 {
			out = append(out, 0)
		}
		return out
	}
	body := chunk("VP8X", []byte{2, 0, 0, 0, 0, 0, 0, 0, 0, 0})
	body = append(body, chunk("ANIM", make([]byte, 6))...)
	for range 3 {
		body = append(body, chunk("ANMF", append(make([]byte, 16), raw[12:]...))...)
	}
	moving := append([]byte("RIFF"), binary.LittleEndian.AppendUint32(nil, uint32(len(body)+4))...)
	moving = append(append(moving, "WEBP"...), body...)
	img, got, err := picture.Decode("a.webp", moving)
	require.NoError(t, err)
	assert.Equal(t, info, got)
	assert.Equal(t, image.Rect(0, 0, 1, 1), img.Bounds())
	for cut := range moving { // cut off anywhere it is refused in a sentence, or read
		if _, _, err := picture.Decode("a.webp", moving[:cut]); err != nil {
			var e *picture.Error
			require.ErrorAs(t, err, &e)
		}
	}
}

// A picture of few bytes that takes very many when it is decoded is refused before.
func TestDeepPicturesAreBoundedByWhatTheyTakeDecoded(t *testing.T) {
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, image.NewGray16(image.Rect(0, 0, 4, 4))))
	raw := b.Bytes()
	// The header tells another size and kind: 8,900 × 8,900, 16 bits, red, green, blue, alpha.
	binary.BigEndian.PutUint32(raw[16:], 8900)
	binary.BigEndian.PutUint32(raw[20:], 8900)
	raw[24], raw[25] = 16, 6
	binary.BigEndian.PutUint32(raw[29:], crc(raw[12:29]))
	_, err := picture.Inspect("deep.png", raw)
	var e *picture.Error
	require.ErrorAs(t, err, &e)
	assert.Contains(t, e.Why, "8 bits a colour")
}

func crc(b []byte) uint32 { return crc32.ChecksumIEEE(b) }

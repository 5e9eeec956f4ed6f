package picture_test

import (
	"bytes"
	"encoding/binary"
	"hash/crc32"
	"image"
	"image/png"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/picture"
)

func TestHostilePicturesAreRefusedBeforeTheyAreDecoded(t *testing.T) {
	jpg, _ := coretest.Photo(t, 30, 20)
	var small bytes.Buffer
	require.NoError(t, png.Encode(&small, image.NewGray(image.Rect(0, 0, 4, 4))))
	// A PNG that claims 60,000 × 60,000 pixels in its header.
	bomb := bytes.Clone(small.Bytes())
	binary.BigEndian.PutUint32(bomb[16:], 60000)
	binary.BigEndian.PutUint32(bomb[20:], 60000)
	binary.BigEndian.PutUint32(bomb[29:], crc32.ChecksumIEEE(bomb[12:29]))
	for _, c := range []struct {
		name string
		raw  []byte
		why  string
	}{
		{"notes.jpg", []byte("just some words"), "no picture that can be read here"},
		{"empty.png", nil, "no picture"},
		{"clip.gif", []byte("GIF89a\x01\x00\x01\x00\x00\x00\x00"), "Bring in a JPEG, PNG or WebP"},
		{"plum.png", jpg, "is called a PNG but holds a JPEG picture"},
		{"huge.png", bomb, "3600 million pixels"},
		{"cut.jpg", jpg[:20], "damaged"},
		{"cut.webp", []byte("RIFF\x00\x00\x00\x00WEBPVP8 "), "damaged"},
	} {
		_, err := picture.Inspect(c.name, c.raw)
		var e *picture.Error
		require.ErrorAs(t, err, &e, c.name)
		assert.Contains(t, e.Why, c.why)
	}
	_, _, err := picture.Decode("cut.jpg", jpg[:len(jpg)/2])
	assert.ErrorContains(t, err, "damaged")
	info, err := picture.Inspect("plum.JPEG", jpg)
	require.NoError(t, err)
	assert.Equal(t, picture.Info{Type: "image/jpeg", Width: 30, Height: 20, Turn: 1, Decoded: 1800}, info)
}

func TestPreviewsFitAndKeepTransparency(t *testing.T) {
	jpg, _ := coretest.Photo(t, 300, 200)
	img, _, err := picture.Decode("a.jpg", jpg)
	require.NoError(t, err)
	raw, kind, err := picture.Preview(picture.Scale(img, 100))
	require.NoError(t, err)
	assert.Equal(t, "image/jpeg", kind)
	info, err := picture.Inspect("", raw)
	require.NoError(t, err)
	assert.Equal(t, 100, info.Width)
	_, kind, err = picture.Preview(picture.Scale(image.NewNRGBA(image.Rect(0, 0, 5, 5)), 100))
	require.NoError(t, err)
	assert.Equal(t, "image/png", kind)
}

func FuzzDecode(f *testing.F) {
	jpg, _ := coretest.Photo(f, 8, 8)
	f.Add(jpg)
	var p bytes.Buffer
	_ = png.Encode(&p, image.NewGray(image.Rect(0, 0, 3, 3)))
	f.Add(p.Bytes())
	f.Fuzz(func(t *testing.T, raw []byte) {
		if info, err := picture.Inspect("", raw); err == nil && info.Width*info.Height > 1_000_000 {
			return
		}
		_, _, _ = picture.Decode("x", raw)
	})
}

package picture_test

import (
	"bytes"
	"compress/zlib"
	"encoding/binary"
	"hash/crc32"
	"image"
	"image/color"
	"image/png"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest/profiletest"
	"sectilis/core/document/picture"
)

// profile is a profile of a screen whose red is sRGB's green and the other way round, with a gamma
// of 2.2 (three-component matrix-based).
func profile() []byte {
	gamma := append([]byte("curv\x00\x00\x00\x00\x00\x00\x00\x01"), 2, 51, 0, 0)
	return profiletest.Profile("mntr", "RGB ", "XYZ ",
		profiletest.Tag{Name: "rXYZ", Data: profiletest.XYZTag(.3851, .7169, .0971)}, profiletest.Tag{Name: "gXYZ", Data: profiletest.XYZTag(.4361, .2225, .0139)}, profiletest.Tag{Name: "bXYZ", Data: profiletest.XYZTag(.1431, .0606, .7141)},
		profiletest.Tag{Name: "rTRC", Data: gamma}, profiletest.Tag{Name: "gTRC", Data: gamma}, profiletest.Tag{Name: "bTRC", Data: gamma})
}

// withProfile is a PNG of one colour that brings a profile.
func withProfile(t *testing.T, c color.NRGBA, profile []byte) []byte {
	t.Helper()
	img := image.NewNRGBA(image.Rect(0, 0, 6, 4))
	for i := range 24 {
		img.SetNRGBA(i%6, i/6, c)
	}
	var plain bytes.Buffer
	require.NoError(t, png.Encode(&plain, img))
	var packed bytes.Buffer
	z := zlib.NewWriter(&packed)
	_, err := z.Write(profile)
	require.NoError(t, err)
	require.NoError(t, z.Close())
	body := append([]byte("iCCPtest\x00\x00"), packed.Bytes()...)
	const head = 8 + 25 // the signature and IHDR
	out := append([]byte{}, plain.Bytes()[:head]...)
	out = binary.BigEndian.AppendUint32(out, uint32(len(body)-4))
	out = append(out, body...)
	out = binary.BigEndian.AppendUint32(out, crc32.ChecksumIEEE(body))
	return append(out, plain.Bytes()[head:]...)
}

func TestTheProfileOfAPictureIsRespected(t *testing.T) {
	at := func(raw []byte) color.NRGBA {
		img, _, err := picture.Decode("swapped.png", raw)
		require.NoError(t, err)
		return color.NRGBAModel.Convert(img.At(3, 2)).(color.NRGBA)
	}
	swapped := withProfile(t, color.NRGBA{200, 80, 40, 255}, profile())
	assert.True(t, picture.Profiled(swapped))
	c := at(swapped)
	assert.InDelta(t, 80, c.R, 5)
	assert.InDelta(t, 200, c.G, 5)
	assert.InDelta(t, 40, c.B, 6)
	grey := at(withProfile(t, color.NRGBA{128, 128, 128, 255}, profile()))
	assert.InDelta(t, float64(grey.R), float64(grey.G), 2)
	assert.InDelta(t, 128, grey.R, 4)

	// What is no profile, or one without end, is left alone.
	for _, bad := range [][]byte{nil, []byte("no profile"), profile()[:200], append(profile()[:150], bytes.Repeat([]byte{255}, 500)...), make([]byte, 20<<20)} {
		raw := withProfile(t, color.NRGBA{200, 80, 40, 255}, bad)
		assert.False(t, picture.Profiled(raw))
		assert.Equal(t, color.NRGBA{200, 80, 40, 255}, at(raw))
	}
}

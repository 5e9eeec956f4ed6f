package picture_test

import (
	"bytes"
	"encoding/binary"
	"image"
	"image/color"
	"image/gif"
	"image/png"
	"testing"

	"github.com/lucasb-eyer/go-colorful"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/coretest/profiletest"
	"sectilis/core/document/picture"
)

// adobe is the segment that says that four components are inks, kept the other way round.
var adobe = append([]byte{0xee}, "Adobe\x00\x64\x00\x00\x00\x00\x00"...)

func seen(t *testing.T, raw []byte) color.NRGBA {
	t.Helper()
	img, _, err := picture.Decode("", raw)
	require.NoError(t, err)
	b := img.Bounds()
	return color.NRGBAModel.Convert(img.At(b.Min.X+1, b.Min.Y+1)).(color.NRGBA)
}

// A picture in four inks is read by what its inks leave of the paper, or by its profile.
func TestPicturesInFourInks(t *testing.T) {
	for _, inks := range [][4]uint8{{0, 0, 0, 0}, {255, 0, 0, 0}, {0, 200, 100, 0}, {30, 60, 90, 120}, {0, 0, 0, 255}} {
		stored := []uint8{255 - inks[0], 255 - inks[1], 255 - inks[2], 255 - inks[3]}
		c := seen(t, coretest.FlatJPEG(stored, adobe))
		for i, v := range []uint8{c.R, c.G, c.B} {
			assert.InDelta(t, float64(255-inks[i])*float64(255-inks[3])/255, v, 1.5, "%v", inks)
		}
	}
	// A profile by which the first ink is a green, and the others are nothing.
	green := profiletest.Profile("prtr", "CMYK", "Lab ", profiletest.Tag{Name: "A2B0", Data: profiletest.TableTag(5, 4, 3, func(c []float64) []float64 {
		return profiletest.LabCode(100-40*c[0], -50*c[0], 40*c[0])
	})})
	segment := append(append([]byte{0xe2}, "ICC_PROFILE\x00\x01\x01"...), green...)
	raw := coretest.FlatJPEG([]uint8{0, 255, 255, 255}, adobe, segment)
	assert.True(t, picture.Profiled(raw))
	c := seen(t, raw)
	want := colorful.Lab(.6, -.5, .4)
	is := colorful.Color{R: float64(c.R) / 255, G: float64(c.G) / 255, B: float64(c.B) / 255}
	assert.Less(t, 100*want.DistanceCIEDE2000(is), 4.0, "%v", c)
	white := seen(t, coretest.FlatJPEG([]uint8{255, 255, 255, 255}, adobe, segment))
	assert.Less(t, 255-int(min(white.R, white.G, white.B)), 4)

	_, _, err := picture.Decode("inks.jpg", coretest.FlatJPEG([]uint8{0, 0, 0, 0}))
	var e *picture.Error
	require.ErrorAs(t, err, &e)
}

// Sixteen bits a colour are taken to eight by rounding, whatever kind of picture has them.
func TestDeepColoursAreKnownColours(t *testing.T) {
	box := image.Rect(0, 0, 4, 3)
	deep, clear, grey := image.NewRGBA64(box), image.NewNRGBA64(box), image.NewGray16(box)
	for i := range 12 {
		deep.Set(i%4, i/4, color.RGBA64{0x1234, 0x8080, 0xfeff, 0xffff})
		clear.Set(i%4, i/4, color.NRGBA64{0xffff, 0x4040, 0x0100, 0x8000})
		grey.Set(i%4, i/4, color.Gray16{0x6a40})
	}
	for _, k := range []struct {
		img  image.Image
		want color.NRGBA
	}{{deep, color.NRGBA{0x12, 0x80, 0xfe, 255}}, {clear, color.NRGBA{255, 0x40, 1, 0x80}}, {grey, color.NRGBA{0x6a, 0x6a, 0x6a, 255}}} {
		var raw bytes.Buffer
		require.NoError(t, png.Encode(&raw, k.img))
		c := seen(t, raw.Bytes())
		for i, v := range []uint8{c.R, c.G, c.B, c.A} {
			assert.InDelta(t, []uint8{k.want.R, k.want.G, k.want.B, k.want.A}[i], v, 1, "%v is %v", k.want, c)
		}
	}
}

// A moving PNG gives the picture that every program shows of it; a moving GIF is refused in a
// sentence.
func TestMovingPictures(t *testing.T) {
	still := withProfile(t, color.NRGBA{200, 80, 40, 255}, nil)
	chunk := func(kind string, body []byte) []byte {
		out := binary.BigEndian.AppendUint32(nil, uint32(len(body)))
		out = append(append(out, kind...), body...)
		return binary.BigEndian.AppendUint32(out, crc(out[4:]))
	}
	control := make([]byte, 26)
	binary.BigEndian.PutUint32(control[4:], 6)
	binary.BigEndian.PutUint32(control[8:], 4)
	head, end := still[:33], still[len(still)-12:]
	moving := append([]byte{}, head...)
	moving = append(moving, chunk("acTL", []byte{0, 0, 0, 2, 0, 0, 0, 0})...)
	moving = append(moving, chunk("fcTL", control)...)
	moving = append(moving, still[33:len(still)-12]...)
	control[3] = 1
	moving = append(append(moving, chunk("fcTL", control)...), chunk("fdAT", append([]byte{0, 0, 0, 2}, bytes.Repeat([]byte{7}, 40)...))...)
	assert.Equal(t, color.NRGBA{200, 80, 40, 255}, seen(t, append(moving, end...)))

	var raw bytes.Buffer
	frame := image.NewPaletted(image.Rect(0, 0, 4, 4), color.Palette{color.White, color.Black})
	require.NoError(t, gif.EncodeAll(&raw, &gif.GIF{Image: []*image.Paletted{frame, frame}, Delay: []int{5, 5}}))
	_, err := picture.Inspect("wave.gif", raw.Bytes())
	assert.ErrorContains(t, err, "Bring in a JPEG, PNG or WebP")
}

// Pictures that are cut off anywhere, or that claim to be larger than they are, are refused in a
// sentence or read; nothing else comes of them.
func TestCutOffAndLyingPictures(t *testing.T) {
	four := coretest.FlatJPEG([]uint8{10, 200, 100, 255}, adobe)
	png := withProfile(t, color.NRGBA{200, 80, 40, 255}, profile())
	for _, raw := range [][]byte{four, png} {
		for cut := range raw {
			if _, _, err := picture.Decode("", raw[:cut]); err != nil {
				var e *picture.Error
				require.ErrorAs(t, err, &e)
			}
		}
	}
	tall := bytes.Clone(png)
	binary.BigEndian.PutUint32(tall[20:], 4000)
	binary.BigEndian.PutUint32(tall[29:], crc(tall[12:29]))
	_, _, err := picture.Decode("tall.png", tall)
	assert.ErrorContains(t, err, "“tall.png” is damaged")

	// A profile that says that it has four billion parts.
	endless := profile()
	binary.BigEndian.PutUint32(endless[128:], 0xffffffff)
	raw := withProfile(t, color.NRGBA{200, 80, 40, 255}, endless)
	assert.False(t, picture.Profiled(raw))
	assert.Equal(t, color.NRGBA{200, 80, 40, 255}, seen(t, raw))
}

package raster_test

import (
	"bytes"
	"errors"
	"image"
	"image/color"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/document/pattern"
	"sectilis/core/document/picture"
	"sectilis/core/document/scene"
	"sectilis/core/format/raster"
	"sectilis/core/ground/geom"
)

func near(t *testing.T, want string, got color.Color, msg ...any) {
	t.Helper()
	w, g := raster.Colour(want), color.RGBAModel.Convert(got).(color.RGBA)
	for _, d := range []int{int(w.R) - int(g.R), int(w.G) - int(g.G), int(w.B) - int(g.B)} {
		assert.InDelta(t, 0, d, 8, msg...)
	}
}

func TestAFaceIsPaintedAsItIsStacked(t *testing.T) {
	raw, _ := coretest.Photo(t, 300, 200)
	c := coretest.Card(t)
	s, err := scene.Of(c)
	require.NoError(t, err)
	f := s.Face(card.Front)
	canvas := raster.New(f.Width, f.Height, 4, color.White, func(string) (image.Image, error) {
		img, _, err := picture.Decode("a.jpg", raw)
		return img, err
	})
	require.NoError(t, canvas.Paint(s.Look(f, c.Base)))
	img := canvas.Image()
	assert.Equal(t, image.Rect(0, 0, 508, 711), img.Bounds())
	at := func(x, y float64) color.Color { return img.At(int(x*4), int(y*4)) }
	near(t, "#fff6e0", at(2, 2), "the base")
	near(t, "#a8432a", at(63.5-42, 60), "the mat")
	near(t, "#c81e1e", at(63.5, 40), "the photo's upper half")
	near(t, "#1ea01e", at(63.5, 80), "and its lower half")
	near(t, "#fff6e0", at(63.5-44.9, 145-14.8), "a corner of the tag is cut off")

	broken := raster.New(100, 100, 1, color.White, func(string) (image.Image, error) { return nil, errors.New("gone") })
	assert.ErrorContains(t, broken.Paint(s.Look(f, c.Base)), "gone")
}

func TestPapersRepeatWithoutASeam(t *testing.T) {
	p, _ := pattern.ByID("brick-dot")
	canvas := raster.New(40, 40, 8, color.White, nil)
	require.NoError(t, canvas.Paint([]scene.Ink{{Region: geom.RectPath(geom.Rect{W: 40, H: 40}), Paper: &p, PaperAt: geom.Shift(1, 2)}}))
	img := canvas.Image()
	for i := range 3 {
		near(t, "#a8432a", img.At(int((3.5+10*float64(i))*8), int(4.5*8)))
		near(t, "#e7c3b4", img.At(int((1+10*float64(i))*8), int(2*8)))
	}
}

func TestClipsCut(t *testing.T) {
	canvas := raster.New(20, 20, 2, color.White, nil)
	all := geom.RectPath(geom.Rect{W: 20, H: 20})
	require.NoError(t, canvas.Paint([]scene.Ink{
		{Region: all, Colour: "#000000", Clips: []geom.Path{geom.RectPath(geom.Rect{W: 10, H: 20}), geom.RectPath(geom.Rect{W: 20, H: 10})}},
		{Region: geom.RectPath(geom.Rect{X: 50, Y: 50, W: 5, H: 5}), Colour: "#ff0000"},
	}))
	near(t, "#000000", canvas.Image().At(5, 5))
	near(t, "#ffffff", canvas.Image().At(30, 5))
	near(t, "#ffffff", canvas.Image().At(5, 30))
}

func TestPicturesComeUpright(t *testing.T) {
	raw, _ := coretest.Photo(t, 30, 20)
	// An EXIF block that says: stored turned, so that the top lies at the right.
	exif := []byte("\xff\xe1\x00\x22Exif\x00\x00MM\x00*\x00\x00\x00\x08\x00\x01\x01\x12\x00\x03\x00\x00\x00\x01\x00\x06\x00\x00\x00\x00\x00\x00")
	turned := append(append(bytes.Clone(raw[:2]), exif...), raw[2:]...)
	img, info, err := picture.Decode("p.jpg", turned)
	require.NoError(t, err)
	assert.Equal(t, 6, info.Turn)
	assert.Equal(t, []int{20, 30}, []int{info.Width, info.Height})
	assert.Equal(t, image.Pt(20, 30), img.Bounds().Size())
	near(t, "#c81e1e", img.At(15, 15), "stored at the top, seen at the right")
	near(t, "#1ea01e", img.At(4, 15))
}

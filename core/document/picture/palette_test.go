package picture_test

import (
	"image"
	"image/color"
	"image/draw"
	"testing"

	"github.com/stretchr/testify/assert"

	"sectilis/core/document/picture"
)

func block(img *image.RGBA, r image.Rectangle, c color.RGBA) {
	draw.Draw(img, r, image.NewUniform(c), image.Point{}, draw.Src)
}

func TestAPaletteNamesTheColoursOfAPicture(t *testing.T) {
	img := image.NewRGBA(image.Rect(0, 0, 90, 60))
	block(img, img.Bounds(), color.RGBA{200, 180, 40, 255})
	block(img, image.Rect(0, 0, 30, 60), color.RGBA{30, 60, 90, 255})
	block(img, image.Rect(80, 0, 90, 30), color.RGBA{168, 67, 42, 255})
	assert.Equal(t, []string{"#c8b428", "#1e3c5a", "#a8432a"}, picture.Palette(img, 5), "three colours are three, the most frequent first")
	assert.Nil(t, picture.Palette(image.NewRGBA(image.Rect(0, 0, 4, 4)), 5), "nothing is there")
}

func TestDetailIsWhereThereIsSomethingToSee(t *testing.T) {
	img := image.NewRGBA(image.Rect(0, 0, 200, 100))
	block(img, img.Bounds(), color.RGBA{240, 240, 230, 255})
	x, y := picture.Detail(img)
	assert.Equal(t, []float64{.5, .5}, []float64{x, y})
	for i := range 6 {
		block(img, image.Rect(150+4*i, 20, 152+4*i, 40), color.RGBA{20, 20, 20, 255})
	}
	x, y = picture.Detail(img)
	assert.InDelta(t, .81, x, .03)
	assert.InDelta(t, .3, y, .04)
}

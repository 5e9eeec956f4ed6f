package trace

import (
	"context"
	"image"
	"image/color"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/ground/geom"
)

// painted is a picture of outlines in colours, one above the other, on a ground, with softened
// edges and noise.
func painted(side int, ground color.NRGBA, noise float64, rnd *rand.Rand, paths []geom.Path, colours []color.NRGBA) *image.NRGBA {
	img := image.NewNRGBA(image.Rect(0, 0, side, side))
	fields := make([]*Field, len(paths))
	for i, p := range paths {
		fields[i] = render(p, side, side, 0, nil)
	}
	for y := range side {
		for x := range side {
			v := [4]float64{float64(ground.R), float64(ground.G), float64(ground.B), float64(ground.A)}
			for i, f := range fields {
				k := float64(f.Row(y)[x]) / 255
				for c, w := range []uint8{colours[i].R, colours[i].G, colours[i].B, colours[i].A} {
					v[c] += k * (float64(w) - v[c])
				}
			}
			for c := range v {
				w := v[c]
				if c < 3 && noise > 0 {
					w += rnd.NormFloat64() * noise
				}
				img.Pix[y*img.Stride+4*x+c] = uint8(min(max(w+.5, 0), 255))
			}
		}
	}
	return img
}

var (
	paper = color.NRGBA{250, 248, 240, 255}
	red   = color.NRGBA{200, 40, 50, 255}
	grey  = color.NRGBA{120, 120, 128, 255}
	blue  = color.NRGBA{40, 70, 190, 255}
)

// found is what a field's outline is, which has to lie within a distance of another.
func found(t *testing.T, f *Field, want geom.Path, within float64, what string) {
	t.Helper()
	got, err := Trace(context.Background(), f, Options{Speck: 8})
	require.NoError(t, err)
	assert.LessOrEqual(t, max(apart(want, got.Outline), apart(got.Outline, want)), within, what)
}

// However light or dark a thing is, and whatever is taken for inside, its edge is where it is.
func TestEdgesStayWhateverTellsThem(t *testing.T) {
	rnd := rand.New(rand.NewPCG(8, 1))
	heart, side := at(pictures(t)[9].path, 150, rnd)
	for _, ink := range []color.NRGBA{red, grey, blue} {
		img := painted(side, paper, 3, rnd, []geom.Path{heart}, []color.NRGBA{ink})
		for _, level := range []int{Level(img), luma(RGB{ink.R, ink.G, ink.B}) + 25, 235} {
			found(t, ByDarkness(img, level), heart, .35, "by darkness")
		}
		for _, tolerance := range []float64{6, 15} {
			found(t, ByColours(img, []RGB{{ink.R, ink.G, ink.B}}, tolerance), heart, .35, "by colour")
		}
	}
	clear := painted(side, color.NRGBA{}, 0, rnd, []geom.Path{heart}, []color.NRGBA{red})
	found(t, ByTransparency(clear), heart, .35, "by transparency")
}

// Layers meet along one line, or reach under those above.
func TestLayersFit(t *testing.T) {
	rnd := rand.New(rand.NewPCG(8, 2))
	outer := coretest.Path(t, "M20 20H180V180H20Z")
	inner := geom.EllipsePath(geom.Rect{X: 60, Y: 50, W: 90, H: 80})
	img := painted(200, paper, 2, rnd, []geom.Path{outer, inner}, []color.NRGBA{red, blue})
	// Where red and paper are mixed, a third colour is nearest.
	colours := []RGB{{paper.R, paper.G, paper.B}, {red.R, red.G, red.B}, {blue.R, blue.G, blue.B}, {230, 150, 145}}
	apartLayers := Layers(img, colours, false)
	found(t, apartLayers[1], geom.Join(outer, inner.Reverse()), .35, "red about blue")
	found(t, apartLayers[2], inner, .35, "blue")
	under := Layers(img, colours[:3], true)
	found(t, under[1], outer, .35, "red under blue")
	found(t, under[0], coretest.Path(t, "M0 0H200V200H0Z"), .35, "paper under all")
	none, err := Trace(context.Background(), apartLayers[3], Options{Speck: 8})
	require.NoError(t, err)
	assert.True(t, none.Outline.Empty(), "no halo of a colour that is only a mixture")
}

func TestColoursOfAPicture(t *testing.T) {
	rnd := rand.New(rand.NewPCG(8, 3))
	img := painted(200, paper, 2, rnd, []geom.Path{coretest.Path(t, "M20 20H120V120H20Z"), coretest.Path(t, "M130 130H160V160H130Z"), coretest.Path(t, "M170 20H180V30H170Z")},
		[]color.NRGBA{red, blue, grey})
	got := Colours(img, 4)
	require.Len(t, got, 4)
	for i, want := range []color.NRGBA{paper, red, blue, grey} {
		for c, v := range []uint8{want.R, want.G, want.B} {
			assert.InDelta(t, v, got[i][c], 5, "%v", got)
		}
	}
	assert.Len(t, Colours(img, 9), 4, "no more than there are")
	assert.Empty(t, Colours(image.NewNRGBA(image.Rect(0, 0, 5, 5)), 4))
}

func TestLevelPartsDarkFromBright(t *testing.T) {
	img := painted(60, paper, 0, nil, []geom.Path{coretest.Path(t, "M10 10H40V40H10Z")}, []color.NRGBA{grey})
	level := Level(img)
	assert.Greater(t, level, luma(RGB{120, 120, 128})+20)
	assert.Less(t, level, luma(RGB{250, 248, 240})-20)
}

package shape

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/card"
	"sectilis/core/geom"
)

func TestOutlinesFillExactlyTheirSize(t *testing.T) {
	for _, o := range []card.Outline{card.Rectangle, card.Ellipse, card.Scallop, card.Tag, card.Banner} {
		for _, size := range [][2]float64{{82.55, 34.9}, {20, 60}, {5, 5}, {.5, .5}, {300, 6}} {
			for _, corner := range []card.Corner{card.Square, card.Round, card.Bevel} {
				p := Outline(card.Form{Outline: o, Width: size[0], Height: size[1], Corner: corner, Radius: 3})
				b := p.Bounds()
				require.InDelta(t, size[0], b.W, 1e-6, "%s %v", o, size)
				require.InDelta(t, size[1], b.H, 1e-6, "%s %v", o, size)
				assert.InDelta(t, 0, b.Centre().X, 1e-6)
				rings := p.Rings()
				require.Greater(t, rings[0].Area(), 0.0, "outer rings run clockwise")
				if o == card.Tag {
					require.Len(t, rings, 2)
					assert.Less(t, rings[1].Area(), 0.0, "holes run the other way")
				}
			}
		}
	}
}

func TestWhatIsLengthenedKeepsItsEnds(t *testing.T) {
	end := func(p geom.Path, right bool) geom.Path {
		b := p.Bounds()
		x := b.X
		if right {
			x = b.Right() - 6
		}
		return geom.Intersection(geom.NonZero, p, geom.RectPath(geom.Rect{X: x, Y: -50, W: 6, H: 100})).Transform(geom.Shift(-x, 0))
	}
	star, err := geom.ParsePath("M0 10Q2 2 10 0H50Q58 2 60 10Q58 18 50 20H10Q2 18 0 10zM8 8V12H12V8z")
	require.NoError(t, err)
	for name, f := range map[string]card.Form{"tag": {Outline: card.Tag}, "banner": {Outline: card.Banner}, "flag": {Outline: card.Flag}, "tab": {Outline: card.Tab}, "strip": {Outline: card.Strip},
		"drawn": {Outline: card.Free, Path: card.NewDrawn(star), Ends: .25}} {
		f.Width, f.Height = 60, 20
		short := Outline(f)
		f.Width = 130
		long := Outline(f)
		assert.InDelta(t, 130, long.Bounds().W, 1e-6, name)
		assert.InDelta(t, 20, long.Bounds().H, 1e-6, name)
		for _, right := range []bool{false, true} {
			off := geom.Xor(geom.NonZero, end(short, right), end(long, right)).Area()
			assert.InDelta(t, 0, off, 1e-3, "%s, right %v", name, right)
		}
	}
}

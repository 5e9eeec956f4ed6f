package card_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

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
	for name, f := range map[string]card.Form{"tag": {Outline: "tag"}, "banner": {Outline: "banner"}, "flag": {Outline: "flag"}, "tab": {Outline: "tab"}, "strip": {Outline: "strip"},
		"drawn": {Outline: card.Free, Path: card.NewDrawn(star), Ends: .25}} {
		f.Width, f.Height = 60, 20
		short := card.OutlineOf(f)
		f.Width = 130
		long := card.OutlineOf(f)
		assert.InDelta(t, 130, long.Bounds().W, 1e-6, name)
		assert.InDelta(t, 20, long.Bounds().H, 1e-6, name)
		for _, right := range []bool{false, true} {
			off := geom.Xor(geom.NonZero, end(short, right), end(long, right)).Area()
			assert.InDelta(t, 0, off, 1e-3, "%s, right %v", name, right)
		}
	}
}

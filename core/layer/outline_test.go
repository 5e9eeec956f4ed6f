package layer

import (
	"math"
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

func TestMatsShowEvenly(t *testing.T) {
	rect := card.Form{Outline: card.Rectangle, Width: 60, Height: 40, Corner: card.Square}
	about := func(f card.Form, mats ...card.Border) geom.Path { return Mat(Outline(f), &f, mats) }
	assert.InDelta(t, 70*50, about(rect, card.Border{Width: 3, Corner: card.Square}, card.Border{Width: 2, Corner: card.Square}).Area(), 1e-9)

	// A round mat about a square corner is the true offset: area A + P·d + π·d².
	round := about(rect, card.Border{Width: 3, Corner: card.Round})
	assert.InDelta(t, 2400+200*3+math.Pi*9, round.Area(), .001)

	// About a bevel, a bevelled mat keeps the distance on the slope as well.
	bevel := card.Form{Outline: card.Rectangle, Width: 60, Height: 40, Corner: card.Bevel, Radius: 6}
	b := about(bevel, card.Border{Width: 3, Corner: card.Bevel}).Bounds()
	assert.InDelta(t, 66, b.W, 1e-9)
	slope := func(w, h, r float64) float64 { return (w/2 + h/2 - r) / math.Sqrt2 } // from the centre
	assert.InDelta(t, slope(60, 40, 6)+3, slope(66, 46, 6+3*(2-math.Sqrt2)), 1e-9)
}

func TestMatsFollowAnyOutline(t *testing.T) {
	for _, o := range []card.Outline{card.Ellipse, card.Scallop, card.Tag, card.Banner} {
		f := card.Form{Outline: o, Width: 60, Height: 40}
		of := Outline(f)
		for _, corner := range []card.Corner{card.Square, card.Round, card.Bevel} {
			m := Mat(of, &f, []card.Border{{Width: 3, Corner: corner}, {Width: 1, Corner: corner}})
			assert.Empty(t, geom.Difference(geom.NonZero, of, m).String(), "%s: a mat lies under all of it", o)
			if corner == card.Round {
				for _, c := range m.Curves()[0] {
					n, _ := of.Nearest(c.At(.5))
					assert.InDelta(t, 4, n.Distance, .005, "%s", o)
				}
			}
		}
	}
	tag := card.Form{Outline: card.Tag, Width: 60, Height: 40}
	open, solid := Mat(Outline(tag), &tag, []card.Border{{Width: 1, Corner: card.Round}}), Mat(Outline(tag), &tag, []card.Border{{Width: 1, Corner: card.Round, Solid: true}})
	assert.Len(t, open.Rings(), 2, "the hole for the string goes through")
	assert.Len(t, solid.Rings(), 1)
	assert.Equal(t, Outline(tag), Bleed(Outline(tag), 0))
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

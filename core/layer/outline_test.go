package layer

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/card"
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
	two := []card.Border{{Width: 3, Corner: card.Square}, {Width: 2, Corner: card.Square}}
	assert.InDelta(t, 70*50, Mat(rect, two).Area(), 1e-9)

	// A round mat about a square corner is the true offset: area A + P·d + π·d².
	round := Mat(rect, []card.Border{{Width: 3, Corner: card.Round}})
	assert.InDelta(t, 2400+200*3+math.Pi*9, round.Area(), .001)

	// About a bevel, a bevelled mat keeps the distance on the slope as well.
	bevel := card.Form{Outline: card.Rectangle, Width: 60, Height: 40, Corner: card.Bevel, Radius: 6}
	b := Mat(bevel, []card.Border{{Width: 3, Corner: card.Bevel}}).Bounds()
	assert.InDelta(t, 66, b.W, 1e-9)
	slope := func(w, h, r float64) float64 { return (w/2 + h/2 - r) / math.Sqrt2 } // from the centre
	assert.InDelta(t, slope(60, 40, 6)+3, slope(66, 46, 6+3*(2-math.Sqrt2)), 1e-9)

	oval := card.Form{Outline: card.Ellipse, Width: 60, Height: 40}
	assert.InDelta(t, 66, Mat(oval, []card.Border{{Width: 3, Corner: card.Round}}).Bounds().W, 1e-6)
}

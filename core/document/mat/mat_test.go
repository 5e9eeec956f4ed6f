package mat_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"sectilis/core/document/card"
	"sectilis/core/document/mat"
	"sectilis/core/ground/geom"
)

// A triangle and its twin turned by half a turn have a mat each.
func TestTwinsDoNotShareAMat(t *testing.T) {
	var b geom.Builder
	p := b.Move(geom.Pt(-10, -7)).Line(geom.Pt(10, -7)).Line(geom.Pt(3, 9)).Close().Path()
	twin := p.Transform(geom.Scale(-1, -1))
	border := []card.Border{{Width: 3, Corner: card.Square}}
	mat.Outline(p, nil, border)
	of := mat.Outline(twin, nil, border)
	assert.Less(t, geom.Difference(geom.NonZero, twin, of).Area(), 1e-9, "the mat holds what lies on it")
}

func TestMatsShowEvenly(t *testing.T) {
	rect := card.Form{Outline: card.Rectangle, Width: 60, Height: 40, Corner: card.Square}
	about := func(f card.Form, mats ...card.Border) geom.Path { return mat.Outline(card.OutlineOf(f), &f, mats) }
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
	for _, o := range []card.Outline{card.Ellipse, "scallop", "tag", "banner"} {
		f := card.Form{Outline: o, Width: 60, Height: 40}
		of := card.OutlineOf(f)
		for _, corner := range []card.Corner{card.Square, card.Round, card.Bevel} {
			m := mat.Outline(of, &f, []card.Border{{Width: 3, Corner: corner}, {Width: 1, Corner: corner}})
			assert.Empty(t, geom.Difference(geom.NonZero, of, m).String(), "%s: a mat lies under all of it", o)
			if corner == card.Round {
				for _, c := range m.Curves()[0] {
					n, _ := of.Nearest(c.At(.5))
					assert.InDelta(t, 4, n.Distance, .005, "%s", o)
				}
			}
		}
	}
	tag := card.Form{Outline: "tag", Width: 60, Height: 40}
	open, solid := mat.Outline(card.OutlineOf(tag), &tag, []card.Border{{Width: 1, Corner: card.Round}}), mat.Outline(card.OutlineOf(tag), &tag, []card.Border{{Width: 1, Corner: card.Round, Solid: true}})
	assert.Len(t, open.Rings(), 2, "the hole for the string goes through")
	assert.Len(t, solid.Rings(), 1)
	assert.Equal(t, card.OutlineOf(tag), mat.Bleed(card.OutlineOf(tag), 0))
}

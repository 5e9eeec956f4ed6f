package freehand_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/design/freehand"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// wave is a stroke across a face with a hand's tremor.
func wave(press func(k float64) float64) []freehand.Touch {
	rnd := rand.New(rand.NewPCG(8, 1))
	var out []freehand.Touch
	for i := range 120 {
		k := float64(i) / 119
		out = append(out, freehand.Touch{X: 15 + 90*k + rnd.NormFloat64()*.04, Y: 60 + 15*math.Sin(k*9) + rnd.NormFloat64()*.04, Pressure: press(k)})
	}
	return out
}

func half(float64) float64 { return .5 }

func draw(t *testing.T, k freehand.DrawStroke) (card.Card, geom.Path, card.Item) {
	t.Helper()
	k.Face, k.Colour = card.Front, "#35658c"
	if k.Opacity == 0 {
		k.Opacity = 1
	}
	c, err := card.Apply(coretest.Empty(t), k)
	require.NoError(t, err)
	s, err := scene.Of(c)
	require.NoError(t, err)
	it := s.Faces[0].Items[0]
	return c, it.Outline.Transform(it.At), c.Faces[0].Items[0]
}

func TestStrokesAreSmoothAndOfFewCurves(t *testing.T) {
	touches := wave(half)
	_, line, _ := draw(t, freehand.DrawStroke{Touches: touches, Tip: freehand.Pen, Weight: 1, Machine: true})
	assert.Less(t, len(line.Curves()), 24, "not one for each touch")
	for _, p := range touches {
		_, d := nearest(line, geom.Pt(p.X, p.Y))
		assert.Less(t, d, .35)
	}
	_, round, it := draw(t, freehand.DrawStroke{Touches: touches, Tip: freehand.Marker, Weight: 4, Opacity: .6})
	assert.InDelta(t, .4, it.Look.Clear, 1e-9)
	for _, p := range touches {
		assert.NotZero(t, round.Winding(geom.Pt(p.X, p.Y)))
	}
	// A chisel is broad one way and fine the other.
	for angle, want := range map[float64]float64{-40: .8, 50: 5} {
		d := geom.Turn(angle * math.Pi / 180).Apply(geom.Pt(30, 0))
		_, flat, _ := draw(t, freehand.DrawStroke{Touches: []freehand.Touch{{X: 60, Y: 60, Pressure: .5}, {X: 60 + d.X, Y: 60 + d.Y, Pressure: .5}}, Tip: freehand.Chisel, Weight: 5})
		assert.InDelta(t, want, flat.Transform(geom.Turn(-angle*math.Pi/180)).Bounds().H, .01, "along %g°", angle)
	}
	// A hand that shakes along a straight line draws a line, and no loops.
	var shaky []freehand.Touch
	for i := range 20 {
		shaky = append(shaky, freehand.Touch{X: 20 + 1.9*float64(i), Y: 60 + .24*float64(i%2), Pressure: .5})
	}
	_, still, _ := draw(t, freehand.DrawStroke{Touches: shaky, Tip: freehand.Marker, Weight: 1.6})
	assert.InDelta(t, 1.9*19*1.6+math.Pi*.64, still.Area(), 1)
	_, dot, _ := draw(t, freehand.DrawStroke{Touches: touches[:1], Tip: freehand.Pen, Weight: 2})
	assert.InDelta(t, math.Pi+1, dot.Area(), .05)
}

func nearest(p geom.Path, q geom.Point) (geom.Point, float64) {
	best, at := math.Inf(1), geom.Point{}
	for _, l := range p.Flatten(.01) {
		for i := 1; i < len(l.Points); i++ {
			a, d := l.Points[i-1], l.Points[i].Sub(l.Points[i-1])
			k := min(max(q.Sub(a).Dot(d)/max(d.Dot(d), 1e-12), 0), 1)
			if on := a.Add(d.Mul(k)); on.Sub(q).Len() < best {
				best, at = on.Sub(q).Len(), on
			}
		}
	}
	return at, best
}

func TestPressureMakesAStrokeHeavier(t *testing.T) {
	_, p, _ := draw(t, freehand.DrawStroke{Touches: []freehand.Touch{{X: 20, Y: 50, Pressure: .1}, {X: 60, Y: 50, Pressure: .5}, {X: 100, Y: 50, Pressure: 1}}, Tip: freehand.Pen, Weight: 4})
	width := func(x float64) float64 {
		return geom.Intersection(geom.NonZero, p, geom.RectPath(geom.Rect{X: x - .05, Y: 0, W: .1, H: 100})).Bounds().H
	}
	assert.InDelta(t, 4, width(60), .1)
	assert.Less(t, width(25), 1.8)
	assert.Greater(t, width(98), 7.)
}

func TestRubbingOut(t *testing.T) {
	across := []freehand.Touch{{X: 60, Y: 10, Pressure: .5}, {X: 60, Y: 110, Pressure: .5}}
	straight := []freehand.Touch{{X: 20, Y: 60, Pressure: .5}, {X: 100, Y: 60, Pressure: .5}}
	for _, machine := range []bool{false, true} {
		c, whole, _ := draw(t, freehand.DrawStroke{Touches: straight, Tip: freehand.Marker, Weight: 3, Machine: machine})
		part, err := card.Apply(c, freehand.RubOut{Face: card.Front, Touches: across, Width: 10})
		require.NoError(t, err)
		s, err := scene.Of(part)
		require.NoError(t, err)
		it := s.Faces[0].Items[0]
		left := it.Outline.Transform(it.At)
		assert.Equal(t, whole.Bounds(), left.Bounds(), "both ends stay where they are")
		assert.Zero(t, geom.Intersection(geom.NonZero, left, geom.RectPath(geom.Rect{X: 55.1, Y: 0, W: 9.8, H: 200})).Area())
		if machine {
			assert.InDelta(t, 70, left.Length(), .1)
		} else {
			assert.InDelta(t, whole.Area()-30, left.Area(), .1)
		}
		none, err := card.Apply(c, freehand.RubOut{Face: card.Front, Touches: across, Width: 10, Whole: true})
		require.NoError(t, err)
		assert.Empty(t, none.Faces[0].Items)
	}
	_, err := card.Apply(coretest.Card(t), freehand.RubOut{Face: card.Front, Touches: across, Width: 10})
	assert.ErrorContains(t, err, "Nothing drawn by hand")
	for _, bad := range []freehand.DrawStroke{{Tip: freehand.Pen, Weight: 1}, {Tip: "brush", Weight: 1, Touches: across}, {Tip: freehand.Pen, Touches: across}, {Tip: freehand.Pen, Weight: 1, Touches: []freehand.Touch{{X: math.NaN()}}}} {
		bad.Face, bad.Colour, bad.Opacity = card.Front, "#35658c", 1
		_, err := card.Apply(coretest.Empty(t), bad)
		var r *card.Refusal
		assert.ErrorAs(t, err, &r)
	}
}

func FuzzStrokes(f *testing.F) {
	f.Add(10., 10., 40., 12., .2, 30., 50., .9, 3., "pen")
	f.Add(0., 0., 0., 0., 1., 0., 0., 0., 40., "chisel")
	f.Fuzz(func(t *testing.T, a, b, x, y, p, u, v, q, weight float64, tip string) {
		c, err := card.New("Fuzz", card.Base{Kind: card.SideFold, Width: 127, Height: 177.8, Stock: "cream-300"})
		require.NoError(t, err)
		c, err = card.Apply(c, freehand.DrawStroke{Face: card.Front, Tip: freehand.Tip(tip), Weight: weight, Colour: "#35658c", Opacity: 1,
			Touches: []freehand.Touch{{a, b, .5}, {x, y, p}, {u, v, q}, {a, b, p}}})
		if err != nil {
			return
		}
		_, err = scene.Of(c)
		require.NoError(t, err)
	})
}

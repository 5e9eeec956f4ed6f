package cleanform

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/ground/geom"
)

// ragged is a form's outline at its place, with every place of it moved outward or inward by
// noise of a standard deviation, mm.
func ragged(f Form, noise float64, rnd *rand.Rand) geom.Path {
	outline := f.Outline().Transform(geom.Turn(f.Turn).Then(geom.Shift(f.Centre.X, f.Centre.Y)))
	var b geom.Builder
	for n, c := range outline.Curves()[0] {
		steps := int(c.Length() / .4)
		for i := range steps {
			t := float64(i) / float64(steps)
			v := c.Derivative(t)
			p := c.At(t).Add(geom.Pt(-v.Y, v.X).Mul(rnd.NormFloat64() * noise / v.Len()))
			if n == 0 && i == 0 {
				b.Move(p)
			} else {
				b.Line(p)
			}
		}
	}
	return b.Close().Path()
}

// The plain form under a ragged edge is recovered, its measures to half a hundredth.
func TestFormsAreRecovered(t *testing.T) {
	forms := []Form{
		{Kind: Rectangle, Width: 62, Height: 38, Turn: .2},
		{Kind: Rounded, Width: 60, Height: 44, Radius: 8, Turn: -.3},
		{Kind: Circle, Width: 48, Height: 48},
		{Kind: Ellipse, Width: 66, Height: 40, Turn: .5},
		{Kind: Polygon, Points: 3, Width: 60, Height: 60, Turn: .4},
		{Kind: Polygon, Points: 5, Width: 60, Height: 60, Turn: .1},
		{Kind: Polygon, Points: 6, Width: 60, Height: 60, Turn: .7},
		{Kind: Polygon, Points: 8, Width: 60, Height: 60, Turn: .3},
		{Kind: Star, Points: 5, Width: 60, Height: 60, Inner: 13, Turn: .25},
		{Kind: Star, Points: 6, Width: 60, Height: 60, Inner: 18, Turn: .9},
	}
	rnd := rand.New(rand.NewPCG(3, 9))
	for _, want := range forms {
		want.Centre = geom.Pt(40+10*rnd.Float64(), 70-9*rnd.Float64())
		const noise = .25
		got := Nearest(ragged(want, noise, rnd))
		require.NotEmpty(t, got, want.Kind)
		f := got[0]
		require.Equal(t, want.Kind, f.Kind, "%+v", got)
		assert.Equal(t, want.Points, f.Points)
		near := func(what string, want, got float64) {
			assert.InDelta(t, want, got, .005*60, "%s of %+v", what, f)
		}
		near("middle", 0, want.Centre.Sub(f.Centre).Len())
		near("width", want.Width, f.Width)
		near("height", want.Height, f.Height)
		near("radius", want.Radius, f.Radius)
		near("inner corners", want.Inner, f.Inner)
		if want.Kind != Circle {
			assert.InDelta(t, 0, math.Sin(want.Turn-f.Turn)*30, .005*60, "turn of %+v", f)
		}
		assert.InDelta(t, noise, f.Mean, noise/3)
		assert.Less(t, f.Worst, noise*5)
	}
}

// What is nearly a rectangle is one, and not one with round corners of next to nothing.
func TestFewerMeasuresWin(t *testing.T) {
	square := geom.RectPath(geom.Centred(40, 40))
	assert.Equal(t, Rectangle, Nearest(square)[0].Kind)
	assert.Equal(t, Circle, Nearest(geom.EllipsePath(geom.Centred(40, 40)))[0].Kind)
	assert.InDelta(t, 0, Nearest(square)[0].Worst, 1e-6)
}

func TestNothingStandsForNothing(t *testing.T) {
	assert.Empty(t, Nearest(geom.Path{}))
	var b geom.Builder
	assert.Empty(t, Nearest(b.Move(geom.Pt(0, 0)).Line(geom.Pt(5, 0)).Close().Path()))
}

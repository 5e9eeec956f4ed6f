package exchange_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/document/exchange"
	"sectilis/core/ground/geom"
)

func TestPartsAreTheInksOfAShapeFromBelow(t *testing.T) {
	s := exchange.Shape{Fill: "#111111", Faint: .25, Stroke: "#222222", Width: 2, Path: geom.RectPath(geom.Rect{W: 10, H: 10}), Line: exchange.LineStyle{Faint: .5}}
	parts := s.Parts()
	require.Len(t, parts, 2)
	assert.Equal(t, []any{"#111111", .25, false}, []any{parts[0].Colour, parts[0].Faint, parts[0].Line})
	assert.Equal(t, []any{"#222222", .5, true}, []any{parts[1].Colour, parts[1].Faint, parts[1].Line})
	assert.InDelta(t, 100, parts[0].Region.Area(), 1e-9)
	assert.InDelta(t, 144-64, parts[1].Region.Area(), 1e-6)
	s.LineFirst = true
	assert.True(t, s.Parts()[0].Line)
	s.Fill = ""
	assert.Len(t, s.Parts(), 1)
	s.Stroke = ""
	assert.Empty(t, s.Parts())
	assert.True(t, s.Outline().Empty())
	twice := geom.Join(geom.RectPath(geom.Rect{W: 10, H: 10}), geom.RectPath(geom.Rect{X: 2, Y: 2, W: 6, H: 6}))
	assert.InDelta(t, 64, exchange.Shape{Fill: "#111111", Rule: geom.EvenOdd, Path: twice}.Parts()[0].Region.Area(), 1e-9)
}

// A pen that is stretched draws what a round one draws, stretched.
func TestAStretchedPenDrawsAsARoundOneStretched(t *testing.T) {
	r := rand.New(rand.NewPCG(221, 222))
	for range 60 {
		m := geom.Affine{A: .5 + r.Float64(), B: r.NormFloat64() / 4, C: r.NormFloat64() / 4, D: .5 + r.Float64()}
		p := coretest.RandomPath(r)
		style := exchange.LineStyle{Cap: geom.Cap(r.IntN(3)), Join: exchange.Join(r.IntN(3)), MitreLimit: 1 + 5*r.Float64()}
		if r.IntN(2) == 0 {
			style.Dashes = []float64{2 + 9*r.Float64(), 2 + 5*r.Float64()}
		}
		round := exchange.Shape{Stroke: "#000000", Width: .5 + 4*r.Float64(), Path: p, Line: style}
		stretched := round
		stretched.Path, stretched.Line.Pen = p.Transform(m), &m
		want, got := round.Outline().Transform(m), stretched.Outline()
		diff := geom.Xor(geom.NonZero, geom.Union(geom.NonZero, want), got)
		require.Less(t, diff.Area(), 2e-3*got.Length()+1e-3, "%v of %s", style, p)
	}
	flat := geom.Affine{A: 1}
	assert.NotPanics(t, func() {
		exchange.Shape{Stroke: "#000000", Width: 1, Path: coretest.RandomPath(r), Line: exchange.LineStyle{Pen: &flat}}.Outline()
	})
}

func TestDashesThatWouldBeTooManyAreLeftOut(t *testing.T) {
	var b geom.Builder
	b.Move(geom.Pt(0, 0)).Line(geom.Pt(5000, 0))
	s := exchange.Shape{Stroke: "#000000", Width: 1, Path: b.Path(), Line: exchange.LineStyle{Dashes: []float64{.01, .01}}}
	assert.InDelta(t, 5000, s.Outline().Area(), 1e-3, "a whole line")
	s.Line.Dashes = []float64{5, 5}
	assert.InDelta(t, 2500, s.Outline().Area(), 1e-3)
}

// Gradients go with a drawing that is turned, shifted, flipped and sized.
func TestGradientsGoWithTheDrawing(t *testing.T) {
	g := &exchange.Gradient{From: geom.Pt(1, 2), To: geom.Pt(4, 6), Stops: []card.Stop{{Colour: "#000000"}, {At: 1, Colour: "#ffffff"}}}
	d := exchange.Drawing{Shapes: []exchange.Shape{{Fill: "#777777", Gradient: g, Path: geom.RectPath(geom.Rect{W: 10, H: 10})}, {Fill: "#777777", Path: geom.RectPath(geom.Rect{W: 1, H: 1})}}}
	d.Transform(geom.Turn(math.Pi / 2).Then(geom.Scale(2, 2)).Then(geom.Shift(5, 0)))
	got := d.Shapes[0].Gradient
	assert.InDelta(t, 0, got.From.Sub(geom.Pt(5-4, 2)).Len(), 1e-9)
	assert.InDelta(t, 10, got.To.Sub(got.From).Len(), 1e-9)
	assert.Equal(t, geom.Pt(1, 2), g.From, "the one that came is left alone")
	assert.Nil(t, d.Shapes[1].Gradient)
}

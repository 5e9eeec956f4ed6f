package shapework_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/card"
	"sectilis/core/coretest"
	"sectilis/core/drawing"
	"sectilis/core/geom"
	"sectilis/core/shapework"
)

func shapes(t *testing.T) drawing.Drawing {
	t.Helper()
	return drawing.Drawing{Width: 100, Height: 100, Shapes: []drawing.Shape{
		{Fill: "#587a4a", Path: mustPath(t, "M0 0H20V20H0Z")},
		{Fill: "#587a4a", Path: mustPath(t, "M10 10H30V30H10Z")},
		{Name: "Sun", Fill: "#e2a42b", Path: mustPath(t, "M50 50H70V70H50Z"), Rule: geom.EvenOdd},
		{Fill: "#587a4a", Path: mustPath(t, "M80 80H90V90H80Z")},
		{Layer: "Pen 1", Stroke: "#123456", Width: 1, Path: mustPath(t, "M0 50L100 50")},
		{Layer: "valley", Role: card.RoleValley, Stroke: "#35658c", Width: .2, Path: mustPath(t, "M0 60L100 60")},
		{Layer: "frames", Stroke: "#000000", Width: .2, Path: mustPath(t, "M0 0H100V100H0Z")},
		{Layer: "frames", Stroke: "#000000", Width: .2, Path: mustPath(t, "M40 40H60V60H40Z")},
	}}
}

func TestADrawingBecomesItems(t *testing.T) {
	d := shapes(t)
	kinds := shapework.LineKinds(d)
	require.Len(t, kinds, 3)
	assert.Equal(t, shapework.AsPrinted, kinds[0].Likely, "lines between filled shapes belong to a picture")
	assert.Equal(t, shapework.Use(card.RoleValley), kinds[1].Likely, "a layer may name what it is for")
	assert.Equal(t, []int{2, 2}, []int{kinds[2].Count, kinds[2].Closed})

	uses := map[string]shapework.Use{kinds[0].Key: shapework.Use(card.RolePen), kinds[1].Key: kinds[1].Likely, kinds[2].Key: shapework.AsPiece}
	items, err := shapework.Items(d, "Plums", uses, shapework.AsPrinted, geom.Pt(60, 80))
	require.NoError(t, err)
	c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: items, Around: &geom.Point{X: 60, Y: 80}})
	require.NoError(t, err)
	var got []string
	for _, it := range c.Face(card.Front).Items {
		got = append(got, it.Name+": "+string(it.Made.As))
		assert.Empty(t, it.On)
	}
	assert.Equal(t, []string{
		"Plums, shape: printed", "Sun: printed", "Plums, shape 2: printed", "Plums, lines: line", "Plums, lines 2: line", "Plums, piece: cut",
	}, got, "what has one colour and follows each other is one item")
	assert.InDelta(t, 700, outline(t, c, "i1").Area(), 1e-4, "overlaps are welded")
	_, pen := c.Find("i4")
	assert.Equal(t, card.RolePen, pen.Lines.Role)
	assert.Equal(t, "#123456", pen.Fill.Colour)
	assert.InDelta(t, 60, pen.Place.X, 1e-6, "true size about the middle")
	frame := outline(t, c, "i6")
	assert.InDelta(t, 10000-400, frame.Area(), 1e-4, "a ring in a ring is a hole")

	// Pieces take the stock whose colour is nearest; lines can be ink.
	items, err = shapework.Items(shapes(t), "Plums", map[string]shapework.Use{kinds[0].Key: shapework.AsPrinted}, shapework.AsPiece, geom.Pt(60, 80))
	require.NoError(t, err)
	assert.Equal(t, "moss-216", items[0].Made.Stock)
	ink := items[len(items)-1]
	assert.Equal(t, card.Fill{Colour: "#123456"}, ink.Fill)
	assert.InDelta(t, 100, ink.Form.Path.Path().Area(), 1e-6)

	_, err = shapework.Items(shapes(t), "Plums", nil, shapework.LeaveOut, geom.Pt(0, 0))
	assert.ErrorContains(t, err, "Nothing of the drawing")
	var many drawing.Drawing
	for i := range 301 {
		many.Shapes = append(many.Shapes, drawing.Shape{Fill: []string{"#000000", "#ffffff"}[i%2], Path: mustPath(t, "M0 0H9V9H0Z").Transform(geom.Shift(float64(i), 0))})
	}
	_, err = shapework.Items(many, "Plums", nil, shapework.AsPrinted, geom.Pt(0, 0))
	assert.ErrorContains(t, err, "301 items")
}

func TestADrawingWithSomethingFarAwayIsRefused(t *testing.T) {
	d := drawing.Drawing{Shapes: []drawing.Shape{
		{Fill: "#587a4a", Path: mustPath(t, "M0 0H1V1H0Z")},
		{Fill: "#587a4a", Path: mustPath(t, "M0 0H10V10Z").Transform(geom.Shift(9e5, 0))},
	}}
	_, err := shapework.Items(d, "Plums", nil, shapework.AsPiece, geom.Pt(60, 80))
	assert.ErrorContains(t, err, "far away from the rest")
}

func TestLinesThatAllCrossAreRefusedAsShapes(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 8))
	var d drawing.Drawing
	for range 20_000 {
		a, b := geom.Pt(100*r.Float64(), 100*r.Float64()), geom.Pt(100*r.Float64(), 100*r.Float64())
		var p geom.Builder
		d.Shapes = append(d.Shapes, drawing.Shape{Stroke: "#000000", Width: .2, Path: p.Move(a).Line(b).Path()})
	}
	key := shapework.LineKinds(d)[0].Key
	for _, use := range []shapework.Use{shapework.AsPiece, shapework.AsPrinted} {
		_, err := shapework.Items(d, "Scribble", map[string]shapework.Use{key: use}, shapework.AsPrinted, geom.Pt(60, 80))
		assert.ErrorContains(t, err, "cross each other more than", use)
	}
	items, err := shapework.Items(d, "Scribble", map[string]shapework.Use{key: shapework.Use(card.RolePen)}, shapework.AsPrinted, geom.Pt(60, 80))
	require.NoError(t, err)
	assert.Len(t, items, 1, "lines that stay lines are not combined")
}

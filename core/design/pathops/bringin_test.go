package pathops_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/design/pathops"
	"sectilis/core/document/card"
	"sectilis/core/document/exchange"
	"sectilis/core/ground/geom"
)

func shapes(t *testing.T) exchange.Drawing {
	t.Helper()
	return exchange.Drawing{Width: 100, Height: 100, Shapes: []exchange.Shape{
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
	kinds := pathops.LineKinds(d)
	require.Len(t, kinds, 3)
	assert.Equal(t, pathops.AsPrinted, kinds[0].Likely, "lines between filled shapes belong to a picture")
	assert.Equal(t, pathops.Use(card.RoleValley), kinds[1].Likely, "a layer may name what it is for")
	assert.Equal(t, []int{2, 2}, []int{kinds[2].Count, kinds[2].Closed})

	uses := map[string]pathops.Use{kinds[0].Key: pathops.Use(card.RolePen), kinds[1].Key: kinds[1].Likely, kinds[2].Key: pathops.AsPiece}
	items, err := pathops.Items(d, "Plums", uses, pathops.AsPrinted, geom.Pt(60, 80))
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
	items, err = pathops.Items(shapes(t), "Plums", map[string]pathops.Use{kinds[0].Key: pathops.AsPrinted}, pathops.AsPiece, geom.Pt(60, 80))
	require.NoError(t, err)
	assert.Equal(t, "moss-216", items[0].Made.Stock)
	ink := items[len(items)-1]
	assert.Equal(t, card.Fill{Colour: "#123456"}, ink.Fill)
	assert.InDelta(t, 100, ink.Form.Path.Path().Area(), 1e-6)

	_, err = pathops.Items(shapes(t), "Plums", nil, pathops.LeaveOut, geom.Pt(0, 0))
	assert.ErrorContains(t, err, "Nothing of the drawing")
	var many exchange.Drawing
	for i := range 301 {
		many.Shapes = append(many.Shapes, exchange.Shape{Fill: []string{"#000000", "#ffffff"}[i%2], Path: mustPath(t, "M0 0H9V9H0Z").Transform(geom.Shift(float64(i), 0))})
	}
	_, err = pathops.Items(many, "Plums", nil, pathops.AsPrinted, geom.Pt(0, 0))
	assert.ErrorContains(t, err, "301 items")
}

func TestADrawingWithSomethingFarAwayIsRefused(t *testing.T) {
	d := exchange.Drawing{Shapes: []exchange.Shape{
		{Fill: "#587a4a", Path: mustPath(t, "M0 0H1V1H0Z")},
		{Fill: "#587a4a", Path: mustPath(t, "M0 0H10V10Z").Transform(geom.Shift(9e5, 0))},
	}}
	_, err := pathops.Items(d, "Plums", nil, pathops.AsPiece, geom.Pt(60, 80))
	assert.ErrorContains(t, err, "far away from the rest")
}

func TestLinesThatAllCrossAreRefusedAsShapes(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 8))
	var d exchange.Drawing
	for range 20_000 {
		a, b := geom.Pt(100*r.Float64(), 100*r.Float64()), geom.Pt(100*r.Float64(), 100*r.Float64())
		var p geom.Builder
		d.Shapes = append(d.Shapes, exchange.Shape{Stroke: "#000000", Width: .2, Path: p.Move(a).Line(b).Path()})
	}
	key := pathops.LineKinds(d)[0].Key
	for _, use := range []pathops.Use{pathops.AsPiece, pathops.AsPrinted} {
		_, err := pathops.Items(d, "Scribble", map[string]pathops.Use{key: use}, pathops.AsPrinted, geom.Pt(60, 80))
		assert.ErrorContains(t, err, "cross each other more than", use)
	}
	items, err := pathops.Items(d, "Scribble", map[string]pathops.Use{key: pathops.Use(card.RolePen)}, pathops.AsPrinted, geom.Pt(60, 80))
	require.NoError(t, err)
	assert.Len(t, items, 1, "lines that stay lines are not combined")
}

func box(x, y, w, h float64) geom.Path {
	return geom.RectPath(geom.Rect{X: x, Y: y, W: w, H: h})
}

// What is printed lies on each other as it does in the drawing; what looks alike and does
// not meet what lies between is one item.
func TestInkKeepsItsOrder(t *testing.T) {
	names := func(d exchange.Drawing) []string {
		uses := map[string]pathops.Use{}
		for _, k := range pathops.LineKinds(d) {
			uses[k.Key] = pathops.AsPrinted
		}
		items, err := pathops.Items(d, "Bird", uses, pathops.AsPrinted, d.Bounds().Centre())
		require.NoError(t, err)
		var out []string
		for _, it := range items {
			out = append(out, it.Name+" "+it.Fill.Colour)
		}
		return out
	}
	a := exchange.Shape{Name: "A", Fill: "#111111", Stroke: "#eeeeee", Width: 1, Path: box(0, 0, 10, 10)}
	b := exchange.Shape{Name: "B", Fill: "#111111", Stroke: "#eeeeee", Width: 1, Path: box(5, 5, 10, 10)}
	far := exchange.Shape{Name: "C", Fill: "#111111", Stroke: "#eeeeee", Width: 1, Path: box(50, 0, 10, 10)}
	assert.Equal(t, []string{"A #111111", "A #eeeeee", "B #111111", "B #eeeeee"}, names(exchange.Drawing{Shapes: []exchange.Shape{a, b}}),
		"the one's fill covers the other's line")
	assert.Equal(t, []string{"Bird, shape #111111", "Bird, lines #eeeeee"}, names(exchange.Drawing{Shapes: []exchange.Shape{a, far}}))
	a.LineFirst = true
	assert.Equal(t, []string{"A #eeeeee", "A #111111"}, names(exchange.Drawing{Shapes: []exchange.Shape{a}}))

	// Two that are seen through are darker where they overlap.
	a = exchange.Shape{Name: "A", Fill: "#111111", Faint: .5, Path: box(0, 0, 10, 10)}
	b = exchange.Shape{Name: "B", Fill: "#111111", Faint: .5, Path: box(5, 5, 10, 10)}
	far = exchange.Shape{Name: "C", Fill: "#111111", Faint: .5, Path: box(50, 5, 10, 10)}
	assert.Equal(t, []string{"A #111111", "Bird, shape #111111"}, names(exchange.Drawing{Shapes: []exchange.Shape{a, b, far}}))
}

func TestLinesArePrintedAsTheyLook(t *testing.T) {
	line := exchange.Shape{Stroke: "#112233", Width: 2, Path: mustPath(t, "M0 0H40")}
	printed := func(s exchange.Shape) card.Item {
		d := exchange.Drawing{Shapes: []exchange.Shape{s}}
		items, err := pathops.Items(d, "Line", map[string]pathops.Use{pathops.LineKinds(d)[0].Key: pathops.AsPrinted}, pathops.AsPrinted, geom.Pt(20, 0))
		require.NoError(t, err)
		require.Len(t, items, 1)
		return items[0]
	}
	area := func(s exchange.Shape) float64 { return printed(s).Form.Path.Path().Area() }
	assert.InDelta(t, 80, area(line), 1e-6)
	line.Line = exchange.LineStyle{Dashes: []float64{4, 6}}
	assert.InDelta(t, 4*4*2, area(line), 1e-6)
	line.Line.Offset = 2
	assert.InDelta(t, (2+4+4+4+2)*2, area(line), 1e-6, "begun in the middle of a dash")
	line.Line.Cap = geom.SquareCap
	assert.Greater(t, area(line), 48.0)
	line.Line = exchange.LineStyle{Cap: geom.RoundCap, Faint: .25}
	assert.InDelta(t, 80+3.14159265, area(line), 1e-4)
	assert.InDelta(t, .25, printed(line).Look.Clear, 1e-9)
	corner := exchange.Shape{Stroke: "#112233", Width: 2, Path: mustPath(t, "M0 0H20V20")}
	for join, want := range map[exchange.Join]float64{exchange.MitreJoin: 80, exchange.BevelJoin: 79.5, exchange.RoundJoin: 79 + 3.14159265/4} {
		corner.Line.Join = join
		assert.InDelta(t, want, area(corner), 1e-4)
	}
	corner.Line = exchange.LineStyle{MitreLimit: 1}
	assert.InDelta(t, 79.5, area(corner), 1e-4, "beyond its limit a mitre is bevelled")
	corner.Line = exchange.LineStyle{Pen: &geom.Affine{A: 2, D: .5}}
	assert.InDelta(t, 22*1+19.5*4, area(corner), 1e-6, "a pen that is four times as broad as it is high")
	corner.Line, corner.Width = exchange.LineStyle{}, .01
	assert.InDelta(t, .1*40, area(corner), .02, "the finest line")
}

// A gradient comes in as one, in shares of its item's box; one that ends too far away as its
// mean colour.
func TestGradientsComeIn(t *testing.T) {
	g := &exchange.Gradient{From: geom.Pt(10, 20), To: geom.Pt(30, 25), Stops: []card.Stop{{Colour: "#ff0000"}, {At: 1, Colour: "#0000ff", Clear: .5}}}
	s := exchange.Shape{Fill: "#7f007f", Gradient: g, Path: box(10, 20, 40, 10)}
	items, err := pathops.Items(exchange.Drawing{Shapes: []exchange.Shape{s}}, "Sky", nil, pathops.AsPrinted, geom.Pt(100, 100))
	require.NoError(t, err)
	assert.Equal(t, &card.Gradient{Kind: card.Linear, ToX: .5, ToY: .5, Stops: g.Stops}, items[0].Fill.Gradient)
	_, err = card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: items})
	require.NoError(t, err)
	s.Gradient = &exchange.Gradient{Radial: true, From: geom.Pt(30, 25), To: geom.Pt(50, 25), Stops: g.Stops}
	items, err = pathops.Items(exchange.Drawing{Shapes: []exchange.Shape{s}}, "Sky", nil, pathops.AsPrinted, geom.Pt(100, 100))
	require.NoError(t, err)
	assert.Equal(t, card.Radial, items[0].Fill.Gradient.Kind)
	s.Gradient = &exchange.Gradient{From: geom.Pt(10, 20), To: geom.Pt(3000, 25), Stops: g.Stops}
	items, err = pathops.Items(exchange.Drawing{Shapes: []exchange.Shape{s}}, "Sky", nil, pathops.AsPrinted, geom.Pt(100, 100))
	require.NoError(t, err)
	assert.Equal(t, card.Fill{Colour: "#7f007f"}, items[0].Fill)
	items, err = pathops.Items(exchange.Drawing{Shapes: []exchange.Shape{s}}, "Sky", nil, pathops.AsPiece, geom.Pt(100, 100))
	require.NoError(t, err)
	assert.Equal(t, card.Cut, items[0].Made.As)
}

// An outline of more pieces than an item may have comes in with fewer, near where it was.
func TestAnOutlineOfTooManyPiecesIsSimplified(t *testing.T) {
	var b geom.Builder
	const n = 120_000
	for i := range n {
		s, c := math.Sincos(2 * math.Pi * float64(i) / n)
		p := geom.Pt(c, s).Mul(60 + 5*math.Sin(40*math.Pi*float64(i)/n) + .002*float64(i%2))
		if i == 0 {
			b.Move(p)
		} else {
			b.Line(p)
		}
	}
	path := b.Close().Path()
	d := exchange.Drawing{Shapes: []exchange.Shape{{Fill: "#587a4a", Stroke: "#000000", Width: .2, Path: path}}}
	key := pathops.LineKinds(d)[0].Key
	items, err := pathops.Items(d, "Wreath", map[string]pathops.Use{key: pathops.Use(card.RoleCut)}, pathops.AsPrinted, d.Bounds().Centre())
	require.NoError(t, err)
	_, err = card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: items})
	require.NoError(t, err, "the card takes it")
	for _, p := range []geom.Path{items[0].Form.Path.Path(), items[1].Lines.Path.Path()} {
		assert.Less(t, p.Len(), card.MaxSegments)
		assert.InEpsilon(t, path.Area(), p.Area(), 1e-4)
		mid := p.Bounds().Centre().Sub(path.Bounds().Centre())
		for i := 0; i < p.Len(); i += max(1, p.Len()/15) {
			q, _, _ := p.PointAt(p.Length() * float64(i) / float64(p.Len()))
			near, _ := path.Nearest(q.Sub(mid))
			require.Less(t, near.Distance, .1)
		}
	}
}

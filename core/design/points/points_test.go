package points

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/nodes"
)

// bench is a card with a rectangle, i1, turned and mirrored, a round photo, i2, and lines, i3.
func bench(t *testing.T) card.Card {
	t.Helper()
	_, pic := coretest.Photo(t, 300, 300)
	place := card.Place{X: 60, Y: 80, Turn: 25, Mirrored: true}
	c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{
		{Name: "Label", Kind: card.Shape, Place: place, Made: card.Made{As: card.Cut, Stock: "white-216"},
			Form: &card.Form{Outline: card.Rectangle, Corner: card.Square, Width: 40, Height: 30}},
		{Name: "Fox", Kind: card.Photo, Place: place, Made: card.Made{As: card.Cut, Stock: "satin-240"},
			Photo: &card.Print{Picture: pic, PixelWidth: 300, PixelHeight: 300, Width: 50, Height: 50, Opening: &card.Form{Outline: card.Ellipse, Width: 50, Height: 50}}},
		{Name: "Fold", Kind: card.Drawing, Place: place, Made: card.Made{As: card.Lined},
			Lines: &card.Lines{Role: card.RoleValley, Path: card.NewDrawn(coretest.Path(t, "M0 0L20 0L30 10")), Width: 30, Height: 10}}}})
	require.NoError(t, err)
	return c
}

func of(t *testing.T, c card.Card, id string) Points {
	t.Helper()
	_, it := c.Find(id)
	p, err := Of(it)
	require.NoError(t, err)
	return p
}

// seen is where a point is on the face.
func seen(t *testing.T, c card.Card, id string, at nodes.Ref) geom.Point {
	t.Helper()
	_, it := c.Find(id)
	return it.Place.Map().Apply(of(t, c, id).Rings[at.Ring].Nodes[at.Node].At)
}

func do(t *testing.T, c card.Card, k card.Command) card.Card {
	t.Helper()
	out, err := card.Apply(c, k)
	require.NoError(t, err)
	return out
}

// A point is moved on the face by what it is moved by in the item; the others stay.
func TestPointsAreMovedWhereTheyAreSeen(t *testing.T) {
	for _, id := range []string{"i1", "i2", "i3"} {
		c := bench(t)
		count := nodes.Count(of(t, c, id).Rings)
		var was []geom.Point
		for n := range count {
			was = append(was, seen(t, c, id, nodes.Ref{Node: n}))
		}
		c = do(t, c, MovePoints{ID: id, Points: []nodes.Ref{{Node: 1}}, DX: 5, DY: -3})
		_, it := c.Find(id)
		turned := geom.Scale(-1, 1).Then(geom.Turn(25 * math.Pi / 180)).Apply(geom.Pt(5, -3))
		for n := range count {
			want := was[n]
			if n == 1 {
				want = want.Add(turned)
			}
			assert.InDelta(t, 0, want.Sub(seen(t, c, id, nodes.Ref{Node: n})).Len(), 2e-3, "%s %d", id, n)
		}
		assert.InDelta(t, 25, it.Place.Turn, 1e-9)
	}
}

func TestPhotosKeepTheirPicture(t *testing.T) {
	c := bench(t)
	_, it := c.Find("i2")
	at := scene.OnPhoto(it).Then(it.Place.Map()).Apply(geom.Pt(100, 100))
	c = do(t, c, MovePoints{ID: "i2", Points: []nodes.Ref{{Node: 0}}, DX: -6})
	_, it = c.Find("i2")
	assert.InDelta(t, 0, at.Sub(scene.OnPhoto(it).Then(it.Place.Map()).Apply(geom.Pt(100, 100))).Len(), 1e-3)
	assert.Equal(t, card.Free, it.Photo.Opening.Outline)
}

func TestShapesAreBent(t *testing.T) {
	c := do(t, bench(t), AddPoint{ID: "i1", After: nodes.Ref{Node: 0}, At: .5})
	assert.Len(t, of(t, c, "i1").Rings[0].Nodes, 5)
	c = do(t, c, MovePoints{ID: "i1", Points: []nodes.Ref{{Node: 1}}, DY: -6})
	c = do(t, c, BendPoints{ID: "i1", Points: []nodes.Ref{{Node: 1}}, To: Smooth})
	assert.True(t, of(t, c, "i1").Rings[0].Nodes[1].Smooth)
	n := of(t, c, "i1").Rings[0].Nodes[1]
	c = do(t, c, MoveHandle{ID: "i1", Point: nodes.Ref{Node: 1}, Out: true, To: n.At.Add(geom.Pt(8, 6))})
	moved := of(t, c, "i1").Rings[0].Nodes[1]
	assert.InDelta(t, .75, (moved.In.Y-moved.At.Y)/(moved.In.X-moved.At.X), 1e-3)
	c = do(t, c, BendPoints{ID: "i1", Points: []nodes.Ref{{Node: 1}}, To: Corner})
	assert.False(t, of(t, c, "i1").Rings[0].Nodes[1].Smooth)
	c = do(t, c, BendPoints{ID: "i1", Points: []nodes.Ref{{Node: 0}, {Node: 1}}, To: Straight})
	c = do(t, c, RemovePoints{ID: "i1", Points: []nodes.Ref{{Node: 1}}})
	assert.Len(t, of(t, c, "i1").Rings[0].Nodes, 4)
	_, it := c.Find("i1")
	assert.InDelta(t, 1200, math.Abs(card.OutlineOf(*it.Form).Area()), .01)
	c = do(t, c, RoundPoints{ID: "i1", Points: []nodes.Ref{{Node: 2}}, Radius: 5})
	_, it = c.Find("i1")
	assert.InDelta(t, 1200-25*(1-math.Pi/4), math.Abs(card.OutlineOf(*it.Form).Area()), .05)
}

func TestLinesAreSplitAndJoined(t *testing.T) {
	c := do(t, bench(t), SplitPoint{ID: "i3", Point: nodes.Ref{Node: 1}})
	require.Len(t, of(t, c, "i3").Rings, 2)
	c = do(t, c, JoinPoints{ID: "i3", A: nodes.Ref{Ring: 0, Node: 1}, B: nodes.Ref{Ring: 1, Node: 0}})
	assert.Len(t, of(t, c, "i3").Rings, 1)
	assert.False(t, of(t, c, "i3").Crosses)
}

// What crosses itself is allowed, told, and cleaned when that is asked for.
func TestCrossingsAreToldAndCleaned(t *testing.T) {
	c := bench(t)
	assert.False(t, of(t, c, "i1").Crosses)
	c = do(t, c, MovePoints{ID: "i1", Points: []nodes.Ref{{Node: 0}}, DX: 60, DY: 12})
	require.True(t, of(t, c, "i1").Crosses)
	c = do(t, c, CleanOutline{ID: "i1"})
	assert.False(t, of(t, c, "i1").Crosses)
	_, err := card.Apply(c, CleanOutline{ID: "i1"})
	assert.ErrorContains(t, err, "crosses itself nowhere")
}

func TestOutlinesAreSimplified(t *testing.T) {
	c := bench(t)
	for range 6 {
		for n := 0; n < nodes.Count(of(t, c, "i1").Rings); n += 2 {
			c = do(t, c, AddPoint{ID: "i1", After: nodes.Ref{Node: n}, At: .5})
		}
	}
	before := nodes.Count(of(t, c, "i1").Rings)
	c = do(t, c, SimplifyOutline{ID: "i1", Tolerance: .1})
	assert.Equal(t, 4, nodes.Count(of(t, c, "i1").Rings), "of %d", before)
	_, err := card.Apply(c, SimplifyOutline{ID: "i1", Tolerance: .1})
	assert.ErrorContains(t, err, "no points to spare")
}

func TestWhatCannotBeIsRefused(t *testing.T) {
	c := bench(t)
	one := []nodes.Ref{{Node: 0}}
	for _, k := range []card.Command{
		MovePoints{ID: "i1"}, MovePoints{ID: "i1", Points: []nodes.Ref{{Node: 9}}}, MovePoints{ID: "i1", Points: []nodes.Ref{{}, {}}},
		MovePoints{ID: "i1", Points: one, DX: math.NaN()}, MovePoints{ID: "i1", Points: one, DX: 1e6},
		MoveHandle{ID: "i1", Point: nodes.Ref{Ring: -1}}, MoveHandle{ID: "i1", To: geom.Pt(math.Inf(1), 0)},
		AddPoint{ID: "i1", At: 1}, AddPoint{ID: "i3", After: nodes.Ref{Node: 2}, At: .5},
		RemovePoints{ID: "i1", Points: []nodes.Ref{{Node: 0}, {Node: 1}, {Node: 2}}},
		BendPoints{ID: "i1", Points: one, To: "wavy"}, RoundPoints{ID: "i1", Points: one}, RoundPoints{ID: "i2", Points: one, Radius: 3},
		JoinPoints{ID: "i1", B: nodes.Ref{Node: 1}}, SplitPoint{ID: "i1"}, SimplifyOutline{ID: "i1", Tolerance: math.NaN()},
	} {
		_, err := card.Apply(c, k)
		var refusal *card.Refusal
		assert.ErrorAs(t, err, &refusal, "%#v", k)
	}
	words := do(t, c, card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Words", Kind: card.Lettering, Place: card.Place{X: 60, Y: 80},
		Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#a8432a"}, Words: &card.Words{Text: "Hi", Font: "pacifico-400", Size: 9, Leading: 1.2, Align: card.AlignCentre}}}})
	_, it := words.Find("i4")
	_, err := Of(it)
	assert.ErrorContains(t, err, "follows from its words")
}

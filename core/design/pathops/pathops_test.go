package pathops_test

import (
	"encoding/json"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/design/pathops"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// table is an empty card with shapes on Front: i1 a red square printed at
// (40, 40), i2 a turned moss square cut at (55, 45), i3 a circle at (100, 100),
// i4 words carried by i2.
func table(t *testing.T) card.Card {
	t.Helper()
	shape := func(name string, o card.Outline, x, y, turn, size float64, made card.Made) card.Item {
		it := card.Item{Name: name, Kind: card.Shape, Place: card.Place{X: x, Y: y, Turn: turn}, Made: made,
			Fill: card.Fill{Colour: "#a8432a"}, Form: &card.Form{Outline: o, Width: size, Height: size}}
		if o == card.Rectangle {
			it.Form.Corner = card.Square
		}
		return it
	}
	moss := card.Made{As: card.Cut, Stock: "moss-216"}
	c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{
		shape("Red", card.Rectangle, 40, 40, 0, 30, card.Made{As: card.Cut, Stock: "cream-216", Lift: 1}),
		shape("Moss", card.Rectangle, 60, 45, 30, 20, moss),
		shape("Disc", card.Ellipse, 100, 100, 0, 20, moss),
	}}, card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Words", Kind: card.Lettering, Place: card.Place{X: 62, Y: 45},
		Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#1f2b38"},
		Words: &card.Words{Text: "o", Font: "nunito-400", Size: 6, Leading: 1.2, Align: card.AlignCentre}}}})
	require.NoError(t, err)
	_, words := c.Find("i4")
	require.Equal(t, "i2", words.On)
	return c
}

// outline is an item's outline in face coordinates.
func outline(t *testing.T, c card.Card, id string) geom.Path {
	t.Helper()
	f, it := c.Find(id)
	require.NotNil(t, it, id)
	s, err := scene.Resolve(f, it)
	require.NoError(t, err)
	return s.Outline.Transform(s.At)
}

func names(c card.Card) []string {
	var out []string
	for _, it := range c.Face(card.Front).Items {
		out = append(out, it.Name)
	}
	return out
}

func TestWeldFollowsTheLowest(t *testing.T) {
	c := table(t)
	red, moss := outline(t, c, "i1"), outline(t, c, "i2")
	next, err := pathops.Weld{IDs: []string{"i2", "i1"}}.Apply(c)
	require.NoError(t, err)
	assert.Equal(t, []string{"Red", "Words", "Disc"}, names(next))
	_, it := next.Find("i1")
	assert.Equal(t, card.Made{As: card.Cut, Stock: "cream-216", Lift: 1}, it.Made)
	assert.Equal(t, "#a8432a", it.Fill.Colour)
	_, words := next.Find("i4")
	assert.Equal(t, "i1", words.On, "what lay on the upper one lies on the whole")
	got := outline(t, next, "i1")
	assert.InDelta(t, geom.Union(geom.NonZero, red, moss).Area(), got.Area(), 1e-4)
	assert.Len(t, got.Rings(), 1)

	// A document goes through JSON and comes back the same.
	raw, err := json.Marshal(next)
	require.NoError(t, err)
	back, err := card.Parse(raw)
	require.NoError(t, err)
	assert.InDelta(t, 0, geom.Xor(geom.NonZero, got, outline(t, back, "i1")).Area(), 1e-4)

	// It is stretched and turned as any shape.
	wide, err := card.Apply(next, card.ResizeItems{IDs: []string{"i1"}, FX: 2, FY: 1, About: geom.Pt(0, 0)})
	require.NoError(t, err)
	assert.InDelta(t, 2*got.Area(), outline(t, wide, "i1").Area(), 1e-6)
}

func TestCarveKeepOverlapAndDivide(t *testing.T) {
	c := table(t)
	red, moss := outline(t, c, "i1"), outline(t, c, "i2")
	common := geom.Intersection(geom.NonZero, red, moss).Area()

	carved, err := pathops.Carve{IDs: []string{"i1", "i2"}}.Apply(c)
	require.NoError(t, err)
	assert.InDelta(t, 900-common, outline(t, carved, "i1").Area(), 1e-4)
	_, words := carved.Find("i4")
	assert.Equal(t, "", words.On, "the upper one is used up; its words lie on the base")

	kept, err := pathops.KeepOverlap{IDs: []string{"i1", "i2"}}.Apply(c)
	require.NoError(t, err)
	assert.InDelta(t, common, outline(t, kept, "i1").Area(), 1e-6)

	parts, err := pathops.Divide{IDs: []string{"i1", "i2"}}.Apply(c)
	require.NoError(t, err)
	sum := 0.0
	for _, it := range parts.Face(card.Front).Items {
		if it.Form != nil && it.Form.Outline == card.Free {
			sum += outline(t, parts, it.ID).Area()
			want := "cream-216"
			if it.Name == "Moss, part 1" {
				want = "moss-216"
			}
			assert.Equal(t, want, it.Made.Stock, it.Name)
		}
	}
	assert.InDelta(t, 900+400-common, sum, 1e-4)
	assert.Equal(t, []string{"Red, part 1", "Red, part 2", "Moss, part 1", "Words", "Disc"}, names(parts))
	_, words = parts.Find("i4")
	_, on := parts.Find(words.On)
	require.NotNil(t, on)
	assert.Equal(t, "Moss, part 1", on.Name, "what lay on a part's place lies on the part")
}

func TestGrowAndRound(t *testing.T) {
	c := table(t)
	for _, k := range []struct {
		grow card.Command
		id   string
		area float64
		free bool
	}{
		{pathops.Grow{IDs: []string{"i1"}, By: 2, Corner: card.Square}, "i1", 34 * 34, false},
		{pathops.Grow{IDs: []string{"i1"}, By: 2, Corner: card.Round}, "i1", 900 + 240 + 4*math.Pi, true},
		{pathops.Grow{IDs: []string{"i1"}, By: 2, Corner: card.Bevel}, "i1", 34*34 - 8, true},
		{pathops.Grow{IDs: []string{"i1"}, By: -3, Corner: card.Round}, "i1", 24 * 24, false},
		{pathops.Grow{IDs: []string{"i3"}, By: 3, Corner: card.Bevel}, "i3", math.Pi * 169, false},
		{pathops.RoundCorners{IDs: []string{"i1"}, Radius: 4}, "i1", 900 - (4-math.Pi)*16, false},
	} {
		next, err := k.grow.Apply(c)
		require.NoError(t, err)
		assert.InDelta(t, k.area, outline(t, next, k.id).Area(), 1e-6, "%+v", k.grow)
		_, it := next.Find(k.id)
		assert.Equal(t, k.free, it.Form.Outline == card.Free, "%+v", k.grow)
		_, was := c.Find(k.id)
		assert.Equal(t, was.Place, it.Place)
	}
	// A turned item keeps its frame; lettering becomes a shape.
	next, err := card.Apply(c, pathops.RoundCorners{IDs: []string{"i2", "i1"}, Radius: 2}, pathops.Grow{IDs: []string{"i4"}, By: .3, Corner: card.Round})
	require.NoError(t, err)
	_, moss := next.Find("i2")
	assert.InDelta(t, 30, moss.Place.Turn, 1e-9)
	assert.InDelta(t, 20, moss.Form.Width, 1e-6)
	_, words := next.Find("i4")
	assert.Equal(t, card.Shape, words.Kind)
	assert.Greater(t, words.Form.Width, 3.)
	carved, err := card.Apply(next, pathops.Carve{IDs: []string{"i1", "i2"}}, pathops.RoundCorners{IDs: []string{"i1"}, Radius: 1})
	require.NoError(t, err)
	for _, r := range outline(t, carved, "i1").Curves() {
		for i, s := range r {
			a, b := s.Tangent(1), r[(i+1)%len(r)].Tangent(0)
			assert.InDelta(t, 0, math.Atan2(a.Cross(b), a.Dot(b)), .06, "every corner is round")
		}
	}
}

func TestAMatLiesUnderTheResult(t *testing.T) {
	c, err := card.Apply(table(t), card.AddMat{IDs: []string{"i1"}, Width: 3, Corner: card.Round, Stock: "moss-216"},
		pathops.Weld{IDs: []string{"i1", "i2"}})
	require.NoError(t, err)
	_, it := c.Find("i1")
	f, mat := c.Find(it.On)
	require.NotNil(t, mat.Mat)
	under, err := scene.Resolve(f, mat)
	require.NoError(t, err)
	assert.True(t, geom.Difference(geom.NonZero, outline(t, c, "i1"), under.Outline.Transform(under.At)).Empty())
	// The mat of one that is welded into another goes with it.
	c, err = card.Apply(table(t), card.AddMat{IDs: []string{"i2"}, Width: 3, Corner: card.Round, Stock: "moss-216"},
		pathops.Weld{IDs: []string{"i1", "i2"}})
	require.NoError(t, err)
	assert.Equal(t, []string{"Red", "Words", "Disc"}, names(c))
}

func TestWhatCannotBeSaysSoAndChangesNothing(t *testing.T) {
	c := table(t)
	line := card.Item{Name: "Score", Kind: card.Drawing, Place: card.Place{X: 10, Y: 10}, Made: card.Made{As: card.Lined},
		Lines: &card.Lines{Role: card.RoleValley, Width: 10, Path: card.NewDrawn(mustPath(t, "M0 0L10 0"))}}
	c, err := card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{line}})
	require.NoError(t, err)
	before, err := json.Marshal(c)
	require.NoError(t, err)
	for why, k := range map[string]card.Command{
		"stay apart":                  pathops.Weld{IDs: []string{"i1", "i3"}},
		"Choose two or more":          pathops.Weld{IDs: []string{"i1"}},
		"nothing to carve":            pathops.Carve{IDs: []string{"i1", "i3"}},
		"no overlap to keep":          pathops.KeepOverlap{IDs: []string{"i1", "i3"}},
		"nothing to divide":           pathops.Divide{IDs: []string{"i1", "i3"}},
		"left of “Red”":               pathops.Grow{IDs: []string{"i1"}, By: -15, Corner: card.Round},
		"Grow or shrink by something": pathops.Grow{IDs: []string{"i1"}, Corner: card.Round},
		"no corner to round":          pathops.RoundCorners{IDs: []string{"i3"}, Radius: 1},
		"Round corners by something":  pathops.RoundCorners{IDs: []string{"i1"}, Radius: math.NaN()},
		"is a line":                   pathops.Weld{IDs: []string{"i1", "i5"}},
		"not there any more":          pathops.Weld{IDs: []string{"i1", "i9"}},
	} {
		_, err := k.Apply(c)
		var r *card.Refusal
		require.ErrorAs(t, err, &r, why)
		assert.ErrorContains(t, err, why)
	}
	over, err := card.Apply(c, card.MoveItems{IDs: []string{"i3"}, DX: -40, DY: -55}, card.ResizeItems{IDs: []string{"i3"}, FX: 3, FY: 3, About: geom.Pt(60, 45)})
	require.NoError(t, err)
	_, err = pathops.Carve{IDs: []string{"i2", "i3"}}.Apply(over)
	require.ErrorContains(t, err, "Nothing would be left of “Moss”")
	after, err := json.Marshal(c)
	require.NoError(t, err)
	assert.JSONEq(t, string(before), string(after))
}

func mustPath(t *testing.T, d string) geom.Path {
	t.Helper()
	p, err := geom.ParsePath(d)
	require.NoError(t, err)
	return p
}

// A piece that is made one outline is as it was, to the last square hundredth; what was part of
// it is gone, and nothing follows any more.
func TestAPieceIsMadeOneOutline(t *testing.T) {
	label := card.Item{Name: "Label", Kind: card.Shape, Place: card.Place{X: 60, Y: 60, Turn: 25}, Made: card.Made{As: card.Cut, Stock: "moss-216", Islands: card.FirstBridges(), Thicken: true},
		Form: &card.Form{Outline: card.Rectangle, Width: 70, Height: 30, Corner: card.Round, Radius: 4}}
	words := card.Item{Name: "Words", Kind: card.Lettering, Place: card.Place{X: 60, Y: 60}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#35658c"},
		Words: &card.Words{Text: "Boat", Font: "zilla-slab-600", Size: 16, Leading: 1.2, Align: card.AlignCentre}}
	c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{label}}, card.PlaceItems{Face: card.Front, Items: []card.Item{words}},
		card.SetMade{IDs: []string{"i2"}, Made: card.Made{As: card.Carved}})
	require.NoError(t, err)
	outline := func(c card.Card) geom.Path {
		f, it := c.Find("i1")
		s, err := scene.Resolve(f, it)
		require.NoError(t, err)
		return s.Outline.Transform(s.At)
	}
	before := outline(c)
	c, err = card.Apply(c, pathops.MakeOneOutline{ID: "i1"})
	require.NoError(t, err)
	after := outline(c)
	assert.Less(t, geom.Difference(geom.NonZero, before, after).Area()+geom.Difference(geom.NonZero, after, before).Area(), .01)
	_, gone := c.Find("i2")
	assert.Nil(t, gone)
	_, it := c.Find("i1")
	assert.Equal(t, card.Free, it.Form.Outline)
	assert.Equal(t, card.Made{As: card.Cut, Stock: "moss-216"}, it.Made)
	assert.InDelta(t, 25, it.Place.Turn, 1e-9, "its frame keeps its turn")

	again, err := card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{words}})
	require.NoError(t, err)
	_, err = card.Apply(again, pathops.MakeOneOutline{ID: "i3"})
	assert.ErrorContains(t, err, "no cut shape or lettering")
	locked, err := card.Apply(c, card.LockItems{IDs: []string{"i1"}, Locked: true})
	require.NoError(t, err)
	_, err = card.Apply(locked, pathops.MakeOneOutline{ID: "i1"})
	assert.ErrorContains(t, err, "locked")
}

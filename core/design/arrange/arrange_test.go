package arrange_test

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/design/arrange"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// tags is a card with five tags of different sizes and places, i1 to i5.
func tags(t *testing.T) card.Card {
	t.Helper()
	var items []card.Item
	for i, p := range [][4]float64{{20, 30, 12, 20}, {52, 41, 20, 16}, {70, 22, 8, 30}, {88, 60, 14, 14}, {110, 35, 10, 24}} {
		items = append(items, card.Item{Name: "Tag", Kind: card.Shape, Place: card.Place{X: p[0], Y: p[1], Turn: float64(i%2) * 90},
			Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#587a4a"},
			Form: &card.Form{Outline: "tag", Width: p[2], Height: p[3]}})
	}
	c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: items})
	require.NoError(t, err)
	return c
}

var five = []string{"i1", "i2", "i3", "i4", "i5"}

func after(t *testing.T, c card.Card, commands ...card.Command) map[string]geom.Rect {
	t.Helper()
	c, err := card.Apply(c, commands...)
	require.NoError(t, err)
	return boxes(t, c)
}

func boxes(t *testing.T, c card.Card) map[string]geom.Rect {
	t.Helper()
	s, err := scene.Of(c)
	require.NoError(t, err)
	out := map[string]geom.Rect{}
	for _, it := range s.Faces[0].Items {
		out[it.ID] = it.Bounds
	}
	return out
}

func TestLiningUp(t *testing.T) {
	c := tags(t)
	was := boxes(t, c)
	top := was["i1"].Y
	for _, b := range was {
		top = min(top, b.Y)
	}
	got := after(t, c, arrange.LineUp{IDs: five, Edges: []arrange.Edge{arrange.Top}, To: arrange.EachOther})
	for id, b := range got {
		assert.InDelta(t, top, b.Y, 1e-5, id)
		assert.InDelta(t, was[id].X, b.X, 1e-6, id)
	}
	got = after(t, c, arrange.LineUp{IDs: five, Edges: []arrange.Edge{arrange.Right}, To: arrange.TheFirst})
	for id, b := range got {
		assert.InDelta(t, was["i1"].Right(), b.Right(), 1e-5, id)
	}
	got = after(t, c, arrange.LineUp{IDs: five, Edges: []arrange.Edge{arrange.Centre, arrange.Middle}, To: arrange.TheFace})
	for id, b := range got {
		assert.InDelta(t, 63.5, b.Centre().X, 1e-5, id)
		assert.InDelta(t, 88.9, b.Centre().Y, 1e-5, id)
	}
	// A group goes as one to the face.
	grouped, err := card.Apply(c, card.GroupItems{IDs: []string{"i1", "i2"}})
	require.NoError(t, err)
	got = after(t, grouped, arrange.LineUp{IDs: []string{"i1", "i2", "i3"}, Edges: []arrange.Edge{arrange.Left}, To: arrange.TheFace})
	assert.InDelta(t, 0, got["i1"].X, 1e-5)
	assert.InDelta(t, was["i2"].X-was["i1"].X, got["i2"].X, 1e-5)
	assert.InDelta(t, 0, got["i3"].X, 1e-5)
}

func TestSpacingOut(t *testing.T) {
	c := tags(t)
	gaps := func(b map[string]geom.Rect) (out []float64) {
		for i := 1; i < len(five); i++ {
			out = append(out, b[five[i]].X-b[five[i-1]].Right())
		}
		return out
	}
	got := after(t, c, arrange.SpaceOut{IDs: []string{"i4", "i2", "i5", "i1", "i3"}})
	for _, g := range gaps(got) {
		assert.InDelta(t, gaps(got)[0], g, 1e-5)
	}
	assert.InDelta(t, boxes(t, c)["i5"].X, got["i5"].X, 1e-5, "the last stays")
	gap := 3.175
	for _, g := range gaps(after(t, c, arrange.SpaceOut{IDs: five, Gap: &gap})) {
		assert.InDelta(t, gap, g, 1e-5)
	}
	_, err := card.Apply(c, arrange.SpaceOut{IDs: five[:2]})
	assert.ErrorContains(t, err, "three items or more")
}

func TestSizesAndStretching(t *testing.T) {
	c := tags(t)
	_, it := func() (card.Card, *card.Item) {
		c, err := card.Apply(c, arrange.MatchSize{IDs: five, Width: true})
		require.NoError(t, err)
		_, it := c.Find("i4")
		return c, it
	}()
	assert.InDelta(t, 12, it.Form.Width, 1e-5)
	assert.InDelta(t, 14, it.Form.Height, 1e-5)
	assert.Equal(t, 88., it.Place.X)
	got := after(t, c, arrange.Stretch{IDs: []string{"i2"}, Width: true, Height: true})
	assert.InDelta(t, 130, got["i2"].W, 1e-4)
	assert.InDelta(t, 183.8, got["i2"].H, 1e-4, "it lies on its side")
	assert.InDelta(t, 0, got["i2"].X, 1e-4)
	_, err := card.Apply(c, card.TurnItems{IDs: []string{"i1"}, Degrees: 7}, arrange.Stretch{IDs: []string{"i1"}, Width: true})
	assert.ErrorContains(t, err, "Turn it upright")
}

func TestMirroringTwiceChangesNothing(t *testing.T) {
	c, err := card.Apply(coretest.Card(t), card.TurnItems{IDs: []string{"i2"}, Degrees: 33})
	require.NoError(t, err)
	was := boxes(t, c)
	for _, level := range []bool{false, true} {
		for _, face := range []bool{false, true} {
			k := arrange.MirrorItems{IDs: []string{"i2", "i4"}, Level: level, Face: face}
			once := after(t, c, k)
			if face {
				want := was["i2"].Centre()
				if level {
					want.Y = 177.8 - want.Y
				} else {
					want.X = 127 - want.X
				}
				assert.InDelta(t, want.X, once["i2"].Centre().X, 1e-5)
				assert.InDelta(t, want.Y, once["i2"].Centre().Y, 1e-5)
				assert.InDelta(t, want.X, once["i3"].Centre().X, 1e-5, "its mat goes with it")
			}
			twice, err := card.Apply(c, k, k)
			require.NoError(t, err)
			assert.Equal(t, c.Faces, twice.Faces)
		}
	}
	got, err := card.Apply(c, card.LockItems{IDs: []string{"i4"}, Locked: true}, arrange.MirrorItems{IDs: []string{"i4"}, Face: true, Copy: true})
	require.NoError(t, err, "a copy of what is locked may be made")
	assert.Len(t, got.Faces[0].Items, 7, "the label and the words on it")
}

func TestRepeating(t *testing.T) {
	c := tags(t)
	got, err := card.Apply(c, arrange.RepeatItems{IDs: []string{"i1"}, Pattern: arrange.Grid, Count: 3, Rows: 2, DX: 15, DY: 25})
	require.NoError(t, err)
	assert.Len(t, got.Faces[0].Items, 10)
	last := got.Faces[0].Items[9]
	assert.Equal(t, card.Place{X: 50, Y: 55}, last.Place)

	ring, err := card.Apply(c, arrange.RepeatItems{IDs: []string{"i1"}, Pattern: arrange.Ring, Count: 6, Radius: 20})
	require.NoError(t, err)
	middle := geom.Pt(20, 50)
	for _, it := range ring.Faces[0].Items[5:] {
		p := geom.Pt(it.Place.X, it.Place.Y).Sub(middle)
		assert.InDelta(t, 20, p.Len(), 1e-5)
		assert.InDelta(t, 0, math.Remainder(math.Atan2(p.X, -p.Y)*180/math.Pi-it.Place.Turn, 360), 1e-4, "each stands outward")
	}

	row, err := card.Apply(c, arrange.RepeatItems{IDs: []string{"i1"}, Pattern: arrange.Row, Count: 4, DX: 20, Turn: 10, Grow: .5})
	require.NoError(t, err)
	it := row.Faces[0].Items[7]
	assert.Equal(t, 1.5, it.Form.Width)
	assert.Equal(t, card.Place{X: 80, Y: 30, Turn: 30}, it.Place)
	for _, bad := range []arrange.RepeatItems{{Pattern: arrange.Row, Count: 1}, {Pattern: arrange.Ring, Count: 3}, {Pattern: arrange.Grid, Count: 100, Rows: 100}, {Pattern: "heap", Count: 3}} {
		bad.IDs = []string{"i1"}
		_, err := card.Apply(c, bad)
		var refusal *card.Refusal
		assert.ErrorAs(t, err, &refusal)
	}
}

func TestABackgroundFollowsTheBase(t *testing.T) {
	c := coretest.Empty(t)
	c, err := card.Apply(c, arrange.SetBackground{Faces: []card.FaceID{card.Front, card.Back}, Fill: card.Fill{Paper: "leaf-drift"}})
	require.NoError(t, err)
	for _, b := range []card.Base{
		{Kind: card.SideFold, Width: 148, Height: 210, Stock: "cream-300"},
		{Kind: card.TopFold, Width: 90, Height: 60, Stock: "cream-300"},
		{Kind: card.Flat, Width: 101.6, Height: 152.4, Stock: "cream-300"},
	} {
		c, err = card.Apply(c, fold.SetBase{Base: b})
		require.NoError(t, err)
		s, err := scene.Of(c)
		require.NoError(t, err)
		for _, id := range []card.FaceID{card.Front, card.Back} {
			f := s.Face(id)
			require.Len(t, f.Items, 1)
			box := f.Items[0].Bounds
			assert.True(t, box.Contains(geom.Rect{W: f.Width, H: f.Height}, 1e-6), "%s covers %s of a %s", box, id, b.Kind)
			assert.LessOrEqual(t, box.W, f.Width+6+1e-6)
			want := 12.
			if len(f.Neighbours) > 0 {
				want = 9
			}
			assert.InDelta(t, want, box.W-f.Width+box.H-f.Height, 1e-6, "bleed on all sides but that of the fold")
		}
	}
}

func TestAPictureCanBeTheBackground(t *testing.T) {
	c := coretest.Card(t)
	both := []card.FaceID{card.Front, card.Back}
	of := func(id string, w, h int) arrange.SetBackground {
		return arrange.SetBackground{Faces: both, Picture: &arrange.GroundPicture{ID: strings.Repeat(id, 64), PixelWidth: w, PixelHeight: h}}
	}
	got, err := card.Apply(c, of("a", 4000, 1000))
	require.NoError(t, err)
	first := got.Face(card.Front).Items[0]
	assert.True(t, first.Background && first.Locked)
	b := boxes(t, got)[first.ID]
	assert.InDelta(t, 130, b.W, 1e-6)
	assert.InDelta(t, -3, b.Y, 1e-6, "it has bleed")
	s, err := scene.Of(got)
	require.NoError(t, err)
	seen := s.Face(card.Front).Items[0].Picture
	require.NotNil(t, seen)
	assert.GreaterOrEqual(t, seen.Box.W, b.W-1e-6)
	assert.GreaterOrEqual(t, seen.Box.H, b.H-1e-6, "it covers the face")

	// Another picture, then a colour, then a picture: always the same item.
	for _, k := range []arrange.SetBackground{of("b", 10, 900), {Faces: both, Fill: card.Fill{Colour: "#587a4a"}}, of("a", 4000, 1000)} {
		got, err = card.Apply(got, k)
		require.NoError(t, err)
		now := got.Face(card.Front).Items[0]
		assert.Equal(t, first.ID, now.ID)
		assert.Equal(t, k.Picture != nil, now.Photo != nil)
		assert.Equal(t, k.Picture == nil, now.Form != nil)
		assert.Len(t, got.Face(card.Front).Items, 6)
	}
	smaller, err := card.Apply(got, fold.SetBase{Base: card.Base{Kind: card.TopFold, Width: 90, Height: 60, Stock: "cream-300"}})
	require.NoError(t, err)
	assert.InDelta(t, 96, boxes(t, smaller)[first.ID].W, 1e-6, "it follows the base")

	mixed := of("a", 4, 4)
	mixed.Fill.Colour = "#587a4a"
	_, err = card.Apply(c, mixed)
	assert.ErrorContains(t, err, "not both")
	none, err := card.Apply(got, arrange.SetBackground{Faces: both})
	require.NoError(t, err)
	assert.Equal(t, c.Faces, none.Faces)
}

func TestABackgroundLiesUnderAllAndEndsAtTheFold(t *testing.T) {
	c := coretest.Card(t)
	k := arrange.SetBackground{Faces: []card.FaceID{card.Front, card.Back}, Fill: card.Fill{Paper: "leaf-drift"}}
	got, err := card.Apply(c, k)
	require.NoError(t, err)
	first := got.Face(card.Front).Items[0]
	assert.True(t, first.Background && first.Locked)
	b := boxes(t, got)[first.ID]
	assert.InDelta(t, 0, b.X, 1e-6, "the fold is at the left")
	assert.InDelta(t, 130, b.Right(), 1e-6)
	assert.InDelta(t, -3, b.Y, 1e-6)
	k.Fill = card.Fill{Colour: "#587a4a"}
	again, err := card.Apply(got, k)
	require.NoError(t, err)
	assert.Len(t, again.Face(card.Front).Items, 6, "another fill, not another item")
	k.Fill = card.Fill{}
	none, err := card.Apply(again, k)
	require.NoError(t, err)
	assert.Equal(t, c.Faces, none.Faces)
}

// Whatever lies where, laying it out twice is laying it out once.
func TestLayingOutIsDoneOnce(t *testing.T) {
	rnd := rand.New(rand.NewPCG(9, 9))
	for range 120 {
		c := tags(t)
		for _, id := range five {
			var err error
			c, err = card.Apply(c, card.MoveItems{IDs: []string{id}, DX: rnd.Float64() * 40, DY: rnd.Float64() * 90}, card.TurnItems{IDs: []string{id}, Degrees: rnd.Float64() * 300})
			require.NoError(t, err)
		}
		edges := []arrange.Edge{arrange.Left, arrange.Centre, arrange.Right, arrange.Top, arrange.Middle, arrange.Bottom}
		for _, k := range []card.Command{
			arrange.LineUp{IDs: five, Edges: edges[rnd.IntN(6):][:1], To: []arrange.To{arrange.EachOther, arrange.TheFace, arrange.TheFirst}[rnd.IntN(3)]},
			arrange.SpaceOut{IDs: five, Down: rnd.IntN(2) == 0},
			arrange.MatchSize{IDs: five, Width: true, Height: rnd.IntN(2) == 0},
		} {
			once, err := card.Apply(c, k)
			require.NoError(t, err)
			twice := after(t, once, k)
			for id, b := range boxes(t, once) {
				assert.InDelta(t, b.X, twice[id].X, 1e-4, "%T", k)
				assert.InDelta(t, b.Y, twice[id].Y, 1e-4, "%T", k)
				assert.InDelta(t, b.W, twice[id].W, 1e-4, "%T", k)
			}
		}
	}
}

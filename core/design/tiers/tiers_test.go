package tiers_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/design/opening"
	"sectilis/core/design/tiers"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// shed is a card with a photo, i1, of 3:2, 90 by 110 mm, turned a little.
func shed(t *testing.T, turn float64) card.Card {
	t.Helper()
	_, id := coretest.Photo(t, 3000, 2000)
	c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Shed", Kind: card.Photo, Place: card.Place{X: 60, Y: 80, Turn: turn}, Made: card.Made{As: card.Printed},
		Photo: &card.Print{Picture: id, PixelWidth: 3000, PixelHeight: 2000, Width: 90, Height: 110}}}})
	require.NoError(t, err)
	return c
}

func do(t *testing.T, c card.Card, k ...card.Command) card.Card {
	t.Helper()
	c, err := card.Apply(c, k...)
	require.NoError(t, err)
	return c
}

func four() card.Tiers {
	return card.Tiers{Count: 4, Step: 11, X: .5, Y: .4, Foam: 2, Edge: 1.5, EdgeColour: "#ffffff"}
}

// stacked are the tiers of the front, the lowest first.
func stacked(t *testing.T, c card.Card) (out []scene.Item) {
	t.Helper()
	return stackedUpTo(t, c, card.MostTiers)
}

func stackedUpTo(t *testing.T, c card.Card, most int) (out []scene.Item) {
	t.Helper()
	s, err := scene.Of(c)
	require.NoError(t, err)
	f := s.Face(card.Front)
	for n := 1; n <= most; n++ {
		for _, it := range c.Face(card.Front).Items {
			for i := range f.Items {
				if it.Tier == n && f.Items[i].ID == it.ID {
					out = append(out, f.Items[i])
				}
			}
		}
	}
	return out
}

// picture is where a tier's picture lies on the face: its upper left corner and its size.
func picture(it scene.Item) (geom.Point, geom.Point) {
	b := it.Picture.Box
	return it.At.Apply(geom.Pt(b.X, b.Y)), geom.Pt(b.W, b.H)
}

// However a photo is cropped and turned, all tiers show it in the same place, within a hundredth of a
// millimetre, and each is smaller than the one below by just the step on two sides together.
func TestTiersAreInRegister(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 18))
	for range 25 {
		c := shed(t, r.Float64()*60-30)
		c = do(t, c, opening.CropPhoto{ID: "i1", Zoom: 1 + r.Float64()*2, ShiftX: r.Float64() - .5, ShiftY: r.Float64() - .5})
		spec := card.Tiers{Count: 2 + r.IntN(5), Step: 1 + r.Float64()*6, X: r.Float64(), Y: r.Float64(), Foam: card.Foam[r.IntN(len(card.Foam))]}
		c = do(t, c, tiers.MakeTiers{ID: "i1", Tiers: spec})
		all := stacked(t, c)
		require.Len(t, all, spec.Count)
		at, size := picture(all[0])
		for n, it := range all {
			p, s := picture(it)
			assert.Less(t, p.Sub(at).Len(), .01, "tier %d of %+v", n+1, spec)
			assert.Less(t, s.Sub(size).Len(), .01)
			assert.InDelta(t, 90-2*float64(n)*spec.Step, it.Box.W, 1e-4)
			assert.InDelta(t, 110-2*float64(n)*spec.Step, it.Box.H, 1e-4)
			if n == 0 {
				continue
			}
			below := all[n-1]
			assert.Equal(t, below.ID, it.On)
			assert.InDelta(t, below.To, it.From, 1e-6)
			assert.InDelta(t, spec.Foam, it.Lift, 1e-9)
			assert.Less(t, geom.Difference(geom.NonZero, it.Outline.Transform(it.At), below.Outline.Transform(below.At)).Area(), 1e-3, "the lower one carries it")
			// What shows at the left and at the top follows from where they draw together.
			back, _ := below.At.Inverse()
			corner := back.Apply(it.At.Apply(geom.Pt(it.Box.X, it.Box.Y)))
			assert.InDelta(t, 2*spec.Step*spec.X, corner.X-below.Box.X, 1e-4)
			assert.InDelta(t, 2*spec.Step*spec.Y, corner.Y-below.Box.Y, 1e-4)
		}
	}
}

// The whole stays one thing: its number, step and edge are changed later, things on a tier that goes lie
// on the highest then, and it is moved as a group.
func TestTiersAreChangedLater(t *testing.T) {
	c := do(t, shed(t, 0), tiers.MakeTiers{ID: "i1", Tiers: four()})
	f := c.Face(card.Front)
	require.Len(t, f.Groups, 1)
	g := f.Groups[0]
	assert.Equal(t, "Shed in tiers", g.Name)
	before := stacked(t, c)
	assert.Len(t, before[3].Over, 1, "its edge")
	c = do(t, c, card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Words", Kind: card.Lettering, Place: card.Place{X: 60, Y: 76}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#a8432a"},
		Words: &card.Words{Text: "open", Font: "pacifico-400", Size: 6, Leading: 1.2, Align: card.AlignCentre}}}})
	_, words := c.Find(c.Face(card.Front).Items[len(c.Face(card.Front).Items)-1].ID)
	require.Equal(t, before[3].ID, words.On)

	spec := four()
	spec.Count, spec.Step, spec.Edge = 2, 6, 0
	c = do(t, c, tiers.SetTiers{Face: card.Front, Group: g.ID, Tiers: spec})
	after := stacked(t, c)
	require.Len(t, after, 2)
	assert.Equal(t, before[1].ID, after[1].ID, "the same piece")
	assert.InDelta(t, 78, after[1].Box.W, 1e-6)
	assert.Empty(t, after[1].Over)
	_, words = c.Find(words.ID)
	assert.Equal(t, after[1].ID, words.On)
	assert.Equal(t, spec, *c.Face(card.Front).Groups[0].Tiers)

	// The picture of the lowest is that of all, when they are laid anew.
	c = do(t, c, opening.CropPhoto{ID: "i1", Zoom: 2}, tiers.SetTiers{Face: card.Front, Group: g.ID, Tiers: spec})
	all := stacked(t, c)
	_, a := picture(all[0])
	_, b := picture(all[1])
	assert.InDelta(t, a.X, b.X, .01)
}

func TestWhatCannotBeCutInTiersSaysWhy(t *testing.T) {
	c := shed(t, 0)
	made := do(t, c, tiers.MakeTiers{ID: "i1", Tiers: four()})
	with := func(change func(*card.Tiers)) card.Tiers {
		s := four()
		change(&s)
		return s
	}
	for _, k := range []struct {
		c   card.Card
		cmd card.Command
		why string
	}{
		{c, tiers.MakeTiers{ID: "i9", Tiers: four()}, "A photo is cut"},
		{c, tiers.MakeTiers{ID: "i1", Tiers: with(func(s *card.Tiers) { s.Count = 8 })}, "2 to 7"},
		{c, tiers.MakeTiers{ID: "i1", Tiers: with(func(s *card.Tiers) { s.Step = 20 })}, "Tier 4 would be smaller"},
		{c, tiers.MakeTiers{ID: "i1", Tiers: with(func(s *card.Tiers) { s.Step = math.NaN() })}, "0.5 mm"},
		{c, tiers.MakeTiers{ID: "i1", Tiers: with(func(s *card.Tiers) { s.X = 2 })}, "lies in the picture"},
		{c, tiers.MakeTiers{ID: "i1", Tiers: with(func(s *card.Tiers) { s.Foam = .77 })}, "Foam"},
		{c, tiers.MakeTiers{ID: "i1", Tiers: with(func(s *card.Tiers) { s.EdgeColour = "white" })}, "#rrggbb"},
		{made, tiers.MakeTiers{ID: "i1", Tiers: four()}, "a tier already"},
		{made, tiers.SetTiers{Face: card.Front, Group: "g99", Tiers: four()}, "no tiered picture"},
		{made, tiers.SetTiers{Face: "roof", Group: "g1", Tiers: four()}, "no face"},
	} {
		after, err := card.Apply(k.c, k.cmd)
		var refusal *card.Refusal
		require.ErrorAs(t, err, &refusal)
		assert.Contains(t, refusal.Why, k.why)
		assert.Equal(t, k.c, after)
	}
}

// Fanned tiers, strips and grids show the one picture in its place too, and the lowest carries them all.
func TestOtherRulesKeepTheRegister(t *testing.T) {
	for _, spec := range []card.Tiers{
		{Rule: card.Fanned, Count: 4, Step: 11, Turn: 5, X: .5, Y: .5, Foam: 1},
		{Rule: card.Fanned, Count: 3, Step: 9, Turn: -7, X: .45, Y: .5, Foam: 1},
		{Rule: card.Strips, Count: 5, Step: 3, X: .5, Y: .5, Foam: 2},
		{Rule: card.Grid, Count: 3, Rows: 4, Step: 2.5, X: .5, Y: .5, Foam: 1.5},
	} {
		c := shed(t, 9)
		c = do(t, c, opening.CropPhoto{ID: "i1", Zoom: 1.5, ShiftX: .1, ShiftY: -.1}, tiers.MakeTiers{ID: "i1", Tiers: spec})
		all := stackedUpTo(t, c, card.MostPieces)
		require.Len(t, all, pieces(spec), "%s", spec.Rule)
		at, size := picture(all[0])
		whole := all[0].Outline.Transform(all[0].At)
		var taken geom.Path
		for n, it := range all[1:] {
			p, s := picture(it)
			assert.Less(t, p.Sub(at).Len(), .01, "%s, tier %d", spec.Rule, n+2)
			assert.Less(t, s.Sub(size).Len(), .01)
			own := it.Outline.Transform(it.At)
			assert.Less(t, geom.Difference(geom.NonZero, own, whole).Area(), 1e-3)
			if spec.Rule == card.Fanned {
				continue
			}
			assert.Equal(t, all[0].ID, it.On)
			assert.Less(t, geom.Intersection(geom.NonZero, own, taken).Area(), 1e-6, "side by side")
			taken = geom.Union(geom.NonZero, taken, own)
		}
		if spec.Rule != card.Fanned {
			rows := max(1, spec.Rows)
			want := (90 - float64(spec.Count+1)*spec.Step) * (110 - float64(rows+1)*spec.Step)
			assert.InDelta(t, want, taken.Area(), .01, "gaps between and round them")
		} else {
			b := all[1].Outline.Bounds()
			assert.Greater(t, b.W, 90-2*spec.Step, "it is turned")
		}
		// Another rule of the same pieces, and back.
		g := c.Face(card.Front).Groups[0].ID
		c = do(t, c, tiers.SetTiers{Face: card.Front, Group: g, Tiers: four()}, tiers.SetTiers{Face: card.Front, Group: g, Tiers: spec})
		assert.Len(t, stackedUpTo(t, c, card.MostPieces), pieces(spec))
	}
}

// Words and shapes over a tiered picture stand out of it on pieces that show it where they lie; they follow
// when it is another.
func TestFeaturesStandOutInRegister(t *testing.T) {
	c := do(t, shed(t, 6), tiers.MakeTiers{ID: "i1", Tiers: four()})
	g := c.Face(card.Front).Groups[0].ID
	c = do(t, c, card.PlaceItems{Face: card.Front, Items: []card.Item{
		{Name: "Words", Kind: card.Lettering, Place: card.Place{X: 62, Y: 70}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#a8432a"},
			Words: &card.Words{Text: "open", Font: "alfa-slab-one-400", Size: 8, Leading: 1.2, Align: card.AlignCentre}},
		{Name: "Disc", Kind: card.Shape, Place: card.Place{X: 50, Y: 100}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#a8432a"}, Form: &card.Form{Outline: card.Ellipse, Width: 24, Height: 18}}}})
	byName := func(name string) *card.Item {
		for i := range c.Face(card.Front).Items {
			if it := &c.Face(card.Front).Items[i]; it.Name == name {
				return it
			}
		}
		require.Fail(t, "no "+name)
		return nil
	}
	words, disc := byName("Words").ID, byName("Disc").ID
	c = do(t, c, tiers.MakeFeature{ID: words, Group: g, Margin: 2, Lift: 2}, tiers.MakeFeature{ID: disc, Group: g, Lift: 1})
	assert.Nil(t, c.Face(card.Front).Item(disc), "the shape has become the piece")
	on := byName("Words").On
	assert.Equal(t, byName("Words, feature").ID, on, "words are printed on it")
	check := func() {
		t.Helper()
		s, err := scene.Of(c)
		require.NoError(t, err)
		at, size := picture(stacked(t, c)[0])
		for _, name := range []string{"Words, feature", "Disc, feature"} {
			for _, it := range s.Face(card.Front).Items {
				if it.ID != byName(name).ID {
					continue
				}
				p, q := picture(it)
				assert.Less(t, p.Sub(at).Len(), .01, name)
				assert.Less(t, q.Sub(size).Len(), .01, name)
				assert.True(t, it.Piece)
			}
		}
	}
	check()
	assert.InDelta(t, math.Pi*12*9, byNameOutline(t, c, "Disc, feature").Area(), .05)
	c = do(t, c, opening.CropPhoto{ID: "i1", Zoom: 2, ShiftX: .05}, tiers.SetTiers{Face: card.Front, Group: g, Tiers: card.Tiers{Count: 2, Step: 8, X: .5, Y: .5, Foam: 1}})
	check()
	for field, k := range map[string]tiers.MakeFeature{
		"group":  {ID: words, Group: "g9"},
		"id":     {ID: "i1", Group: g},
		"margin": {ID: words, Group: g, Margin: -1},
	} {
		_, err := card.Apply(c, k)
		var refusal *card.Refusal
		require.ErrorAs(t, err, &refusal, field)
		assert.Equal(t, field, refusal.Field)
	}
}

func byNameOutline(t *testing.T, c card.Card, name string) geom.Path {
	t.Helper()
	s, err := scene.Of(c)
	require.NoError(t, err)
	for _, it := range s.Face(card.Front).Items {
		if it.Name == name {
			return it.Outline
		}
	}
	require.Fail(t, "no "+name)
	return geom.Path{}
}

// pieces is how many pieces a tiered picture has, the lowest among them.
func pieces(t card.Tiers) int {
	switch t.Rule {
	case card.Strips:
		return 1 + t.Count
	case card.Grid:
		return 1 + t.Count*t.Rows
	}
	return t.Count
}

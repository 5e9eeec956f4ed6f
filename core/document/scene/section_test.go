package scene_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

func block(name string, x, y, w, h, lift float64) card.Item {
	return card.Item{Name: name, Kind: card.Shape, Place: card.Place{X: x, Y: y}, Made: card.Made{As: card.Cut, Stock: "moss-216", Lift: lift},
		Form: &card.Form{Outline: card.Rectangle, Width: w, Height: h, Corner: card.Square}}
}

// A side fold with a label on foam on Front and a patch inside: every strip lies where it has to.
func TestAClosedCardIsCutThrough(t *testing.T) {
	c, err := fold.New("Cut", card.Base{Kind: card.SideFold, Width: 100, Height: 150, Stock: "cream-300"})
	require.NoError(t, err)
	c, err = card.Apply(c,
		card.PlaceItems{Face: card.Front, Items: []card.Item{block("Label", 60, 75, 40, 30, 2)}},
		card.PlaceItems{Face: card.InsideSecond, Items: []card.Item{block("Patch", 30, 75, 20, 30, 0)}})
	require.NoError(t, err)
	s, err := scene.Of(c)
	require.NoError(t, err)
	cut := scene.Closed(c, &s).Cut(c, geom.Pt(0, 75), geom.Pt(100, 75))
	leaf, _ := card.StockByID("cream-300")
	moss, _ := card.StockByID("moss-216")
	require.Len(t, cut.Strips, 5, "%+v", cut.Strips)
	strips := map[string]scene.CutStrip{}
	for _, k := range cut.Strips {
		if k.Foam {
			k.Name += ", foam"
		}
		strips[k.Name] = k
	}
	up := 2 + moss.Thickness // the label before Front
	assert.InDelta(t, 40, strips["Label"].From, 1e-6)
	assert.InDelta(t, 80, strips["Label"].To, 1e-6)
	assert.InDelta(t, 0, strips["Label"].Upper, 1e-9)
	assert.InDelta(t, moss.Thickness, strips["Label, foam"].Upper, 1e-9)
	assert.InDelta(t, up, strips["Label, foam"].Lower, 1e-9)
	assert.InDelta(t, up, strips["Front / Inside left"].Upper, 1e-9)
	back := up + leaf.Thickness + moss.Thickness
	assert.InDelta(t, back, strips["Back / Inside right"].Upper, 1e-9)
	assert.InDelta(t, back, strips["Patch"].Lower, 1e-9, "on the leaf behind")
	assert.InDelta(t, 20, strips["Patch"].From, 1e-6)
	assert.InDelta(t, back+leaf.Thickness, cut.Thick, 1e-9)
	require.Len(t, cut.Folds, 1)
	assert.InDelta(t, 0, cut.Folds[0].At, 1e-6)
	assert.False(t, cut.Folds[0].Ahead)
	assert.InDelta(t, 2*leaf.Thickness+2+moss.Thickness, cut.Thickest, 1e-9, "where the label is")
	assert.InDelta(t, 60, cut.At, 20)
	assert.Empty(t, scene.Closed(c, &s).Cut(c, geom.Pt(5, 5), geom.Pt(5, 5)).Strips)
}

// Whatever lies on a card, nothing lies in the same place as anything else in any cut through it.
func TestNothingLiesTwiceInACut(t *testing.T) {
	rng := rand.New(rand.NewPCG(19, 2))
	for _, k := range fold.Kinds() {
		if k.Drawing {
			continue
		}
		for range 4 {
			c, err := fold.New("Cut", card.Base{Kind: k.ID, Width: 110, Height: 140, Stock: "cream-300"})
			require.NoError(t, err)
			for _, f := range fold.Of(c.Base).Faces {
				var items []card.Item
				for range rng.IntN(4) {
					items = append(items, block("Bit", f.Width*rng.Float64(), f.Height*rng.Float64(), 8+20*rng.Float64(), 8+20*rng.Float64(), card.Foam[rng.IntN(len(card.Foam))]))
				}
				if len(items) > 0 {
					c, err = card.Apply(c, card.PlaceItems{Face: f.ID, Items: items})
					require.NoError(t, err)
				}
			}
			s, err := scene.Of(c)
			require.NoError(t, err)
			heap := scene.Closed(c, &s)
			for range 5 {
				cut := heap.Cut(c, geom.Pt(-5, 140*rng.Float64()), geom.Pt(115, 140*rng.Float64()))
				for i, a := range cut.Strips {
					assert.GreaterOrEqual(t, a.Upper, -1e-9)
					assert.LessOrEqual(t, a.Lower, cut.Thick+1e-9)
					for _, b := range cut.Strips[:i] {
						// Pieces that are glued on one another side by side may share a depth.
						wide := min(a.To, b.To) - max(a.From, b.From)
						deep := min(a.Lower, b.Lower) - max(a.Upper, b.Upper)
						if a.Face != "" && a.Face == b.Face {
							continue
						}
						assert.False(t, wide > 2.5 && deep > 1e-6, "%s: %+v and %+v", k.ID, a, b)
					}
				}
				assert.LessOrEqual(t, cut.Thickest, s.Thickness+1e-6, k.ID)
			}
		}
	}
}

// The leaves of a card with several lie behind one another in the order in which it is closed, as far apart
// as what lies between them.
func TestLeavesLieBehindOneAnother(t *testing.T) {
	leaf, _ := card.StockByID("cream-300")
	for kind, leaves := range map[card.BaseKind]int{card.SideFold: 2, card.TopFold: 2, card.TriFold: 3, card.ZFold: 3, card.Accordion: 4, card.Flat: 1, card.Tent: 2} {
		c, err := fold.New("Leaves", card.Base{Kind: kind, Width: 100, Height: 140, Stock: "cream-300"})
		require.NoError(t, err)
		s, err := scene.Of(c)
		require.NoError(t, err)
		front := s.Face(card.Front)
		cut := scene.Closed(c, &s).Cut(c, geom.Pt(0, front.Height/2), geom.Pt(front.Width, front.Height/2))
		if kind == card.Tent {
			continue // it stands, and is not closed flat
		}
		require.Len(t, cut.Strips, leaves, kind)
		assert.InDelta(t, float64(leaves)*leaf.Thickness, cut.Thick, 1e-9, kind)
		for i, k := range cut.Strips {
			assert.InDelta(t, float64(i)*leaf.Thickness, k.Upper, 1e-9, "%s, leaf %d", kind, i)
			assert.False(t, k.Foam)
			assert.Empty(t, k.Item)
			assert.NotEmpty(t, k.Name, kind)
		}
		assert.Len(t, cut.Folds, map[card.BaseKind]int{card.SideFold: 1, card.TriFold: 2, card.ZFold: 2, card.Accordion: 3}[kind], kind)
		for _, f := range cut.Folds {
			assert.Less(t, f.Upper, f.Lower, kind)
			assert.Equal(t, f.At > front.Width/2, f.Ahead, "%s: a fold lies at the end of its leaves", kind)
		}
	}
}

// A cut is the same whichever way the line runs, but turned about.
func TestACutIsTheSameFromBothEnds(t *testing.T) {
	c, err := fold.New("Turned", card.Base{Kind: card.SideFold, Width: 100, Height: 150, Stock: "cream-300"})
	require.NoError(t, err)
	c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{block("A", 30, 60, 30, 40, 1), block("B", 70, 90, 40, 40, 0)}},
		card.PlaceItems{Face: card.InsideFirst, Items: []card.Item{block("C", 50, 75, 60, 60, .5)}})
	require.NoError(t, err)
	s, err := scene.Of(c)
	require.NoError(t, err)
	heap := scene.Closed(c, &s)
	from, to := geom.Pt(-5, 40), geom.Pt(105, 110)
	one, other := heap.Cut(c, from, to), heap.Cut(c, to, from)
	assert.InDelta(t, one.Thickest, other.Thickest, 1e-9)
	assert.InDelta(t, one.Thick, other.Thick, 1e-9)
	require.Len(t, other.Strips, len(one.Strips))
	for _, a := range one.Strips {
		found := false
		for _, b := range other.Strips {
			found = found || a.Item == b.Item && a.Foam == b.Foam && math.Abs(a.From-(one.Long-b.To)) < 1e-6 && math.Abs(a.Upper-b.Upper) < 1e-9 && math.Abs(a.Lower-b.Lower) < 1e-9
		}
		assert.True(t, found, "%+v", a)
	}
}

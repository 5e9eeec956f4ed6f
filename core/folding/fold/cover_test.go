package fold_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

func allFaces(b card.Base) (out []card.FaceID) {
	for _, f := range fold.StudyOf(b).Net.Faces {
		out = append(out, f.ID)
	}
	return out
}

// heldClear tells that every mat of a card lies within one panel, as far from all folds and cuts as it
// has to, and returns how many there are.
func heldClear(t *testing.T, c card.Card, margins []float64) int {
	t.Helper()
	study := fold.StudyOf(c.Base)
	count := 0
	for _, f := range c.Faces {
		face := study.Net.Face(f.ID)
		for _, it := range f.Items {
			if it.Cover == nil || face.ID == "" {
				continue
			}
			count++
			need := 0.0
			for _, m := range margins[:it.Cover.Layer] {
				need += m
			}
			outline := card.OutlineOf(*it.Form).Transform(it.Place.Map()).Transform(face.OnSheet)
			panel := study.PanelOf(study.Net, f.ID, outline)
			require.GreaterOrEqual(t, panel, 0, "%s on %s", it.Name, f.ID)
			p := study.Panels[panel]
			whole := geom.Join(append([]geom.Path{p.Ring}, p.Holes...)...)
			out := geom.Difference(geom.NonZero, outline, whole)
			assert.InDelta(t, 0, math.Abs(out.Area()), 1e-3, "%s of a %s reaches past its panel", it.Name, c.Base.Kind)
			d := math.Inf(1)
			for _, ring := range outline.Flatten(.001) {
				for _, q := range ring.Points {
					n, _ := whole.Nearest(q)
					d = min(d, n.Distance)
				}
			}
			assert.InDelta(t, need, d, .002, "%s of a %s at %.0f × %.0f", it.Name, c.Base.Kind, c.Base.Width, c.Base.Height)
		}
	}
	return count
}

func TestMatsOnPanelsKeepClearOfFoldsAndCuts(t *testing.T) {
	margins := []float64{3.175, 2}
	for _, k := range fold.Kinds() {
		for _, size := range [][2]float64{{108, 140}, {127, 178}, {148, 148}, {90, 215}, {210, 105}} {
			b := card.Base{Kind: k.ID, Width: size[0], Height: size[1], Stock: "cream-300"}
			c, err := fold.New("Covered", b)
			if err != nil {
				continue // a size that this kind is not made in
			}
			c, err = card.Apply(c, fold.CoverPanels{Faces: allFaces(b), Layers: []card.PanelLayer{
				{Margin: margins[0], Stocks: []string{"moss-216", "honey-216"}},
				{Margin: margins[1], Stocks: []string{"cream-216"}, Papers: []string{"leaf-drift"}},
			}})
			require.NoError(t, err, "%s", k.ID)
			assert.Positive(t, heldClear(t, c, margins), "%s", k.ID)
		}
	}
}

func TestMatsOnPanelsFollowTheBase(t *testing.T) {
	b := card.Base{Kind: card.StepCard, Width: 127, Height: 178, Stock: "cream-300", Measures: map[string]float64{"steps": 1}}
	if fold.Check(b) != nil {
		b.Measures = nil
	}
	c, err := fold.New("Steps", b)
	require.NoError(t, err)
	faces := allFaces(b)
	layers := []card.PanelLayer{{Margin: 3, Stocks: []string{"moss-216", "honey-216"}}}
	c, err = card.Apply(c,
		card.PlaceItems{Face: card.InsideFirst, Items: []card.Item{{Name: "Label", Kind: card.Shape, Place: card.Place{X: 60, Y: 30},
			Made: card.Made{As: card.Cut, Stock: "brick-216"}, Form: &card.Form{Outline: card.Ellipse, Width: 20, Height: 14}}}},
		fold.CoverPanels{Faces: faces, Layers: layers})
	require.NoError(t, err)
	made := heldClear(t, c, []float64{3})

	face := c.Face(card.InsideFirst)
	first := face.CoverAt(card.Cover{Panel: 1, Layer: 1})
	second := face.CoverAt(card.Cover{Panel: 2, Layer: 1})
	require.NotNil(t, second)
	assert.Equal(t, "moss-216", first.Made.Stock, "stocks in turn")
	assert.Equal(t, "honey-216", second.Made.Stock, "stocks in turn")
	label := face.Items[len(face.Items)-1]
	for _, it := range face.Items {
		if it.Name == "Label" {
			label = it
		}
	}
	require.NotEmpty(t, label.On, "what lay on the base lies on the mat now")
	under := face.Item(label.On)
	off := geom.Pt(label.Place.X-under.Place.X, label.Place.Y-under.Place.Y)

	// One is taken away, one is made of another stock; then the card gets larger.
	c, err = card.Apply(c, card.RemoveItems{IDs: []string{second.ID}},
		card.SetMade{IDs: []string{first.ID}, Made: card.Made{As: card.Cut, Stock: "plum-216"}})
	require.NoError(t, err)
	larger := c.Base
	larger.Width, larger.Height = 140, 196
	c, err = card.Apply(c, fold.SetBase{Base: larger})
	require.NoError(t, err)
	assert.Equal(t, made-1, heldClear(t, c, []float64{3}), "what was taken away stays away")
	face = c.Face(card.InsideFirst)
	assert.Equal(t, "plum-216", face.Item(first.ID).Made.Stock, "what a person chose stays")
	now, on := face.Item(label.ID), face.Item(label.On)
	assert.InDelta(t, 0, geom.Pt(now.Place.X-on.Place.X, now.Place.Y-on.Place.Y).Sub(off).Len(), 1e-6, "what lies on a mat goes with it")

	c, err = card.Apply(c, fold.CoverPanels{Faces: faces})
	require.NoError(t, err)
	assert.Zero(t, heldClear(t, c, []float64{3}))
	assert.NotNil(t, c.Face(card.InsideFirst).Item(label.ID), "what lay on a mat stays")
	for _, f := range c.Faces {
		assert.Nil(t, f.Covered)
	}
}

func TestPanelsTooSmallForMatsAreRefused(t *testing.T) {
	b := card.Base{Kind: card.SideFold, Width: 60, Height: 60, Stock: "cream-300"}
	c, err := fold.New("Small", b)
	require.NoError(t, err)
	for field, k := range map[string]fold.CoverPanels{
		"faces":  {Layers: []card.PanelLayer{{Margin: 3, Stocks: []string{"moss-216"}}}},
		"margin": {Faces: []card.FaceID{card.Front}, Layers: []card.PanelLayer{{Margin: 40, Stocks: []string{"moss-216"}}}},
		"stocks": {Faces: []card.FaceID{card.Front}, Layers: []card.PanelLayer{{Margin: 4}}},
	} {
		_, err := card.Apply(c, k)
		var refused *card.Refusal
		require.ErrorAs(t, err, &refused)
		assert.Equal(t, field, refused.Field)
	}
}

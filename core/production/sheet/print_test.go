package sheet_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/coretest/sheettest"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
	"sectilis/core/production/sheet"
)

func layWith(t *testing.T, c card.Card, change func(*sheet.Options)) sheet.Layout {
	t.Helper()
	s, err := scene.Of(c)
	require.NoError(t, err)
	opt := sheettest.Usual(sheet.Sizes()[0])
	change(&opt)
	return sheet.Lay(c, s, opt, nil)
}

// The inside on an insert: on its own stock, smaller on every side, the fold and the ink
// where they are inside the card; the base is printed on one side alone.
func TestTheInsideMayBeAnInsert(t *testing.T) {
	c, err := card.Apply(coretest.Card(t), &card.SetInsert{Insert: &card.Insert{Stock: "sage-216", Less: 3}})
	require.NoError(t, err)
	l := layWith(t, c, func(*sheet.Options) {})
	base, _ := find(t, l, "base")
	assert.False(t, base.TwoSided)
	sh, in := find(t, l, "insert")
	assert.Equal(t, "sage-216", sh.Stock.ID)
	box := cutOut(in).Bounds()
	_, whole := find(t, l, "base")
	was := cutOut(whole).Bounds()
	assert.InDelta(t, max(was.W, was.H)-6, max(box.W, box.H), 1e-6)
	assert.InDelta(t, min(was.W, was.H)-6, min(box.W, box.H), 1e-6)
	require.NotEmpty(t, in.Inks)
	assert.Equal(t, fold.Valley, in.Lines[0].Role, "the mountain of the outside, seen from inside")
	plain := layWith(t, coretest.Card(t), func(*sheet.Options) {})
	_, reverse := find(t, plain, "base")
	// The ink lies as far from the fold as on the base.
	far := func(p sheet.Piece, inks []scene.Ink, line int) float64 {
		n, _ := p.Lines[line].Path.Nearest(inks[0].Region.Bounds().Centre())
		return n.Distance
	}
	assert.InDelta(t, far(reverse, reverse.Reverse, 0), far(in, in.Inks, 0), .01)

	_, err = card.Apply(c, &card.SetInsert{Insert: &card.Insert{Stock: "sage-216", Less: 40}})
	assert.ErrorContains(t, err, "smaller than its card by up to 20 mm")
	steps := coretest.Empty(t)
	steps.Base.Kind = card.StepCard
	_, err = card.Apply(steps, &card.SetInsert{Insert: &card.Insert{Stock: "sage-216"}})
	assert.ErrorContains(t, err, "cut inside")
}

// Room for bleed is left where ink meets an edge, and not elsewhere.
func TestBleedIsOnlyWhereInkMeetsAnEdge(t *testing.T) {
	piece := func(colour string, ink *card.Item) geom.Rect {
		c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{{
			Name: "Panel", Kind: card.Shape, Place: card.Place{X: 60, Y: 60}, Made: card.Made{As: card.Cut, Stock: "moss-216", Bleed: 2},
			Fill: card.Fill{Colour: colour}, Form: &card.Form{Outline: card.Rectangle, Width: 50, Height: 30, Corner: card.Square},
		}}})
		require.NoError(t, err)
		if ink != nil {
			ink.On = c.Face(card.Front).Items[0].ID
			c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{*ink}})
			require.NoError(t, err)
		}
		_, p := find(t, layWith(t, c, func(o *sheet.Options) { o.Turning = 0 }), c.Face(card.Front).Items[0].ID)
		return p.Box
	}
	dot := func(x float64) *card.Item {
		return &card.Item{Name: "Dot", Kind: card.Shape, Place: card.Place{X: x, Y: 60}, Made: card.Made{As: card.Printed},
			Fill: card.Fill{Colour: "#a8432a"}, Form: &card.Form{Outline: card.Ellipse, Width: 10, Height: 10}}
	}
	for _, k := range []struct {
		colour string
		ink    *card.Item
		w, h   float64
	}{{"#587a4a", nil, 54, 34}, {"", nil, 50, 30}, {"", dot(60), 50, 30}, {"", dot(84), 52, 30}} {
		box := piece(k.colour, k.ink)
		assert.InDelta(t, k.w, box.W, .02)
		assert.InDelta(t, k.h, box.H, .02)
	}

	// On the base ink runs on past its edge, and ends at the fold.
	c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{{
		Name: "Ground", Kind: card.Shape, Place: card.Place{X: 63.5, Y: 88.9}, Made: card.Made{As: card.Printed},
		Fill: card.Fill{Colour: "#587a4a"}, Form: &card.Form{Outline: card.Rectangle, Width: 140, Height: 190, Corner: card.Square},
	}}})
	require.NoError(t, err)
	_, base := find(t, layWith(t, c, func(o *sheet.Options) { o.Turning = 0; o.Size = sheet.Sizes()[2] }), "base")
	outline := cutOut(base).Bounds()
	region := base.Inks[0].Region
	for _, clip := range base.Inks[0].Clips {
		region = geom.Intersection(geom.NonZero, region, clip)
	}
	ink := region.Bounds()
	back := geom.RectPath(geom.Rect{X: outline.X, Y: outline.Y, W: outline.W / 2, H: outline.H})
	assert.Less(t, geom.Intersection(geom.NonZero, region, back).Area(), .01, "it ends at the fold")
	assert.InDelta(t, outline.X+outline.W/2, ink.X, .02, "beside the ends of the fold, too")
	assert.InDelta(t, outline.Right()+3, ink.Right(), .02)
	assert.InDelta(t, outline.Y-3, ink.Y, .02)
	assert.InDelta(t, outline.W+3, base.Box.W, .02)
	assert.InDelta(t, outline.H+6, base.Box.H, .02)
}

// Crop marks stand beside the corners of what is printed, clear of all ink.
func TestCropMarksAreClearOfPieces(t *testing.T) {
	l := layWith(t, coretest.Card(t), func(o *sheet.Options) { o.Marking = sheet.ForHand })
	n := 0
	for _, sh := range l.Sheets {
		assert.Empty(t, sh.Marks)
		if !sh.Printed {
			assert.Empty(t, sh.Crops)
			continue
		}
		n++
		page := geom.Rect{W: sh.Size.Width, H: sh.Size.Height}.Grow(-sh.Margin)
		require.Len(t, sh.Crops, 8*len(sh.Pieces), "two at each corner")
		for _, c := range sh.Crops {
			assert.True(t, page.Contains(c.Bounds(), 1e-6))
			for _, p := range sh.Pieces {
				in, _ := geom.CutStrokes(c, geom.NonZero, geom.RectPath(p.Box))
				assert.True(t, in.Empty(), p.Name)
			}
		}
	}
	assert.Positive(t, n)
	for _, sh := range layWith(t, coretest.Card(t), func(o *sheet.Options) { o.Marking = sheet.Unmarked }).Sheets {
		assert.Empty(t, sh.Marks)
		assert.Empty(t, sh.Crops)
	}
}

package sheet_test

import (
	"fmt"
	"math/rand/v2"
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

func lay(t *testing.T, c card.Card, size int) sheet.Layout {
	t.Helper()
	s, err := scene.Of(c)
	require.NoError(t, err)
	return sheet.Lay(c, s, sheettest.Usual(sheet.Sizes()[size]), nil)
}

// sound checks what every layout must be: inside the margins, apart from each
// other and from the marks, and nothing lost.
func sound(t *testing.T, c card.Card, l sheet.Layout, opt sheet.Options) {
	t.Helper()
	want := map[string]bool{"base": true}
	for _, f := range c.Faces {
		for _, it := range f.Items {
			if it.IsPiece() {
				want[it.ID] = true
			}
		}
	}
	for _, sh := range l.Sheets {
		inner := geom.Rect{W: sh.Size.Width, H: sh.Size.Height}.Grow(-opt.Margin)
		for _, m := range sh.Marks {
			for _, p := range sh.Pieces {
				require.Less(t, geom.Intersection(geom.NonZero, geom.Offset(cutOut(p), sheet.MarkClear-.01, geom.RoundCorner), m.Path()).Area(), 1e-9, "a mark is clear of %s", p.Name)
			}
		}
		for i, p := range sh.Pieces {
			require.True(t, want[p.ID], "%s is laid once", p.Name)
			delete(want, p.ID)
			require.True(t, inner.Contains(p.Box, 1e-6), "%s lies within the margins", p.Name)
			outline := geom.Path{}
			for _, l := range p.Lines {
				outline = geom.Join(outline, l.Path)
			}
			require.True(t, p.Box.Contains(outline.Bounds(), 1e-6))
			grown := geom.Offset(cutOut(p), opt.Between-.01, geom.RoundCorner)
			for _, q := range sh.Pieces[:i] {
				require.Less(t, geom.Intersection(geom.NonZero, grown, cutOut(q)).Area(), 1e-9, "%s and %s", p.Name, q.Name)
			}
		}
		require.Equal(t, sh.Printed, len(sh.Marks) == 4)
		for _, m := range sh.Marks {
			require.True(t, inner.Contains(m.Path().Bounds(), 0))
		}
	}
	for _, p := range l.Problems {
		delete(want, p.ID)
	}
	require.Empty(t, want)
}

// offer is what is offered for a card whose pieces have no room on a size.
func offer(t *testing.T, c card.Card, change func(*sheet.Options), size string) *card.SheetSetup {
	t.Helper()
	s, err := scene.Of(c)
	require.NoError(t, err)
	setup := card.UsualSheets()
	setup.Size = size
	opt, err := sheet.OptionsOf(setup)
	require.NoError(t, err)
	change(&opt)
	return sheet.Offer(c, sheet.Single(c, s), setup, opt)
}

// cutOut is the region of a piece on its sheet.
func cutOut(p sheet.Piece) geom.Path {
	return p.Outline
}

func TestEveryPieceIsLaidOnItsStock(t *testing.T) {
	c := coretest.Card(t)
	for i, size := range sheet.Sizes()[:2] {
		l := lay(t, c, i)
		sound(t, c, l, sheettest.Usual(size))
		require.Len(t, l.Sheets, 5, "cream 300, text, satin, brick, cream 216")
		assert.Empty(t, l.Problems)
		base := l.Sheets[0]
		assert.Equal(t, "cream-300", base.Stock.ID)
		assert.True(t, base.Printed, "the seal on the back")
		assert.True(t, base.TwoSided, "the words inside")
		assert.Equal(t, fold.Mountain, base.Pieces[0].Lines[0].Role)
		assert.InDelta(t, 254*177.8/(size.Width*size.Height), base.Used, 1e-9)
		for _, sh := range l.Sheets {
			if sh.Stock.ID == "brick-216" {
				assert.Empty(t, sh.Marks, "what is only cut needs no marks")
			}
		}
		assert.Greater(t, l.Used, .2)
	}
}

func TestPrintedThingsStayWhereTheyAreOnTheirPiece(t *testing.T) {
	l := lay(t, coretest.Card(t), 0)
	base := l.Sheets[0]
	at := base.Pieces[0].At
	seal := base.Pieces[0].Inks[0].Region.Bounds().Centre()
	want := at.Apply(geom.Pt(63.5, 150)) // Back is the left half of the net
	assert.InDelta(t, want.X, seal.X, .01)
	assert.InDelta(t, want.Y, seal.Y, .01)

	// The reverse, turned over about the upright axis, meets the same paper.
	seen := base.Pieces[0].Reverse[0].Region.Bounds().Centre()
	printed := base.Reverse()[0].Region.Bounds().Centre()
	assert.InDelta(t, base.Size.Width-seen.X, printed.X, 1e-9)
	front := base.Front()
	assert.Len(t, front, len(base.Pieces[0].Inks)+4)
}

func TestASheetPrintedInsideAloneHasItsMarksOutside(t *testing.T) {
	c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.InsideSecond, Items: []card.Item{{
		Name: "Dot", Kind: card.Shape, Place: card.Place{X: 60, Y: 60}, Made: card.Made{As: card.Printed},
		Fill: card.Fill{Colour: "#587a4a"}, Form: &card.Form{Outline: card.Ellipse, Width: 9, Height: 9},
	}}})
	require.NoError(t, err)
	l := lay(t, c, 0)
	sound(t, c, l, sheettest.Usual(sheet.Sizes()[0]))
	assert.Len(t, l.Sheets[0].Front(), 4, "nothing but the marks")
	assert.Len(t, l.Sheets[0].Reverse(), 1)
}

func TestWhatIsTooLargeIsSaid(t *testing.T) {
	c := coretest.Empty(t)
	c, err := card.Apply(c, fold.SetBase{Base: card.Base{Kind: card.SideFold, Width: 148, Height: 210, Stock: "cream-300"}})
	require.NoError(t, err)
	l := lay(t, c, 0)
	require.Len(t, l.Problems, 1)
	assert.Empty(t, l.Sheets)
	assert.Contains(t, l.Problems[0].Why, "29.3 mm) too large for Letter")
	assert.Contains(t, l.Problems[0].Why, "It fits on A4;")
	none := func(*sheet.Options) {}
	require.NotNil(t, offer(t, c, none, "letter"))
	assert.Equal(t, "a4", offer(t, c, none, "letter").Size)

	// What the machine reaches goes first; what it does not is said to be trimmed by hand.
	bed := func(o *sheet.Options) { o.Bed = [2]float64{304.8, 304.8} }
	assert.Contains(t, layWith(t, c, bed).Problems[0].Why, "It fits on A4; or make it smaller")
	c, err = card.Apply(c, fold.SetBase{Base: card.Base{Kind: card.SideFold, Width: 130, Height: 210, Stock: "cream-300"}})
	require.NoError(t, err)
	got := offer(t, c, bed, "letter")
	assert.True(t, got.Size == "square" && !got.Borderless && got.Marks == card.MarksForMachine && len(got.Unmarked) == 0, "the margins are in its way: %v", got)
	c, err = card.Apply(c, fold.SetBase{Base: card.Base{Kind: card.SideFold, Width: 140, Height: 210, Stock: "cream-300"}})
	require.NoError(t, err)
	assert.Equal(t, "square", offer(t, c, bed, "letter").Size)
	c, err = card.Apply(c, fold.SetBase{Base: card.Base{Kind: card.SideFold, Width: 180, Height: 280, Stock: "cream-300"}})
	require.NoError(t, err)
	assert.Contains(t, layWith(t, c, bed).Problems[0].Why, "It fits on A3, which is more than the machine reaches")
}

func TestRandomPiecesNeverOverlap(t *testing.T) {
	r := rand.New(rand.NewPCG(11, 12))
	stocks := []string{"cream-216", "moss-216", "text-120"}
	for range 60 {
		c := coretest.Empty(t)
		for n := range 5 + r.IntN(40) {
			fill := card.Fill{}
			if r.IntN(2) == 0 {
				fill.Colour = "#587a4a"
			}
			next, err := card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{{
				Name: fmt.Sprint("Piece ", n), Kind: card.Shape, Place: card.Place{X: 60, Y: 60, Turn: r.Float64() * 360},
				Made: card.Made{As: card.Cut, Stock: stocks[r.IntN(3)], Bleed: float64(r.IntN(3))}, Fill: fill,
				Form: &card.Form{Outline: "banner", Width: 5 + r.Float64()*220, Height: 5 + r.Float64()*90},
			}}})
			require.NoError(t, err)
			c = next
		}
		sound(t, c, lay(t, c, r.IntN(2)), sheettest.Usual(sheet.Sizes()[0]))
	}
}

func BenchmarkLay(b *testing.B) {
	c := coretest.Card(b)
	s, err := scene.Of(c)
	require.NoError(b, err)
	for b.Loop() {
		sheet.Lay(c, s, sheettest.Usual(sheet.Sizes()[0]), nil)
	}
}

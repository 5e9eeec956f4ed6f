package sheet_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest/sheettest"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
	"sectilis/core/production/sheet"
)

const inch = measure.Inch

// ground is ink over a whole face, past its edges.
func ground(face card.FaceID, w, h float64) card.Command {
	return card.PlaceItems{Face: face, Items: []card.Item{{
		Name: "Ground", Kind: card.Shape, Place: card.Place{X: w / 2, Y: h / 2}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#35658c"},
		Form: &card.Form{Outline: card.Rectangle, Width: w + 6, Height: h + 6, Corner: card.Square},
	}}}
}

func folded(t *testing.T, kind card.BaseKind, w, h float64, commands ...card.Command) card.Card {
	t.Helper()
	c, err := card.New("Half a sheet", card.Base{Kind: kind, Width: w, Height: h, Stock: "white-300"})
	require.NoError(t, err)
	c, err = card.Apply(c, commands...)
	require.NoError(t, err)
	return c
}

func TestABaseThatIsTheSheetIsTheSheet(t *testing.T) {
	for _, k := range []struct {
		name string
		kind card.BaseKind
		w, h float64
		size int
		said string
	}{
		{"A4 to A5", card.SideFold, 148, 210, 1, "whole A4 sheet: nothing is cut round it, and it is 1 mm larger"},
		{"exactly half", card.SideFold, 148.5, 210, 1, "whole A4 sheet: nothing is cut round it."},
		{"Letter to its half", card.SideFold, 5.5 * inch, 8.5 * inch, 0, "whole Letter sheet"},
		{"across", card.TopFold, 8.5 * inch, 5.5 * inch, 0, "whole Letter sheet"},
	} {
		t.Run(k.name, func(t *testing.T) {
			c := folded(t, k.kind, k.w, k.h, ground(card.Front, k.w, k.h))
			l := lay(t, c, k.size)
			require.Empty(t, l.Problems)
			require.Len(t, l.Sheets, 1)
			sh := l.Sheets[0]
			assert.True(t, sh.Whole)
			assert.Empty(t, sh.Marks, "marks would stay on the card")
			base := sh.Pieces[0]
			require.Len(t, base.Lines, 1, "the fold alone")
			assert.Equal(t, fold.Mountain, base.Lines[0].Role)
			mid := base.Lines[0].Path.Bounds().Centre()
			assert.InDelta(t, sh.Size.Width/2, mid.X, 1e-6, "folded at the sheet's middle")
			assert.InDelta(t, sh.Size.Height/2, mid.Y, 1e-6)
			require.NotEmpty(t, base.Inks)
			for _, ink := range base.Inks {
				region := ink.Region
				for _, clip := range ink.Clips {
					region = geom.Intersection(geom.NonZero, region, clip)
				}
				assert.True(t, geom.Rect{W: sh.Size.Width, H: sh.Size.Height}.Grow(-sh.Margin).Contains(region.Bounds(), 1e-6), "ink ends where the printer does")
			}
			require.Len(t, l.Notes, 1)
			assert.Contains(t, l.Notes[0].Why, k.said)
			assert.Contains(t, l.Notes[0].Why, "Its ink ends ¼ in (6.4 mm) from the edge")
		})
	}
	// On borderless paper ink runs to the edge.
	c := folded(t, card.SideFold, 5.5*inch, 8.5*inch, ground(card.Front, 5.5*inch, 8.5*inch))
	s, err := scene.Of(c)
	require.NoError(t, err)
	opt := sheettest.Usual(sheet.Sizes()[0])
	opt.Margin = 0
	l := sheet.Lay(c, s, opt, nil)
	require.Len(t, l.Notes, 1)
	assert.Contains(t, l.Notes[0].Why, "runs to the edge")
	ink := l.Sheets[0].Pieces[0].Inks[0]
	require.NotEmpty(t, ink.Clips)
	box := geom.Intersection(geom.NonZero, ink.Region, ink.Clips[0]).Bounds()
	paper := geom.Rect{W: 215.9, H: 279.4}
	assert.Greater(t, box.Intersect(paper).W, 215.8, "all over one half")
	assert.Greater(t, box.Intersect(paper).H, 139.6)

	// What is a little smaller than that is cut out of its sheet as ever; on larger paper, too.
	assert.False(t, lay(t, folded(t, card.SideFold, 5*inch, 8*inch), 0).Sheets[0].Whole)
	assert.False(t, lay(t, folded(t, card.SideFold, 148, 210), 2).Sheets[0].Whole)
	// So is a base with a shape of its own.
	assert.Empty(t, sheet.Offer(c, sheet.Single(c, s), card.UsualSheets(), opt), "nothing needs another size")
}

func TestATiedSetThatIsTooLargeIsLaidApart(t *testing.T) {
	c := folded(t, card.SideFold, 5*inch, 7*inch)
	var tied []card.Laid
	for i := range 3 {
		var err error
		c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{{
			Name: string(rune('A' + i)), Kind: card.Shape, Place: card.Place{X: 2.5 * inch, Y: 3 * inch}, Made: card.Made{As: card.Cut, Stock: "moss-216"},
			Form: &card.Form{Outline: card.Rectangle, Width: 4 * inch, Height: inch, Corner: card.Square},
		}}})
		require.NoError(t, err)
		tied = append(tied, card.Laid{Piece: c.Faces[0].Items[len(c.Faces[0].Items)-1].ID, Place: card.Place{X: float64(i) * 4.5 * inch}})
	}
	front := c.Face(card.Front)
	for i := range tied {
		tied[i].Piece = front.Items[i].ID
	}
	c.Ties = []card.Tie{{Pieces: tied}}
	l := lay(t, c, 0)
	assert.Empty(t, l.Problems, "what fits is laid")
	laid := 0
	for _, sh := range l.Sheets {
		for _, p := range sh.Pieces {
			if p.ID != card.BasePiece {
				laid++
				assert.Zero(t, p.Tie)
			}
		}
	}
	assert.Equal(t, 3, laid)
	require.Len(t, l.Notes, 1)
	assert.Equal(t, []string{tied[0].Piece, tied[1].Piece, tied[2].Piece}, l.Notes[0].Untie)
	assert.Contains(t, l.Notes[0].Why, "As a tied set, “A”, “B” and “C” is 13 × 1 in")
	assert.Contains(t, l.Notes[0].Why, "2 ½ in (63.5 mm) too large for Letter")

	// A set that has room is laid as one.
	c.Ties[0].Pieces = tied[:2]
	for i := range tied[:2] {
		c.Ties[0].Pieces[i].Place = card.Place{Y: float64(i) * 1.5 * inch}
	}
	l = lay(t, c, 0)
	assert.Empty(t, l.Notes)
	assert.False(t, math.IsNaN(l.Used))
}

func TestSlotsThatWaitAreTold(t *testing.T) {
	slot := func(name string, takes card.Takes) card.Item {
		w := card.Waits{Takes: takes, Made: card.Made{As: card.Printed}}
		if takes == card.TakesWords {
			w.Words, w.Fill = &card.Words{Text: "x", Font: "pacifico-400", Size: 9, Leading: 1.3, Align: card.AlignCentre}, card.Fill{Colour: "#1f2b38"}
		}
		return card.Item{Name: name, Kind: card.Slot, Place: card.Place{X: 40, Y: 40}, Made: card.Made{As: card.Printed}, Slot: &w,
			Form: &card.Form{Outline: card.Rectangle, Corner: card.Square, Width: 20, Height: 20}}
	}
	notes := func(items ...card.Item) (out []string) {
		c := folded(t, card.SideFold, 127, 178, card.PlaceItems{Face: card.Front, Items: items})
		s, err := scene.Of(c)
		require.NoError(t, err)
		for _, n := range sheet.Lay(c, s, sheettest.Usual(sheet.Sizes()[0]), nil).Notes {
			out = append(out, n.Why)
		}
		return out
	}
	assert.Equal(t, []string{"“Lake” on Front waits for a photo, and is left out until it has it."}, notes(slot("Lake", card.TakesPhoto)))
	assert.Equal(t, []string{"“A” on Front and “B” on Front wait for a photo, and are left out until they have it.", "“C” on Front waits for words, and is left out until it has them."},
		notes(slot("A", card.TakesPhoto), slot("B", card.TakesPhoto), slot("C", card.TakesWords)))
}

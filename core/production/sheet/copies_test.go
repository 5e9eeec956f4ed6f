package sheet_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest/sheettest"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
	"sectilis/core/production/sheet"
)

// forNames is a card for some names, with flags and words on them that say the name.
func forNames(t testing.TB, flagged, names int) card.Card {
	t.Helper()
	c := flags(t, flagged)
	list := card.SetNames{Columns: []string{"Name"}}
	for i := range names {
		list.Rows = append(list.Rows, []string{fmt.Sprintf("Name %d", i+1)})
	}
	words := card.Item{Name: "Words", Kind: card.Lettering, Place: card.Place{X: 50, Y: 50}, Made: card.Made{As: card.Cut, Stock: "honey-216"},
		Words: &card.Words{Text: "Name", Font: "alfa-slab-one-400", Size: 12, Leading: 1.2, Align: card.AlignCentre}}
	id := fmt.Sprintf("i%d", c.NextID)
	c, err := card.Apply(c, list, card.PlaceItems{Face: card.Front, Items: []card.Item{words}}, card.MakeField{ID: id, From: 0, To: 4, Column: "Name"}, card.LayNames{All: true})
	require.NoError(t, err)
	return c
}

// The cards for all names are laid together: each piece of each once, apart, in fewer sheets than one by
// one; what is cut for a name is what that name's card has.
func TestCardsForNamesAreLaidTogether(t *testing.T) {
	c := forNames(t, 4, 6)
	all := sheettest.Copies(t, c)
	opt := sheettest.Usual(sheet.Sizes()[0])
	l := sheet.LayCopies(c, all, opt, nil)
	require.Empty(t, l.Problems)
	seen := map[string]bool{}
	area := 0.0
	for _, sh := range l.Sheets {
		for i, p := range sh.Pieces {
			require.False(t, seen[p.ID], p.ID)
			seen[p.ID] = true
			assert.Equal(t, card.PieceFor(p.Item, p.Row), p.ID)
			for _, q := range sh.Pieces[:i] {
				require.False(t, p.Box.Overlaps(q.Box) && overlap(p, q), "%s and %s", p.Name, q.Name)
			}
			area += p.Area
		}
	}
	alone, want := 0, 0.0
	for _, one := range all {
		single := sheet.Lay(one.Card, one.Scene, opt, nil)
		alone += len(single.Sheets)
		own := l.Of(one.Row)
		mine := map[string]float64{}
		for _, sh := range own.Sheets {
			for _, p := range sh.Pieces {
				mine[p.ID] = p.Area
			}
		}
		for _, sh := range single.Sheets {
			for _, p := range sh.Pieces {
				want += p.Area
				assert.InDelta(t, p.Area, mine[p.ID], 1e-6, "%s of %s", p.Name, one.Name)
				assert.True(t, seen[card.PieceFor(p.ID, one.Row)], p.Name)
			}
		}
	}
	assert.InDelta(t, want, area, 1e-3)
	assert.Less(t, len(l.Sheets), alone)
	assert.Equal(t, "Name 2 · Base", pieceOf(t, l, card.PieceFor(card.BasePiece, "n2")).Name)
}

func pieceOf(t *testing.T, l sheet.Layout, id string) sheet.Piece {
	t.Helper()
	_, p := find(t, l, id)
	return p
}

func overlap(p, q sheet.Piece) bool {
	return geom.Intersection(geom.NonZero, cutOut(p), cutOut(q)).Area() > .01
}

// Several cards that are alike are laid together: each piece of each once, cut as that of the only one, ties
// and places by hand those of one of them; one more changes nothing of what is laid for the only one.
func TestSeveralCardsAreLaidTogether(t *testing.T) {
	c := labels(t, [2]float64{60, 30}, [2]float64{40, 40}, [2]float64{50, 20})
	id := ids(c)
	setup := card.UsualSheets()
	setup.Cards = 3
	c, err := card.Apply(c, sheet.SetSheets{Sheets: setup},
		card.LayPieces{Pieces: []card.Laid{{Piece: card.PieceFor(id[0], "k3"), Place: card.Place{X: 100, Y: 150, Turn: 90}}}},
		&card.TiePieces{Pieces: []card.Laid{{Piece: id[1], Place: card.Place{X: 40, Y: 40}}, {Piece: id[2], Place: card.Place{X: 90, Y: 40}}}})
	require.NoError(t, err)
	require.Equal(t, 3, c.CardsLaid())
	s, err := scene.Of(c)
	require.NoError(t, err)
	opt := sheettest.Usual(sheet.Sizes()[0])
	one, all := sheet.Lay(c, s, opt, nil), sheet.LayCopies(c, sheet.Repeated(c, s, c.CardsLaid()), opt, nil)
	require.Empty(t, all.Problems)
	assert.Equal(t, one, sheet.LayCopies(c, sheet.Repeated(c, s, 1), opt, nil))
	assert.Less(t, len(all.Sheets), 3*len(one.Sheets))
	want := map[string]float64{}
	for _, sh := range one.Sheets {
		for _, p := range sh.Pieces {
			want[p.ID] = p.Area
		}
	}
	for n := 1; n <= 3; n++ {
		row := card.NumberedRow(n)
		got := map[string]float64{}
		for _, sh := range all.Of(row).Sheets {
			for _, p := range sh.Pieces {
				got[p.ID] = p.Area
			}
		}
		assert.InDeltaMapValues(t, want, got, 1e-6, row)
		on, a := find(t, all, card.PieceFor(id[1], row))
		beside, b := find(t, all, card.PieceFor(id[2], row))
		assert.Equal(t, on, beside)
		assert.InDelta(t, 50, math.Hypot(a.Place.X-b.Place.X, a.Place.Y-b.Place.Y), 1e-6, "tied")
	}
	p := pieceOf(t, all, card.PieceFor(id[0], "k3"))
	assert.True(t, p.ByHand)
	assert.InDelta(t, 90, p.Place.Turn, 1e-6)
	assert.Regexp(t, "^Card 3 · ", p.Name)
	_, err = card.Apply(c, card.LayPieces{Pieces: []card.Laid{{Piece: card.PieceFor(id[0], "k4")}}})
	require.Error(t, err, "there is no fourth")
	setup.Cards = 2
	c, err = card.Apply(c, sheet.SetSheets{Sheets: setup})
	require.NoError(t, err)
	assert.Empty(t, c.Laid, "what was laid of the third is forgotten")
	assert.Len(t, c.Ties, 1)
}

// A set that is tied on the card is one on each name's; one whose pieces were tied across names is one set;
// what was laid by hand for one name lies there.
func TestTiesAndPlacesOfCardsForNames(t *testing.T) {
	c := forNames(t, 3, 3)
	id := ids(c)
	at := func(piece string, x float64) card.Laid {
		return card.Laid{Piece: piece, Place: card.Place{X: x, Y: 40}}
	}
	c, err := card.Apply(c, &card.TiePieces{Pieces: []card.Laid{at(id[0], 40), at(id[1], 90)}},
		&card.TiePieces{Pieces: []card.Laid{at(card.PieceFor(id[2], "n1"), 40), at(card.PieceFor(id[2], "n3"), 80)}},
		&card.LayPieces{Pieces: []card.Laid{{Piece: card.PieceFor(id[2], "n2"), Place: card.Place{X: 120, Y: 160, Turn: 30}}}})
	require.NoError(t, err)
	l := sheet.LayCopies(c, sheettest.Copies(t, c), sheettest.Usual(sheet.Sizes()[0]), nil)
	require.Empty(t, l.Problems)
	together := func(a, b string, apart float64) {
		on, p := find(t, l, a)
		too, q := find(t, l, b)
		assert.Equal(t, on.Number, too.Number)
		assert.Equal(t, p.Tie, q.Tie)
		assert.Positive(t, p.Tie)
		assert.InDelta(t, apart*apart, dist(p.Place, q.Place), 1e-3)
	}
	sets := map[int]bool{}
	for _, row := range []string{"n1", "n2", "n3"} {
		together(card.PieceFor(id[0], row), card.PieceFor(id[1], row), 50)
		sets[pieceOf(t, l, card.PieceFor(id[0], row)).Tie] = true
	}
	together(card.PieceFor(id[2], "n1"), card.PieceFor(id[2], "n3"), 40)
	sets[pieceOf(t, l, card.PieceFor(id[2], "n1")).Tie] = true
	assert.Len(t, sets, 4)
	p := pieceOf(t, l, card.PieceFor(id[2], "n2"))
	assert.True(t, p.ByHand)
	assert.InDelta(t, 120, p.Place.X, 1e-6)
	assert.InDelta(t, 30, p.Place.Turn, 1e-6)
}

// Cards that are each a whole sheet, folded, are a sheet each, and that is noted once.
func TestWholeSheetsForNames(t *testing.T) {
	c := forNames(t, 0, 3)
	c, err := card.Change(c, func(c *card.Card) error { c.Base.Width, c.Base.Height = 139.7, 215.9; return nil })
	require.NoError(t, err)
	l := sheet.LayCopies(c, sheettest.Copies(t, c), sheettest.Usual(sheet.Sizes()[0]), nil)
	whole := 0
	for _, sh := range l.Sheets {
		if sh.Whole {
			whole++
			assert.Len(t, sh.Pieces, 1)
		}
	}
	assert.Equal(t, 3, whole)
	assert.Len(t, l.Notes, 1)
	for i, sh := range l.Sheets {
		assert.Equal(t, i+1, sh.Number)
	}
}

func BenchmarkCardsForNames(b *testing.B) {
	for _, names := range []int{24, 100} {
		b.Run(fmt.Sprint(names), func(b *testing.B) {
			c := forNames(b, 6, names)
			all := sheettest.Copies(b, c)
			for b.Loop() {
				sheet.LayCopies(c, all, sheettest.Usual(sheet.Sizes()[0]), nil)
			}
		})
	}
}

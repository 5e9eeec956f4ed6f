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
	"sectilis/core/ground/geom"
	"sectilis/core/production/sheet"
)

// flags is a card with n banners of moss card, item1 to itemN.
func flags(t testing.TB, n int) card.Card {
	t.Helper()
	c := coretest.Empty(t)
	for k := range n {
		next, err := card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{{
			Name: fmt.Sprint("Flag ", k), Kind: card.Shape, Place: card.Place{X: 60, Y: 60},
			Made: card.Made{As: card.Cut, Stock: "moss-216"}, Form: &card.Form{Outline: "banner", Width: 40 + 3*float64(k), Height: 20 + float64(k)},
		}}})
		require.NoError(t, err)
		c = next
	}
	return c
}

func ids(c card.Card) (out []string) {
	for _, it := range c.Face(card.Front).Items {
		out = append(out, it.ID)
	}
	return out
}

func find(t *testing.T, l sheet.Layout, id string) (sheet.Sheet, sheet.Piece) {
	t.Helper()
	for _, sh := range l.Sheets {
		for _, p := range sh.Pieces {
			if p.ID == id {
				return sh, p
			}
		}
	}
	require.Fail(t, "piece is not laid", id)
	return sheet.Sheet{}, sheet.Piece{}
}

func TestWhatIsLaidByHandStaysAndTheRestFlowsRoundIt(t *testing.T) {
	r := rand.New(rand.NewPCG(81, 82))
	for range 12 {
		c := flags(t, 12)
		id := ids(c)[r.IntN(12)]
		place := card.Place{X: 60 + 80*r.Float64(), Y: 60 + 130*r.Float64(), Turn: 360*r.Float64() - 180}
		c, err := card.Apply(c, &card.LayPieces{Pieces: []card.Laid{{Piece: id, Sheet: 0, Place: place}}})
		require.NoError(t, err)
		l := lay(t, c, 0)
		sound(t, c, l, sheettest.Usual(sheet.Sizes()[0]))
		sh, p := find(t, l, id)
		assert.True(t, p.ByHand)
		assert.Empty(t, p.Wrong)
		assert.Zero(t, sh.Of)
		assert.InDelta(t, place.X, p.Place.X, 1e-5)
		assert.InDelta(t, place.Y, p.Place.Y, 1e-5)
		assert.InDelta(t, place.Turn, p.Place.Turn, 1e-5)

		c, err = card.Apply(c, &card.LoosenPieces{Pieces: []string{id}})
		require.NoError(t, err)
		assert.Empty(t, c.Laid)
		_, p = find(t, lay(t, c, 0), id)
		assert.False(t, p.ByHand)
	}
}

func TestWhatIsWrongWithAPlaceIsSaid(t *testing.T) {
	c := flags(t, 3)
	id := ids(c)
	at := func(x, y float64, pieces ...string) string {
		var laid []card.Laid
		for _, p := range pieces {
			laid = append(laid, card.Laid{Piece: p, Place: card.Place{X: x, Y: y}})
		}
		next, err := card.Apply(c, &card.LayPieces{Pieces: laid})
		require.NoError(t, err)
		_, p := find(t, lay(t, next, 0), pieces[0])
		return p.Wrong
	}
	assert.Empty(t, at(100, 100, id[0]))
	assert.Contains(t, at(100, 100, id[0], id[1]), "lies on “Flag 1”")
	assert.Contains(t, at(21, 100, id[0]), "runs over the margin")
	assert.Contains(t, at(300, 100, id[0]), "where Letter has no paper, and was laid anew")
}

func TestATiedSetKeepsItsArrangement(t *testing.T) {
	c := flags(t, 8)
	id := ids(c)
	set := []card.Laid{{Piece: id[1], Place: card.Place{X: 50, Y: 50}}, {Piece: id[4], Place: card.Place{X: 50, Y: 90, Turn: 90}}, {Piece: id[6], Place: card.Place{X: 100, Y: 60, Turn: -30}}}
	c, err := card.Apply(c, &card.TiePieces{Pieces: set})
	require.NoError(t, err)
	same := func(l sheet.Layout) {
		sound(t, c, l, sheet.Options{Size: sheet.Sizes()[0], Margin: 6.35, Between: 0})
		sh, first := find(t, l, id[1])
		for _, s := range set[1:] {
			on, p := find(t, l, s.Piece)
			assert.Equal(t, sh.Number, on.Number)
			assert.Equal(t, 1, p.Tie)
			was, is := set[0].Place, first.Place
			assert.InDelta(t, 0, turned(s.Place.Turn-was.Turn-(p.Place.Turn-is.Turn)), 1e-5)
			assert.InDelta(t, dist(s.Place, was), dist(p.Place, is), 1e-3)
		}
	}
	same(lay(t, c, 0))

	// With one of them goes the set.
	c, err = card.Apply(c, &card.LayPieces{Pieces: []card.Laid{{Piece: id[4], Place: card.Place{X: 120, Y: 150, Turn: 45}}}})
	require.NoError(t, err)
	l := lay(t, c, 0)
	same(l)
	_, p := find(t, l, id[4])
	assert.InDelta(t, 120, p.Place.X, 1e-5)
	assert.InDelta(t, 45, p.Place.Turn, 1e-5)

	// A piece that is removed leaves it; two make the least set.
	c, err = card.Apply(c, card.RemoveItems{IDs: []string{id[6]}})
	require.NoError(t, err)
	require.Len(t, c.Ties[0].Pieces, 2)
	_, err = card.Apply(c, &card.TiePieces{Pieces: set[:2]})
	assert.ErrorContains(t, err, "untie it first")
	_, err = card.Apply(c, &card.TiePieces{Pieces: []card.Laid{{Piece: id[0]}, {Piece: card.BasePiece}}})
	assert.ErrorContains(t, err, "different stocks")
	c, err = card.Apply(c, &card.UntiePieces{Pieces: []string{id[4]}})
	require.NoError(t, err)
	assert.Empty(t, c.Ties)
}

func dist(a, b card.Place) float64 { return (a.X-b.X)*(a.X-b.X) + (a.Y-b.Y)*(a.Y-b.Y) }

// turned is an angle brought to within half a turn.
func turned(deg float64) float64 {
	for deg > 180 {
		deg -= 360
	}
	for deg < -180 {
		deg += 360
	}
	return deg
}

func TestScrapsAreUsedFirst(t *testing.T) {
	c := flags(t, 10)
	s, err := scene.Of(c)
	require.NoError(t, err)
	opt := sheettest.Usual(sheet.Sizes()[0])
	plain := sheet.Lay(c, s, opt, nil)
	opt.Scraps = []sheet.Scrap{{Stock: "moss-216", Width: 127, Height: 76.2}, {Stock: "brick-216", Width: 200, Height: 200}, {Stock: "moss-216", Width: 60, Height: 40}}
	l := sheet.Lay(c, s, opt, nil)
	require.Empty(t, l.Problems)
	var used []float64
	for _, sh := range l.Sheets {
		if sh.Of >= 0 {
			continue
		}
		assert.Equal(t, "moss-216", sh.Stock.ID)
		used = append(used, sh.Size.Width)
		for _, p := range sh.Pieces {
			assert.True(t, geom.Rect{W: sh.Size.Width, H: sh.Size.Height}.Grow(-2).Contains(p.Box, 1e-6), p.Name)
		}
	}
	assert.Equal(t, []float64{60, 127}, used, "the smaller first")
	full := func(l sheet.Layout) (n int) {
		for _, sh := range l.Sheets {
			if sh.Of >= 0 && sh.Stock.ID == "moss-216" {
				n += len(sh.Pieces)
			}
		}
		return n
	}
	assert.Less(t, full(l), full(plain))
}

package sheet_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
	"sectilis/core/production/nest"
	"sectilis/core/production/sheet"
)

// labels is a card with plain rectangles of moss card, W × H mm each.
func labels(t *testing.T, sizes ...[2]float64) card.Card {
	t.Helper()
	c := coretest.Empty(t)
	for k, s := range sizes {
		next, err := card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{{
			Name: fmt.Sprint("Label ", k), Kind: card.Shape, Place: card.Place{X: 60, Y: 60},
			Made: card.Made{As: card.Cut, Stock: "moss-216"}, Form: &card.Form{Outline: card.Rectangle, Corner: card.Square, Width: s[0], Height: s[1]},
		}}})
		require.NoError(t, err)
		c = next
	}
	return c
}

// moss are the sheets of moss card when so many sizes of it are on hand.
func moss(t *testing.T, c card.Card, sizes ...string) (out []sheet.Sheet) {
	t.Helper()
	l := layWith(t, c, onHand(sheet.OnHand{Stock: "moss-216", Sizes: sizes}))
	assert.Empty(t, l.Problems)
	for _, sh := range l.Sheets {
		if sh.Stock.ID == "moss-216" {
			out = append(out, sh)
		} else {
			assert.Equal(t, "letter", sh.Size.ID, "what there is of other stocks is the size for all")
		}
	}
	return out
}

func onHand(h ...sheet.OnHand) func(*sheet.Options) { return func(o *sheet.Options) { o.OnHand = h } }

func names(sheets []sheet.Sheet) (out []string) {
	for _, sh := range sheets {
		out = append(out, sh.Size.ID)
	}
	return out
}

func TestTheSizesOnHandThatTakeLeastPaperAreUsed(t *testing.T) {
	small, large := [2]float64{60, 40}, [2]float64{180, 120}
	assert.Equal(t, []string{"photo4x6"}, names(moss(t, labels(t, small), "letter", "photo4x6", "a3")))
	assert.Equal(t, []string{"letter"}, names(moss(t, labels(t, large), "letter", "photo4x6", "a3")))
	// What is too large for the small size goes on a larger one, and the others beside it.
	assert.Equal(t, []string{"letter"}, names(moss(t, labels(t, large, small, small), "letter", "photo4x6")))
	// As many as have no room there go on the small size.
	both := moss(t, labels(t, [2]float64{200, 255}, small), "letter", "photo4x6")
	assert.Equal(t, []string{"letter", "photo4x6"}, names(both))
	assert.Equal(t, "Label 0", both[0].Pieces[0].Name)
	assert.Equal(t, []int{0, 1}, []int{both[0].Of, both[1].Of})
	assert.Equal(t, []int{2, 3}, []int{both[0].Number, both[1].Number})
}

func TestAPieceLaidByHandKeepsTheSizeOfItsSheet(t *testing.T) {
	c := labels(t, [2]float64{60, 40}, [2]float64{50, 40})
	id := ids(c)
	hand := card.Laid{Piece: id[0], Sheet: 0, Size: "letter", Place: card.Place{X: 150, Y: 200}}
	c, err := card.Apply(c, &card.LayPieces{Pieces: []card.Laid{hand}})
	require.NoError(t, err)
	sheets := moss(t, c, "letter", "photo4x6")
	assert.Equal(t, []string{"letter"}, names(sheets), "the other has room there too")
	assert.InDelta(t, 150, sheets[0].Pieces[0].Place.X, 1e-6)

	// On a second sheet, the first is of the size that takes least.
	hand.Sheet = 1
	c, err = card.Apply(c, &card.LayPieces{Pieces: []card.Laid{hand}})
	require.NoError(t, err)
	assert.Equal(t, []string{"photo4x6", "letter"}, names(moss(t, c, "letter", "photo4x6")))

	// Without that size, it is laid anew and that is said.
	sheets = moss(t, c, "photo4x6")
	assert.Equal(t, []string{"photo4x6"}, names(sheets))
	assert.Contains(t, sheets[0].Pieces[0].Wrong, "has no paper, and was laid anew")
}

func TestWhatIsTooLargeIsSaidOfTheLargestSizeOnHand(t *testing.T) {
	l := layWith(t, labels(t, [2]float64{140, 140}), onHand(sheet.OnHand{Stock: "moss-216", Sizes: []string{"photo5x7", "photo4x6"}}))
	require.Len(t, l.Problems, 1)
	assert.Contains(t, l.Problems[0].Why, "too large for 5 × 7 in photo")
	assert.Nil(t, offer(t, labels(t, [2]float64{140, 140}), onHand(sheet.OnHand{Stock: "moss-216", Sizes: []string{"photo5x7", "photo4x6"}}), "letter"), "another size for all would not help")
	assert.Equal(t, "moss-216", l.Problems[0].Stock.ID)
	require.NotNil(t, l.Problems[0].Offer, "another of this stock would")
	assert.Equal(t, "letter", l.Problems[0].Offer.ID)
	l = layWith(t, labels(t, [2]float64{140, 140}), onHand(sheet.OnHand{Stock: "moss-216", Sizes: []string{"photo5x7", "photo4x6", "letter"}}))
	assert.Empty(t, l.Problems)
}

// Borderless frees the ink, not the cut: pieces keep the margin, only a base that is the whole sheet is
// printed to its edge.
func TestBorderlessFreesTheInkAlone(t *testing.T) {
	l := layWith(t, labels(t, [2]float64{215.9, 279.4}), onHand(sheet.OnHand{Stock: "moss-216", Borderless: true}))
	require.Len(t, l.Problems, 1)
	for _, borderless := range []bool{false, true} {
		l = layWith(t, labels(t, [2]float64{90, 60}, [2]float64{90, 60}, [2]float64{150, 40}), func(o *sheet.Options) { o.Borderless = borderless })
		require.Empty(t, l.Problems)
		for _, sh := range l.Sheets {
			inner := geom.Rect{W: sh.Size.Width, H: sh.Size.Height}.Grow(-6.35)
			for _, p := range sh.Pieces {
				assert.True(t, inner.Contains(p.Box, 1e-6), "%s at %v, borderless %v", p.Name, p.Box, borderless)
			}
		}
	}
}

// upright says how far a piece is turned from upright, degrees from 0 to 180.
func upright(p sheet.Piece) float64 { return math.Abs(math.Remainder(p.Place.Turn, 360)) }

func TestPiecesRunAsTheirStockDoes(t *testing.T) {
	// On a side fold the main fold is upright, on a top fold it lies.
	for kind, stands := range map[card.BaseKind]bool{card.SideFold: true, card.TopFold: false} {
		c := labels(t, [2]float64{80, 45}, [2]float64{45, 80}, [2]float64{60, 60}, [2]float64{70, 30})
		c, err := card.Apply(c, fold.SetBase{Base: card.Base{Kind: kind, Width: 127, Height: 177.8, Stock: "cream-300"}})
		require.NoError(t, err)
		for _, landscape := range []bool{false, true} {
			for direction, long := range map[sheet.Direction]bool{sheet.GrainLong: true, sheet.GrainShort: false} {
				for _, turning := range []nest.Turning{nest.Quarters, nest.Freely} {
					l := layWith(t, c, func(o *sheet.Options) {
						o.OnHand = []sheet.OnHand{{Stock: "moss-216", Direction: direction}, {Stock: "cream-300", Direction: direction}}
						o.Turning = turning
						if o.Landscape = landscape; landscape {
							o.Size = o.Size.Landscape()
						}
					})
					grainUp := long != landscape
					for _, sh := range l.Sheets {
						for _, p := range sh.Pieces {
							sideways := math.Abs(upright(p)-90) < 1e-6
							if p.Wrong == "" {
								assert.Equal(t, stands != grainUp, sideways, "%s, fold upright %v, grain upright %v", p.Name, stands, grainUp)
								assert.True(t, sideways || upright(p) < 1e-6 || upright(p) > 180-1e-6, "not aslant")
								continue
							}
							assert.Equal(t, "base", p.ID, "only the base has no room along the grain")
							assert.Contains(t, p.Wrong, "across the grain")
						}
					}
				}
			}
		}
	}
}

func TestAPatternStaysUpright(t *testing.T) {
	way := onHand(sheet.OnHand{Stock: "moss-216", Direction: sheet.OneWayUp})
	c := labels(t, [2]float64{80, 45}, [2]float64{45, 80}, [2]float64{60, 60})
	l := layWith(t, c, way)
	for _, p := range l.Sheets[1].Pieces {
		assert.Zero(t, p.Place.Turn, p.Name)
	}
	// What would have to lie on its side has no room.
	l = layWith(t, labels(t, [2]float64{230, 100}), way)
	require.Len(t, l.Problems, 1)
	assert.Contains(t, l.Problems[0].Why, "and, upright as the pattern of its paper runs, 1 1/16 in (26.8 mm) too large for Letter")

	// What is turned on the card is turned on the sheet, so that the pattern stands on the
	// card as on the sheet: to a quarter turn, since aslant it would take much more paper.
	for _, turn := range []float64{0, 10, 80, 90, 180, -90, 200} {
		c := labels(t, [2]float64{80, 45}, [2]float64{30, 30})
		c, err := card.Apply(c, card.TurnItems{IDs: ids(c)[:1], Degrees: turn})
		require.NoError(t, err)
		_, p := find(t, layWith(t, c, way), ids(c)[0])
		up := p.At.Apply(geom.Pt(0, -1)).Sub(p.At.Apply(geom.Point{}))
		assert.Greater(t, -up.Y, math.Cos(math.Pi/4), "turned by %g", turn)
		assert.Empty(t, p.Wrong)

		// Laid by hand the same way there is nothing to say.
		c, err = card.Apply(c, &card.LayPieces{Pieces: []card.Laid{{Piece: p.ID, Place: card.Place{X: 100, Y: 100, Turn: p.Place.Turn}}}})
		require.NoError(t, err)
		_, p = find(t, layWith(t, c, way), p.ID)
		assert.True(t, p.ByHand)
		assert.Empty(t, p.Wrong)
	}
}

func TestHandsMayTurnAPieceAgainstItsStockAndAreTold(t *testing.T) {
	c := labels(t, [2]float64{80, 45})
	for direction, want := range map[sheet.Direction]string{sheet.GrainLong: "lies across the grain", sheet.OneWayUp: "does not stand upright", sheet.AnyWay: ""} {
		for _, turn := range []float64{0, 90, 20} {
			c, err := card.Apply(c, &card.LayPieces{Pieces: []card.Laid{{Piece: ids(c)[0], Place: card.Place{X: 100, Y: 100, Turn: turn}}}})
			require.NoError(t, err)
			_, p := find(t, layWith(t, c, onHand(sheet.OnHand{Stock: "moss-216", Direction: direction})), ids(c)[0])
			if want == "" || turn == 0 || turn == 20 && direction == sheet.GrainLong {
				assert.Empty(t, p.Wrong)
			} else {
				assert.Contains(t, p.Wrong, want)
			}
		}
	}
}

func TestScrapsTakeWhatRunsAlongTheirGrain(t *testing.T) {
	c := labels(t, [2]float64{90, 30}, [2]float64{30, 80})
	l := layWith(t, c, func(o *sheet.Options) {
		o.OnHand = []sheet.OnHand{{Stock: "moss-216", Direction: sheet.GrainLong}}
		o.Scraps = []sheet.Scrap{{Stock: "moss-216", Width: 50, Height: 100}}
	})
	require.Len(t, l.Sheets, 3)
	assert.Equal(t, -1, l.Sheets[1].Of)
	require.Len(t, l.Sheets[1].Pieces, 1)
	assert.Equal(t, "Label 1", l.Sheets[1].Pieces[0].Name, "the other would lie across")
}

func TestWhatIsNoPaperIsRefused(t *testing.T) {
	assert.NoError(t, sheet.OnHand{Stock: "moss-216", Sizes: []string{"a4", "letter"}, Direction: sheet.GrainShort}.Check())
	for why, h := range map[string]sheet.OnHand{
		"no stock": {Stock: "gold"},
		"no size":  {Stock: "moss-216", Sizes: []string{"a9"}},
		"once":     {Stock: "moss-216", Sizes: []string{"a4", "a4"}},
		"any way":  {Stock: "moss-216", Direction: "diagonal"},
	} {
		assert.ErrorContains(t, h.Check(), why)
	}
}

package check_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/check"
	"sectilis/core/coretest"
	"sectilis/core/coretest/sheettest"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/production/sheet"
)

// onSheets is what the checks find that read the sheets of a card.
func onSheets(t *testing.T, c card.Card, opt sheet.Options) []check.Finding {
	t.Helper()
	s, err := scene.Of(c)
	require.NoError(t, err)
	l := sheet.Lay(c, s, opt, nil)
	return check.Run(check.TheSheets, check.Input{Card: c, Scene: &s, Layout: &l})
}

func TestAPieceWithoutRoomOnThePaperIsFoundAndMended(t *testing.T) {
	c, err := fold.New("Trial", card.Base{Kind: card.SideFold, Width: 127, Height: 177.8, Stock: "cream-300"})
	require.NoError(t, err)
	c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{square("Bar", 60, 60, 140), square("Dot", 60, 60, 20)}})
	require.NoError(t, err)
	opt := sheettest.Usual(sheet.Sizes()[0])
	assert.Equal(t, []check.Finding{}, onSheets(t, c, opt))

	opt.OnHand = []sheet.OnHand{{Stock: "moss-216", Sizes: []string{"photo5x7"}}}
	found := onSheets(t, c, opt)
	require.Len(t, found, 1)
	f := found[0]
	assert.Equal(t, check.ID("noRoom"), f.Check)
	assert.Equal(t, check.Stop, f.Weight)
	assert.Equal(t, card.Front, f.Face)
	assert.Equal(t, "i1", f.Item)
	assert.Contains(t, f.Why, "“Bar” is")
	assert.Contains(t, f.Why, "too large for 5 × 7 in photo")
	require.Len(t, f.Mends, 1)
	assert.Empty(t, f.Mends[0].Do, "the card is not changed")
	require.Equal(t, &check.SizeOf{Stock: "moss-216", Size: "letter"}, f.Mends[0].Paper)
	opt.OnHand[0].Sizes = append(opt.OnHand[0].Sizes, f.Mends[0].Paper.Size)
	assert.Empty(t, onSheets(t, c, opt))

	// The base is a piece too, of no face; where its stock has no sizes of its own, another
	// size is offered for all, and not by the finding.
	c.Base.Width, c.Base.Height = 200, 250
	found = onSheets(t, c, opt)
	require.Len(t, found, 1)
	assert.Empty(t, found[0].Face)
	assert.Empty(t, found[0].Item)
	assert.Empty(t, found[0].Mends)
}

func TestATiedSetWithoutRoomIsFoundAndUntied(t *testing.T) {
	c, err := fold.New("Trial", card.Base{Kind: card.SideFold, Width: 127, Height: 177.8, Stock: "cream-300"})
	require.NoError(t, err)
	c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{square("A", 60, 60, 100), square("B", 60, 60, 100), square("C", 60, 60, 100)}})
	require.NoError(t, err)
	var tied []card.Laid
	for i, id := range []string{"i1", "i2", "i3"} {
		tied = append(tied, card.Laid{Piece: id, Place: card.Place{X: float64(i) * 110}})
	}
	c, err = card.Apply(c, card.TiePieces{Pieces: tied})
	require.NoError(t, err)
	opt := sheettest.Usual(sheet.Sizes()[0])
	found := onSheets(t, c, opt)
	require.Len(t, found, 1)
	assert.Equal(t, check.ID("laidOtherwise"), found[0].Check)
	assert.Equal(t, check.Caution, found[0].Weight)
	assert.Equal(t, "i1", found[0].Item)
	assert.Contains(t, found[0].Why, "“A”, “B” and “C”")
	assert.Empty(t, onSheets(t, mended(t, c, found[0]), opt))
}

// What a base of a whole sheet is told of needs no mend, and is not weighed as a fault.
func TestHowAWholeSheetLiesIsANote(t *testing.T) {
	c, err := fold.New("Trial", card.Base{Kind: card.SideFold, Width: 148.5, Height: 210, Stock: "cream-300"})
	require.NoError(t, err)
	opt := sheettest.Usual(sheet.Sizes()[1])
	found := onSheets(t, c, opt)
	require.Len(t, found, 1)
	assert.Equal(t, check.Note, found[0].Weight)
	assert.Empty(t, found[0].Mends)
	assert.Contains(t, found[0].Why, "The base is a whole A4 sheet")
}

// A printed sheet that a machine cuts without marks is a stop, and each of its mends ends that.
func TestAPrintedSheetWithoutMarksIsAStop(t *testing.T) {
	c, err := card.Apply(coretest.Card(t), card.SetFill{IDs: []string{"i4"}, Fill: card.Fill{Colour: "#a8432a"}})
	require.NoError(t, err)
	look := func(c card.Card) (stops []check.Finding) {
		s, err := scene.Of(c)
		require.NoError(t, err)
		opt, err := sheet.OptionsOf(c.SheetsOf())
		require.NoError(t, err)
		l := sheet.Lay(c, s, opt, nil)
		for _, f := range check.Run(check.TheSheets, check.Input{Card: c, Scene: &s, Layout: &l}) {
			if f.Check == "unregistered" {
				stops = append(stops, f)
			}
		}
		return stops
	}
	assert.Empty(t, look(c))
	bare := card.UsualSheets()
	bare.Marks = card.NoMarks
	c, err = card.Apply(c, sheet.SetSheets{Sheets: bare})
	require.NoError(t, err)
	found := look(c)
	require.NotEmpty(t, found)
	assert.Equal(t, check.Stop, found[0].Weight)
	for _, m := range found[0].Mends {
		mended, err := card.Apply(c, m.Do[0].Command)
		require.NoError(t, err)
		assert.Empty(t, look(mended), m.Says)
	}
}

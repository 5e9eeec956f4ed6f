package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/production/sheet"
	"sectilis/internal/browser"
)

// How one odd card is laid is no preference: new cards begin as a person has said, and pieces of that card that
// lie without marks are not named in them.
func TestNewCardsBeginAsAPersonHasSaid(t *testing.T) {
	h := lay(t, square("A", 1.5, 2))
	odd := card.UsualSheets()
	odd.Size, odd.Turning, odd.Cards, odd.Unmarked = "a3", card.TurnFreely, 3, []string{"i1"}
	_, err := h.app.App.Change(t.Context(), h.id, 1, []card.Command{sheet.SetSheets{Sheets: odd}})
	require.NoError(t, err)
	begins := func() card.SheetSetup {
		was, err := h.app.App.Cards(t.Context(), "")
		require.NoError(t, err)
		h.must(h.Go("/"))
		h.click("new-card")
		h.there("to-panels")
		all, err := h.app.App.Cards(t.Context(), "")
		require.NoError(t, err)
		for _, c := range all {
			known := false
			for _, o := range was {
				known = known || o.ID == c.ID
			}
			if !known {
				setup, err := h.app.App.SheetsOf(t.Context(), c.ID)
				require.NoError(t, err)
				return setup
			}
		}
		t.Fatal("no card was made")
		return card.SheetSetup{}
	}
	// The person has it otherwise on this card, by hand.
	h.must(h.Go("/cards/" + h.id + "/sheets"))
	h.segment("lie", "Landscape")
	h.wait(`document.querySelector('[data-testid=sheets-mine]')?.disabled === false`)
	assert.Equal(t, card.UsualSheets(), begins())

	h.must(h.Go("/cards/" + h.id + "/sheets"))
	h.must(h.Click(browser.ID("sheets-mine")))
	h.says("sheets-mine", "New cards begin so")
	want := odd
	want.Lie, want.Cards, want.Unmarked = card.Landscape, 0, nil
	assert.Equal(t, want, begins())
}

// An opening in a brick rectangle that is divided waits on a stock that shows photos; that is told, and one undo
// takes it back.
func TestADividedOpeningShowsItsPhotos(t *testing.T) {
	h := lay(t, card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Plate", Kind: card.Shape, Place: card.Place{X: 2.5 * in, Y: 3 * in},
		Made: card.Made{As: card.Cut, Stock: "brick-216"}, Form: &card.Form{Outline: card.Rectangle, Width: 3 * in, Height: 3 * in, Corner: card.Square}}}})
	h.point(2.5, 3)
	h.click("fold-opening-panel")
	h.fill("divide-rows", "2")
	h.click("divide-apply")
	for _, it := range h.front(2).Items {
		require.NotNil(t, it.Slot)
		assert.Equal(t, "satin-240", it.Slot.Made.Stock)
	}
	h.wait(`document.body.textContent.includes('is cut from Satin photo 240 g now')`)
	h.click("undo")
	assert.Equal(t, "brick-216", h.front(3).Items[0].Made.Stock)
}

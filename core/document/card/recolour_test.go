package card_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
)

func TestOnePaperForAnotherKeepsHowItLies(t *testing.T) {
	item := func(paper string, scale float64) card.Item {
		return card.Item{Name: paper, Kind: card.Shape, Place: card.Place{X: 40, Y: 40}, Made: card.Made{As: card.Printed},
			Fill: card.Fill{Paper: paper, Scale: scale, Turn: 30, ShiftX: 2}, Form: &card.Form{Outline: card.Rectangle, Width: 20, Height: 20, Corner: card.Square}}
	}
	c := do(t, coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{item("comb", 2), item("leaf-drift", 1)}}, card.PlaceItems{Face: card.Back, Items: []card.Item{item("comb", .5)}})
	got := do(t, c, card.Repaper{From: "comb", To: "moss-gingham"})
	fills := []card.Fill{got.Face(card.Front).Items[0].Fill, got.Face(card.Front).Items[1].Fill, got.Face(card.Back).Items[0].Fill}
	assert.Equal(t, []string{"moss-gingham", "leaf-drift", "moss-gingham"}, []string{fills[0].Paper, fills[1].Paper, fills[2].Paper})
	assert.Equal(t, []float64{2, 1, .5}, []float64{fills[0].Scale, fills[1].Scale, fills[2].Scale})
	assert.InDelta(t, 30, fills[0].Turn, 1e-9)
	one := do(t, c, card.Repaper{From: "comb", To: "moss-gingham", IDs: []string{"i1"}})
	assert.Equal(t, "comb", one.Face(card.Back).Items[0].Fill.Paper)
	refused(t, c, card.Repaper{From: "oat-stripe", To: "comb"}, "from", "Nothing has that paper")
	refused(t, c, card.Repaper{From: "comb"}, "from", "the one to put in its place")
}

func TestAGuideLiesOnTheFaceAndOnNoPiece(t *testing.T) {
	piece := card.Item{Name: "A", Kind: card.Shape, Place: card.Place{X: 40, Y: 40}, Made: card.Made{As: card.Cut, Stock: "moss-216"},
		Form: &card.Form{Outline: card.Rectangle, Width: 40, Height: 40, Corner: card.Square}}
	guide := card.Item{Name: "Guide", Kind: card.Drawing, Place: card.Place{X: 40, Y: 40}, Made: card.Made{As: card.Lined},
		Lines: &card.Lines{Role: card.RoleGuide, Path: card.NewDrawn(drawn(t, "M-20 0H20")), Width: 40, Height: 0}}
	c := do(t, coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{piece}}, card.PlaceItems{Face: card.Front, Items: []card.Item{guide}})
	for _, it := range c.Face(card.Front).Items {
		if it.Name == "Guide" {
			assert.Empty(t, it.On)
			return
		}
	}
	t.Fatal("no guide")
}

func TestWhatIsPlacedOnATurnedPieceTurnsWithIt(t *testing.T) {
	strip := card.Item{Name: "Strip", Kind: card.Shape, Place: card.Place{X: 60, Y: 60, Turn: -20}, Made: card.Made{As: card.Cut, Stock: "moss-216"},
		Form: &card.Form{Outline: card.Rectangle, Width: 90, Height: 20, Corner: card.Square}}
	tag := func(x float64) card.Item {
		return card.Item{Name: "Tag", Kind: card.Shape, Place: card.Place{X: x, Y: 60, Turn: 5}, Made: card.Made{As: card.Cut, Stock: "moss-216"},
			Form: &card.Form{Outline: card.Rectangle, Width: 10, Height: 8, Corner: card.Square}}
	}
	c := do(t, coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{strip}}, card.AddMat{IDs: []string{"i1"}, Width: 6, Corner: card.Square, Stock: "brick-216"})
	turn := func(c card.Card, k card.PlaceItems) float64 {
		c = do(t, c, k)
		items := c.Face(card.Front).Items
		return items[len(items)-1].Place.Turn
	}
	assert.InDelta(t, -15, turn(c, card.PlaceItems{Face: card.Front, Items: []card.Item{tag(60)}, Along: true}), 1e-9)
	assert.InDelta(t, 5, turn(c, card.PlaceItems{Face: card.Front, Items: []card.Item{tag(60)}}), 1e-9, "with Shift it stays level")
	assert.InDelta(t, 5, turn(c, card.PlaceItems{Face: card.Front, Items: []card.Item{tag(8)}, Along: true}), 1e-9, "beside it nothing turns")
}

package sheet_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest/sheettest"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/production/nest"
	"sectilis/core/production/sheet"
)

// inked is a new side fold of a size with ink over the edges of its outside.
func inked(t *testing.T, w, h float64) card.Card {
	t.Helper()
	c, err := fold.New("New", card.Base{Kind: card.SideFold, Width: w, Height: h, Stock: "cream-216"})
	require.NoError(t, err)
	for _, face := range []card.FaceID{card.Front, card.Back} {
		c, err = card.Apply(c, card.PlaceItems{Face: face, Items: []card.Item{{
			Name: "Ground", Kind: card.Shape, Place: card.Place{X: w / 2, Y: h / 2}, Made: card.Made{As: card.Printed},
			Fill: card.Fill{Colour: "#a8432a"}, Form: &card.Form{Outline: card.Rectangle, Width: w + 12, Height: h + 12, Corner: card.Square},
		}}})
		require.NoError(t, err)
	}
	return c
}

func TestANewFiveBySevenIsLaidOnLetter(t *testing.T) {
	c := inked(t, 127, 177.8)
	l := lay(t, c, 0)
	require.Empty(t, l.Problems)
	require.Len(t, l.Sheets, 1)
	sound(t, c, l, sheettest.Usual(sheet.Sizes()[0]))
}

// What is offered is by what truly all pieces have room, and it changes no more than that
// takes.
func TestWhatIsOfferedFits(t *testing.T) {
	for _, k := range []struct {
		name    string
		w, h    float64
		turning card.Turning
		want    func(s *card.SheetSetup)
	}{
		{"the sheet turned", 127, 177.8, card.TurnNone, func(s *card.SheetSetup) { s.Lie = card.Landscape }},
		{"a larger size before no marks", 128, 190, card.TurnQuarters, func(s *card.SheetSetup) { s.Size = "a4" }},
		{"another size", 148, 210, card.TurnQuarters, func(s *card.SheetSetup) { s.Size = "a4" }},
	} {
		c := inked(t, k.w, k.h)
		s, err := scene.Of(c)
		require.NoError(t, err)
		setup := card.UsualSheets()
		setup.Turning = k.turning
		opt, err := sheet.OptionsOf(setup)
		require.NoError(t, err)
		require.NotEmpty(t, sheet.Lay(c, s, opt, nil).Problems, k.name)
		got := sheet.Offer(c, sheet.Single(c, s), setup, opt)
		want := setup
		k.want(&want)
		require.NotNil(t, got, k.name)
		assert.Equal(t, want, *got, k.name)
		opt, err = sheet.OptionsOf(*got)
		require.NoError(t, err)
		assert.Empty(t, sheet.Lay(c, s, opt, nil).Problems, k.name)
	}
	assert.Nil(t, offer(t, inked(t, 220, 400), func(*sheet.Options) {}, "letter"), "no size holds it")
}

// Strips that are longer than a side lie aslant, side by side on one sheet.
func TestLongStripsLieAslant(t *testing.T) {
	c := labels(t, [2]float64{290, 12}, [2]float64{290, 12}, [2]float64{290, 12}, [2]float64{290, 12})
	l := layWith(t, c, func(o *sheet.Options) { o.Turning = nest.Freely })
	require.Empty(t, l.Problems)
	assert.Len(t, l.Sheets, 2, "the base, and all four strips")
	sound(t, c, l, sheettest.Usual(sheet.Sizes()[0]))
	l = layWith(t, c, func(o *sheet.Options) { o.Turning = nest.Quarters })
	require.Len(t, l.Problems, 4, "by quarters is by quarters")
	assert.Contains(t, l.Problems[0].Why, "only aslant")
	upright := layWith(t, c, func(o *sheet.Options) { o.Turning = nest.Upright })
	assert.Len(t, upright.Problems, 5, "not where they, and the base, may not be turned")
}

func TestSetupsOfOneCardAreItsOwn(t *testing.T) {
	c := inked(t, 100, 150)
	assert.Equal(t, card.UsualSheets(), c.SheetsOf())
	setup := card.UsualSheets()
	setup.Size, setup.Lie, setup.Turning, setup.Marks, setup.Borderless = "a4", card.Landscape, card.TurnFreely, card.MarksForHand, true
	next, err := card.Apply(c, sheet.SetSheets{Sheets: setup})
	require.NoError(t, err)
	assert.Equal(t, setup, next.SheetsOf())
	opt, err := sheet.OptionsOf(setup)
	require.NoError(t, err)
	assert.Equal(t, [5]any{297.0, 6.35, true, nest.Freely, sheet.ForHand}, [5]any{opt.Size.Width, opt.Margin, opt.Borderless, opt.Turning, opt.Marking})
	for _, bad := range []func(s *card.SheetSetup){
		func(s *card.SheetSetup) { s.Size = "papyrus" }, func(s *card.SheetSetup) { s.Lie = "" }, func(s *card.SheetSetup) { s.Turning = "up" },
		func(s *card.SheetSetup) { s.Marks = "all" }, func(s *card.SheetSetup) { s.Margin = -1 }, func(s *card.SheetSetup) { s.Between = 1 },
		func(s *card.SheetSetup) { s.Cards = -1 }, func(s *card.SheetSetup) { s.Cards = card.MaxCards + 1 },
	} {
		s := setup
		bad(&s)
		_, err := card.Apply(c, sheet.SetSheets{Sheets: s})
		assert.Error(t, err)
	}
}

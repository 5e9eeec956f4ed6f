package card_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/ground/edging"
	"sectilis/core/ground/geom"
)

// Everything that a card is made with is listed once, wherever it is named.
func TestUsesListWhatACardIsMadeWith(t *testing.T) {
	c, err := card.New("Uses", card.Base{Kind: card.SideFold, Width: 127, Height: 178, Stock: "cream-300"})
	require.NoError(t, err)
	assert.Equal(t, card.Uses{Stocks: []string{"cream-300"}}, c.Uses())
	picture := strings.Repeat("a", 64)
	c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{
		{Name: "Photo", Kind: card.Photo, Place: card.Place{X: 50, Y: 50}, Made: card.Made{As: card.Cut, Stock: "satin-240"},
			Photo: &card.Print{Picture: picture, PixelWidth: 100, PixelHeight: 100, Width: 40, Height: 40, Opening: &card.Form{Outline: "heart", Width: 40, Height: 40}}},
		{Name: "Label", Kind: card.Shape, Place: card.Place{X: 50, Y: 100}, Made: card.Made{As: card.Cut, Stock: "moss-216"}, Fill: card.Fill{Paper: "leaf-drift"}, Art: "tape",
			Form: &card.Form{Outline: "banner", Width: 60, Height: 20}, Edging: &edging.Edging{Motif: "lace", Depth: 3}},
		{Name: "Words", Kind: card.Lettering, Place: card.Place{X: 50, Y: 150}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#41505f"},
			Words: &card.Words{Text: "Two faces", Font: "pacifico-400", Size: 6, Leading: 1, Align: card.AlignLeft,
				Runs: []card.Run{{From: 0, To: 3, Style: card.Style{Font: "nunito-400"}}}}},
		{Name: "Slot", Kind: card.Slot, Place: card.Place{X: 20, Y: 20}, Made: card.Made{As: card.Printed}, Form: &card.Form{Outline: card.Rectangle, Corner: card.Square, Width: 20, Height: 20},
			Slot: &card.Waits{Takes: card.TakesPhoto, Made: card.Made{As: card.Printed}, Fill: card.Fill{Paper: "comb"}}},
	}}, card.SetInsert{Insert: &card.Insert{Stock: "text-120", Less: 3}})
	require.NoError(t, err)
	u := c.Uses()
	assert.Equal(t, []string{picture}, u.Pictures)
	assert.ElementsMatch(t, []string{"leaf-drift", "comb"}, u.Papers)
	assert.ElementsMatch(t, []string{"heart", "banner", "rectangle"}, u.Shapes)
	assert.Equal(t, []string{"pacifico-400", "nunito-400"}, u.Fonts)
	assert.Equal(t, []string{"lace"}, u.Motifs)
	assert.Equal(t, []string{"tape"}, u.Art)
	assert.ElementsMatch(t, []string{"cream-300", "text-120", "satin-240", "moss-216"}, u.Stocks)
	again, err := card.Apply(c, card.DuplicateItems{IDs: []string{"i2"}})
	require.NoError(t, err)
	assert.Equal(t, u, again.Uses(), "each once")
	_, it := again.Find("i5")
	require.NotNil(t, it)
	assert.Equal(t, "tape", it.Art, "a copy was laid from the same")
}

// A base that was drawn is kept to the nanometre, with its leaves and lines.
func TestADrawnBaseIsReadBackAsItWasKept(t *testing.T) {
	b := card.Base{Kind: card.FromLines, Width: 100, Height: 150, Stock: "cream-300", Drawn: &card.DrawnBase{Name: "Net", Width: 100, Height: 150,
		Outline: card.NewDrawn(drawn(t, "M0 0H200.1234567V150H0Z")),
		Lines:   []card.DrawnLine{{Role: card.RoleMountain, Path: card.NewDrawn(drawn(t, "M100 0V150"))}, {Role: card.RoleCut, Slit: true, Path: card.NewDrawn(drawn(t, "M20 20C30 10 40 10 50 20"))}},
		Leaves:  []card.DrawnLeaf{{Box: geom.Rect{X: 100, W: 100, H: 150}, Outside: "Front", Inside: "Inside", InsideTurn: 90}}}}
	c, err := card.New("Drawn", b)
	require.NoError(t, err)
	raw, err := json.Marshal(c)
	require.NoError(t, err)
	back, err := card.Parse(raw)
	require.NoError(t, err)
	assert.Equal(t, c, back)
	assert.True(t, back.Base.Drawn.Lines[0].Path.Path().Straight())
	assert.False(t, back.Base.Drawn.Lines[1].Path.Path().Straight())
}

func TestPostGoesByAllItsMeasures(t *testing.T) {
	classes := []card.Post{{Name: "Letter", Width: 240, Height: 165, Thick: 5, Weight: 50, Oblong: true}, {Name: "Large", Width: 350, Height: 250, Thick: 25, Weight: 500}}
	for _, c := range []struct {
		sent card.Post
		name string
	}{
		{card.Post{Width: 184, Height: 133, Thick: 3, Weight: 31}, "Letter"},
		{card.Post{Width: 240, Height: 165, Thick: 5, Weight: 50}, "Letter"},
		{card.Post{Width: 241, Height: 133, Thick: 3, Weight: 31}, "Large"},
		{card.Post{Width: 184, Height: 133, Thick: 5.1, Weight: 31}, "Large"},
		{card.Post{Width: 184, Height: 133, Thick: 3, Weight: 51}, "Large"},
		{card.Post{Width: 150, Height: 140, Thick: 3, Weight: 31}, "Large"},
		{card.Post{Width: 400, Height: 140, Thick: 3, Weight: 31}, ""},
		{card.Post{Width: 184, Height: 133, Thick: 26, Weight: 31}, ""},
	} {
		p := card.PostFor(classes, c.sent)
		if c.name == "" {
			assert.Nil(t, p, "%+v", c.sent)
			continue
		}
		require.NotNil(t, p, "%+v", c.sent)
		assert.Equal(t, c.name, p.Name, "%+v", c.sent)
	}
	require.NoError(t, card.CheckPosts(card.UsualPosts()))
}

// What is changed of a guide is checked like every part of a card.
func TestChangesOfStepsAreChecked(t *testing.T) {
	c, err := card.New("Steps", card.Base{Kind: card.SideFold, Width: 127, Height: 178, Stock: "cream-300"})
	require.NoError(t, err)
	for why, s := range map[string]card.StepChange{
		"no step":               {ID: "Not a step", Out: true},
		"no step “../x”":        {ID: "cut", After: "../x"},
		"after itself":          {ID: "cut", After: "cut"},
		"Say what is done":      {Own: true, Title: "  "},
		"at most 120 letters":   {ID: "cut", Title: strings.Repeat("x", 121)},
		"on one line":           {ID: "cut", Title: "a\nb"},
		"at most 1000 letters":  {ID: "cut", Does: strings.Repeat("x", 1001)},
		"cannot come after its": {ID: "cut", Into: "cut"},
	} {
		_, err := card.Apply(c, card.ChangeStep{Step: s})
		assert.ErrorContains(t, err, why)
	}
	c, err = card.Apply(c, card.ChangeStep{Step: card.StepChange{ID: "cut", Does: "With care.\nThen again."}}, card.ChangeStep{Step: card.StepChange{Own: true, Title: "Rest"}})
	require.NoError(t, err)
	require.Len(t, c.Steps, 2)
	assert.Equal(t, "own-1", c.Steps[1].ID)
	assert.Equal(t, 2, c.NextID, "numbers are not used again")
	c, err = card.Apply(c, card.ChangeStep{Step: card.StepChange{ID: "cut", Title: "Cut it"}})
	require.NoError(t, err)
	assert.Equal(t, card.StepChange{ID: "cut", Title: "Cut it"}, c.Steps[0], "in place of what it was")
}

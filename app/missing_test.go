package app_test

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/check"
	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
)

// A card whose picture, paper and typeface are gone opens, tells of each, can be changed, and is mended one
// after the other.
func TestWhatIsGoneIsToldAndMended(t *testing.T) {
	f := start(t)
	c, err := fold.New("Lost", card.Base{Kind: card.SideFold, Width: 127, Height: 177.8, Stock: "cream-300"})
	require.NoError(t, err)
	gone := "own-" + strings.Repeat("a", 64)
	words := func(name, font string) card.Item {
		return card.Item{Name: name, Kind: card.Lettering, Place: card.Place{X: 60, Y: 60}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#35658c"},
			Words: &card.Words{Text: "Plum", Font: font, Size: 10, Leading: 1.2, Align: card.AlignCentre}}
	}
	some := words("Some", "courier-prime-400")
	some.Words.Runs = []card.Run{{From: 1, To: 2, Style: card.Style{Font: gone}}}
	c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{
		{Name: "Ground", Kind: card.Paper, Place: card.Place{X: 60, Y: 100}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Paper: gone}, Form: &card.Form{Outline: card.Rectangle, Width: 40, Height: 30, Corner: card.Square}},
		{Name: "Picture", Kind: card.Photo, Place: card.Place{X: 60, Y: 140}, Made: card.Made{As: card.Printed}, Photo: &card.Print{Picture: strings.Repeat("c", 64), PixelWidth: 900, PixelHeight: 900, Width: 30, Height: 30}},
		words("All", gone), some,
	}})
	require.NoError(t, err)
	require.NoError(t, f.store.Create(t.Context(), "lost", c, "", time.Now()))

	v, err := f.Open(t.Context(), "lost")
	require.NoError(t, err)
	assert.False(t, v.Scene.Face(card.Front).Items[2].Outline.Empty(), "its words are seen in another typeface")
	v, err = f.Change(t.Context(), "lost", v.Revision, []card.Command{card.RenameCard{Title: "Found"}})
	require.NoError(t, err, "it can be changed")
	_, err = f.Change(t.Context(), "lost", v.Revision, []card.Command{card.PlaceItems{Face: card.Back, Items: []card.Item{words("New", "own-none")}}})
	var refusal *card.Refusal
	require.ErrorAs(t, err, &refusal, "nothing new that is not there comes on")

	told := func() (out []check.Finding) {
		w, err := f.Check(t.Context(), "lost")
		require.NoError(t, err)
		for _, k := range w.Findings {
			if k.Check == "missing" {
				out = append(out, k)
			}
		}
		return out
	}
	for left := 3; left > 0; left-- {
		found := told()
		require.Len(t, found, left)
		assert.Equal(t, check.Stop, found[0].Weight)
		var do []card.Command
		for _, s := range found[0].Mends[0].Do {
			do = append(do, s.Command)
		}
		v, err = f.Change(t.Context(), "lost", v.Revision, do)
		require.NoError(t, err, found[0].Why)
	}
	assert.Empty(t, told())
	_, it := v.Card.Find("i4")
	if it != nil && it.Words != nil {
		assert.Equal(t, "courier-prime-400", it.Words.Font, "only the letters in it are set anew")
	}
}

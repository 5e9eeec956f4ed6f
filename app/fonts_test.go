package app_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
)

// Words in a font of one's own stay as they are when it is taken out of the tray, and after a
// restart.
func TestFontsAreBroughtIn(t *testing.T) {
	f := start(t)
	faces, err := f.BringInFont(t.Context(), "Garden.woff", lettering.File("amatic-sc-700"))
	require.NoError(t, err)
	require.Len(t, faces, 1)
	own := faces[0]
	assert.Equal(t, "Amatic SC Bold", own.Name)
	offered := func() bool {
		all, err := f.Fonts(t.Context())
		require.NoError(t, err)
		for _, o := range all {
			if o.ID == own.ID {
				return true
			}
		}
		return false
	}
	assert.True(t, offered())
	id, err := f.Create(t.Context(), lettered(t, own.ID))
	require.NoError(t, err)
	before, err := f.Open(t.Context(), id)
	require.NoError(t, err)

	require.NoError(t, f.RemoveFont(t.Context(), own.ID))
	assert.False(t, offered())
	assert.ErrorIs(t, f.RemoveFont(t.Context(), "amatic-sc-700"), app.ErrNotFound, "it ships")
	assert.ErrorIs(t, f.RemoveFont(t.Context(), "own-none"), app.ErrNotFound)
	again := app.New(app.Config{Store: f.store})
	t.Cleanup(again.Close)
	after, err := again.Open(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, before.Scene.Faces[0].Items[0].Outline, after.Scene.Faces[0].Items[0].Outline)
	_, err = f.BringInFont(t.Context(), "Garden.woff", lettering.File("amatic-sc-700"))
	require.NoError(t, err)
	assert.True(t, offered(), "it is back")

	_, err = f.BringInFont(t.Context(), "Photo.jpg", []byte("\xff\xd8\xff but no font at all"))
	var refused *lettering.Error
	require.ErrorAs(t, err, &refused)
	assert.Contains(t, refused.Why, "“Photo.jpg” is no font")
}

// lettered is a card with words in a font.
func lettered(t *testing.T, font string) card.Card {
	t.Helper()
	c, err := card.New("Words", card.Base{Kind: card.SideFold, Width: 127, Height: 177.8, Stock: "cream-300"})
	require.NoError(t, err)
	c, err = card.Apply(c, card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Words", Kind: card.Lettering, Place: card.Place{X: 60, Y: 80},
		Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#a8432a"},
		Words: &card.Words{Text: "Seedlings", Font: font, Size: 12, Leading: 1.2, Align: card.AlignCentre}}}})
	require.NoError(t, err)
	return c
}

package app_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/ground/edging"
)

// A shape of one's own becomes a motif, edges another, and goes on to when it is out of the tray and after a
// restart.
func TestAMotifOfOnesOwn(t *testing.T) {
	f := start(t)
	id, err := f.Create(t.Context(), coretest.Empty(t))
	require.NoError(t, err)
	shape := func(name string, y float64, form card.Form) card.Item {
		return card.Item{Name: name, Kind: card.Shape, Place: card.Place{X: 60, Y: y}, Made: card.Made{As: card.Cut, Stock: "moss-216"}, Form: &form}
	}
	_, err = f.Change(t.Context(), id, 1, []card.Command{card.PlaceItems{Face: card.Front, Items: []card.Item{
		shape("House", 30, card.Form{Outline: "house", Width: 20, Height: 18}),
		shape("Arrow", 90, card.Form{Outline: "arrow", Width: 30, Height: 18}),
		shape("Bar", 140, card.Form{Outline: card.Rectangle, Corner: card.Square, Width: 80, Height: 20})}}})
	require.NoError(t, err)
	m, err := f.MakeMotif(t.Context(), id, app.NewMotif{Face: card.Front, Item: "i1", Name: " Houses "})
	require.NoError(t, err)
	assert.Equal(t, "Houses", m.Name)
	_, err = f.Change(t.Context(), id, 2, []card.Command{card.SetEdging{IDs: []string{"i3"}, Edging: &edging.Edging{Motif: m.ID, Depth: 6, Side: edging.Top}}})
	require.NoError(t, err)
	repeats := func(a *app.App) int {
		v, err := a.Open(t.Context(), id)
		require.NoError(t, err)
		return v.Scene.Face(card.Front).Items[2].Repeats
	}
	was := repeats(f.App)
	require.Positive(t, was)
	require.NoError(t, f.RemoveMotif(t.Context(), m.ID))
	assert.NotEqual(t, m.ID, edging.All()[0].ID)
	edging.Know(nil)
	assert.Equal(t, was, repeats(f.again()))
	require.ErrorIs(t, f.RemoveMotif(t.Context(), "scallop"), app.ErrNotFound, "what ships stays")
	for field, n := range map[string]app.NewMotif{
		"name": {Face: card.Front, Item: "i1"},
		"item": {Face: card.Front, Item: "i9", Name: "A"},
		"face": {Face: "roof", Item: "i1", Name: "A"},
	} {
		_, err := f.MakeMotif(t.Context(), id, n)
		var refused *card.Refusal
		require.ErrorAs(t, err, &refused, field)
		assert.Equal(t, field, refused.Field)
	}
}

package app_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/document/card"
)

func TestPhotosOnCardsAndSketchesStay(t *testing.T) {
	f := start(t)
	a, id := f.App, f.card()
	pics, err := a.Pictures(t.Context())
	require.NoError(t, err)
	pic := pics[0].ID
	k, err := a.KeepSketch(t.Context(), id, app.NewSketch{Title: " Keep me ", Tags: []string{"One", "one", " two "}})
	require.NoError(t, err)
	assert.Equal(t, "Keep me", k.Title)
	assert.Equal(t, []string{"one", "two"}, k.Tags)
	err = a.RemovePicture(t.Context(), pic)
	var refusal *card.Refusal
	require.ErrorAs(t, err, &refusal)
	assert.Contains(t, refusal.Why, "and the sketch “Keep me”")
	require.NoError(t, a.RemoveSketch(t.Context(), k.ID))
	require.NoError(t, a.Remove(t.Context(), id))
	require.NoError(t, a.RemovePicture(t.Context(), pic))
	pics, err = a.Pictures(t.Context())
	require.NoError(t, err)
	assert.Empty(t, pics)
	assert.ErrorIs(t, a.RemovePicture(t.Context(), "nothing"), app.ErrNotFound)
	require.NoError(t, a.Restore(t.Context(), id))
	_, _, err = a.PicturePreview(t.Context(), pic, 256)
	assert.NoError(t, err, "a card that comes back still has it")
}

func TestACardStartsFromASketch(t *testing.T) {
	f := start(t)
	a, id := f.App, f.card()
	v, err := a.Open(t.Context(), id)
	require.NoError(t, err)
	_, photo := v.Card.Find("i2")
	require.NotNil(t, photo.Photo)
	k, err := a.KeepSketch(t.Context(), id, app.NewSketch{Title: "Slots", Face: card.Front, Slots: []string{photo.ID}})
	require.NoError(t, err)
	assert.Equal(t, 1, k.Photos)
	all, err := a.Sketches(t.Context())
	require.NoError(t, err)
	require.Len(t, all, 1)
	assert.Equal(t, k, all[0])
	raw, err := a.SketchPicture(t.Context(), k.ID)
	require.NoError(t, err)
	assert.NotEmpty(t, raw)
	next, err := a.StartFromSketch(t.Context(), k.ID, "Mine", []string{photo.Photo.Picture})
	require.NoError(t, err)
	v, err = a.Open(t.Context(), next)
	require.NoError(t, err)
	assert.Equal(t, "Mine", v.Card.Title)
	assert.Equal(t, photo.Photo.Picture, v.Card.Faces[0].Items[2].Photo.Picture)
	_, err = a.StartFromSketch(t.Context(), "none", "", nil)
	assert.ErrorIs(t, err, app.ErrNotFound)
}

func TestWhatIsNotedAboutSuppliesIsKept(t *testing.T) {
	a := start(t).App
	require.NoError(t, a.NoteSupply(t.Context(), app.Supply{Kind: "paper", ID: "leaf-drift", Name: "Spring leaves", Tags: []string{"Green"}, Favourite: true, Rights: app.CreditDue, Credit: "Leaves by O. Thorn"}))
	require.NoError(t, a.UsedSupply(t.Context(), "paper", "leaf-drift"))
	all, err := a.Supplies(t.Context())
	require.NoError(t, err)
	require.Len(t, all, 1)
	assert.Equal(t, "Spring leaves", all[0].Name)
	assert.Equal(t, []string{"green"}, all[0].Tags)
	assert.False(t, all[0].Used.IsZero())
	for field, s := range map[string]app.Supply{"credit": {Kind: "paper", ID: "x", Rights: app.CreditDue}, "kind": {Kind: "hat", ID: "x"}, "rights": {Kind: "paper", ID: "x", Rights: "stolen"}} {
		var refusal *card.Refusal
		require.ErrorAs(t, a.NoteSupply(t.Context(), s), &refusal)
		assert.Equal(t, field, refusal.Field)
	}
}

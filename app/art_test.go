package app_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/coretest"
	"sectilis/core/design/overlay"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// A drawing that was laid on one card lies on another as it did on the first, as a group of its name.
func TestDrawingsServeEveryCard(t *testing.T) {
	f := start(t)
	_, first := f.lay("Two leaves.svg", `<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="30mm" viewBox="0 0 60 30">
		<path d="M2 15Q15 0 28 15Q15 30 2 15Z" fill="#587a4a"/><circle cx="45" cy="15" r="10" fill="#a8432a"/></svg>`)
	require.Len(t, first, 2)
	all, err := f.AllArt(t.Context())
	require.NoError(t, err)
	require.Len(t, all, 1+len(overlay.All()))
	assert.Equal(t, "Two leaves", all[0].Name)
	assert.InDelta(t, 53, all[0].Width, .01)

	id, err := f.Create(t.Context(), coretest.Empty(t))
	require.NoError(t, err)
	v, err := f.LayArt(t.Context(), id, 1, app.LaidArt{Art: all[0].ID, Face: card.InsideFirst, At: &geom.Point{X: 40, Y: 50}})
	require.NoError(t, err)
	face := v.Card.Face(card.InsideFirst)
	require.Len(t, face.Items, 2)
	require.Len(t, face.Groups, 1)
	assert.Equal(t, "Two leaves", face.Groups[0].Name)
	off := geom.Pt(face.Items[0].Place.X-first[0].Place.X, face.Items[0].Place.Y-first[0].Place.Y)
	for i, it := range face.Items {
		assert.Equal(t, face.Groups[0].ID, it.Group)
		assert.Equal(t, first[i].Form.Path, it.Form.Path)
		assert.Equal(t, first[i].Fill, it.Fill)
		assert.InDelta(t, 0, geom.Pt(it.Place.X-first[i].Place.X, it.Place.Y-first[i].Place.Y).Sub(off).Len(), 1e-5)
	}
	box := v.Scene.Face(card.InsideFirst).Items[0].Bounds.Union(v.Scene.Face(card.InsideFirst).Items[1].Bounds)
	assert.InDelta(t, 0, box.Centre().Sub(geom.Pt(40, 50)).Len(), 1e-5, "its middle is where it was wanted")

	// All of a colour at once, and one part by itself.
	v, err = f.Change(t.Context(), id, 2, []card.Command{card.Recolour{From: []string{"#587a4a"}, To: "#35658c", IDs: []string{face.Items[0].ID, face.Items[1].ID}}})
	require.NoError(t, err)
	assert.Equal(t, "#35658c", v.Card.Face(card.InsideFirst).Items[0].Fill.Colour)

	raw, err := f.ArtPicture(t.Context(), all[0].ID)
	require.NoError(t, err)
	assert.NotEmpty(t, raw)
	_, err = f.LayArt(t.Context(), id, 3, app.LaidArt{Art: "nothing", Face: card.Front})
	require.ErrorIs(t, err, app.ErrNotFound)
	require.NoError(t, f.RemoveArt(t.Context(), all[0].ID))
	require.ErrorIs(t, f.RemoveArt(t.Context(), all[0].ID), app.ErrNotFound)
}

// What is kept of a card comes with its mats and all it carries, in register, and holds its photos.
func TestThingsOfACardAreKeptInTheTray(t *testing.T) {
	f := start(t)
	id := f.card()
	v, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	was := v.Card.Face(card.Front)
	var all []string
	for _, it := range was.Items {
		all = append(all, it.ID)
	}
	a, err := f.KeepArt(t.Context(), id, app.KeptThings{Face: card.Front, IDs: all, Name: " The front "})
	require.NoError(t, err)
	assert.Equal(t, app.Art{ID: a.ID, Name: "The front", Width: a.Width, Height: a.Height, Parts: len(all)}, a)
	again, err := f.KeepArt(t.Context(), id, app.KeptThings{Face: card.Front, IDs: all, Name: "Once more"})
	require.NoError(t, err)
	assert.Equal(t, a.ID, again.ID, "the same things are the same art")
	kept, err := f.AllArt(t.Context())
	require.NoError(t, err)
	require.Len(t, kept, 1+len(overlay.All()))

	other, err := f.Create(t.Context(), coretest.Empty(t))
	require.NoError(t, err)
	require.NoError(t, f.NoteSupply(t.Context(), app.Supply{Kind: "art", ID: a.ID, Name: "Kept front", Tags: []string{"red"}}))
	laid, err := f.LayArt(t.Context(), other, 1, app.LaidArt{Art: a.ID, Face: card.Front})
	require.NoError(t, err)
	shapes := func(s *scene.Face) (out []geom.Path) {
		box := s.Items[0].Bounds
		for _, it := range s.Items {
			box = box.Union(it.Bounds)
		}
		for _, it := range s.Items {
			out = append(out, it.Outline.Transform(it.At).Transform(geom.Shift(-box.X, -box.Y)))
		}
		return out
	}
	before, after := shapes(v.Scene.Face(card.Front)), shapes(laid.Scene.Face(card.Front))
	require.Len(t, after, len(before))
	for i := range before {
		assert.InDelta(t, where(before[i]), where(after[i]), 1e-3, was.Items[i].Name)
	}
	names := []string{}
	for _, g := range laid.Card.Face(card.Front).Groups {
		names = append(names, g.Name)
	}
	assert.Contains(t, names, "Kept front")

	pics, err := f.Pictures(t.Context())
	require.NoError(t, err)
	require.NoError(t, f.Remove(t.Context(), id))
	require.NoError(t, f.Remove(t.Context(), other))
	var refused *card.Refusal
	require.ErrorAs(t, f.RemovePicture(t.Context(), pics[0].ID), &refused)
	assert.Contains(t, refused.Why, "in the tray")

	require.NoError(t, f.Restore(t.Context(), id))
	for field, k := range map[string]app.KeptThings{
		"ids":  {Face: card.Front, Name: "None"},
		"name": {Face: card.Front, IDs: all},
	} {
		_, err := f.KeepArt(t.Context(), id, k)
		require.ErrorAs(t, err, &refused)
		assert.Equal(t, field, refused.Field)
	}
}

// where tells where an outline lies: its area by its place.
func where(p geom.Path) float64 { c := p.Bounds().Centre(); return p.Area() + c.X + 7*c.Y }

// Overlays that ship are laid as art is, are printed, and are seen through somewhere: by their ink, or by
// the holes and gaps of their box.
func TestOverlaysAreSeenThrough(t *testing.T) {
	f := start(t)
	id, err := f.Create(t.Context(), coretest.Empty(t))
	require.NoError(t, err)
	for i, o := range overlay.All() {
		v, err := f.LayArt(t.Context(), id, int64(i+1), app.LaidArt{Art: o.ID, Face: card.Front})
		require.NoError(t, err, o.Name)
		items := v.Scene.Face(card.Front).Items
		var covered []geom.Path
		opaque := true
		for _, it := range items[len(items)-len(o.Items):] {
			assert.False(t, it.Piece, o.Name)
			covered = append(covered, it.Outline.Transform(it.At))
			opaque = opaque && it.Clear == 0
		}
		all := geom.Union(geom.NonZero, covered...)
		box := all.Bounds()
		assert.True(t, !opaque || all.Area() < .97*box.W*box.H, o.Name)
		raw, err := f.ArtPicture(t.Context(), o.ID)
		require.NoError(t, err)
		assert.NotEmpty(t, raw)
	}
	require.ErrorIs(t, f.RemoveArt(t.Context(), "doily"), app.ErrNotFound, "what ships stays")
}

package store_test

import (
	"context"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/store"
)

// What is kept by a name is there after the file was closed, and is replaced by what is
// kept later.
func TestWhatIsKeptByNameIsReplaced(t *testing.T) {
	path := filepath.Join(t.TempDir(), "a.db")
	for name, how := range map[string]struct {
		keep func(*store.Store, context.Context, string, []byte) error
		get  func(*store.Store, context.Context, string) ([]byte, error)
	}{
		"layout": {func(s *store.Store, ctx context.Context, k string, v []byte) error {
			return s.KeepLayout(ctx, k, v, at)
		}, (*store.Store).Layout},
		"run":   {func(s *store.Store, ctx context.Context, k string, v []byte) error { return s.KeepRun(ctx, k, v, at) }, (*store.Store).Run},
		"stock": {(*store.Store).KeepSettings, (*store.Store).Settings},
		"kept":  {(*store.Store).Keep, (*store.Store).Kept},
	} {
		t.Run(name, func(t *testing.T) {
			s, err := store.Open(t.Context(), path)
			require.NoError(t, err)
			_, err = how.get(s, t.Context(), "a")
			assert.ErrorIs(t, err, app.ErrNotFound)
			require.NoError(t, how.keep(s, t.Context(), "a", []byte(`{"v":1}`)))
			require.NoError(t, how.keep(s, t.Context(), "b", []byte(`{"v":2}`)))
			require.NoError(t, how.keep(s, t.Context(), "a", []byte(`{"v":"½"}`)))
			require.NoError(t, s.Close())

			s = open(t, path)
			raw, err := how.get(s, t.Context(), "a")
			require.NoError(t, err)
			assert.JSONEq(t, `{"v":"½"}`, string(raw))
			raw, err = how.get(s, t.Context(), "b")
			require.NoError(t, err)
			assert.JSONEq(t, `{"v":2}`, string(raw))
			_, err = how.get(s, t.Context(), "A")
			assert.ErrorIs(t, err, app.ErrNotFound, "names are as they are written")
		})
	}
}

func TestSuppliesAreNotedAndNotedAnew(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	ctx := t.Context()
	none, err := s.Supplies(ctx)
	require.NoError(t, err)
	assert.Equal(t, []app.Supply{}, none)
	oat := app.Supply{Kind: "paper", ID: "oat-stripe", Name: "Barn stripe", Tags: []string{"autumn", "plain, warm"}, Favourite: true, Used: at, Rights: app.CreditDue, Credit: "Plum Lane"}
	require.NoError(t, s.Note(ctx, oat))
	require.NoError(t, s.Note(ctx, app.Supply{Kind: "font", ID: "oat-stripe"}))
	all, err := s.Supplies(ctx)
	require.NoError(t, err)
	require.Len(t, all, 2, "of two kinds")
	assert.Equal(t, "font", all[0].Kind)
	assert.True(t, all[0].Used.IsZero())
	assert.True(t, oat.Used.Equal(all[1].Used))
	all[1].Used = oat.Used
	assert.Equal(t, oat, all[1])

	oat.Tags, oat.Favourite = nil, false
	require.NoError(t, s.Note(ctx, oat))
	all, err = s.Supplies(ctx)
	require.NoError(t, err)
	require.Len(t, all, 2)
	assert.Empty(t, all[1].Tags)
	assert.False(t, all[1].Favourite)
}

func TestSketchesAreKeptWithTheirDocument(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	ctx := t.Context()
	c := coretest.Card(t)
	require.NoError(t, s.AddSketch(ctx, app.Sketch{ID: "s1", Title: "Two mats", Face: card.Front, Occasion: "birthday", Tags: []string{"photo"}}, c, at))
	require.NoError(t, s.AddSketch(ctx, app.Sketch{ID: "s2", Title: "Plain"}, coretest.Empty(t), at.Add(time.Minute)))
	assert.Error(t, s.AddSketch(ctx, app.Sketch{ID: "s2", Title: "Again"}, c, at), "an id is given once")
	all, err := s.Sketches(ctx)
	require.NoError(t, err)
	require.Len(t, all, 2)
	assert.Equal(t, "Plain", all[0].Title, "the newest first")
	k, doc, err := s.Sketch(ctx, "s1")
	require.NoError(t, err)
	assert.Equal(t, all[1], k)
	assert.Equal(t, c, doc)
	require.NoError(t, s.RemoveSketch(ctx, "s1"))
	_, _, err = s.Sketch(ctx, "s1")
	assert.ErrorIs(t, err, app.ErrNotFound)
	assert.ErrorIs(t, s.RemoveSketch(ctx, "s1"), app.ErrNotFound)
}

// An envelope and its card know each other after a restart, as long as both are on the table; the newest of
// two counts, and one that is let go is nobody's.
func TestEnvelopesAreTied(t *testing.T) {
	path := filepath.Join(t.TempDir(), "a.db")
	s, err := store.Open(t.Context(), path)
	require.NoError(t, err)
	ctx := t.Context()
	for _, id := range []string{"card", "one", "two"} {
		require.NoError(t, s.Create(ctx, id, coretest.Empty(t), "", at))
	}
	_, err = s.EnvelopeOf(ctx, "card")
	require.ErrorIs(t, err, app.ErrNotFound)
	require.Error(t, s.TieEnvelope(ctx, "one", "nobody"), "a card that there is not")
	require.NoError(t, s.TieEnvelope(ctx, "one", "two"))
	require.NoError(t, s.TieEnvelope(ctx, "one", "card"), "in place of another")
	require.NoError(t, s.TieEnvelope(ctx, "two", "card"))
	require.NoError(t, s.Close())
	s, err = store.Open(ctx, path)
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, s.Close()) })
	of := func() string {
		id, err := s.EnvelopeOf(ctx, "card")
		require.NoError(t, err)
		return id
	}
	assert.Equal(t, "two", of())
	require.NoError(t, s.Remove(ctx, "two", at))
	assert.Equal(t, "one", of())
	require.NoError(t, s.Restore(ctx, "two"))
	assert.Equal(t, "two", of())
	require.NoError(t, s.UntieEnvelope(ctx, "two"))
	assert.Equal(t, "one", of())
	_, err = s.CardOfEnvelope(ctx, "two")
	require.ErrorIs(t, err, app.ErrNotFound)
	require.NoError(t, s.Remove(ctx, "card", at))
	_, err = s.CardOfEnvelope(ctx, "one")
	require.ErrorIs(t, err, app.ErrNotFound, "its card is off the table")
}

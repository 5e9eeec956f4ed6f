package app_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/check"
	"sectilis/core/design/arrange"
	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/ground/geom"
)

// The findings about what lies on the faces come with every view of a card, with the answer
// to a change and to a trial too, whatever else that leaves out; those about the folding
// come with the folding.
func TestFindingsComeWithTheCard(t *testing.T) {
	f := start(t)
	id := f.card()
	v, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	require.NotNil(t, v.Findings, "none is not null")
	before := len(v.Findings)
	place := arrange.PlaceSupply{Face: card.Back, Kind: arrange.LetteringSupply, ID: lettering.Fonts()[0].ID}
	v, err = f.Change(t.Context(), id, v.Revision, []card.Command{place})
	require.NoError(t, err)
	require.Len(t, v.Made, 1)
	made := v.Made[0]
	words := func(size float64) card.Command {
		c, err := f.Open(t.Context(), id)
		require.NoError(t, err)
		_, it := c.Card.Find(made)
		w := *it.Words
		w.Size = size
		return card.SetWords{ID: made, Words: w}
	}
	about := func(found []check.Finding) (out []check.ID) {
		for _, f := range found {
			if f.Item == made {
				out = append(out, f.Check)
			}
		}
		return out
	}
	tried, err := f.Try(t.Context(), id, v.Revision, []card.Command{words(1)})
	require.NoError(t, err)
	assert.Equal(t, []check.ID{"smallWords"}, about(tried.Findings))
	assert.Empty(t, about(v.Findings), "a trial changes nothing")

	v, err = f.Change(t.Context(), id, v.Revision, []card.Command{words(1), card.MoveItems{IDs: []string{made}, DX: -64}})
	require.NoError(t, err)
	require.True(t, v.Part)
	assert.Equal(t, []check.ID{"runsOff", "smallWords"}, about(v.Findings))
	v, err = f.Change(t.Context(), id, v.Revision, []card.Command{card.RenameCard{Title: "Plums"}})
	require.NoError(t, err)
	assert.Equal(t, []check.ID{"runsOff", "smallWords"}, about(v.Findings), "also when nothing about it has changed")
	v, err = f.Change(t.Context(), id, v.Revision, []card.Command{card.HideItems{IDs: []string{made}, Hidden: true}})
	require.NoError(t, err)
	assert.Empty(t, about(v.Findings), "what is hidden spoils nothing")
	for range 4 {
		v, err = f.Undo(t.Context(), id, v.Revision)
		require.NoError(t, err)
	}
	assert.Len(t, v.Findings, before)

	// A piece that sticks out is told by the folding.
	at := geom.Pt(0, 60)
	v, err = f.Change(t.Context(), id, v.Revision, []card.Command{arrange.PlaceSupply{Face: card.Front, Kind: arrange.ShapeSupply, ID: "circle", At: &at}})
	require.NoError(t, err)
	fold, err := f.Fold(t.Context(), id)
	require.NoError(t, err)
	found := map[check.ID]bool{}
	for _, f := range fold.Findings {
		if f.Item == v.Made[0] {
			found[f.Check] = true
		}
	}
	assert.NotEmpty(t, found)
	for _, f := range v.Findings {
		assert.NotEqual(t, v.Made[0], f.Item)
	}
}

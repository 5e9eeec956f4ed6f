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
		w.Size, w.Text = size, "Plum"
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
	assert.Equal(t, []check.ID{"sampleWords"}, about(v.Findings), "a trial changes nothing")

	v, err = f.Change(t.Context(), id, v.Revision, []card.Command{words(1), card.MoveItems{IDs: []string{made}, DX: -64}})
	require.NoError(t, err)
	require.True(t, v.Part)
	assert.Equal(t, []check.ID{"runsOff", "smallWords"}, about(v.Findings))
	v, err = f.Change(t.Context(), id, v.Revision, []card.Command{card.RenameCard{Title: "Plums"}})
	require.NoError(t, err)
	assert.Equal(t, []check.ID{"runsOff", "smallWords"}, about(v.Findings), "also when nothing about it has changed")
	v, err = f.Change(t.Context(), id, v.Revision, []card.Command{card.HideItems{IDs: []string{made}, Hidden: true}})
	require.NoError(t, err)
	assert.Equal(t, []check.ID{"hiddenThings"}, about(v.Findings), "what is hidden spoils nothing")
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

// Words half on white and half on black are read on neither; every mend that is offered makes them
// readable as the face is painted then.
func TestEveryMendOfWeakContrastMends(t *testing.T) {
	f := start(t)
	id := f.card()
	half := func(x float64, ink string) card.Item {
		return card.Item{Name: "Half", Kind: card.Shape, Place: card.Place{X: x, Y: 60}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: ink},
			Form: &card.Form{Outline: card.Rectangle, Width: 30, Height: 60, Corner: card.Square}}
	}
	for _, k := range []struct {
		size float64
		inks []string
	}{{4, nil}, {10, nil}, {9, []string{"#e2a42b", "#fff6e0"}}} {
		words := card.Item{Name: "Words", Kind: card.Lettering, Place: card.Place{X: 60, Y: 60, Turn: 12}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#5c3049"},
			Words: &card.Words{Text: "Orchard", Font: "nunito-400", Size: k.size, Leading: 1.2, Align: card.AlignCentre}}
		if k.inks != nil {
			words.Words.Colours, words.Words.ColourBy = k.inks, card.ByLetter
		}
		v, err := f.Open(t.Context(), id)
		require.NoError(t, err)
		v, err = f.Change(t.Context(), id, v.Revision, []card.Command{card.PlaceItems{Face: card.Front, Items: []card.Item{half(45, "#ffffff"), half(75, "#000000"), words}}})
		require.NoError(t, err)
		made := v.Made[2]
		weak := func() (out []check.Mend) {
			p, err := f.Prints(t.Context(), id)
			require.NoError(t, err)
			for _, x := range p.Findings {
				if x.Item == made && x.Check == "contrast" {
					out = x.Mends
				}
			}
			return out
		}
		mends := weak()
		var says []string
		for _, m := range mends {
			says = append(says, m.Says)
		}
		require.Subset(t, says, []string{"Put a line round it", "Put a soft shade behind it", "Lay a band behind it"}, "%v", k)
		for _, m := range mends {
			var all []card.Command
			for _, s := range m.Do {
				all = append(all, s.Command)
			}
			v, err = f.Change(t.Context(), id, v.Revision, all)
			require.NoError(t, err)
			assert.Empty(t, weak(), "%s at %v", m.Says, k)
			v, err = f.Undo(t.Context(), id, v.Revision)
			require.NoError(t, err)
		}
		_, err = f.Undo(t.Context(), id, v.Revision)
		require.NoError(t, err)
	}
}

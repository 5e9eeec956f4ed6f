package scene_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
)

func resolve(t *testing.T, c card.Card) scene.Scene {
	t.Helper()
	s, err := scene.Of(c)
	require.NoError(t, err)
	return s
}

func TestPiecesLieOnWhatTheyOverlap(t *testing.T) {
	s := resolve(t, coretest.Card(t))
	f := s.Face(card.Front)
	at := map[string]scene.Item{}
	for _, it := range f.Items {
		at[it.ID] = it
	}
	const base, text, brick, satin, cream = .38, .15, .28, .25, .28
	assert.InDelta(t, base, at["i1"].From, 1e-9)
	assert.InDelta(t, base+text, at["i3"].From, 1e-9)
	assert.InDelta(t, base+text+brick+satin, at["i2"].To, 1e-9)
	assert.InDelta(t, base, at["i4"].From, 1e-9, "the label touches nothing but the base")
	assert.InDelta(t, base+1+cream, at["i4"].To, 1e-9, "foam counts")
	assert.Equal(t, at["i5"].From, at["i5"].To, "ink has no thickness")
	assert.InDelta(t, at["i4"].To, at["i5"].From, 1e-9)
	assert.InDelta(t, base+1+cream, f.Thickness, 1e-9)
	assert.InDelta(t, 2*base+1+cream, s.Thickness, 1e-9)
	assert.Equal(t, []scene.ColourUse{{Colour: "#1f2b38", Count: 1}, {Colour: "#587a4a", Count: 1}, {Colour: "#a8432a", Count: 1}}, s.Colours)
}

func TestMatsTakeTheirPlaceFromWhatLiesOnThem(t *testing.T) {
	c, err := card.Apply(coretest.Card(t), card.TurnItems{IDs: []string{"i2"}, Degrees: 30})
	require.NoError(t, err)
	f := resolve(t, c).Faces[0]
	mat, photo := f.Items[1], f.Items[2]
	assert.Equal(t, photo.At, mat.At)
	assert.InDelta(t, photo.Box.W+8, mat.Box.W, 1e-9)
	assert.Equal(t, "i3", mat.ID)
	assert.Equal(t, mat.ID, f.Carrier(&photo).ID)
}

func TestPhotosCoverTheirOpeningUnstretched(t *testing.T) {
	f := resolve(t, coretest.Card(t)).Faces[0]
	p := f.Items[2].Picture
	assert.InDelta(t, 1.5, p.Box.W/p.Box.H, 1e-9)
	assert.True(t, p.Box.Contains(f.Items[2].Box.Grow(1), 1e-9), "its bleed is covered too")
	assert.InDelta(t, 0, p.Box.Centre().X, 1e-9)
}

func TestInkEndsWhereItsCarrierDoes(t *testing.T) {
	s := resolve(t, coretest.Card(t))
	f := s.Face(card.Front)
	inks := f.PieceInks(&f.Items[0])
	require.Len(t, inks, 1)
	assert.InDelta(t, 110+2*2, inks[0].Region.Bounds().W, 1e-6, "paper with its bleed")
	label := f.PieceInks(&f.Items[3])
	require.Len(t, label, 1, "the stock shows, and words are printed on it")
	assert.InDelta(t, 90, label[0].Clips[0].Bounds().W, 1e-6)
	assert.Empty(t, f.BaseInks())
	assert.Len(t, s.Face(card.Back).BaseInks(), 1)
	// Base, three grounds with paper and photo, which lie on white, and the label with its words on cream.
	look := s.Look(f, coretest.Card(t).Base)
	assert.Len(t, look, 7)
	label = look[len(look)-1].Laid
	require.Len(t, label, 1)
	assert.Equal(t, "#fff6e0", look[len(look)-1].Colour)
}

func TestASceneNamesWhatCannotBeSet(t *testing.T) {
	c, err := card.Apply(coretest.Card(t), card.SetWords{ID: "i5", Words: card.Words{Text: "漢", Font: "pacifico-400", Size: 5, Leading: 1, Align: card.AlignLeft}})
	require.NoError(t, err)
	s := resolve(t, c)
	assert.Equal(t, "漢", s.Faces[0].Items[4].Words.Missing)
	_, it := c.Find("i5")
	it.Words.Font = "gone"
	it.Words.Text = "Plum"
	assert.False(t, resolve(t, c).Faces[0].Items[4].Outline.Empty(), "words whose typeface is gone are set in another")
	_, err = json.Marshal(s)
	assert.NoError(t, err)
}

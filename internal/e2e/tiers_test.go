package e2e

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
)

// A photo is cut in four tiers, seen and told before it is done; they are a group that knows what it is,
// and become three with another step.
func TestAPhotoIsCutInTiers(t *testing.T) {
	h := photographed(t)
	h.click("photo-done")
	h.click("layer-i1")
	h.click("tiers-verb")
	h.says("tiers-told", "4 pieces")
	h.put("tiers-step", "5 mm")
	h.put("tiers-edge", "1 mm")
	h.wait(`document.querySelectorAll('[data-testid=trial] path').length >= 3`)
	h.click("tiers-make")
	f := h.front(3)
	require.Len(t, f.Items, 4)
	require.Len(t, f.Groups, 1)
	spec := f.Groups[0].Tiers
	assert.Equal(t, 4, spec.Count)
	assert.InDelta(t, 5, spec.Step, 1e-9)
	for i, it := range f.Items {
		assert.Equal(t, i+1, it.Tier)
		assert.InDelta(t, 90-10*float64(i), it.Photo.Width, 1e-6)
		assert.Equal(t, card.InkLine{Colour: "#ffffff", Width: 2}, *it.Look.Line)
	}
	h.says("tier-4", "Tier 4")
	h.fill("tiers-count", "3")
	require.Len(t, h.front(4).Items, 3)
	h.fill("tiers-step", "8 mm")
	assert.InDelta(t, 90-32, h.front(5).Items[2].Photo.Width, 1e-6)
}

// A tiered picture with the words as a feature is made, told, laid on sheets, printed and cut.
func TestATieredPictureWithAFeatureIsPrintedAndCut(t *testing.T) {
	h := photographed(t)
	h.click("photo-done")
	words := card.Item{Name: "Words", Kind: card.Lettering, Place: card.Place{X: 2.5 * in, Y: 3 * in}, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: "#fff6e0"},
		Words: &card.Words{Text: "Orchard", Font: "alfa-slab-one-400", Size: 7, Leading: 1.2, Align: card.AlignCentre}}
	v, err := h.app.App.Open(t.Context(), h.id)
	require.NoError(t, err)
	_, err = h.app.App.Change(t.Context(), h.id, v.Revision, []card.Command{card.PlaceItems{Face: card.Front, Items: []card.Item{words}}})
	require.NoError(t, err)
	h.there("layer-i2")
	h.click("layer-i1")
	h.click("tiers-verb")
	h.choose("tiers-way", "Towards the foot")
	h.put("tiers-step", "5 mm")
	h.put("tiers-count", "3")
	h.says("tiers-told", "3 pieces")
	h.says("tiers-told", "sheets")
	h.click("tiers-make")
	h.there("tier-3")
	h.put("feature-margin", "2 mm")
	h.click("feature-i2")
	h.wait(`[...document.querySelectorAll('.layer')].some(e => e.textContent.includes('Words, feature'))`)
	v, err = h.app.App.Open(t.Context(), h.id)
	require.NoError(t, err)
	var feature card.Item
	for _, it := range v.Card.Face(card.Front).Items {
		if it.Feature {
			feature = it
		}
	}
	require.NotEmpty(t, feature.ID)
	_, written := v.Card.Find("i2")
	assert.Equal(t, feature.ID, written.On)

	h.click("station-sheets")
	h.there("sheet-1")
	l, err := h.app.App.Layout(t.Context(), h.id, options(h))
	require.NoError(t, err)
	sheet := 0
	for _, sh := range l.Sheets {
		for _, p := range sh.Pieces {
			if p.ID == feature.ID {
				sheet = sh.Number
			}
		}
	}
	require.Positive(t, sheet)
	h.click("print")
	h.says("print-note", "printed")
	h.click("station-machine")
	h.click(fmt.Sprintf("run-%d", sheet))
	h.click("cut")
	h.wait(`document.querySelector('[data-testid=result]')?.naturalWidth > 100`)
}

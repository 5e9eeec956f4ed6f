package e2e

import (
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

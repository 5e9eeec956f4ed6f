package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
)

// The panels of a step card are covered in two layers and two stocks in turn, seen before; they follow
// when the card gets larger, and are taken off by one verb.
func TestThePanelsOfAStepCardAreCovered(t *testing.T) {
	h := lay(t)
	open := func() card.Card {
		v, err := h.app.App.Open(t.Context(), h.id)
		require.NoError(t, err)
		return v.Card
	}
	h.click("station-base")
	h.click("kind-stepCard")
	h.click("station-panels")
	h.click("face-insideFirst")
	h.click("cover-verb")
	h.put("cover-margin", "3 mm")
	h.click("cover-turn")
	h.choose("cover-stock-then1", "Honey card 216 g")
	h.click("cover-more")
	h.wait(`document.querySelectorAll('[data-testid=trial] path').length >= 6`)
	h.click("cover-lay")
	h.wait(`document.querySelectorAll('[data-testid=surface] [data-item]').length >= 6`)
	layers := func(c card.Card, id card.FaceID) (out map[card.Cover]card.Item) {
		out = map[card.Cover]card.Item{}
		for _, it := range c.Face(id).Items {
			if it.Cover != nil {
				out[*it.Cover] = it
			}
		}
		return out
	}
	was := layers(open(), card.InsideFirst)
	second := was[card.Cover{Panel: 2, Layer: 1}]
	require.NotNil(t, second.Form)
	assert.Equal(t, "honey-216", second.Made.Stock)
	assert.Equal(t, second.ID, was[card.Cover{Panel: 2, Layer: 2}].On)
	assert.NotEmpty(t, layers(open(), card.InsideSecond))
	h.click("station-base")
	h.fill("base-width", "6 in")
	h.says("base-width", "6 in")
	h.click("station-panels")
	h.there("cover-verb")
	wide := layers(open(), card.InsideFirst)[card.Cover{Panel: 1, Layer: 1}]
	assert.InDelta(t, 6*in-6, wide.Form.Width, 1e-6)
	h.click("cover-verb")
	h.click("cover-off")
	h.wait(`document.querySelector('[data-testid=cover-verb]')?.textContent.includes('Mats on panels')`)
	assert.Empty(t, layers(open(), card.InsideFirst))
}

package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"sectilis/core/document/card"
	"sectilis/core/ground/edging"
)

// A label is edged from the tray, the motif changed, and the label made larger: there are whole repeats
// at every size, more on the larger, and the sheet is cut along them.
func TestALabelIsEdgedAtThreeSizes(t *testing.T) {
	h := headline(t)
	h.click("layer-i1")
	h.click("tab-edges")
	h.click("supply-edging-scallop")
	h.says("edging-motif", "Scallop")
	assert.Equal(t, &edging.Edging{Motif: "scallop", Depth: card.FirstDepth}, h.item(2, "i1").Edging)
	h.choose("edging-motif", "Pinking")
	h.fill("edging-depth", "2 mm")
	h.segment("edging-corner", "Mitre")
	h.wait(`document.querySelector("[data-testid=edging-corner] .ant-segmented-item-selected")?.textContent === "Mitre"`)
	e := h.item(5, "i1").Edging
	assert.Equal(t, &edging.Edging{Motif: "pinking", Depth: 2, Corner: edging.Mitre}, e)
	repeats := func() int {
		v, err := h.app.App.Open(t.Context(), h.id)
		h.must(err)
		for _, it := range v.Scene.Face(card.Front).Items {
			if it.ID == "i1" {
				return it.Repeats
			}
		}
		return 0
	}
	last := repeats()
	assert.Positive(t, last)
	h.click("layer-i1")
	for _, size := range []string{"4 1/4 in", "4 3/4 in"} {
		h.fill("width", size)
		h.wait(`document.querySelector('[data-testid=width]').value === '` + map[string]string{"4 1/4 in": "4 ¼ in", "4 3/4 in": "4 ¾ in"}[size] + `'`)
		assert.Greater(t, repeats(), last)
		last = repeats()
	}
	h.fill("edging-count", "40")
	h.wait(`document.querySelector('[data-testid=edging-count]').value === '40'`)
	assert.Equal(t, 40, repeats())
	h.click("edging-off")
	h.wait(`!document.querySelector('[data-testid=edging-motif]')`)
}

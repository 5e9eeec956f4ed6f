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

// A shape becomes a motif of one's own, which edges another; one whose ends do not join says so.
func TestAShapeBecomesAMotif(t *testing.T) {
	house := card.Item{Name: "House", Kind: card.Shape, Place: card.Place{X: 2.5 * in, Y: 1 * in}, Made: card.Made{As: card.Cut, Stock: "brick-216"},
		Form: &card.Form{Outline: "house", Width: 20, Height: 18}}
	leaning := house
	leaning.Name, leaning.Place.Y, leaning.Place.Turn = "Leaning", 6*in, 20
	h := lay(t, card.PlaceItems{Face: card.Front, Items: []card.Item{house, leaning}}, square("A", 2, 3))
	h.click("tab-edges")
	h.click("layer-i2")
	h.click("make-motif")
	h.says("motif-refused", "repeats would not join")
	h.click("layer-i1")
	h.click("make-motif")
	h.wait(`!!document.querySelector('.supply.edging[title="House"]')`)
	h.click("layer-i3")
	h.must(h.Click(`.supply.edging[title="House"]`))
	h.says("edging-motif", "House")
	assert.Contains(t, h.item(2, "i3").Edging.Motif, "own-")
}

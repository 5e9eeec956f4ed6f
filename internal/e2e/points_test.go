package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/design/points"
	"sectilis/core/document/card"
)

// outlined are the points of an item.
func (h table) outlined(id string) points.Points {
	h.Helper()
	p, err := h.app.App.Points(h.Context(), h.id, id)
	h.must(err)
	return p
}

// A label gets a tip, a smooth side and a rounded corner by keys alone; every step is one undo.
func TestPointsAreChangedByKeysAlone(t *testing.T) {
	h := lay(t, square("Label", 2.5, 3))
	h.click("layer-i1")
	h.must(h.Do(chromedp.Focus(chromedp.CSS(`[data-testid=surface]`))))
	was := h.item(1, "i1").Form
	h.keys(kb.Enter)
	h.there("points-tool")
	h.there("point-0-3")
	h.keys("+")
	h.there("point-0-4")
	assert.Len(t, h.outlined("i1").Rings[0].Nodes, 5)
	for range 3 {
		h.keys(kb.ArrowUp, chromedp.KeyModifiers(chromedp.ModifierShift))
	}
	f := h.front(5).Item("i1").Form
	assert.Greater(t, f.Height, was.Height+1, "the new point is a tip")
	h.keys("s")
	h.front(6)
	assert.True(t, h.outlined("i1").Rings[0].Nodes[1].Smooth)
	h.keys(kb.Tab + kb.Tab)
	h.says("points-which", "A corner")
	h.click("points-round")
	h.front(7)
	assert.Greater(t, len(h.outlined("i1").Rings[0].Nodes), 5)
	h.must(h.Do(chromedp.Focus(chromedp.CSS(`[data-testid=surface]`))))
	h.keys(kb.Tab + kb.Delete)
	h.front(8)
	h.keys(kb.Escape)
	h.wait(`!document.querySelector('[data-testid=points-tool]')`)
	for n := 9; n < 16; n++ {
		h.keys("z", chromedp.KeyModifiers(chromedp.ModifierCtrl))
		h.front(int64(n))
	}
	assert.Equal(t, was.Outline, h.item(15, "i1").Form.Outline)
}

// Points are dragged, and what crosses itself then is cleaned on leaving, which is told.
func TestPointsAreDraggedAndCrossingsCleaned(t *testing.T) {
	h := lay(t, square("Label", 2.5, 3))
	h.click("layer-i1")
	h.click("points-verb")
	h.there("point-0-3")
	x, y, err := h.Middle(`[data-testid=point-0-0]`)
	h.must(err)
	// Over the side that lies opposite, and past it.
	px, py := h.at(3.9, 3.2)
	h.must(h.Drag(x, y, px, py))
	h.front(2)
	h.says("points-cross", "crosses itself")
	require.True(t, h.outlined("i1").Crosses)
	h.click("points-done")
	h.tells("It was cleaned")
	h.front(3)
	assert.False(t, h.outlined("i1").Crosses)
	assert.Equal(t, card.Free, h.item(3, "i1").Form.Outline)

	// A point is added where the outline is double clicked, and an outline simplified.
	h.click("points-verb")
	h.there("point-0-0")
	n := len(h.outlined("i1").Rings[0].Nodes)
	for range 3 {
		h.keys("+")
	}
	h.front(6)
	assert.Len(t, h.outlined("i1").Rings[0].Nodes, n+3)
	h.click("points-simplify")
	h.tells("points became")
	h.front(7)
	assert.Less(t, len(h.outlined("i1").Rings[0].Nodes), n+3)
}

// A handle that is dragged nearly level with its point is level with it, unless snapping is held off.
func TestHandlesSnap(t *testing.T) {
	disc := square("Disc", 2.5, 3).(card.PlaceItems)
	disc.Items[0].Form = &card.Form{Outline: card.Ellipse, Width: 3 * in, Height: 3 * in}
	h := lay(t, disc)
	h.click("layer-i1")
	h.click("points-verb")
	h.must(h.Click(`[data-testid=point-0-0]`))
	pull := func(off float64, mods ...chromedp.MouseOption) {
		x, y, err := h.Middle(`[data-testid=handle-out-0-0]`)
		h.must(err)
		h.must(h.Drag(x, y, x+off, y+9, mods...))
	}
	level := func() float64 {
		n := h.outlined("i1").Rings[0].Nodes[0]
		return n.Out.X - n.At.X
	}
	require.Zero(t, level(), "it begins at the right, with an upright handle")
	pull(4)
	h.front(2)
	assert.InDelta(t, 0, level(), 1e-4)
	h.wait(`!document.querySelector('[data-testid=undo]').disabled`)
	pull(4, chromedp.ButtonModifiers(chromedp.ModifierShift))
	h.front(3)
	assert.Greater(t, level(), .5)
}

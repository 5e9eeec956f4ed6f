package e2e

import (
	"bytes"
	"image/png"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/ground/measure"
)

// A card is put together: its steps by key, ticked off and kept, each with a picture; large for the table;
// and the guide goes out as PDF.
func TestACardIsPutTogether(t *testing.T) {
	label := square("Label", 2, 2).(card.PlaceItems)
	tag := square("Tag", 2, 2).(card.PlaceItems)
	tag.Items[0].On, tag.Items[0].Made.Lift = "i1", 1
	tag.Items[0].Form.Width, tag.Items[0].Form.Height = in/2, in/2
	h := lay(t, label, tag)
	h.keys("6")
	h.says("step-title", "1 · ")
	h.wait(`document.querySelectorAll('[data-testid=step]').length === 6`)
	h.says("station-assembly", "6 steps")
	h.keys(kb.ArrowRight)
	h.says("step-title", "2 · Raise “Tag” on foam")
	h.says("step-does", "of foam, 1 mm thick, to the back of “Tag”")
	h.says("desk", "Foam, 1 mm")
	h.wait(`document.querySelector('[data-testid=step-picture]').naturalWidth > 0`)
	h.keys(kb.ArrowLeft)
	h.keys(" ")
	h.says("step-title", "2 · ")
	h.keys(" ")
	h.says("station-assembly", "4 of 6 left")
	h.click("step-large")
	h.wait(`!document.querySelector('[data-testid=step]')`)
	h.keys(kb.Escape)
	h.there("step")
	// It is kept, and goes on where one was.
	h.must(h.Go("/cards/" + h.id + "/assembly"))
	h.says("station-assembly", "4 of 6 left")
	h.says("step-title", "3 · ")
	v, err := h.app.App.Assembly(t.Context(), h.id, measure.In)
	require.NoError(t, err)
	assert.Len(t, v.Done, 2)
	// In a person's own words, with a step of her own, one later and one left out.
	h.must(h.Click("[data-step=cut]"))
	h.says("by-hand", "With the trimmer: 1 in")
	h.click("step-reword")
	h.put("step-new-title", "Cut by knife")
	h.click("reword-do")
	h.says("step-title", "Cut by knife")
	h.click("step-add")
	h.put("step-own-title", "Have tea")
	h.click("add-do")
	h.says("step-title", "2 · Have tea")
	h.click("step-later")
	h.says("step-title", "3 · Have tea")
	h.must(h.Click("[data-step=fold]"))
	h.click("step-out")
	h.there("back-fold")
	h.wait(`document.querySelectorAll('[data-testid=step]').length === 6`)
	doc, err := h.app.App.Open(t.Context(), h.id)
	require.NoError(t, err)
	require.Len(t, doc.Card.Steps, 3)
	h.click("back-fold")
	h.wait(`document.querySelectorAll('[data-testid=step]').length === 7`)
	moving := h.fetch("/api/cards/" + h.id + "/folding.png?side=300")
	first, err := png.Decode(bytes.NewReader(moving))
	require.NoError(t, err)
	assert.Equal(t, 300, max(first.Bounds().Dx(), first.Bounds().Dy()))
	assert.Contains(t, string(moving), "acTL")
	stills, err := png.Decode(bytes.NewReader(h.fetch("/api/cards/" + h.id + "/folding/stills.png?side=300")))
	require.NoError(t, err)
	assert.Zero(t, stills.Bounds().Dx()%5)
	assert.Equal(t, 300, max(stills.Bounds().Dx()/5, stills.Bounds().Dy()))
	for _, per := range []string{"1", "2", "4"} {
		raw := h.fetch("/api/cards/" + h.id + "/assembly.pdf?unit=in&per=" + per)
		require.True(t, bytes.HasPrefix(raw, []byte("%PDF")))
		file := filepath.Join(t.TempDir(), "guide.pdf")
		require.NoError(t, os.WriteFile(file, raw, 0o600))
		text, err := exec.Command("pdftotext", "-layout", file, "-").Output()
		require.NoError(t, err)
		for _, says := range []string{"Trial", "Raise", "Foam", "Close and press", "Without a machine"} {
			assert.Contains(t, strings.ToLower(string(text)), strings.ToLower(says))
		}
	}
}

package e2e

import (
	"testing"

	"github.com/stretchr/testify/require"

	"sectilis/core/coretest/profiletest"
	"sectilis/core/document/card"
	"sectilis/internal/browser"
)

// A test page sets the printer right in tones, on the paper in it, and a profile tells what it lays
// down; both are forgotten again.
func TestAPrinterIsSetRightOnAPaper(t *testing.T) {
	h := headline(t)
	_, err := h.app.App.Change(t.Context(), h.id, 1, []card.Command{card.SetFill{IDs: []string{"i2"}, Fill: card.Fill{Colour: "#b04a34"}}})
	require.NoError(t, err)
	h.must(h.Go("/cards/" + h.id + "/sheets"))
	h.says("profile", "usual on matt card")
	h.choose("printer-stock", "Satin photo 240 g")
	h.says("profile", "usual on photo paper")

	h.click("test-page")
	h.click("take-printed")
	h.says("toned", "corrected, was off by")
	h.must(h.Upload(browser.ID("scan-input"), saved(t, "lake.png", pumpkin(t))))
	h.says("ruler-wrong", "No colour row")
	h.there("toned")
	h.click("as-tones-come")
	h.wait(`!document.querySelector('[data-testid=toned]')`)

	h.choose("printer-stock", "White card 216 g")
	h.must(h.Upload(browser.ID("profile-input"), saved(t, "mine.icc", []byte("no profile"))))
	h.says("ruler-wrong", "profile")
	h.must(h.Upload(browser.ID("profile-input"), saved(t, "mine.icc", profiletest.Pale())))
	h.says("profile", "Corner printer")
	h.wait(`!document.querySelector('[data-testid=ruler-wrong]')`)
	// What comes out dull is told by it at once, on the faces.
	h.must(h.Click(browser.ID("station-panels")))
	h.click("colour-b04a34")
	h.says("colour-dull", "is how it prints")
}

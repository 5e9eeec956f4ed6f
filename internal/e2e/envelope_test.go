package e2e

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/internal/browser"
)

// base is the base of a card as the program has it.
func (h table) base(id string) card.Base {
	h.Helper()
	v, err := h.app.App.Open(h.Context(), id)
	h.must(err)
	return v.Card.Base
}

// A card's envelope is made, follows it to another size, and is let be on its own.
func TestAnEnvelopeStaysWithItsCard(t *testing.T) {
	h := lay(t)
	h.must(h.Go("/cards/" + h.id + "/base"))
	h.says("sending", "A7 envelope fits")
	h.says("make-envelope", "Make the envelope")
	h.click("make-envelope")
	h.says("envelope-for", "“Trial”")
	h.says("envelope-for", "It follows that card.")
	path, err := browser.Eval[string](h.Page, `location.pathname`)
	h.must(err)
	envelope := path[len("/cards/") : len(path)-len("/base")]
	require.NotEqual(t, h.id, envelope)
	first := h.base(envelope)
	assert.Equal(t, card.Envelope, first.Kind)

	h.click("to-its-card")
	h.says("make-envelope", "Go to its envelope")
	h.put("base-width", "4 in")
	require.Eventually(t, func() bool { return h.base(envelope).Height < first.Height-20 }, 30*time.Second, 20*time.Millisecond, "it follows")
	h.click("make-envelope")
	h.says("envelope-for", "It follows that card.")
	h.put("base-width", "8 in")
	h.says("envelope-for", "It is another size now.")
	h.click("to-measure")
	h.says("envelope-for", "It follows that card.")
	h.click("untie")
	h.wait(`!document.querySelector('[data-testid=envelope-for]')`)
	// The check knows of it, too.
	h.must(h.Go("/cards/" + h.id + "/check"))
	h.says("check-envelope", "Make the envelope")
}

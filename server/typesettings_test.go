package server_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/server"
)

// Words are set before they are changed: with the styles of letters that stay, with what they
// say meanwhile, wherever they lie; what no words can be set with is refused by a sentence.
func TestWordsAreSetAsTheyWouldBe(t *testing.T) {
	c, _ := start(t)
	set := func(w card.Words, text *string) (out server.WordsAsSet) {
		raw, err := json.Marshal(server.WordsToSet{Words: w, Text: text})
		require.NoError(t, err)
		require.Equal(t, 200, c.call("POST", "/api/typesettings", string(raw), &out))
		return out
	}
	w := card.Words{Text: "one TWO three", Font: "nunito-400", Size: 8, Leading: 1.2, Align: card.AlignLeft,
		Runs: []card.Run{{From: 4, To: 7, Style: card.Style{Colour: "#a8432a"}}}}
	plain := set(w, nil)
	assert.Len(t, plain.Carets, 14)
	require.Len(t, plain.Parts, 1)
	require.NotNil(t, plain.Rest)
	assert.Greater(t, plain.Rest.Area(), plain.Parts[0].Path.Area())
	assert.InDelta(t, 8, plain.Size, 1e-9)

	longer := set(w, new("one TWENTY three"))
	assert.Len(t, longer.Carets, 17)
	assert.Greater(t, longer.Parts[0].Path.Area(), plain.Parts[0].Path.Area(), "what is typed within letters has their ink")
	gone := set(w, new("one three"))
	assert.Empty(t, gone.Parts)
	assert.Nil(t, gone.Rest)
	empty := set(w, new(""))
	assert.True(t, empty.Outline.Empty(), "what is being written may be empty")
	assert.Len(t, empty.Carets, 1)

	w.Runs, w.Box = nil, &card.TextBox{Width: 30, Height: 10, Fit: true}
	fits := set(w, nil)
	assert.Zero(t, fits.Over)
	assert.NotEqual(t, 8.0, fits.Size)
	assert.InDelta(t, 30, fits.Block.W, 1e-9)
	w.Box = &card.TextBox{Width: 12, Height: 5}
	assert.Positive(t, set(w, nil).Over)
	w.Box, w.Path, w.Align = nil, &card.TextPath{Bend: 90}, card.AlignCentre
	assert.Negative(t, set(w, nil).Carets[0].Up.X, "the first letter leans left")
	assert.Equal(t, "漢", set(w, new("a漢")).Missing)

	for field, change := range map[string]func(*card.Words){
		"text":  func(w *card.Words) { w.Text = strings.Repeat("a", 2001) },
		"size":  func(w *card.Words) { w.Size = 1e9 },
		"bend":  func(w *card.Words) { w.Path = &card.TextPath{Bend: 720} },
		"runs":  func(w *card.Words) { w.Runs = []card.Run{{From: 0, To: 99}} },
		"tie":   func(w *card.Words) { w.Tie = -1 },
		"align": func(w *card.Words) { w.Align = card.AlignJustify },
		"font":  func(w *card.Words) { w.Runs = []card.Run{{From: 0, To: 1, Style: card.Style{Font: "none"}}} },
	} {
		bad := w
		change(&bad)
		raw, err := json.Marshal(server.WordsToSet{Words: bad})
		require.NoError(t, err)
		var p server.Problem
		require.Equal(t, 422, c.call("POST", "/api/typesettings", string(raw), &p), field)
		assert.Equal(t, field, p.Field, p.Detail)
	}
}

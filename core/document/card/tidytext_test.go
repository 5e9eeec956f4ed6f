package card_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/document/card"
)

// Titles and words keep what can be seen, and what scripts need to be set rightly.
func TestWhatCannotBeSeenIsLeftOutOfTitlesAndWords(t *testing.T) {
	for text, want := range map[string]string{
		"Plum Lane":                     "Plum Lane",
		"Plum\x00 La\x07ne":             "Plum Lane",
		"a\u200bb\u2060c\ufeffd\u200ee": "abcde",
		"invoice\u202egnp.exe":          "invoicegnp.exe",
		"\u2066isolated\u2069":          "isolated",
		"two\nlines":                    "two lines",
		"Äpfel, 梅, می\u200cخواهم 👩\u200d🌾": "Äpfel, 梅, می\u200cخواهم 👩\u200d🌾",
		"soft\u00adhyphen": "soft\u00adhyphen",
		"bad \xff byte":    "bad  byte",
	} {
		c, err := card.Apply(coretest.Empty(t), card.RenameCard{Title: text})
		require.NoError(t, err, "%q", text)
		assert.Equal(t, want, c.Title, "%q", text)
	}
	_, err := card.Apply(coretest.Empty(t), card.RenameCard{Title: "\u200b\u202e"})
	require.ErrorContains(t, err, "at least one letter")
	c, err := card.Apply(coretest.Empty(t), card.PlaceItems{Face: card.Front, Items: []card.Item{{
		Name: "Wor\u202eds", Kind: card.Lettering, Place: card.Place{X: 30, Y: 30}, Made: card.Made{As: card.Printed},
		Fill: card.Fill{Colour: "#1f2b38"}, Words: &card.Words{Text: "One\x00\r\ntwo\u200b", Font: "nunito-400", Size: 8, Leading: 1.2, Align: card.AlignLeft},
	}}})
	require.NoError(t, err)
	it := c.Face(card.Front).Items[0]
	assert.Equal(t, []string{"Words", "One\ntwo"}, []string{it.Name, it.Words.Text})
}

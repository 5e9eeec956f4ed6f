package lettering

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// parted is a text with a hyphen wherever it may be parted.
func parted(text string) string {
	at := hyphens([]rune(text))
	var out strings.Builder
	for i, r := range []rune(text) {
		if at[i] {
			out.WriteByte('-')
		}
		out.WriteRune(r)
	}
	return out.String()
}

func TestWordsArePartedAsEnglishWordsAre(t *testing.T) {
	for _, want := range []string{
		"hy-phen-ation", "Con-grat-u-la-tions", "in-vi-ta-tion", "an-niver-sary", "gar-den", "birth-day", "as-so-ciate", "project", "ta-ble",
		"the", "of", "every-body,", "(com-puter)", "McDonald", "NASA", "lemon2go", "Grüße", "поздравляю", "",
	} {
		text := strings.ReplaceAll(want, "-", "")
		assert.Equal(t, want, parted(text))
	}
	assert.Equal(t, "invi\u00ad-tation", parted("invi\u00adtation"), "where it says so, and nowhere else")
}

// Words that are longer than their box have room in parts, each with its hyphen.
func TestPartedWordsHaveRoom(t *testing.T) {
	w := boxed("Congratulations on your extraordinary engagement, grandmother and grandfather.", 28, 0)
	whole, err := Set(w)
	require.NoError(t, err)
	require.Positive(t, whole.Over, "a word is longer than the box")
	w.Box.Hyphenate = true
	lines := linesOf(w, w.Size)
	assert.Equal(t, w.Text, strings.Join(lines, ""))
	s, err := Set(w)
	require.NoError(t, err)
	assert.Zero(t, s.Over)
	n := 0
	for _, l := range newShaper(w).lines(w.Box.Width / w.Size) {
		assert.LessOrEqual(t, l.advance*w.Size, w.Box.Width+1e-9)
		if l.wrapped && !strings.HasSuffix(string(newShaper(w).text[l.from:l.to]), " ") {
			n++
		}
	}
	assert.Positive(t, n, "some words are parted")
}

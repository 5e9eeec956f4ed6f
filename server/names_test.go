package server

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestFilesAreNamedAfterTheirCard(t *testing.T) {
	for title, want := range map[string]string{
		"Thank you, beekeeper": "Thank you, beekeeper, sheets.pdf",
		`Mia/Tom: "5 + 5?"`:    "Mia-Tom- -5 + 5--, sheets.pdf",
		"../../etc\\passwd":    "-..-etc-passwd, sheets.pdf",
		" . ":                  "sheets.pdf",
		"Grüße\u202e 夏":        "Grüße 夏, sheets.pdf",
		"two\nlines":           "twolines, sheets.pdf",
	} {
		assert.Equal(t, want, fileName(title, "sheets.pdf"), "%q", title)
	}
	assert.Len(t, []rune(fileName(strings.Repeat("ö", 500), "x")), maxTitle+len(", x"))
}

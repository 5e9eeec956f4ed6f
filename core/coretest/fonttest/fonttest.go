// Package fonttest makes fonts for tests.
package fonttest

import (
	"bytes"
	"encoding/binary"
	"slices"
	"testing"

	"github.com/go-text/typesetting/font"
	"github.com/go-text/typesetting/font/opentype"
	"github.com/stretchr/testify/require"
)

// WithAlternates is a font as a TTF in which a letter has the forms of others as its stylistic
// alternates (OpenType, GSUB lookup type 3, feature “salt”).
func WithAlternates(t testing.TB, raw []byte, letter rune, others ...rune) []byte {
	t.Helper()
	face, err := font.ParseTTF(bytes.NewReader(raw))
	require.NoError(t, err)
	glyph := func(r rune) uint16 {
		g, ok := face.NominalGlyph(r)
		require.True(t, ok, string(r))
		return uint16(g)
	}
	var alternates []uint16
	for _, r := range others {
		alternates = append(alternates, glyph(r))
	}
	n := uint16(len(alternates))
	// One script, one feature, one lookup with one subtable; offsets count from the start of
	// the list or table that they stand in.
	gsub := slices.Concat(
		words(1, 0, 10, 30, 44),
		words(1), tag("DFLT"), words(8), words(4, 0), words(0, 0xffff, 1, 0),
		words(1), tag("salt"), words(8), words(0, 1, 0),
		words(1, 4), words(3, 0, 1, 8),
		words(1, 8+2+2*n, 1, 8), words(n), words(alternates...),
		words(1, 1, glyph(letter)),
	)
	ld, err := opentype.NewLoader(bytes.NewReader(raw))
	require.NoError(t, err)
	parts := []opentype.Table{{Tag: opentype.MustNewTag("GSUB"), Content: gsub}}
	for _, tag := range ld.Tables() {
		if tag == parts[0].Tag {
			continue
		}
		content, err := ld.RawTable(tag)
		require.NoError(t, err)
		parts = append(parts, opentype.Table{Tag: tag, Content: content})
	}
	return opentype.WriteTTF(parts)
}

func words(v ...uint16) []byte {
	var out []byte
	for _, w := range v {
		out = binary.BigEndian.AppendUint16(out, w)
	}
	return out
}

func tag(s string) []byte { return []byte(s) }

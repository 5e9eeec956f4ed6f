package lettering

import (
	"bytes"
	"encoding/binary"
	"testing"

	"github.com/go-text/typesetting/font/opentype"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// withGlyphs is a font that ships with other glyphs: what each holds is made by a function.
func withGlyphs(t *testing.T, glyph func(i, n int) []byte) []byte {
	t.Helper()
	ld, err := opentype.NewLoader(bytes.NewReader(loose(t, "courier-prime-400")))
	require.NoError(t, err)
	maxp, err := ld.RawTable(opentype.MustNewTag("maxp"))
	require.NoError(t, err)
	n := int(binary.BigEndian.Uint16(maxp[4:]))
	var glyf, loca []byte
	for i := range n {
		loca = binary.BigEndian.AppendUint32(loca, uint32(len(glyf)))
		glyf = append(glyf, glyph(i, n)...)
		for len(glyf)%4 != 0 {
			glyf = append(glyf, 0)
		}
	}
	loca = binary.BigEndian.AppendUint32(loca, uint32(len(glyf)))
	var parts []opentype.Table
	for _, tag := range ld.Tables() {
		content, err := ld.RawTable(tag)
		require.NoError(t, err)
		switch tag.String() {
		case "glyf":
			content = glyf
		case "loca":
			content = loca
		case "head":
			content = bytes.Clone(content)
			binary.BigEndian.PutUint16(content[50:], 1)
		}
		parts = append(parts, opentype.Table{Tag: tag, Content: content})
	}
	return sfnt(parts, false)
}

func words16(v ...uint16) (out []byte) {
	for _, w := range v {
		out = binary.BigEndian.AppendUint16(out, w)
	}
	return out
}

// triangle is a glyph of three points.
func triangle() []byte {
	return append(words16(1, 0, 0, 100, 100, 2, 0), 1, 1, 1, 0, 0, 0, 100, 0, 50, 0, 0, 0, 0, 0, 100)
}

// madeOf is a glyph of so many parts that are another glyph.
func madeOf(of, count int) []byte {
	out := words16(0xffff, 0, 0, 100, 100)
	for k := range count {
		flags := uint16(2) // offsets, as bytes
		if k < count-1 {
			flags |= moreParts
		}
		out = append(out, words16(flags, uint16(of))...)
		out = append(out, 0, 0)
	}
	return out
}

// A font whose glyphs are parts of parts of parts is refused before any of it is drawn: of 10 parts a level and
// 9 levels a thousand million would be.
func TestAFontOfPartsOfPartsIsRefused(t *testing.T) {
	bomb := withGlyphs(t, func(i, _ int) []byte {
		if i == 0 || i > 9 {
			return triangle()
		}
		return madeOf(i-1, 10)
	})
	_, err := Read("bomb.ttf", bomb)
	require.Error(t, err)
	assert.Contains(t, err.Error(), "one of its letters holds more than")
	_, err = Add(Own{Font: Font{ID: "own-bomb", Own: true}, Raw: bomb}, true)
	assert.Error(t, err, "nor is one that was kept before")

	itself := withGlyphs(t, func(i, n int) []byte { return madeOf((i+1)%n, 1) })
	_, err = Read("itself.ttf", itself)
	require.Error(t, err)
	assert.Contains(t, err.Error(), "or itself")

	fair := withGlyphs(t, func(i, _ int) []byte {
		if i == 0 || i > 2 {
			return triangle()
		}
		return madeOf(i-1, 5)
	})
	_, err = Read("fair.ttf", fair)
	assert.NoError(t, err)
}

func TestFontsThatShipAreNotTooLarge(t *testing.T) {
	for _, f := range Fonts() {
		ld, err := opentype.NewLoader(bytes.NewReader(loose(t, f.ID)))
		require.NoError(t, err)
		assert.False(t, tooLarge(ld), f.ID)
	}
}

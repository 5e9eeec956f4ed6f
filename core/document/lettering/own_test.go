package lettering

import (
	"bytes"
	"encoding/binary"
	"math/rand/v2"
	"os"
	"strings"
	"testing"

	"github.com/go-text/typesetting/font/opentype"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest/fonttest"
	"sectilis/core/document/card"
)

// loose is a face that ships as a font file without a container.
func loose(t testing.TB, id string) []byte {
	t.Helper()
	files, err := collection(grouped(t, id), func(string, ...any) error { return assert.AnError })
	require.NoError(t, err)
	return files[0]
}

// grouped is a collection of faces that ship.
func grouped(t testing.TB, ids ...string) []byte {
	t.Helper()
	out := append([]byte("ttcf\x00\x01\x00\x00"), binary.BigEndian.AppendUint32(nil, uint32(len(ids)))...)
	at := len(out) + 4*len(ids)
	var bodies []byte
	for _, id := range ids {
		ld, err := opentype.NewLoader(bytes.NewReader(File(id)))
		require.NoError(t, err)
		var parts []opentype.Table
		for _, tag := range ld.Tables() {
			content, err := ld.RawTable(tag)
			require.NoError(t, err)
			parts = append(parts, opentype.Table{Tag: tag, Content: content})
		}
		body := sfnt(parts, ld.HasTable(opentype.MustNewTag("CFF ")))
		for i := range parts { // places are counted from the start of the collection
			entry := body[12+16*i+8:]
			binary.BigEndian.PutUint32(entry, binary.BigEndian.Uint32(entry)+uint32(at+len(bodies)))
		}
		out = binary.BigEndian.AppendUint32(out, uint32(at+len(bodies)))
		bodies = append(bodies, body...)
	}
	return append(out, bodies...)
}

func shipped(t testing.TB, name string) []byte {
	t.Helper()
	raw, err := os.ReadFile(name)
	require.NoError(t, err)
	return raw
}

// alike looks whether words are set in both fonts with the same outlines.
func alike(t *testing.T, a, b, text string) {
	t.Helper()
	set := func(id string) Setting {
		s, err := Set(card.Words{Text: text, Font: id, Size: 10, Leading: 1.2, Align: card.AlignLeft})
		require.NoError(t, err)
		return s
	}
	p, q := set(a), set(b)
	assert.InDelta(t, p.Outline.Area(), q.Outline.Area(), 1e-6)
	assert.Equal(t, p.Outline.Len(), q.Outline.Len())
	assert.InDelta(t, p.Block.W, q.Block.W, 1e-6)
}

// Whatever container a face comes in, its letters are the same.
func TestFontsOfOnesOwnAreRead(t *testing.T) {
	const text = "Hamburgefons & Øyvind, 1234567890 ffi"
	for name, raw := range map[string][]byte{
		"a.woff2": shipped(t, "testdata/lilita-one-400.woff2"),
		"a.woff":  File("lilita-one-400"),
		"a.ttf":   loose(t, "lilita-one-400"),
	} {
		faces, err := Read(name, raw)
		require.NoError(t, err, name)
		require.Len(t, faces, 1)
		f, err := Add(faces[0], true)
		require.NoError(t, err)
		assert.Equal(t, "Lilita One", f.Name)
		assert.True(t, f.Own)
		assert.Equal(t, Installable, f.Embedding)
		assert.Contains(t, f.LicenceURL, "http")
		ready, _ := ByID("lilita-one-400")
		assert.InDelta(t, ready.Stem, f.Stem, .002)
		assert.True(t, Known(f.ID))
		alike(t, "lilita-one-400", f.ID, text)
		assert.Equal(t, f.ID, Fonts()[0].ID, "the newest is offered first")
		Withdraw(f.ID)
		assert.NotEqual(t, f.ID, Fonts()[0].ID)
		assert.True(t, Known(f.ID), "words in it stay")
	}
	faces, err := Read("b.ttc", grouped(t, "pacifico-400", "zilla-slab-600", "nunito-400"))
	require.NoError(t, err)
	require.Len(t, faces, 3)
	for i, id := range []string{"pacifico-400", "zilla-slab-600", "nunito-400"} {
		f, err := Add(faces[i], false)
		require.NoError(t, err)
		alike(t, id, f.ID, text)
	}
	assert.True(t, faces[0].Name == "Pacifico" && strings.HasPrefix(faces[1].Name, "Zilla Slab"), faces[1].Name)
}

func TestWhatIsNoFontIsRefused(t *testing.T) {
	woff2, woff, ttf := shipped(t, "testdata/lilita-one-400.woff2"), File("lilita-one-400"), loose(t, "lilita-one-400")
	patched := func(raw []byte, at int, v uint32) []byte {
		out := bytes.Clone(raw)
		binary.BigEndian.PutUint32(out[at:], v)
		return out
	}
	without := func(tag string) []byte {
		ld, err := opentype.NewLoader(bytes.NewReader(ttf))
		require.NoError(t, err)
		var parts []opentype.Table
		for _, k := range ld.Tables() {
			content, err := ld.RawTable(k)
			require.NoError(t, err)
			if k.String() != tag {
				parts = append(parts, opentype.Table{Tag: k, Content: content})
			}
		}
		return sfnt(parts, false)
	}
	for name, c := range map[string]struct {
		raw  []byte
		says string
	}{
		"nothing":         {nil, "is no font"},
		"a picture":       {[]byte("\x89PNG\r\n\x1a\n            "), "is no font"},
		"cut off":         {ttf[:len(ttf)/2], "cut off"},
		"a cut woff":      {woff[:len(woff)/2], "damaged"},
		"a cut woff2":     {woff2[:len(woff2)/2], "damaged"},
		"large claims":    {patched(woff, 44+12, 1<<31), "too large"},
		"no outlines":     {without("glyf"), ""},
		"no letters":      {without("cmap"), ""},
		"far tables":      {patched(ttf, 12+8, 1<<31), "cut off"},
		"many faces":      {patched(grouped(t, "nunito-400"), 8, 1<<30), "collection"},
		"far face":        {patched(grouped(t, "nunito-400"), 12, 1<<30), "cut off"},
		"packed nonsense": {patched(woff2, 20, 1<<30), "damaged"},
	} {
		_, err := Read(name, c.raw)
		var refused *Error
		if assert.ErrorAs(t, err, &refused, name) {
			assert.Contains(t, refused.Why, c.says, name)
			assert.NotContains(t, refused.Why, "panic")
		}
	}
}

// Bytes that are changed anywhere are refused in a sentence, or set.
func TestSpoiltFontsDoNoHarm(t *testing.T) {
	seeds := [][]byte{File("lilita-one-400"), loose(t, "amatic-sc-700"), grouped(t, "amatic-sc-700"), shipped(t, "testdata/lilita-one-400.woff2")}
	rnd := rand.New(rand.NewPCG(1, 1))
	taken := 0
	for n := range 400 {
		raw := bytes.Clone(seeds[n%len(seeds)])
		for range 1 + rnd.IntN(12) {
			at := rnd.IntN(len(raw))
			if rnd.IntN(2) == 0 {
				at = rnd.IntN(600) // where the directories are
			}
			raw[at] = byte(rnd.IntN(256))
		}
		taken += tried(t, raw)
	}
	assert.Greater(t, taken, 20)
}

// tried reads a font file and sets words in its faces; it returns how many could be.
func tried(t *testing.T, raw []byte) (set int) {
	t.Helper()
	faces, err := Read("x.ttf", raw)
	if err != nil {
		var refused *Error
		require.ErrorAs(t, err, &refused)
		return 0
	}
	for _, face := range faces {
		if _, err := Add(face, false); err != nil {
			continue
		}
		if _, err := Set(card.Words{Text: "Ag&ß1", Font: face.ID, Size: 8, Leading: 1, Align: card.AlignLeft}); err == nil {
			set++
		}
	}
	return set
}

func FuzzFonts(f *testing.F) {
	f.Add(File("lilita-one-400"))
	f.Add(loose(f, "amatic-sc-700"))
	f.Add(grouped(f, "amatic-sc-700"))
	f.Add(shipped(f, "testdata/lilita-one-400.woff2"))
	f.Fuzz(func(t *testing.T, raw []byte) { tried(t, raw) })
}

// A letter's alternates come by their numbers, after its usual form, and are set so.
func TestAlternatesOfALetterAreShownAndSet(t *testing.T) {
	faces, err := Read("Signs.ttf", fonttest.WithAlternates(t, File("alfa-slab-one-400"), 'a', 'q', 'R'))
	require.NoError(t, err)
	f, err := Add(faces[0], true)
	require.NoError(t, err)
	t.Cleanup(func() { Withdraw(f.ID) })
	forms := Forms(f.ID, 'a', 10)
	require.Len(t, forms, 3)
	for i, letter := range []string{"a", "q", "R"} {
		want, _, _, err := Line("alfa-slab-one-400", letter, 10, 0)
		require.NoError(t, err)
		assert.InDelta(t, want.Area(), forms[i].Area(), 1e-6)
		w := words("aa", f.ID)
		w.Size, w.Runs = 10, []card.Run{{From: 1, To: 2, Style: card.Style{Alternate: i}}}
		letters, err := Letters(w)
		require.NoError(t, err)
		assert.InDelta(t, want.Area(), letters[1].Outline.Area(), 1e-6)
		assert.InDelta(t, forms[0].Area(), letters[0].Outline.Area(), 1e-6)
	}
	assert.Len(t, Forms(f.ID, 'b', 10), 1)
	assert.Empty(t, Forms(f.ID, '🦆', 10))
	assert.Empty(t, Forms("none", 'b', 10))
}

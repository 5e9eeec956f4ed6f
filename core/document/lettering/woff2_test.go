package lettering

import (
	"bytes"
	"encoding/binary"
	"testing"

	"github.com/andybalholm/brotli"
	"github.com/go-text/typesetting/font/opentype"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The numbers of WOFF2, by the examples of its specification.
func TestPackedNumbers(t *testing.T) {
	for _, c := range []struct {
		raw  []byte
		want int
	}{{[]byte{0x3f}, 63}, {[]byte{0x81, 0x00}, 128}, {[]byte{0x8f, 0xff, 0xff, 0xff, 0x7f}, 1<<32 - 1}} {
		in := cursor{b: c.raw}
		assert.Equal(t, c.want, in.base128())
		assert.False(t, in.broken)
	}
	for raw, want := range map[string]int{"\x00": 0, "\xfc": 252, "\xff\x00": 253, "\xff\xfd": 506, "\xfe\x00": 506, "\xfd\x01\xfa": 506, "\xfd\xff\xff": 65535} {
		in := cursor{b: []byte(raw)}
		assert.Equal(t, want, in.packed16(), "%x", raw)
	}
	long := cursor{b: []byte{0x80, 0x80, 0x80, 0x80, 0x80, 0x01}}
	long.base128()
	assert.True(t, long.broken, "more than five bytes")
	short := cursor{b: []byte{1}}
	assert.Zero(t, short.u32())
	assert.Zero(t, short.u8(), "and nothing after it")
	assert.True(t, short.broken)
}

// Every way in which a step of an outline is packed, with the signs and sizes of the table in
// section 5.2.
func TestTriplets(t *testing.T) {
	for _, c := range []struct {
		flag   int
		raw    []byte
		dx, dy int
	}{
		{0, []byte{5}, 0, -5}, {1, []byte{5}, 0, 5}, {3, []byte{5}, 0, 261}, {9, []byte{255}, 0, 1279},
		{10, []byte{7}, -7, 0}, {11, []byte{7}, 7, 0}, {19, []byte{255}, 1279, 0},
		{20, []byte{0x00}, -1, -1}, {23, []byte{0x00}, 1, 1}, {83, []byte{0xff}, 64, 64},
		{84, []byte{0, 0}, -1, -1}, {119, []byte{255, 255}, 768, 768},
		{123, []byte{0x12, 0x34, 0x56}, 0x123, 0x456}, {120, []byte{0x12, 0x34, 0x56}, -0x123, -0x456},
		{127, []byte{0x01, 0x02, 0x03, 0x04}, 0x102, 0x304}, {124, []byte{0x01, 0x02, 0x03, 0x04}, -0x102, -0x304},
	} {
		in := cursor{b: c.raw}
		dx, dy := triplet(c.flag, &in)
		assert.Equal(t, [2]int{c.dx, c.dy}, [2]int{dx, dy}, "flag %d", c.flag)
		assert.Empty(t, in.b, "flag %d takes all its bytes", c.flag)
		assert.False(t, in.broken)
	}
}

// plain packs the tables of a face as they are, into a WOFF2 file that claims some size for them.
func plain(t *testing.T, id string, claimed uint32) []byte {
	t.Helper()
	ld, err := opentype.NewLoader(bytes.NewReader(File(id)))
	require.NoError(t, err)
	number := func(v int) (out []byte) {
		for out = []byte{byte(v & 0x7f)}; v > 0x7f; {
			v >>= 7
			out = append([]byte{byte(v&0x7f) | 0x80}, out...)
		}
		return out
	}
	var entries, body []byte
	tags := ld.Tables()
	for _, tag := range tags {
		content, err := ld.RawTable(tag)
		require.NoError(t, err)
		flags := byte(63)
		if tag.String() == "glyf" || tag.String() == "loca" {
			flags |= 3 << 6 // as they are
		}
		entries = append(append(append(entries, flags), tag.String()...), number(len(content))...)
		body = append(body, content...)
	}
	var packed bytes.Buffer
	w := brotli.NewWriter(&packed)
	_, err = w.Write(body)
	require.NoError(t, err)
	require.NoError(t, w.Close())
	out := append([]byte("wOF2\x00\x01\x00\x00"), make([]byte, 40)...)
	binary.BigEndian.PutUint16(out[12:], uint16(len(tags)))
	binary.BigEndian.PutUint32(out[20:], uint32(packed.Len()))
	if claimed > 0 {
		binary.BigEndian.PutUint32(out[20:], claimed)
	}
	return append(append(out, entries...), packed.Bytes()...)
}

// Tables that were not taken apart come out as they went in.
func TestTablesAsTheyAreComeOutSo(t *testing.T) {
	file, err := fromWOFF2(plain(t, "zilla-slab-600", 0))
	require.NoError(t, err)
	a, err := opentype.NewLoader(bytes.NewReader(file))
	require.NoError(t, err)
	b, err := opentype.NewLoader(bytes.NewReader(File("zilla-slab-600")))
	require.NoError(t, err)
	require.Equal(t, b.Tables(), a.Tables())
	for _, tag := range b.Tables() {
		want, err := b.RawTable(tag)
		require.NoError(t, err)
		got, err := a.RawTable(tag)
		require.NoError(t, err)
		assert.Equal(t, want, got, tag.String())
	}
	_, err = fromWOFF2(plain(t, "zilla-slab-600", 1<<30))
	assert.ErrorIs(t, err, errWOFF2, "more than the file holds")
}

// What unpacks to more than its tables say, however much, is left off at once.
func TestWhatUnpacksWithoutEndIsLeftOff(t *testing.T) {
	var packed bytes.Buffer
	w := brotli.NewWriter(&packed)
	for range 64 {
		_, err := w.Write(make([]byte, 1<<20))
		require.NoError(t, err)
	}
	require.NoError(t, w.Close())
	assert.Less(t, packed.Len(), 1<<16)
	out := append([]byte("wOF2\x00\x01\x00\x00"), make([]byte, 40)...)
	binary.BigEndian.PutUint16(out[12:], 1)
	binary.BigEndian.PutUint32(out[20:], uint32(packed.Len()))
	out = append(append(out, 63, 'n', 'a', 'm', 'e', 100), packed.Bytes()...)
	_, err := fromWOFF2(out)
	assert.ErrorIs(t, err, errWOFF2)
	_, err = Read("bomb.woff2", out)
	assert.ErrorContains(t, err, "“bomb.woff2” is damaged")
}

package demo

import (
	"encoding/binary"
	"math"
	"slices"
	"unicode/utf16"

	"github.com/go-text/typesetting/font/opentype"

	"sectilis/core/ground/geom"
)

// stampLetters are the letters of the stamp typeface, each in five by seven squares.
const stampLetters = `
A .###. #...# #...# ##### #...# #...# #...#
B ####. #...# #...# ####. #...# #...# ####.
C .#### #.... #.... #.... #.... #.... .####
D ####. #...# #...# #...# #...# #...# ####.
E ##### #.... #.... ####. #.... #.... #####
G .#### #.... #.... #..## #...# #...# .####
H #...# #...# #...# ##### #...# #...# #...#
I ..#.. ..#.. ..#.. ..#.. ..#.. ..#.. ..#..
L #.... #.... #.... #.... #.... #.... #####
M #...# ##.## #.#.# #.#.# #...# #...# #...#
N #...# ##..# #.#.# #.#.# #..## #...# #...#
O .###. #...# #...# #...# #...# #...# .###.
P ####. #...# #...# ####. #.... #.... #....
R ####. #...# #...# ####. #.#.. #..#. #...#
S .#### #.... #.... .###. ....# ....# ####.
T ##### ..#.. ..#.. ..#.. ..#.. ..#.. ..#..
U #...# #...# #...# #...# #...# #...# .###.
Y #...# #...# .#.#. ..#.. ..#.. ..#.. ..#..`

// The stamp typeface in units of which 1000 are an em: the side of a square, and the advance of a letter.
const (
	stampSquare  = 100
	stampAdvance = 600
)

// StampFont is a typeface drawn for the demo, as TTF (OpenType 1.9), whose file does not allow embedding.
// Small letters look like capitals.
func StampFont() []byte {
	letters, outlines := stampOutlines()
	glyphs := [][]geom.Path{{geom.RectPath(geom.Rect{X: 50, W: 400, H: 700})}, nil} // what is not there, and a space
	glyphs = append(glyphs, outlines...)
	n := uint16(len(glyphs))
	var glyf, loca, hmtx []byte
	points, contours := 0, 0
	for _, rings := range glyphs {
		loca = binary.BigEndian.AppendUint32(loca, uint32(len(glyf)))
		raw, left, p := stampGlyph(rings)
		glyf, points, contours = append(glyf, raw...), max(points, p), max(contours, len(rings))
		hmtx = append(hmtx, words(stampAdvance, left)...)
	}
	loca = binary.BigEndian.AppendUint32(loca, uint32(len(glyf)))
	top, foot := uint16(800), int16(-200)
	tables := []opentype.Table{
		{Tag: tag("OS/2"), Content: slices.Concat(words(4, stampAdvance, 700, 5, 2), make([]byte, 22), words(0, 0, 0, 0), make([]byte, 8), []byte("PLUM"),
			words(0x40, ' ', 'y', top, uint16(foot), 0, top, uint16(-foot)), make([]byte, 8), words(500, 700, 0, ' ', 1))},
		{Tag: tag("cmap"), Content: stampCharacters(letters)},
		{Tag: tag("glyf"), Content: glyf},
		{Tag: tag("head"), Content: slices.Concat(words(1, 0, 1, 0, 0, 0, 0x5f0f, 0x3cf5, 0, 1000), make([]byte, 16), words(0, 0, 500, 700, 0, 8, 2, 1, 0))},
		{Tag: tag("hhea"), Content: slices.Concat(words(1, 0, top, uint16(foot), 0, stampAdvance, 0, 0, 500, 1, 0, 0), make([]byte, 10), words(n))},
		{Tag: tag("hmtx"), Content: hmtx},
		{Tag: tag("loca"), Content: loca},
		{Tag: tag("maxp"), Content: slices.Concat(words(1, 0, n, uint16(points), uint16(contours)), make([]byte, 4), words(2), make([]byte, 14), make([]byte, 2))},
		{Tag: tag("name"), Content: stampNames()},
		{Tag: tag("post"), Content: slices.Concat(words(3, 0), make([]byte, 28))},
	}
	return opentype.WriteTTF(tables)
}

func tag(s string) opentype.Tag { return opentype.MustNewTag(s) }

// words are numbers as font files have them.
func words(v ...uint16) []byte {
	out, err := binary.Append(nil, binary.BigEndian, v)
	if err != nil {
		panic(err) // numbers of a fixed size can always be written
	}
	return out
}

// stampOutlines are the letters and the rings of each, up being up.
func stampOutlines() (letters []rune, outlines [][]geom.Path) {
	var squares []geom.Path
	x, y := 0.0, 0.0
	done := func() {
		if len(letters) > 0 {
			outlines = append(outlines, geom.Union(geom.NonZero, squares...).Rings())
		}
		squares = nil
	}
	for _, c := range stampLetters {
		switch c {
		case '\n':
			if len(squares) > 0 {
				done()
			}
		case ' ':
			x, y = 0, y-stampSquare
		case '#', '.':
			if c == '#' {
				squares = append(squares, geom.RectPath(geom.Rect{X: x, Y: y, W: stampSquare, H: stampSquare}))
			}
			x += stampSquare
		default:
			letters = append(letters, c)
			y = 7 * stampSquare
		}
	}
	done()
	return letters, outlines
}

// stampGlyph is a glyph of straight rings, where its ink begins, and how many points it has.
func stampGlyph(rings []geom.Path) (raw []byte, left uint16, points int) {
	if len(rings) == 0 {
		return nil, 0, 0
	}
	box := geom.Join(rings...).Bounds()
	at := func(v float64) uint16 { return uint16(int16(math.Round(v))) }
	raw = words(uint16(len(rings)), at(box.X), at(box.Y), at(box.Right()), at(box.Bottom()))
	var xs, ys []byte
	var last geom.Point
	for _, r := range rings {
		for _, c := range slices.Backward(r.Curves()[0]) { // outer rings run clockwise with up being up
			p := c.From
			xs, ys = append(xs, words(at(p.X-last.X))...), append(ys, words(at(p.Y-last.Y))...)
			last = p
			points++
		}
		raw = append(raw, words(uint16(points-1))...)
	}
	const onCurve = 1
	raw = slices.Concat(raw, words(0), slices.Repeat([]byte{onCurve}, points), xs, ys)
	if len(raw)%4 != 0 {
		raw = append(raw, make([]byte, 4-len(raw)%4)...)
	}
	return raw, at(box.X), points
}

// stampCharacters maps characters to glyphs (cmap, format 12): the letters from the third on, small ones too.
func stampCharacters(letters []rune) []byte {
	type group struct{ char, glyph uint32 }
	groups := []group{{' ', 1}}
	for i, c := range letters {
		groups = append(groups, group{uint32(c), uint32(i + 2)}, group{uint32(c - 'A' + 'a'), uint32(i + 2)})
	}
	slices.SortFunc(groups, func(a, b group) int { return int(a.char) - int(b.char) })
	var body []byte
	for _, g := range groups {
		for _, v := range []uint32{g.char, g.char, g.glyph} {
			body = binary.BigEndian.AppendUint32(body, v)
		}
	}
	out := words(0, 1, 3, 10, 0, 12, 12, 0)
	out = binary.BigEndian.AppendUint32(out, uint32(16+len(body)))
	out = binary.BigEndian.AppendUint32(out, 0)
	out = binary.BigEndian.AppendUint32(out, uint32(len(groups)))
	return append(out, body...)
}

func stampNames() []byte {
	names := []struct {
		id   uint16
		text string
	}{{0, "Drawn for the Plum Lane Allotments"}, {1, "Plum Lane Stamp"}, {2, "Regular"}, {4, "Plum Lane Stamp"}, {6, "PlumLaneStamp"}, {13, "For the notices of the society; not to be put into files that are handed on."}}
	var records, text []byte
	for _, n := range names {
		raw := words(utf16.Encode([]rune(n.text))...)
		records = append(records, words(3, 1, 0x409, n.id, uint16(len(raw)), uint16(len(text)))...)
		text = append(text, raw...)
	}
	return slices.Concat(words(0, uint16(len(names)), uint16(6+len(records))), records, text)
}

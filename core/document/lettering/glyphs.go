package lettering

import (
	"encoding/binary"

	"github.com/go-text/typesetting/font/opentype"
)

// The most that a glyph may hold after its parts are put in, and parts in parts: what is drawn by hand has some
// hundreds of points and a handful of parts.
const (
	maxGlyphPoints = 20_000
	maxGlyphParts  = 400
)

// Flags of a part of a composite glyph (OpenType, glyf table).
const (
	wordArguments = 0x1
	oneScale      = 0x8
	moreParts     = 0x20
	twoScales     = 0x40
	fourScales    = 0x80
)

// glyphBodies reads how large the glyphs of a TrueType font are without drawing them.
type glyphBodies struct {
	glyf, loca []byte
	long       bool
	sizes      map[int]glyphSize
}

// glyphSize is what a glyph holds after its parts are put in. Open says that it is being counted, which a part
// of itself meets.
type glyphSize struct {
	points, parts int
	open          bool
}

// tooLarge reports whether a glyph of a TrueType font grows past what is taken, or holds itself.
func tooLarge(ld *opentype.Loader) bool {
	table := func(name string) []byte {
		raw, err := ld.RawTable(opentype.MustNewTag(name))
		if err != nil {
			return nil
		}
		return raw
	}
	g := glyphBodies{glyf: table("glyf"), loca: table("loca"), sizes: map[int]glyphSize{}}
	head := table("head")
	if g.glyf == nil || len(head) < 52 {
		return false // it has other outlines, or none
	}
	g.long = binary.BigEndian.Uint16(head[50:]) == 1
	n := len(g.loca)/2 - 1
	if g.long {
		n = len(g.loca)/4 - 1
	}
	for i := range n {
		if s := g.size(i); s.points > maxGlyphPoints || s.parts > maxGlyphParts {
			return true
		}
	}
	return false
}

// body is the data of a glyph; empty for one that has none or lies beyond the table.
func (g *glyphBodies) body(i int) []byte {
	var from, to int
	switch {
	case i < 0:
		return nil
	case g.long && 4*i+8 <= len(g.loca):
		from, to = int(binary.BigEndian.Uint32(g.loca[4*i:])), int(binary.BigEndian.Uint32(g.loca[4*i+4:]))
	case !g.long && 2*i+4 <= len(g.loca):
		from, to = 2*int(binary.BigEndian.Uint16(g.loca[2*i:])), 2*int(binary.BigEndian.Uint16(g.loca[2*i+2:]))
	}
	if from < 0 || to > len(g.glyf) || from+10 > to {
		return nil
	}
	return g.glyf[from:to]
}

// size counts a glyph once; what holds itself is larger than anything.
func (g *glyphBodies) size(i int) glyphSize {
	const beyond = maxGlyphPoints + 1
	if s, known := g.sizes[i]; known {
		if s.open {
			return glyphSize{points: beyond}
		}
		return s
	}
	raw := g.body(i)
	if raw == nil {
		return glyphSize{}
	}
	g.sizes[i] = glyphSize{open: true}
	var s glyphSize
	if contours := int(int16(binary.BigEndian.Uint16(raw))); contours > 0 {
		if end := 10 + 2*contours; end <= len(raw) {
			s.points = int(binary.BigEndian.Uint16(raw[end-2:])) + 1
		}
	} else if contours < 0 {
		for at, more := 10, true; more && at+4 <= len(raw); {
			flags := binary.BigEndian.Uint16(raw[at:])
			part := g.size(int(binary.BigEndian.Uint16(raw[at+2:])))
			s.points, s.parts = min(s.points+part.points, beyond), min(s.parts+1+part.parts, maxGlyphParts+1)
			at += 6
			for _, f := range []struct {
				flag uint16
				more int
			}{{wordArguments, 2}, {oneScale, 2}, {twoScales, 4}, {fourScales, 8}} {
				if flags&f.flag != 0 {
					at += f.more
				}
			}
			more = flags&moreParts != 0
		}
	}
	g.sizes[i] = s
	return s
}

package lettering

import (
	"bytes"
	"encoding/binary"
	"errors"
	"io"
	"math"
	"slices"
	"strings"

	"github.com/andybalholm/brotli"
	"github.com/go-text/typesetting/font/opentype"
)

// errWOFF2 is returned for a WOFF2 file that does not hold what it says.
var errWOFF2 = errors.New("no sound WOFF2 file")

// knownTags are the tables that WOFF2 names by a number, in its order.
var knownTags = strings.Split("cmap|head|hhea|hmtx|maxp|name|OS/2|post|cvt |fpgm|glyf|loca|prep|CFF |VORG|EBDT|EBLC|gasp|hdmx|kern|LTSH|PCLT|VDMX|vhea|vmtx|BASE|GDEF|GPOS|GSUB|EBSC|JSTF|MATH|CBDT|CBLC|COLR|CPAL|SVG |sbix|acnt|avar|bdat|bloc|bsln|cvar|fdsc|feat|fmtx|fvar|gvar|hsty|just|lcar|mort|morx|opbd|prop|trak|Zapf|Silf|Glat|Gloc|Feat|Sill", "|")

// cursor reads big-endian numbers; once it has been asked for more than there is, it is broken
// and gives nothing but zeros.
type cursor struct {
	b      []byte
	broken bool
}

func (c *cursor) take(n int) []byte {
	if n < 0 || n > len(c.b) {
		c.broken, c.b = true, nil
	}
	if c.broken {
		return make([]byte, min(max(n, 0), 8))
	}
	out := c.b[:n:n]
	c.b = c.b[n:]
	return out
}

func (c *cursor) u8() int  { return int(c.take(1)[0]) }
func (c *cursor) u16() int { return int(binary.BigEndian.Uint16(c.take(2))) }
func (c *cursor) i16() int { return int(int16(c.u16())) }
func (c *cursor) u32() int { return int(binary.BigEndian.Uint32(c.take(4))) }

// base128 is a number of 7 bits a byte, of 5 bytes at most.
func (c *cursor) base128() int {
	v := 0
	for range 5 {
		b := c.u8()
		if v = v<<7 | b&0x7f; b&0x80 == 0 {
			return v
		}
	}
	c.broken = true
	return 0
}

// packed16 is a number of 1 to 3 bytes.
func (c *cursor) packed16() int {
	switch b := c.u8(); b {
	case 253:
		return c.u16()
	case 254:
		return c.u8() + 506
	case 255:
		return c.u8() + 253
	default:
		return b
	}
}

// woff2Entry is a table by its size in what is packed.
type woff2Entry struct {
	tag         string
	size        int
	transformed bool
}

// directory reads the entries of the tables, and how large they are together; the cursor is
// broken where they are not sound, or larger than maxFont.
func directory(head *cursor, count int) (entries []woff2Entry, total int) {
	for range count {
		flags := head.u8()
		var e woff2Entry
		if k := flags & 0x3f; k < len(knownTags) {
			e.tag = knownTags[k]
		} else {
			e.tag = string(head.take(4))
		}
		version := flags >> 6
		outlines := e.tag == "glyf" || e.tag == "loca"
		e.size = head.base128()
		if e.transformed = outlines && version == 0 || e.tag == "hmtx" && version == 1; e.transformed {
			e.size = head.base128()
		} else if version != 0 && !(outlines && version == 3) {
			head.broken = true
		}
		entries = append(entries, e)
		if total += e.size; head.broken || total > maxFont {
			head.broken = true
			return nil, 0
		}
	}
	return entries, total
}

// fromWOFF2 unpacks a WOFF2 file with one face (W3C, WOFF File Format 2.0). It returns errWOFF2
// for what is none, and for what unpacks to more than maxFont bytes.
func fromWOFF2(raw []byte) ([]byte, error) {
	head := cursor{b: raw}
	head.take(4)
	flavour := string(head.take(4))
	head.take(4)
	count := head.u16()
	head.take(6)
	packed := head.u32()
	head.take(24)
	if flavour == "ttcf" || count == 0 {
		return nil, errWOFF2
	}
	entries, total := directory(&head, count)
	if head.broken {
		return nil, errWOFF2
	}
	data, err := io.ReadAll(io.LimitReader(brotli.NewReader(bytes.NewReader(head.take(packed))), int64(total)+1))
	if err != nil || head.broken || len(data) != total {
		return nil, errWOFF2
	}
	t := woff2Tables{}
	body := cursor{b: data}
	var widths []byte
	for _, e := range entries {
		content := body.take(e.size)
		switch {
		case e.transformed && e.tag == "glyf":
			if err := t.outlines(content); err != nil {
				return nil, err
			}
		case e.transformed && e.tag == "loca":
			// It follows from the outlines.
		case e.transformed:
			widths = content
		default:
			t.add(e.tag, content)
		}
	}
	if widths != nil {
		if err := t.metrics(widths); err != nil {
			return nil, err
		}
	}
	slices.SortFunc(t.parts, func(a, b opentype.Table) int { return int(int64(a.Tag) - int64(b.Tag)) })
	return sfnt(t.parts, flavour == "OTTO"), nil
}

// woff2Tables are the tables of a font that is being unpacked.
type woff2Tables struct {
	parts []opentype.Table
	lefts []int // the least x of every glyph
	long  bool  // glyphs are found by offsets of four bytes
}

func (t *woff2Tables) add(tag string, content []byte) {
	if tag == "head" && t.long && len(content) > 51 {
		content = slices.Clone(content)
		content[50], content[51] = 0, 1
	}
	t.parts = append(t.parts, opentype.Table{Tag: opentype.MustNewTag(tag), Content: content})
}

func (t *woff2Tables) table(tag string) []byte {
	for _, p := range t.parts {
		if p.Tag == opentype.MustNewTag(tag) {
			return p.Content
		}
	}
	return nil
}

// outlines writes the tables glyf and loca from the streams that they were taken apart into.
func (t *woff2Tables) outlines(content []byte) error {
	c := cursor{b: content}
	c.take(2)
	overlaps := c.u16()&1 != 0
	n := c.u16()
	c.take(2)
	var sizes [7]int
	for i := range sizes {
		sizes[i] = c.u32()
	}
	var streams [7]cursor
	for i, size := range sizes {
		streams[i].b = c.take(size)
	}
	if c.broken {
		return errWOFF2
	}
	g := glyphs{contours: &streams[0], counts: &streams[1], flags: &streams[2], places: &streams[3], composites: &streams[4], boxes: &streams[5], programs: &streams[6]}
	g.boxed = g.boxes.take((n + 31) / 32 * 4)
	if overlaps {
		g.overlapping = c.take((n + 7) / 8)
	}
	var glyf, loca bytes.Buffer
	for i := range n {
		loca.Write(binary.BigEndian.AppendUint32(nil, uint32(glyf.Len())))
		out, left, err := g.next(i)
		if err != nil {
			return err
		}
		t.lefts = append(t.lefts, left)
		glyf.Write(out)
		glyf.Write(make([]byte, -len(out)&3))
		if glyf.Len() > maxFont {
			return errWOFF2
		}
	}
	loca.Write(binary.BigEndian.AppendUint32(nil, uint32(glyf.Len())))
	t.long = true
	if old := t.table("head"); old != nil {
		t.parts = slices.DeleteFunc(t.parts, func(p opentype.Table) bool { return p.Tag == opentype.MustNewTag("head") })
		t.add("head", old)
	}
	t.add("glyf", glyf.Bytes())
	t.add("loca", loca.Bytes())
	return nil
}

// metrics writes the table hmtx, whose left bearings may follow from the outlines.
func (t *woff2Tables) metrics(content []byte) error {
	hhea := t.table("hhea")
	if len(hhea) < 36 || len(t.lefts) == 0 {
		return errWOFF2
	}
	own := min(int(binary.BigEndian.Uint16(hhea[34:])), len(t.lefts))
	c := cursor{b: content}
	flags := c.u8()
	advances := c.take(2 * own)
	bearings := slices.Clone(t.lefts)
	for i := range bearings {
		if i < own && flags&1 == 0 || i >= own && flags&2 == 0 {
			bearings[i] = c.i16()
		}
	}
	if c.broken {
		return errWOFF2
	}
	var out []byte
	for i, b := range bearings {
		if i < own {
			out = append(out, advances[2*i:2*i+2]...)
		}
		out = binary.BigEndian.AppendUint16(out, uint16(b))
	}
	t.add("hmtx", out)
	return nil
}

// glyphs are the streams that outlines were taken apart into.
type glyphs struct {
	contours, counts, flags, places, composites, boxes, programs *cursor
	boxed, overlapping                                           []byte
}

func (g *glyphs) broken() bool {
	return g.contours.broken || g.counts.broken || g.flags.broken || g.places.broken || g.composites.broken || g.boxes.broken || g.programs.broken
}

// next is the glyph i as the table glyf has it, and its least x.
func (g *glyphs) next(i int) (out []byte, left int, err error) {
	n := g.contours.i16()
	boxed := g.boxed[i/8]&(0x80>>(i%8)) != 0
	put := func(v int) { out = binary.BigEndian.AppendUint16(out, uint16(v)) }
	box := func() {
		if boxed {
			b := g.boxes.take(8)
			left = int(int16(binary.BigEndian.Uint16(b)))
			out = append(out, b...)
		}
	}
	switch {
	case n == 0:
		if boxed || g.broken() {
			return nil, 0, errWOFF2
		}
		return nil, 0, nil
	case n < 0:
		put(n)
		if box(); !boxed {
			return nil, 0, errWOFF2
		}
		parts, programmed := g.composite()
		out = append(out, parts...)
		if programmed {
			size := g.places.packed16()
			put(size)
			out = append(out, g.programs.take(size)...)
		}
	default:
		pts, ends := g.outline(n)
		if g.broken() || len(pts) == 0 {
			return nil, 0, errWOFF2
		}
		put(n)
		if box(); !boxed {
			lo, hi := pts[0], pts[0]
			for _, p := range pts {
				lo.x, lo.y, hi.x, hi.y = min(lo.x, p.x), min(lo.y, p.y), max(hi.x, p.x), max(hi.y, p.y)
			}
			left = lo.x
			for _, v := range []int{lo.x, lo.y, hi.x, hi.y} {
				put(v)
			}
		}
		for _, e := range ends {
			put(e)
		}
		size := g.places.packed16()
		put(size)
		out = append(out, g.programs.take(size)...)
		out = appendPoints(out, pts, len(g.overlapping) > i/8 && g.overlapping[i/8]&(0x80>>(i%8)) != 0)
	}
	if g.broken() {
		return nil, 0, errWOFF2
	}
	return out, left, nil
}

// composite copies the parts of a glyph that is made of others; programmed says that a program
// follows them.
func (g *glyphs) composite() (out []byte, programmed bool) {
	const words, scale, more, scales, matrix, program = 1, 8, 0x20, 0x40, 0x80, 0x100
	for {
		flags := g.composites.u16()
		size := 4
		if flags&words != 0 {
			size = 6
		}
		switch {
		case flags&scale != 0:
			size += 2
		case flags&scales != 0:
			size += 4
		case flags&matrix != 0:
			size += 8
		}
		out = binary.BigEndian.AppendUint16(out, uint16(flags))
		out = append(out, g.composites.take(size)...)
		programmed = programmed || flags&program != 0
		if flags&more == 0 || g.composites.broken {
			return out, programmed
		}
	}
}

// glyphPoint is a point of an outline, in units of the font.
type glyphPoint struct {
	x, y int
	on   bool
}

// outline reads the points of n contours, and the last point of each.
func (g *glyphs) outline(n int) (pts []glyphPoint, ends []int) {
	for range n {
		count := g.counts.packed16()
		if count > len(g.flags.b)-len(pts) {
			g.flags.broken = true
			return nil, nil
		}
		ends = append(ends, len(ends))
		for range count {
			pts = append(pts, glyphPoint{})
		}
		ends[len(ends)-1] = len(pts) - 1
	}
	if len(pts) > math.MaxUint16 {
		g.flags.broken = true
		return nil, nil
	}
	x, y := 0, 0
	for i, flag := range g.flags.take(len(pts)) {
		dx, dy := triplet(int(flag&0x7f), g.places)
		x, y = x+dx, y+dy
		pts[i] = glyphPoint{x, y, flag&0x80 == 0}
	}
	return pts, ends
}

// triplet is how far a point lies from the one before it (WOFF2, section 5.2).
func triplet(flag int, c *cursor) (dx, dy int) {
	signed := func(bit, v int) int {
		if bit&1 == 0 {
			return -v
		}
		return v
	}
	switch {
	case flag < 10:
		return 0, signed(flag, (flag&14)<<7+c.u8())
	case flag < 20:
		return signed(flag, ((flag-10)&14)<<7+c.u8()), 0
	case flag < 84:
		b, v := flag-20, c.u8()
		return signed(flag, 1+b&0x30+v>>4), signed(flag>>1, 1+(b&0x0c)<<2+v&0x0f)
	case flag < 120:
		b := flag - 84
		dx = signed(flag, 1+(b/12)<<8+c.u8())
		return dx, signed(flag>>1, 1+((b%12)>>2)<<8+c.u8())
	case flag < 124:
		a, b, d := c.u8(), c.u8(), c.u8()
		return signed(flag, a<<4+b>>4), signed(flag>>1, (b&0x0f)<<8+d)
	}
	dx = signed(flag, c.u16())
	return dx, signed(flag>>1, c.u16())
}

// appendPoints writes the points of an outline, two bytes for each step.
func appendPoints(out []byte, pts []glyphPoint, overlapping bool) []byte {
	for i, p := range pts {
		flag := byte(0)
		if p.on {
			flag = 1
		}
		if i == 0 && overlapping {
			flag |= 0x40
		}
		out = append(out, flag)
	}
	for _, of := range []func(glyphPoint) int{func(p glyphPoint) int { return p.x }, func(p glyphPoint) int { return p.y }} {
		last := 0
		for _, p := range pts {
			out = binary.BigEndian.AppendUint16(out, uint16(of(p)-last))
			last = of(p)
		}
	}
	return out
}

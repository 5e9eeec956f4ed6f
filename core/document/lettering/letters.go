package lettering

import (
	"cmp"
	"fmt"
	"slices"

	"github.com/go-text/typesetting/font"
	"github.com/go-text/typesetting/font/opentype"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// letters are the outlines of the clusters of a line in their places.
func (s *shaper) letters(l line, number int, place placing) []geom.Path {
	out := make([]geom.Path, len(l.clusters))
	for _, g := range l.glyphs {
		c := l.clusters[g.in]
		out[g.in] = geom.Join(out[g.in], g.outline().Transform(geom.Shift(g.x, g.y).Then(place(number, (c.left+c.right)/2))))
	}
	if s.words.Tie > 0 {
		for i := range out {
			out[i] = tied(geom.Union(geom.NonZero, out[i]), s.words.Tie)
		}
	}
	return out
}

// Letter is a letter of words in its place, or letters that the font has one form for.
type Letter struct {
	From, To int // its characters
	Text     string
	Outline  geom.Path
	Colour   string // "" for the ink of the words
}

// Letters are the letters of words one by one, in the order of the text; spaces are none. It
// fails only for a font that is not known.
func Letters(w card.Words) ([]Letter, error) {
	if id := unknownFont(w); id != "" {
		return nil, fmt.Errorf("there is no font “%s”", id)
	}
	s := newShaper(w)
	out := Setting{Size: w.Size}
	lines := s.broken(&out)
	place := s.place(lines, &out)
	bend := func(p geom.Path) geom.Path { return p }
	if w.Warp != nil {
		whole := out
		whole.compose(s, lines, place)
		if box := whole.Outline.Bounds(); box.W > 0 && box.H > 0 {
			f := bending(*w.Warp, box)
			bend = func(p geom.Path) geom.Path { return p.Map(f, warpTolerance) }
		}
	}
	inks := s.inks(lines)
	var letters []Letter
	for i, l := range lines {
		for in, p := range s.letters(l, i, place) {
			c := l.clusters[in]
			letter := Letter{From: c.from, To: c.to, Text: string(s.text[c.from:c.to])}
			if inks != nil {
				letter.Colour = inks[i][in]
			}
			if letter.Outline = bend(geom.Union(geom.NonZero, p)); !letter.Outline.Empty() {
				letters = append(letters, letter)
			}
		}
	}
	slices.SortStableFunc(letters, func(a, b Letter) int { return cmp.Compare(a.From, b.From) })
	return letters, nil
}

// Line sets words in one line from a start on the baseline, mm: their outline, how far they
// run, and the letters that the font does not have. spacing is added between letters, mm. It
// fails only for a font that is not known.
func Line(id, words string, size, spacing float64) (outline geom.Path, advance float64, missing string, err error) {
	if !Known(id) {
		return geom.Path{}, 0, "", fmt.Errorf("there is no font “%s”", id)
	}
	s := newShaper(card.Words{Text: words, Font: id, Size: size, Spacing: spacing / size})
	l := s.line(0, len(s.text), false)
	return l.outline(size), l.advance * size, named(words, s.missing), nil
}

// outline is that of a line from its start on the baseline, of letters of a size, mm.
func (l line) outline(size float64) geom.Path {
	var letters []geom.Path
	for _, g := range l.glyphs {
		letters = append(letters, g.outline().Transform(geom.Shift(g.x, g.y).Then(geom.Scale(size, size))))
	}
	return geom.Union(geom.NonZero, geom.Join(letters...))
}

// Forms are the forms that a font has for a letter, the usual one first, then the alternates by
// their numbers: in letters of a size, mm, each from its start on the baseline. It is empty for
// a letter or a font that is not there.
func Forms(id string, letter rune, size float64) []geom.Path {
	out := []geom.Path{}
	l := byID(id)
	if l == nil {
		return out
	}
	l.Lock()
	_, there := l.face.NominalGlyph(letter)
	n := len(l.alternates(letter))
	l.Unlock()
	if !there {
		return out
	}
	for i := range n + 1 {
		w := card.Words{Text: string(letter), Font: id, Size: size, Leading: 1, Runs: []card.Run{{From: 0, To: 1, Style: card.Style{Alternate: i}}}}
		out = append(out, newShaper(w).line(0, 1, false).outline(size))
	}
	return out
}

// draw is the outline of a glyph from its own start on the baseline, ems, y down.
func (l *loaded) draw(g font.GlyphOutline) geom.Path {
	var b geom.Builder
	pt := func(p opentype.SegmentPoint) geom.Point {
		return geom.Pt(float64(p.X)/l.em, -float64(p.Y)/l.em)
	}
	open := false
	for _, s := range g.Segments {
		a := s.Args
		switch s.Op {
		case opentype.SegmentOpMoveTo:
			if open {
				b.Close()
			}
			b.Move(pt(a[0]))
			open = true
		case opentype.SegmentOpLineTo:
			b.Line(pt(a[0]))
		case opentype.SegmentOpQuadTo:
			b.Quad(pt(a[0]), pt(a[1]))
		case opentype.SegmentOpCubeTo:
			b.Cubic(pt(a[0]), pt(a[1]), pt(a[2]))
		}
	}
	if open {
		b.Close()
	}
	return b.Path()
}

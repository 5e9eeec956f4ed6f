package lettering

import (
	"fmt"
	"strings"

	"github.com/go-text/typesetting/font"
	"github.com/go-text/typesetting/font/opentype"
	"github.com/go-text/typesetting/harfbuzz"

	"sectilis/core/document/card"
	"sectilis/core/ground/cache"
	"sectilis/core/ground/geom"
)

// Setting is words as outlines. Origin is the anchor of the words: the middle
// of the block in height, and its left, middle or right as it is aligned.
type Setting struct {
	// Outline is the outline of what the letters cover: those of a script are
	// welded, as a blade needs them.
	Outline geom.Path
	// Block is the box of the lines, from advance to advance.
	Block geom.Rect
	// Missing are the letters that the font does not have.
	Missing string
}

// settings are kept by content: while someone drags or types, the other words of the card
// are asked for again and again.
var settings = cache.New[card.Words, Setting](2000)

// Set shapes and outlines words. It fails only for a font that is not known.
func Set(w card.Words) (Setting, error) {
	return settings.Of(w, func() (Setting, error) {
		l := library()[w.Font]
		if l == nil {
			return Setting{}, fmt.Errorf("there is no font “%s”", w.Font)
		}
		return l.set(w), nil
	})
}

func (l *loaded) set(w card.Words) Setting {
	l.Lock()
	defer l.Unlock()
	lines := strings.Split(strings.ReplaceAll(w.Text, "\r\n", "\n"), "\n")
	lead := w.Leading * w.Size
	height := lead * float64(len(lines))
	var s Setting
	var parts []geom.Path
	missing := map[rune]bool{}
	for i, text := range lines {
		letters, advance := l.line([]rune(text), w.Spacing, missing)
		width := advance * w.Size
		x := map[card.Align]float64{card.AlignLeft: 0, card.AlignCentre: -width / 2, card.AlignRight: -width}[w.Align]
		// A browser centres ascent and descent in the line; so the words stay
		// put when they are edited in place.
		middle := -height/2 + lead*(float64(i)+.5)
		y := middle + (l.font.Ascent-l.font.Descent)/2*w.Size
		parts = append(parts, geom.Union(geom.NonZero, geom.Join(letters...).Transform(geom.Scale(w.Size, w.Size).Then(geom.Shift(x, y)))))
		s.Block = s.Block.Union(geom.Rect{X: x, Y: middle - lead/2, W: width, H: lead})
	}
	s.Outline = geom.Join(parts...)
	for i := 1; i < len(parts); i++ {
		if parts[i-1].Bounds().Overlaps(parts[i].Bounds()) {
			s.Outline = geom.Union(geom.NonZero, s.Outline)
			break
		}
	}
	for _, r := range w.Text {
		if missing[r] && !strings.ContainsRune(s.Missing, r) {
			s.Missing += string(r)
		}
	}
	return s
}

// Line sets words in one line from a start on the baseline, mm: their outline, how far they
// run, and the letters that the font does not have. spacing is added between letters, mm. It
// fails only for a font that is not known.
func Line(id, words string, size, spacing float64) (outline geom.Path, advance float64, missing string, err error) {
	l := library()[id]
	if l == nil {
		return geom.Path{}, 0, "", fmt.Errorf("there is no font “%s”", id)
	}
	l.Lock()
	defer l.Unlock()
	none := map[rune]bool{}
	letters, run := l.line([]rune(words), spacing/size, none)
	for _, r := range words {
		if none[r] && !strings.ContainsRune(missing, r) {
			missing += string(r)
		}
	}
	return geom.Union(geom.NonZero, geom.Join(letters...).Transform(geom.Scale(size, size))), run * size, missing, nil
}

// line shapes one line; the outlines of its letters and the advance are in
// ems, from a start on the baseline.
func (l *loaded) line(text []rune, spacing float64, missing map[rune]bool) ([]geom.Path, float64) {
	for i, r := range text {
		if _, ok := l.face.NominalGlyph(r); !ok {
			if r == '\u00a0' || r == '\t' {
				text[i] = ' '
			} else {
				missing[r] = true
			}
		}
	}
	buf := harfbuzz.NewBuffer()
	buf.AddRunes(text, 0, -1)
	buf.GuessSegmentProperties()
	buf.Shape(l.hb, nil)
	var letters []geom.Path
	pen := 0.0
	for i, g := range buf.Info {
		pos := buf.Pos[i]
		at := geom.Pt(pen+float64(pos.XOffset)/l.em, -float64(pos.YOffset)/l.em)
		if outline, ok := l.face.GlyphData(g.Glyph).(font.GlyphOutline); ok {
			letters = append(letters, l.draw(outline, at))
		}
		pen += float64(pos.XAdvance) / l.em
		if i < len(buf.Info)-1 {
			pen += spacing
		}
	}
	return letters, pen
}

func (l *loaded) draw(g font.GlyphOutline, at geom.Point) geom.Path {
	var b geom.Builder
	pt := func(p opentype.SegmentPoint) geom.Point {
		return at.Add(geom.Pt(float64(p.X)/l.em, -float64(p.Y)/l.em))
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

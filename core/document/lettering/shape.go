package lettering

import (
	"slices"
	"sort"
	"unicode"

	"github.com/go-text/typesetting/font"
	"github.com/go-text/typesetting/font/opentype"
	"github.com/go-text/typesetting/harfbuzz"
	"github.com/go-text/typesetting/language"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// glyph is a glyph of a line. Lengths are ems of the words.
type glyph struct {
	font  *loaded
	id    font.GID
	scale float64 // of its em to that of the words
	x, y  float64 // where it is drawn, from the start of the line on the baseline, y down
	in    int     // its cluster, in the line
}

// cluster is a group of characters that are shaped as one, where it stands in its line. Left
// and right are ems of the words.
type cluster struct {
	from, to    int
	left, right float64
	gap         float64 // between it and the next one in the text
	backward    bool    // it is of a script that runs from right to left
	colour      string
}

// line is shaped text in one line, in the order in which it is seen, left to right.
type line struct {
	from, to int // its characters, of the whole text
	glyphs   []glyph
	clusters []cluster
	advance  float64 // ems of the words
	wrapped  bool    // it ended for want of room
}

// stretch is neighbouring characters of one style, script and direction.
type stretch struct {
	from, to int
	style    card.Style
	script   language.Script
	backward bool
}

// shaper shapes one text.
type shaper struct {
	words   card.Words
	text    []rune
	styles  []card.Style // of each character
	missing map[rune]bool
	known   *loaded // in place of the fonts of the words; nil for those
	// measures are the paragraphs that were measured, by their first character.
	measures map[int]measured
}

func newShaper(w card.Words) *shaper {
	s := &shaper{words: w, text: []rune(w.Text), missing: map[rune]bool{}, measures: map[int]measured{}}
	s.styles = make([]card.Style, len(s.text))
	for _, r := range w.Runs {
		for i := max(r.From, 0); i < min(r.To, len(s.text)); i++ {
			s.styles[i] = r.Style
		}
	}
	return s
}

// fontOf is the font of a style; one that is not known gives that of the words.
func (s *shaper) fontOf(st card.Style) *loaded {
	if s.known != nil {
		return s.known
	}
	if st.Font != "" {
		if l := byID(st.Font); l != nil {
			return l
		}
	}
	return byID(s.words.Font)
}

// scaleOf is how large characters of a style are, of the size of the words.
func scaleOf(st card.Style) float64 {
	k := 1.0
	if st.Scale != 0 {
		k = st.Scale
	}
	if st.Stand != card.OnBaseline {
		k *= smallScale
	}
	return k
}

// Raised and lowered letters are six tenths as large; they stand so far above or below the
// baseline, in ems.
const (
	smallScale = .6
	raisedBy   = .36
	loweredBy  = .16
)

func riseOf(st card.Style) float64 {
	k := 1.0
	if st.Scale != 0 {
		k = st.Scale
	}
	switch st.Stand {
	case card.RaisedLetters:
		return raisedBy * k
	case card.LoweredLetters:
		return -loweredBy * k
	}
	return 0
}

// line shapes the characters from from up to, without, to. hyphen adds one at its end.
func (s *shaper) line(from, to int, hyphen bool) line {
	out := line{from: from, to: to}
	text := slices.Clone(s.text[from:to])
	styles := s.styles[from:to:to]
	if hyphen && to > from {
		text, styles = append(text, '-'), append(styles, s.styles[to-1])
	}
	for _, st := range s.stretches(text, styles, from) {
		s.shape(&out, text, styles, st)
	}
	if n := len(out.clusters); n > 0 {
		// What lies between letters does not lie beside the first or the last one.
		if last := out.clusters[n-1]; !last.backward {
			out.advance -= last.gap
		}
		if first := out.clusters[0]; first.backward {
			out.shift(func(int) float64 { return -first.gap })
			out.advance -= first.gap
		}
	}
	for i := range out.clusters { // a hyphen belongs to the last character
		c := &out.clusters[i]
		c.from, c.to = from+min(c.from, to-from-1), from+min(c.to, to-from)
	}
	return out
}

// shift moves clusters with their glyphs to the right, each by its own length, ems.
func (l *line) shift(by func(cluster int) float64) {
	for i := range l.glyphs {
		l.glyphs[i].x += by(l.glyphs[i].in)
	}
	for i := range l.clusters {
		l.clusters[i].left += by(i)
		l.clusters[i].right += by(i)
	}
}

// stretches cuts a line up into what is shaped at once, in the order in which it is seen.
func (s *shaper) stretches(text []rune, styles []card.Style, from int) []stretch {
	var out []stretch
	for _, run := range directions(text, paragraphBackward(s.text, from)) {
		at := len(out)
		for i := run.from; i < run.to; i++ {
			script := language.LookupScript(text[i])
			if k := len(out) - 1; k >= at {
				p := &out[k]
				alike := script == p.script || !script.Strong() || !p.script.Strong()
				if alike && same(p.style, styles[i]) {
					if !p.script.Strong() {
						p.script = script
					}
					p.to = i + 1
					continue
				}
			}
			out = append(out, stretch{i, i + 1, styles[i], script, run.backward})
		}
		if run.backward {
			slices.Reverse(out[at:])
		}
	}
	return out
}

// same reports whether characters of two styles are shaped together: their colour, and what
// lies between them, makes no difference.
func same(a, b card.Style) bool {
	return a.Font == b.Font && a.Scale == b.Scale && a.Stand == b.Stand && a.Alternate == b.Alternate && slices.Equal(a.Features, b.Features)
}

// shape adds a stretch to the right end of a line; indices are those of text and styles.
func (s *shaper) shape(out *line, text []rune, styles []card.Style, st stretch) {
	l := s.fontOf(st.style)
	l.Lock()
	defer l.Unlock()
	buf := harfbuzz.NewBuffer()
	buf.AddRunes(s.settable(l, text, st), st.from, st.to-st.from)
	buf.Props.Direction = harfbuzz.LeftToRight
	if st.backward {
		buf.Props.Direction = harfbuzz.RightToLeft
	}
	if st.script.Strong() {
		buf.Props.Script = st.script
	}
	buf.GuessSegmentProperties()
	buf.Shape(l.hb, l.features(s.words.Features, st.style, text[st.from:st.to]))

	scale, rise := scaleOf(st.style), riseOf(st.style)
	starts := []int{st.to}
	for _, g := range buf.Info {
		starts = append(starts, g.Cluster)
	}
	slices.Sort(starts)
	starts = slices.Compact(starts)
	for i := 0; i < len(buf.Info); {
		from := buf.Info[i].Cluster
		to := starts[sort.SearchInts(starts, from)+1]
		last := styles[to-1]
		c := cluster{from: from, to: to, gap: s.words.Spacing + last.Spacing + last.Kern, backward: st.backward, colour: last.Colour}
		if st.backward {
			out.advance += c.gap
		}
		c.left = out.advance
		for ; i < len(buf.Info) && buf.Info[i].Cluster == from; i++ {
			pos := buf.Pos[i]
			g := glyph{font: l, id: buf.Info[i].Glyph, scale: scale, in: len(out.clusters),
				x: out.advance + float64(pos.XOffset)/l.em*scale, y: -float64(pos.YOffset)/l.em*scale - rise}
			if s.drawn(g, text[from:to]) {
				out.glyphs = append(out.glyphs, g)
			}
			out.advance += float64(pos.XAdvance) / l.em * scale
		}
		c.right = out.advance
		if !st.backward {
			out.advance += c.gap
		}
		out.clusters = append(out.clusters, c)
	}
}

// settable is the text with what the font has no letter for, but another for, and notes what
// it has none for at all.
func (s *shaper) settable(l *loaded, text []rune, st stretch) []rune {
	var out []rune
	for i := st.from; i < st.to; i++ {
		r := text[i]
		if _, ok := l.face.NominalGlyph(r); ok {
			continue
		}
		other := r
		switch {
		case r == '\u00a0' || r == '\t':
			other = ' '
		case r == '\u2010' || r == '\u2011':
			other = '-'
		case unseen(r):
		default:
			s.missing[r] = true
		}
		if other != r {
			if out == nil {
				out = slices.Clone(text)
			}
			out[i] = other
		}
	}
	if out == nil {
		return text
	}
	return out
}

// unseen reports whether a character has no form of its own: joiners, marks of direction,
// soft hyphens and variation selectors.
func unseen(r rune) bool {
	return unicode.Is(unicode.Cf, r) || r >= 0xfe00 && r <= 0xfe0f || r >= 0xe0100 && r <= 0xe01ef
}

// drawn reports whether a glyph has an outline, and notes its characters where it is only a
// picture.
func (s *shaper) drawn(g glyph, of []rune) bool {
	switch o := g.font.face.GlyphData(g.id).(type) {
	case font.GlyphOutline:
		return len(o.Segments) > 0
	case font.GlyphBitmap, font.GlyphSVG:
		for _, r := range of {
			s.missing[r] = true
		}
	}
	return false
}

// outline is the outline of a glyph about its own start, ems of the words.
func (g glyph) outline() geom.Path {
	g.font.Lock()
	defer g.font.Unlock()
	o, ok := g.font.face.GlyphData(g.id).(font.GlyphOutline)
	if !ok {
		return geom.Path{}
	}
	return g.font.draw(o).Transform(geom.Scale(g.scale, g.scale))
}

// tags are the OpenType features of what people choose by what it does.
var tags = map[card.Feature][]harfbuzz.Feature{
	card.Swashes:        {on("swsh"), on("cswh")},
	card.NoLigatures:    {off("liga"), off("clig")},
	card.RareLigatures:  {on("dlig"), on("hlig")},
	card.OldFigures:     {on("onum")},
	card.LiningFigures:  {on("lnum")},
	card.EvenFigures:    {on("tnum")},
	card.SmallCapitals:  {on("smcp")},
	card.DrawnFractions: {on("frac")},
	card.NoAlternates:   {off("calt")},
}

func on(tag string) harfbuzz.Feature  { return feature(tag, 1) }
func off(tag string) harfbuzz.Feature { return feature(tag, 0) }

func feature(tag string, value uint32) harfbuzz.Feature {
	return harfbuzz.Feature{Tag: opentype.MustNewTag(tag), Value: value, Start: harfbuzz.FeatureGlobalStart, End: harfbuzz.FeatureGlobalEnd}
}

// features are those that a stretch is shaped with.
func (l *loaded) features(words []card.Feature, st card.Style, text []rune) []harfbuzz.Feature {
	var out []harfbuzz.Feature
	for _, fs := range [][]card.Feature{words, st.Features} {
		for _, f := range fs {
			out = append(out, tags[f]...)
		}
	}
	if st.Alternate > 0 && len(text) > 0 {
		if all := l.alternates(text[0]); st.Alternate <= len(all) {
			out = append(out, all[st.Alternate-1])
		}
	}
	return out
}

// offers are what the font has of what people choose by what it does.
func (l *loaded) offers() []card.Feature {
	out := []card.Feature{}
	for _, f := range card.Features() {
		if slices.ContainsFunc(tags[f], func(h harfbuzz.Feature) bool { return l.has(h.Tag) }) {
			out = append(out, f)
		}
	}
	return out
}

func (l *loaded) has(tag opentype.Tag) bool {
	return slices.ContainsFunc(l.face.GSUB.Features, func(f font.Feature) bool { return f.Tag == tag })
}

// alternates are the features, made for single letters, that give the other forms that the font
// has for a letter, one for each form. The caller holds the font.
func (l *loaded) alternates(r rune) []harfbuzz.Feature {
	usual, ok := l.face.NominalGlyph(r)
	if !ok {
		return nil
	}
	seen := map[font.GID]bool{usual: true}
	var out []harfbuzz.Feature
	for _, f := range l.face.GSUB.Features {
		tag := f.Tag.String()
		if !slices.Contains([]string{"salt", "swsh", "cswh", "titl", "hist", "aalt"}, tag) && !numbered(tag) {
			continue
		}
		for value := uint32(1); value <= 40; value++ {
			h := feature(tag, value)
			buf := harfbuzz.NewBuffer()
			buf.AddRunes([]rune{r}, 0, 1)
			buf.GuessSegmentProperties()
			buf.Shape(l.hb, []harfbuzz.Feature{h})
			if len(buf.Info) != 1 || seen[buf.Info[0].Glyph] {
				break
			}
			seen[buf.Info[0].Glyph] = true
			out = append(out, h)
		}
	}
	return out
}

// numbered reports whether a tag is that of a stylistic set, ss01 to ss20, or of a variant of
// a character, cv01 to cv99.
func numbered(tag string) bool {
	return len(tag) == 4 && (tag[:2] == "ss" || tag[:2] == "cv") && tag[2] >= '0' && tag[2] <= '9' && tag[3] >= '0' && tag[3] <= '9'
}

package lettering

import (
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strings"

	"sectilis/core/document/card"
	"sectilis/core/ground/cache"
	"sectilis/core/ground/geom"
)

// Setting is words as outlines. Lengths are mm. Its origin is the anchor of the words: of
// straight lines the middle of the block in height, and its left, middle or right as it is
// aligned; of a box its middle; of words along a line the point that the line is given about.
type Setting struct {
	// Outline is the outline of what the letters cover: those of a script are
	// welded, as a blade needs them.
	Outline geom.Path
	// Parts are what letters with an ink of their own cover, ink by ink, and Rest the others;
	// without such letters there is neither.
	Parts []Part
	Rest  geom.Path
	// Block is the box of the lines, from advance to advance, or the box they are set in.
	Block geom.Rect
	// Size is that of the letters, which follows from the box where they are as large as fits.
	Size float64
	// Over is by how much the words are larger than their box, or longer than their line.
	Over float64
	// Missing are the letters that the font does not have, or only as pictures.
	Missing string
	// Carets are the places before each character, and after the last one.
	Carets []Caret
}

// Part is what letters of one ink cover.
type Part struct {
	Colour  string
	Outline geom.Path
}

// Caret is a place between characters: a point of the baseline, and from there upward the way
// to the top of the letters, mm.
type Caret struct {
	At geom.Point `json:"at"`
	Up geom.Point `json:"up"`
}

// settings are kept by content, words as JSON: while someone drags or types, the other words
// of the card are asked for again and again.
var settings = cache.New[string, Setting](2000)

// Set shapes and outlines words. It fails for a font that is not known, or is damaged.
func Set(w card.Words) (Setting, error) {
	key, err := keyOf(w)
	if err != nil {
		return Setting{}, err
	}
	return settings.Of(key, func() (out Setting, err error) {
		defer func() {
			if recover() != nil { // tables of fonts that were brought in may lead anywhere
				err = errors.New("its font is damaged")
			}
		}()
		return set(w), nil
	})
}

// keyOf is what words are kept by. It fails for a font that is not known.
func keyOf(w card.Words) (string, error) {
	if id := unknownFont(w); id != "" {
		return "", fmt.Errorf("there is no font “%s”", id)
	}
	key, err := json.Marshal(w)
	if err != nil {
		return "", fmt.Errorf("set words: %w", err)
	}
	return string(key), nil
}

// AtHand are words with those of their fonts that there are not replaced by Plain.
func AtHand(w card.Words) card.Words {
	if unknownFont(w) == "" {
		return w
	}
	gone := func(id string) bool { return id != "" && !Known(id) }
	w.Runs = slices.Clone(w.Runs)
	for i := range w.Runs {
		r := &w.Runs[i]
		if gone(r.Font) || r.Font == "" && gone(w.Font) {
			r.Alternate = 0 // numbers of another typeface
		}
		if gone(r.Font) {
			r.Font = Plain()
		}
	}
	if gone(w.Font) {
		w.Font = Plain()
	}
	return w
}

// unknownFont is the first font of the words that there is not.
func unknownFont(w card.Words) string {
	if !Known(w.Font) {
		return w.Font
	}
	for _, r := range w.Runs {
		if r.Font != "" && !Known(r.Font) {
			return r.Font
		}
	}
	return ""
}

func set(w card.Words) Setting {
	s := newShaper(w)
	out := Setting{Size: w.Size}
	lines := s.broken(&out)
	p := s.place(lines, &out)
	out.compose(s, lines, p)
	out.Carets = s.carets(lines, p)
	if w.Warp != nil {
		out.warp(*w.Warp)
	}
	out.Missing = named(w.Text, s.missing)
	return out
}

// broken are the lines of the words; the size of letters that are as large as fits is set.
func (s *shaper) broken(out *Setting) []line {
	b := s.words.Box
	if b == nil {
		return s.lines(0)
	}
	if b.Fit {
		out.Size = s.fit(*b)
	}
	width := b.Width / out.Size
	if b.Unwrapped {
		return s.lines(0)
	}
	lines := s.lines(width)
	if s.words.Align == card.AlignJustify {
		for i := range lines {
			s.justify(&lines[i], width)
		}
	}
	return lines
}

// named are the characters of a text that are missing, each once.
func named(text string, missing map[rune]bool) string {
	var out strings.Builder
	for _, r := range text {
		if missing[r] && !strings.ContainsRune(out.String(), r) {
			out.WriteRune(r)
		}
	}
	return out.String()
}

// fit is the size of letters, mm, that is the largest at which they have room in a box with a
// height, in as many lines as it takes; it is no less than the least that the box takes. It is found
// by halving; the widths of characters are measured once.
func (s *shaper) fit(b card.TextBox) float64 {
	beyond := s.beyond()
	room := func(size float64) bool {
		lines, widest := 0, 0.0
		for _, p := range s.paragraphs() {
			m := s.measure(p[0], p[1])
			if b.Unwrapped || p[0] == p[1] {
				lines++
				n := p[1] - p[0]
				widest = max(widest, m.ends[n]-m.gaps[n])
				continue
			}
			for at := p[0]; at < p[1]; lines++ {
				to := s.lineEnd(at, p, m, b.Width/size)
				if last := s.trimmed(at, to); last > at {
					widest = max(widest, m.ends[last-p[0]]-m.ends[at-p[0]]-m.gaps[last-p[0]])
				}
				at = to
			}
		}
		return (b.Lines == 0 || lines <= b.Lines) && (float64(lines)*s.words.Leading+beyond)*size <= b.Height && widest*size <= b.Width
	}
	lo, hi := max(.01, b.Least), b.Height/s.words.Leading*1.001
	if b.Most > 0 {
		hi = min(hi, b.Most)
	}
	for range 40 {
		if mid := (lo + hi) / 2; room(mid) {
			lo = mid
		} else {
			hi = mid
		}
	}
	// Lines that are shaped by themselves may be a little longer than in their paragraph.
	lines := s.lines(0)
	if !b.Unwrapped {
		lines = s.lines(b.Width / lo)
	}
	for _, l := range lines {
		if l.advance*lo > b.Width {
			lo = max(b.Least, b.Width/l.advance)
		}
	}
	return lo
}

// beyond is how far letters reach beyond the first and the last line of a box that is to hold all their
// ink, together, by the ascent and the descent of their fonts, in ems of the words; else 0.
func (s *shaper) beyond() float64 {
	b := s.words.Box
	if b == nil || !b.Fit || !b.Whole {
		return 0
	}
	high := func(style card.Style) float64 {
		f := s.fontOf(style).font
		return (f.Ascent + f.Descent) * max(style.Scale, 1)
	}
	most := high(card.Style{})
	for _, r := range s.words.Runs {
		most = max(most, high(r.Style))
	}
	return max(0, most-s.words.Leading)
}

// placing maps a place of a line, by its number, to where it lies: x along the line from its
// start, y below the baseline, ems of the words. The middle is that of what is mapped as a
// whole, such as a letter.
type placing func(line int, middle float64) geom.Affine

// place says where lines lie, and sets the block and by how much they are too large.
func (s *shaper) place(lines []line, out *Setting) placing {
	if s.words.Path != nil {
		return s.along(lines, out)
	}
	w, size := s.words, out.Size
	lead := w.Leading * size
	height := lead * float64(len(lines))
	starts := make([]float64, len(lines))
	for i, l := range lines {
		width := l.advance * size
		left, whole := 0.0, 0.0 // of the room for the line
		if w.Box != nil {
			left, whole = -w.Box.Width/2, w.Box.Width
			out.Over = max(out.Over, width-whole)
		}
		switch w.Align {
		case card.AlignCentre:
			starts[i] = left + (whole-width)/2
		case card.AlignRight:
			starts[i] = left + whole - width
		default:
			starts[i] = left
			if w.Align == card.AlignJustify && paragraphBackward(s.text, l.from) {
				starts[i] = left + whole - width
			}
		}
		out.Block = out.Block.Union(geom.Rect{X: starts[i], Y: -height/2 + lead*float64(i), W: width, H: lead})
	}
	if b := w.Box; b != nil {
		high := height
		if b.Height > 0 {
			high = b.Height
			out.Over = max(out.Over, height+s.beyond()*size-high)
		}
		if b.Fit && b.Lines > 0 {
			out.Over = max(out.Over, lead*float64(len(lines)-b.Lines))
		}
		out.Block = geom.Centred(b.Width, high)
		if out.Over < 1e-6 {
			out.Over = 0
		}
	}
	f := byID(w.Font).font
	return func(i int, _ float64) geom.Affine {
		// A browser centres ascent and descent in the line; so the words stay
		// put when they are edited in place.
		y := -height/2 + lead*(float64(i)+.5) + (f.Ascent-f.Descent)/2*size
		return geom.Scale(size, size).Then(geom.Shift(starts[i], y))
	}
}

// compose draws the letters of all lines where they lie.
func (out *Setting) compose(s *shaper, lines []line, place placing) {
	inks := s.inks(lines)
	by := map[string][]geom.Path{}
	var order []string
	parts := make([]geom.Path, len(lines))
	for i, l := range lines {
		letters := s.letters(l, i, place)
		for in, letter := range letters {
			if inks != nil && !letter.Empty() {
				ink := inks[i][in]
				if _, ok := by[ink]; !ok {
					order = append(order, ink)
				}
				by[ink] = append(by[ink], letter)
			}
		}
		bar := l.bar(i, place, out.Size, s.words.Bar)
		if inks != nil && !bar.Empty() {
			if _, ok := by[""]; !ok {
				order = append(order, "")
			}
			by[""] = append(by[""], bar)
		}
		parts[i] = geom.Union(geom.NonZero, append(letters, bar)...)
	}
	out.Outline = geom.Join(parts...)
	for i := 1; i < len(parts); i++ {
		if parts[i-1].Bounds().Overlaps(parts[i].Bounds()) {
			out.Outline = geom.Union(geom.NonZero, out.Outline)
			break
		}
	}
	for _, ink := range order {
		path := geom.Union(geom.NonZero, geom.Join(by[ink]...))
		if ink == "" {
			out.Rest = path
		} else {
			out.Parts = append(out.Parts, Part{ink, path})
		}
	}
}

// carets are the places between the characters of the text.
func (s *shaper) carets(lines []line, place placing) []Caret {
	out := make([]Caret, len(s.text)+1)
	f := s.fontOf(card.Style{}).font
	put := func(at, line int, x float64) {
		m := place(line, x)
		foot := m.Apply(geom.Pt(x, 0))
		out[at] = Caret{foot, m.Apply(geom.Pt(x, -f.Ascent)).Sub(foot)}
	}
	for i, l := range lines {
		end := l.advance
		if paragraphBackward(s.text, l.from) {
			end = 0
		}
		for at := l.from; at <= l.to; at++ {
			put(at, i, end)
		}
		for _, c := range l.clusters {
			for at := c.from; at < c.to; at++ {
				share := float64(at-c.from) / float64(c.to-c.from)
				if c.backward {
					share = 1 - share
				}
				put(at, i, c.left+share*(c.right-c.left))
			}
		}
	}
	return out
}

package lettering

import (
	"maps"
	"slices"

	"github.com/go-text/typesetting/segmenter"
)

const softHyphen = '\u00ad'

// lines breaks the text into lines. width is that of the box, ems of the words; 0 breaks only
// where the text says so.
func (s *shaper) lines(width float64) []line {
	var out []line
	for _, p := range s.paragraphs() {
		if width <= 0 || p[0] == p[1] {
			out = append(out, s.line(p[0], p[1], false))
			continue
		}
		m := s.measure(p[0], p[1])
		for at := p[0]; at < p[1]; {
			to := s.lineEnd(at, p, m, width)
			out = append(out, s.wrapped(at, to, to < p[1], m.hyphens[to-p[0]]))
			at = to
		}
	}
	return out
}

// measured is a paragraph as it is broken into lines, by the index of a character in it.
type measured struct {
	breaks []int     // before which a line may begin, and the end
	ends   []float64 // how far the characters before it take, in the order of the text, ems
	gaps   []float64 // how much of that lies between letters after the one before it
	// hyphens are the breaks that show a hyphen at the end of their line.
	hyphens map[int]bool
}

// measure measures a paragraph; a shaper keeps the last one.
func (s *shaper) measure(from, to int) measured {
	if m, ok := s.measures[from]; ok {
		return m
	}
	m := measured{ends: make([]float64, to-from+1), gaps: make([]float64, to-from+1)}
	if b := s.words.Box; b != nil && b.Hyphenate {
		m.hyphens = hyphens(s.text[from:to])
	}
	m.breaks = breaksOf(s.text[from:to], m.hyphens)
	for _, c := range s.line(from, to, false).clusters {
		m.ends[c.to-from] += c.right - c.left + c.gap
		m.gaps[c.to-from] = c.gap
	}
	for i := 1; i < len(m.ends); i++ {
		m.ends[i] += m.ends[i-1]
	}
	s.measures[from] = m
	return m
}

// paragraphs are the stretches of the text between its line breaks.
func (s *shaper) paragraphs() [][2]int {
	var out [][2]int
	from := 0
	for i, r := range s.text {
		if r == '\n' {
			out = append(out, [2]int{from, i})
			from = i + 1
		}
	}
	return append(out, [2]int{from, len(s.text)})
}

// breaksOf are the places of a paragraph before which a line may begin (UAX #14), in order, its
// end last, with those where words are parted with a hyphen. Soft hyphens are none by themselves.
func breaksOf(text []rune, hyphens map[int]bool) []int {
	var seg segmenter.Segmenter
	seg.Init(text)
	at := map[int]bool{len(text): true}
	for it := seg.LineIterator(); it.Next(); {
		l := it.Line()
		if end := l.Offset + len(l.Text); end == len(text) || text[end-1] != softHyphen {
			at[end] = true
		}
	}
	for i := range hyphens {
		at[i] = true
	}
	return slices.Sorted(maps.Keys(at))
}

// lineEnd is the character before which the line that begins at from ends, so that it has room
// in a width; a word that has none is a line by itself.
func (s *shaper) lineEnd(from int, p [2]int, m measured, width float64) int {
	best := 0
	for _, b := range m.breaks {
		to := b + p[0]
		if to <= from {
			continue
		}
		w := 0.0
		if last := s.trimmed(from, to); last > from {
			w = m.ends[last-p[0]] - m.ends[from-p[0]] - m.gaps[last-p[0]]
			if m.hyphens[b] && to < p[1] {
				w += s.line(last-1, last, true).advance - s.line(last-1, last, false).advance
			}
		}
		if w > width+1e-9 {
			if best == 0 {
				best = to
			}
			if m.hyphens[b] { // the hyphen may be what has no room
				continue
			}
			break
		}
		best = to
	}
	return best
}

// trimmed is where a line ends without the spaces at its end.
func (s *shaper) trimmed(from, to int) int {
	for to > from && s.text[to-1] == ' ' {
		to--
	}
	return to
}

// wrapped is a line of a paragraph; one that goes on ends without spaces and, where a word is
// parted so, with a hyphen.
func (s *shaper) wrapped(from, to int, goesOn, hyphen bool) line {
	last := to
	if goesOn {
		last = s.trimmed(from, to)
	}
	l := s.line(from, last, hyphen && goesOn && last > from)
	l.to, l.wrapped = to, goesOn
	return l
}

// justify spreads the words of a line that goes on in the next one over a width, ems.
func (s *shaper) justify(l *line, width float64) {
	space := func(c cluster) bool { return c.to-c.from == 1 && s.text[c.from] == ' ' }
	spaces := 0
	for _, c := range l.clusters {
		if space(c) {
			spaces++
		}
	}
	more := width - l.advance
	if !l.wrapped || spaces == 0 || more <= 0 {
		return
	}
	before := make([]float64, len(l.clusters))
	shift := 0.0
	for i, c := range l.clusters {
		before[i] = shift
		if space(c) {
			shift += more / float64(spaces)
		}
	}
	l.shift(func(i int) float64 { return before[i] })
	l.advance = width
}

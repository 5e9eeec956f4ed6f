package card

import (
	"strings"
	"unicode"
	"unicode/utf8"
)

// visible keeps what people write: letters, marks and signs. Control characters, characters
// of no width and those that turn the direction of what follows are left out: they would
// make one title look like another. Joiners and the soft hyphen stay, which scripts and
// hyphenation need, and so do line ends where there may be several lines.
func visible(text string, lines bool) string {
	if !strings.ContainsFunc(text, func(r rune) bool { return r < ' ' || r > '~' }) {
		return text
	}
	if !utf8.ValidString(text) {
		text = strings.ToValidUTF8(text, "")
	}
	text = strings.ReplaceAll(text, "\r\n", "\n")
	return strings.Map(func(r rune) rune {
		switch {
		case r == '\n' || r == '\r' || r == '\t' || r == '\u2028' || r == '\u2029':
			if lines && r != '\t' {
				return '\n'
			}
			return ' '
		case r == '\u00ad', r == '\u200c', r == '\u200d':
			return r
		case unicode.Is(unicode.Cc, r), unicode.Is(unicode.Cf, r), r == utf8.RuneError:
			return -1
		}
		return r
	}, text)
}

// tidyText leaves out of all titles, names and words what cannot be seen.
func (c *Card) tidyText() {
	c.Title = visible(c.Title, false)
	for i := range c.Faces {
		f := &c.Faces[i]
		for j := range f.Items {
			it := &f.Items[j]
			it.Name = visible(it.Name, false)
			if it.Words != nil {
				if text := visible(it.Words.Text, true); text != it.Words.Text {
					w := it.Words.WithText(text)
					it.Words = &w
				}
			}
		}
	}
}

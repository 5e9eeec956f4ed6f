package lettering

import (
	_ "embed"
	"strings"
	"sync"
	"unicode"
)

//go:embed hyphens/en.txt
var englishPatterns string

// patterns tell where English words may be parted (F. M. Liang, Word Hy-phen-a-tion by
// Com-put-er, 1983): digits between the letters of a pattern; where the highest of all patterns
// that a word holds is odd, it may be parted.
type patterns struct {
	levels     map[string][]byte // by their letters; one digit before each, and one after the last
	exceptions map[string][]int
	longest    int
}

var english = sync.OnceValue(func() *patterns {
	p := &patterns{levels: map[string][]byte{}, exceptions: map[string][]int{}}
	words := false
	for _, line := range strings.Fields(withoutComments(englishPatterns)) {
		switch {
		case line == "exceptions":
			words = true
		case words:
			word, at := "", []int{}
			for _, part := range strings.Split(line, "-") {
				word += part
				at = append(at, len(word))
			}
			p.exceptions[word] = at[:len(at)-1]
		default:
			letters, levels := "", []byte{0}
			for _, r := range line {
				if r >= '0' && r <= '9' {
					levels[len(levels)-1] = byte(r - '0')
					continue
				}
				letters, levels = letters+string(r), append(levels, 0)
			}
			p.levels[letters], p.longest = levels, max(p.longest, len(letters))
		}
	}
	return p
})

func withoutComments(text string) string {
	var out strings.Builder
	for line := range strings.Lines(text) {
		if !strings.HasPrefix(line, "%") {
			out.WriteString(line)
		}
	}
	return out.String()
}

// Letters that stay together at the start and at the end of a word.
const (
	leastBefore = 2
	leastAfter  = 3
)

// parts are the letters of a word, small and of the Latin alphabet, before which it may be
// parted.
func (p *patterns) parts(word string) []int {
	if at, ok := p.exceptions[word]; ok {
		return at
	}
	text := "." + word + "."
	levels := make([]byte, len(text)+1)
	for i := range text {
		for j := i + 1; j <= min(len(text), i+p.longest); j++ {
			for k, l := range p.levels[text[i:j]] {
				levels[i+k] = max(levels[i+k], l)
			}
		}
	}
	var out []int
	for i := leastBefore; i <= len(word)-leastAfter; i++ {
		if levels[i+1]%2 == 1 {
			out = append(out, i)
		}
	}
	return out
}

// hyphens are the characters of a text before which a word may be parted with a hyphen: after
// soft hyphens and, in words without any, where English words are. Words with a capital within,
// a digit or a letter of another alphabet are not parted.
func hyphens(text []rune) map[int]bool {
	out := map[int]bool{}
	for from := 0; from < len(text); {
		if !unicode.IsLetter(text[from]) && text[from] != softHyphen {
			from++
			continue
		}
		to, soft, plain := from, false, true
		for ; to < len(text) && (unicode.In(text[to], unicode.L, unicode.M, unicode.Nd) || text[to] == softHyphen); to++ {
			r := text[to]
			if r == softHyphen {
				soft = true
				out[to+1] = true
			}
			plain = plain && (r >= 'a' && r <= 'z' || to == from && r >= 'A' && r <= 'Z')
		}
		if plain && !soft {
			for _, at := range english().parts(strings.ToLower(string(text[from:to]))) {
				out[from+at] = true
			}
		}
		from = to
	}
	return out
}

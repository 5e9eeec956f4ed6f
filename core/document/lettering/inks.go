package lettering

import (
	"slices"

	"sectilis/core/document/card"
)

// inks are the inks of the clusters of all lines, "" for that of the fill; nil if no letter
// has one of its own.
func (s *shaper) inks(lines []line) [][]string {
	own := len(s.words.Colours) > 0 || slices.ContainsFunc(s.styles, func(st card.Style) bool { return st.Colour != "" })
	if !own {
		return nil
	}
	turn := s.turns(lines)
	out := make([][]string, len(lines))
	for i, l := range lines {
		for _, c := range l.clusters {
			ink := c.colour
			if n := len(s.words.Colours); ink == "" && n > 0 {
				ink = s.words.Colours[turn(i, c)%n]
			}
			out[i] = append(out[i], ink)
		}
	}
	return out
}

// turns counts what the colours take turns by: for a cluster of a line, how many lines, words
// or letters come before it.
func (s *shaper) turns(lines []line) func(line int, c cluster) int {
	if s.words.ColourBy == card.ByLine {
		return func(line int, _ cluster) int { return line }
	}
	letters, words := make([]int, len(s.text)+1), make([]int, len(s.text)+1)
	start := make([]bool, len(s.text)+1)
	for _, l := range lines {
		for _, c := range l.clusters {
			start[c.from] = true
		}
	}
	letter, word := -1, -1
	for i, r := range s.text {
		space := r == ' ' || r == '\n' || r == '\t' || r == '\u00a0'
		if !space && (i == 0 || s.text[i-1] == ' ' || s.text[i-1] == '\n' || s.text[i-1] == '\t' || s.text[i-1] == '\u00a0') {
			word++
		}
		if !space && start[i] {
			letter++
		}
		letters[i], words[i] = max(letter, 0), max(word, 0)
	}
	if s.words.ColourBy == card.ByWord {
		return func(_ int, c cluster) int { return words[c.from] }
	}
	return func(_ int, c cluster) int { return letters[c.from] }
}

package lettering

import (
	"slices"

	"golang.org/x/text/unicode/bidi"
)

// directed is neighbouring characters of a line that run the same way.
type directed struct {
	from, to int
	backward bool // from right to left
}

// paragraphBackward reports whether the paragraph about a character runs from right to left:
// by its first letter with a direction.
func paragraphBackward(text []rune, at int) bool {
	start := at
	for start > 0 && text[start-1] != '\n' {
		start--
	}
	for _, r := range text[start:] {
		if r == '\n' {
			break
		}
		switch p, _ := bidi.LookupRune(r); p.Class() {
		case bidi.L:
			return false
		case bidi.R, bidi.AL:
			return true
		}
	}
	return false
}

// directions are the runs of a line by the Unicode Bidirectional Algorithm (UAX #9), in the
// order in which they are seen, left to right. backward is the direction of the paragraph.
func directions(text []rune, backward bool) []directed {
	plain := []directed{{0, len(text), false}}
	if !backward && !slices.ContainsFunc(text, func(r rune) bool { return r >= 0x590 }) {
		return plain
	}
	// A mark before the line gives it the direction of its paragraph.
	const leftToRight, rightToLeft = "\u200e", "\u200f"
	mark := leftToRight
	if backward {
		mark = rightToLeft
	}
	var p bidi.Paragraph
	if _, err := p.SetString(mark + string(text)); err != nil {
		return plain
	}
	order, err := p.Order()
	if err != nil {
		return plain
	}
	var runs []directed
	var levels []int
	for i := range order.NumRuns() {
		run := order.Run(i)
		from, last := run.Pos()
		r := directed{max(from-1, 0), min(last, len(text)), run.Direction() == bidi.RightToLeft}
		if r.from >= r.to {
			continue
		}
		runs, levels = append(runs, r), append(levels, levelOf(text, r, backward))
	}
	reorder(runs, levels)
	return runs
}

// levelOf is the embedding level of a run: numbers between letters that run backward are
// within them, other letters are not.
func levelOf(text []rune, r directed, backward bool) int {
	switch {
	case r.backward:
		return 1
	case backward:
		return 2
	}
	for _, c := range text[r.from:r.to] {
		if p, _ := bidi.LookupRune(c); p.Class() == bidi.L {
			return 0
		}
	}
	if slices.ContainsFunc(text[r.from:r.to], func(c rune) bool {
		p, _ := bidi.LookupRune(c)
		return p.Class() == bidi.EN || p.Class() == bidi.AN
	}) {
		return 2
	}
	return 0
}

// reorder brings runs into the order in which they are seen (rule L2).
func reorder(runs []directed, levels []int) {
	for level := 2; level >= 1; level-- {
		for i := 0; i < len(runs); {
			j := i
			for j < len(runs) && levels[j] >= level {
				j++
			}
			slices.Reverse(runs[i:j])
			slices.Reverse(levels[i:j])
			i = max(j, i+1)
		}
	}
}

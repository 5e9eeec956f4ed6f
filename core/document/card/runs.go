package card

import (
	"cmp"
	"slices"
	"unicode/utf8"
)

// WithText is the words with another text: what is the same at its start and at its end keeps
// its style, and what is new in between takes that of the character before it.
func (w Words) WithText(text string) Words {
	v := *w.clone()
	v.Text = text
	e := editOf(w.Text, text)
	v.Runs = nil
	for _, r := range w.Runs {
		from, to := e.moved(r.From), e.moved(r.To)
		if r.From == e.head && e.is > e.was {
			from = e.is - e.tail // what is typed before a run is not part of it
			if r.From == 0 {
				from = 0
			}
		}
		r.From, r.To = from, to
		v.Runs = append(v.Runs, r)
	}
	v.followEdit(e)
	v.tidyRuns()
	return v
}

// edit is how a text becomes another: what is the same at its start and at its end, and the
// lengths of both, in characters.
type edit struct{ head, tail, was, is int }

func editOf(before, after string) edit {
	was, is := []rune(before), []rune(after)
	e := edit{was: len(was), is: len(is)}
	least := min(len(was), len(is))
	for e.head < least && was[e.head] == is[e.head] {
		e.head++
	}
	for e.tail < least-e.head && was[len(was)-1-e.tail] == is[len(is)-1-e.tail] {
		e.tail++
	}
	return e
}

// moved is where a boundary between characters is in the new text.
func (e edit) moved(at int) int {
	switch {
	case at <= e.head && (at < e.head || e.is == e.was):
		return at
	case at >= e.was-e.tail:
		return at + e.is - e.was
	}
	return e.head
}

// stays is where a character is in the new text; ok is false if it is not there any more.
func (e edit) stays(at int) (to int, ok bool) {
	if at < e.head {
		return at, true
	}
	return at + e.is - e.was, at >= e.was-e.tail
}

// WithKern is the words with another distance, ems, after the character with an index.
func (w Words) WithKern(i int, kern float64) Words {
	v := *w.clone()
	v.restyle(i, i+1, func(s *Style) { s.Kern = Tidy(kern) })
	return v
}

// StyleAt is the style of the character with an index.
func (w Words) StyleAt(i int) Style {
	for _, r := range w.Runs {
		if r.From <= i && i < r.To {
			return r.Style
		}
	}
	return Style{}
}

// restyle changes the style of the characters from from up to, without, to.
func (w *Words) restyle(from, to int, change func(*Style)) {
	var out []Run
	at := from
	put := func(a, b int, s Style) {
		if a < b {
			s.Features = slices.Clone(s.Features)
			change(&s)
			out = append(out, Run{a, b, s})
		}
	}
	for _, r := range w.Runs {
		if r.From < from {
			out = append(out, Run{r.From, min(r.To, from), r.Style})
		}
		a, b := max(r.From, from), min(r.To, to)
		if a < b {
			put(at, a, Style{})
			put(a, b, r.Style)
			at = b
		}
		if r.To > to {
			out = append(out, Run{max(r.From, to), r.To, r.Style})
		}
	}
	put(at, to, Style{})
	w.Runs = out
	w.tidyRuns()
}

// tidyRuns keeps runs within the text, sorted, without those that change nothing, and makes
// one of neighbours that are alike.
func (w *Words) tidyRuns() {
	n := utf8.RuneCountInString(w.Text)
	slices.SortStableFunc(w.Runs, func(a, b Run) int { return cmp.Compare(a.From, b.From) })
	var out []Run
	for _, r := range w.Runs {
		r.From, r.To = max(r.From, 0), min(r.To, n)
		if r.From >= r.To || r.Style.plain() {
			continue
		}
		if k := len(out) - 1; k >= 0 && out[k].To == r.From && out[k].Style.like(r.Style) && r.Kern == 0 {
			out[k].To = r.To
			continue
		}
		out = append(out, r)
	}
	w.Runs = out
}

func (s Style) plain() bool { return s.like(Style{}) }

func (s Style) like(o Style) bool {
	if !slices.Equal(s.Features, o.Features) {
		return false
	}
	return s.Font == o.Font && s.Scale == o.Scale && s.Spacing == o.Spacing && s.Colour == o.Colour &&
		s.Kern == o.Kern && s.Stand == o.Stand && s.Alternate == o.Alternate
}

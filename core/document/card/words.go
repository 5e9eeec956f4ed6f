package card

import (
	"slices"
	"strings"
	"unicode/utf8"
)

// Align is the edge that lines of words share.
type Align string

// The ways to align lines. Justified lines reach both edges of their box, all but the last of
// a paragraph.
const (
	AlignLeft    Align = "left"
	AlignCentre  Align = "centre"
	AlignRight   Align = "right"
	AlignJustify Align = "justify"
)

// Words is the content of lettering: a headline, whose lines break where it says so, or with
// a Box a paragraph, whose lines break at the edge of the box too.
type Words struct {
	Text    string  `json:"text"`
	Font    string  `json:"font"`
	Size    float64 `json:"size"`    // of the em, mm
	Leading float64 `json:"leading"` // from line to line, in ems
	Spacing float64 `json:"spacing"` // added between letters, in ems
	Align   Align   `json:"align"`
	// Features are those of the font that all letters use.
	Features []Feature `json:"features,omitempty"`
	// Runs are characters that are set otherwise: sorted, apart from each other, none empty.
	Runs []Run `json:"runs,omitempty"`
	// Colours are inks that lines, words or letters have in turn; none is that of the fill.
	Colours  []string `json:"colours,omitempty"`
	ColourBy ColourBy `json:"colourBy,omitempty"`
	// Tie is how wide strips are that hold dots and accents to their letters, mm; 0 for none.
	Tie float64  `json:"tie,omitempty"`
	Box *TextBox `json:"box,omitempty"`
	// Path is a line that the words stand along; without one they stand in straight lines.
	Path *TextPath `json:"path,omitempty"`
	// Warp bends straight lines as a whole.
	Warp *Warp `json:"warp,omitempty"`
}

// TextBox is the box that a paragraph is set in. Width and Height are mm; a height of 0 is as
// high as the lines are.
type TextBox struct {
	Width  float64 `json:"width"`
	Height float64 `json:"height,omitempty"`
	// Fit sets the letters as large as has room, in place of the size of the words; it needs
	// a height.
	Fit bool `json:"fit,omitempty"`
	// Unwrapped lets lines break only where the text says so.
	Unwrapped bool `json:"unwrapped,omitempty"`
	// Hyphenate lets words break at their soft hyphens (U+00AD).
	Hyphenate bool `json:"hyphenate,omitempty"`
}

// Style is how characters differ from the rest of their words; its zero value does not.
type Style struct {
	Font    string  `json:"font,omitempty"`
	Scale   float64 `json:"scale,omitempty"`   // of the size; 0 is 1
	Spacing float64 `json:"spacing,omitempty"` // more than the words have between letters, in ems
	Colour  string  `json:"colour,omitempty"`
	// Kern is added after the last of them, in ems.
	Kern     float64   `json:"kern,omitempty"`
	Stand    Stand     `json:"stand,omitempty"`
	Features []Feature `json:"features,omitempty"`
	// Alternate is the number of the other form that the font has for each of the letters,
	// from 1; 0 is the usual one.
	Alternate int `json:"alternate,omitempty"`
}

// Run is the style of the characters (Unicode code points) from From up to, without, To.
type Run struct {
	From int `json:"from"`
	To   int `json:"to"`
	Style
}

// Stand is where characters stand: on the baseline or, small, above or below it.
type Stand string

// RaisedLetters are as in 1st, LoweredLetters as in H2O.
const (
	OnBaseline     Stand = ""
	RaisedLetters  Stand = "raised"
	LoweredLetters Stand = "lowered"
)

// Feature is something that a font may have beside its usual letters.
type Feature string

// The features of fonts, by what they do.
const (
	Swashes        Feature = "swashes"
	NoLigatures    Feature = "noLigatures"
	RareLigatures  Feature = "rareLigatures"
	OldFigures     Feature = "oldFigures"
	LiningFigures  Feature = "liningFigures"
	SmallCapitals  Feature = "smallCapitals"
	NoAlternates   Feature = "noAlternates"
	EvenFigures    Feature = "evenFigures"
	DrawnFractions Feature = "fractions"
)

// Features lists them.
func Features() []Feature {
	return []Feature{Swashes, NoLigatures, RareLigatures, OldFigures, LiningFigures, EvenFigures, SmallCapitals, DrawnFractions, NoAlternates}
}

// ColourBy is what changes its colour.
type ColourBy string

// Colours change from line to line, from word to word or from letter to letter.
const (
	ByLine   ColourBy = "line"
	ByWord   ColourBy = "word"
	ByLetter ColourBy = "letter"
)

// TextPath is a line that words stand along: a circle of a radius, an arc over which they bend
// by an angle, or a line that was drawn. Just one of the three is given. The first two have
// their highest point, or lowest with Under, at the anchor of the words.
type TextPath struct {
	Radius float64 `json:"radius,omitempty"` // mm
	Bend   float64 `json:"bend,omitempty"`   // degrees that the longest line spans
	Line   *Drawn  `json:"line,omitempty"`   // about the anchor of the words; the longest of its strokes counts
	// Under stands the words below the circle.
	Under bool `json:"under,omitempty"`
	// Turned stands them on the other side of the line, running the other way: letters of a
	// circle point inward with their tops.
	Turned bool `json:"turned,omitempty"`
	// Start shifts the words along the line, in shares of its length.
	Start float64 `json:"start,omitempty"`
	// Even spreads the letters over the whole line.
	Even bool `json:"even,omitempty"`
	// Away is how far they stand from the line, mm, toward their tops.
	Away    float64 `json:"away,omitempty"`
	Letters Stance  `json:"letters,omitempty"`
}

// Stance is how letters stand on a line that is not straight.
type Stance string

// Letters turn with the line, stay upright, or are sheared: upright, with their feet along it.
const (
	TurnedLetters  Stance = ""
	UprightLetters Stance = "upright"
	ShearedLetters Stance = "sheared"
)

// Warp bends a block of words between two curves.
type Warp struct {
	Form WarpForm `json:"form"`
	// Amount is how far the curves bend, in heights of the block; less than 0 bends them the
	// other way.
	Amount float64 `json:"amount"`
}

// WarpForm is a pair of curves.
type WarpForm string

// Arch: both curves rise in the middle. Bulge: the upper rises, the lower falls. Flag: both
// are a wave. Wedge: the block grows from left to right.
const (
	Arch  WarpForm = "arch"
	Bulge WarpForm = "bulge"
	Flag  WarpForm = "flag"
	Wedge WarpForm = "wedge"
)

func (w *Words) clone() *Words {
	if w == nil {
		return nil
	}
	v := *w
	v.Features, v.Runs, v.Colours = slices.Clone(w.Features), slices.Clone(w.Runs), slices.Clone(w.Colours)
	for i := range v.Runs {
		v.Runs[i].Features = slices.Clone(v.Runs[i].Features)
	}
	v.Box, v.Path, v.Warp = copied(w.Box), copied(w.Path), copied(w.Warp)
	return &v
}

// scale multiplies all lengths of the words.
func (w *Words) scale(k float64) {
	w.Size, w.Tie = Tidy(w.Size*k), Tidy(w.Tie*k)
	if b := w.Box; b != nil {
		b.Width, b.Height = Tidy(b.Width*k), Tidy(b.Height*k)
	}
	if p := w.Path; p != nil {
		p.Radius, p.Away = Tidy(p.Radius*k), Tidy(p.Away*k)
		if p.Line != nil {
			p.Line = p.Line.scaled(k)
		}
	}
}

// WithText is the words with another text: what is the same at its start and at its end keeps
// its style, and what is new in between takes that of the character before it.
func (w Words) WithText(text string) Words {
	v := *w.clone()
	v.Text = text
	was, is := []rune(w.Text), []rune(text)
	head := 0
	for head < min(len(was), len(is)) && was[head] == is[head] {
		head++
	}
	tail := 0
	for tail < min(len(was), len(is))-head && was[len(was)-1-tail] == is[len(is)-1-tail] {
		tail++
	}
	// moved is where a boundary between characters is in the new text.
	moved := func(at int) int {
		switch {
		case at <= head && (at < head || len(is) == len(was)):
			return at
		case at >= len(was)-tail:
			return at + len(is) - len(was)
		case at == head:
			return at
		}
		return head
	}
	v.Runs = nil
	for _, r := range w.Runs {
		from, to := moved(r.From), moved(r.To)
		if r.From == head && len(is) > len(was) {
			from = len(is) - tail // what is typed before a run is not part of it
			if r.From == 0 {
				from = 0
			}
		}
		r.From, r.To = from, to
		v.Runs = append(v.Runs, r)
	}
	v.tidyRuns()
	return v
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
	slices.SortStableFunc(w.Runs, func(a, b Run) int { return a.From - b.From })
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

// Check returns a *Refusal for what no words can be set with.
func (w Words) Check() error {
	if strings.TrimSpace(w.Text) == "" {
		return Refuse("text", "Lettering needs at least one letter.")
	}
	if !utf8.ValidString(w.Text) || utf8.RuneCountInString(w.Text) > maxText {
		return Refuse("text", "Lettering holds at most %d letters.", maxText)
	}
	if !within(w.Size, .5, 400) {
		return Refuse("size", "Letters are between 0.5 mm and 400 mm (15 ¾ in) high.")
	}
	if !within(w.Leading, .5, 4) {
		return Refuse("leading", "Leading is between 0.5 and 4 times the size.")
	}
	if !within(w.Spacing, -.2, 2) {
		return Refuse("spacing", "Letter spacing is between -0.2 and 2 times the size.")
	}
	switch w.Align {
	case AlignLeft, AlignCentre, AlignRight:
	case AlignJustify:
		if w.Box == nil {
			return Refuse("align", "Lines can reach both edges only in a box. Give the words a width first.")
		}
	default:
		return Refuse("align", "Lines are aligned left, centre, right or to both edges.")
	}
	if err := checkFeatures(w.Features); err != nil {
		return err
	}
	if !within(w.Tie, 0, 100) {
		return Refuse("tie", "What holds a dot is up to 100 mm (3 15/16 in) wide.")
	}
	if len(w.Colours) > maxColours {
		return Refuse("colours", "Up to %d colours take turns.", maxColours)
	}
	for _, c := range w.Colours {
		if err := checkColour(c); err != nil {
			return err
		}
	}
	if (len(w.Colours) > 0) != slices.Contains([]ColourBy{ByLine, ByWord, ByLetter}, w.ColourBy) {
		return Refuse("colourBy", "Colours take turns by line, word or letter.")
	}
	if w.Path != nil && (w.Warp != nil || w.Box != nil) {
		return Refuse("path", "Words along a line have no box and are not bent otherwise.")
	}
	for _, err := range []error{w.checkRuns(), w.Box.check(), w.Path.check(), w.Warp.check()} {
		if err != nil {
			return err
		}
	}
	return nil
}

// maxColours is how many colours take turns at most.
const maxColours = 24

func (w Words) checkRuns() error {
	at, n := 0, utf8.RuneCountInString(w.Text)
	for _, r := range w.Runs {
		if r.From < at || r.To <= r.From || r.To > n {
			return Refuse("runs", "Characters %d to %d cannot be set otherwise: there are %d, and each has one style.", r.From+1, r.To, n)
		}
		at = r.To
		if err := r.Style.check(); err != nil {
			return err
		}
	}
	return nil
}

func (s Style) check() error {
	if s.Scale != 0 && !within(s.Scale, .1, 10) {
		return Refuse("scale", "Single letters are between 10 and 1000 %% of the size.")
	}
	if !within(s.Spacing, -.5, 2) || !within(s.Kern, -2, 2) {
		return Refuse("spacing", "Single letters move by up to 2 times the size.")
	}
	if s.Colour != "" {
		if err := checkColour(s.Colour); err != nil {
			return err
		}
	}
	if s.Stand != OnBaseline && s.Stand != RaisedLetters && s.Stand != LoweredLetters {
		return Refuse("stand", "Figures stand on the line, raised or lowered.")
	}
	if s.Alternate < 0 || s.Alternate > maxAlternates {
		return Refuse("alternate", "A letter has at most %d other forms.", maxAlternates)
	}
	return checkFeatures(s.Features)
}

// maxAlternates is the highest number of an alternate form.
const maxAlternates = 200

func checkFeatures(fs []Feature) error {
	for i, f := range fs {
		if !slices.Contains(Features(), f) || slices.Contains(fs[:i], f) {
			return Refuse("features", "“%s” is nothing that a font has.", f)
		}
	}
	return nil
}

func (b *TextBox) check() error {
	if b == nil {
		return nil
	}
	if !within(b.Width, 1, 1000) || b.Height != 0 && !within(b.Height, 1, 1000) {
		return Refuse("box", "A box of words is between 1 mm and 1000 mm (39 ⅜ in) wide and high.")
	}
	if b.Fit && b.Height == 0 {
		return Refuse("box", "Letters that are as large as fits need a box with a height.")
	}
	return nil
}

func (p *TextPath) check() error {
	if p == nil {
		return nil
	}
	given := 0
	for _, is := range []bool{p.Radius != 0, p.Bend != 0, p.Line != nil} {
		if is {
			given++
		}
	}
	if given != 1 {
		return Refuse("path", "Words stand along a circle, an arc or a line: one of them.")
	}
	if p.Radius != 0 && !within(p.Radius, 1, 5000) {
		return Refuse("radius", "The radius is between 1 mm and 5000 mm (16 ft).")
	}
	if p.Bend != 0 && !within(p.Bend, 1, 360) {
		return Refuse("bend", "Words bend by 1° to 360°.")
	}
	if p.Line != nil {
		if err := p.Line.check("The line of the words", true); err != nil {
			return err
		}
	}
	if !within(p.Start, -1, 1) {
		return Refuse("start", "Words start between -100 and 100 %% of the line.")
	}
	if !within(p.Away, -200, 200) {
		return Refuse("away", "Words stand up to 200 mm (7 ⅞ in) from their line.")
	}
	if p.Letters != TurnedLetters && p.Letters != UprightLetters && p.Letters != ShearedLetters {
		return Refuse("letters", "Letters along a line are turned, upright or sheared.")
	}
	return nil
}

func (e *Warp) check() error {
	if e == nil {
		return nil
	}
	if !slices.Contains([]WarpForm{Arch, Bulge, Flag, Wedge}, e.Form) {
		return Refuse("warp", "Words are bent to an arch, a bulge, a flag or a wedge.")
	}
	if e.Amount == 0 || !within(e.Amount, -2, 2) {
		return Refuse("amount", "Words are bent by up to 200 %% of their height.")
	}
	return nil
}

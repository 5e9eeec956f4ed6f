package card

import (
	"slices"
	"strings"
	"unicode/utf8"
)

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
	if !within(w.Bar, 0, 100) {
		return Refuse("bar", "A bar along the feet of letters is up to 100 mm (3 15/16 in) thick.")
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
	for _, err := range []error{w.checkRuns(), w.checkFields(), w.Box.check(), w.Path.check(), w.Warp.check()} {
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
	if !within(b.Least, 0, 400) || !within(b.Most, 0, 400) || b.Most > 0 && b.Most < b.Least || b.Lines < 0 || b.Lines > maxBoxLines {
		return Refuse("box", "Letters that fit a box are up to 400 mm (15 ¾ in) high, no smaller at most than at least, in up to %d lines.", maxBoxLines)
	}
	return nil
}

// maxBoxLines is how many lines letters that fit a box may be held to.
const maxBoxLines = 20

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

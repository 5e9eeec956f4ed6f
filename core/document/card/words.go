package card

import (
	"slices"
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
	// Fields say what a list of names says: sorted, apart from each other.
	Fields []Field `json:"fields,omitempty"`
	// Colours are inks that lines, words or letters have in turn; none is that of the fill.
	Colours  []string `json:"colours,omitempty"`
	ColourBy ColourBy `json:"colourBy,omitempty"`
	// Tie is how wide strips are that hold dots and accents to their letters, mm; 0 for none.
	Tie float64 `json:"tie,omitempty"`
	// Bar is how thick a bar along the feet of each line is that holds letters together, mm; 0
	// for none.
	Bar float64  `json:"bar,omitempty"`
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
	// Least and Most are how small and how large letters that fit may be, mm, and Lines is how many lines
	// they may take; 0 is any. What does not fit so is larger than its box.
	Least float64 `json:"least,omitempty"`
	Most  float64 `json:"most,omitempty"`
	Lines int     `json:"lines,omitempty"`
	// Whole counts what tall and deep letters reach beyond their lines, so that all ink of letters that
	// fit lies within the height of the box.
	Whole bool `json:"whole,omitempty"`
	// Unwrapped lets lines break only where the text says so.
	Unwrapped bool `json:"unwrapped,omitempty"`
	// Hyphenate parts words with hyphens: at their soft hyphens (U+00AD), or where English
	// words are.
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
	v.Fields = slices.Clone(w.Fields)
	v.Box, v.Path, v.Warp = copied(w.Box), copied(w.Path), copied(w.Warp)
	return &v
}

// scale multiplies all lengths of the words.
func (w *Words) scale(k float64) {
	w.Size, w.Tie, w.Bar = Tidy(w.Size*k), Tidy(w.Tie*k), Tidy(w.Bar*k)
	if b := w.Box; b != nil {
		b.Width, b.Height, b.Least, b.Most = Tidy(b.Width*k), Tidy(b.Height*k), Tidy(b.Least*k), Tidy(b.Most*k)
	}
	if p := w.Path; p != nil {
		p.Radius, p.Away = Tidy(p.Radius*k), Tidy(p.Away*k)
		if p.Line != nil {
			p.Line = p.Line.scaled(k)
		}
	}
}

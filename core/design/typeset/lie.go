// Package typeset changes how words are laid: in straight lines, in a box, along a line or
// between two curves, and makes items of single letters. It is one of the design packages and
// stands on the document.
package typeset

import (
	"math"

	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// Commands are the commands of this package by their names in the protocol.
var Commands = map[string]func() card.Command{
	"layWords":     func() card.Command { return &LayWords{} },
	"lettersApart": func() card.Command { return &LettersApart{} },
	"bandBehind":   func() card.Command { return &BandBehind{} },
	"fitNames":     func() card.Command { return &FitNames{} },
}

// Lie is how words are laid.
type Lie string

// The ways in which words are laid.
const (
	Straight Lie = "straight"
	InBox    Lie = "box"
	OnArc    Lie = "arc"
	OnCircle Lie = "circle"
	OnLine   Lie = "line" // along the outline of another item, or along a line
	ToArch   Lie = "arch"
	ToBulge  Lie = "bulge"
	ToFlag   Lie = "flag"
	ToWedge  Lie = "wedge"
)

// Lies lists them.
func Lies() []Lie {
	return []Lie{Straight, InBox, OnArc, OnCircle, OnLine, ToArch, ToBulge, ToFlag, ToWedge}
}

// LayWords lays words in another way, with measures to begin with; their middle stays where it
// is. Along a line they take a copy of it: it may go afterwards.
type LayWords struct {
	ID  string `json:"id"`
	Lie Lie    `json:"lie"`
	// Along is the item whose outline or line they stand along, for OnLine.
	Along string `json:"along,omitempty"`
}

// Label implements card.Command.
func (LayWords) Label() string { return "Lay words" }

// Measures to begin with: the angle of an arc, degrees; how much longer a circle is than its
// words; how far an envelope bends, in heights of the words.
const (
	firstBend   = 90
	roomOnRound = 1.3
	firstAmount = .35
)

// Apply implements card.Command.
func (k LayWords) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, []string{k.ID}, func(_ *card.Card, f *card.Face) error {
		it := f.Item(k.ID)
		if it.Words == nil {
			return card.Refuse("id", "“%s” is no lettering.", it.Name)
		}
		if err := f.Unlocked([]string{k.ID}); err != nil {
			return err
		}
		was, err := scene.Resolve(f, it)
		if err != nil {
			return err
		}
		w := *it.Words
		w.Size = card.Tidy(was.Words.Size)
		w.Box, w.Path, w.Warp = nil, nil, nil
		if w.Align == card.AlignJustify && k.Lie != InBox {
			w.Align = card.AlignCentre
		}
		straight, err := lettering.Set(w)
		if err != nil {
			return card.Refuse("font", "“%s” cannot be set: %v.", it.Name, err)
		}
		switch k.Lie {
		case Straight:
		case InBox:
			w.Box = &card.TextBox{Width: sixteenthUp(max(straight.Block.W, 1))}
		case OnArc:
			w.Path = &card.TextPath{Bend: firstBend}
		case OnCircle:
			w.Path = &card.TextPath{Radius: sixteenthUp(max(straight.Block.W*roomOnRound/(2*math.Pi), 1))}
		case OnLine:
			line, err := k.line(f, was.At)
			if err != nil {
				return err
			}
			w.Path = &card.TextPath{Line: card.NewDrawn(line)}
		case ToArch, ToBulge, ToFlag, ToWedge:
			w.Warp = &card.Warp{Form: card.WarpForm(k.Lie), Amount: firstAmount}
		default:
			return card.Refuse("lie", "Words do not lie so.")
		}
		it.Words = &w
		if k.Lie == OnLine {
			return nil
		}
		is, err := scene.Resolve(f, it)
		if err != nil {
			return err
		}
		by := was.Bounds.Centre().Sub(is.Bounds.Centre())
		it.Place.X, it.Place.Y = card.Tidy(it.Place.X+by.X), card.Tidy(it.Place.Y+by.Y)
		return nil
	})
}

// line is the outline of the item that the words stand along, as the words see it; at maps
// them to the face.
func (k LayWords) line(f *card.Face, at geom.Affine) (geom.Path, error) {
	to := f.Item(k.Along)
	if to == nil || to.ID == k.ID {
		return geom.Path{}, card.Refuse("along", "Choose the words and one other item on the same face; its outline is what they stand along.")
	}
	s, err := scene.Resolve(f, to)
	if err != nil {
		return geom.Path{}, err
	}
	back, ok := at.Inverse()
	if !ok || s.Outline.Empty() {
		return geom.Path{}, card.Refuse("along", "“%s” has no outline that words could stand along.", to.Name)
	}
	return s.Outline.Transform(s.At.Then(back)), nil
}

// sixteenthUp is the next sixteenth of an inch, mm.
func sixteenthUp(mm float64) float64 {
	const step = 25.4 / 16
	return card.Tidy(math.Ceil(mm/step-1e-9) * step)
}

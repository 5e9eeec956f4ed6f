package assembly

import (
	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
)

// labelFont is the typeface of the words in pictures, labelHigh the size of their em, mm, where what is drawn
// is labelFace long.
const (
	labelFont = "nunito-400"
	labelHigh = 7.0
	labelFace = 178.0
	labelInk  = "#1f2b38"
	labelHalo = "#fffdf9"
)

// measures draws the lengths that a piece is laid by, on what it is laid on, which lies so high: from an
// edge of that to the same edge of the piece.
func (d *drawn) measures(all []Measure, piece, carrier geom.Rect, top float64) {
	// They stand before the piece, where it hides nothing while it is above.
	x, y := piece.Right()-.18*piece.W, piece.Bottom()-.12*piece.H
	for _, m := range all {
		if m.MM < .5 {
			continue // edge on edge
		}
		switch m.from {
		case leftEdge:
			d.dimension(geom.Pt(carrier.X, y), geom.Pt(piece.X, y), m.MM, top)
		case lowerEdge, allRound:
			d.dimension(geom.Pt(x, carrier.Bottom()), geom.Pt(x, piece.Bottom()), m.MM, top)
		case noEdge:
		}
	}
}

// dimension draws a length between two places of a plane that lies so high, with ticks at its ends and its
// words beside it.
func (d *drawn) dimension(a, b geom.Point, mm, top float64) {
	k := d.size / labelFace
	m := flat(top)
	along := b.Sub(a)
	across := geom.Pt(-along.Y, along.X).Mul(1.6 * k / along.Len())
	var g geom.Builder
	line := g.Move(a).Line(b).Move(a.Sub(across)).Line(a.Add(across)).Move(b.Sub(across)).Line(b.Add(across)).Path()
	stroke := func(width float64, colour string) {
		d.ink(scene.Ink{Region: geom.Stroke(line.Transform(m), width*k, geom.RoundCorner, geom.RoundCap), Colour: colour})
	}
	stroke(2, labelHalo)
	stroke(.6, labelInk)
	words := lettered(measure.Plain(measure.FormatUnit(mm, d.unit)), labelHigh*k)
	box := words.Bounds()
	// Below the line that runs across; to the right of the one that runs down.
	at := a.Lerp(b, .5)
	shift := geom.Pt(at.X-box.Centre().X, at.Y-box.Y+2*k)
	if along.X == 0 {
		shift = geom.Pt(at.X-box.X+2.4*k, at.Y-box.Centre().Y)
	}
	words = words.Transform(geom.Shift(shift.X, shift.Y)).Transform(m)
	d.ink(scene.Ink{Region: geom.Offset(words, .9*k, geom.RoundCorner), Colour: labelHalo}, scene.Ink{Region: words, Colour: labelInk})
}

// lettered is the outline of words on one line.
func lettered(text string, high float64) geom.Path {
	set, err := lettering.Set(card.Words{Text: text, Font: labelFont, Size: high, Leading: 1.2, Align: card.AlignLeft})
	if err != nil {
		return geom.Path{} // the typeface ships with the program
	}
	return set.Outline
}

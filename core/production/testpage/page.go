// Package testpage draws the page that a printer is tested with, and reads from a picture of it how
// its colours came out.
package testpage

import (
	"fmt"
	"math"

	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// Rulers are the lengths, mm, of the rulers across and down the page of a size, mm: whole ten
// millimetres, as long as have room.
func Rulers(width, height float64) (across, down float64) {
	long := func(v float64) float64 { return math.Floor((v-50)/10) * 10 }
	return long(width), long(height)
}

const black = "#000000"

// Inks are what is printed on the page of a size, mm: a ruler across the middle and one down, with a
// tick for every millimetre, and the colour row. It fails when a font does not set its words.
func Inks(width, height float64) ([]scene.Ink, error) {
	inks := rowOn(width, height).inks()
	line := func(m geom.Affine, a, b geom.Point, width float64) {
		var g geom.Builder
		path := g.Move(a).Line(b).Path().Transform(m)
		inks = append(inks, scene.Ink{Region: geom.Stroke(path, width, geom.RoundCorner, geom.ButtCap), Colour: black})
	}
	word := func(text string, at geom.Point) error {
		set, err := lettering.Set(card.Words{Text: text, Font: "patrick-hand-400", Size: 4})
		if err != nil {
			return err
		}
		box := set.Outline.Bounds()
		inks = append(inks, scene.Ink{Region: set.Outline.Transform(geom.Shift(at.X-box.X-box.W/2, at.Y-box.Y-box.H/2)), Colour: black})
		return nil
	}
	w, h := Rulers(width, height)
	mid := geom.Pt(width/2, height/2)
	for _, r := range []struct {
		length float64
		at     geom.Affine
		name   geom.Point
	}{
		{w, geom.Shift(mid.X-w/2, mid.Y), geom.Pt(mid.X+w/4, mid.Y+12)},
		{h, geom.Turn(math.Pi / 2).Then(geom.Shift(mid.X, mid.Y-h/2)), geom.Pt(mid.X+18, mid.Y-h/4)},
	} {
		line(r.at, geom.Pt(0, 0), geom.Pt(r.length, 0), .15)
		for k := 0.0; k <= r.length; k++ {
			long := 1.5
			switch {
			case k == 0 || k == r.length:
				long = 8
			case math.Mod(k, 10) == 0:
				long = 4
			case math.Mod(k, 5) == 0:
				long = 2.5
			}
			line(r.at, geom.Pt(k, -long), geom.Pt(k, 0), .12)
		}
		if err := word(fmt.Sprintf("%.0f mm", r.length), r.name); err != nil {
			return nil, err
		}
	}
	return inks, word("Measure both rulers from end to end", geom.Pt(mid.X, mid.Y-h/2-8))
}

package testpage

import (
	"fmt"
	"math"

	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// The colour row has greys from black to bare paper, then inks and their overprints, full and half.
const (
	columns = 6
	greys   = 12
)

// RGB is a colour, 0 to 255.
type RGB = [3]float64

// Patches are the colours of the row, in order.
func Patches() []RGB {
	out := make([]RGB, 0, 2*greys)
	for i := range greys {
		v := math.Round(255 * float64(i) / (greys - 1))
		out = append(out, RGB{v, v, v})
	}
	return append(out,
		RGB{0, 255, 255}, RGB{255, 0, 255}, RGB{255, 255, 0}, RGB{255, 0, 0}, RGB{0, 255, 0}, RGB{0, 0, 255},
		RGB{128, 255, 255}, RGB{255, 128, 255}, RGB{255, 255, 128}, RGB{200, 100, 90}, RGB{90, 150, 90}, RGB{90, 100, 170},
	)
}

// row is where the colour row is, mm: its patches are squares of a side, at is the upper left corner
// of the first.
type row struct {
	at   geom.Point
	side float64
}

// The marks of the row are black squares beyond its corners; that at the first patch is larger.
const (
	gap      = .25 // shares of a side
	markAway = .75
	firstBig = .9
	others   = .55
)

func rowOn(width, height float64) row {
	side := min(7, (width/2-11)/9.65, (height/2-23)/7.15)
	return row{geom.Pt(width/2+6+(markAway+firstBig/2)*side, height/2+18+(markAway+firstBig/2)*side), side}
}

// size is across and down the patches, in sides.
func size() (w, h float64) {
	rows := float64(len(Patches()) / columns)
	return columns*(1+gap) - gap, rows*(1+gap) - gap
}

// middle is that of a patch, in sides from the corner of the first.
func middle(i int) geom.Point {
	return geom.Pt(float64(i%columns)*(1+gap)+.5, float64(i/columns)*(1+gap)+.5)
}

// marks are the middles of the marks, clockwise from the first, in sides.
func marks() [4]geom.Point {
	w, h := size()
	return [4]geom.Point{{X: -markAway, Y: -markAway}, {X: w + markAway, Y: -markAway}, {X: w + markAway, Y: h + markAway}, {X: -markAway, Y: h + markAway}}
}

func (r row) inks() (out []scene.Ink) {
	square := func(at geom.Point, side float64, colour string) {
		c := r.at.Add(at.Mul(r.side))
		s := side * r.side
		out = append(out, scene.Ink{Region: geom.RectPath(geom.Rect{X: c.X - s/2, Y: c.Y - s/2, W: s, H: s}), Colour: colour})
	}
	for i, at := range marks() {
		if i == 0 {
			square(at, firstBig, black)
		} else {
			square(at, others, black)
		}
	}
	for i, c := range Patches() {
		square(middle(i), 1, fmt.Sprintf("#%02x%02x%02x", int(c[0]), int(c[1]), int(c[2])))
	}
	return out
}

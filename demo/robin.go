package demo

import (
	"math"

	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// The robin is drawn in a square plane, on no ground.
const robinPlane = 420.0

// leaf is a pointed leaf from a place, of a length, turned by radians.
func (s *sketch) leaf(colour string, x, y, length, turn float64) {
	var b geom.Builder
	b.Move(geom.Pt(0, 0)).Quad(geom.Pt(length*.45, -length*.32), geom.Pt(length, 0)).Quad(geom.Pt(length*.45, length*.32), geom.Pt(0, 0)).Close()
	s.put(colour, b.Path().Transform(geom.Turn(turn).Then(geom.Shift(x, y))))
}

// robin is a bird on a sprig that bends into a ring, through which one sees.
func robin() *sketch {
	s := &sketch{}
	ring := geom.Difference(geom.NonZero, geom.EllipsePath(geom.Rect{X: 45, Y: 40, W: 330, H: 330}), geom.EllipsePath(geom.Rect{X: 57, Y: 52, W: 306, H: 306}))
	s.put("#6d4f30", ring)
	for i := range 13 {
		a := .5 + 2*math.Pi*float64(i)/13
		if a > 4.2 && a < 5.4 {
			continue
		}
		x, y := 210+159*math.Cos(a), 205+159*math.Sin(a)
		s.leaf([]string{"#587a4a", "#6c8f57", "#7f9c6c"}[i%3], x, y, 52, a+.7)
		s.leaf([]string{"#6c8f57", "#587a4a"}[i%2], x, y, 46, a-.9+math.Pi)
		s.oval("#a8432a", x+9*math.Cos(a+1), y+9*math.Sin(a+1), 7, 7)
	}
	wreath := len(s.inks)
	// The bird: tail, body, wing, breast, head.
	s.polygon("#5b4634", 118, 262, 64, 306, 84, 318, 146, 282)
	var body geom.Builder
	body.Move(geom.Pt(110, 262)).Cubic(geom.Pt(118, 190), geom.Pt(170, 150), geom.Pt(214, 148)).
		Cubic(geom.Pt(290, 142), geom.Pt(312, 208), geom.Pt(280, 262)).Cubic(geom.Pt(250, 312), geom.Pt(160, 320), geom.Pt(110, 262)).Close()
	s.put("#7a5f46", body.Path())
	s.oval("#7a5f46", 262, 148, 46, 44)
	var breast geom.Builder
	breast.Move(geom.Pt(300, 140)).Cubic(geom.Pt(322, 190), geom.Pt(312, 260), geom.Pt(246, 288)).
		Cubic(geom.Pt(226, 250), geom.Pt(230, 190), geom.Pt(252, 150)).Cubic(geom.Pt(262, 132), geom.Pt(288, 124), geom.Pt(300, 140)).Close()
	s.put("#c8582f", breast.Path())
	s.oval("#efe3cd", 212, 296, 40, 16)
	s.leaf("#5b4634", 222, 206, 124, 2.62)
	s.polygon("#3a2c20", 305, 138, 334, 147, 304, 156)
	s.oval("#1f1a16", 280, 136, 7, 7)
	s.oval("#fffdf9", 282.5, 133.5, 2.2, 2.2)
	for _, x := range []float64{196, 222} {
		s.polygon("#5b4634", x, 304, x+5, 304, x+11, 372, x+6, 372)
	}
	copy(s.inks[wreath:], scene.Transform(s.inks[wreath:], geom.Shift(5, -20)))
	return s
}

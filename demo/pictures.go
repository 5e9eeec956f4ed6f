// Package demo makes the demo cards: the year of the Plum Lane Allotments, a
// made-up society. All its pictures are drawn here.
package demo

import (
	"bytes"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"math"
	"math/rand/v2"

	"sectilis/core/document/scene"
	"sectilis/core/format/raster"
	"sectilis/core/ground/geom"
)

// Size of a demo photo in pixels, and of the plane it is drawn in: 600 × 400.
const (
	photoWidth  = 1800
	planeWidth  = 600.0
	planeHeight = 400.0
)

type sketch struct{ inks []scene.Ink }

func (s *sketch) put(colour string, p geom.Path) {
	s.inks = append(s.inks, scene.Ink{Region: p, Colour: colour})
}

func (s *sketch) oval(colour string, x, y, rx, ry float64) {
	s.put(colour, geom.EllipsePath(geom.Rect{X: x - rx, Y: y - ry, W: 2 * rx, H: 2 * ry}))
}

func (s *sketch) box(colour string, x, y, w, h float64) {
	s.put(colour, geom.RectPath(geom.Rect{X: x, Y: y, W: w, H: h}))
}

func (s *sketch) polygon(colour string, xy ...float64) {
	var b geom.Builder
	b.Move(geom.Pt(xy[0], xy[1]))
	for i := 2; i < len(xy); i += 2 {
		b.Line(geom.Pt(xy[i], xy[i+1]))
	}
	s.put(colour, b.Close().Path())
}

// sky fades from one colour to another in thin bands.
func (s *sketch) sky(top, foot string, height float64) {
	a, b := raster.Colour(top), raster.Colour(foot)
	const n = 80
	for i := range n {
		k := float64(i) / (n - 1)
		mix := func(p, q uint8) int { return int(float64(p)*(1-k) + float64(q)*k + .5) }
		s.box(fmt.Sprintf("#%02x%02x%02x", mix(a.R, b.R), mix(a.G, b.G), mix(a.B, b.B)), 0, height*float64(i)/n, planeWidth, height/n+1)
	}
}

// hill is a wavy ground from y down.
func (s *sketch) hill(colour string, y, height, phase float64) {
	var b geom.Builder
	b.Move(geom.Pt(0, planeHeight)).Line(geom.Pt(0, y+height*math.Sin(phase)))
	for x := 10.0; x <= planeWidth; x += 10 {
		b.Line(geom.Pt(x, y+height*math.Sin(phase+x/95)))
	}
	s.put(colour, b.Line(geom.Pt(planeWidth, planeHeight)).Close().Path())
}

func pumpkinHills() *sketch {
	s := &sketch{}
	s.sky("#f6e3b4", "#f0c98c", 300)
	s.oval("#fbeecb", 430, 95, 46, 46)
	s.hill("#a9b98a", 190, 26, .4)
	s.hill("#8aa372", 225, 22, 2.6)
	s.hill("#6c8757", 275, 10, 4.2)
	for row := range 5 {
		y := 300 + float64(row)*24
		s.polygon("#5d774a", 0, y, planeWidth, y-8, planeWidth, y-2, 0, y+7)
	}
	for i := range 7 {
		x, y := 55+float64(i)*82, 318+float64(i%3)*22
		r := 25 + float64(i*7%5)*3
		s.oval("#4d633d", x+4, y+r*.78, r*1.1, r*.2)
		s.oval("#c9661c", x, y, r, r*.8)
		for _, k := range []float64{-.62, .62, -.3, .3} {
			s.oval([]string{"#e58a35", "#d97b26"}[int(math.Abs(k)*2)%2], x+k*r*.72, y, r*.42, r*.74)
		}
		s.oval("#eb9a48", x, y, r*.24, r*.74)
		s.polygon("#50693b", x-3, y-r*.75, x+2, y-r*1.2, x+9, y-r*1.25, x+5, y-r*.75)
	}
	return s
}

func beeMeadow() *sketch {
	r := rand.New(rand.NewPCG(21, 4))
	s := &sketch{}
	s.sky("#cfe3e6", "#f3efd8", 260)
	s.hill("#b7c99b", 195, 18, 1.2)
	s.hill("#93b077", 235, 14, 3.3)
	for i, x := range []float64{150, 265, 385} {
		y := 205 + float64(i%2)*14
		s.polygon("#6d5a3c", x-30, y+92, x-24, y+78, x+24, y+78, x+30, y+92)
		for k := range 3 {
			s.box([]string{"#f4ead2", "#e2a42b", "#dfe8ea"}[(i+k)%3], x-34, y+float64(k)*27, 68, 25)
			s.box("#7a5b2c", x-9, y+float64(k)*27+15, 18, 3)
		}
		s.polygon("#8c6f45", x-42, y, x+42, y, x+34, y-13, x-34, y-13)
	}
	for range 340 {
		x, y := r.Float64()*planeWidth, 300+math.Sqrt(r.Float64())*100
		d := 2 + (y-300)/22
		s.box("#6f8f58", x-.6, y, 1.2, d*4)
		s.oval([]string{"#d3586a", "#f0d36b", "#ffffff", "#a06aa8", "#d3586a"}[r.IntN(5)], x, y, d, d*.8)
		s.oval("#e2a42b", x, y, d*.35, d*.3)
	}
	for range 16 {
		x, y := r.Float64()*planeWidth, 60+r.Float64()*200
		s.oval("#dfe6e8", x-3, y-4, 4, 2.4)
		s.oval("#dfe6e8", x+3, y-4, 4, 2.4)
		s.oval("#3a2f1c", x, y, 5.4, 3.4)
		s.box("#e2a42b", x-2.4, y-3, 1.7, 6)
		s.box("#e2a42b", x+1, y-3, 1.7, 6)
	}
	return s
}

func pottingShed() *sketch {
	r := rand.New(rand.NewPCG(5, 8))
	s := &sketch{}
	s.box("#8a6a49", 0, 0, planeWidth, planeHeight)
	for i := range 16 {
		x := float64(i) * 40
		s.box([]string{"#94734f", "#8e6d4b", "#9a7a56"}[i%3], x, 0, 38.5, planeHeight)
	}
	s.box("#5e4630", 205, 40, 190, 150)
	s.sky("#dcebef", "#f6f0d6", 0)
	s.box("#dcebef", 213, 48, 82, 62)
	s.box("#e4efe6", 305, 48, 82, 62)
	s.box("#cfe0c4", 213, 118, 82, 64)
	s.box("#c4d8b6", 305, 118, 82, 64)
	s.oval("#9db488", 240, 175, 34, 24)
	s.oval("#8aa579", 350, 172, 30, 26)
	s.box("#c9a777", 0, 290, planeWidth, 26)
	s.box("#a88556", 0, 316, planeWidth, 84)
	pot := func(x, w float64, colour string) {
		h := w * 1.05
		s.polygon(colour, x-w/2, 290-h, x+w/2, 290-h, x+w*.36, 290, x-w*.36, 290)
		s.box("#b5573a", x-w*.58, 290-h-w*.2, w*1.16, w*.24)
	}
	for i, x := range []float64{70, 150, 430, 510, 560} {
		w := 46 + float64(i*13%20)
		pot(x, w, []string{"#c46a49", "#bd6141"}[i%2])
		top := 290 - w*1.25
		for range 14 {
			a := -math.Pi*.9 + r.Float64()*math.Pi*.8
			l := 24 + r.Float64()*46
			var b geom.Builder
			b.Move(geom.Pt(0, -4)).Quad(geom.Pt(l/2, -13), geom.Pt(l, 0)).Quad(geom.Pt(l/2, 13), geom.Pt(0, 4)).Close()
			s.put([]string{"#587a4a", "#6c8f57", "#7f9c6c"}[r.IntN(3)], b.Path().Transform(geom.Turn(a).Then(geom.Shift(x, top))))
		}
		if i%2 == 0 {
			for range 5 {
				s.oval("#d9a441", x-26+r.Float64()*52, top-30-r.Float64()*24, 8, 8)
			}
		}
	}
	s.polygon("#7c8790", 250, 288, 330, 270, 338, 288, 330, 292, 252, 292)
	s.box("#6d4f30", 334, 274, 62, 12)
	s.box("#e9dfcd", 232, 246, 34, 44)
	s.box("#a8432a", 236, 254, 26, 5)
	s.box("#587a4a", 236, 264, 26, 16)
	return s
}

// poster is a row of tulips in few bright colours with dark stems.
func poster() *sketch {
	s := &sketch{}
	s.box("#fff6d8", 0, 0, planeWidth, planeHeight)
	s.box("#00e83c", 0, 250, planeWidth, 150)
	s.oval("#ffe100", 500, 70, 44, 44)
	for i := range 6 {
		x := 60 + 96*float64(i)
		s.box("#101820", x-5, 150, 10, 200)
		s.polygon("#101820", x, 300, x+46, 214, x+30, 290, x, 330)
		s.oval("#ff2bd6", x, 150, 28, 36)
		s.polygon("#ff2bd6", x-28, 140, x-26, 84, x, 118, x+26, 84, x+28, 140)
	}
	return s
}

// Photos are the demo pictures by the names of their files: photos as JPEG, and the robin, on
// no ground, as PNG. It fails when the encoder does.
func Photos() (map[string][]byte, error) {
	out := map[string][]byte{}
	bird := raster.New(robinPlane, robinPlane, 1400/robinPlane, color.Transparent, nil)
	if err := bird.Paint(robin().inks); err != nil {
		return nil, fmt.Errorf("draw the robin: %w", err)
	}
	// The poster has few pixels, and colours that no ink has.
	sheet := raster.New(planeWidth, planeHeight, 1, raster.Colour("#ffffff"), nil)
	if err := sheet.Paint(poster().inks); err != nil {
		return nil, fmt.Errorf("draw the poster: %w", err)
	}
	for name, img := range map[string]image.Image{"Robin.png": bird.Image(), "Poster.png": sheet.Image()} {
		var raw bytes.Buffer
		if err := png.Encode(&raw, img); err != nil {
			return nil, fmt.Errorf("draw %s: %w", name, err)
		}
		out[name] = raw.Bytes()
	}
	for name, s := range map[string]*sketch{"Pumpkin hills.jpg": pumpkinHills(), "Bee meadow.jpg": beeMeadow(), "Potting shed.jpg": pottingShed()} {
		canvas := raster.New(planeWidth, planeHeight, photoWidth/planeWidth, raster.Colour("#ffffff"), nil)
		if err := canvas.Paint(s.inks); err != nil {
			return nil, fmt.Errorf("draw %s: %w", name, err)
		}
		var b bytes.Buffer
		if err := jpeg.Encode(&b, canvas.Image(), &jpeg.Options{Quality: 92}); err != nil {
			return nil, fmt.Errorf("draw %s: %w", name, err)
		}
		out[name] = b.Bytes()
	}
	return out, nil
}

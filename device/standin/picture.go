package standin

import (
	"bytes"
	"image/png"

	"sectilis/core/document/scene"
	"sectilis/core/format/raster"
	"sectilis/core/ground/geom"
)

// looks are how the strokes of each tool look on the bed.
var looks = [9]struct {
	colour string
	width  float64
}{
	0: {"#1f2b38", .6}, 1: {"#35658c", .7}, 2: {"#a4572b", .9}, 3: {"#1f2b38", .6}, 4: {"#587a4a", .5},
	5: {"#1f2b38", .6}, 6: {"#1f2b38", .6}, 7: {"#1f2b38", .6}, 8: {"#1f2b38", .6},
}

// picturePerMM is how many pixels of a picture of the bed are to the mm.
const picturePerMM = 4

// Picture is the bed as a PNG, at picturePerMM pixels per mm: the cutting mat with its ruling
// in quarter inches along the edges, and every stroke the tools have made. It fails when the
// encoder does.
func (c *Cutter) Picture() ([]byte, error) {
	c.mu.Lock()
	strokes, sheet, mat := append([]stroke(nil), c.strokes...), c.sheet, c.matIn
	c.mu.Unlock()
	canvas := raster.New(bed, bed, picturePerMM, bare, nil)
	var inks []scene.Ink
	for i := 0; mat && i <= 48; i++ {
		at, long := float64(i)*25.4/4, 1.8
		if i%4 == 0 {
			long = 5
		} else if i%2 == 0 {
			long = 3
		}
		for _, r := range []geom.Rect{{X: at - .15, W: .3, H: long}, {X: at - .15, Y: bed - long, W: .3, H: long}, {Y: at - .15, W: long, H: .3}, {X: bed - long, Y: at - .15, W: long, H: .3}} {
			inks = append(inks, scene.Ink{Region: geom.RectPath(r), Colour: "#a8977a"})
		}
	}
	if err := canvas.Paint(inks); err != nil {
		return nil, err
	}
	at := geom.Identity
	if sheet != nil {
		at = sheet.at // strokes go with the sheet
	}
	sheet.draw(canvas.Image(), picturePerMM)
	inks = nil
	for _, s := range strokes {
		if len(s.points) < 2 {
			continue
		}
		var b geom.Builder
		for i, p := range thinned(s.points) {
			if q := at.Apply(p); i == 0 {
				b.Move(q)
			} else {
				b.Line(q)
			}
		}
		look := looks[min(max(s.tool, 0), len(looks)-1)]
		inks = append(inks, scene.Ink{Region: geom.Stroke(b.Path(), look.width, geom.RoundCorner, geom.RoundCap), Colour: look.colour})
	}
	if err := canvas.Paint(inks); err != nil {
		return nil, err
	}
	var b bytes.Buffer
	err := png.Encode(&b, canvas.Image())
	return b.Bytes(), err
}

// thinned leaves of a way what a picture can show: places a sixth of a millimetre apart.
func thinned(way []geom.Point) []geom.Point {
	const apart = .16
	out := way[:1:1]
	for i, p := range way {
		if i == len(way)-1 || p.Sub(out[len(out)-1]).Len() > apart {
			out = append(out, p)
		}
	}
	return out
}

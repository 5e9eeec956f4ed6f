package sheet

import "sectilis/core/ground/geom"

// Crop marks stand off a piece's corners by cropOff and are cropLong, mm: clear of the
// ink that is cut away.
const (
	cropOff  = 1.0
	cropLong = 4.0
)

// crops are crop marks for every piece that is printed: two lines at each corner of its
// box, in line with its edges, as far as they have room on the sheet.
func (sh *Sheet) crops() []geom.Path {
	var rooms []geom.Path
	for _, p := range sh.Pieces {
		rooms = append(rooms, p.room)
	}
	page := geom.RectPath(geom.Rect{W: sh.Size.Width, H: sh.Size.Height}.Grow(-sh.Margin))
	var out []geom.Path
	for _, p := range sh.Pieces {
		if !p.inked() {
			continue
		}
		trim := p.Outline.Bounds()
		off := [2]float64{(p.Box.W-trim.W)/2 + cropOff, (p.Box.H-trim.H)/2 + cropOff}
		for _, x := range []float64{trim.X, trim.Right()} {
			for _, y := range []float64{trim.Y, trim.Bottom()} {
				dx, dy := 1.0, 1.0
				if x == trim.X {
					dx = -1
				}
				if y == trim.Y {
					dy = -1
				}
				out = append(out,
					stroke(geom.Pt(x+dx*off[0], y), geom.Pt(x+dx*(off[0]+cropLong), y)),
					stroke(geom.Pt(x, y+dy*off[1]), geom.Pt(x, y+dy*(off[1]+cropLong))))
			}
		}
	}
	var kept []geom.Path
	for _, c := range out {
		_, clear := geom.CutStrokes(c, geom.NonZero, geom.Join(rooms...))
		if in, _ := geom.CutStrokes(clear, geom.NonZero, page); !in.Empty() && in.Length() > 1 {
			kept = append(kept, in)
		}
	}
	return kept
}

func stroke(a, b geom.Point) geom.Path {
	var g geom.Builder
	return g.Move(a).Line(b).Path()
}

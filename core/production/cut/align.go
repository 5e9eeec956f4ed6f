package cut

import (
	"math"

	"sectilis/core/ground/geom"
	"sectilis/core/production/sheet"
)

// Which way a swivelling blade points when it is put down is not known at the start of a
// run, after another tool, or after a run was broken off: it would cut up to twice its
// offset beside the line until it has been dragged round. So it is first dragged along a
// short straight stroke in the waste of the sheet, after which it points along the stroke.
// (A dragged tip closes in on the way of its holder as exp(−s/offset): the tractrix.)

// alignLength is how long such a stroke is in offsets of the blade: e⁻¹⁰ of an error
// is left.
const alignLength = 10

// Align returns a stroke of the holder, in the coordinates of the sheet, that turns a
// blade with an offset to an angle: the nth of the free places, counted round again where
// there are fewer. False if the blade does not swivel or the sheet has no free place.
func Align(sh sheet.Sheet, offset, angle float64, n int) (geom.Polyline, bool) {
	if offset <= 0 {
		return geom.Polyline{}, false
	}
	half := alignLength * offset / 2
	places := alignPlaces(sh, half)
	if len(places) == 0 {
		return geom.Polyline{}, false
	}
	s, c := math.Sincos(angle)
	at, way := places[n%len(places)], geom.Pt(half*c, half*s)
	return geom.Polyline{Points: []geom.Point{at.Sub(way), at.Add(way)}}, true
}

// alignPlaces lists where a stroke has room, half its length about the place: along the
// edges of the sheet, where no piece is; else wherever there is waste. A stroke farther
// than taken from every outline is never measured as a cut of a piece.
func alignPlaces(sh sheet.Sheet, half float64) []geom.Point {
	const most = 60
	room := geom.Rect{W: sh.Size.Width, H: sh.Size.Height}.Grow(-half - .7)
	var edge, inner []geom.Point
	step := 2*half + 2
	for y := room.Bottom(); y >= room.Y; y -= step {
		for x := room.X; x <= room.Right(); x += step {
			if y == room.Bottom() || x == room.X {
				edge = append(edge, geom.Pt(x, y))
			} else {
				inner = append(inner, geom.Pt(x, y))
			}
		}
	}
	for _, clear := range []float64{taken + .05, .8} {
		for _, places := range [][]geom.Point{edge, inner} {
			var out []geom.Point
			for _, p := range places {
				if len(out) < most && free(sh, geom.Rect{X: p.X, Y: p.Y}.Grow(half+clear), geom.Rect{X: p.X, Y: p.Y}.Grow(half+.3)) {
					out = append(out, p)
				}
			}
			if len(out) > 0 {
				return out
			}
		}
	}
	return nil
}

// Move returns passes as a map that turns and shifts takes them to the bed; a stretch
// that printers leave (a few thousandths) changes the blade's offset by less than 1 µm.
// The drawn Lines and Moves stay those of the sheet.
func Move(passes []Pass, m geom.Affine) []Pass {
	turn := math.Atan2(m.B, m.A)
	out := make([]Pass, len(passes))
	for i, p := range passes {
		p.Align = Moved(p.Align, m)
		paths := make([]geom.Polyline, len(p.Paths))
		headings := make([]float64, len(p.headings))
		for k := range p.Paths {
			paths[k] = Moved(p.Paths[k], m)
		}
		for k := range p.headings {
			headings[k] = p.headings[k] + turn
		}
		p.Paths, p.headings = paths, headings
		out[i] = p
	}
	return out
}

// Moved is a line where a map takes it.
func Moved(l geom.Polyline, m geom.Affine) geom.Polyline {
	points := make([]geom.Point, len(l.Points))
	for i, p := range l.Points {
		points[i] = m.Apply(p)
	}
	return geom.Polyline{Points: points, Closed: l.Closed}
}

// Swivels reports whether the tool of the pass is a blade that trails its holder.
func (p Pass) Swivels() bool { return p.offset > 0 }

// HeadingAt returns which way the blade points, in radians, where the holder is first at
// a place of one of the paths: followed along the path from its start as it is dragged.
func (p Pass) HeadingAt(path int, at geom.Point) float64 {
	heading := p.headings[path]
	points := p.Paths[path].Points
	holder := points[0]
	drag := func(to geom.Point) {
		s, c := math.Sincos(heading)
		tip := holder.Sub(geom.Pt(p.offset*c, p.offset*s))
		from := holder
		for k, n := 1, max(1, int(math.Ceil(to.Sub(from).Len()/.02))); k <= n; k++ {
			holder = from.Lerp(to, float64(k)/float64(n))
			v := holder.Sub(tip)
			heading = math.Atan2(v.Y, v.X)
			s, c := math.Sincos(heading)
			tip = holder.Sub(geom.Pt(p.offset*c, p.offset*s))
		}
	}
	for i := 1; i < len(points); i++ {
		a, v := points[i-1], points[i].Sub(points[i-1])
		k := 0.0
		if l := v.Dot(v); l > 0 {
			k = min(max(at.Sub(a).Dot(v)/l, 0), 1)
		}
		if p := a.Add(v.Mul(k)); p.Sub(at).Len() < 1e-3 {
			drag(p)
			return heading
		}
		drag(points[i])
	}
	return heading
}

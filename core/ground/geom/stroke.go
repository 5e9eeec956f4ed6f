package geom

import "math"

// Cap says how a stroke ends.
type Cap uint8

// The ends of a stroke.
const (
	ButtCap   Cap = iota // cut off straight
	RoundCap             // a half disc
	SquareCap            // half the width beyond
)

// Stroke is the outline of what a pen of the given width covers when it runs along all rings
// and strokes of a path. The widths of a stroke left and right of its path are offsets of it;
// see Offset for why what they run round is what the pen covers. The width is mm.
func Stroke(p Path, width float64, corner Corner, end Cap) Path {
	return StrokeWith(p, width, end, OffsetOptions{Corner: corner})
}

// StrokeWith is Stroke with the options of an offset; the rule has no meaning here.
func StrokeWith(p Path, width float64, end Cap, opt OffsetOptions) Path {
	if width <= 0 {
		return Path{}
	}
	var raw []Path
	for i, cs := range p.Curves() {
		cs = smoothPieces(cs)
		ring := p.Rings()[i]
		switch {
		case len(cs) == 0:
			if end != ButtCap && ring.Len() > 0 {
				raw = append(raw, dot(ring.segs[0].P[0], width/2, end))
			}
		case ring.Closed():
			// Both sides, run in opposite directions. Where the whole ring lies
			// within the pen they cancel; there it covers all inside the ring.
			d := width / 2
			raw = append(raw, Join(rawOffset(ring, d, opt, true), rawOffset(ring.Reverse(), d, opt, true)))
			if fitsDisc(ring, d) {
				raw = append(raw, Offset(ring, d, opt.Corner))
			}
		default:
			raw = append(raw, rawStroke(cs, width/2, end, opt))
		}
	}
	ar := arrange(inputs(raw))
	defer ar.release()
	sd := ar.label(Positive, &counter{all: len(raw), in: Unite.in})
	sd.slim = 2 * offsetTolerance * sd.grid.scale
	return sd.path()
}

func dot(c Point, r float64, end Cap) Path {
	box := Rect{c.X - r, c.Y - r, 2 * r, 2 * r}
	if end == SquareCap {
		return RectPath(box)
	}
	return EllipsePath(box)
}

// rawStroke goes along one side, round the end, back along the other and round
// the start.
func rawStroke(cs []Curve, d float64, end Cap, opt OffsetOptions) Path {
	var o offsetter
	o.begin(d, opt)
	n := len(cs)
	back := make([]Curve, n)
	for i, c := range cs {
		back[n-1-i] = c.reverse()
	}
	for _, side := range [][]Curve{cs, back} {
		o.to(side[0].From.Add(outward(side[0].Tangent(0)).Mul(d)))
		for i, c := range side {
			o.curve(c)
			if i < n-1 && !o.meet(c, side[i+1]) {
				o.join(c, side[i+1])
			}
		}
		o.cap(side[n-1], end)
	}
	return o.Close().Path()
}

func (o *offsetter) cap(c Curve, end Cap) {
	v, t := c.End(), c.Tangent(1)
	n := outward(t).Mul(o.d)
	switch end {
	case RoundCap:
		a := math.Atan2(n.Y, n.X)
		o.round(v, o.d, a, a+math.Pi, v.Sub(n))
		return
	case SquareCap:
		o.to(v.Add(n).Add(t.Mul(o.d)))
		o.to(v.Sub(n).Add(t.Mul(o.d)))
	}
	o.to(v.Sub(n))
}

// Dash cuts a path into dashes: lengths of stroke and gap in turn, the pattern
// begun at the given offset and repeated along each ring and stroke. A pattern
// without length, and one that would give more than maxDashes, gives the path
// itself; one of an odd number is taken twice.
func Dash(p Path, pattern []float64, offset float64) Path {
	total := 0.0
	for _, l := range pattern {
		if l < 0 || math.IsNaN(l) || math.IsInf(l, 0) {
			return p
		}
		total += l
	}
	// Dashes too short to see would be too many to draw.
	if total <= 1e-3 || p.Length()/total*float64(len(pattern)) > maxDashes {
		return p
	}
	if len(pattern)%2 == 1 {
		pattern = append(append([]float64{}, pattern...), pattern...)
		total *= 2
	}
	var out []Path
	for i, cs := range p.Curves() {
		out = append(out, dashes(cs, p.Rings()[i].Closed(), pattern, total, offset)...)
	}
	return Join(out...)
}

// maxDashes bounds the dashes of one path.
const maxDashes = 200_000

func dashes(cs []Curve, closed bool, pattern []float64, total, offset float64) []Path {
	at := math.Mod(offset, total)
	if at < 0 {
		at += total
	}
	k := 0
	for at >= pattern[k] {
		at -= pattern[k]
		k = (k + 1) % len(pattern)
	}
	left := pattern[k] - at // of the current dash or gap
	startsOn := k%2 == 0
	var out []Path
	var dash []Curve
	flush := func() {
		if len(dash) > 0 {
			out = append(out, FromCurves(dash, false))
			dash = nil
		}
	}
	for _, c := range cs {
		length := c.Length()
		done, t := 0.0, 0.0
		for length-done > left {
			done += left
			u := c.AtLength(done)
			if k%2 == 0 {
				dash = append(dash, c.between(t, u))
				flush()
			}
			t, k = u, (k+1)%len(pattern)
			left = pattern[k]
		}
		if k%2 == 0 && t < 1 {
			dash = append(dash, c.between(t, 1))
		}
		left -= length - done
	}
	if closed && startsOn && len(dash) > 0 && len(out) > 0 {
		// The last dash runs into the first.
		out[0] = FromCurves(append(dash, out[0].Curves()[0]...), false)
		dash = nil
	}
	flush()
	return out
}

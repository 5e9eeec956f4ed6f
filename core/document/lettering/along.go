package lettering

import (
	"math"
	"sort"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// track is a line that letters stand along, left to right as they are read; their tops point
// to the left of its direction. Lengths are mm.
type track struct {
	// at is the point and the direction, a unit vector, at a length, which may lie past the
	// ends.
	at     func(length float64) (p, ahead geom.Point)
	length float64
	closed bool
	// middle is the length at which centred words have their middle.
	middle float64
}

// along places lines along the path of the words, the last one on it and those before it
// above.
func (s *shaper) along(lines []line, out *Setting) placing {
	p, size := *s.words.Path, out.Size
	widest := 0.0
	for _, l := range lines {
		widest = max(widest, l.advance*size)
	}
	base := p.Radius
	if p.Bend > 0 {
		base = max(widest, size) / (p.Bend * math.Pi / 180)
	}
	tracks := make([]track, len(lines))
	starts := make([]float64, len(lines))
	for i := range lines {
		l := &lines[i]
		up := p.Away + s.words.Leading*size*float64(len(lines)-1-i)
		if p.Line != nil {
			tracks[i] = drawnTrack(p, up)
		} else {
			tracks[i] = circle(p, base, up)
		}
		t := tracks[i]
		if p.Even {
			spread(l, t.length/size, t.closed)
		}
		width := l.advance * size
		out.Over = max(out.Over, width-t.length)
		switch {
		case t.closed && s.words.Align == card.AlignLeft:
			starts[i] = t.middle
		case t.closed && s.words.Align == card.AlignRight:
			starts[i] = t.middle - width
		case t.closed:
			starts[i] = t.middle - width/2
		case s.words.Align == card.AlignLeft:
			starts[i] = 0
		case s.words.Align == card.AlignRight:
			starts[i] = t.length - width
		default:
			starts[i] = (t.length - width) / 2
		}
		starts[i] += p.Start * t.length
	}
	if out.Over < 1e-6 {
		out.Over = 0
	}
	place := func(i int, middle float64) geom.Affine {
		foot, ahead := tracks[i].at(starts[i] + middle*size)
		m := geom.Affine{A: size * ahead.X, B: size * ahead.Y, C: -size * ahead.Y, D: size * ahead.X}
		switch p.Letters {
		case card.UprightLetters:
			m = geom.Scale(size, size)
		case card.ShearedLetters:
			// The feet follow the line, what stands upright stays so.
			m = geom.Affine{A: size * ahead.X, B: size * ahead.Y, C: 0, D: size}
			if math.Abs(ahead.X) < leastSheared {
				m.A = math.Copysign(leastSheared*size, ahead.X)
			}
		}
		return geom.Shift(-middle, 0).Then(m).Then(geom.Shift(foot.X, foot.Y))
	}
	for i, l := range lines {
		for k := range 9 {
			x := l.advance * float64(k) / 8
			for _, y := range []float64{0, -s.words.Leading} {
				q := place(i, x).Apply(geom.Pt(x, y))
				out.Block = out.Block.Union(geom.Rect{X: q.X, Y: q.Y, W: 1e-6, H: 1e-6})
			}
		}
	}
	return place
}

// leastSheared is how narrow sheared letters become at most, of their width: on a line that
// runs upright they would have none.
const leastSheared = .2

// spread adds to what lies between the letters of a line so that it takes a length, ems; on a
// closed line there is as much between the last letter and the first.
func spread(l *line, length float64, closed bool) {
	gaps := len(l.clusters) - 1
	if closed {
		gaps++
	}
	if gaps < 1 {
		return
	}
	each := (length - l.advance) / float64(gaps)
	l.shift(func(i int) float64 { return each * float64(i) })
	l.advance += each * float64(len(l.clusters)-1)
}

// circle is a circle with its highest or lowest point at the anchor, grown so that words stand
// so far above it.
func circle(p card.TextPath, radius, up float64) track {
	centre, from := geom.Pt(0, radius), -math.Pi/2
	if p.Under {
		centre, from = geom.Pt(0, -radius), math.Pi/2
	}
	// Tops point outward where the words run clockwise.
	sense := 1.0
	if p.Under != p.Turned {
		sense = -1
	}
	r := max(radius+sense*up, .01)
	return track{
		at: func(length float64) (geom.Point, geom.Point) {
			sin, cos := math.Sincos(from + sense*length/r)
			return centre.Add(geom.Pt(cos, sin).Mul(r)), geom.Pt(-sin, cos).Mul(sense)
		},
		length: 2 * math.Pi * r, closed: true,
	}
}

// drawnTrack is a line that was drawn, at a distance to the side where the tops of letters
// are. The length along it is that of the parallel line: that of a curve is the integral of
// its speed times (1 - distance × curvature).
func drawnTrack(p card.TextPath, up float64) track {
	line, closed := longest(p.Line.Path(), p.Turned)
	curves := line.Curves()[0]
	ends := make([]float64, len(curves)+1) // of each curve
	for i, c := range curves {
		ends[i+1] = ends[i] + parallelLength(c, 1, up)
	}
	length := ends[len(curves)]
	aside := func(c geom.Curve, t float64) (geom.Point, geom.Point) {
		ahead := c.Tangent(t)
		return c.At(t).Add(geom.Pt(ahead.Y, -ahead.X).Mul(up)), ahead
	}
	t := track{length: length, closed: closed}
	t.at = func(l float64) (geom.Point, geom.Point) {
		if closed && length > 0 {
			l = math.Mod(math.Mod(l, length)+length, length)
		}
		if l < 0 {
			q, ahead := aside(curves[0], 0)
			return q.Add(ahead.Mul(l)), ahead
		}
		if l > length {
			q, ahead := aside(curves[len(curves)-1], 1)
			return q.Add(ahead.Mul(l - length)), ahead
		}
		i := min(max(sort.SearchFloat64s(ends, l)-1, 0), len(curves)-1)
		return aside(curves[i], atParallel(curves[i], l-ends[i], up))
	}
	if closed {
		t.middle = topmost(curves, ends, up, p.Under != p.Turned)
	}
	return t
}

// longest is the longest ring or stroke of a path. A ring runs clockwise, so that letters stand
// outside; turned reverses both.
func longest(p geom.Path, turned bool) (line geom.Path, closed bool) {
	best := -1.0
	for _, r := range p.Rings() {
		if l := r.Length(); l > best {
			best, line, closed = l, r, r.Closed()
		}
	}
	if turned != (closed && line.Area() < 0) {
		line = line.Reverse()
	}
	return line, closed
}

// topmost is the length at the highest point of a closed line, or at its lowest.
func topmost(curves []geom.Curve, ends []float64, up float64, lowest bool) float64 {
	best, at := math.Inf(1), 0.0
	var box geom.Rect
	for _, c := range curves {
		a, b := c.At(0), c.At(1)
		box = box.Union(geom.Rect{X: min(a.X, b.X), Y: min(a.Y, b.Y), W: math.Abs(a.X - b.X), H: math.Abs(a.Y - b.Y)})
	}
	for i, c := range curves {
		const steps = 64
		for k := range steps {
			t := float64(k) / steps
			q := c.At(t)
			y := q.Y
			if lowest {
				y = -y
			}
			// Of a level edge it is the middle.
			if y += 1e-3 * math.Abs(q.X-box.Centre().X); y < best {
				best, at = y, ends[i]+parallelLength(c, t, up)
			}
		}
	}
	return at
}

// parallelLength is the length of the line beside a curve up to t, at a distance to the left.
func parallelLength(c geom.Curve, t, up float64) float64 {
	if up == 0 {
		return c.LengthTo(t)
	}
	return c.Integral(t, func(u float64) float64 { return c.Derivative(u).Len() * max(0, 1+up*c.Curvature(u)) })
}

// atParallel is the parameter at a length of the line beside a curve.
func atParallel(c geom.Curve, length, up float64) float64 {
	if up == 0 {
		return c.AtLength(length)
	}
	lo, hi := 0.0, 1.0
	for range 40 {
		if mid := (lo + hi) / 2; parallelLength(c, mid, up) < length {
			lo = mid
		} else {
			hi = mid
		}
	}
	return (lo + hi) / 2
}

package cut

import (
	"math"

	"sectilis/core/ground/geom"
)

// A swivelling blade's tip trails the middle of its holder by an offset, and the
// cutter steers the holder. So that the tip runs along a line, the holder runs
// ahead of it by the offset; at a corner it swings about the corner while the tip
// stands. (The tip's path under a moving holder is a tractrix; a holder that moves
// in a circle about the tip turns the blade on the spot.)

// swingStep is the angle between places on a swing.
const swingStep = 12 * math.Pi / 180

// smooth is the turn, radians, up to which chords are those of a curve, which the
// blade follows of itself.
const smooth = 6 * math.Pi / 180

// Holder steers the holder of a blade so that its tip runs along a line, rounds
// times, and over a closed line's start by some more. From is where the blade
// points before, an angle; the one it points to at the end is returned.
func Holder(l geom.Polyline, offset, over, from float64, rounds int) (geom.Polyline, float64) {
	tip := tipWay(l, over, rounds)
	if offset <= 0 || len(tip) < 2 {
		return geom.Polyline{Points: tip}, from
	}
	var out []geom.Point
	ahead := func(p geom.Point, angle float64) geom.Point {
		s, c := math.Sincos(angle)
		return geom.Pt(p.X+offset*c, p.Y+offset*s)
	}
	swing := func(p geom.Point, to float64) {
		turn := math.Remainder(to-from, 2*math.Pi)
		for k, n := 1, int(math.Ceil(math.Abs(turn)/swingStep)); k <= n; k++ {
			out = append(out, ahead(p, from+turn*float64(k)/float64(n)))
		}
		from = to
	}
	out = append(out, ahead(tip[0], from))
	for i := 1; i < len(tip); i++ {
		way := tip[i].Sub(tip[i-1])
		angle := math.Atan2(way.Y, way.X)
		if i == 1 || math.Abs(math.Remainder(angle-from, 2*math.Pi)) > smooth {
			swing(tip[i-1], angle)
		}
		from = angle
		out = append(out, ahead(tip[i], angle))
	}
	return geom.Polyline{Points: out}, from
}

// tipWay is where the tip runs: the line, again for every round more, a closed one
// over its start. Places that are one are left out.
func tipWay(l geom.Polyline, over float64, rounds int) []geom.Point {
	var out []geom.Point
	add := func(p geom.Point) {
		if n := len(out); n == 0 || out[n-1].Sub(p).Len() > 1e-6 {
			out = append(out, p)
		}
	}
	n := len(l.Points)
	for r := range max(rounds, 1) {
		for i := range n {
			p := l.Points[i]
			if !l.Closed && r%2 == 1 {
				p = l.Points[n-1-i] // back along an open line
			}
			add(p)
		}
		if l.Closed {
			add(l.Points[0])
		}
	}
	if !l.Closed || len(out) < 2 {
		return out
	}
	for i := 1; over > 0 && i <= n; i++ {
		a, b := l.Points[i-1], l.Points[i%n]
		d := b.Sub(a).Len()
		if d > over {
			add(a.Lerp(b, over/d))
			break
		}
		add(b)
		over -= d
	}
	return out
}

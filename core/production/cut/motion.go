package cut

import (
	"math"
	"slices"

	"sectilis/core/ground/geom"
)

// Acceleration of the holder, mm/s², in every direction: what small belt-driven
// machines do without losing their place.
const Acceleration = 1200.0

// Chunk is how many places of a path are sent at once, for cutters with a small
// buffer. The holder comes to rest after each.
const Chunk = 60

// sharp is the turn, radians, at which the holder has to come to rest.
const sharp = 30 * math.Pi / 180

// Seconds is how long a holder takes along points, from rest to rest: it speeds up
// and slows down evenly (a trapezoid of speed over time, a triangle where the way is
// too short for full speed) on each stretch between sharp corners.
func Seconds(points []geom.Point, speed float64) float64 {
	total, run := 0.0, 0.0
	for i := 1; i < len(points); i++ {
		run += points[i].Sub(points[i-1]).Len()
		if i == len(points)-1 || turns(points[i-1], points[i], points[i+1]) {
			total, run = total+stretch(run, speed), 0
		}
	}
	return total
}

func turns(a, b, c geom.Point) bool {
	v, w := b.Sub(a), c.Sub(b)
	return math.Abs(math.Atan2(v.Cross(w), v.Dot(w))) > sharp
}

func stretch(length, speed float64) float64 {
	if length <= 0 || speed <= 0 {
		return 0
	}
	if length < speed*speed/Acceleration {
		return 2 * math.Sqrt(length/Acceleration)
	}
	return length/speed + speed/Acceleration
}

// Chunks splits the places of a path into those that are sent at once; each begins
// where the last one ended. None goes on where it has passed before, so that a place
// says how far the tool has come, and none ends where it has been, so that a tool that is
// there has come to its end.
func Chunks(points []geom.Point) [][]geom.Point {
	var out [][]geom.Point
	for len(points) > 1 {
		n := min(len(points), Chunk+1)
		for k := 2; k < n; k++ {
			if slices.ContainsFunc(points[:k-1], func(p geom.Point) bool { return p.Sub(points[k]).Len() < 1e-6 }) {
				n = k + 1
			}
		}
		for n > 2 && endsWhereItWas(points[:n]) {
			n--
		}
		out, points = append(out, points[:n]), points[n-1:]
	}
	return out
}

// How near to its end, mm, a chunk may not have passed, and how much of the way before its
// end does not count: machines tell where their tool is to about a tenth of a millimetre.
const (
	sameEnd = .3
	endWay  = 1.0
)

// endsWhereItWas reports whether a chunk passed its end before it came there.
func endsWhereItWas(chunk []geom.Point) bool {
	end, way := chunk[len(chunk)-1], 0.0
	for i := len(chunk) - 1; i > 0; i-- {
		a, b := chunk[i-1], chunk[i]
		v := b.Sub(a)
		if way > endWay {
			k := 0.0
			if l := v.Dot(v); l > 0 {
				k = min(max(end.Sub(a).Dot(v)/l, 0), 1)
			}
			if a.Add(v.Mul(k)).Sub(end).Len() < sameEnd {
				return true
			}
		}
		way += v.Len()
	}
	return way > 0 && len(chunk) > 2 && chunk[0].Sub(end).Len() < sameEnd
}

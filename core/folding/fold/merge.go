package fold

import (
	"math"

	"sectilis/core/ground/geom"
)

// sameLine is how far, mm, two lines may be from one another and still be one.
const sameLine = .01

// mergeCuts makes one cut of cuts that lie on each other, as neighbouring strips have
// them; ends that meet end to end are left as they are.
func mergeCuts(lines []Line) []Line {
	var out []Line
	for _, l := range lines {
		// A merged cut may bridge two that were apart.
		for i := 0; l.Role == Cut && i < len(out); i++ {
			if m, ok := mergedCut(out[i], l); ok {
				l = m
				out = append(out[:i], out[i+1:]...)
				i = -1
			}
		}
		out = append(out, l)
	}
	return out
}

// mergedCut is one cut for two that overlap along a stretch.
func mergedCut(a, b Line) (Line, bool) {
	v := a.To.Sub(a.From)
	length := v.Len()
	if a.Role != Cut || b.Role != Cut || length < sameLine {
		return a, false
	}
	v = v.Mul(1 / length)
	off := func(p geom.Point) float64 { return math.Abs(v.Cross(p.Sub(a.From))) }
	if off(b.From) > sameLine || off(b.To) > sameLine {
		return a, false
	}
	s, t := b.From.Sub(a.From).Dot(v), b.To.Sub(a.From).Dot(v)
	from, to := b.From, b.To
	if s > t {
		s, t, from, to = t, s, to, from
	}
	if min(t, length)-max(s, 0) < sameLine {
		return a, false
	}
	if s < 0 {
		a.From = from
	}
	if t > length {
		a.To = to
	}
	return a, true
}

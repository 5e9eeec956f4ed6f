package nest

import (
	"slices"

	"sectilis/core/ground/geom"
)

// judge keeps a layout if it is the best so far and returns its cost.
func (s *Search) judge(places []laid, bins []*bin) (cost, total float64) {
	area, hint, missing := 0.0, 0.0, 0
	var last *bin
	for _, b := range bins {
		if b.parts == 0 || s.p.Sheets[b.kind].Count > 0 {
			continue
		}
		area += b.w * b.h
		if last == nil || b.top < last.top {
			last = b
		}
	}
	if last != nil {
		area -= last.w * (last.h - last.top)
		hint = last.slack()
	}
	for i := range places {
		if places[i].bin < 0 {
			missing++
		}
	}
	total = area + float64(missing)*1e7
	if total < s.least-1e-9 {
		s.least = total
		s.best = s.answer(places, bins, area)
		s.laid, s.kinds = slices.Clone(places), s.kinds[:0]
		for _, b := range bins {
			s.kinds = append(s.kinds, b.kind)
		}
	}
	return total + hintShare*hint, total
}

// slack is the area above the skyline, or a tenth of the bin's where there is
// none to tell from.
func (b *bin) slack() float64 {
	sum := 0.0
	for i := 0; i+1 < len(b.sky); i++ {
		sum += (b.sky[i+1].x - b.sky[i].x) * b.sky[i].y
	}
	if b.sky == nil {
		for _, c := range b.cols {
			if n := len(c); n > 0 {
				sum += b.column * min(c[n-1].hi, b.h)
			}
		}
	}
	return sum
}

func (s *Search) answer(places []laid, bins []*bin, area float64) Answer {
	out := Answer{Places: make([]Place, len(places)), Area: area}
	number := make([]int, len(bins))
	for k, b := range bins {
		number[k] = -1
		if b.parts > 0 {
			number[k] = len(out.Sheets)
			out.Sheets = append(out.Sheets, b.kind)
		}
	}
	for i, l := range places {
		if l.bin < 0 {
			out.Places[i].Sheet = -1
			continue
		}
		out.Places[i].Sheet = number[l.bin]
		if f := s.p.Parts[i].Fixed; f != nil {
			out.Places[i].At = f.At
			continue
		}
		b := bins[l.bin]
		sh := &s.shapes.classes[s.shapes.of[i]].turns[l.turn]
		out.Places[i].At = sh.at.Then(geom.Shift(l.x+b.origin.X, l.y+b.origin.Y))
	}
	return out
}

package lettering

import (
	"cmp"
	"slices"

	"sectilis/core/ground/geom"
)

// measuredBy are the letters that a face is measured by.
const measuredBy = "nihlumo"

// strokes are what a face is found by: how thick its strokes are and whether its letters join,
// by its outlines alone. stem is the middle of the widths of upright strokes, ems.
func (s *shaper) strokes() (stem float64, joined bool) {
	line := s.line(0, len(s.text), false)
	var widths []float64
	touching := 0
	var before geom.Path
	for _, g := range line.glyphs {
		p := g.outline().Transform(geom.Shift(g.x, g.y))
		box := p.Bounds()
		for _, share := range []float64{.35, .5, .65} {
			widths = append(widths, spans(p, box.Y+share*box.H)...)
		}
		if p.Bounds().Overlaps(before.Bounds()) && geom.Intersection(geom.NonZero, p, before).Area() > 1e-5 {
			touching++
		}
		before = p
	}
	if len(widths) == 0 {
		return 0, false
	}
	slices.Sort(widths)
	return widths[len(widths)/2], touching > len(line.glyphs)/2
}

// spans are the widths of what a level line covers of an outline.
func spans(p geom.Path, y float64) []float64 {
	type crossing struct {
		x    float64
		down int
	}
	var all []crossing
	for _, l := range p.Flatten(1e-3) {
		for i, a := range l.Points {
			b := l.Points[(i+1)%len(l.Points)]
			if (a.Y <= y) != (b.Y <= y) {
				down := 1
				if b.Y < a.Y {
					down = -1
				}
				all = append(all, crossing{a.X + (y-a.Y)/(b.Y-a.Y)*(b.X-a.X), down})
			}
		}
	}
	slices.SortFunc(all, func(a, b crossing) int { return cmp.Compare(a.x, b.x) })
	var out []float64
	winding, from := 0, 0.0
	for _, c := range all {
		if winding == 0 {
			from = c.x
		}
		if winding += c.down; winding == 0 {
			out = append(out, c.x-from)
		}
	}
	return out
}

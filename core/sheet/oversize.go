package sheet

import (
	"fmt"
	"math"

	"sectilis/core/card"
	"sectilis/core/geom"
	"sectilis/core/measure"
)

// oversize is the box of what has no room on the paper of its stock.
type oversize struct {
	box     geom.Rect
	paper   paper
	printed bool
}

// over is by how much it is too large for a sheet of a size, turned as it lies best; it is
// not if that is no more than nothing.
func (o oversize) over(s Size) float64 {
	least := math.Inf(1)
	for _, a := range roomsOn(o.paper.kind(s, o.printed)) {
		least = min(least, max(o.box.W-a.W, o.box.H-a.H))
		if o.paper.direction != OneWayUp {
			least = min(least, max(o.box.H-a.W, o.box.W-a.H))
		}
	}
	return least
}

// problem says of a piece by how much it is too large, and what would be right.
func (o oversize) problem(l loose, stock card.Stock) Problem {
	p := Problem{ID: l.ID, Name: l.Name, Stock: stock}
	size := o.paper.largest()
	fits := roomFor([]oversize{o})
	if o.paper.own {
		p.Offer = fits
	}
	over := o.over(size)
	if over <= 0 {
		p.Why = fmt.Sprintf("“%s” has no room on %s beside the marks. Use a larger sheet or a smaller margin.", l.Name, size.Name)
		return p
	}
	upright, mend := "", "Make it smaller."
	if o.paper.direction == OneWayUp {
		upright = ", upright as the pattern of its paper runs,"
	}
	if fits != nil && o.paper.reaches(*fits) {
		mend = "It fits on " + fits.Name + "; or make it smaller."
	} else if fits != nil {
		mend = "It fits on " + fits.Name + ", which is more than the machine reaches: trim it by hand, or make it smaller."
	}
	p.Why = fmt.Sprintf("“%s” is %s (%s) and%s %s (%s) too large for %s with its margins. %s",
		l.Name, measure.FormatSize(o.box.W, o.box.H, measure.In), measure.FormatSize(o.box.W, o.box.H, measure.MM), upright,
		measure.FormatUnit(over, measure.In), measure.FormatUnit(over, measure.MM), size.Name, mend)
	return p
}

// roomFor is the smallest size that each of some has room on; one that the machine reaches
// goes before one that it does not.
func roomFor(all []oversize) *Size {
	var best *Size
	opt := all[0].paper.Options
	for _, s := range Sizes() {
		if opt.Landscape {
			s = s.Landscape()
		}
		fits := true
		for _, o := range all {
			fits = fits && o.over(s) <= 0
		}
		if !fits {
			continue
		}
		if best == nil || opt.reaches(s) && !opt.reaches(*best) || opt.reaches(s) == opt.reaches(*best) && s.area() < best.area() {
			best = &s
		}
	}
	return best
}

// reaches reports whether a sheet of a size goes into the machine.
func (opt Options) reaches(s Size) bool {
	w, h := opt.Bed[0]+.1, opt.Bed[1]+.1
	return opt.Bed[0] <= 0 || s.Width <= w && s.Height <= h
}

package sheet

import (
	"fmt"
	"math"

	"sectilis/core/document/card"
	"sectilis/core/ground/measure"
	"sectilis/core/production/nest"
)

// oversize is what has no room on the paper of its stock.
type oversize struct {
	unit    unit
	paper   paper
	printed bool
}

// over is by how much its box is too large for a sheet of a size, turned by quarters as it
// lies best, mm; it is not if that is no more than nothing.
func (o oversize) over(s Size) float64 {
	box := o.unit.room.Bounds()
	least := math.Inf(1)
	for _, a := range roomsOn(o.paper.kind(s, o.printed), o.paper.between()) {
		least = min(least, max(box.W-a.W, box.H-a.H))
		if o.paper.direction != OneWayUp {
			least = min(least, max(box.H-a.W, box.W-a.H))
		}
	}
	return least
}

// problem says of a piece by how much it is too large, and what would be right.
func (o oversize) problem(l loose, stock card.Stock) Problem {
	p := Problem{ID: l.ID, Name: l.Name, Stock: stock}
	fits := o.roomFor()
	if o.paper.own {
		p.Offer = fits
	}
	p.Why = o.why("“"+l.Name+"”", fits)
	return p
}

// why says by how much what is named so is too large, and what would be right; fits is a
// size that it has room on.
func (o oversize) why(name string, fits *Size) string {
	size := o.paper.largest()
	over := o.over(size)
	box := o.unit.room.Bounds()
	if bare := o.withoutMarks(); bare.paper.fits(bare.unit, size, bare.printed) {
		return fmt.Sprintf("%s has no room on %s beside the %s in its corners. It fits without them%s.", name, size.Name, o.marksName(), o.orOn(fits))
	}
	if free := o.turnedFreely(); free.paper.fits(free.unit, size, free.printed) {
		return fmt.Sprintf("%s has room on %s only aslant. It fits if pieces may be turned freely%s.", name, size.Name, o.orOn(fits))
	}
	if over <= 0 {
		return fmt.Sprintf("%s has no room on %s as its paper may be turned. Use a larger sheet or a smaller margin.", name, size.Name)
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
	return fmt.Sprintf("%s is %s (%s) and%s %s too large for %s with its margins. %s",
		name, measure.FormatSize(box.W, box.H, measure.In), measure.FormatSize(box.W, box.H, measure.MM), upright,
		measure.FormatBoth(over), size.Name, mend)
}

// turnedFreely is the same where pieces may be turned by any angle.
func (o oversize) turnedFreely() oversize {
	o.paper.Turning = nest.Freely
	return o
}

// withoutMarks is the same on sheets that are not marked.
func (o oversize) withoutMarks() oversize {
	o.paper.Marking = Unmarked
	return o
}

func (o oversize) marksName() string {
	if o.paper.Marking == ForHand {
		return "crop marks"
	}
	return "registration marks"
}

func (o oversize) orOn(fits *Size) string {
	if fits == nil {
		return ""
	}
	return ", and on " + fits.Name
}

// roomFor is the smallest size that it has room on; one that the machine reaches goes
// before one that it does not. Nil if there is none.
func (o oversize) roomFor() *Size {
	var best *Size
	for _, s := range Sizes() {
		if o.paper.Landscape {
			s = s.Landscape()
		}
		reached := o.paper.reaches(s)
		if best != nil && (reached != o.paper.reaches(*best) && !reached || reached == o.paper.reaches(*best) && s.area() >= best.area()) {
			continue
		}
		if o.paper.fits(o.unit, s, o.printed) {
			best = &s
		}
	}
	return best
}

// Beyond says by how much a sheet of a size is too large for the machine; it is empty if
// the machine reaches all of it, or has not told what it reaches.
func (opt Options) Beyond(s Size) string {
	if opt.reaches(s) {
		return ""
	}
	return fmt.Sprintf("%s is %s (%s), and the machine reaches %s (%s). Lay the card on a smaller size, or cut this sheet by hand.", s.Name,
		measure.FormatSize(s.Width, s.Height, measure.In), measure.FormatSize(s.Width, s.Height, measure.MM),
		measure.FormatSize(opt.Bed[0], opt.Bed[1], measure.In), measure.FormatSize(opt.Bed[0], opt.Bed[1], measure.MM))
}

// reaches reports whether a sheet of a size goes into the machine.
func (opt Options) reaches(s Size) bool {
	w, h := opt.Bed[0]+.1, opt.Bed[1]+.1
	return opt.Bed[0] <= 0 || s.Width <= w && s.Height <= h
}

package sheet

import (
	"fmt"
	"math"
	"slices"

	"sectilis/core/card"
	"sectilis/core/geom"
	"sectilis/core/measure"
	"sectilis/core/nest"
	"sectilis/core/scene"
)

// Lay lays the base and all pieces on sheets, stock by stock: what is not printed on
// scraps first, what was laid by hand where it was laid.
func Lay(c card.Card, s scene.Scene, opt Options, by Nester) Layout {
	if by == nil {
		by = First
	}
	out := Layout{Sheets: []Sheet{}, Problems: []Problem{}}
	area, paper := 0.0, 0.0
	var large []geom.Rect
	for _, group := range byStock(pieces(c, s)) {
		stock, _ := card.StockByID(group[0].stock)
		units := unitsOf(c, group, opt)
		printed := slices.ContainsFunc(group, func(l loose) bool { return l.inked() })
		kind := kindOf(opt, printed && opt.Marking == ForMachine)
		if printed && opt.Marking == ForHand {
			kind.Margin += cropOff + cropLong // crop marks stand beside the outermost pieces too
		}

		sheets, rest, taken := onScraps(units, stock, opt, by)
		answer := by(problem(rest, []nest.Sheet{kind}, opt))
		scraps := len(sheets)
		for i := range answer.Sheets {
			sheets = append(sheets, Sheet{Of: i, Stock: stock, Size: opt.Size, Margin: opt.Margin, Marks: []Mark{}})
		}
		for i, u := range rest {
			place := answer.Places[i]
			if place.Sheet < 0 {
				large = append(large, u.room.Bounds())
				for _, l := range u.members {
					out.Problems = append(out.Problems, tooLarge(l, u.room, opt, kind))
				}
				continue
			}
			u.layOn(&sheets[scraps+place.Sheet], place.At)
		}
		for i := range sheets {
			sh := &sheets[i]
			sh.Number, sh.Shared = len(out.Sheets)+i+1, opt.Share
			if sh.Printed && opt.Marking == ForMachine {
				sh.Marks = marks(opt)
			}
			if sh.Printed && opt.Marking == ForHand {
				sh.Crops = sh.crops()
			}
			sh.clashes()
			used := 0.0
			for _, p := range sh.Pieces {
				used += p.Area
			}
			sh.Used = used / (sh.Size.Width * sh.Size.Height)
			area += used
			paper += sh.Size.Width * sh.Size.Height
		}
		out.Sheets = append(out.Sheets, sheets...)
		out.Taken += answer.Area + taken
	}
	if paper > 0 {
		out.Used = area / paper
	}
	if s, ok := roomFor(large, opt); ok && len(large) > 0 {
		out.Offer = &s
	}
	return out
}

// onScraps lays what is not printed, and was not laid by hand, on the scraps of its
// stock, the smallest first; rest is what has no room on them.
func onScraps(units []unit, stock card.Stock, opt Options, by Nester) (sheets []Sheet, rest []unit, taken float64) {
	var kinds []nest.Sheet
	for _, s := range opt.Scraps {
		if s.Stock == stock.ID {
			kinds = append(kinds, nest.Sheet{Width: s.Width, Height: s.Height, Margin: scrapMargin, Count: 1})
		}
	}
	slices.SortStableFunc(kinds, func(a, b nest.Sheet) int { return int(math.Copysign(1, a.Width*a.Height-b.Width*b.Height)) })
	var plain []unit
	for _, u := range units {
		if len(kinds) > 0 && u.fixed == nil && !u.inked() {
			plain = append(plain, u)
		} else {
			rest = append(rest, u)
		}
	}
	if len(plain) == 0 {
		return nil, rest, 0
	}
	answer := by(problem(plain, kinds, opt))
	for _, k := range answer.Sheets {
		size := Size{"scrap", "Scrap", kinds[k].Width, kinds[k].Height}
		sheets = append(sheets, Sheet{Of: -1, Stock: stock, Size: size, Margin: scrapMargin, Marks: []Mark{}})
	}
	for i, u := range plain {
		if place := answer.Places[i]; place.Sheet < 0 {
			rest = append(rest, u)
		} else {
			u.layOn(&sheets[place.Sheet], place.At)
		}
	}
	return sheets, rest, answer.Area
}

// problem is units as parts to be laid.
func problem(units []unit, kinds []nest.Sheet, opt Options) nest.Problem {
	p := nest.Problem{Sheets: kinds, Between: opt.Between}
	if opt.Share {
		p.Between = 0
	}
	for _, u := range units {
		p.Parts = append(p.Parts, nest.Part{Outline: u.room, Turning: opt.Turning, Fixed: u.fixed})
	}
	return p
}

// kindOf is the sheet to lay on, its corners kept clear for marks.
func kindOf(opt Options, marked bool) nest.Sheet {
	kind := nest.Sheet{Width: opt.Size.Width, Height: opt.Size.Height, Margin: opt.Margin}
	if marked {
		for _, m := range marks(opt) {
			kind.Keep = append(kind.Keep, m.Path().Bounds())
		}
	}
	return kind
}

func tooLarge(l loose, room geom.Path, opt Options, kind nest.Sheet) Problem {
	box := room.Bounds()
	// Marks in the corners leave a strip along two edges to what is that wide.
	areas := []geom.Rect{geom.Rect{W: kind.Width, H: kind.Height}.Grow(-kind.Margin)}
	if len(kind.Keep) > 0 {
		a := areas[0]
		areas = []geom.Rect{{W: a.W, H: a.H - 2*markRoom}, {W: a.W - 2*markRoom, H: a.H}}
	}
	over := math.Inf(1)
	for _, a := range areas {
		for _, size := range [][2]float64{{box.W, box.H}, {box.H, box.W}} {
			over = min(over, max(size[0]-a.W, size[1]-a.H))
		}
	}
	if over <= 0 {
		return Problem{l.ID, l.Name, fmt.Sprintf("“%s” has no room on %s beside the marks. Use a larger sheet or a smaller margin.", l.Name, opt.Size.Name)}
	}
	mend := "Make it smaller."
	if s, ok := roomFor([]geom.Rect{box}, opt); ok && opt.reaches(s) {
		mend = "It fits on " + s.Name + "; or make it smaller."
	} else if ok {
		mend = "It fits on " + s.Name + ", which is more than the machine reaches: trim it by hand, or make it smaller."
	}
	return Problem{l.ID, l.Name, fmt.Sprintf(
		"“%s” is %s (%s) and %s (%s) too large for %s with its margins. %s",
		l.Name, measure.FormatSize(box.W, box.H, measure.In), measure.FormatSize(box.W, box.H, measure.MM),
		measure.FormatUnit(over, measure.In), measure.FormatUnit(over, measure.MM), opt.Size.Name, mend)}
}

// roomFor is the smallest size that each of some boxes fits on beside the marks; one that
// the machine reaches goes before one that it does not.
func roomFor(boxes []geom.Rect, opt Options) (best Size, ok bool) {
	less := 2 * (opt.Margin + markRoom)
	for _, s := range Sizes() {
		w, h := s.Width-less, s.Height-less
		fits := !slices.ContainsFunc(boxes, func(b geom.Rect) bool { return !(b.W <= w && b.H <= h || b.H <= w && b.W <= h) })
		if !fits {
			continue
		}
		nearer := s.Width*s.Height < best.Width*best.Height
		if opt.reaches(s) != opt.reaches(best) {
			nearer = opt.reaches(s)
		}
		if !ok || nearer {
			best, ok = s, true
		}
	}
	return best, ok
}

// reaches reports whether a sheet of a size goes into the machine.
func (opt Options) reaches(s Size) bool {
	w, h := opt.Bed[0]+.1, opt.Bed[1]+.1
	return opt.Bed[0] <= 0 || s.Width <= w && s.Height <= h
}

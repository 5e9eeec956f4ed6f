package sheet

import (
	"cmp"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/production/nest"
)

// Commands are the commands of the protocol about sheets as a whole.
var Commands = map[string]func() card.Command{
	"setSheets": func() card.Command { return &SetSheets{} },
}

// SetSheets sets how the sheets of a card are laid and marked.
type SetSheets struct {
	Sheets card.SheetSetup `json:"sheets"`
}

// Label implements card.Command.
func (k SetSheets) Label() string { return "Set up the sheets" }

// Apply implements card.Command. It lives here because only this package knows the sizes
// of sheets.
func (k SetSheets) Apply(c card.Card) (card.Card, error) {
	if _, err := OptionsOf(k.Sheets); err != nil {
		return c, err
	}
	return card.Change(c, func(c *card.Card) error {
		c.Sheets = &k.Sheets
		return nil
	})
}

// OptionsOf returns how sheets are laid by a setup; a *card.Refusal for what is none.
func OptionsOf(s card.SheetSetup) (Options, error) {
	if err := s.Check(); err != nil {
		return Options{}, err
	}
	size, ok := SizeByID(s.Size)
	if !ok {
		return Options{}, card.Refuse("size", "There is no size of sheet “%s”.", s.Size)
	}
	opt := Options{Size: size, Margin: s.Margin, Between: s.Between, Share: s.Share}
	if s.Borderless {
		opt.Margin = 0
	}
	if s.Lie == card.Landscape {
		opt.Size, opt.Landscape = size.Landscape(), true
	}
	opt.Turning = map[card.Turning]nest.Turning{card.TurnNone: nest.Upright, card.TurnQuarters: nest.Quarters, card.TurnFreely: nest.Freely}[s.Turning]
	opt.Marking = map[card.Marks]Marking{card.MarksForMachine: ForMachine, card.MarksForHand: ForHand, card.NoMarks: Unmarked}[s.Marks]
	return opt, nil
}

// Offer returns the setup, nearest to one, by which all pieces of copies of a card have room that
// are laid on the size for all; nil if there is none. The size stays if it can: the sheets
// are turned first, then the pieces freely, then the marks for the machine are left out,
// then the margins. A size that the machine reaches goes before one that it does not.
func Offer(c card.Card, copies []Copy, setup card.SheetSetup, opt Options) *card.SheetSetup {
	var sizes []string
	for _, reached := range []bool{true, false} {
		all := Sizes()
		slices.SortStableFunc(all, func(a, b Size) int { return cmp.Compare(a.area(), b.area()) })
		for _, size := range all {
			if size.ID != setup.Size && opt.reaches(size) == reached {
				sizes = append(sizes, size.ID)
			}
		}
	}
	groups := byStock(piecesOf(copies))
	if allFit(c, groups, setup, opt) {
		return nil
	}
	for _, size := range append([]string{setup.Size}, sizes...) {
		for _, less := range []struct {
			marks card.Marks
			edge  bool
		}{{setup.Marks, setup.Borderless}, {card.NoMarks, setup.Borderless}, {card.NoMarks, true}} {
			for _, turning := range []card.Turning{setup.Turning, card.TurnFreely} {
				for _, lie := range []card.Lie{setup.Lie, card.Portrait, card.Landscape} {
					if less.edge != setup.Borderless && size != setup.Size {
						continue // a larger sheet keeps its margins
					}
					try := setup
					try.Size, try.Marks, try.Borderless, try.Turning, try.Lie = size, less.marks, less.edge, turning, lie
					if try != setup && allFit(c, groups, try, opt) {
						return &try
					}
				}
			}
		}
	}
	return nil
}

// allFit reports whether every piece on the size for all has room by a setup.
func allFit(c card.Card, groups [][]loose, try card.SheetSetup, was Options) bool {
	opt, err := OptionsOf(try)
	if err != nil {
		return false
	}
	opt.Bed, opt.Blind, opt.Printer, opt.OnHand = was.Bed, was.Blind, was.Printer, was.OnHand
	for _, group := range groups {
		p := opt.on(group[0].stock)
		printed := slices.ContainsFunc(group, func(l loose) bool { return l.inked() })
		for _, u := range unitsOf(c, group, p) {
			if !p.own && !p.fits(u, p.sizes[0], printed) {
				return false
			}
		}
	}
	return true
}

// fits reports whether a unit has room on an empty sheet of a size.
func (p paper) fits(u unit, size Size, printed bool) bool {
	if _, ok := u.wholeOn(size); ok {
		return true
	}
	kind := p.kind(size, printed)
	u.fixed = nil
	kinds := []nest.Sheet{kind}
	box := u.room.Bounds()
	if turning, _ := u.turning(p, kinds); turning != nest.Sidelong {
		for _, a := range roomsOn(kind, p.between()) {
			if box.W <= a.W-roomSlack && box.H <= a.H-roomSlack {
				return true
			}
		}
	}
	problem, _ := p.problem([]unit{u}, kinds)
	return First(problem).Places[0].Sheet >= 0
}

// roomSlack is what boxes are told apart by, mm: less is left to the laying itself.
const roomSlack = .6

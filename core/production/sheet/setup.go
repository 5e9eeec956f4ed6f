package sheet

import (
	"cmp"
	"reflect"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/production/nest"
)

// Commands are the commands of the protocol about sheets as a whole.
var Commands = map[string]func() card.Command{
	"setSheets": func() card.Command { return &SetSheets{} },
	"tiePieces": func() card.Command { return &TiePieces{} },
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
	opt := Options{Size: size, Margin: s.Margin, Between: s.Between, Share: s.Share, Borderless: s.Borderless, Unmarked: s.Unmarked}
	if s.Lie == card.Landscape {
		opt.Size, opt.Landscape = size.Landscape(), true
	}
	opt.Turning = map[card.Turning]nest.Turning{card.TurnNone: nest.Upright, card.TurnQuarters: nest.Quarters, card.TurnFreely: nest.Freely}[s.Turning]
	opt.Marking = map[card.Marks]Marking{card.MarksForMachine: ForMachine, card.MarksForHand: ForHand, card.NoMarks: Unmarked}[s.Marks]
	return opt, nil
}

// Offer returns the setup, nearest to one, by which all pieces of copies of a card have room that
// are laid on the size for all; nil if there is none. The size stays if it can: the sheets are turned
// first, then the pieces freely, then a larger size is taken, one that the machine reaches before one
// that it does not. Only where none of that helps do pieces go on sheets of their own without marks, and
// no more of them than have no room beside these.
func Offer(c card.Card, copies []Copy, setup card.SheetSetup, opt Options) *card.SheetSetup {
	sizes := []string{setup.Size}
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
	if len(without(c, groups, setup, opt)) == 0 {
		return nil
	}
	for _, unmarked := range []bool{false, true} {
		for _, size := range sizes {
			for _, turning := range []card.Turning{setup.Turning, card.TurnFreely} {
				for _, lie := range []card.Lie{setup.Lie, card.Portrait, card.Landscape} {
					try := setup
					try.Size, try.Turning, try.Lie = size, turning, lie
					left := without(c, groups, try, opt)
					if unmarked && len(left) > 0 {
						try.Unmarked = append(slices.Clone(try.Unmarked), left...)
						left = without(c, groups, try, opt)
					}
					if len(left) == 0 && !reflect.DeepEqual(try, setup) {
						return &try
					}
				}
			}
		}
	}
	return nil
}

// without are the items, each once, of pieces on the size for all that have no room by a setup; one
// that is no setup leaves all without.
func without(c card.Card, groups [][]loose, try card.SheetSetup, was Options) (items []string) {
	opt, err := OptionsOf(try)
	opt.Bed, opt.Blind, opt.Printer, opt.OnHand = was.Bed, was.Blind, was.Printer, was.OnHand
	for _, group := range groups {
		p := opt.on(group[0].stock)
		printed := slices.ContainsFunc(group, func(l loose) bool { return l.inked() })
		for _, u := range unitsOf(c, group, p) {
			if err == nil && (p.own || p.markedFor(u).fits(u, p.sizes[0], printed)) {
				continue
			}
			for _, l := range u.members {
				if !slices.Contains(items, l.Item) {
					items = append(items, l.Item)
				}
			}
		}
	}
	return items
}

// markedFor is the paper as a unit is laid on it: without marks where it was said to be.
func (p paper) markedFor(u unit) paper {
	if p.Marking == ForMachine && slices.ContainsFunc(u.members, func(l loose) bool { return slices.Contains(p.Unmarked, l.Item) }) {
		p.Marking = Unmarked
	}
	return p
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

package card

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
)

// Lie is how sheets lie.
type Lie string

// The ways sheets lie.
const (
	Portrait  Lie = "portrait"
	Landscape Lie = "landscape"
)

// Turning is how pieces may be turned on their sheets.
type Turning string

// The ways pieces may be turned: as they stand on the card, by quarter turns, or as they
// lie closest.
const (
	TurnNone     Turning = "upright"
	TurnQuarters Turning = "quarters"
	TurnFreely   Turning = "freely"
)

// Marks is what is printed beside the pieces.
type Marks string

// The marks: registration marks for the machine, crop marks for trimming by hand, or none.
const (
	MarksForMachine Marks = "machine"
	MarksForHand    Marks = "hand"
	NoMarks         Marks = "none"
)

// SheetSetup says how the sheets of a card are laid and marked. It belongs to the card: what is
// printed, loaded and cut follows from the same one. Between is mm.
type SheetSetup struct {
	Size string `json:"size"` // the id of a size of sheet
	Lie  Lie    `json:"lie"`
	// Margin is what the printer does not reach along every edge, Between the room between
	// two pieces, mm.
	Margin  float64 `json:"margin"`
	Between float64 `json:"between"`
	Turning Turning `json:"turning"`
	Marks   Marks   `json:"marks"`
	// Borderless says that the printer reaches the edges of the paper: what is the whole of a sheet is
	// printed to its edges. What is cut keeps the margin, since a sheet lies askew by more than nothing.
	Borderless bool `json:"borderless,omitempty"`
	// Share lays pieces edge to edge; edges that two of them share are cut once.
	Share bool `json:"share,omitempty"`
	// Unmarked are the pieces, by their items, that lie on sheets of their own without marks, since
	// they have no room beside them.
	Unmarked []string `json:"unmarked,omitempty"`
	// Cards is how many of the card are laid, unless one for each name is; 0 is one.
	Cards int `json:"cards,omitempty"`
}

// MaxCards is how many of a card are laid at most.
const MaxCards = 60

// UsualSheets is the setup of a card that has none of its own: Letter, upright, a
// quarter-inch margin and an eighth between pieces.
func UsualSheets() SheetSetup {
	return SheetSetup{Size: "letter", Lie: Portrait, Margin: 6.35, Between: 3.175, Turning: TurnQuarters, Marks: MarksForMachine}
}

// SheetsOf is the setup of a card's sheets.
func (c Card) SheetsOf() SheetSetup {
	if c.Sheets == nil {
		return UsualSheets()
	}
	return *c.Sheets
}

// Check refuses what is no setup, and names the field. Which sizes there are is known
// where sheets are laid.
func (s SheetSetup) Check() error {
	switch {
	case len(s.Unmarked) > maxItems:
		return Refuse("unmarked", "More pieces are named than a card has.")
	case s.Size == "" || len(s.Size) > maxSizeName:
		return Refuse("size", "There is no size of sheet of that name.")
	case !slices.Contains([]Lie{Portrait, Landscape}, s.Lie):
		return Refuse("lie", "Sheets lie portrait or landscape.")
	case !slices.Contains([]Turning{TurnNone, TurnQuarters, TurnFreely}, s.Turning):
		return Refuse("turning", "Pieces stand upright, or are turned by quarters or freely.")
	case !slices.Contains([]Marks{MarksForMachine, MarksForHand, NoMarks}, s.Marks):
		return Refuse("marks", "Sheets are marked for the machine, for the hand, or not at all.")
	case !within(s.Margin, 0, 50):
		return Refuse("margin", "A margin is between 0 and 50 mm (2 in).")
	case !within(s.Between, 3, 50):
		return Refuse("between", "Pieces lie between 3 mm (⅛ in) and 50 mm (2 in) apart.")
	case s.Cards < 0 || s.Cards > MaxCards:
		return Refuse("cards", "Between one and %d cards are laid at once.", MaxCards)
	}
	return nil
}

// CardsLaid is how many cards are laid: one for each name, or as many as the setup says.
func (c *Card) CardsLaid() int {
	if c.EachLaid() {
		return len(c.Names.Made())
	}
	return max(1, c.SheetsOf().Cards)
}

// NumberedRow is what stands for the nth of several cards, from 1, where a name's card has its row.
func NumberedRow(n int) string { return fmt.Sprintf("k%d", n) }

// isNumbered reports whether a row is that of one of several cards that are alike.
func (c *Card) isNumbered(row string) bool {
	if c.EachLaid() || c.CardsLaid() < 2 {
		return false
	}
	n, err := strconv.Atoi(strings.TrimPrefix(row, "k"))
	return err == nil && n >= 1 && n <= c.CardsLaid() && row == NumberedRow(n)
}

package card

import "slices"

// Insert is an inner leaf glued into a card: what is printed on the inside is printed on
// it instead of on the base.
type Insert struct {
	Stock string `json:"stock"`
	// Less is by how much it is smaller than the base on every side, mm.
	Less float64 `json:"less"`
}

// InsertPiece names the insert among the pieces that are laid on sheets.
const InsertPiece = "insert"

// TakesInsert says whether a kind of base has an inside that a leaf can be glued to: those
// with cuts in it have none.
func TakesInsert(k BaseKind) bool {
	return slices.Contains([]BaseKind{SideFold, TopFold, Tent, TriFold, ZFold, Accordion, GateFold}, k)
}

func (c Card) checkInsert() error {
	if c.Leaf == nil {
		return nil
	}
	if !within(c.Leaf.Less, 0, 20) {
		return Refuse("less", "An insert is smaller than its card by up to 20 mm (¾ in) on each side.")
	}
	return checkStock("stock", c.Leaf.Stock)
}

// SetInsert prints the inside on an insert, or on the base when there is none.
type SetInsert struct {
	Insert *Insert `json:"insert,omitempty"`
}

// Label implements Command.
func (k SetInsert) Label() string {
	if k.Insert == nil {
		return "Take the insert out"
	}
	return "Set the insert"
}

// Apply implements Command.
func (k SetInsert) Apply(c Card) (Card, error) {
	return Change(c, func(c *Card) error {
		if k.Insert != nil && !TakesInsert(c.Base.Kind) {
			return Refuse("insert", "This kind of base is cut inside; a leaf cannot be glued into it.")
		}
		c.Leaf = k.Insert
		return nil
	})
}

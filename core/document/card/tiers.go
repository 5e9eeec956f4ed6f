package card

import "slices"

// Tiers say how a tiered picture is made: the same picture cut several times, each time smaller, and
// stacked. They are kept with the group of its pieces. Lengths are mm.
type Tiers struct {
	// Rule says how they lie.
	Rule TierRule `json:"rule,omitempty"`
	// Count is how many tiers there are, the lowest among them; of strips and of a grid how many are side
	// by side.
	Count int `json:"count"`
	// Rows is how many rows a grid has.
	Rows int `json:"rows,omitempty"`
	// Step is how much of each tier shows round the next, on average of two sides; of strips and of a grid
	// the gap between pieces, and round them.
	Step float64 `json:"step"`
	// Turn is how far each is turned against the one below, where they are fanned, degrees.
	Turn float64 `json:"turn,omitempty"`
	// X and Y are where in the lowest tier all draw together, in shares of its width and height.
	X float64 `json:"x"`
	Y float64 `json:"y"`
	// Foam is what lies under each tier but the lowest.
	Foam float64 `json:"foam"`
	// Edge is how wide the edge of each is printed in a colour; 0 leaves it without.
	Edge       float64 `json:"edge,omitempty"`
	EdgeColour string  `json:"edgeColour,omitempty"`
}

// TierRule says how the pieces of a tiered picture lie.
type TierRule string

// The rules of tiered pictures. Whatever the rule, the lowest tier is the whole picture, and all show it
// where it lies on that.
const (
	Concentric TierRule = ""       // each smaller than the one below, about a place
	Fanned     TierRule = "fan"    // each smaller, and turned against the one below
	Strips     TierRule = "strips" // side by side on the lowest, with gaps
	Grid       TierRule = "grid"   // side by side and in rows on the lowest, with gaps
)

// TierRules lists the rules.
func TierRules() []TierRule { return []TierRule{Concentric, Fanned, Strips, Grid} }

// FewestTiers and MostTiers bound how many a picture is cut in.
const (
	FewestTiers = 2
	MostTiers   = 7
)

// MostPieces is how many pieces a tiered picture has at most.
const MostPieces = 1 + MostTiers*MostTiers

// Check refuses what no tiered picture is. The error is a *Refusal.
func (t *Tiers) Check() error {
	switch {
	case t == nil:
		return nil
	case t.Count < FewestTiers || t.Count > MostTiers:
		return Refuse("count", "A tiered picture has %d to %d tiers.", FewestTiers, MostTiers)
	case !slices.Contains(TierRules(), t.Rule):
		return Refuse("rule", "Tiers lie about a place, are fanned, or are strips or a grid.")
	case t.Rule == Grid && (t.Rows < 1 || t.Rows > MostTiers):
		return Refuse("rows", "A grid has 1 to %d rows.", MostTiers)
	case !within(t.Turn, -45, 45):
		return Refuse("turn", "Each tier is turned by up to 45° against the one below.")
	case !within(t.Step, .5, 100):
		return Refuse("step", "A tier shows between 0.5 mm (1/32 in) and 100 mm (3 15/16 in) round the next.")
	case !within(t.X, 0, 1) || !within(t.Y, 0, 1):
		return Refuse("x", "What tiers draw together about lies in the picture.")
	case !slices.Contains(Foam, t.Foam):
		return Refuse("foam", "Foam is as thick as it is sold, or there is none.")
	case t.Edge != 0 && !within(t.Edge, .2, 20):
		return Refuse("edge", "The edge of a tier is between 0.2 mm and 20 mm (¾ in) wide; 0 leaves it without.")
	case t.Edge != 0:
		return checkColour(t.EdgeColour)
	}
	return nil
}

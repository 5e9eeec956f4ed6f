package card

import "slices"

// Tiers say how a tiered picture is made: the same picture cut several times, each time smaller, and
// stacked. They are kept with the group of its pieces. Lengths are mm.
type Tiers struct {
	Count int `json:"count"`
	// Step is how much of each tier shows round the next, on average of two sides.
	Step float64 `json:"step"`
	// X and Y are where in the lowest tier all draw together, in shares of its width and height.
	X float64 `json:"x"`
	Y float64 `json:"y"`
	// Foam is what lies under each tier but the lowest.
	Foam float64 `json:"foam"`
	// Edge is how wide the edge of each is printed in a colour; 0 leaves it without.
	Edge       float64 `json:"edge,omitempty"`
	EdgeColour string  `json:"edgeColour,omitempty"`
}

// FewestTiers and MostTiers bound how many a picture is cut in.
const (
	FewestTiers = 2
	MostTiers   = 7
)

// Check refuses what no tiered picture is. The error is a *Refusal.
func (t *Tiers) Check() error {
	switch {
	case t == nil:
		return nil
	case t.Count < FewestTiers || t.Count > MostTiers:
		return Refuse("count", "A tiered picture has %d to %d tiers.", FewestTiers, MostTiers)
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

package cut

import (
	"fmt"

	"sectilis/core/document/card"
)

// Settings are how a stock is cut.
type Settings struct {
	// Offset is how far the tip of the blade trails its holder, and Over how far a
	// closed cut goes on over its start, mm.
	Offset float64 `json:"offset"`
	Over   float64 `json:"over"`
	// Rounds is how often every cut is made.
	Rounds int `json:"rounds"`
	// Speed of cuts and Travel between them, mm/s.
	Speed  float64 `json:"speed"`
	Travel float64 `json:"travel"`
	// Force of the blade and of the other tools, g.
	Force int `json:"force"`
	Light int `json:"light"`
	// Dash and Hold are what a perforation cuts and what it leaves, mm.
	Dash float64 `json:"dash"`
	Hold float64 `json:"hold"`
}

// SettingsOf are those to begin with for a stock: thick card is cut twice, slower
// and harder, and holds a perforation with less.
func SettingsOf(s card.Stock) Settings {
	out := Settings{Offset: .25, Over: .5, Rounds: 1, Speed: 60, Travel: 150, Force: 110, Light: 60, Dash: 2, Hold: 1}
	switch {
	case s.Weight >= 270:
		out.Rounds, out.Speed, out.Force, out.Hold = 2, 40, 210, .8
	case s.Weight >= 200:
		out.Speed, out.Force = 50, 160
	case s.Weight < 150:
		out.Force = 80
	}
	return out
}

// Check refuses settings that no machine could cut with, and names the field.
func (s Settings) Check() error {
	for _, f := range []struct {
		field, name string
		v, lo, hi   float64
		unit        string
	}{
		{"offset", "The blade’s offset", s.Offset, 0, 2, "mm"},
		{"over", "The overcut", s.Over, 0, 5, "mm"},
		{"rounds", "The number of rounds", float64(s.Rounds), 1, 6, ""},
		{"speed", "The speed", s.Speed, 5, 400, "mm/s"},
		{"travel", "The speed between cuts", s.Travel, 10, 800, "mm/s"},
		{"force", "The force", float64(s.Force), 5, 600, "g"},
		{"light", "The force of pen and scoring tip", float64(s.Light), 5, 600, "g"},
		{"dash", "The cut of a perforation", s.Dash, .3, 20, "mm"},
		{"hold", "What a perforation holds", s.Hold, .2, 10, "mm"},
	} {
		if !(f.v >= f.lo && f.v <= f.hi) {
			return &card.Refusal{Field: f.field, Why: fmt.Sprintf("%s is from %g to %g %s.", f.name, f.lo, f.hi, f.unit)}
		}
	}
	return nil
}

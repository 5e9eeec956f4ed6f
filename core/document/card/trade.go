package card

// Trade is a trade size of a closed card. Width and Height are mm.
type Trade struct {
	Name   string  `json:"name"`
	Family string  `json:"family"`
	Width  float64 `json:"width"` // portrait
	Height float64 `json:"height"`
}

// Trades are the sizes that envelopes are sold for, and those of flat cards and pages.
func Trades() []Trade {
	in := func(v float64) float64 { return v * 25.4 }
	return []Trade{
		{"A2", "Letter", in(4.25), in(5.5)}, {"A6", "Letter", in(4.5), in(6.25)},
		{"A7", "Letter", in(5), in(7)}, {"Slimline", "Letter", in(3.5), in(8.5)},
		{"Square 5 ¼", "Letter", in(5.25), in(5.25)},
		{"A6 ISO", "ISO", 105, 148}, {"A5 ISO", "ISO", 148, 210},
		{"DL", "ISO", 99, 210}, {"Square 148", "ISO", 148, 148},
		{"Postcard", "Letter", in(4), in(6)}, {"Place card", "Letter", in(2), in(3.5)}, {"12-inch page", "Letter", in(12), in(12)},
	}
}

// Envelopes are the trade envelopes, landscape, the smallest first.
func Envelopes() []Trade {
	in := func(v float64) float64 { return v * 25.4 }
	return []Trade{
		{"A2 envelope", "Letter", in(5.75), in(4.375)}, {"C6 envelope", "ISO", 162, 114},
		{"A6 envelope", "Letter", in(6.5), in(4.75)}, {"Square 5 ½ envelope", "Letter", in(5.5), in(5.5)},
		{"A7 envelope", "Letter", in(7.25), in(5.25)}, {"DL envelope", "ISO", 220, 110},
		{"Slimline envelope", "Letter", in(8.875), in(3.875)}, {"Square 155 envelope", "ISO", 155, 155},
		{"C5 envelope", "ISO", 229, 162},
	}
}

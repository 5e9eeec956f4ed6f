package card

import (
	"math"

	"sectilis/core/ground/gamut"
)

// Stock is a kind of paper or card that can be bought.
type Stock struct {
	ID        string  `json:"id"`
	Name      string  `json:"name"`
	Colour    string  `json:"colour"`    // #rrggbb
	Weight    int     `json:"weight"`    // g/m²
	Thickness float64 `json:"thickness"` // caliper, mm
	// Coated says that it is a paper for photos, which prints stronger colours.
	Coated bool `json:"coated,omitempty"`
}

// Paper is the kind of paper that it is to a printer.
func (s Stock) Paper() gamut.Paper {
	if s.Coated {
		return gamut.Photo
	}
	return gamut.Matt
}

// Bears is the least width, mm, of a part that is cut from the stock and does not tear: 1.2 mm
// of card of 216 g, more or less as the stock is thicker or thinner.
func (s Stock) Bears() float64 {
	const usual, thick = 1.2, .28
	return math.Round(usual*min(max(s.Thickness/thick, .6), 1.6)*20) / 20
}

var stocks = []Stock{
	{"cream-300", "Cream card 300 g", "#fff6e0", 300, .38, false},
	{"white-300", "White card 300 g", "#ffffff", 300, .37, false},
	{"kraft-280", "Kraft card 280 g", "#c9a777", 280, .40, false},
	{"cream-216", "Cream card 216 g", "#fff6e0", 216, .28, false},
	{"white-216", "White card 216 g", "#fefefc", 216, .27, false},
	{"moss-216", "Moss card 216 g", "#587a4a", 216, .28, false},
	{"brick-216", "Brick card 216 g", "#a8432a", 216, .28, false},
	{"honey-216", "Honey card 216 g", "#e2a42b", 216, .28, false},
	{"night-216", "Night card 216 g", "#3c4a5b", 216, .28, false},
	{"plum-216", "Plum card 216 g", "#7a4666", 216, .28, false},
	{"sage-216", "Sage card 216 g", "#cdd8ba", 216, .28, false},
	{"text-120", "White text 120 g", "#fffefb", 120, .15, false},
	{"satin-240", "Satin photo 240 g", "#fdfdfd", 240, .25, true},
}

// Stocks lists the stocks in the order they are offered.
func Stocks() []Stock { return append([]Stock(nil), stocks...) }

// StockByID returns the stock; ok is false for an unknown id.
func StockByID(id string) (s Stock, ok bool) {
	for _, s := range stocks {
		if s.ID == id {
			return s, true
		}
	}
	return Stock{}, false
}

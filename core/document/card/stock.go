package card

import (
	"math"
	"slices"
	"strings"
	"sync/atomic"
	"unicode"
	"unicode/utf8"

	"sectilis/core/ground/gamut"
)

// Stock is a kind of paper or card that can be bought: one that ships, as it is or as a person has
// measured it, or one of her own.
type Stock struct {
	ID        string  `json:"id"`
	Name      string  `json:"name"`
	Colour    string  `json:"colour"`    // #rrggbb
	Weight    int     `json:"weight"`    // g/m², 0 where it is not known
	Thickness float64 `json:"thickness"` // caliper, mm
	// Coated says that it is a paper for photos, which prints stronger colours.
	Coated bool `json:"coated,omitempty"`
	// Pattern is the patterned paper that it is printed with when it is bought, by its id; "" for none.
	Pattern string `json:"pattern,omitempty"`
	// NoInk says that no ink of a printer holds on it.
	NoInk bool `json:"noInk,omitempty"`
	// Least is the least width, mm, of a part that is cut from it and does not tear; 0 where that
	// follows from its thickness.
	Least float64 `json:"least,omitempty"`
	// Price is what a sheet costs, in whatever money; 0 where it is not known.
	Price float64 `json:"price,omitempty"`
	// Hidden says that it is not offered any more; what is of it stays.
	Hidden bool `json:"hidden,omitempty"`
	// Own says that it does not ship but was added.
	Own bool `json:"own,omitempty"`
}

// Paper is the kind of paper that it is to a printer.
func (s Stock) Paper() gamut.Paper {
	if s.Coated {
		return gamut.Photo
	}
	return gamut.Matt
}

// Bears is the least width, mm, of a part that is cut from the stock and does not tear: as a person
// has said, or 1.2 mm of card of 216 g, more or less as the stock is thicker or thinner.
func (s Stock) Bears() float64 {
	if s.Least > 0 {
		return s.Least
	}
	const usual, thick = 1.2, .28
	return math.Round(usual*min(max(s.Thickness/thick, .6), 1.6)*20) / 20
}

// ShowsInk says that what is printed on the stock looks as it is meant: it is white, bought plain, and
// takes ink.
func (s Stock) ShowsInk() bool { return gamut.White(s.Colour) && s.Pattern == "" && !s.NoInk }

// StockFor is the stock, by its id, of a piece that receives a photo or a paper: the one that it has
// where that shows it, a photo stock for a photo and a white one for anything else where not. had is
// its kind before: who has put a photo on another white stock than one for photos has meant it.
func StockFor(receives, had Kind, stock string) string {
	shows := func(s Stock) bool {
		return s.ShowsInk() && (receives != Photo || s.Coated || had == Photo || had == Slot)
	}
	if s, ok := StockByID(stock); ok && shows(s) {
		return stock
	}
	first := First().Paper
	if receives == Photo {
		first = First().Photo
	}
	if s, _ := StockByID(first); shows(s) && !s.Hidden {
		return first
	}
	for _, s := range Stocks() {
		if shows(s) {
			return s.ID
		}
	}
	return first // there is no such stock on the shelf
}

// Receive gives an item that is cut the stock that shows what it receives, a photo or a paper.
func (it *Item) Receive(what Kind) {
	if !it.IsPiece() {
		return
	}
	if it.Made.Bleed == 0 && it.Photo == nil && it.Slot == nil && it.Fill == (Fill{}) {
		it.Made.Bleed = UsualBleed // it had no ink before
	}
	if to := StockFor(what, it.Kind, it.Made.Stock); to != it.Made.Stock {
		it.Made.Stock, it.Made.Bleed = to, max(it.Made.Bleed, UsualBleed)
	}
}

// Check refuses what no stock is.
func (s Stock) Check() error {
	switch name := strings.TrimSpace(s.Name); {
	case name == "" || name != s.Name || utf8.RuneCountInString(name) > 60 || strings.ContainsFunc(name, unicode.IsControl):
		return Refuse("name", "A stock has a name of up to 60 letters.")
	case s.Weight != 0 && (s.Weight < 20 || s.Weight > 3000):
		return Refuse("weight", "A stock weighs between 20 and 3000 g/m²; 0 stands for not known.")
	case !within(s.Thickness, .02, 6):
		return Refuse("thickness", "A stock is between 0.02 mm and 6 mm (¼ in) thick.")
	case s.Least != 0 && !within(s.Least, .1, 20):
		return Refuse("least", "The thinnest part that a stock bears is between 0.1 mm and 20 mm (¾ in) wide; 0 follows from its thickness.")
	case len(s.Pattern) > 80:
		return Refuse("pattern", "There is no paper of that name.")
	case !within(s.Price, 0, 1e6):
		return Refuse("price", "A sheet costs nothing or more, up to a million.")
	}
	return checkColour(s.Colour)
}

// shipped are the stocks that a person finds there.
var shipped = []Stock{
	{ID: "cream-300", Name: "Cream card 300 g", Colour: "#fff6e0", Weight: 300, Thickness: .38},
	{ID: "white-300", Name: "White card 300 g", Colour: "#ffffff", Weight: 300, Thickness: .37},
	{ID: "kraft-280", Name: "Kraft card 280 g", Colour: "#c9a777", Weight: 280, Thickness: .40},
	{ID: "cream-216", Name: "Cream card 216 g", Colour: "#fff6e0", Weight: 216, Thickness: .28},
	{ID: "white-216", Name: "White card 216 g", Colour: "#fefefc", Weight: 216, Thickness: .27},
	{ID: "moss-216", Name: "Moss card 216 g", Colour: "#587a4a", Weight: 216, Thickness: .28},
	{ID: "brick-216", Name: "Brick card 216 g", Colour: "#a8432a", Weight: 216, Thickness: .28},
	{ID: "honey-216", Name: "Honey card 216 g", Colour: "#e2a42b", Weight: 216, Thickness: .28},
	{ID: "night-216", Name: "Night card 216 g", Colour: "#3c4a5b", Weight: 216, Thickness: .28},
	{ID: "plum-216", Name: "Plum card 216 g", Colour: "#7a4666", Weight: 216, Thickness: .28},
	{ID: "sage-216", Name: "Sage card 216 g", Colour: "#cdd8ba", Weight: 216, Thickness: .28},
	{ID: "text-120", Name: "White text 120 g", Colour: "#fffefb", Weight: 120, Thickness: .15},
	{ID: "satin-240", Name: "Satin photo 240 g", Colour: "#fdfdfd", Weight: 240, Thickness: .25, Coated: true},
}

// shelf holds all stocks, in the order they are offered. Like fonts they are known to the whole
// program, since cards name them by their ids alone; it is replaced whole, never changed.
var shelf atomic.Pointer[[]Stock]

func init() { KnowStocks(nil) }

// KnowStocks makes stocks known in place of those that were known before: each takes the place of the
// one that ships with its id, the others follow those. They are to be sound (Check).
func KnowStocks(own []Stock) {
	all := slices.Clone(shipped)
	for _, s := range own {
		i := slices.IndexFunc(all, func(o Stock) bool { return o.ID == s.ID })
		if s.Own = i < 0 || all[i].Own; i < 0 {
			all = append(all, s)
		} else {
			all[i] = s
		}
	}
	shelf.Store(&all)
}

// AllStocks lists all stocks, those that are hidden too.
func AllStocks() []Stock { return slices.Clone(*shelf.Load()) }

// Stocks lists the stocks that are offered, in their order.
func Stocks() []Stock {
	return slices.DeleteFunc(AllStocks(), func(s Stock) bool { return s.Hidden })
}

// AsShipped returns the stock as it ships; ok is false for one that does not.
func AsShipped(id string) (s Stock, ok bool) { return stockIn(shipped, id) }

// StockByID returns the stock, hidden or not; ok is false for an unknown id.
func StockByID(id string) (s Stock, ok bool) { return stockIn(*shelf.Load(), id) }

func stockIn(all []Stock, id string) (s Stock, ok bool) {
	if i := slices.IndexFunc(all, func(s Stock) bool { return s.ID == id }); i >= 0 {
		return all[i], true
	}
	return Stock{}, false
}

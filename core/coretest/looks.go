package coretest

import "sectilis/core/document/card"

// Looks are printed items with every look there is, for a face of 5 × 7 in: two
// gradients, a pattern laid out in its own way, a line, a shadow, a raised edge, a
// reflection, and the picture twice, tinted and see-through in an outline of its
// own, another with a line outside and a shadow that reaches beyond it.
func Looks(picture string, width, height int) []card.Item {
	ink := card.Made{As: card.Printed}
	stops := []card.Stop{{At: 0, Colour: "#fff6e0"}, {At: .4, Colour: "#e2a42b"}, {At: 1, Colour: "#a8432a"}}
	shape := func(name string, x, y float64, fill card.Fill, look *card.Look, form card.Form) card.Item {
		return card.Item{Name: name, Kind: card.Shape, Place: card.Place{X: x, Y: y}, Made: ink, Fill: fill, Look: look, Form: &form}
	}
	seen := func(name string, x, y float64, look *card.Look, p card.Print) card.Item {
		p.Picture, p.PixelWidth, p.PixelHeight = picture, width, height
		return card.Item{Name: name, Kind: card.Photo, Place: card.Place{X: x, Y: y, Turn: 8, Mirrored: true}, Made: ink, Look: look, Photo: &p}
	}
	return []card.Item{
		shape("Linear", 35, 28, card.Fill{Gradient: &card.Gradient{Kind: card.Linear, FromY: .1, ToX: 1, ToY: .9, Stops: stops}},
			&card.Look{Shadow: &card.Shadow{Distance: 2.5, Angle: 60, Blur: 1.2, Spread: .8, Opacity: .5, Colour: "#3a2a18"},
				Line: &card.InkLine{Colour: "#fffdf9", Width: 1.4, Outside: true}}, card.Form{Outline: "scallop", Width: 50, Height: 36}),
		shape("Radial", 95, 28, card.Fill{Gradient: &card.Gradient{Kind: card.Radial, FromX: .5, FromY: .5, ToX: 1, ToY: .5, Stops: stops}},
			&card.Look{Line: &card.InkLine{Colour: "#35658c", Width: 2.4}, Clear: .3}, card.Form{Outline: card.Ellipse, Width: 44, Height: 40}),
		shape("Pattern", 35, 80, card.Fill{Paper: "honey-check", Scale: 2.2, Turn: 20, ShiftX: 3, ShiftY: 1},
			&card.Look{Raised: &card.Raised{Width: 5, Strength: .7}}, card.Form{Outline: card.Rectangle, Corner: card.Round, Radius: 6, Width: 52, Height: 40}),
		shape("Again", 95, 70, card.Fill{Colour: "#587a4a"},
			&card.Look{Reflection: &card.Reflection{Gap: 1, Length: .9, Opacity: .6}}, card.Form{Outline: "tag", Width: 48, Height: 24}),
		seen("Tinted", 36, 142, &card.Look{Tint: &card.Tint{Colour: "#35658c", Strength: .5}},
			card.Print{Width: 50, Height: 44, Opening: &card.Form{Outline: card.Ellipse, Width: 50, Height: 44}}),
		seen("Clear", 94, 142, &card.Look{Clear: .4}, card.Print{Width: 50, Height: 60, Zoom: 1.6, ShiftX: .1, ShiftY: -.1}),
	}
}

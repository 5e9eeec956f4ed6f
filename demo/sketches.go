package demo

import (
	"context"
	"fmt"

	"sectilis/app"
	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
)

// wait is a slot for a photo with its middle at (x, y) inches.
func (d *draft) wait(face card.FaceID, name string, made card.Made, f card.Form, x, y float64) {
	f.Width, f.Height, f.Radius = f.Width*in, f.Height*in, f.Radius*in
	if f.Outline == card.Rectangle && f.Corner == "" {
		f.Corner = card.Square
	}
	d.put(face, card.Item{Name: name, Kind: card.Slot, Made: ink, Form: &f, Slot: &card.Waits{Takes: card.TakesPhoto, Made: made}, Place: card.Place{X: x * in, Y: y * in}})
}

// say is a slot for words.
func (d *draft) say(face card.FaceID, name, font, colour string, w, h, x, y float64) {
	d.put(face, card.Item{Name: name, Kind: card.Slot, Made: ink, Place: card.Place{X: x * in, Y: y * in},
		Form: &card.Form{Outline: card.Rectangle, Corner: card.Square, Width: w * in, Height: h * in},
		Slot: &card.Waits{Takes: card.TakesWords, Made: ink, Fill: card.Fill{Colour: colour},
			Words: &card.Words{Text: name, Font: font, Size: 10, Leading: 1.2, Align: card.AlignCentre}}})
}

// sketches are the card sketches that ship: made for nobody in particular.
func sketches() []struct {
	draft
	app.NewSketch
} {
	type one = struct {
		draft
		app.NewSketch
	}
	satin := piece("satin-240", 0, 1)
	var out []one
	add := func(d draft, occasion string, face card.FaceID, tags ...string) {
		out = append(out, one{d, app.NewSketch{Title: d.title, Occasion: occasion, Face: face, Tags: tags}})
	}

	d := draft{title: "One photo, one label", base: card.Base{Kind: card.SideFold, Width: 5 * in, Height: 7 * in, Stock: "cream-300"}}
	d.form(card.Front, "Ground", card.Paper, piece("text-120", 0, 1), card.Fill{Paper: "oat-stripe"}, card.Form{Outline: card.Rectangle, Width: 4.5, Height: 6.5}, 2.5, 3.5)
	d.wait(card.Front, "Photo", satin, card.Form{Outline: card.Rectangle, Width: 3.75, Height: 3.75}, 2.5, 2.5)
	d.mat(2, .125, card.Square, "moss-216", "Photo mat", 3)
	d.form(card.Front, "Label", card.Shape, piece("cream-216", 1, 0), card.Fill{}, card.Form{Outline: "scallop", Width: 3.5, Height: 1.25}, 2.5, 5.5)
	d.say(card.Front, "Greeting", "pacifico-400", "#a8432a", 2.75, .6, 2.5, 5.5)
	d.say(card.InsideSecond, "Inside words", "patrick-hand-400", "#1f2b38", 3.5, 1.5, 2.5, 3.5)
	add(d, "any day", "", "photo", "label")

	d = draft{title: "Three in a row", base: card.Base{Kind: card.TopFold, Width: 7 * in, Height: 5 * in, Stock: "white-300"}}
	d.form(card.Front, "Ground", card.Paper, piece("text-120", 0, 1), card.Fill{Paper: "plum-sprig"}, card.Form{Outline: card.Rectangle, Width: 6.625, Height: 4.625}, 3.5, 2.5)
	for i := range 3 {
		d.wait(card.Front, fmt.Sprintf("Photo %d", i+1), satin, card.Form{Outline: card.Rectangle, Width: 1.75, Height: 2.375, Corner: card.Round, Radius: .125}, 1.5+2*float64(i), 2)
	}
	d.form(card.Front, "Strip", card.Shape, piece("plum-216", 0, 0), card.Fill{}, card.Form{Outline: "banner", Width: 5.5, Height: .75}, 3.5, 4)
	d.form(card.Front, "Strip face", card.Shape, piece("white-216", .5, 0), card.Fill{}, card.Form{Outline: "banner", Width: 5.125, Height: .5625}, 3.5, 4)
	d.say(card.Front, "Greeting", "dancing-script-700", "#7a4666", 3.75, .375, 3.5, 4)
	add(d, "birthday", "", "photos", "family")

	d = draft{title: "Round window", base: card.Base{Kind: card.SideFold, Width: 5.25 * in, Height: 5.25 * in, Stock: "kraft-280"}}
	d.form(card.Front, "Ground", card.Paper, piece("text-120", 0, 1), card.Fill{Paper: "leaf-drift"}, card.Form{Outline: card.Rectangle, Width: 4.875, Height: 4.875}, 2.625, 2.625)
	d.wait(card.Front, "Photo", satin, card.Form{Outline: card.Ellipse, Width: 3.25, Height: 3.25}, 2.625, 2.375)
	d.mat(2, .1875, card.Round, "cream-216", "Ring", 3)
	d.say(card.Front, "Name", "amatic-sc-700", "#35472c", 3, .5, 2.625, 4.5)
	add(d, "new baby", "", "photo", "round")

	d = draft{title: "Save the day", base: card.Base{Kind: card.SideFold, Width: 4.25 * in, Height: 5.5 * in, Stock: "white-300"}}
	d.put(card.Front, card.Item{Name: "Dusk", Kind: card.Paper, Made: ink, Place: card.Place{X: 2.125 * in, Y: 2.75 * in},
		Fill: card.Fill{Gradient: &card.Gradient{Kind: card.Linear, ToY: 1, Stops: []card.Stop{{Colour: "#fff6e0"}, {At: .6, Colour: "#e7c3b4"}, {At: 1, Colour: "#7a4666"}}}},
		Form: &card.Form{Outline: card.Rectangle, Corner: card.Square, Width: 4.25 * in, Height: 5.5 * in}})
	d.say(card.Front, "Names", "great-vibes-400", "#1f2b38", 3.25, 1, 2.125, 1.75)
	d.say(card.Front, "Date and place", "playfair-display-400", "#1f2b38", 2.75, .75, 2.125, 3.25)
	add(d, "wedding", "", "words only", "gradient")

	d = draft{title: "Thank-you gates", base: card.Base{Kind: card.GateFold, Width: 4.5 * in, Height: 6.25 * in, Stock: "cream-300"}}
	right, _ := card.LeafFaces(2)
	for _, face := range []card.FaceID{card.Front, right} {
		d.form(face, "Gate paper", card.Paper, piece("text-120", 0, 1), card.Fill{Paper: "moss-gingham"}, card.Form{Outline: card.Rectangle, Width: 1.9375, Height: 5.875}, 1.117, 3.125)
	}
	d.wait(card.InsideSecond, "Photo", satin, card.Form{Outline: card.Rectangle, Width: 3.5, Height: 2.5}, 2.25, 2)
	d.mat(3, .125, card.Bevel, "moss-216", "Photo mat", 4)
	d.say(card.InsideSecond, "Thanks", "zilla-slab-600", "#35472c", 3.25, 1, 2.25, 4.5)
	add(d, "thank you", "", "photo", "gates")

	d = draft{title: "Scrap corner", base: card.Base{Kind: card.SideFold, Width: 5 * in, Height: 7 * in, Stock: "cream-300"}}
	d.form(card.Front, "Tall strip", card.Paper, piece("text-120", 0, 1), card.Fill{Paper: "honey-check"}, card.Form{Outline: card.Rectangle, Width: 1.25, Height: 7}, 1, 3.5)
	d.wait(card.Front, "Photo", satin, card.Form{Outline: card.Rectangle, Width: 3, Height: 2.25}, 2.75, 2.125)
	d.mat(2, .125, card.Square, "white-216", "White edge", 3)
	d.form(card.Front, "Tag", card.Shape, piece("honey-216", 1, 0), card.Fill{}, card.Form{Outline: "tag", Width: 3, Height: .875}, 3, 4.75)
	d.say(card.Front, "Few words", "courier-prime-400", "#1f2b38", 2, .375, 3.25, 4.75)
	add(d, "any day", card.Front, "face", "strip")

	d = draft{title: "Four little squares", base: card.Base{Kind: card.SideFold, Width: 5 * in, Height: 7 * in, Stock: "white-300"}}
	for i := range 4 {
		d.wait(card.Front, fmt.Sprintf("Photo %d", i+1), satin, card.Form{Outline: card.Rectangle, Width: 1.875, Height: 1.875}, 1.5+2*float64(i%2), 1.5+2*float64(i/2))
	}
	d.say(card.Front, "Heading", "lilita-one-400", "#35658c", 3.75, .875, 2.5, 5.5)
	add(d, "birthday", card.Front, "photos", "grid")
	return out
}

// FillSketches keeps the sketches that ship. It returns the first error of the use cases.
func FillSketches(ctx context.Context, a *app.App) error {
	all := sketches()
	for i := len(all) - 1; i >= 0; i-- {
		s := all[i]
		c, err := fold.New(s.title, s.base)
		if err == nil {
			c, err = card.Apply(c, s.commands...)
		}
		if err == nil {
			_, err = a.AddSketch(ctx, s.NewSketch, c)
		}
		if err != nil {
			return fmt.Errorf("demo sketch %s: %w", s.title, err)
		}
	}
	return nil
}

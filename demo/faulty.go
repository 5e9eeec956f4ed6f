package demo

import (
	"sectilis/app"
	"sectilis/core/design/arrange"
	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// faulty is a card with eleven things on it that a check finds, to be mended before paper is spoiled.
func faulty(p app.Picture) draft {
	d := draft{title: "Before paper is spoiled", base: card.Base{Kind: card.SideFold, Width: 5 * in, Height: 7 * in, Stock: "white-300"}}
	// Ink that ends at its cut, a piece past the edge, and one across the fold.
	d.form(card.Front, "Meadow paper", card.Paper, piece("text-120", 0, 0), card.Fill{Paper: "leaf-drift"}, card.Form{Outline: card.Rectangle, Width: 4.25, Height: 3}, 2.5, 2)
	d.photo(card.Front, "Hives", p, 2.5, 1.75, 2.5, 2)
	d.form(card.Front, "Ticket", card.Shape, piece("honey-216", 0, 0), card.Fill{}, card.Form{Outline: "ticket", Width: 1.5, Height: .625}, 4.3125, 4)
	d.form(card.InsideSecond, "Ribbon", card.Shape, piece("plum-216", 0, 0), card.Fill{}, card.Form{Outline: card.Rectangle, Width: 2, Height: .375}, .5, 3.5)
	// Words that are too small, too near the edge, cut with loose middles, or not written yet.
	d.words(card.Front, "Small print", "Plum Lane Allotments, all plots", "nunito-400", "#41505f", 1.6, 2.5, 4.75)
	d.words(card.Front, "Date", "Sunday 14 June", "fredoka-700", "#a8432a", 4.4, 2.5, 6.85)
	d.form(card.Front, "Plate", card.Shape, piece("brick-216", 0, 0), card.Fill{}, card.Form{Outline: card.Rectangle, Width: 3.75, Height: 1.125, Corner: card.Round, Radius: .125}, 2.5, 5.75)
	d.put(card.Front, card.Item{Name: "Open", Kind: card.Lettering, On: "i7", Made: card.Made{As: card.Carved}, Place: card.Place{X: 2.5 * in, Y: 5.75 * in},
		Words: &card.Words{Text: "OPEN", Font: "alfa-slab-one-400", Size: 18, Leading: 1, Align: card.AlignCentre}})
	d.words(card.InsideSecond, "Greeting", arrange.SampleWords, "pacifico-400", "#a8432a", 7, 2.5, 1.5)
	// Two reds that differ by little, and a line that is cut twice.
	d.form(card.InsideSecond, "Dot", card.Shape, ink, card.Fill{Colour: "#aa442b"}, card.Form{Outline: card.Ellipse, Width: .5, Height: .5}, 2.5, 5)
	d.form(card.InsideSecond, "Leaf", card.Shape, ink, card.Fill{Colour: "#00e020"}, card.Form{Outline: "leaf", Width: .75, Height: .375}, 3.5, 5)
	for _, name := range []string{"Slot for the tag", "Slot, once more"} {
		var b geom.Builder
		d.put(card.InsideSecond, card.Item{Name: name, Kind: card.Drawing, Made: card.Made{As: card.Lined}, Place: card.Place{X: 2.5 * in, Y: 6 * in},
			Lines: &card.Lines{Role: card.RoleCut, Width: 40, Path: card.NewDrawn(b.Move(geom.Pt(-20, 0)).Line(geom.Pt(20, 0)).Path())}})
	}
	d.do(card.SetInsert{Insert: &card.Insert{Stock: "text-120", Less: .5}})
	return d
}

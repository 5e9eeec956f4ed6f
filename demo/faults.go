package demo

import (
	"context"
	"fmt"

	"sectilis/app"
	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
	"sectilis/core/production/sheet"
)

// Cards with the faults that a check finds beside those of the first one: what goes wrong under
// the blade, in the printer and with the glue.

// faultSupplies are what only the faulty cards are made with.
type faultSupplies struct {
	poster app.Picture
	felt   string // a stock that no ink holds on, of which there is no sheet
	stamp  string // a typeface that may not go into files
}

// bringFaultSupplies brings in what the faulty cards are made with, notes whose it is, and that
// there is no sheet of the felt.
func bringFaultSupplies(ctx context.Context, a *app.App, poster app.Picture) (faultSupplies, error) {
	out := faultSupplies{poster: poster}
	felt, err := a.AddStock(ctx, app.MeasuredStock{Stock: card.Stock{Name: "Grey felt", Colour: "#9a9f9b", Weight: 180, Thickness: 1, NoInk: true}})
	if err != nil {
		return out, fmt.Errorf("stock of the faulty cards: %w", err)
	}
	out.felt = felt.ID
	size := sheet.Sizes()[0].ID
	if err := a.KeepOnHand(ctx, sheet.OnHand{Stock: felt.ID, Sizes: []string{size}, Counts: map[string]int{size: 0}}); err != nil {
		return out, fmt.Errorf("felt on hand: %w", err)
	}
	fonts, err := a.BringInFont(ctx, "Plum Lane Stamp.ttf", StampFont())
	if err != nil {
		return out, fmt.Errorf("typeface of the faulty cards: %w", err)
	}
	out.stamp = fonts[0].ID
	for _, s := range []app.Supply{
		{Kind: "photo", ID: poster.ID, Name: poster.Name, Rights: app.PersonalUse},
		{Kind: "paper", ID: "wicker", Rights: app.CreditDue, Credit: "Wicker drawn by Ida Quince"},
	} {
		if err := a.NoteSupply(ctx, s); err != nil {
			return out, fmt.Errorf("rights of the faulty cards: %w", err)
		}
	}
	return out, nil
}

// bladeFaults is a card out of a drawing, with a window in its front, whose pieces tear, fall
// apart or do not fit on a sheet.
func bladeFaults(s faultSupplies) draft {
	const w, h = 5 * in, 7 * in
	sheetEdge := geom.RectPath(geom.Rect{W: 2 * w, H: h})
	window := geom.EllipsePath(geom.Rect{X: w + 3*in, Y: 4.75 * in, W: in, H: in})
	var crease geom.Builder
	crease.Move(geom.Pt(w, 0)).Line(geom.Pt(w, h))
	d := draft{title: "Before the blade goes down", base: card.Base{Kind: card.FromLines, Width: w, Height: h, Stock: "kraft-280", Drawn: &card.DrawnBase{
		Name: "Card with a window", Width: w, Height: h, Outline: card.NewDrawn(geom.Difference(geom.NonZero, sheetEdge, window)),
		Lines: []card.DrawnLine{{Role: card.RoleMountain, Path: card.NewDrawn(crease.Path())}},
		Leaves: []card.DrawnLeaf{{Box: geom.Rect{X: w, W: w, H: h}, Outside: "Front", Inside: "Inside left"},
			{Box: geom.Rect{W: w, H: h}, Outside: "Back", Inside: "Inside right"}}}}}
	cut := func(name, text, font string, size, spacing, y float64) {
		d.put(card.Front, card.Item{Name: name, Kind: card.Lettering, Made: piece("white-216", 0, 0), Place: card.Place{X: 2.5 * in, Y: y * in},
			Words: &card.Words{Text: text, Font: font, Size: size, Spacing: spacing, Leading: 1.2, Align: card.AlignCentre}})
	}
	cut("Thin letters", "Seeds", "courier-prime-400", 16, 0, .875)
	cut("Letters apart", "lane", "pacifico-400", 22, .3, 2)
	cut("Dots", "lime", "pacifico-400", 22, 0, 3.25)
	d.form(card.Front, "Patch", card.Shape, piece("moss-216", 0, 0), card.Fill{}, card.Form{Outline: card.Rectangle, Width: 1.5, Height: 1.5, Corner: card.Round, Radius: .1875}, 3.5, 5.25)
	d.form(card.Front, "Felt leaf", card.Shape, piece(s.felt, 0, 0), card.Fill{Colour: "#587a4a"}, card.Form{Outline: "leaf", Width: 1.5, Height: .75}, 1.25, 5.25)
	d.form(card.Back, "Lime tag", card.Shape, piece("moss-216", 0, 1), card.Fill{Colour: "#c8e070"}, card.Form{Outline: card.Rectangle, Width: 1.5, Height: .75}, 2.5, 3)
	d.form(card.Back, "Long streamer", card.Shape, piece("sage-216", 0, 0), card.Fill{}, card.Form{Outline: card.Rectangle, Width: 15, Height: .5}, 2.5, 6)
	d.form(card.InsideSecond, "Thick shell", card.Shape, piece("honey-216", 3, 0), card.Fill{}, card.Form{Outline: card.Ellipse, Width: 1.5, Height: 1}, 2.5, 5.5)
	line := func(name, path string, x, y, width, height float64) {
		p, err := geom.ParsePath(path)
		if err != nil {
			panic(err) // the paths stand below
		}
		d.put(card.InsideSecond, card.Item{Name: name, Kind: card.Drawing, Made: card.Made{As: card.Lined}, Place: card.Place{X: x * in, Y: y * in},
			Lines: &card.Lines{Role: card.RoleCut, Width: width, Height: height, Path: card.NewDrawn(p)}})
	}
	line("Slit by the edge", "M0 0V50", 4.97, 3.5, 0, 50)
	line("Crumb", "M0 0H30M40 0H40.4", 2.5, 1, 40.4, 0)
	line("Door", "M0 0H40V30H0V1.2", 2.5, 3, 40, 30)
	return d
}

// inkFaults is a pocket card whose ink runs off, is hardly seen, or comes out coarse and dull.
func inkFaults(s faultSupplies, meadow app.Picture) draft {
	d := draft{title: "Before the ink is spent", base: card.Base{Kind: card.Pocket, Width: 4.25 * in, Height: 6 * in, Stock: "white-300", Measures: map[string]float64{"deep": 2.25 * in}}}
	_, leaf := card.LeafFaces(1)
	poster := func(face card.FaceID, name string, made card.Made, width, x, y float64) {
		height := width * float64(s.poster.Height) / float64(s.poster.Width)
		d.put(face, card.Item{Name: name, Kind: card.Photo, Made: made, Place: card.Place{X: x * in, Y: y * in},
			Photo: &card.Print{Picture: s.poster.ID, PixelWidth: s.poster.Width, PixelHeight: s.poster.Height, Width: width * in, Height: height * in}})
	}
	poster(card.Front, "Poster", ink, 4.25, 2.125, 1.125)
	d.words(leaf, "Headline", "Open gardens", "alfa-slab-one-400", "#3c4a5b", 17, 2.125, .5625)
	d.words(leaf, "Pale words", "every plot, every gate", "nunito-400", "#f4ecd8", 5, 2.125, 1.125)
	d.put(leaf, card.Item{Name: "Directions", Kind: card.Lettering, Made: ink, Fill: card.Fill{Colour: "#35658c"}, Place: card.Place{X: 1.35 * in, Y: 1.75 * in},
		Words: &card.Words{Text: "By the lane, past the pump", Font: "nunito-400", Size: 7, Leading: 1.2, Align: card.AlignCentre, Box: &card.TextBox{Width: 1.75 * in, Height: .5 * in}}})
	d.words(leaf, "Stamp", "BRING A GUEST", s.stamp, "#a8432a", 4, 3.25, 2.125)
	d.words(leaf, "Strange letters", "Plum 漢", "courier-prime-400", "#35658c", 6, 3.35, 1.75)
	poster(leaf, "Small poster", piece("satin-240", 0, 1), 2.25, 1.35, 3)
	d.form(leaf, "Basket", card.Shape, piece("text-120", 0, 1), card.Fill{Paper: "wicker"}, card.Form{Outline: card.Rectangle, Width: 1, Height: .5}, 3.35, 2.5625)
	d.wait(leaf, "Photo of the gate", ink, card.Form{Outline: card.Rectangle, Width: 1, Height: .625}, 3.35, 3.3125)
	d.form(leaf, "Key", card.Shape, ink, card.Fill{Colour: "#587a4a"}, card.Form{Outline: card.Rectangle, Width: .75, Height: .5}, 2.125, 5)
	// Made for a list that has a name twice, one that is too long and a plot that nobody wrote down.
	d.words(card.Back, "Greeting", "For Noor Haldane", "nunito-400", "#3c4a5b", 6, 2.125, 1.5)
	d.words(card.Back, "Whose plot", "Noor Haldane, plot 2", "nunito-400", "#3c4a5b", 7, 2.125, 2.25)
	d.do(card.SetNames{Columns: []string{"Name", "Plot"}, Rows: [][]string{{"Noor Haldane", "2"}, {"Ida Quince", ""}, {"Bartholomew Quillfeather-Marchbanks", "22"}, {"Noor Haldane", "2"}}},
		card.MakeField{ID: "i12", From: 19, To: 20, Column: "Plot"}, card.MakeField{ID: "i12", From: 0, To: 12, Column: "Name"})
	bare := card.UsualSheets()
	bare.Unmarked = []string{"i8"} // the basket
	d.do(sheet.SetSheets{Sheets: bare})
	d.photo(card.Back, "Plot in June", meadow, 2.9375, 2.9375, 2.125, 4.375)
	d.do(card.Differ{Item: "i13", What: card.PhotoByName, Column: "Plot", Values: []card.ByValue{{Cell: "22", Means: s.poster.ID, PixelWidth: s.poster.Width, PixelHeight: s.poster.Height}}})
	return d
}

// glueFaults is a step card whose pieces meet, lean, have nothing below them or hold it open.
func glueFaults() draft {
	d := draft{title: "Before the glue dries", base: card.Base{Kind: card.StepCard, Width: 4.75 * in, Height: 4.75 * in, Stock: "cream-300", Measures: map[string]float64{
		"middleUp": 70, "middleOut": 15, "sideUp": 30, "sideOut": 45, "middleWidth": 40, "margin": 10}}}
	banner := piece("brick-216", 0, 0)
	banner.Free = true
	d.form(card.InsideFirst, "Banner", card.Shape, banner, card.Fill{}, card.Form{Outline: card.Rectangle, Width: 1.1875, Height: .5625}, 2.9134, 3.937)
	frame, err := geom.ParsePath("M-24 -24H24V24H-24ZM-16 -16V16H16V-16Z")
	if err != nil {
		panic(err) // it stands above
	}
	put := func(name, on, stock string, lift float64, form card.Form, x, y float64) {
		d.put(card.Back, card.Item{Name: name, Kind: card.Shape, On: on, Made: piece(stock, lift, 0), Place: card.Place{X: x, Y: y}, Form: &form})
	}
	square := func(size float64) card.Form {
		return card.Form{Outline: card.Rectangle, Width: size, Height: size, Corner: card.Square}
	}
	put("Frame", "", "moss-216", 0, card.Form{Outline: card.Free, Width: 48, Height: 48, Path: card.NewDrawn(frame)}, 32, 90)
	put("Wren", "i2", "honey-216", 0, square(14), 32, 90)
	put("Shed", "", "night-216", 3, square(30), 84, 90)
	put("Weathercock", "i4", "brick-216", 3, square(20), 101, 90)
	d.form(card.Front, "Veil", card.Shape, piece("plum-216", 0, 0), card.Fill{}, card.Form{Outline: card.Rectangle, Width: .75, Height: .5}, 1.25, 3.5)
	d.do(card.HideItems{IDs: []string{"i6"}, Hidden: true})
	return d
}

package demo

import (
	"cmp"
	"context"
	"fmt"
	"path"
	"slices"

	"sectilis/app"
	"sectilis/core/design/tiers"
	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/edging"
	"sectilis/core/production/sheet"
)

const in = 25.4

// Fill puts the demo photos into the tray and the demo cards on the table, the harvest supper
// last, so that it lies first, and notes some paper that is on hand. It returns the first
// error of the use cases.
func Fill(ctx context.Context, a *app.App) error {
	files, err := Photos()
	if err != nil {
		return err
	}
	pics := map[string]app.Picture{}
	names := []string{}
	for name := range files {
		names = append(names, name)
	}
	// The robin is brought in first, so that the photos come before it in the tray.
	slices.SortFunc(names, func(a, b string) int {
		return cmp.Or(cmp.Compare(path.Ext(b), path.Ext(a)), cmp.Compare(a, b))
	})
	for _, name := range names {
		p, err := a.BringIn(ctx, name, files[name])
		if err != nil {
			return fmt.Errorf("demo picture %s: %w", name, err)
		}
		pics[p.Name] = p
	}
	own, err := bringFaultSupplies(ctx, a, pics["Poster"])
	if err != nil {
		return err
	}
	for _, d := range []draft{glueFaults(), inkFaults(own, pics["Bee meadow"]), bladeFaults(own), faulty(pics["Bee meadow"]), seedSwap(), openBeds(), plotMoved(), pottingShedCard(pics["Potting shed"]), supperForAll(), beekeeper(pics["Bee meadow"]), harvestSupper(pics["Pumpkin hills"])} {
		c, err := fold.New(d.title, d.base)
		if err == nil {
			c, err = card.Apply(c, d.commands...)
		}
		if err == nil {
			_, err = a.Create(ctx, c)
		}
		if err != nil {
			return fmt.Errorf("demo card %s: %w", d.title, err)
		}
	}
	// It is for the card that has it alone.
	if err := a.RemoveFont(ctx, own.stamp); err != nil {
		return fmt.Errorf("typeface of the faulty cards: %w", err)
	}
	// What is at hand in the long shed beside sheets of the usual size.
	if err := a.KeepOnHand(ctx, sheet.OnHand{Stock: "satin-240", Sizes: []string{"photo4x6"}}); err != nil {
		return err
	}
	if err := a.KeepScraps(ctx, []sheet.Scrap{{Stock: "brick-216", Width: 5 * in, Height: 4 * in}}); err != nil {
		return err
	}
	return FillSketches(ctx, a)
}

// draft is a card as it is made by hand: a base and what is done to it.
type draft struct {
	title    string
	base     card.Base
	commands []card.Command
}

func (d *draft) do(c ...card.Command) { d.commands = append(d.commands, c...) }

func (d *draft) put(face card.FaceID, it card.Item) {
	d.do(card.PlaceItems{Face: face, Items: []card.Item{it}})
}

// piece and ink are the two ways an item is made.
func piece(stock string, lift, bleed float64) card.Made {
	return card.Made{As: card.Cut, Stock: stock, Lift: lift, Bleed: bleed}
}

var ink = card.Made{As: card.Printed}

// words places lettering with its middle at (x, y) inches.
func (d *draft) words(face card.FaceID, name, text, font, colour string, size, x, y float64) {
	d.put(face, card.Item{Name: name, Kind: card.Lettering, Made: ink, Fill: card.Fill{Colour: colour}, Place: card.Place{X: x * in, Y: y * in},
		Words: &card.Words{Text: text, Font: font, Size: size, Leading: 1.25, Align: card.AlignCentre}})
}

func (d *draft) form(face card.FaceID, name string, kind card.Kind, made card.Made, fill card.Fill, f card.Form, x, y float64) {
	f.Width, f.Height, f.Radius = f.Width*in, f.Height*in, f.Radius*in
	if f.Outline == card.Rectangle && f.Corner == "" {
		f.Corner = card.Square
	}
	d.put(face, card.Item{Name: name, Kind: kind, Made: made, Fill: fill, Form: &f, Place: card.Place{X: x * in, Y: y * in}})
}

func (d *draft) photo(face card.FaceID, name string, p app.Picture, w, h, x, y float64) {
	d.put(face, card.Item{Name: name, Kind: card.Photo, Made: piece("satin-240", 0, 1), Place: card.Place{X: x * in, Y: y * in},
		Photo: &card.Print{Picture: p.ID, PixelWidth: p.Width, PixelHeight: p.Height, Width: w * in, Height: h * in}})
}

// mat lays a mat under the item that was placed as the nth of the card.
func (d *draft) mat(n int, width float64, corner card.Corner, stock, name string, made int) {
	d.do(card.AddMat{IDs: []string{fmt.Sprintf("i%d", n)}, Width: width * in, Corner: corner, Stock: stock},
		card.NameItem{ID: fmt.Sprintf("i%d", made), Name: name})
}

func harvestSupper(p app.Picture) draft {
	d := draft{title: "Harvest Supper invitation", base: card.Base{Kind: card.SideFold, Width: 5 * in, Height: 7 * in, Stock: "cream-300"}}
	d.form(card.Front, "Leaf paper", card.Paper, piece("text-120", 0, 1), card.Fill{Paper: "leaf-drift"}, card.Form{Outline: card.Rectangle, Width: 4.4375, Height: 6.4375}, 2.5, 3.5)
	d.mat(1, .125, card.Square, "moss-216", "Mat", 2)
	d.photo(card.Front, "Photo", p, 3.5625, 3.3125, 2.5, 2.375)
	d.mat(3, .140625, card.Square, "brick-216", "Photo mat", 4)
	d.form(card.Front, "Label", card.Shape, piece("cream-216", 1, 0), card.Fill{}, card.Form{Outline: "scallop", Width: 3.5, Height: 1.625}, 2.5, 5.53125)
	d.words(card.Front, "Sentiment", "Harvest Supper", "pacifico-400", "#a8432a", 10.6, 2.5, 5.4)
	d.words(card.Front, "Society", "Plum Lane Allotments", "amatic-sc-700", "#35472c", 7, 2.5, 5.94)
	d.words(card.InsideSecond, "When and where", "Saturday 26 September\nsix o’clock\nin the long shed", "playfair-display-400", "#1f2b38", 6.2, 2.5, 2.9)
	d.words(card.InsideSecond, "What to bring", "Bring a dish, a chair\nand whoever shares your plot.", "patrick-hand-400", "#a8432a", 5.4, 2.5, 4.6)
	d.words(card.Back, "Maker’s mark", "folded at Plum Lane", "amatic-sc-700", "#566370", 4.6, 2.5, 6.5)
	return d
}

// beekeeper is a gate fold: a band that is glued to the left gate alone keeps
// both shut.
func beekeeper(p app.Picture) draft {
	d := draft{title: "Thank you, beekeeper", base: card.Base{Kind: card.GateFold, Width: 4.5 * in, Height: 6.25 * in, Stock: "white-300"}}
	right, _ := card.LeafFaces(2)
	for _, face := range []card.FaceID{card.Front, right} {
		d.form(face, "Comb paper", card.Paper, piece("text-120", 0, 1), card.Fill{Paper: "comb"}, card.Form{Outline: card.Rectangle, Width: 1.9375, Height: 5.875, Corner: card.Round, Radius: .25}, 1.117, 3.125)
	}
	d.form(card.Front, "Band", card.Shape, piece("night-216", 1, 0), card.Fill{}, card.Form{Outline: "banner", Width: 4, Height: .875}, 2.25, 3.125)
	d.form(card.Front, "Band face", card.Shape, piece("white-216", 0, 0), card.Fill{}, card.Form{Outline: "banner", Width: 3.625, Height: .6875}, 2.25, 3.125)
	d.words(card.Front, "Thank you", "Thank you, Odalys", "dancing-script-700", "#3c4a5b", 8.4, 2.25, 3.125)
	d.photo(card.InsideSecond, "Hives", p, 3.25, 2.1875, 2.25, 2)
	d.mat(6, .0625, card.Square, "honey-216", "Hives mat", 7)
	d.do(card.SetEdging{IDs: []string{"i7"}, Edging: &edging.Edging{Motif: "lace", Depth: 5, Corner: edging.Turn}})
	d.words(card.InsideSecond, "Inside", "for forty jars\nand not one sting", "dancing-script-700", "#7a4666", 8, 2.25, 4.6)
	return d
}

func pottingShedCard(p app.Picture) draft {
	d := draft{title: "Potting shed", base: card.Base{Kind: card.SideFold, Width: 4.5 * in, Height: 6.25 * in, Stock: "kraft-280"}}
	d.photo(card.Front, "Shed", p, 3.25, 4, 2.25, 2.6875)
	d.mat(1, .1875, card.Square, "moss-216", "Edged mat", 2)
	d.do(card.SetEdging{IDs: []string{"i2"}, Edging: &edging.Edging{Motif: "leaf", Depth: 3.4}},
		tiers.MakeTiers{ID: "i1", Tiers: card.Tiers{Count: 4, Step: .4375 * in, X: .5, Y: .4, Foam: 1.5, Edge: 1.4, EdgeColour: "#fffdf9"}})
	d.form(card.Front, "Tag", card.Shape, piece("cream-216", 2, 0), card.Fill{}, card.Form{Outline: "tag", Width: 2.75, Height: .875}, 2.25, 5.375)
	d.words(card.Front, "Words", "open all weathers", "courier-prime-400", "#1f2b38", 4.4, 2.4, 5.375)
	return d
}

func plotMoved() draft {
	d := draft{title: "Plot 14 has moved", base: card.Base{Kind: card.TopFold, Width: 5.5 * in, Height: 4.25 * in, Stock: "cream-300"}}
	d.form(card.Front, "Dotted ground", card.Paper, ink, card.Fill{Paper: "brick-dot"}, card.Form{Outline: card.Rectangle, Width: 5.75, Height: 4.375}, 2.75, 2.1875)
	d.form(card.Front, "Plate", card.Shape, piece("cream-216", 0, 0), card.Fill{}, card.Form{Outline: card.Rectangle, Width: 3.75, Height: 1.75, Corner: card.Round, Radius: .25}, 2.75, 2.125)
	d.mat(2, .125, card.Round, "night-216", "Plate mat", 3)
	d.words(card.Front, "Words", "Plot 14\nhas moved", "alfa-slab-one-400", "#3c4a5b", 9, 2.75, 2.125)
	d.words(card.InsideSecond, "Where to", "Four beds down,\nleft of the pear tree.", "patrick-hand-400", "#a8432a", 7.4, 2.75, 2.125)
	return d
}

// seedSwap is a step card: what stands up when it is opened carries the words
// and two seed packets. Its panels inside are covered.
func seedSwap() draft {
	d := draft{title: "Seed swap", base: card.Base{Kind: card.StepCard, Width: 4.5 * in, Height: 4.5 * in, Stock: "cream-300", Measures: map[string]float64{
		"steps": 3, "middleUp": 2.75 * in, "middleOut": .75 * in, "sideUp": 1.25 * in, "sideOut": 1.25 * in, "middleWidth": 1.75 * in, "margin": .5 * in,
	}}}
	d.form(card.InsideFirst, "Round", card.Shape, piece("moss-216", 0, 0), card.Fill{}, card.Form{Outline: card.Ellipse, Width: 1.5, Height: 1.5}, 2.25, 3.4375)
	d.form(card.InsideFirst, "Round face", card.Shape, piece("cream-216", .5, 0), card.Fill{}, card.Form{Outline: card.Ellipse, Width: 1.3125, Height: 1.3125}, 2.25, 3.4375)
	d.words(card.InsideFirst, "Words", "seed\nswap", "fredoka-700", "#587a4a", 8.6, 2.25, 3.42)
	d.words(card.InsideFirst, "When", "first Sunday in March", "patrick-hand-400", "#a8432a", 7, 2.25, .9)
	for i, x := range []float64{.9375, 3.5625} {
		d.form(card.InsideSecond, []string{"Beans", "Squash"}[i], card.Shape, piece([]string{"plum-216", "honey-216"}[i], 0, 0), card.Fill{}, card.Form{Outline: card.Rectangle, Width: .6875, Height: .875, Corner: card.Round, Radius: .0625}, x, .625)
	}
	d.do(fold.CoverPanels{Faces: []card.FaceID{card.InsideFirst, card.InsideSecond}, Layers: []card.PanelLayer{
		{Margin: .125 * in, Stocks: []string{"text-120"}, Papers: []string{"oat-stripe", "seed-scatter"}}}})
	d.words(card.Front, "Title", "Seed swap", "fredoka-700", "#587a4a", 12, 2.25, 3.5)
	d.words(card.Front, "Where", "at the Plum Lane Allotments", "amatic-sc-700", "#35472c", 6, 2.25, 4.05)
	return d
}

// openBeds is made of many small pieces: bunting, cut letters, discs and labels.
func openBeds() draft {
	d := draft{title: "Open beds Sunday", base: card.Base{Kind: card.SideFold, Width: 5 * in, Height: 7 * in, Stock: "white-300"}}
	two := []string{"brick-216", "honey-216"}
	bunting := func(n, first int, x, y float64) {
		for i := range n {
			d.put(card.Front, card.Item{Name: "Flag", Kind: card.Shape, Made: piece(two[(i+first)%2], .5, 0),
				Form: &card.Form{Outline: "flag", Width: .875 * in, Height: .625 * in}, Place: card.Place{X: (x + .7*float64(i)) * in, Y: y * in, Turn: 90}})
		}
	}
	bunting(6, 0, .75, .8125)
	bunting(5, 1, 1.1, 1.8125)
	for row, word := range []string{"OPEN", "BEDS"} {
		for i, letter := range word {
			d.put(card.Front, card.Item{Name: string(letter), Kind: card.Lettering, Made: piece("brick-216", .5, 0),
				Place: card.Place{X: (1.0625 + .96*float64(i)) * in, Y: (3 + .85*float64(row)) * in},
				Words: &card.Words{Text: string(letter), Font: "alfa-slab-one-400", Size: 25, Leading: 1, Align: card.AlignCentre}})
		}
	}
	for i := range 5 {
		d.form(card.Front, "Disc", card.Shape, piece("honey-216", 0, 0), card.Fill{}, card.Form{Outline: card.Ellipse, Width: .5625, Height: .5625}, .9+.8*float64(i), 4.7)
	}
	d.form(card.Front, "Label", card.Shape, piece("cream-216", 1, 0), card.Fill{}, card.Form{Outline: "scallop", Width: 4, Height: 1.375}, 2.5, 5.9375)
	d.words(card.Front, "When", "Sunday 14 June\nten till four", "pacifico-400", "#a8432a", 8, 2.5, 5.9375)
	for i, what := range []string{"Sweet peas", "Early beans", "Tea and plum cake"} {
		y := 1.5 + 1.75*float64(i)
		d.form(card.InsideSecond, what, card.Shape, piece("honey-216", 0, 0), card.Fill{}, card.Form{Outline: "scallop", Width: 3.5, Height: 1.125}, 2.5, y)
		d.words(card.InsideSecond, what+", words", what, "patrick-hand-400", "#1f2b38", 7.5, 2.5, y)
	}
	return d
}

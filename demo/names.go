package demo

import (
	"sectilis/core/design/typeset"
	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// members are those of the society who are asked to the supper, with their plots and on which side of the
// lane those lie.
var members = card.SetNames{From: "members.xlsx", Columns: []string{"Name", "Plot", "Lane", "Guest"}, Rows: [][]string{
	{"Odalys Fernsby", "plot 14", "north", ""}, {"Wilhelmina Tock", "plot 3", "south", "Edmund"}, {"Bartholomew Quillfeather-Marchbanks", "plot 22", "north", ""},
	{"Isolde Marchbanks", "plot 7", "south", ""}, {"Ptolemy Reed", "plot 9", "south", "Juno"}, {"Araminta Dove", "plot 31", "north", ""},
	{"Casimir Vane", "plot 12", "north", ""}, {"Hyacinth Olderby", "plot 5", "south", "Amos"}, {"Leopold Strake", "plot 18", "north", ""},
	{"Marguerite Thistlewood", "plot 26", "north", "Hugh"}, {"Noor Haldane", "plot 2", "south", ""}, {"Quentin Ashdown", "plot 29", "north", ""},
	{"Rosalind Peck", "plot 11", "south", "Tess"}, {"Sabra Lindqvist", "plot 16", "north", ""}, {"Tobias Wren", "plot 20", "north", ""}, {"Ursula Finch", "plot 8", "south", "Bram"},
}}

// supperForAll is an invitation for each member: it says her name on a label whose stock follows the lane, her
// plot and, if there is one, her guest.
func supperForAll() draft {
	d := draft{title: "Come to supper, by name", base: card.Base{Kind: card.SideFold, Width: 5 * in, Height: 7 * in, Stock: "cream-300"}}
	frame := geom.Difference(geom.NonZero, geom.RectPath(geom.Centred(4.5*in, 6.5*in)), geom.RectPath(geom.Centred(4.1875*in, 6.1875*in)))
	d.put(card.Front, card.Item{Name: "Frame", Kind: card.Shape, Made: ink, Fill: card.Fill{Colour: "#b9c8a3"}, Place: card.Place{X: 2.5 * in, Y: 3.5 * in},
		Form: &card.Form{Outline: card.Free, Width: 4.5 * in, Height: 6.5 * in, Path: card.NewDrawn(frame)}})
	d.words(card.Front, "Call", "Come to supper", "amatic-sc-700", "#35472c", 15, 2.5, 1.5)
	d.form(card.Front, "Label", card.Shape, piece("honey-216", 1, 0), card.Fill{}, card.Form{Outline: "scallop", Width: 3.75, Height: 1.75}, 2.5, 3.4375)
	d.words(card.Front, "Whom", "Odalys Fernsby", "pacifico-400", "#7d2f1d", 11, 2.5, 3.4375)
	d.words(card.Front, "Where", "of plot 14", "playfair-display-400", "#35472c", 6, 2.5, 5.125)
	d.words(card.InsideSecond, "When", "Saturday 26 September\nsix o’clock\nin the long shed", "playfair-display-400", "#1f2b38", 6.2, 2.5, 2.9)
	d.do(members,
		card.MakeField{ID: "i4", From: 0, To: 14, Column: "Name"}, typeset.FitNames{ID: "i4"},
		card.MakeField{ID: "i5", From: 10, To: 10, Column: "Guest", Before: ", with "}, card.MakeField{ID: "i5", From: 3, To: 10, Column: "Plot"},
		card.Differ{Item: "i3", What: card.StockByName, Column: "Lane", Values: []card.ByValue{{Cell: "north", Means: "honey-216"}, {Cell: "south", Means: "sage-216"}}})
	return d
}

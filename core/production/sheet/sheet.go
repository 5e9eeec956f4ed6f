// Package sheet lays the base and the pieces of a card onto sheets of their
// stocks. A sheet's origin is its top left corner, x right and y down, mm.
package sheet

import (
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
	"sectilis/core/production/nest"
)

func (s Size) area() float64 { return s.Width * s.Height }

// Options say what paper is used.
type Options struct {
	Size Size
	// Margin is what the printer cannot reach along every edge, mm.
	Margin float64
	// Borderless says that the printer reaches the edges of the paper all the same, for what is the
	// whole of a sheet.
	Borderless bool
	// Unmarked are the items whose pieces lie on sheets of their own without marks.
	Unmarked []string
	// Between is the room between two pieces, bleed included, mm.
	Between float64
	// Turning says how pieces may be turned.
	Turning nest.Turning
	// Share lays pieces edge to edge, and edges that two of them share are cut once.
	Share bool
	// Marking says what marks printed sheets get.
	Marking Marking
	// Bed is what the machine reaches, mm; 0 where that is not known.
	Bed [2]float64
	// Printer is what the printer reaches; nil for whatever a setup says.
	Printer *PrinterReach
	// Blind is how far from the edges of a sheet the machine cannot work, mm.
	Blind float64
	// Scraps are odd pieces of paper that are used first, for what is not printed.
	Scraps []Scrap
	// OnHand is the inventory of single stocks, which overrides the sizes above; its sizes
	// lie on their side if Landscape.
	OnHand    []OnHand
	Landscape bool
}

// Marking is what a printed sheet is marked with.
type Marking uint8

// What may be printed beside the pieces: registration marks for the machine, crop marks
// for trimming by hand, or nothing.
const (
	ForMachine Marking = iota
	ForHand
	Unmarked
)

// Scrap is an odd piece of a stock that is left over. Width and Height are mm.
type Scrap struct {
	Stock  string  `json:"stock"`
	Width  float64 `json:"width"`
	Height float64 `json:"height"`
}

// scrapMargin is what is kept free along the edges of a scrap, mm.
const scrapMargin = 2.0

// Landscape is the size lying on its side.
func (s Size) Landscape() Size {
	s.Width, s.Height = max(s.Width, s.Height), min(s.Width, s.Height)
	return s
}

// Line is something to cut or score, in the coordinates of its sheet.
type Line struct {
	Role fold.Role `json:"role"`
	Path geom.Path `json:"path"`
}

// Piece is something laid on a sheet.
type Piece struct {
	// ID tells it from all others; without a row it is Item.
	ID string `json:"id"`
	// Item is the id of the item, or "base" or "insert"; Row is that of the name that it is made for, ""
	// where a card is not made for each name.
	Item string `json:"item"`
	Row  string `json:"row,omitempty"`
	// Says is that of its Copy.
	Says string `json:"-"`
	// Name is what it is called, with the name that it is made for; Plain is that without.
	Name  string      `json:"name"`
	Plain string      `json:"plain,omitempty"`
	Face  card.FaceID `json:"face,omitempty"`
	// At maps the face (for the base: the net) to the sheet.
	At    geom.Affine `json:"at"`
	Box   geom.Rect   `json:"box"` // with bleed
	Lines []Line      `json:"lines"`
	// Outline is the edge of the piece on the sheet. The last of Lines cuts along it, but
	// for a base that is a whole sheet, which nothing is cut round.
	Outline geom.Path `json:"outline"`
	Area    float64   `json:"area"` // of the paper in it, mm²
	// Place is that of the middle of its own box on the sheet. ByHand says that it stays
	// there, Tie numbers the tied set that it belongs to, from 1; 0 is none. Wrong says
	// what is wrong with where it was laid by hand.
	Place  card.Place  `json:"place"`
	ByHand bool        `json:"byHand,omitempty"`
	Tie    int         `json:"tie,omitempty"`
	Wrong  string      `json:"wrong,omitempty"`
	Inks   []scene.Ink `json:"-"`
	// Reverse is the ink on the other side, as seen through the sheet.
	Reverse []scene.Ink `json:"-"`

	room geom.Path
	runs geom.Point // along the card's main fold
	// stands is by how many degrees, in quarters, it is turned to stand as on its face.
	stands float64
}

func (p Piece) inked() bool { return len(p.Inks)+len(p.Reverse) > 0 }

// Mark is a registration mark: a ring with a dot. One of the four has a second
// dot, which tells which way up the sheet lies.
type Mark struct {
	At     geom.Point  `json:"at"`
	Second *geom.Point `json:"second,omitempty"`
}

// MarkForm is what a mark looks like, mm: the middle of its ring, the width of the ring
// and the radius of its dots.
type MarkForm struct {
	Ring   float64 `json:"ring"`
	Stroke float64 `json:"stroke"`
	Dot    float64 `json:"dot"`
}

// Form is what all marks look like.
func Form() MarkForm { return MarkForm{MarkRing - MarkStroke/2, MarkStroke, MarkDot} }

// The marks, in millimetres: outer radius and width of the ring, radius of the dots, how
// far pieces and their bleed keep off, and how far off the second dot is.
const (
	MarkRing   = 3.0
	MarkStroke = .7
	MarkDot    = .9
	MarkClear  = 1.5
	markSecond = 5.5
	// blind is what a machine's eye cannot reach along the edges of a sheet.
	blind = 5.0
)

// Sheet is one physical sheet. Margin is mm.
type Sheet struct {
	Number int `json:"number"`
	// Of is its number, from 0, among the sheets of its stock that are no scraps; -1 for
	// a scrap.
	Of     int        `json:"of"`
	Stock  card.Stock `json:"stock"`
	Size   Size       `json:"size"`
	Margin float64    `json:"margin"`
	Pieces []Piece    `json:"pieces"`
	Marks  []Mark     `json:"marks"`
	// Crops are crop marks for trimming by hand: lines beside the corners of the pieces.
	Crops []geom.Path `json:"crops,omitempty"`
	// Printed says that the front goes through the printer, if only for marks.
	Printed bool `json:"printed"`
	// TwoSided says that the other side is printed too.
	TwoSided bool    `json:"twoSided"`
	Used     float64 `json:"used"` // share of the paper that goes into pieces, 0 to 1
	// Shared says that edges which two pieces share are cut once.
	Shared bool `json:"shared,omitempty"`
	// Whole says that the sheet itself is the base: nothing is cut round it, and it has no
	// marks.
	Whole bool `json:"whole,omitempty"`

	unmarked bool // it gets no marks whatever others get
}

// Unregistered says that the sheet is printed and then cut, and nothing tells the machine where its print
// lies.
func (sh Sheet) Unregistered() bool {
	return sh.Printed && len(sh.Marks) == 0 && len(sh.Crops) == 0 &&
		slices.ContainsFunc(sh.Pieces, func(p Piece) bool { return len(p.Lines) > 0 && p.inked() })
}

// Note says of what is laid how it lies, where that is not as one would think.
type Note struct {
	Why string
	// Untie are the pieces of a tied set that is too large for any sheet, which untying
	// would end.
	Untie []string
}

// Problem is a piece that could not be laid, and why.
type Problem struct {
	ID   string
	Name string
	Why  string
	// Stock is what it is cut from. Offer is a size on which it has room, where this stock
	// has sizes of its own.
	Stock card.Stock
	Offer *Size
}

// Layout is every sheet a card needs. Used is a share of the area of the sheets.
type Layout struct {
	Sheets   []Sheet   `json:"sheets"`
	Problems []Problem `json:"problems"`
	Notes    []Note    `json:"notes"`
	// Short are the stocks of which there are too few sheets on hand.
	Short []Short `json:"short,omitempty"`
	Used  float64 `json:"used"`
	// Taken is the area of paper that the layout takes: of the last sheet of each
	// stock, as far down as it is used, mm².
	Taken float64 `json:"taken"`
	// Nested are the problems whose answers the layout follows.
	Nested []nest.Problem `json:"-"`
}

// Cost is the price of some sheets as far as prices are known. A scrap costs nothing any more.
func Cost(sheets []Sheet) (cost float64) {
	for _, s := range sheets {
		if s.Of >= 0 {
			cost += s.Stock.Price
		}
	}
	return cost
}

// loose is a piece before it has its place: in its own coordinates.
type loose struct {
	Piece
	stock string
	// room is what the piece takes on the sheet, bleed included.
	room geom.Path
}

// Nester answers how parts are laid. Lay's own makes a first answer; another may
// know a better one.
type Nester func(nest.Problem) nest.Answer

// First is the answer that is had at once.
func First(p nest.Problem) nest.Answer {
	s := nest.New(p)
	s.Improve(s.Round())
	return s.Best()
}

// byStock groups pieces by stock, stocks in order of first use.
func byStock(all []loose) [][]loose {
	var out [][]loose
	at := map[string]int{}
	for _, l := range all {
		i, ok := at[l.stock]
		if !ok {
			i = len(out)
			at[l.stock] = i
			out = append(out, nil)
		}
		out[i] = append(out[i], l)
	}
	return out
}

func (sh *Sheet) add(p Piece) {
	sh.Pieces = append(sh.Pieces, p)
	// A sheet that is printed on its other side alone still needs its marks on the
	// side that the machine looks at.
	sh.Printed = sh.Printed || p.inked()
	sh.TwoSided = sh.TwoSided || len(p.Reverse) > 0
}

// marks puts four marks into the corners of the printable area of a sheet that a machine's
// eye reaches, a second dot beside the first.
func marks(size Size, margin float64) []Mark {
	r := geom.Rect{W: size.Width, H: size.Height}.Grow(-max(margin, blind) - MarkRing - .5)
	// Along the longer side, where it takes nothing of the width between the marks.
	second := geom.Pt(r.X, r.Y+markSecond)
	if size.Width > size.Height {
		second = geom.Pt(r.X+markSecond, r.Y)
	}
	return []Mark{
		{At: geom.Pt(r.X, r.Y), Second: &second}, {At: geom.Pt(r.Right(), r.Y)},
		{At: geom.Pt(r.X, r.Bottom())}, {At: geom.Pt(r.Right(), r.Bottom())},
	}
}

// placed is the piece where m puts it.
func (l loose) placed(m geom.Affine) Piece {
	p := l.Piece
	p.At = l.At.Then(m)
	p.Box = l.room.Transform(m).Bounds()
	p.Lines = make([]Line, len(l.Lines))
	for i, line := range l.Lines {
		p.Lines[i] = Line{line.Role, line.Path.Transform(m)}
	}
	p.Outline = l.Outline.Transform(m)
	p.Inks, p.Reverse = scene.Transform(l.Inks, m), scene.Transform(l.Reverse, m)
	return p
}

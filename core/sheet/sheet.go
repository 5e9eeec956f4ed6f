// Package sheet lays the base and the pieces of a card onto sheets of their
// stocks. A sheet's origin is its top left corner, x right and y down, mm.
package sheet

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"sectilis/core/card"
	"sectilis/core/fold"
	"sectilis/core/geom"
	"sectilis/core/measure"
	"sectilis/core/scene"
)

// Size is a size of paper that can be loaded into a printer.
type Size struct {
	ID     string  `json:"id"`
	Name   string  `json:"name"`
	Width  float64 `json:"width"`
	Height float64 `json:"height"`
}

// Sizes lists the sizes of sheets.
func Sizes() []Size {
	return []Size{{"letter", "Letter", 215.9, 279.4}, {"a4", "A4", 210, 297}}
}

// Options say what paper is used.
type Options struct {
	Size Size
	// Margin is what the printer cannot reach along every edge, mm.
	Margin float64
	// Between is the room between two pieces, bleed included, mm.
	Between float64
}

// Defaults are a quarter-inch margin and an eighth between pieces.
func Defaults(size Size) Options { return Options{size, measure.Inch / 4, measure.Inch / 8} }

// Line is something to cut or score, in the coordinates of its sheet.
type Line struct {
	Role fold.Role `json:"role"`
	Path geom.Path `json:"path"`
}

// Piece is something laid on a sheet.
type Piece struct {
	ID   string      `json:"id"` // of the item; "base" for the base
	Name string      `json:"name"`
	Face card.FaceID `json:"face,omitempty"`
	// At maps the face (for the base: the net) to the sheet.
	At    geom.Affine `json:"at"`
	Box   geom.Rect   `json:"box"` // with bleed
	Lines []Line      `json:"lines"`
	Area  float64     `json:"area"` // of the paper in it, mm²
	Inks  []scene.Ink `json:"-"`
	// Reverse is the ink on the other side, as seen through the sheet.
	Reverse []scene.Ink `json:"-"`
}

func (p Piece) inked() bool { return len(p.Inks)+len(p.Reverse) > 0 }

// Mark is a registration mark: a ring with a dot. One of the four has a second
// dot, which tells which way up the sheet lies.
type Mark struct {
	At     geom.Point  `json:"at"`
	Second *geom.Point `json:"second,omitempty"`
}

// The marks, in millimetres: outer radius and width of the ring, radius of the
// dots, and the square at the corner of the margin that is kept clear.
const (
	MarkRing   = 3.0
	MarkStroke = .7
	MarkDot    = .9
	markRoom   = 9.5
	markSecond = 5.5
)

// Sheet is one physical sheet.
type Sheet struct {
	Number int        `json:"number"`
	Stock  card.Stock `json:"stock"`
	Size   Size       `json:"size"`
	Margin float64    `json:"margin"`
	Pieces []Piece    `json:"pieces"`
	Marks  []Mark     `json:"marks"`
	// Printed says that the front goes through the printer, if only for marks.
	Printed bool `json:"printed"`
	// TwoSided says that the other side is printed too.
	TwoSided bool    `json:"twoSided"`
	Used     float64 `json:"used"` // share of the paper that goes into pieces, 0 to 1
}

// Problem is a piece that could not be laid, and why.
type Problem struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Why  string `json:"why"`
}

// Layout is every sheet a card needs.
type Layout struct {
	Sheets   []Sheet   `json:"sheets"`
	Problems []Problem `json:"problems"`
	Used     float64   `json:"used"`
}

// loose is a piece before it has its place: in its own coordinates.
type loose struct {
	Piece
	stock   string
	outline geom.Rect // of the piece with bleed
}

// Lay lays the base and all pieces on sheets, in rows, stock by stock.
func Lay(c card.Card, s scene.Scene, opt Options) Layout {
	out := Layout{Sheets: []Sheet{}, Problems: []Problem{}}
	area, paper := 0.0, 0.0
	for _, group := range byStock(pieces(c, s)) {
		stock, _ := card.StockByID(group[0].stock)
		printed := slices.ContainsFunc(group, func(l loose) bool { return l.inked() })
		for len(group) > 0 {
			sh := Sheet{Number: len(out.Sheets) + 1, Stock: stock, Size: opt.Size, Margin: opt.Margin}
			rest := sh.fill(group, opt, printed)
			if len(sh.Pieces) == 0 {
				for _, l := range rest {
					out.Problems = append(out.Problems, tooLarge(l, opt, printed))
				}
				break
			}
			group = rest
			for _, p := range sh.Pieces {
				sh.Used += p.Area
			}
			area += sh.Used
			sh.Used /= opt.Size.Width * opt.Size.Height
			paper += opt.Size.Width * opt.Size.Height
			out.Sheets = append(out.Sheets, sh)
		}
	}
	if paper > 0 {
		out.Used = area / paper
	}
	return out
}

// pieces lists the base and every piece of every face, in their own
// coordinates: the net, or the face turned so that the piece is upright.
func pieces(c card.Card, s scene.Scene) []loose {
	outline := s.Net.Outline()
	base := loose{stock: c.Base.Stock, outline: outline.Bounds(), Piece: Piece{
		ID: "base", Name: "Base", At: geom.Identity, Area: outline.Area(),
	}}
	for _, l := range s.Net.Lines {
		var b geom.Builder
		base.Lines = append(base.Lines, Line{l.Role, b.Move(l.From).Line(l.To).Path()})
	}
	for i := range s.Faces {
		f := &s.Faces[i]
		base.Lines = append(base.Lines, linesOn(f, "", f.Shape, f.OnSheet, f.Side == fold.Inside)...)
	}
	base.Lines = append(base.Lines, Line{fold.Cut, outline})
	out := []loose{base}
	for i := range s.Faces {
		f := &s.Faces[i]
		inks := scene.Transform(f.BaseInks(), f.OnSheet)
		if f.Side == fold.Outside {
			out[0].Inks = append(out[0].Inks, inks...)
		} else {
			out[0].Reverse = append(out[0].Reverse, inks...)
		}
		for j := range f.Items {
			it := &f.Items[j]
			if !it.Piece {
				continue
			}
			_, doc := c.Find(it.ID)
			upright, _ := it.At.Inverse()
			out = append(out, loose{stock: doc.Made.Stock, outline: it.Outline.Bounds().Grow(it.Bleed), Piece: Piece{
				ID: it.ID, Name: it.Name, Face: f.ID, At: upright, Area: math.Abs(it.Outline.Area()),
				Lines: append(linesOn(f, it.ID, it.Outline.Transform(it.At), upright, false), Line{fold.Cut, it.Outline}),
				Inks:  scene.Transform(f.PieceInks(it), upright),
			}})
		}
	}
	return out
}

// linesOn are the lines of a carrier, cut off at its edge and mapped by m.
// Guides are for the eye alone.
func linesOn(f *scene.Face, carrier string, edge geom.Path, m geom.Affine, through bool) []Line {
	var out []Line
	for i := range f.Items {
		it := &f.Items[i]
		if it.On != carrier || it.Role == "" || it.Role == fold.Guide {
			continue
		}
		path, role := it.Outline.Transform(it.At), it.Role
		if in, outside := geom.CutStrokes(path, geom.NonZero, edge); !outside.Empty() {
			path = in
		}
		if through {
			role = fold.Flipped(role)
		}
		if !path.Empty() {
			out = append(out, Line{role, path.Transform(m)})
		}
	}
	return out
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
	for _, group := range out {
		slices.SortStableFunc(group, func(a, b loose) int {
			return -cmp.Compare(max(a.outline.W, a.outline.H), max(b.outline.W, b.outline.H))
		})
	}
	return out
}

// areas are the rectangles that pieces may lie in: the printable one or, with
// marks in its corners, one that leaves out the strips at the sides and one
// that leaves out the strips at top and bottom.
func areas(opt Options, marked bool) []geom.Rect {
	r := geom.Rect{W: opt.Size.Width, H: opt.Size.Height}.Grow(-opt.Margin)
	if !marked {
		return []geom.Rect{r}
	}
	return []geom.Rect{
		{X: r.X, Y: r.Y + markRoom, W: r.W, H: r.H - 2*markRoom},
		{X: r.X + markRoom, Y: r.Y, W: r.W - 2*markRoom, H: r.H},
	}
}

// fill lays as much as it can on the sheet and returns the rest.
func (sh *Sheet) fill(group []loose, opt Options, printed bool) []loose {
	var best []Piece
	var rest []loose
	bestArea, bestWay := 0.0, 0
	for way, area := range areas(opt, printed) {
		laid, left := rows(group, area, opt.Between)
		sum := 0.0
		for _, p := range laid {
			sum += p.Area
		}
		if sum > bestArea || best == nil {
			best, rest, bestArea, bestWay = laid, left, sum, way
		}
	}
	sh.Pieces = best
	for _, p := range best {
		// A sheet that is printed on its other side alone still needs its marks
		// on the side that the machine looks at.
		sh.Printed = sh.Printed || p.inked()
		sh.TwoSided = sh.TwoSided || len(p.Reverse) > 0
	}
	sh.Marks = []Mark{}
	if sh.Printed {
		sh.Marks = marks(opt, bestWay == 1)
	}
	return rest
}

// marks puts four marks into the corners of the printable area. The second dot
// of the first lies within the strip that was kept clear.
func marks(opt Options, atSides bool) []Mark {
	r := geom.Rect{W: opt.Size.Width, H: opt.Size.Height}.Grow(-opt.Margin - MarkRing - .5)
	second := geom.Pt(r.X+markSecond, r.Y)
	if atSides {
		second = geom.Pt(r.X, r.Y+markSecond)
	}
	return []Mark{
		{At: geom.Pt(r.X, r.Y), Second: &second}, {At: geom.Pt(r.Right(), r.Y)},
		{At: geom.Pt(r.X, r.Bottom())}, {At: geom.Pt(r.Right(), r.Bottom())},
	}
}

// rows lays pieces in rows from the top, each in the first row with room, the
// flatter way round if it fits ("first fit decreasing height": Coffman, Garey,
// Johnson and Tarjan, 1980).
func rows(group []loose, area geom.Rect, between float64) (laid []Piece, rest []loose) {
	type row struct{ y, h, x float64 }
	var lines []row
	bottom := area.Y
	for _, l := range group {
		placed := false
		for _, turned := range preferred(l.outline) {
			w, h := l.outline.W, l.outline.H
			if turned {
				w, h = h, w
			}
			for i := range lines {
				r := &lines[i]
				if h <= r.h+1e-9 && r.x+w <= area.Right()+1e-9 {
					laid = append(laid, l.at(r.x, r.y, turned))
					r.x += w + between
					placed = true
					break
				}
			}
			if !placed && w <= area.W+1e-9 && bottom+h <= area.Bottom()+1e-9 {
				laid = append(laid, l.at(area.X, bottom, turned))
				lines = append(lines, row{bottom, h, area.X + w + between})
				bottom += h + between
				placed = true
			}
			if placed {
				break
			}
		}
		if !placed {
			rest = append(rest, l)
		}
	}
	return laid, rest
}

// preferred is the order in which the two ways round are tried.
func preferred(r geom.Rect) []bool {
	if r.H > r.W {
		return []bool{true, false}
	}
	return []bool{false, true}
}

// at is the piece with the upper left corner of its box at (x, y).
func (l loose) at(x, y float64, turned bool) Piece {
	m := geom.Shift(-l.outline.X, -l.outline.Y)
	w, h := l.outline.W, l.outline.H
	if turned {
		m = m.Then(geom.Affine{B: 1, C: -1, E: h})
		w, h = h, w
	}
	m = m.Then(geom.Shift(x, y))
	p := l.Piece
	p.At = l.At.Then(m)
	p.Box = geom.Rect{X: x, Y: y, W: w, H: h}
	p.Lines = make([]Line, len(l.Lines))
	for i, line := range l.Lines {
		p.Lines[i] = Line{line.Role, line.Path.Transform(m)}
	}
	p.Inks, p.Reverse = scene.Transform(l.Inks, m), scene.Transform(l.Reverse, m)
	return p
}

func tooLarge(l loose, opt Options, printed bool) Problem {
	over := math.Inf(1)
	for _, a := range areas(opt, printed) {
		for _, turned := range []bool{false, true} {
			w, h := l.outline.W, l.outline.H
			if turned {
				w, h = h, w
			}
			over = min(over, max(w-a.W, h-a.H))
		}
	}
	return Problem{l.ID, l.Name, fmt.Sprintf(
		"“%s” is %s (%s) and %s (%s) too large for %s with its margins. Use a larger sheet or make it smaller.",
		l.Name, measure.FormatSize(l.outline.W, l.outline.H, measure.In), measure.FormatSize(l.outline.W, l.outline.H, measure.MM),
		measure.FormatUnit(over, measure.In), measure.FormatUnit(over, measure.MM), opt.Size.Name)}
}

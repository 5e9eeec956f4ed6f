package arrange

import (
	"math"

	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/document/pattern"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/edging"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
	"sectilis/core/ground/shape"
)

// SupplyKind is a kind of supply that becomes one item.
type SupplyKind string

// The kinds of supplies that become one item.
const (
	PhotoSupply     SupplyKind = "photo"
	PaperSupply     SupplyKind = "paper"
	ShapeSupply     SupplyKind = "shape"
	LetteringSupply SupplyKind = "lettering"
	EdgingSupply    SupplyKind = "edging" // a strip of it
)

// SampleWords are what lettering says until a person has written in it.
const SampleWords = "Your words"

// SupplyKinds lists the kinds of supplies that become one item.
func SupplyKinds() []SupplyKind {
	return []SupplyKind{PhotoSupply, PaperSupply, ShapeSupply, LetteringSupply, EdgingSupply}
}

// PlaceSupply lays a supply on a face at a size that one can work with, and straightens it:
// what nearly fills the face goes to its middle, other things to middles and edges near by.
type PlaceSupply struct {
	Face card.FaceID `json:"face"`
	Kind SupplyKind  `json:"kind"`
	ID   string      `json:"id"` // of the picture, paper, shape or font
	// Name is the name of the item; empty for that in the catalogue.
	Name string `json:"name,omitempty"`
	// PixelWidth and PixelHeight are the size of a picture, upright.
	PixelWidth  int `json:"pixelWidth,omitempty"`
	PixelHeight int `json:"pixelHeight,omitempty"`
	// Edge is the outline, in pixels, that a picture is cut round, with the first rim of paper;
	// nil lays all of it.
	Edge *card.Drawn `json:"edge,omitempty"`
	// At is where its middle is wanted, mm on the face; nil for the middle of the face.
	At *geom.Point `json:"at,omitempty"`
	// Stock is what a shape is cut of, and Colour what words are printed in; empty for how
	// new ones begin.
	Stock  string `json:"stock,omitempty"`
	Colour string `json:"colour,omitempty"`
	// Along turns it as the piece is turned that it is placed on.
	Along bool `json:"along,omitempty"`
}

// Label implements card.Command.
func (k PlaceSupply) Label() string { return "Place " + string(k.Kind) }

// Apply implements card.Command. It refuses supplies that the catalogue does not have.
func (k PlaceSupply) Apply(c card.Card) (card.Card, error) {
	nf := fold.StudyOf(c.Base).Net.Face(k.Face)
	if nf.ID == "" {
		return c, card.Refuse("face", "There is no face “%s”.", k.Face)
	}
	it, err := k.item(nf.Width, nf.Height)
	if err != nil {
		return c, err
	}
	if k.Name != "" {
		it.Name = k.Name
	}
	at := geom.Pt(nf.Width/2, nf.Height/2)
	if k.At != nil {
		at = *k.At
	}
	if w, h, ok := it.Size(); ok {
		at = settled(at, w, h, nf)
	}
	it.Place = card.Place{X: at.X, Y: at.Y}
	return card.PlaceItems{Face: k.Face, Items: []card.Item{it}, Along: k.Along}.Apply(c)
}

// item is the supply as an item for a face of a size, not yet placed.
func (k PlaceSupply) item(w, h float64) (card.Item, error) {
	first := card.First()
	cut := func(stock string, bleed float64) card.Made {
		return card.Made{As: card.Cut, Stock: stock, Bleed: bleed}
	}
	switch k.Kind {
	case PhotoSupply:
		if k.PixelWidth < 1 || k.PixelHeight < 1 {
			return card.Item{}, card.Refuse("pixelWidth", "A picture has a width and a height in pixels.")
		}
		pw, ph := float64(k.PixelWidth), float64(k.PixelHeight)
		scale := min(photoSide/max(pw, ph), w*photoShare/pw, h*photoShare/ph)
		it := card.Item{Name: "Photo", Kind: card.Photo, Made: cut(first.Photo, first.Bleed), Photo: &card.Print{Picture: k.ID,
			PixelWidth: k.PixelWidth, PixelHeight: k.PixelHeight, Width: max(pw*scale, 1), Height: max(ph*scale, 1)}}
		if k.Edge != nil {
			return it, scene.CutRound(&it, k.Edge, card.FirstRim())
		}
		return it, nil
	case PaperSupply:
		p, ok := pattern.ByID(k.ID)
		if !ok {
			return card.Item{}, card.Refuse("id", "There is no paper “%s”.", k.ID)
		}
		return card.Item{Name: p.Name, Kind: card.Paper, Made: cut(first.Paper, first.Bleed), Fill: card.Fill{Paper: p.ID},
			Form: &card.Form{Outline: card.Rectangle, Corner: card.Square, Width: layer(w), Height: layer(h)}}, nil
	case ShapeSupply:
		r, ok := shape.ByID(k.ID)
		if !ok {
			return card.Item{}, card.Refuse("id", "There is no shape “%s”.", k.ID)
		}
		stock := k.Stock
		if stock == "" {
			stock = first.Piece
		}
		scale := min(1, w*shapeShare/r.Width, h*shapeShare/r.Height)
		return card.Item{Name: r.Name, Kind: card.Shape, Made: cut(stock, 0), Form: &card.Form{Outline: r.Outline, Corner: r.Corner,
			Radius: r.Radius * scale, Width: r.Width * scale, Height: r.Height * scale}}, nil
	case EdgingSupply:
		return strip(k.ID, k.Stock, w)
	case LetteringSupply:
		if !lettering.Known(k.ID) {
			return card.Item{}, card.Refuse("id", "There is no face of type “%s”.", k.ID)
		}
		colour := k.Colour
		if colour == "" {
			colour = first.Ink
		}
		return card.Item{Name: "Words", Kind: card.Lettering, Made: card.Made{As: card.Printed}, Fill: card.Fill{Colour: colour},
			Words: &card.Words{Text: SampleWords, Font: k.ID, Size: sixteenth(min(wordsSize, w/9)), Leading: 1.25, Align: card.AlignCentre}}, nil
	}
	return card.Item{}, card.Refuse("kind", "There are no supplies of the kind “%s”.", k.Kind)
}

// strip is a length of edging for a face of a width.
func strip(motif, stock string, w float64) (card.Item, error) {
	m, ok := edging.ByID(motif)
	if !ok {
		return card.Item{}, card.Refuse("id", "There is no edging “%s”.", motif)
	}
	if stock == "" {
		stock = card.First().Piece
	}
	return card.Item{Name: m.Name, Kind: card.Shape, Made: card.Made{As: card.Cut, Stock: stock}, Edging: &edging.Edging{Motif: m.ID, Depth: card.FirstDepth, Side: edging.Top},
		Form: &card.Form{Outline: card.Rectangle, Corner: card.Square, Width: card.Tidy(w * shapeShare), Height: stripHigh}}, nil
}

// First sizes, mm and shares of the face.
const (
	photoSide  = 4 * measure.Inch // of the longer side
	photoShare = .8
	shapeShare = .85
	stripHigh  = 5
	wordsSize  = 11 // of the em
)

// layer is a side of a paper that lies on a face: a quarter of an inch shorter at both ends,
// or half of a short side.
func layer(side float64) float64 {
	return max(sixteenth(side-measure.Inch/2), sixteenth(side/2), 1)
}

// sixteenth rounds to a sixteenth of an inch, as people would have measured it.
func sixteenth(mm float64) float64 {
	return math.Round(mm/measure.Inch*16) / 16 * measure.Inch
}

// settleReach is how near, in mm, something is drawn to a middle or an edge.
const settleReach = 4

// settled is where the middle of what is w by h goes that is placed at a point.
func settled(at geom.Point, w, h float64, f fold.Face) geom.Point {
	if w > f.Width*.75 && h > f.Height*.75 {
		return geom.Pt(f.Width/2, f.Height/2)
	}
	safe := scene.SafeArea(f)
	near := func(v, size, from, to float64) float64 {
		best := math.Inf(1)
		for _, line := range []float64{0, (from + to) / 2, from + to, from, to} {
			for _, own := range []float64{v - size/2, v, v + size/2} {
				if d := line - own; math.Abs(d) < math.Abs(best) {
					best = d
				}
			}
		}
		if math.Abs(best) > settleReach {
			return v
		}
		return v + best
	}
	return geom.Pt(near(at.X, w, safe.X, safe.Right()), near(at.Y, h, safe.Y, safe.Bottom()))
}

// PlaceSketch lays the items of a sketch on a face: as they were laid on a face of Width by
// Height mm, or evenly larger or smaller about the middle on a face of another size.
type PlaceSketch struct {
	Face   card.FaceID  `json:"face"`
	Width  float64      `json:"width"`
	Height float64      `json:"height"`
	Items  []card.Item  `json:"items"`
	Groups []card.Group `json:"groups,omitempty"`
}

// Label implements card.Command.
func (PlaceSketch) Label() string { return "Place a sketch" }

// Apply implements card.Command.
func (k PlaceSketch) Apply(c card.Card) (card.Card, error) {
	nf := fold.StudyOf(c.Base).Net.Face(k.Face)
	if nf.ID == "" {
		return c, card.Refuse("face", "There is no face “%s”.", k.Face)
	}
	if !(k.Width > 0 && k.Height > 0) || math.IsInf(k.Width, 0) || math.IsInf(k.Height, 0) {
		return c, card.Refuse("width", "A sketch was laid on a face that has a width and a height.")
	}
	scale := min(nf.Width/k.Width, nf.Height/k.Height)
	if math.Abs(scale-1) < .001 {
		scale = 1
	}
	items := make([]card.Item, len(k.Items))
	for i, it := range k.Items {
		it = it.Clone()
		it.Scale(scale, scale)
		it.Place.X = card.Tidy(nf.Width/2 + (it.Place.X-k.Width/2)*scale)
		it.Place.Y = card.Tidy(nf.Height/2 + (it.Place.Y-k.Height/2)*scale)
		items[i] = it
	}
	return card.PlaceItems{Face: k.Face, Items: items, Groups: k.Groups}.Apply(c)
}

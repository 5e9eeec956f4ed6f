package scene

import (
	"math"

	"sectilis/core/document/card"
	"sectilis/core/document/mat"
	"sectilis/core/document/pattern"
	"sectilis/core/ground/gamut"
	"sectilis/core/ground/geom"
)

// Ink is one thing to print: a region filled with a colour, a paper, a gradient
// or a picture, and clipped to every one of Clips. All is in the coordinates the
// inks were asked for; regions are filled by the non-zero rule.
type Ink struct {
	Region geom.Path
	Clips  []geom.Path
	Colour string
	Paper  *pattern.Paper
	// PaperAt maps the pattern's coordinates to the target's.
	PaperAt geom.Affine
	Picture string
	// PictureAt maps the upright picture's unit square, v down, to the target.
	PictureAt geom.Affine
	Gradient  *card.Gradient
	// GradientAt maps the unit square that the gradient's ends are in.
	GradientAt geom.Affine
	Tint       *card.Tint
	// Clear is the share of what lies below that shows through.
	Clear float64
	// Blur is the standard deviation of the region's softness, mm.
	Blur float64
	Fade *Fade
	// Laid are inks that are printed on the stock that this ink shows, from below, in the same
	// coordinates: of each no more is seen than the stock gives back (gamut.OnStock).
	Laid []Ink
}

// Fade makes ink weaker along a way: all of it at From and before, none at To
// and beyond.
type Fade struct{ From, To geom.Point }

// Plain says that the ink is a sharp region of one strength, which every
// format can say.
func (k Ink) Plain() bool {
	return k.Gradient == nil && k.Tint == nil && k.Blur == 0 && k.Fade == nil && k.Laid == nil
}

// transform maps the ink by m.
func (k Ink) transform(m geom.Affine) Ink {
	k.Region = k.Region.Transform(m)
	clips := make([]geom.Path, len(k.Clips))
	for i, c := range k.Clips {
		clips[i] = c.Transform(m)
	}
	k.Clips = clips
	k.PaperAt, k.PictureAt, k.GradientAt = k.PaperAt.Then(m), k.PictureAt.Then(m), k.GradientAt.Then(m)
	k.Blur *= math.Sqrt(math.Abs(m.Det()))
	if k.Fade != nil {
		k.Fade = &Fade{m.Apply(k.Fade.From), m.Apply(k.Fade.To)}
	}
	if k.Laid != nil {
		k.Laid = Transform(k.Laid, m)
	}
	return k
}

// Reach is the box of what inks cover.
func Reach(inks []Ink) (box geom.Rect) {
	begun := false
	for _, k := range inks {
		b := k.Region.Bounds()
		for _, c := range k.Clips {
			b = b.Intersect(c.Bounds())
		}
		switch {
		case b.W <= 0 || b.H <= 0:
		case begun:
			box = box.Union(b)
		default:
			box, begun = b, true
		}
	}
	return box
}

// Transform maps inks by m.
func Transform(inks []Ink, m geom.Affine) []Ink {
	out := make([]Ink, len(inks))
	for i, k := range inks {
		out[i] = k.transform(m)
	}
	return out
}

// own are the inks of the item itself, in face coordinates: its shadow, its
// fill, its raised edge and line, and its reflection.
func (it *Item) own(clips ...geom.Path) []Ink {
	if it.Role != "" || it.Joined != "" {
		return nil // a line is worked, an outline is cut
	}
	var out []Ink
	wash := func(ws []Wash) {
		for _, w := range ws {
			k := Ink{Region: w.Path, Colour: w.Colour, Clear: 1 - w.Opacity*(1-it.Clear), Blur: w.Blur}
			if w.Inside {
				k.Clips = []geom.Path{mat.Bleed(it.Outline, it.Bleed)}
			}
			out = append(out, k)
		}
	}
	wash(it.Under)
	if k, ok := it.fill(); ok {
		out = append(out, k)
	}
	for _, p := range it.Parts {
		out = append(out, Ink{Region: mat.Bleed(p.Path, it.Bleed), Colour: p.Colour, Clear: it.Clear})
	}
	wash(it.Over)
	if r := it.Reflection; r != nil {
		for _, k := range out[len(it.Under):] {
			k = k.transform(r.At)
			k.Clear = 1 - (1-k.Clear)*r.Opacity
			k.Fade = &Fade{r.From, r.To}
			out = append(out, k)
		}
	}
	if it.Clip != nil {
		clips = append(append([]geom.Path(nil), clips...), it.Clip.Transform(it.At))
	}
	for i, k := range out {
		k = k.transform(it.At)
		k.Clips = append(k.Clips, clips...)
		out[i] = k
	}
	return out
}

// fill is the ink that fills the outline and its bleed, in the item's
// coordinates; ok is false when there is none.
func (it *Item) fill() (k Ink, ok bool) {
	region := it.Outline
	if it.Rest != nil {
		region = *it.Rest
	}
	k = Ink{Region: mat.Bleed(region, it.Bleed), Clear: it.Clear}
	switch {
	case it.Picture != nil:
		b := it.Picture.Box
		k.Picture, k.Tint = it.Picture.ID, it.Tint
		k.PictureAt = geom.Scale(b.W, b.H).Then(geom.Shift(b.X, b.Y))
		if !b.Contains(k.Region.Bounds(), 1e-6) {
			// A picture that fits leaves the rest of its opening as it is.
			k.Clips = []geom.Path{geom.RectPath(b)}
		}
	case it.Fill.Paper != "":
		p, known := pattern.ByID(it.Fill.Paper)
		if !known {
			return k, false
		}
		k.Paper, k.PaperAt = &p, *it.PatternAt
	case it.Fill.Gradient != nil:
		b := it.Box
		k.Gradient, k.GradientAt = it.Fill.Gradient, geom.Scale(b.W, b.H).Then(geom.Shift(b.X, b.Y))
	case it.Fill.Colour != "":
		k.Colour = it.Fill.Colour
	default:
		return k, false
	}
	return k, true
}

// BaseInks is what is printed on the base itself on this face, in face
// coordinates, clipped to the face.
func (f *Face) BaseInks() []Ink {
	return f.inksOn("", f.Shape)
}

// BaseInksWithin is BaseInks clipped elsewhere: past the edge of the face where the base
// ends there.
func (f *Face) BaseInksWithin(clip geom.Path) []Ink { return f.inksOn("", clip) }

func (f *Face) inksOn(carrier string, clip geom.Path) []Ink {
	var out []Ink
	for i := range f.Items {
		if it := &f.Items[i]; it.On == carrier && !it.Piece {
			out = append(out, it.own(clip)...)
		}
	}
	return out
}

// PieceInks is what is printed on a piece: its own ink with bleed, and the ink
// on it, which ends where the piece does, in face coordinates.
func (f *Face) PieceInks(it *Item) []Ink {
	clip := mat.Bleed(it.Outline, it.Bleed).Transform(it.At)
	return append(it.own(), f.inksOn(it.ID, clip)...)
}

// Stocked is bare stock over a region: its colour, or the paper that it is printed with, which at maps to
// where the region is.
func Stocked(region geom.Path, s card.Stock, at geom.Affine) Ink {
	return bare(region, s.Colour, s.Pattern, at)
}

func bare(region geom.Path, colour, paper string, at geom.Affine) Ink {
	k := Ink{Region: region, Colour: colour}
	if p, ok := pattern.ByID(paper); ok {
		k.Paper, k.PaperAt = &p, at
	}
	return k
}

// Bare is the stock of a piece without its ink, on its face.
func (it *Item) Bare() Ink {
	at := geom.Identity
	if it.GroundAt != nil {
		at = it.GroundAt.Then(it.At)
	}
	return bare(it.Outline.Transform(it.At), it.Ground, it.GroundPaper, at)
}

// Plain says that a stock of a colour, with a pattern if it is bought so, gives back all of any ink.
func Plain(colour, pattern string) bool { return pattern == "" && gamut.White(colour) }

// Printed is stock with what is printed on it, as it is seen: inks end where the stock does.
func Printed(stock Ink, inks []Ink) []Ink {
	if len(inks) == 0 {
		return []Ink{stock}
	}
	laid := make([]Ink, len(inks))
	for i, k := range inks {
		k.Clips = append([]geom.Path{stock.Region}, k.Clips...)
		laid[i] = k
	}
	if stock.Paper == nil && Plain(stock.Colour, "") {
		return append([]Ink{stock}, laid...) // it gives back all of any ink
	}
	stock.Laid = laid
	return []Ink{stock}
}

// BaseSeen is the base on this face, of a stock, with what is printed on it, in face coordinates.
func (f *Face) BaseSeen(stock card.Stock) []Ink {
	return Printed(Stocked(f.Shape, stock, geom.Identity), f.BaseInks())
}

// PieceSeen is a piece of the face with what is printed on it, in face coordinates.
func (f *Face) PieceSeen(it *Item) []Ink { return Printed(it.Bare(), f.PieceInks(it)) }

// Look is the whole face as it is seen, the base's stock first, in face
// coordinates.
func (s *Scene) Look(f *Face, base card.Base) []Ink {
	stock, _ := card.StockByID(base.Stock)
	return append(f.BaseSeen(stock), f.piecesSeen()...)
}

// LookOff is the whole face as it is seen where the base is left out: its ink as it is on white.
func (s *Scene) LookOff(f *Face) []Ink { return append(f.BaseInks(), f.piecesSeen()...) }

func (f *Face) piecesSeen() (out []Ink) {
	for i := range f.Items {
		if it := &f.Items[i]; it.Piece {
			out = append(out, f.PieceSeen(it)...)
		}
	}
	return out
}

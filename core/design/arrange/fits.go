package arrange

import (
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
)

// Area is a part of a face that something can be made to fit.
type Area string

// The areas that something can fit.
const (
	FaceArea  Area = "face"  // the face that it lies on
	PieceArea Area = "piece" // the piece that carries it
	GapArea   Area = "gap"   // what is free about its middle
)

// Fit is a size that something can be given: an area less a margin all round, mm.
type Fit struct {
	Area Area      `json:"area"`
	Name string    `json:"name"` // of the face or the piece
	Less float64   `json:"less"`
	Box  geom.Rect `json:"box"`
}

// fitMargins are the margins that are offered, mm: none, and those that layered papers
// usually leave.
var fitMargins = []float64{0, measure.Inch / 8, measure.Inch / 4}

// leastFit is the least size that is offered, mm.
const leastFit = 3

// Fits are the sizes that an item can be given on its face, the face first; none for what
// is turned aslant, since no upright area is its own.
func Fits(f *scene.Face, id string) []Fit {
	i := slices.IndexFunc(f.Items, func(it scene.Item) bool { return it.ID == id })
	if i < 0 || !upright(f.Items[i].Turn) {
		return nil
	}
	it := &f.Items[i]
	var out []Fit
	offer := func(area Area, name string, box geom.Rect, margins []float64) {
		for _, m := range margins {
			if b := box.Grow(-m); min(b.W, b.H) >= leastFit {
				out = append(out, Fit{area, name, m, b})
			}
		}
	}
	offer(FaceArea, f.Name, geom.Rect{W: f.Width, H: f.Height}, fitMargins)
	if on := carrierOf(f, it); on != nil {
		offer(PieceArea, on.Name, on.Bounds, fitMargins)
	}
	if gap, ok := gapWithout(f, it); ok {
		offer(GapArea, "", gap.Rect, fitMargins[:2])
	}
	return out
}

// carrierOf is the piece under an item and its own mats; nil for the base.
func carrierOf(f *scene.Face, it *scene.Item) *scene.Item {
	on := it.On
	for range f.Items {
		i := slices.IndexFunc(f.Items, func(o scene.Item) bool { return o.ID == on })
		if i < 0 {
			return nil
		}
		if o := &f.Items[i]; o.Kind != card.Mat || !slices.Contains(it.With, o.ID) {
			return o
		}
		on = f.Items[i].On
	}
	return nil
}

// gapWithout is the room about the middle of an item, were it not there.
func gapWithout(f *scene.Face, it *scene.Item) (Gap, bool) {
	rest := *f
	rest.Items = slices.DeleteFunc(slices.Clone(f.Items), func(o scene.Item) bool {
		return o.ID == it.ID || slices.Contains(it.With, o.ID)
	})
	return GapAt(&rest, it.Bounds.Centre())
}

// FitTo makes an item as large as an area of its face less a margin, and lays it in its
// middle. What keeps its proportions becomes as large as fits.
type FitTo struct {
	ID   string  `json:"id"`
	Area Area    `json:"area"`
	Less float64 `json:"less"`
}

// Label implements card.Command.
func (FitTo) Label() string { return "Fit" }

// Apply implements card.Command.
func (k FitTo) Apply(c card.Card) (card.Card, error) {
	s, err := scene.Of(c)
	if err != nil {
		return c, err
	}
	return card.OnFace(c, []string{k.ID}, func(_ *card.Card, f *card.Face) error {
		at := s.Face(f.ID)
		if at == nil {
			return card.Refuse("id", "The face of “%s” is not there now.", f.Item(k.ID).Name)
		}
		fits := Fits(at, k.ID)
		i := slices.IndexFunc(fits, func(o Fit) bool { return o.Area == k.Area && math.Abs(o.Less-k.Less) < 1e-6 })
		if i < 0 {
			return card.Refuse("area", "“%s” cannot be made that large: there is no such room, or it does not stand upright.", f.Item(k.ID).Name)
		}
		return into(f, k.ID, fits[i].Box, true, true)
	})
}

package check

import (
	"image"
	"image/color"
	"math"
	"slices"

	"github.com/lucasb-eyer/go-colorful"
	"golang.org/x/image/vector"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/gamut"
	"sectilis/core/ground/geom"
)

// Words are read against the worst tenth of what lies round their strokes: by how much lighter one
// is than the other (WCAG 2.2, contrast ratio), at least 4.5 to 1, of large letters 3 to 1.
const (
	leastRatio, leastLarge = 4.5, 3.0
	largeLetters           = 14 * point
	worstShare             = .1
	roundStrokes           = .5 // mm
	contrastPerMM          = 4.0
)

// contrast finds words that are hard to tell from what lies under them.
func contrast(in *Input) (out []Finding) {
	in.each(func(f *scene.Face, it *scene.Item, doc *card.Item) {
		if in.Seen == nil || doc.Words == nil || it.Words == nil || it.Joined != "" || it.Outline.Empty() {
			return
		}
		least := leastRatio
		if it.Words.Size >= largeLetters {
			least = leastLarge
		}
		on := ground{in.round(f, it), in.groundOf(f, it, doc)}
		if len(on.lights) == 0 {
			return
		}
		worst, ink := math.Inf(1), ""
		for _, c := range inks(it) {
			if r := on.ratio(c); r < worst {
				worst, ink = r, c
			}
		}
		if worst >= least-.05 || ink == "" {
			return
		}
		out = append(out, of(Caution, f, it, 0, readable(it, doc, on, ink, least),
			"is hard to read: in places it is only %.1f to 1 against what lies under it; %.1f to 1 is the least for letters of that size.", worst, least))
	})
	return out
}

// inks are the colours of words, or of the stock that they are cut from.
func inks(it *scene.Item) (out []string) {
	if it.Piece && it.Fill == (card.Fill{}) {
		return []string{it.Ground}
	}
	for _, p := range it.Parts {
		if p.Colour != "" {
			out = append(out, p.Colour)
		}
	}
	if it.Fill.Colour != "" && (it.Rest == nil || !it.Rest.Empty()) {
		out = append(out, it.Fill.Colour)
	}
	return out
}

// round are the luminances of the pixels round the strokes of words, in order.
func (in *Input) round(f *scene.Face, it *scene.Item) []float64 {
	box := it.Bounds.Grow(2 * roundStrokes)
	img := in.Seen(f, box, it.ID, contrastPerMM)
	if img == nil {
		return nil
	}
	w, h := img.Bounds().Dx(), img.Bounds().Dy()
	strokes := covered(it.Outline.Transform(it.At).Transform(geom.Shift(-box.X, -box.Y)), w, h)
	reach := int(roundStrokes * contrastPerMM)
	var out []float64
	for y := range h {
		for x := range w {
			if strokes.AlphaAt(x, y).A > 127 || !near(strokes, x, y, reach) {
				continue
			}
			out = append(out, lightOf(img.At(img.Bounds().Min.X+x, img.Bounds().Min.Y+y)))
		}
	}
	slices.Sort(out)
	return out
}

// covered is what an outline, in mm, covers of a picture of a size.
func covered(p geom.Path, w, h int) *image.Alpha {
	out := image.NewAlpha(image.Rect(0, 0, w, h))
	r := vector.NewRasterizer(w, h)
	for _, l := range p.Flatten(.05) {
		for i, q := range l.Points {
			x, y := float32(q.X*contrastPerMM), float32(q.Y*contrastPerMM)
			if i == 0 {
				r.MoveTo(x, y)
			} else {
				r.LineTo(x, y)
			}
		}
		r.ClosePath()
	}
	r.Draw(out, out.Rect, image.Opaque, image.Point{})
	return out
}

// near reports whether a stroke is within reach of a pixel.
func near(strokes *image.Alpha, x, y, reach int) bool {
	for v := y - reach; v <= y+reach; v++ {
		for u := x - reach; u <= x+reach; u++ {
			if (u-x)*(u-x)+(v-y)*(v-y) <= reach*reach && image.Pt(u, v).In(strokes.Rect) && strokes.AlphaAt(u, v).A > 127 {
				return true
			}
		}
	}
	return false
}

// lightOf is the relative luminance of a colour.
func lightOf(c color.Color) float64 {
	r, g, b, _ := c.RGBA()
	x, y, z := colorful.Color{R: float64(r) / 65535, G: float64(g) / 65535, B: float64(b) / 65535}.LinearRgb()
	return .2126*x + .7152*y + .0722*z
}

// ground is what words are read against: the luminances round their strokes, in order, and the colour,
// #rrggbb, of the stock that they are printed on, which shows through every ink.
type ground struct {
	lights []float64
	stock  string
}

// groundOf is the colour of the stock that an item is printed on; white for a piece that is cut bare,
// whose colour is that of its stock already.
func (in *Input) groundOf(f *scene.Face, it *scene.Item, doc *card.Item) string {
	if it.Piece && it.Fill == (card.Fill{}) {
		return "#ffffff"
	}
	s, _ := card.StockByID(scene.StockUnder(in.Card.Face(f.ID), doc, in.Card.Base.Stock))
	return s.Colour
}

// ratio is the contrast of an ink on the stock with the worst tenth of the luminances.
func (g ground) ratio(ink string) float64 {
	return worstRatio(g.lights, gamut.HexOnStock(ink, g.stock))
}

// worstRatio is the contrast of a colour with the worst tenth of luminances, which are in order.
func worstRatio(lights []float64, ink string) float64 {
	c, err := colorful.Hex(ink)
	if err != nil {
		return math.Inf(1)
	}
	l := lightOf(c)
	ratios := make([]float64, len(lights))
	for i, v := range lights {
		ratios[i] = (max(l, v) + .05) / (min(l, v) + .05)
	}
	slices.Sort(ratios)
	return ratios[int(worstShare*float64(len(ratios)))]
}

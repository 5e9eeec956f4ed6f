package edging

import (
	"math/rand/v2"

	"sectilis/core/ground/geom"
)

// Motif is one repeat of an edging: its profile from left to right over a length of 1, y from 0 on the
// edge to 1 at its full depth, and holes in it.
type Motif struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	// Ratio is how long a repeat is for its depth, until that is set.
	Ratio float64 `json:"ratio"`
	// Preview is a stretch of it above a strip, within PreviewWidth and PreviewHeight from 0.
	Preview geom.Path `json:"preview"`
	// Own says that a person has made it, and Hidden that it is not offered any more.
	Own    bool `json:"own,omitempty"`
	Hidden bool `json:"hidden,omitempty"`

	// foot is how high the profile begins and ends.
	foot  float64
	draw  func(b *geom.Builder, r *rand.Rand)
	holes func() []geom.Path
}

func pt(x, y float64) geom.Point { return geom.Pt(x, y) }

// lines draws a profile of straight sides.
func lines(pts ...float64) func(*geom.Builder, *rand.Rand) {
	return func(b *geom.Builder, _ *rand.Rand) {
		for i := 0; i < len(pts); i += 2 {
			b.Line(pt(pts[i], pts[i+1]))
		}
	}
}

// cubics draws a profile of curves, six numbers each.
func cubics(pts ...float64) func(*geom.Builder, *rand.Rand) {
	return func(b *geom.Builder, _ *rand.Rand) {
		for i := 0; i < len(pts); i += 6 {
			b.Cubic(pt(pts[i], pts[i+1]), pt(pts[i+2], pts[i+3]), pt(pts[i+4], pts[i+5]))
		}
	}
}

// bump is half an ellipse over a stretch of the profile, on a level, up to 1; below goes down to 0.
func bump(from, to, level, high float64) func(*geom.Builder, *rand.Rand) {
	return func(b *geom.Builder, _ *rand.Rand) {
		k := 4. / 3 * .41421356237 // a quarter of an ellipse as a cubic
		mid, rx, ry := (from+to)/2, (to-from)/2, high-level
		b.Line(pt(from, level))
		b.Cubic(pt(from, level+k*ry), pt(mid-k*rx, high), pt(mid, high))
		b.Cubic(pt(mid+k*rx, high), pt(to, level+k*ry), pt(to, level))
		b.Line(pt(1, level))
	}
}

func round(x, y, rx, ry float64) geom.Path {
	return geom.EllipsePath(geom.Rect{X: x - rx, Y: y - ry, W: 2 * rx, H: 2 * ry})
}

// deckle is a torn edge: heights follow from the seed.
func deckle(b *geom.Builder, r *rand.Rand) {
	const n = 7
	top := 1 + r.IntN(n-1)
	last := pt(0, .4)
	for i := 1; i <= n; i++ {
		q := pt((float64(i)+.5*(r.Float64()-.5))/n, .12+.8*r.Float64())
		switch i {
		case top:
			q.Y = 1
		case n:
			q = pt(1, .4)
		}
		third := (q.X - last.X) / 3
		b.Cubic(pt(last.X+third, last.Y), pt(q.X-third, q.Y), q)
		last = q
	}
}

// motifs is the catalogue in the order it is offered. A new one is an entry here.
var motifs = []Motif{
	{ID: "scallop", Name: "Scallop", Ratio: 2, draw: bump(0, 1, 0, 1)},
	{ID: "pinking", Name: "Pinking", Ratio: 1.2, draw: lines(.5, 1, 1, 0)},
	{ID: "wave", Name: "Wave", Ratio: 2.6, draw: cubics(.18, 0, .32, 1, .5, 1, .68, 1, .82, 0, 1, 0)},
	{ID: "picot", Name: "Picot", Ratio: 2.2, draw: bump(.28, .72, 0, 1)},
	{ID: "petal", Name: "Petals", Ratio: 1.3, draw: cubics(0, .6, .35, .75, .5, 1, .65, .75, 1, .6, 1, 0)},
	{ID: "leaf", Name: "Leaf run", Ratio: 1.9, foot: .1, draw: cubics(0, .7, .35, 1, .7, 1, .9, 1, .98, .6, .84, .34, .9, .3, .96, .2, 1, .1)},
	{ID: "bunting", Name: "Bunting", Ratio: 1.3, foot: .2, draw: lines(.08, .2, .5, 1, .92, .2, 1, .2)},
	{ID: "ricrac", Name: "Ric-rac", Ratio: 1.6, draw: cubics(.32, 0, .18, 1, .5, 1, .82, 1, .68, 0, 1, 0)},
	{ID: "brick", Name: "Brick", Ratio: 1.6, draw: lines(.25, 0, .25, 1, .75, 1, .75, 0, 1, 0)},
	{ID: "step", Name: "Steps", Ratio: 2.2, draw: lines(.17, 0, .17, .5, .34, .5, .34, 1, .66, 1, .66, .5, .83, .5, .83, 0, 1, 0)},
	{ID: "fence", Name: "Fence", Ratio: .9, foot: .3, draw: lines(.18, .3, .18, .75, .5, 1, .82, .75, .82, .3, 1, .3)},
	{ID: "postage", Name: "Postage", Ratio: 1.3, foot: 1, draw: bump(.2, .8, 1, .3)},
	{ID: "lace", Name: "Lace", Ratio: 1.5, foot: .35, draw: bump(0, 1, .35, 1), holes: func() []geom.Path {
		return []geom.Path{round(.5, .55, .14, .21), round(.5, .16, .05, .075), round(.15, .3, .05, .075), round(.85, .3, .05, .075)}
	}},
	{ID: "arcade", Name: "Arcade", Ratio: .8, foot: 1, draw: lines(1, 1), holes: func() []geom.Path {
		var b geom.Builder
		k := 4. / 3 * .41421356237 * .25
		b.Move(pt(.25, .2)).Line(pt(.75, .2)).Line(pt(.75, .6)).Cubic(pt(.75, .6+k), pt(.5+k, .85), pt(.5, .85)).Cubic(pt(.5-k, .85), pt(.25, .6+k), pt(.25, .6))
		return []geom.Path{b.Close().Path()}
	}},
	{ID: "heart", Name: "Hearts", Ratio: 1.5, foot: .12, draw: cubics(0, .6, .1, 1, .28, 1, .42, 1, .5, .85, .5, .7, .5, .85, .58, 1, .72, 1, .9, 1, 1, .6, 1, .12)},
	{ID: "grass", Name: "Grass", Ratio: 1.4, draw: lines(.12, .8, .3, .1, .5, 1, .66, .12, .85, .7, 1, 0)},
	{ID: "crest", Name: "Crests", Ratio: 2, draw: cubics(.4, 0, .5, .8, .88, 1, .72, .75, .78, .3, 1, 0)},
	{ID: "bird", Name: "Birds on a wire", Ratio: 2.4, foot: .16, draw: func(b *geom.Builder, _ *rand.Rand) {
		b.Line(pt(.34, .16)).Line(pt(.2, .4)).Cubic(pt(.32, .42), pt(.36, .6), pt(.41, .8)).Cubic(pt(.44, 1.066667), pt(.6, 1.066667), pt(.63, .8))
		b.Line(pt(.73, .74)).Line(pt(.63, .68)).Cubic(pt(.66, .45), pt(.62, .3), pt(.52, .16)).Line(pt(1, .16))
	}},
	{ID: "deckle", Name: "Torn", Ratio: 4, foot: .4, draw: deckle},
}

// profile is one repeat from its foot at the left to that at the right.
func (m Motif) profile(r *rand.Rand) geom.Path {
	var b geom.Builder
	b.Move(pt(0, m.foot))
	m.draw(&b, r)
	return b.Path()
}

// The box of a preview.
const (
	PreviewWidth  = 74
	PreviewHeight = 44
)

// preview is a stretch of a motif above a strip.
func preview(m Motif) geom.Path {
	const strip, depth = 16.0, 17.0
	bar := geom.RectPath(geom.Rect{X: 3, Y: PreviewHeight - strip, W: PreviewWidth - 6, H: strip - 3})
	return along(bar, Edging{Motif: m.ID, Depth: depth, Side: Top, Seed: 1}, m).path
}

func init() {
	for i := range motifs {
		motifs[i].Preview = preview(motifs[i])
	}
}

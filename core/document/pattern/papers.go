package pattern

import (
	"math"
	"sync"

	"sectilis/core/ground/geom"
)

// tile collects outlines and repeats whatever crosses an edge of the tile on
// the other side, which makes the pattern seamless.
type tile struct {
	w, h  float64
	paths map[string][]geom.Path
	order []string
}

func (t *tile) put(colour string, p geom.Path) {
	if t.paths == nil {
		t.paths = map[string][]geom.Path{}
	}
	if t.paths[colour] == nil {
		t.order = append(t.order, colour)
	}
	box, whole := p.Bounds(), geom.Rect{W: t.w, H: t.h}
	for _, dx := range []float64{-t.w, 0, t.w} {
		for _, dy := range []float64{-t.h, 0, t.h} {
			if (geom.Rect{X: box.X + dx, Y: box.Y + dy, W: box.W, H: box.H}).Overlaps(whole) {
				t.paths[colour] = append(t.paths[colour], p.Transform(geom.Shift(dx, dy)))
			}
		}
	}
}

func (t *tile) marks() []Mark {
	var out []Mark
	for _, c := range t.order {
		out = append(out, Mark{Path: geom.Join(t.paths[c]...), Colour: c})
	}
	return out
}

func disc(x, y, r float64) geom.Path {
	return geom.EllipsePath(geom.Rect{X: x - r, Y: y - r, W: 2 * r, H: 2 * r})
}

// leaf is a pointed oval of the given length about the origin, turned.
func leaf(length, width, turn, x, y float64) geom.Path {
	var b geom.Builder
	l, w := length/2, width*.66
	b.Move(geom.Pt(-l, 0)).Cubic(geom.Pt(-l/3, -w), geom.Pt(l/2, -w), geom.Pt(l, 0)).
		Cubic(geom.Pt(l/2, w), geom.Pt(-l/3, w), geom.Pt(-l, 0)).Close()
	return b.Path().Transform(geom.Turn(turn).Then(geom.Shift(x, y)))
}

func hexagon(x, y, r float64) geom.Path {
	var pts [6]geom.Point
	for i := range pts {
		s, c := math.Sincos(math.Pi/6 + float64(i)*math.Pi/3)
		pts[i] = geom.Pt(x+r*c, y+r*s)
	}
	return geom.PolygonPath(pts[:]...)
}

// wave is a band across the tile that bends up and down twice.
func wave(y, height, w, depth float64) geom.Path {
	var b geom.Builder
	q := w / 4
	bend := func(i int) float64 { return depth * float64(1-i%2*2) }
	b.Move(geom.Pt(0, y))
	for i := range 4 {
		b.Quad(geom.Pt(q*(float64(i)+.5), y-bend(i)), geom.Pt(q*float64(i+1), y))
	}
	b.Line(geom.Pt(w, y+height))
	// Back along the same bends, so that the band is of even height.
	for i := 3; i >= 0; i-- {
		b.Quad(geom.Pt(q*(float64(i)+.5), y+height-bend(i)), geom.Pt(q*float64(i), y+height))
	}
	return b.Close().Path()
}

// shipped draws the papers that ship, once.
var shipped = sync.OnceValue(func() []Paper {
	drift := tile{w: 24, h: 24}
	for i, at := range [][3]float64{{3, 4, .5}, {12, 2, 2.2}, {20, 7, 1.2}, {7, 12, 2.8}, {16, 14, .1}, {2, 20, 1.6}, {11, 21, .9}, {21, 20, 2.5}} {
		drift.put("#9db488", leaf(6.4, 2.6+.3*float64(i%2), at[2], at[0], at[1]))
		drift.put("#b4c6a1", leaf(4.8, .5, at[2], at[0], at[1]))
	}
	check := tile{w: 10, h: 10}
	check.put("#e2a42b", geom.RectPath(geom.Rect{W: 5, H: 5}))
	check.put("#e2a42b", geom.RectPath(geom.Rect{X: 5, Y: 5, W: 5, H: 5}))
	dot := tile{w: 10, h: 10}
	dot.put("#a8432a", disc(2.5, 2.5, 1.3))
	dot.put("#a8432a", disc(7.5, 7.5, 1.3))
	night := tile{w: 18, h: 18}
	for i, at := range [][2]float64{{2, 3}, {9, 1}, {15, 5}, {5, 9}, {12, 11}, {17, 14}, {3, 15}, {9, 16}} {
		night.put([]string{"#8b9db3", "#f3d9a4"}[i%2], disc(at[0], at[1], .35+.2*float64(i%3)))
	}
	oat := tile{w: 8, h: 8}
	oat.put("#dccdb2", geom.RectPath(geom.Rect{W: 3.4, H: 8}))
	oat.put("#c9b58a", geom.RectPath(geom.Rect{X: 5.4, W: .5, H: 8}))
	sprig := tile{w: 16, h: 16}
	for _, at := range [][2]float64{{4, 6}, {12, 14}} {
		sprig.put("#6c8757", leaf(4, 1.4, -2.2, at[0]-1, at[1]+1))
		sprig.put("#6c8757", leaf(4, 1.4, -.9, at[0]+1, at[1]+1))
		sprig.put("#8f5b7b", disc(at[0], at[1]-2, 1.5))
		sprig.put("#b489a3", disc(at[0]-.5, at[1]-2.5, .4))
	}
	comb := tile{w: 3 * math.Sqrt(3), h: 9}
	comb.put("#e2a42b", hexagon(0, 2, 2.6))
	comb.put("#eab94f", hexagon(comb.w/2, 6.5, 2.6))
	hedge := tile{w: 20, h: 12}
	hedge.put("#587a4a", wave(2, 2.6, 20, 3))
	hedge.put("#7f9c6c", wave(8, 2.6, 20, 3))
	seeds := tile{w: 20, h: 20}
	for i, at := range [][3]float64{{3, 3, .4}, {10, 5, 1.9}, {17, 2, 2.6}, {6, 11, 1.1}, {14, 12, .2}, {2, 17, 2.3}, {10, 17, .8}, {18, 18, 1.5}} {
		seeds.put([]string{"#7a5330", "#a8432a"}[i%2], leaf(2.6, 1.2, at[2], at[0], at[1]))
	}
	gingham := tile{w: 12, h: 12}
	gingham.put("#a9bd9a", geom.RectPath(geom.Rect{W: 6, H: 12}))
	gingham.put("#8aa579", geom.RectPath(geom.Rect{W: 6, H: 6}))
	gingham.put("#a9bd98", geom.RectPath(geom.Rect{X: 6, W: 6, H: 6}))

	return append([]Paper{
		{ID: "leaf-drift", Name: "Leaf drift", Ground: "#cdd8ba", Width: 24, Height: 24, Marks: drift.marks()},
		{ID: "honey-check", Name: "Honey check", Ground: "#f3d595", Width: 10, Height: 10, Marks: check.marks()},
		{ID: "brick-dot", Name: "Brick dot", Ground: "#e7c3b4", Width: 10, Height: 10, Marks: dot.marks()},
		{ID: "night-field", Name: "Night field", Ground: "#3c4a5b", Width: 18, Height: 18, Marks: night.marks()},
		{ID: "oat-stripe", Name: "Oat stripe", Ground: "#efe5d3", Width: 8, Height: 8, Marks: oat.marks()},
		{ID: "plum-sprig", Name: "Plum sprig", Ground: "#ecdfe7", Width: 16, Height: 16, Marks: sprig.marks()},
		{ID: "comb", Name: "Comb", Ground: "#fff6e0", Width: comb.w, Height: comb.h, Marks: comb.marks()},
		{ID: "hedge-wave", Name: "Hedge wave", Ground: "#e6ecdc", Width: 20, Height: 12, Marks: hedge.marks()},
		{ID: "seed-scatter", Name: "Seed scatter", Ground: "#f7ecd6", Width: 20, Height: 20, Marks: seeds.marks()},
		{ID: "moss-gingham", Name: "Moss gingham", Ground: "#e3ebdc", Width: 12, Height: 12, Marks: gingham.marks()},
	}, more()...)
})

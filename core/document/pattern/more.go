package pattern

import (
	"math"
	"slices"

	"sectilis/core/ground/geom"
)

// box is a rectangle about a middle, turned.
func box(x, y, w, h, turn float64) geom.Path {
	return geom.RectPath(geom.Centred(w, h)).Transform(geom.Turn(turn).Then(geom.Shift(x, y)))
}

// petals are n leaves about a middle, from it outward.
func petals(x, y float64, n int, length, width, turn float64) geom.Path {
	var all []geom.Path
	for i := range n {
		a := turn + 2*math.Pi*float64(i)/float64(n)
		s, c := math.Sincos(a)
		all = append(all, leaf(length, width, a, x+c*length*.55, y+s*length*.55))
	}
	return geom.Join(all...)
}

// star is a star of n points about a middle.
func star(x, y float64, n int, outer, inner, turn float64) geom.Path {
	pts := make([]geom.Point, 0, 2*n)
	for i := range 2 * n {
		r := outer
		if i%2 == 1 {
			r = inner
		}
		s, c := math.Sincos(turn + math.Pi*float64(i)/float64(n))
		pts = append(pts, geom.Pt(x+r*c, y+r*s))
	}
	return geom.PolygonPath(pts...)
}

// more are the papers drawn after the first ten.
func more() []Paper { return slices.Concat(garden(), house(), ground()) }

// garden are papers of plants and weather.
func garden() []Paper {
	meadow := tile{w: 26, h: 26}
	for i, at := range [][3]float64{{5, 5, .2}, {18, 3, 1}, {12, 13, .6}, {23, 16, .1}, {4, 19, .9}, {17, 23, .4}} {
		meadow.put("#7f9c6c", leaf(5, 1.3, at[2]+1, at[0]+2.6, at[1]+2.2))
		meadow.put([]string{"#a8432a", "#7a4666", "#e2a42b"}[i%3], petals(at[0], at[1], 5, 2.4, 1.3, at[2]))
		meadow.put("#fffdf9", disc(at[0], at[1], .65))
	}
	rain := tile{w: 14, h: 18}
	for i, at := range [][2]float64{{2, 3}, {8, 1}, {12, 7}, {5, 9}, {10, 13}, {2, 14}, {7, 17}} {
		rain.put([]string{"#6d8aa3", "#9fb4c7"}[i%2], leaf(3.6, .55, 1.85, at[0], at[1]))
	}
	orchard := tile{w: 20, h: 24}
	for i, at := range [][2]float64{{5, 6}, {15, 18}} {
		orchard.put("#8a6a3a", geom.RectPath(geom.Rect{X: at[0] - .5, Y: at[1] + 1, W: 1, H: 4.6}))
		orchard.put([]string{"#587a4a", "#7f9c6c"}[i], disc(at[0], at[1], 3.5))
		for _, d := range [][2]float64{{-1.4, -.6}, {1.1, -1.5}, {.8, 1.3}} {
			orchard.put("#a8432a", disc(at[0]+d[0], at[1]+d[1], .55))
		}
	}
	frost := tile{w: 22, h: 22}
	for i, at := range [][3]float64{{5.5, 5.5, 3.4}, {16.5, 16.5, 3.4}, {16.5, 5, 1.7}, {5, 16.5, 1.7}} {
		frost.put("#e9f1f7", star(at[0], at[1], 6, at[2], at[2]*.16, float64(i)*.2))
		frost.put("#e9f1f7", petals(at[0], at[1], 6, at[2]*.5, at[2]*.16, float64(i)*.2+math.Pi/6))
	}
	clover := tile{w: 18, h: 18}
	for i, at := range [][3]float64{{4.5, 4.5, .3}, {13.5, 13.5, 1.1}, {13.5, 3.5, 2}, {4, 14, 2.6}} {
		k := 1 - .35*float64(i/2)
		clover.put("#587a4a", petals(at[0], at[1], 3, 2.8*k, 2.4*k, at[2]))
		clover.put("#587a4a", box(at[0]-math.Sin(at[2])*2.2*k, at[1]+math.Cos(at[2])*2.2*k, .45*k, 3.4*k, at[2]))
	}
	return []Paper{
		{ID: "meadow", Name: "Meadow", Ground: "#eef2e0", Width: meadow.w, Height: meadow.h, Marks: meadow.marks()},
		{ID: "soft-rain", Name: "Soft rain", Ground: "#e3ebf1", Width: rain.w, Height: rain.h, Marks: rain.marks()},
		{ID: "orchard", Name: "Orchard", Ground: "#f4ecd8", Width: orchard.w, Height: orchard.h, Marks: orchard.marks()},
		{ID: "frost", Name: "Frost", Ground: "#5f7f9a", Width: frost.w, Height: frost.h, Marks: frost.marks()},
		{ID: "clover", Name: "Clover", Ground: "#e6ecdc", Width: clover.w, Height: clover.h, Marks: clover.marks()},
	}
}

// house are papers of lines, cloth and wood.
func house() []Paper {
	ledger := tile{w: 20, h: 12}
	for i := range 3 {
		ledger.put("#9fb4c7", geom.RectPath(geom.Rect{Y: 1.8 + 4*float64(i), W: 20, H: .35}))
	}
	pennant := tile{w: 18, h: 11}
	for i, c := range []string{"#a8432a", "#e2a42b", "#587a4a"} {
		x := 6 * float64(i)
		pennant.put(c, geom.PolygonPath(geom.Pt(x+.6, 2.4), geom.Pt(x+5.4, 2.4), geom.Pt(x+3, 8)))
	}
	pennant.put("#41505f", geom.RectPath(geom.Rect{Y: 2, W: 18, H: .45}))
	wicker := tile{w: 16, h: 16}
	for i := range 4 {
		for j := range 4 {
			x, y := 2+4*float64(i), 2+4*float64(j)
			for k := range 3 {
				d := -1.2 + 1.2*float64(k)
				if (i+j)%2 == 0 {
					wicker.put("#c9a777", box(x, y+d, 3.7, .8, 0))
				} else {
					wicker.put("#b08b58", box(x+d, y, .8, 3.7, 0))
				}
			}
		}
	}
	pinwheel := tile{w: 16, h: 16}
	for i := range 2 {
		for j := range 2 {
			x, y := 4+8*float64(i), 4+8*float64(j)
			for k := range 4 {
				m := geom.Turn(math.Pi / 2 * float64(k)).Then(geom.Shift(x, y))
				pinwheel.put([]string{"#35658c", "#a8432a"}[(i+j)%2], geom.PolygonPath(geom.Pt(0, 0), geom.Pt(3.6, 0), geom.Pt(3.6, -3.6)).Transform(m))
			}
		}
	}
	plank := tile{w: 16, h: 8}
	for i := range 5 {
		for j := range 3 {
			x, y := 4*float64(i), 8*float64(j)-4
			slant := []float64{3.6, -3.6}[i%2]
			plank.put([]string{"#b08b58", "#c9a777"}[i%2], geom.PolygonPath(geom.Pt(x+.2, y), geom.Pt(x+3.8, y+slant), geom.Pt(x+3.8, y+slant+3.4), geom.Pt(x+.2, y+3.4)))
			plank.put([]string{"#a07c4c", "#bd9a68"}[i%2], geom.PolygonPath(geom.Pt(x+.2, y+4), geom.Pt(x+3.8, y+slant+4), geom.Pt(x+3.8, y+slant+7.4), geom.Pt(x+.2, y+7.4)))
		}
	}
	return []Paper{
		{ID: "ledger-line", Name: "Ledger line", Ground: "#fdf8ec", Width: ledger.w, Height: ledger.h, Marks: ledger.marks()},
		{ID: "pennant-row", Name: "Pennant row", Ground: "#fbf3e4", Width: pennant.w, Height: pennant.h, Marks: pennant.marks()},
		{ID: "wicker", Name: "Wicker", Ground: "#8d6d42", Width: wicker.w, Height: wicker.h, Marks: wicker.marks()},
		{ID: "pinwheel", Name: "Pinwheel", Ground: "#fdf8ec", Width: pinwheel.w, Height: pinwheel.h, Marks: pinwheel.marks()},
		{ID: "plank", Name: "Plank", Ground: "#8d6d42", Width: plank.w, Height: plank.h, Marks: plank.marks()},
	}
}

// ground are papers of stones and water, and those that are seen through.
func ground() []Paper {
	pebble := tile{w: 24, h: 20}
	for i, at := range [][4]float64{{3, 3, 5, .2}, {10.5, 2.6, 6.4, -.1}, {18.5, 4, 6, .3}, {5.5, 9, 6.4, -.2}, {14.5, 10, 7, .1}, {22.5, 11, 5.6, -.3}, {2.5, 15.6, 5.4, .1}, {10, 16.4, 6.6, .25}, {18.5, 16.8, 6.2, -.15}} {
		pebble.put([]string{"#b7b0a4", "#cfc8ba", "#9d978d"}[i%3], geom.EllipsePath(geom.Centred(at[2], at[2]*.66)).Transform(geom.Turn(at[3]).Then(geom.Shift(at[0], at[1]))))
	}
	scale := tile{w: 10, h: 10}
	for row := range 3 {
		for i := range 3 {
			x, y := 10*float64(i)-5+5*float64(row%2), 5*float64(row)
			scale.put("#6d8aa3", geom.Stroke(disc(x, y, 4.7), .5, geom.RoundCorner, geom.RoundCap))
		}
	}
	chips := tile{w: 24, h: 24}
	for i, at := range [][3]float64{{3, 4, .3}, {11, 3, 1.2}, {19, 5, 2.2}, {7, 10, .8}, {15, 11, 1.7}, {22, 13, .2}, {3, 17, 2.6}, {11, 18, .5}, {18, 20, 1.1}, {8, 23, 2}} {
		r := 1 + .35*float64(i%3)
		chips.put([]string{"#a8432a", "#41505f", "#c9a777", "#587a4a"}[i%4],
			geom.PolygonPath(geom.Pt(-r, -.4*r), geom.Pt(.1*r, -r), geom.Pt(r, -.2*r), geom.Pt(.7*r, .8*r), geom.Pt(-.5*r, .9*r)).Transform(geom.Turn(at[2]).Then(geom.Shift(at[0], at[1]))))
	}
	net := tile{w: 3 * math.Sqrt(3), h: 9}
	for _, at := range [][2]float64{{0, 2}, {net.w / 2, 6.5}} {
		net.put("#fffdf9", geom.Stroke(hexagon(at[0], at[1], 2.9), .45, geom.RoundCorner, geom.RoundCap))
		net.put("#fffdf9", petals(at[0], at[1], 6, 1.7, .8, 0))
	}
	candy := tile{w: 6, h: 6}
	for _, d := range []float64{-6, 0, 6} {
		candy.put("#fffdf9", geom.PolygonPath(geom.Pt(d, 0), geom.Pt(d+2.4, 0), geom.Pt(d+8.4, 6), geom.Pt(d+6, 6)))
	}
	return []Paper{
		{ID: "pebble", Name: "Pebble", Ground: "#e9e4da", Width: pebble.w, Height: pebble.h, Marks: pebble.marks()},
		{ID: "ripple", Name: "Ripple", Ground: "#dfe9ef", Width: scale.w, Height: scale.h, Marks: scale.marks()},
		{ID: "stone-chip", Name: "Stone chip", Ground: "#f3eee3", Width: chips.w, Height: chips.h, Marks: chips.marks()},
		{ID: "lace-net", Name: "Lace net", Width: net.w, Height: net.h, Marks: net.marks()},
		{ID: "slant", Name: "Slant stripe", Width: candy.w, Height: candy.h, Marks: candy.marks()},
	}
}

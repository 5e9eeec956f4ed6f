package stencil_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/lettering"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/stencil"
)

// sign is a rectangle that words are cut out of.
func sign(t *testing.T, words, font string, size float64) (plate, letters geom.Path) {
	t.Helper()
	letters, _, _, err := lettering.Line(font, words, size, size/10)
	require.NoError(t, err)
	b := letters.Bounds().Grow(size / 2)
	return geom.Difference(geom.NonZero, geom.RectPath(b), letters), letters
}

// outerRings counts the parts of an outline.
func outerRings(p geom.Path) int {
	n := 0
	for _, r := range p.Rings() {
		if r.Area() > 0 {
			n++
		}
	}
	return n
}

func TestIslandsAreWhatLiesInHoles(t *testing.T) {
	ring := func(r float64) geom.Path { return geom.EllipsePath(geom.Centred(2*r, 2*r)) }
	nested := geom.Difference(geom.NonZero, ring(20), ring(15))
	nested = geom.Union(geom.NonZero, nested, geom.Difference(geom.NonZero, ring(10), ring(7)), ring(3))
	beside := ring(4).Transform(geom.Shift(40, 0))
	all := geom.Union(geom.NonZero, nested, beside)
	islands := stencil.Islands(all)
	require.Len(t, islands, 2, "not the disc beside")
	assert.InDelta(t, math.Pi*(100-49), islands[0].Area(), .02)
	assert.InDelta(t, math.Pi*9, islands[1].Area(), .02)
	left := stencil.WithoutIslands(all)
	assert.InDelta(t, math.Pi*(400-225+16), left.Area(), .05)
	assert.Empty(t, stencil.Islands(left))
	assert.Empty(t, stencil.Islands(geom.Path{}))

	// An island in the hole of an island is held too, by way of the outer one.
	r := stencil.Bridge(all, stencil.Options{Each: 1, Width: 1})
	assert.Empty(t, r.Loose)
	assert.Len(t, r.Bridges, 2)
	for name, want := range map[string]int{"Plum": 1, "boat": 3, "B&g8": 6, "LIMIT": 0} {
		plate, _ := sign(t, name, "alfa-slab-one-400", 20)
		assert.Len(t, stencil.Islands(plate), want, name)
	}
}

// Of every letter of every font: after bridging, nothing of the plate is loose, and no more of
// the letter is filled than the bridges take.
func TestEveryLetterOfEveryFontIsHeld(t *testing.T) {
	letters := "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789&@%#$?!ÄÖÅéøßñ"
	for _, f := range lettering.Fonts() {
		held := 0
		for _, r := range letters {
			plate, letter := sign(t, string(r), f.ID, 24)
			before := stencil.Islands(plate)
			if len(before) == 0 {
				continue
			}
			for _, inLine := range []bool{true, false} {
				opt := stencil.Options{Each: 1 + held%3, Width: .8, Foot: .3, InLine: inLine}
				res := stencil.Bridge(plate, opt)
				require.Empty(t, res.Loose, "%c of %s", r, f.ID)
				require.Empty(t, stencil.Islands(res.Outline), "%c of %s", r, f.ID)
				require.Equal(t, 1, outerRings(res.Outline), "%c of %s: the plate is one piece", r, f.ID)
				sum := geom.Union(geom.NonZero, strips(res.Bridges)...).Area()
				require.InDelta(t, plate.Area()+sum, res.Outline.Area(), .02, "%c of %s: only the bridges are filled", r, f.ID)
				cut := geom.Difference(geom.NonZero, letter, res.Outline)
				require.InDelta(t, letter.Area()-sum, cut.Area(), .02, "%c of %s", r, f.ID)
				require.LessOrEqual(t, len(res.Bridges), opt.Each*len(before)+2)
				held++
			}
		}
		if f.ID != "saira-stencil-one-400" {
			assert.Greater(t, held, 20, f.ID)
		}
	}
}

// strips are the outlines of bridges.
func strips(of []stencil.Strip) []geom.Path {
	var out []geom.Path
	for _, b := range of {
		out = append(out, b.Path)
	}
	return out
}

// Bridges that are put somewhere leave the island there; what leads to no ground, or is not on
// the edge of an island, counts for nothing.
func TestBridgesLeaveWhereTheyArePut(t *testing.T) {
	disc := func(r float64) geom.Path { return geom.EllipsePath(geom.Centred(2*r, 2*r)) }
	plate := geom.Difference(geom.NonZero, geom.RectPath(geom.Centred(80, 80)), geom.Difference(geom.NonZero, disc(24), disc(16)))
	at := func(degrees, r float64) geom.Point {
		return geom.Pt(r*math.Cos(degrees*math.Pi/180), r*math.Sin(degrees*math.Pi/180))
	}
	opt := stencil.Options{Each: 2, Width: 2, Placed: []geom.Point{at(35, 16), at(100, 16.1), at(217, 15.9), at(300, 20)}}
	r := stencil.Bridge(plate, opt)
	require.Len(t, r.Bridges, 3, "the last lies in the hole")
	assert.Empty(t, r.Loose)
	for i, degrees := range []float64{35, 100, 217} {
		b := r.Bridges[i]
		assert.True(t, b.Placed)
		assert.Less(t, b.From.Sub(at(degrees, 16)).Len(), .01)
		assert.Less(t, b.Path.Bounds().Centre().Sub(at(degrees, 20)).Len(), .4)
		assert.InDelta(t, disc(16).Area(), b.Ring.Area(), .1)
	}
	opt.Placed = []geom.Point{at(300, 20), at(20, 24)}
	r = stencil.Bridge(plate, opt)
	require.Len(t, r.Bridges, 2, "as if nothing were put")
	assert.False(t, r.Bridges[0].Placed)
}

// A bridge is as wide as it was asked for, and each island has as many.
func TestBridgesHaveTheirWidthAndNumber(t *testing.T) {
	ring := func(r float64) geom.Path { return geom.EllipsePath(geom.Centred(2*r, 2*r)) }
	plate := geom.Difference(geom.NonZero, geom.RectPath(geom.Centred(80, 80)), geom.Difference(geom.NonZero, ring(24), ring(16)))
	for each := 1; each <= 4; each++ {
		for _, inLine := range []bool{true, false} {
			r := stencil.Bridge(plate, stencil.Options{Each: each, Width: 2, InLine: inLine})
			require.Len(t, r.Bridges, each)
			sum := 0.0
			for _, b := range r.Bridges {
				sum += b.Path.Area()
			}
			// A strip of 2 mm between two circles: the integral over its width.
			want := 0.0
			for i := range 1000 {
				v := -1 + (float64(i)+.5)/500
				want += (math.Sqrt(24*24-v*v) - math.Sqrt(16*16-v*v)) / 500
			}
			assert.InDelta(t, float64(each)*want, sum, .02*float64(each))
			assert.Empty(t, r.Loose)
		}
	}
	bare := stencil.Bridge(plate, stencil.Options{Each: 1, Width: 2})
	footed := stencil.Bridge(plate, stencil.Options{Each: 1, Width: 2, Foot: 1})
	assert.InDelta(t, 4*(1-math.Pi/4), footed.Bridges[0].Path.Area()-bare.Bridges[0].Path.Area(), .15, "four quarters of a circle")
}

// The bridges of neighbouring letters lie on one straight line.
func TestBridgesOfNeighboursAreInLine(t *testing.T) {
	plate, _ := sign(t, "oaded", "nunito-400", 24)
	r := stencil.Bridge(plate, stencil.Options{Each: 2, Width: .8, InLine: true})
	require.Empty(t, r.Loose)
	require.GreaterOrEqual(t, len(r.Bridges), 8)
	level := map[int]int{}
	for _, b := range r.Bridges {
		level[int(math.Round(b.Path.Bounds().Centre().Y*5))]++
	}
	most := 0
	for _, n := range level {
		most = max(most, n)
	}
	assert.GreaterOrEqual(t, most, 6, "%v", level)
}

// Random plates: discs with islands, some of them in islands; all are held or told.
func TestRandomPlatesAreHeld(t *testing.T) {
	rng := rand.New(rand.NewPCG(4, 4))
	for range 60 {
		plate := geom.RectPath(geom.Centred(200, 200))
		for range 1 + rng.IntN(6) {
			at := geom.Shift(-70+140*rng.Float64(), -70+140*rng.Float64())
			r := 6 + 18*rng.Float64()
			hole := geom.EllipsePath(geom.Centred(2*r, 2*r*(.5+rng.Float64()))).Transform(at)
			island := geom.RectPath(geom.Centred(r*.8, r*.5)).Transform(geom.Turn(rng.Float64() * 6).Then(at))
			plate = geom.Union(geom.NonZero, geom.Difference(geom.NonZero, plate, hole), island)
		}
		before := stencil.Islands(plate)
		r := stencil.Bridge(plate, stencil.Options{Each: 1 + rng.IntN(4), Width: .5 + rng.Float64()*2, Foot: rng.Float64(), InLine: rng.IntN(2) == 0})
		require.Empty(t, r.Loose)
		require.GreaterOrEqual(t, len(r.Bridges), len(before))
		require.NoError(t, r.Outline.Check())
	}
}

// Bridges leave no hair: where their feet are wider than what they stand on, nothing thin
// sticks out into the hole.
func TestBridgesHaveNoHair(t *testing.T) {
	for _, font := range []string{"alfa-slab-one-400", "zilla-slab-600"} {
		plate, _ := sign(t, "Harvest Supper 68", font, 8.5)
		before := stencil.Least(plate, stencil.Thinner(plate, 1.2), 1.2)
		require.Greater(t, before, .3, font)
		for _, opt := range []stencil.Options{{Each: 2, Width: 1, Foot: .4}, {Each: 1, Width: 1.5}, {Each: 3, Width: .7, Foot: .2, InLine: true}} {
			r := stencil.Bridge(plate, opt)
			require.Empty(t, r.Loose)
			assert.Greater(t, stencil.Least(r.Outline, stencil.Thinner(r.Outline, 1.2), 1.2), .15, "%s %+v", font, opt)
		}
	}
}

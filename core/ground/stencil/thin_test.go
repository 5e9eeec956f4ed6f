package stencil_test

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/lettering"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/stencil"
)

// dumbbell is two discs with a bar of a width between them.
func dumbbell(width float64) geom.Path {
	disc := geom.EllipsePath(geom.Centred(10, 10))
	return geom.Union(geom.NonZero, disc.Transform(geom.Shift(-12, 0)), disc.Transform(geom.Shift(12, 0)), geom.RectPath(geom.Centred(24, width)))
}

// least is the least width below 1.2 mm.
func least(t *testing.T, p geom.Path) float64 {
	t.Helper()
	thin := stencil.Thinner(p, 1.2)
	require.NotEmpty(t, thin)
	return stencil.Least(p, thin, 1.2)
}

func TestBarsAreFoundByTheirWidth(t *testing.T) {
	for _, width := range []float64{.3, .75, 1.1, 1.17} {
		found := stencil.Thinner(dumbbell(width), 1.2)
		require.Len(t, found, 1, width)
		assert.InDelta(t, width, least(t, dumbbell(width)), .02)
		b := found[0].Region.Bounds()
		assert.InDelta(t, 14, b.W, 1.2, "the bar, and not the discs")
	}
	for _, width := range []float64{1.23, 2, 9} {
		assert.Empty(t, stencil.Thinner(dumbbell(width), 1.2), width)
	}
	assert.Len(t, stencil.Thinner(geom.RectPath(geom.Centred(20, .8)), 1.2), 1, "a part that is thin as a whole")
	assert.Empty(t, stencil.Thinner(geom.RectPath(geom.Centred(20, 5)), 1.2), "corners of a rectangle are not thin")
}

// A ring has the width between its circles, also where they are not concentric.
func TestRingsAreFoundByTheirWidth(t *testing.T) {
	disc := func(r, x float64) geom.Path {
		return geom.EllipsePath(geom.Centred(2*r, 2*r)).Transform(geom.Shift(x, 0))
	}
	for _, width := range []float64{.5, 1, 1.17} {
		ring := geom.Difference(geom.NonZero, disc(10, 0), disc(10-width, 0))
		require.Len(t, stencil.Thinner(ring, 1.2), 1, width)
		assert.InDelta(t, width, least(t, ring), .02)
	}
	assert.Empty(t, stencil.Thinner(geom.Difference(geom.NonZero, disc(10, 0), disc(8.77, 0)), 1.2))
	// From 0.4 mm at the right to 3.6 mm at the left.
	crescent := geom.Difference(geom.NonZero, disc(10, 0), disc(8, 1.6))
	found := stencil.Thinner(crescent, 1.2)
	require.Len(t, found, 1)
	assert.InDelta(t, .4, least(t, crescent), .02)
	// It is 1.2 mm wide where the discs between the circles have that diameter: the middle of
	// one of radius r lies 10-r from the one middle and 8+r from the other.
	const r = .6
	a, b := 10-r, 8+r
	x := (a*a - b*b + 1.6*1.6) / (2 * 1.6)
	box := found[0].Region.Bounds()
	assert.InDelta(t, x, box.X, .9, "as far round as it is thin")
}

// A wedge is thin where it is thin: from its point to where a disc of the limit fits.
func TestWedgesAreThinTowardTheirPoint(t *testing.T) {
	for _, degrees := range []float64{10, 25, 36} {
		half := degrees / 2 * math.Pi / 180
		var b geom.Builder
		b.Move(geom.Pt(0, 0)).Line(geom.Pt(30, -30*math.Tan(half))).Line(geom.Pt(30, 30*math.Tan(half))).Close()
		wedge := geom.Union(geom.NonZero, b.Path())
		found := stencil.Thinner(wedge, 1.2)
		require.Len(t, found, 1, degrees)
		assert.True(t, found[0].Tip)
		assert.InDelta(t, 1.2, stencil.Least(wedge, found, 1.2), 1e-9, "a point has no least width")
		box := found[0].Region.Bounds()
		assert.InDelta(t, 0, box.X, 1e-6)
		assert.InDelta(t, .6/math.Sin(half)*math.Pow(math.Cos(half), 2), box.Right(), .05, "to where the disc touches the sides")
	}
	var b geom.Builder
	b.Move(geom.Pt(0, 0)).Line(geom.Pt(30, -30*math.Tan(.6))).Line(geom.Pt(60, 0)).Line(geom.Pt(30, 30*math.Tan(.6))).Close()
	assert.Empty(t, stencil.Thinner(geom.Union(geom.NonZero, b.Path()), 1.2), "corners of 69 degrees")
}

// tree is random strokes, each with its own width, that grow from one another.
func tree(rng *rand.Rand) (p geom.Path, widths []float64) {
	at := []geom.Point{{}}
	var all []geom.Path
	for range 3 + rng.IntN(5) {
		from := at[rng.IntN(len(at))]
		to := from.Add(geom.Turn(rng.Float64() * 2 * math.Pi).Apply(geom.Pt(14+10*rng.Float64(), 0)))
		width := .4 + rng.Float64()*2
		if math.Abs(width-1.2) < .03 {
			width = 1.3
		}
		var b geom.Builder
		b.Move(from).Line(to)
		all = append(all, geom.Stroke(b.Path(), width, geom.RoundCorner, geom.RoundCap), geom.EllipsePath(geom.Centred(6, 6)).Transform(geom.Shift(to.X, to.Y)))
		widths, at = append(widths, width), append(at, to)
	}
	all = append(all, geom.EllipsePath(geom.Centred(6, 6)))
	return geom.Union(geom.NonZero, all...), widths
}

// Of random trees, something thin is found just where a branch is thinner than the limit; grown
// to the limit nothing thin is left, and nothing else has changed.
func TestTreesAreFoundAndThickened(t *testing.T) {
	rng := rand.New(rand.NewPCG(6, 1))
	for n := range 25 {
		p, widths := tree(rng)
		found := stencil.Thinner(p, 1.2)
		if slices.Min(widths) >= 1.2 {
			require.Empty(t, found, "%d: %v", n, widths)
		}
		if len(found) > 0 { // a thin branch may lie within a thick one
			is := least(t, p)
			require.True(t, slices.ContainsFunc(widths, func(w float64) bool { return math.Abs(w-is) < .02 }), "%d: %v of %v", n, is, widths)
		}
		thick := stencil.Thicken(p, stencil.Thinner(p, 1.2), 1.2)
		for _, f := range stencil.Thinner(thick, 1.2-.03) {
			require.Less(t, f.Region.Area(), .1, "%d: still thin", n)
		}
		added := geom.Difference(geom.NonZero, thick, p)
		var reach []geom.Path
		for _, f := range found {
			reach = append(reach, geom.Offset(f.Region, .62, geom.RoundCorner))
		}
		require.Less(t, geom.Difference(geom.NonZero, added, geom.Union(geom.NonZero, reach...)).Area(), 1e-3, "%d: nothing else is touched", n)
		require.Less(t, geom.Difference(geom.NonZero, p, thick).Area(), 1e-3)
	}
}

// A bar that is grown has the limit as its width, by its area.
func TestABarIsGrownToTheLimit(t *testing.T) {
	for _, width := range []float64{.3, .7, 1.1} {
		thick := stencil.Thicken(dumbbell(width), stencil.Thinner(dumbbell(width), 1.2), 1.2)
		middle := geom.Intersection(geom.NonZero, thick, geom.RectPath(geom.Centred(8, 30)))
		assert.InDelta(t, 1.2, middle.Area()/8, .02, width)
	}
	p := dumbbell(2)
	assert.Equal(t, p, stencil.Thicken(p, stencil.Thinner(p, 1.2), 1.2))
}

// Thin faces have thin parts at the size of a tag, thick ones have none.
func TestThinFacesAreTold(t *testing.T) {
	for font, thin := range map[string]bool{"great-vibes-400": true, "amatic-sc-700": true, "alfa-slab-one-400": false, "lilita-one-400": false} {
		outline, _, _, err := lettering.Line(font, "Nook", 14, 0)
		require.NoError(t, err)
		area := 0.0
		for _, f := range stencil.Thinner(outline, 1.2) {
			area += f.Region.Area()
		}
		assert.Equal(t, thin, area > .1*outline.Area(), font)
	}
}

func BenchmarkThinner(b *testing.B) {
	outline, _, _, err := lettering.Line("great-vibes-400", "Harvest Supper", 14, 0)
	require.NoError(b, err)
	for b.Loop() {
		stencil.Thinner(outline, 1.2)
	}
}

func BenchmarkLeast(b *testing.B) {
	outline, _, _, err := lettering.Line("great-vibes-400", "Harvest Supper", 14, 0)
	require.NoError(b, err)
	thin := stencil.Thinner(outline, 1.2)
	for b.Loop() {
		stencil.Least(outline, thin, 1.2)
	}
}

func BenchmarkThicken(b *testing.B) {
	outline, _, _, err := lettering.Line("great-vibes-400", "Harvest Supper", 14, 0)
	require.NoError(b, err)
	thin := stencil.Thinner(outline, 1.2)
	for b.Loop() {
		stencil.Thicken(outline, thin, 1.2)
	}
}

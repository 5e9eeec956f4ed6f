package exchange_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/document/exchange"
	"sectilis/core/ground/geom"
)

func path(t *testing.T, d string) geom.Path {
	t.Helper()
	p, err := geom.ParsePath(d)
	require.NoError(t, err)
	return p
}

func TestLooseLinesAreChained(t *testing.T) {
	got := exchange.Chain([]geom.Path{
		path(t, "M0 0L10 0"), path(t, "M10 10L10.001 0"), path(t, "M10 10L0 10"), path(t, "M0 0L0 10"), // a square
		path(t, "M50 0L60 0"), path(t, "M60 0Q70 0 70 10"), path(t, "M40 0L50 0"), // an open line
		path(t, "M80 0L90 0L90 9Z"), path(t, "M5 5"),
	}, .005)
	var data []string
	closed := 0
	for _, p := range got {
		data = append(data, p.String())
		if p.Closed() {
			closed++
		}
	}
	require.Len(t, got, 3, "%v", data)
	assert.Equal(t, 2, closed)
	assert.InDelta(t, 100, abs(got[1].Area()), .01)
	assert.Len(t, got[2].Curves()[0], 3)
}

func abs(v float64) float64 { return max(v, -v) }

func TestLayersNameTheirRole(t *testing.T) {
	for name, want := range map[string]card.Role{"Cut": card.RoleCut, "mountain_score": card.RoleMountain, " valley ": card.RoleValley, "kiss-cut": card.RoleKiss, "Layer 1": ""} {
		assert.Equal(t, want, exchange.RoleOf(name), name)
	}
}

func TestADrawingIsMeasuredAndTurnedUpright(t *testing.T) {
	d := exchange.Drawing{
		Shapes:   []exchange.Shape{{Path: path(t, "M10 20L10 50")}, {Path: path(t, "M10 50L40 50")}},
		Pictures: []exchange.Picture{{At: geom.Scale(5, 10).Then(geom.Shift(40, 20))}},
	}
	assert.Equal(t, geom.Rect{X: 10, Y: 20, W: 35, H: 30}, d.Bounds(), "lines have no breadth and count")
	assert.Equal(t, geom.Rect{}, (&exchange.Drawing{}).Bounds())

	// In a plotter's file y runs up: what was lowest comes to lie lowest on screen.
	d.Upright()
	assert.Equal(t, geom.Rect{W: 35, H: 30}, d.Bounds())
	assert.Equal(t, []float64{35, 30}, []float64{d.Width, d.Height})
	assert.Equal(t, geom.Rect{Y: 0, W: 30}, d.Shapes[1].Path.Bounds(), "the upper line")
	assert.Equal(t, geom.Pt(30, 30), d.Pictures[0].At.Apply(geom.Pt(0, 0)), "pictures go along")

	d.Transform(geom.Scale(2, 2))
	assert.Equal(t, geom.Rect{W: 70, H: 60}, d.Bounds())
}

func TestANoteIsMadeOnce(t *testing.T) {
	var d exchange.Drawing
	for range 3 {
		d.Note("%d pictures are left out.", 2)
	}
	d.Note("Text is left out.")
	assert.Equal(t, []string{"2 pictures are left out.", "Text is left out."}, d.Notes)
}

// However the edges of polygons are cut up, shuffled and turned about, they are chained to
// the polygons again.
func TestShuffledEdgesComeBackAsTheirPolygons(t *testing.T) {
	r := rand.New(rand.NewPCG(31, 32))
	for range 200 {
		var loose []geom.Path
		want := 0.0
		for k := range 1 + r.IntN(4) {
			n := 3 + r.IntN(9)
			at := func(i int) geom.Point {
				s, c := math.Sincos(2 * math.Pi * float64(i%n) / float64(n))
				return geom.Pt(100*float64(k)+20+15*c, 20+15*s)
			}
			want += float64(n) / 2 * 15 * 15 * math.Sin(2*math.Pi/float64(n))
			for i := range n {
				a, b := at(i), at(i+1)
				if r.IntN(2) == 0 {
					a, b = b, a
				}
				var g geom.Builder
				// Programs round: ends meet within a few thousandths.
				shake := func(p geom.Point) geom.Point { return p.Add(geom.Pt(r.Float64(), r.Float64()).Mul(.002)) }
				loose = append(loose, g.Move(shake(a)).Line(shake(b)).Path())
			}
		}
		r.Shuffle(len(loose), func(i, j int) { loose[i], loose[j] = loose[j], loose[i] })
		got := 0.0
		for _, p := range exchange.Chain(loose, .005) {
			require.True(t, p.Closed())
			got += math.Abs(p.Area())
		}
		assert.InDelta(t, want, got, .02*want)
	}
}

func TestEveryRoleHasAColourOfItsOwnKind(t *testing.T) {
	assert.NotEqual(t, exchange.RoleColour(card.RoleMountain), exchange.RoleColour(card.RoleValley))
	assert.NotEqual(t, exchange.RoleColour(card.RoleGuide), exchange.RoleColour(card.RoleCut))
	for _, r := range card.Roles() {
		assert.Regexp(t, `^#[0-9a-f]{6}$`, exchange.RoleColour(r), r)
	}
}

package drawnbase_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/design/drawnbase"
	"sectilis/core/design/pathops"
	"sectilis/core/document/card"
	"sectilis/core/document/exchange"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// Nets are drawn in many ways; each of these is the same side fold of 100 × 150.
func TestOneNetDrawnInManyWays(t *testing.T) {
	all := func(role card.Role, list ...string) (out []geom.Path) {
		for _, d := range list {
			out = append(out, path(t, d))
		}
		return out
	}
	for name, d := range map[string]exchange.Drawing{
		"a rectangle and a score":             drawing(map[card.Role][]geom.Path{card.RoleCut: all(card.RoleCut, "M0 0H200V150H0Z"), card.RoleMountain: all(card.RoleMountain, "M100 0V150")}),
		"four lines and a score":              drawing(map[card.Role][]geom.Path{card.RoleCut: all(card.RoleCut, "M0 0H200", "M200 150V0", "M200 150H0", "M0 0V150"), card.RoleMountain: all(card.RoleMountain, "M100 150V0")}),
		"sides in pieces":                     drawing(map[card.Role][]geom.Path{card.RoleCut: all(card.RoleCut, "M0 0H100", "M100 0H200V75", "M200 75V150", "M200 150H100", "M100 150H0V0"), card.RoleMountain: all(card.RoleMountain, "M100 0V60", "M100 60V150")}),
		"sides that run past their corners":   drawing(map[card.Role][]geom.Path{card.RoleCut: all(card.RoleCut, "M-4 0H204", "M200 -4V154", "M204 150H-4", "M0 154V-4"), card.RoleMountain: all(card.RoleMountain, "M100 0V150")}),
		"a score that runs past the edge":     drawing(map[card.Role][]geom.Path{card.RoleCut: all(card.RoleCut, "M0 0H200V150H0Z"), card.RoleMountain: all(card.RoleMountain, "M100 -10V160")}),
		"a score that ends a hair short":      drawing(map[card.Role][]geom.Path{card.RoleCut: all(card.RoleCut, "M0 0H200V150H0Z"), card.RoleMountain: all(card.RoleMountain, "M100 .2V149.9")}),
		"everything twice":                    drawing(map[card.Role][]geom.Path{card.RoleCut: all(card.RoleCut, "M0 0H200V150H0Z", "M0 0V150H200V0Z"), card.RoleMountain: all(card.RoleMountain, "M100 0V150", "M100 150V0", "M100 20V80")}),
		"the edge drawn as scores too":        drawing(map[card.Role][]geom.Path{card.RoleCut: all(card.RoleCut, "M0 0H200V150H0Z"), card.RoleMountain: all(card.RoleMountain, "M100 0V150", "M0 0V150", "M200 0V150")}),
		"away from the origin":                drawing(map[card.Role][]geom.Path{card.RoleCut: all(card.RoleCut, "M700 300H900V450H700Z"), card.RoleMountain: all(card.RoleMountain, "M800 300V450")}),
		"with cuts that only run along edges": drawing(map[card.Role][]geom.Path{card.RoleCut: all(card.RoleCut, "M0 0H200V150H0Z", "M20 0H180"), card.RoleMountain: all(card.RoleMountain, "M100 0V150")}),
	} {
		found, err := drawnbase.Read(d, asked(d))
		require.NoError(t, err, name)
		require.Empty(t, found.Questions, name)
		require.NotNil(t, found.Base, name)
		assert.InDelta(t, 100, found.Base.Width, .01, name)
		assert.InDelta(t, 150, found.Base.Height, .01, name)
		assert.Len(t, found.Panels, 2, name)
		assert.True(t, found.Folds, "%s: %v", name, found.Why)
		net := fold.StudyOf(*found.Base).Net
		assert.InDelta(t, 200, net.Width, .01, name)
		assert.True(t, net.Edge.Empty(), "%s: a rectangle has no edge of its own", name)
	}
}

// Edges and cuts keep their curves, and scores that end on them end there, at any place of the curve.
func TestScoresEndOnCurves(t *testing.T) {
	for _, edge := range []string{
		"M0 20C0 5 40 0 100 0C160 0 200 5 200 20V130C200 145 160 150 100 150C40 150 0 145 0 130Z",
		"M0 20Q100 60 200 20V130Q100 90 0 130Z", // hollow: chords would lie outside it
		"M20 0A20 20 0 0 0 0 20V130A20 20 0 0 0 20 150H180A20 20 0 0 0 200 130V20A20 20 0 0 0 180 0Z",
	} {
		p := path(t, edge)
		for _, x := range []float64{60, 85.3, 100, 117.7} {
			score := line(geom.Pt(x, -5), geom.Pt(x, 155))
			d := drawing(map[card.Role][]geom.Path{card.RoleCut: {p}, card.RoleValley: {score}})
			found, err := drawnbase.Read(d, asked(d))
			require.NoError(t, err)
			require.Empty(t, found.Questions)
			require.Len(t, found.Panels, 2, "%s at %.1f: %v", edge, x, found.Why)
			study := fold.StudyOf(*found.Base)
			assert.Empty(t, study.Faults, "%s at %.1f", edge, x)
			curved := false
			for _, cs := range study.Net.Outline().Curves() {
				for _, c := range cs {
					curved = curved || c.Op != geom.LineTo
				}
			}
			assert.True(t, curved, "the edge is no polygon")
		}
	}
	// A flap with a round cut, hinged on a score between the ends of the cut.
	for _, deep := range []float64{5, 12, 30} {
		d := drawing(map[card.Role][]geom.Path{
			card.RoleCut:      {path(t, "M0 0H200V150H0Z"), path(t, "M30 60H70")},
			card.RoleMountain: {path(t, "M100 0V150"), path(t, "M30 60H70")},
		})
		var b geom.Builder
		d.Shapes[1].Path = b.Move(geom.Pt(30, 60)).Cubic(geom.Pt(30, 60+deep*1.33), geom.Pt(70, 60+deep*1.33), geom.Pt(70, 60)).Path()
		found, err := drawnbase.Read(d, asked(d))
		require.NoError(t, err)
		require.Empty(t, found.Questions)
		require.Len(t, found.Panels, 3, "a flap %.0f mm deep", deep)
		flap := math.Inf(1)
		for _, p := range found.Panels {
			flap = min(flap, math.Abs(p.Ring.Area()))
		}
		assert.InDelta(t, .6*1.33*40*deep, flap, .01*40*deep, "three fifths of the box of the curve")
	}
}

// Filled shapes give their edges where a drawing has no lines, and what is printed stays out.
func TestFilledShapesGiveTheirEdges(t *testing.T) {
	d := exchange.Drawing{Shapes: []exchange.Shape{{Fill: "#eeeeee", Path: path(t, "M0 0H120V120H0Z")}}}
	ask := asked(d)
	ask.Filled = pathops.LeaveOut
	_, err := drawnbase.Read(d, ask)
	assert.ErrorContains(t, err, "Say what its lines are for")
	ask.Filled = pathops.Use(card.RoleCut)
	found, err := drawnbase.Read(d, ask)
	require.NoError(t, err)
	require.NotNil(t, found.Base)
	require.Len(t, found.Leaves, 1)
	c, err := fold.New("Tag", *found.Base)
	require.NoError(t, err)
	net := fold.Of(c.Base)
	assert.Equal(t, "Back", net.Face(card.Back).Name, "one leaf has a front and a back")
	assert.Equal(t, fold.Inside, net.Face(card.Back).Side)
}

// Some panel always has faces, be it of any form, and each says which panel it is.
func TestSomePanelHasFaces(t *testing.T) {
	for name, d := range map[string]string{
		"a triangle":       "M0 0H160L80 140Z",
		"a thin triangle":  "M0 0L160 30L20 160Z",
		"a star":           "M80 0L95 60L160 60L108 98L128 160L80 122L32 160L52 98L0 60L65 60Z",
		"a ring of a base": "M0 0H160V160H0ZM30 30H130V130H30Z",
	} {
		drawn := drawing(map[card.Role][]geom.Path{card.RoleCut: path(t, d).Rings()})
		found, err := drawnbase.Read(drawn, asked(drawn))
		require.NoError(t, err, name)
		require.Empty(t, found.Questions, name)
		require.Len(t, found.Panels, 1, name)
		require.Len(t, found.Leaves, 1, name)
		assert.Equal(t, 0, found.Panels[0].Leaf, name)
		assert.Equal(t, "Front", found.Leaves[0].Outside, name)
		assert.NotZero(t, found.Panels[0].Ring.Winding(found.Leaves[0].At), "%s: the place of a leaf is on its panel", name)
		require.NotNil(t, found.Base, name)
		_, err = fold.New("A card", *found.Base)
		assert.NoError(t, err, name)
	}
}

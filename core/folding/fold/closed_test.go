package fold

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

func whys(b card.Base) string {
	out := ""
	for _, w := range StudyOf(b).Verdict.Why {
		out += w + " "
	}
	return out
}

func upright(role Role, x, h float64) card.OwnLine {
	return card.OwnLine{Role: role, From: geom.Pt(x, 0), To: geom.Pt(x, h)}
}

// What stands up and reaches over the closed card is said, by how much and where.
func TestPopUpsThatStickOutAreSaid(t *testing.T) {
	c, err := New("Trial", card.Base{Kind: card.TopFold, Width: 120, Height: 100, Stock: "cream-216"})
	require.NoError(t, err)
	for _, k := range []struct {
		strip AddStrip
		says  string
	}{
		{AddStrip{From: 40, To: 80, Up: 80, Out: 60}, "sticks out by 1 9/16 in (40 mm) at the bottom"},
		{AddStrip{From: 40, To: 80, Up: 50, Out: 40}, ""},
	} {
		d, err := card.Apply(c, k.strip)
		require.NoError(t, err)
		if k.says == "" {
			assert.Empty(t, whys(d.Base))
			continue
		}
		assert.Contains(t, whys(d.Base), k.says)
		assert.False(t, StudyOf(d.Base).Verdict.Folds)
	}
	v := card.Base{Kind: card.VFold, Width: 120, Height: 60, Stock: "cream-216", Measures: map[string]float64{"apex": 5, "long": 60, "angle": 35, "angle2": 70}}
	require.NoError(t, Check(v))
	assert.Contains(t, whys(v), "(4.9 mm) at the left edge")
	for _, k := range Kinds() {
		for _, size := range [][2]float64{{114.3, 120.65}, {130, 130}, {88.9, 215.9}, {210, 105}} {
			assert.Empty(t, whys(base(k.ID, size[0], size[1], nil)), "%s of the catalogue", k.ID)
		}
	}
}

// A tucked leaf that is too wide would run through the fold, leaves of a roll that widen
// too; and gates that meet do so unless one is folded after the other.
func TestLeavesInEachOthersWayAreFound(t *testing.T) {
	tri := card.Base{Kind: card.TriFold, Width: 100, Height: 140, Stock: "cream-216", Measures: map[string]float64{"tuck": 2}}
	assert.Empty(t, whys(tri))
	n := Of(tri)
	// The fold at 198 moved to 186: the leaf beyond it is 12 mm wider.
	fold := n.inView(n.Lines[1].From).X
	moved := tri
	moved.Lines = []card.OwnLine{upright(Guide, fold, 140), upright(Valley, fold-12, 140)}
	assert.Contains(t, whys(moved), "run through the fold")

	// A roll of three leaves: the one that is folded in first has to be the narrowest.
	roll := func(w ...float64) card.Base {
		b := card.Base{Kind: card.SideFold, Width: 120, Height: 100, Stock: "cream-216"}
		net := Of(b)
		b.Lines = []card.OwnLine{upright(Guide, 120, 100)}
		x := 0.0
		for _, v := range w {
			x += v
			b.Lines = append(b.Lines, upright(Valley, x, 100))
		}
		require.Less(t, x, net.Width)
		return b
	}
	assert.Contains(t, whys(roll(80, 76)), "run through the fold")
	assert.Empty(t, whys(roll(76, 80)), "the last leaf of 84 goes over")

	// Two gates that overlap: together they meet, one after the other they do not.
	gates := card.Base{Kind: card.SideFold, Width: 100, Height: 100, Stock: "cream-216"}
	gates.Lines = []card.OwnLine{upright(Guide, 100, 100), upright(Valley, 52, 100), upright(Valley, 148, 100)}
	s := StudyOf(gates)
	require.Empty(t, whys(gates))
	var stages []int
	for _, l := range s.Net.Lines {
		stages = append(stages, l.Stage)
	}
	assert.ElementsMatch(t, []int{0, 1}, stages, "one gate after the other")
	gates.Lines[2].Order = 1
	for _, l := range StudyOf(gates).Net.Lines {
		assert.Equal(t, map[bool]int{true: 0, false: 1}[s.Net.inView(l.From).X == 148], l.Stage, "as it was asked for")
	}
}

// A rest of a fold that both sides of are one panel, since guides took the fold away beside it,
// stops nothing.
func TestARestOfAFoldWithinAPanelIsLeftAlone(t *testing.T) {
	own := func(role card.Role, x0, y0, x1, y1 float64) card.OwnLine {
		return card.OwnLine{Role: role, From: geom.Pt(x0, y0), To: geom.Pt(x1, y1)}
	}
	b := card.Base{Kind: card.SideFold, Width: 127, Height: 177.8, Stock: "cream-300", Lines: []card.OwnLine{
		own(card.RoleGuide, 127, .5, 127, 26.643271), own(card.RoleCut, 124, 26.643271, 145.723717, 26.643271),
		own(card.RoleMountain, 142.723717, .5, 142.723717, 26.643271), own(card.RoleGuide, 127, 177.3, 127, 151.156729),
		own(card.RoleCut, 124, 177.3, 145.723717, 177.3), own(card.RoleCut, 124, 151.156729, 145.723717, 151.156729),
		own(card.RoleValley, 124, 177.3, 124, 151.156729), own(card.RoleMountain, 142.723717, 177.3, 142.723717, 151.156729),
		own(card.RoleValley, 145.723717, 177.3, 145.723717, 151.156729),
	}}
	s := StudyOf(b)
	within := 0
	for _, h := range s.Hinges {
		if h.A == h.B {
			within++
		}
	}
	assert.Positive(t, within)
	assert.NotContains(t, whys(b), "run through the fold")
}

package fold

import (
	"fmt"
	"math"
	"math/rand/v2"
	"os"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// The V stands up as its roles say, whatever its angles. Independently of the solver: of
// four folds that meet in a point and fold flat, those across from each other turn by the
// same angle (Kawasaki; Hull, Project Origami, activity 21), and where main fold and ridge
// turn against one another, tan(slanting/2) = ±tan(main/2)·cos((α−β)/2)/cos((α+β)/2), with
// α and β the sectors beside the main fold.
func TestEveryVFoldFoldsAsItsRolesSay(t *testing.T) {
	step := 7.5
	if os.Getenv("SOAK") != "" {
		step = 1
	}
	tried := 0
	for a := 15.0; a <= 75; a += step {
		for b := 15.0; b <= 75; b += step {
			base := card.Base{Kind: card.VFold, Width: 160, Height: 160, Stock: "cream-216", Measures: map[string]float64{"angle": a, "angle2": b, "long": 60, "apex": 40}}
			if Check(base) != nil {
				continue
			}
			tried++
			f := NewFolder(Of(base))
			poses := f.Sweep(60)
			v := f.Judge(poses)
			require.True(t, v.Folds, "%g and %g: %v", a, b, v.Why)
			require.True(t, v.Flat, "%g and %g: %v", a, b, v.Why)
			p := poses[20]
			// The sectors beside the main fold, which comes from the left.
			alpha, beta := math.Pi-a*math.Pi/180, math.Pi-b*math.Pi/180
			for i, h := range f.Hinges {
				main := math.Pi * 20 / 60
				slant := 2 * math.Atan(math.Tan(main/2)*math.Abs(math.Cos((alpha-beta)/2)/math.Cos((alpha+beta)/2)))
				want := map[bool]float64{true: main, false: slant}[f.main[i] || h.Role == Valley]
				assert.InDelta(t, want*sign(h.Role), p.Angles[i], 1e-5, "%g and %g: %s", a, b, h.Role)
			}
		}
	}
	t.Logf("%d pairs of angles", tried)
	assert.Greater(t, tried, 40)
}

// Every panel that hangs together with the root by folds is placed, whatever order its
// hinges come in: no fold of the tree comes apart.
func TestRandomOwnLinesLeaveEveryPanelAttached(t *testing.T) {
	rounds := 150
	if os.Getenv("SOAK") != "" {
		rounds = 5000
	}
	r := rand.New(rand.NewPCG(77, 1))
	kinds := []card.BaseKind{card.SideFold, card.TopFold, card.TriFold, card.GateFold, card.ZFold}
	for round := range rounds {
		b := card.Base{Kind: kinds[r.IntN(len(kinds))], Width: 100, Height: 100, Stock: "cream-216"}
		n := Of(b)
		for range 1 + r.IntN(4) {
			role := []Role{Mountain, Valley, Cut}[r.IntN(3)]
			at := 10 + (n.Width-20)*r.Float64()
			l := card.OwnLine{Role: role, From: geom.Pt(at, 0), To: geom.Pt(at, n.Height)}
			if r.IntN(2) == 0 {
				at = 10 + (n.Height-20)*r.Float64()
				l.From, l.To = geom.Pt(0, at), geom.Pt(n.Width, at)
			}
			if r.IntN(3) == 0 { // from edge to somewhere
				l.To = l.From.Lerp(l.To, .3+.6*r.Float64())
			}
			b.Lines = append(b.Lines, l)
		}
		f := NewFolder(Of(b))
		for range 3 { // hinges in another order
			r.Shuffle(len(f.Hinges), func(i, j int) {
				f.Hinges[i], f.Hinges[j] = f.Hinges[j], f.Hinges[i]
				f.main[i], f.main[j] = f.main[j], f.main[i]
			})
			f.loops, f.order = nil, nil
			f.tree()
			// Independently: what hangs together, by joining over all hinges.
			group := make([]int, len(f.Panels))
			for i := range group {
				group[i] = i
			}
			for range f.Panels {
				for _, h := range f.Hinges {
					g := min(group[h.A], group[h.B])
					group[h.A], group[h.B] = g, g
				}
			}
			for i := range f.Panels {
				require.Equal(t, group[i] == group[f.root], slices.Contains(f.order, i), "round %d: panel %d", round, i)
			}
		}
	}
}

// An own score that parts the back leaf beside the main fold pulls nothing apart.
func TestAnOwnScoreOnTheBackLeafFolds(t *testing.T) {
	s := StudyOf(card.Base{Kind: card.SideFold, Width: 100, Height: 100, Stock: "cream-216", Lines: []card.OwnLine{
		{Role: Mountain, From: geom.Pt(140, 0), To: geom.Pt(140, 100)},
	}})
	assert.Less(t, s.Verdict.Gap, 1e-6, "%v", s.Verdict.Why)
	for i, p := range s.Poses {
		for _, h := range s.Hinges {
			require.Less(t, p.Panels[h.A].Apply(Flat(h.From)).Sub(p.Panels[h.B].Apply(Flat(h.From))).Len(), 1e-6, "pose %d", i)
		}
	}
}

// Strips that share a cut line are cut there once, and nothing is said of it.
func TestStripsMayShareACut(t *testing.T) {
	c, err := New("Trial", card.Base{Kind: card.TopFold, Width: 120, Height: 100, Stock: "cream-216"})
	require.NoError(t, err)
	for _, s := range []AddStrip{{From: 20, To: 50, Up: 30, Out: 20}, {From: 50, To: 80, Up: 20, Out: 30}} {
		c, err = card.Apply(c, s)
		require.NoError(t, err)
	}
	study := StudyOf(c.Base)
	assert.Empty(t, study.Faults)
	assert.True(t, study.Verdict.Folds, "%v", study.Verdict.Why)
	cuts := 0
	for _, l := range study.Net.Lines {
		if l.Role == Cut {
			cuts++
			assert.InDelta(t, map[string]float64{"20": 50, "50": 60, "80": 50}[fmt.Sprintf("%.0f", l.From.X)], l.To.Sub(l.From).Len(), 1e-9)
		}
	}
	assert.Equal(t, 3, cuts)
}

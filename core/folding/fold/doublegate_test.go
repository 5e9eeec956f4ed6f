package fold

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// Four doors and the middle: they fold flat, cover the middle but for what is between them,
// and the cuts go from the free edges to the folds.
func TestADoubleGateHasFourDoors(t *testing.T) {
	for _, upper := range []float64{60, 40, 13} {
		b := base(card.DoubleGate, 120, 140, map[string]float64{"gate": 70, "between": 1, "upper": upper})
		require.NoError(t, Check(b))
		s := StudyOf(b)
		require.Empty(t, s.Verdict.Why)
		assert.True(t, s.Verdict.Folds && s.Verdict.Flat)
		require.Len(t, s.Panels, 5)
		assert.InDelta(t, 120, s.Net.Closed.W, 1e-9)
		assert.InDelta(t, 140, s.Net.Closed.H, 1e-9)
		front := s.Net.Face(card.Front)
		assert.Equal(t, "Upper left door", front.Name)
		assert.InDelta(t, 69.5, front.Width, 1e-9)
		assert.InDelta(t, upper, front.Height, 1e-9)
		covered, cuts := 0.0, 0.0
		for _, p := range s.Panels {
			covered += p.Ring.Area()
		}
		for _, l := range s.Net.Lines {
			if l.Role == Cut {
				cuts += l.To.Sub(l.From).Len()
			}
		}
		assert.InDelta(t, 119*140+120*140, covered, 1e-6)
		assert.InDelta(t, 119, cuts, 1e-9)
		for _, f := range s.Net.Faces {
			assert.GreaterOrEqual(t, s.PanelAt(f.OnSheet.Apply(geom.Pt(f.Width/2, f.Height/2))), 0, f.Name)
		}
	}
	low := base(card.DoubleGate, 120, 140, map[string]float64{"upper": 135})
	assert.ErrorContains(t, Check(low), "Upper doors")
}

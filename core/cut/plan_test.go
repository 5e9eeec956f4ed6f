package cut_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/cut"
	"sectilis/core/scene"
	"sectilis/core/sheet"
)

func TestScoresComeFirstAndHolesBeforeOutlines(t *testing.T) {
	c := coretest.Card(t)
	s, err := scene.Of(c)
	require.NoError(t, err)
	for _, sh := range sheet.Lay(c, s, sheet.Defaults(sheet.Sizes()[0]), nil).Sheets {
		passes := cut.Plan(sh)
		names := []string{}
		for _, p := range passes {
			names = append(names, p.Name)
			assert.Greater(t, p.Seconds, 0.0)
		}
		switch sh.Stock.ID {
		case "cream-300":
			assert.Equal(t, []string{"Score", "Outlines"}, names)
			assert.Equal(t, cut.ScoringTip, passes[0].Tool)
			assert.InDelta(t, 177.8, passes[0].Length, 1e-6, "the fold")
			assert.InDelta(t, 2*(254+177.8), passes[1].Length, 1e-6)
		case "cream-216":
			assert.Equal(t, []string{"Inside cuts", "Outlines"}, names, "the tag's hole first")
			assert.Less(t, passes[0].Length, passes[1].Length)
		default:
			assert.Equal(t, []string{"Outlines"}, names)
		}
	}
}

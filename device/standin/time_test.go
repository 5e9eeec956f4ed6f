package standin

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/coretest/sheettest"
	"sectilis/core/document/scene"
	"sectilis/core/format/hpgl"
	"sectilis/core/ground/geom"
	"sectilis/core/production/cut"
	"sectilis/core/production/sheet"
)

// What a plan says it takes is what the machine takes, within five in a hundred; and the
// steps together take what the passes do.
func TestTimesByPlanAreTrue(t *testing.T) {
	c := coretest.Card(t)
	s, err := scene.Of(c)
	require.NoError(t, err)
	for _, sh := range sheet.Lay(c, s, sheettest.Usual(sheet.Sizes()[0]), nil).Sheets {
		passes := cut.Plan(sh, cut.SettingsOf(sh.Stock))
		plan, steps, life := 0.0, 0.0, 0.0
		for _, p := range passes {
			plan += p.Seconds
		}
		at, speed := geom.Point{}, usualSpeed
		for _, step := range hpgl.Steps(passes, sh.Size.Height) {
			steps += step.Seconds
			for _, text := range bytesToInstructions(step.Text) {
				if len(text) < 2 {
					continue
				}
				args := numbers(text[2:])
				if text[:2] == "VS" {
					speed = args[0] * 10
				}
				if text[:2] != "PU" && text[:2] != "PD" {
					continue
				}
				way, pace := []geom.Point{at}, moveSpeed
				if text[:2] == "PD" {
					pace = speed
				}
				for i := 0; i+1 < len(args); i += 2 {
					way = append(way, geom.Pt(args[i]*unit, args[i+1]*unit))
				}
				for _, run := range runs(way) {
					length := 0.0
					for i := 1; i < len(run); i++ {
						length += run[i].Sub(run[i-1]).Len()
					}
					life += lasts(length, pace)
				}
				at = way[len(way)-1]
			}
		}
		assert.InDelta(t, plan, steps, 1e-6)
		assert.InEpsilon(t, life, plan, .05, sh.Stock.Name)
	}
}

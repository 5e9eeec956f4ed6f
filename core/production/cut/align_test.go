package cut_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/coretest/sheettest"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
	"sectilis/core/production/cut"
	"sectilis/core/production/sheet"
)

// Whichever way a blade points when a run begins, after the stroke in the waste it points
// as the first path has to begin; and the stroke is clear of pieces and marks.
func TestABladeIsTurnedInTheWasteBeforeItCuts(t *testing.T) {
	c := coretest.Card(t)
	s, err := scene.Of(c)
	require.NoError(t, err)
	r := rand.New(rand.NewPCG(3, 4))
	for _, sh := range sheet.Lay(c, s, sheettest.Usual(sheet.Sizes()[0]), nil).Sheets {
		with := cut.SettingsOf(sh.Stock)
		for n := range 5 {
			angle := 2 * math.Pi * r.Float64()
			l, ok := cut.Align(sh, with.Offset, angle, n)
			require.True(t, ok)
			var b geom.Builder
			box := b.Move(l.Points[0]).Line(l.Points[1]).Path().Bounds()
			assert.True(t, geom.Rect{W: sh.Size.Width, H: sh.Size.Height}.Contains(box.Grow(.4), 0))
			for _, p := range sh.Pieces {
				assert.False(t, p.Box.Overlaps(box.Grow(.8)), p.Name)
			}
			for _, m := range sh.Marks {
				assert.False(t, m.Path().Bounds().Overlaps(box.Grow(.5)))
			}
		}
		for _, pass := range cut.Plan(sh, with) {
			assert.Equal(t, pass.Tool >= cut.Blade && pass.Align.Points != nil, pass.Swivels() && pass.Align.Points != nil)
			if !pass.Swivels() || pass.Align.Points == nil {
				continue
			}
			// A blade that points anyhow is dragged along the stroke: a tractrix.
			a, b := pass.Align.Points[0], pass.Align.Points[1]
			h := 2 * math.Pi * r.Float64()
			tip := a.Sub(geom.Pt(with.Offset*math.Cos(h), with.Offset*math.Sin(h)))
			for k := 1; k <= 500; k++ {
				v := a.Lerp(b, float64(k)/500).Sub(tip)
				tip = tip.Add(v.Mul(1 - with.Offset/v.Len()))
			}
			v := b.Sub(tip)
			first := pass.HeadingAt(0, pass.Paths[0].Points[0])
			assert.InDelta(t, 0, math.Remainder(math.Atan2(v.Y, v.X)-first, 2*math.Pi), .01)
			// Moved to a bed, all of it turns.
			m := geom.Turn(.03).Then(geom.Shift(5, 7))
			moved := cut.Move([]cut.Pass{pass}, m)[0]
			assert.InDelta(t, 0, m.Apply(pass.Paths[0].Points[3]).Sub(moved.Paths[0].Points[3]).Len(), 1e-9)
			assert.InDelta(t, first+.03, moved.HeadingAt(0, moved.Paths[0].Points[0]), 1e-9)
		}
	}
}

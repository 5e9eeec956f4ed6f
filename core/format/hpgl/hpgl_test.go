package hpgl_test

import (
	"bytes"
	"strconv"
	"strings"
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

func TestPlansAreWrittenInTrueSize(t *testing.T) {
	c := coretest.Card(t)
	s, err := scene.Of(c)
	require.NoError(t, err)
	sh := sheet.Lay(c, s, sheettest.Usual(sheet.Sizes()[0]), nil).Sheets[0]
	passes := cut.Plan(sh, cut.SettingsOf(sh.Stock))
	var b bytes.Buffer
	require.NoError(t, hpgl.Write(&b, passes, sh.Size.Height))
	text := strings.ReplaceAll(b.String(), "\n", "")
	require.True(t, strings.HasPrefix(text, "IN;SP2;VS4;FS60;PU"), "the score comes first")
	require.True(t, strings.HasSuffix(text, "PU;SP0;"))

	// Read it back as a plotter would and compare the blade's box.
	box, pen, tool, down := geom.Rect{}, geom.Point{}, "", false
	for _, ins := range strings.Split(strings.TrimSuffix(text, ";"), ";") {
		op, args := ins[:2], strings.Split(ins[2:], ",")
		switch op {
		case "SP":
			tool = args[0]
		case "PU", "PD":
			down = op == "PD"
			for i := 0; i+1 < len(args); i += 2 {
				x, err := strconv.Atoi(args[i])
				require.NoError(t, err)
				y, err := strconv.Atoi(args[i+1])
				require.NoError(t, err)
				next := geom.Pt(float64(x)/hpgl.PerMM, sh.Size.Height-float64(y)/hpgl.PerMM)
				aside := false // the stroke in the waste that turns the blade
				for _, pass := range passes {
					for _, p := range pass.Align.Points {
						aside = aside || p.Sub(next).Len() < .03
					}
				}
				if down && tool == "3" && !aside {
					box = box.Union(geom.Rect{X: min(pen.X, next.X), Y: min(pen.Y, next.Y), W: max(pen.X, next.X) - min(pen.X, next.X), H: max(pen.Y, next.Y) - min(pen.Y, next.Y)})
				}
				pen = next
			}
		}
	}
	// The holder runs a blade's offset round the outline.
	offset := cut.SettingsOf(sh.Stock).Offset
	assert.InDelta(t, sh.Pieces[0].Box.W+2*offset, box.W, .03)
	assert.InDelta(t, sh.Pieces[0].Box.H+2*offset, box.H, .03)
	assert.InDelta(t, sh.Pieces[0].Box.X-offset, box.X, .03)

	steps := hpgl.Steps(passes, sh.Size.Height)
	assert.InDelta(t, passes[0].Length+passes[1].Length, steps[len(steps)-1].Run, 1e-6)
	for _, s := range steps {
		assert.Less(t, len(s.Text), 1000, "a small buffer can hold every step")
	}
}

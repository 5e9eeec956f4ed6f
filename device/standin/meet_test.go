package standin

import (
	"bytes"
	"context"
	"image/color"
	"image/png"
	"math/rand/v2"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/coretest"
	"sectilis/core/coretest/sheettest"
	"sectilis/core/document/scene"
	"sectilis/core/format/hpgl"
	"sectilis/core/format/raster"
	"sectilis/core/ground/gamut"
	"sectilis/core/ground/geom"
	"sectilis/core/production/cut"
	"sectilis/core/production/registration"
	"sectilis/core/production/sheet"
)

// eye looks at what lies on the mat.
type eye struct {
	laid *laid
	rng  *rand.Rand
}

func (e eye) See(_ context.Context, from, to geom.Point, n int) ([]float64, error) {
	return e.laid.see(from, to, n, e.rng), nil
}

// A sheet is printed as printers do, laid down as hands do, found and cut: the cut is to
// be where the print is, at every place of the piece's outline.
func TestPrintAndCutMeet(t *testing.T) {
	c := coretest.Card(t)
	s, err := scene.Of(c)
	require.NoError(t, err)
	var sh sheet.Sheet
	for _, one := range sheet.Lay(c, s, sheettest.Usual(sheet.Sizes()[0]), nil).Sheets {
		if one.Stock.ID == "cream-216" {
			sh = one // the label, with words on it
		}
	}
	require.Len(t, sh.Marks, 4)
	const perMM = 200 / 25.4
	canvas := raster.New(sh.Size.Width, sh.Size.Height, perMM, color.White, nil)
	require.NoError(t, canvas.Paint(sh.Front()))
	drawn := make([]registration.Mark, 4)
	for i, m := range sh.Marks {
		drawn[i] = registration.Mark{At: m.At, Second: m.Second}
	}
	outline := sh.Pieces[0].Outline
	seeds := uint64(12)
	if os.Getenv("SOAK") != "" {
		seeds = 200
	}
	sum, n, worst := 0.0, 0.0, 0.0
	for seed := range seeds {
		dir := t.TempDir()
		printer, err := NewPrinter(seed, dir)
		require.NoError(t, err)
		same, err := NewPrinter(seed, dir)
		require.NoError(t, err)
		raw, _, err := printer.lay(canvas.Image(), perMM, color.RGBA{255, 246, 224, 255}, gamut.Matt)
		require.NoError(t, err)
		page, err := png.Decode(bytes.NewReader(raw))
		require.NoError(t, err)
		lies := layDown(page, float64(page.Bounds().Dx())/sh.Size.Width, rand.New(rand.NewPCG(seed, 2)))
		expect := geom.Shift(corner, bed-corner-sh.Size.Height)
		found, err := registration.Find(t.Context(), eye{lies, rand.New(rand.NewPCG(seed, 3))}, drawn, registration.Shape{Ring: sheet.MarkRing, Stroke: sheet.MarkStroke, Dot: sheet.MarkDot}, expect)
		require.NoError(t, err, "seed %d", seed)

		// What the blade does, as it is sent.
		cutter := NewCutter(0, seed)
		cutter.heading = float64(seed) // a blade points anyhow
		passes := cut.Move(cut.Plan(sh, cut.SettingsOf(sh.Stock)), found.At)
		for _, step := range hpgl.Steps(passes, bed) {
			if step.Aside() {
				feed(cutter, sink(t), bytesToInstructions(step.Text)...)
				cutter.strokes = cutter.strokes[:0] // in the waste
				continue
			}
			feed(cutter, sink(t), bytesToInstructions(step.Text)...)
		}
		require.NotEmpty(t, cutter.strokes)

		// Where the print of the outline lies: the same printer makes the same fault.
		printed := outline.Transform(same.fault(sh.Size.Width, sh.Size.Height).Then(lies.at))
		for _, stroke := range cutter.strokes {
			for i, p := range stroke.points {
				if i%7 != 0 {
					continue
				}
				near, _ := printed.Nearest(p)
				sum, n, worst = sum+near.Distance, n+1, max(worst, near.Distance)
			}
		}
	}
	assert.LessOrEqual(t, sum/n, .08)
	assert.LessOrEqual(t, worst, .2)
	t.Logf("mean %.3f, worst %.3f mm", sum/n, worst)
}

func bytesToInstructions(text string) []string {
	var out []string
	for _, part := range bytes.Split([]byte(text), []byte(";")) {
		out = append(out, string(bytes.TrimSpace(part)))
	}
	return out
}

package fold

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// drawnBox is a pop-up box of its own lines: leaves of 150 × 110, the box 60 wide, up and out.
func drawnBox(t *testing.T, up, out, off float64) card.Base {
	t.Helper()
	line := func(role Role, x0, y0, x1, y1 float64) card.DrawnLine {
		var b geom.Builder
		return card.DrawnLine{Role: role, Path: card.NewDrawn(b.Move(geom.Pt(x0, y0)).Line(geom.Pt(x1, y1)).Path())}
	}
	const fold = 110.0
	return card.Base{Kind: card.FromLines, Width: 150, Height: fold, Stock: "cream-300", Drawn: &card.DrawnBase{Name: "Box", Width: 150, Height: fold,
		Outline: card.NewDrawn(geom.RectPath(geom.Rect{W: 150, H: 2 * fold})),
		Lines: []card.DrawnLine{
			line(Mountain, 0, fold, 45, fold), line(Mountain, 105, fold, 150, fold),
			line(Cut, 45, fold-out, 45, fold+up), line(Cut, 105, fold-out, 105, fold+up),
			line(Mountain, 45, fold-out, 105, fold-out), line(Valley, 45, fold+up-out+off, 105, fold+up-out+off), line(Mountain, 45, fold+up, 105, fold+up)},
		Leaves: []card.DrawnLeaf{{Box: geom.Rect{Y: fold, W: 150, H: fold}, Outside: "Front", Inside: "Inside top"}, {Box: geom.Rect{W: 150, H: fold}, Outside: "Back", Inside: "Inside bottom", OutsideTurn: 180}}}}
}

// A box whose middle score is off does not close; moved by as little as that takes, it does.
func TestScoresAreMovedSoThatABoxCloses(t *testing.T) {
	rng := rand.New(rand.NewPCG(18, 12))
	for range 60 {
		up, out := 20+40*rng.Float64(), 15+30*rng.Float64()
		off := (rng.Float64()*2 - 1) * .4
		b := drawnBox(t, up, out, off)
		require.NoError(t, Check(b))
		if math.Abs(off) > .05 {
			assert.False(t, StudyOf(b).Verdict.Folds, "off by %.3f mm it pulls apart", off)
		}
		lines, most, ok := Even(b)
		require.True(t, ok)
		assert.Greater(t, most, .1*math.Abs(off))
		assert.LessOrEqual(t, most, math.Abs(off), "no score moves farther than one was off")
		moved := *b.Drawn
		moved.Lines = lines
		// Cuts end where the scores are now: here they are as long as the box is wide.
		for i := range moved.Lines {
			if moved.Lines[i].Role != Cut {
				continue
			}
			x := moved.Lines[i].Path.Box().X
			top, bottom := moved.Lines[4].Path.Box().Y, moved.Lines[6].Path.Box().Y
			var g geom.Builder
			moved.Lines[i].Path = card.NewDrawn(g.Move(geom.Pt(x, top)).Line(geom.Pt(x, bottom)).Path())
		}
		b.Drawn = &moved
		v := StudyOf(b).Verdict
		assert.True(t, v.Folds, "up %.2f out %.2f off %.3f: %v", up, out, off, v.Why)
		_, most, ok = Even(b)
		assert.True(t, ok)
		assert.Less(t, most, 1e-5, "what closes is left as it is")
	}
}

// However its faces are turned, their corners lie on the corners of their leaf, and text runs as it is read
// from their own side.
func TestFacesOfADrawnBaseLieAsTheyAreTurned(t *testing.T) {
	for _, outside := range []int{0, 90, 180, 270} {
		for _, inside := range []int{0, 90, 180, 270} {
			b := drawnBox(t, 40, 30, 0)
			d := *b.Drawn
			d.Leaves = append([]card.DrawnLeaf{}, d.Leaves...)
			d.Leaves[0].OutsideTurn, d.Leaves[0].InsideTurn = outside, inside
			b.Drawn = &d
			if outside%180 != 0 { // the closed card lies on its side
				b.Width, b.Height = b.Height, b.Width
				d.Width, d.Height = d.Height, d.Width
			}
			n := Of(b)
			for id, turn := range map[card.FaceID]int{card.Front: outside, card.InsideFirst: inside} {
				f := n.Face(id)
				w, h := 150.0, 110.0
				if turn%180 != 0 {
					w, h = h, w
				}
				assert.InDelta(t, w, f.Width, 1e-9, "%s turned by %d", id, turn)
				assert.InDelta(t, h, f.Height, 1e-9)
				box := geom.RectPath(geom.Rect{W: f.Width, H: f.Height}).Transform(f.OnSheet).Bounds()
				assert.InDelta(t, 110, box.Y, 1e-9)
				assert.InDelta(t, 150, box.W, 1e-9)
				// Outside is seen as it lies, inside through the paper.
				assert.Equal(t, f.Side == Inside, f.OnSheet.Det() < 0, "%s turned by %d", id, turn)
				right := f.OnMap.Apply(geom.Pt(1, 0)).Sub(f.OnMap.Apply(geom.Point{}))
				assert.InDelta(t, float64(turn), math.Mod(360+math.Atan2(right.Y, right.X)*180/math.Pi, 360), 1e-6)
			}
		}
	}
}

// Two scores of one role close beside each other share a fold, and slits part nothing.
func TestScoresBesideEachOtherShareAFold(t *testing.T) {
	line := func(role Role, x float64) card.DrawnLine {
		var b geom.Builder
		return card.DrawnLine{Role: role, Path: card.NewDrawn(b.Move(geom.Pt(x, 0)).Line(geom.Pt(x, 100)).Path())}
	}
	var s geom.Builder
	b := card.Base{Kind: card.FromLines, Width: 80, Height: 100, Stock: "cream-300", Drawn: &card.DrawnBase{Name: "Book", Width: 80, Height: 100,
		Outline: card.NewDrawn(geom.RectPath(geom.Rect{W: 163, H: 100})), Lines: []card.DrawnLine{line(Mountain, 80), line(Mountain, 83),
			{Role: Cut, Slit: true, Path: card.NewDrawn(s.Move(geom.Pt(20, 40)).Line(geom.Pt(20, 60)).Path())}},
		Leaves: []card.DrawnLeaf{{Box: geom.Rect{X: 83, W: 80, H: 100}, Outside: "Front", Inside: "In 1"}, {Box: geom.Rect{W: 80, H: 100}, Outside: "Back", Inside: "In 2"}}}}
	study := StudyOf(b)
	require.Len(t, study.Panels, 3)
	assert.Empty(t, study.Faults)
	for _, l := range study.Net.Lines {
		if l.Role == Mountain {
			assert.True(t, l.Main)
			assert.InDelta(t, math.Pi/2, l.Stop, 1e-9)
		}
	}
	assert.True(t, study.Verdict.Folds, study.Verdict.Why)
	_, _, ok := Even(b)
	assert.False(t, ok, "a fold of two scores is left as it is")
}

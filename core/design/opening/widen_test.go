package opening_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/design/opening"
	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// own is where the pixels of the picture itself lie on the front, without what was made wider at the
// end.
func own(t *testing.T, c card.Card) (r geom.Rect) {
	t.Helper()
	x, y, w, h := seen(t, c, "i1")
	_, it := c.Find("i1")
	all := it.Photo.Edits
	if n := len(all) - 1; n >= 0 && all[n].Wider != nil {
		p := *it.Photo
		p.Edits = all[:n]
		pw, ph := p.Pixels()
		left, top, right, bottom := all[n].Wider.Margins(pw, ph)
		px, py := w/float64(pw+left+right), h/float64(ph+top+bottom)
		return geom.Rect{X: x + float64(left)*px, Y: y + float64(top)*py, W: float64(pw) * px, H: float64(ph) * py}
	}
	return geom.Rect{X: x, Y: y, W: w, H: h}
}

// However a photo lies and is cropped, widened it covers its face, and what it showed is where and as
// large as it was, to a pixel.
func TestAPhotoIsWidenedToItsFace(t *testing.T) {
	r := rand.New(rand.NewPCG(6, 1))
	done := 0
	for range 60 {
		c := photo(t)
		c = do(t, c, card.MoveItems{IDs: []string{"i1"}, DX: r.Float64()*40 - 20, DY: r.Float64()*60 - 10},
			opening.CropPhoto{ID: "i1", Fit: r.IntN(3) == 0, Zoom: 1 + r.Float64()*2, ShiftX: r.Float64() - .5, ShiftY: r.Float64() - .5})
		piece := r.IntN(2) == 0
		if piece {
			c = do(t, c, card.SetMade{IDs: []string{"i1"}, Made: card.Made{As: card.Cut, Stock: "satin-240", Bleed: 1}})
		}
		was := own(t, c)
		after, err := card.Apply(c, opening.WidenToFace{ID: "i1"})
		if err != nil {
			assert.ErrorContains(t, err, "lay it larger first")
			continue
		}
		done++
		box := fold.Ground(fold.StudyOf(c.Base).Net, card.Front)
		_, it := after.Find("i1")
		if piece {
			box = geom.Rect{W: 127, H: 177.8}
		}
		assert.InDelta(t, box.W, it.Photo.Width, 1e-6)
		assert.InDelta(t, box.H, it.Photo.Height, 1e-6)
		pixel := was.W / 300
		is := own(t, after)
		for i, v := range []float64{is.X - was.X, is.Y - was.Y, is.W - was.W, is.H - was.H} {
			assert.InDelta(t, 0, v, 1.5*pixel, "%d of %v, was %v", i, is, was)
		}
		again := do(t, after, opening.WidenToFace{ID: "i1"})
		_, twice := again.Find("i1")
		assert.LessOrEqual(t, len(twice.Photo.Edits), 1)
		assert.InDelta(t, is.X, own(t, again).X, 2*pixel)
	}
	assert.Greater(t, done, 25)
}

func TestWhatCannotBeWidenedSaysWhy(t *testing.T) {
	for _, k := range []struct {
		before card.Command
		id     string
		why    string
	}{
		{card.TurnItems{IDs: []string{"i1"}, Degrees: 10, About: geom.Pt(60, 50)}, "i1", "lay it straight first"},
		{card.LockItems{IDs: []string{"i1"}, Locked: true}, "i1", "locked"},
		{card.ResizeItems{IDs: []string{"i1"}, FX: .3, FY: .3, About: geom.Pt(60, 50)}, "i1", "lay it larger first"},
		{card.MoveItems{IDs: []string{"i1"}}, "i2", "no photo"},
	} {
		c := do(t, photo(t), k.before)
		after, err := card.Apply(c, opening.WidenToFace{ID: k.id})
		require.ErrorContains(t, err, k.why)
		assert.Equal(t, c, after)
	}
}

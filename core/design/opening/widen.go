package opening

import (
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// WidenToFace makes a photo as large as its face: what its picture shows stays where and as large as
// it is, and where that does not reach the picture is made wider.
type WidenToFace struct {
	ID string `json:"id"`
}

// Label implements card.Command.
func (WidenToFace) Label() string { return "Widen a photo to its face" }

// Apply implements card.Command.
func (k WidenToFace) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, []string{k.ID}, func(c *card.Card, f *card.Face) error {
		it, err := scene.PhotoOf(f, k.ID)
		if err != nil {
			return err
		}
		if err := f.Unlocked([]string{k.ID}); err != nil {
			return err
		}
		if math.Abs(it.Place.Turn) > 1e-6 || it.Place.Mirrored {
			return card.Refuse("id", "“%s” is turned or mirrored: lay it straight first.", it.Name)
		}
		net := fold.StudyOf(c.Base).Net
		to := fold.Ground(net, f.ID)
		if it.IsPiece() {
			nf := net.Face(f.ID)
			to = geom.Rect{W: nf.Width, H: nf.Height}
		}
		if to.Empty() {
			return card.Refuse("id", "“%s” lies on a face that the base does not have.", it.Name)
		}
		return widen(it, to)
	})
}

// widen makes a photo that lies straight a rectangle that fills a box of its face.
func widen(it *card.Item, to geom.Rect) error {
	p := it.Photo
	is := scene.Seen(*p, it.Bleeds()).Box
	is.X, is.Y = is.X+it.Place.X, is.Y+it.Place.Y
	var was card.Wider
	if n := len(p.Edits) - 1; n >= 0 && p.Edits[n].Wider != nil {
		was, p.Edits = *p.Edits[n].Wider, slices.Clone(p.Edits[:n])
	}
	w, h := p.Pixels()
	left, top, right, bottom := was.Margins(w, h)
	// The size of a pixel, and where the picture itself is.
	px, py := is.W/float64(w+left+right), is.H/float64(h+top+bottom)
	own := geom.Rect{X: is.X + float64(left)*px, Y: is.Y + float64(top)*py, W: float64(w) * px, H: float64(h) * py}
	p.Opening, p.Rim, p.Fit = nil, nil, false
	cover := to.Grow(it.Bleeds())
	share := func(mm, pixel float64, n int) float64 { return max(0, math.Ceil(mm/pixel-1e-6)) / float64(n) }
	wide := card.Wider{Seed: was.Seed, Left: share(own.X-cover.X, px, w), Right: share(cover.Right()-own.Right(), px, w),
		Top: share(own.Y-cover.Y, py, h), Bottom: share(cover.Bottom()-own.Bottom(), py, h)}
	if max(wide.Left, wide.Right, wide.Top, wide.Bottom) > 1 {
		return card.Refuse("id", "“%s” would have to grow by more than its own size at one side: lay it larger first.", it.Name)
	}
	left, top, right, bottom = wide.Margins(w, h)
	if left+top+right+bottom > 0 {
		p.Edits = append(slices.Clone(p.Edits), card.Edit{Wider: &wide})
	}
	mid := to.Centre()
	it.Place.X, it.Place.Y, p.Width, p.Height = card.Tidy(mid.X), card.Tidy(mid.Y), card.Tidy(to.W), card.Tidy(to.H)
	scene.KeepPicture(it, geom.Rect{X: own.X - float64(left)*px - mid.X, Y: own.Y - float64(top)*py - mid.Y,
		W: own.W + float64(left+right)*px, H: own.H + float64(top+bottom)*py})
	return nil
}

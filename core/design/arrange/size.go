package arrange

import (
	"math"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// MatchSize makes items as wide, as high or both as the one that was chosen
// first. Each keeps its middle; what keeps its proportions keeps them.
type MatchSize struct {
	IDs    []string `json:"ids"`
	Width  bool     `json:"width"`
	Height bool     `json:"height"`
}

// Label implements card.Command.
func (MatchSize) Label() string { return "Make the same size" }

// Apply implements card.Command.
func (k MatchSize) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, k.IDs, func(_ *card.Card, f *card.Face) error {
		if len(k.IDs) < 2 {
			return card.Refuse("ids", "Choose two items or more; the others become as large as the first.")
		}
		first, err := scene.Resolve(f, f.Item(k.IDs[0]))
		if err != nil {
			return err
		}
		for _, id := range k.IDs[1:] {
			s, err := scene.Resolve(f, f.Item(id))
			if err != nil {
				return err
			}
			fx, fy := 1., 1.
			if k.Width {
				fx = first.Box.W / s.Box.W
			}
			if k.Height {
				fy = first.Box.H / s.Box.H
			}
			if err := resize(f, s, fx, fy, s.At.Apply(s.Box.Centre())); err != nil {
				return err
			}
		}
		return nil
	})
}

// resize resizes one item; what cannot be stretched is scaled to fit both.
func resize(f *card.Face, s scene.Item, fx, fy float64, about geom.Point) error {
	if !s.FreeRatio {
		switch {
		case fx == 1:
			fx = fy
		case fy == 1:
			fy = fx
		default:
			fx = math.Min(fx, fy)
			fy = fx
		}
	}
	if !(fx > 0 && fy > 0) || math.IsInf(fx, 0) || math.IsInf(fy, 0) {
		return card.Refuse("size", "“%s” has no width or no height to change.", s.Name)
	}
	return f.Resize(card.ResizeItems{IDs: []string{s.ID}, FX: fx, FY: fy, About: about})
}

// extent is the box that an item is stretched to: the face, for ink on the base with its
// bleed, so that no white shows where the base is cut.
func extent(c *card.Card, f *card.Face, it *card.Item) geom.Rect {
	if it.On == "" && it.Made.As == card.Printed && (it.Form != nil || it.Photo != nil) {
		return fold.Ground(fold.StudyOf(c.Base).Net, f.ID)
	}
	return face(c, f)
}

// Stretch makes items exactly as wide as the face, as high or both, and lays
// them there. An item that stands aslant is refused.
type Stretch struct {
	IDs    []string `json:"ids"`
	Width  bool     `json:"width"`
	Height bool     `json:"height"`
}

// Label implements card.Command.
func (Stretch) Label() string { return "Stretch to the face" }

// Apply implements card.Command.
func (k Stretch) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, k.IDs, func(c *card.Card, f *card.Face) error {
		for _, id := range k.IDs {
			room := extent(c, f, f.Item(id))
			s, err := scene.Resolve(f, f.Item(id))
			if err != nil {
				return err
			}
			if !upright(s.Turn) {
				return card.Refuse("ids", "“%s” is turned by %g°. Turn it upright to stretch it.", s.Name, s.Turn)
			}
			if err := into(f, id, room, k.Width, k.Height); err != nil {
				return err
			}
		}
		return nil
	})
}

// upright reports whether a turn in degrees is a multiple of a quarter.
func upright(turn float64) bool {
	q := math.Mod(math.Abs(turn), 90)
	return min(q, 90-q) < 1e-6
}

// into gives an item the width of a box, its height or both, and lays it in the middle of
// the box that way. What keeps its proportions, or stands aslant, becomes as large as fits.
func into(f *card.Face, id string, box geom.Rect, width, height bool) error {
	s, err := scene.Resolve(f, f.Item(id))
	if err != nil {
		return err
	}
	fx, fy := 1., 1.
	if width {
		fx = box.W / s.Bounds.W
	}
	if height {
		fy = box.H / s.Bounds.H
	}
	switch {
	case !upright(s.Turn):
		fx = min(fx, fy)
		fy = fx
	case math.Abs(math.Mod(math.Abs(s.Turn), 180)-90) < 1e-6: // it lies on its side
		fx, fy = fy, fx
	}
	if err := resize(f, s, fx, fy, s.At.Apply(s.Box.Centre())); err != nil {
		return err
	}
	if s, err = scene.Resolve(f, f.Item(id)); err != nil {
		return err
	}
	d := box.Centre().Sub(s.Bounds.Centre())
	if !width {
		d.X = 0
	}
	if !height {
		d.Y = 0
	}
	return f.Move([]string{id}, d.X, d.Y)
}

package pathops

import (
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// MakeOneOutline gives a cut piece the outline that it has with all that is carved out of it and
// welded to it, with its bridges and what was thickened; what was part of it goes, and words
// are a shape from then on.
type MakeOneOutline struct {
	ID string `json:"id"`
}

// Label implements card.Command.
func (MakeOneOutline) Label() string { return "Make it one outline" }

// Apply implements card.Command.
func (k MakeOneOutline) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, []string{k.ID}, func(_ *card.Card, f *card.Face) error {
		it := f.Item(k.ID)
		if !it.IsPiece() || it.Form == nil && it.Words == nil {
			return card.Refuse("id", "“%s” is no cut shape or lettering, whose outline could be made one.", it.Name)
		}
		if err := f.Unlocked([]string{k.ID}); err != nil {
			return err
		}
		s, err := scene.Resolve(f, it)
		if err != nil {
			return err
		}
		o := operand{*it, s.Outline.Transform(s.At), s.Turn}
		if o.path = geom.Union(geom.NonZero, o.path); o.path.Empty() {
			return card.Refuse("id", "Nothing is left of “%s”.", it.Name)
		}
		for _, p := range f.Joined(k.ID) {
			defer f.Release(p.ID)
		}
		o.become(it, o.path)
		it.Made.Islands, it.Made.Thicken, it.Bridges = card.Islands{}, false, nil
		return nil
	})
}

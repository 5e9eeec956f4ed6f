package tiers

import (
	"sectilis/core/document/card"
	"sectilis/core/document/mat"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// MakeFeature makes what lies over a tiered picture stand out of it: a piece of its outline, grown by a
// margin, that shows the picture where it lies. Words are printed on that piece, a shape becomes it; a
// photo of the same picture that is cut out becomes a feature itself. Margin and Lift are mm.
type MakeFeature struct {
	ID     string  `json:"id"`
	Group  string  `json:"group"`
	Margin float64 `json:"margin"`
	Lift   float64 `json:"lift"` // foam under it
}

// Label implements card.Command.
func (MakeFeature) Label() string { return "Make a feature" }

// Apply implements card.Command.
func (k MakeFeature) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, []string{k.ID}, func(c *card.Card, f *card.Face) error {
		g, it := f.GroupByID(k.Group), f.Item(k.ID)
		base := tierOf(f, k.Group, 1)
		switch {
		case g == nil || g.Tiers == nil || base == nil:
			return card.Refuse("group", "That is no tiered picture.")
		case it.Group == k.Group || it.Cover != nil || it.Window != nil || it.Mat != nil || it.Joined() || it.Slot != nil || it.Lines != nil:
			return card.Refuse("id", "“%s” cannot stand out of the picture by itself: words, shapes and cut-outs can.", it.Name)
		case it.Photo != nil && it.Photo.Picture != base.Photo.Picture:
			return card.Refuse("id", "“%s” is another picture: lay it on the tiers as it is.", it.Name)
		case !(k.Margin >= 0 && k.Margin <= 50):
			return card.Refuse("margin", "A feature reaches up to 50 mm (1 31/32 in) past what it is made of.")
		}
		top := highest(f, k.Group)
		if it.Photo != nil {
			it.Group, it.Feature, it.On, it.Made.Lift = k.Group, true, top, k.Lift
			follow(it, base)
			return nil
		}
		return k.cut(c, f, it, base, top)
	})
}

// cut makes the piece of words or of a shape.
func (k MakeFeature) cut(c *card.Card, f *card.Face, it, base *card.Item, top string) error {
	s, err := scene.Resolve(f, it)
	if err != nil {
		return err
	}
	back, _ := base.Place.Map().Inverse()
	outline := mat.Solid(geom.Offset(s.Outline.Transform(s.At).Transform(back), k.Margin, geom.RoundCorner))
	whole := card.OutlineOf(base.Photo.Form())
	outline = geom.Intersection(geom.NonZero, outline, whole)
	if b := outline.Bounds(); outline.Empty() || min(b.W, b.H) < leastTier {
		return card.Refuse("id", "“%s” does not lie over the picture.", it.Name)
	}
	p := formed(outline, true)
	one := p.of(base, card.Tiers{Foam: k.Lift}, 2)
	one.Name, one.Tier, one.Feature = it.Name+", feature", 0, true
	words, id := it.Words != nil, it.ID
	made, err := c.Insert(f, top, []card.Item{one})
	if err != nil {
		return err
	}
	one.ID, one.On = made[0], top
	*f.Item(one.ID) = one
	if words {
		w := f.Item(id)
		w.On, w.Made = one.ID, card.Made{As: card.Printed}
		if w.Fill == (card.Fill{}) {
			w.Fill.Colour = card.First().Ink
		}
		return nil
	}
	f.Remove(id)
	return nil
}

// highest is the uppermost tier of a group.
func highest(f *card.Face, group string) string {
	out, most := "", 0
	for _, it := range f.Items {
		if it.Group == group && it.Tier > most && it.Tier <= card.MostTiers {
			out, most = it.ID, it.Tier
		}
	}
	if g := f.GroupByID(group); g.Tiers.Rule == card.Strips || g.Tiers.Rule == card.Grid {
		return tierOf(f, group, 1).ID
	}
	return out
}

// follow shows in a feature what the lowest tier shows where it lies.
func follow(it, base *card.Item) {
	back, _ := base.Place.Map().Inverse()
	p := it.Photo
	p.Picture, p.PixelWidth, p.PixelHeight, p.Fit = base.Photo.Picture, base.Photo.PixelWidth, base.Photo.PixelHeight, false
	if it.Place.Turn == base.Place.Turn && it.Place.Mirrored == base.Place.Mirrored {
		register(it, base, back.Apply(geom.Pt(it.Place.X, it.Place.Y)))
	}
}

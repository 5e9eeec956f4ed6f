package fold

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// leastCover is the smallest width and height of a mat on a panel, mm: smaller ones, as on tabs, are
// left out.
const leastCover = 8

// leastSeen is how much of a panel's side has to be in sight, 0 to 1, for it to be covered.
const leastSeen = .5

// PanelsOn are the outlines of the panels on a face that are in sight when the card is used, in the
// coordinates of the face and in the order in which they are read.
func (s *Study) PanelsOn(id card.FaceID) []geom.Path {
	f := s.Net.Face(id)
	back, ok := f.OnSheet.Inverse()
	if f.ID == "" || !ok {
		return nil
	}
	var out []geom.Path
	for i, p := range s.Panels {
		outside, inside := s.FacesOn(i)
		if f.Side == Outside && outside != id || f.Side == Inside && inside != id {
			continue
		}
		whole := geom.Join(append([]geom.Path{p.Ring}, p.Holes...)...)
		if s.Seen(i, f.Side, whole) < leastSeen {
			continue
		}
		own := whole.Transform(back)
		if own.Area() < 0 { // a face seen through the paper turns rings about
			own = own.Reverse()
		}
		out = append(out, own)
	}
	slices.SortStableFunc(out, func(a, b geom.Path) int {
		p, q := a.Bounds(), b.Bounds()
		return cmp.Or(cmp.Compare(math.Round(p.Y), math.Round(q.Y)), cmp.Compare(p.X, q.X))
	})
	return out
}

// covers is the outline of a mat that lies so far in from the edge of another, mm; empty where too
// little of it is left. Where it comes apart, it is the largest part.
func covers(of geom.Path, margin float64) geom.Path {
	in := geom.Offset(of, -margin, geom.MitreCorner)
	var best geom.Path
	for _, r := range in.Rings() {
		if r.Area() > max(0, best.Area()) {
			best = r
		}
	}
	if b := best.Bounds(); best.Empty() || min(b.W, b.H) < leastCover {
		return geom.Path{}
	}
	for _, r := range in.Rings() {
		if r.Area() < 0 && best.Covers(r.Bounds().Centre(), geom.NonZero) {
			best = geom.Join(best, r)
		}
	}
	return best
}

// formOf is the form of an outline: a rectangle where it is one, else drawn.
func formOf(p geom.Path) card.Form {
	b := p.Bounds()
	f := card.Form{Outline: card.Rectangle, Corner: card.Square, Width: card.Tidy(b.W), Height: card.Tidy(b.H)}
	if math.Abs(p.Area()-b.W*b.H) > 1e-6*b.W*b.H {
		f.Outline, f.Corner, f.Path = card.Free, "", card.NewDrawn(p.Transform(geom.Shift(-b.Centre().X, -b.Centre().Y)))
	}
	return f
}

// CoverPanels covers the panels of faces with mats, each stepping in from the one below; no layers
// take them away again. What lies on the base there is laid on them.
type CoverPanels struct {
	Faces  []card.FaceID     `json:"faces"`
	Layers []card.PanelLayer `json:"layers"`
}

// Label implements card.Command.
func (k CoverPanels) Label() string {
	if len(k.Layers) == 0 {
		return "Take the mats off the panels"
	}
	return "Lay mats on the panels"
}

// Apply implements card.Command.
func (k CoverPanels) Apply(c card.Card) (card.Card, error) {
	return card.Change(c, func(c *card.Card) error {
		study := StudyOf(c.Base)
		if len(k.Faces) == 0 {
			return card.Refuse("faces", "Choose a face.")
		}
		laid := 0
		for _, id := range k.Faces {
			f := c.Face(id)
			if f == nil || study.Net.Face(id).ID == "" {
				return card.Refuse("faces", "There is no face “%s”.", id)
			}
			was := f.Covered
			f.Covered = nil
			if len(k.Layers) > 0 {
				f.Covered = &card.PanelMats{Layers: slices.Clone(k.Layers)}
				if err := f.Covered.Check(); err != nil {
					return err
				}
			}
			n, err := layCover(c, f, study, true)
			if err != nil {
				return err
			}
			if laid += n; n == 0 && (was == nil || len(k.Layers) > 0) {
				f.Covered = nil
			}
		}
		if laid == 0 && len(k.Layers) > 0 {
			return card.Refuse("margin", "No panel of these faces leaves room for a mat of %s: take smaller margins.", say(leastCover, "mm"))
		}
		return nil
	})
}

// layCovers is a card with the mats of all covered faces as its base is now. It fails when that is more
// than a face holds.
func layCovers(c card.Card) (card.Card, error) {
	if !slices.ContainsFunc(c.Faces, func(f card.Face) bool { return f.Covered != nil }) {
		return c, nil
	}
	return card.Change(c, func(c *card.Card) error {
		study := StudyOf(c.Base)
		for i := range c.Faces {
			f := &c.Faces[i]
			if f.Covered == nil || study.Net.Face(f.ID).ID == "" {
				continue
			}
			if _, err := layCover(c, f, study, false); err != nil {
				return err
			}
		}
		return nil
	})
}

// layCover lays the mats on the panels of a face and returns how many there are. Anew, all panels are
// covered as the face says; else mats keep what a person has made of them, and panels that she has laid
// bare stay so.
func layCover(c *card.Card, f *card.Face, study *Study, anew bool) (int, error) {
	wanted := map[card.Cover]bool{}
	if f.Covered != nil {
		panels := study.PanelsOn(f.ID)
		for i, outline := range panels {
			under, inner := "", outline
			for l, layer := range f.Covered.Layers {
				at := card.Cover{Panel: i + 1, Layer: l + 1}
				if outline = covers(outline, layer.Margin); outline.Empty() {
					break
				}
				if !anew && i < f.Covered.Panels && f.CoverAt(at) == nil {
					continue // it was taken away
				}
				id, err := cover(c, f, at, outline, under, anew)
				if err != nil {
					return 0, err
				}
				under, inner, wanted[at] = id, outline, true
			}
			if anew && under != "" {
				f.RestOn(under, func(p geom.Point) bool { return inner.Covers(p, geom.NonZero) })
			}
		}
		f.Covered.Panels = max(len(panels), f.Covered.Panels)
	}
	for i := len(f.Items) - 1; i >= 0; i-- {
		if it := f.Items[i]; it.Cover != nil && !wanted[*it.Cover] {
			f.Release(it.ID)
		}
	}
	return len(wanted), nil
}

// cover lays one mat, with what lies on it, or makes it, and returns its id.
func cover(c *card.Card, f *card.Face, at card.Cover, outline geom.Path, under string, anew bool) (string, error) {
	form, mid := formOf(outline), outline.Bounds().Centre()
	made, fill := f.Covered.Of(at)
	it := f.CoverAt(at)
	if it == nil {
		name := fmt.Sprintf("Panel %d", at.Panel)
		if at.Layer > 1 {
			name = fmt.Sprintf("Panel %d, mat %d", at.Panel, at.Layer)
		}
		ids, err := c.Insert(f, under, []card.Item{{Name: name, Kind: card.Paper, On: under, Made: made, Fill: fill, Form: &form,
			Place: card.Place{X: card.Tidy(mid.X), Y: card.Tidy(mid.Y)}}})
		if err != nil {
			return "", err
		}
		it = f.Item(ids[0])
		it.Cover, it.On = &at, under
		return it.ID, nil
	}
	id := it.ID
	by := mid.Sub(geom.Pt(it.Place.X, it.Place.Y))
	for _, k := range f.Carried(id) {
		if o := f.Item(k); o.Mat == nil {
			o.Place.X, o.Place.Y = card.Tidy(o.Place.X+by.X), card.Tidy(o.Place.Y+by.Y)
		}
	}
	it.Form, it.Place = &form, card.Place{X: card.Tidy(mid.X), Y: card.Tidy(mid.Y)}
	if anew {
		it.Made, it.Fill = made, fill
	}
	return id, nil
}

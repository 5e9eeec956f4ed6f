package arrange

import (
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// CopyToFaces copies items, with their mats and all they carry, to the same place on other
// faces. Fit makes each copy as large as its face leaves between the margins that it has
// on the face it comes from.
type CopyToFaces struct {
	IDs   []string      `json:"ids"`
	Faces []card.FaceID `json:"faces"`
	Fit   bool          `json:"fit,omitempty"`
}

// Label implements card.Command.
func (CopyToFaces) Label() string { return "Copy to other faces" }

// Apply implements card.Command.
func (k CopyToFaces) Apply(c card.Card) (card.Card, error) {
	if len(k.Faces) == 0 {
		return c, card.Refuse("faces", "Choose a face.")
	}
	net := fold.StudyOf(c.Base).Net
	from, margins, err := k.margins(c, net)
	if err != nil {
		return c, err
	}
	for _, id := range k.Faces {
		if id == from {
			continue
		}
		nf := net.Face(id)
		if nf.ID == "" {
			return c, card.Refuse("faces", "There is no face “%s”.", id)
		}
		before := len(c.Face(id).Items)
		next, err := card.PutOnFace{IDs: k.IDs, Face: id, Copy: true}.Apply(c)
		if err != nil {
			return c, err
		}
		if c = next; !k.Fit {
			continue
		}
		// What was copied lies above all else, in the order of the originals.
		all := c.Face(id).Items[before:]
		made := make([]string, len(all))
		for i := range all {
			made[i] = all[i].ID
		}
		next, err = card.OnFace(c, made, func(c *card.Card, f *card.Face) error {
			for i, m := range margins {
				if m.set {
					if err := m.fit(f, made[i], nf); err != nil {
						return err
					}
				}
			}
			return nil
		})
		if err != nil {
			return c, err
		}
		c = next
	}
	return c, nil
}

// margin is how far an item lies from the edges of its face, mm; not set for what follows
// another one.
type margin struct {
	set                      bool
	left, top, right, bottom float64
}

// margins are the face of the items and their margins there, those of what goes with them
// included, in the order in which they lie.
func (k CopyToFaces) margins(c card.Card, net fold.Net) (from card.FaceID, out []margin, err error) {
	_, err = card.OnFace(c, k.IDs, func(_ *card.Card, f *card.Face) error {
		from = f.ID
		nf := net.Face(f.ID)
		all := f.Together(k.IDs)
		for i := range f.Items {
			it := &f.Items[i]
			if !slices.Contains(all, it.ID) {
				continue
			}
			var m margin
			if it.Mat == nil && !carriedAlong(f, it, all) {
				s, err := scene.Resolve(f, it)
				if err != nil {
					return err
				}
				b := s.Bounds
				m = margin{true, b.X, b.Y, nf.Width - b.Right(), nf.Height - b.Bottom()}
			}
			out = append(out, m)
		}
		return nil
	})
	return from, out, err
}

// carriedAlong reports whether an item lies on one of the others, but for its own mat.
func carriedAlong(f *card.Face, it *card.Item, all []string) bool {
	if !slices.Contains(all, it.On) {
		return false
	}
	under := f.Item(it.On)
	return under.Mat == nil || under.Mat.Of != it.ID
}

// fit gives an item the margins on a face.
func (m margin) fit(f *card.Face, id string, on fold.Face) error {
	box := geom.Rect{X: m.left, Y: m.top, W: on.Width - m.left - m.right, H: on.Height - m.top - m.bottom}
	if min(box.W, box.H) < 1 {
		return card.Refuse("faces", "“%s” has no room on %s between its margins. Copy it as it is.", f.Item(id).Name, on.Name)
	}
	return into(f, id, box, true, true)
}

package check

import (
	"math"

	"sectilis/core/design/arrange"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// edge is a side of the box of an item: how far from the same side of the face it lies, mm, inward, how long
// it is, its ends, the middle of the face's side, and the way outward.
type edge struct {
	name      string
	gap, long float64
	from, to  geom.Point
	at, out   geom.Point
}

// edges are the four sides of an item on its face.
func edges(f *scene.Face, it *scene.Item) [4]edge {
	b := it.Bounds
	c := b.Centre()
	return [4]edge{
		{"left", b.X, b.H, geom.Pt(b.X, b.Y), geom.Pt(b.X, b.Bottom()), geom.Pt(0, c.Y), geom.Pt(-1, 0)},
		{"right", f.Width - b.Right(), b.H, geom.Pt(b.Right(), b.Y), geom.Pt(b.Right(), b.Bottom()), geom.Pt(f.Width, c.Y), geom.Pt(1, 0)},
		{"top", b.Y, b.W, geom.Pt(b.X, b.Y), geom.Pt(b.Right(), b.Y), geom.Pt(c.X, 0), geom.Pt(0, -1)},
		{"bottom", f.Height - b.Bottom(), b.W, geom.Pt(b.X, b.Bottom()), geom.Pt(b.Right(), b.Bottom()), geom.Pt(c.X, f.Height), geom.Pt(0, 1)},
	}
}

// strip is a millimetre to either side of an edge.
func (e edge) strip() *geom.Rect {
	r := geom.Rect{X: min(e.from.X, e.to.X), Y: min(e.from.Y, e.to.Y), W: math.Abs(e.to.X - e.from.X), H: math.Abs(e.to.Y - e.from.Y)}.Grow(1)
	return &r
}

// straight reports whether the outline of an item runs along an edge of its box.
func (e edge) straight(it *scene.Item) bool {
	n, ok := it.Outline.Transform(it.At).Nearest(e.from.Lerp(e.to, .25))
	return ok && n.Distance <= .05
}

// overFold finds ink on the base that ends at a fold while nothing goes on beyond it.
func overFold(in *Input) (out []Finding) {
	in.each(func(f *scene.Face, it *scene.Item, doc *card.Item) {
		if it.Piece || it.On != "" || it.Joined != "" || it.Slot != "" || it.Role != "" || doc.Words != nil || !inked(it) {
			return
		}
		for _, e := range edges(f, it) {
			if e.gap > nearly || e.long < 10 || !onFold(f, e.at) || !e.straight(it) {
				continue
			}
			next, ok := beyondEdge(f, e)
			if !ok || in.goesOn(f, doc, next, e) {
				continue
			}
			found := of(Note, f, it, max(0, e.gap), in.offFold(doc, next, e), "ends at the fold to %s. Where that is half a millimetre off, a strip of it shows on the other side, or bare paper on this one.", next.Name)
			found.At = e.strip()
			out = append(out, found)
			return
		}
	})
	return out
}

// onFold reports whether a place of a face lies on a fold of the base.
func onFold(f *scene.Face, at geom.Point) bool {
	for _, l := range f.Folds {
		var g geom.Builder
		if n, ok := g.Move(l.From).Line(l.To).Path().Nearest(at); l.Role.Folds() && ok && n.Distance < .05 {
			return true
		}
	}
	return false
}

// beyondEdge is the face on the other side of an edge.
func beyondEdge(f *scene.Face, e edge) (fold.Neighbour, bool) {
	past := e.at.Add(e.out)
	for _, n := range f.Neighbours {
		if (geom.Rect{W: n.Width, H: n.Height}).Contains(inNeighbour(n, past), .1) {
			return n, true
		}
	}
	return fold.Neighbour{}, false
}

// inNeighbour is a place of a face in its neighbour's coordinates, as a box without size.
func inNeighbour(n fold.Neighbour, p geom.Point) geom.Rect {
	back, _ := n.At.Inverse() // a neighbour is turned at most
	q := back.Apply(p)
	return geom.Rect{X: q.X, Y: q.Y}
}

// goesOn reports whether ink of the same fill, or another picture, goes on beyond an edge.
func (in *Input) goesOn(f *scene.Face, doc *card.Item, next fold.Neighbour, e edge) bool {
	other := in.Scene.Face(next.ID)
	if other == nil {
		return false
	}
	past := inNeighbour(next, e.at.Add(e.out))
	docs := in.Card.Face(next.ID)
	for i := range other.Items {
		o := &other.Items[i]
		d := docs.Item(o.ID)
		if d == nil || o.Piece || o.On != "" || !o.Bounds.Contains(past, .1) {
			continue
		}
		if d.Photo != nil && doc.Photo != nil || d.Photo == nil && doc.Photo == nil && d.Fill == doc.Fill {
			return true
		}
	}
	return false
}

// offFold are the mends of ink that ends at a fold: a background is printed beyond it too, all else ends a
// millimetre before it.
func (in *Input) offFold(doc *card.Item, next fold.Neighbour, e edge) []Mend {
	if !doc.Background {
		by := e.out.Mul(-(1 - e.gap))
		return []Mend{{Says: "End it 1 mm before the fold", Do: []Step{{"moveItems", card.MoveItems{IDs: []string{doc.ID}, DX: by.X, DY: by.Y}}}}}
	}
	if other := in.Card.Face(next.ID); other == nil || doc.Photo != nil || len(other.Items) > 0 {
		return nil // what lies there would be printed over another ground
	}
	return []Mend{{Says: "Print " + next.Name + " so too", Do: []Step{{"setBackground", arrange.SetBackground{Faces: []card.FaceID{next.ID}, Fill: doc.Fill}}}}}
}

package check

import (
	"fmt"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/wording"
)

// runsOff finds printed words that run off the face, or the piece, that they are printed on.
func runsOff(in *Input) (out []Finding) {
	in.each(func(f *scene.Face, it *scene.Item, doc *card.Item) {
		if doc.Words == nil || it.Piece || it.Joined != "" {
			return
		}
		if found, ok := in.offEdge(f, it); ok {
			out = append(out, found)
		}
	})
	return out
}

// offEdge says where words run off what they are printed on and by how much; ok is false
// where they do not.
func (in *Input) offEdge(f *scene.Face, it *scene.Item) (found Finding, ok bool) {
	name, shape := f.Name, f.Shape
	for i := range f.Items {
		if on := &f.Items[i]; it.On != "" && on.ID == it.On {
			name, shape = "“"+on.Name+"”", on.Outline.Transform(on.At)
		}
	}
	box, b := shape.Bounds(), it.Bounds
	far := 0.0
	var sides []string
	for _, s := range []struct {
		where string
		by    float64
	}{{"left", box.X - b.X}, {"right", b.Right() - box.Right()}, {"top", box.Y - b.Y}, {"bottom", b.Bottom() - box.Bottom()}} {
		if s.by > small {
			far = max(far, s.by)
			sides = append(sides, fmt.Sprintf("by %s at the %s", say(s.by), s.where))
		}
	}
	if len(sides) == 0 {
		whole := it.Outline.Transform(it.At)
		if geom.Difference(geom.NonZero, whole, shape).Area() < small*small {
			return Finding{}, false
		}
		return of(Caution, f, it, 0, nil, "runs off %s: what is beside its edge is cut off.", name), true
	}
	var mends []Mend
	if dx, dy := inward(box, b); b.W <= box.W && b.H <= box.H && in.staysOn(f, it, dx, dy) {
		mends = []Mend{{Says: "Move it in", Do: []Step{{"moveItems", card.MoveItems{IDs: []string{it.ID}, DX: dx, DY: dy}}}}}
	}
	return of(Caution, f, it, far, mends, "runs off %s %s; what is beside it is cut off.", name, wording.And(sides)), true
}

// inward is how far a box is moved to lie within another, if it has room there, mm.
func inward(room, b geom.Rect) (dx, dy float64) {
	return card.Tidy(max(0, room.X-b.X) - max(0, b.Right()-room.Right())), card.Tidy(max(0, room.Y-b.Y) - max(0, b.Bottom()-room.Bottom()))
}

// staysOn reports whether ink that is moved stays on what it is printed on, and off pieces that it would be
// printed on, or hidden by, there.
func (in *Input) staysOn(f *scene.Face, it *scene.Item, dx, dy float64) bool {
	under := map[string]bool{}
	for on := f.Carrier(it); on != nil; on = f.Carrier(on) {
		under[on.ID] = true
	}
	b := it.Bounds
	b.X, b.Y = b.X+dx, b.Y+dy
	for i := range f.Items {
		if o := &f.Items[i]; o.Piece && !under[o.ID] && o.Bounds.Overlaps(b) {
			return false
		}
	}
	moved, err := card.Apply(in.Card, card.MoveItems{IDs: []string{it.ID}, DX: dx, DY: dy})
	if err != nil {
		return true // what is locked is not moved, and says so
	}
	_, now := moved.Find(it.ID)
	return now.On == it.On
}

package check

import (
	"sectilis/core/design/points"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/nodes"
)

// nearlyMeets is how near the two ends of a cut are to each other, mm, that were likely meant to meet.
const nearlyMeets = 2.0

// openCut finds cuts that go round something and do not close.
func openCut(in *Input) (out []Finding) {
	in.each(func(f *scene.Face, it *scene.Item, doc *card.Item) {
		if doc.Lines == nil || it.Role != fold.Cut && it.Role != fold.Kiss {
			return
		}
		own, err := points.Of(doc)
		if err != nil {
			return // its points cannot be changed
		}
		for ring, r := range own.Rings {
			last := len(r.Nodes) - 1
			if r.Closed || last < 2 {
				continue
			}
			a, b := r.Nodes[0].At, r.Nodes[last].At
			gap := b.Sub(a).Len()
			// What is hardly longer than its gap goes round nothing.
			if gap > nearlyMeets || nodes.Path(own.Rings[ring:ring+1]).Length() < 8*gap {
				continue
			}
			found := of(Caution, f, it, gap, []Mend{{Says: "Close it", Do: []Step{{"joinPoints", points.JoinPoints{ID: it.ID, A: nodes.Ref{Ring: ring}, B: nodes.Ref{Ring: ring, Node: last}}}}}},
				"is cut round something and does not close: %s are left between its ends, and what it cuts out hangs on by that.", say(gap))
			p, q := it.At.Apply(a), it.At.Apply(b)
			at := geom.Rect{X: min(p.X, q.X), Y: min(p.Y, q.Y), W: max(p.X, q.X) - min(p.X, q.X), H: max(p.Y, q.Y) - min(p.Y, q.Y)}.Grow(1)
			found.At = &at
			out = append(out, found)
			return
		}
	})
	return out
}

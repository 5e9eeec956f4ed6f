package assembly

import (
	"fmt"
	"slices"

	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/wording"
)

// buildUps puts pieces on one another off the card, then on the base: a piece goes on its carrier when it
// has all that it carries itself.
func (p *planner) buildUps() {
	faces := make([]*scene.Face, 0, len(p.scene.Faces))
	for i := range p.scene.Faces {
		faces = append(faces, &p.scene.Faces[i])
	}
	// The inside comes first: it is reached while the card lies open.
	slices.SortStableFunc(faces, func(a, b *scene.Face) int {
		rank := func(f *scene.Face) int {
			if f.Side == fold.Inside {
				return 0
			}
			return 1
		}
		return rank(a) - rank(b)
	})
	for _, f := range faces {
		for i := range f.Items {
			if it := &f.Items[i]; it.Piece && it.On == "" {
				p.build(f, it)
			}
		}
	}
}

// build makes the steps of what a piece carries, and then that which lays it down.
func (p *planner) build(f *scene.Face, it *scene.Item) {
	var carried []string
	for i := range f.Items {
		if o := &f.Items[i]; o.Piece && o.On == it.ID {
			p.build(f, o)
			carried = append(carried, p.built[o.ID])
		}
	}
	needs := append(p.has("cut"), carried...)
	on, name := f.Carrier(it), f.Name
	if on != nil {
		name = "“" + on.Name + "”"
	} else {
		needs = append(needs, p.has("fold")...)
	}
	// What lies below it on the same carrier, and is covered by it, goes on before.
	for i := range f.Items {
		o := &f.Items[i]
		if o.ID == it.ID {
			break
		}
		if o.Piece && o.On == it.On && o.Bounds.Overlaps(it.Bounds) && p.built[o.ID] != "" {
			needs = append(needs, p.built[o.ID])
		}
	}
	s := Step{ID: "lay-" + it.ID, Kind: Glue, Title: fmt.Sprintf("Glue “%s” on %s", it.Name, name), Minutes: 2, Needs: p.has(needs...),
		Piece: it.ID, On: it.On, Face: f.ID, Measures: p.measures(f, it, on)}
	s.Desk = []Thing{p.thing(it, carried)}
	if on != nil {
		s.Desk = append(s.Desk, Thing{Name: on.Name, Says: p.from(on.ID), Item: on.ID, Sheet: p.of[on.ID]})
	}
	s.Says, s.Does = "glued flat", fmt.Sprintf("Spread glue thinly over the back of “%s”, to its edges, and lay it on %s. Press it down from the middle outward.", it.Name, name)
	if it.Lift > 0 {
		s.Kind, s.Foam, s.Pads, s.Minutes = Raise, it.Lift, len(Pads(it)), 4
		pads := wording.Counted(s.Pads, "pad", "pads")
		s.Title = fmt.Sprintf("Raise “%s” on foam", it.Name)
		s.Says = fmt.Sprintf("%s of %g mm, on %s", pads, it.Lift, name)
		s.Does = fmt.Sprintf("Stick %s of foam, %g mm thick, to the back of “%s”, a little in from its edges. Set it on %s by its lower edge and press.", pads, it.Lift, it.Name, name)
		s.Desk = append(s.Desk, Thing{Name: fmt.Sprintf("Foam, %g mm", it.Lift), Says: fmt.Sprintf("%s of %.0f × %.0f mm", pads, padWide, padHigh)})
	}
	s.Why = why(it, on, len(carried))
	p.built[it.ID] = p.add(s)
}

func (p *planner) thing(it *scene.Item, carried []string) Thing {
	t := Thing{Name: it.Name, Says: p.from(it.ID), Item: it.ID, Sheet: p.of[it.ID]}
	if len(carried) > 0 {
		t.Made, t.Says = carried[len(carried)-1], "with what is on it already"
	}
	return t
}

func why(it, on *scene.Item, carried int) string {
	switch {
	case it.Lift > 0 && carried > 0:
		return "It is built up flat on the desk first; once it stands on foam, pressing on it would crush that."
	case it.Lift > 0:
		return "What lies flat below it has to be there first; once it is raised, nothing fits beneath."
	case on != nil:
		return "It is easier to lay straight off the card, on the desk, than on the card itself."
	case carried > 0:
		return "It goes on in one with all that it carries, so that these keep their places to each other."
	}
	return "The base is folded and lies open: it is reached from all sides."
}

// measures are how far a piece lies from the edges of what it is laid on, or how far that shows round it.
func (p *planner) measures(f *scene.Face, it, on *scene.Item) []Measure {
	box := geom.Rect{W: f.Width, H: f.Height}
	what := f.Name
	if on != nil {
		box, what = on.Bounds, on.Name
	}
	b := it.Bounds
	left, right, top, below := b.X-box.X, box.Right()-b.Right(), b.Y-box.Y, box.Bottom()-b.Bottom()
	const same = .1
	if near(left, right, same) && near(top, below, same) && near(left, top, same) && left > 0 {
		return []Measure{{fmt.Sprintf("%s shows all round", what), left, allRound}}
	}
	out := []Measure{{"From its left edge", left, leftEdge}}
	if near(left, right, same) {
		out[0].Name = "From left and right"
	}
	if near(top, below, same) {
		return append(out, Measure{"From above and below", below, lowerEdge})
	}
	return append(out, Measure{"From its lower edge", below, lowerEdge})
}

func near(a, b, tol float64) bool { return a-b < tol && b-a < tol }

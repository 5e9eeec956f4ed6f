package check

import (
	"math"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

const (
	// doubled is how near one line is to another that it likely doubles, mm, and doubledFor how far
	// they run so.
	doubled    = .25
	doubledFor = 3.0
	// leastCut is the shortest line that a trailing blade cuts cleanly, mm.
	leastCut = .6
)

// worked are lines on a carrier that a tool follows.
type worked struct {
	it   *scene.Item
	role card.Role
	path geom.Path
}

// doubledLines finds lines that run along another of their carrier, or along its edge.
func doubledLines(in *Input) (out []Finding) {
	for i := range in.Scene.Faces {
		f := &in.Scene.Faces[i]
		lines := map[string][]worked{}
		edges := map[string]geom.Path{"": in.Scene.Net.Outline().Transform(back(f))}
		for _, l := range in.Scene.Net.FoldsOn(f.ID) {
			var b geom.Builder
			lines[""] = append(lines[""], worked{nil, l.Role, b.Move(l.From).Line(l.To).Path()})
		}
		for j := range f.Items {
			it := &f.Items[j]
			if it.Piece {
				edges[it.ID] = it.Outline.Transform(it.At)
			}
			if it.Role == "" || it.Role == fold.Guide || it.Role == fold.Pen {
				continue
			}
			path := it.Outline.Transform(it.At)
			if at, ok := along(path, edges[it.On]); ok {
				found := of(Caution, f, it, 0, nil, "runs along the edge of what it is on: it is cut there anyway.")
				found.At = &at
				out = append(out, found)
				continue
			}
			for _, o := range lines[it.On] {
				if at, ok := along(path, o.path); ok {
					name := "a line of the base"
					if o.it != nil {
						name = "“" + o.it.Name + "”"
					}
					found := of(Caution, f, it, 0, []Mend{{Says: "Take it out", Do: []Step{{"removeItems", card.RemoveItems{IDs: []string{it.ID}}}}}},
						"runs along %s: the tool would go there twice.", name)
					found.At = &at
					out = append(out, found)
					break
				}
			}
			lines[it.On] = append(lines[it.On], worked{it, it.Role, path})
		}
	}
	return out
}

func back(f *scene.Face) geom.Affine {
	m, _ := f.OnSheet.Inverse()
	return m
}

// along reports whether a path runs along another for a stretch, and where.
func along(p, other geom.Path) (at geom.Rect, ok bool) {
	return beside(p, other, -1, doubled, doubledFor)
}

// beside reports whether a path runs beside another for a stretch, more than least and at most most off
// it, and where; all are mm.
func beside(p, other geom.Path, least, most, stretch float64) (at geom.Rect, ok bool) {
	if other.Empty() || !p.Bounds().Grow(most+.01).Overlaps(other.Bounds().Grow(.01)) {
		return at, false
	}
	const step = .5
	for _, l := range p.Flatten(.05) {
		ran := 0.0
		from := geom.Point{}
		points := l.Points
		if l.Closed {
			points = append(points[:len(points):len(points)], points[0])
		}
		for i := 1; i < len(points); i++ {
			a, b := points[i-1], points[i]
			n := max(1, int(math.Ceil(b.Sub(a).Len()/step)))
			for k := range n {
				q := a.Lerp(b, (float64(k)+.5)/float64(n))
				near, found := other.Nearest(q)
				if !found || near.Distance > most || near.Distance <= least {
					ran = 0
					continue
				}
				if ran == 0 {
					from = q
				}
				if ran += b.Sub(a).Len() / float64(n); ran >= stretch {
					return geom.Rect{X: min(from.X, q.X), Y: min(from.Y, q.Y), W: math.Abs(q.X - from.X), H: math.Abs(q.Y - from.Y)}.Grow(1), true
				}
			}
		}
	}
	return at, false
}

// shortCuts finds pieces and cut lines with a ring or a stroke that is too short for a blade.
func shortCuts(in *Input) (out []Finding) {
	in.each(func(f *scene.Face, it *scene.Item, _ *card.Item) {
		if !it.Piece && it.Role != fold.Cut && it.Role != fold.Kiss && it.Role != fold.Perforation {
			return
		}
		for _, r := range it.Outline.Rings() {
			long := 0.0
			for _, cs := range r.Curves() {
				for _, c := range cs {
					if long += c.Length(); long >= leastCut {
						break
					}
				}
			}
			if long < leastCut {
				at := r.Transform(it.At).Bounds().Grow(1)
				found := of(Caution, f, it, leastCut-long, nil, "has a cut of %s: shorter than %s, a blade tears rather than cuts.", say(long), say(leastCut))
				found.At = &at
				out = append(out, found)
				return
			}
		}
	})
	return out
}

// nearFor is how far cuts run close to each other before that is told, mm.
const nearFor = 2.0

// nearCuts finds cut lines that run closer to another cut of their carrier, or to its edge, than its stock
// bears.
func nearCuts(in *Input) (out []Finding) {
	for i := range in.Scene.Faces {
		f := &in.Scene.Faces[i]
		docs := in.Card.Face(f.ID)
		var lines []worked
		for j := range f.Items {
			it := &f.Items[j]
			if it.Role != fold.Cut || docs.Item(it.ID) == nil {
				continue
			}
			path := it.Outline.Transform(it.At)
			stock, _ := card.StockByID(scene.StockUnder(docs, docs.Item(it.ID), in.Card.Base.Stock))
			for _, o := range in.cutBeside(f, it, lines) {
				if at, ok := beside(path, o.path, doubled, stock.Bears(), nearFor); ok {
					found := of(Caution, f, it, 0, nil, "runs closer to %s than %s bears, which is %s.", o.name(), stock.Name, say(stock.Bears()))
					found.At = &at
					out = append(out, found)
					break
				}
			}
			lines = append(lines, worked{it, it.Role, path})
		}
	}
	return out
}

// cutBeside is what is cut of the carrier of a line: its edge, and of some lines those on it.
func (in *Input) cutBeside(f *scene.Face, it *scene.Item, lines []worked) []worked {
	edge := in.Scene.Net.Outline().Transform(back(f))
	if on := f.Carrier(it); on != nil {
		edge = on.Outline.Transform(on.At)
	}
	out := []worked{{nil, fold.Cut, edge}}
	for _, l := range lines {
		if l.it.On == it.On {
			out = append(out, l)
		}
	}
	return out
}

// name is what a line, or the edge, is called.
func (w worked) name() string {
	if w.it == nil {
		return "the edge"
	}
	return "“" + w.it.Name + "”"
}

package scene

import (
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// Homes are, by item, the panels that items are on: that on which most of the outline lies
// on its own face, or that of what carries it; -1 for an item beside the base.
func (s *Scene) Homes(c card.Card) map[string]int {
	study := fold.StudyOf(c.Base)
	out := map[string]int{}
	for i := range s.Faces {
		f := &s.Faces[i]
		for j := range f.Items {
			it := &f.Items[j]
			home, ok := out[it.On]
			switch {
			case ok && it.On != "":
			case it.Outline.Empty() || math.Abs(it.Outline.Area()) < 1e-6: // a line
				home = study.PanelAt(f.OnSheet.Apply(it.At.Apply(it.Box.Centre())))
			default:
				home = study.PanelOf(study.Net, f.ID, it.Outline.Transform(it.At).Transform(f.OnSheet))
			}
			out[it.ID] = home
		}
	}
	return out
}

// Heap is the closed card as layers of paper and foam, from Front's eye backward.
type Heap struct {
	cell   float64
	box    geom.Rect
	across int
	layers []sheetLayer
	// place is the place of each panel among the leaves; -1 where their order is not known.
	place []int
}

// sheetLayer is a leaf of the base, or a piece in the gap before or behind a leaf: leaf k is at
// 2k+1, the gap before it at 2k.
type sheetLayer struct {
	at    int
	face  card.FaceID // of a piece
	item  *Item       // of a piece
	panel int
	path  geom.Path // as it lies closed
	thick float64
	rows  []span
}

// span is a stretch of cells of a row, from first up to end.
type span struct{ row, first, end int }

// Closed is the card closed: every leaf and every piece where it then lies. Bent pieces of
// thin paper lie on each panel with their part on it.
func Closed(c card.Card, s *Scene) *Heap {
	study := fold.StudyOf(c.Base)
	h := &Heap{cell: 1, box: study.Cover.Bounds().Grow(8), place: make([]int, len(study.Panels))}
	h.cell = max(h.cell, max(h.box.W, h.box.H)/500)
	h.across = int(math.Ceil(h.box.W / h.cell))
	for i := range h.place {
		h.place[i] = slices.Index(study.Order, i)
	}
	stock, _ := card.StockByID(c.Base.Stock)
	for i, p := range study.Panels {
		if h.place[i] >= 0 {
			h.add(sheetLayer{at: 2*h.place[i] + 1, panel: i, thick: stock.Thickness, path: study.Closed(i, p.Ring)})
		}
	}
	homes := s.Homes(c)
	for i := range s.Faces {
		f := &s.Faces[i]
		for j := range f.Items {
			it := &f.Items[j]
			home := homes[it.ID]
			if !it.Piece || home < 0 || h.place[home] < 0 {
				continue
			}
			at := 2 * h.place[home]
			if study.Faces(home, f.Side) < 0 {
				at += 2
			}
			h.add(sheetLayer{at: at, face: f.ID, item: it, panel: home, thick: it.To - it.From, path: study.Closed(home, it.Outline.Transform(it.At).Transform(f.OnSheet))})
		}
	}
	return h
}

// add lays a layer down: in all cells whose middle it covers.
func (h *Heap) add(l sheetLayer) {
	if l.thick <= 0 {
		return
	}
	lines := l.path.Flatten(.2)
	b := l.path.Bounds()
	var xs []float64
	for row := max(0, int((b.Y-h.box.Y)/h.cell)); float64(row)*h.cell < b.Bottom()-h.box.Y && float64(row)*h.cell < h.box.H; row++ {
		y := h.box.Y + (float64(row)+.5)*h.cell
		xs = xs[:0]
		for _, line := range lines {
			for i, p := range line.Points {
				q := line.Points[(i+1)%len(line.Points)]
				if (p.Y > y) != (q.Y > y) {
					xs = append(xs, p.X+(q.X-p.X)*(y-p.Y)/(q.Y-p.Y))
				}
			}
		}
		slices.Sort(xs)
		for i := 0; i+1 < len(xs); i += 2 {
			first := max(0, int(math.Ceil((xs[i]-h.box.X)/h.cell-.5)))
			end := min(h.across, int(math.Ceil((xs[i+1]-h.box.X)/h.cell-.5)))
			if end > first {
				l.rows = append(l.rows, span{row, first, end})
			}
		}
	}
	h.layers = append(h.layers, l)
}

// Thickness is that of the closed card at its thickest place, mm.
func (h *Heap) Thickness() float64 { return h.thickest(func(*sheetLayer) bool { return true }) }

// Between is how thick what lies between two leaves is at the thickest place, mm, and
// whether raised pieces of two faces face each other there, so that both add more than 1 mm; 0 where their order is not known.
func (h *Heap) Between(a, b int) (thick float64, facing bool) {
	lo, hi := min(h.place[a], h.place[b]), max(h.place[a], h.place[b])
	if lo < 0 {
		return 0, false
	}
	in := func(l *sheetLayer) bool { return l.at > 2*lo+1 && l.at < 2*hi+1 }
	all := h.thickest(func(l *sheetLayer) bool { return in(l) && l.face != "" })
	most := 0.0
	faces := map[card.FaceID]bool{}
	for i := range h.layers {
		if f := h.layers[i].face; f != "" && in(&h.layers[i]) && !faces[f] {
			faces[f] = true
			most = max(most, h.thickest(func(l *sheetLayer) bool { return in(l) && l.face == f }))
		}
	}
	return h.thickest(in), all > most+1
}

// thickest adds up the layers that count, cell by cell, and returns the most.
func (h *Heap) thickest(counts func(l *sheetLayer) bool) (most float64) {
	cells := make([]float64, h.across*(int(math.Ceil(h.box.H/h.cell))+1))
	for k := range h.layers {
		l := &h.layers[k]
		if !counts(l) {
			continue
		}
		for _, s := range l.rows {
			row := cells[s.row*h.across : (s.row+1)*h.across]
			for i := s.first; i < s.end; i++ {
				row[i] += l.thick
				most = max(most, row[i])
			}
		}
	}
	return most
}

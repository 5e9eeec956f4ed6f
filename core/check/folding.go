package check

import (
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// folding is what lies on the panels of the base.
type folding struct {
	// items are those that lie on a panel, from below.
	items []onPanel
	// glued are the findings about pieces that reach over folds and cuts.
	glued []Finding
}

// onPanel is an item on a panel.
type onPanel struct {
	face    *scene.Face
	item    *scene.Item
	doc     *card.Item
	panel   int
	onSheet geom.Path // its outline on the flat base
}

// onPanels are the items on the panels of the base. What is glued over a fold or a cut, and
// all it carries, is left out: of it nothing more can be told; what lies beside the base is
// told by the sheets.
func (in *Input) onPanels() *folding {
	if in.folding != nil {
		return in.folding
	}
	out := &folding{}
	in.folding = out
	study := in.study()
	homes := in.Scene.Homes(in.Card)
	held := map[string]bool{}
	in.each(func(f *scene.Face, it *scene.Item, doc *card.Item) {
		panel := homes[it.ID]
		if held[it.On] && it.On != "" || panel < 0 {
			held[it.ID] = true
			return
		}
		p := onPanel{f, it, doc, panel, it.Outline.Transform(it.At).Transform(f.OnSheet)}
		if it.Piece && it.On == "" {
			found, holds := p.glued(study)
			if found != nil {
				out.glued = append(out.glued, *found)
			}
			if holds {
				held[it.ID] = true
				return
			}
		}
		out.items = append(out.items, p)
	})
	return out
}

// Bent are the pieces of thin paper that fold with the base, each cut up by the
// panels it lies on, in the item's own coordinates.
func Bent(c card.Card, s scene.Scene) map[string][]fold.Piece {
	study := fold.StudyOf(c.Base)
	out := map[string][]fold.Piece{}
	for i := range s.Faces {
		f := &s.Faces[i]
		for j := range f.Items {
			it := &f.Items[j]
			_, doc := c.Find(it.ID)
			if !it.Piece || it.On != "" || doc.Made.Free || !thin(doc) {
				continue
			}
			at := it.At.Then(f.OnSheet)
			back, ok := at.Inverse()
			if !ok {
				continue
			}
			if parts := study.Parted(it.Outline.Transform(at)); len(parts) > 1 {
				for k := range parts {
					parts[k].Path = parts[k].Path.Transform(back)
				}
				out[it.ID] = parts
			}
		}
	}
	return out
}

// roleOn is a line's role as seen from a face.
func roleOn(f *scene.Face, n fold.Line) string {
	if f.Side == fold.Inside {
		return fold.RoleName(fold.Flipped(n.Role))
	}
	return fold.RoleName(n.Role)
}

// thin reports whether a piece is of paper that folds by hand, such as a liner.
func thin(it *card.Item) bool {
	stock, ok := card.StockByID(it.Made.Stock)
	return ok && stock.Weight <= 135 && it.Made.Lift == 0
}

// crossed is the fold or cut, of those that count, that runs longest through a
// piece, and how much of it does.
func crossed(study *fold.Study, piece geom.Path, counts func(fold.Line) bool) (line fold.Line, length float64) {
	for _, l := range study.Net.Lines {
		if l.Role == fold.Perforation || !counts(l) {
			continue
		}
		var b geom.Builder
		in, _ := geom.CutStrokes(b.Move(l.From).Line(l.To).Path(), geom.NonZero, piece)
		// What only runs along its edge does not cross it.
		sum := 0.0
		for _, cs := range in.Curves() {
			for _, c := range cs {
				if n, ok := piece.Nearest(c.At(.5)); ok && n.Distance > small {
					sum += c.Length()
				}
			}
		}
		if sum > length && sum > 1 {
			line, length = l, sum
		}
	}
	return line, length
}

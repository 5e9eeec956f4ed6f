package assembly

import (
	"fmt"
	"math"
	"strings"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
)

// HandCut is how a piece is cut by hand. Width and Height are mm; those of the base are of its sheet.
type HandCut struct {
	Item   string  `json:"item"`
	Name   string  `json:"name"`
	Stock  string  `json:"stock"`
	Width  float64 `json:"width"`
	Height float64 `json:"height"`
	Sheet  int     `json:"sheet"`
	Says   string  `json:"says"`
}

// byHand lists how the pieces are cut without a machine: what is straight with the trimmer, by its measures;
// the rest by the outline of a sheet that is printed with its lines.
func (p *planner) byHand() []HandCut {
	out := []HandCut{}
	for _, sh := range p.sheets {
		for _, piece := range sh.Pieces {
			h := HandCut{Item: piece.ID, Name: piece.Name, Stock: sh.Stock.Name, Sheet: sh.Number}
			box := piece.Outline.Bounds()
			h.Width, h.Height = box.W, box.H
			printed := len(piece.Inks) > 0
			switch {
			case piece.ID == card.BasePiece:
				n := fold.StudyOf(p.card.Base).Net
				h.Width, h.Height = n.Width, n.Height
				h.Says = p.inWords(n)
			case piece.ID == card.InsertPiece:
				n := p.scene.Net.Outline().Bounds()
				less := 2 * p.card.Leaf.Less
				h.Width, h.Height = n.W-less, n.H-less
				h.Says = fmt.Sprintf("As the base, %s smaller on every side: %s in all. Score it where the base folds.", measure.FormatUnit(p.card.Leaf.Less, p.unit), measure.FormatSize(h.Width, h.Height, p.unit))
			case straight(p.item(piece.ID)):
				it := p.item(piece.ID)
				h.Width, h.Height = it.Box.W, it.Box.H
				h.Says = fmt.Sprintf("With the trimmer: %s × %s.", measure.FormatBoth(h.Width), measure.FormatBoth(h.Height))
				if printed {
					h.Says = fmt.Sprintf("With the trimmer along its printed edge: %s × %s.", measure.FormatBoth(h.Width), measure.FormatBoth(h.Height))
				}
			default:
				h.Says = fmt.Sprintf("Print sheet %d with its lines on this stock, or lay that page over it as a template, and cut along the outline with scissors or knife.", sh.Number)
			}
			out = append(out, h)
		}
	}
	return out
}

// inWords are the directions for cutting and scoring a net with trimmer, knife and scoring board.
func (p *planner) inWords(n fold.Net) string {
	d := fold.DirectionsOf(n, p.unit, 32)
	says := []string{d.Sheet}
	for _, w := range d.Works {
		says = append(says, w.Lay)
		says = append(says, w.Lines...)
	}
	return strings.Join(says, "\n")
}

// item is the item that a piece is; nil for the base.
func (p *planner) item(id string) *scene.Item {
	for i := range p.scene.Faces {
		if it := p.scene.Faces[i].Item(id); it != nil {
			return it
		}
	}
	return nil
}

// straight reports whether a piece is a rectangle without anything cut into it.
func straight(it *scene.Item) bool {
	if it == nil {
		return false
	}
	b := it.Outline.Bounds()
	return len(it.Outline.Rings()) == 1 && math.Abs(it.Outline.Area()-b.W*b.H) < 1e-6*b.W*b.H && geom.Difference(geom.NonZero, it.Outline, geom.RectPath(b)).Area() < 1e-6
}

package scene

import (
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/exchange"
	"sectilis/core/document/pattern"
	"sectilis/core/ground/geom"
)

// Drawing is a face, or some of its items, for other programs: pieces as
// outlines to cut with their colour, what is printed as filled shapes, lines by
// their roles. Photos have no outline to hand on and are left out; a patterned
// paper is reduced to the colour of its ground.
func (f *Face) Drawing(ids []string) exchange.Drawing {
	d := exchange.Drawing{Width: f.Width, Height: f.Height}
	if len(ids) == 0 {
		d.Shapes = append(d.Shapes, exchange.Shape{Name: f.Name, Role: card.RoleCut, Path: f.Shape})
		for _, l := range f.Folds {
			var b geom.Builder
			d.Shapes = append(d.Shapes, exchange.Shape{Name: "Fold", Role: l.Role, Path: b.Move(l.From).Line(l.To).Path()})
		}
	}
	for i := range f.Items {
		it := &f.Items[i]
		if len(ids) > 0 && !slices.Contains(ids, it.ID) {
			continue
		}
		path := it.Outline.Transform(it.At)
		if path.Empty() {
			continue
		}
		if it.Role != "" {
			d.Shapes = append(d.Shapes, exchange.Shape{Name: it.Name, Role: it.Role, Path: path})
			continue
		}
		fill := it.Fill.Colour
		if p, ok := pattern.ByID(it.Fill.Paper); ok && p.Ground != "" {
			fill = p.Ground
		}
		if fill == "" && it.Piece {
			fill = it.Ground
		}
		if fill != "" && it.Picture == nil {
			d.Shapes = append(d.Shapes, exchange.Shape{Name: it.Name, Path: path, Fill: fill})
		}
		if it.Piece {
			d.Shapes = append(d.Shapes, exchange.Shape{Name: it.Name, Role: card.RoleCut, Path: path})
		}
	}
	if len(ids) > 0 {
		b := d.Bounds()
		d.Transform(geom.Shift(-b.X, -b.Y))
		d.Width, d.Height = b.W, b.H
	}
	return d
}

package scene

import (
	"fmt"
	"strings"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
)

// leastLetters is the size of the smallest letters that people read with ease, mm: 6 pt.
const leastLetters = 6 * measure.Inch / 72

// cutOff is what of words may run off what they are printed on, mm, before it is told.
const cutOff = .2

// tell says of the lettering on a face that it runs off what it is printed on, or is too
// small to be read.
func (f *Face) tell(doc *card.Face) {
	for i := range f.Items {
		it := &f.Items[i]
		it.Told = ""
		d := doc.Item(it.ID)
		if d == nil || d.Words == nil {
			continue
		}
		var told []string
		if !it.Piece {
			told = append(told, f.runsOff(it))
		}
		if size := d.Words.Size; size < leastLetters-1e-9 {
			told = append(told, fmt.Sprintf("The letters of “%s” are %.1f pt (%.1f mm) high: below 6 pt they are hard to read.", it.Name, size*72/measure.Inch, size))
		}
		it.Told = strings.TrimSpace(strings.Join(told, " "))
	}
}

// runsOff says where printed words run off the face, or the piece, that they are printed
// on, and by how much.
func (f *Face) runsOff(it *Item) string {
	name, shape := f.Name, f.Shape
	for i := range f.Items {
		if on := &f.Items[i]; it.On != "" && on.ID == it.On {
			name, shape = "“"+on.Name+"”", on.Outline.Transform(on.At)
		}
	}
	box, b := shape.Bounds(), it.Bounds
	var sides []string
	for _, s := range []struct {
		where string
		by    float64
	}{{"left", box.X - b.X}, {"right", b.Right() - box.Right()}, {"top", box.Y - b.Y}, {"bottom", b.Bottom() - box.Bottom()}} {
		if s.by > cutOff {
			sides = append(sides, fmt.Sprintf("by %s at the %s", measure.FormatBoth(s.by), s.where))
		}
	}
	if len(sides) == 0 {
		whole := it.Outline.Transform(it.At)
		if geom.Difference(geom.NonZero, whole, shape).Area() < cutOff*cutOff {
			return ""
		}
		return fmt.Sprintf("“%s” runs off %s: what is beside its edge is cut off.", it.Name, name)
	}
	last := len(sides) - 1
	list := sides[last]
	if last > 0 {
		list = strings.Join(sides[:last], ", ") + " and " + list
	}
	return fmt.Sprintf("“%s” runs off %s %s; what is beside it is cut off.", it.Name, name, list)
}

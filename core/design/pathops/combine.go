// Package pathops holds the commands that make outlines of others: weld,
// carve, keep overlap, divide, grow, shrink and round corners. Each leaves an
// item with a free outline where a measure cannot say what it is.
package pathops

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// Commands are the commands of this package, for card.Decode.
var Commands = map[string]func() card.Command{
	"weld":           func() card.Command { return &Weld{} },
	"carve":          func() card.Command { return &Carve{} },
	"keepOverlap":    func() card.Command { return &KeepOverlap{} },
	"divide":         func() card.Command { return &Divide{} },
	"grow":           func() card.Command { return &Grow{} },
	"roundCorners":   func() card.Command { return &RoundCorners{} },
	"makeOneOutline": func() card.Command { return &MakeOneOutline{} },
	"moveBridge":     func() card.Command { return &MoveBridge{} },
	"dropBridge":     func() card.Command { return &DropBridge{} },
	"addBridge":      func() card.Command { return &AddBridge{} },
	"freeBridges":    func() card.Command { return &FreeBridges{} },
}

// operand is an item that takes part, with its outline in face coordinates.
type operand struct {
	item card.Item // as it was
	path geom.Path
	turn float64
}

// operands are the items in their order in the stack, lowest first.
func operands(f *card.Face, ids []string, verb string, least int) ([]operand, error) {
	if len(ids) < least {
		return nil, card.Refuse("ids", "Choose two or more items to %s.", verb)
	}
	var out []operand
	for i := range f.Items {
		it := &f.Items[i]
		if !slices.Contains(ids, it.ID) {
			continue
		}
		if it.Photo != nil || it.Lines != nil {
			what := "photo"
			if it.Lines != nil {
				what = "line"
			}
			return nil, card.Refuse("ids", "“%s” is a %s. Shapes, papers, lettering and mats have an outline to %s.", it.Name, what, verb)
		}
		s, err := scene.Resolve(f, it)
		if err != nil {
			return nil, err
		}
		out = append(out, operand{*it, geom.Union(geom.NonZero, s.Outline.Transform(s.At)), s.Turn})
	}
	if len(out) > 1 && geom.Tangled(maxCrossings, paths(out)...) {
		return nil, card.Refuse("ids", "The outlines of these cross each other more than a hundred thousand times. Choose fewer, or simplify them first.")
	}
	return out, nil
}

func paths(ops []operand) []geom.Path {
	out := make([]geom.Path, len(ops))
	for i, o := range ops {
		out[i] = o.path
	}
	return out
}

// become gives the item an outline of its own, in face coordinates. Its frame
// keeps the turn that it had.
func (o operand) become(it *card.Item, path geom.Path) { Become(it, path, o.turn) }

// Become gives an item an outline of its own, in face coordinates, in a frame that is turned by
// some degrees. It is a shape from then on, or a paper if it was one.
func Become(it *card.Item, path geom.Path, turn float64) {
	const rad = math.Pi / 180
	local := path.Transform(geom.Turn(-turn * rad))
	box := local.Bounds()
	c := box.Centre()
	at := geom.Turn(turn * rad).Apply(c)
	it.Place = card.Place{X: card.Tidy(at.X), Y: card.Tidy(at.Y), Turn: turn}
	it.Form = &card.Form{Outline: card.Free, Width: card.Tidy(box.W), Height: card.Tidy(box.H),
		Path: card.NewDrawn(local.Transform(geom.Shift(-c.X, -c.Y)))}
	it.Words, it.Mat, it.Edging = nil, nil, nil
	if it.Kind != card.Paper {
		it.Kind = card.Shape
	}
}

// absorb makes one item of several: the lowest takes the outline, the others
// go. What they carried lies on the result if that is a piece, else on what
// carried them.
func absorb(f *card.Face, ops []operand, path geom.Path, keepOn bool) {
	lowest := f.Item(ops[0].item.ID)
	ops[0].become(lowest, path)
	carrier := ""
	if keepOn && lowest.IsPiece() {
		carrier = lowest.ID
	}
	remove(f, ops[1:], func(it *card.Item) string {
		if carrier != "" {
			return carrier
		}
		return f.Item(it.On).On
	})
}

// remove takes items away with the mats under them. What a piece carried goes
// where to says, an empty answer is the base.
func remove(f *card.Face, ops []operand, to func(carried *card.Item) string) {
	ids := make([]string, len(ops))
	for i, o := range ops {
		ids[i] = o.item.ID
	}
	for _, id := range ids {
		for i := range f.Items {
			it := &f.Items[i]
			if it.On == id && !slices.Contains(ids, it.ID) {
				it.On = to(it)
			}
		}
	}
	for _, id := range ids {
		if f.Item(id) != nil { // a mat went with what lay on it
			f.Remove(id)
		}
	}
}

// Weld makes one outline of several that touch.
type Weld struct {
	IDs []string `json:"ids"`
}

// Label implements card.Command.
func (Weld) Label() string { return "Weld" }

// Apply implements card.Command.
func (k Weld) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, k.IDs, func(_ *card.Card, f *card.Face) error {
		ops, err := operands(f, k.IDs, "weld", 2)
		if err != nil {
			return err
		}
		whole := geom.Union(geom.NonZero, paths(ops)...)
		apart := 0
		for _, o := range ops {
			apart += outerRings(o.path)
		}
		if outerRings(whole) >= apart {
			return card.Refuse("ids", "These do not overlap, so they would stay apart. Move them until they do, then weld.")
		}
		absorb(f, ops, whole, true)
		return nil
	})
}

func outerRings(p geom.Path) int {
	n := 0
	for _, r := range p.Rings() {
		if r.Area() > 0 {
			n++
		}
	}
	return n
}

// Carve takes the form of the upper items out of the lowest. They are used up.
type Carve struct {
	IDs []string `json:"ids"`
}

// Label implements card.Command.
func (Carve) Label() string { return "Carve" }

// Apply implements card.Command.
func (k Carve) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, k.IDs, func(_ *card.Card, f *card.Face) error {
		ops, err := operands(f, k.IDs, "carve", 2)
		if err != nil {
			return err
		}
		low := ops[0]
		for _, o := range ops[1:] {
			if geom.Intersection(geom.NonZero, low.path, o.path).Empty() {
				return card.Refuse("ids", "“%s” does not overlap “%s”, so there is nothing to carve.", o.item.Name, low.item.Name)
			}
		}
		rest := geom.Difference(geom.NonZero, low.path, paths(ops[1:])...)
		if rest.Empty() {
			return card.Refuse("ids", "Nothing would be left of “%s”. The lower item loses the form of the upper ones.", low.item.Name)
		}
		absorb(f, ops, rest, false)
		return nil
	})
}

// KeepOverlap leaves what all items cover.
type KeepOverlap struct {
	IDs []string `json:"ids"`
}

// Label implements card.Command.
func (KeepOverlap) Label() string { return "Keep overlap" }

// Apply implements card.Command.
func (k KeepOverlap) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, k.IDs, func(_ *card.Card, f *card.Face) error {
		ops, err := operands(f, k.IDs, "keep the overlap of", 2)
		if err != nil {
			return err
		}
		common := geom.Intersection(geom.NonZero, paths(ops)...)
		if common.Empty() {
			return card.Refuse("ids", "There is no place that all of these cover, so there is no overlap to keep.")
		}
		absorb(f, ops, common, true)
		return nil
	})
}

// Divide cuts items along each other's outlines. Every part is an item of its
// own, made and filled as the lowest item that covers it.
type Divide struct {
	IDs []string `json:"ids"`
}

// Label implements card.Command.
func (Divide) Label() string { return "Divide" }

// maxParts bounds what one division may leave.
const maxParts = 400

// Apply implements card.Command.
func (k Divide) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, k.IDs, func(c *card.Card, f *card.Face) error {
		ops, err := operands(f, k.IDs, "divide", 2)
		if err != nil {
			return err
		}
		parts := geom.Divide(geom.NonZero, paths(ops)...)
		if !slices.ContainsFunc(parts, func(p geom.Part) bool { return len(p.Cover) > 1 }) {
			return card.Refuse("ids", "These do not overlap, so there is nothing to divide.")
		}
		if len(parts) > maxParts {
			return card.Refuse("ids", "That would leave %d parts; %d are the most.", len(parts), maxParts)
		}
		slices.SortStableFunc(parts, func(a, b geom.Part) int { return cmp.Compare(a.Cover[0], b.Cover[0]) })
		made := map[int]int{}
		var items []card.Item
		for _, p := range parts {
			o := ops[p.Cover[0]]
			made[p.Cover[0]]++
			it := o.item
			it.ID, it.Name = fmt.Sprintf("i%d", c.NextID), fmt.Sprintf("%s, part %d", o.item.Name, made[p.Cover[0]])
			c.NextID++
			o.become(&it, p.Path)
			items = append(items, it)
		}
		place := func(it *card.Item) string {
			for i, p := range parts {
				if items[i].IsPiece() && p.Path.Covers(geom.Pt(it.Place.X, it.Place.Y), geom.NonZero) {
					return items[i].ID
				}
			}
			return f.Item(it.On).On
		}
		// Each part goes where the item was that it is of.
		for i := len(items) - 1; i >= 0; i-- {
			of := ops[parts[i].Cover[0]].item.ID
			at := slices.IndexFunc(f.Items, func(it card.Item) bool { return it.ID == of })
			f.Items = slices.Insert(f.Items, at+1, items[i])
		}
		remove(f, ops, place)
		return nil
	})
}

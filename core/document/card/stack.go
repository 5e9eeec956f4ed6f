package card

import (
	"math"
	"slices"

	"sectilis/core/ground/geom"
)

// order sorts the items into the order of the real stack: each carrier, then
// the ink on it, then the pieces on it with what they carry. The order among
// equals is kept.
func (f *Face) order() {
	on := map[string][]int{}
	for i := range f.Items {
		on[f.Items[i].On] = append(on[f.Items[i].On], i)
	}
	out := make([]Item, 0, len(f.Items))
	var lay func(id string)
	lay = func(id string) {
		for _, piece := range []bool{false, true} {
			for _, i := range on[id] {
				if f.Items[i].IsPiece() == piece {
					out = append(out, f.Items[i])
					lay(f.Items[i].ID)
				}
			}
		}
	}
	lay("")
	f.Items = out
}

// root is the lowest mat under the item, or the item itself: what has to move
// for the item to move.
func (f *Face) root(id string) string {
	for {
		it := f.Item(id)
		under := f.Item(it.On)
		if under == nil || under.Mat == nil || under.Mat.Of != id {
			return id
		}
		id = under.ID
	}
}

// top is the item that a chain of mats lies under, or the item itself.
func (f *Face) top(id string) *Item {
	it := f.Item(id)
	for it.Mat != nil {
		it = f.Item(it.Mat.Of)
	}
	return it
}

// Carried lists the item and all that lies on it, however high.
func (f *Face) Carried(id string) []string {
	out := []string{id}
	for i := 0; i < len(out); i++ {
		for j := range f.Items {
			if f.Items[j].On == out[i] {
				out = append(out, f.Items[j].ID)
			}
		}
	}
	return out
}

// Together lists what moves when the items are moved, each once: they, the
// mats under them and all they carry.
func (f *Face) Together(ids []string) []string {
	var out []string
	for _, id := range ids {
		for _, c := range f.Carried(f.root(id)) {
			if !slices.Contains(out, c) {
				out = append(out, c)
			}
		}
	}
	return out
}

// Alongs lists for every item what else moves when it is moved.
func (f *Face) Alongs() map[string][]string {
	at := make(map[string]*Item, len(f.Items))
	on := map[string][]string{}
	for i := range f.Items {
		it := &f.Items[i]
		at[it.ID] = it
		on[it.On] = append(on[it.On], it.ID)
	}
	out := make(map[string][]string, len(f.Items))
	for i := range f.Items {
		root := f.Items[i].ID
		for under := at[at[root].On]; under != nil && under.Mat != nil && under.Mat.Of == root; under = at[under.On] {
			root = under.ID
		}
		all := []string{root}
		for j := 0; j < len(all); j++ {
			all = append(all, on[all[j]]...)
		}
		if all = slices.DeleteFunc(all, func(id string) bool { return id == f.Items[i].ID }); len(all) > 0 {
			out[f.Items[i].ID] = all
		}
	}
	return out
}

// box is the place and size of an item where they follow from the document
// alone, which they do for all but lettering and the mats under it.
func (f *Face) box(it *Item) (at Place, w, h float64, ok bool) {
	if it.Mat != nil {
		of := f.Item(it.Mat.Of)
		if of == nil {
			return Place{}, 0, 0, false
		}
		at, w, h, ok = f.box(of)
		m := it.Mat
		mid := at.Map().Apply(geom.Pt(m.DX, m.DY+m.Below/2))
		at.X, at.Y = mid.X, mid.Y
		return at, w + 2*m.Width, h + 2*m.Width + m.Below, ok
	}
	w, h, ok = it.Size()
	return it.Place, w, h, ok
}

// over reports whether the point lies within the item's box or ellipse.
func (f *Face) over(it *Item, p geom.Point) bool {
	at, w, h, ok := f.box(it)
	if !ok {
		return false
	}
	back, _ := at.Map().Inverse() // it neither stretches nor flattens
	q := back.Apply(p)
	x, y := math.Abs(q.X)*2/w, math.Abs(q.Y)*2/h
	if top := f.top(it.ID); top.Form != nil && top.Form.Outline == Ellipse {
		return x*x+y*y <= 1
	}
	return x <= 1 && y <= 1
}

// pieceAt is the topmost piece at a point, leaving some out; "" is the base.
func (f *Face) pieceAt(p geom.Point, without []string) string {
	for i := len(f.Items) - 1; i >= 0; i-- {
		it := &f.Items[i]
		if it.IsPiece() && !slices.Contains(without, it.ID) && f.over(it, p) {
			return it.ID
		}
	}
	return ""
}

// settle finds what an item that was moved by hand now lies on. Ink goes on
// the topmost piece under its middle, since it would be hidden below it; a
// piece stays on its carrier until its middle has left it.
func (f *Face) settle(id string, moved []string) {
	root := f.Item(f.root(id))
	if slices.Contains(moved, root.On) || root.Joined() {
		return
	}
	top := f.top(id)
	middle := geom.Pt(top.Place.X, top.Place.Y)
	if !root.IsPiece() {
		root.On = f.pieceAt(middle, moved)
		return
	}
	for root.On != "" && !f.over(f.Item(root.On), middle) {
		root.On = f.Item(root.On).On
	}
}

// Release takes the item out of the stack: what it carried lies on what
// carried it, and a mat below reaches through to what lay above.
func (f *Face) Release(id string) {
	gone := *f.Item(id)
	for i := range f.Items {
		it := &f.Items[i]
		if it.On == id {
			it.On = gone.On
		}
		if it.Mat != nil && it.Mat.Of == id && gone.Mat != nil {
			it.Mat.Of = gone.Mat.Of
		}
	}
	f.Items = slices.DeleteFunc(f.Items, func(it Item) bool { return it.ID == id })
}

// siblings are the items of one kind (ink or pieces) on one carrier, upward.
func (f *Face) siblings(of *Item) []string {
	var out []string
	for _, it := range f.Items {
		if it.On == of.On && it.IsPiece() == of.IsPiece() {
			out = append(out, it.ID)
		}
	}
	return out
}

// shift moves the list entry of one item to just before or behind another.
func (f *Face) shift(id, beside string, behind bool) {
	if id == beside {
		return
	}
	i := slices.IndexFunc(f.Items, func(it Item) bool { return it.ID == id })
	it := f.Items[i]
	f.Items = slices.Delete(f.Items, i, i+1)
	j := slices.IndexFunc(f.Items, func(it Item) bool { return it.ID == beside })
	if behind {
		j++
	}
	f.Items = slices.Insert(f.Items, j, it)
}

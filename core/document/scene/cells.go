package scene

import "sectilis/core/document/card"

// mostCells is how many photos and slots of a group are looked at as cells; an opening is
// divided into at most as many.
const mostCells = 400

// cells marks the photos and slots for photos of each group whose members are nothing else
// and lie clear of each other: a divided opening, or photos laid side by side. Dragged onto
// each other, they swap pictures.
func (f *Face) cells() {
	groups := map[string][]*Item{}
	other := map[string]bool{}
	for i := range f.Items {
		it := &f.Items[i]
		it.Cell = false
		switch {
		case it.Group == "" || it.Kind == card.Mat:
		case it.Kind == card.Photo || it.Slot == card.TakesPhoto:
			groups[it.Group] = append(groups[it.Group], it)
		default:
			other[it.Group] = true
		}
	}
	for id, all := range groups {
		if other[id] || len(all) < 2 || len(all) > mostCells || !apart(all) {
			continue
		}
		for _, it := range all {
			it.Cell = true
		}
	}
}

// apart reports whether no two of the items' bounds overlap by more than a hair.
func apart(all []*Item) bool {
	for i, a := range all {
		for _, b := range all[i+1:] {
			if a.Bounds.Overlaps(b.Bounds.Grow(-1e-3)) {
				return false
			}
		}
	}
	return true
}

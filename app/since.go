package app

import (
	"reflect"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
)

// Order is which items a face has after a change, bottom to top, so that those
// which are as they were need not be told again.
type Order struct {
	Face card.FaceID `json:"face"`
	// All are the items of the document, Seen those of the scene.
	All  []string `json:"all"`
	Seen []string `json:"seen"`
}

// since leaves of the view what is not as it was before: faces of the scene that
// differ, and on all faces the items that do.
func (v *View) since(c card.Card, was scene.Scene) {
	v.Part = true
	faces := v.Scene.Faces
	v.Scene.Faces = []scene.Face{}
	for _, f := range faces {
		old := was.Face(f.ID)
		if old != nil && reflect.DeepEqual(*old, f) {
			continue
		}
		if old != nil {
			f.Items = others(old.Items, f.Items, func(it *scene.Item) string { return it.ID })
		}
		v.Scene.Faces = append(v.Scene.Faces, f)
	}
	docs := slices.Clone(v.Card.Faces)
	v.Card.Faces = docs
	for i := range docs {
		f, old := &docs[i], c.Face(docs[i].ID)
		if old == nil {
			old = &card.Face{}
		}
		order := Order{Face: f.ID, All: []string{}, Seen: []string{}}
		for k := range f.Items {
			order.All = append(order.All, f.Items[k].ID)
		}
		for k := range faces {
			if faces[k].ID == f.ID {
				for j := range faces[k].Items {
					order.Seen = append(order.Seen, faces[k].Items[j].ID)
				}
			}
		}
		v.Order = append(v.Order, order)
		f.Items = others(old.Items, f.Items, func(it *card.Item) string { return it.ID })
	}
}

// others are the items of now that were not there before, or not like that.
func others[T any](before, now []T, id func(*T) string) []T {
	was := make(map[string]*T, len(before))
	for i := range before {
		was[id(&before[i])] = &before[i]
	}
	out := []T{}
	for i := range now {
		if old := was[id(&now[i])]; old == nil || !reflect.DeepEqual(old, &now[i]) {
			out = append(out, now[i])
		}
	}
	return out
}

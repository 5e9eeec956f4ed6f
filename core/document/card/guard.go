package card

import "slices"

// Unlocked refuses items that are locked, whose place or size would be changed.
func (f *Face) Unlocked(ids []string) error {
	return f.unlocked(ids, "change its place or size")
}

// unlocked refuses items that are locked; to is what they would have to be unlocked for.
func (f *Face) unlocked(ids []string, to string) error {
	for _, id := range ids {
		if it := f.Item(id); it != nil && it.Locked {
			return Refuse("ids", "“%s” is locked. Unlock it to %s.", it.Name, to)
		}
	}
	return nil
}

// Hidden are the items that are left out: those that say so, and all they
// carry.
func (f *Face) Hidden() map[string]bool {
	out := map[string]bool{}
	for i := range f.Items {
		if f.Items[i].Hidden {
			for _, id := range f.Carried(f.Items[i].ID) {
				out[id] = true
			}
		}
	}
	return out
}

// LockItems locks items where they are, or lets them go.
type LockItems struct {
	IDs    []string `json:"ids"`
	Locked bool     `json:"locked"`
}

// Label implements Command.
func (k LockItems) Label() string {
	if k.Locked {
		return label("Lock", k.IDs)
	}
	return label("Unlock", k.IDs)
}

// Apply implements Command.
func (k LockItems) Apply(c Card) (Card, error) {
	return OnFace(c, k.IDs, func(_ *Card, f *Face) error {
		for _, id := range k.IDs {
			f.Item(id).Locked = k.Locked
		}
		return nil
	})
}

// HideItems leaves items out with their mats and all they carry, or brings
// them back.
type HideItems struct {
	IDs    []string `json:"ids"`
	Hidden bool     `json:"hidden"`
}

// Label implements Command.
func (k HideItems) Label() string {
	if k.Hidden {
		return label("Hide", k.IDs)
	}
	return label("Show", k.IDs)
}

// Apply implements Command.
func (k HideItems) Apply(c Card) (Card, error) {
	return OnFace(c, k.IDs, func(_ *Card, f *Face) error {
		for _, id := range k.IDs {
			f.Item(f.root(id)).Hidden = k.Hidden
			if !k.Hidden {
				f.Item(id).Hidden = false
			}
		}
		return nil
	})
}

// PutOnFace takes items, with their mats and all they carry, to the same place
// on another face; Copy leaves the originals where they are. They lie on what
// is under their middle there.
type PutOnFace struct {
	IDs  []string `json:"ids"`
	Face FaceID   `json:"face"`
	Copy bool     `json:"copy,omitempty"`
}

// Label implements Command.
func (k PutOnFace) Label() string { return label("Put on another face", k.IDs) }

// Apply implements Command.
func (k PutOnFace) Apply(c Card) (Card, error) {
	return OnFace(c, k.IDs, func(c *Card, f *Face) error {
		to := c.Face(k.Face)
		if to == nil || to.ID == f.ID {
			return Refuse("face", "Choose another face of this card.")
		}
		if !k.Copy {
			if err := f.Unlocked(k.IDs); err != nil {
				return err
			}
		}
		all := f.Together(k.IDs)
		var taken []Item
		for _, it := range f.Items {
			if slices.Contains(all, it.ID) {
				taken = append(taken, it)
			}
		}
		groups := f.whole(all)
		if _, err := c.place(to, taken, groups, nil); err != nil {
			return err
		}
		for i := len(to.Items) - len(taken); i < len(to.Items); i++ {
			if it := &to.Items[i]; it.On == "" {
				to.settle(it.ID, nil)
			}
		}
		if !k.Copy {
			f.Items = slices.DeleteFunc(f.Items, func(it Item) bool { return slices.Contains(all, it.ID) })
		}
		return nil
	})
}

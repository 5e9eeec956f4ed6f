package card

// ReplaceByGroup is the card with an item replaced by others, which lie where it lay and are a
// group under its name. It returns a *Refusal for an item that is locked, has a mat or carries
// something, since that would have nothing to follow, and the error of the function that makes
// the others.
func ReplaceByGroup(c Card, id string, others func(it *Item) ([]Item, error)) (Card, error) {
	var group GroupItems
	next, err := OnFace(c, []string{id}, func(c *Card, f *Face) error {
		it := f.Item(id)
		group.Name = it.Name
		items, err := others(it)
		if err != nil {
			return err
		}
		if err := f.Unlocked([]string{id}); err != nil {
			return err
		}
		for _, o := range f.Items {
			if o.On == id || o.Mat != nil && o.Mat.Of == id {
				return Refuse("id", "“%s” has a mat or carries something, which would have nothing to follow. Take “%s” off first.", it.Name, o.Name)
			}
		}
		if group.IDs, err = c.Insert(f, id, items); err != nil {
			return err
		}
		f.Release(id)
		return nil
	})
	if err != nil {
		return c, err
	}
	return group.Apply(next)
}

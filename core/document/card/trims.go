package card

import "slices"

// Trims reports whether the item is the outline that all else in its group ends at. It is neither
// printed nor cut.
func (it Item) Trims() bool { return it.Made.As == Trims }

// TrimmedBy are the items that an item is trimmed by, with all in its groups.
func (f *Face) TrimmedBy(it *Item) (out []*Item) {
	groups := f.line(it)
	if len(groups) == 0 || it.Trims() {
		return nil
	}
	for i := range f.Items {
		if o := &f.Items[i]; o.Trims() && !o.Hidden && slices.Contains(groups, o.Group) {
			out = append(out, o)
		}
	}
	return out
}

// checkTrims looks whether an item can trim its group.
func (it Item) checkTrims() error {
	if it.Group == "" {
		return Refuse("made", "“%s” is in no group that it could trim. Group it with what is to be trimmed first.", it.Name)
	}
	if it.Form == nil && it.Words == nil || it.Slot != nil {
		return Refuse("made", "“%s” has no outline to trim by; shapes and words have one.", it.Name)
	}
	return nil
}

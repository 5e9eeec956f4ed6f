package arrange

import (
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// SetBase changes the base, as fold.SetBase does. What lay within a face that becomes
// smaller is kept within it: moved as little as will do and, where it is larger than the
// face, made as large as the face leaves between the margins that it had.
type SetBase struct {
	Base card.Base `json:"base"`
}

// Label implements card.Command.
func (k SetBase) Label() string { return fold.SetBase(k).Label() }

// Apply implements card.Command.
func (k SetBase) Apply(c card.Card) (card.Card, error) {
	next, err := fold.SetBase(k).Apply(c)
	if err != nil {
		return c, err
	}
	before, after := fold.StudyOf(c.Base).Net, fold.StudyOf(next.Base).Net
	return card.Change(next, func(next *card.Card) error {
		for i := range next.Faces {
			f := &next.Faces[i]
			from, to := before.Face(f.ID), after.Face(f.ID)
			if from.ID == "" || to.ID == "" || to.Width >= from.Width && to.Height >= from.Height {
				continue
			}
			if err := keepWithin(f, from, to); err != nil {
				return err
			}
		}
		return nil
	})
}

// hair is how far something may reach past a face and still count as lying within it, mm.
const hair = .05

// keepWithin keeps what lay within a face within it now that it has another size. Groups
// are kept as one.
func keepWithin(f *card.Face, from, to fold.Face) error {
	ids := make([]string, len(f.Items))
	for i := range f.Items {
		ids[i] = f.Items[i].ID
	}
	var order []string
	units := map[string][]string{}
	for i := range f.Items {
		it := &f.Items[i]
		if it.Background || it.Cover != nil || it.Mat != nil || carriedAlong(f, it, ids) {
			continue
		}
		unit := "item " + it.ID
		if g := outermost(f, it.Group); g != "" {
			unit = "group " + g
		}
		if units[unit] == nil {
			order = append(order, unit)
		}
		units[unit] = append(units[unit], it.ID)
	}
	for _, unit := range order {
		if err := keepUnit(f, units[unit], from, to); err != nil {
			return err
		}
	}
	return nil
}

// outermost is the group that holds a group and is held by none; empty for none.
func outermost(f *card.Face, group string) string {
	for range len(f.Groups) + 1 {
		i := slices.IndexFunc(f.Groups, func(g card.Group) bool { return g.ID == group })
		if i < 0 || f.Groups[i].In == "" {
			break
		}
		group = f.Groups[i].In
	}
	return group
}

func keepUnit(f *card.Face, unit []string, from, to fold.Face) error {
	all := f.Together(unit)
	was, err := boundsOf(f, all)
	if err != nil {
		return err
	}
	room := geom.Rect{W: to.Width, H: to.Height}
	if !(geom.Rect{W: from.Width, H: from.Height}).Contains(was, hair) || room.Contains(was, hair) {
		return nil
	}
	// What is locked is held fast on its face, not beside it.
	var locked []string
	for _, id := range all {
		if it := f.Item(id); it.Locked {
			it.Locked = false
			locked = append(locked, id)
		}
	}
	defer func() {
		for _, id := range locked {
			f.Item(id).Locked = true
		}
	}()
	w, h := was.W, was.H
	if w > room.W {
		w = between(was.W, from.Width, room.W)
	}
	if h > room.H {
		h = between(was.H, from.Height, room.H)
	}
	if w != was.W || h != was.H {
		if err := shrink(f, unit, all, was, w, h); err != nil {
			return err
		}
	}
	now, err := boundsOf(f, all)
	if err != nil {
		return err
	}
	d := geom.Pt(inside(now.X, now.W, was.X, room.W), inside(now.Y, now.H, was.Y, room.H))
	return f.Move(unit, d.X, d.Y)
}

// between is what a face of the size to leaves between the margins that something of the
// size w had on one of the size from; without margins, where those take more than half.
func between(w, from, to float64) float64 {
	if left := to - (from - w); left > to/2 {
		return left
	}
	return to
}

// inside is how far to move what begins at x so that it lies in a room of the size r: to
// where it began before, or as near to that as it may be.
func inside(x, w, began, r float64) float64 {
	return max(0, min(began, r-w)) - x
}

// shrink makes a unit fit into w by h. A rectangle that carries nothing takes that size;
// all else keeps its proportions, with all it carries.
func shrink(f *card.Face, unit, all []string, was geom.Rect, w, h float64) error {
	about := was.Centre()
	if len(unit) == 1 {
		s, err := scene.Resolve(f, f.Item(unit[0]))
		if err != nil {
			return err
		}
		bare := !slices.ContainsFunc(all, func(id string) bool { return id != unit[0] && f.Item(id).Mat == nil })
		if bare && s.Turn == 0 && rectangular(f.Item(unit[0])) {
			fx, fy := (s.Bounds.W-was.W+w)/s.Bounds.W, (s.Bounds.H-was.H+h)/s.Bounds.H
			if fx > 0 && fy > 0 {
				return f.Resize(card.ResizeItems{IDs: unit, FX: fx, FY: fy, About: about})
			}
		}
	}
	own := slices.DeleteFunc(slices.Clone(all), func(id string) bool { return f.Item(id).Mat != nil })
	k := min(w/was.W, h/was.H)
	return f.Resize(card.ResizeItems{IDs: own, FX: k, FY: k, About: about})
}

func rectangular(it *card.Item) bool {
	if it.Photo != nil {
		return it.Photo.Opening == nil
	}
	return it.Form != nil && it.Form.Outline == card.Rectangle
}

// boundsOf is the box of items on their face.
func boundsOf(f *card.Face, ids []string) (geom.Rect, error) {
	var out geom.Rect
	for i, id := range ids {
		s, err := scene.Resolve(f, f.Item(id))
		if err != nil {
			return out, err
		}
		if i == 0 {
			out = s.Bounds
		} else {
			out = out.Union(s.Bounds)
		}
	}
	return out, nil
}

package card

import (
	"slices"

	"sectilis/core/ground/geom"
)

// Window makes an item a window mat: a piece that lies over photos and shapes and has an opening for
// each. Its form and place follow from them whenever the card changes. Lengths are mm.
type Window struct {
	Of []string `json:"of"`
	// Overlap is how far it covers the edge of each; less than 0 leaves that free.
	Overlap float64 `json:"overlap"`
	// Width is how far it reaches past their outermost edges, Below how much farther at the foot.
	Width  float64 `json:"width"`
	Below  float64 `json:"below,omitempty"`
	Corner Corner  `json:"corner"` // of its outer edge
	// Bevel makes it the printed edge of the openings alone, so wide.
	Bevel float64 `json:"bevel,omitempty"`
}

// maxWindows is how many openings one window mat has.
const maxWindows = 100

// Check refuses what no window mat is. The error is a *Refusal.
func (w *Window) Check() error {
	switch {
	case w == nil:
		return nil
	case len(w.Of) == 0 || len(w.Of) > maxWindows:
		return Refuse("of", "A window mat has between 1 and %d openings.", maxWindows)
	case !within(w.Overlap, -50, 50):
		return Refuse("overlap", "A window covers up to 50 mm (1 31/32 in) of the edge of what is seen through it.")
	case !within(w.Width, 0, 200) || !within(w.Below, 0, 200):
		return Refuse("width", "A window mat reaches up to 200 mm (7 ⅞ in) past what is seen through it.")
	case w.Bevel != 0 && !within(w.Bevel, .2, 20):
		return Refuse("bevel", "A bevel is between 0.2 mm and 20 mm (25/32 in) wide.")
	case !slices.Contains([]Corner{Square, Round, Bevel}, w.Corner):
		return Refuse("corner", "Corners are square, round or bevelled.")
	}
	return nil
}

// through reports whether an item can be seen through a window.
func (it *Item) through() bool {
	return (it.Photo != nil || it.Form != nil) && it.Window == nil && !it.Background && !it.Joined() && !it.Trims()
}

// opens is the outline of an item that is seen through a window, on its face.
func (it *Item) opens() geom.Path {
	if it.Photo != nil {
		return OutlineOf(it.Photo.Form()).Transform(it.Place.Map())
	}
	return OutlineOf(*it.Form).Transform(it.Place.Map())
}

// frame is the form and the place of a window mat on a face. It returns a *Refusal where nothing is left
// of an opening, or of the mat.
func (w *Window) frame(f *Face) (Form, Place, error) {
	turn := f.Item(w.Of[0]).Place.Turn
	for _, id := range w.Of {
		if f.Item(id).Place.Turn != turn {
			turn = 0 // they do not lie in one direction: it lies as the face does
			break
		}
	}
	level := geom.Turn(-radians(turn))
	var seen, all geom.Path
	for _, id := range w.Of {
		own := f.Item(id).opens().Transform(level)
		hole := geom.Offset(own, -w.Overlap, geom.MitreCorner)
		if hole.Empty() {
			return Form{}, Place{}, Refuse("overlap", "Nothing of “%s” would be seen: let the window cover less of it.", f.Item(id).Name)
		}
		seen, all = geom.Join(seen, hole), geom.Join(all, own)
	}
	seen = geom.Union(geom.NonZero, seen)
	box := all.Bounds().Grow(w.Width)
	box.H += w.Below
	outer := geom.RectPath(box)
	if w.Corner != Square {
		r := min(6.35, min(box.W, box.H)/4)
		outer = OutlineOf(Form{Outline: Rectangle, Width: box.W, Height: box.H, Corner: w.Corner, Radius: r}).Transform(geom.Shift(box.Centre().X, box.Centre().Y))
	}
	out := geom.Difference(geom.NonZero, outer, seen)
	if w.Bevel > 0 {
		out = geom.Intersection(geom.NonZero, out, geom.Difference(geom.NonZero, geom.Offset(seen, w.Bevel, geom.MitreCorner), seen))
	}
	b := out.Bounds()
	if out.Empty() || min(b.W, b.H) < minSize {
		return Form{}, Place{}, Refuse("width", "Nothing would be left of the window mat: let it reach farther.")
	}
	mid := b.Centre()
	at := geom.Turn(radians(turn)).Apply(mid)
	form := Form{Outline: Free, Width: Tidy(b.W), Height: Tidy(b.H), Path: NewDrawn(out.Transform(geom.Shift(-mid.X, -mid.Y)))}
	return form, Place{X: Tidy(at.X), Y: Tidy(at.Y), Turn: Tidy(turn)}, nil
}

// tidyWindows lets window mats follow what is seen through them. One whose things are all gone, or
// through which nothing would be seen any more, stays as it was and follows nothing.
func (c *Card) tidyWindows() {
	for i := range c.Faces {
		f := &c.Faces[i]
		for j := range f.Items {
			it := &f.Items[j]
			if it.Window == nil || it.Form == nil {
				continue
			}
			it.Window.Of = slices.DeleteFunc(slices.Clone(it.Window.Of), func(id string) bool { o := f.Item(id); return o == nil || !o.through() })
			if len(it.Window.Of) == 0 {
				it.Window = nil
				continue
			}
			form, place, err := it.Window.frame(f)
			if err != nil {
				it.Window = nil
				continue
			}
			if it.Form.Path == nil || it.Form.Path.Path().Data(6) != form.Path.Path().Data(6) {
				it.Form = &form
			}
			it.Place = place
		}
	}
}

// checkWindow looks whether an item can be a window mat.
func (it *Item) checkWindow() error {
	if it.Window != nil && (it.Form == nil || it.Slot != nil || it.Mat != nil) {
		return Refuse("window", "“%s” has no form that could have a window.", it.Name)
	}
	return it.Window.Check()
}

// BevelAs is how the bevel of a window is made.
type BevelAs string

// A bevel is not there, printed round the openings, or seen of a second mat below, whose windows are
// smaller.
const (
	NoBevel      BevelAs = ""
	PrintedBevel BevelAs = "printed"
	CutBevel     BevelAs = "cut"
)

// AddWindow lays a window mat over things. The ids of Window are those of the things.
type AddWindow struct {
	Window Window  `json:"window"`
	Stock  string  `json:"stock"`
	Lift   float64 `json:"lift,omitempty"` // foam under it
	// As says how its bevel is made, Bevel how wide it is, mm; Colour is what it is printed in, Second
	// what a second mat is cut from.
	As     BevelAs `json:"as,omitempty"`
	Bevel  float64 `json:"bevel,omitempty"`
	Colour string  `json:"colour,omitempty"`
	Second string  `json:"second,omitempty"`
}

// Label implements Command.
func (AddWindow) Label() string { return "Lay a window mat" }

// Apply implements Command.
func (k AddWindow) Apply(c Card) (Card, error) {
	return OnFace(c, k.Window.Of, func(c *Card, f *Face) error {
		w := k.Window
		w.Bevel = 0
		if err := w.Check(); err != nil {
			return err
		}
		on, last, err := w.lies(f)
		if err != nil {
			return err
		}
		top, lift := w, k.Lift
		if k.As == CutBevel {
			// The second mat shows round its smaller windows.
			second := k.Second
			if second == "" {
				second = First().Piece
			}
			if last, err = w.lay(c, f, Item{Name: "Window mat, inner", Made: Made{As: Cut, Stock: second, Lift: lift}, On: on}, last); err != nil {
				return err
			}
			on, lift = last, 0
			top.Overlap = Tidy(w.Overlap - k.Bevel)
		}
		id, err := top.lay(c, f, Item{Name: "Window mat", Made: Made{As: Cut, Stock: k.Stock, Lift: lift}, On: on}, last)
		if err != nil || k.As != PrintedBevel {
			return err
		}
		edge := w
		edge.Bevel = k.Bevel
		if err := edge.Check(); err != nil {
			return err
		}
		_, err = edge.lay(c, f, Item{Name: "Bevel", Made: Made{As: Printed}, Fill: Fill{Colour: k.Colour}, On: id}, id)
		return err
	})
}

// lies tells what carries a window mat over things, and above which item it lies. It returns a *Refusal for
// things that are not seen through windows.
func (w *Window) lies(f *Face) (on, above string, err error) {
	for i, id := range w.Of {
		it := f.Item(id)
		if !it.through() {
			return "", "", Refuse("ids", "“%s” cannot be seen through a window: photos and shapes can.", it.Name)
		}
		if it.Tier > 0 || it.Cover != nil {
			return "", "", Refuse("ids", "“%s” is one of a set of pieces: lay the window over a photo or a shape by itself.", it.Name)
		}
		if root := f.Item(f.root(id)); i == 0 {
			on = root.On
		} else if on != root.On {
			on = ""
		}
	}
	all := f.Together(w.Of)
	for _, it := range f.Items {
		if slices.Contains(all, it.ID) {
			above = it.ID
		}
	}
	return on, above, nil
}

// lay puts a window mat, or its bevel, above another item in the list and returns its id.
func (w Window) lay(c *Card, f *Face, it Item, above string) (string, error) {
	w.Of = slices.Clone(w.Of)
	form, place, err := w.frame(f)
	if err != nil {
		return "", err
	}
	on := it.On
	it.Kind, it.Form, it.Place = Paper, &form, place
	ids, err := c.Insert(f, above, []Item{it})
	if err != nil {
		return "", err
	}
	made := f.Item(ids[0])
	made.Window, made.On = &w, on
	return ids[0], nil
}

// SetWindow changes how a window mat lies over what is seen through it, with its printed bevel. Of and
// Bevel stay as they are.
type SetWindow struct {
	ID     string `json:"id"`
	Window Window `json:"window"`
}

// Label implements Command.
func (SetWindow) Label() string { return "Change a window mat" }

// Apply implements Command.
func (k SetWindow) Apply(c Card) (Card, error) {
	return OnFace(c, []string{k.ID}, func(_ *Card, f *Face) error {
		it := f.Item(k.ID)
		if it.Window == nil {
			return Refuse("id", "“%s” is no window mat.", it.Name)
		}
		set := func(it *Item) error {
			w := k.Window
			w.Of, w.Bevel = it.Window.Of, it.Window.Bevel
			if err := w.Check(); err != nil {
				return err
			}
			if _, _, err := w.frame(f); err != nil {
				return err
			}
			it.Window = &w
			return nil
		}
		for i := range f.Items {
			o := &f.Items[i]
			if o.ID == k.ID || o.Window != nil && o.Window.Bevel > 0 && o.On == k.ID {
				if err := set(o); err != nil {
					return err
				}
			}
		}
		return nil
	})
}

// seenThrough are the things that are seen through window mats among items, which move with them.
func (f *Face) seenThrough(ids []string) []string {
	out := slices.Clone(ids)
	for _, id := range ids {
		it := f.Item(id)
		if it == nil || it.Window == nil {
			continue
		}
		out = slices.DeleteFunc(out, func(o string) bool { return o == id })
		for _, of := range it.Window.Of {
			if !slices.Contains(out, of) {
				out = append(out, of)
			}
		}
	}
	return out
}

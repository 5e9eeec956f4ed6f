package card

import (
	"fmt"
	"math"
	"slices"

	"sectilis/core/ground/geom"
)

func radians(degrees float64) float64 { return degrees * math.Pi / 180 }

// wrap brings a turn into (-180, 180].
func wrap(degrees float64) float64 {
	d := math.Mod(degrees, 360)
	if d > 180 {
		d -= 360
	} else if d <= -180 {
		d += 360
	}
	return Tidy(d)
}

// Turned is a turn in degrees with another in radians added.
func Turned(degrees, by float64) float64 { return wrap(degrees + by*180/math.Pi) }

// SetMade says how items come into being. When a piece becomes ink, what it
// carried lies on what carried it.
type SetMade struct {
	IDs  []string `json:"ids"`
	Made Made     `json:"made"`
}

// Label implements Command.
func (k SetMade) Label() string { return "Change how it is made" }

// Apply implements Command.
func (k SetMade) Apply(c Card) (Card, error) {
	return OnFace(c, k.IDs, func(_ *Card, f *Face) error {
		for _, id := range k.IDs {
			it := f.Item(id)
			if k.Made.As != Cut {
				for i := range f.Items {
					if f.Items[i].On == id {
						f.Items[i].On = it.On
					}
				}
			}
			it.Made = k.Made
			if it.Joined() && it.On == "" {
				it.On = f.pieceAt(geom.Pt(it.Place.X, it.Place.Y), k.IDs)
				if it.On == "" {
					return it.checkJoined()
				}
			}
			if it.Trims() {
				if err := it.checkTrims(); err != nil {
					return err
				}
			}
			it.asMade()
			it.Made.Bleed = Tidy(it.Made.Bleed)
		}
		return nil
	})
}

// SetFill inks items, or leaves them the colour of their stock.
type SetFill struct {
	IDs  []string `json:"ids"`
	Fill Fill     `json:"fill"`
}

// Label implements Command.
func (k SetFill) Label() string { return label("Colour", k.IDs) }

// Apply implements Command.
func (k SetFill) Apply(c Card) (Card, error) {
	return OnFace(c, k.IDs, func(_ *Card, f *Face) error {
		for _, id := range k.IDs {
			it := f.Item(id)
			if it.Photo != nil {
				return Refuse("fill", "“%s” is a photo; it has no fill.", it.Name)
			}
			if it.Lines != nil && (it.Lines.Role != RolePen || k.Fill.Paper != "") {
				return Refuse("fill", "“%s” is a line; only a pen line has an ink.", it.Name)
			}
			if it.Slot != nil {
				return Refuse("fill", "“%s” is a slot. Fill it with a photo or words first.", it.Name)
			}
			if k.Fill == (Fill{}) && !it.IsPiece() {
				return Refuse("fill", "Printed “%s” needs a colour or a paper, or nothing would be seen.", it.Name)
			}
			// Ink on a piece runs to its edge, and is printed a little past it. Who has set
			// another bleed, or none under ink, has meant it.
			if it.IsPiece() && it.Fill == (Fill{}) && k.Fill != (Fill{}) && it.Made.Bleed == 0 {
				it.Made.Bleed = UsualBleed
			}
			if k.Fill.Paper != "" && it.Fill.Paper == "" {
				it.Receive(Paper)
			}
			it.Fill = k.Fill.clone()
		}
		return nil
	})
}

// UsualBleed is how far ink is printed past the edge of a cut piece, mm, until it is set.
const UsualBleed = 1

// Firsts are how new pieces are made until a person chooses otherwise: the stocks that
// photos, papers and all other pieces are cut of, the bleed of what has ink, mm, and the
// ink of words.
type Firsts struct {
	Photo string  `json:"photo"`
	Paper string  `json:"paper"`
	Piece string  `json:"piece"`
	Bleed float64 `json:"bleed"`
	Ink   string  `json:"ink"`
	// Islands is how loose middles are held, Rim the paper that is left round a picture.
	Islands Islands `json:"islands"`
	Rim     Rim     `json:"rim"`
}

// First is how new pieces are made.
func First() Firsts {
	return Firsts{"satin-240", "text-120", "white-216", UsualBleed, "#a8432a", FirstBridges(), *FirstRim()}
}

// SetForm changes the corners of a rectangle. Radius is mm; nil is the one that it has, or a
// first one.
type SetForm struct {
	ID     string   `json:"id"`
	Corner Corner   `json:"corner"`
	Radius *float64 `json:"radius,omitempty"`
}

// firstRadius is that of corners of a rectangle which had none: a quarter inch, less on what
// is small.
func firstRadius(f Form) float64 { return min(6.35, f.Width/4, f.Height/4) }

// Label implements Command.
func (SetForm) Label() string { return "Change corners" }

// Apply implements Command.
func (k SetForm) Apply(c Card) (Card, error) {
	return OnFace(c, []string{k.ID}, func(_ *Card, f *Face) error {
		it := f.Item(k.ID)
		if it.Form == nil || it.Form.Outline != Rectangle {
			return Refuse("corner", "“%s” has no corners to change; a rectangle has.", it.Name)
		}
		radius := it.Form.Radius
		if k.Radius != nil {
			radius = *k.Radius
		} else if radius == 0 {
			radius = firstRadius(*it.Form)
		}
		if k.Corner != Square && !(radius > 0) {
			return Refuse("radius", "Corners need a size of more than nothing.")
		}
		it.Form.Corner, it.Form.Radius = k.Corner, Tidy(radius)
		if k.Corner == Square {
			it.Form.Radius = 0
		}
		return nil
	})
}

// SetEnds says how much of a free outline's ends keeps its form when it is made
// longer, in shares of the outline.
type SetEnds struct {
	IDs  []string `json:"ids"`
	Ends float64  `json:"ends"`
}

// Label implements Command.
func (SetEnds) Label() string { return "Keep the ends" }

// Apply implements Command.
func (k SetEnds) Apply(c Card) (Card, error) {
	return OnFace(c, k.IDs, func(_ *Card, f *Face) error {
		for _, id := range k.IDs {
			it := f.Item(id)
			if it.Form == nil || it.Form.Outline != Free {
				return Refuse("ids", "“%s” has no outline of its own. Tags, banners, flags, tabs and strips keep their ends by themselves.", it.Name)
			}
			it.Form.Ends = Tidy(k.Ends)
		}
		return nil
	})
}

// SetRole changes what lines are for.
type SetRole struct {
	IDs  []string `json:"ids"`
	Role Role     `json:"role"`
}

// Label implements Command.
func (SetRole) Label() string { return "Change what a line is for" }

// Apply implements Command.
func (k SetRole) Apply(c Card) (Card, error) {
	return OnFace(c, k.IDs, func(_ *Card, f *Face) error {
		for _, id := range k.IDs {
			it := f.Item(id)
			if it.Lines == nil {
				return Refuse("ids", "“%s” is no line.", it.Name)
			}
			it.Lines.Role = k.Role
			switch {
			case k.Role != RolePen:
				it.Fill = Fill{}
			case it.Fill.Colour == "":
				it.Fill.Colour = "#1f2b38"
			}
		}
		return nil
	})
}

// PutOn sticks items on a piece, or on the base when On is empty.
type PutOn struct {
	IDs []string `json:"ids"`
	On  string   `json:"on"`
}

// Label implements Command.
func (k PutOn) Label() string { return label("Put", k.IDs) }

// Apply implements Command.
func (k PutOn) Apply(c Card) (Card, error) {
	return OnFace(c, k.IDs, func(_ *Card, f *Face) error {
		on := f.Item(k.On)
		if k.On != "" && (on == nil || !on.IsPiece()) {
			return Refuse("on", "Something can be put on the base or on a piece of the same face.")
		}
		for _, id := range k.IDs {
			root := f.root(id)
			if slices.Contains(f.Carried(root), k.On) {
				return Refuse("on", "“%s” cannot be put on itself or on what lies on it.", f.Item(id).Name)
			}
			f.Item(root).On = k.On
			f.toTop(root)
		}
		return nil
	})
}

// toTop puts the list entry last, which makes it the top of its siblings.
func (f *Face) toTop(id string) {
	if last := f.Items[len(f.Items)-1].ID; last != id {
		f.shift(id, last, true)
	}
}

// Restack puts an item, its mats and what it carries directly above another
// in the stack; above "" is directly on the base.
type Restack struct {
	ID    string `json:"id"`
	Above string `json:"above"`
}

// Label implements Command.
func (Restack) Label() string { return "Change the stack" }

// Apply implements Command.
func (k Restack) Apply(c Card) (Card, error) {
	return OnFace(c, []string{k.ID}, func(_ *Card, f *Face) error {
		root := f.Item(f.root(k.ID))
		moved := f.Carried(root.ID)
		if slices.Contains(moved, k.Above) {
			return nil // it lies there already
		}
		above := f.Item(k.Above)
		if k.Above != "" && above == nil {
			return Refuse("above", "The item to put it above is not there any more.")
		}
		carries := func(id string) bool {
			return slices.ContainsFunc(f.Items, func(it Item) bool {
				return it.On == id && !slices.Contains(moved, it.ID)
			})
		}
		switch {
		case above == nil:
			root.On = ""
			f.shift(root.ID, f.Items[0].ID, false)
		case above.IsPiece() && (!root.IsPiece() || carries(above.ID)):
			// Ink above a piece is ink on it; a piece above a carrier goes
			// under what else is stuck there.
			root.On = above.ID
			f.shift(root.ID, above.ID, true)
		default:
			root.On = above.On
			f.shift(root.ID, above.ID, true)
		}
		return nil
	})
}

// StepInStack moves an item one step up or down among what lies beside it on
// the same carrier.
type StepInStack struct {
	ID string `json:"id"`
	Up bool   `json:"up"`
}

// Label implements Command.
func (StepInStack) Label() string { return "Change the stack" }

// Apply implements Command.
func (k StepInStack) Apply(c Card) (Card, error) {
	return OnFace(c, []string{k.ID}, func(_ *Card, f *Face) error {
		root := f.Item(f.root(k.ID))
		row := f.siblings(root)
		i := slices.Index(row, root.ID)
		j, end := i-1, "lowest"
		if k.Up {
			j, end = i+1, "top"
		}
		if j < 0 || j >= len(row) {
			what, on := "ink", "the base"
			if root.IsPiece() {
				what = "piece"
			}
			if carrier := f.Item(root.On); carrier != nil {
				on = "“" + carrier.Name + "”"
			}
			return Refuse("id", "“%s” is the %s %s on %s already.", f.Item(k.ID).Name, end, what, on)
		}
		f.shift(root.ID, row[j], k.Up)
		return nil
	})
}

// AddMat lays a mat under each of the items, below the mats they have. What was printed becomes
// a cut piece, for ink cannot lie on a mat. Width is mm.
type AddMat struct {
	IDs    []string `json:"ids"`
	Width  float64  `json:"width"`
	Corner Corner   `json:"corner"`
	Solid  bool     `json:"solid,omitempty"`
	Below  float64  `json:"below,omitempty"` // how much farther it shows at the foot, mm
	Form   string   `json:"form,omitempty"`  // as that of a Border
	Stock  string   `json:"stock"`
	// Colour is ink that is printed on it; "" leaves it the colour of its stock.
	Colour string `json:"colour,omitempty"`
}

// Label implements Command.
func (k AddMat) Label() string { return "Add a mat" }

// Apply implements Command.
func (k AddMat) Apply(c Card) (Card, error) {
	return OnFace(c, k.IDs, func(c *Card, f *Face) error {
		for _, id := range k.IDs {
			top := f.top(id)
			if top.Lines != nil {
				return Refuse("ids", "“%s” is a line, which has no outline for a mat to follow.", top.Name)
			}
			switch {
			case top.Slot != nil:
				// What fills the slot is cut; the slot itself is nothing yet.
				if top.Slot.Made.As != Cut {
					top.Slot.Made = Made{As: Cut, Stock: First().Photo, Bleed: UsualBleed}
				}
			case !top.IsPiece():
				top.Made = Made{As: Cut, Stock: First().Piece, Bleed: UsualBleed}
				if top.Photo != nil {
					top.Made.Stock = First().Photo
				}
				top.asMade()
			}
			low := f.Item(f.root(id))
			name := top.Name + " mat"
			mat := Item{ID: newID(c), Name: name, Kind: Mat, On: low.On,
				Made: Made{As: Cut, Stock: k.Stock}, Mat: &Border{Of: low.ID, Width: Tidy(k.Width), Corner: k.Corner, Solid: k.Solid, Below: Tidy(k.Below), Form: k.Form}}
			if k.Colour != "" {
				mat.Fill, mat.Made.Bleed = Fill{Colour: k.Colour}, UsualBleed
			}
			low.On = mat.ID
			i := slices.IndexFunc(f.Items, func(it Item) bool { return it.ID == mat.Mat.Of })
			f.Items = slices.Insert(f.Items, i, mat)
		}
		return nil
	})
}

func newID(c *Card) string {
	id := fmt.Sprintf("i%d", c.NextID)
	c.NextID++
	return id
}

// SetMat changes how far a mat shows, its corners, its form and where it lies, as a Border says it.
type SetMat struct {
	ID     string  `json:"id"`
	Width  float64 `json:"width"`
	Corner Corner  `json:"corner"`
	Solid  bool    `json:"solid,omitempty"`
	Below  float64 `json:"below,omitempty"`
	Form   string  `json:"form,omitempty"`
	Hollow float64 `json:"hollow,omitempty"`
	DX     float64 `json:"dx,omitempty"`
	DY     float64 `json:"dy,omitempty"`
}

// Label implements Command.
func (SetMat) Label() string { return "Change a mat" }

// Apply implements Command.
func (k SetMat) Apply(c Card) (Card, error) {
	return OnFace(c, []string{k.ID}, func(_ *Card, f *Face) error {
		it := f.Item(k.ID)
		if it.Mat == nil {
			return Refuse("id", "“%s” is no mat.", it.Name)
		}
		*it.Mat = Border{Of: it.Mat.Of, Width: Tidy(k.Width), Corner: k.Corner, Solid: k.Solid, Below: Tidy(k.Below), Form: k.Form, Hollow: Tidy(k.Hollow), DX: Tidy(k.DX), DY: Tidy(k.DY)}
		return nil
	})
}

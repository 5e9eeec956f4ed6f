package card

import "slices"

// Look is what is done to the ink of an item beside its fill. Nil parts are not
// there.
type Look struct {
	// Clear is the share of what lies below that shows through, 0 to 1.
	Clear      float64     `json:"clear,omitempty"`
	Line       *InkLine    `json:"line,omitempty"`
	Shadow     *Shadow     `json:"shadow,omitempty"`
	Tint       *Tint       `json:"tint,omitempty"`
	Reflection *Reflection `json:"reflection,omitempty"`
	Raised     *Raised     `json:"raised,omitempty"`
}

// InkLine is an inked line along the outline, half of it on either side; with Outside all of it lies
// outside, below the ink of the item.
type InkLine struct {
	Colour  string  `json:"colour"`
	Width   float64 `json:"width"` // mm
	Dashed  bool    `json:"dashed,omitempty"`
	Outside bool    `json:"outside,omitempty"`
}

// Shadow is a soft shadow, printed under the item.
type Shadow struct {
	Distance float64 `json:"distance"`         // mm
	Angle    float64 `json:"angle"`            // degrees clockwise from rightward, on the face
	Blur     float64 `json:"blur"`             // standard deviation, mm
	Spread   float64 `json:"spread,omitempty"` // how far it reaches beyond the item's outline, mm
	Opacity  float64 `json:"opacity"`          // 0 to 1
	Colour   string  `json:"colour"`
}

// Tint draws the colours of a picture toward one colour.
type Tint struct {
	Colour   string  `json:"colour"`
	Strength float64 `json:"strength"` // 0 to 1
}

// Reflection is the item once more, upside down below itself, fading out. Opacity is a share
// from 0 to 1.
type Reflection struct {
	Gap     float64 `json:"gap"`     // mm
	Length  float64 `json:"length"`  // of the item's height, 0 to 1
	Opacity float64 `json:"opacity"` // where it begins
}

// Raised shades the edge as if the item were a cushion.
type Raised struct {
	Width    float64 `json:"width"`    // of the shaded edge, mm
	Strength float64 `json:"strength"` // 0 to 1
}

// Kind of gradient.
const (
	Linear = "linear"
	Radial = "radial"
)

// Gradient runs from colour to colour across an item's box, in which From and
// To are shares of width and height. A radial one runs outward from From.
type Gradient struct {
	Kind  string  `json:"kind"`
	FromX float64 `json:"fromX"`
	FromY float64 `json:"fromY"`
	ToX   float64 `json:"toX"`
	ToY   float64 `json:"toY"`
	Stops []Stop  `json:"stops"`
}

// Stop is a colour of a gradient at a share of its way.
type Stop struct {
	At     float64 `json:"at"`
	Colour string  `json:"colour"`
	Clear  float64 `json:"clear,omitempty"` // the share of what lies below that shows through
}

// maxStops is how many colours a gradient holds at most.
const maxStops = 16

func (l *Look) clone() *Look {
	if l == nil {
		return nil
	}
	v := *l
	v.Line, v.Shadow, v.Tint = copied(l.Line), copied(l.Shadow), copied(l.Tint)
	v.Reflection, v.Raised = copied(l.Reflection), copied(l.Raised)
	return &v
}

func (g *Gradient) clone() *Gradient {
	if g == nil {
		return nil
	}
	v := *g
	v.Stops = slices.Clone(g.Stops)
	return &v
}

func checkColour(c string) error {
	if !colour.MatchString(c) {
		return Refuse("colour", "A colour is written #rrggbb, such as #a8432a.")
	}
	return nil
}

func share(field string, v float64) error {
	if !within(v, 0, 1) {
		return Refuse(field, "This is between 0 and 100 %%.")
	}
	return nil
}

func (s *Shadow) check() error {
	if s == nil {
		return nil
	}
	if !within(s.Distance, 0, 50) {
		return Refuse("shadow", "A shadow falls up to 50 mm (2 in) away.")
	}
	if !within(s.Blur, 0, 20) {
		return Refuse("shadow", "A shadow is up to 20 mm (¾ in) soft.")
	}
	if !within(s.Spread, 0, 20) {
		return Refuse("shadow", "A shadow reaches up to 20 mm (¾ in) beyond what throws it.")
	}
	if !within(s.Angle, -360, 360) {
		return Refuse("shadow", "A shadow falls at an angle between -360° and 360°: 0° is to the right, 90° down.")
	}
	if err := checkColour(s.Colour); err != nil {
		return err
	}
	return share("opacity", s.Opacity)
}

func (l *Look) check() error {
	if l == nil {
		return nil
	}
	if !within(l.Clear, 0, .95) {
		return Refuse("opacity", "Opacity is between 5 and 100 %%; hide the item to see nothing of it.")
	}
	if p := l.Line; p != nil {
		if !within(p.Width, .1, 20) {
			return Refuse("line", "A line is between 0.1 mm and 20 mm (¾ in) wide.")
		}
		if err := checkColour(p.Colour); err != nil {
			return err
		}
	}
	if err := l.Shadow.check(); err != nil {
		return err
	}
	if t := l.Tint; t != nil {
		if err := checkColour(t.Colour); err != nil {
			return err
		}
		if err := share("tint", t.Strength); err != nil {
			return err
		}
	}
	if r := l.Reflection; r != nil {
		if !within(r.Gap, 0, 50) {
			return Refuse("reflection", "A reflection lies up to 50 mm (2 in) below.")
		}
		if !within(r.Length, .05, 1) {
			return Refuse("reflection", "A reflection shows between 5 and 100 %% of the item.")
		}
		if !within(r.Opacity, .02, 1) {
			return Refuse("reflection", "A reflection is between 2 and 100 %% strong.")
		}
	}
	if r := l.Raised; r != nil {
		if !within(r.Width, .2, 20) {
			return Refuse("raised", "A raised edge is between 0.2 mm and 20 mm (¾ in) wide.")
		}
		return share("raised", r.Strength)
	}
	return nil
}

func (f Fill) check() error {
	if f.Colour != "" {
		if err := checkColour(f.Colour); err != nil {
			return err
		}
	}
	ways := 0
	for _, set := range []bool{f.Colour != "", f.Paper != "", f.Gradient != nil} {
		if set {
			ways++
		}
	}
	if ways > 1 {
		return Refuse("fill", "A fill is a colour, a paper or a gradient, and only one of them.")
	}
	if f.Scale != 0 && !within(f.Scale, .1, 10) || !within(f.Turn, -360, 360) || !within(f.ShiftX, -maxSize, maxSize) || !within(f.ShiftY, -maxSize, maxSize) {
		return Refuse("paper", "A pattern is between a tenth and ten times its size.")
	}
	g := f.Gradient
	if g == nil {
		return nil
	}
	if g.Kind != Linear && g.Kind != Radial || len(g.Stops) < 2 || len(g.Stops) > maxStops {
		return Refuse("gradient", "A gradient is linear or radial and has between 2 and %d colours.", maxStops)
	}
	for i, s := range g.Stops {
		if err := checkColour(s.Colour); err != nil {
			return err
		}
		if err := share("gradient", s.Clear); err != nil {
			return err
		}
		if !within(s.At, 0, 1) || i > 0 && s.At < g.Stops[i-1].At {
			return Refuse("gradient", "The colours of a gradient follow each other from 0 to 100 %%.")
		}
	}
	for _, v := range []float64{g.FromX, g.FromY, g.ToX, g.ToY} {
		if !within(v, -5, 5) {
			return Refuse("gradient", "A gradient ends no farther away than five times the item’s size.")
		}
	}
	if g.FromX == g.ToX && g.FromY == g.ToY {
		return Refuse("gradient", "A gradient needs two places.")
	}
	return nil
}

// SetLook sets the looks of items; a nil Look takes them away. It is told which
// parts to set, so that a slider does not undo what another item has.
type SetLook struct {
	IDs  []string `json:"ids"`
	Look Look     `json:"look"`
}

// Label implements Command.
func (k SetLook) Label() string { return label("Change the look of", k.IDs) }

// Apply implements Command.
func (k SetLook) Apply(c Card) (Card, error) {
	return OnFace(c, k.IDs, func(_ *Card, f *Face) error {
		for _, id := range k.IDs {
			if err := f.Item(id).setLook(&k.Look); err != nil {
				return err
			}
		}
		return nil
	})
}

func (it *Item) setLook(l *Look) error {
	if it.Slot != nil || it.Lines != nil {
		return Refuse("look", "“%s” has no look of its own.", it.Name)
	}
	if l.Tint != nil && it.Photo == nil {
		return Refuse("tint", "“%s” is no picture. Change its colour instead of tinting it.", it.Name)
	}
	if it.IsPiece() && (l.Shadow != nil || l.Reflection != nil || l.Clear > 0 || l.Line != nil && l.Line.Outside) {
		return Refuse("look", "“%s” is a cut piece: it throws its own shadow, lets nothing through and ends at its edge. Print it to give it that look.", it.Name)
	}
	it.Look = l.clone()
	if *it.Look == (Look{}) {
		it.Look = nil
	}
	return nil
}

// fitPiece takes away what a cut piece cannot have: it throws its own shadow, lets nothing through,
// and has no ink outside.
func (l *Look) fitPiece() {
	l.Clear, l.Shadow, l.Reflection = 0, nil, nil
	if l.Line != nil && l.Line.Outside {
		line := *l.Line
		line.Outside = false
		l.Line = &line
	}
}

// asMade takes away what a cut piece cannot have.
func (it *Item) asMade() {
	if !it.IsPiece() || it.Look == nil {
		return
	}
	it.Look.fitPiece()
	if *it.Look == (Look{}) {
		it.Look = nil
	}
}

// PasteLook gives items the look and, where they can have one, the fill of
// another item of the card.
type PasteLook struct {
	From string   `json:"from"`
	IDs  []string `json:"ids"`
}

// Label implements Command.
func (k PasteLook) Label() string { return label("Copy a look to", k.IDs) }

// Apply implements Command.
func (k PasteLook) Apply(c Card) (Card, error) {
	return OnFace(c, k.IDs, func(c *Card, f *Face) error {
		_, from := c.Find(k.From)
		if from == nil {
			return Refuse("from", "What the look was copied from is not there any more.")
		}
		var l Look
		if from.Look != nil {
			l = *from.Look
		}
		for _, id := range k.IDs {
			it := f.Item(id)
			if it.Slot != nil || it.Lines != nil {
				continue
			}
			own := l
			if it.Photo == nil {
				own.Tint = nil
			}
			if it.IsPiece() {
				own.fitPiece()
			}
			if err := it.setLook(&own); err != nil {
				return err
			}
			inked := from.Fill != Fill{}
			if from.Photo == nil && it.Photo == nil && (inked || it.IsPiece()) && (it.Words == nil || from.Fill.Paper == "") {
				it.Fill = from.Fill.clone()
			}
		}
		return nil
	})
}

func (f Fill) clone() Fill {
	f.Gradient = f.Gradient.clone()
	return f
}

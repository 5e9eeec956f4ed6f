package card

import "sectilis/core/ground/geom"

// DrawnBase is a base made from the lines of a drawing: the sheet seen from outside, mm from its upper
// left corner, at the size at which it was drawn.
type DrawnBase struct {
	Name string `json:"name"` // of the drawing
	// Width and Height are those of the closed card as it was drawn. A base of another size is
	// the drawing stretched by as much.
	Width   float64     `json:"width"`
	Height  float64     `json:"height"`
	Outline *Drawn      `json:"outline"` // the edge of the sheet with the holes in it
	Lines   []DrawnLine `json:"lines"`
	// Leaves are the panels that have faces, the first that of Front.
	Leaves []DrawnLeaf `json:"leaves"`
}

// DrawnLine is a line of a drawn base as seen from outside. Scores are straight.
type DrawnLine struct {
	Role Role   `json:"role"`
	Path *Drawn `json:"path"`
	// Slit is a cut that ends within the sheet and parts nothing.
	Slit bool `json:"slit,omitempty"`
}

// DrawnLeaf is a part of the sheet that is a face on each side. Box is where it lies on the sheet, mm.
type DrawnLeaf struct {
	Box geom.Rect `json:"box"`
	// Outside and Inside are the names of its faces.
	Outside string `json:"outside"`
	Inside  string `json:"inside"`
	// OutsideTurn and InsideTurn say how far each face is turned on the sheet, as it is read from its
	// own side: 0, 90, 180 or 270 degrees clockwise.
	OutsideTurn int `json:"outsideTurn,omitempty"`
	InsideTurn  int `json:"insideTurn,omitempty"`
}

// Limits of a drawn base.
const (
	MaxLeaves     = 12
	MaxSheet      = maxSize // width and height, mm
	MaxDrawnLines = maxLines
)

// check looks at every part of a drawn base. It returns a *Refusal for one that cannot be.
func (d *DrawnBase) check() error {
	if err := checkName("name", d.Name); err != nil {
		return err
	}
	if !within(d.Width, 1, maxSize) || !within(d.Height, 1, maxSize) {
		return Refuse("drawn", "The closed card of the drawing is between 1 and %d mm wide and high.", maxSize)
	}
	if err := d.Outline.check("The outline of the sheet", false); err != nil {
		return err
	}
	if b := d.Outline.Box(); !within(b.X, -.01, .01) || !within(b.Y, -.01, .01) || max(b.W, b.H) > maxSize {
		return Refuse("drawn", "The sheet of a drawing begins at its upper left corner and is at most %d mm wide and high.", maxSize)
	}
	if len(d.Lines) > MaxDrawnLines {
		return Refuse("drawn", "A base has at most %d lines; the drawing has %d. Leave some out.", MaxDrawnLines, len(d.Lines))
	}
	sheet := d.Outline.Box().Grow(.1)
	if err := d.checkLines(sheet); err != nil {
		return err
	}
	if len(d.Leaves) < 1 || len(d.Leaves) > MaxLeaves {
		return Refuse("leaves", "A base has one to %d leaves with faces.", MaxLeaves)
	}
	for _, l := range d.Leaves {
		if err := l.check(sheet); err != nil {
			return err
		}
	}
	return nil
}

func (d *DrawnBase) checkLines(sheet geom.Rect) error {
	segments := 0
	for _, l := range d.Lines {
		if l.Role != RoleCut && l.Role != RoleMountain && l.Role != RoleValley && l.Role != RolePerforation && l.Role != RoleKiss {
			return Refuse("role", "A line of a base is for a cut, a mountain or a valley score, a perforation or a kiss cut.")
		}
		if err := l.Path.check("A line of the base", true); err != nil {
			return err
		}
		if !sheet.Contains(l.Path.Box(), 0) {
			return Refuse("drawn", "A line of the base would lie off its sheet.")
		}
		if segments += l.Path.Path().Len(); l.Role.Folds() && !l.Path.Path().Straight() {
			return Refuse("drawn", "A score of a base is one straight line.")
		}
	}
	if segments > 4*MaxDrawnLines {
		return Refuse("drawn", "The lines of the base have more than %d pieces. Take fewer or smoother ones.", 4*MaxDrawnLines)
	}
	return nil
}

func (l DrawnLeaf) check(sheet geom.Rect) error {
	for _, name := range []string{l.Outside, l.Inside} {
		if err := checkName("leaves", name); err != nil {
			return err
		}
	}
	if min(l.Box.W, l.Box.H) < 1 || !sheet.Contains(l.Box, 0) {
		return Refuse("leaves", "The leaf “%s” would lie off the sheet.", l.Outside)
	}
	for _, turn := range []int{l.OutsideTurn, l.InsideTurn} {
		if turn != 0 && turn != 90 && turn != 180 && turn != 270 {
			return Refuse("leaves", "A face is turned by 0, 90, 180 or 270 degrees.")
		}
	}
	return nil
}

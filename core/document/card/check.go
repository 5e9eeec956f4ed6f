package card

import (
	"fmt"
	"math"
	"regexp"
	"slices"
	"strings"
	"unicode/utf8"

	"sectilis/core/ground/shape"
)

// Refusal is why a command or a document is refused: the field at fault and a
// sentence for the person. Nothing was changed.
type Refusal struct {
	Field string
	Why   string
}

func (r *Refusal) Error() string { return r.Why }

// Refuse is a Refusal of a field, with a sentence for the person.
func Refuse(field, format string, args ...any) error {
	return &Refusal{field, fmt.Sprintf(format, args...)}
}

// Limits of what is taken for paper; generous, but no slip of the finger.
const (
	minSize  = .5
	maxSize  = 1000
	minPanel = 25
	maxPanel = 450
	maxPlace = 2000
	maxItems = 2000 // on one face
	maxFaces = 64
	maxLines = 300
	maxText  = 2000
)

var colour = regexp.MustCompile(`^#[0-9a-f]{6}$`)
var faceName = regexp.MustCompile(`^[a-z][A-Za-z0-9]{0,31}$`)
var digest = regexp.MustCompile(`^[0-9a-f]{64}$`)

// check looks at the whole document; every command ends with it, so that no
// way of reaching a state is left out.
func (c Card) check() error {
	if err := checkName("title", c.Title); err != nil {
		return err
	}
	if err := c.Base.check(); err != nil {
		return err
	}
	if err := c.checkLeft(); err != nil {
		return err
	}
	if err := c.checkSteps(); err != nil {
		return err
	}
	seen := map[string]bool{}
	if len(c.Faces) < 2 || len(c.Faces) > maxFaces {
		return Refuse("faces", "A card has between 2 and %d faces.", maxFaces)
	}
	faces := map[FaceID]bool{}
	for i := range c.Faces {
		f := &c.Faces[i]
		if !faceName.MatchString(string(f.ID)) || faces[f.ID] {
			return Refuse("faces", "“%s” is no face, or is there twice.", f.ID)
		}
		faces[f.ID] = true
		if err := f.check(seen); err != nil {
			return err
		}
	}
	if err := c.checkInsert(); err != nil {
		return err
	}
	if c.Sheets != nil {
		if err := c.Sheets.Check(); err != nil {
			return err
		}
	}
	if err := c.Names.check(); err != nil {
		return err
	}
	return c.checkLaid()
}

// check looks at a face; seen are the ids of the items on the faces before it, to which it
// adds its own.
func (f *Face) check(seen map[string]bool) error {
	if len(f.Items) > maxItems {
		return Refuse("items", "A face holds at most %d items.", maxItems)
	}
	if err := f.checkGroups(); err != nil {
		return err
	}
	if err := f.Covered.Check(); err != nil {
		return err
	}
	for _, it := range f.Items {
		if it.ID == "" || seen[it.ID] {
			return Refuse("id", "Two items have the same id.")
		}
		if on := f.Item(it.On); it.On != "" && (on == nil || !on.IsPiece() || !seen[it.On]) {
			return Refuse("on", "“%s” lies on something that is no piece beneath it on this face.", it.Name)
		}
		if it.Mat != nil {
			if of := f.Item(it.Mat.Of); of == nil || of.On != it.ID || of.Joined() {
				return Refuse("of", "The mat “%s” lies under nothing.", it.Name)
			}
		}
		seen[it.ID] = true
		if err := it.check(); err != nil {
			return err
		}
	}
	return nil
}

func checkName(field, name string) error {
	if strings.TrimSpace(name) == "" {
		return Refuse(field, "A name needs at least one letter.")
	}
	if utf8.RuneCountInString(name) > 120 || strings.ContainsFunc(name, func(r rune) bool { return r < ' ' }) {
		return Refuse(field, "A name has at most 120 letters, on one line.")
	}
	return nil
}

func (b Base) check() error {
	if !faceName.MatchString(string(b.Kind)) || len(b.Measures) > 40 {
		return Refuse("kind", "“%s” is no kind of base.", b.Kind)
	}
	if len(b.Lines) > maxLines {
		return Refuse("lines", "A base has at most %d lines of its own.", maxLines)
	}
	for _, l := range b.Lines {
		if l.Order < 0 || l.Order > 9 {
			return Refuse("lines", "A fold is made first, second, up to ninth, or whenever it works out.")
		}
		if !slices.Contains(Roles(), l.Role) {
			return Refuse("role", "A line is for a cut, a mountain or a valley score, a perforation, a kiss cut, a pen or a guide.")
		}
		for _, v := range []float64{l.From.X, l.From.Y, l.To.X, l.To.Y} {
			if !within(v, -maxPlace, maxPlace) {
				return Refuse("lines", "A line of the base would lie more than 2 m off it.")
			}
		}
		if l.From == l.To {
			return Refuse("lines", "A line needs two places.")
		}
	}
	for name, v := range b.Measures {
		if !faceName.MatchString(name) || !within(v, -maxSize, maxSize) {
			return Refuse(name, "A measure of the base is between -1000 and 1000.")
		}
	}
	for field, v := range map[string]float64{"width": b.Width, "height": b.Height} {
		if !within(v, minPanel, maxPanel) {
			return Refuse(field, "A closed card is between 1 in (25 mm) and 17 ¾ in (450 mm) on each side.")
		}
	}
	if b.Drawn != nil {
		if err := b.Drawn.check(); err != nil {
			return err
		}
	}
	return checkStock("stock", b.Stock)
}

func checkStock(field, id string) error {
	if _, ok := StockByID(id); !ok {
		return Refuse(field, "There is no stock “%s”.", id)
	}
	return nil
}

// isPicture reports whether a picture can have so many.
func isPicture(width, height int) bool { return min(width, height) >= 1 && max(width, height) <= 1<<16 }

func within(v, lo, hi float64) bool { return !math.IsNaN(v) && v >= lo && v <= hi }

func (it Item) check() error {
	if err := checkName("name", it.Name); err != nil {
		return err
	}
	if !within(it.Place.X, -maxPlace, maxPlace) || !within(it.Place.Y, -maxPlace, maxPlace) {
		return Refuse("place", "“%s” would lie more than 2 m off the face.", it.Name)
	}
	if !within(it.Place.Turn, -360, 360) {
		return Refuse("turn", "A turn is between -360° and 360°.")
	}
	if err := it.checkBridges(); err != nil {
		return err
	}
	if err := it.Made.check(); err != nil {
		return err
	}
	if err := it.Fill.check(); err != nil {
		return err
	}
	if err := it.Look.check(); err != nil {
		return err
	}
	if err := it.checkKind(); err != nil {
		return err
	}
	if w, h, ok := it.Size(); ok {
		least := float64(minSize)
		if it.Lines != nil {
			least, w = 0, max(w, h) // a straight line has no height
		}
		if !within(w, minSize, maxSize) || !within(h, least, maxSize) {
			return Refuse("size", "Width and height are between 0.5 mm (1/32 in) and 1000 mm (39 ⅜ in).")
		}
	}
	if (it.Lines != nil) != (it.Made.As == Lined) {
		return Refuse("made", "“%s” cannot be made that way: a line is worked along, everything else is printed or cut out.", it.Name)
	}
	if it.Trims() {
		if err := it.checkTrims(); err != nil {
			return err
		}
	}
	if it.Joined() {
		if err := it.checkJoined(); err != nil {
			return err
		}
	}
	return it.checkContent()
}

// checkKind looks whether an item has the content of its kind and no other.
func (it Item) checkKind() error {
	parts := 0
	for _, set := range []bool{it.Photo != nil, it.Form != nil, it.Words != nil, it.Mat != nil, it.Lines != nil} {
		if set {
			parts++
		}
	}
	want := map[Kind]bool{Photo: it.Photo != nil, Paper: it.Form != nil, Shape: it.Form != nil, Lettering: it.Words != nil, Mat: it.Mat != nil,
		Drawing: it.Lines != nil, Slot: it.Form != nil}
	if parts != 1 || !want[it.Kind] {
		return Refuse("kind", "“%s” is no %s: its content does not fit.", it.Name, it.Kind)
	}
	if it.Tier < 0 || it.Tier > MostPieces || it.Tier > 0 && it.Photo == nil {
		return Refuse("tier", "“%s” is no tier of a picture.", it.Name)
	}
	if len(it.Art) > 80 || strings.ContainsFunc(it.Art, func(r rune) bool { return r <= ' ' || r > '~' }) {
		return Refuse("art", "“%s” names no art of the tray.", it.Name)
	}
	if it.Cover != nil && (it.Form == nil || !it.IsPiece() || it.Cover.Panel < 1 || it.Cover.Layer < 1) {
		return Refuse("cover", "“%s” is no mat of a panel.", it.Name)
	}
	if err := it.checkWindow(); err != nil {
		return err
	}
	if err := checkEdging(it.Edging); err != nil {
		return err
	}
	if (it.Kind == Slot) != (it.Slot != nil) {
		return Refuse("slot", "“%s” is no slot, or does not say what it waits for.", it.Name)
	}
	if it.Slot != nil {
		if err := it.Slot.check(it); err != nil {
			return err
		}
	}
	return nil
}

// checkContent looks at what makes up the item.
func (it Item) checkContent() error {
	switch {
	case it.Photo != nil:
		return it.Photo.check()
	case it.Form != nil:
		if (it.Form.Outline == Free) != (it.Form.Path != nil) {
			return Refuse("path", "A free outline, and no other, is drawn.")
		}
		if it.Form.Path != nil {
			if err := it.Form.Path.check(it.Name, false); err != nil {
				return err
			}
		}
		return it.Form.check()
	case it.Lines != nil:
		if !slices.Contains(Roles(), it.Lines.Role) {
			return Refuse("role", "A line is for a cut, a mountain or a valley score, a perforation, a kiss cut, a pen or a guide.")
		}
		return it.Lines.Path.check(it.Name, true)
	case it.Words != nil:
		return it.Words.Check()
	}
	if !it.IsPiece() {
		return Refuse("made", "A mat is a cut piece.")
	}
	if !within(it.Mat.Width, .5, 150) {
		return Refuse("width", "A mat shows between 0.5 mm (1/32 in) and 150 mm (5 ⅞ in).")
	}
	if !within(it.Mat.Below, 0, 150) {
		return Refuse("below", "A mat shows up to 150 mm (5 ⅞ in) more at its foot.")
	}
	if it.Mat.Hollow != 0 && !within(it.Mat.Hollow, 2, 150) {
		return Refuse("hollow", "At least 2 mm (1/16 in) of a frame are left to be glued by; 0 leaves the mat whole.")
	}
	if _, ok := shape.ByID(it.Mat.Form); it.Mat.Form != "" && !ok {
		return Refuse("form", "There is no form “%s”.", it.Mat.Form)
	}
	if !within(it.Mat.DX, -300, 300) || !within(it.Mat.DY, -300, 300) {
		return Refuse("dx", "A mat lies up to 300 mm (11 13/16 in) off what it is under.")
	}
	return checkCorner(it.Mat.Corner)
}

func (s Waits) check(it Item) error {
	if it.Made.As != Printed || it.Fill != (Fill{}) {
		return Refuse("slot", "The slot “%s” has no ink or stock of its own before it is filled.", it.Name)
	}
	switch s.Takes {
	case TakesPhoto:
	case TakesWords:
		if s.Words == nil {
			return Refuse("slot", "A slot for words says how they are set.")
		}
		if err := s.Words.Check(); err != nil {
			return err
		}
	default:
		return Refuse("slot", "A slot waits for a photo or for words.")
	}
	if s.Made.As != Printed && s.Made.As != Cut {
		return Refuse("slot", "What fills a slot is printed or cut out.")
	}
	return s.Made.check()
}

func (m Made) check() error {
	switch m.As {
	case Printed, Lined, Carved, Welded, Trims:
		if m.Stock != "" || m.Lift != 0 || m.Bleed != 0 || m.Thicken || m.Islands != (Islands{}) {
			return Refuse("made", "What is printed has no stock, foam or bleed of its own; make it a cut piece.")
		}
		return nil
	case Cut:
		if !slices.Contains(Foam, m.Lift) {
			return Refuse("lift", "Foam is 0.5, 1, 1.5, 2 or 3 mm thick; 0 is flat.")
		}
		if !within(m.Bleed, 0, 10) {
			return Refuse("bleed", "Bleed is between 0 and 10 mm (⅜ in).")
		}
		if err := m.Islands.check(); err != nil {
			return err
		}
		return checkStock("stock", m.Stock)
	}
	return Refuse("as", "An item is printed, a cut piece, or carved out of one or welded to it.")
}

func (p Print) check() error {
	if !digest.MatchString(p.Picture) {
		return Refuse("picture", "The photo's picture is not named by its digest.")
	}
	if !isPicture(p.PixelWidth, p.PixelHeight) {
		return Refuse("picture", "The photo's picture has no size.")
	}
	if p.Zoom != 0 && !within(p.Zoom, 1, 50) || !within(p.ShiftX, -50, 50) || !within(p.ShiftY, -50, 50) {
		return Refuse("zoom", "A picture is shown between its least and 50 times its least size.")
	}
	if r := p.Rim; r != nil && !(within(r.Width, 0, 50) && within(r.Bays, 0, 50)) {
		return Refuse("rim", "The rim of paper round a picture, and the bays that it fills, are between 0 and 50 mm (2 in).")
	}
	if err := CheckEdits(p.Edits); err != nil {
		return err
	}
	if _, _, err := SizeAfter(p.Edits, p.PixelWidth, p.PixelHeight); err != nil {
		return err
	}
	if p.Opening == nil {
		return nil
	}
	if (p.Opening.Outline == Free) != (p.Opening.Path != nil) {
		return Refuse("path", "A free opening, and no other, is drawn.")
	}
	if p.Opening.Path != nil {
		if err := p.Opening.Path.check("The opening", false); err != nil {
			return err
		}
	}
	return p.Opening.check()
}

func (f Form) check() error {
	if !slices.Contains(shape.IDs(), f.Outline) {
		return Refuse("outline", "There is no outline “%s”.", f.Outline)
	}
	if !within(f.Radius, 0, maxSize) {
		return Refuse("radius", "Corners are between 0 and half the shorter side.")
	}
	if !within(f.Ends, 0, .49) || f.Ends > 0 && f.Outline != Free {
		return Refuse("ends", "The ends of a free outline are each up to 49 %% of it.")
	}
	if f.Outline == Rectangle {
		return checkCorner(f.Corner)
	}
	return nil
}

func checkCorner(c Corner) error {
	if c != Square && c != Round && c != Bevel {
		return Refuse("corner", "Corners are square, round or bevelled.")
	}
	return nil
}

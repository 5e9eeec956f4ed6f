package card

import (
	"slices"

	"sectilis/core/ground/edging"
	"sectilis/core/ground/geom"
)

// Kind is the kind of an item.
type Kind string

// The kinds of items.
const (
	Photo     Kind = "photo"
	Paper     Kind = "paper"
	Shape     Kind = "shape"
	Lettering Kind = "lettering"
	Mat       Kind = "mat"
	Drawing   Kind = "drawing" // lines of its carrier
	Slot      Kind = "slot"    // waits for a photo or words
)

// Item is anything placed on a face. The part that belongs to its kind is set
// and the others are nil.
type Item struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Kind Kind   `json:"kind"`
	// On is the piece that carries the item; empty for the base.
	On string `json:"on,omitempty"`
	// Group is the innermost group that the item belongs to; empty for none.
	Group string `json:"group,omitempty"`
	// Locked keeps the item where and as large as it is.
	Locked bool `json:"locked,omitempty"`
	// Hidden leaves the item, and all it carries, out of the card for now.
	Hidden bool `json:"hidden,omitempty"`
	// ByHand marks a stroke that was drawn by hand, which can be rubbed out.
	ByHand bool `json:"byHand,omitempty"`
	// Background marks what is printed over the whole of a face.
	Background bool    `json:"background,omitempty"`
	Place      Place   `json:"place"`
	Made       Made    `json:"made"`
	Fill       Fill    `json:"fill"`
	Look       *Look   `json:"look,omitempty"`
	Photo      *Print  `json:"photo,omitempty"`
	Form       *Form   `json:"form,omitempty"`
	Words      *Words  `json:"words,omitempty"`
	Lines      *Lines  `json:"lines,omitempty"`
	Mat        *Border `json:"mat,omitempty"`
	// Tier is which tier of a tiered picture it is, from 1, the lowest; 0 for none.
	Tier int `json:"tier,omitempty"`
	// Feature says that it is a part of the tiered picture of its group that stands out by itself.
	Feature bool `json:"feature,omitempty"`
	// Cover is which mat of a covered panel it is; nil for none.
	Cover *Cover `json:"cover,omitempty"`
	// Art is the art of the tray that it was laid from; "" for none.
	Art string `json:"art,omitempty"`
	// Window makes it a window mat over others.
	Window *Window `json:"window,omitempty"`
	// Edging is a motif along its outline.
	Edging *edging.Edging `json:"edging,omitempty"`
	Slot   *Waits         `json:"slot,omitempty"` // beside the form of a slot
	// Bridges are those that a person has put on islands that its outline leaves.
	Bridges []Bridge `json:"bridges,omitempty"`
}

// Place is where an item lies on its face: its anchor, from the face's top
// left corner, and its turn about it. The anchor is the centre; for words it
// is the middle of the block, at the edge they are aligned to. A mat has no
// place of its own: it follows what it lies under.
type Place struct {
	X    float64 `json:"x"`
	Y    float64 `json:"y"`
	Turn float64 `json:"turn"`
	// Mirrored says that the item is seen as in a mirror, left for right,
	// before it is turned.
	Mirrored bool `json:"mirrored,omitempty"`
}

// Map takes what is about the anchor to the face.
func (p Place) Map() geom.Affine {
	m := geom.Turn(radians(p.Turn)).Then(geom.Shift(p.X, p.Y))
	if p.Mirrored {
		return geom.Scale(-1, 1).Then(m)
	}
	return m
}

// As is how an item comes into being.
type As string

// An item is ink on its carrier, a piece of stock that is cut and stuck on, a line along which
// its carrier is worked, part of the outline of the piece that it lies on, or the outline that all
// else in its group ends at.
const (
	Printed As = "printed"
	Cut     As = "cut"
	Lined   As = "line"
	Carved  As = "carved"
	Welded  As = "welded"
	Trims   As = "trims"
)

// Role is what a line is for.
type Role string

// The line roles.
const (
	RoleCut         Role = "cut"
	RoleMountain    Role = "mountain"
	RoleValley      Role = "valley"
	RolePerforation Role = "perforation"
	RoleKiss        Role = "kiss"
	RolePen         Role = "pen"
	RoleGuide       Role = "guide"
)

// Folds reports whether a line of the role is folded.
func (r Role) Folds() bool { return r == RoleMountain || r == RoleValley }

// Roles lists the line roles.
func Roles() []Role {
	return []Role{RoleCut, RoleMountain, RoleValley, RolePerforation, RoleKiss, RolePen, RoleGuide}
}

// Made says how an item comes into being. Lift and Bleed are mm.
type Made struct {
	As    As      `json:"as"`
	Stock string  `json:"stock,omitempty"` // of a cut piece
	Lift  float64 `json:"lift,omitempty"`  // foam under a cut piece; 0 is flat
	Bleed float64 `json:"bleed,omitempty"` // how far ink runs past a cut piece's outline
	// Free says that a cut piece is glued at its middle only: where it reaches
	// over a fold or a cut, it stands free.
	Free bool `json:"free,omitempty"`
	// Thicken grows parts of a cut piece that are thinner than its stock bears.
	Thicken bool `json:"thicken,omitempty"`
	// Islands is what becomes of what would fall out of a cut piece.
	Islands Islands `json:"islands,omitzero"`
}

// Fill is the ink inside an outline: a colour, a patterned paper, a gradient or, with all
// empty, none, so that the stock shows. Turn is degrees clockwise, the shifts are mm.
type Fill struct {
	Colour string `json:"colour,omitempty"` // #rrggbb
	Paper  string `json:"paper,omitempty"`  // id of a patterned paper
	// Scale, Turn and Shift lay the pattern out about the item's anchor: its
	// size, 0 being as it is, its turn in degrees and its shift in mm.
	Scale    float64   `json:"scale,omitempty"`
	Turn     float64   `json:"turn,omitempty"`
	ShiftX   float64   `json:"shiftX,omitempty"`
	ShiftY   float64   `json:"shiftY,omitempty"`
	Gradient *Gradient `json:"gradient,omitempty"`
}

// Pattern maps the pattern to the item.
func (f Fill) Pattern() geom.Affine {
	k := f.Scale
	if k == 0 {
		k = 1
	}
	return geom.Scale(k, k).Then(geom.Turn(radians(f.Turn))).Then(geom.Shift(f.ShiftX, f.ShiftY))
}

// Takes is what a slot waits for.
type Takes string

// What slots wait for.
const (
	TakesPhoto Takes = "photo"
	TakesWords Takes = "words"
)

// Waits says what a slot waits for. Nothing of a slot is printed or cut until
// it is filled.
type Waits struct {
	Takes Takes `json:"takes"`
	// Words is how words in the slot are set; their size is found when they are.
	Words *Words `json:"words,omitempty"`
	Fill  Fill   `json:"fill"` // of the words
	// Made is how what fills the slot is made.
	Made Made `json:"made"`
}

// Print is the picture of a photo, seen through its opening; it is never stretched. Width and
// Height are mm.
type Print struct {
	Picture     string  `json:"picture"`     // SHA-256 of the original, in hex
	PixelWidth  int     `json:"pixelWidth"`  // as seen upright
	PixelHeight int     `json:"pixelHeight"` // as seen upright
	Width       float64 `json:"width"`
	Height      float64 `json:"height"`
	// Opening is the outline it is seen through, of the photo's size; nil is a
	// rectangle.
	Opening *Form `json:"opening,omitempty"`
	// Fit shows the whole picture; else it fills the opening.
	Fit bool `json:"fit,omitempty"`
	// Zoom is how much larger the picture is than it has to be; 0 is 1.
	Zoom float64 `json:"zoom,omitempty"`
	// ShiftX and ShiftY move the picture's middle, in shares of the opening.
	ShiftX float64 `json:"shiftX,omitempty"`
	ShiftY float64 `json:"shiftY,omitempty"`
	// Rim is the paper that shows round the opening when the photo is cut out; nil is none.
	Rim *Rim `json:"rim,omitempty"`
	// Edits are what is done to the picture before it is seen, in their order. The parts that
	// they point to are shared by copies and never changed.
	Edits []Edit `json:"edits,omitempty"`
}

// Rim is paper that shows round an opening. Width and Bays are mm.
type Rim struct {
	Width float64 `json:"width"`
	// Solid fills the holes of the opening with paper.
	Solid bool `json:"solid,omitempty"`
	// Bays are filled with paper where they are narrower than this.
	Bays float64 `json:"bays,omitempty"`
}

// FirstRim is how a picture is cut round its form until a person chooses otherwise: an eighth
// of an inch of paper, holes filled, bays no narrower than that.
func FirstRim() *Rim { return &Rim{Width: 3.175, Solid: true, Bays: 3.175} }

// Rimmed reports whether paper shows round the opening of the item: whether it is a photo with
// a rim that is cut.
func (it Item) Rimmed() bool { return it.Photo != nil && it.Photo.Rim != nil && it.IsPiece() }

// Bleeds is how far the ink of the item runs past its outline, mm: nowhere where paper shows
// round it.
func (it Item) Bleeds() float64 {
	if it.Rimmed() {
		return 0
	}
	return it.Made.Bleed
}

// Form is the outline of the opening, in its size.
func (p Print) Form() Form {
	f := Form{Outline: Rectangle, Corner: Square}
	if p.Opening != nil {
		f = *p.Opening
	}
	f.Width, f.Height = p.Width, p.Height
	return f
}

// Lines are lines of the item's carrier. Path is stretched to Width and Height, mm.
type Lines struct {
	Role   Role    `json:"role"`
	Path   *Drawn  `json:"path"`
	Width  float64 `json:"width"`
	Height float64 `json:"height"`
}

// Border is a mat: what it lies under, how far it shows and its corners. Width is mm.
type Border struct {
	Of     string  `json:"of"`
	Width  float64 `json:"width"`
	Corner Corner  `json:"corner"`
	// Solid fills the holes of what lies on it.
	Solid bool `json:"solid,omitempty"`
	// Below is how much farther it shows at the foot, mm.
	Below float64 `json:"below,omitempty"`
	// Form is the shape of the catalogue that it has, as large as shows by Width all round; without
	// one it follows what lies on it.
	Form string `json:"form,omitempty"`
	// Hollow takes its middle out, so that as much of it is left under the edge of what lies on it to
	// be glued by, mm; 0 leaves it whole.
	Hollow float64 `json:"hollow,omitempty"`
	// DX and DY are how far off it lies, by eye, mm.
	DX float64 `json:"dx,omitempty"`
	DY float64 `json:"dy,omitempty"`
}

// Size is the width and height an item has by itself; ok is false for lettering and mats, whose
// size follows from something else. Both are mm.
func (it Item) Size() (w, h float64, ok bool) {
	switch {
	case it.Photo != nil:
		return it.Photo.Width, it.Photo.Height, true
	case it.Form != nil:
		return it.Form.Width, it.Form.Height, true
	case it.Lines != nil:
		return it.Lines.Width, it.Lines.Height, true
	}
	return 0, 0, false
}

// IsPiece reports whether the item is cut from its own stock.
func (it Item) IsPiece() bool { return it.Made.As == Cut }

// Clone is a copy that shares nothing with the item.
func (it Item) Clone() Item {
	it.Photo, it.Form, it.Words, it.Mat = copied(it.Photo), copied(it.Form), it.Words.clone(), copied(it.Mat)
	it.Cover, it.Window = copied(it.Cover), copied(it.Window)
	if it.Window != nil {
		it.Window.Of = slices.Clone(it.Window.Of)
	}
	if it.Photo != nil {
		it.Photo.Opening, it.Photo.Rim, it.Photo.Edits = copied(it.Photo.Opening), copied(it.Photo.Rim), slices.Clone(it.Photo.Edits)
	}
	it.Fill, it.Look = it.Fill.clone(), it.Look.clone()
	it.Lines, it.Slot, it.Bridges, it.Edging = copied(it.Lines), copied(it.Slot), slices.Clone(it.Bridges), copied(it.Edging)
	if it.Slot != nil {
		it.Slot.Words, it.Slot.Fill = it.Slot.Words.clone(), it.Slot.Fill.clone()
	}
	return it
}

func copied[T any](p *T) *T {
	if p == nil {
		return nil
	}
	v := *p
	return &v
}

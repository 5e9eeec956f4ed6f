// Package card is the document: a card with its base, its faces and what lies
// on them, and the commands that change it. A Card is a plain value that turns
// into JSON and back; what can be computed from it is not kept in it. Lengths
// are millimetres, turns are degrees clockwise.
package card

import (
	"encoding/json"
	"fmt"
	"slices"

	"sectilis/core/geom"
)

// Schema is the version of the document that this program writes. Older ones
// are read, newer ones refused.
const Schema = 1

// Card is one document.
type Card struct {
	Schema int    `json:"schema"`
	Title  string `json:"title"`
	Base   Base   `json:"base"`
	Faces  []Face `json:"faces"`
	// NextID numbers the next item, so that a command's outcome depends on
	// the card and the command alone.
	NextID int `json:"nextId"`
}

// BaseKind names a base in the catalogue.
type BaseKind string

// The bases that fold.
const (
	SideFold  BaseKind = "sideFold"  // opens like a book, the fold at the left of Front
	TopFold   BaseKind = "topFold"   // opens upward, the fold along the top of Front
	Tent      BaseKind = "tent"      // stands on its long edges
	TriFold   BaseKind = "triFold"   // three leaves, the last tucked in
	ZFold     BaseKind = "zFold"     // three leaves, to and fro
	Accordion BaseKind = "accordion" // any number of leaves, to and fro
	GateFold  BaseKind = "gateFold"  // two gates meet in front
	StepCard  BaseKind = "stepCard"  // steps stand up when it is opened
	PopupBox  BaseKind = "popupBox"  // boxes stand up when it is opened
	VFold     BaseKind = "vFold"     // a V stands up across the fold
	Easel     BaseKind = "easel"     // its front folds back and stands
	Shaped    BaseKind = "shaped"    // an outline, mirrored over its fold
	Pocket    BaseKind = "pocket"    // a leaf with a pocket in front
	Envelope  BaseKind = "envelope"  // what a card is sent in
)

// Base is the sheet that folds.
type Base struct {
	Kind   BaseKind `json:"kind"`
	Width  float64  `json:"width"`  // of the closed card
	Height float64  `json:"height"` // of the closed card
	Stock  string   `json:"stock"`
	// Measures are what else the kind of base is made from, by name; what is
	// left out follows from the size.
	Measures map[string]float64 `json:"measures,omitempty"`
	// Lines are a person's own, as they lie with the inside up: across and down
	// from the upper left corner of the sheet.
	Lines []OwnLine `json:"lines,omitempty"`
}

// OwnLine is a line that a person has added to a base. A guide leaves the sheet
// whole where a fold would run.
type OwnLine struct {
	Role Role       `json:"role"`
	From geom.Point `json:"from"`
	To   geom.Point `json:"to"`
}

// FaceID names a face of a folded base; the names people read follow from the
// kind of base.
type FaceID string

// The faces of a base with one fold. First is the reverse of Front, Second the
// reverse of Back. Bases with more leaves have more: see LeafFaces.
const (
	Front        FaceID = "front"
	InsideFirst  FaceID = "insideFirst"
	InsideSecond FaceID = "insideSecond"
	Back         FaceID = "back"
)

// LeafFaces are the faces of a leaf, counted from Front, which is 0: its
// outside and its inside.
func LeafFaces(leaf int) (outside, inside FaceID) {
	switch leaf {
	case 0:
		return Front, InsideFirst
	case 1:
		return Back, InsideSecond
	}
	return FaceID(fmt.Sprintf("outside%d", leaf+1)), FaceID(fmt.Sprintf("inside%d", leaf+1))
}

// Face is one visible side of a panel, with its items from the base upward: a
// carrier comes before what it carries, ink before pieces.
type Face struct {
	ID    FaceID `json:"id"`
	Items []Item `json:"items"`
	// Groups are sets of items that are chosen and moved as one.
	Groups []Group `json:"groups,omitempty"`
}

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
	Slot       *Waits  `json:"slot,omitempty"` // beside the form of a slot
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

// An item is ink on its carrier, a piece of stock that is cut and stuck on, or
// a line along which its carrier is worked.
const (
	Printed As = "printed"
	Cut     As = "cut"
	Lined   As = "line"
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

// Roles lists the line roles.
func Roles() []Role {
	return []Role{RoleCut, RoleMountain, RoleValley, RolePerforation, RoleKiss, RolePen, RoleGuide}
}

// Made says how an item comes into being.
type Made struct {
	As    As      `json:"as"`
	Stock string  `json:"stock,omitempty"` // of a cut piece
	Lift  float64 `json:"lift,omitempty"`  // foam under a cut piece; 0 is flat
	Bleed float64 `json:"bleed,omitempty"` // how far ink runs past a cut piece's outline
	// Free says that a cut piece is glued at its middle only: where it reaches
	// over a fold or a cut, it stands free.
	Free bool `json:"free,omitempty"`
}

// Fill is the ink inside an outline: a colour, a patterned paper, a gradient or,
// with all empty, none, so that the stock shows.
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

// Print is the picture of a photo, seen through its opening; it is never
// stretched.
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

// Outline names a ready outline.
type Outline string

// The ready outlines.
const (
	Rectangle Outline = "rectangle"
	Ellipse   Outline = "ellipse"
	Scallop   Outline = "scallop"
	Tag       Outline = "tag"
	Banner    Outline = "banner"
	Flag      Outline = "flag"
	Tab       Outline = "tab"
	Strip     Outline = "strip"
	// Free is the outline that was drawn, traced, brought in or made of others.
	Free Outline = "free"
)

// Corner is the kind of corners of a rectangle.
type Corner string

// The kinds of corners.
const (
	Square Corner = "square"
	Round  Corner = "round"
	Bevel  Corner = "bevel"
)

// Form is the outline of a shape or a paper.
type Form struct {
	Outline Outline `json:"outline"`
	Width   float64 `json:"width"`
	Height  float64 `json:"height"`
	Corner  Corner  `json:"corner,omitempty"` // of a rectangle
	Radius  float64 `json:"radius,omitempty"` // of round or bevelled corners
	// Path is a free outline; it is stretched to Width and Height.
	Path *Drawn `json:"path,omitempty"`
	// Ends keeps both ends of a free outline in proportion to its height and
	// stretches what is between them: their length in shares of the outline as it
	// was drawn, 0 stretching all of it.
	Ends float64 `json:"ends,omitempty"`
}

// Lines are lines of the item's carrier. Path is stretched to Width and Height.
type Lines struct {
	Role   Role    `json:"role"`
	Path   *Drawn  `json:"path"`
	Width  float64 `json:"width"`
	Height float64 `json:"height"`
}

// Align is the edge that lines of words share.
type Align string

// The ways to align lines.
const (
	AlignLeft   Align = "left"
	AlignCentre Align = "centre"
	AlignRight  Align = "right"
)

// Words is the content of lettering.
type Words struct {
	Text    string  `json:"text"`
	Font    string  `json:"font"`
	Size    float64 `json:"size"`    // of the em, mm
	Leading float64 `json:"leading"` // from line to line, in ems
	Spacing float64 `json:"spacing"` // added between letters, in ems
	Align   Align   `json:"align"`
}

// Border is a mat: what it lies under, how far it shows and its corners.
type Border struct {
	Of     string  `json:"of"`
	Width  float64 `json:"width"`
	Corner Corner  `json:"corner"`
	// Solid fills the holes of what lies on it.
	Solid bool `json:"solid,omitempty"`
}

// Size is the width and height an item has by itself; ok is false for
// lettering and mats, whose size follows from something else.
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

// Foam is the thickness of foam that people can buy, in mm; 0 is flat.
var Foam = []float64{0, .5, 1, 1.5, 2, 3}

// Trade is a trade size of a closed card.
type Trade struct {
	Name   string  `json:"name"`
	Family string  `json:"family"`
	Width  float64 `json:"width"` // portrait
	Height float64 `json:"height"`
}

// Trades are the sizes that envelopes are sold for.
func Trades() []Trade {
	in := func(v float64) float64 { return v * 25.4 }
	return []Trade{
		{"A2", "Letter", in(4.25), in(5.5)}, {"A6", "Letter", in(4.5), in(6.25)},
		{"A7", "Letter", in(5), in(7)}, {"Slimline", "Letter", in(3.5), in(8.5)},
		{"Square 5 ¼", "Letter", in(5.25), in(5.25)},
		{"A6 ISO", "ISO", 105, 148}, {"A5 ISO", "ISO", 148, 210},
		{"DL", "ISO", 99, 210}, {"Square 148", "ISO", 148, 148},
	}
}

// Envelopes are the trade envelopes, landscape, the smallest first.
func Envelopes() []Trade {
	in := func(v float64) float64 { return v * 25.4 }
	return []Trade{
		{"A2 envelope", "Letter", in(5.75), in(4.375)}, {"C6 envelope", "ISO", 162, 114},
		{"A6 envelope", "Letter", in(6.5), in(4.75)}, {"Square 5 ½ envelope", "Letter", in(5.5), in(5.5)},
		{"A7 envelope", "Letter", in(7.25), in(5.25)}, {"DL envelope", "ISO", 220, 110},
		{"Slimline envelope", "Letter", in(8.875), in(3.875)}, {"Square 155 envelope", "ISO", 155, 155},
		{"C5 envelope", "ISO", 229, 162},
	}
}

// New returns an empty card with one fold.
func New(title string, base Base) (Card, error) {
	c := Card{Schema: Schema, Title: title, Base: base, NextID: 1}
	for _, id := range []FaceID{Front, InsideFirst, InsideSecond, Back} {
		c.Faces = append(c.Faces, Face{ID: id, Items: []Item{}})
	}
	return c, c.check()
}

// Parse reads a card from JSON and checks every part of it.
func Parse(raw []byte) (Card, error) {
	var c Card
	if err := json.Unmarshal(raw, &c); err != nil {
		return Card{}, fmt.Errorf("the card cannot be read: %w", err)
	}
	if c.Schema > Schema {
		return Card{}, fmt.Errorf("the card was made by a newer version (schema %d, this one knows %d)", c.Schema, Schema)
	}
	return c, c.check()
}

// clone copies c deeply, so that a command can change the copy freely.
func (c Card) clone() Card {
	c.Faces = slices.Clone(c.Faces)
	for i := range c.Faces {
		items := make([]Item, len(c.Faces[i].Items))
		for j, it := range c.Faces[i].Items {
			items[j] = it.clone()
		}
		c.Faces[i].Items = items
		c.Faces[i].Groups = slices.Clone(c.Faces[i].Groups)
	}
	return c
}

func (it Item) clone() Item {
	it.Photo, it.Form, it.Words, it.Mat = copied(it.Photo), copied(it.Form), copied(it.Words), copied(it.Mat)
	if it.Photo != nil {
		it.Photo.Opening = copied(it.Photo.Opening)
	}
	it.Fill, it.Look = it.Fill.clone(), it.Look.clone()
	it.Lines, it.Slot = copied(it.Lines), copied(it.Slot)
	return it
}

func copied[T any](p *T) *T {
	if p == nil {
		return nil
	}
	v := *p
	return &v
}

// Face returns the face with the id, or nil.
func (c *Card) Face(id FaceID) *Face {
	for i := range c.Faces {
		if c.Faces[i].ID == id {
			return &c.Faces[i]
		}
	}
	return nil
}

// Find returns the item with the id and its face, or nils.
func (c *Card) Find(id string) (*Face, *Item) {
	for i := range c.Faces {
		if it := c.Faces[i].Item(id); it != nil {
			return &c.Faces[i], it
		}
	}
	return nil, nil
}

// Item returns the item with the id on this face, or nil.
func (f *Face) Item(id string) *Item {
	for i := range f.Items {
		if f.Items[i].ID == id {
			return &f.Items[i]
		}
	}
	return nil
}

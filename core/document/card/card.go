// Package card is the document: a card with its base, its faces and what lies
// on them, and the commands that change it. A Card is a plain value that turns
// into JSON and back; what can be computed from it is not kept in it. Lengths
// are millimetres, turns are degrees clockwise.
package card

import (
	"encoding/json"
	"fmt"
	"slices"

	"sectilis/core/ground/geom"
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
	// Laid and Ties say how pieces are laid on sheets where a person has seen to it.
	Laid []Laid `json:"laid,omitempty"`
	Ties []Tie  `json:"ties,omitempty"`
	// Leaf is the insert that the inside is printed on; nil for none.
	Leaf *Insert `json:"insert,omitempty"`
	// Steps are what a person has changed of the guide to putting it together.
	Steps []StepChange `json:"steps,omitempty"`
	// Left are findings of checks that a person leaves so.
	Left []LeftSo `json:"left,omitempty"`
	// Sheets is how its sheets are laid and marked; nil for UsualSheets.
	Sheets *SheetSetup `json:"sheets,omitempty"`
	// Names is the list that it is made for; nil for none.
	Names *Names `json:"names,omitempty"`
}

// BaseKind names a base in the catalogue.
type BaseKind string

// The kinds of base. A flat card has Front and Back and no fold; all others fold.
const (
	Flat       BaseKind = "flat"       // a postcard, a tag, a page: one leaf
	SideFold   BaseKind = "sideFold"   // opens like a book, the fold at the left of Front
	TopFold    BaseKind = "topFold"    // opens upward, the fold along the top of Front
	Tent       BaseKind = "tent"       // stands on its long edges
	TriFold    BaseKind = "triFold"    // three leaves, the last tucked in
	ZFold      BaseKind = "zFold"      // three leaves, to and fro
	Accordion  BaseKind = "accordion"  // any number of leaves, to and fro
	GateFold   BaseKind = "gateFold"   // two gates meet in front
	DoubleGate BaseKind = "doubleGate" // two gates, each parted into an upper and a lower door
	StepCard   BaseKind = "stepCard"   // steps stand up when it is opened
	PopupBox   BaseKind = "popupBox"   // boxes stand up when it is opened
	VFold      BaseKind = "vFold"      // a V stands up across the fold
	Easel      BaseKind = "easel"      // its front folds back and stands
	Shaped     BaseKind = "shaped"     // an outline, mirrored over its fold
	Pocket     BaseKind = "pocket"     // a leaf with a pocket in front
	Envelope   BaseKind = "envelope"   // what a card is sent in
	FromLines  BaseKind = "fromLines"  // made from the lines of a drawing
)

// Base is the sheet that folds. Width and Height are mm.
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
	// Drawn is what a base of the kind FromLines is made from; nil for all others.
	Drawn *DrawnBase `json:"drawn,omitempty"`
}

// OwnLine is a line that a person has added to a base. A guide leaves the sheet
// whole where a fold would run.
type OwnLine struct {
	Role Role       `json:"role"`
	From geom.Point `json:"from"`
	To   geom.Point `json:"to"`
	// Order is when hands fold it, before the folds of the base: 1 first, 2 next; 0 is
	// whenever it works out. It counts only for folds that nothing else moves.
	Order int `json:"order,omitempty"`
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
	// Covered says how its panels are covered with mats; nil where they are not.
	Covered *PanelMats `json:"covered,omitempty"`
}

// Foam is the thickness of foam that people can buy, in mm; 0 is flat.
var Foam = []float64{0, .5, 1, 1.5, 2, 3}

// New returns an empty card with one fold. It returns a *Refusal for a title or a base that
// cannot be.
func New(title string, base Base) (Card, error) {
	c := Card{Schema: Schema, Title: title, Base: base, NextID: 1}
	for _, id := range []FaceID{Front, InsideFirst, InsideSecond, Back} {
		c.Faces = append(c.Faces, Face{ID: id, Items: []Item{}})
	}
	c.tidyText()
	return c, c.check()
}

// Parse reads a card from JSON and checks every part of it. It returns a *Refusal for what is
// not sound, and the error of encoding/json for what is no JSON.
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
	c.Laid, c.Ties = slices.Clone(c.Laid), slices.Clone(c.Ties)
	c.Names = c.Names.clone()
	for i := range c.Faces {
		items := make([]Item, len(c.Faces[i].Items))
		for j, it := range c.Faces[i].Items {
			items[j] = it.Clone()
		}
		c.Faces[i].Items = items
		c.Faces[i].Groups = slices.Clone(c.Faces[i].Groups)
		c.Faces[i].Covered = c.Faces[i].Covered.clone()
	}
	return c
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

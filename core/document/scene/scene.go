// Package scene resolves a card into what is seen, printed and cut: for every
// item its outline, its ink and its height in the stack. The screen, the
// sheets and the files all come from this one computation.
package scene

import (
	"math"
	"reflect"
	"slices"

	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/document/mat"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/edging"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/stencil"
)

// Scene is a resolved card.
type Scene struct {
	Net   fold.Net `json:"net"`
	Faces []Face   `json:"faces"`
	// Colours are all inks of the card, the most used first.
	Colours []ColourUse `json:"colours"`
	uses    map[use]int
	// Thickness of the closed card where it is thickest: both leaves and what
	// is stuck on every face, mm.
	Thickness float64 `json:"thickness"`
}

// Face is a resolved face, items from the base upward.
type Face struct {
	fold.Face
	Folds      []fold.Line      `json:"folds"`
	Neighbours []fold.Neighbour `json:"neighbours"`
	Safe       geom.Rect        `json:"safe"` // keep words within this
	// Shape is what there is of the face, where the sheet has an edge of its own.
	Shape  geom.Path    `json:"shape"`
	Items  []Item       `json:"items"`
	Groups []card.Group `json:"groups,omitempty"`
	// Hidden are items that are left out for now, with what they carry.
	Hidden    []Hidden `json:"hidden,omitempty"`
	Thickness float64  `json:"thickness"` // base leaf and all on it, mm
	leaf      float64  // the base leaf alone
}

// Hidden is an item that is left out.
type Hidden struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// Item is a resolved item. Outline and Picture are in the item's own
// coordinates; At maps them to the face.
type Item struct {
	ID   string    `json:"id"`
	Name string    `json:"name"`
	Kind card.Kind `json:"kind"`
	// Role is what a line is for; the outline of a line may be open.
	Role    card.Role   `json:"role,omitempty"`
	On      string      `json:"on,omitempty"`
	Piece   bool        `json:"piece"`
	Outline geom.Path   `json:"outline"`
	At      geom.Affine `json:"at"`
	// Joined says that the item is part of the outline of the piece that it lies on, or what its
	// group is trimmed by: that it is neither printed nor cut by itself.
	Joined card.As `json:"joined,omitempty"`
	// Islands are the parts of a piece that fall out when it is cut, Bridges what holds others.
	Islands []geom.Path     `json:"islands,omitempty"`
	Bridges []stencil.Strip `json:"bridges,omitempty"`
	// Clip is what an item in a trimmed group ends at; nil for none. The outline of a piece ends
	// there already.
	Clip *geom.Path `json:"clip,omitempty"`
	// Saved is the paper that a mat without its middle saves, mm².
	Saved float64 `json:"saved,omitempty"`
	// Repeats are how many whole ones its edging has.
	Repeats int `json:"repeats,omitempty"`
	// Thin is where a piece is thinner than its stock bears; nil where that is nowhere.
	Thin *Thin `json:"thin,omitempty"`
	// Box is the frame for handles and measures, in the item's coordinates.
	Box geom.Rect `json:"box"`
	// Bounds is the exact box of the outline on the face.
	Bounds geom.Rect `json:"bounds"`
	Turn   float64   `json:"turn"`
	// Mirrored says that At turns left to right before it turns.
	Mirrored bool `json:"mirrored,omitempty"`
	// Group is the innermost group it belongs to.
	Group string `json:"group,omitempty"`
	// Cell says that it swaps pictures with the other cells of its group when it is dragged
	// onto one of them.
	Cell   bool `json:"cell,omitempty"`
	Locked bool `json:"locked,omitempty"`
	// Ground is the colour of a piece's stock; Fill is the ink on it.
	Ground string `json:"ground,omitempty"`
	// GroundPaper is the paper that its stock is printed with, and GroundAt maps that to the item: pieces
	// that lie in one direction on a face go on with one another.
	GroundPaper string       `json:"groundPaper,omitempty"`
	GroundAt    *geom.Affine `json:"groundAt,omitempty"`
	// Tints says that its stock shows through the ink on it (gamut.OnStock).
	Tints   bool      `json:"tints,omitempty"`
	Fill    card.Fill `json:"fill"`
	Picture *Picture  `json:"picture,omitempty"`
	// Slot is what the item waits for, if it does.
	Slot  card.Takes `json:"slot,omitempty"`
	Bleed float64    `json:"bleed"`
	// Clear is the share of what lies below that shows through.
	Clear float64    `json:"clear,omitempty"`
	Tint  *card.Tint `json:"tint,omitempty"`
	// PatternAt maps the pattern of its fill to the item.
	PatternAt *geom.Affine `json:"patternAt,omitempty"`
	// Under and Over are what its look adds below and above its own ink.
	Under      []Wash      `json:"under,omitempty"`
	Over       []Wash      `json:"over,omitempty"`
	Reflection *Reflection `json:"reflection,omitempty"`
	// From and To are the heights of a piece's faces above the base sheet's
	// lower side, and Lift the foam under it, mm.
	From float64 `json:"from"`
	To   float64 `json:"to"`
	Lift float64 `json:"lift"`
	// Words is how lettering is set.
	Words *WordsSet `json:"words,omitempty"`
	// Parts are regions of the outline that have an ink of their own; Rest is what Fill covers
	// then, in place of the whole outline.
	Parts []Part     `json:"parts,omitempty"`
	Rest  *geom.Path `json:"rest,omitempty"`
	// With are the other items that move when this one is moved: its mats and
	// all they carry.
	With []string `json:"with,omitempty"`
	// TakesMat says that a mat can be laid under it.
	TakesMat bool `json:"takesMat"`
	// FreeRatio is false for what keeps its proportions always.
	FreeRatio bool `json:"freeRatio"`
}

// WordsSet is how lettering is set. Lengths are mm.
type WordsSet struct {
	// Block is the box of the lines, or the box that they are set in.
	Block geom.Rect `json:"block"`
	// Size is that of the letters, which may follow from their box.
	Size float64 `json:"size"`
	// Over is by how much the words are larger than their box, or longer than their line.
	Over float64 `json:"over,omitempty"`
	// Missing are letters that the font does not have.
	Missing string `json:"missing,omitempty"`
}

// Thin is where a piece is thinner than its stock bears. Lengths are mm.
type Thin struct {
	Regions []geom.Path `json:"regions"`
	Least   float64     `json:"least"` // width of its thinnest part; that which it bears where it has points alone
	Bears   float64     `json:"bears"` // least width that the stock bears
}

// Part is a region of an ink of its own.
type Part struct {
	Colour string    `json:"colour"`
	Path   geom.Path `json:"path"`
}

// safeMargin is how far words stay from the edge of a face, mm.
const safeMargin = 5

// SafeArea is the part of a face that words stay within, mm from its upper left corner.
func SafeArea(f fold.Face) geom.Rect {
	return geom.Rect{W: f.Width, H: f.Height}.Grow(-safeMargin)
}

// Of resolves a card. It fails only when lettering names a font that is not
// there, and then says which item does.
func Of(c card.Card) (Scene, error) { return After(c, card.Card{}, Scene{}) }

// After resolves a card as Of does, and takes from the scene of an earlier state of it what
// has not changed since. It fails as Of does.
func After(c, was card.Card, old Scene) (Scene, error) {
	study := fold.StudyOf(c.Base)
	s := Scene{Net: study.Net}
	stock, _ := card.StockByID(c.Base.Stock)
	uses := map[use]int{}
	for _, f := range c.Faces {
		nf := s.Net.Face(f.ID)
		if nf.ID == "" {
			continue // it waits for a base that has this face
		}
		face := Face{
			Face: nf, Folds: s.Net.FoldsOn(f.ID), Neighbours: s.Net.Neighbours(f.ID),
			Safe:      SafeArea(nf),
			Shape:     s.Net.Shape(nf),
			Items:     make([]Item, 0, len(f.Items)),
			Thickness: stock.Thickness, leaf: stock.Thickness,
		}
		face.Groups = f.Groups
		gone, known := f.Hidden(), unchanged(&f, was.Face(f.ID), old.Face(f.ID))
		along := f.Alongs()
		for i := range f.Items {
			if id := f.Items[i].ID; gone[id] {
				if f.Items[i].Hidden {
					face.Hidden = append(face.Hidden, Hidden{id, f.Items[i].Name})
				}
				continue
			}
			it, ok := known[f.Items[i].ID]
			if !ok {
				var err error
				if it, err = Resolve(&f, &f.Items[i]); err != nil {
					return Scene{}, err
				}
			}
			face.lay(&it, f.Items[i])
			it.With = slices.DeleteFunc(along[it.ID], func(id string) bool { return gone[id] })
			if it.Joined == "" {
				u := use{stock: StockUnder(&f, &f.Items[i], c.Base.Stock)}
				for _, u.colour = range f.Items[i].Colours() {
					uses[u]++
				}
			}
			face.Items = append(face.Items, it)
		}
		face.cells()
		s.Faces = append(s.Faces, face)
	}
	s.Thickness = math.Round(Closed(c, &s).Thickness()*1000) / 1000
	s.Colours, s.uses = colourUses(uses), uses
	return s, nil
}

// unchanged are the items of a face that are as they were, resolved. A mat is what
// lies on it, and is looked at anew.
func unchanged(f, was *card.Face, old *Face) map[string]Item {
	if was == nil || old == nil {
		return nil
	}
	docs := make(map[string]*card.Item, len(was.Items))
	for i := range was.Items {
		docs[was.Items[i].ID] = &was.Items[i]
	}
	if !reflect.DeepEqual(trims(f), trims(was)) {
		return nil
	}
	same := make(map[string]bool, len(f.Items))
	gone, wasGone := f.Hidden(), was.Hidden()
	for i := range f.Items {
		it := &f.Items[i]
		doc := docs[it.ID]
		same[it.ID] = it.Mat == nil && doc != nil && reflect.DeepEqual(doc, it) &&
			(!it.IsPiece() || reflect.DeepEqual(joined(f, it.ID, gone), joined(was, it.ID, wasGone)))
	}
	out := make(map[string]Item, len(old.Items))
	for _, it := range old.Items {
		if same[it.ID] {
			out[it.ID] = it
		}
	}
	return out
}

// Face returns the face with the id.
func (s *Scene) Face(id card.FaceID) *Face {
	for i := range s.Faces {
		if s.Faces[i].ID == id {
			return &s.Faces[i]
		}
	}
	return nil
}

// lay puts a piece on whatever lies under it: its foam and paper start at the
// highest paper its bounds overlap.
func (f *Face) lay(it *Item, doc card.Item) {
	ground := f.leaf
	for i := range f.Items {
		if under := &f.Items[i]; under.Bounds.Overlaps(it.Bounds) {
			ground = max(ground, under.To)
		}
	}
	it.From, it.To = ground, ground
	if doc.IsPiece() {
		stock, _ := card.StockByID(doc.Made.Stock)
		it.Lift = doc.Made.Lift
		it.To = ground + it.Lift + stock.Thickness
	}
	f.Thickness = max(f.Thickness, it.To)
}

// Resolve works out one item of a face from the document, but not its height
// in the stack. It fails as Of does.
func Resolve(f *card.Face, doc *card.Item) (Item, error) {
	it := Item{
		ID: doc.ID, Name: doc.Name, Kind: doc.Kind, On: doc.On, Piece: doc.IsPiece(),
		Group: doc.Group, Locked: doc.Locked,
		Fill: doc.Fill, Bleed: doc.Bleeds(), FreeRatio: (doc.Words == nil || doc.Words.Box != nil) && doc.Mat == nil,
	}
	if doc.Slot != nil {
		it.Slot = doc.Slot.Takes
	}
	if stock, ok := card.StockByID(doc.Made.Stock); ok {
		it.Ground, it.GroundPaper = stock.Colour, stock.Pattern
		it.Tints = doc.IsPiece() && !Plain(stock.Colour, stock.Pattern)
	}
	if doc.Joined() || doc.Trims() {
		it.Joined = doc.Made.As
	}
	place := doc.Place
	switch {
	case doc.Photo != nil:
		it.Outline, it.TakesMat = card.OutlineOf(doc.Photo.Form()), true
		it.Picture = Seen(*doc.Photo, it.Bleed)
		if doc.Rimmed() {
			opening := it.Outline
			it.Box, it.Rest = opening.Bounds(), &opening
			it.Outline = mat.Rim(opening, *doc.Photo.Rim)
		}
	case doc.Form != nil:
		it.Outline = card.OutlineOf(*doc.Form)
		it.TakesMat = true
	case doc.Words != nil:
		set, err := lettering.Set(lettering.AtHand(*doc.Words))
		if err != nil {
			return it, &card.Refusal{Field: "font", Why: "“" + doc.Name + "” cannot be set: " + err.Error() + "."}
		}
		it.Outline, it.TakesMat = set.Outline, !set.Outline.Empty()
		it.Words = &WordsSet{set.Block, set.Size, set.Over, set.Missing}
		it.Box = set.Outline.Bounds()
		if it.Box.Empty() || doc.Words.Box != nil {
			it.Box = set.Block
		}
		for _, p := range set.Parts {
			it.Parts = append(it.Parts, Part{p.Colour, p.Outline})
		}
		if len(it.Parts) > 0 {
			it.Rest = &set.Rest
		}
	case doc.Mat != nil:
		var err error
		if place, err = it.mat(f, doc); err != nil {
			return it, err
		}
	case doc.Lines != nil:
		it.Outline, it.Role = doc.Lines.Path.In(doc.Lines.Width, doc.Lines.Height), doc.Lines.Role
	}
	if it.Box.Empty() {
		it.Box = it.Outline.Bounds()
	}
	it.Turn, it.Mirrored = place.Turn, place.Mirrored
	it.At = place.Map()
	if doc.Edging != nil {
		it.Outline, it.Repeats = edging.Run(it.Outline, *doc.Edging)
	}
	if it.Piece {
		if err := it.join(f, doc); err != nil {
			return it, err
		}
	}
	if err := it.trim(f, doc); err != nil {
		return it, err
	}
	it.Bounds = it.Outline.Transform(it.At).Bounds()
	it.dress(doc)
	return it, nil
}

// mat makes the item the mat that a document says, and returns its place.
func (it *Item) mat(f *card.Face, doc *card.Item) (place card.Place, err error) {
	it.TakesMat = true
	if it.Outline, place, err = matOf(f, doc); err != nil || doc.Mat.Hollow == 0 {
		return place, err
	}
	whole := doc.Clone()
	whole.Mat.Hollow = 0
	all, _, err := matOf(f, &whole)
	it.Saved = max(0, all.Area()-it.Outline.Area())
	return place, err
}

// matOf is the outline of a mat and the place it takes from what lies on it.
func matOf(f *card.Face, doc *card.Item) (geom.Path, card.Place, error) {
	var mats []card.Border
	it := doc
	for it.Mat != nil && (len(mats) == 0 || it.Edging == nil) {
		mats = append(mats, *it.Mat)
		it = f.Item(it.Mat.Of)
	}
	slices.Reverse(mats)
	form := it.Form
	if it.Photo != nil && !it.Rimmed() {
		opening := it.Photo.Form()
		form = &opening
	}
	if it.Edging != nil {
		form = nil // mats follow its edging
	}
	own, err := Resolve(f, it)
	top := it
	for top.Mat != nil {
		top = f.Item(top.Mat.Of)
	}
	return mat.Outline(own.Outline, form, mats), top.Place, err
}

// Carrier returns the item that the item lies on, or nil for the base.
func (f *Face) Carrier(it *Item) *Item {
	return f.Item(it.On)
}

// Item returns the item with the id, or nil.
func (f *Face) Item(id string) *Item {
	if i := slices.IndexFunc(f.Items, func(it Item) bool { return it.ID == id }); i >= 0 {
		return &f.Items[i]
	}
	return nil
}

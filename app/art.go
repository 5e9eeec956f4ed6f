package app

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"image/color"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"sectilis/core/design/overlay"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// Art is a drawing, or things of a card, that wait in the tray and are laid on cards as one. Its id is
// the SHA-256 of what it is made of. Width and Height are mm.
type Art struct {
	ID     string  `json:"id"`
	Name   string  `json:"name"`
	Width  float64 `json:"width"`
	Height float64 `json:"height"`
	Parts  int     `json:"parts"`
	// Ships says that it came with the program.
	Ships bool `json:"ships,omitempty"`
}

// ArtStore keeps the art of the tray, each with a flat card that it lies in the middle of.
type ArtStore interface {
	// AllArt lists it, the newest first.
	AllArt(ctx context.Context) ([]Art, error)
	AddArt(ctx context.Context, a Art, c card.Card, at time.Time) error
	// Art returns ErrNotFound for art that is not in the tray.
	Art(ctx context.Context, id string) (Art, card.Card, error)
	RemoveArt(ctx context.Context, id string) error
}

// artBase is the flat card that art lies on in the store, as large as a card may be.
var artBase = card.Base{Kind: card.Flat, Width: 450, Height: 450, Stock: card.First().Piece}

// AllArt lists the art of the tray, the newest first, and then the overlays that ship. It fails when the
// store does.
func (u *supplies) AllArt(ctx context.Context) ([]Art, error) {
	all, err := u.store.AllArt(ctx)
	if err != nil {
		return nil, err
	}
	for _, o := range overlay.All() {
		a, _, err := u.overlaid(o)
		if err != nil {
			return nil, err
		}
		all = append(all, a)
	}
	return all, nil
}

// overlaid is an overlay that ships as art. It fails where that cannot be resolved.
func (u *supplies) overlaid(o overlay.Overlay) (Art, card.Card, error) {
	c, box, err := centred(o.Items, nil)
	return Art{ID: o.ID, Name: o.Name, Width: box.W, Height: box.H, Parts: len(o.Items), Ships: true}, c, err
}

// art is art of the tray with its flat card. It returns ErrNotFound for art that is not there.
func (u *supplies) art(ctx context.Context, id string) (Art, card.Card, error) {
	if o, ok := overlay.ByID(id); ok {
		return u.overlaid(o)
	}
	return u.store.Art(ctx, id)
}

// centred is the flat card that items and their groups lie in the middle of, and their box. It returns a
// *card.Refusal for what cannot lie there.
func centred(items []card.Item, groups []card.Group) (card.Card, geom.Rect, error) {
	c, err := fold.New("Art", artBase)
	if err != nil {
		return c, geom.Rect{}, err
	}
	lies := card.PlaceItems{Face: card.Front, Items: items, Groups: groups, Around: &geom.Point{}}
	if c, err = card.Apply(c, lies); err != nil {
		return c, geom.Rect{}, err
	}
	box, err := boxOf(c)
	if err != nil {
		return c, box, err
	}
	off := geom.Pt(artBase.Width/2, artBase.Height/2).Sub(box.Centre())
	c, err = card.Change(c, func(c *card.Card) error {
		shiftAll(c.Face(card.Front).Items, off)
		return nil
	})
	return c, box, err
}

// RemoveArt takes art out of the tray; what was laid of it stays on its cards. It returns ErrNotFound
// for art that is not there.
func (u *supplies) RemoveArt(ctx context.Context, id string) error { return u.store.RemoveArt(ctx, id) }

// keepArt keeps items and their groups in the tray under a name. It returns a *card.Refusal for what
// cannot be kept.
func (u *supplies) keepArt(ctx context.Context, name string, items []card.Item, groups []card.Group) (Art, error) {
	if name = strings.TrimSpace(name); utf8.RuneCountInString(name) > 120 || name == "" {
		return Art{}, &card.Refusal{Field: "name", Why: "A name has between one and 120 letters."}
	}
	c, box, err := centred(items, groups)
	if err != nil {
		return Art{}, err
	}
	if err := u.cards.verify(ctx, c, card.Uses{}); err != nil {
		return Art{}, err
	}
	raw, err := json.Marshal(c)
	if err != nil {
		return Art{}, fmt.Errorf("write art: %w", err)
	}
	sum := sha256.Sum256(raw)
	a := Art{ID: hex.EncodeToString(sum[:]), Name: name, Width: box.W, Height: box.H, Parts: len(c.Face(card.Front).Items)}
	return a, u.store.AddArt(ctx, a, c, u.now())
}

// shiftAll moves items; mats follow what lies on them.
func shiftAll(items []card.Item, by geom.Point) {
	for i := range items {
		if it := &items[i]; it.Mat == nil {
			it.Place.X, it.Place.Y = card.Tidy(it.Place.X+by.X), card.Tidy(it.Place.Y+by.Y)
		}
	}
}

// boxOf is the box of what lies on the front of a card. It fails where something there cannot be
// resolved.
func boxOf(c card.Card) (geom.Rect, error) {
	s, err := scene.Of(c)
	if err != nil {
		return geom.Rect{}, err
	}
	var box geom.Rect
	for i, it := range s.Face(card.Front).Items {
		if i == 0 {
			box = it.Bounds
		} else {
			box = box.Union(it.Bounds)
		}
	}
	return box, nil
}

// KeptThings says which things of a face are kept in the tray, and under which name.
type KeptThings struct {
	Face card.FaceID `json:"face"`
	IDs  []string    `json:"ids"`
	Name string      `json:"name"`
}

// KeepArt keeps things of a card in the tray, with all they carry. It returns ErrNotFound for a card
// that is not on the table, and a *card.Refusal for things that are not there or cannot be kept.
func (u *supplies) KeepArt(ctx context.Context, id string, k KeptThings) (Art, error) {
	o, err := u.cards.load(ctx, id)
	if err != nil {
		return Art{}, err
	}
	c := o.rev.Card
	o.Unlock()
	f := c.Face(k.Face)
	if f == nil || len(k.IDs) == 0 || slices.ContainsFunc(k.IDs, func(id string) bool { return f.Item(id) == nil }) {
		return Art{}, &card.Refusal{Field: "ids", Why: "Choose what is to be kept."}
	}
	kept := f.Together(k.IDs)
	items := slices.DeleteFunc(slices.Clone(f.Items), func(it card.Item) bool { return !slices.Contains(kept, it.ID) })
	for i := range items {
		items[i].Background, items[i].Locked = false, false
	}
	return u.keepArt(ctx, k.Name, items, f.Groups)
}

// LaidArt says where art is laid: its middle, mm on the face; nil is the middle of the face.
type LaidArt struct {
	Art  string      `json:"art"`
	Face card.FaceID `json:"face"`
	At   *geom.Point `json:"at,omitempty"`
}

// LayArt lays art on a face as one group of its name, as one change. It returns ErrNotFound for art
// that is not in the tray, and otherwise the errors of Change.
func (u *supplies) LayArt(ctx context.Context, id string, base int64, l LaidArt) (View, error) {
	a, c, err := u.art(ctx, l.Art)
	if err != nil {
		return View{}, err
	}
	o, err := u.cards.load(ctx, id)
	if err != nil {
		return View{}, err
	}
	face := fold.StudyOf(o.rev.Card.Base).Net.Face(l.Face)
	o.Unlock()
	at := geom.Pt(face.Width/2, face.Height/2)
	if l.At != nil {
		at = *l.At
	}
	notes, err := u.store.Supplies(ctx)
	if err != nil {
		return View{}, err
	}
	if i := slices.IndexFunc(notes, func(n Supply) bool { return n.Kind == "art" && n.ID == a.ID && n.Name != "" }); i >= 0 {
		a.Name = notes[i].Name
	}
	f := c.Face(card.Front)
	place := card.PlaceItems{Face: l.Face, Items: f.Items, Groups: f.Groups, Around: &at}
	shiftAll(place.Items, at.Sub(geom.Pt(artBase.Width/2, artBase.Height/2)))
	from(place.Items, a.ID)
	together(&place, a.Name)
	return u.cards.Change(ctx, id, base, []card.Command{place})
}

// from notes that items were laid from art of the tray.
func from(items []card.Item, art string) {
	for i := range items {
		items[i].Art = art
	}
}

// together makes one group of what is placed, where that is more than one thing and no group already.
func together(p *card.PlaceItems, name string) {
	const whole = "whole"
	loose := 0
	for _, it := range p.Items {
		if it.Group == "" {
			loose++
		}
	}
	outer := 0
	for _, g := range p.Groups {
		if g.In == "" {
			outer++
		}
	}
	switch {
	case loose+outer < 2:
		for i := range p.Groups {
			if p.Groups[i].In == "" {
				p.Groups[i].Name = name
			}
		}
		return
	case loose == 0 && outer == 1:
		return
	}
	groups := slices.Clone(p.Groups)
	for i := range groups {
		if groups[i].In == "" {
			groups[i].In = whole
		}
	}
	p.Groups = append([]card.Group{{ID: whole, Name: name}}, groups...)
	for i := range p.Items {
		if p.Items[i].Group == "" {
			p.Items[i].Group = whole
		}
	}
}

// artGround is what art is shown on: white paper and lace are seen on it.
var artGround = color.RGBA{0xe9, 0xdf, 0xcd, 0xff}

// ArtPicture is a PNG of art. It returns ErrNotFound for art that is not in the tray.
func (u *supplies) ArtPicture(ctx context.Context, id string) ([]byte, error) {
	_, c, err := u.art(ctx, id)
	if err != nil {
		return nil, err
	}
	box, err := boxOf(c)
	if err != nil {
		return nil, err
	}
	v, err := scene.Of(c)
	if err != nil {
		return nil, err
	}
	f := v.Face(card.Front)
	inks := v.LookOff(f)
	// Lines of a carrier have no ink: they are drawn as they are told by.
	for i := range f.Items {
		if it := &f.Items[i]; it.Role != "" {
			line := geom.Stroke(it.Outline.Transform(it.At), max(box.W, box.H)/120, geom.RoundCorner, geom.RoundCap)
			inks = append(inks, scene.Ink{Region: line, Colour: "#35658c"})
		}
	}
	side := max(box.W, box.H) * 1.06
	view := geom.Rect{X: box.Centre().X - side/2, Y: box.Centre().Y - side/2, W: side, H: side}
	return u.paintOn(ctx, artGround, view, thumbSide, inks)
}

package app

import (
	"context"
	"fmt"
	"strings"
	"unicode/utf8"

	"sectilis/core/design/sketch"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/ground/geom"
)

// Sketch is a card sketch: of one face or, with none named, of a whole card. Lengths are mm.
type Sketch struct {
	ID       string        `json:"id"`
	Title    string        `json:"title"`
	Face     card.FaceID   `json:"face,omitempty"`
	Kind     card.BaseKind `json:"kind"`
	Width    float64       `json:"width"`
	Height   float64       `json:"height"`
	Occasion string        `json:"occasion,omitempty"`
	Tags     []string      `json:"tags,omitempty"`
	Photos   int           `json:"photos"` // slots that wait for photos
	Words    int           `json:"words"`  // slots that wait for words
	// Items and Groups are what a sketch of a face lays on one; of a card, what
	// its front does.
	Items  []card.Item  `json:"items"`
	Groups []card.Group `json:"groups,omitempty"`
	// FaceWidth and FaceHeight are the size of the face they are for.
	FaceWidth  float64 `json:"faceWidth"`
	FaceHeight float64 `json:"faceHeight"`
}

// NewSketch is a sketch to be made of a card.
type NewSketch struct {
	Title    string      `json:"title"`
	Face     card.FaceID `json:"face,omitempty"`
	Slots    []string    `json:"slots"` // ids of photos and words that become slots
	Occasion string      `json:"occasion,omitempty"`
	Tags     []string    `json:"tags,omitempty"`
}

// describe fills in what follows from the document.
func (s *Sketch) describe(c card.Card) error {
	s.Kind, s.Width, s.Height = c.Base.Kind, c.Base.Width, c.Base.Height
	s.Photos, s.Words = 0, 0
	for _, f := range c.Faces {
		for _, it := range f.Items {
			if it.Slot == nil {
				continue
			}
			if it.Slot.Takes == card.TakesPhoto {
				s.Photos++
			} else {
				s.Words++
			}
		}
	}
	v, err := scene.Of(c)
	if err != nil {
		return err
	}
	seen := v.Face(s.seenFace())
	f := c.Face(s.seenFace())
	if seen == nil || f == nil {
		return fmt.Errorf("the sketch %q has no face %q", s.Title, s.seenFace())
	}
	s.Items, s.Groups, s.FaceWidth, s.FaceHeight = f.Items, f.Groups, seen.Width, seen.Height
	return nil
}

func (s *Sketch) seenFace() card.FaceID {
	if s.Face != "" {
		return s.Face
	}
	return card.Front
}

// Sketches lists the card sketches, newest first. It fails when the store does.
func (u *supplies) Sketches(ctx context.Context) ([]Sketch, error) {
	all, err := u.store.Sketches(ctx)
	if err != nil {
		return nil, err
	}
	for i := range all {
		_, c, err := u.store.Sketch(ctx, all[i].ID)
		if err != nil {
			return nil, err
		}
		if err := all[i].describe(c); err != nil {
			return nil, err
		}
	}
	return all, nil
}

// KeepSketch makes a sketch of a card. It returns ErrNotFound for a card that is not on the
// table and a *Damaged for one that cannot be read. What cannot be a sketch is a
// *card.Refusal.
func (u *supplies) KeepSketch(ctx context.Context, id string, n NewSketch) (Sketch, error) {
	o, err := u.cards.load(ctx, id)
	if err != nil {
		return Sketch{}, err
	}
	c := o.rev.Card
	o.Unlock()
	doc, err := sketch.Of(c, n.Face, n.Slots)
	if err != nil {
		return Sketch{}, err
	}
	return u.AddSketch(ctx, n, doc)
}

// AddSketch keeps a document as a sketch. It returns a *card.Refusal for a title or tags that
// cannot be.
func (u *supplies) AddSketch(ctx context.Context, n NewSketch, doc card.Card) (Sketch, error) {
	title, occasion := strings.TrimSpace(n.Title), strings.TrimSpace(n.Occasion)
	if title == "" || utf8.RuneCountInString(title) > 120 || utf8.RuneCountInString(occasion) > 40 {
		return Sketch{}, &card.Refusal{Field: "title", Why: "A sketch needs a name of at most 120 letters."}
	}
	tags, err := tidyTags(n.Tags)
	if err != nil {
		return Sketch{}, err
	}
	if err := u.cards.verify(ctx, doc, card.Uses{}); err != nil {
		return Sketch{}, err
	}
	s := Sketch{ID: newID(), Title: title, Face: n.Face, Occasion: occasion, Tags: tags}
	if err := s.describe(doc); err != nil {
		return Sketch{}, err
	}
	return s, u.store.AddSketch(ctx, s, doc, u.now())
}

// RemoveSketch takes a sketch away; cards made from it stay as they are. It returns
// ErrNotFound for one that is not there.
func (u *supplies) RemoveSketch(ctx context.Context, id string) error {
	return u.store.RemoveSketch(ctx, id)
}

// StartFromSketch puts a card on the table that begins as the sketch, with pictures in its
// slots, and returns its id. It returns ErrNotFound for a sketch that is not there and a
// *card.Refusal for pictures that are not.
func (u *supplies) StartFromSketch(ctx context.Context, id, title string, pictures []string) (string, error) {
	s, doc, err := u.store.Sketch(ctx, id)
	if err != nil {
		return "", err
	}
	if title = strings.TrimSpace(title); title == "" {
		title = s.Title
	}
	var found []sketch.Picture
	for _, p := range pictures {
		info, _, err := u.store.Picture(ctx, p)
		if err != nil {
			return "", err
		}
		f, err := u.Facts(ctx, p)
		if err != nil {
			return "", err
		}
		found = append(found, sketch.Picture{ID: p, Name: info.Name, Width: info.Width, Height: info.Height, DetailX: f.DetailX, DetailY: f.DetailY})
	}
	doc, err = sketch.Fill(doc, found)
	if err != nil {
		return "", err
	}
	if doc, err = card.Apply(doc, card.RenameCard{Title: title}); err != nil {
		return "", err
	}
	return u.cards.Create(ctx, doc)
}

// SketchPicture is a PNG of what the sketch lays on a face, slots as plain areas. It returns
// ErrNotFound for a sketch that is not there.
func (u *supplies) SketchPicture(ctx context.Context, id string) ([]byte, error) {
	s, doc, err := u.store.Sketch(ctx, id)
	if err != nil {
		return nil, err
	}
	v, err := scene.Of(doc)
	if err != nil {
		return nil, err
	}
	f := v.Face(s.seenFace())
	if f == nil {
		return nil, ErrNotFound
	}
	inks := v.Look(f, doc.Base)
	for i := range f.Items {
		if it := &f.Items[i]; it.Slot != "" {
			out := it.Outline.Transform(it.At)
			inks = append(inks, scene.Ink{Region: out, Colour: "#d8c9af", Clear: .25},
				scene.Ink{Region: geom.Stroke(geom.Dash(out, []float64{2.4, 1.6}, 0), .5, geom.RoundCorner, geom.ButtCap), Colour: "#b9770e"})
		}
	}
	return u.paint(ctx, geom.Rect{W: f.Width, H: f.Height}, thumbSide, inks)
}

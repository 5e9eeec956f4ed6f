package app

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"sectilis/core/document/card"
	"sectilis/core/ground/cache"
	"sectilis/core/ground/wording"
)

// Rights say how a supply may be used; empty is not noted.
type Rights string

// The rights that people note.
const (
	Free        Rights = "free"
	PersonalUse Rights = "personal"
	CreditDue   Rights = "credit"
)

// Supply is what a person notes about a supply of a kind: photo, paper, shape,
// lettering, edging, sketch or art.
type Supply struct {
	Kind      string   `json:"kind"`
	ID        string   `json:"id"`
	Name      string   `json:"name,omitempty"` // empty: as it came
	Tags      []string `json:"tags,omitempty"`
	Favourite bool     `json:"favourite,omitempty"`
	// Used is when it was last put on a card; zero for never.
	Used   time.Time `json:"used,omitzero"`
	Rights Rights    `json:"rights,omitempty"`
	Credit string    `json:"credit,omitempty"` // the line that is due
}

var supplyKinds = []string{"photo", "paper", "shape", "lettering", "edging", "sketch", "art"}

// SupplyStore keeps what cards are made of.
type SupplyStore interface {
	keeper
	FontStore
	ArtStore
	// Cards and Head tell which pictures are on cards.
	Cards(ctx context.Context, find string) ([]Summary, error)
	Head(ctx context.Context, id string) (Revision, error)

	AddPicture(ctx context.Context, p Picture, raw []byte, at time.Time) error
	Pictures(ctx context.Context) ([]Picture, error)
	Picture(ctx context.Context, id string) (Picture, []byte, error)
	HasPicture(ctx context.Context, id string) (bool, error)
	EditStore
	// HidePicture takes a picture out of the tray; bringing it in again brings
	// it back.
	HidePicture(ctx context.Context, id string, at time.Time) error
	// Preview returns a kept preview; ErrNotFound if there is none yet.
	Preview(ctx context.Context, id string, side int) (kind string, raw []byte, err error)
	AddPreview(ctx context.Context, id string, side int, kind string, raw []byte) error

	// Supplies lists what was noted about supplies; Note notes it.
	Supplies(ctx context.Context) ([]Supply, error)
	Note(ctx context.Context, s Supply) error

	// Sketches lists the card sketches, newest first.
	Sketches(ctx context.Context) ([]Sketch, error)
	AddSketch(ctx context.Context, s Sketch, c card.Card, at time.Time) error
	// Sketch returns a sketch with its document; ErrNotFound if it is gone.
	Sketch(ctx context.Context, id string) (Sketch, card.Card, error)
	RemoveSketch(ctx context.Context, id string) error
}

// supplies are the pictures, drawings and sketches, and what is noted about supplies.
type supplies struct {
	common
	store    SupplyStore
	cards    *cards
	drawings waiting
	// large is held while a picture that takes much memory is worked on.
	large chan struct{}
	thumb *cache.Cache[string, thumbnail]
	// pixels are those of the picture that is being traced.
	pixels pixels
	fonts  *fontShelf
	edited *edited
}

// Supplies lists what was noted about supplies. It fails when the store does.
func (u *supplies) Supplies(ctx context.Context) ([]Supply, error) { return u.store.Supplies(ctx) }

// NoteSupply keeps what is noted about a supply. It returns a *card.Refusal for
// what cannot be noted.
func (u *supplies) NoteSupply(ctx context.Context, s Supply) error {
	if !slices.Contains(supplyKinds, s.Kind) || s.ID == "" || len(s.ID) > 100 {
		return &card.Refusal{Field: "kind", Why: "There is no such supply."}
	}
	s.Name, s.Credit = strings.TrimSpace(s.Name), strings.TrimSpace(s.Credit)
	for field, text := range map[string]string{"name": s.Name, "credit": s.Credit} {
		if utf8.RuneCountInString(text) > 120 || strings.ContainsFunc(text, func(r rune) bool { return r < ' ' }) {
			return &card.Refusal{Field: field, Why: "This has at most 120 letters, on one line."}
		}
	}
	tags, err := tidyTags(s.Tags)
	if err != nil {
		return err
	}
	s.Tags = tags
	switch s.Rights {
	case "", Free, PersonalUse, CreditDue:
	default:
		return &card.Refusal{Field: "rights", Why: "A supply is free, for personal use only, or credit is due."}
	}
	if s.Rights == CreditDue && s.Credit == "" {
		return &card.Refusal{Field: "credit", Why: "Write the credit line that is due."}
	}
	return u.store.Note(ctx, s)
}

func tidyTags(tags []string) ([]string, error) {
	out := []string{}
	for _, t := range tags {
		t = strings.ToLower(strings.TrimSpace(t))
		if t == "" || slices.Contains(out, t) {
			continue
		}
		if utf8.RuneCountInString(t) > 30 || len(out) == 20 || strings.ContainsFunc(t, func(r rune) bool { return r < ' ' || r == ',' }) {
			return nil, &card.Refusal{Field: "tags", Why: "A supply has at most 20 tags of at most 30 letters."}
		}
		out = append(out, t)
	}
	return out, nil
}

// UsedSupply notes that a supply was put on a card just now. It returns a *card.Refusal for a
// kind of supply that there is none of.
func (u *supplies) UsedSupply(ctx context.Context, kind, id string) error {
	all, err := u.store.Supplies(ctx)
	if err != nil {
		return err
	}
	s := Supply{Kind: kind, ID: id}
	if i := slices.IndexFunc(all, func(o Supply) bool { return o.Kind == kind && o.ID == id }); i >= 0 {
		s = all[i]
	}
	s.Used = u.now()
	return u.NoteSupply(ctx, s)
}

// RemovePicture takes a picture out of the tray. It returns a *card.Refusal that
// names the cards and sketches that use it, if any do.
func (u *supplies) RemovePicture(ctx context.Context, id string) error {
	if ok, err := u.store.HasPicture(ctx, id); err != nil || !ok {
		if err == nil {
			err = ErrNotFound
		}
		return err
	}
	by, err := u.using(ctx, func(it card.Item) bool { return it.Photo != nil && it.Photo.Picture == id })
	if err != nil {
		return err
	}
	if len(by) > 0 {
		return &card.Refusal{Field: "id", Why: fmt.Sprintf("This photo stays: it is on %s.", wording.And(by))}
	}
	return u.store.HidePicture(ctx, id, u.now())
}

// using names the cards, sketches and art with an item of a kind. It fails when the store does.
func (u *supplies) using(ctx context.Context, is func(card.Item) bool) (by []string, err error) {
	uses := func(c card.Card) bool {
		return slices.ContainsFunc(c.Faces, func(f card.Face) bool { return slices.ContainsFunc(f.Items, is) })
	}
	cards, err := u.store.Cards(ctx, "")
	if err != nil {
		return nil, err
	}
	for _, c := range cards {
		rev, err := u.store.Head(ctx, c.ID)
		if err != nil {
			return nil, err
		}
		if uses(rev.Card) {
			by = append(by, "“"+c.Title+"”")
		}
	}
	sketches, err := u.store.Sketches(ctx)
	if err != nil {
		return nil, err
	}
	for _, s := range sketches {
		_, c, err := u.store.Sketch(ctx, s.ID)
		if err != nil {
			return nil, err
		}
		if uses(c) {
			by = append(by, "the sketch “"+s.Title+"”")
		}
	}
	art, err := u.store.AllArt(ctx) // what ships has no pictures
	if err != nil {
		return nil, err
	}
	for _, a := range art {
		_, c, err := u.store.Art(ctx, a.ID)
		if err != nil {
			return nil, err
		}
		if uses(c) {
			by = append(by, "“"+a.Name+"” in the tray")
		}
	}
	return by, nil
}

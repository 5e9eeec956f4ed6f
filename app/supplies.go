package app

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"sectilis/core/document/card"
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
// lettering or sketch.
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

var supplyKinds = []string{"photo", "paper", "shape", "lettering", "sketch"}

// Supplies lists what was noted about supplies.
func (a *App) Supplies(ctx context.Context) ([]Supply, error) { return a.store.Supplies(ctx) }

// NoteSupply keeps what is noted about a supply. It returns a *card.Refusal for
// what cannot be noted.
func (a *App) NoteSupply(ctx context.Context, s Supply) error {
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
	return a.store.Note(ctx, s)
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

// UsedSupply notes that a supply was put on a card just now.
func (a *App) UsedSupply(ctx context.Context, kind, id string) error {
	all, err := a.store.Supplies(ctx)
	if err != nil {
		return err
	}
	s := Supply{Kind: kind, ID: id}
	if i := slices.IndexFunc(all, func(o Supply) bool { return o.Kind == kind && o.ID == id }); i >= 0 {
		s = all[i]
	}
	s.Used = a.now()
	return a.NoteSupply(ctx, s)
}

// RemovePicture takes a picture out of the tray. It returns a *card.Refusal that
// names the cards and sketches that use it, if any do.
func (a *App) RemovePicture(ctx context.Context, id string) error {
	if ok, err := a.store.HasPicture(ctx, id); err != nil || !ok {
		if err == nil {
			err = ErrNotFound
		}
		return err
	}
	uses := func(c card.Card) bool {
		for _, f := range c.Faces {
			for _, it := range f.Items {
				if it.Photo != nil && it.Photo.Picture == id {
					return true
				}
			}
		}
		return false
	}
	var by []string
	cards, err := a.store.Cards(ctx, "")
	if err != nil {
		return err
	}
	for _, c := range cards {
		rev, err := a.store.Head(ctx, c.ID)
		if err != nil {
			return err
		}
		if uses(rev.Card) {
			by = append(by, "“"+c.Title+"”")
		}
	}
	sketches, err := a.store.Sketches(ctx)
	if err != nil {
		return err
	}
	for _, s := range sketches {
		_, c, err := a.store.Sketch(ctx, s.ID)
		if err != nil {
			return err
		}
		if uses(c) {
			by = append(by, "the sketch “"+s.Title+"”")
		}
	}
	if len(by) > 0 {
		return &card.Refusal{Field: "id", Why: fmt.Sprintf("This photo stays: it is on %s.", and(by))}
	}
	return a.store.HidePicture(ctx, id, a.now())
}

// and joins names as one says them.
func and(names []string) string {
	if n := len(names); n > 1 {
		return strings.Join(names[:n-1], ", ") + " and " + names[n-1]
	}
	return names[0]
}

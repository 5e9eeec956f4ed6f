package app

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"unicode/utf8"

	"sectilis/core/document/card"
	"sectilis/core/document/mat"
	"sectilis/core/document/scene"
	"sectilis/core/ground/edging"
	"sectilis/core/ground/geom"
)

const (
	keptMotifs = "motifs"
	mostMotifs = 300
)

// NewMotif is a motif that is made of the outline of an item.
type NewMotif struct {
	Face card.FaceID `json:"face"`
	Item string      `json:"item"`
	Name string      `json:"name"`
}

// MakeMotif makes a motif of a person's own of the upper edge of an item's outline. It returns ErrNotFound
// for a card that is not on the table, and a *card.Refusal for an outline whose ends do not join.
func (u *supplies) MakeMotif(ctx context.Context, id string, n NewMotif) (edging.Motif, error) {
	o, err := u.cards.load(ctx, id)
	if err != nil {
		return edging.Motif{}, err
	}
	s := o.scene
	o.Unlock()
	f := s.Face(n.Face)
	if f == nil {
		return edging.Motif{}, &card.Refusal{Field: "face", Why: fmt.Sprintf("There is no face “%s”.", n.Face)}
	}
	i := slices.IndexFunc(f.Items, func(it scene.Item) bool { return it.ID == n.Item })
	if i < 0 || f.Items[i].Role != "" || f.Items[i].Outline.Empty() {
		return edging.Motif{}, &card.Refusal{Field: "item", Why: "Choose one thing with an outline."}
	}
	if n.Name = strings.TrimSpace(n.Name); n.Name == "" || utf8.RuneCountInString(n.Name) > 60 {
		return edging.Motif{}, &card.Refusal{Field: "name", Why: "A motif has a name of at most 60 letters."}
	}
	it := f.Items[i]
	// As it lies on the face; what lies apart from it is none of it.
	outline := geom.Union(geom.NonZero, it.Outline.Transform(it.At))
	if rings := mat.Solid(outline).Rings(); len(rings) > 1 {
		return edging.Motif{}, &card.Refusal{Field: "item", Why: fmt.Sprintf("“%s” is in %d parts; a motif is one. Weld them first.", it.Name, len(rings))}
	}
	own := edging.Own{ID: "own-" + newID(), Name: n.Name, Outline: outline}
	m, err := edging.OfOutline(own.ID, own.Name, own.Outline)
	if err != nil {
		return m, &card.Refusal{Field: "item", Why: fmt.Sprintf("“%s” is no motif: %v.", it.Name, err)}
	}
	return m, u.changeMotifs(ctx, func(all []edging.Own) ([]edging.Own, error) {
		if len(all) >= mostMotifs {
			return nil, card.Refuse("name", "Up to %d motifs of one's own are kept.", mostMotifs)
		}
		return append([]edging.Own{own}, all...), nil
	})
}

// RemoveMotif takes a motif of a person's own out of the tray; edges that are made of it stay. It returns
// ErrNotFound for one that is not there.
func (u *supplies) RemoveMotif(ctx context.Context, id string) error {
	return u.changeMotifs(ctx, func(all []edging.Own) ([]edging.Own, error) {
		i := slices.IndexFunc(all, func(o edging.Own) bool { return o.ID == id })
		if i < 0 {
			return nil, ErrNotFound
		}
		all[i].Hidden = true
		return all, nil
	})
}

func (u *supplies) changeMotifs(ctx context.Context, do func([]edging.Own) ([]edging.Own, error)) error {
	err := u.cards.motifs.change(ctx, do)
	if err == nil {
		u.cards.stocksAreOthers()
	}
	return err
}

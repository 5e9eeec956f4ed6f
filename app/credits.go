package app

import (
	"context"
	"slices"
	"strings"

	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/document/pattern"
	"sectilis/core/ground/edging"
)

// Credit is a supply that a card is made with, and what may be done with it.
type Credit struct {
	Kind   string `json:"kind"` // as of supplies
	ID     string `json:"id"`
	Name   string `json:"name"`
	Rights Rights `json:"rights"`
	// Line is the line that is due; "" for none.
	Line string `json:"line,omitempty"`
	// Ships says that it came with the program and is free.
	Ships bool `json:"ships,omitempty"`
}

// Credits are what a card is made with and whose it is.
type Credits struct {
	All []Credit `json:"all"`
	// Text is the lines that are due, one below the other, to go with the card; "" for none.
	Text string `json:"text"`
	// Personal are the names of what may only be used for oneself.
	Personal []string `json:"personal"`
}

// Credits lists what a card is made with and whose it is. It returns ErrNotFound for a card that is not
// on the table and a *Damaged for one that cannot be read.
func (u *supplies) Credits(ctx context.Context, id string) (Credits, error) {
	o, err := u.cards.load(ctx, id)
	if err != nil {
		return Credits{}, err
	}
	c := o.rev.Card
	o.Unlock()
	return u.creditsOf(ctx, c)
}

// creditsOf lists what a card is made with. It fails when the store does.
func (u *supplies) creditsOf(ctx context.Context, c card.Card) (Credits, error) {
	notes, err := u.store.Supplies(ctx)
	if err != nil {
		return Credits{}, err
	}
	names, err := u.suppliesNamed(ctx)
	if err != nil {
		return Credits{}, err
	}
	used := c.Uses()
	out := Credits{All: []Credit{}, Personal: []string{}}
	var lines []string
	add := func(kind, id string, ships bool) {
		k := Credit{Kind: kind, ID: id, Name: names[kind+"/"+id], Rights: Free, Ships: ships}
		if i := slices.IndexFunc(notes, func(n Supply) bool { return n.Kind == kind && n.ID == id }); i >= 0 {
			n := notes[i]
			k.Line = n.Credit
			if n.Name != "" {
				k.Name = n.Name
			}
			if n.Rights != "" {
				k.Rights = n.Rights
			}
		}
		if k.Name == "" {
			k.Name = id
		}
		if k.Rights == PersonalUse {
			out.Personal = append(out.Personal, k.Name)
		}
		if k.Line != "" && !slices.Contains(lines, k.Line) {
			lines = append(lines, k.Line)
		}
		out.All = append(out.All, k)
	}
	for _, id := range used.Pictures {
		add("photo", id, false)
	}
	for _, id := range used.Art {
		_, ships := names["ships/"+id]
		add("art", id, ships)
	}
	for _, id := range used.Papers {
		add("paper", id, !strings.HasPrefix(id, "own-"))
	}
	for _, id := range used.Fonts {
		f, _ := lettering.ByID(id)
		add("lettering", id, !f.Own)
	}
	for _, id := range used.Motifs {
		add("edging", id, !strings.HasPrefix(id, "own-"))
	}
	out.Text = strings.Join(lines, "\n")
	return out, nil
}

// suppliesNamed are the names that supplies came with, by kind and id; of art that ships there is an
// entry under "ships", too. It fails when the store does.
func (u *supplies) suppliesNamed(ctx context.Context) (map[string]string, error) {
	out := map[string]string{}
	pictures, err := u.store.Pictures(ctx)
	if err != nil {
		return nil, err
	}
	for _, p := range pictures {
		out["photo/"+p.ID] = p.Name
	}
	art, err := u.AllArt(ctx)
	if err != nil {
		return nil, err
	}
	for _, a := range art {
		out["art/"+a.ID] = a.Name
		if a.Ships {
			out["ships/"+a.ID] = a.Name
		}
	}
	for _, p := range pattern.All() {
		out["paper/"+p.ID] = p.Name
	}
	for _, f := range lettering.Fonts() {
		out["lettering/"+f.ID] = f.Name
	}
	for _, m := range edging.Known() {
		out["edging/"+m.ID] = m.Name
	}
	return out, nil
}

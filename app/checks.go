package app

import (
	"context"
	"fmt"

	"sectilis/core/check"
	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// CheckView is what of a card is checked beside what comes with its scene, its print and its sheets: how it
// folds with all that lies on it, and the card as a whole.
type CheckView struct {
	Revision int64           `json:"revision"`
	Findings []check.Finding `json:"findings"`
	// Sending is the envelope that takes the card, Letter what it then is, Post the class of post that
	// takes it, "" for none.
	Sending fold.Sending `json:"sending"`
	Letter  card.Post    `json:"letter"`
	Tied    *Tied        `json:"tied,omitempty"`
	Post    string       `json:"post"`
	Credits Credits      `json:"credits"`
}

// Check checks how a card folds and the card as a whole. It returns ErrNotFound for a card that is not on
// the table and a *Damaged for one that cannot be read.
func (u *supplies) Check(ctx context.Context, id string) (CheckView, error) {
	rev, s, copies, err := u.cards.copies(ctx, id, allMade)
	if err != nil {
		return CheckView{}, err
	}
	credits, err := u.creditsOf(ctx, rev.Card)
	if err != nil {
		return CheckView{}, err
	}
	posts, err := u.Posts(ctx)
	if err != nil {
		return CheckView{}, err
	}
	whole := check.Whole{Posts: posts}
	for _, k := range credits.All {
		gone := check.Gone(k.Kind, k.ID)
		if k.Kind == "photo" {
			there, err := u.store.HasPicture(ctx, k.ID)
			if err != nil {
				return CheckView{}, fmt.Errorf("look up picture: %w", err)
			}
			gone = !there
		}
		whole.Supplies = append(whole.Supplies, check.Supply{Kind: k.Kind, ID: k.ID, Name: k.Name, Personal: k.Rights == PersonalUse, Line: k.Line, Gone: gone})
	}
	in := check.Input{Card: rev.Card, Scene: &s, Whole: &whole, Copies: copies}
	v := CheckView{Revision: rev.Number, Findings: []check.Finding{}, Credits: credits}
	for _, what := range []check.Reads{check.TheFolding, check.TheWhole, check.TheNames} {
		v.Findings = append(v.Findings, check.Run(what, in)...)
	}
	closed := fold.StudyOf(rev.Card.Base).Net.Closed
	v.Sending = fold.SendingOf(closed, s.Thickness)
	if v.Tied, err = u.cards.tied(ctx, id, rev.Card, &s); err != nil {
		return CheckView{}, err
	}
	v.Letter = check.Letter(closed, s.Thickness, check.Grams(rev.Card, &s))
	if p := card.PostFor(posts, v.Letter); p != nil {
		v.Post = p.Name
	}
	return v, nil
}

// Posts are the classes of post that cards are sent by. It fails when the store does.
func (u *supplies) Posts(ctx context.Context) ([]card.Post, error) {
	own, err := keptList[card.Post](ctx, u.store, postsKept)
	if err != nil {
		return nil, err
	}
	if len(own) == 0 {
		return card.UsualPosts(), nil
	}
	return own, nil
}

// postsKept is what classes of post are kept under.
const postsKept = "posts"

// SetPosts keeps classes of post; none are the usual ones. It returns a *card.Refusal for what cannot be
// one.
func (u *supplies) SetPosts(ctx context.Context, posts []card.Post) error {
	if err := card.CheckPosts(posts); err != nil {
		return err
	}
	return keepList(ctx, u.store, postsKept, posts)
}

// Cut cuts the closed card through along a line, in the coordinates of Front. It returns ErrNotFound for a
// card that is not on the table and a *Damaged for one that cannot be read.
func (u *supplies) Cut(ctx context.Context, id string, from, to geom.Point) (scene.Cut, error) {
	o, err := u.cards.load(ctx, id)
	if err != nil {
		return scene.Cut{}, err
	}
	c, s := o.rev.Card, o.scene
	o.Unlock()
	return scene.Closed(c, &s).Cut(c, from, to), nil
}

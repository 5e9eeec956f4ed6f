package app

import (
	"context"
	"errors"
	"fmt"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
)

// EnvelopeStore keeps which card an envelope is made for. What is off the table counts as not there.
type EnvelopeStore interface {
	// EnvelopeOf is the newest envelope of a card, CardOfEnvelope the card of an envelope; ErrNotFound
	// for none.
	EnvelopeOf(ctx context.Context, card string) (envelope string, err error)
	CardOfEnvelope(ctx context.Context, envelope string) (card string, err error)
	// TieEnvelope notes the card of an envelope in place of another, UntieEnvelope forgets it.
	TieEnvelope(ctx context.Context, envelope, card string) error
	UntieEnvelope(ctx context.Context, envelope string) error
}

// Tied is the other of a card and its envelope, as it lies on the table. Width and Height, mm, are those of
// the envelope that is to measure for the card.
type Tied struct {
	ID     string  `json:"id"`
	Title  string  `json:"title"`
	Width  float64 `json:"width"`
	Height float64 `json:"height"`
}

// sendingOf is the envelope that a card needs.
func sendingOf(c card.Card, s *scene.Scene) fold.Sending {
	return fold.SendingOf(fold.StudyOf(c.Base).Net.Closed, s.Thickness)
}

// tied is what a card is tied to: its envelope, or of an envelope its card; nil for nothing. It fails when
// the store does.
func (cs *cards) tied(ctx context.Context, id string, c card.Card, s *scene.Scene) (*Tied, error) {
	if c.Base.Kind == card.Envelope {
		other, err := cs.store.CardOfEnvelope(ctx, id)
		if err != nil {
			return nil, absent(err)
		}
		o, err := cs.load(ctx, other)
		if err != nil {
			return nil, absent(err)
		}
		defer o.Unlock()
		w, h := sendingOf(o.rev.Card, &o.scene).Landscape()
		return &Tied{other, o.rev.Card.Title, w, h}, nil
	}
	other, err := cs.store.EnvelopeOf(ctx, id)
	if err != nil {
		return nil, absent(err)
	}
	title, err := cs.Title(ctx, other)
	if err != nil {
		return nil, absent(err)
	}
	w, h := sendingOf(c, s).Landscape()
	return &Tied{other, title, w, h}, nil
}

// absent is nil for what is not there, or not to be read, and the error for all else.
func absent(err error) error {
	var damaged *Damaged
	if errors.Is(err, ErrNotFound) || errors.As(err, &damaged) {
		return nil
	}
	return err
}

// MakeEnvelope returns the envelope that is tied to a card. Where there is none, one made to measure is put
// on the table. It returns ErrNotFound for a card that is not there, a *Damaged for one that cannot be read,
// and a *card.Refusal for an envelope.
func (cs *cards) MakeEnvelope(ctx context.Context, id string) (string, error) {
	o, err := cs.load(ctx, id)
	if err != nil {
		return "", err
	}
	defer o.Unlock() // held to the end, so that two requests make one envelope
	c := o.rev.Card
	if c.Base.Kind == card.Envelope {
		return "", card.Refuse("kind", "An envelope needs no envelope.")
	}
	if is, err := cs.store.EnvelopeOf(ctx, id); err == nil || !errors.Is(err, ErrNotFound) {
		return is, err
	}
	w, h := sendingOf(c, &o.scene).Landscape()
	e, err := fold.New(titled(c.Title, ", envelope"), card.Base{Kind: card.Envelope, Width: w, Height: h, Stock: card.First().Paper})
	if err != nil {
		return "", err
	}
	made, err := cs.Create(ctx, e)
	if err != nil {
		return "", err
	}
	if err := cs.store.TieEnvelope(ctx, made, id); err != nil {
		return "", errors.Join(err, cs.Remove(context.WithoutCancel(ctx), made))
	}
	return made, nil
}

// Untie lets an envelope keep its size whatever becomes of its card. It fails when the store does.
func (cs *cards) Untie(ctx context.Context, envelope string) error {
	return cs.store.UntieEnvelope(ctx, envelope)
}

// follow gives the envelope of a card the size that the card has come to need, if it was made to measure
// for what the card needed before: one that a person has sized stays as it is. What fails is in the log:
// the card's own change is made.
func (cs *cards) follow(ctx context.Context, id string, before, after fold.Sending) {
	w0, h0 := before.Landscape()
	w, h := after.Landscape()
	if w == w0 && h == h0 {
		return
	}
	ctx = context.WithoutCancel(ctx)
	for {
		err := cs.resizeEnvelope(ctx, id, [2]float64{w0, h0}, [2]float64{w, h})
		if errors.Is(err, ErrStale) {
			continue // somebody changed it meanwhile
		}
		if absent(err) != nil {
			cs.log.Error("the envelope does not follow its card", "card", id, "err", err)
		}
		return
	}
}

func (cs *cards) resizeEnvelope(ctx context.Context, id string, from, to [2]float64) error {
	envelope, err := cs.store.EnvelopeOf(ctx, id)
	if err != nil {
		return err
	}
	o, err := cs.load(ctx, envelope)
	if err != nil {
		return err
	}
	b, base := o.rev.Card.Base, o.rev.Number
	o.Unlock()
	if b.Kind != card.Envelope || b.Width != from[0] || b.Height != from[1] {
		return nil
	}
	b.Width, b.Height = to[0], to[1]
	if _, err = cs.Change(ctx, envelope, base, []card.Command{fold.SetBase{Base: b}}); err != nil {
		return fmt.Errorf("make it %.1f × %.1f mm: %w", to[0], to[1], err)
	}
	return nil
}

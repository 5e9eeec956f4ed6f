package app

import (
	"context"
	"errors"
	"fmt"
	"maps"
	"reflect"
	"slices"

	"sectilis/core/design/arrange"
	"sectilis/core/design/freehand"
	"sectilis/core/design/opening"
	"sectilis/core/design/pathops"
	"sectilis/core/design/points"
	"sectilis/core/design/sketch"
	"sectilis/core/design/tiers"
	"sectilis/core/design/tracing"
	"sectilis/core/design/typeset"
	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/document/pattern"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/production/sheet"
)

// Commands are all commands of the protocol.
var Commands = func() map[string]func() card.Command {
	all := maps.Clone(card.Commands)
	maps.Copy(all, fold.Commands)
	maps.Copy(all, pathops.Commands)
	maps.Copy(all, arrange.Commands)
	maps.Copy(all, opening.Commands)
	maps.Copy(all, sketch.Commands)
	maps.Copy(all, freehand.Commands)
	maps.Copy(all, typeset.Commands)
	maps.Copy(all, tiers.Commands)
	maps.Copy(all, tracing.Commands)
	maps.Copy(all, points.Commands)
	maps.Copy(all, sheet.Commands)
	return all
}()

// Open returns the card with its whole scene. It returns ErrNotFound for a card that is not on
// the table and a *Damaged for one that cannot be read.
func (cs *cards) Open(ctx context.Context, id string) (View, error) {
	o, err := cs.load(ctx, id)
	if err != nil {
		return View{}, err
	}
	defer o.Unlock()
	return cs.view(id, o), nil
}

// Recover takes up the last state of a card that can be read, where the newest cannot. It
// returns ErrNotFound when no state can be read.
func (cs *cards) Recover(ctx context.Context, id string) (View, error) {
	if _, err := cs.store.Head(ctx, id); err == nil {
		return cs.Open(ctx, id) // it can be read
	}
	rev, err := cs.store.Recover(ctx, id, cs.now())
	if err != nil {
		return View{}, err
	}
	cs.mu.Lock()
	delete(cs.open, id)
	cs.mu.Unlock()
	cs.events.send(Event{Kind: CardEvent, Card: id, Revision: rev.Number})
	return cs.Open(ctx, id)
}

// Change applies commands to the revision base, all or none. It returns
// ErrStale when the card has moved on, and a *card.Refusal for what a command
// will not do.
func (cs *cards) Change(ctx context.Context, id string, base int64, commands []card.Command) (View, error) {
	if len(commands) == 0 {
		return View{}, &card.Refusal{Field: "commands", Why: "There is nothing to change."}
	}
	_, _, next, err := cs.workOut(ctx, id, base, commands)
	if err != nil {
		return View{}, err
	}
	return cs.step(ctx, id, base, func(*opened) (Revision, error) {
		return cs.store.Commit(ctx, id, base, next, commands[0].Label(), cs.now())
	})
}

// workOut applies commands to the revision base and returns that, its scene and the card that
// they lead to. It takes as long as it takes outside the card's lock, while others may read
// and change the card; the error is ErrStale, a *card.Refusal, or the context's when whoever
// asked is gone.
func (cs *cards) workOut(ctx context.Context, id string, base int64, commands []card.Command) (rev Revision, was scene.Scene, next card.Card, err error) {
	o, err := cs.load(ctx, id)
	if err != nil {
		return rev, was, next, err
	}
	rev, was = o.rev, o.scene
	o.Unlock()
	if rev.Number != base {
		return rev, was, next, ErrStale
	}
	if next, err = card.Apply(rev.Card, commands...); err != nil {
		return rev, was, next, err
	}
	if err := cs.verify(ctx, next, rev.Card.Uses()); err != nil {
		return rev, was, next, err
	}
	return rev, was, next, ctx.Err()
}

// Try answers as Change would and changes nothing, so that a change can be seen before it is
// made. Its errors are those of Change.
func (cs *cards) Try(ctx context.Context, id string, base int64, commands []card.Command) (View, error) {
	return cs.TryFor(ctx, id, base, commands, "")
}

// TryFor is Try of the card that is made for a row of its list, "" for the card itself; without commands it is
// that card as it is. It returns ErrNotFound for a row that is not there.
func (cs *cards) TryFor(ctx context.Context, id string, base int64, commands []card.Command, row string) (View, error) {
	rev, was, next, err := cs.workOut(ctx, id, base, commands)
	if err != nil {
		return View{}, err
	}
	if row != "" {
		made, ok := next.ForName(row)
		if !ok {
			return View{}, ErrNotFound
		}
		next = made
	}
	tried := &opened{rev: rev, scene: was}
	before := rev.Card
	rev.Card = next
	if err := tried.set(rev); err != nil {
		return View{}, err
	}
	v := cs.view(id, tried)
	v.Made = newItems(before, next)
	v.since(before, was)
	return v, nil
}

// Undo goes back one change; Redo forward again. It returns ErrStale when base is not the
// newest revision and ErrNothing when there is nothing to undo.
func (cs *cards) Undo(ctx context.Context, id string, base int64) (View, error) {
	return cs.step(ctx, id, base, func(*opened) (Revision, error) { return cs.store.Undo(ctx, id, base, cs.now()) })
}

// Redo does again what was undone last. It returns ErrStale when base is not the newest
// revision and ErrNothing when there is nothing to redo.
func (cs *cards) Redo(ctx context.Context, id string, base int64) (View, error) {
	return cs.step(ctx, id, base, func(*opened) (Revision, error) { return cs.store.Redo(ctx, id, base, cs.now()) })
}

func (cs *cards) step(ctx context.Context, id string, base int64, f func(*opened) (Revision, error)) (View, error) {
	o, err := cs.load(ctx, id)
	if err != nil {
		return View{}, err
	}
	defer o.Unlock()
	if o.rev.Number != base {
		return View{}, ErrStale
	}
	before, beforeCard := o.scene, o.rev.Card
	rev, err := f(o)
	if err != nil {
		var refusal *card.Refusal
		if !errors.As(err, &refusal) && !errors.Is(err, ErrNothing) {
			o.rev.Number = 0 // what is in memory may not be what is on disk
		}
		return View{}, err
	}
	if err := o.set(rev); err != nil {
		return View{}, err
	}
	if now := o.scene; now.Thickness != before.Thickness || !reflect.DeepEqual(beforeCard.Base, rev.Card.Base) {
		// With the lock held, so that sizes follow in the order of the changes. A card is locked before its
		// envelope, and never after it.
		cs.follow(ctx, id, sendingOf(beforeCard, &before), sendingOf(rev.Card, &now))
	}
	v := cs.view(id, o)
	v.Made = newItems(beforeCard, rev.Card)
	v.since(beforeCard, before)
	cs.events.send(Event{Kind: CardEvent, Card: id, Revision: rev.Number})
	return v, nil
}

func newItems(before, after card.Card) []string {
	old := map[string]bool{}
	for _, f := range before.Faces {
		for i := range f.Items {
			old[f.Items[i].ID] = true
		}
	}
	var out []string
	for _, f := range after.Faces {
		for i := range f.Items {
			if id := f.Items[i].ID; !old[id] {
				out = append(out, id)
			}
		}
	}
	return out
}

// named looks up the font and the paper that an item names and the card did not use before.
func named(it card.Item, before card.Uses) error {
	words, fill := it.Words, it.Fill
	if it.Slot != nil {
		words, fill = it.Slot.Words, it.Slot.Fill
	}
	if words != nil && !lettering.Known(words.Font) && !slices.Contains(before.Fonts, words.Font) {
		return &card.Refusal{Field: "font", Why: fmt.Sprintf("There is no font “%s”.", words.Font)}
	}
	if fill.Paper == "" || slices.Contains(before.Papers, fill.Paper) {
		return nil
	}
	if _, ok := pattern.ByID(fill.Paper); !ok {
		return &card.Refusal{Field: "paper", Why: fmt.Sprintf("There is no paper “%s”.", fill.Paper)}
	}
	return nil
}

// verify looks up what the document only names: fonts, papers and pictures. What it used before may be gone:
// it can be changed all the same, and its checks tell of that.
func (cs *cards) verify(ctx context.Context, c card.Card, before card.Uses) error {
	if err := fold.Check(c.Base); err != nil {
		return err
	}
	if err := cs.fonts.ready(ctx); err != nil {
		return err
	}
	if err := cs.supplied(ctx); err != nil {
		return err
	}
	known := map[string]bool{}
	for _, f := range c.Faces {
		for _, it := range f.Items {
			if err := named(it, before); err != nil {
				return err
			}
			if it.Photo == nil {
				continue
			}
			if !known[it.Photo.Picture] {
				ok, err := cs.store.HasPicture(ctx, it.Photo.Picture)
				if err != nil {
					return fmt.Errorf("look up picture: %w", err)
				}
				if !ok && !slices.Contains(before.Pictures, it.Photo.Picture) {
					return &card.Refusal{Field: "picture", Why: fmt.Sprintf("The picture of “%s” is not there. Bring it in first.", it.Name)}
				}
				known[it.Photo.Picture] = true
			}
			if err := cs.edited.note(ctx, cs.store, *it.Photo); err != nil {
				return err
			}
		}
	}
	return nil
}

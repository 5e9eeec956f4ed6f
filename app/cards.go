package app

import (
	"context"
	"fmt"
	"sync"
	"time"

	"sectilis/core/check"
	"sectilis/core/document/card"
	"sectilis/core/document/pattern"
	"sectilis/core/document/scene"
	"sectilis/core/ground/edging"
)

// CardStore keeps cards and their revisions.
type CardStore interface {
	// Cards lists the cards on the table, newest change first, whose title or
	// words contain the text.
	Cards(ctx context.Context, find string) ([]Summary, error)
	// Create adds a card as revision 1.
	Create(ctx context.Context, id string, c card.Card, label string, at time.Time) error
	// Head returns the newest revision; ErrNotFound if the card is gone, a *Damaged if the
	// revision is there and cannot be read.
	Head(ctx context.Context, id string) (Revision, error)
	// Recover adds a revision that equals the newest one that can be read; ErrNotFound if
	// there is none.
	Recover(ctx context.Context, id string, at time.Time) (Revision, error)
	// Commit adds a revision after base; ErrStale if base is not the newest.
	Commit(ctx context.Context, id string, base int64, c card.Card, label string, at time.Time) (Revision, error)
	// Undo and Redo add a revision that equals an earlier one; ErrNothing if
	// there is none to go to.
	Undo(ctx context.Context, id string, base int64, at time.Time) (Revision, error)
	Redo(ctx context.Context, id string, base int64, at time.Time) (Revision, error)
	// Remove takes a card off the table; Restore puts it back.
	Remove(ctx context.Context, id string, at time.Time) error
	Restore(ctx context.Context, id string) error
	EditStore
	EnvelopeStore
	// HasPicture reports whether a picture that a card names is there.
	HasPicture(ctx context.Context, id string) (bool, error)
}

// Revision is one accepted state of a card.
type Revision struct {
	Number int64
	Card   card.Card
	At     time.Time
	// Undo and Redo name the change that would be undone or redone; empty when
	// there is none.
	Undo, Redo string
}

// Summary is a card on the table. Width and Height of the closed card are mm.
type Summary struct {
	ID       string        `json:"id"`
	Title    string        `json:"title"`
	Kind     card.BaseKind `json:"kind"`
	Width    float64       `json:"width"`
	Height   float64       `json:"height"`
	Stock    string        `json:"stock"`
	Revision int64         `json:"revision"`
	Changed  time.Time     `json:"changed"`
}

// cards opens and changes cards.
type cards struct {
	common
	store  CardStore
	fonts  *fontShelf
	edited *edited
	inks   *inkShelf
	stocks *stockShelf
	papers *shelf[pattern.Paper]
	motifs *shelf[edging.Own]

	mu   sync.Mutex
	open map[string]*opened
}

// opened is a card held in memory. Its lock is held over a whole change, so
// that changes to one card follow each other.
type opened struct {
	sync.Mutex
	rev   Revision
	scene scene.Scene
	// made are the scenes of the cards that are made for the rows of its list, as far as they were asked for;
	// scenes counts how often its own was made, since they are of that one.
	made   map[string]scene.Scene
	scenes int
}

// View is an opened card as the client gets it, or, as an answer to a change, the
// part of it that is not as it was before.
type View struct {
	ID       string      `json:"id"`
	Revision int64       `json:"revision"`
	Saved    time.Time   `json:"saved"`
	Undo     string      `json:"undo,omitempty"`
	Redo     string      `json:"redo,omitempty"`
	Card     card.Card   `json:"card"`
	Scene    scene.Scene `json:"scene"`
	// Inks names what is known of the printer's inks: another, when that is another.
	Inks string `json:"inks"`
	// Findings are those of the checks that read the scene.
	Findings []check.Finding `json:"findings"`
	// Made are the ids of items that the change made.
	Made []string `json:"made,omitempty"`
	// Part says that Scene.Faces are only the faces that differ, and items, in
	// the scene and in the document, only those that do; Order then lists all.
	Part  bool    `json:"part,omitempty"`
	Order []Order `json:"order,omitempty"`
}

// load returns the card in memory, locked; the caller unlocks it.
func (cs *cards) load(ctx context.Context, id string) (*opened, error) {
	cs.mu.Lock()
	o := cs.open[id]
	if o == nil {
		// A handful of cards is open at a time; an odd many is simply reread.
		if len(cs.open) > 64 {
			clear(cs.open)
		}
		o = &opened{}
		cs.open[id] = o
	}
	cs.mu.Unlock()
	if err := cs.ready(ctx); err != nil {
		return nil, err
	}
	o.Lock()
	if o.rev.Number == 0 {
		rev, err := cs.store.Head(ctx, id)
		if err == nil {
			err = o.set(rev)
		}
		if err != nil {
			o.Unlock()
			return nil, err
		}
	}
	return o, nil
}

// ready makes known what cards name: stocks and what is printed on them, papers, motifs, and the fonts
// that were brought in. It fails when the store does.
func (cs *cards) ready(ctx context.Context) error {
	if err := cs.inks.ready(ctx); err != nil {
		return err
	}
	if err := cs.supplied(ctx); err != nil {
		return err
	}
	return cs.fonts.ready(ctx)
}

// supplied makes the papers and motifs of a person's own known. It fails when the store does.
func (cs *cards) supplied(ctx context.Context) error {
	if err := cs.papers.ready(ctx); err != nil {
		return err
	}
	return cs.motifs.ready(ctx)
}

func (o *opened) set(rev Revision) error {
	s, err := scene.After(rev.Card, o.rev.Card, o.scene)
	if err != nil {
		return err
	}
	o.rev, o.scene, o.made = rev, s, nil
	o.scenes++
	return nil
}

func (cs *cards) view(id string, o *opened) View {
	papers, state := cs.inks.papers()
	s := o.scene
	s.Colours = s.ColoursOn(papers)
	return View{ID: id, Inks: state, Revision: o.rev.Number, Saved: o.rev.At, Undo: o.rev.Undo, Redo: o.rev.Redo, Card: o.rev.Card, Scene: s, Findings: check.Run(check.TheScene, check.Input{Card: o.rev.Card, Scene: &o.scene, Papers: papers})}
}

// Cards lists the cards on the table. It fails when the store does.
func (cs *cards) Cards(ctx context.Context, find string) ([]Summary, error) {
	return cs.store.Cards(ctx, find)
}

// Create puts a new card on the table. It returns a *card.Refusal for a card that names a
// font, a paper or a picture that is not there.
func (cs *cards) Create(ctx context.Context, c card.Card) (string, error) {
	if err := cs.verify(ctx, c, card.Uses{}); err != nil {
		return "", err
	}
	id := newID()
	if err := cs.store.Create(ctx, id, c, "", cs.now()); err != nil {
		return "", fmt.Errorf("create card: %w", err)
	}
	cs.events.send(Event{Kind: TableEvent})
	return id, nil
}

// Duplicate puts a copy of the card on the table. It returns ErrNotFound for a card that is
// not on the table and a *Damaged for one that cannot be read.
func (cs *cards) Duplicate(ctx context.Context, id string) (string, error) {
	rev, err := cs.store.Head(ctx, id)
	if err != nil {
		return "", err
	}
	c, err := card.RenameCard{Title: titled(rev.Card.Title, ", copy")}.Apply(rev.Card)
	if err != nil {
		return "", err
	}
	return cs.Create(ctx, c)
}

// Title is the name of a card. It returns ErrNotFound for a card that is not on the table and
// a *Damaged for one that cannot be read.
func (cs *cards) Title(ctx context.Context, id string) (string, error) {
	o, err := cs.load(ctx, id)
	if err != nil {
		return "", err
	}
	defer o.Unlock()
	return o.rev.Card.Title, nil
}

// titled is a title with something after it, shortened where it would be too long for a title.
func titled(title, suffix string) string {
	if r := []rune(title); len(r)+len(suffix) > 120 {
		title = string(r[:120-len(suffix)])
	}
	return title + suffix
}

// Remove takes a card off the table; it can be restored. It returns ErrNotFound for a card
// that is not there.
func (cs *cards) Remove(ctx context.Context, id string) error {
	if err := cs.store.Remove(ctx, id, cs.now()); err != nil {
		return err
	}
	cs.mu.Lock()
	delete(cs.open, id)
	cs.mu.Unlock()
	cs.events.send(Event{Kind: TableEvent})
	return nil
}

// Restore puts a removed card back. It returns ErrNotFound for a card that is not there.
func (cs *cards) Restore(ctx context.Context, id string) error {
	if err := cs.store.Restore(ctx, id); err != nil {
		return err
	}
	cs.events.send(Event{Kind: TableEvent})
	return nil
}

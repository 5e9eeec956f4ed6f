package typeset

import (
	"strings"

	"sectilis/core/document/card"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/geom"
)

// FitNames gives words a box as large as what they lie on leaves them, in which the letters of each name
// are as large as fits. Words that lie on a piece by themselves get the room of the piece, others on a piece
// its width and the height that they have; words on the base have room to both sides as far as the nearer
// safe line leaves them.
type FitNames struct {
	ID string `json:"id"`
}

// How small letters that fit may become at first, mm (14 points), and how much of the box of a piece is
// tried for the room of its words. They may take a line more than they have.
const (
	firstLeast = 14 * 25.4 / 72
	mostRoom   = .94
	leastRoom  = .4
	sideRoom   = .9 // of what there is to the safe line
)

// Label implements card.Command.
func (FitNames) Label() string { return "Fit the letters of each name" }

// Apply implements card.Command.
func (k FitNames) Apply(c card.Card) (card.Card, error) {
	return card.OnFace(c, []string{k.ID}, func(c *card.Card, f *card.Face) error {
		it := f.Item(k.ID)
		if it.Words == nil {
			return card.Refuse("id", "“%s” is no lettering.", it.Name)
		}
		if it.Words.Path != nil || it.Words.Warp != nil {
			return card.Refuse("id", "“%s” does not stand in straight lines. Set it straight first.", it.Name)
		}
		was, err := scene.Resolve(f, it)
		if err != nil {
			return err
		}
		w := *it.Words
		if b := w.Box; b != nil && b.Height > 0 {
			box := *b
			box.Fit, box.Unwrapped = true, false
			if box.Lines == 0 {
				box.Least, box.Lines = card.Tidy(min(was.Words.Size, firstLeast)), linesFor(w.Text)
			}
			w.Box = &box
		} else {
			size := was.Words.Size
			room, err := roomOf(c, f, it, &was)
			if err != nil {
				return err
			}
			if it.On == "" { // room for the line more, if the letters are as small as they may be
				high := max(room.H, w.Leading*min(size, firstLeast)*float64(linesFor(w.Text)))
				room.Y, room.H = room.Centre().Y-high/2, high
			}
			w.Box = &card.TextBox{Width: card.Tidy(max(room.W, 1)), Height: card.Tidy(max(room.H, 1)), Fit: true, Whole: it.On != ""}
			w.Box.Least, w.Box.Lines = card.Tidy(min(size, firstLeast)), linesFor(w.Text)
			if it.On == "" { // no name stands out larger than the words were set
				w.Box.Most = card.Tidy(size)
			}
			middle := was.At.Apply(room.Centre())
			it.Place.X, it.Place.Y = card.Tidy(middle.X), card.Tidy(middle.Y)
		}
		it.Words = &w
		return nil
	})
}

// roomOf is what room words have on what they lie on, in their own coordinates.
func roomOf(c *card.Card, f *card.Face, it *card.Item, was *scene.Item) (geom.Rect, error) {
	back, ok := was.At.Inverse()
	if !ok {
		return was.Words.Block, nil
	}
	block := was.Words.Block
	on := f.Item(it.On)
	if on == nil {
		safe := scene.SafeArea(fold.Of(c.Base).Face(f.ID))
		middle := was.At.Apply(block.Centre()).X
		if wide := 2 * sideRoom * min(middle-safe.X, safe.Right()-middle); it.Place.Turn == 0 && wide > 1 {
			block.X, block.W = block.Centre().X-wide/2, wide
		}
		return block, nil
	}
	// As high as the lines are with all that letters reach beyond them.
	ink := was.Outline.Bounds()
	if over := max(0, block.Y-ink.Y, ink.Bottom()-block.Bottom()); over > 0 {
		block.Y, block.H = block.Y-over, block.H+2*over
	}
	carrier, err := scene.Resolve(f, on)
	if err != nil {
		return geom.Rect{}, err
	}
	edge := carrier.Outline.Transform(carrier.At.Then(back))
	box := edge.Bounds()
	alone := true
	for i := range f.Items {
		o := &f.Items[i]
		alone = alone && (o.ID == it.ID || o.On != it.On || o.Background)
	}
	// The largest share of the piece's box, about its middle, that lies within its outline.
	for share := mostRoom; share >= leastRoom; share -= .02 {
		room := geom.Centred(box.W*share, box.H*share)
		room.X, room.Y = room.X+box.Centre().X, room.Y+box.Centre().Y
		if !alone {
			room.Y, room.H = block.Y, block.H
		}
		if geom.Difference(geom.NonZero, geom.RectPath(room), edge).Area() < 1e-3 {
			return room, nil
		}
	}
	return block, nil
}

// linesFor is how many lines words that fit may take: one more than they have.
func linesFor(text string) int { return 2 + strings.Count(text, "\n") }

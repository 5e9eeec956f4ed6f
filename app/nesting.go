package app

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"time"

	"sectilis/core/document/card"
	"sectilis/core/production/nest"
	"sectilis/core/production/sheet"
)

// layout is an answer and, of one that was searched for, the area that the first one
// took, mm².
type layout struct {
	nest.Answer
	First float64 `json:",omitempty"`
}

// nester lays parts by what is known of a layout: from memory, from disk or, where the
// store has none, by a first layout.
type nester struct {
	app *production
	ctx context.Context
	// saved is the area that searched layouts take less than the first ones, mm².
	saved float64
	// err is the first failure of the store. The answers after it are empty: a first layout
	// must not stand in for one that may have been printed already.
	err error
}

func (p *production) nester(ctx context.Context) *nester { return &nester{app: p, ctx: ctx} }

// answer is a sheet.Nester.
func (n *nester) answer(p nest.Problem) nest.Answer {
	known, err := n.app.layouts.Of(p.Key(), func() (layout, error) {
		var known layout
		if err := n.ctx.Err(); err != nil {
			return known, err // nobody waits for it
		}
		raw, err := n.app.store.Layout(n.ctx, p.Key())
		found, err := decode(raw, err, &known, "how the sheets were laid")
		if err == nil && found && len(known.Places) != len(p.Parts) {
			err = fmt.Errorf("read how the sheets were laid: %d places for %d parts", len(known.Places), len(p.Parts))
		}
		if err == nil && !found {
			known = layout{Answer: sheet.First(p)}
		}
		return known, err
	})
	if n.err = cmp.Or(n.err, err); n.err != nil {
		return unlaid(p)
	}
	if known.First > 0 {
		n.saved += known.First - known.Area
	}
	return known.Answer
}

// unlaid is an answer in which no part has a place.
func unlaid(p nest.Problem) nest.Answer {
	out := nest.Answer{Places: make([]nest.Place, len(p.Parts))}
	for i := range out.Places {
		out.Places[i].Sheet = -1
	}
	return out
}

// closerTime is how long a closer layout is sought if nobody stops it; what share of the
// paper is worth saying that it is saved.
const (
	closerTime  = 10 * time.Second
	worthSaying = .0005
)

// LayCloser seeks a layout that takes less paper, as a job. What it has found is kept when it
// is stopped, too. It returns a *card.Refusal when there is nothing to lay closer.
func (p *production) LayCloser(ctx context.Context, id string, opt sheet.Options) (Job, error) {
	opt, err := p.paper(ctx, opt)
	if err != nil {
		return Job{}, err
	}
	rev, _, copies, err := p.cards.toLay(ctx, id)
	if err != nil {
		return Job{}, err
	}
	by := p.nester(ctx)
	before := sheet.LayCopies(rev.Card, copies, opt, by.answer)
	if by.err != nil {
		return Job{}, by.err
	}
	problems := slices.DeleteFunc(before.Nested, func(p nest.Problem) bool { return len(p.Parts) < 2 })
	if len(problems) == 0 {
		return Job{}, &card.Refusal{Field: "sheets", Why: "Every sheet has a single piece; there is nothing to lay closer."}
	}
	return p.jobs.start(Job{Kind: CloserJob, Card: id}, func(ctx context.Context, update func(func(*Job))) error {
		c := closer{production: p, by: p.nester(context.WithoutCancel(ctx)), problems: problems, before: before.Taken}
		for _, problem := range problems {
			c.searches = append(c.searches, nest.New(problem))
		}
		c.seek(ctx, update)
		if err := c.keep(context.WithoutCancel(ctx)); err != nil {
			return err
		}
		after := sheet.LayCopies(rev.Card, copies, opt, c.by.answer)
		share := max(0, 1-after.Taken/before.Taken)
		update(func(j *Job) {
			j.Note = "This is as close as they go."
			if share >= worthSaying {
				j.Note = fmt.Sprintf("Takes %.1f %% less paper.", 100*share)
			}
		})
		return c.by.err
	}), nil
}

// closer is the search for layouts that take less paper.
type closer struct {
	*production
	by       *nester
	problems []nest.Problem
	searches []*nest.Search // one for each problem
	before   float64        // the paper that the layouts before take, mm²
}

// seek searches until the time is over, or the context ends, and tells how much paper is
// saved so far.
func (c *closer) seek(ctx context.Context, update func(func(*Job))) {
	ctx, cancel := context.WithTimeout(ctx, closerTime)
	defer cancel()
	began := c.now()
	for ctx.Err() == nil {
		for _, s := range c.searches {
			s.Improve(max(1, s.Round()/8))
		}
		less := 0.0
		for i, p := range c.problems {
			if best, was := c.searches[i].Best(), c.by.answer(p); c.by.err == nil && best.Better(was) {
				less += was.Area - best.Area
			}
		}
		update(func(j *Job) {
			j.Progress = min(1, float64(c.now().Sub(began))/float64(closerTime))
			if share := less / c.before; share >= worthSaying {
				j.Note = fmt.Sprintf("%.1f %% less paper so far", 100*share)
			}
		})
	}
}

// keep keeps what was found that is better than what was there, with the area that the
// first layout took.
func (c *closer) keep(ctx context.Context) error {
	for i, p := range c.problems {
		best, was := c.searches[i].Best(), c.by.answer(p)
		if c.by.err != nil || !best.Better(was) {
			continue
		}
		first := was.Area
		if l, ok := c.layouts.Get(p.Key()); ok && l.First > 0 {
			first = l.First
		}
		if err := c.keepLayout(ctx, p.Key(), layout{best, first}); err != nil {
			return err
		}
	}
	return c.by.err
}

// keepLayout keeps a layout for good. What is not on disk would be gone when it is needed,
// so it is remembered only once it is there.
func (p *production) keepLayout(ctx context.Context, key string, answer layout) error {
	raw, err := json.Marshal(answer)
	if err == nil {
		err = p.store.KeepLayout(ctx, key, raw, p.now())
	}
	if err != nil {
		return fmt.Errorf("the closer layout was not kept: %w", err)
	}
	p.layouts.Put(key, answer)
	return nil
}

package app

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"sync"
	"time"

	"sectilis/core/card"
	"sectilis/core/nest"
	"sectilis/core/sheet"
)

// layouts remembers answers, so that a change that moves no piece on its sheet
// costs nothing, and keeps on disk those that were searched for.
type layouts struct {
	mu sync.Mutex
	m  map[string]layout
}

// layout is an answer and, of one that was searched for, the area that the first one
// took.
type layout struct {
	nest.Answer
	First float64 `json:",omitempty"`
}

// maxLayouts bounds what is remembered; an odd many is laid again.
const maxLayouts = 256

func (l *layouts) get(key string) (layout, bool) {
	l.mu.Lock()
	defer l.mu.Unlock()
	a, ok := l.m[key]
	return a, ok
}

func (l *layouts) set(key string, a layout) {
	l.mu.Lock()
	defer l.mu.Unlock()
	if l.m == nil || len(l.m) >= maxLayouts {
		l.m = map[string]layout{}
	}
	l.m[key] = a
}

// nested answers from memory, from disk, or by a first layout; saved is told what area
// that takes less than a first layout.
func (a *App) nested(ctx context.Context, saved func(float64)) sheet.Nester {
	return func(p nest.Problem) nest.Answer {
		key := p.Key()
		known, ok := a.layouts.get(key)
		if !ok {
			raw, err := a.store.Layout(ctx, key)
			if err != nil || json.Unmarshal(raw, &known) != nil || len(known.Places) != len(p.Parts) {
				known = layout{Answer: sheet.First(p)}
			}
			a.layouts.set(key, known)
		}
		if saved != nil && known.First > 0 {
			saved(known.First - known.Area)
		}
		return known.Answer
	}
}

// closerTime is how long a closer layout is sought if nobody stops it; what share of the
// paper is worth saying that it is saved.
const (
	closerTime  = 10 * time.Second
	worthSaying = .0005
)

// LayCloser seeks a layout that takes less paper, as a job. What it has found is
// kept when it is stopped, too.
func (a *App) LayCloser(ctx context.Context, id string, opt sheet.Options) (Job, error) {
	opt, err := a.paper(ctx, opt)
	if err != nil {
		return Job{}, err
	}
	o, err := a.load(ctx, id)
	if err != nil {
		return Job{}, err
	}
	rev, s := o.rev, o.scene
	o.Unlock()
	known := a.nested(ctx, nil)
	before := sheet.Lay(rev.Card, s, opt, known)
	problems := slices.DeleteFunc(before.Nested, func(p nest.Problem) bool { return len(p.Parts) < 2 })
	if len(problems) == 0 {
		return Job{}, &card.Refusal{Field: "sheets", Why: "Every sheet has a single piece; there is nothing to lay closer."}
	}
	return a.jobs.start(Job{Kind: "closer", Card: id}, func(ctx context.Context, update func(func(*Job))) error {
		end := time.Now().Add(closerTime)
		searches := make([]*nest.Search, len(problems))
		for i, p := range problems {
			searches[i] = nest.New(p)
		}
		saved := func() float64 { // of the paper, after what was found is kept
			for i, p := range problems {
				best := searches[i].Best()
				if was := known(p); best.Better(was) {
					first := was.Area
					if l, ok := a.layouts.get(p.Key()); ok && l.First > 0 {
						first = l.First
					}
					a.keep(context.WithoutCancel(ctx), p.Key(), layout{best, first})
				}
			}
			after := sheet.Lay(rev.Card, s, opt, known)
			return max(0, 1-after.Taken/before.Taken)
		}
		soFar := func() float64 {
			less := 0.0
			for i, p := range problems {
				if best, was := searches[i].Best(), known(p); best.Better(was) {
					less += was.Area - best.Area
				}
			}
			return less / before.Taken
		}
		for time.Now().Before(end) && ctx.Err() == nil {
			for i := range searches {
				searches[i].Improve(max(1, searches[i].Round()/8))
			}
			share := soFar()
			update(func(j *Job) {
				j.Progress = 1 - float64(time.Until(end))/float64(closerTime)
				if share >= worthSaying {
					j.Note = fmt.Sprintf("%.1f %% less paper so far", 100*share)
				}
			})
		}
		share := saved()
		update(func(j *Job) {
			j.Note = "This is as close as they go."
			if share >= worthSaying {
				j.Note = fmt.Sprintf("Takes %.1f %% less paper.", 100*share)
			}
		})
		return nil
	}), nil
}

// keep remembers a layout for good.
func (a *App) keep(ctx context.Context, key string, answer layout) {
	raw, err := json.Marshal(answer)
	if err == nil {
		err = a.store.KeepLayout(ctx, key, raw, a.now())
	}
	if err != nil {
		a.log.Warn("layout not kept", "err", err)
		return // what is not on disk would be gone when it is needed
	}
	a.layouts.set(key, answer)
}

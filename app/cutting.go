package app

import (
	"context"
	"errors"
	"fmt"
	"time"

	"sectilis/core/card"
	"sectilis/core/cut"
	"sectilis/core/format/hpgl"
	"sectilis/core/geom"
	"sectilis/core/marks"
	"sectilis/core/sheet"
)

// Run cuts one sheet, as a job: a stand-in is given the sheet, marks are looked for,
// and what is cut is moved to where the sheet is found to lie. A sheet that was found
// already, and on which nothing was cut, is cut as it lies.
//
// With goOn, a run that was broken off goes on from where it was.
func (a *App) Run(ctx context.Context, id string, opt sheet.Options, number int, goOn bool) (Job, error) {
	p, err := a.placing(ctx, id, opt, number)
	if err != nil {
		return Job{}, err
	}
	was := a.runState(ctx, p.key)
	if goOn && !was.broken() {
		return Job{}, &card.Refusal{Field: "sheet", Why: fmt.Sprintf("The run of sheet %d was not broken off; cut it from the start.", number)}
	}
	if goOn && !p.onMat(true) {
		return Job{}, &card.Refusal{Field: "sheet", Why: fmt.Sprintf("Sheet %d does not lie on the cutting mat any more as it did; cut it from the start, on a new sheet.", number)}
	}
	lies := !goOn && was.State == "found" && p.onMat(false)
	if !goOn && !lies {
		if err := p.canLoad(); err != nil {
			return Job{}, err
		}
	}
	return a.jobs.startHeld(Job{Kind: "run", Card: id, Sheet: number}, func(ctx context.Context, update func(func(*Job)), h hold) error {
		p.update = update
		r := RunState{State: "cutting", Tests: was.Tests}
		update(func(j *Job) { r.Job = j.ID })
		var err error
		if goOn || lies {
			r.Done, r.Of, r.Lies, r.Rest = was.Done, was.Of, was.Lies, was.Rest
			update(func(j *Job) { j.Lies = r.Lies })
		} else {
			r.Tests = 0
			err = p.place(ctx, &r)
		}
		if err == nil {
			err = (&cutting{placing: p, r: &r, hold: h}).all(ctx)
		}
		r.State = "done"
		if err != nil {
			r.State, r.Why = "failed", sentence(err)
			if errors.Is(err, context.Canceled) {
				r.State, r.Why = "stopped", ""
			}
		} else {
			r.Apart = p.measured(context.WithoutCancel(ctx))
		}
		p.show(ctx, &r)
		a.setRun(ctx, p.key, r, true)
		return err
	}), nil
}

// cutting is a run under way.
type cutting struct {
	*placing
	r      *RunState
	hold   hold
	passes []cut.Pass
	steps  []hpgl.Step
	total  float64 // seconds by plan
	// Time left is told by how long what is done has taken.
	took    time.Duration
	planned float64
	kept    time.Time
	looked  int // how often it was seen whether the sheet lies still
}

// keepEvery is how often it is noted on disk how far a run has come, lookEvery how
// often, by plan, it is seen whether the sheet still lies as it did, in seconds.
const (
	keepEvery = 500 * time.Millisecond
	lookEvery = 6.0
)

// all sends the passes of the sheet, which lies as the run tells, to the cutter, from
// where the run is: in legs, each with one tool and at the end of a path.
func (c *cutting) all(ctx context.Context) error {
	moved := c.sh.Moved(c.r.Lies.At)
	moved.Size.Height = c.state.Bed[1]
	c.passes = cut.Plan(moved, c.sh.Settings)
	c.steps = hpgl.Steps(c.passes, c.state.Bed[1])
	for _, s := range c.steps {
		c.total += s.Seconds
	}
	c.r.Of = len(c.steps)
	c.app.setRun(ctx, c.key, *c.r, true)
	c.kept = c.app.now()
	c.hold.forget()
	if c.r.Done > 0 && c.r.Rest == nil {
		// The connection was lost: the tool may rest where it was then.
		if at, down, err := c.app.machine.now().Rest(ctx); err == nil && down {
			c.r.Rest = &at
		}
	}
	for c.r.Done < len(c.steps) {
		if err := c.fit(ctx, int(c.passes[c.steps[c.r.Done].Pass].Tool)); err != nil {
			return err
		}
		if err := c.leg(ctx); err != nil {
			return err
		}
		if err := c.lieStill(ctx); err != nil {
			return err
		}
	}
	return nil
}

// fit sees to it that the tool of the next leg is in the holder: a person is asked to
// put it in, and a stand-in is given it.
func (c *cutting) fit(ctx context.Context, tool int) error {
	if c.app.fitted.is(c.app.CutterState(ctx), tool) {
		return nil
	}
	c.update(func(j *Job) { j.Needs = tool })
	select {
	case <-c.hold.goOn:
	case <-ctx.Done():
		return ctx.Err()
	}
	if hand, ok := c.hand(); ok {
		if err := hand.Fit(ctx, tool); err != nil {
			return fmt.Errorf("the tool could not be put in: %w", err)
		}
	}
	c.app.fitted.set(tool)
	c.update(func(j *Job) { j.Needs = 0 })
	return nil
}

var errPaused = errors.New("paused")

// leg cuts on to the end of the pass, or to the end of a path after some time, or until
// it is paused; then it waits to be let go on.
func (c *cutting) leg(ctx context.Context) error {
	first := c.r.Done
	end, seconds := first, 0.0
	tool := c.passes[c.steps[first].Pass].Tool
	for end < len(c.steps) && c.passes[c.steps[end].Pass].Tool == tool {
		s := c.steps[end]
		seconds += s.Seconds
		if end++; s.Last && seconds > lookEvery && c.eyed() {
			break
		}
	}
	legCtx, cancel := context.WithCancelCause(ctx)
	watched := make(chan struct{})
	go func() {
		defer close(watched)
		select {
		case <-c.hold.pause:
			cancel(errPaused)
		case <-legCtx.Done():
		}
	}()
	steps := hpgl.After(c.steps, c.passes, c.state.Bed[1], first, c.r.Rest)[:end-first]
	c.r.Rest = nil
	began := c.app.now()
	err := c.app.machine.now().Run(legCtx, steps, func(n int) {
		now := c.app.now()
		c.took, began = c.took+now.Sub(began), now
		c.planned += c.steps[first+n].Seconds
		c.done(ctx, first+n)
	})
	paused := errors.Is(context.Cause(legCtx), errPaused)
	cancel(nil)
	<-watched
	var halt *Halt
	if errors.As(err, &halt) && halt.Down {
		c.r.Rest = halt.At
	}
	if err == nil || ctx.Err() != nil || !paused {
		return err
	}
	c.update(func(j *Job) { j.Paused = true })
	c.app.setRun(ctx, c.key, *c.r, true)
	select {
	case <-c.hold.goOn:
	case <-ctx.Done():
		return ctx.Err()
	}
	c.update(func(j *Job) { j.Paused = false })
	return nil
}

// done notes that a step is done and tells how far the run has come.
func (c *cutting) done(ctx context.Context, i int) {
	s := c.steps[i]
	c.r.Done = i + 1
	now := c.app.now()
	keep := now.Sub(c.kept) >= keepEvery
	if keep {
		c.kept = now
	}
	c.app.setRun(ctx, c.key, *c.r, keep)
	left := 0.0
	for _, s := range c.steps[i+1:] {
		left += s.Seconds
	}
	seconds := left
	if c.planned > 1 {
		seconds *= c.took.Seconds() / c.planned
	}
	back, _ := c.r.Lies.At.Inverse() // what was fitted or shifted has one
	at := back.Apply(reached(c.passes, s))
	share := 1 - left/max(c.total, 1e-9)
	c.update(func(j *Job) {
		j.Progress = share
		j.Run = &RunInfo{s.Pass, s.Path, at.X, at.Y, seconds}
	})
}

func (c *cutting) eyed() bool { return c.state.Eye && len(c.r.Lies.Marks) > 0 }

// lieStill looks at one of the marks again: a sheet that has slipped is cut no more.
func (c *cutting) lieStill(ctx context.Context) error {
	if !c.eyed() {
		return nil
	}
	used := c.r.Lies.Used()
	number := used[c.looked%len(used)]
	c.looked++
	off, ok, err := marks.Still(ctx, c.app.machine.now(), markShape, *c.r.Lies, number)
	if err != nil || ok {
		return err
	}
	return fmt.Errorf("the sheet has slipped on the cutting mat, by %.1f mm at mark %d. What was cut last may be off; nothing more was cut. Look whether the mat still holds, and begin with a new sheet", off, number)
}

// reached is where the tool stands after a step.
func reached(passes []cut.Pass, s hpgl.Step) geom.Point {
	if s.Pass >= len(passes) || s.Path >= len(passes[s.Pass].Paths) {
		return geom.Point{}
	}
	run := s.Run
	for _, p := range passes[:s.Pass] {
		run -= p.Length
	}
	for _, l := range passes[s.Pass].Paths[:s.Path] {
		run -= l.Length()
	}
	return passes[s.Pass].Paths[s.Path].At(run)
}

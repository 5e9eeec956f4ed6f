package app

import (
	"context"
	"errors"
	"fmt"
	"math"
	"time"

	"sectilis/core/document/card"
	"sectilis/core/format/hpgl"
	"sectilis/core/ground/geom"
	"sectilis/core/production/cut"
	"sectilis/core/production/registration"
	"sectilis/core/production/sheet"
)

// machining runs sheets at the cutter.
type machining struct {
	common
	store      keeper
	production *production
	outcomes   *outcomes
	jobs       *jobs
	machine    *machine
	fitted     fitted
}

// From says where a run begins.
type From struct {
	// GoOn takes up a run that was broken off, where it was.
	GoOn bool
	// Path, with GoOn, is the first path that is not cut yet, as a person has seen on the
	// sheet: for a machine that does not tell how far it has come.
	Path *PathOf
}

// PathOf names a path of a run.
type PathOf struct{ Pass, Path int }

// Run cuts one sheet, as a job: a stand-in is given the sheet, marks are looked for,
// and what is cut is moved to where the sheet is found to lie. A sheet that was found
// already, and on which nothing was cut, is cut as it lies. ErrBusy while something is
// under way at the cutter.
func (m *machining) Run(ctx context.Context, id string, opt sheet.Options, number int, from From) (Job, error) {
	p, err := m.placing(ctx, id, opt, number)
	if err != nil {
		return Job{}, err
	}
	was, err := m.outcomes.runState(ctx, p.key)
	if err != nil {
		return Job{}, err
	}
	if from.GoOn {
		if err := p.canGoOn(was, from); err != nil {
			return Job{}, err
		}
	}
	lies := !from.GoOn && was.State == RunFound && p.onMat(false)
	if !from.GoOn && !lies {
		if err := p.canLoad(); err != nil {
			return Job{}, err
		}
	}
	free, err := m.machine.reserve(fmt.Sprintf("Sheet %d of “%s” is being cut.", number, p.title))
	if err != nil {
		return Job{}, err
	}
	return m.jobs.startHeld(Job{Kind: RunJob, Card: id, Sheet: number}, func(ctx context.Context, update func(func(*Job)), h hold) error {
		defer free()
		m.outcomes.runs.begin(underWay{id, number, p.key})
		defer m.outcomes.runs.begin(underWay{})
		p.update = update
		r := RunState{State: RunCutting, Tests: was.Tests}
		update(func(j *Job) { r.Job = j.ID })
		var err error
		if from.GoOn || lies {
			r.Done, r.Of, r.Given, r.Lies, r.Rest, r.Sent, r.Resumed = was.Done, was.Of, was.Given, was.Lies, was.Rest, was.Sent, was.Resumed
			update(func(j *Job) { j.Lies = r.Lies })
		} else {
			r.Tests = 0
			err = p.place(ctx, &r)
		}
		c := &cutting{placing: p, r: &r, hold: h}
		if err == nil && from.GoOn {
			r.Resumed++
			err = c.takeUp(ctx, from.Path)
		}
		if err == nil {
			err = c.all(ctx)
		}
		r.State = RunDone
		if err != nil {
			r.Unknown = r.Unknown || r.Given > 0 && m.CutterState(context.WithoutCancel(ctx)).Silent
			stopped := errors.Is(err, context.Canceled)
			r.State, r.Why = RunFailed, sentence(err)
			switch {
			case stopped && r.Unknown:
				r.State, r.Why = RunStopped, sentence(errors.New("stopped."+unknownWhy))
			case stopped:
				r.State, r.Why = RunStopped, ""
			case r.Unknown:
				err = fmt.Errorf("%w.%s", err, unknownWhy)
				r.Why = sentence(err)
			}
		} else {
			r.Unknown = m.CutterState(context.WithoutCancel(ctx)).Silent
			r.Apart = p.measured(context.WithoutCancel(ctx))
		}
		p.show(ctx, &r)
		return errors.Join(err, p.noted(ctx, id, r))
	}), nil
}

// noted notes where the run of a card's sheet stands and, once it is done, whose pieces are cut. It fails
// when the store does.
func (p *placing) noted(ctx context.Context, id string, r RunState) error {
	err := p.app.outcomes.setRun(ctx, p.key, r, true)
	if r.State != RunDone {
		return err
	}
	return errors.Join(err, p.app.outcomes.noteCut(ctx, id, p.sh.Sheet))
}

const unknownWhy = " What was cut is not known: this cutter does not tell. Look at the sheet, and point at the first path that is not cut; or begin with a new sheet"

// canGoOn refuses to take up a run that was not broken off, whose sheet is not on the mat
// any more, or of which nobody has said how far it came.
func (p *placing) canGoOn(was RunState, from From) error {
	if !was.broken() {
		return &card.Refusal{Field: "sheet", Why: fmt.Sprintf("The run of sheet %d was not broken off; cut it from the start.", p.number)}
	}
	if !p.onMat(true) {
		return &card.Refusal{Field: "sheet", Why: fmt.Sprintf("Sheet %d does not lie on the cutting mat any more as it did; cut it from the start, on a new sheet.", p.number)}
	}
	if was.Unknown && from.Path == nil {
		return &card.Refusal{Field: "from", Why: fmt.Sprintf("How far sheet %d is cut is not known. Point at the first path that is not cut, or begin with a new sheet.", p.number)}
	}
	if from.Path != nil {
		if _, ok := stepOf(hpgl.Steps(p.sh.Passes, p.sh.Size.Height), *from.Path); !ok {
			return &card.Refusal{Field: "from", Why: fmt.Sprintf("Sheet %d has no such path.", p.number)}
		}
	}
	return nil
}

// stepOf is the step that begins a path.
func stepOf(steps []hpgl.Step, path PathOf) (int, bool) {
	for i, s := range steps {
		if _, draws := s.End(); draws && !s.Aside() && s.Pass == path.Pass && s.Path == path.Path {
			return i, true
		}
	}
	return 0, false
}

// cutting is a run under way.
type cutting struct {
	*placing
	r      *RunState
	hold   hold
	passes []cut.Pass
	steps  []hpgl.Step
	total  float64 // seconds by plan
	// takenUp says that the tool was lifted, or the blade turned, since it cut last.
	takenUp bool
	strokes int // in the waste, that have turned the blade
	// Time left is told by how long what is done has taken.
	took    time.Duration
	planned float64
	looked  int // how often it was seen whether the sheet lies still
}

// lookEvery is how often, by plan, it is seen whether the sheet still lies as it did, in
// seconds.
const lookEvery = 6.0

// plan works out the steps of the run, for the sheet as it lies. The order of the steps
// follows from the sheet alone, so that they keep their numbers when it is found anew.
func (c *cutting) plan() {
	c.passes = c.app.machine.ofOnesOwn().steered(cut.Move(c.sh.Passes, c.r.Lies.At))
	c.steps = hpgl.Steps(c.passes, c.state.Bed[1])
	c.total = 0
	for _, s := range c.steps {
		c.total += s.Seconds
	}
	c.r.Of = len(c.steps)
}

// takeUp finds out where a run that was broken off goes on, and whether its sheet still
// lies as it did.
func (c *cutting) takeUp(ctx context.Context, from *PathOf) error {
	c.plan()
	c.takenUp = true
	if from != nil {
		n, _ := stepOf(c.steps, *from) // looked up before
		c.r.Unknown = false
		c.r.advance(func(p *hpgl.Progress) bool { p.From(n); return true })
	} else if c.r.advance((*hpgl.Progress).Asks) {
		// The connection was lost, or the program has died: the tool rests where it was then.
		at, down, err := c.app.machine.now().Rest(ctx)
		if err != nil && ctx.Err() != nil {
			return ctx.Err()
		}
		if err != nil || !c.r.advance(func(p *hpgl.Progress) bool { return p.Stopped(c.steps, at, down) }) {
			c.r.Unknown = true
			return errors.New("the cutter does not tell where the tool came to rest")
		}
	}
	return c.asItLay(ctx)
}

// asItLay looks, before a run goes on, at the two marks that are farthest apart. A sheet
// that has moved is found anew.
func (c *cutting) asItLay(ctx context.Context) error {
	if !c.eyed() {
		return nil
	}
	c.update(func(j *Job) { j.Note = "Looking whether the sheet lies as it did" })
	defer c.update(func(j *Job) { j.Note = "" })
	for _, number := range c.r.Lies.Farthest() {
		_, ok, err := registration.Still(ctx, c.app.machine.now(), markShape, *c.r.Lies, number)
		if err != nil {
			return err
		}
		if ok {
			continue
		}
		found, err := registration.Find(ctx, c.app.machine.now(), c.drawn(), markShape, c.r.Lies.At)
		if err != nil {
			return fmt.Errorf("the sheet has slipped on the cutting mat, and how it lies now was not found: %w", err)
		}
		if back, ok := c.r.Lies.At.Inverse(); ok && c.r.Rest != nil {
			at := found.At.Apply(back.Apply(*c.r.Rest))
			c.r.Rest = &at
		}
		// It is told against where it was put, as before.
		found.Against(c.drawn(), c.belongs())
		c.r.Lies = &found
		c.plan()
		c.update(func(j *Job) { j.Lies = &found })
		return nil
	}
	return nil
}

// all sends the passes of the sheet, which lies as the run tells, to the cutter, from
// where the run is: in legs, each with one tool and at the end of a path.
func (c *cutting) all(ctx context.Context) error {
	c.plan()
	if err := c.app.outcomes.setRun(ctx, c.key, *c.r, true); err != nil {
		return err
	}
	c.hold.forget()
	for c.r.Done < len(c.steps) {
		waited, err := c.waitForTool(ctx, int(c.passes[c.steps[c.r.Done].Pass].Tool))
		if err == nil && waited {
			err = c.asItLay(ctx)
		}
		if err == nil {
			err = c.leg(ctx)
		}
		if err == nil {
			err = c.lieStill(ctx)
		}
		if err != nil {
			return err
		}
	}
	return nil
}

// waitForTool blocks until the tool of the next leg is in the holder: a person is asked
// to put it in, and a stand-in is given it. It reports whether there was a wait.
func (c *cutting) waitForTool(ctx context.Context, tool int) (bool, error) {
	if c.app.fitted.is(c.app.CutterState(ctx), tool) {
		return false, nil
	}
	c.update(func(j *Job) { j.Needs = tool })
	select {
	case <-c.hold.goOn:
	case <-ctx.Done():
		return true, ctx.Err()
	}
	if hand, ok := c.hand(); ok {
		if err := hand.Fit(ctx, tool); err != nil {
			return true, fmt.Errorf("the tool could not be put in: %w", err)
		}
	}
	c.app.fitted.set(tool)
	c.update(func(j *Job) { j.Needs = 0 })
	return true, nil
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
	steps := hpgl.After(c.steps, c.passes, c.state.Bed[1], first, c.r.Rest, c.aligner())[:end-first]
	began := c.app.now()
	err := c.giveTo(ctx, first-1)
	if err == nil {
		err = c.app.machine.now().Run(legCtx, steps, func(n int) error {
			now := c.app.now()
			c.took, began = c.took+now.Sub(began), now
			c.planned += c.steps[first+n].Seconds
			return c.done(ctx, first+n)
		})
	}
	paused := errors.Is(context.Cause(legCtx), errPaused)
	cancel(nil)
	<-watched
	if err == nil {
		c.r.advance(func(p *hpgl.Progress) bool { p.Whole(); return true })
		return nil
	}
	var halt *Halt
	if errors.As(err, &halt) {
		c.r.Unknown = halt.Unknown
		if halt.At != nil {
			c.stoppedAt(*halt.At, halt.Down)
		}
	}
	if ctx.Err() != nil || !paused {
		return err
	}
	if c.r.Unknown {
		return errors.New("paused")
	}
	c.takenUp = true
	c.update(func(j *Job) { j.Paused = true })
	if err := c.app.outcomes.setRun(ctx, c.key, *c.r, true); err != nil {
		return err
	}
	select {
	case <-c.hold.goOn:
	case <-ctx.Done():
		return ctx.Err()
	}
	c.update(func(j *Job) { j.Paused = false })
	return c.asItLay(ctx)
}

// stoppedAt notes where the machine has told that its tool came to rest.
func (c *cutting) stoppedAt(at geom.Point, down bool) {
	if !c.r.advance(func(p *hpgl.Progress) bool { return p.Stopped(c.steps, at, down) }) {
		c.r.Unknown = true
	}
}

// aligner turns the blade in the waste of the sheet when the run is taken up; nil where
// the tool goes on as it was.
func (c *cutting) aligner() hpgl.Aligner {
	if !c.takenUp {
		return nil
	}
	c.takenUp = false
	return func(angle float64) (geom.Polyline, bool) {
		back, ok := c.r.Lies.At.Inverse()
		if !ok {
			return geom.Polyline{}, false
		}
		c.strokes++
		// The strokes of the plan come first, then one for every time that it went on.
		n := len(c.passes) + c.r.Resumed*8 + c.strokes
		sin, cos := math.Sincos(angle)
		v := back.Apply(geom.Pt(cos, sin)).Sub(back.Apply(geom.Point{}))
		l, ok := cut.Align(c.sh.Sheet, c.sh.Settings.Offset, math.Atan2(v.Y, v.X), n)
		return cut.Moved(l, c.r.Lies.At), ok
	}
}

// giveTo notes on disk, before they are sent, up to which step the machine may have been
// sent them when step i is done.
func (c *cutting) giveTo(ctx context.Context, i int) error {
	if !c.r.advance(func(p *hpgl.Progress) bool { return p.Give(i, len(c.steps)) }) {
		return nil
	}
	return c.app.outcomes.setRun(ctx, c.key, *c.r, true)
}

// done notes that a step is done and tells how far the run has come.
func (c *cutting) done(ctx context.Context, i int) error {
	s := c.steps[i]
	c.r.advance(func(p *hpgl.Progress) bool { p.Did(i); return true })
	if err := c.giveTo(ctx, i); err != nil {
		return err
	}
	c.app.outcomes.runs.known.Put(c.key, *c.r)
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
	return nil
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
	off, ok, err := registration.Still(ctx, c.app.machine.now(), markShape, *c.r.Lies, number)
	if err != nil || ok {
		return err
	}
	return fmt.Errorf("the sheet has slipped on the cutting mat, by %.1f mm at mark %d. What was cut last may be off; nothing more was cut. Look whether the mat still holds. Going on finds the sheet anew; what was cut off its place stays so", off, number)
}

// reached is where the tool stands after a step.
func reached(passes []cut.Pass, s hpgl.Step) geom.Point {
	if at, ok := s.End(); ok {
		return at
	}
	if s.Pass >= len(passes) || s.Path >= len(passes[s.Pass].Paths) {
		return geom.Point{}
	}
	points := passes[s.Pass].Paths[s.Path].Points
	return points[len(points)-1]
}

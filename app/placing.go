package app

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"sync"

	"sectilis/core/document/card"
	"sectilis/core/format/hpgl"
	"sectilis/core/format/raster"
	"sectilis/core/ground/geom"
	"sectilis/core/production/cut"
	"sectilis/core/production/registration"
	"sectilis/core/production/sheet"
)

// markShape is what the marks on sheets look like.
var markShape = registration.Shape{Ring: sheet.MarkRing, Stroke: sheet.MarkStroke, Dot: sheet.MarkDot}

// placing is a sheet that is brought to the cutter.
type placing struct {
	app    *machining
	sh     SheetView
	number int
	title  string // of the card
	key    string
	page   string // where the printed sheet is found, or ""
	state  CutterState
	update func(func(*Job))
}

// placing is the sheet with that number, for a cutter that is ready for it.
func (m *machining) placing(ctx context.Context, id string, opt sheet.Options, number int) (*placing, error) {
	sh, l, err := m.production.sheetByNumber(ctx, id, opt, number)
	if err != nil {
		return nil, err
	}
	if err := m.machine.idle(); err != nil {
		return nil, err
	}
	state := m.CutterState(ctx)
	if !state.Ready {
		return nil, &card.Refusal{Field: "cutter", Why: "The cutter is not ready: " + state.Why + "."}
	}
	opt.Bed = state.Bed
	if m.machine.ofOnesOwn().Address != "" {
		opt.Bed, _ = m.machine.mat()
	}
	if why := opt.Beyond(sh.Size); why != "" {
		return nil, &card.Refusal{Field: "sheet", Why: why}
	}
	page, err := m.outcomes.page(ctx, key(id, sh.Sheet))
	if err != nil {
		return nil, err
	}
	return &placing{app: m, sh: sh, number: number, title: l.Title, key: runKey(id, sh.Sheet, sh.Settings), page: page, state: state}, nil
}

func (p *placing) hand() (Hand, bool) {
	hand, ok := p.app.machine.now().(Hand)
	return hand, ok && p.state.Hand
}

// onMat says that the sheet lies on the mat as it was put there last; after a restart
// there is only a person's word for it.
func (p *placing) onMat(trust bool) bool {
	last := p.app.outcomes.runs.begun("")
	return (last == p.key || trust && last == "") && (!p.state.Hand || p.state.Loaded)
}

// canLoad says why the sheet cannot be put on the mat of a stand-in.
func (p *placing) canLoad() error {
	if p.state.Hand && p.sh.Printed && p.page == "" {
		return &card.Refusal{Field: "sheet", Why: fmt.Sprintf("Print sheet %d first: its marks tell the cutter where it lies.", p.number)}
	}
	return nil
}

// place puts the sheet on the mat and finds how it lies.
func (p *placing) place(ctx context.Context, r *RunState) error {
	if err := p.load(ctx, r); err != nil {
		return err
	}
	return p.find(ctx, r)
}

// belongs is where the sheet is put, mm from the upper left corner of the bed; one that
// fills the bed has no room at its corner.
func (p *placing) belongs() geom.Affine {
	s := p.state
	if s.Corner[0] < 0 || s.Corner[1] < 0 { // the sheet begins where no tool reaches
		return geom.Shift(s.Corner[0], s.Bed[1]-s.Corner[1]-p.sh.Size.Height)
	}
	return geom.Shift(min(s.Corner[0], s.Bed[0]-p.sh.Size.Width), max(0, s.Bed[1]-s.Corner[1]-p.sh.Size.Height))
}

func (p *placing) load(ctx context.Context, r *RunState) error {
	p.app.outcomes.runs.begun(p.key)
	r.Lies = &registration.Found{At: p.belongs()}
	hand, ok := p.hand()
	if !ok {
		return nil
	}
	p.update(func(j *Job) { j.Note = "Putting the sheet on the cutting mat" })
	raw, err := p.paper(ctx)
	if err == nil {
		err = hand.LayDown(ctx, raw, p.sh.Size.Width)
	}
	p.update(func(j *Job) { j.Note = "" })
	return err
}

// find finds how the sheet lies. Without marks, or without an eye, it lies where it
// belongs.
func (p *placing) find(ctx context.Context, r *RunState) error {
	r.Lies = &registration.Found{At: p.belongs()}
	if len(p.sh.Marks) == 0 || !p.state.Eye {
		return nil
	}
	p.update(func(j *Job) { j.Note = "Looking for the marks" })
	found, err := registration.Find(ctx, p.app.machine.now(), p.drawn(), markShape, p.belongs())
	if err != nil {
		return err
	}
	r.Lies = &found
	p.update(func(j *Job) { j.Note, j.Lies = "", &found })
	return nil
}

func (p *placing) drawn() []registration.Mark {
	drawn := make([]registration.Mark, len(p.sh.Marks))
	for i, m := range p.sh.Marks {
		drawn[i] = registration.Mark{At: m.At, Second: m.Second}
	}
	return drawn
}

// paper is the sheet as a stand-in is given it: as it came from the printer, or bare.
func (p *placing) paper(ctx context.Context) ([]byte, error) {
	if p.page != "" {
		raw, err := p.app.production.printer.Picture(ctx, p.page, false)
		if errors.Is(err, ErrNotFound) {
			return nil, &card.Refusal{Field: "sheet", Why: fmt.Sprintf("The printed sheet %d is not at the printer any more. Print it again.", p.number)}
		}
		return raw, err
	}
	const perMM = 2.0
	bare := image.NewPaletted(image.Rect(0, 0, int(p.sh.Size.Width*perMM), int(p.sh.Size.Height*perMM)), color.Palette{raster.Colour(p.sh.Stock.Colour)})
	var b bytes.Buffer
	if err := png.Encode(&b, bare); err != nil {
		return nil, fmt.Errorf("encode sheet: %w", err)
	}
	return b.Bytes(), nil
}

// show takes a picture of the bed into the run: what was cut until now is worth seeing,
// however it ended.
func (p *placing) show(ctx context.Context, r *RunState) {
	raw, err := p.app.machine.now().Picture(context.WithoutCancel(ctx))
	if err != nil {
		p.app.log.Debug("no picture of the bed", "err", err)
		return
	}
	if err := p.app.outcomes.store.KeepResult(context.WithoutCancel(ctx), p.key, raw, p.app.now()); err != nil {
		p.app.log.Warn("picture of the bed not kept", "err", err)
		return
	}
	r.Picture = "runs/" + p.key + ".png?v=" + r.Job // another picture, another address
	p.update(func(j *Job) { j.Pictures = []string{r.Picture} })
}

// Load puts a sheet on the mat of a stand-in, as a job. It returns a *card.Refusal when the
// cutter is not ready or the sheet too large for it, and ErrBusy when it is at work.
func (m *machining) Load(ctx context.Context, id string, opt sheet.Options, number int) (Job, error) {
	return m.bring(ctx, id, opt, number, LoadJob, func(ctx context.Context, p *placing, r *RunState) error {
		*r = RunState{State: RunLoaded, Job: r.Job}
		return p.load(ctx, r)
	})
}

// FindMarks finds how a sheet lies, as a job; it puts it on the mat before if it is not there.
// Its errors are those of Load.
func (m *machining) FindMarks(ctx context.Context, id string, opt sheet.Options, number int) (Job, error) {
	return m.bring(ctx, id, opt, number, FindJob, func(ctx context.Context, p *placing, r *RunState) error {
		if p.onMat(false) && r.State != RunWaiting {
			return p.found(ctx, r)
		}
		*r = RunState{State: RunLoaded, Job: r.Job}
		if err := p.load(ctx, r); err != nil {
			return err
		}
		return p.found(ctx, r)
	})
}

func (p *placing) found(ctx context.Context, r *RunState) error {
	if err := p.find(ctx, r); err != nil {
		return err
	}
	if r.State == RunLoaded || r.State == RunWaiting {
		r.State = RunFound
	}
	return nil
}

// TestCut cuts a small square and a triangle in a free corner of a sheet, as a job: with the
// settings of its stock, before the sheet itself. Its errors are those of Load.
func (m *machining) TestCut(ctx context.Context, id string, opt sheet.Options, number int) (Job, error) {
	return m.bring(ctx, id, opt, number, TestJob, func(ctx context.Context, p *placing, r *RunState) error {
		if !p.onMat(false) || r.State != RunFound {
			*r = RunState{State: RunLoaded, Job: r.Job}
			if err := p.load(ctx, r); err != nil {
				return err
			}
			if err := p.found(ctx, r); err != nil {
				return err
			}
		}
		passes, _, ok := cut.Test(p.sh.Sheet, p.sh.Settings, r.Tests)
		if !ok {
			return &card.Refusal{Field: "sheet", Why: "There is no free corner left on this sheet for a test cut."}
		}
		if hand, ok := p.hand(); ok && !m.fitted.is(p.state, int(cut.Blade)) {
			if err := hand.Fit(ctx, int(cut.Blade)); err != nil {
				return err
			}
		}
		m.fitted.set(int(cut.Blade))
		r.Tests++
		steps := hpgl.Steps(cut.Move(passes, r.Lies.At), p.state.Bed[1])
		if err := m.machine.now().Run(ctx, steps, func(int) error { return nil }); err != nil {
			return err
		}
		p.show(ctx, r)
		p.update(func(j *Job) {
			j.Note = "The test is cut. Lift it off: square corners mean that the blade trails by what is set, a clean edge that the force is right."
		})
		return nil
	})
}

// doing says what a job of a kind does with a sheet at the cutter.
var doing = map[JobKind]string{
	LoadJob: "Sheet %d of “%s” is being put on the cutting mat.",
	FindJob: "The marks of sheet %d of “%s” are being looked for.",
	TestJob: "A test is being cut on sheet %d of “%s”.",
}

// bring starts a job about a sheet at the cutter, and notes what becomes of its run.
// ErrBusy while something is under way at the cutter.
func (m *machining) bring(ctx context.Context, id string, opt sheet.Options, number int, kind JobKind, do func(context.Context, *placing, *RunState) error) (Job, error) {
	p, err := m.placing(ctx, id, opt, number)
	if err != nil {
		return Job{}, err
	}
	if err := p.canLoad(); err != nil {
		return Job{}, err
	}
	free, err := m.machine.reserve(fmt.Sprintf(doing[kind], number, p.title))
	if err != nil {
		return Job{}, err
	}
	return m.jobs.start(Job{Kind: kind, Card: id, Sheet: number}, func(ctx context.Context, update func(func(*Job))) error {
		defer free()
		p.update = update
		r, err := m.outcomes.runState(ctx, p.key)
		if err != nil {
			return err
		}
		update(func(j *Job) { r.Job = j.ID })
		err = do(ctx, p, &r)
		return errors.Join(err, m.outcomes.setRun(ctx, p.key, r, true))
	}), nil
}

// Unload takes the sheet off the mat of a stand-in. It returns a *card.Refusal for a cutter
// that is no stand-in, and ErrBusy when it is at work.
func (m *machining) Unload(ctx context.Context) error {
	hand, ok := m.machine.now().(Hand)
	if !ok || !m.CutterState(ctx).Hand {
		return &card.Refusal{Field: "cutter", Why: "Take the sheet off the cutting mat by hand."}
	}
	free, err := m.machine.reserve("A sheet is being taken off the cutting mat.")
	if err != nil {
		return err
	}
	defer free()
	m.outcomes.runs.begun("none")
	return hand.TakeOff(ctx)
}

// Mishap lets something go wrong at a stand-in. It returns a *card.Refusal for a cutter that
// is no stand-in.
func (m *machining) Mishap(ctx context.Context, which Mishap) error {
	hand, ok := m.machine.now().(Hand)
	if !ok || m.CutterState(ctx).State == CutterAway {
		return &card.Refusal{Field: "cutter", Why: "Only a stand-in has mishaps on demand."}
	}
	return hand.Mishap(ctx, which)
}

// fitted is the tool that a person has put into the holder last, where the cutter does
// not tell.
type fitted struct {
	mu   sync.Mutex
	tool int
}

func (f *fitted) is(state CutterState, tool int) bool {
	if state.Tool != 0 {
		return state.Tool == tool
	}
	f.mu.Lock()
	defer f.mu.Unlock()
	return f.tool == tool
}

func (f *fitted) set(tool int) {
	f.mu.Lock()
	defer f.mu.Unlock()
	f.tool = tool
}

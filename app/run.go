package app

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/json"
	"errors"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"sync"
	"time"

	"sectilis/core/card"
	"sectilis/core/cut"
	"sectilis/core/format/hpgl"
	"sectilis/core/format/raster"
	"sectilis/core/geom"
	"sectilis/core/marks"
	"sectilis/core/sheet"
)

// RunState is where the run of a sheet stands.
type RunState struct {
	State   string `json:"state"` // waiting, cutting, done, stopped or failed
	Job     string `json:"job,omitempty"`
	Picture string `json:"picture,omitempty"` // of the result, relative to /api
	Why     string `json:"why,omitempty"`
	// Done of Of steps are cut, on a sheet that lies as told. A run that was broken off
	// can go on from there as long as the sheet is not moved.
	Done   int          `json:"done"`
	Of     int          `json:"of"`
	Lies   *marks.Found `json:"lies,omitempty"`
	result []byte
}

// broken says that a run can go on.
func (s RunState) broken() bool {
	return (s.State == "stopped" || s.State == "failed") && s.Done > 0 && s.Done < s.Of && s.Lies != nil
}

// runs remembers runs by what was cut, so that a sheet that has changed since
// is waiting again.
type runs struct {
	mu sync.Mutex
	m  map[string]RunState
	// printed is where the printed front of a sheet is found at the printer.
	printed map[string]string
	// last is the run that was begun last: its sheet is the one on the mat. It is
	// empty after a restart.
	last string
}

func key(id string, sh sheet.Sheet) string {
	h := sha256.New()
	fmt.Fprintf(h, "%s %d %s %s", id, sh.Number, sh.Stock.ID, sh.Size.ID)
	for _, p := range sh.Pieces {
		for _, l := range p.Lines {
			fmt.Fprintf(h, " %s %s", l.Role, l.Path)
		}
	}
	return fmt.Sprintf("%x", h.Sum(nil)[:12])
}

// runKey tells runs apart: what is cut another way is another run.
func runKey(id string, sh sheet.Sheet, with cut.Settings) string {
	h := sha256.Sum256(fmt.Appendf(nil, "%s %v", key(id, sh), with))
	return fmt.Sprintf("%x", h[:12])
}

// runState is where the run of a sheet stands, from memory or from disk.
func (a *App) runState(ctx context.Context, k string) RunState {
	a.runs.mu.Lock()
	defer a.runs.mu.Unlock()
	if s, ok := a.runs.m[k]; ok {
		return s
	}
	s := RunState{State: "waiting"}
	if raw, err := a.store.Run(ctx, k); err == nil && json.Unmarshal(raw, &s) == nil {
		s.Job, s.Picture = "", "" // those of a program that has ended
		if s.State == "cutting" {
			s.State, s.Why = "stopped", "The program ended while it was cutting."
		}
	}
	a.runs.m[k] = s
	return s
}

// setRun notes where a run stands, on disk too if it is to be kept.
func (a *App) setRun(ctx context.Context, k string, s RunState, keep bool) {
	a.runs.mu.Lock()
	a.runs.m[k] = s
	a.runs.mu.Unlock()
	if !keep {
		return
	}
	raw, err := json.Marshal(s)
	if err == nil {
		err = a.store.KeepRun(context.WithoutCancel(ctx), k, raw, a.now())
	}
	if err != nil {
		a.log.Warn("run not kept", "err", err)
	}
}

// CutterState is what the cutter says of itself now.
func (a *App) CutterState(ctx context.Context) CutterState {
	if a.cutter == nil {
		return CutterState{State: "away", Why: errNoCutter.Error()}
	}
	return a.cutter.State(ctx)
}

// RunPicture is the picture of a run's result.
func (a *App) RunPicture(k string) ([]byte, error) {
	a.runs.mu.Lock()
	defer a.runs.mu.Unlock()
	s, ok := a.runs.m[k]
	if !ok || s.result == nil {
		return nil, ErrNotFound
	}
	return s.result, nil
}

// Run cuts one sheet, as a job: a stand-in is given the sheet, marks are looked for,
// and what is cut is moved to where the sheet is found to lie.
//
// With goOn, a run that was broken off goes on from where it was.
func (a *App) Run(ctx context.Context, id string, opt sheet.Options, number int, goOn bool) (Job, error) {
	sh, _, err := a.sheetByNumber(ctx, id, opt, number)
	if err != nil {
		return Job{}, err
	}
	state := a.CutterState(ctx)
	if !state.Ready {
		return Job{}, &card.Refusal{Field: "cutter", Why: "The cutter is not ready: " + state.Why}
	}
	if sh.Size.Width > state.Bed[0]+1e-6 || sh.Size.Height > state.Bed[1]+1e-6 {
		return Job{}, &card.Refusal{Field: "sheet", Why: fmt.Sprintf("The sheet is %g × %g mm; %s reaches %g × %g mm.",
			sh.Size.Width, sh.Size.Height, state.Name, state.Bed[0], state.Bed[1])}
	}
	k := runKey(id, sh.Sheet, sh.Settings)
	was := a.runState(ctx, k)
	if goOn && !was.broken() {
		return Job{}, &card.Refusal{Field: "sheet", Why: fmt.Sprintf("The run of sheet %d was not broken off; cut it from the start.", number)}
	}
	if last := a.runs.begun(""); goOn && (last != "" && last != k || state.Hand && !state.Loaded) {
		return Job{}, &card.Refusal{Field: "sheet", Why: fmt.Sprintf("Sheet %d does not lie on the cutting mat any more as it did; cut it from the start, on a new sheet.", number)}
	}
	page := ""
	if state.Hand && sh.Printed && !goOn {
		if page = a.runs.page(key(id, sh.Sheet)); page == "" {
			return Job{}, &card.Refusal{Field: "sheet", Why: fmt.Sprintf("Print sheet %d first: its marks tell the cutter where it lies.", number)}
		}
	}
	return a.jobs.start(Job{Kind: "run", Card: id, Sheet: number}, func(ctx context.Context, update func(func(*Job))) error {
		r := RunState{State: "cutting"}
		update(func(j *Job) { r.Job = j.ID })
		var err error
		if goOn {
			r.Done, r.Of, r.Lies = was.Done, was.Of, was.Lies
			update(func(j *Job) { j.Lies = r.Lies })
		} else {
			a.runs.begun(k)
			a.setRun(ctx, k, r, false)
			var lies marks.Found
			lies, err = a.place(ctx, sh.Sheet, state, page, update)
			r.Lies = &lies
		}
		if err == nil {
			err = a.cut(ctx, sh, &r, k, state, update)
		}
		r.State = "done"
		if err != nil {
			r.State, r.Why = "failed", err.Error()
			if errors.Is(err, context.Canceled) {
				r.State, r.Why = "stopped", ""
			}
		}
		// What was cut until then is worth seeing, however the run ended.
		if raw, perr := a.cutter.Picture(context.WithoutCancel(ctx)); perr == nil {
			r.result, r.Picture = raw, "runs/"+k+".png?v="+r.Job // another picture, another address
			update(func(j *Job) { j.Pictures = []string{r.Picture} })
		} else {
			a.log.Warn("no picture of the bed", "err", perr)
		}
		a.setRun(ctx, k, r, true)
		return err
	}), nil
}

// place puts the sheet on the mat of a stand-in and finds how it lies, in mm from the
// upper left corner of the bed. Without marks, or without an eye, it lies where it
// belongs.
func (a *App) place(ctx context.Context, sh sheet.Sheet, state CutterState, page string, update func(func(*Job))) (marks.Found, error) {
	// A sheet that fills the bed has no room at its corner.
	belongs := geom.Shift(min(state.Corner[0], state.Bed[0]-sh.Size.Width), max(0, state.Bed[1]-state.Corner[1]-sh.Size.Height))
	expect := marks.Found{At: belongs}
	if state.Hand {
		update(func(j *Job) { j.Note = "Putting the sheet on the cutting mat" })
		raw, err := a.onMat(ctx, sh, page)
		if err == nil {
			err = a.cutter.LayDown(ctx, raw, sh.Size.Width)
		}
		if err != nil {
			return expect, err
		}
	}
	if len(sh.Marks) == 0 || !state.Eye {
		return expect, nil
	}
	update(func(j *Job) { j.Note = "Looking for the marks" })
	drawn := make([]marks.Mark, len(sh.Marks))
	for i, m := range sh.Marks {
		drawn[i] = marks.Mark{At: m.At, Second: m.Second}
	}
	found, err := marks.Find(ctx, a.cutter, drawn, marks.Shape{Ring: sheet.MarkRing, Stroke: sheet.MarkStroke, Dot: sheet.MarkDot}, belongs)
	if err != nil {
		return expect, err
	}
	update(func(j *Job) { j.Note, j.Lies = "", &found })
	return found, nil
}

// onMat is the sheet as a stand-in is given it: as it came from the printer, or bare.
func (a *App) onMat(ctx context.Context, sh sheet.Sheet, page string) ([]byte, error) {
	if page != "" {
		return a.printer.Picture(ctx, page)
	}
	const perMM = 2.0
	bare := image.NewPaletted(image.Rect(0, 0, int(sh.Size.Width*perMM), int(sh.Size.Height*perMM)), color.Palette{raster.Colour(sh.Stock.Colour)})
	var b bytes.Buffer
	if err := png.Encode(&b, bare); err != nil {
		return nil, fmt.Errorf("encode sheet: %w", err)
	}
	return b.Bytes(), nil
}

// keepEvery is how often it is noted on disk how far a run has come.
const keepEvery = 500 * time.Millisecond

// cut sends the passes of the sheet, which lies as the run tells, to the cutter, from
// where the run is.
func (a *App) cut(ctx context.Context, sh SheetView, r *RunState, k string, state CutterState, update func(func(*Job))) error {
	moved := sh.Moved(r.Lies.At)
	moved.Size.Height = state.Bed[1]
	passes := cut.Plan(moved, sh.Settings)
	steps := hpgl.Steps(passes, state.Bed[1])
	total, seconds := steps[len(steps)-1].Run, 0.0
	for _, p := range passes {
		seconds += p.Seconds
	}
	back, _ := r.Lies.At.Inverse() // what was fitted or shifted has one
	at := geom.Pt(0, sh.Size.Height)
	first := r.Done
	r.Of = len(steps)
	a.setRun(ctx, k, *r, true)
	kept := a.now()
	return a.cutter.Run(ctx, hpgl.After(steps, passes, first), func(n int) {
		i := first + n
		s := steps[i]
		if i == 0 || s.Run > steps[i-1].Run {
			at = back.Apply(reached(passes, s))
		}
		r.Done = i + 1
		now := a.now()
		keep := now.Sub(kept) >= keepEvery
		if keep {
			kept = now
		}
		a.setRun(ctx, k, *r, keep)
		share := s.Run / total
		update(func(j *Job) {
			j.Progress = share
			j.Run = &RunInfo{s.Pass, s.Path, at.X, at.Y, seconds * (1 - share)}
		})
	})
}

// begun notes the run that is begun, if any is named, and tells which was last.
func (r *runs) begun(k string) string {
	r.mu.Lock()
	defer r.mu.Unlock()
	if k != "" {
		r.last = k
	}
	return r.last
}

// page is where the printed sheet is found, or "".
func (r *runs) page(k string) string {
	r.mu.Lock()
	defer r.mu.Unlock()
	return r.printed[k]
}

func (r *runs) cameOut(k, ref string) {
	r.mu.Lock()
	defer r.mu.Unlock()
	r.printed[k] = ref
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
